"""The way to the display: what draws, its outputs, the cable, the display's inputs."""

import re
from collections.abc import Iterable
from math import inf
from typing import NamedTuple

from wattmetron.core.compatibility.finding import Figure, MissingData, RuleFinding, Speech
from wattmetron.core.compatibility.rule import RuleContext, RuleFamily
from wattmetron.core.values.brief import Display
from wattmetron.core.values.further_parts import Screen
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import NONE, Graphics, Mainboard

RULES = RuleFamily("ports")


@RULES.rule(
    "graphics output",
    levels=("blocks",),
    reads={"graphics", "processor", "mainboard", "case"},
    speaks="nothing draws, or what draws has no display output",
    silent="card or board have an output for what draws",
)
def graphics_output(look: RuleContext) -> Speech:
    """Something has to draw, and something has to have a socket for the display."""
    chip, card, board = look.machine.processor, look.machine.graphics, look.machine.mainboard
    if card:
        if not card.outputs:
            yield MissingData("graphics", card.name, "display outputs")
        elif outputs_of(card) == ():
            yield RuleFinding(
                ("graphics",),
                f"{card.name} has no display output.",
                "Take a card with display outputs.",
                (Figure("outputs", "0"),),
                ("graphics",),
            )
        return
    if not chip:
        return
    if chip.igpu_speed is None:
        yield MissingData("processor", chip.name, "integrated graphics")
    elif not chip.draws:
        if board and look.machine.case:
            yield RuleFinding(
                ("processor", "graphics"),
                f"Nothing draws: {chip.name} has no integrated graphics and there is no card.",
                "Add a graphics card or take a processor with integrated graphics.",
                (),
                ("graphics", "processor"),
            )
    elif board and not board.outputs:
        yield MissingData("mainboard", board.name, "display outputs")
    elif board and outputs_of(board) == ():
        yield RuleFinding(
            ("mainboard",),
            f"{board.name} has no display output for the integrated graphics of {chip.name}.",
            "Take a mainboard with display outputs or add a graphics card.",
            (Figure("outputs", "0"),),
            ("mainboard", "graphics"),
        )


def outputs_of(source: Graphics | Mainboard) -> tuple[str, ...]:
    """The display outputs that are stated; none where that is said, or where nothing is."""
    return tuple(output for output in source.outputs if output.casefold() != NONE)


def may_show(source: Graphics | Mainboard) -> bool:
    """Whether there is a display output, or may be for all that is stated."""
    return not source.outputs or bool(outputs_of(source))


OUTPUT_GBITS = {
    "HDMI 1.4": 8.16,
    "HDMI 2.0": 14.4,
    "HDMI 2.1": 42.6,
    "DisplayPort 1.2": 17.28,
    "DisplayPort 1.4": 25.92,
    "DisplayPort 1.4a": 25.92,
    "DisplayPort 2.0": 77.37,
    "DisplayPort 2.1": 77.37,
}


BITS_PER_PIXEL = 24


GAP_PX, GAP_S = 80, 460e-6
"""Pixels beside each line and time between frames, by the open standard's reduced blanking."""


def display_gbits(display: Display) -> float:
    """Data rate in Gbit/s of a display: its pixels x refresh x 24 bit, with the gaps beside each
    line and between frames of reduced blanking (coordinated video timings, version 2).
    """
    lines_per_s = display.height_px * display.refresh_hz / (1 - GAP_S * display.refresh_hz)
    return (display.width_px + GAP_PX) * lines_per_s * BITS_PER_PIXEL / 1e9


def stated_gbits(outputs: Iterable[str]) -> dict[str, float]:
    """What each output carries, in Gbit/s, where its standard is stated."""
    return {
        output: OUTPUT_GBITS[name]
        for output in outputs
        if (name := _standard(output)) in OUTPUT_GBITS
    }


def drives(source: Graphics | Mainboard, display: Display) -> bool:
    """Whether the fastest output carries a display at its refresh, or may do for all that is
    stated.
    """
    return carries_plain(source, display) or carries_compressed(source, display)


def carries_plain(source: Graphics | Mainboard, display: Display) -> bool:
    """Whether an output carries all pixels as they are, or may do for all that is stated."""
    outputs = outputs_of(source)
    known = stated_gbits(outputs)
    if not known or len(known) < len(outputs):
        return True
    return max(known.values()) >= display_gbits(display)


def carries_compressed(source: Graphics | Mainboard, display: Display) -> bool:
    """Whether an output may carry all pixels compressed, if the display takes them so."""
    if isinstance(source, Graphics) and source.compression is False:
        return False
    packed = (
        COMPRESSED * rate
        for output, rate in stated_gbits(outputs_of(source)).items()
        if _standard(output) in COMPRESSING
    )
    return max(packed, default=0.0) >= display_gbits(display)


def _standard(output: str) -> str:
    """The standard of a plug, without how many there are."""
    return output.split(" x")[0].strip()


