"""Machines side by side: what of each bears on frames, as arrays, for many targets in turn."""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames import work
from wattmetron.core.frames.drawing_side import affinities, drawing_side
from wattmetron.core.frames.memory_class import memory_class, rated_bandwidth_gbs, rated_latency_ns
from wattmetron.core.values.affinity import Affinity
from wattmetron.core.values.brief import Target
from wattmetron.core.values.games import Game
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Processor

Floats = NDArray[np.float64]


class Sides(NamedTuple):
    """Times of both sides in ms per drawn frame, their spreads in ln and the covariance; nan times
    where a machine does not run; the variation of the processor's time between frames; frames shown
    to each drawn one.
    """

    processor_ms: Floats
    graphics_ms: Floats
    processor_sd: Floats
    graphics_sd: Floats
    cov: Floats
    v_c: Floats
    shown: Floats


class Lineup:
    """So many machines; those without a processor or anything that draws have no times."""

    def __init__(self, machines: Sequence[Machine]) -> None:
        self.machines = tuple(machines)
        self._runs = [
            i
            for i, machine in enumerate(self.machines)
            if machine.processor is not None and machine.can_draw
        ]
        chips, drawn, memories = [], [], []
        for i in self._runs:
            chip = self._chip(i)
            memory = memory_class(chip, self.machines[i].mainboard, self.machines[i].memory)
            chips.append(
                (
                    chip.single_speed,
                    chip.all_core_speed,
                    chip.speed_sd,
                    rated_latency_ns(chip),
                    rated_bandwidth_gbs(chip),
                )
            )
            memories.append((memory.latency_ns, memory.bandwidth_gbs))
            drawn.append(drawing_side(self.machines[i], memory))
        self._chips = np.array(chips).reshape(-1, 5)
        self._threads = [self._chip(i).threads for i in self._runs]
        self._memories = np.array(memories).reshape(-1, 2)
        self._anchors = np.array([side.anchors for side in drawn]).reshape(-1, 3)
        self._drawn = np.array(
            [
                (
                    side.ray_speed,
                    side.video_memory_gb,
                    side.link_gbs,
                    side.own_link_gbs,
                    side.speed_sd,
                    side.ray_sd,
                )
                for side in drawn
            ]
        ).reshape(-1, 6)
        self._sides = drawn

    def _chip(self, i: int) -> Processor:
        chip = self.machines[i].processor
        assert chip is not None
        return chip

    def __len__(self) -> int:
        return len(self.machines)

    def sides(self, game: Game, target: Target) -> Sides:
        """Both sides of one target for every machine."""
        n = len(self)
        sides = Sides(
            np.full(n, np.nan),
            np.full(n, np.nan),
            np.full(n, 0.1),
            np.full(n, 0.1),
            np.zeros(n),
            np.full(n, game.processor_variation),
            np.ones(n),
        )
        runs = np.array(self._runs, dtype=np.int64)
        for load, rows in self._loads(game, target).items():
            index = runs[rows]
            single, every, speed_sd, rated_latency, rated_bandwidth = self._chips[rows].T
            latency, bandwidth = self._memories[rows].T
            factor = work.memory_factor(
                load.memory_sensitivity, latency, bandwidth, rated_latency, rated_bandwidth
            )
            sides.processor_ms[index] = work.processor_ms(load, single, every, factor)
            sides.processor_sd[index] = work.processor_sd(load, speed_sd)
            ray, video_memory, link, own_link, own_sd, ray_sd = self._drawn[rows].T
            made = work.graphics_work(load, self._anchors[rows], ray, video_memory, link, own_link)
            sides.graphics_ms[index] = made.total_ms
            sides.graphics_sd[index] = work.graphics_sd(work.unsure(load), made, own_sd, ray_sd)
            sides.cov[index], sides.v_c[index] = load.side_cov, load.v_c
            sides.shown[index] = load.shown_per_drawn
        for i in self._runs:
            if self.machines[i].second_card is not None:
                sides.graphics_ms[i] /= self.machines[i].hastened(game)
        return sides

    def _loads(self, game: Game, target: Target) -> dict[work.Workload, list[int]]:
        """The machines that run, by what the target asks of them."""
        known: dict[tuple[work.Rendering, Affinity, Affinity, int], work.Workload] = {}
        loads: dict[work.Workload, list[int]] = {}
        for row, i in enumerate(self._runs):
            key = (
                self._sides[row].draws(game, target),
                *affinities(self.machines[i], game),
                self._threads[row],
            )
            if key not in known:
                known[key] = work.workload(game, target, *key)
            loads.setdefault(known[key], []).append(row)
        return loads
