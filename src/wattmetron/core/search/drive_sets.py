"""Drives to add: the least cost for each way of plugging and placing them."""

from collections.abc import Iterable, Iterator
from itertools import combinations_with_replacement
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.compatibility.roles import (
    NOTHING_HELD,
    DriveNeed,
    DriveRoom,
    held_gb,
    left_for_others,
    level_of,
    of_room,
    served,
    takes_system,
    ways_apart,
)
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.candidate_pool import Pool
from wattmetron.core.search.peripherals import Disc
from wattmetron.core.search.thresholds import ints
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.seating import Stick, cabled, on_u2, sticks_of

Ints = NDArray[np.int64]
Floats = NDArray[np.float64]


class Bays(NamedTuple):
    """Drives that need a place in the case, by size; those for discs need a bay of their own."""

    small: int
    large: int
    discs: int = 0


class Sort(NamedTuple):
    """What drives need: M.2 drives, of a length only where some slot is too short for it, those
    that talk SATA and the longest first; SATA ports; places for 2.5 and 3.5 inch; U.2 ports.
    """

    sticks: tuple[Stick, ...]
    cabled: int
    bays: Bays
    u2: int = 0

    @property
    def sata(self) -> int:
        """Drives that talk SATA, on a cable or in a slot."""
        return self.cabled + sum(stick.sata for stick in self.sticks)

    @property
    def nvme(self) -> int:
        return self.u2 + sum(not stick.sata for stick in self.sticks)


class DriveChoice(NamedTuple):
    """All drives of a build by what they need, with the least cost of reaching the floor that
    way.
    """

    sort: Sort
    cost: int


class DriveSet(NamedTuple):
    """Drives with what they need and what they cost, in minor units, and a drive for discs that
    comes with them.
    """

    drives: tuple[Storage, ...]
    sort: Sort
    cost: int
    disc: tuple[tuple[Kind, str], ...] = ()


def sort_of(drives: Iterable[Storage], any_slot_mm: int) -> Sort:
    """What these drives need together; any slot takes an M.2 drive of up to ``any_slot_mm``."""
    cheapest = list(drives)
    small = sum(drive.size == "2.5 inch" for drive in cheapest)
    large = sum(drive.size == "3.5 inch" for drive in cheapest)
    sticks = (
        Stick(stick.length_mm if (stick.length_mm or 0) > any_slot_mm else None, None, stick.sata)
        for stick in sticks_of(cheapest)
    )
    return Sort(
        tuple(sorted(sticks, key=_needy)), cabled(cheapest), Bays(small, large), on_u2(cheapest)
    )


def _needy(stick: Stick) -> tuple[bool, int]:
    return not stick.sata, -(stick.length_mm or 0)


def asks_less(sort: Sort, other: Sort) -> bool:
    """Whether drives go wherever others go, and draw no more."""
    return (
        sort.nvme <= other.nvme
        and sort.sata <= other.sata
        and sort.cabled <= other.cabled
        and sort.bays.large <= other.bays.large
        and sort.bays.small <= other.bays.small
        and sort.bays.discs <= other.bays.discs
        and len(sort.sticks) <= len(other.sticks)
        and all(
            each_stick.sata <= stick.sata and (each_stick.length_mm or 0) <= (stick.length_mm or 0)
            for each_stick, stick in zip(sort.sticks, other.sticks, strict=False)
        )
    )


def drive_choices(pool: Pool, need: DriveNeed) -> list[DriveChoice]:
    """The fixed drives with none, one, two or three more; one entry per sort, none that costs more
    than another which asks less.
    """
    if pool.fixed_drives and served(pool.fixed_drives, need):
        sort = sort_of(pool.fixed_drives, pool.any_slot_mm)
        return _with_discs(pool, [DriveChoice(sort, pool.fixed_drives_cost)])
    groups, serves = _groups(pool), Serves(pool.fixed_drives, need)
    least: dict[Sort, int] = {}
    for count in range(1, pool.new_drives + 1):
        for picked in combinations_with_replacement(groups, count):
            capacities = [group.capacity for group in picked]
            cost = _sums([group.cost for group in picked])[serves.where(capacities)].min(
                initial=NEVER
            )
            if cost < NEVER:
                key = sort_of(
                    (*pool.fixed_drives, *(group.example for group in picked)), pool.any_slot_mm
                )
                least[key] = min(int(cost), least.get(key, NEVER))
    return _with_discs(
        pool, [DriveChoice(key, pool.fixed_drives_cost + cost) for key, cost in least.items()]
    )


