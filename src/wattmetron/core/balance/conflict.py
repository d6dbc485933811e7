"""Wishes that cannot all be granted: a set from which none can be left out."""

from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import cheapest_fit
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build


@dataclass(frozen=True, slots=True)
class Wish:
    """A wish of the brief that can be let go: the field that holds it and its value without the
    wish.
    """

    name: str
    field: str
    without: Any


WISHES: tuple[Wish, ...] = (
    Wish("part price cap", "part_cap_minor", None),
    Wish("trust floor", "trust_floor", "anything"),
    Wish("limit in watts", "watt_limit_w", None),
    Wish("least memory", "memory_gb", 0.0),
    Wish("least storage", "storage_gb", 0.0),
    Wish("supply headroom", "headroom_percent", 100),
    Wish("excluded makers", "no_makers", ()),
    Wish("excluded parts", "banned", ()),
    Wish("makers to buy from", "only_of", ()),
    Wish("colour", "colour", ""),
    Wish("limit of noise", "noise_limit_dba", None),
    Wish("largest case", "volume_limit_l", None),
    Wish("wireless", "wireless", False),
    Wish("room to grow", "room_to_grow", False),
    Wish("new parts only", "allow_used", True),
    Wish("clocks", "clocks", "as shipped"),
    Wish("other work", "work", ()),
    Wish("enough video memory", "accept_spill", True),
)


def wishes_held(brief: Brief) -> tuple[Wish, ...]:
    """The wishes that a brief makes."""
    return tuple(wish for wish in WISHES if getattr(brief, wish.field) != wish.without)


def without(brief: Brief, wishes: tuple[Wish, ...]) -> Brief:
    """The brief with these wishes let go."""
    return replace(brief, **{wish.field: wish.without for wish in wishes})


def conflict(
    catalogue: Catalogue, brief: Brief, kept: Build, most_minor: int | None = None
) -> tuple[Wish, ...] | None:
    """Wishes that no build grants together, none of which can be left out; None where a build
    grants all.

    With ``most_minor`` the build must also cost no more than that. An empty set says that nothing
    fits even without any wish. One wish after the other is let go for good where the others still
    conflict (deletion filter).
    """

    def grants(asked: Brief) -> bool:
        found = cheapest_fit(catalogue, asked, kept, video_memory=not asked.accept_spill)
        return found.build is not None and (most_minor is None or found.cost_minor <= most_minor)

    if grants(brief):
        return None
    left = wishes_held(brief)
    gone: tuple[Wish, ...] = ()
    for wish in left:
        if not grants(without(brief, (*gone, wish))):
            gone = (*gone, wish)
    return tuple(wish for wish in left if wish not in gone)
