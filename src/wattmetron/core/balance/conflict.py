"""Wishes that cannot all be granted: a set from which none can be left out."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import cheapest_fit
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.wishes import wishes_held, without


def can_hinder(brief: Brief, wish: Declared) -> bool:
    """Whether letting a wish go can let more builds through: undervolted parts want less of
    everything.
    """
    return not (wish.name == "clocks" and brief.clocks == "undervolted")


def conflict(
    catalogue: Catalogue, brief: Brief, fixed: Build, most_minor: int | None = None
) -> tuple[Declared, ...] | None:
    """Wishes that no build grants together, none of which can be left out; None where a build
    grants all.

    With ``most_minor`` the build must also cost no more than that. An empty set says that nothing
    fits even without any wish. One wish after the other is let go for good where the others still
    conflict (deletion filter).
    """

    def grants(brief: Brief) -> bool:
        proposal = cheapest_fit(catalogue, brief, fixed, video_memory=not brief.accept_spill)
        return proposal.build is not None and (
            most_minor is None or proposal.cost_minor <= most_minor
        )

    if grants(brief):
        return None
    left = tuple(wish for wish in wishes_held(brief) if can_hinder(brief, wish))
    gone: tuple[Declared, ...] = ()
    for wish in left:
        if not grants(without(brief, (*gone, wish))):
            gone = (*gone, wish)
    return tuple(wish for wish in left if wish not in gone)


@dataclass(frozen=True, slots=True)
class Relaxed:
    """Why no build grants all wishes, and what would do.

    ``conflicts`` are sets of wishes of which no build grants all and of which none can be left out;
    a set of one is a wish that nothing grants. ``dropped`` is a smallest set of wishes without
    which something fits, ``cost_minor`` what the cheapest build then costs.
    """

    conflicts: tuple[tuple[Declared, ...], ...]
    dropped: tuple[Declared, ...]
    cost_minor: int

    @property
    def alone(self) -> tuple[Declared, ...]:
        """The wishes that nothing grants, whatever else is wished."""
        return tuple(
            each_conflict[0] for each_conflict in self.conflicts if len(each_conflict) == 1
        )


def relaxed(catalogue: Catalogue, brief: Brief, build: Build) -> Relaxed | None:
    """The smallest set of wishes to let go so that something fits; None where nothing fits even
    without any wish.

    Implicit hitting sets (Reiter 1987): a smallest set that meets every known conflict is let go;
    where a conflict is left it joins them, else no smaller set would do, since every set that does
    meets every conflict.
    """
    conflicts: list[tuple[Declared, ...]] = []
    while True:
        dropped = smallest_hitting(conflicts)
        bare = without(brief, dropped)
        wishes = conflict(catalogue, bare, build)
        if wishes is None:
            fit = cheapest_fit(catalogue, bare, build, video_memory=not bare.accept_spill)
            return Relaxed(tuple(conflicts), dropped, fit.cost_minor)
        if not wishes:
            return None
        conflicts.append(wishes)


def smallest_hitting(conflicts: Sequence[tuple[Declared, ...]]) -> tuple[Declared, ...]:
    """A set of fewest wishes that has one of each conflict, the first in their order."""
    wishes = tuple(dict.fromkeys(wish for each_conflict in conflicts for wish in each_conflict))
    return next(
        chosen
        for size in range(len(wishes) + 1)
        for chosen in combinations(wishes, size)
        if all(any(wish in chosen for wish in each_conflict) for each_conflict in conflicts)
    )
