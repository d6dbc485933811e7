"""Frame rows in words and charts."""

from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.frames.headway import needed_speedup
from wattmetron.core.frames.settling import settlings
from wattmetron.core.values.brief import Brief, Target
from wattmetron.services.desk.assess import Assessment
from wattmetron.services.words.figures import THIN, percent, settings
from wattmetron.web.drawing.frame_row import frame_row


@dataclass(frozen=True, slots=True)
class FrameRowView:
    """One target: its game, settings and state; the chart and what it says are made when they are
    asked for.
    """

    target: Target
    game: str
    settings: str
    wanted: str
    state: str
    rate: str
    change: str
    counted: bool
    lacking: str
    one: Estimate | None
    brief: Brief

    @property
    def chance(self) -> str:
        return f"chance {percent(self.one.chance)}" if self.one else ""

    @property
    def limit(self) -> str:
        return _limit(self.one) if self.one else ""

    @property
    def why(self) -> str:
        return _why(self.brief, self.one) if self.one else self.lacking

    @property
    def chart(self) -> Markup | None:
        return frame_row(self.one) if self.one else None

    @property
    def readout(self) -> str:
        return _readout(self.one) if self.one else ""

    @property
    def figures(self) -> tuple[str, ...]:
        return _figures(self.one) if self.one else ()


def frame_rows(
    now: Assessment, ghost: Assessment | None, names: dict[str, str]
) -> tuple[FrameRowView, ...]:
    """A row for every target of the brief."""
    before = (
        {} if ghost is None else {one.target.id: one for one in ghost.estimates if one is not None}
    )
    return tuple(
        _row(now.brief, target, one, before.get(target.id), names)
        for target, one in zip(now.brief.targets, now.estimates, strict=True)
    )


def target_words(target: Target) -> str:
    measure = " low" if target.measure == "low" else ""
    return f"{target.fps:g}{THIN}fps{measure}"


def _row(
    brief: Brief,
    target: Target,
    one: Estimate | None,
    before: Estimate | None,
    names: dict[str, str],
) -> FrameRowView:
    lacking = ""
    if one is None and target.game_id in names:
        lacking = "Needs a processor and something that draws."
    elif one is None:
        lacking = "The catalogue no longer has this game: choose another."
    return FrameRowView(
        target,
        names.get(target.game_id, target.game_id),
        settings(target),
        target_words(target),
        one.state if one else "",
        _rate(one) if one else "",
        _change(one, before) if one and before else "",
        target.weight > 0,
        lacking,
        one,
        brief,
    )


def _rate(one: Estimate) -> str:
    if not one.average_fps:
        return ""
    low = " low" if one.target.measure == "low" else ""
    return (
        f"{one.judged_fps:.0f}{THIN}fps{low} ({one.judged_low_fps:.0f}–{one.judged_high_fps:.0f})"
    )


def _change(one: Estimate, before: Estimate) -> str:
    delta = one.judged_fps - before.judged_fps
    if not one.judged_fps or not before.judged_fps or abs(delta) < 0.5:
        return ""
    return f"{'+' if delta > 0 else '−'}{abs(delta):.0f}{THIN}fps"


def _limit(one: Estimate) -> str:
    if not one.average_fps:
        return one.cannot
    if one.limit_words == "evenly matched":
        return f"evenly matched: processor in {percent(one.processor_share)} of frames"
    by_processor = one.limit_words == "processor"
    share = one.processor_share if by_processor else 1 - one.processor_share
    waits = one.graphics_waits_ms if by_processor else one.processor_waits_ms
    other = "graphics wait" if by_processor else "the processor waits"
    side = "the processor" if by_processor else "graphics"
    return f"limited by {side} in {percent(share)} of frames; {other} {waits:.1f}{THIN}ms"


