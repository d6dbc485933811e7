"""What first, as a table of steps to try."""

from collections.abc import Callable
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.assessment.pages.view_spec import ViewContext
from wattmetron.places.proposal.step_words import (
    changed_names,
    cost_words,
    due_words,
    gain_words,
)
from wattmetron.places.proposal.upgrade_first import what_first


@dataclass(frozen=True, slots=True, kw_only=True)
class FirstRow:
    """A step: what is bought, its cost and that of all so far, how many targets are met then and
    that in words, what it brings, what is left over, when the money set aside for upgrades has paid
    it, and the address that tries it.
    """

    parts: str
    costs: str
    together: str
    met_then: int
    met: str
    brings: str
    left: str
    due: str
    url: str


def first_rows(
    catalogue: Catalogue, now: Assessment, then: Assessment | None, trial: Callable[[Build], str]
) -> tuple[FirstRow, ...]:
    """The steps from the present build to another."""
    count = len(now.counted)
    return tuple(
        FirstRow(
            parts=listed(changed_names(catalogue, step.changes, "bought")) or "taken out",
            costs=cost_words(step.cost_minor, now.currency),
            together=cost_words(step.together_minor, now.currency),
            met_then=step.met,
            met=f"{step.met} of {count}",
            brings=gain_words(step.gained, step.cleared),
            left=listed(changed_names(catalogue, step.changes, "left")) or "nothing",
            due=due_words(now.brief, step.together_minor),
            url=trial(step.build),
        )
        for step in what_first(catalogue, now, then)
    )


def first_panel(context: ViewContext) -> tuple[FirstRow, ...]:
    """In which order the present machine becomes the one that is proposed or tried; one step alone
    says nothing that the trial does not.
    """
    if context.tried is None:
        return ()
    rows = first_rows(context.catalogue, context.present, context.tried, context.trial)
    return rows if len(rows) > 1 else ()
