"""Drives to add: the least cost for each way of plugging and placing them."""

from collections.abc import Iterable, Iterator
from itertools import combinations_with_replacement
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.fit.floors import DriveNeed, held_gb
from wattmetron.core.search.pool import Pool
from wattmetron.core.values.parts import Storage
from wattmetron.core.values.seating import Stick, cabled, sticks_of

Ints = NDArray[np.int64]


class Bays(NamedTuple):
    """Drives that need a place in the case, by size."""

    small: int
    large: int


class Sort(NamedTuple):
    """What drives need: M.2 drives, of a length only where some slot is too short for it, those
    that talk SATA and the longest first; SATA ports; places for 2.5 and 3.5 inch.
    """

    sticks: tuple[Stick, ...]
    cabled: int
    bays: Bays

    @property
    def sata(self) -> int:
        """Drives that talk SATA, on a cable or in a slot."""
        return self.cabled + sum(stick.sata for stick in self.sticks)

    @property
    def nvme(self) -> int:
        return sum(not stick.sata for stick in self.sticks)


class DriveChoice(NamedTuple):
    """All drives of a build by what they need, with the least cost of reaching the floor that
    way.
    """

    sort: Sort
    cost: int


class DriveSet(NamedTuple):
    """Drives with what they need and what they cost, in minor units."""

    drives: tuple[Storage, ...]
    sort: Sort
    cost: int


def sort_of(drives: Iterable[Storage], any_slot_mm: int) -> Sort:
    """What these drives need together; any slot takes an M.2 drive of up to ``any_slot_mm``."""
    own = list(drives)
    small = sum(drive.size == "2.5 inch" for drive in own)
    large = sum(drive.size == "3.5 inch" for drive in own)
    sticks = (
        Stick(stick.length_mm if (stick.length_mm or 0) > any_slot_mm else None, None, stick.sata)
        for stick in sticks_of(own)
    )
    return Sort(tuple(sorted(sticks, key=_needy)), cabled(own), Bays(small, large))


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
        and len(sort.sticks) <= len(other.sticks)
        and all(
            own.sata <= stick.sata and (own.length_mm or 0) <= (stick.length_mm or 0)
            for own, stick in zip(sort.sticks, other.sticks, strict=False)
        )
    )


def drive_choices(pool: Pool, floor: DriveNeed) -> list[DriveChoice]:
    """The fixed drives with none, one or two more; one entry per sort."""
    missing = floor.less(held_gb(pool.fixed_drives))
    if pool.fixed_drives and missing.covered:
        return [DriveChoice(sort_of(pool.fixed_drives, pool.any_slot_mm), pool.fixed_drives_cost)]
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
    return [DriveChoice(key, pool.fixed_drives_cost + cost) for key, cost in least.items()]


class DriveGroup(NamedTuple):
    """Candidate drives that need the same, as arrays: what each holds by kind, and its cost."""

    example: Storage
    held_gb: Ints
    cost: Ints


def _groups(pool: Pool) -> dict[Sort, DriveGroup]:
    members: dict[Sort, list[int]] = {}
    for i, drive in enumerate(pool.drives.parts):
        members.setdefault(sort_of([drive], pool.any_slot_mm), []).append(i)
    return {
        key: DriveGroup(
            pool.drives.parts[own[0]],
            _held(pool)[own],
            pool.drives.cost[own],
        )
        for key, own in members.items()
    }


def _held(pool: Pool) -> Ints:
    """What each candidate holds, a column for each kind."""
    return np.array([held_gb([drive]) for drive in pool.drives.parts], dtype=np.int64).reshape(
        len(pool.drives), len(DriveNeed._fields)
    )


def _least(first: DriveGroup, second: DriveGroup | None, missing: DriveNeed) -> int | None:
    held, cost = first.held_gb, first.cost
    if second is not None:
        held = held[:, None] + second.held_gb
        cost = np.add.outer(cost, second.cost)
    enough = (held >= missing).all(axis=-1)
    return int(cost[enough].min()) if enough.any() else None


def drive_sets(pool: Pool, choices: list[DriveChoice], floor: DriveNeed) -> list[DriveSet]:
    """The sets behind these ``drive_choices``: all that cost no more than their entry, in the order
    of ids.
    """
    least = {choice.sort: choice.cost for choice in choices}
    missing = floor.less(held_gb(pool.fixed_drives))
    if pool.fixed_drives and missing.covered:
        sort = sort_of(pool.fixed_drives, pool.any_slot_mm)
        return [DriveSet(pool.fixed_drives, sort, pool.fixed_drives_cost)]
    sets = []
    for picks in _reaching(pool, missing, np.array(sorted({*least.values()}), dtype=np.int64)):
        drives = pool.fixed_drives + tuple(pool.drives.parts[i] for i in picks)
        cost = pool.fixed_drives_cost + sum(int(pool.drives.cost[i]) for i in picks)
        key = sort_of(drives, pool.any_slot_mm)
        if least.get(key) == cost:
            sets.append(DriveSet(drives, key, cost))
    return sorted(sets, key=lambda drive_set: tuple(drive.id for drive in drive_set.drives))


def _reaching(pool: Pool, missing: DriveNeed, costs: Ints) -> Iterator[tuple[int, ...]]:
    """Indices of one or two new drives that hold enough and bring the drives to one of these
    costs.
    """
    held = _held(pool)
    cost = pool.drives.cost + pool.fixed_drives_cost
    alone = (held >= missing).all(axis=1) & np.isin(cost, costs)
    for i in np.flatnonzero(alone) if pool.new_drives else ():
        yield (int(i),)
    if pool.new_drives < 2:
        return
    pair_cost = np.add.outer(pool.drives.cost, cost)
    enough = (held[:, None] + held >= missing).all(axis=2) & np.isin(pair_cost, costs)
    for i, j in np.argwhere(np.triu(enough)):
        yield int(i), int(j)
