"""Better lists out of one that was sent: under a choice of aim, in groups that can be left."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

from wattmetron.core.balance.upgrade_order import (
    PartChange,
    UpgradeStep,
    steps_between,
    with_changes,
)
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.balance.balance_words import mean_change
from wattmetron.places.proposal.preference_answers import preference_lines, settled
from wattmetron.places.proposal.proposals import answer, kept_parts
from wattmetron.words.improvements import Way

LEAST_GAIN = 0.01


@dataclass(frozen=True, slots=True, kw_only=True)
class Improved:
    """A better list: the build, its groups of changes in the order in which they bring most, those
    that are left out, those that had to come along although they were to be left, the machine with
    what is taken, and what became of the preferences.
    """

    way: Way
    whole: Assessment
    steps: tuple[UpgradeStep, ...]
    left: frozenset[int]
    along: frozenset[int]
    taken: Assessment
    wishes: tuple[str, ...]

    def after_each(self, catalogue: Catalogue, now: Assessment) -> list[Assessment]:
        """The machine after each group, all before it taken."""
        places = range(1, len(self.steps) + 1)
        return [_with(catalogue, now, self.whole, self.steps[:n], frozenset()) for n in places]


def improved(
    catalogue: Catalogue, now: Assessment, way: Way, left: Iterable[int] = ()
) -> Improved | None:
    """The list made better in one of the ways, without the groups that are to be left; None where
    nothing within the brief is better.
    """
    assessments = catalogue.ask(_whole, now.brief, now.build, way)
    if assessments is None:
        return None
    whole, steps, wishes = assessments
    wanted = frozenset(index for index in left if 0 <= index < len(steps))
    along = _along(catalogue, now, whole, steps, wanted)
    taken = _with(catalogue, now, whole, steps, wanted - along)
    return Improved(
        way=way,
        whole=whole,
        steps=steps,
        left=wanted - along,
        along=along,
        taken=taken,
        wishes=wishes,
    )


def _whole(
    catalogue: Catalogue, brief: Brief, build: Build, way: Way
) -> tuple[Assessment, tuple[UpgradeStep, ...], tuple[str, ...]] | None:
    now, wanted = assess(catalogue, brief, build), brief
    if way == "same money":
        wanted = replace(brief, budget_low_minor=0, budget_high_minor=max(1, now.spent_minor))
    aim: Literal["same frames", "most frames"] = (
        "same frames" if way == "same frames" else "most frames"
    )
    proposal = answer(catalogue, wanted, now.build, aim)
    if proposal.proposal.build is None:
        return None
    whole = assess(catalogue, brief, proposal.proposal.build)
    steps = steps_between(catalogue, brief, now.build, whole.build)
    if not steps:
        return None
    if way == "few":
        steps = _fewest(catalogue, now, whole, steps)
        whole = _with(catalogue, now, whole, steps, frozenset())
    if not _better(now, whole):
        return None
    fixed = kept_parts(catalogue, wanted, now.build)
    wishes = preference_lines(brief, settled(catalogue, wanted, fixed, aim)[1], now.currency)
    return whole, steps, tuple(wishes)


def _fewest(
    catalogue: Catalogue, now: Assessment, whole: Assessment, steps: tuple[UpgradeStep, ...]
) -> tuple[UpgradeStep, ...]:
    """The first steps up to the one at which the gain for each part changed is greatest, among
    those after which nothing blocks and the money suffices.
    """
    best, rate = steps, float("-inf")
    changed = 0
    for n, step in enumerate(steps, 1):
        changed += sum(len(change.bought) or 1 for change in step.changes)
        after = _with(catalogue, now, whole, steps[:n], frozenset())
        if after.blocking or after.missing or after.left_minor < min(0, now.left_minor):
            continue
        efficiency = gain(now, after) / changed
        if efficiency > rate:
            best, rate = steps[:n], efficiency
    return best


def _better(now: Assessment, then: Assessment) -> bool:
    """Whether a list is better: more of what is wanted, the same for less, or what keeps to a brief
    to which the present one does not.
    """
    gained = gain(now, then)
    cheaper = then.spent_minor < now.spent_minor and gained > -LEAST_GAIN
    return gained > LEAST_GAIN or cheaper or bool(now.floors or now.unpriced)


def gain(now: Assessment, after: Assessment) -> float:
    """What a change brings, to be compared: targets met, a machine that runs at last, and the mean
    change of the frame rates; 1 for a target.
    """
    runs = float(not after.blocking and not after.missing) - float(
        not now.blocking and not now.missing
    )
    frames = mean_change(now, after) if now.counted and not now.missing else 0.0
    return after.met - now.met + runs + frames


def _with(
    catalogue: Catalogue,
    now: Assessment,
    whole: Assessment,
    steps: tuple[UpgradeStep, ...],
    left: frozenset[int],
) -> Assessment:
    changes: list[PartChange] = [
        change for n, step in enumerate(steps) if n not in left for change in step.changes
    ]
    return assess(catalogue, now.brief, with_changes(now.build, whole.build, changes))


def _along(
    catalogue: Catalogue,
    now: Assessment,
    whole: Assessment,
    steps: tuple[UpgradeStep, ...],
    left: frozenset[int],
) -> frozenset[int]:
    """Of the groups to be left those without which the others make no machine that runs: as few as
    do, the first that does.
    """
    along: set[int] = set()
    if len(left) == len(steps):
        return frozenset()
    while _breaks(_with(catalogue, now, whole, steps, left - along)):
        open_ones = sorted(left - along)
        if not open_ones:
            break
        cures = (
            open_one
            for open_one in open_ones
            if not _breaks(_with(catalogue, now, whole, steps, left - along - {open_one}))
        )
        along.add(next(cures, open_ones[0]))
    return frozenset(along)


def _breaks(assessment: Assessment) -> bool:
    return bool(assessment.blocking or assessment.missing)
