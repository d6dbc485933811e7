"""The estimate of one machine for one target, with everything that is shown about it."""

from dataclasses import dataclass, replace
from typing import Literal, NamedTuple

import numpy as np

from wattmetron.core.frames import chance, frame_rates, work
from wattmetron.core.frames.caps import effective_cap
from wattmetron.core.frames.chance import Curve, Curves, curve
from wattmetron.core.frames.drawing_side import DrawingSide, affinities, drawing_side, graphics_work
from wattmetron.core.frames.memory_class import (
    MemoryClass,
    memory_class,
    rated_bandwidth_gbs,
    rated_latency_ns,
)
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.games import Game
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Processor

State = Literal["meets", "unsure", "short"]
INTERVAL = (0.1, 0.9)


class MadeOf(NamedTuple):
    """Graphics time of a drawn frame by cause, in ms on one card."""

    raster_ms: float
    ray_ms: float
    upscale_ms: float
    generation_ms: float
    spill_ms: float
    link_ms: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """How a target runs. Times in ms, rates in fps, shares and chances within 0–1.

    Times, ``average_fps`` and ``low_fps`` are of drawn frames; ``judged`` figures concern the rate
    that the target is on (average or low) of the frames shown, ``shown`` to each drawn one;
    ``low`` and ``high`` end the 80 % interval; ``reliable_fps`` is reached with the brief's
    sureness. All but ``capped_fps`` (shown) are uncapped.
    """

    target: Target
    game: Game
    workload: work.Workload
    drawing: DrawingSide
    memory: MemoryClass
    memory_factor: float
    made_of: MadeOf
    hastened: float
    upscaled: bool
    processor_ms: float
    graphics_ms: float
    processor_sd: float
    graphics_sd: float
    average_fps: float
    low_fps: float
    judged_fps: float
    judged_low_fps: float
    judged_high_fps: float
    reliable_fps: float
    chance: float
    state: State
    processor_share: float
    processor_elasticity: float
    late_share: float
    cap_fps: float | None
    capped_fps: float | None
    cannot: str = ""

    @property
    def limit_words(self) -> Literal["processor", "graphics", "evenly matched"]:
        if abs(self.processor_share - 0.5) < 0.1:
            return "evenly matched"
        return "processor" if self.processor_share > 0.5 else "graphics"

    @property
    def mean_frame_ms(self) -> float:
        return 1000 / self.average_fps if self.average_fps > 0 else np.inf

    @property
    def shown(self) -> int:
        """Frames shown to each drawn one: two where frames are generated."""
        return self.workload.shown_per_drawn

    @property
    def generated(self) -> bool:
        return self.shown > 1

    @property
    def drawn_fps(self) -> float:
        """The rate before generation that the target is on."""
        return self.low_fps if self.target.measure == "low" else self.average_fps

    @property
    def wanted_ms(self) -> float:
        """The time in ms that a drawn frame may take."""
        return self.shown * 1000 / self.target.fps

    @property
    def generation_lag_ms(self) -> float:
        """What generation adds to the lag in ms: a drawn frame waits for half of the time to the
        next, so that the generated one goes first, and for that one's work.
        """
        if not self.generated:
            return 0.0
        return self.mean_frame_ms / 2 + self.made_of.generation_ms / self.hastened

    @property
    def processor_alone_fps(self) -> float:
        return self.shown * 1000 / self.processor_ms

    @property
    def graphics_alone_fps(self) -> float:
        return self.shown * 1000 / self.graphics_ms

    @property
    def processor_waits_ms(self) -> float:
        return self.mean_frame_ms - self.processor_ms

    @property
    def graphics_waits_ms(self) -> float:
        return self.mean_frame_ms - self.graphics_ms

    @property
    def share_of_target(self) -> float:
        """r: the reliable rate over the target's rate."""
        return self.reliable_fps / self.target.fps

    @property
    def short_of_video_memory_gb(self) -> float:
        return max(0.0, self.workload.video_memory_gb - self.drawing.video_memory_gb)


def state_of(probability: float, sureness: float) -> State:
    """met from the sureness up, short below its complement, unsure between."""
    if probability >= sureness:
        return "meets"
    return "short" if probability < 1 - sureness else "unsure"


