"""Board, memory and drives together: the choices that matter, at their least cost.

For every class of processor (same socket and memory limits) a short list of options. An option stays only
if no other with the same key is at least as cheap and at least as fast, so no best build is lost.
"""

from collections import defaultdict
from dataclasses import dataclass, fields
from functools import lru_cache
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.balance.drives import DriveChoice
from wattmetron.core.balance.pool import Pool
from wattmetron.core.frames import work
from wattmetron.core.parts import BOARD_FORMS, Mainboard, Processor
from wattmetron.core.power.draw import STICK_W, rest_w

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


class Front(NamedTuple):
    """Kits worth looking at, as equally long arrays."""

    sticks: Ints
    cost: Ints
    latency_ns: Floats
    bandwidth_gbs: Floats
    gb: Floats


class BoardTraits(NamedTuple):
    """What of a board the rest of the build needs to know."""

    form: int
    cpu_8pin: int
    link_gen: int
    link_lanes: int
    m2_slots: int
    sata_ports: int
    cost: int


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


class Platforms:
    """Options of any class of processor; what classes have in common is computed once."""

    def __init__(self, pool: Pool, need: Need) -> None:
        self._pool, self._need = pool, need
        self._drives = _undominated_drives(need.drives)
        self._fronts: dict[tuple[str, int, int, int, float], Front] = {}

    def options_of(self, kind: PlatformClass) -> Options:
        """The options of a class of processor that no other beats."""
        pieces = []
        for (mts, slots, max_gb), boards in self._boards_by_limits(kind).items():
            front = self._front(kind, mts, slots, min(max_gb, kind.max_gb))
            if front.cost.size:
                pieces += [self._combined(boards, choice, front) for choice in self._drives]
        pieces = [piece for piece in pieces if len(piece)]
        return _undominated(_joined(pieces)) if pieces else _joined([])

    def _boards_by_limits(self, kind: PlatformClass) -> dict[tuple[int, int, float], list[BoardTraits]]:
        """Boards by what decides which kits go in and how fast they run."""
        groups: dict[tuple[int, int, float], list[BoardTraits]] = defaultdict(list)
        need = self._need
        for board, cost in zip(self._pool.boards.parts, self._pool.boards.cost.tolist(), strict=True):
            if not board_fits(kind, board) or (need.integrated and not board.outputs):
                continue
            limits = (min(board.memory_max_mts, kind.max_mts), board.memory_slots, board.memory_max_gb)
            link = (board.card_pcie_gen, board.card_pcie_lanes) if need.link_matters else (0, 0)
            form = BOARD_FORMS.index(board.form_factor)
            groups[limits].append(BoardTraits(form, board.cpu_8pin, *link, board.m2_slots, board.sata_ports, cost))
        return groups

    def _front(self, kind: PlatformClass, mts: int, slots: int, max_gb: float) -> Front:
        """Kits that no other with as many sticks beats in cost, latency and bandwidth (and capacity)."""
        key = (kind.memory_type, kind.channels, mts, slots, max_gb)
        if key not in self._fronts:
            shelf = self._pool.kit_arrays
            fits = (shelf.gb >= self._need.memory_gb) & (shelf.gb <= max_gb) & (shelf.sticks <= slots)
            kits = np.flatnonzero(fits & (shelf.memory_type == kind.memory_type))
            figures = kit_figures(kind, mts, kits, self._pool)
            gb = figures.gb if self._need.integrated else np.zeros(kits.size)
            sticks, cost = shelf.sticks[kits], self._pool.kits.cost[kits]
            kept = _best(sticks, cost, figures.latency_ns, figures.bandwidth_gbs, gb)
            self._fronts[key] = Front(
                sticks[kept], cost[kept], figures.latency_ns[kept], figures.bandwidth_gbs[kept], gb[kept]
            )
        return self._fronts[key]

    @staticmethod
    def _combined(boards: list[BoardTraits], choice: DriveChoice, front: Front) -> Options:
        """Every kind of board that takes the drives, at its least cost, with every kit of the front."""
        least: dict[tuple[int, int, int, int], int] = {}
        for board in boards:
            if board.m2_slots >= choice.nvme and board.sata_ports >= choice.sata:
                traits = (board.form, board.cpu_8pin, board.link_gen, board.link_lanes)
                least[traits] = min(least.get(traits, 1 << 62), board.cost)
        traits_of = np.array(list(least), dtype=np.int64).reshape(-1, 4)
        n = front.cost.size
        form, cpu_8pin, gen, lanes = (np.repeat(column, n) for column in traits_of.T)
        boards_cost = np.repeat(np.array(list(least.values()), dtype=np.int64), n)
        times = len(least)
        rest = rest_of(front.sticks, choice.nvme, choice.sata)
        return Options(
            cost=boards_cost + choice.cost + np.tile(front.cost, times),
            form=form,
            cpu_8pin=cpu_8pin,
            rest_w=np.tile(rest, times),
            link_gen=gen,
            link_lanes=lanes,
            latency_ns=np.tile(front.latency_ns, times),
            bandwidth_gbs=np.tile(front.bandwidth_gbs, times),
            gb=np.tile(front.gb, times),
        )


