"""Steps from one machine to another in words: what they cost, bring, and when they fall due."""

from collections.abc import Iterable, Sequence
from typing import Literal

from wattmetron.core.balance.upgrade_order import PartChange
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.words import listed
from wattmetron.places.proposal.upgrade_first import Gained
from wattmetron.words.figures import money


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
    catalogue: Catalogue, changes: Iterable[PartChange], what: Literal["bought", "left"]
) -> list[str]:
    """Names of the parts that changes buy, or of those that they leave over."""
    ids = (part_id for change in changes for part_id in getattr(change, what))
    parts = catalogue.parts
    return [parts[part_id].name if part_id in parts else part_id for part_id in ids]


def gain_words(gained: Sequence[Gained], cleared: int) -> str:
    """What a step brings: findings that block cleared, and frames."""
    clears = ["nothing blocks any more"] if cleared else []
    return listed([*clears, *(_gain(gain) for gain in gained)]) or "the same frames"


def _gain(gain: Gained) -> str:
    before = "" if gain.before_fps is None else f"{gain.before_fps:.0f} to "
    return f"{gain.game} {before}{gain.after_fps:.0f}\u202ffps ({gain.state})"
