"""What plugs in where: drives, display, front ports, lights, fans."""

import re
from math import inf

from wattmetron.core.fit.finding import Figure, Said, Speech, Unknown, counted
from wattmetron.core.fit.rule import Look, rule
from wattmetron.core.values.brief import Display
from wattmetron.core.values.further_parts import Fan, Screen, WirelessAdapter
from wattmetron.core.values.parts import Case, Kind, Mainboard


def sata_left(board: Mainboard, nvme: int) -> int:
    """SATA ports that are left with so many M.2 drives: slots disable some of them, in the order of
    their use.
    """
    return max(0, board.sata_ports - sum(board.m2_disables_sata[:nvme]))


@rule(
    "drive ports",
    family="ports",
    levels=("blocks",),
    reads={"storage", "mainboard", "optical"},
    speaks="more drives than M.2 slots, or than SATA ports left beside the M.2 slots in use; drives"
    " for discs count",
    silent="every drive has a port",
)
def drive_ports(look: Look) -> Speech:
    """Every drive needs an M.2 slot or a SATA port that no M.2 slot in use disables."""
    board = look.machine.mainboard
    if not board:
        return
    nvme = sum(drive.interface == "M.2 NVMe" for drive in look.machine.storage)
    sata = len(look.machine.storage) - nvme + look.machine.sata_optical
    left = sata_left(board, nvme)
    shared = (
        f" of {board.sata_ports} left beside {nvme} M.2 drives" if left < board.sata_ports else ""
    )
    for count, places, word, more in (
        (nvme, board.m2_slots, "M.2 slots", ""),
        (sata, left, "SATA ports", shared),
    ):
        if count > places:
            yield Said(
                ("storage", "mainboard"),
                f"The drives need {count} {word}; {board.name} has {places}{more}.",
                "Take fewer or larger drives, or a mainboard with more places.",
                (Figure("drives", str(count)), Figure(word, str(places))),
                ("mainboard", "storage"),
            )


def slot_lengths_mm(board: Mainboard) -> list[int]:
    """Longest drive of each M.2 slot in mm, the longest first; empty where they are not known."""
    return sorted(board.m2_lengths_mm[: board.m2_slots], reverse=True)


@rule(
    "drive length",
    family="ports",
    levels=("blocks",),
    reads={"storage", "mainboard"},
    speaks="an M.2 drive is longer than the slot that is left for it, the longest drives in the"
    " longest slots",
    silent="every drive has a slot as long",
)
def drive_lengths(look: Look) -> Speech:
    """Every M.2 drive needs a slot that is as long: the longest drives go into the longest
    slots.
    """
    board = look.machine.mainboard
    drives = sorted(
        (
            storage
            for storage in look.machine.storage
            if storage.size == "M.2" and storage.m2_length_mm
        ),
        key=lambda storage: -(storage.m2_length_mm or 0),
    )
    unknown = [
        drive for drive in look.machine.storage if drive.size == "M.2" and not drive.m2_length_mm
    ]
    if board and (drives or unknown) and not board.m2_lengths_mm:
        yield Unknown("mainboard", board.name, "lengths of its M.2 slots")
    elif board:
        for drive in unknown:
            yield Unknown("storage", drive.name, "length")
    if not board or not drives or not board.m2_lengths_mm:
        return
    for drive, room in zip(drives, slot_lengths_mm(board), strict=False):
        if drive.m2_length_mm and drive.m2_length_mm > room:
            yield Said(
                ("storage", "mainboard"),
                f"{drive.name} is {drive.m2_length_mm} mm long; the M.2 slot that is left on"
                f" {board.name} takes {room} mm.",
                f"Take a drive of {room} mm or less, or a mainboard with a longer slot.",
                (Figure("drive", str(drive.m2_length_mm), "mm"), Figure("slot", str(room), "mm")),
                ("storage", "mainboard"),
            )
            return


