"""The view Brief: the form, and where it is asked for what each trust floor costs."""

from dataclasses import dataclass

from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.brief.pages.brief_form import BriefForm, brief_form
from wattmetron.places.games.pages.required import tier_words
from wattmetron.places.proposal.pages.trust_panel import TrustRow, trust_rows


@dataclass(frozen=True, slots=True, kw_only=True)
class BriefView:
    """The form, with what could not be taken still in it, and the costs of trust."""

    form: BriefForm
    trust_rows: tuple[TrustRow, ...]


def _content(context: ViewContext) -> BriefView:
    catalogue, plan = context.catalogue, context.opened.plan
    words = tier_words(catalogue, plan.brief)
    return BriefView(
        form=brief_form(catalogue, plan.brief, context.drafts, words),
        trust_rows=trust_rows(catalogue, plan.brief, plan.build) if context.query.trust else (),
    )


BRIEF_FORM = ViewSpec(
    name="brief",
    title="Brief",
    key="0",
    template="places/brief/pages/brief.html",
    make=_content,
    lists_targets=True,
)
