"""Years to keep: which targets are still met as the games ask for more, and what the next step would cost."""

from dataclasses import dataclass, replace

from wattmetron.core.balance.cuts import STATES
from wattmetron.core.briefs import Brief
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.fit.candidates import reasons_against
from wattmetron.core.fit.wishes import wishes_of
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.glance import glance
from wattmetron.core.games import Game
from wattmetron.core.machine import Machine
from wattmetron.core.parts import Kind, Part
from wattmetron.services.assess import Assessment, remembered

SIDES: tuple[Kind, ...] = ("graphics", "processor")


@dataclass(frozen=True, slots=True)
class Step:
    """A single part that meets again what a year takes: the cheapest at today's prices that goes in without changing
    anything else, in minor units; None where none does.
    """

    kind: Kind
    part: Part | None
    cost_minor: int


@dataclass(frozen=True, slots=True)
class Year:
    """One year: how much more the games ask for (1 = as today), targets met, those lost since today, and the next steps."""

    year: int
    factor: float
    met: int
    lost: tuple[str, ...]
    steps: tuple[Step, ...]


def years_kept(catalogue: Catalogue, now: Assessment) -> tuple[Year, ...]:
    """From today to the brief's years; empty without years, targets or a machine that draws."""
    if not now.brief.years or not now.counted or not now.machine.can_draw:
        return ()
    return remembered(catalogue, ("years", now.brief, now.build), lambda: _years(catalogue, now))


def asking_more(game: Game, factor: float) -> Game:
    """A game whose work on both sides is so many times today's."""
    return replace(game, processor_ms=game.processor_ms * factor, graphics_ms=game.graphics_ms * factor)


def _years(catalogue: Catalogue, now: Assessment) -> tuple[Year, ...]:
    found: list[Year] = []
    stepped = False
    for year in range(now.brief.years + 1):
        factor = (1 + now.brief.growth_percent / 100) ** year
        states = _states(catalogue, now.brief, now.machine, factor)
        lost = tuple(one.game.name for one, state in zip(now.counted, states, strict=True) if one.state == "meets" != state)
        steps: tuple[Step, ...] = ()
        if lost and not stepped:
            steps = tuple(_step(catalogue, now, kind, factor) for kind in SIDES)
            stepped = True
        found.append(Year(year, factor, sum(state == "meets" for state in states), lost, steps))
    return tuple(found)


def _states(catalogue: Catalogue, brief: Brief, machine: Machine, factor: float) -> list[str]:
    found: list[str] = []
    for target in brief.counted_targets:
        one = estimate(machine, asking_more(catalogue.game(target.game_id), factor), target, brief)
        found.append("short" if one is None else one.state)
    return found


def _step(catalogue: Catalogue, now: Assessment, kind: Kind, factor: float) -> Step:
    """The cheapest part of a kind with which every target met today is met in that year too."""
    book = catalogue.prices(now.brief.region, now.brief.allow_used)
    priced = sorted((price, part.id) for part in catalogue.by_kind[kind] if (price := book.delivered(part.id)) is not None)
    against = reasons_against(now.machine, kind, [catalogue.part(one) for _, one in priced], wishes_of(now.brief))
    fitting = [one for one, found in zip(priced, against, strict=True) if not found and one[1] not in now.build.of(kind)]
    machines = [catalogue.machine(now.build.with_part(kind, one, (now.build.of(kind) or (None,))[0]), now.brief.clocks) for _, one in fitting]
    good = [True] * len(machines)
    for target, before in zip(now.brief.counted_targets, now.counted, strict=True):
        if before.state != "meets" or not machines:
            continue
        seen = glance(machines, asking_more(catalogue.game(target.game_id), factor), target, now.brief)
        good = [ok and state == STATES[-1] for ok, state in zip(good, seen.states, strict=True)]
    best = next((one for one, ok in zip(fitting, good, strict=True) if ok), None)
    return Step(kind, None, 0) if best is None else Step(kind, catalogue.part(best[1]), best[0])
