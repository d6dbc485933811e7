"""The estimate of one machine for one target, with everything that is shown about it."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from wattmetron.core.frames import chance, rates, work
from wattmetron.core.frames.chance import Curve, Curves, curve
from wattmetron.core.frames.drawing import DrawingSide, affinities, drawing_side, graphics_work
from wattmetron.core.frames.memory import (
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


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """How a target runs. Times in ms, rates in fps, shares and chances within 0–1.

    ``judged`` figures concern the rate that the target is on (average or low); ``low`` and ``high``
    end the 80 % interval; ``reliable_fps`` is reached with the brief's sureness. All but
    ``capped_fps`` are uncapped.
    """

    target: Target
    game: Game
    workload: work.Workload
    drawing: DrawingSide
    memory: MemoryClass
    memory_factor: float
    made_of: tuple[float, float, float, float, float]
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
    def processor_alone_fps(self) -> float:
        return 1000 / self.processor_ms

    @property
    def graphics_alone_fps(self) -> float:
        return 1000 / self.graphics_ms

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


def is_upscaled(game: Game, target: Target, offered: tuple[str, ...]) -> bool:
    """Whether upscaling is asked for and both game and graphics part offer one in common."""
    return target.upscaling and not set(game.upscalers).isdisjoint(offered)


def effective_cap(game: Game, target: Target) -> float | None:
    """The least of engine cap and chosen cap, in fps."""
    caps = [cap for cap in (game.engine_cap_fps, target.cap_fps) if cap is not None]
    return min(caps) if caps else None


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
    upscaled = is_upscaled(game, target, side.upscalers)
    load = work.workload(game, target, upscaled, *affinities(machine, game), chip.threads)
    t_c, factor = processor_time(load, chip, memory)
    made = graphics_work(load, side)
    hastened = machine.hastened(game)
    t_g = float(made.total_ms[0]) / hastened
    sd_c = float(work.processor_sd(load, chip.speed_sd))
    sd_g = float(work.graphics_sd(work.unsure(load), made, side.speed_sd, side.ray_sd)[0])
    cannot = "" if np.isfinite(t_g) else f"{side.name} cannot trace rays"
    return _judge(
        Estimate(
            target=target,
            game=game,
            workload=load,
            drawing=side,
            memory=memory,
            memory_factor=factor,
            made_of=(
                float(made.raster_ms[0]),
                float(made.ray_ms[0]),
                float(made.upscale_ms[0]),
                float(made.spill_ms[0]),
                float(made.link_ms[0]),
            ),
            hastened=hastened,
            upscaled=upscaled,
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
            cap_fps=effective_cap(game, target),
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
    probability = float(
        chance.chance_within(line, *errors, np.log(1000 / target.fps), load.side_cov)
    )
    average, low = 1000 / float(rates.mean_ms(*sides)), 1000 / float(rates.low_ms(*sides))
    elasticity = rates.low_elasticity if on_low else rates.mean_elasticity
    cap = bare.cap_fps
    beyond_cap = cap is not None and target.fps > cap
    return replace(
        bare,
        average_fps=average,
        low_fps=low,
        judged_fps=low if on_low else average,
        judged_low_fps=1000 / float(times[1]),
        judged_high_fps=1000 / float(times[0]),
        reliable_fps=1000 / float(times[2]),
        chance=0.0 if beyond_cap else probability,
        state="short" if beyond_cap else state_of(probability, brief.chance),
        processor_share=float(rates.processor_share(*sides)),
        processor_elasticity=float(elasticity(*sides)),
        late_share=float(rates.late_share(*sides, 1000 / brief.display.refresh_hz)),
        capped_fps=None if cap is None else 1000 / float(rates.capped(*sides, 1000 / cap).mean_ms),
        cannot=f"capped at {cap:g} fps" if beyond_cap else "",
    )
