"""Drives to add: the least cost for each number of NVMe and SATA drives."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from wattmetron.core.balance.pool import Pool
from wattmetron.core.parts import Storage


@dataclass(frozen=True, slots=True)
class DriveChoice:
    """All drives of a build by interface, with the least cost of reaching the floor that way."""

    nvme: int
    sata: int
    cost: int


def drive_choices(pool: Pool, floor_gb: float) -> list[DriveChoice]:
    """The fixed drives with none, one or two more; one entry per (NVMe, SATA) count."""
    has_nvme = sum(drive.interface == "M.2 NVMe" for drive in pool.fixed_drives)
    has_sata = len(pool.fixed_drives) - has_nvme
    missing = floor_gb - sum(drive.capacity_gb for drive in pool.fixed_drives)
    if pool.fixed_drives and missing <= 0:
        return [DriveChoice(has_nvme, has_sata, pool.fixed_drives_cost)]
    nvme, sata = _by_interface(pool, "M.2 NVMe"), _by_interface(pool, "SATA")
    found = []
    for count, (first, second) in (
        ((1, 0), (nvme, None)),
        ((0, 1), (sata, None)),
        ((2, 0), (nvme, nvme)),
        ((1, 1), (nvme, sata)),
        ((0, 2), (sata, sata)),
    ):
        cost = _least(first, second, missing)
        if cost is not None:
            found.append(DriveChoice(has_nvme + count[0], has_sata + count[1], pool.fixed_drives_cost + cost))
    return found


Group = tuple[np.ndarray[tuple[int], np.dtype[np.int64]], np.ndarray[tuple[int], np.dtype[np.int64]]]


def _by_interface(pool: Pool, interface: str) -> Group:
    pick = [i for i, drive in enumerate(pool.drives.parts) if drive.interface == interface]
    capacity = np.array([pool.drives.parts[i].capacity_gb for i in pick], dtype=np.int64)
    return capacity, pool.drives.cost[pick]


def _least(first: Group, second: Group | None, missing: float) -> int | None:
    capacity, cost = first
    if second is not None:
        capacity = np.add.outer(capacity, second[0]).ravel()
        cost = np.add.outer(cost, second[1]).ravel()
    enough = capacity >= missing
    return int(cost[enough].min()) if enough.any() else None


def drive_sets(pool: Pool, floor_gb: float) -> list[tuple[tuple[Storage, ...], int]]:
    """The sets behind ``drive_choices``: all that cost no more than their entry, in the order of ids."""
    least = {(one.nvme, one.sata): one.cost for one in drive_choices(pool, floor_gb)}
    base_gb = sum(drive.capacity_gb for drive in pool.fixed_drives)
    has_nvme = sum(drive.interface == "M.2 NVMe" for drive in pool.fixed_drives)
    if pool.fixed_drives and base_gb >= floor_gb:
        return [(pool.fixed_drives, pool.fixed_drives_cost)]
    found = []
    for picks in _reaching(
        pool, floor_gb - base_gb, min(least.values(), default=0), max(least.values(), default=0)
    ):
        drives = pool.fixed_drives + tuple(pool.drives.parts[i] for i in picks)
        cost = pool.fixed_drives_cost + sum(int(pool.drives.cost[i]) for i in picks)
        nvme = has_nvme + sum(pool.drives.parts[i].interface == "M.2 NVMe" for i in picks)
        if least.get((nvme, len(drives) - nvme)) == cost:
            found.append((drives, cost))
    return sorted(found, key=lambda one: tuple(drive.id for drive in one[0]))


def _reaching(pool: Pool, missing_gb: float, least: int, most: int) -> Iterator[tuple[int, ...]]:
    """Indices of one or two new drives that hold enough and cost within the bounds."""
    capacity = np.array([drive.capacity_gb for drive in pool.drives.parts], dtype=np.int64)
    cost = pool.drives.cost + pool.fixed_drives_cost
    for i in np.flatnonzero((capacity >= missing_gb) & (cost >= least) & (cost <= most)):
        yield (int(i),)
    pair_cost = np.add.outer(pool.drives.cost, cost)
    enough = (np.add.outer(capacity, capacity) >= missing_gb) & (pair_cost >= least) & (pair_cost <= most)
    for i, j in np.argwhere(np.triu(enough)):
        yield int(i), int(j)