@RULES.rule(
    "display output",
    levels=("wastes",),
    reads={"graphics", "mainboard", "processor"},
    speaks="the fastest output carries less than the display's pixels at its refresh",
    silent="it carries them, compressed if both ends can, or an output's standard is not stated",
)
def display_speed(look: RuleContext) -> Speech:
    """The fastest output must carry the display's pixels at its refresh; rates as in the open
    standards. A display that stands in the build is judged with its cable.
    """
    card, board, display = look.machine.graphics, look.machine.mainboard, look.wishes.display
    source = card or (board if look.machine.uses_integrated else None)
    if source is None or display is None or look.machine.of("display"):
        return
    known = stated_gbits(outputs_of(source))
    if not carries_plain(source, display) and carries_compressed(source, display):
        if isinstance(source, Graphics) and source.compression is None:
            yield MissingData("graphics", source.name, "compression of its outputs (DSC)")
        kind: Kind = "graphics" if card else "mainboard"
        most = max(known.values())
        yield MissingData(
            kind,
            f"the display with {source.name} ({most:g} of {display_gbits(display):.1f} Gbit/s"
            " without compression)",
            "whether it takes compressed pictures (DSC)",
        )
    elif not drives(source, display):
        best = max(known, key=lambda text: known[text])
        needed = display_gbits(display)
        most_hz = int(display.refresh_hz * known[best] / needed)
        yield RuleFinding(
            ("graphics",) if card else ("mainboard",),
            f"The display at {display.width_px}x{display.height_px} and {display.refresh_hz:g} Hz"
            f" wants {needed:.1f} Gbit/s; the fastest output of {source.name}, {best}, carries"
            f" {known[best]:g}: about {most_hz} Hz.",
            "Take a card with a faster output, or run the display slower.",
            (
                Figure("display", f"{needed:.1f}", "Gbit/s"),
                Figure(best, f"{known[best]:g}", "Gbit/s"),
            ),
            ("graphics",) if card else ("mainboard", "graphics"),
        )


@RULES.rule(
    "display plug",
    levels=("do first", "wastes"),
    reads={"graphics", "mainboard", "processor", "display"},
    speaks="a display of the build and what draws have no plug in common (do first), or none that"
    " carries the display's pixels at its refresh at both ends, compressed where both can (wastes)",
    silent="they have one, or the plugs of one of them are not stated",
)
def display_plug(look: RuleContext) -> Speech:
    """A cable needs the same plug at both ends, and is as fast as the slower end."""
    card, board = look.machine.graphics, look.machine.mainboard
    source = card or (board if look.machine.uses_integrated else None)
    if source is None or not outputs_of(source):
        return
    kinds: tuple[Kind, ...] = ("graphics" if card else "mainboard", "display")
    for screen in dict.fromkeys(look.machine.of("display")):
        if not isinstance(screen, Screen) or not screen.inputs:
            continue
        packs = card.compression if card else None
        outputs = outputs_of(source)
        rates = cable_rates(outputs, screen, bool(packs and screen.compression))
        figures = (
            Figure(source.name, ", ".join(outputs)),
            Figure(screen.name, ", ".join(screen.inputs)),
        )
        if not rates:
            yield RuleFinding(
                kinds,
                f"{source.name} and {screen.name} have no plug in common.",
                "Get an adapter that carries the display's refresh, or another display.",
                figures,
                ("display",),
            )
            continue
        needed = pixels_gbits(screen)
        best, output, plug = max(rates, key=lambda rate: rate[0])
        packed = max(rate for rate, _, _ in cable_rates(outputs, screen, True))
        open_ends = packs is not False and screen.compression is not False
        if best < needed <= packed and open_ends:
            if packs is None:
                yield MissingData(kinds[0], source.name, "compression of its outputs (DSC)")
            if screen.compression is None:
                yield MissingData(
                    "display", screen.name, "whether it takes compressed pictures (DSC)"
                )
        elif best < needed:
            most_hz = int(screen.refresh_hz * best / needed)
            yield RuleFinding(
                kinds,
                f"{screen.name} at {screen.refresh_hz:g} Hz wants {needed:.1f} Gbit/s; {output} of"
                f" {source.name} into its {plug} carries {best:g}: about {most_hz} Hz.",
                "Take a card with a faster output, or run the display slower.",
                figures,
                level="wastes",
            )


class CableRate(NamedTuple):
    """What a cable from an output to an input carries, in Gbit/s of plain pixels."""

    gbits: float
    output: str
    plug: str


def cable_rates(outputs: tuple[str, ...], screen: Screen, packed: bool) -> list[CableRate]:
    """For each output and input with a plug in common what a cable carries in Gbit/s of plain
    pixels, compressed where both plugs can.
    """
    return [
        CableRate(_carries(output, plug, packed), output, plug)
        for output in outputs
        for plug in screen.inputs
        if _plug(output) == _plug(plug)
    ]


def pixels_gbits(screen: Screen) -> float:
    """What a display wants at its full refresh, in Gbit/s."""
    return display_gbits(
        Display(width_px=screen.width_px, height_px=screen.height_px, refresh_hz=screen.refresh_hz)
    )


def _plug(text: str) -> str:
    """The kind of plug, without its version and number."""
    return re.split(r"[0-9]", text)[0].strip()


COMPRESSED = 3
"""So many times as much goes over a link that compresses 24 bit to 8 (DSC, the open standard)."""
COMPRESSING = {"DisplayPort 1.4", "DisplayPort 1.4a", "DisplayPort 2.0", "DisplayPort 2.1"} | {
    "HDMI 2.1"
}


def _carries(output: str, plug: str, packed: bool) -> float:
    """What goes from an output to a plug, in Gbit/s of plain pixels."""
    both = {_standard(text) for text in (output, plug)}
    rate = min(_gbits(output), _gbits(plug))
    return COMPRESSED * rate if packed and both <= COMPRESSING else rate


def _gbits(text: str) -> float:
    """What a plug carries; without limit where its version is not stated."""
    return OUTPUT_GBITS.get(_standard(text), inf)
