"""How likely all targets of a brief are met at once."""

from typing import NamedTuple

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.joint_chance import chance_of_all
from wattmetron.core.values.parts import Processor
from wattmetron.places.assessment.assess import Assessment
from wattmetron.words.figures import THIN, percent

HEAVY = 2
"""Targets of this weight and more are looked at by themselves as well."""


class JointChance(NamedTuple):
    """The chance of all counted targets, how many they are, and the same of the heavy ones where
    these are several but not all.
    """

    chance: float
    targets: int
    heavy_chance: float | None
    heavy: int


def together(catalogue: Catalogue, now: Assessment) -> JointChance | None:
    """None with fewer than two targets, or where nothing runs."""
    chip = now.machine.processor
    if chip is None or len(now.counted) < 2:
        return None
    return catalogue.keep.once(
        ("together", now.brief, now.build), lambda: _together(catalogue, now, chip)
    )


def _together(catalogue: Catalogue, now: Assessment, chip: Processor) -> JointChance:
    counted = now.counted
    heavy = [estimate for estimate in counted if estimate.target.weight >= HEAVY]
    some = 1 < len(heavy) < len(counted)
    curves = curves_of(catalogue.keep)
    return JointChance(
        chance_of_all(counted, chip, curves),
        len(counted),
        chance_of_all(heavy, chip, curves) if some else None,
        len(heavy),
    )


def together_words(catalogue: Catalogue, now: Assessment) -> str:
    """One sentence; empty where there is nothing to say."""
    joint = together(catalogue, now)
    if joint is None:
        return ""
    heavy = (
        ""
        if joint.heavy_chance is None
        else f"; the {joint.heavy} that weigh {HEAVY} or more {percent(joint.heavy_chance)}"
    )
    return f"All {joint.targets} targets at once: chance {percent(joint.chance)}{heavy}."


def at_once_words(catalogue: Catalogue, now: Assessment) -> str:
    """``all at once 34 %``; empty where there is nothing to say."""
    joint = together(catalogue, now)
    if joint is None:
        return ""
    wanted = now.brief.together_percent
    of = "" if wanted is None else f" of {wanted}{THIN}%"
    return f"all at once {percent(joint.chance)}{of}"
