"""Promises against measurements: one target, and over all runs how honest the intervals were."""

from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import dataclass
from typing import Annotated

import numpy as np
from scipy.special import ndtr, ndtri

from wattmetron.core.frames.estimate import Estimate as Estimated
from wattmetron.core.frames.estimate import State, state_of
from wattmetron.core.runs.statistics import MeasuredRate
from wattmetron.core.values.fields import Column

RUN_TO_RUN_SD = 0.02
"""How much a rate differs from one run of the same to the next, in ln: the scene is never quite
alike.
"""
LEVELS = (0.2, 0.4, 0.5, 0.6, 0.8, 0.9, 0.95)
LEAST_IN_GROUP = 3
"""Fewer promises than these say nothing of how honest intervals are."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Promised:
    """What was estimated for a run's machine and settings when it was taken in: average and low in
    fps shown with the ends of their 80 % intervals, the share of frames limited by the processor,
    and on what the estimate rested.
    """

    average_fps: Annotated[float, Column("Average", "fps")]
    least_fps: Annotated[float, Column("Lower end of its 80 % interval", "fps")]
    most_fps: Annotated[float, Column("Upper end of its 80 % interval", "fps")]
    low_fps: Annotated[float, Column("1 % low", "fps")]
    processor_share: Annotated[float, Column("Share of frames limited by the processor")]
    evidence: Annotated[str, Column("What the estimate rested on")] = ""
    generated: Annotated[bool, Column("Whether generated frames are among those promised")] = False

    @property
    def ln_sd(self) -> float:
        return float(np.log(self.most_fps / self.least_fps) / (2 * ndtri(0.9)))


def promised(average: Estimated, evidence: str = "") -> Promised:
    """Of an estimate whose target is on the average."""
    return Promised(
        average_fps=average.judged_fps,
        least_fps=average.judged_low_fps,
        most_fps=average.judged_high_fps,
        low_fps=average.shown * average.low_fps,
        processor_share=average.processor_share,
        evidence=evidence,
        generated=average.generated,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class PredictionOutcome:
    """A target as measured: the rate over its runs in fps, its 80 % interval, the chance that the
    machine reaches the target, and what that comes to.
    """

    fps: float
    least_fps: float
    most_fps: float
    chance: float
    state: State
    runs: int


def kept(measured: Sequence[MeasuredRate], target_fps: float, sureness: float) -> PredictionOutcome:
    """A target against its runs, at least one."""
    ln = float(np.mean([np.log(estimate.fps) for estimate in measured]))
    variance = (
        sum(estimate.ln_sd**2 + RUN_TO_RUN_SD**2 for estimate in measured) / len(measured) ** 2
    )
    sd = float(np.sqrt(variance))
    chance = float(ndtr((ln - np.log(target_fps)) / sd))
    reach = float(ndtri(0.9)) * sd
    return PredictionOutcome(
        fps=float(np.exp(ln)),
        least_fps=float(np.exp(ln - reach)),
        most_fps=float(np.exp(ln + reach)),
        chance=chance,
        state=state_of(chance, sureness),
        runs=len(measured),
    )


@dataclass(frozen=True, slots=True)
class Outcome:
    """A promise with what was measured."""

    promised: Promised
    measured: MeasuredRate

    @property
    def away(self) -> float:
        """ln of the measured rate over the promised one."""
        return float(np.log(self.measured.fps / self.promised.average_fps))

    @property
    def score(self) -> float:
        """The same in spreads of the promise, the measurement's own error included."""
        sd = np.sqrt(self.promised.ln_sd**2 + self.measured.ln_sd**2 + RUN_TO_RUN_SD**2)
        return self.away / float(max(sd, 1e-6))

    @property
    def held(self) -> bool:
        return self.promised.least_fps <= self.measured.fps <= self.promised.most_fps


@dataclass(frozen=True, slots=True)
class PredictionGroup:
    """Promises of one kind: how many, how often their 80 % intervals held, how far off they were
    in the middle, signed and unsigned, as shares.
    """

    name: str
    runs: int
    covered: float
    bias: float
    error: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Honesty:
    """All promises: as one group, by nominal share of an interval the share that held, and by what
    they have in common.
    """

    whole: PredictionGroup
    steps: tuple[tuple[float, float], ...]
    groups: tuple[tuple[str, tuple[PredictionGroup, ...]], ...]


def honesty(
    outcomes: Sequence[Outcome],
    by: Iterable[tuple[str, Callable[[int], Hashable]]] = (),
) -> Honesty | None:
    """Over all promises; ``by`` are ways to sort them: a name, and for the place of an outcome the
    group that it is in. None where there is none.
    """
    if not outcomes:
        return None
    scores = np.abs([outcome.score for outcome in outcomes])
    steps = tuple((level, float((scores <= ndtri((1 + level) / 2)).mean())) for level in LEVELS)
    groups = []
    for name, key in by:
        members: dict[str, list[Outcome]] = {}
        for n, target_outcome in enumerate(outcomes):
            members.setdefault(str(key(n)), []).append(target_outcome)
        rows = [
            _group(label, some) for label, some in members.items() if len(some) >= LEAST_IN_GROUP
        ]
        groups.append((name, tuple(sorted(rows, key=lambda row: (-row.runs, row.name)))))
    return Honesty(whole=_group("all", outcomes), steps=steps, groups=tuple(groups))


def _group(name: str, outcomes: Sequence[Outcome]) -> PredictionGroup:
    away = np.array([outcome.away for outcome in outcomes])
    return PredictionGroup(
        name,
        len(outcomes),
        float(np.mean([outcome.held for outcome in outcomes])),
        float(np.expm1(np.median(away))),
        float(np.expm1(np.median(np.abs(away)))),
    )
