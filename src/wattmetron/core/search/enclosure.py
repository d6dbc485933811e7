"""Case and cooler together: least cost by what goes in.

Cases stand in the order of their costs, one bit each. What takes a board form, a sort of supply, a
set of drives, a shape of card beside a radiator, a height of cooler is a row of bits; the lowest
bit that all rows share is the cheapest case.
"""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.fit.clearance import card_room_mm, radiator_place
from wattmetron.core.lazy import NumberedRows
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.drives import Bays
from wattmetron.core.search.ladder import Ladder, ints
from wattmetron.core.search.pool import Pool, room_for_memory_mm
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import BOARD_FORMS, Case, Graphics

Ints = NDArray[np.int64]
Bits = NDArray[np.uint64]
CHUNK = 1 << 14


class SupplySort(NamedTuple):
    """What decides whether a supply goes into a case: its form and a level of length."""

    form: str
    level: int


class Mount(NamedTuple):
    """What a case must offer a cooler: a level of height, and which radiator it carries, if any."""

    height: int
    radiator: int


class CaseBits:
    """Which cases take what; the last axis holds the bits."""

    def __init__(self, pool: Pool, bays: Sequence[Bays]) -> None:
        order = np.argsort(pool.cases.cost, kind="stable")
        self.cases = [pool.cases.parts[i] for i in order]
        self.words = max(1, -(-len(self.cases) // 64))
        self.cost: Ints = np.append(pool.cases.cost[order], NEVER)
        self.forms = self._rows(
            [form in case.board_forms for case in self.cases] for form in BOARD_FORMS
        )
        self.bays = self._rows([_has_places(case, bay) for case in self.cases] for bay in bays)
        self._take_supplies(pool)
        self._take_coolers(pool)
        self._take_cards(pool.cards.parts)

    def _take_supplies(self, pool: Pool) -> None:
        lengths = Ladder(case.supply_length_mm for case in self.cases)
        levels = lengths.levels(supply.length_mm for supply in pool.supplies.parts)
        own = [SupplySort(s.form, int(n)) for s, n in zip(pool.supplies.parts, levels, strict=True)]
        sorts = list(dict.fromkeys(own))
        self.sort_of_supply = ints(sorts.index(sort) for sort in own)
        rooms = lengths.rooms(case.supply_length_mm for case in self.cases)
        self.sorts = self._rows(
            [
                sort.form in case.supply_forms and sort.level <= room
                for case, room in zip(self.cases, rooms, strict=True)
            ]
            for sort in sorts
        )

    def _take_coolers(self, pool: Pool) -> None:
        """Mount 0 is no cooler at all."""
        coolers = pool.coolers.parts
        self.radiators = list(dict.fromkeys((None, *(cooler.radiator for cooler in coolers))))
        heights = Ladder(case.cooler_height_mm for case in self.cases)
        levels = heights.levels(cooler.height_mm for cooler in coolers).tolist()
        own = [
            Mount(level, self.radiators.index(cooler.radiator))
            for level, cooler in zip(levels, coolers, strict=True)
        ]
        self.mounts = list(dict.fromkeys((Mount(0, 0), *own)))
        self.mount_of_cooler = ints(self.mounts.index(mount) for mount in own)
        self.radiator_of = ints(mount.radiator for mount in self.mounts)
        rooms = heights.rooms(case.cooler_height_mm for case in self.cases)
        self.mount_bits = self._rows((rooms >= mount.height).tolist() for mount in self.mounts)

    def _take_cards(self, cards: Sequence[Graphics]) -> None:
        """Shape 0 is no card; by radiator and shape, for in front it shortens the room."""
        length = Ladder(
            card_room_mm(case, radiator) for case in self.cases for radiator in self.radiators
        )
        height = Ladder(case.card_height_mm for case in self.cases)
        thickness = Ladder(case.card_thickness_mm for case in self.cases)
        levels = zip(
            length.levels(card.length_mm for card in cards).tolist(),
            height.levels(card.height_mm for card in cards).tolist(),
            thickness.levels(card.thickness_mm for card in cards).tolist(),
            strict=True,
        )
        shapes: dict[tuple[int, int, int], int] = {(0, 0, 0): 0}
        self.shape_of_card = ints(shapes.setdefault(level, len(shapes)) for level in levels)
        own = np.array(list(shapes), dtype=np.int64)
        fits = own[:, 1:2] <= height.rooms(case.card_height_mm for case in self.cases)
        fits &= own[:, 2:3] <= thickness.rooms(case.card_thickness_mm for case in self.cases)
        beside = []
        for radiator in self.radiators:
            takes = np.array(
                [
                    radiator is None or radiator_place(case, radiator[0]) is not None
                    for case in self.cases
                ],
                dtype=bool,
            )
            rooms = length.rooms(card_room_mm(case, radiator) for case in self.cases)
            beside.append(self._packed(fits & takes & (own[:, 0:1] <= rooms)))
        self.cards = np.stack(beside)

    def _rows(self, rows: Iterable[list[bool]]) -> Bits:
        listed = [*rows]
        return self._packed(np.array(listed, dtype=bool).reshape(len(listed), len(self.cases)))

    def _packed(self, rows: NDArray[np.bool_]) -> Bits:
        padded = np.zeros((rows.shape[0], self.words * 64), dtype=bool)
        padded[:, : rows.shape[1]] = rows
        return np.packbits(padded, axis=1, bitorder="little").view(np.uint64)

    def cheapest(self, bits: Bits) -> Ints:
        """Cost of the first case among those left over; NEVER where there is none."""
        word = (bits != 0).argmax(axis=-1)
        own = np.take_along_axis(bits, word[..., None], axis=-1)[..., 0]
        lowest = own & (~own + np.uint64(1))
        at = word * 64 + np.frexp(lowest.astype(float))[1] - 1
        return self.cost[np.where(own == 0, len(self.cases), at)]


class Enclosures:
    """Least costs of case and cooler, exact for every processor, board form, supply sort, card and
    set of drives.
    """

    def __init__(self, pool: Pool, bays: Sequence[Bays]) -> None:
        self._pool = pool
        self.bays = {fromkey: i for i, fromkey in enumerate(dict.fromkeys(bays))}
        self._bits = CaseBits(pool, list(self.bays))
        self.sorts = range(len(self._bits.sorts))
        self.sort_of_supply, self.card_shape = self._bits.sort_of_supply, self._bits.shape_of_card
        self._levels = len(pool.clearances)
        self._classes()
        self._bound()
        self._sizes = (
            self._mount.shape[0],
            len(BOARD_FORMS),
            len(self.bays),
            self._bits.cards.shape[1],
        )
        self._rows = NumberedRows(int(np.prod(self._sizes)), len(self.sorts), self._worked_out)

    def _classes(self) -> None:
        """Numbers processors by what they need of a cooler; for each number and memory the mounts
        worth a look.
        """
        coolers, chips = self._pool.coolers.parts, self._pool.processors.parts
        capacities, rank = np.unique(
            ints(cooler.capacity_w for cooler in coolers), return_inverse=True
        )
        least = np.searchsorted(capacities, ints(chip.sustained_w for chip in chips)).tolist()
        keys = [
            (chip.socket, own, Machine(processor=chip).boxed_suffices)
            for chip, own in zip(chips, least, strict=True)
        ]
        place = {key: i for i, key in enumerate(dict.fromkeys(keys))}
        self.class_index = ints(place[key] for key in keys)
        memory_room = self._pool.clearances.rooms(room_for_memory_mm(cooler) for cooler in coolers)
        mounting = {
            socket: [socket in cooler.sockets for cooler in coolers] for socket, _, _ in place
        }
        fits = np.array([mounting[socket] for socket, _, _ in place], dtype=bool).reshape(
            len(place), len(coolers)
        )
        fits &= rank >= ints(own for _, own, _ in place)[:, None]
        by_memory = fits[:, None, :] & (memory_room >= np.arange(self._levels)[:, None])
        boxed = np.repeat(np.array([carries for _, _, carries in place], dtype=bool), self._levels)
        self._keep_worthy(self._costs_by_mount(by_memory.reshape(boxed.size, len(coolers)), boxed))

    def _costs_by_mount(self, fits: NDArray[np.bool_], boxed: NDArray[np.bool_]) -> Ints:
        """Least cost of a cooler for each row of fitting ones, by mount."""
        costs = np.full((len(fits), len(self._bits.mounts)), NEVER, dtype=np.int64)
        if not self._pool.coolers.fixed:
            costs[boxed, 0] = 0
        row, cooler = np.nonzero(fits)
        np.minimum.at(
            costs, (row, self._bits.mount_of_cooler[cooler]), self._pool.coolers.cost[cooler]
        )
        return costs

    def _keep_worthy(self, costs: Ints) -> None:
        """Keeps the mounts that no lower one with the same radiator undercuts, first in each
        row.
        """
        worthy = np.zeros(costs.shape, dtype=bool)
        for number in range(len(self._bits.radiators)):
            own = [i for i, mount in enumerate(self._bits.mounts) if mount.radiator == number]
            own.sort(key=lambda i: self._bits.mounts[i].height)
            lower = np.minimum.accumulate(np.insert(costs[:, own], 0, NEVER, axis=1), axis=1)[
                :, :-1
            ]
            worthy[:, own] = costs[:, own] < lower
        most = max(1, int(worthy.sum(axis=1).max(initial=0)))
        self._mount: Ints = np.argsort(~worthy, axis=1, kind="stable")[:, :most]
        kept = np.take_along_axis(worthy, self._mount, axis=1)
        self._mount_cost: Ints = np.where(
            kept, np.take_along_axis(costs, self._mount, axis=1), NEVER
        )

    def _bound(self) -> None:
        """By supply sort, class and shape of the card the least cost of any board, drives and
        memory.
        """
        own = self._bits
        any_case = own.cheapest(
            own.sorts[:, None, None, :]
            & own.mount_bits[None, None]
            & own.cards[own.radiator_of].swapaxes(0, 1)[None]
        )
        loosest = slice(0, None, self._levels)
        mounts, costs = self._mount[loosest], self._mount_cost[loosest]
        sorts, shapes, _ = any_case.shape
        self.bound: Ints = np.full((sorts, len(mounts), shapes), NEVER, dtype=np.int64)
        for column in range(mounts.shape[1]):
            there = any_case[:, :, mounts[:, column]] + costs[:, column]
            np.minimum(self.bound, there.swapaxes(1, 2), out=self.bound)

    def cost(self, kind: Ints, memory_level: Ints, form: Ints, bays: Ints, shape: Ints) -> Ints:
        """Least cost of case and cooler: a row for each sort of supply, a column for each build."""
        key = np.ravel_multi_index(
            (kind * self._levels + memory_level, form, bays, shape), self._sizes
        )
        return self._rows[np.asarray(key)].T

    def _worked_out(self, keys: Ints) -> Ints:
        parts = [
            self._least(*np.unravel_index(keys[at : at + CHUNK], self._sizes))
            for at in range(0, keys.size, CHUNK)
        ]
        return np.concatenate(parts, axis=1).T

    def _least(self, cooling: Ints, form: Ints, bays: Ints, shape: Ints) -> Ints:
        own, mount = self._bits, self._mount[cooling]
        bits = own.cards[own.radiator_of[mount], shape[:, None]] & own.mount_bits[mount]
        bits &= (own.forms[form] & own.bays[bays])[:, None, :]
        costs = self._mount_cost[cooling]
        return np.stack([(own.cheapest(bits & sort) + costs).min(axis=1) for sort in own.sorts])


def _has_places(case: Case, bays: Bays) -> bool:
    if case.places_25 is None or case.places_35 is None:
        return True
    return (
        bays.large <= case.places_35 and bays.small + bays.large <= case.places_25 + case.places_35
    )
