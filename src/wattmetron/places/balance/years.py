"""Years to keep: which targets are still met as the games ask for more, what each side still
carries, the next step.
"""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import date
from typing import NamedTuple

from wattmetron.core.balance.reductions import Cut
from wattmetron.core.catalogue import BESIDE_PRICES, Catalogue
from wattmetron.core.compatibility.floors_of_brief import memory_floor_gb
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import Estimate, estimate
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.games import Game, VideoMemoryNeed
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Part
from wattmetron.places.assessment.assess import Assessment, assess, known_brief

SIDES: tuple[Kind, ...] = ("graphics", "processor")
FREED: dict[Kind, tuple[Kind, ...]] = {
    "processor": ("processor", "mainboard", "memory", "cooler"),
    "graphics": ("graphics", "supply", "case"),
}
"""What a new part of either side may force."""
MEMORY_GROWTH = 1.06
"""How many times the video memory of the year before games ask for; assumed."""
BESIDE_GAMES = frozenset({"scale", "parts by kind", "table", "curve", "prices"})
"""What does not hang on what games ask for."""
MAIN_MEMORY_GROWTH = 1.05
"""The same of main memory; assumed."""


class DemandGrowth(NamedTuple):
    """How many times today's the games ask for: work of both sides, rays included, video memory
    and main memory.
    """

    work: float
    memory: float
    main_memory: float


@dataclass(frozen=True, slots=True)
class YearStep:
    """What meets again what a year takes, bought anew on one side or both: the parts, those forced
    among them, and their cost at today's prices in minor units; no parts where nothing does.
    """

    sides: tuple[Kind, ...]
    parts: tuple[Part, ...]
    cost_minor: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Year:
    """One year: how much more the games ask for, targets met, GB of main memory that are missing
    then, those lost since today, how many of them processor and graphics would carry alone, and the
    next steps.
    """

    year: int
    more: DemandGrowth
    met: int
    short_gb: float
    lost: tuple[str, ...]
    processor_alone: int
    graphics_alone: int
    steps: tuple[YearStep, ...]


def years_kept(catalogue: Catalogue, now: Assessment) -> tuple[Year, ...]:
    """From today to the brief's years; empty without years, targets or a machine that draws."""
    if not now.brief.years or not now.counted or not now.machine.can_draw:
        return ()
    return catalogue.ask(_years, now.brief, now.build)


def asking_more(game: Game, more: DemandGrowth) -> Game:
    """A game that asks for so many times what it asks for today."""
    rays = game.ray_tracing_ms_per_mpx
    return replace(
        game,
        memory_gb=game.memory_gb * more.main_memory,
        processor_ms=game.processor_ms * more.work,
        graphics_ms=game.graphics_ms * more.work,
        ray_tracing_ms_per_mpx=None if rays is None else rays * more.work,
        ray_tracing_memory_gb=game.ray_tracing_memory_gb * more.memory,
        presets=tuple(
            replace(preset, video_memory=_larger(preset.video_memory, more.memory))
            for preset in game.presets
        ),
    )


def _larger(need: VideoMemoryNeed, times: float) -> VideoMemoryNeed:
    return VideoMemoryNeed(
        at_1080p_gb=need.at_1080p_gb * times,
        at_1440p_gb=need.at_1440p_gb * times,
        at_2160p_gb=need.at_2160p_gb * times,
    )


def outlasts(catalogue: Catalogue, now: Assessment, cut: Cut) -> tuple[int, int] | None:
    """In the last year to keep, how many targets the present part and the cheaper one carry alone,
    where the present one carries more: it is bought for the years. None else.
    """
    if cut.kind not in SIDES or not now.brief.years:
        return None
    more = growth(now.brief, now.brief.years)
    mine, other = (
        _alone(_then(catalogue, now.brief, machine, more), cut.kind)
        for machine in (now.machine, machine_of(catalogue, cut.build, now.brief.clocks))
    )
    return (mine, other) if mine > other else None


def growth(brief: Brief, years: int) -> DemandGrowth:
    """How many times today's the games ask for after so many years: work by the brief's rate,
    memory by assumed ones.
    """
    return DemandGrowth(
        (1 + brief.growth_percent / 100) ** years,
        MEMORY_GROWTH**years,
        MAIN_MEMORY_GROWTH**years,
    )


