"""Simulated meters: a frame logger and a wall meter as a small server, driven by the demo world's
hidden truth, which can fail on purpose.

JSON lines over HTTP (docs/formats.md). ``/`` names games, scenarios and faults. ``/frames`` and
``/watts`` tell of one run each: ``game``, ``processor`` and ``graphics`` as their ids, ``width``,
``height``, ``preset``, ``rays`` (1: ray tracing), ``scale`` (rendered share of each axis when
upscaling), ``generated`` (1: frame generation), ``lower`` (single options set lower, separated by
;); ``scenario``, ``seconds``, ``seed``, ``refresh``, ``clock`` (tuned over shipped), ``latency``
(of the memory in ns) and ``bandwidth`` (GB/s; 0: as rated), ``power`` (share of the
power), ``fault``; ``pace`` times as fast as in life, 0 for all at once. The same question always
gives the same run.
"""

import asyncio
import json
import time
from collections.abc import AsyncIterator, Iterator
from dataclasses import dataclass, replace
from functools import cache, lru_cache
from typing import Any, cast
from urllib.parse import parse_qs

import numpy as np
from starlette.applications import Starlette
from starlette.requests import Request
from starlette.responses import JSONResponse, Response, StreamingResponse
from starlette.routing import Route

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError
from wattmetron.core.frames.chance import curve
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.memory_class import rated_bandwidth_gbs, rated_latency_ns
from wattmetron.core.frames.work import memory_factor
from wattmetron.core.speeds.speed_scale import Scale, scale_of
from wattmetron.core.values.brief import Brief, Display, Target
from wattmetron.core.values.games import Game
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics, Processor
from wattmetron.core.values.runs import CHANNELS
from wattmetron.demo import CATALOGUE
from wattmetron.demo.simulated_run import FAULTS, SCENARIOS, Simulated, TrueMachine, simulated
from wattmetron.demo.small_server import SmallServer
from wattmetron.demo.true_work import PRESETS, SIZES, TrueWork, read_truth
from wattmetron.formats.catalogue_folder import read_catalogue

PROTOCOL = "wattmetron-meter/1"
BATCH_S, WATTS_HZ = 0.1, 4.0
MOST_SECONDS, MOST_PACE = 3600.0, 1000.0
KEPT_RUNS = 4


class SimulatedMeterError(InvalidError):
    """What a meter cannot tell; one sentence."""


@dataclass(frozen=True, slots=True, kw_only=True)
class MeterQuery:
    """A run as it is asked for."""

    game: str
    processor: str
    graphics: str
    width: int = 1920
    height: int = 1080
    preset: str = "high"
    rays: int = 0
    scale: float = 1.0
    generated: int = 0
    lower: str = ""
    scenario: str = "clean"
    seconds: float = 60.0
    seed: int = 1
    refresh: float = 60.0
    clock: float = 1.0
    latency: float = 0.0
    bandwidth: float = 0.0
    power: float = 1.0
    fault: str = ""
    pace: float = 1.0


