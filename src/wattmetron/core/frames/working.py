"""The working of an estimate: data, assumptions and formulas, step by step, from the same
functions.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from math import exp

from wattmetron.core.frames import work
from wattmetron.core.frames.drawing_side import affinities
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.frames.memory_class import rated_bandwidth_gbs, rated_latency_ns
from wattmetron.core.frames.pacing import pacing
from wattmetron.core.frames.settling import settlings
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Processor
from wattmetron.core.values.threads import CROWDING

THIN = "\u202f"


@dataclass(frozen=True, slots=True)
class WorkingStep:
    """One step: what it is, the formula with its figures, the result with its unit, where it comes
    from.
    """

    title: str
    formula: str
    result: str
    source: str = ""


def frame_working(machine: Machine, estimate: Estimate, brief: Brief) -> tuple[WorkingStep, ...]:
    """All steps from speeds and work to the chance of the target."""
    return (
        *_learnt_steps(estimate),
        *_told_steps(machine, estimate),
        *_processor_steps(machine, estimate),
        *_graphics_steps(estimate),
        *_rate_steps(estimate),
        *_display_steps(estimate, brief),
        *_sureness_steps(estimate, brief),
        *_surer_steps(estimate, brief),
    )


def _learnt_steps(estimate: Estimate) -> Iterator[WorkingStep]:
    """What other games' results moved of what is taken for granted about games."""
    game, learnt = estimate.game, estimate.game.from_others
    if learnt is None:
        return
    yield WorkingStep(
        "What other games taught",
        f"{learnt.results} results of {learnt.games} games",
        f"power {game.pixel_power:.2f}",
        f"Publishers leave {_percent(exp(learnt.margin) - 1)} to spare; graphics work grows with"
        f" the pixels to the power {learnt.power:.2f} (here {game.pixel_power:.2f}); preset"
        " steps and the spread of frame times likewise. All of it, and what moved it, stands under"
        " Games, Assumptions.",
    )


def _told_steps(machine: Machine, estimate: Estimate) -> Iterator[WorkingStep]:
    """What results of this game told about the machine's parts beyond their speeds."""
    for part, known in zip(
        (machine.processor, machine.graphics), affinities(machine, estimate.game), strict=True
    ):
        if part is None or not known.shift:
            continue
        who = f"results of the design {part.design}" if known.speed_open else "its own results"
        if not known.places:
            who = f"other games' {who}"
        yield WorkingStep(
            f"{part.name} in this game",
            "x e^" + f"{known.shift:+.3f}".replace("-", "−"),
            f"{100 * (exp(known.shift) - 1):+.1f}{THIN}%".replace("-", "−"),
            f"Time longer or shorter than its speed says, as {who} tell; part of C x u or G x w"
            " below.",
        )


def _surer_steps(estimate: Estimate, brief: Brief) -> Iterator[WorkingStep]:
    if estimate.cannot:
        return
    for kind, words in (
        ("own run", "A measured run of your own at these settings"),
        ("published result", "A published result of this machine at these settings"),
    ):
        settling = next(each for each in settlings(estimate, brief.chance) if each.kind == kind)
        yield WorkingStep(
            "What would make it surer",
            words,
            f"±{_percent(settling.before_sd, 1)} to ±{_percent(settling.after_sd, 1)}",
            "Expected narrowing of the frame time by a normal update with that evidence's noise.",
        )


def _percent(share: float, digits: int = 0) -> str:
    return f"{100 * share:.{digits}f}{THIN}%"


def _spread(total: float, game: float, model: float) -> str:
    """The three spreads under their root; the part's is what the others leave of the total."""
    part = max(0.0, total**2 - game**2 - model**2) ** 0.5
    return f"√({part:.3f}² + {game:.3f}² + {model:.3f}²)"


def _processor_steps(machine: Machine, estimate: Estimate) -> tuple[WorkingStep, ...]:
    chip, load, memory = machine.processor, estimate.workload, estimate.memory
    assert chip is not None
    rated_ns, rated_gbs = rated_latency_ns(chip), rated_bandwidth_gbs(chip)
    return (
        WorkingStep(
            "Memory factor m",
            f"1 + {load.memory_sensitivity:g} x (½ x {memory.latency_ns:.2f}/{rated_ns:.2f} ns"
            f" + ½ x {rated_gbs:.1f}/{memory.bandwidth_gbs:.1f} GB/s − 1)",
            f"{estimate.memory_factor:.3f}",
            (
                "Assumed: the processor's rated memory, for no kit is chosen."
                if memory.assumed
                else f"{memory.channels} channels at {memory.mts} MT/s; kept within 0.85–1.5."
            ),
        ),
        WorkingStep(
            "Processor time t_c",
            f"100 x {load.processor_ms:.2f} x"
            f" [{1 - load.parallel_share:.2f}/{round(chip.single_speed, 1):g} +"
            f" {load.parallel_share:.2f}/{round(chip.all_core_speed, 1):g}] x"
            f" {estimate.memory_factor:.3f}",
            f"{estimate.processor_ms:.2f}{THIN}ms",
            f"C x u = {load.processor_ms:.2f} ms on the reference processor at"
            f" {estimate.target.preset};"
            f" S = {round(chip.single_speed, 1):g}, T = {round(chip.all_core_speed, 1):g} of"
            f" {chip.name}.",
        ),
        *_thread_steps(chip, estimate),
    )


