"""Board, memory and drives together: the choices that matter, at their least cost.

For every class of processor (same socket and memory limits) a short list of options. An option
stays only if no other with the same key is at least as cheap and at least as fast, so no best build
is lost.
"""

from collections.abc import Sequence
from dataclasses import dataclass, fields, replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames import work
from wattmetron.core.frames.memory_class import full_mts
from wattmetron.core.power.draw import STICK_W, rest_w
from wattmetron.core.search.candidate_pool import Pool, Seats
from wattmetron.core.search.drive_sets import Bays, DriveChoice, Sort, asks_less
from wattmetron.core.search.platform_classes import (
    NO_OPTIONS,
    Floats,
    Options,
    PlatformClass,
    PlatformKey,
    joined_options,
)
from wattmetron.core.search.row_keys import (
    Ints,
    alike,
    codes_of,
    group_heads,
    packed_rows,
    spread,
    undominated_rows,
)
from wattmetron.core.search.thresholds import ints


class KitFigures(NamedTuple):
    """What kits bring to the frame model, one value each."""

    latency_ns: Floats
    bandwidth_gbs: Floats
    gb: Floats


@dataclass(frozen=True, kw_only=True)
class Need:
    """What the brief asks of platforms and which differences matter for it."""

    memory_gb: float
    all_channels: bool
    drives: list[DriveChoice]
    seats: dict[Sort, Seats]
    bays: dict[Bays, int]
    integrated: bool
    most_gen: int
    most_lanes: int
    """What the fastest card can use of a slot."""


class Rates(NamedTuple):
    """Highest memory transfer rates in MT/s: with a stick on each channel, and with two."""

    mts: Ints
    full_mts: Ints


def rates(kind: PlatformClass, boards: Ints, pool: Pool) -> Rates:
    """The rates of a class of processor on these boards."""
    arrays = pool.board_arrays
    names = [name for name, _ in kind.memory]
    of_type = ints(names.index(name) for name in arrays.memory_type[boards].tolist())
    mts = np.minimum(arrays.mts[boards], ints(most for _, most in kind.memory)[of_type])
    rows = np.stack([of_type, mts, arrays.full_mts[boards]])
    some, back = np.unique(rows, axis=1, return_inverse=True)
    full = [
        full_mts(names[first], most, (0 if first else kind.full_mts, stated))
        for first, most, stated in some.T.tolist()
    ]
    return Rates(mts, ints(full)[back.ravel()])


def kit_figures(channels: Ints | int, most: Rates, kits: Ints, pool: Pool) -> KitFigures:
    """Latency, bandwidth and capacity of kits (by index) on so many channels, at most at these
    rates.
    """
    shelf = pool.kit_arrays
    mts = np.where(shelf.sticks[kits] > channels, most.full_mts, most.mts)
    used = np.minimum(shelf.sticks[kits], channels)
    ranks = shelf.ranks[kits] * shelf.sticks[kits] // used
    return KitFigures(
        work.latency_ns(shelf.cl[kits], shelf.mts[kits]),
        work.bandwidth_gbs(used, np.minimum(shelf.mts[kits], mts), ranks),
        shelf.gb[kits],
    )


def fitting_boards(kind: PlatformClass, pool: Pool, integrated: bool, power_level: int = 0) -> Ints:
    """Indices of the boards that take a class of processor, with a display output where it draws
    itself.
    """
    boards = pool.board_arrays
    types = [name for name, _ in kind.memory]
    fits = (boards.socket == kind.socket) & np.isin(boards.memory_type, types)
    fits &= boards.power_level >= power_level
    fits &= boards.slots_beside[not integrated] >= pool.adapters + boards.cards
    fits &= boards.wide_beside[not integrated] >= pool.wide_adapters + boards.wide_cards
    if kind.family in boards.starts:
        fits &= boards.starts[kind.family]
    return np.flatnonzero(fits & boards.outputs if integrated else fits)


def board_cost(pool: Pool, integrated: bool) -> Ints:
    """What each board costs with what comes with it, a display among that where it draws."""
    return pool.boards.whole + pool.board_arrays.screens if integrated else pool.boards.whole


class Homes(NamedTuple):
    """Every class of processor on every board that takes it, as equally long arrays.

    ``group`` numbers what decides which kits go in and how fast they run.
    """

    kind: Ints
    board: Ints
    group: Ints


class Fronts(NamedTuple):
    """Kits worth looking at, one group after the other; ``size`` counts each group's."""

    size: Ints
    kit: Ints
    figures: KitFigures


