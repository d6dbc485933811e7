"""Case, the fans that it lacks and cooler together: least cost by what goes in.

At each level of heat the cases stand in the order of their costs, one bit each. What takes a board
form, a sort of supply, a set of drives, a shape of card beside a radiator, a height of cooler is a
row of bits; the lowest bit that all rows share is the cheapest case.
"""

from collections.abc import Iterable, Sequence
from functools import partial
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.compatibility.clearance import (
    LOW_MEMORY_MM,
    card_room_beside_mm,
    form_goes,
    inside_length_mm,
    over_board,
    radiator_place,
    tall_mm,
)
from wattmetron.core.lazy import Later, NumberedRows
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.candidate_pool import Pool, crowded, room_for_memory_mm
from wattmetron.core.search.drive_sets import Bays
from wattmetron.core.search.thresholds import Ladder, ints
from wattmetron.core.values.housing import Case
from wattmetron.core.values.parts import BOARD_FORMS, Graphics, Radiator, SupplyForm

Ints = NDArray[np.int64]
Bits = NDArray[np.uint64]
CHUNK = 1 << 14
NO_MOUNT = -1
MOST_BOUNDS = 2
"""At so many levels of heat at most the bounds are worked out."""


class SupplySort(NamedTuple):
    """What decides whether a supply goes into a case: its form and a level of length."""

    form: SupplyForm
    level: int


class Mount(NamedTuple):
    """What a case must offer a cooler: a level of height, and which radiator it carries, if any,
    beside memory that goes under it or not.
    """

    height: int
    radiator: int


class RadiatorNeed(NamedTuple):
    """A radiator, its length and thickness in mm (None: an air cooler), beside low memory or
    ``tall``.
    """

    radiator: tuple[Radiator, int] | None = None
    tall: bool = False


class Shell(NamedTuple):
    """What of a platform bears on supply, cooler and case, one value for each build."""

    form: Ints
    leads: Ints
    memory_level: Ints
    bays: Ints
    cards: Ints
    """Expansion cards besides the graphics card."""


