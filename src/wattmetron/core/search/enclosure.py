"""Case, the fans that it lacks and cooler together: least cost by what goes in.

At each level of heat the cases stand in the order of their costs, one bit each. What takes a board
form, a sort of supply, a set of drives, a shape of card beside a radiator, a height of cooler is a
row of bits; the lowest bit that all rows share is the cheapest case.
"""

from collections.abc import Sequence
from functools import partial
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.compatibility.radiator_places import LOW_MEMORY_MM
from wattmetron.core.lazy import Later, NumberedRows
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.bits_of_cases import CaseBits, Ints, Takes
from wattmetron.core.search.candidate_pool import Pool, room_for_memory_mm
from wattmetron.core.search.drive_sets import Bays
from wattmetron.core.search.thresholds import ints
from wattmetron.core.values.parts import BOARD_FORMS

CHUNK = 1 << 14
NO_MOUNT = -1
MOST_BOUNDS = 2
"""At so many levels of heat at most the bounds are worked out."""


class Shell(NamedTuple):
    """What of a platform bears on supply, cooler and case, one value for each build."""

    form: Ints
    leads: Ints
    memory_level: Ints
    bays: Ints
    cards: Ints
    """Expansion cards besides the graphics card."""


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