def _with_discs(pool: Pool, choices: list[DriveChoice]) -> list[DriveChoice]:
    """The choices with each way to a drive for discs, without those that cost more than another
    which asks less.
    """
    ways = [
        DriveChoice(_with_disc(sort, disc), cost + disc.brought.cost)
        for sort, cost in choices
        for disc in pool.discs
    ]
    return [
        drive_choice
        for drive_choice in ways
        if not any(_beats(other, drive_choice) for other in ways)
    ]


def _with_disc(sort: Sort, disc: Disc) -> Sort:
    return sort._replace(bays=sort.bays._replace(discs=disc.bays))


def _beats(choice: DriveChoice, other: DriveChoice) -> bool:
    return choice.cost < other.cost and asks_less(choice.sort, other.sort)


class HeldBy(NamedTuple):
    """What drives of a group hold: in all, and by kind for games and bulk, a column for each kind;
    which of them take the system, and what they hold beside it.
    """

    all_gb: Floats
    by_kind_gb: Floats
    system: NDArray[np.bool_]
    beside: Floats


class DriveGroup(NamedTuple):
    """Candidate drives that need the same: their places in the pool, the order of ids, what each
    holds, and its cost.
    """

    example: Storage
    places: Ints
    capacity: HeldBy
    cost: Ints


def _groups(pool: Pool) -> list[DriveGroup]:
    """Candidates by what they need; of each group those that no cheaper one outdoes."""
    members: dict[Sort, list[int]] = {}
    for i, drive in enumerate(pool.drives.parts):
        members.setdefault(sort_of([drive], pool.any_slot_mm), []).append(i)
    return [_group(pool, _worth_having(pool, member)) for member in members.values()]


def _worth_having(pool: Pool, places: list[int]) -> list[int]:
    """Drives of which none that costs less is as large and as fast."""
    figures_of = [
        (int(pool.drives.cost[index]), pool.drives.parts[index].capacity_gb, level_of(drive))
        for index in places
        for drive in [pool.drives.parts[index]]
    ]
    best = [
        (cost, gb, level)
        for cost, gb, level in sorted(set(figures_of))
        if not any(c < cost and g >= gb and v >= level for c, g, v in figures_of)
    ]
    keep = set(best)
    return [index for index, figures in zip(places, figures_of, strict=True) if figures in keep]


def _group(pool: Pool, places: list[int]) -> DriveGroup:
    room = pool.floors.storage.system
    drives = [pool.drives.parts[index] for index in places]
    capacities = HeldBy(
        np.array([drive.capacity_gb for drive in drives], dtype=float),
        np.array([held_gb([drive]) for drive in drives], dtype=float),
        np.array([takes_system(drive, room) for drive in drives], dtype=bool),
        np.array([left_for_others(drive, room) for drive in drives], dtype=float),
    )
    return DriveGroup(drives[0], ints(places), capacities, pool.drives.cost[places])


class Way(NamedTuple):
    """One way to share out the roles: the drive that takes the system among the new ones (None: a
    fixed one), which new ones serve games and which bulk, and what these must hold then.
    """

    system: int | None
    games: tuple[int, ...]
    bulk: tuple[int, ...]
    games_need: DriveRoom
    bulk_need: DriveRoom


class Serves:
    """Whether new drives serve every role together with the fixed ones, for many sets at once."""

    def __init__(self, fixed: tuple[Storage, ...], need: DriveNeed) -> None:
        self.fixed, self.need = fixed, need
        self.missing_gb = need.all_gb - held_gb(fixed).all_gb

    def where(self, capacities: list[HeldBy]) -> NDArray[np.bool_]:
        """For one drive of each of these groups, an axis for each, whether they do."""
        any_way = np.zeros([capacity.all_gb.size for capacity in capacities], dtype=bool)
        for way in self._ways(len(capacities)):
            any_way |= _served_by(way, capacities)
        return any_way & (_sums([capacity.all_gb for capacity in capacities]) >= self.missing_gb)

    def _ways(self, count: int) -> Iterator[Way]:
        for system in (None, *range(count)):
            others = tuple(index for index in range(count) if index != system)
            for games, bulk in self._left(system is None):
                if not self.need.apart:
                    yield Way(system, tuple(range(count)), (), games.plus(bulk), NOTHING_HELD)
                    continue
                for roles in ways_apart(len(others)):
                    assigned = list(zip(others, roles, strict=True))
                    yield Way(
                        system,
                        tuple(index for index, role in assigned if role == "games"),
                        tuple(index for index, role in assigned if role == "bulk"),
                        games,
                        bulk,
                    )

    def _left(self, system_here: bool) -> list[tuple[DriveRoom, DriveRoom]]:
        """What games and bulk still lack beside the fixed drives, for each way that these can be
        shared out; none where the system should stand on one of them and cannot.
        """
        need, fixed = self.need, self.fixed
        places = [index for index, drive in enumerate(fixed) if takes_system(drive, need.system)]
        roles = set()
        for system in places if system_here else (None,):
            others = [drive for index, drive in enumerate(fixed) if index != system]
            if need.apart:
                roles |= {
                    self._lacking(
                        [drive for drive, role in zip(others, way, strict=True) if role == "games"],
                        [drive for drive, role in zip(others, way, strict=True) if role == "bulk"],
                    )
                    for way in ways_apart(len(others))
                }
                continue
            games, bulk = self._lacking(others, [])
            if system is not None:
                games = games.less(left_for_others(fixed[system], need.system))
            roles.add((games, bulk))
        return sorted(roles)

    def _lacking(self, games: list[Storage], bulk: list[Storage]) -> tuple[DriveRoom, DriveRoom]:
        return (
            self.need.games.less(held_gb(games)),
            of_room(self.need.bulk).less(held_gb(bulk)),
        )


