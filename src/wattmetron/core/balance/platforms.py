"""Board, memory and drives together: the choices that matter, at their least cost.

For every class of processor (same socket and memory limits) a short list of options. An option stays only
if no other with the same key is at least as cheap and at least as fast, so no best build is lost.
"""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.balance.drives import DriveChoice
from wattmetron.core.balance.pool import Pool
from wattmetron.core.frames import work
from wattmetron.core.parts import BOARD_FORMS, Mainboard, Processor
from wattmetron.core.power.draw import rest_w

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]


class PlatformClass(NamedTuple):
    """What of a processor decides which boards and kits go with it."""

    socket: str
    memory_type: str
    channels: int
    max_mts: int
    max_gb: float


def platform_class(chip: Processor) -> PlatformClass:
    return PlatformClass(
        chip.socket, chip.memory_type, chip.memory_channels, chip.memory_max_mts, chip.memory_max_gb
    )


class KitFigures(NamedTuple):
    """What kits bring to the frame model, one value each."""

    latency_ns: Floats
    bandwidth_gbs: Floats
    gb: Floats


class FrontKit(NamedTuple):
    """The same for one kit."""

    latency_ns: float
    bandwidth_gbs: float
    gb: float


class Key(NamedTuple):
    """What the other choices need to know of an option."""

    form: int
    cpu_8pin: int
    rest_w: int
    link_gen: int
    link_lanes: int
    gb: float


@dataclass(frozen=True)
class Options:
    """Options of one processor class as equally long arrays."""

    cost: Ints
    form: Ints
    cpu_8pin: Ints
    rest_w: Ints
    link_gen: Ints
    link_lanes: Ints
    latency_ns: Floats
    bandwidth_gbs: Floats
    gb: Floats

    def __len__(self) -> int:
        return int(self.cost.size)


@dataclass(frozen=True)
class Need:
    """What the brief asks of platforms and which differences matter for it."""

    memory_gb: float
    drives: list[DriveChoice]
    integrated: bool
    link_matters: bool


def kit_figures(kind: PlatformClass, board_mts: Ints | int, kits: Ints, pool: Pool) -> KitFigures:
    """Latency, bandwidth and capacity of kits (by index) on a class of processor and a board's limit."""
    shelf = pool.kit_arrays
    mts = np.minimum(shelf.mts[kits], np.minimum(kind.max_mts, board_mts))
    channels = np.minimum(shelf.sticks[kits], kind.channels)
    ranks = shelf.ranks[kits] * shelf.sticks[kits] // channels
    return KitFigures(
        work.latency_ns(shelf.cl[kits], shelf.mts[kits]),
        work.bandwidth_gbs(channels, mts, ranks),
        shelf.gb[kits],
    )


def board_fits(kind: PlatformClass, board: Mainboard) -> bool:
    return board.socket == kind.socket and board.memory_type == kind.memory_type


def options_of(kind: PlatformClass, pool: Pool, need: Need) -> Options:
    """The options of a class of processor that no other beats."""
    shelf = pool.kit_arrays
    kits = np.flatnonzero(
        np.array([kit.memory_type == kind.memory_type for kit in pool.kits.parts], dtype=bool)
        & (shelf.gb >= need.memory_gb)
        & (shelf.gb <= kind.max_gb)
    )
    best: dict[tuple[Key, float, float], int] = {}
    for (mts, slots, max_gb), boards in _boards_by_limits(kind, pool, need).items():
        fitting = kits[(shelf.sticks[kits] <= slots) & (shelf.gb[kits] <= max_gb)]
        front = _kit_front(kind, mts, fitting, pool, need)
        for (form, cpu_8pin, gen, lanes, m2, sata), board_cost in boards.items():
            for choice in need.drives:
                if choice.nvme > m2 or choice.sata > sata:
                    continue
                for sticks, figures, kit_cost in front:
                    rest = rest_w(sticks, choice.nvme, choice.sata)
                    key = Key(form, cpu_8pin, rest, gen, lanes, figures.gb if need.integrated else 0.0)
                    full = (key, figures.latency_ns, figures.bandwidth_gbs)
                    cost = board_cost + choice.cost + kit_cost
                    if cost < best.get(full, 1 << 62):
                        best[full] = cost
    return _as_options(_undominated(best))