@rule(
    "drive link",
    family="ports",
    levels=("good to know",),
    reads={"storage", "mainboard"},
    speaks="an M.2 drive could use a newer PCIe generation than the slot that is left for it",
    silent="the slot is as new, or not known",
)
def drive_link(look: Look) -> Speech:
    """A drive faster than the slots that are left runs at their pace, which loading times hardly
    show.
    """
    board = look.machine.mainboard
    drives = sorted(
        (storage for storage in look.machine.storage if storage.size == "M.2" and storage.pcie_gen),
        key=lambda storage: -(storage.pcie_gen or 0),
    )
    if not board or not drives:
        return
    for drive, gen in zip(
        drives, sorted(board.m2_gens[: board.m2_slots], reverse=True), strict=False
    ):
        if drive.pcie_gen and drive.pcie_gen > gen:
            yield Said(
                ("storage", "mainboard"),
                f"{drive.name} could use PCIe {drive.pcie_gen}; on {board.name} it gets PCIe"
                f" {gen}.",
                "Games load hardly faster from a quicker link: nothing to do, but a slower drive"
                " may be cheaper.",
                (Figure("drive", f"PCIe {drive.pcie_gen}"), Figure("slot", f"PCIe {gen}")),
            )
            return


@rule(
    "drive places",
    family="ports",
    levels=("blocks",),
    reads={"storage", "case"},
    speaks="more 3.5 or 2.5 inch drives than the case has places",
    silent="every drive has a place",
)
def drive_bays(look: Look) -> Speech:
    """Drives that are no M.2 sticks need a place in the case; a place for 3.5 inch takes 2.5 inch
    too.
    """
    case = look.machine.case
    large = sum(drive.size == "3.5 inch" for drive in look.machine.storage)
    small = sum(drive.size == "2.5 inch" for drive in look.machine.storage)
    if not case or not large + small:
        return
    if case.places_25 is None or case.places_35 is None:
        yield Unknown("case", case.name, "drive places")
        return
    if large > case.places_35 or large + small > case.places_25 + case.places_35:
        has = f"{case.places_35} for 3.5 inch and {case.places_25} for 2.5 inch"
        needs = " and ".join(
            f"{n} x {size}" for n, size in ((large, "3.5 inch"), (small, "2.5 inch")) if n
        )
        yield Said(
            ("storage", "case"),
            f"{needs} need a place; {case.name} has {has}.",
            "Take M.2 drives, or a case with more places.",
            (Figure("drives", needs), Figure("case", has)),
            ("case", "storage"),
        )


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
    standards.
    """
    card, board, display = look.machine.graphics, look.machine.mainboard, look.wishes.display
    source = card or (board if look.machine.uses_integrated else None)
    if source is None or display is None:
        return
    known = {
        output: OUTPUT_GBITS[name]
        for output in source.outputs
        if (name := output.split(" x")[0].strip()) in OUTPUT_GBITS
    }
    if not known or len(known) < len(source.outputs):
        return
    best = max(known, key=lambda text: known[text])
    needed = display_gbits(display)
    if known[best] < needed:
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
    " carries the display's pixels at its refresh at both ends (wastes)",
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
        links = [
            (output, plug)
            for output in source.outputs
            for plug in screen.inputs
            if _plug(output) == _plug(plug)
        ]
        told = (
            Figure(source.name, ", ".join(source.outputs)),
            Figure(screen.name, ", ".join(screen.inputs)),
        )
        if not links:
            yield Said(
                kinds,
                f"{source.name} and {screen.name} have no plug in common.",
                "Get an adapter that carries the display's refresh, or another display.",
                told,
                ("display",),
            )
            continue
        rates = [min(_gbits(output), _gbits(plug)) for output, plug in links]
        shown = Display(
            width_px=screen.width_px, height_px=screen.height_px, refresh_hz=screen.refresh_hz
        )
        needed = display_gbits(shown)
        if max(rates) < needed:
            output, plug = links[rates.index(max(rates))]
            most_hz = int(screen.refresh_hz * max(rates) / needed)
            yield Said(
                kinds,
                f"{screen.name} at {screen.refresh_hz:g} Hz wants {needed:.1f} Gbit/s; {output} of"
                f" {source.name} into its {plug} carries {max(rates):g}: about {most_hz} Hz.",
                "Take a card with a faster output, or run the display slower.",
                told,
                level="wastes",
            )


def _plug(text: str) -> str:
    """The kind of plug, without its version and number."""
    return re.split(r"[0-9]", text)[0].strip()


def _gbits(text: str) -> float:
    """What a plug carries; without limit where its version is not stated."""
    return OUTPUT_GBITS.get(text.split(" x")[0].strip(), inf)


@rule(
    "wireless",
    family="ports",
    levels=("do first",),
    reads={"mainboard", "wireless"},
    speaks="the brief wants wireless and the board has none",
    silent="the board has it, or it is not wanted",
)
def wireless(look: Look) -> Speech:
    """Wireless that the brief wants must be on the board."""
    board = look.machine.mainboard
    adapters = [part for part in look.machine.added if isinstance(part, WirelessAdapter)]
    if board and look.wishes.wireless and not board.wireless and not adapters:
        yield Said(
            ("mainboard",),
            f"The brief wants wireless; {board.name} has none.",
            "Take a mainboard with wireless, or add an adapter.",
            (),
            ("wireless", "mainboard"),
        )


@rule(
    "front ports",
    family="ports",
    levels=("good to know",),
    reads={"case", "mainboard"},
    speaks="a front port of the case finds no header",
    silent="every port finds one, or the board's headers are not known",
)
def front_ports(look: Look) -> Speech:
    """A front port of the case stays dead without its header."""
    case, board = look.machine.case, look.machine.mainboard
    if not case or not board or not board.front_headers:
        return
    dead = [port for port in case.front_ports if port not in board.front_headers]
    if dead:
        yield Said(
            ("case", "mainboard"),
            f"{', '.join(dead)} in front of {case.name} finds no header on {board.name} and stays"
            " dead.",
            "Nothing to do unless you want that port.",
            (
                Figure("case", ", ".join(case.front_ports)),
                Figure("mainboard", ", ".join(board.front_headers)),
            ),
        )


@rule(
    "lights",
    family="ports",
    levels=("good to know",),
    reads={"case", "mainboard", "fan"},
    speaks="lights of the case or of added fans find no header of their voltage",
    silent="a header of their voltage is there",
)
def lights(look: Look) -> Speech:
    """Lights of one voltage are ruined on a header of the other."""
    case, board = look.machine.case, look.machine.mainboard
    fans = [part for part in dict.fromkeys(look.machine.of("fan")) if isinstance(part, Fan)]
    lit: list[tuple[Kind, Case | Fan]] = [("case", case)] if case else []
    lit += [("fan", fan) for fan in fans]
    for kind, part in lit if board else ():
        assert board is not None
        wrong = [volts for volts in part.lights if volts not in board.light_headers]
        if not wrong:
            continue
        yield Said(
            (kind, "mainboard"),
            f"The {', '.join(wrong)} lights of {part.name} find no header of their voltage on"
            f" {board.name}.",
            "Leave them unconnected: the other voltage would ruin them.",
            (
                Figure(part.name, ", ".join(part.lights)),
                Figure("mainboard", ", ".join(board.light_headers) or "none"),
            ),
        )


@rule(
    "fan headers",
    family="ports",
    levels=("good to know",),
    reads={"case", "mainboard", "fan"},
    speaks="case and added fans are more than the board has headers",
    silent="as many or fewer",
)
def fan_headers(look: Look) -> Speech:
    """Every fan, of the case or added, wants a header."""
    case, board = look.machine.case, look.machine.mainboard
    if not case or not board or board.fan_headers is None:
        return
    if look.machine.fans > board.fan_headers:
        added = look.machine.fans - case.fans_included
        brings = f"{case.name} brings {counted(case.fans_included, 'fan')}" + (
            f" and {added} more {'is' if added == 1 else 'are'} added" if added else ""
        )
        yield Said(
            ("case", "mainboard"),
            f"{brings}; {board.name} has {board.fan_headers} headers for them.",
            "Join two fans with a splitter cable.",
            (Figure("fans", str(look.machine.fans)), Figure("headers", str(board.fan_headers))),
        )


@rule(
    "fan places",
    family="ports",
    levels=("wastes",),
    reads={"case", "fan"},
    speaks="there are more fans than places for them in the case",
    silent="as many or fewer, or the places are not known",
)
def fan_places(look: Look) -> Speech:
    """A fan without a place in the case is bought in vain."""
    case = look.machine.case
    if case and case.fan_places is not None and look.machine.fans > case.fan_places:
        yield Said(
            ("case", "fan"),
            f"{look.machine.fans} fans for {case.fan_places} places in {case.name}.",
            "Take fans out, or take a case with more places.",
            (Figure("fans", str(look.machine.fans)), Figure("places", str(case.fan_places))),
        )