def _years(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[Year, ...]:
    now, years = assess(catalogue, brief, build), list[Year]()
    for year in range(now.brief.years + 1):
        more = growth(now.brief, year)
        then = _then(catalogue, now.brief, now.machine, more)
        lost = tuple(
            estimate.game.name
            for estimate, later in zip(now.counted, then, strict=True)
            if estimate.state == "meets" and (later is None or later.state != "meets")
        )
        first = lost and not any(each_year.lost for each_year in years)
        steps = _steps(catalogue, now, more) if first else ()
        met = sum(estimate is not None and estimate.state == "meets" for estimate in then)
        years.append(
            Year(
                year=year,
                more=more,
                met=met,
                short_gb=_short_gb(catalogue, now, more),
                lost=lost,
                processor_alone=_alone(then, "processor"),
                graphics_alone=_alone(then, "graphics"),
                steps=steps,
            )
        )
    return tuple(years)


def _short_gb(catalogue: Catalogue, now: Assessment, more: DemandGrowth) -> float:
    """Main memory in GB that the games want then and the machine lacks; none that it lacks
    already.
    """
    kit = now.machine.memory
    if kit is None:
        return 0.0
    today = memory_floor_gb(catalogue, now.brief)
    then = memory_floor_gb(grown(catalogue, now.brief, more), now.brief)
    return max(0.0, then - max(today, kit.total_gb))


def grown(catalogue: Catalogue, brief: Brief, more: DemandGrowth) -> Catalogue:
    """The catalogue with games of the brief that ask for more."""
    ids = {target.game_id for target in brief.counted_targets}
    demanding_games = {
        game_id: asking_more(fitted_game(catalogue, game_id), more) for game_id in ids
    }
    wanting = {
        game_id: replace(catalogue.game(game_id), memory_gb=game.memory_gb)
        for game_id, game in demanding_games.items()
    }
    other = replace(
        catalogue, described_games=demanding_games, games={**catalogue.games, **wanting}
    )
    return other.kept_by(catalogue.keep.branch(BESIDE_GAMES))


def _then(
    catalogue: Catalogue, brief: Brief, machine: Machine, more: DemandGrowth
) -> list[Estimate | None]:
    curves = curves_of(catalogue.keep)
    games = [fitted_game(catalogue, target.game_id) for target in brief.counted_targets]
    return [
        estimate(machine, asking_more(game, more), target, brief, curves)
        for game, target in zip(games, brief.counted_targets, strict=True)
    ]


def _alone(estimates: Iterable[Estimate | None], kind: Kind) -> int:
    """How many targets one side reaches on average with the other side out of the way."""
    rates = (
        (
            estimate.processor_alone_fps if kind == "processor" else estimate.graphics_alone_fps,
            estimate.target.fps,
        )
        for estimate in estimates
        if estimate
    )
    return sum(rate >= wanted for rate, wanted in rates)


def _steps(catalogue: Catalogue, now: Assessment, more: DemandGrowth) -> tuple[YearStep, ...]:
    """A step on either side; on both together where neither does alone."""
    later = _later(catalogue, now, more)
    alone = tuple(_step(later, now, (kind,)) for kind in SIDES)
    return alone if any(step.parts for step in alone) else (*alone, _step(later, now, SIDES))


def _later(catalogue: Catalogue, now: Assessment, more: DemandGrowth) -> Catalogue:
    """The catalogue with games that ask for more, in which the build's parts cost nothing: they are
    there.
    """
    region = catalogue.region(now.brief.region)
    present = tuple(
        Offer(
            part_id=part_id,
            shop="there already",
            region=region.id,
            currency=region.currency,
            price_minor=0,
            shipping_minor=0,
            stock="in",
            condition="new",
            seen_on=date.min,
        )
        for _, part_id in now.build.ids()
    )
    later = replace(grown(catalogue, now.brief, more), offers=(*catalogue.offers, *present))
    return later.kept_by(catalogue.keep.branch(BESIDE_PRICES))


def _step(later: Catalogue, now: Assessment, sides: tuple[Kind, ...]) -> YearStep:
    """The least that meets every target met today, with all kept but what a new part of these sides
    may force.

    Several memory kits stay as they are, for a proposal takes one; so do owned parts that are to
    stay.
    """
    free = {kind for side in sides for kind in FREED[side]} - (
        {"memory"} if now.build.more_kits else set()
    )
    free -= {kind for kind, part_id in now.build.ids() if part_id in now.brief.stays}
    remaining_build = replace(now.build, second_card=None)
    for kind, part_id in now.build.ids():
        if kind in free:
            remaining_build = remaining_build.without(kind, part_id)
    met = tuple(estimate.target for estimate in now.counted if estimate.state == "meets")
    later_brief = replace(
        known_brief(later, now.brief),
        targets=met,
        owned=tuple(part_id for _, part_id in remaining_build.ids()),
        extras=(),
        preferences=(),
    )
    if "graphics" not in free and not now.build.graphics:
        later_brief = replace(
            later_brief,
            banned=(*later_brief.banned, *(card.id for card in later.by_kind["graphics"])),
        )
    proposal = propose(later, later_brief, "least money", remaining_build)
    if proposal.build is None:
        return YearStep(sides, (), 0)
    bought = Counter(proposal.build.ids()) - Counter(now.build.ids())
    return YearStep(
        sides, tuple(later.part(part_id) for _, part_id in bought.elements()), proposal.cost_minor
    )
