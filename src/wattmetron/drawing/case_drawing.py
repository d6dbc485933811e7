"""The scale drawing: the case from the side and, below it, a section from above, with clearances
and pins.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup, escape

from wattmetron.core.compatibility.drawing_to_scale import Box, Clearance, Drawing, View
from wattmetron.words.figures import THIN

MOST_WIDTH_PX, MOST_HEIGHT_PX, LARGEST_SCALE = 460.0, 420.0, 1.0
MARGIN_PX, HEAD_PX, GAP_PX = 16.0, 18.0, 30.0
WORDS = {
    "mainboard": "board",
    "graphics": "card",
    "memory": "memory",
    "storage": "drive",
    "cooler": "cooler",
    "supply": "power supply",
}
HUES = {"cooler": "o-copper", "memory": "o-copper", "graphics": "o-teal"}
VIEWS: tuple[View, ...] = ("side", "above")


@dataclass(frozen=True, slots=True)
class Pin:
    """A finding's number at a place in mm."""

    number: int
    view: View
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class _Frame:
    """Pixels per mm and where the two views begin."""

    scale: float
    top: dict[View, float]

    def at(self, view: View, x: float, y: float) -> tuple[float, float]:
        return round(MARGIN_PX + x * self.scale, 1), round(self.top[view] + y * self.scale, 1)


def case_drawing(drawing: Drawing, pins: Sequence[Pin], label: str) -> Markup:
    """The whole drawing with its text alternative."""
    farthest = max([drawing.depth_mm, *(box.x + box.width for box in drawing.boxes)])
    lowest = max([drawing.height_mm, *(box.y + box.height for box in drawing.of("side"))])
    deepest = max([drawing.width_mm, *(box.y + box.height for box in drawing.of("above"))])
    scale = min(LARGEST_SCALE, MOST_WIDTH_PX / farthest, MOST_HEIGHT_PX / lowest)
    frame = _Frame(scale, {"side": HEAD_PX, "above": HEAD_PX + lowest * scale + GAP_PX})
    width = farthest * scale + 2 * MARGIN_PX
    height = frame.top["above"] + deepest * scale + 34
    pieces: list[str] = []
    for view, tall, words in (
        ("side", drawing.height_mm, "from the side"),
        ("above", drawing.width_mm, "from above"),
    ):
        pieces += _outline(frame, view, drawing, tall, words)  # type: ignore[arg-type]
        pieces += [_box(frame, box) for box in drawing.of(view)]  # type: ignore[arg-type]
    pieces += [_clearance(frame, clearance) for clearance in drawing.clearances]
    pieces += _pins(frame, pins)
    pieces.append(_scale_bar(frame, height))
    return Markup(
        f'<svg role="img" class="drawing" viewBox="0 0 {width:.0f} {height:.0f}"'
        f' width="{width:.0f}" height="{height:.0f}"'
        f' aria-label="{escape(label)}">{"".join(pieces)}</svg>'
    )


def _outline(frame: _Frame, view: View, drawing: Drawing, tall: float, words: str) -> list[str]:
    x, y = frame.at(view, 0, 0)
    wide, high = drawing.depth_mm * frame.scale, tall * frame.scale
    dashed = " dashed" if drawing.outline_assumed else ""
    sizes = f"{drawing.depth_mm:.0f} x {tall:.0f}{THIN}mm"
    assumed = ", assumed" if drawing.outline_assumed else ""
    return [
        f'<rect x="{x}" y="{y}" width="{wide:.1f}" height="{high:.1f}" class="c-outline{dashed}"/>',
        f'<text x="{x}" y="{y - 5}" class="t-said">{words}: {sizes}{assumed}</text>',
    ]


