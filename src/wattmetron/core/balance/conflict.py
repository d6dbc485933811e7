"""Wishes that cannot all be granted: a set from which none can be left out."""

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
    catalogue: Catalogue, brief: Brief, kept: Build, most_minor: int | None = None
) -> tuple[Declared, ...] | None:
    """Wishes that no build grants together, none of which can be left out; None where a build
    grants all.

    With ``most_minor`` the build must also cost no more than that. An empty set says that nothing
    fits even without any wish. One wish after the other is let go for good where the others still
    conflict (deletion filter).
    """

    def grants(asked: Brief) -> bool:
        proposal = cheapest_fit(catalogue, asked, kept, video_memory=not asked.accept_spill)
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
