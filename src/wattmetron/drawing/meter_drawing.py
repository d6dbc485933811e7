"""Edgewise panel meters: a linear scale with a pointer, and a ghost where it stood."""

from markupsafe import Markup

from wattmetron.drawing import svg


def meter(
    value: float | None,
    most: float,
    label: str,
    ghost: float | None = None,
    band: tuple[float, float] | None = None,
    marks: tuple[float, ...] = (),
    limit: float | None = None,
    interval: tuple[float, float] | None = None,
) -> Markup:
    """One scale from 0 to ``most``: a band, small marks, a limit line, an interval, the pointer and
    its ghost.
    """
    pieces = [svg.line(0, 100, 16, 16, "s-edge")]
    pieces += [svg.line(x, x, 12 if x % 50 else 9, 16, "s-edge") for x in range(0, 101, 10)]
    if band:
        left, right = (svg.percent(number, most) for number in band)
        pieces.append(svg.box(left, max(right - left, 0.6), 17, 4, "f-edge"))
    pieces += [
        svg.at(svg.percent(mark, most), '<path d="M0 4V16" class="s-ink"/>') for mark in marks
    ]
    if limit is not None:
        x = svg.percent(limit, most)
        pieces += [
            svg.line(x, x, 2, 21, "s-ink"),
            svg.at(x, '<rect x="-2" y="0" width="4" height="3" class="i-ink"/>'),
        ]
    if interval:
        left, right = (svg.percent(number, most) for number in interval)
        pieces.append(svg.line(left, right, 19, 19, "s-ink"))
    if ghost is not None and (value is None or abs(ghost - value) > most / 500):
        pieces.append(svg.at(svg.percent(ghost, most), '<path d="M0 16L-5 5H5Z" class="ghost"/>'))
    if value is not None:
        pieces.append(svg.at(svg.percent(value, most), '<path d="M0 17L-5 4H5Z" class="i-ink"/>'))
    return svg.chart(pieces, 22, label)
