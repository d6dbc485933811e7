"""A frame row: both sides' mean times, the mean frame, the low and a cap, in % of the target's
time.

The whisker is the 80 % interval of what the target is on: the mean frame or the low.
"""

from markupsafe import Markup

from wattmetron.core.frames.estimate import Estimate
from wattmetron.drawing import svg

MOST = 200.0


def frame_row(estimate: Estimate) -> Markup:
    """The chart of one target; the axis runs from 0 to 200 % of its frame time."""
    unit = estimate.wanted_ms
    pieces = [svg.box(0, 100, 4, 44, "f-well")]
    pieces += [svg.line(x, x, 4, 48, "s-line") for x in (25, 75)]
    if estimate.average_fps > 0:
        pieces += _bar(estimate.processor_ms / unit * 100, 8, "o-copper", "url(#hatch)")
        pieces += _bar(estimate.graphics_ms / unit * 100, 22, "o-teal", "url(#dots)")
        pieces += _frame(estimate, unit)
    pieces.append(svg.line(50, 50, 0, 52, "s-halo"))
    pieces.append(svg.line(50, 50, 0, 52, "s-ink"))
    if estimate.average_fps > 0:
        pieces += _marks(estimate, unit)
    return svg.chart(pieces, 52, _label(estimate))


def _bar(share: float, y: int, kind: str, pattern: str) -> list[str]:
    width = svg.percent(share, MOST)
    bar = svg.box(0, width, y, 10, kind, pattern)
    return [bar, _arrow(y + 5)] if share > MOST else [bar]


def _arrow(y: float) -> str:
    return svg.at(100, f'<path d="M-9 {y - 5}L-1 {y}L-9 {y + 5}Z" class="i-ink"/>')


def _frame(estimate: Estimate, unit: float) -> list[str]:
    wanted = estimate.target.fps
    first = svg.percent(wanted / estimate.judged_high_fps * 100, MOST)
    last = svg.percent(wanted / estimate.judged_low_fps * 100, MOST)
    ends = [svg.line(x, x, 37, 45, "s-ink") for x in (first, last) if x < 100]
    return [svg.line(first, last, 41, 41, "s-ink"), *ends]


def _marks(estimate: Estimate, unit: float) -> list[str]:
    mean, low = (1000 / fps / unit * 100 for fps in (estimate.average_fps, estimate.low_fps))
    pieces = []
    if low <= MOST:
        pieces.append(
            svg.at(
                svg.percent(low, MOST),
                '<rect x="-1.5" y="36" width="3" height="10" class="i-ground s-edge"/>',
            )
        )
    pieces.append(svg.at(svg.percent(mean, MOST), svg.diamond(41, 5, "i-ink")))
    if max(mean, estimate.target.fps / estimate.judged_fps * 100) > MOST:
        pieces.append(_arrow(41))
    if estimate.cap_fps is not None:
        cap = svg.percent(estimate.target.fps / estimate.cap_fps * 100, MOST)
        pieces.append(svg.at(cap, '<path d="M-2 5V19M2 5V19" class="s-ink"/>'))
    return pieces


def _label(estimate: Estimate) -> str:
    if estimate.average_fps == 0:
        return f"{estimate.game.name}: {estimate.cannot}"
    return (
        f"{estimate.game.name}: processor {estimate.processor_ms:.1f} ms, graphics"
        f" {estimate.graphics_ms:.1f} ms, "
        f"mean frame {estimate.mean_frame_ms:.1f} ms of {estimate.wanted_ms:.1f} ms wanted"
    )


def axis() -> Markup:
    """The axis under all rows."""
    pieces = [
        svg.text(x, 11, f"{2 * x:.0f} %", anchor=anchor)
        for x, anchor in (
            (0, "start"),
            (25, "middle"),
            (50, "middle"),
            (75, "middle"),
            (100, "end"),
        )
    ]
    pieces.append(svg.text(50, 24, "frame time in % of the target's"))
    return svg.chart(pieces, 26, "Axis: frame time from 0 to 200 % of the target's frame time")
