"""Drives to add: the least cost for each way of plugging and placing them."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import combinations_with_replacement
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.search.pool import Pool
from wattmetron.core.values.parts import Storage

Ints = NDArray[np.int64]


class Bays(NamedTuple):
    """Drives that need a place in the case, by size."""

    small: int
    large: int


class Sort(NamedTuple):
    """How many drives need what: M.2 slots, SATA ports, places for 2.5 and 3.5 inch; lengths in mm
    of M.2 drives that some slot is too short for, the longest first.
    """

    nvme: int
    sata: int
    bays: Bays
    lengths: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class DriveChoice:
    """All drives of a build by what they need, with the least cost of reaching the floor that
    way.
    """

    nvme: int
    sata: int
    bays: Bays
    lengths: tuple[int, ...]
    cost: int

    @property
    def sort(self) -> Sort:
        return Sort(self.nvme, self.sata, self.bays, self.lengths)


class DriveSet(NamedTuple):
    """Drives with what they need and what they cost, in minor units."""

    drives: tuple[Storage, ...]
    sort: Sort
    cost: int


def sort_of(drives: Iterable[Storage], any_slot_mm: int) -> Sort:
    """What these drives need together; any slot takes an M.2 drive of up to ``any_slot_mm``."""
    all_drives = list(drives)
    nvme = sum(drive.interface == "M.2 NVMe" for drive in all_drives)
    small = sum(drive.size == "2.5 inch" for drive in all_drives)
    large = sum(drive.size == "3.5 inch" for drive in all_drives)
    lengths = sorted(
        (
            mm
            for drive in all_drives
            if drive.size == "M.2" and (mm := drive.m2_length_mm or 0) > any_slot_mm
        ),
        reverse=True,
    )
    return Sort(nvme, len(all_drives) - nvme, Bays(small, large), tuple(lengths))


def drive_choices(pool: Pool, floor_gb: float) -> list[DriveChoice]:
    """The fixed drives with none, one or two more; one entry per sort."""
    missing = floor_gb - sum(drive.capacity_gb for drive in pool.fixed_drives)
    if pool.fixed_drives and missing <= 0:
        return [_choice(sort_of(pool.fixed_drives, pool.any_slot_mm), pool.fixed_drives_cost)]
    groups = _groups(pool)
    least: dict[Sort, int] = {}
    for count in range(1, pool.new_drives + 1):
        for picked in combinations_with_replacement(groups.values(), count):
            cost = _least(picked[0], picked[1] if count == 2 else None, missing)
            if cost is not None:
                key = sort_of(
                    (*pool.fixed_drives, *(group.example for group in picked)), pool.any_slot_mm
                )
                least[key] = min(cost, least.get(key, cost))
    return [_choice(key, pool.fixed_drives_cost + cost) for key, cost in least.items()]


def _choice(sort: Sort, cost: int) -> DriveChoice:
    return DriveChoice(
        nvme=sort.nvme, sata=sort.sata, bays=sort.bays, lengths=sort.lengths, cost=cost
    )


class DriveGroup(NamedTuple):
    """Candidate drives that need the same, as arrays."""

    example: Storage
    capacity_gb: Ints
    cost: Ints


def _groups(pool: Pool) -> dict[Sort, DriveGroup]:
    members: dict[Sort, list[int]] = {}
    for i, drive in enumerate(pool.drives.parts):
        members.setdefault(sort_of([drive], pool.any_slot_mm), []).append(i)
    return {
        key: DriveGroup(
            pool.drives.parts[own[0]],
            np.array([pool.drives.parts[i].capacity_gb for i in own], dtype=np.int64),
            pool.drives.cost[own],
        )
        for key, own in members.items()
    }


def _least(first: DriveGroup, second: DriveGroup | None, missing: float) -> int | None:
    capacity, cost = first.capacity_gb, first.cost
    if second is not None:
        capacity = np.add.outer(capacity, second.capacity_gb).ravel()
        cost = np.add.outer(cost, second.cost).ravel()
    enough = capacity >= missing
    return int(cost[enough].min()) if enough.any() else None


def drive_sets(pool: Pool, choices: list[DriveChoice], floor_gb: float) -> list[DriveSet]:
    """The sets behind these ``drive_choices``: all that cost no more than their entry, in the order
    of ids.
    """
    least = {choice.sort: choice.cost for choice in choices}
    base_gb = sum(drive.capacity_gb for drive in pool.fixed_drives)
    if pool.fixed_drives and base_gb >= floor_gb:
        sort = sort_of(pool.fixed_drives, pool.any_slot_mm)
        return [DriveSet(pool.fixed_drives, sort, pool.fixed_drives_cost)]
    sets = []
    for picks in _reaching(
        pool, floor_gb - base_gb, np.array(sorted({*least.values()}), dtype=np.int64)
    ):
        drives = pool.fixed_drives + tuple(pool.drives.parts[i] for i in picks)
        cost = pool.fixed_drives_cost + sum(int(pool.drives.cost[i]) for i in picks)
        key = sort_of(drives, pool.any_slot_mm)
        if least.get(key) == cost:
            sets.append(DriveSet(drives, key, cost))
    return sorted(sets, key=lambda drive_set: tuple(drive.id for drive in drive_set.drives))


def _reaching(pool: Pool, missing_gb: float, costs: Ints) -> Iterator[tuple[int, ...]]:
    """Indices of one or two new drives that hold enough and bring the drives to one of these
    costs.
    """
    capacity = np.array([drive.capacity_gb for drive in pool.drives.parts], dtype=np.int64)
    cost = pool.drives.cost + pool.fixed_drives_cost
    for i in (
        np.flatnonzero((capacity >= missing_gb) & np.isin(cost, costs)) if pool.new_drives else ()
    ):
        yield (int(i),)
    if pool.new_drives < 2:
        return
    pair_cost = np.add.outer(pool.drives.cost, cost)
    enough = (np.add.outer(capacity, capacity) >= missing_gb) & np.isin(pair_cost, costs)
    for i, j in np.argwhere(np.triu(enough)):
        yield int(i), int(j)