def _why(brief: Brief, one: Estimate) -> str:
    """Why a target is short, what would settle an unsure one, or what deserves a word."""
    if one.cannot:
        if one.cap_fps is not None and one.average_fps:
            return f"Cannot be met: {one.cannot}; ask for at most that."
        return f"Cannot be met: {one.cannot}."
    notes = []
    if one.short_of_video_memory_gb > 0:
        notes.append(
            f"{one.short_of_video_memory_gb:.1f}{THIN}GB too little video memory costs"
            f" {one.made_of[3]:.1f}{THIN}ms a frame."
        )
    if one.target.upscaling and not one.upscaled:
        notes.append("Upscaling is not offered here: drawn at full resolution.")
    if one.state == "short":
        notes.append(_short(brief, one))
    elif one.state == "unsure":
        notes.append(_unsure(brief, one))
    elif (
        one.cap_fps is not None
        and one.capped_fps is not None
        and one.average_fps > one.cap_fps * 0.98
    ):
        notes.append(f"Shown at {one.capped_fps:.0f}{THIN}fps under a cap of {one.cap_fps:g}.")
    return " ".join(notes)


def _short(brief: Brief, one: Estimate) -> str:
    needed = needed_speedup(one, brief.chance)
    both = one.target.fps / one.reliable_fps - 1
    if needed.graphics and needed.processor:
        return (
            f"Would need graphics {percent(needed.graphics - 1)} or a processor"
            f" {percent(needed.processor - 1)} faster."
        )
    if needed.graphics:
        return f"Would need graphics {percent(needed.graphics - 1)} faster."
    if needed.processor:
        return f"Would need a processor {percent(needed.processor - 1)} faster."
    return f"Neither side alone is enough: both would have to be {percent(both)} faster."


def _unsure(brief: Brief, one: Estimate) -> str:
    """The one piece of published evidence that would settle it most often, and an own run."""
    ranked = settlings(one, brief.chance)
    run = next(each for each in ranked if each.kind == "own run")
    best = next(each for each in ranked if each.kind != "own run")
    what = {
        "published result": "A published result of this machine at these settings",
        "processor result": (
            f"A published result of {one.game.name} in which this processor sets the pace"
        ),
        "graphics result": (
            f"A published result of {one.game.name} in which this graphics part sets the pace"
        ),
    }[best.kind]
    return (
        f"{what} would narrow ±{best.before_sd * 100:.0f}{THIN}% to"
        f" ±{best.after_sd * 100:.0f}{THIN}% and settle it in {percent(best.settles)} of cases; a"
        f" measured run of your own in {percent(run.settles)}."
    )


def _readout(one: Estimate) -> str:
    """The exact figures of the chart, read out on hover and focus."""
    if not one.average_fps:
        return one.cannot
    cap = f", cap {1000 / one.cap_fps:.1f}" if one.cap_fps else ""
    return (
        f"{one.game.name}: processor {one.processor_ms:.1f}, graphics {one.graphics_ms:.1f}, mean"
        f" frame {one.mean_frame_ms:.1f}, 1 % low {1000 / one.low_fps:.1f}{cap}, wanted"
        f" {1000 / one.target.fps:.1f}{THIN}ms"
    )


def _figures(one: Estimate) -> tuple[str, ...]:
    """For the table: the exact values behind the chart."""
    if not one.average_fps:
        return ()
    cap = "–" if one.capped_fps is None else f"{one.capped_fps:.1f}"
    return (
        f"{one.processor_ms:.2f}",
        f"{one.graphics_ms:.2f}",
        f"{one.mean_frame_ms:.2f}",
        f"{one.average_fps:.1f}",
        f"{one.low_fps:.1f}",
        f"{one.judged_low_fps:.0f}–{one.judged_high_fps:.0f}",
        f"{one.reliable_fps:.1f}",
        f"{one.processor_alone_fps:.0f}",
        f"{one.graphics_alone_fps:.0f}",
        f"{one.late_share * 100:.1f}",
        cap,
    )


FIGURE_NAMES = (
    "processor ms",
    "graphics ms",
    "mean frame ms",
    "average fps",
    "1 % low fps",
    "80 % interval fps",
    "reliable fps",
    "processor alone fps",
    "graphics alone fps",
    "later than a refresh %",
    "capped fps",
)
