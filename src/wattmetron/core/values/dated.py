"""Dated builds: a plan as it was on a day, and sets of them that are one thing."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import datetime

from wattmetron.core.errors import BriefError
from wattmetron.core.values.handout import LONGEST_OPENING
from wattmetron.core.values.plan import Plan

MOST_ENTRIES, LONGEST_NAME = 12, 80


@dataclass(frozen=True, slots=True, kw_only=True)
class Dated:
    """A plan as it was on a day: the catalogue's import of that day with its time (None: the day's
    catalogue is not here), and what was computed then, as JSON.
    """

    name: str
    made_at: datetime
    as_of: int | None
    imported_at: datetime | None
    plan: Plan
    figures: str


@dataclass(frozen=True, slots=True)
class BuildSet:
    """Dated builds that are published as one thing, with an opening."""

    name: str
    opening: str = ""
    entries: tuple[Dated, ...] = ()

    def told(self, name: str, opening: str) -> "BuildSet":
        """With another name and opening; raises BriefError."""
        name = " ".join(name.split())
        if not name or len(name) > LONGEST_NAME:
            raise BriefError(f"A set needs a name of at most {LONGEST_NAME} characters.")
        if len(opening) > LONGEST_OPENING:
            raise BriefError(
                f"The opening is longer than {LONGEST_OPENING:,} characters: shorten it."
            )
        return replace(self, name=name, opening=opening.strip())

    def adding(self, *entries: Dated) -> "BuildSet":
        """With more builds at the end; raises BriefError for too many."""
        if len(self.entries) + len(entries) > MOST_ENTRIES:
            raise BriefError(f"A set holds at most {MOST_ENTRIES} builds: take one out first.")
        return replace(self, entries=(*self.entries, *entries))

    def without(self, index: int) -> "BuildSet":
        return self._with(index, lambda others: others)

    def moved(self, index: int, where: str) -> "BuildSet":
        """With a build earlier or later by one place."""
        step = {"earlier": -1, "later": 1}.get(where, 0)

        def put(others: tuple[Dated, ...]) -> tuple[Dated, ...]:
            to = max(0, index + step)
            return (*others[:to], self.entries[index], *others[to:])

        return self._with(index, put)

    def renewed(self, index: int, entry: Dated) -> "BuildSet":
        """With another build in the place of one."""
        return self._with(index, lambda others: (*others[:index], entry, *others[index:]))

    def _with(
        self, index: int, put: Callable[[tuple[Dated, ...]], tuple[Dated, ...]]
    ) -> "BuildSet":
        self.entry(index)
        others = (*self.entries[:index], *self.entries[index + 1 :])
        return replace(self, entries=put(others))

    def entry(self, index: int) -> Dated:
        """The build in a place; raises BriefError where there is none."""
        if not 0 <= index < len(self.entries):
            raise BriefError("There is no such build in this set any more: load the page again.")
        return self.entries[index]
