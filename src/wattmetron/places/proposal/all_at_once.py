"""All targets asked for at once: how surely each is then asked for.

The search judges target by target. Where all are to be met at once with a chance, each is asked for
with the lowest sureness, in whole per cent from the brief's own up, with which the answer's targets
are met together so surely.
"""

from collections.abc import Callable
from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.answer import Aim
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.all_targets import together
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.words.figures import THIN, percent

SUREST_PERCENT = 99


def surer(catalogue: Catalogue, brief: Brief, fixed: Build, aim: Aim) -> Brief:
    """The brief with each target asked for as surely as all at once want it; the brief itself
    where that is not asked, or where no sureness of each does.
    """
    wanted = brief.together_percent
    if wanted is None or len(brief.counted_targets) < 2 or aim == "same frames":
        return brief
    each_percent = catalogue.ask(_sure_enough, brief, fixed, aim, wanted)
    return brief if each_percent is None else replace(brief, each_percent=each_percent)


def _sure_enough(
    catalogue: Catalogue, brief: Brief, fixed: Build, aim: Aim, wanted_percent: float
) -> int | None:
    """How surely each target is to be met, in per cent, that all are at once."""

    def chance(each_percent: int) -> float:
        """Of all targets at once with the answer that is asked for so; 0 where it misses one."""
        stricter = replace(brief, each_percent=each_percent)
        proposal = propose(catalogue, stricter, aim, fixed)
        whole = sum(target.weight for target in brief.targets)
        if proposal.build is None or proposal.weight_met < whole:
            return 0.0
        both = together(catalogue, assess(catalogue, stricter, proposal.build))
        return both.chance if both is not None else 0.0

    return least_that_does(chance, wanted_percent / 100, round(100 * brief.chance))


def least_that_does(chance: Callable[[int], float], wanted: float, least: int) -> int | None:
    """The per cent from ``least`` up with which the answer has the chance that is wanted while one
    less has not, found by halving; None where the least does already, or none that still meets
    every target does.
    """
    if not 0 < chance(least) < wanted:
        return None
    surest = SUREST_PERCENT
    if not chance(surest):
        surest = _last(lambda minimum: chance(minimum) > 0, least, surest)
    if chance(surest) < wanted:
        return None
    return _last(lambda minimum: chance(minimum) < wanted, least, surest) + 1


def _last(holds: Callable[[int], bool], low: int, high: int) -> int:
    """The last number from ``low``, which holds, to below ``high``, which does not."""
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low


def asked_words(catalogue: Catalogue, brief: Brief, assessment: Assessment) -> str:
    """How an answer stands to what was asked for all targets at once; empty where nothing was."""
    both = together(catalogue, assessment)
    if brief.together_percent is None or both is None:
        return ""
    wanted = f"{brief.together_percent}{THIN}%"
    if both.chance * 100 < brief.together_percent:
        return (
            f"All targets at once with {wanted} was asked and is not reached within the brief: this"
            f" build has {percent(both.chance)}."
        )
    if brief.each_percent is None:
        return f"That is what was asked: all at once with {wanted}."
    return (
        f"So that all are met at once with {wanted}, each target is asked for with"
        f" {brief.each_percent}{THIN}%."
    )