def platform_options(keys: Sequence[PlatformKey], pool: Pool, need: Need) -> list[Options]:
    """For each key of processors the options that no other beats, the cheapest first."""
    if not keys:
        return []
    kinds = list(dict.fromkeys(key.kind for key in keys))
    by_kind = dict(zip(kinds, _options_by_kind(kinds, pool, need), strict=True))
    optionses = []
    for key in keys:
        options = by_kind[key.kind]
        strong = np.flatnonzero(options.power_level >= key.power_level)
        optionses.append(options.taken(strong[np.argsort(options.cost[strong], kind="stable")]))
    return optionses


def _options_by_kind(kinds: Sequence[PlatformClass], pool: Pool, need: Need) -> list[Options]:
    homes, limits = _homes(kinds, pool, need)
    fronts = _fronts(limits, pool, need)
    starts = np.cumsum(fronts.size) - fronts.size
    of_kind, pieces = [np.empty(0, dtype=np.int64)], [NO_OPTIONS]
    for choice in _undominated_drives(need.drives):
        picked = _cheapest_homes(homes, choice, pool, need)
        group = homes.group[picked]
        index, position = spread(fronts.size[group])
        of_kind.append(homes.kind[picked[index]])
        pieces.append(
            _options(
                homes.board[picked[index]],
                starts[group[index]] + position,
                fronts,
                choice,
                pool,
                need,
            )
        )
    return _undominated(np.concatenate(of_kind), joined_options(pieces), len(kinds))


class KitLimits(NamedTuple):
    """What decides which kits go in and how fast they run, one value for each group."""

    memory_type: NDArray[np.str_]
    channels: Ints
    mts: Ints
    full_mts: Ints
    slots: Ints
    max_gb: Floats
    registered: NDArray[np.bool_]
    unbuffered: NDArray[np.bool_]


def _homes(kinds: Sequence[PlatformClass], pool: Pool, need: Need) -> tuple[Homes, KitLimits]:
    fitting = [fitting_boards(kind, pool, need.integrated) for kind in kinds]
    of_kind = np.repeat(np.arange(len(kinds)), [boards.size for boards in fitting])
    board = np.concatenate([np.empty(0, dtype=np.int64), *fitting])
    arrays = pool.board_arrays
    channels = ints(kind.channels for kind in kinds)[of_kind]
    by_kind = [rates(kind, fits, pool) for kind, fits in zip(kinds, fitting, strict=True)]
    mts, full = (
        np.concatenate([np.empty(0, dtype=np.int64), *column])
        for column in zip(*by_kind, strict=True)
    )
    gb = np.minimum(
        arrays.gb[board], np.array([kind.max_gb for kind in kinds], dtype=float)[of_kind]
    )
    slots, types = arrays.slots[board], arrays.memory_type[board]
    registered, unbuffered = arrays.registered[board], arrays.unbuffered[board]
    takes = registered + 2 * unbuffered.astype(np.int64)
    key = packed_rows(codes_of(types), channels, mts, full, slots, codes_of(gb), takes)
    _, first, group = np.unique(key, return_index=True, return_inverse=True)
    return Homes(of_kind, board, group), KitLimits(
        types[first],
        channels[first],
        mts[first],
        full[first],
        slots[first],
        gb[first],
        registered[first],
        unbuffered[first],
    )


def _fronts(limits: KitLimits, pool: Pool, need: Need) -> Fronts:
    """Kits that no other with as many sticks beats in cost, latency, bandwidth and height (and
    capacity).
    """
    shelf = pool.kit_arrays
    fits = (shelf.gb >= need.memory_gb) | shelf.owned
    fits = fits & (shelf.gb <= limits.max_gb[:, None])
    fits &= (shelf.sticks + pool.floors.later_sticks <= limits.slots[:, None]) & (
        shelf.memory_type == limits.memory_type[:, None]
    )
    fits &= np.where(shelf.registered, limits.registered[:, None], limits.unbuffered[:, None])
    if need.all_channels:
        fits &= (shelf.sticks >= limits.channels[:, None]) | shelf.owned
    group, kit = np.nonzero(fits)
    most = Rates(limits.mts[group], limits.full_mts[group])
    figures = kit_figures(limits.channels[group], most, kit, pool)
    if not need.integrated:
        figures = figures._replace(gb=np.zeros(kit.size))
    key = packed_rows(group, shelf.sticks[kit])
    low = (
        pool.kits.cost[kit],
        figures.latency_ns,
        -figures.bandwidth_gbs,
        -figures.gb,
        shelf.height_level[kit],
    )
    remaining = np.sort(undominated_rows(key, *low))
    size = np.bincount(group[remaining], minlength=limits.mts.size)
    return Fronts(size, kit[remaining], KitFigures(*(column[remaining] for column in figures)))


