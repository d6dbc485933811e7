"""What the display does with a target's frames, as a small strip under its row."""

from markupsafe import Markup

from wattmetron.core.frames.pacing import Pacing
from wattmetron.drawing import svg

HEIGHT = 8


def pacing_strip(pacing: Pacing) -> Markup:
    """Shares of frames from left to right: quicker than the display, as they come, late."""
    first, second = 100 * pacing.quicker, 100 * (pacing.inside if pacing.variable else 0.0)
    inner = [
        svg.box(0, round(first, 2), 0, HEIGHT, "pc-quick"),
        svg.box(round(first, 2), round(second, 2), 0, HEIGHT, "pc-inside"),
        svg.box(round(first + second, 2), round(100 - first - second, 2), 0, HEIGHT, "pc-late"),
    ]
    return svg.chart(inner, HEIGHT, pacing_words(pacing))


def pacing_words(pacing: Pacing) -> str:
    if pacing.variable:
        sentences = [f"{pacing.inside:.0%} of frames as they come"]
        if pacing.quicker >= 0.005:
            sentences.append(f"{pacing.quicker:.0%} quicker than the display")
        if pacing.slower >= 0.005:
            sentences.append(f"{pacing.slower:.0%} below its variable range")
        sentences.append(f"waiting adds {pacing.lag_ms:.1f}\u202fms")
        return ", ".join(sentences)
    return (
        f"synchronised: {pacing.late:.0%} of frames late, {pacing.shown_fps:.0f}\u202ffps shown,"
        " waiting"
        f" adds {pacing.lag_ms:.1f}\u202fms; not synchronised: {pacing.torn:.0%} of refreshes torn"
    )
