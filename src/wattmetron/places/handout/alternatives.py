"""What else could be bought: other picks in one place, whole builds that are nearly as good, and
upgrades in order.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.parts import Graphics, Part
from wattmetron.core.values.words import counted, listed
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.balance.balance_words import mean_change
from wattmetron.places.proposal.proposals import answer
from wattmetron.places.proposal.step_words import (
    changed_names,
    cost_words,
    due_words,
    gain_words,
)
from wattmetron.places.proposal.swaps import Candidate, SwapQuery, swap
from wattmetron.places.proposal.upgrade_first import FirstStep, what_first
from wattmetron.words.figures import THIN, money

SIDES: tuple[Kind, ...] = ("graphics", "processor")
LEAST_MORE = 0.03
"""A dearer pick is an alternative only from so much more of the frames on."""
SAME_MONEY = 0.01
"""Two picks cost the same within this share of the total."""
NEAR_MONEY, NEAR_FRAMES = 0.05, 0.05
"""A whole build is nearly as good within these shares of money and frames."""
LEAST_WATTS, LEAST_FRAMES = 10, 0.01
LATER_SHARE = 0.4
"""What is spent later, as a share of what the machine costs; assumed."""


@dataclass(frozen=True, slots=True)
class Upgrades:
    """What the steps assume, and the steps in order, in words."""

    says: str = ""
    steps: tuple[str, ...] = ()


def alternatives(catalogue: Catalogue, now: Assessment) -> tuple[str, ...]:
    """In sentences: other picks for the two sides, then builds that are nearly as good; none for a
    machine that is not whole.
    """
    if not now.whole:
        return ()
    picks = [pick for kind in SIDES for pick in _around(catalogue, now, kind)]
    return (*picks, *(_build_words(now, then) for then in near_builds(catalogue, now)))


def _around(catalogue: Catalogue, now: Assessment, kind: Kind) -> Iterator[str]:
    """In a place the next cheaper pick, one for the same money, and the next dearer one that brings
    more, each of them fitting as it is.
    """
    present = next(iter(now.build.of(kind)), None)
    if present is None or present not in catalogue.parts:
        return
    candidates = swap(catalogue, now, SwapQuery(kind=kind, present=present)).candidates
    fitting = [candidate for candidate in candidates if not candidate.present and _sound(candidate)]
    same_minor = SAME_MONEY * now.spent_minor
    part = catalogue.part(present)
    alike = [
        candidate
        for candidate in fitting
        if abs(candidate.change_minor or 0) <= same_minor and not _same_chip(part, candidate.part)
    ]
    cheaper = [candidate for candidate in fitting if (candidate.change_minor or 0) < -same_minor]
    dearer = [
        candidate
        for candidate in fitting
        if (candidate.change_minor or 0) > same_minor and _mean_change(now, candidate) >= LEAST_MORE
    ]
    best_alike = sorted(alike, key=lambda candidate: -_mean_change(now, candidate))
    for offered in (*best_alike[:1], *cheaper[-1:], *dearer[:1]):
        yield _trade(now, part, offered, same=offered in alike)


def _sound(candidate: Candidate) -> bool:
    grave = any(finding.level in ("blocks", "do first") for finding in candidate.findings)
    return (
        not (grave or candidate.floors or candidate.missing or candidate.forced)
        and candidate.offer is not None
    )


def _same_chip(part: Part, other: Part) -> bool:
    return isinstance(part, Graphics) and isinstance(other, Graphics) and part.chip == other.chip


def _mean_change(now: Assessment, candidate: Candidate) -> float:
    """The mean change of the rates with a candidate, as a share."""
    rates = [
        effect.fps / estimate.judged_fps - 1
        for effect, estimate in zip(candidate.effects, now.estimates, strict=False)
        if effect.fps and estimate is not None and estimate.judged_fps
    ]
    return sum(rates) / len(rates) if rates else 0.0


def _trade(now: Assessment, part: Part, candidate: Candidate, same: bool) -> str:
    """Either this or that, with money, frames and video memory."""
    change = candidate.change_minor or 0
    met = sum(effect.state == "meets" for effect in candidate.effects)
    traits = [_frames_words(_mean_change(now, candidate)), *_memory_words(part, candidate.part)]
    if now.counted:
        traits.append(f"{met} of {len(candidate.effects)} targets met")
    if same:
        return (
            f"Either {part.name} or {candidate.part.name}, the same money"
            f" ({_money_words(change, now.currency)}): {', '.join(traits)}."
        )
    traits.insert(0, _money_words(change, now.currency))
    return f"Instead of {part.name}: {candidate.part.name}, {', '.join(traits)}."


def _money_words(change_minor: int, currency: str) -> str:
    if not change_minor:
        return "to the cent"
    return f"{money(abs(change_minor), currency)} {'more' if change_minor > 0 else 'less'}"


def _frames_words(mean: float) -> str:
    if abs(mean) < LEAST_FRAMES:
        return "the same frames"
    more = "more" if mean > 0 else "fewer"
    return f"{abs(mean) * 100:.0f}{THIN}% {more} frames on average"


def _memory_words(part: Part, other: Part) -> Iterator[str]:
    if isinstance(part, Graphics) and isinstance(other, Graphics):
        more_gb = other.memory_gb - part.memory_gb
        if more_gb:
            word = "more" if more_gb > 0 else "less"
            yield f"{abs(more_gb):g}{THIN}GB {word} video memory"


def near_builds(catalogue: Catalogue, now: Assessment) -> tuple[Assessment, ...]:
    """For each side the best whole build for the same money without the present part, where that
    is nearly as good and better in something; a card goes with all cards of its chip.
    """
    assessments: dict[Build, Assessment] = {}
    for kind in SIDES:
        part = next(iter(now.machine.of(kind)), None)
        if part is None or part.id in now.brief.owned:
            continue
        without_part = _without(catalogue, now, part)
        other = answer(catalogue, without_part, now.build, "most frames").assessment
        if other is None or other.build.of(kind) == now.build.of(kind):
            continue
        then = assess(catalogue, now.brief, other.build)
        if _is_near(now, then) and _betters(now, then):
            assessments[then.build] = then
    return tuple(assessments.values())


def _without(catalogue: Catalogue, now: Assessment, part: Part) -> Brief:
    """The brief for so much money as is spent, without a part or its chip."""
    gone = [
        each_part.id for each_part in catalogue.by_kind["graphics"] if _same_chip(part, each_part)
    ]
    return replace(
        now.brief,
        banned=tuple(dict.fromkeys((*now.brief.banned, *(gone or [part.id])))),
        budget_low_minor=0,
        budget_high_minor=round(now.spent_minor * (1 + NEAR_MONEY)),
    )


def _is_near(now: Assessment, then: Assessment) -> bool:
    if not then.whole or then.blocking or then.floors or not now.counted:
        return False
    money_moves = abs(then.spent_minor - now.spent_minor) <= NEAR_MONEY * now.spent_minor
    return money_moves and abs(mean_change(now, then)) <= NEAR_FRAMES


def _betters(now: Assessment, then: Assessment) -> bool:
    """Whether a build is better in money, frames, draw or video memory."""
    return (
        then.spent_minor < now.spent_minor
        or then.met > now.met
        or mean_change(now, then) >= LEAST_FRAMES
        or now.draw.full_w - then.draw.full_w >= LEAST_WATTS
        or _video_gb(then) > _video_gb(now)
    )


def _video_gb(assessment: Assessment) -> float:
    return assessment.machine.graphics.memory_gb if assessment.machine.graphics else 0.0


def _build_words(now: Assessment, then: Assessment) -> str:
    """What a build that is nearly as good has, and what it trades."""
    names = [
        part.name
        for kind in SIDES
        for part in then.machine.of(kind)
        if part.id not in now.build.of(kind)
    ]
    others = sum(
        then.build.of(kind) != now.build.of(kind) for kind in ALL_KINDS if kind not in SIDES
    )
    met = f"{then.met} of {len(then.counted)} targets met"
    traits = [
        _money_words(then.spent_minor - now.spent_minor, now.currency),
        _frames_words(mean_change(now, then)),
        f"{met}, as many" if then.met == now.met else f"{met} instead of {now.met}",
    ]
    if now.machine.graphics and then.machine.graphics:
        traits += _memory_words(now.machine.graphics, then.machine.graphics)
    watts = then.draw.full_w - now.draw.full_w
    if abs(watts) >= LEAST_WATTS:
        traits.append(f"{abs(watts):.0f}{THIN}W {'more' if watts > 0 else 'less'} in full draw")
    beside = f" and {counted(others, 'other part')} to go with it" if others else ""
    return f"Nearly as good, as a whole build with {listed(names)}{beside}: {', '.join(traits)}."


def upgrades(catalogue: Catalogue, now: Assessment) -> Upgrades:
    """Which parts to replace later and in which order, if two fifths of the price are spent on it
    at today's prices and everything that is there may stay.
    """
    if not now.whole or not now.counted or now.blocking:
        return Upgrades()
    there = tuple(dict.fromkeys(part_id for _, part_id in now.build.ids()))
    later = replace(
        now.brief,
        owned=tuple(dict.fromkeys((*now.brief.owned, *there))),
        budget_low_minor=0,
        budget_high_minor=max(1, round(now.spent_minor * LATER_SHARE)),
        extras=(),
    )
    then = answer(catalogue, later, now.build, "most frames").assessment
    if then is None:
        return Upgrades()
    assessed = assess(catalogue, later, now.build)
    steps = what_first(catalogue, assessed, assess(catalogue, later, then.build))
    if not steps:
        return Upgrades()
    return Upgrades(
        f"With {money(later.budget_high_minor, now.currency)} more later, at today's prices, the"
        " upgrades in the order that brings most frames soonest:",
        tuple(_step_words(catalogue, now, step) for step in _joined(steps)),
    )


def _joined(steps: Sequence[FirstStep]) -> Iterator[FirstStep]:
    """The steps, those that bring nothing by themselves joined to the one that they are for."""
    waiting: FirstStep | None = None
    for step in steps:
        first_step = step
        if waiting is not None:
            first_step = replace(
                step,
                changes=(*waiting.changes, *step.changes),
                cost_minor=waiting.cost_minor + step.cost_minor,
            )
        waiting = None if first_step.gained or first_step.cleared else first_step
        if waiting is None:
            yield first_step
    if waiting is not None:
        yield waiting


def _step_words(catalogue: Catalogue, now: Assessment, step: FirstStep) -> str:
    bought = changed_names(catalogue, step.changes, "bought")
    left = changed_names(catalogue, step.changes, "left")
    due = due_words(now.brief, step.together_minor)
    costs = cost_words(step.cost_minor, now.currency)
    return (
        f"{listed(bought) or 'Nothing'} instead of {listed(left) or 'nothing'}:"
        f" {costs}{f', {due}' if due else ''}; {gain_words(step.gained, step.cleared)}."
    )
