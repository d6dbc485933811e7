"""All pairings as one picture: bins of a stronger shade the more targets are met, with contours
where the answer changes.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from markupsafe import Markup, escape

from wattmetron.drawing import svg

ROW = 17
AXIS = 18
STRONGEST = 0.5


@dataclass(frozen=True, slots=True, kw_only=True)
class Bin:
    """The best pairing of a bin: the share of targets that it meets, three yes or no (within the
    budget, meets all, limited by the processor), its address and words.
    """

    share: float
    inside: bool
    meets_all: bool
    by_processor: bool
    url: str
    words: str


Place = tuple[int, int]
CONTOURS = (
    ("s-limit-line", "by_processor"),
    ("s-met-line", "meets_all"),
    ("s-budget-line", "inside"),
)
"""Classes of the lines by what changes across them, the last drawn on top."""


def picture(
    bins: Mapping[Place, Bin],
    prices: Sequence[str],
    rows: int,
    own: Place | None,
    tried: Place | None,
    label: str,
) -> Markup:
    """Bins by row and column as links (one tab stop, arrow keys move), contours, the present
    build's bin a filled diamond, a tried one open; below the prices at which columns begin.
    """
    columns, first = len(prices), True
    pieces = []
    for (row, column), cell in sorted(bins.items()):
        left, right = _x(column, columns), _x(column + 1, columns)
        shade = (
            f'<rect x="{left}%" y="{row * ROW}" width="{round(right - left, 3)}%" height="{ROW}"'
            f' class="f-ink-tone" fill-opacity="{0.03 + STRONGEST * cell.share:.2f}"/>'
        )
        stop = "0" if first else "-1"
        first = False
        pieces.append(
            f'<a href="{escape(cell.url)}" data-cell="{row},{column}" tabindex="{stop}"'
            f' aria-label="{escape(cell.words)}"><title>{escape(cell.words)}</title>{shade}</a>'
        )
    for kind, name in CONTOURS:
        pieces += [
            *_contour(bins, columns, "s-line-halo", name),
            *_contour(bins, columns, kind, name),
        ]
    for position, kind in ((tried, "s-ink-fill"), (own, "own-mark")):
        if position is not None:
            pieces.append(
                svg.at(
                    (_x(position[1], columns) + _x(position[1] + 1, columns)) / 2,
                    svg.diamond(position[0] * ROW + ROW / 2, 6, kind),
                )
            )
    step = max(1, columns // 8)
    for column in range(0, columns, step):
        pieces.append(
            svg.text(_x(column, columns), rows * ROW + 13, prices[column], "t-mut", "start")
        )
    height = rows * ROW + AXIS
    return Markup(
        f'<svg class="bins" height="{height}" role="group" aria-label="{escape(label)}"'
        f' data-grid="{rows},{columns}">{"".join(pieces)}</svg>'
    )


def _x(column: int, columns: int) -> float:
    return round(100 * column / columns, 3)


def _contour(bins: Mapping[Place, Bin], columns: int, kind: str, name: str) -> list[str]:
    """Edges between bins that differ."""
    lines = []
    for (row, column), cell in bins.items():
        right, below = bins.get((row, column + 1)), bins.get((row + 1, column))
        here = getattr(cell, name)
        left, end = _x(column, columns), _x(column + 1, columns)
        if right is not None and getattr(right, name) != here:
            lines.append(svg.line(end, end, row * ROW, (row + 1) * ROW, kind))
        if below is not None and getattr(below, name) != here:
            lines.append(svg.line(left, end, (row + 1) * ROW, (row + 1) * ROW, kind))
    return lines