def _served_by(way: Way, capacities: list[HeldBy]) -> NDArray[np.bool_]:
    """Which sets serve in this way: one drive of each group, an axis for each."""
    shape = [capacity.all_gb.size for capacity in capacities]
    goes = np.ones(shape, dtype=bool)
    if way.system is not None:
        goes &= _along(capacities[way.system].system, way.system, len(capacities))
    for members, needed in ((way.games, way.games_need), (way.bulk, way.bulk_need)):
        for level, gb in enumerate(needed):
            total = np.zeros(shape)
            for index in members:
                columns = (
                    capacities[index].beside
                    if index == way.system
                    else capacities[index].by_kind_gb
                )
                total = total + _along(columns[:, level], index, len(capacities))
            goes &= total >= gb
    return goes


def _along(column: NDArray[Any], axis: int, axes: int) -> NDArray[Any]:
    return column.reshape([-1 if index == axis else 1 for index in range(axes)])


def _sums(columns: list[NDArray[Any]]) -> NDArray[Any]:
    """Sums of one entry of each column, an axis for each."""
    total: NDArray[Any] = np.zeros((), dtype=columns[0].dtype)
    for index, column in enumerate(columns):
        total = total + _along(column, index, len(columns))
    return total


def drive_sets(pool: Pool, choices: list[DriveChoice], need: DriveNeed) -> list[DriveSet]:
    """The sets behind these ``drive_choices``: all that cost no more than their entry, in the order
    of ids.
    """
    least = {choice.sort: choice.cost for choice in choices}
    if pool.fixed_drives and served(pool.fixed_drives, need):
        costs = {pool.fixed_drives: pool.fixed_drives_cost}
    else:
        costs = _reaching(pool, need, ints(sorted({*least.values()})))
    sets = [
        DriveSet(drives, sort, cost, disc.brought.parts)
        for drives in costs
        for disc in pool.discs
        for sort in [_with_disc(sort_of(drives, pool.any_slot_mm), disc)]
        for cost in [costs[drives] + disc.brought.cost]
        if least.get(sort) == cost
    ]
    return sorted(
        sets, key=lambda drive_set: (tuple(drive.id for drive in drive_set.drives), drive_set.disc)
    )


def _reaching(pool: Pool, need: DriveNeed, costs: Ints) -> dict[tuple[Storage, ...], int]:
    """Sets of drives that serve with new ones and, with some way to a drive for discs, cost one of
    these; with their own cost.
    """
    groups, serves = _groups(pool), Serves(pool.fixed_drives, need)
    costs = (costs[:, None] - ints(disc.brought.cost for disc in pool.discs)).ravel()
    sets = {}
    for count in range(1, pool.new_drives + 1):
        for picked in combinations_with_replacement(groups, count):
            cost = _sums([group.cost for group in picked]) + pool.fixed_drives_cost
            goes = np.isin(cost, costs)
            if goes.any():
                goes &= serves.where([group.capacity for group in picked])
            for row in np.argwhere(goes):
                members = zip(picked, row.tolist(), strict=True)
                places = sorted(int(group.places[index]) for group, index in members)
                drives = pool.fixed_drives + tuple(pool.drives.parts[index] for index in places)
                sets[drives] = int(cost[tuple(row)])
    return sets
