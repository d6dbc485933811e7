"""The way to the display: what draws, its outputs, the cable, the display's inputs."""

import re
from collections.abc import Iterable
from math import inf

from wattmetron.core.fit.finding import Figure, Said, Speech
from wattmetron.core.fit.rule import Look, rule
from wattmetron.core.values.brief import Display
from wattmetron.core.values.further_parts import Screen
from wattmetron.core.values.parts import Kind


@rule(
    "graphics output",
    family="ports",
    levels=("blocks",),
    reads={"graphics", "processor", "mainboard", "case"},
    speaks="nothing draws, or what draws has no display output",
    silent="card or board have an output for what draws",
)
def graphics_output(look: Look) -> Speech:
    """Something has to draw, and something has to have a socket for the display."""
    chip, card, board = look.machine.processor, look.machine.graphics, look.machine.mainboard
    if card:
        if not card.outputs:
            yield Said(
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
        if board and look.machine.case:
            yield Said(
                ("processor", "graphics"),
                f"Nothing draws: {chip.name} has no integrated graphics and there is no card.",
                "Add a graphics card or take a processor with integrated graphics.",
                (),
                ("graphics", "processor"),
            )
    elif board and not board.outputs:
        yield Said(
            ("mainboard",),
            f"{board.name} has no display output for the integrated graphics of {chip.name}.",
            "Take a mainboard with display outputs or add a graphics card.",
            (Figure("outputs", "0"),),
            ("mainboard", "graphics"),
        )


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
        if (name := output.split(" x")[0].strip()) in OUTPUT_GBITS
    }


def drives(outputs: tuple[str, ...], display: Display) -> bool:
    """Whether the fastest output carries a display at its refresh, or may do for all that is
    stated.
    """
    known = stated_gbits(outputs)
    if not known or len(known) < len(outputs):
        return True
    return max(known.values()) >= display_gbits(display)


@rule(
    "display output",
    family="ports",
    levels=("wastes",),
    reads={"graphics", "mainboard", "processor"},
    speaks="the fastest output carries less than the display's pixels at its refresh",
    silent="it carries them, or an output's standard is not stated",
)
def display_speed(look: Look) -> Speech:
    """The fastest output must carry the display's pixels at its refresh; rates as in the open
    standards. A display that stands in the build is judged with its cable.
    """
    card, board, display = look.machine.graphics, look.machine.mainboard, look.wishes.display
    source = card or (board if look.machine.uses_integrated else None)
    if source is None or display is None or look.machine.of("display"):
        return
    known = stated_gbits(source.outputs)
    if not drives(source.outputs, display):
        best = max(known, key=lambda text: known[text])
        needed = display_gbits(display)
        most_hz = int(display.refresh_hz * known[best] / needed)
        yield Said(
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


@rule(
    "display plug",
    family="ports",
    levels=("do first", "wastes"),
    reads={"graphics", "mainboard", "processor", "display"},
    speaks="a display of the build and what draws have no plug in common (do first), or none that"
    " carries the display's pixels at its refresh at both ends, compressed where both can (wastes)",
    silent="they have one, or the plugs of one of them are not stated",
)
def display_plug(look: Look) -> Speech:
    """A cable needs the same plug at both ends, and is as fast as the slower end."""
    card, board = look.machine.graphics, look.machine.mainboard
    source = card or (board if look.machine.uses_integrated else None)
    if source is None or not source.outputs:
        return
    kinds: tuple[Kind, ...] = ("graphics" if card else "mainboard", "display")
    for screen in dict.fromkeys(look.machine.of("display")):
        if not isinstance(screen, Screen) or not screen.inputs:
            continue
        rates = cable_rates(source.outputs, screen, card is not None and card.compression)
        told = (
            Figure(source.name, ", ".join(source.outputs)),
            Figure(screen.name, ", ".join(screen.inputs)),
        )
        if not rates:
            yield Said(
                kinds,
                f"{source.name} and {screen.name} have no plug in common.",
                "Get an adapter that carries the display's refresh, or another display.",
                told,
                ("display",),
            )
            continue
        needed = pixels_gbits(screen)
        best, output, plug = max(rates, key=lambda rate: rate[0])
        if best < needed:
            most_hz = int(screen.refresh_hz * best / needed)
            yield Said(
                kinds,
                f"{screen.name} at {screen.refresh_hz:g} Hz wants {needed:.1f} Gbit/s; {output} of"
                f" {source.name} into its {plug} carries {best:g}: about {most_hz} Hz.",
                "Take a card with a faster output, or run the display slower.",
                told,
                level="wastes",
            )


def cable_rates(
    outputs: tuple[str, ...], screen: Screen, compresses: bool
) -> list[tuple[float, str, str]]:
    """For each output and input with a plug in common what a cable carries in Gbit/s of plain
    pixels.
    """
    packed = screen.compression and compresses
    return [
        (_carries(output, plug, packed), output, plug)
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
    both = {text.split(" x")[0].strip() for text in (output, plug)}
    rate = min(_gbits(output), _gbits(plug))
    return COMPRESSED * rate if packed and both <= COMPRESSING else rate


def _gbits(text: str) -> float:
    """What a plug carries; without limit where its version is not stated."""
    return OUTPUT_GBITS.get(text.split(" x")[0].strip(), inf)