def processor_time(
    load: work.Workload, chip: Processor, memory: MemoryClass
) -> tuple[float, float]:
    """Processor time in ms and the memory factor in it."""
    factor = work.memory_factor(
        load.memory_sensitivity,
        memory.latency_ns,
        memory.bandwidth_gbs,
        rated_latency_ns(chip),
        rated_bandwidth_gbs(chip),
    )
    return float(work.processor_ms(load, chip.single_speed, chip.all_core_speed, factor)), float(
        factor
    )


def estimate(
    machine: Machine, game: Game, target: Target, brief: Brief, curves: Curves = curve
) -> Estimate | None:
    """The estimate, or None while the machine has no processor or nothing that draws."""
    chip = machine.processor
    if chip is None or not machine.can_draw:
        return None
    memory = memory_class(chip, machine.mainboard, machine.memory)
    side = drawing_side(machine, memory)
    how = side.draws(game, target)
    load = work.workload(game, target, how, *affinities(machine, game), chip.threads)
    t_c, factor = processor_time(load, chip, memory)
    made = graphics_work(load, side)
    hastened = machine.hastened(game)
    t_g = float(made.total_ms[0]) / hastened
    sd_c = float(work.processor_sd(load, chip.speed_sd))
    sd_g = float(work.graphics_sd(work.unsure(load), made, side.speed_sd, side.ray_sd)[0])
    unstated = machine.graphics is not None and machine.graphics.ray_speed is None
    traces = "is not known to" if unstated else "cannot"
    cannot = "" if np.isfinite(t_g) else f"{side.name} {traces} trace rays"
    return _judge(
        Estimate(
            target=target,
            game=game,
            workload=load,
            drawing=side,
            memory=memory,
            memory_factor=factor,
            made_of=MadeOf(*(float(cause[0]) for cause in made)),
            hastened=hastened,
            upscaled=how.upscaled,
            processor_ms=t_c,
            graphics_ms=t_g,
            processor_sd=sd_c,
            graphics_sd=sd_g,
            average_fps=0.0,
            low_fps=0.0,
            judged_fps=0.0,
            judged_low_fps=0.0,
            judged_high_fps=0.0,
            reliable_fps=0.0,
            chance=0.0,
            state="short",
            processor_share=0.0,
            processor_elasticity=0.0,
            late_share=1.0,
            cap_fps=effective_cap(game, target, load.shown_per_drawn),
            capped_fps=None,
            cannot=cannot,
        ),
        brief,
        curves(load.v_c, load.v_g, target.measure),
    )


def _judge(bare: Estimate, brief: Brief, line: Curve) -> Estimate:
    """Fill in rates, shares and chances from the mean times and their spreads."""
    if bare.cannot:
        return bare
    target, load = bare.target, bare.workload
    sides = (bare.processor_ms, bare.graphics_ms, load.v_c, load.v_g)
    on_low = target.measure == "low"
    errors = (
        np.log(bare.processor_ms),
        bare.processor_sd,
        np.log(bare.graphics_ms),
        bare.graphics_sd,
    )
    times = np.exp(
        chance.quantile_ln(line, *errors, np.array([*INTERVAL, brief.chance]), load.side_cov)
    )
    probability = float(chance.chance_within(line, *errors, np.log(bare.wanted_ms), load.side_cov))
    average, low = (
        1000 / float(frame_rates.mean_ms(*sides)),
        1000 / float(frame_rates.low_ms(*sides)),
    )
    elasticity = frame_rates.low_elasticity if on_low else frame_rates.mean_elasticity
    cap, ms_shown = bare.cap_fps, 1000 * bare.shown
    beyond_cap = cap is not None and target.fps > cap
    return replace(
        bare,
        average_fps=average,
        low_fps=low,
        judged_fps=bare.shown * (low if on_low else average),
        judged_low_fps=ms_shown / float(times[1]),
        judged_high_fps=ms_shown / float(times[0]),
        reliable_fps=ms_shown / float(times[2]),
        chance=0.0 if beyond_cap else probability,
        state="short" if beyond_cap else state_of(probability, brief.chance),
        processor_share=float(frame_rates.processor_share(*sides)),
        processor_elasticity=float(elasticity(*sides)),
        late_share=float(frame_rates.late_share(*sides, ms_shown / brief.display.refresh_hz)),
        capped_fps=(
            None
            if cap is None
            else ms_shown / float(frame_rates.capped(*sides, ms_shown / cap).mean_ms)
        ),
        cannot=f"capped at {cap:g} fps" if beyond_cap else "",
    )
