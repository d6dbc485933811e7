"""Frame rows in words and charts."""

from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.frames.caps import held_by_cap
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.frames.pacing import pacing
from wattmetron.core.frames.required_speedup import needed_speedup
from wattmetron.core.frames.settling import settlings
from wattmetron.core.values.brief import Brief, Target
from wattmetron.drawing.frame_row import frame_row
from wattmetron.drawing.pacing_strip import pacing_strip, pacing_words
from wattmetron.places.assessment.all_targets import together_words
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.games.contenders import machine_contender
from wattmetron.places.games.pages.required import Required, required, tier_words
from wattmetron.words.figures import THIN, percent, settings


@dataclass(frozen=True, slots=True, kw_only=True)
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
    estimate: Estimate | None
    brief: Brief

    @property
    def chance(self) -> str:
        return f"chance {percent(self.estimate.chance)}" if self.estimate else ""

    @property
    def limit(self) -> str:
        return _limit(self.estimate) if self.estimate else ""

    @property
    def why(self) -> str:
        return _why(self.brief, self.estimate) if self.estimate else self.lacking

    @property
    def chart(self) -> Markup | None:
        return frame_row(self.estimate) if self.estimate else None

    @property
    def paced(self) -> tuple[Markup, str] | None:
        """What the display does with the frames, drawn and in words."""
        pace = pacing(self.estimate, self.brief.display) if self.estimate else None
        return (pacing_strip(pace), pacing_words(pace)) if pace else None

    @property
    def readout(self) -> str:
        return _readout(self.estimate) if self.estimate else ""

    @property
    def drawn(self) -> str:
        return _drawn(self.estimate) if self.estimate else ""

    @property
    def figures(self) -> tuple[str, ...]:
        return _figures(self.estimate) if self.estimate else ()


def frame_rows(
    now: Assessment, ghost: Assessment | None, names: dict[str, str]
) -> tuple[FrameRowView, ...]:
    """A row for every target of the brief."""
    before = (
        {}
        if ghost is None
        else {estimate.target.id: estimate for estimate in ghost.estimates if estimate is not None}
    )
    return tuple(
        _row(now.brief, target, estimate, before.get(target.id), names)
        for target, estimate in zip(now.brief.targets, now.estimates, strict=True)
    )


def target_words(target: Target) -> str:
    measure = " low" if target.measure == "low" else ""
    shown = " shown" if target.generated else ""
    return f"{target.fps:g}{THIN}fps{measure}{shown}"


def _row(
    brief: Brief,
    target: Target,
    estimate: Estimate | None,
    before: Estimate | None,
    names: dict[str, str],
) -> FrameRowView:
    lacking = ""
    if estimate is None and target.game_id in names:
        lacking = "Needs a processor and something that draws."
    elif estimate is None:
        lacking = "The catalogue no longer has this game: choose another."
    return FrameRowView(
        target=target,
        game=names.get(target.game_id, target.game_id),
        settings=settings(target),
        wanted=target_words(target),
        state=estimate.state if estimate else "",
        rate=_rate(estimate) if estimate else "",
        change=_change(estimate, before) if estimate and before else "",
        counted=target.weight > 0,
        lacking=lacking,
        estimate=estimate,
        brief=brief,
    )


def _rate(estimate: Estimate) -> str:
    if not estimate.average_fps:
        return ""
    low = " low" if estimate.target.measure == "low" else ""
    interval = f"{estimate.judged_low_fps:.0f}–{estimate.judged_high_fps:.0f}"
    shown = " shown" if estimate.generated else ""
    return f"{estimate.judged_fps:.0f}{THIN}fps{low}{shown} ({interval})"


def _drawn(estimate: Estimate) -> str:
    """What the frames shown cost: the rate before generation, and the lag that it adds."""
    if not estimate.generated or not estimate.average_fps:
        return ""
    low = " low" if estimate.target.measure == "low" else ""
    return (
        f"{estimate.drawn_fps:.0f}{THIN}fps{low} drawn before generation, which adds"
        f" {estimate.generation_lag_ms:.0f}{THIN}ms of lag"
    )


def _change(estimate: Estimate, before: Estimate) -> str:
    delta = estimate.judged_fps - before.judged_fps
    if not estimate.judged_fps or not before.judged_fps or abs(delta) < 0.5:
        return ""
    return f"{'+' if delta > 0 else '−'}{abs(delta):.0f}{THIN}fps"


def _limit(estimate: Estimate) -> str:
    if not estimate.average_fps:
        return estimate.cannot
    if estimate.limit_words == "evenly matched":
        return f"evenly matched: processor in {percent(estimate.processor_share)} of frames"
    by_processor = estimate.limit_words == "processor"
    share = estimate.processor_share if by_processor else 1 - estimate.processor_share
    waits = estimate.graphics_waits_ms if by_processor else estimate.processor_waits_ms
    other = "graphics wait" if by_processor else "the processor waits"
    side = "the processor" if by_processor else "graphics"
    return f"limited by {side} in {percent(share)} of frames; {other} {waits:.1f}{THIN}ms"