def _box(frame: _Frame, box: Box) -> str:
    x, y = frame.at(box.view, box.x, box.y)
    wide, high = round(box.width * frame.scale, 1), round(box.height * frame.scale, 1)
    kind = f"c-{'board' if box.kind == 'mainboard' else 'part'} {HUES.get(box.kind, '')}"
    kind += " dashed" if box.assumed else ""
    kind += " clash" if box.clash else ""
    word = "radiator" if box.name.startswith("radiator") else WORDS.get(box.kind, "")
    name = (
        f"<title>{escape(box.name)}, {box.width:.0f} x {box.height:.0f}"
        f" mm{', assumed' if box.assumed else ''}</title>"
    )
    shown = ""
    if len(word) * 6.4 + 6 < wide and high >= 13:
        shown = f'<text x="{x + 4}" y="{y + 12}" class="t-said">{word}</text>'
    elif high > len(word) * 6.4 + 6 and wide >= 12:
        shown = (
            f'<text transform="translate({x + 11} {y + high - 4}) rotate(-90)"'
            f' class="t-said">{word}</text>'
        )
    return (
        f'<g>{name}<rect x="{x}" y="{y}" width="{wide}" height="{high}"'
        f' class="{kind.strip()}"/>{shown}</g>'
    )


def _clearance(frame: _Frame, clearance: Clearance) -> str:
    """A dimension line from nought to the size, a stop at the room, and what is too much in solid
    ink.
    """
    x, y = frame.at(clearance.view, clearance.x, clearance.y)
    size = round(clearance.size_mm * frame.scale, 1)
    room = None if clearance.room_mm is None else round(clearance.room_mm * frame.scale, 1)
    words = (
        f"{clearance.size_mm} of {clearance.room_mm}"
        if clearance.room_mm is not None
        else f"{clearance.size_mm} of ?"
    )
    if clearance.along == "x":
        line = f'<path d="M{x} {y}H{x + size}" class="c-dim"/>'
        stop = "" if room is None else f'<path d="M{x + room} {y - 5}V{y + 5}" class="s-ink"/>'
        over = (
            f'<rect x="{x + (room or 0)}" y="{y - 3}" width="{size - (room or 0):.1f}" height="6"'
            ' class="i-ink"/>'
            if clearance.clash
            else ""
        )
        position = f'x="{x + 4}" y="{y - 4}"'
    else:
        line = f'<path d="M{x} {y}V{y + size}" class="c-dim"/>'
        stop = "" if room is None else f'<path d="M{x - 5} {y + room}H{x + 5}" class="s-ink"/>'
        over = (
            f'<rect x="{x - 3}" y="{y + (room or 0)}" width="6" height="{size - (room or 0):.1f}"'
            ' class="i-ink"/>'
            if clearance.clash
            else ""
        )
        position = f'x="{x + 8}" y="{y + max(size, room or size) - 3:.1f}"'
    return (
        f"<g><title>{escape(clearance.what)}: {words} mm</title>{line}{stop}{over}<text {position}"
        f' class="t-dim">{words}</text></g>'
    )


def _pins(frame: _Frame, pins: Sequence[Pin]) -> list[str]:
    """Numbered squares; those at one place stand in a row."""
    taken: dict[tuple[float, float], int] = {}
    labels = []
    for pin in pins:
        x, y = frame.at(pin.view, pin.x, pin.y)
        nth = taken.get((x, y), 0)
        taken[x, y] = nth + 1
        left = x - 8 + 19 * nth
        labels.append(
            f'<g><rect x="{left:.1f}" y="{y - 8}" width="17" height="16" class="i-ink"/><text'
            f' x="{left + 8.5:.1f}" y="{y + 4.5}" text-anchor="middle"'
            f' class="t-pin">{pin.number}</text></g>'
        )
    return labels


def _scale_bar(frame: _Frame, height: float) -> str:
    y, long = height - 14, 100 * frame.scale
    return (
        f'<path d="M{MARGIN_PX} {y - 4}V{y + 4}M{MARGIN_PX}'
        f' {y}H{MARGIN_PX + long:.1f}M{MARGIN_PX + long:.1f} {y - 4}V{y + 4}" class="s-edge"/><text'
        f' x="{MARGIN_PX + long + 6:.1f}" y="{y + 4}" class="t-said">100{THIN}mm</text>'
    )
