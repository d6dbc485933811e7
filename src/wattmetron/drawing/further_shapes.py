"""What a machine has besides the eight kinds, as shapes on a field of 64 by 48."""

from wattmetron.core.values.further_parts import (
    CaptureCard,
    Fan,
    FanSplitter,
    InputDevice,
    OperatingSystem,
    OpticalDrive,
    Screen,
    WirelessAdapter,
)
from wattmetron.drawing.shapes import block, body, frame, lines, rays, rotor

MOST_FANS_DRAWN = 3


def fan(part: Fan) -> list[str]:
    """As many as are in the pack, to scale among fans."""
    shown = min(part.pack, MOST_FANS_DRAWN)
    side = min(20.0 if shown > 1 else 40.0, part.size_mm * 40 / 200)
    pieces = []
    for n in range(shown):
        x, y = 32 + (n - shown / 2) * (side + 1), 24 - side / 2
        pieces += [body(x, y, side, side, 2), *rotor(x + side / 2, 24, side / 2 - 1.5)]
        if part.lights:
            pieces.append(rays(x, y, side))
    return pieces


MOST_LEADS_DRAWN = 6


def splitter(part: FanSplitter) -> list[str]:
    """A plug on the left, one lead to each fan on the right."""
    shown = min(part.joins, MOST_LEADS_DRAWN)
    ends = [24 + (n - (shown - 1) / 2) * 7 for n in range(shown)]
    leads = lines((14, 24, 26, 24), *((26, 24, 46, end) for end in ends))
    return [body(6, 19, 8, 10, 1), leads, *(block(46, end - 2, 8, 4) for end in ends)]


def wireless(part: WirelessAdapter) -> list[str]:
    """A card with aerials, a small module, or a plug."""
    if part.via == "USB":
        return [body(14, 18, 28, 12, 3), block(42, 20, 9, 8)]
    if part.via == "M.2":
        return [body(18, 14, 24, 20), frame(22, 18, 14, 8), block(20, 32, 20, 2)]
    return [
        lines((12, 6, 12, 42), (12, 14, 4, 4), (12, 24, 4, 14)),
        body(13, 14, 38, 20),
        frame(22, 18, 16, 10),
        block(18, 34, 12, 3),
    ]


def capture(part: CaptureCard) -> list[str]:
    """A card with two sockets, in and out, on a longer plug where it takes more lanes; or a box."""
    if part.via == "USB":
        return [
            body(14, 14, 36, 20, 3),
            frame(19, 19, 8, 4),
            frame(31, 19, 8, 4),
            block(24, 34, 12, 4),
        ]
    return [
        lines((12, 6, 12, 42), (12, 16, 4, 16), (12, 26, 4, 26)),
        body(13, 12, 42, 22),
        frame(13, 14, 8, 5),
        frame(13, 24, 8, 5),
        frame(30, 17, 12, 12),
        block(20, 34, 24 if part.slot_lanes > 1 else 12, 3),
    ]


def optical(part: OpticalDrive) -> list[str]:
    """A tray with a disc; one that writes has a second ring."""
    rings = '<circle class="d" cx="32" cy="22" r="14"/><circle class="s" cx="32" cy="22" r="3"/>'
    if part.writes:
        rings += '<circle class="d" cx="32" cy="22" r="9"/>'
    return [body(10, 5, 44, 38, 2), rings, block(14, 39, 36, 2)]


def system(part: OperatingSystem) -> list[str]:
    """A sheet with its lines and the place of the key; a line more for each design it names."""
    named = lines(*((20, 18 + 4 * n, 44, 18 + 4 * n) for n in range(1 + min(len(part.designs), 3))))
    return [body(15, 4, 34, 40), block(20, 9, 16, 4), named, frame(20, 36, 24, 5)]


def display(part: Screen) -> list[str]:
    """As wide and high as it shows, to scale by its diagonal."""
    shape = part.width_px / part.height_px
    high = min(32.0, part.diagonal_inch * 60 / 34 / (1 + shape * shape) ** 0.5)
    wide = min(60.0, high * shape)
    x, y = 32 - wide / 2, 38 - high
    return [
        body(x, y, wide, high),
        frame(x + 1.5, y + 1.5, wide - 3, high - 3),
        lines((32, 38, 32, 44), (22, 44, 42, 44)),
    ]


def input_device(part: InputDevice) -> list[str]:
    """A keyboard, a mouse, both, a controller or a headset; a cable where it has one."""
    cable = [] if part.cordless else [lines((32, 10, 32, 2))]
    if part.what == "controller":
        return [
            body(12, 14, 40, 18, 9),
            lines((20, 19, 20, 27), (16, 23, 24, 23)),
            block(40, 19, 3, 3),
            block(45, 24, 3, 3),
            *cable,
        ]
    if part.what == "headset":
        arc = '<path class="d" d="M16 28C16 6 48 6 48 28"/>'
        return [arc, body(11, 24, 9, 16, 3), body(44, 24, 9, 16, 3), lines((15, 40, 24, 44))]
    mouse = [body(25, 10, 14, 24, 7), lines((32, 10, 32, 19))]
    if part.what == "mouse":
        return [*mouse, *cable]
    wide = 42 if part.what == "keyboard and mouse" else 54
    keys = [block(7 + 4 * n, y, 2.6, 2.6) for y in (18, 22, 26) for n in range((wide - 6) // 4)]
    pieces = [body(5, 15, wide, 18, 2), *keys, block(7 + wide / 4, 29.6, wide / 2, 2.4)]
    if part.what == "keyboard and mouse":
        pieces += [body(50, 17, 9, 15, 4), lines((54.5, 17, 54.5, 22))]
    return [*pieces, *cable]
