"""Briefs as they are opened and listed."""

from dataclasses import dataclass
from datetime import datetime

from wattmetron.core.values.brief import Target
from wattmetron.core.values.plan import Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class Opened:
    """A brief as stored, with the plan before the last change for ghosts, and what undo and redo
    would do.
    """

    id: int
    version: int
    plan: Plan
    before: Plan | None
    undo: str | None
    redo: str | None
    changed_at: datetime
    lost_region: str = ""
    lost_targets: tuple[Target, ...] = ()
    """Targets whose games the catalogue no longer has; the plan is without them."""


@dataclass(frozen=True, slots=True)
class ListedBrief:
    """A brief in the list."""

    id: int
    version: int
    plan: Plan
    changed_at: datetime


@dataclass(frozen=True, slots=True)
class UnreadableBrief:
    """A brief that cannot be read."""

    id: int
    version: int