class Truth:
    """What the meters know: every game and part as they really are."""

    def __init__(self) -> None:
        self.catalogue: Catalogue = read_catalogue(CATALOGUE)
        self.scale: Scale = scale_of(self.catalogue)
        self.hidden = read_truth()
        self.games = {
            key: replace(self.catalogue.games[key], **cast(dict[str, Any], work))
            for key, work in self.hidden.known_work.items()
        }

    def run(self, meter_query: MeterQuery) -> Simulated:
        """The run that is asked for; raises MeterError."""
        return simulated(
            self._machine(meter_query),
            meter_query.scenario,
            meter_query.seconds,
            meter_query.seed,
            meter_query.fault,
            meter_query.refresh,
            self._generates(meter_query),
        )

    def _generates(self, meter_query: MeterQuery) -> bool:
        """Whether frames are to be generated and game and card can."""
        game, card = self.games[meter_query.game], self.scale.standing(meter_query.graphics)
        named = self._card(card.part_ids) if card else None
        offered = named.generators if named else ()
        return bool(meter_query.generated) and not set(game.generators).isdisjoint(offered)

    def _machine(self, meter_query: MeterQuery) -> TrueMachine:
        game = self.games.get(meter_query.game)
        chip, card = (
            self.scale.standing(meter_query.processor),
            self.scale.standing(meter_query.graphics),
        )
        if game is None or chip is None or card is None:
            if game is None:
                name = meter_query.game
            elif chip is None:
                name = meter_query.processor
            else:
                name = meter_query.graphics
            raise SimulatedMeterError(
                f"“{name[:60]}” is not connected to this meter: ask / for what is."
            )
        size = _nearest((meter_query.width, meter_query.height))
        if meter_query.preset not in PRESETS:
            raise SimulatedMeterError(
                f"“{meter_query.preset[:40]}” is no preset: one of {', '.join(PRESETS)}."
            )
        work = self.hidden.games[game.id]
        true_chip, true_card = self.hidden.parts[chip.key], self.hidden.parts[card.key]
        single, all_core = true_chip.speeds
        speed = true_card.speeds[SIZES.index(size)]
        t_c = work.processor_ms((single, all_core), true_chip.design, meter_query.preset)
        t_g = work.graphics_ms(speed, true_card.design, size, meter_query.preset)
        t_g *= self._drawn_otherwise(meter_query, game, card.part_ids)
        for option in game.options:
            if option.name in meter_query.lower.split(";"):
                t_c, t_g = t_c * option.processor_factor, t_g * option.graphics_factor
        part, named = self.catalogue.parts[chip.part_ids[0]], self._card(card.part_ids)
        if isinstance(part, Processor):
            t_c *= _waiting(part, game, meter_query)
        return TrueMachine(
            processor_ms=t_c / meter_query.clock,
            graphics_ms=t_g
            * (meter_query.width * meter_query.height / (size[0] * size[1]))
            / meter_query.clock,
            processor_variation=work.v_c * _sharing(chip.threads, work),
            graphics_variation=work.v_g,
            processor_w=meter_query.power * (getattr(part, "gaming_w", None) or 90.0),
            graphics_w=meter_query.power * (named.board_power_w if named else 150.0),
            memory_gb=card.memory_gb or 8.0,
            wanted_gb=game.preset(cast(Any, meter_query.preset)).video_memory.at(
                meter_query.width * meter_query.height / 1e6
            ),
            processor_mhz=4_600 * meter_query.clock,
            graphics_mhz=2_300 * meter_query.clock,
        )

    def _drawn_otherwise(self, meter_query: MeterQuery, game: Game, ids: tuple[str, ...]) -> float:
        """How much more or less the graphics do with rays, upscaling or frame generation than
        without.
        """
        card = self._card(ids)
        if card is None or not (meter_query.rays or meter_query.scale < 1 or meter_query.generated):
            return 1.0
        plain = Target(
            id="t",
            game_id=game.id,
            width_px=meter_query.width,
            height_px=meter_query.height,
            preset=cast(Any, meter_query.preset),
        )
        other = replace(
            plain,
            ray_tracing=bool(meter_query.rays),
            upscaling=meter_query.scale < 1,
            scale=meter_query.scale,
            generated=bool(meter_query.generated),
        )
        parts = self.catalogue.parts.values()
        chip = next(part for part in parts if isinstance(part, Processor))
        machine = Machine(processor=chip, graphics=card)
        brief = Brief(name="meter", region="", budget_high_minor=1, display=Display())
        drawn = [estimate(machine, game, target, brief, curve) for target in (other, plain)]
        times = [frames.graphics_ms for frames in drawn if frames is not None]
        return times[0] / times[1] if len(times) == 2 else 1.0

    def _card(self, ids: tuple[str, ...]) -> Graphics | None:
        parts = (self.catalogue.parts.get(part_id) for part_id in ids)
        return next((part for part in parts if isinstance(part, Graphics)), None)

    def index(self) -> dict[str, Any]:
        parts = self.catalogue.parts.values()
        return {
            "protocol": PROTOCOL,
            "games": sorted(self.games),
            "processors": sorted(part.id for part in parts if isinstance(part, Processor)),
            "graphics": sorted({card.key for card in self.scale.of("graphics")}),
            "scenarios": SCENARIOS,
            "faults": [fault for fault in FAULTS if fault],
        }


def _waiting(chip: Processor, game: Game, meter_query: MeterQuery) -> float:
    """How much longer or shorter the processor takes on this memory than on the rated one."""
    latency, bandwidth = rated_latency_ns(chip), rated_bandwidth_gbs(chip)
    return float(
        memory_factor(
            game.memory_sensitivity,
            meter_query.latency or latency,
            meter_query.bandwidth or bandwidth,
            latency,
            bandwidth,
        )
    )


def _sharing(threads: int | None, work: TrueWork) -> float:
    """How much more the processor's times vary where threads must share."""
    if threads is None or threads >= work.threads:
        return 1.0
    return float((work.threads / threads) ** work.crowding)


def _nearest(size: tuple[int, int]) -> tuple[int, int]:
    return min(SIZES, key=lambda known: abs(known[0] * known[1] - size[0] * size[1]))


@cache
def truth() -> Truth:
    """The demo's hidden truth; made once, which takes a second."""
    return Truth()


@lru_cache(KEPT_RUNS)
def _run(meter_query: MeterQuery) -> Simulated:
    return truth().run(meter_query)


