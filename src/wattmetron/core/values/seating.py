"""Which M.2 drive goes into which slot, and what that switches off: one assignment for all rules.

Slots that switch nothing off come first: of all ways to seat the drives the one counts that leaves
enough SATA ports, then takes fewest lanes from the card, then fewest ports, then lets each drive
run at its own generation, then uses the first slots.
"""

from collections.abc import Iterable, Sequence
from itertools import combinations, groupby
from typing import NamedTuple

from scipy.optimize import linear_sum_assignment

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.parts import Mainboard

NOWHERE = 1000
"""More than the generations that any number of drives can lose."""


class Slot(NamedTuple):
    """An M.2 slot: longest drive in mm and generation (None: not known), whether it takes SATA
    drives, SATA ports and lanes of the card that it takes when used.
    """

    length_mm: int | None
    gen: int | None
    sata: bool
    ports: int
    lanes: int


class Stick(NamedTuple):
    """An M.2 drive: length in mm and generation (None: not known), whether it talks SATA."""

    length_mm: int | None
    gen: int | None
    sata: bool


class Seating(NamedTuple):
    """The slot of each drive, counted from 0; SATA ports that stay, lanes that the card loses."""

    slots: tuple[int, ...]
    ports_left: int
    lanes_lost: int


def slots_of(board: Mainboard) -> tuple[Slot, ...]:
    """A board's slots; of what is not stated the best is taken, and the rules say so."""

    def at(values: Sequence[int], index: int, otherwise: int | None) -> int | None:
        return values[index] if index < len(values) else otherwise

    return tuple(
        Slot(
            at(board.m2_lengths_mm, index, None),
            at(board.m2_gens, index, None),
            bool(at(board.m2_sata, index, 1)),
            at(board.m2_disables_sata, index, 0) or 0,
            at(board.m2_card_lanes, index, 0) or 0,
        )
        for index in range(board.m2_slots)
    )


def in_slots(drives: Iterable[Storage]) -> list[Storage]:
    """The drives that stand in an M.2 slot, in their order."""
    return [drive for drive in drives if drive.size == "M.2"]


def sticks_of(drives: Iterable[Storage]) -> tuple[Stick, ...]:
    """The M.2 drives among these, in their order."""
    return tuple(
        Stick(drive.m2_length_mm, drive.pcie_gen, drive.interface == "SATA")
        for drive in in_slots(drives)
    )


def cabled(drives: Sequence[Storage]) -> int:
    """How many drives hang on a SATA port."""
    return sum(drive.size != "M.2" and not drive.on_u2 for drive in drives)


def on_u2(drives: Iterable[Storage]) -> int:
    """How many drives hang on a U.2 port."""
    return sum(drive.on_u2 for drive in drives)


def seated(
    slots: tuple[Slot, ...], sticks: tuple[Stick, ...], ports: int, needed: int = 0
) -> Seating | None:
    """The best seating on a board with so many SATA ports of which so many are needed; None where
    the drives do not all find a slot.
    """
    if len(sticks) > len(slots):
        return None
    ways = sorted(
        (_taken(slots, places, ports, needed), places)
        for places in combinations(range(len(slots)), len(sticks))
    )
    for (_, lanes, lost), equal in groupby(ways, key=lambda way: way[0]):
        seatings = [_placed(slots, sticks, places) for _, places in equal]
        slower, way = min(seatings, default=(NOWHERE, ()))
        if slower < NOWHERE:
            return Seating(way, max(0, ports - lost), lanes)
    return None


def _taken(
    slots: tuple[Slot, ...], places: tuple[int, ...], ports: int, needed: int
) -> tuple[int, int, int]:
    """Ports that are missing then, lanes of the card and ports that these slots take."""
    lost = sum(slots[index].ports for index in places)
    return (
        max(0, needed - max(0, ports - lost)),
        sum(slots[index].lanes for index in places),
        lost,
    )


def _placed(
    slots: tuple[Slot, ...], sticks: tuple[Stick, ...], places: tuple[int, ...]
) -> tuple[int, tuple[int, ...]]:
    """How many generations the drives lose in exactly these slots at best, and the slot of each;
    NOWHERE or more where one does not go in.
    """
    if not sticks:
        return 0, ()
    costs = [[_loses(slots[index], stick) for index in places] for stick in sticks]
    rows, columns = linear_sum_assignment(costs)
    way = tuple(places[column] for column in columns)
    return sum(costs[row][column] for row, column in zip(rows, columns, strict=True)), way


def _loses(slot: Slot, stick: Stick) -> int:
    long = stick.length_mm and slot.length_mm and stick.length_mm > slot.length_mm
    if long or (stick.sata and not slot.sata):
        return NOWHERE
    return max(0, (stick.gen or 0) - (slot.gen or stick.gen or 0))


def lanes_left(lanes: int, lost: int) -> int:
    """Lanes of the card's slot when so many are taken: links run at powers of two; one at least."""
    left = max(1, lanes - lost)
    return 1 << (left.bit_length() - 1)


def seating(board: Mainboard, drives: Sequence[Storage], needed: int = 0) -> Seating | None:
    """How the drives stand on a board when so many SATA ports are needed."""
    return seated(slots_of(board), sticks_of(drives), board.sata_ports, needed)
