"""The rest well spent, as a table to take from one by one."""

from collections.abc import Callable
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.assessment.pages.view_spec import ViewContext
from wattmetron.places.proposal.leftover_budget import rest_of
from wattmetron.places.proposal.no_answer import Answer
from wattmetron.words.figures import KIND_WORDS, money


@dataclass(frozen=True, slots=True, kw_only=True)
class RestRow:
    """A part to add or to take instead, what it costs more, why, and the address that tries it."""

    kind: str
    name: str
    instead_of: str
    costs: str
    reason: str
    url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class RestView:
    """What the money that is left could add; ``all_words`` and ``all_url`` for as much of it as the
    money pays together.
    """

    left: str
    rows: tuple[RestRow, ...]
    all_words: str
    all_url: str


def rest_view(
    catalogue: Catalogue, subject: Assessment | None, trial: Callable[[Build], str]
) -> RestView | None:
    """None where nothing is left or nothing would be added."""
    rest = None if subject is None else rest_of(catalogue, subject)
    if subject is None or rest is None or not rest.additions:
        return None
    currency = subject.currency
    rows = tuple(
        RestRow(
            kind=KIND_WORDS[addition.kind],
            name=addition.part.name,
            instead_of=catalogue.part(addition.instead_of).name if addition.instead_of else "",
            costs=money(addition.cost_minor, currency),
            reason=addition.reason,
            url=trial(addition.build),
        )
        for addition in rest.additions
    )
    several = len(rows) > 1 and rest.together_minor > 0
    words = (
        f"As many of these as the money pays for cost {money(rest.together_minor, currency)} more;"
        f" {money(rest.left_minor - rest.together_minor, currency)} would be left."
    )
    return RestView(
        left=money(rest.left_minor, currency),
        rows=rows,
        all_words=words if several else "",
        all_url=trial(rest.together) if several else "",
    )


def leftover_panel(context: ViewContext, proposed: Answer | None) -> RestView | None:
    """What could be added to the proposal, or in the Balance view to what is in the build or being
    tried.
    """
    if proposed is not None:
        return rest_view(context.catalogue, proposed.assessment, context.trial)
    if context.query.view != "balance":
        return None
    return rest_view(context.catalogue, context.shown, context.trial)
