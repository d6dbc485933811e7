"""What first, as a table of steps to try."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from wattmetron.core.balance.what_first import Change
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.words import listed
from wattmetron.services.advice.first import Gained, what_first
from wattmetron.services.desk.assess import Assessment
from wattmetron.services.words.figures import money


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


def cost_words(minor: int, currency: str) -> str:
    """What a step costs, or what it saves."""
    return money(minor, currency) if minor >= 0 else f"saves {money(-minor, currency)}"


def due_words(brief: Brief, together_minor: int) -> str:
    """When the money set aside has paid so much; empty where the brief sets none aside."""
    if brief.upgrade_minor is None:
        return ""
    periods = -(-together_minor // brief.upgrade_minor)
    if periods <= 0:
        return "now"
    return f"after {periods} {brief.upgrade_every}{'' if periods == 1 else 's'}"


def changed_names(
    catalogue: Catalogue, changes: Iterable[Change], what: Literal["bought", "left"]
) -> list[str]:
    """Names of the parts that changes buy, or of those that they leave over."""
    ids = (part_id for change in changes for part_id in getattr(change, what))
    parts = catalogue.parts
    return [parts[part_id].name if part_id in parts else part_id for part_id in ids]


def gain_words(gained: Sequence[Gained], cleared: int) -> str:
    """What a step brings: findings that block cleared, and frames."""
    clears = ["nothing blocks any more"] if cleared else []
    return listed([*clears, *(_gain(own) for own in gained)]) or "the same frames"


def _gain(own: Gained) -> str:
    before = "" if own.before_fps is None else f"{own.before_fps:.0f} to "
    return f"{own.game} {before}{own.after_fps:.0f}\u202ffps ({own.state})"
