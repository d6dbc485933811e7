"""Shapes of the pictures of parts: bodies take the part's colour, details are thin lines."""

from collections.abc import Iterable


def body(x: float, y: float, width: float, height: float, round_by: float = 1) -> str:
    return (
        f'<rect class="b" x="{x:.1f}" y="{y:.1f}" width="{width:.1f}" height="{height:.1f}"'
        f' rx="{round_by:g}"/>'
    )


def block(x: float, y: float, width: float, height: float) -> str:
    """Something solid on a body."""
    return f'<rect class="s" x="{x:.1f}" y="{y:.1f}" width="{width:.1f}" height="{height:.1f}"/>'


def frame(x: float, y: float, width: float, height: float) -> str:
    """An outline on a body."""
    return f'<rect class="d" x="{x:.1f}" y="{y:.1f}" width="{width:.1f}" height="{height:.1f}"/>'


def lines(*places: tuple[float, float, float, float]) -> str:
    """Lines from one point to another."""
    path = "".join(f"M{x1:.1f} {y1:.1f}L{x2:.1f} {y2:.1f}" for x1, y1, x2, y2 in places)
    return f'<path class="d" d="{path}"/>'


def mesh(x: float, y: float, width: float, height: float) -> str:
    """A field of holes."""
    rows = range(int(height // 2))
    path = "".join(f"M{x:.1f} {y + 1 + 2 * row:.1f}h{width:.1f}" for row in rows)
    return f'<path class="d" stroke-dasharray="1 1" d="{path}"/>'


def rotor(x: float, y: float, radius: float) -> list[str]:
    """A fan: ring, hub and four blades."""
    inner, outer = radius * 0.32, radius * 0.82
    blades = lines(
        (x - inner, y, x - outer, y + inner),
        (x + inner, y, x + outer, y - inner),
        (x, y - inner, x - inner, y - outer),
        (x, y + inner, x + inner, y + outer),
    )
    return [
        f'<circle class="d" cx="{x:.1f}" cy="{y:.1f}" r="{radius:.1f}"/>',
        f'<circle class="s" cx="{x:.1f}" cy="{y:.1f}" r="{inner:.1f}"/>',
        blades,
    ]


def rays(x: float, y: float, width: float) -> str:
    """Light above an edge."""
    return lines(*((x + width * n / 5, y, x + width * n / 5, y - 3) for n in range(1, 5)))


def spread(count: int, start: float, length: float) -> Iterable[float]:
    """The middles of so many equal pieces of a stretch."""
    return (start + length * (n + 0.5) / count for n in range(count))
