"""Roles of drives: the system, the games and bulk; which drive serves which, and whether all do.

The system stands on one drive. Games and bulk may spread over several; games ask for a kind each.
Where roles are to be apart no drive serves two.
"""

from collections.abc import Iterable, Iterator, Sequence
from itertools import product
from typing import Literal, NamedTuple

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.parts import STORAGE_KINDS

Role = Literal["system", "games", "bulk"]
ROLES: tuple[Role, ...] = ("system", "games", "bulk")
ANY, SOLID, NVME = range(len(STORAGE_KINDS))


class Room(NamedTuple):
    """Room in GB on drives of a kind or a faster one, as a place among ``STORAGE_KINDS``."""

    gb: float
    slowest: int = ANY


class DriveRoom(NamedTuple):
    """GB on drives of any kind, on SSDs of any kind, on NVMe SSDs."""

    all_gb: float
    solid_gb: float
    nvme_gb: float

    def covers(self, other: "DriveRoom") -> bool:
        return all(room >= needed for room, needed in zip(self, other, strict=True))

    def plus(self, other: "DriveRoom") -> "DriveRoom":
        return DriveRoom(*(room + more for room, more in zip(self, other, strict=True)))

    def less(self, other: "DriveRoom") -> "DriveRoom":
        return DriveRoom(*(room - taken for room, taken in zip(self, other, strict=True)))


NOTHING_HELD = DriveRoom(0.0, 0.0, 0.0)


class DriveNeed(NamedTuple):
    """What is asked of all drives together: room for the system, for games by the kind that they
    ask for, for bulk; room in all; whether each role has drives of its own.
    """

    system: Room
    games: DriveRoom
    bulk: Room
    all_gb: float = 0.0
    apart: bool = False

    @property
    def shared(self) -> DriveRoom:
        """What games and bulk ask for together."""
        return self.games.plus(of_room(self.bulk))


def level_of(drive: Storage) -> int:
    """The kind of a drive as a place among ``STORAGE_KINDS``."""
    return STORAGE_KINDS.index(drive.kind)


def of_room(room: Room) -> DriveRoom:
    """Room on drives of a kind, as amounts held."""
    return DriveRoom(*(room.gb if level <= room.slowest else 0.0 for level in (ANY, SOLID, NVME)))


def held_gb(drives: Iterable[Storage]) -> DriveRoom:
    """What drives hold, by the kind of the drive."""
    room = NOTHING_HELD
    for drive in drives:
        room = room.plus(of_room(Room(drive.capacity_gb, level_of(drive))))
    return room


def takes_system(drive: Storage, room: Room) -> bool:
    return level_of(drive) >= room.slowest and drive.capacity_gb >= room.gb


def left_for_others(drive: Storage, room: Room) -> DriveRoom:
    """What a drive with the system on it holds for games and bulk."""
    return of_room(Room(drive.capacity_gb - room.gb, level_of(drive)))


def served(drives: Sequence[Storage], need: DriveNeed) -> bool:
    """Whether these drives serve every role."""
    return roles_of(drives, need) is not None


def roles_of(drives: Sequence[Storage], need: DriveNeed) -> tuple[tuple[Role, ...], ...] | None:
    """The roles of each drive, in their order; None where some role is not served.

    The system goes onto the fastest and then smallest drive that does, games onto the fastest of
    the others, bulk onto the slowest.
    """
    if held_gb(drives).all_gb < need.all_gb:
        return None
    order = sorted(
        (index for index, drive in enumerate(drives) if takes_system(drive, need.system)),
        key=lambda index: (-level_of(drives[index]), drives[index].capacity_gb, index),
    )
    split = _apart if need.apart else _together
    return next(filter(None, (split(drives, system, need) for system in order)), None)


def _together(
    drives: Sequence[Storage], system: int, need: DriveNeed
) -> tuple[tuple[Role, ...], ...] | None:
    left = [
        left_for_others(drive, need.system) if index == system else held_gb([drive])
        for index, drive in enumerate(drives)
    ]
    sums = NOTHING_HELD
    for room in left:
        sums = sums.plus(room)
    if not sums.covers(need.shared):
        return None
    fastest = sorted(
        range(len(drives)), key=lambda index: (-level_of(drives[index]), index != system, index)
    )
    rest = [room.all_gb for room in left]
    games = _filled(fastest, rest, need.games.all_gb)
    bulk = _filled(fastest[::-1], rest, need.bulk.gb)
    return tuple(
        _named(
            index == system,
            index in games,
            index in bulk or (index not in games and index != system),
        )
        for index in range(len(drives))
    )


def _filled(order: Iterable[int], rest: list[float], gb: float) -> set[int]:
    """The drives that take so much in this order; what they have left goes down."""
    used = set()
    for index in order:
        taken = min(rest[index], gb)
        if taken > 0:
            used.add(index)
            rest[index] -= taken
            gb -= taken
    return used


def _apart(
    drives: Sequence[Storage], system: int, need: DriveNeed
) -> tuple[tuple[Role, ...], ...] | None:
    others = sorted(
        (index for index in range(len(drives)) if index != system),
        key=lambda index: (-level_of(drives[index]), index),
    )
    for way in ways_apart(len(others)):
        role = dict(zip(others, way, strict=True))
        games = held_gb(drives[index] for index in others if role[index] == "games")
        bulk = held_gb(drives[index] for index in others if role[index] == "bulk")
        if games.covers(need.games) and bulk.covers(of_room(need.bulk)):
            return tuple(
                ("system" if index == system else role[index],) for index in range(len(drives))
            )
    return None


def ways_apart(count: int) -> Iterator[tuple[Role, ...]]:
    """All ways to give so many drives to games or bulk, games first."""
    return product(("games", "bulk"), repeat=count)


def _named(*has: bool) -> tuple[Role, ...]:
    return tuple(role for role, has_role in zip(ROLES, has, strict=True) if has_role)
