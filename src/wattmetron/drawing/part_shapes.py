"""The eight kinds of part as shapes on a field of 64 by 48."""

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.parts import BoardForm, Graphics, Mainboard, Processor
from wattmetron.drawing.shapes import (
    block,
    body,
    frame,
    lines,
    mesh,
    rays,
    rotor,
    spread,
)

BOARD_MM: dict[BoardForm, tuple[int, int]] = {
    "E-ATX": (330, 305),
    "ATX": (244, 305),
    "Micro-ATX": (244, 244),
    "Mini-ITX": (170, 170),
}
MOST_CORES_DRAWN = 32
USUAL_CASE_MM = (210, 450)
"""Width and height where a case's measures are not known."""


def processor(part: Processor) -> list[str]:
    """Its lid with a square for each core, and its cache as a block beside them."""
    cores = min(part.cores, MOST_CORES_DRAWN)
    across = max(2, -(-cores // max(1, round((cores / 1.5) ** 0.5))))
    side = min(5.0, 24 / across)
    pieces = [body(13, 4, 38, 40), lines((13, 10, 19, 4))]
    for n in range(cores):
        pieces.append(block(18 + n % across * side, 10 + n // across * side, side - 1, side - 1))
    cached = min(28.0, 2 + (part.cache_mb or 0) / 5)
    if part.cache_mb:
        pieces.append(frame(18, 37, cached, 3))
    if part.igpu_speed:
        pieces.append(frame(44, 10, 4, 22))
    return pieces


def card(part: Graphics) -> list[str]:
    """From its fans: as long and as high as it is, one to three fans, its power plugs on top."""
    scale = 58 / 360
    length = min(58.0, part.length_mm * scale)
    high = min(30.0, (part.height_mm or 120) * scale * 1.15)
    top = 27 - high / 2
    if part.length_mm < 200:
        fans = 1
    elif part.length_mm < 280:
        fans = 2
    else:
        fans = 3
    pieces = [lines((4, top - 3, 4, top + high + 4)), body(4, top, length, high, 2)]
    for x in spread(fans, 5, length - 2):
        pieces += rotor(x, top + high / 2, min(high / 2 - 1.5, length / fans / 2 - 1.5))
    plugs = sum(part.plugs or (0, 0))
    pieces += [block(4 + length - 6 * (n + 1), top - 2.5, 5, 2.5) for n in range(min(plugs, 4))]
    pieces.append(block(12, top + high, min(24.0, length - 10), 2))
    if part.thickness_mm and part.thickness_mm > 50:
        pieces.append(lines((6, top + high + 4, 4 + length, top + high + 4)))
    return pieces


def board(part: Mainboard) -> list[str]:
    """Seen from above, to scale among boards: socket, memory, slots, drives, ports."""
    wide, high = (size * 46 / 330 for size in BOARD_MM[part.form_factor])
    x, y = 32 - wide / 2, 24 - high / 2
    pieces = [body(x, y, wide, high), block(x + 1, y + 2, 4, high * 0.42)]
    pieces.append(frame(x + 9, y + 5, 9, 9))
    for n in range(min(part.memory_slots, 8)):
        position = x + 21 + n * 1.8
        pieces.append(lines((position, y + 3, position, y + min(17.0, high * 0.6))))
    rows = max(1, min(part.card_slots or 1, 3))
    below = y + high * 0.62
    for n in range(rows):
        level = below + n * (y + high - below - 1) / max(rows, 2)
        pieces.append(lines((x + 4, level, x + min(wide - 7, 26), level)))
    for n in range(min(part.m2_slots, 3)):
        level = below - 2.5 + n * 4.5
        if level < y + high - 1:
            pieces.append(frame(x + 8, level, 8, 1.6))
    for n in range(min(part.sata_ports, 8)):
        pieces.append(block(x + wide - 3, y + high - 3 - 2 * n, 2, 1.4))
    if part.stated_wireless:
        pieces.append(lines((x, y + 4, x - 5, y - 2), (x, y + 8, x - 6, y + 3)))
    return pieces


def memory(part: Memory) -> list[str]:
    """Its sticks as high as they are, with lights above them where it has some."""
    high = min(14.0, (part.height_mm or 34) * 14 / 60)
    shown = min(part.sticks, 3)
    pieces = []
    for n in range(shown):
        y = 24 + (n - (shown - 1) / 2) * (high + 3) - high / 2
        pieces += [body(4, y, 56, high), block(6, y + high - 1.6, 52, 1.6)]
        pieces += [frame(7 + 6.5 * chip, y + 2, 4.5, max(1.5, high - 6)) for chip in range(8)]
        if part.lights:
            pieces.append(rays(4, y, 56))
    return pieces


def drive(part: Storage) -> list[str]:
    """A stick with chips, a flat box, or a disk that spins."""
    if part.size == "M.2":
        length = (part.m2_length_mm or 80) * 56 / 110
        chips = [block(10 + n * 13, 20, 9, 8) for n in range(max(1, int((length - 8) // 13)))]
        return [body(4, 17, length, 14), *chips, lines((6, 17, 6, 31))]
    if part.kind == "hard disk":
        wide = 40 if part.size == "3.5 inch" else 30
        position = 32 - wide / 2
        return [
            body(position, 4, wide, 40, 2),
            '<circle class="d" cx="32" cy="20" r="12"/><circle class="s" cx="32" cy="20" r="3"/>',
            lines((position + wide - 5, 38, 36, 24)),
        ]
    return [body(14, 8, 36, 32, 2), frame(18, 12, 28, 14), block(18, 36, 14, 2)]


def cooler(part: Cooler) -> list[str]:
    """A tower with its fan as high as it is, or a radiator with a fan each 120 or 140 mm."""
    if part.radiator_mm is None:
        high = min(40.0, part.height_mm * 40 / 170)
        top = 44 - high
        fins = (top + 1 + 2.4 * n for n in range(max(1, int((high - 5) / 2.4))))
        return [
            body(14, top, 22, max(4.0, high - 4)),
            lines(*((14, y, 36, y) for y in fins)),
            body(37, top + 1, 7, max(3.0, high - 6)),
            block(20, 41, 10, 3),
        ]
    fans = max(1, round(part.radiator_mm / (140 if part.radiator_mm % 140 == 0 else 120)))
    each = min(16.0, 58 / fans)
    wide = fans * each
    pieces = [body(3, 4, wide, each)]
    for x in spread(fans, 3, wide):
        pieces += rotor(x, 4 + each / 2, each / 2 - 1.5)
    pieces += [lines((12, 4 + each, 20, 34), (18, 4 + each, 26, 34)), body(17, 32, 14, 11, 3)]
    return pieces


def supply(part: PowerSupply) -> list[str]:
    """A box as large as its form factor, with its fan; sockets where its cables come off."""
    wide, high = (46, 32) if part.form == "ATX" else (36, 24)
    x, y = 6.0, 24 - high / 2
    pieces = [body(x, y, wide, high), *rotor(x + wide * 0.42, 24, high / 2 - 4)]
    if part.modular:
        pieces += [block(x + wide - 5, y + 3 + 5 * n, 3, 3) for n in range(int((high - 4) // 5))]
    else:
        end = x + wide
        pieces.append(
            lines(*((end, y + 6 + 3 * n, min(62.0, end + 8), y + 4 + 5 * n) for n in range(4)))
        )
    return pieces


def case(part: Case) -> list[str]:
    """From the front and the side, to scale among cases: mesh, vents, its fans, ports, lights."""
    front_mm, high_mm = part.width_mm or USUAL_CASE_MM[0], part.height_mm or USUAL_CASE_MM[1]
    scale = min(44 / 500, 44 / high_mm)
    front, high = front_mm * scale, high_mm * scale
    side = min(58.0 - front, (part.depth_mm or high_mm) * scale * 0.75)
    x, y = 32 - (front + side) / 2, 46 - high
    pieces = [body(x, y, front, high), body(x + front, y, side, high)]
    if part.airflow == "mesh":
        pieces.append(mesh(x + 2, y + 3, front - 4, high - 5))
    elif part.airflow == "side vents":
        pieces.append(
            lines(
                *(
                    (x + front - 1.5, level, x + front - 1.5, level + 2)
                    for level in spread(6, y, high)
                )
            )
        )
    included = part.fans_included or 0
    shown = min(included, 3)
    for level in spread(shown, y + 1, high - 2) if shown else ():
        pieces += rotor(x + front / 2, level, min(front / 2 - 1, high / shown / 2 - 1, 6))
    pieces.append(frame(x + front + 2, y + 3, side - 4, high - 6))
    pieces += [block(x + 1 + 2.2 * n, y - 1, 1.4, 1) for n in range(min(len(part.front_ports), 4))]
    if part.lights:
        pieces.append(rays(x, y - 1, front))
    return pieces