def _cheapest_homes(homes: Homes, choice: DriveChoice, pool: Pool, need: Need) -> Ints:
    """Places in ``homes`` of the cheapest board of each sort that takes the drives."""
    arrays = pool.board_arrays
    fits, lanes = need.seats[choice.sort]
    roomy = np.flatnonzero(fits[homes.board])
    board = homes.board[roomy]
    traits = [
        homes.kind[roomy],
        homes.group[roomy],
        arrays.form[board],
        arrays.leads[board],
        arrays.power_level[board],
        arrays.cards[board],
        arrays.added_w[board],
        *_link(arrays.gen[board], lanes[board], need),
    ]
    key = packed_rows(*traits)
    order = np.lexsort((board_cost(pool, need.integrated)[board], key))
    return roomy[order[group_heads(key[order])]]


def _options(
    board: Ints, index: Ints, fronts: Fronts, choice: DriveChoice, pool: Pool, need: Need
) -> Options:
    """One option for every board with the kit of the fronts beside it."""
    arrays, kit = pool.board_arrays, fronts.kit[index]
    none = np.zeros(board.size, dtype=np.int64)
    lanes = need.seats[choice.sort].lanes
    link_gen, link_lanes = _link(arrays.gen[board], lanes[board], need)
    return Options(
        cost=board_cost(pool, need.integrated)[board] + choice.cost + pool.kits.cost[kit],
        form=arrays.form[board],
        leads=arrays.leads[board],
        memory_level=pool.kit_arrays.height_level[kit],
        bays=none + need.bays[choice.sort.bays],
        cards=arrays.cards[board],
        rest_w=rest_of(pool, board, kit, choice.sort),
        link_gen=link_gen,
        link_lanes=link_lanes,
        power_level=arrays.power_level[board],
        frames=none,
        **{name: column[index] for name, column in fronts.figures._asdict().items()},
    )


def _link(gen: Ints, lanes: Ints, need: Need) -> tuple[Ints, Ints]:
    """Generation and lanes of boards as far as any card could use them."""
    return np.minimum(gen, need.most_gen), np.minimum(lanes, need.most_lanes)


def _undominated_drives(choices: list[DriveChoice]) -> list[DriveChoice]:
    """Choices that no other beats in places and cost alike; fewer drives also draw less."""
    ordered = sorted(
        choices,
        key=lambda choice: (
            choice.cost,
            choice.sort.nvme + choice.sort.sata,
            choice.sort.nvme,
        ),
    )
    drive_choices: list[DriveChoice] = []
    for choice in ordered:
        if not any(asks_less(other.sort, choice.sort) for other in drive_choices):
            drive_choices.append(choice)
    return drive_choices


def _undominated(of_kind: Ints, options: Options, kinds: int) -> list[Options]:
    """For each class the options that no other with its key beats in cost, latency, bandwidth,
    height and power.
    """
    key = packed_rows(
        of_kind,
        options.form,
        options.leads,
        options.bays,
        options.cards,
        options.rest_w,
        options.link_gen,
        options.link_lanes,
        codes_of(options.gb),
    )
    low = (
        options.latency_ns,
        -options.bandwidth_gbs,
        options.memory_level,
        -options.power_level,
    )
    remaining = undominated_rows(key, options.cost, *low)
    remaining = remaining[np.argsort(of_kind[remaining], kind="stable")]
    options = options.taken(remaining)
    options = replace(options, frames=_frames(options))
    ends = np.cumsum(np.bincount(of_kind[remaining], minlength=kinds))[:-1]
    names = [item.name for item in fields(Options)]
    columns = [np.split(getattr(options, name), ends) for name in names]
    return [
        Options(**dict(zip(names, column, strict=True))) for column in zip(*columns, strict=True)
    ]


def _frames(options: Options) -> Ints:
    """A number for each row, equal where memory and link are."""
    return alike(
        options.latency_ns, options.bandwidth_gbs, options.gb, options.link_gen, options.link_lanes
    )


def rest_of(pool: Pool, boards: Ints, kits: Ints, sort: Sort) -> Ints:
    """Draw of everything but processor and card, in W, of boards with kits (by index)."""
    sticks, added_w = pool.kit_arrays.sticks[kits], pool.board_arrays.added_w[boards]
    return np.asarray(rest_w(0, sort.nvme, sort.sata) + STICK_W * sticks + added_w + pool.added_w)