def _why(brief: Brief, estimate: Estimate) -> str:
    """Why a target is short, what would settle an unsure one, or what deserves a word."""
    if estimate.cannot:
        if held_by_cap(estimate.game, estimate.target, estimate.shown):
            return f"Not met here: {estimate.cannot}; a card that generates frames would show more."
        if estimate.cap_fps is not None and estimate.average_fps:
            return f"Cannot be met: {estimate.cannot}; ask for at most that."
        return f"Cannot be met: {estimate.cannot}."
    notes = []
    if estimate.short_of_video_memory_gb > 0:
        notes.append(
            f"{estimate.short_of_video_memory_gb:.1f}{THIN}GB too little video memory costs"
            f" {estimate.made_of.spill_ms:.1f}{THIN}ms a frame."
        )
    if estimate.target.upscaling and not estimate.upscaled:
        notes.append("Upscaling is not offered here: drawn at full resolution.")
    if estimate.target.generated and not estimate.generated:
        notes.append("Frame generation is not offered here: only drawn frames count.")
    if estimate.state == "short":
        notes.append(_short(brief, estimate))
    elif estimate.state == "unsure":
        notes.append(_unsure(brief, estimate))
    elif (
        estimate.cap_fps is not None
        and estimate.capped_fps is not None
        and estimate.average_fps * estimate.shown > estimate.cap_fps * 0.98
    ):
        notes.append(
            f"Shown at {estimate.capped_fps:.0f}{THIN}fps under a cap of {estimate.cap_fps:g}."
        )
    return " ".join(notes)


def _short(brief: Brief, estimate: Estimate) -> str:
    needed = needed_speedup(estimate, brief.chance)
    both = estimate.target.fps / estimate.reliable_fps - 1
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


def _unsure(brief: Brief, estimate: Estimate) -> str:
    """The one piece of published evidence that would settle it most often, and an own run."""
    ranked = settlings(estimate, brief.chance)
    run = next(each for each in ranked if each.kind == "own run")
    best = next(each for each in ranked if each.kind != "own run")
    what = {
        "published result": "A published result of this machine at these settings",
        "processor result": (
            f"A published result of {estimate.game.name} with this processor as the limit"
        ),
        "graphics result": (
            f"A published result of {estimate.game.name} with this graphics part as the limit"
        ),
    }[best.kind]
    return (
        f"{what} would narrow ±{best.before_sd * 100:.0f}{THIN}% to"
        f" ±{best.after_sd * 100:.0f}{THIN}% and settle it in {percent(best.settles)} of cases; a"
        f" measured run of your own in {percent(run.settles)}."
    )


def _readout(estimate: Estimate) -> str:
    """The exact figures of the chart, read out on hover and focus."""
    if not estimate.average_fps:
        return estimate.cannot
    cap = f", cap {estimate.shown * 1000 / estimate.cap_fps:.1f}" if estimate.cap_fps else ""
    return (
        f"{estimate.game.name}: processor {estimate.processor_ms:.1f}, graphics"
        f" {estimate.graphics_ms:.1f}, mean"
        f" frame {estimate.mean_frame_ms:.1f}, 1 % low {1000 / estimate.low_fps:.1f}{cap}, wanted"
        f" {estimate.wanted_ms:.1f}{THIN}ms" + (" a drawn frame" if estimate.generated else "")
    )


def _figures(estimate: Estimate) -> tuple[str, ...]:
    """For the table: the exact values behind the chart."""
    if not estimate.average_fps:
        return ()
    cap = "–" if estimate.capped_fps is None else f"{estimate.capped_fps:.1f}"
    return (
        f"{estimate.processor_ms:.2f}",
        f"{estimate.graphics_ms:.2f}",
        f"{estimate.mean_frame_ms:.2f}",
        f"{estimate.average_fps:.1f}",
        f"{estimate.low_fps:.1f}",
        f"{estimate.judged_fps:.1f}",
        f"{estimate.judged_low_fps:.0f}–{estimate.judged_high_fps:.0f}",
        f"{estimate.reliable_fps:.1f}",
        f"{estimate.processor_alone_fps:.0f}",
        f"{estimate.graphics_alone_fps:.0f}",
        f"{estimate.late_share * 100:.1f}",
        cap,
    )


FIGURE_NAMES = (
    "processor ms",
    "graphics ms",
    "mean frame ms",
    "average fps",
    "1 % low fps",
    "fps against the target",
    "80 % interval fps",
    "reliable fps",
    "processor alone fps",
    "graphics alone fps",
    "later than a refresh %",
    "capped fps",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class FramesView:
    """What stands beside the targets' rows: all of them at once in words, what their lists ask of
    the machine, and each target's tiers in words.
    """

    together: str
    required: Required
    tier_words: dict[str, str]


def _content(context: ViewContext) -> FramesView:
    brief, now = context.opened.plan.brief, context.shown
    return FramesView(
        together=together_words(context.catalogue, now),
        required=required(context.catalogue, brief, machine_contender(now.machine, brief.system)),
        tier_words=tier_words(context.catalogue, brief),
    )


FRAMES = ViewSpec(
    name="frames",
    title="Frames",
    key="1",
    template="places/frames/pages/frames.html",
    make=_content,
    lists_targets=True,
)
