"""What changed since a snapshot, and whether parts, prices, evidence or the model caused it."""

import json
from collections.abc import Callable
from dataclasses import dataclass, replace
from math import exp, log

from wattmetron.core.balance.shares import shares
from wattmetron.core.balance.upgrade_order import PartChange, changes_between
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.assess import Assessment, assess, known_build

CAUSES = ("parts", "prices", "evidence", "model")
Study = Callable[[Catalogue], Catalogue]


@dataclass(frozen=True, slots=True, kw_only=True)
class SnapshotFigures:
    """What was computed of a build: delivered total in minor units, targets met, and the rate of
    each target by its id, in fps.
    """

    spent_minor: int
    met: int
    rates: dict[str, float]

    @property
    def text(self) -> str:
        return json.dumps({"spent": self.spent_minor, "met": self.met, "rates": self.rates})


def figures_of(now: Assessment) -> SnapshotFigures:
    return SnapshotFigures(
        spent_minor=now.spent_minor,
        met=now.met,
        rates={
            estimate.target.id: estimate.judged_fps
            for estimate in now.estimates
            if estimate is not None and estimate.average_fps
        },
    )


def read_figures(text: str) -> SnapshotFigures:
    """The figures of a snapshot; what cannot be read of them is left out."""
    try:
        data = json.loads(text)
        return SnapshotFigures(
            spent_minor=int(data["spent"]),
            met=int(data["met"]),
            rates={str(key): float(rate) for key, rate in data["rates"].items()},
        )
    except (ValueError, KeyError, TypeError, AttributeError):
        return SnapshotFigures(spent_minor=0, met=0, rates={})


@dataclass(frozen=True, slots=True, kw_only=True)
class Since:
    """The difference between a snapshot and now: parts that changed, money in minor units and the
    mean frame rate (as a factor) by cause; both add up, the factors by multiplying.
    """

    changes: tuple[PartChange, ...]
    then: SnapshotFigures
    now: SnapshotFigures
    money_minor: dict[str, int]
    frames: dict[str, float]
    targets: int


def since(
    old: tuple[Catalogue, Plan, SnapshotFigures], new: tuple[Catalogue, Plan], study: Study
) -> Since:
    """Compares under the new brief's targets; both catalogues are as described."""
    (past, before, stored), (present, plan) = old, new
    brief = plan.brief
    mixed: dict[tuple[bool, bool], Catalogue] = {}

    def catalogue(prices: bool, evidence: bool) -> Catalogue:
        key = prices, evidence
        if key not in mixed:
            base = (present if evidence else past).described
            offers = (present if prices else past).described.offers
            evidence_games = present if evidence else past
            mixed[key] = (
                evidence_games if prices == evidence else study(replace(base, offers=offers))
            )
        return mixed[key]

    def figures(taken: frozenset[str]) -> SnapshotFigures:
        world = catalogue("prices" in taken, "evidence" in taken)
        build: Build = plan.build if "parts" in taken else before.build
        return figures_of(assess(world, brief, known_build(world, build)))

    end = figures(frozenset(CAUSES))
    again = figures(frozenset())
    shared = [key for key in again.rates if key in end.rates and key in stored.rates]
    drift = _mean_ln(again, shared) - _mean_ln(stored, shared)

    def ln_rate(taken: frozenset[str]) -> float:
        return _mean_ln(figures(taken), shared) - (0.0 if "model" in taken else drift)

    def spent(taken: frozenset[str]) -> float:
        return float(figures(taken).spent_minor)

    money = shares(CAUSES, spent)
    frames = shares(CAUSES, ln_rate) if shared else dict.fromkeys(CAUSES, 0.0)
    return Since(
        changes=changes_between(before.build, plan.build),
        then=stored,
        now=end,
        money_minor={cause: round(minor) for cause, minor in money.items()},
        frames={cause: exp(frame) for cause, frame in frames.items()},
        targets=len(shared),
    )


def _mean_ln(figures: SnapshotFigures, keys: list[str]) -> float:
    """The mean of the logarithms of the rates; a target that does not run counts as one frame."""
    if not keys:
        return 0.0
    return sum(log(max(1.0, figures.rates.get(key, 1.0))) for key in keys) / len(keys)