def _thread_steps(chip: Processor, estimate: Estimate) -> Iterator[WorkingStep]:
    """Where the game's threads must share the processor's."""
    game = estimate.game
    if chip.threads >= game.threads_used:
        return
    source = "as its file says" if game.threads else "assumed by its genre"
    yield WorkingStep(
        "Variation of processor time v_c",
        f"{game.processor_variation:.3f} x ({game.threads_used} / {chip.threads})^{CROWDING:g}",
        f"{estimate.workload.v_c:.3f}",
        f"{chip.name} has {chip.threads} threads, {game.name} uses {game.threads_used}, {source}:"
        " they share, so that frames come less evenly.",
    )


def _graphics_steps(estimate: Estimate) -> tuple[WorkingStep, ...]:
    load, side = estimate.workload, estimate.drawing
    raster, ray, upscale, generation, spill, link = estimate.made_of
    speed = float(work.speed_at(load.rendered_mpx, side.anchors)[0])
    steps = [
        WorkingStep(
            "Rasterisation",
            f"100/{speed:.1f} x {load.graphics_ms:.2f} x [{load.fixed_share:.2f}"
            f" + {1 - load.fixed_share:.2f} x ({load.rendered_mpx:.2f}/2.07)"
            f"{'' if load.pixel_power == 1 else f'^{load.pixel_power:.2f}'}]",
            f"{raster:.2f}{THIN}ms",
            f"R of {side.name} at {load.rendered_mpx:.2f} Mpx rendered; G x w ="
            f" {load.graphics_ms:.2f} ms; never less than at fewer pixels.",
        )
    ]
    if load.ray_ms_per_mpx:
        steps.append(
            WorkingStep(
                "Ray tracing",
                f"100/{round(side.ray_speed, 1):g} x {load.ray_ms_per_mpx:g} x"
                f" {load.rendered_mpx:.2f}",
                f"{ray:.2f}{THIN}ms",
                f"Q of {side.name}; Y of the game, per rendered megapixel.",
            )
        )
    if estimate.target.upscaling:
        offered = (
            ""
            if estimate.upscaled
            else "Not offered by game and graphics part together: drawn at full resolution."
        )
        steps.append(
            WorkingStep(
                "Upscaling",
                f"100/R({load.shown_mpx:.2f} Mpx) x {load.upscale_ms_per_mpx:g} x"
                f" {load.shown_mpx:.2f}",
                f"{upscale:.2f}{THIN}ms",
                offered or f"Rendered at {estimate.target.scale:g} of each axis.",
            )
        )
    if estimate.target.generated:
        steps.append(
            WorkingStep(
                "Generated frame",
                f"100/R({load.shown_mpx:.2f} Mpx) x {load.generation_ms_per_mpx:g} x"
                f" {load.shown_mpx:.2f}",
                f"{generation:.2f}{THIN}ms",
                "One for each drawn frame; what it costs by the game's figures, an assumption where"
                " its file is silent."
                if estimate.generated
                else "Not offered by game and graphics part together: only drawn frames count.",
            )
        )
    over = estimate.short_of_video_memory_gb
    steps.append(
        WorkingStep(
            "Spill of video memory",
            f"1000 x {load.spill_share:g} x max(0, {load.video_memory_gb:.1f} −"
            f" {side.video_memory_gb:g} GB) / {side.link_gbs:.1f} GB/s",
            f"{spill:.2f}{THIN}ms",
            f"{over:.1f} GB too little." if over else "Enough video memory: no spill.",
        )
    )
    if link:
        assumed = "" if estimate.game.link_mb is not None else ", assumed by its genre"
        steps.append(
            WorkingStep(
                "Link of the card",
                f"{load.link_mb:g} MB x (1 / {side.link_gbs:.1f} − 1 / {side.own_link_gbs:.1f}"
                " GB/s)",
                f"{link:.2f}{THIN}ms",
                f"{load.link_mb:g} MB cross the link for a frame{assumed}; the card's speed is"
                " known on its own link.",
            )
        )
    both = "" if estimate.hastened == 1 else f", divided by {estimate.hastened:g} for two cards"
    steps.append(
        WorkingStep(
            "Graphics time t_g",
            f"sum of the above{both}",
            f"{estimate.graphics_ms:.2f}{THIN}ms",
            "",
        )
    )
    return tuple(steps)