def frame_lines(meter_query: MeterQuery) -> Iterator[tuple[float, dict[str, Any]]]:
    """The lines of a frame logger, each with the time in the run at which it is told."""
    trace = _run(_of_run(meter_query)).trace
    names = [name for name in CHANNELS if name in trace.channels and name != "watts"]
    columns = ["start_s", "frame_ms", *names]
    yield 0.0, {"protocol": PROTOCOL, "kind": "frames", "columns": columns}
    rows = np.column_stack(
        [trace.start_s, trace.frame_ms, *(trace.channels[name] for name in names)]
    )
    index = np.floor(np.maximum.accumulate(trace.start_s) / BATCH_S).astype(int)
    cuts = np.flatnonzero(np.diff(index)) + 1
    for batch in np.split(rows, cuts):
        if batch.size:
            yield (
                float(batch[-1, 0]),
                {"rows": [[round(v, 5) for v in row] for row in batch.tolist()]},
            )
    yield float(trace.start_s[-1]), {"end": "the run is over"}


def watt_lines(meter_query: MeterQuery) -> Iterator[tuple[float, dict[str, Any]]]:
    """The lines of a wall meter: watts four times a second."""
    trace = _run(_of_run(meter_query)).trace
    yield 0.0, {"protocol": PROTOCOL, "kind": "watts", "columns": ["at_s", "watts"]}
    times_s = np.arange(0, trace.seconds, 1 / WATTS_HZ)
    watts = np.interp(times_s, trace.start_s, trace.channels["watts"])
    for when, reading in zip(times_s.tolist(), watts.tolist(), strict=True):
        yield when, {"rows": [[round(when, 3), round(reading, 1)]]}
    yield float(trace.start_s[-1]), {"end": "the run is over"}


def _of_run(meter_query: MeterQuery) -> MeterQuery:
    """The same run, whatever the pace and the meter."""
    return replace(meter_query, pace=1.0)


def query_from(query: str) -> MeterQuery:
    """A question as an address has it; raises MeterError."""
    typed = {name: values[-1] for name, values in parse_qs(query).items()}
    unknown = set(typed) - set(MeterQuery.__dataclass_fields__)
    if unknown:
        raise SimulatedMeterError(
            f"“{sorted(unknown)[0][:40]}” is nothing that a meter can be asked."
        )
    values: dict[str, Any] = {}
    for name, text in typed.items():
        usual = MeterQuery.__dataclass_fields__[name].default
        try:
            values[name] = type(usual)(text) if isinstance(usual, int | float) else text
        except ValueError as error:
            raise SimulatedMeterError(f"“{text[:40]}” is no {name}.") from error
    for name in ("game", "processor", "graphics"):
        if name not in values:
            raise SimulatedMeterError(f"The question does not say the {name}.")
    meter_query = MeterQuery(**values)
    checks = (
        meter_query.scenario in SCENARIOS,
        meter_query.fault in (*FAULTS, "hang up", "slow"),
        1 <= meter_query.seconds <= MOST_SECONDS,
        0 <= meter_query.pace <= MOST_PACE,
        300 <= meter_query.width <= 8000 and 200 <= meter_query.height <= 8000,
        meter_query.rays in (0, 1)
        and meter_query.generated in (0, 1)
        and 0.2 <= meter_query.scale <= 1,
        meter_query.latency == 0 or 1 <= meter_query.latency <= 200,
        meter_query.bandwidth == 0 or 1 <= meter_query.bandwidth <= 5000,
        0.5 <= meter_query.clock <= 1.5 and 0.3 <= meter_query.power <= 2,
        20 <= meter_query.refresh <= 1000,
    )
    if not all(checks):
        raise SimulatedMeterError(
            "Something of the question is out of range: ask / for what there is."
        )
    return meter_query


class MeterServer(SmallServer):
    """The simulated meters on a port of this machine; ``pace`` times as quick as they are asked."""

    def __init__(self, port: int = 0, pace: float = 1.0) -> None:
        self.pace = pace
        routes = [
            Route("/", self._index),
            Route("/{kind}", self._lines),
        ]
        super().__init__(Starlette(routes=routes), port)

    def _index(self, request: Request) -> Response:
        return JSONResponse(truth().index())

    def _lines(self, request: Request) -> Response:
        lines_of = {"frames": frame_lines, "watts": watt_lines}.get(request.path_params["kind"])
        if lines_of is None:
            return JSONResponse({"error": "There are /, /frames and /watts."}, 404)
        try:
            meter_query = query_from(request.url.query)
            lines = list(lines_of(meter_query))
        except SimulatedMeterError as error:
            return JSONResponse({"error": str(error)}, 422)
        return StreamingResponse(self._paced(meter_query, lines), media_type="application/x-ndjson")

    async def _paced(
        self, meter_query: MeterQuery, lines: list[tuple[float, dict[str, Any]]]
    ) -> AsyncIterator[bytes]:
        """The lines at the pace of the run, each once its time has come."""
        begin, middle = time.monotonic(), len(lines) // 2
        for n, (time_s, line) in enumerate(lines):
            if meter_query.fault == "hang up" and n == middle:
                raise ConnectionAbortedError
            if meter_query.pace:
                due = begin + time_s / meter_query.pace / self.pace
                await asyncio.sleep(max(0.0, due - time.monotonic()))
            yield json.dumps(line).encode() + b"\n"
