"""Watches: a price that one waits for, of a part or of the list of a brief."""

from dataclasses import dataclass, replace
from datetime import date

from wattmetron.core.errors import BriefError

MOST_WATCHES = 200


@dataclass(frozen=True, slots=True, kw_only=True)
class Watch:
    """A price in minor units at or below which one wants to be told: of a part in a region, or,
    without a part, of what the list of a brief costs. ``seen_minor`` is the price at which it was
    put away last.
    """

    part_id: str = ""
    brief_id: int = 0
    region: str
    used: bool = False
    below_minor: int
    made_on: date
    why: str = ""
    seen_minor: int | None = None

    @property
    def key(self) -> str:
        """What it watches: one watch for each."""
        return f"{self.part_id or self.brief_id} {self.region} {'used' if self.used else 'new'}"

    def fires_at(self, minor: int | None) -> bool:
        """Whether a price is low enough and lower than when it was put away."""
        if minor is None or minor > self.below_minor:
            return False
        return self.seen_minor is None or minor < self.seen_minor


def with_watch(watches: tuple[Watch, ...], watch: Watch) -> tuple[Watch, ...]:
    """With one more watch, or with another price for what is watched already; raises BriefError."""
    if watch.below_minor <= 0:
        raise BriefError("A price to wait for is above 0: enter one.")
    others = without_watch(watches, watch.key)
    if len(others) >= MOST_WATCHES:
        raise BriefError(f"There are {MOST_WATCHES} watches already: take one out first.")
    return (*others, watch)


def without_watch(watches: tuple[Watch, ...], key: str) -> tuple[Watch, ...]:
    return tuple(watch for watch in watches if watch.key != key)


def put_away(watches: tuple[Watch, ...], key: str, minor: int) -> tuple[Watch, ...]:
    """With a watch put away at a price: it fires again below that."""
    return tuple(
        replace(watch, seen_minor=minor) if watch.key == key else watch for watch in watches
    )