def _rate_steps(estimate: Estimate) -> tuple[WorkingStep, ...]:
    load = estimate.workload
    if estimate.cannot and estimate.average_fps == 0:
        return (WorkingStep("Frame rate", estimate.cannot, "none", ""),)
    return (
        WorkingStep(
            "Mean frame E",
            f"t_c Φ((m_x − m_z + s_x²)/s) + t_g Φ((m_z − m_x + s_z²)/s), v_c {load.v_c:.3f}, v_g"
            f" {load.v_g:.3f}",
            f"{estimate.mean_frame_ms:.2f}{THIN}ms",
            "Mean of the later of two lognormal times (Clark 1961, Margrabe 1978).",
        ),
        WorkingStep("Average frame rate", "1000 / E", f"{estimate.average_fps:.1f}{THIN}fps", ""),
        WorkingStep(
            "1 % low",
            "1000 / t, with Φ(A) Φ(D) = 0.99",
            f"{estimate.low_fps:.1f}{THIN}fps",
            "99th percentile of frame time.",
        ),
        *_shown_steps(estimate),
        WorkingStep(
            "Limited by the processor",
            "Φ((m_x − m_z)/s)",
            _percent(estimate.processor_share),
            f"A processor 10 % faster brings {10 * estimate.processor_elasticity:.1f} %; "
            f"graphics 10 % faster bring {10 * (1 - estimate.processor_elasticity):.1f} %.",
        ),
    )


def _shown_steps(estimate: Estimate) -> Iterator[WorkingStep]:
    """What generation makes of the frames drawn."""
    if not estimate.generated:
        return
    yield WorkingStep(
        "Frames shown",
        f"{estimate.shown} x {estimate.drawn_fps:.1f}",
        f"{estimate.judged_fps:.1f}{THIN}fps",
        "A generated frame stands half-way between two drawn ones. The game answers at the rate of"
        " those drawn.",
    )
    yield WorkingStep(
        "Lag that generation adds",
        f"E/2 + {estimate.made_of.generation_ms:.2f}",
        f"{estimate.generation_lag_ms:.1f}{THIN}ms",
        "A drawn frame is held back until the generated one before it was shown half as long.",
    )


def _display_steps(estimate: Estimate, brief: Brief) -> tuple[WorkingStep, ...]:
    pace = pacing(estimate, brief.display)
    if pace is None:
        return ()
    hz = brief.display.refresh_hz
    if pace.variable:
        return (
            WorkingStep(
                "On the display",
                f"F(1000/{brief.display.variable_from_hz:g}) − F(1000/{hz:g})",
                f"{_percent(pace.inside)} as they come",
                f"{_percent(pace.quicker)} quicker than {hz:g} Hz,"
                f" {_percent(pace.slower)} below the variable range.",
            ),
            WorkingStep(
                "Lag that waiting adds",
                "E[max(0, r − t)]",
                f"{pace.lag_ms:.2f}{THIN}ms",
                "A frame that is quicker than the display waits for it.",
            ),
        )
    return (
        WorkingStep(
            "On the display, synchronised",
            "1000 / (r Σ_k (1 − F(k r))), k from 0",
            f"{pace.shown_fps:.1f}{THIN}fps shown",
            f"{_percent(pace.late)} of frames come later than one refresh of {hz:g} Hz.",
        ),
        WorkingStep(
            "Lag that waiting adds",
            "r Σ_k (1 − F(k r)) − E",
            f"{pace.lag_ms:.2f}{THIN}ms",
            "On average, a frame waits for the next refresh.",
        ),
        WorkingStep(
            "Torn without synchronising",
            "min(1, r / E)",
            _percent(pace.torn),
            "Of refreshes; a frame appears wherever the picture is being drawn.",
        ),
    )


def _sureness_steps(estimate: Estimate, brief: Brief) -> tuple[WorkingStep, ...]:
    if estimate.cannot and estimate.average_fps == 0:
        return ()
    which = "low" if estimate.target.measure == "low" else "average"
    return (
        WorkingStep(
            "How well t_c is known",
            _spread(
                estimate.processor_sd,
                estimate.workload.processor_sd,
                estimate.workload.processor_model_sd,
            ),
            f"±{_percent(estimate.processor_sd, 1)}",
            "Part, game and model in quadrature: standard deviations in ln.",
        ),
        WorkingStep(
            "How well t_g is known",
            _spread(
                estimate.graphics_sd,
                estimate.workload.graphics_sd,
                estimate.workload.graphics_model_sd,
            ),
            f"±{_percent(estimate.graphics_sd, 1)}",
            "Part, game and model; the part's is split between R and Q by their shares of the"
            " frame.",
        ),
        WorkingStep(
            f"Chance that the {which} reaches {estimate.target.fps:g} fps",
            f"both errors integrated along F(t_c, t_g) = {estimate.wanted_ms:.2f}{THIN}ms",
            _percent(estimate.chance),
            estimate.cannot
            or f"The brief's sureness is {brief.sureness}, {_percent(brief.chance)}:"
            f" {estimate.state}.",
        ),
        WorkingStep(
            "Reached with that sureness",
            f"the rate whose chance is {_percent(brief.chance)}",
            f"{estimate.reliable_fps:.1f}{THIN}fps",
            f"80 % interval {estimate.judged_low_fps:.0f}–{estimate.judged_high_fps:.0f} fps. An"
            " estimate,"
            " not a measurement.",
        ),
    )
