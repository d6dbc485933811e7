"""What the display does with a target's frames, as a small strip under its row."""

from markupsafe import Markup

from wattmetron.core.frames.pacing import Pacing
from wattmetron.web.drawing import svg

HEIGHT = 8


def pacing_strip(own: Pacing) -> Markup:
    """Shares of frames from left to right: quicker than the display, as they come, late."""
    first, second = 100 * own.quicker, 100 * (own.inside if own.variable else 0.0)
    inner = [
        svg.box(0, round(first, 2), 0, HEIGHT, "pc-quick"),
        svg.box(round(first, 2), round(second, 2), 0, HEIGHT, "pc-inside"),
        svg.box(round(first + second, 2), round(100 - first - second, 2), 0, HEIGHT, "pc-late"),
    ]
    return svg.chart(inner, HEIGHT, pacing_words(own))


def pacing_words(own: Pacing) -> str:
    if own.variable:
        said = [f"{own.inside:.0%} of frames as they come"]
        if own.quicker >= 0.005:
            said.append(f"{own.quicker:.0%} quicker than the display")
        if own.slower >= 0.005:
            said.append(f"{own.slower:.0%} below its variable range")
        said.append(f"waiting adds {own.lag_ms:.1f}\u202fms")
        return ", ".join(said)
    return (
        f"synchronised: {own.late:.0%} of frames late, {own.shown_fps:.0f}\u202ffps shown, waiting"
        f" adds {own.lag_ms:.1f}\u202fms; not synchronised: {own.torn:.0%} of refreshes torn"
    )