def _undominated_drives(choices: list[DriveChoice]) -> list[DriveChoice]:
    """Choices that no other beats in places and cost alike; fewer drives also draw less."""
    ordered = sorted(choices, key=lambda one: (one.cost, one.nvme + one.sata, one.nvme))
    kept: list[DriveChoice] = []
    for one in ordered:
        if not any(other.nvme <= one.nvme and other.sata <= one.sata for other in kept):
            kept.append(one)
    return kept


def _joined(pieces: list[Options]) -> Options:
    def column(name: str, kind: type) -> NDArray[Any]:
        found = [getattr(piece, name) for piece in pieces]
        return np.concatenate(found) if found else np.empty(0, dtype=kind)

    return Options(
        *(column(name, np.int64) for name in ("cost", "form", "cpu_8pin", "rest_w", "link_gen", "link_lanes")),
        *(column(name, float) for name in ("latency_ns", "bandwidth_gbs", "gb")),
    )


NO_OPTIONS = _joined([])


def _undominated(options: Options) -> Options:
    """Only options that no other with the same key beats in cost, latency and bandwidth."""
    key = options.form
    for column, size in (
        (options.cpu_8pin, 64),
        (options.rest_w, 4096),
        (options.link_gen, 16),
        (options.link_lanes, 64),
        ((options.gb * 4).astype(np.int64), 1 << 20),
    ):
        key = key * size + column
    kept = _best(key, options.cost, options.latency_ns, options.bandwidth_gbs, np.zeros(len(options)))
    return Options(*(getattr(options, item.name)[kept] for item in fields(Options)))


def _best(key: Ints, cost: Ints, latency: Floats, bandwidth: Floats, gb: Floats) -> Ints:
    """Indices of rows that no other row with the same key beats; of equal rows the first stays."""
    order = np.lexsort((-gb, -bandwidth, latency, cost, key))
    key, latency, bandwidth, gb = key[order], latency[order], bandwidth[order], gb[order]
    ends = np.append(np.flatnonzero(np.diff(key)) + 1, key.size)
    kept = []
    start = 0
    for end in ends.tolist():
        if end - start == 1:
            kept.append(order[start:end])
            start = end
            continue
        part = slice(start, end)
        quick, wide, roomy = latency[part], bandwidth[part], gb[part]
        beats = (quick[:, None] <= quick) & (wide[:, None] >= wide) & (roomy[:, None] >= roomy)
        beats &= _earlier(end - start)
        kept.append(order[part][~beats.any(axis=0)])
        start = end
    return np.concatenate(kept) if key.size else order


@lru_cache(maxsize=256)
def _earlier(size: int) -> NDArray[np.bool_]:
    """Mask of pairs (i, j) with i before j."""
    return np.triu(np.ones((size, size), dtype=bool), 1)


def rest_of(sticks: Ints, nvme: int, sata: int) -> Ints:
    """Draw of everything but processor and card, in W, by number of sticks."""
    return np.asarray(rest_w(0, nvme, sata) + STICK_W * sticks)
