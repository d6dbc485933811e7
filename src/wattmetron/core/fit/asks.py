"""What the brief's games ask for and card, game or system do not offer."""

from collections.abc import Callable, Iterator

from wattmetron.core.fit.finding import Figure, Finding
from wattmetron.core.fit.wishes import Ask, Wishes
from wattmetron.core.requirements.verdicts import named_version, offers
from wattmetron.core.values.further_parts import OperatingSystem
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics, Kind, Processor


def _drawn_by(machine: Machine) -> Graphics | Processor | None:
    return machine.graphics or (machine.processor if machine.uses_integrated else None)


def _upscalers(source: Graphics | Processor) -> tuple[str, ...]:
    return source.upscalers if isinstance(source, Graphics) else source.igpu_upscalers


def _apis(source: Graphics | Processor) -> tuple[str, ...]:
    return source.apis if isinstance(source, Graphics) else source.igpu_apis


def _kind(source: Graphics | Processor) -> Kind:
    return "graphics" if isinstance(source, Graphics) else "processor"


def _names(wishes: Wishes, lacks: Callable[[Ask], bool]) -> str:
    return ", ".join(dict.fromkeys(ask.game for ask in wishes.asks if lacks(ask)))


def upscaling(machine: Machine, wishes: Wishes) -> Iterator[Finding]:
    """Upscaling needs one upscaler that game and card both know; else the game is drawn in full."""
    source = _drawn_by(machine)
    if source is None:
        return
    offered = set(_upscalers(source))
    names = _names(wishes, lambda ask: ask.upscaling and offered.isdisjoint(ask.upscalers))
    if names:
        yield Finding(
            "upscaling",
            "good to know",
            (_kind(source),),
            f"Upscaling is asked for in {names}, but {source.name} and the game have no upscaler in"
            " common: it is drawn in full.",
            "The estimate counts that already; another card may share an upscaler with the game.",
            (Figure(source.name, ", ".join(sorted(offered)) or "none"),),
        )


def ray_tracing(machine: Machine, wishes: Wishes) -> Iterator[Finding]:
    """Rays need a card that can trace them."""
    source = _drawn_by(machine)
    if source is None or (isinstance(source, Graphics) and source.ray_speed is not None):
        return
    names = _names(wishes, lambda ask: ask.ray_tracing)
    if names:
        yield Finding(
            "ray tracing",
            "do first",
            (_kind(source),),
            f"Ray tracing is asked for in {names}; {source.name} cannot trace rays.",
            "Switch ray tracing off in the brief, or take a card that can.",
            (Figure(source.name, "no ray tracing"),),
            ("graphics",),
        )


def graphics_api(machine: Machine, wishes: Wishes) -> Iterator[Finding]:
    """A game starts only where the card knows its graphics API at the level that the lowest tier
    names.
    """
    source = _drawn_by(machine)
    if source is None or not _apis(source):
        return
    lacking = {
        ask.game: ask.api for ask in wishes.asks if ask.api and not offers(ask.api, _apis(source))
    }
    if lacking:
        told = ", ".join(f"{game} ({api})" for game, api in lacking.items())
        yield Finding(
            "graphics API",
            "do first",
            (_kind(source),),
            f"{source.name} knows {', '.join(_apis(source))}; that is too little for {told}.",
            "Take a card that knows it: the game is not expected to start on this one.",
            tuple(Figure(game, api) for game, api in lacking.items()),
            ("graphics",),
        )


def operating_system(machine: Machine, wishes: Wishes) -> Iterator[Finding]:
    """A game runs on the systems that it names; a newer version of the same system counts."""
    bought = [part.family for part in machine.of("system") if isinstance(part, OperatingSystem)]
    had = tuple(filter(None, (wishes.system, *bought)))
    if not had or not any(named_version(one)[0] for one in had):
        return
    lacking = {
        ask.game: ask.system for ask in wishes.asks if ask.system and not offers(ask.system, had)
    }
    if lacking:
        told = ", ".join(f"{game} ({system})" for game, system in lacking.items())
        yield Finding(
            "operating system",
            "do first",
            ("system",) if bought else (),
            f"{had[-1]} is not enough for {told}.",
            "Plan for the system that the game names.",
            tuple(Figure(game, system) for game, system in lacking.items()),
        )