def _boards_by_limits(
    kind: PlatformClass, pool: Pool, need: Need
) -> dict[tuple[int, int, float], dict[tuple[int, int, int, int, int, int], int]]:
    """Least board costs by what decides memory, then by what the rest of the build needs."""
    drives_m2 = max((choice.nvme for choice in need.drives), default=0)
    drives_sata = max((choice.sata for choice in need.drives), default=0)
    groups: dict[tuple[int, int, float], dict[tuple[int, int, int, int, int, int], int]] = defaultdict(dict)
    for board, cost in zip(pool.boards.parts, pool.boards.cost, strict=True):
        if not board_fits(kind, board) or (need.integrated and not board.outputs):
            continue
        limits = (min(board.memory_max_mts, kind.max_mts), board.memory_slots, board.memory_max_gb)
        link = (board.card_pcie_gen, board.card_pcie_lanes) if need.link_matters else (0, 0)
        places = (min(board.m2_slots, drives_m2), min(board.sata_ports, drives_sata))
        traits = (BOARD_FORMS.index(board.form_factor), board.cpu_8pin, *link, *places)
        group = groups[limits]
        group[traits] = min(group.get(traits, 1 << 62), int(cost))
    return groups


def _kit_front(
    kind: PlatformClass, mts: int, kits: Ints, pool: Pool, need: Need
) -> list[tuple[int, FrontKit, int]]:
    """Kits that no other with as many sticks beats in cost, latency and bandwidth (and capacity)."""
    figures = kit_figures(kind, mts, kits, pool)
    cost = pool.kits.cost[kits]
    sticks = pool.kit_arrays.sticks[kits]
    front = []
    kept: dict[int, list[FrontKit]] = defaultdict(list)
    for i in np.lexsort((-figures.bandwidth_gbs, figures.latency_ns, cost)).tolist():
        kit = FrontKit(*(float(column[i]) for column in figures))
        rivals = kept[int(sticks[i])]
        if not any(_as_good(other, kit, need.integrated) for other in rivals):
            rivals.append(kit)
            front.append((int(sticks[i]), kit, int(cost[i])))
    return front


def _as_good(one: FrontKit, other: FrontKit, with_capacity: bool) -> bool:
    return (
        one.latency_ns <= other.latency_ns
        and one.bandwidth_gbs >= other.bandwidth_gbs
        and (not with_capacity or one.gb >= other.gb)
    )


Row = tuple[Key, float, float, int]


def _undominated(best: dict[tuple[Key, float, float], int]) -> list[Row]:
    by_key: dict[Key, list[tuple[int, float, float]]] = defaultdict(list)
    for (key, latency, bandwidth), cost in best.items():
        by_key[key].append((cost, latency, bandwidth))
    rows = []
    for key, entries in by_key.items():
        kept: list[tuple[int, float, float]] = []
        for entry in sorted(entries, key=lambda one: (one[0], one[1], -one[2])):
            if not any(other[1] <= entry[1] and other[2] >= entry[2] for other in kept):
                kept.append(entry)
        rows += [(key, latency, bandwidth, cost) for cost, latency, bandwidth in kept]
    return rows


def _as_options(rows: list[Row]) -> Options:
    def ints(values: Iterable[int]) -> Ints:
        return np.array(list(values), dtype=np.int64)

    def floats(values: Iterable[float]) -> Floats:
        return np.array(list(values), dtype=float)

    return Options(
        cost=ints(row[3] for row in rows),
        form=ints(row[0].form for row in rows),
        cpu_8pin=ints(row[0].cpu_8pin for row in rows),
        rest_w=ints(row[0].rest_w for row in rows),
        link_gen=ints(row[0].link_gen for row in rows),
        link_lanes=ints(row[0].link_lanes for row in rows),
        latency_ns=floats(row[1] for row in rows),
        bandwidth_gbs=floats(row[2] for row in rows),
        gb=floats(row[0].gb for row in rows),
    )
