"""What the brief's games ask for and card, game or system do not offer."""

from collections.abc import Callable

from wattmetron.core.compatibility.finding import Figure, MissingData, RuleFinding, Speech
from wattmetron.core.compatibility.rule import RuleContext, RuleFamily
from wattmetron.core.compatibility.rule_wishes import Ask, Wishes
from wattmetron.core.requirements.versions import offered, version_of
from wattmetron.core.values.further_parts import OperatingSystem
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Graphics, Processor

RULES = RuleFamily("asks")


def _drawn_by(machine: Machine) -> Graphics | Processor | None:
    return machine.graphics or (machine.processor if machine.uses_integrated else None)


def _upscalers(source: Graphics | Processor) -> tuple[str, ...]:
    return source.upscalers if isinstance(source, Graphics) else source.igpu_upscalers


def apis_of(source: Graphics | Processor) -> tuple[str, ...]:
    return source.apis if isinstance(source, Graphics) else source.igpu_apis


def _kind(source: Graphics | Processor) -> Kind:
    return "graphics" if isinstance(source, Graphics) else "processor"


def _names(wishes: Wishes, lacks: Callable[[Ask], bool]) -> str:
    return ", ".join(dict.fromkeys(ask.game for ask in wishes.asks if lacks(ask)))


@RULES.rule(
    "upscaling",
    levels=("good to know",),
    reads={"graphics", "processor"},
    speaks="upscaling is asked for and game and card have no upscaler in common",
    silent="they have one, or it is not asked for",
)
def upscaling(look: RuleContext) -> Speech:
    """Upscaling needs one upscaler that game and card both know; else the game is drawn in full."""
    source = _drawn_by(look.machine)
    if source is None:
        return
    offered = set(_upscalers(source))
    names = _names(look.wishes, lambda ask: ask.upscaling and offered.isdisjoint(ask.upscalers))
    if names:
        yield RuleFinding(
            (_kind(source),),
            f"Upscaling is asked for in {names}, but {source.name} and the game have no upscaler in"
            " common: it is drawn in full.",
            "The estimate counts that already; another card may share an upscaler with the game.",
            (Figure(source.name, ", ".join(sorted(offered)) or "none"),),
        )


@RULES.rule(
    "frame generation",
    levels=("good to know",),
    reads={"graphics", "processor"},
    speaks="frame generation is asked for and game and card are not known to have one in common",
    silent="they have one, or it is not asked for",
)
def frame_generation(look: RuleContext) -> Speech:
    """Frames are generated only where game and card are known to share a way to; else those drawn
    count alone.
    """
    source = _drawn_by(look.machine)
    if source is None:
        return
    offered = set(source.generators) if isinstance(source, Graphics) else set()
    names = _names(look.wishes, lambda ask: ask.generated and offered.isdisjoint(ask.generators))
    if names:
        yield RuleFinding(
            (_kind(source),),
            f"Frame generation is asked for in {names}, but {source.name} and the game are not"
            " known to have one in common: only drawn frames count.",
            "The estimate counts that already; another card may share one with the game.",
            (Figure(source.name, ", ".join(sorted(offered)) or "none known"),),
        )


@RULES.rule(
    "ray tracing",
    levels=("do first",),
    reads={"graphics", "processor"},
    speaks="ray tracing is asked for and what draws cannot trace rays",
    silent="it can, or it is not asked for",
)
def ray_tracing(look: RuleContext) -> Speech:
    """Rays need a card that can trace them."""
    source = _drawn_by(look.machine)
    if source is None or (isinstance(source, Graphics) and source.traces_rays):
        return
    names = _names(look.wishes, lambda ask: ask.ray_tracing)
    if names and isinstance(source, Graphics) and source.ray_speed is None:
        yield MissingData("graphics", source.name, "ray tracing")
    elif names:
        yield RuleFinding(
            (_kind(source),),
            f"Ray tracing is asked for in {names}; {source.name} cannot trace rays.",
            "Switch ray tracing off in the brief, or take a card that can.",
            (Figure(source.name, "no ray tracing"),),
            ("graphics",),
        )


@RULES.rule(
    "graphics API",
    levels=("do first",),
    reads={"graphics", "processor"},
    speaks="the lowest tier of a game names an API that the card does not know at that level",
    silent="the card knows it or newer, or its APIs are not known",
)
def graphics_api(look: RuleContext) -> Speech:
    """A game starts only where the card knows its graphics API at the level that the lowest tier
    names.
    """
    source = _drawn_by(look.machine)
    if source is None or not apis_of(source):
        return
    had = [version_of(api) for api in apis_of(source)]
    lacking = {
        ask.game: ask.api.text
        for ask in look.wishes.asks
        if ask.api.text and offered(ask.api, had) is False
    }
    if lacking:
        sentence = ", ".join(f"{game} ({api})" for game, api in lacking.items())
        yield RuleFinding(
            (_kind(source),),
            f"{source.name} knows {', '.join(apis_of(source))}; that is too little for {sentence}.",
            "Take a card that knows it: the game is not expected to start on this one.",
            tuple(Figure(game, api) for game, api in lacking.items()),
            ("graphics",),
        )


@RULES.rule(
    "operating system",
    levels=("do first",),
    reads={"system"},
    speaks="a game names another system, or a newer version, than the one that will run",
    silent="it is the same or newer, or not stated",
)
def operating_system(look: RuleContext) -> Speech:
    """A game runs on the systems that it names; a newer version of the same system counts."""
    bought = [
        part.family for part in look.machine.of("system") if isinstance(part, OperatingSystem)
    ]
    had = [version_of(system) for system in (look.wishes.system, *bought) if system]
    if not any(system.name for system in had):
        return
    lacking = {
        ask.game: ask.system.text
        for ask in look.wishes.asks
        if ask.system.text and offered(ask.system, had) is False
    }
    if lacking:
        sentence = ", ".join(f"{game} ({system})" for game, system in lacking.items())
        yield RuleFinding(
            ("system",) if bought else (),
            f"{had[-1].text} is not enough for {sentence}.",
            "Plan for the system that the game names.",
            tuple(Figure(game, system) for game, system in lacking.items()),
        )


@RULES.rule(
    "system and processor",
    levels=("do first",),
    reads={"system", "processor"},
    speaks="an operating system of the build does not support the processor's design",
    silent="it does, or which ones it supports is not stated",
)
def system_processor(look: RuleContext) -> Speech:
    """An operating system supports certain designs of processors."""
    chip = look.machine.processor
    for system in look.machine.of("system"):
        if not chip or not isinstance(system, OperatingSystem) or not system.designs:
            continue
        if chip.design not in system.designs:
            yield RuleFinding(
                ("system", "processor"),
                f"{system.name} ({system.family}) supports processors of the designs"
                f" {', '.join(system.designs)}; {chip.name} is {chip.design or 'of none of them'}.",
                "Take another system, or a processor that it supports.",
                (
                    Figure("system", ", ".join(system.designs)),
                    Figure("processor", chip.design or "not stated"),
                ),
                ("system", "processor"),
            )