class CaseBits:
    """Which cases take what at one level of heat: the cases that carry it, in the order of what
    they cost with the fans that they lack. The last axis holds the bits.
    """

    def __init__(self, takes: "Takes", extra: Ints) -> None:
        able = np.flatnonzero(extra < NEVER)
        cost = takes.cost[able] + extra[able]
        order = np.argsort(cost, kind="stable")
        self._order = able[order]
        self._words = max(1, -(-able.size // 64))
        self.cost: Ints = np.append(cost[order], NEVER)
        self.forms = self._packed(takes.forms)
        self.bays = self._packed(takes.bays)
        self.sorts = self._packed(takes.sorts)
        self.mounts = self._packed(takes.mounts)
        self.cards = self._packed(takes.cards)

    def _packed(self, rows: NDArray[np.bool_]) -> Bits:
        padded = np.zeros((*rows.shape[:-1], self._words * 64), dtype=bool)
        padded[..., : self._order.size] = rows[..., self._order]
        return np.packbits(padded, axis=-1, bitorder="little").view(np.uint64)

    def cheapest(self, bits: Bits) -> Ints:
        """Cost of the first case among those left over; NEVER where there is none."""
        word = (bits != 0).argmax(axis=-1)
        chosen_bits = np.take_along_axis(bits, word[..., None], axis=-1)[..., 0]
        lowest = chosen_bits & (~chosen_bits + np.uint64(1))
        index = word * 64 + np.frexp(lowest.astype(float))[1] - 1
        return self.cost[np.where(chosen_bits == 0, len(self.cost) - 1, index)]


class Takes:
    """What each case takes, as rows of truths with a column for each case."""

    def __init__(self, pool: Pool, bays: Sequence[Bays]) -> None:
        self.cases, self.cost = pool.cases.parts, pool.cases.cost
        self.forms = self._rows(
            [form in case.board_forms for case in self.cases] for form in BOARD_FORMS
        )
        self.bays = self._rows(
            [
                _has_places(case, bay)
                and (case.places_525 is None or case.places_525 >= pool.bays_525 + bay.discs)
                for case in self.cases
            ]
            for bay in bays
        )
        self._take_supplies(pool)
        self._take_coolers(pool)
        self._take_cards(pool.cards.parts, pool.floors.later.card)

    def _take_supplies(self, pool: Pool) -> None:
        lengths = Ladder(case.supply_length_mm for case in self.cases)
        levels = lengths.levels(inside_length_mm(supply) for supply in pool.supplies.parts)
        supply_sorts = [
            SupplySort(s.form, int(n)) for s, n in zip(pool.supplies.parts, levels, strict=True)
        ]
        sorts = list(dict.fromkeys(supply_sorts))
        self.sort_of_supply = ints(sorts.index(sort) for sort in supply_sorts)
        rooms = lengths.rooms(case.supply_length_mm for case in self.cases)
        self.sorts = self._rows(
            [
                form_goes(sort.form, case) and sort.level <= room
                for case, room in zip(self.cases, rooms, strict=True)
            ]
            for sort in sorts
        )

    def _take_coolers(self, pool: Pool) -> None:
        """Mount 0 is a boxed cooler whose height is not known."""
        coolers, chips = pool.coolers.parts, pool.processors.parts
        sides = (False, True) if crowded(self.cases) else (False,)
        beside = [[self._beside(cooler.radiator, tall) for cooler in coolers] for tall in sides]
        self.radiators = list(
            dict.fromkeys((RadiatorNeed(), *(needs for row in beside for needs in row)))
        )
        heights = Ladder(case.cooler_height_mm for case in self.cases)
        of_cooler = heights.levels(cooler.height_mm for cooler in coolers).tolist()
        of_boxed = heights.levels(chip.boxed_height_mm for chip in chips).tolist()
        needs = [
            [
                Mount(level, self.radiators.index(side))
                for level, side in zip(of_cooler, row, strict=True)
            ]
            for row in beside
        ]
        boxed = [Mount(level, 0) for level in of_boxed]
        kinds = list(dict.fromkeys((Mount(0, 0), *(way for row in needs for way in row), *boxed)))
        self.kinds_of_mount = kinds
        self.mount_of_cooler = np.stack([ints(map(kinds.index, row)) for row in needs])
        """By whether the memory is tall (one row where no case asks), then by cooler."""
        self.mount_of_boxed = ints(kinds.index(mount) for mount in boxed)
        self.radiator_of = ints(mount.radiator for mount in kinds)
        rooms = heights.rooms(case.cooler_height_mm for case in self.cases)
        self.mounts = self._rows((rooms >= mount.height).tolist() for mount in kinds)

    def _beside(self, radiator: tuple[Radiator, int] | None, tall: bool) -> RadiatorNeed:
        """A radiator beside memory; how tall that is counts only where it reaches over a board."""
        reaches = radiator and any(over_board(case, radiator[1]) for case in self.cases)
        return RadiatorNeed(radiator, tall and bool(reaches))

    def _take_cards(self, cards: Sequence[Graphics], later: Graphics | None) -> None:
        """Shape 0 is no card; by radiator and shape, for in front it shortens the room. What a
        later card needs every shape has.
        """
        goes, room = self._beside_radiators()
        length = Ladder(room_mm for sizes in room for room_mm in sizes)
        height = Ladder(case.card_height_mm for case in self.cases)
        thickness = Ladder(case.card_thickness_mm for case in self.cases)
        own_levels = np.stack(
            [
                length.levels(card.length_mm for card in cards),
                height.levels(tall_mm(card) for card in cards),
                thickness.levels(card.thickness_mm for card in cards),
            ],
            axis=1,
        ).astype(np.int64)
        least = [0, 0, 0]
        if later is not None:
            least = [
                int(length.levels([later.length_mm])[0]),
                int(height.levels([tall_mm(later)])[0]),
                int(thickness.levels([later.thickness_mm])[0]),
            ]
        levels = [(a, b, c) for a, b, c in np.maximum(own_levels, least).tolist()]
        shapes: dict[tuple[int, int, int], int] = {(least[0], least[1], least[2]): 0}
        self.shape_of_card = ints(shapes.setdefault(level, len(shapes)) for level in levels)
        sizes = np.array(list(shapes), dtype=np.int64)
        fits = sizes[:, 1:2] <= height.rooms(case.card_height_mm for case in self.cases)
        fits &= sizes[:, 2:3] <= thickness.rooms(case.card_thickness_mm for case in self.cases)
        self.cards = np.stack(
            [
                fits & takes & (sizes[:, 0:1] <= length.rooms(rooms))
                for takes, rooms in zip(goes, room, strict=True)
            ]
        )

    def _beside_radiators(self) -> tuple[NDArray[np.bool_], list[list[int]]]:
        """For each radiator, none among them, whether each case takes it, and the longest card in
        mm beside it.
        """
        goes, room = [], []
        for radiator, tall in self.radiators:
            if radiator is None:
                goes.append([True] * len(self.cases))
                room.append([case.card_length_mm for case in self.cases])
                continue
            places = [radiator_place(case, radiator, tall) for case in self.cases]
            goes.append([index is not None for index in places])
            room.append(
                [
                    card_room_beside_mm(case, radiator, index)
                    for case, index in zip(self.cases, places, strict=True)
                ]
            )
        return np.array(goes, dtype=bool), room

    def _rows(self, rows: Iterable[list[bool]]) -> NDArray[np.bool_]:
        listed = [*rows]
        return np.array(listed, dtype=bool).reshape(len(listed), len(self.cases))


class Enclosures:
    """Least costs of case, its missing fans and cooler, exact for every processor, board form,
    supply sort, card, set of drives and level of heat.
    """

    def __init__(self, pool: Pool, bays: Sequence[Bays]) -> None:
        self._pool = pool
        self.bays = {fromkey: i for i, fromkey in enumerate(dict.fromkeys(bays))}
        self._takes = takes = Takes(pool, list(self.bays))
        self.sorts = range(len(takes.sorts))
        self.sort_of_supply, self.card_shape = takes.sort_of_supply, takes.shape_of_card
        self._levels = len(pool.clearances)
        self._bits = [Later(partial(CaseBits, takes, extra)) for extra in pool.airflow.extra]
        self._classes()
        self._bound()
        self._sizes = (
            self._mount.shape[0],
            len(BOARD_FORMS),
            len(self.bays),
            len(self._bits),
            takes.cards.shape[1],
        )
        self._rows = NumberedRows(int(np.prod(self._sizes)), len(self.sorts), self._worked_out)

    def _classes(self) -> None:
        """Numbers processors by what they need of a cooler; for each number and memory the mounts
        worth a look.
        """
        coolers, chips = self._pool.coolers.parts, self._pool.processors.parts
        floors, takes = self._pool.floors, self._takes
        self._rooms = self._rooms_of_cards()
        capacities = ints(sorted({floors.capacity_w(cooler) for cooler in coolers}))
        keys = [
            (
                chip.socket,
                sum(not floors.cools(int(capacity_w), chip) for capacity_w in capacities),
                int(boxed) if floors.boxed_stays(chip) else NO_MOUNT,
                0 if floors.most_dba is None else n,
            )
            for n, (chip, boxed) in enumerate(zip(chips, takes.mount_of_boxed, strict=True))
        ]
        index = {key: i for i, key in enumerate(dict.fromkeys(keys))}
        self._class_index = ints(index[key] for key in keys)
        example = dict(zip(keys, chips, strict=True))
        memory_room = self._pool.clearances.rooms(room_for_memory_mm(cooler) for cooler in coolers)
        mounting = {
            socket: [socket in cooler.sockets for cooler in coolers] for socket, *_ in index
        }
        fits = np.array([mounting[socket] for socket, *_ in index], dtype=bool).reshape(
            len(index), len(coolers)
        )
        rank = np.searchsorted(capacities, ints(floors.capacity_w(cooler) for cooler in coolers))
        fits &= rank >= ints(least for _, least, *_ in index)[:, None]
        by_room = np.repeat(fits[:, None], len(self._rooms), axis=1)
        if floors.most_dba is not None:
            quiet = [
                [
                    [floors.quiet(cooler, example[key], room) for cooler in coolers]
                    for room in self._rooms
                ]
                for key in index
            ]
            by_room &= np.array(quiet, dtype=bool).reshape(by_room.shape)
        by_memory = by_room[:, :, None, :] & (memory_room >= np.arange(self._levels)[:, None])
        boxed = ints(
            mount if floors.quiet(None, example[key], room) else NO_MOUNT
            for key, mount in zip(index, (key[2] for key in index), strict=True)
            for room in self._rooms
        )
        boxed = np.repeat(boxed, self._levels)
        self._keep_worthy(self._costs_by_mount(by_memory.reshape(boxed.size, len(coolers)), boxed))

    def _rooms_of_cards(self) -> list[float]:
        """What noise cards leave for coolers, each once; no card's first."""
        floors = self._pool.floors
        of_card = [floors.cooler_room_dba(card) for card in self._pool.cards.parts]
        rooms = list(dict.fromkeys((floors.cooler_room_dba(None), *of_card)))
        self.room_of_card = ints(rooms.index(room) for room in of_card)
        return rooms

    def kinds(self, c: Ints, room: Ints) -> Ints:
        """Numbers of what these processors need of a cooler in the room that a card leaves."""
        return np.asarray(self._class_index[c] * len(self._rooms) + room)

    def _costs_by_mount(self, fits: NDArray[np.bool_], boxed: Ints) -> Ints:
        """Least cost of a cooler for each row of fitting ones, by mount."""
        costs = np.full((len(fits), len(self._takes.kinds_of_mount)), NEVER, dtype=np.int64)
        if not self._pool.coolers.fixed:
            has = np.flatnonzero(boxed != NO_MOUNT)
            costs[has, boxed[has]] = 0
        row, cooler = np.nonzero(fits)
        mounts = self._takes.mount_of_cooler
        low = self._pool.clearances.levels([LOW_MEMORY_MM])[0]
        tall = (row % self._levels > low) if len(mounts) > 1 else np.zeros_like(row)
        np.minimum.at(
            costs, (row, mounts[tall.astype(np.int64), cooler]), self._pool.coolers.cost[cooler]
        )
        return costs

    def _keep_worthy(self, costs: Ints) -> None:
        """Keeps the mounts that no lower one with the same radiator undercuts, first in each
        row.
        """
        worthy = np.zeros(costs.shape, dtype=bool)
        kinds = self._takes.kinds_of_mount
        for number in range(len(self._takes.radiators)):
            mounts = [i for i, mount in enumerate(kinds) if mount.radiator == number]
            mounts.sort(key=lambda i: kinds[i].height)
            lower = np.minimum.accumulate(np.insert(costs[:, mounts], 0, NEVER, axis=1), axis=1)[
                :, :-1
            ]
            worthy[:, mounts] = costs[:, mounts] < lower
        most = max(1, int(worthy.sum(axis=1).max(initial=0)))
        self._mount: Ints = np.argsort(~worthy, axis=1, kind="stable")[:, :most]
        worthy_mounts = np.take_along_axis(worthy, self._mount, axis=1)
        self._mount_cost: Ints = np.where(
            worthy_mounts, np.take_along_axis(costs, self._mount, axis=1), NEVER
        )

    def _bound(self) -> None:
        """By supply sort, class and shape of the card the least cost of any board, drives and
        memory, at some levels of heat.
        """
        stride = -(-len(self._bits) // MOST_BOUNDS)
        self._stride = stride
        self._bounds = np.stack(
            [self._bound_at(self._bits[level]()) for level in range(0, len(self._bits), stride)],
            axis=1,
        )

    def _bound_at(self, case_bits: CaseBits) -> Ints:
        any_case = case_bits.cheapest(
            case_bits.sorts[:, None, None, :]
            & case_bits.mounts[None, None]
            & case_bits.cards[self._takes.radiator_of].swapaxes(0, 1)[None]
        )
        loosest = slice(0, None, self._levels)
        mounts, costs = self._mount[loosest], self._mount_cost[loosest]
        sorts, shapes, _ = any_case.shape
        bound: Ints = np.full((sorts, len(mounts), shapes), NEVER, dtype=np.int64)
        for column in range(mounts.shape[1]):
            there = any_case[:, :, mounts[:, column]] + costs[:, column]
            np.minimum(bound, there.swapaxes(1, 2), out=bound)
        return bound

    def least(self, kind: Ints, shape: Ints, heat: Ints) -> Ints:
        """A cost that case, fans and cooler do not undercut with any board, drives and memory: a
        row for each sort of supply.
        """
        return np.asarray(self._bounds[:, heat // self._stride, kind, shape])

    def cost(self, kind: Ints, shell: "Shell", shape: Ints, heat: Ints) -> Ints:
        """Least cost of case, fans and cooler: a row for each sort of supply, a column for each
        build.
        """
        key = np.ravel_multi_index(
            (kind * self._levels + shell.memory_level, shell.form, shell.bays, heat, shape),
            self._sizes,
        )
        return self._rows[np.asarray(key)].T

    def _worked_out(self, keys: Ints) -> Ints:
        cooling, form, bays, heat, shape = np.unravel_index(keys, self._sizes)
        rows = np.empty((keys.size, len(self.sorts)), dtype=np.int64)
        for level in np.unique(heat):
            index = np.flatnonzero(heat == level)
            for first in range(0, index.size, CHUNK):
                chunk = index[first : first + CHUNK]
                rows[chunk] = self._least(
                    self._bits[level](), cooling[chunk], form[chunk], bays[chunk], shape[chunk]
                )
        return rows

    def _least(
        self, case_bits: CaseBits, cooling: Ints, form: Ints, bays: Ints, shape: Ints
    ) -> Ints:
        mount = self._mount[cooling]
        bits = (
            case_bits.cards[self._takes.radiator_of[mount], shape[:, None]]
            & case_bits.mounts[mount]
        )
        bits &= (case_bits.forms[form] & case_bits.bays[bays])[:, None, :]
        costs = self._mount_cost[cooling]
        return np.stack(
            [(case_bits.cheapest(bits & sort) + costs).min(axis=1) for sort in case_bits.sorts],
            axis=1,
        )


def _has_places(case: Case, bays: Bays) -> bool:
    if case.places_25 is None or case.places_35 is None:
        return True
    return (
        bays.large <= case.places_35 and bays.small + bays.large <= case.places_25 + case.places_35
    )
