"""A few SVG elements placed in per cent of the width, so that a chart stretches without
distortion.
"""

from markupsafe import Markup, escape


def percent(value: float, most: float) -> float:
    """A place on a scale from 0 to ``most``, kept within the chart."""
    return round(max(0.0, min(100.0, 100 * value / most)), 2) if most > 0 else 0.0


def line(x1: float, x2: float, y1: float, y2: float, kind: str) -> str:
    return f'<line x1="{x1}%" x2="{x2}%" y1="{y1}" y2="{y2}" class="{kind}"/>'


def box(x: float, width: float, y: float, height: float, kind: str, fill: str = "") -> str:
    paint = f' fill="{fill}"' if fill else ""
    return (
        f'<rect x="{x}%" width="{max(0.0, round(width, 2))}%" y="{y}" height="{height}"'
        f' class="{kind}"{paint}/>'
    )


def at(x: float, inner: str) -> str:
    """Shapes in pixels around a place in per cent."""
    return f'<svg x="{x}%" overflow="visible">{inner}</svg>'


def text(x: float, y: float, words: str, kind: str = "t-mut", anchor: str = "middle") -> str:
    return f'<text x="{x}%" y="{y}" class="{kind}" text-anchor="{anchor}">{escape(words)}</text>'


def chart(inner: list[str], height: int, label: str) -> Markup:
    """A whole chart with its text alternative."""
    return Markup(
        f'<svg role="img" height="{height}" aria-label="{escape(label)}">{"".join(inner)}</svg>'
    )


def diamond(y: float, r: float, kind: str) -> str:
    return f'<path d="M0 {y - r}L{r} {y}L0 {y + r}L{-r} {y}Z" class="{kind}"/>'
