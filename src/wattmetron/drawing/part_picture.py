"""A small picture of a part, drawn from its figures: 64 by 48, to scale within its kind."""

from collections.abc import Callable
from typing import Any

from markupsafe import Markup, escape

from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.drawing import further_shapes, part_shapes

WIDTH, HEIGHT = 64, 48
BODY_COLOURS = {
    "white": "#f4f2ec",
    "black": "#33373f",
    "grey": "#8b9099",
    "gray": "#8b9099",
    "silver": "#c9ccd2",
    "blue": "#7d93ad",
    "red": "#a8685c",
    "green": "#7f9a7c",
    "wood": "#b08b62",
}
DARK = frozenset({"black"})
Draw = Callable[[Any], list[str]]
SHAPES: dict[Kind, Draw] = {
    "processor": part_shapes.processor,
    "graphics": part_shapes.card,
    "mainboard": part_shapes.board,
    "memory": part_shapes.memory,
    "storage": part_shapes.drive,
    "cooler": part_shapes.cooler,
    "supply": part_shapes.supply,
    "case": part_shapes.case,
    "fan": further_shapes.fan,
    "splitter": further_shapes.splitter,
    "wireless": further_shapes.wireless,
    "capture": further_shapes.capture,
    "optical": further_shapes.optical,
    "system": further_shapes.system,
    "display": further_shapes.display,
    "input": further_shapes.input_device,
}


def part_picture(part: Part, large: bool = False, drawn_only: bool = False) -> Markup:
    """The user's own picture of a part where there is one, else the drawing. Beside the part's name
    it says nothing by itself; a large one says what it is. ``drawn_only``: the drawing in any case.
    """
    size = f'width="{WIDTH * 4}" height="{HEIGHT * 4}"' if large else 'width="48" height="36"'
    kind = "pic large" if large else "pic"
    if part.picture and not drawn_only:
        words = f"Picture of {part.name}" if large else ""
        return Markup(
            f'<img class="{kind}" {size} loading="lazy" alt="{escape(words)}"'
            f' src="/parts/{escape(part.id)}/picture?of={escape(part.picture)}">'
        )
    colour = next((word for word in part.colour.lower().split() if word in BODY_COLOURS), "")
    dark = " dark" if colour in DARK else ""
    body = f' fill="{BODY_COLOURS[colour]}"' if colour else ""
    sentence = (
        f'role="img" aria-label="{escape(part.name)}, drawn from its figures"'
        if large
        else 'aria-hidden="true"'
    )
    return Markup(
        f'<svg class="{kind}{dark}" {size} viewBox="0 0 {WIDTH} {HEIGHT}" {sentence}{body}>'
        f"{''.join(SHAPES[kind_of(part)](part))}</svg>"
    )
