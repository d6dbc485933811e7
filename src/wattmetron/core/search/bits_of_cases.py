"""Which coolers, mounts and cards each case takes, as bits."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.compatibility.radiator_places import over_board, radiator_place
from wattmetron.core.compatibility.room_in_case import (
    card_room_beside_mm,
    form_goes,
    inside_length_mm,
    tall_mm,
)
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.candidate_pool import Pool, crowded
from wattmetron.core.search.drive_sets import Bays
from wattmetron.core.search.thresholds import Ladder, ints
from wattmetron.core.values.housing import Case
from wattmetron.core.values.parts import BOARD_FORMS, Graphics, Radiator, SupplyForm

Ints = NDArray[np.int64]
Bits = NDArray[np.uint64]


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


def _has_places(case: Case, bays: Bays) -> bool:
    if case.places_25 is None or case.places_35 is None:
        return True
    return (
        bays.large <= case.places_35 and bays.small + bays.large <= case.places_25 + case.places_35
    )
