"""Wait or buy: how often such a part became so much cheaper within four weeks, and whether the same
reckoning was right before.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from wattmetron.core.values.price_history import PriceStep, price_on

STRETCH = timedelta(days=28)
OWN_WEIGHT = 8
"""The rate of the kind counts as much as so many stretches of the part itself."""
LEAST_STRETCHES = 20
"""From so many stretches of a kind on something is said."""


@dataclass(frozen=True, slots=True)
class Seen:
    """How many stretches of four weeks there were, and in how many the price fell so far."""

    fell: int = 0
    all: int = 0

    def plus(self, other: "Seen") -> "Seen":
        return Seen(self.fell + other.fell, self.all + other.all)


@dataclass(frozen=True, slots=True, kw_only=True)
class Wait:
    """The chance that a price falls by a share within four weeks, from the part's own stretches and
    those of its kind; ``said`` and ``came`` are what the same reckoning said four weeks ago of the
    kind on average, and how many then fell so far (None: the history is too short for that).
    """

    share: float
    chance: float
    own: Seen
    kind: Seen
    said: float | None
    came: float | None


def stretches(steps: Sequence[PriceStep], until: date, share: float) -> Seen:
    """The stretches of four weeks that do not overlap, the last one ending on a day; one counts
    where the price on its first day is known.
    """
    fell = count = 0
    if not steps:
        return Seen()
    last = until
    while (start := last - STRETCH) >= steps[0].day:
        price = price_on(steps, start)
        if price is not None:
            count += 1
            fell += _lowest(steps, start, last) <= price * (1 - share)
        last = start
    return Seen(fell, count)


def _lowest(steps: Sequence[PriceStep], start: date, end: date) -> float:
    """The lowest price after a day up to another."""
    prices = [step.least_minor for step in steps if start < step.day <= end]
    return min((price for price in prices if price is not None), default=float("inf"))


def chance_of(seen: Seen, kind: Seen) -> float:
    """The part's own rate, drawn towards that of its kind, which counts half a stretch of either
    sort more: what was never seen is not impossible.
    """
    usual = (kind.fell + 0.5) / (kind.all + 1)
    return (seen.fell + OWN_WEIGHT * usual) / (seen.all + OWN_WEIGHT)


def wait_for(
    part_id: str, of_kind: Mapping[str, Sequence[PriceStep]], until: date, share: float
) -> Wait | None:
    """What waiting may bring, from the price lines of all parts of a kind; None where the history
    carries nothing.
    """
    seen = {kind_key: stretches(steps, until, share) for kind_key, steps in of_kind.items()}
    kind = _sum(seen.values())
    if kind.all < LEAST_STRETCHES or part_id not in seen:
        return None
    gone_days, came = _before(of_kind, until - STRETCH, until, share)
    return Wait(
        share=share,
        chance=chance_of(seen[part_id], kind),
        own=seen[part_id],
        kind=kind,
        said=gone_days,
        came=came,
    )


def _sum(seen: Iterable[Seen]) -> Seen:
    whole = Seen()
    for kind_key in seen:
        whole = whole.plus(kind_key)
    return whole


def _before(
    of_kind: Mapping[str, Sequence[PriceStep]], then: date, until: date, share: float
) -> tuple[float | None, float | None]:
    """What was said on an earlier day of all parts with a price then, and what came of it."""
    seen = {kind_key: stretches(steps, then, share) for kind_key, steps in of_kind.items()}
    kind = _sum(seen.values())
    if kind.all < LEAST_STRETCHES:
        return None, None
    gone_days, came = [], []
    for part_id, steps in of_kind.items():
        price = price_on(steps, then)
        if price is None:
            continue
        gone_days.append(chance_of(seen[part_id], kind))
        came.append(_lowest(steps, then, until) <= price * (1 - share))
    if not gone_days:
        return None, None
    return sum(gone_days) / len(gone_days), sum(came) / len(came)
