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

import json
import time
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import cache, lru_cache
from http.server import BaseHTTPRequestHandler
from typing import Any, cast
from urllib.parse import parse_qs, urlsplit

import numpy as np

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
from wattmetron.demo.simulated_run import FAULTS, SCENARIOS, Simulated, TrueMachine, simulated
from wattmetron.demo.small_server import SmallServer
from wattmetron.demo.truth import PRESETS, SIZES, TrueGame

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
        from wattmetron.demo.generate import made

        self.catalogue, self.world, self.games = made()
        self.scale: Scale = scale_of(self.catalogue)

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
        return bool(meter_query.generated) and not set(game.game.generators).isdisjoint(offered)

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
        p, g = self.world.processors.index(chip), self.world.cards.index(card)
        t_c, t_g = self.world.side_ms(game, p, g, size, meter_query.preset)
        t_g *= self._drawn_otherwise(meter_query, game.game, card.part_ids)
        for option in game.game.options:
            if option.name in meter_query.lower.split(";"):
                t_c, t_g = t_c * option.processor_factor, t_g * option.graphics_factor
        part, named = self.catalogue.parts[chip.part_ids[0]], self._card(card.part_ids)
        if isinstance(part, Processor):
            t_c *= _waiting(part, game.game, meter_query)
        return TrueMachine(
            processor_ms=t_c / meter_query.clock,
            graphics_ms=t_g
            * (meter_query.width * meter_query.height / (size[0] * size[1]))
            / meter_query.clock,
            processor_variation=game.v_c * _sharing(chip.threads, game),
            graphics_variation=game.v_g,
            processor_w=meter_query.power * (getattr(part, "gaming_w", None) or 90.0),
            graphics_w=meter_query.power * (named.board_power_w if named else 150.0),
            memory_gb=card.memory_gb or 8.0,
            wanted_gb=game.game.preset(cast(Any, meter_query.preset)).video_memory.at(
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
        chip = next(own for own in self.catalogue.parts.values() if isinstance(own, Processor))
        machine = Machine(processor=chip, graphics=card)
        brief = Brief(name="meter", region="", budget_high_minor=1, display=Display())
        drawn = [estimate(machine, game, own, brief, curve) for own in (other, plain)]
        times = [own.graphics_ms for own in drawn if own is not None]
        return times[0] / times[1] if len(times) == 2 else 1.0

    def _card(self, ids: tuple[str, ...]) -> Graphics | None:
        found = (self.catalogue.parts.get(part_id) for part_id in ids)
        return next((own for own in found if isinstance(own, Graphics)), None)

    def index(self) -> dict[str, Any]:
        parts = self.catalogue.parts.values()
        return {
            "protocol": PROTOCOL,
            "games": sorted(self.games),
            "processors": sorted(own.id for own in parts if isinstance(own, Processor)),
            "graphics": sorted({own.key for own in self.scale.of("graphics")}),
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


def _sharing(threads: int | None, game: TrueGame) -> float:
    """How much more the processor's times vary where threads must share."""
    if threads is None or threads >= game.threads:
        return 1.0
    return float((game.threads / threads) ** game.crowding)


def _nearest(size: tuple[int, int]) -> tuple[int, int]:
    return min(SIZES, key=lambda own: abs(own[0] * own[1] - size[0] * size[1]))


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
    for when, own in zip(times_s.tolist(), watts.tolist(), strict=True):
        yield when, {"rows": [[round(when, 3), round(own, 1)]]}
    yield float(trace.start_s[-1]), {"end": "the run is over"}


def _of_run(meter_query: MeterQuery) -> MeterQuery:
    """The same run, whatever the pace and the meter."""
    return replace(meter_query, pace=1.0)


def asked_from(query: str) -> MeterQuery:
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
        super().__init__(type("Handler", (_Handler,), {"hastened": pace}), port)


class _Handler(BaseHTTPRequestHandler):
    """Answers a question line by line."""

    hastened = 1.0

    def log_message(self, *_: object) -> None:
        """The meters say nothing."""

    def do_GET(self) -> None:
        address = urlsplit(self.path)
        with suppress(BrokenPipeError, ConnectionResetError):
            if address.path == "/":
                self._whole(200, truth().index())
                return
            lines = {"/frames": frame_lines, "/watts": watt_lines}.get(address.path)
            if lines is None:
                self._whole(404, {"error": "There are /, /frames and /watts."})
                return
            try:
                meter_query = asked_from(address.query)
                told = list(lines(meter_query))
            except SimulatedMeterError as error:
                self._whole(422, {"error": str(error)})
                return
            self._told(meter_query, told)

    def _told(self, meter_query: MeterQuery, lines: list[tuple[float, dict[str, Any]]]) -> None:
        self.send_response(200)
        self.send_header("content-type", "application/x-ndjson")
        self.end_headers()
        begin, broken = time.monotonic(), len(lines) // 2
        for n, (index, line) in enumerate(lines):
            if meter_query.fault == "hang up" and n == broken:
                return
            if meter_query.pace:
                time.sleep(
                    max(0.0, begin + index / meter_query.pace / self.hastened - time.monotonic())
                )
            self.wfile.write(json.dumps(line).encode() + b"\n")

    def _whole(self, status: int, answer: dict[str, Any]) -> None:
        data = json.dumps(answer).encode()
        self.send_response(status)
        self.send_header("content-type", "application/json")
        self.send_header("content-length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)
