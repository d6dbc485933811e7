"""Which preferences of a brief are granted, one after the other, and what each costs."""

from dataclasses import dataclass, replace
from math import exp

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.answer import Aim
from wattmetron.core.search.proposal import BAND, propose
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.preferences import USUAL_SHARE, Preference
from wattmetron.core.values.wishes import insisting


@dataclass(frozen=True, slots=True, kw_only=True)
class Granted:
    """A preference and what the answer with it costs more (minor units), the share of frames and
    the weight of targets that it loses, all against the answer before it; None where nothing fits
    with it.
    """

    preference: Preference
    granted: bool
    cost_minor: int | None
    frames_lost: float = 0.0
    weight_lost: int = 0


def most_minor(brief: Brief) -> int:
    """What each preference may cost, minor units."""
    return (
        round(USUAL_SHARE * brief.budget_high_minor)
        if brief.preference_minor is None
        else brief.preference_minor
    )


def grant(
    catalogue: Catalogue,
    brief: Brief,
    fixed: Build,
    aim: Aim = "most frames",
    present: Build | None = None,
) -> tuple[Brief, tuple[Granted, ...]]:
    """The brief with its granted preferences as floors and the others let go, and each with its
    price.

    In the order of the brief each is granted where the answer with it and with those granted before
    costs no more than ``most_minor`` on top, meets as much weight and loses no more than the band
    of 2 % of U. By the other aims frames above what must be kept do not count. Where nothing fits
    even without any, none is granted.
    """
    granted_brief, granteds = replace(brief, preferences=()), []
    if not brief.preferences:
        return granted_brief, ()
    before = propose(catalogue, granted_brief, aim, fixed, present=present)
    for preference in brief.preferences:
        insisted = insisting(granted_brief, preference)
        after = propose(catalogue, insisted, aim, fixed, present=present)
        if before.build is None or after.build is None:
            granteds.append(Granted(preference=preference, granted=False, cost_minor=None))
            continue
        cost, weight = after.cost_minor - before.cost_minor, before.weight_met - after.weight_met
        lost = 0 if aim != "most frames" else before.gain - after.gain
        granted = cost <= most_minor(brief) and weight <= 0 and lost <= BAND
        granteds.append(
            Granted(
                preference=preference,
                granted=granted,
                cost_minor=cost,
                frames_lost=1 - exp(-lost / 1e6),
                weight_lost=weight,
            )
        )
        if granted:
            granted_brief, before = insisted, after
    return granted_brief, tuple(granteds)
