"""Where everything stands in the case, in mm: a side view and a section from above, with clearances
and clashes.

Sizes come from the parts; places that no attribute gives follow the form factors' standards
(boards, slots at 20.32 mm pitch, drives, ATX and SFX supplies) or are assumed, and are marked so.
"""

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from wattmetron.core.compatibility.drawing_to_scale import Box, Clearance, Drawing
from wattmetron.core.compatibility.ports import ROW_MM, ROWS
from wattmetron.core.compatibility.radiator_places import placed_radiator
from wattmetron.core.compatibility.room_in_case import card_room_mm, tall_mm
from wattmetron.core.compatibility.usual_sizes import (
    BOARD_MM,
    COOLER_WIDTH_MM,
    DRIVE_MM,
    EDGE_MM,
    SOCKET_X_MM,
    STANDOFF_MM,
    STICK_MM,
    SUPPLY_MM,
    known_or,
)
from wattmetron.core.values.housing import Case
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import BoardForm


def drawing(machine: Machine) -> Drawing | None:
    """The drawing of what is in the machine; None for an empty one."""
    if not (machine.parts()):
        return None
    return _Plan(machine).drawn()


class _Plan:
    """Works out where things stand."""

    def __init__(self, machine: Machine) -> None:
        self.machine, self.case = machine, machine.case
        case = self.case
        form: BoardForm = machine.mainboard.form_factor if machine.mainboard else "ATX"
        self.board_depth, self.board_height = BOARD_MM[form]
        inside = max(self.board_depth, machine.graphics.length_mm if machine.graphics else 0)
        self.depth = known_or(case.depth_mm if case else None, inside + 70)
        self.height = known_or(case.height_mm if case else None, self.board_height + 140)
        self.width = known_or(case.width_mm if case else None, self._tallest() + 50)
        self.bottom_supply = case is None or case.supply_place == "bottom rear"
        below = 96 if self.bottom_supply else 20
        self.board_y = max(EDGE_MM, min(45, self.height - self.board_height - below))
        self.slot_y = self.board_y + self.board_height - ROWS[form] * ROW_MM + ROW_MM / 2
        self.radiator = machine.cooler.radiator if machine.cooler else None
        self.radiator_at = placed_radiator(machine)

    def _tallest(self) -> float:
        card, cooler = self.machine.graphics, self.machine.cooler
        return max(cooler.height_mm if cooler else 0, (card.height_mm or 0) if card else 0, 120)

    def drawn(self) -> Drawing:
        clearances = tuple(self._clearances())
        clashing = {clearance.kinds[0] for clearance in clearances if clearance.clash}
        boxes = [replace(box, clash=box.kind in clashing) for box in self._boxes()]
        case = self.case
        assumed = case is None or None in (case.depth_mm, case.height_mm, case.width_mm)
        return Drawing(
            depth_mm=self.depth,
            height_mm=self.height,
            width_mm=self.width,
            outline_assumed=assumed,
            boxes=tuple(boxes),
            clearances=clearances,
        )

    def _boxes(self) -> Iterator[Box]:
        machine = self.machine
        if board := machine.mainboard:
            yield Box(
                view="side",
                kind="mainboard",
                name=board.name,
                x=0,
                y=self.board_y,
                width=self.board_depth,
                height=self.board_height,
            )
            yield Box(
                view="above",
                kind="mainboard",
                name=board.name,
                x=0,
                y=STANDOFF_MM - 2,
                width=self.board_depth,
                height=2,
            )
        yield from self._card()
        yield from self._memory()
        yield from self._cooler()
        yield from self._supply()
        yield from self._drives()

    def _memory(self) -> Iterator[Box]:
        kit = self.machine.memory
        if kit is None:
            return
        start = SOCKET_X_MM + COOLER_WIDTH_MM / 2 + 6
        tall = kit.height_mm or 34
        length = min(STICK_MM[1], self.board_height - 30)
        for n in range(min(kit.sticks, 8)):
            x = start + n * (STICK_MM[0] + 3)
            yield Box(
                view="side",
                kind="memory",
                name=kit.name,
                x=x,
                y=self.board_y + 12,
                width=STICK_MM[0],
                height=length,
            )
            yield Box(
                view="above",
                kind="memory",
                name=kit.name,
                x=x,
                y=STANDOFF_MM,
                width=STICK_MM[0],
                height=tall,
                assumed=kit.height_mm is None,
            )

    def _cooler(self) -> Iterator[Box]:
        cooler = self.machine.cooler
        if cooler is None:
            return
        wide = 70 if cooler.radiator_mm else COOLER_WIDTH_MM
        x = SOCKET_X_MM - wide / 2
        middle = self.board_y + min(80, self.board_height / 2)
        yield Box(
            view="side",
            kind="cooler",
            name=cooler.name,
            x=x,
            y=middle - wide / 2,
            width=wide,
            height=wide,
            assumed=True,
        )
        yield Box(
            view="above",
            kind="cooler",
            name=cooler.name,
            x=x,
            y=STANDOFF_MM,
            width=wide,
            height=cooler.height_mm,
        )
        if self.radiator is not None and self.radiator_at is not None:
            yield from self._radiator(cooler.name, *self.radiator)

    def _radiator(self, name: str, length: int, thick: int) -> Iterator[Box]:
        """A radiator with its fans; a radiator is some 35 mm longer than its fans."""
        long, broad = length + 35, 140 if length % 140 == 0 else 120
        if self.radiator_at == "top":
            yield Box(
                view="side",
                kind="cooler",
                name=f"radiator of {name}",
                x=30,
                y=4,
                width=long,
                height=thick,
            )
        elif self.radiator_at == "rear":
            yield Box(
                view="side",
                kind="cooler",
                name=f"radiator of {name}",
                x=4,
                y=self.board_y,
                width=thick,
                height=long,
            )
        else:
            x = self.depth - 10 - thick
            yield Box(
                view="side",
                kind="cooler",
                name=f"radiator of {name}",
                x=x,
                y=EDGE_MM,
                width=thick,
                height=min(long, self.height - 2 * EDGE_MM),
            )
            yield Box(
                view="above",
                kind="cooler",
                name=f"radiator of {name}",
                x=x,
                y=max(4.0, (self.width - broad) / 2),
                width=thick,
                height=broad,
            )

    def _card(self) -> Iterator[Box]:
        card = self.machine.graphics
        if card is None:
            return
        thick = card.thickness_mm or 40
        yield Box(
            view="side",
            kind="graphics",
            name=card.name,
            x=0,
            y=self.slot_y - 6,
            width=card.length_mm,
            height=thick,
            assumed=card.thickness_mm is None,
        )
        tall = card.height_mm or 111
        yield Box(
            view="above",
            kind="graphics",
            name=card.name,
            x=0,
            y=STANDOFF_MM + 6,
            width=card.length_mm,
            height=tall,
            assumed=card.height_mm is None,
        )

    def _supply(self) -> Iterator[Box]:
        supply = self.machine.supply
        if supply is None:
            return
        _, tall = SUPPLY_MM[supply.form]
        long = supply.length_mm or 150
        unknown = supply.length_mm is None
        if self.bottom_supply:
            yield Box(
                view="side",
                kind="supply",
                name=supply.name,
                x=0,
                y=self.height - tall - 8,
                width=long,
                height=tall,
                assumed=unknown,
            )
        elif self.case is not None and self.case.supply_place == "top rear":
            yield Box(
                view="side",
                kind="supply",
                name=supply.name,
                x=0,
                y=4,
                width=long,
                height=tall,
                assumed=unknown,
            )
        else:
            yield Box(
                view="side",
                kind="supply",
                name=supply.name,
                x=self.depth - 14 - tall,
                y=EDGE_MM,
                width=tall,
                height=long,
                assumed=unknown,
            )

    def _drives(self) -> Iterator[Box]:
        sticks = bays = 0
        for drive in self.machine.storage:
            if drive.size == "M.2":
                y = self.slot_y - 32 - sticks * 26
                yield Box(
                    view="side",
                    kind="storage",
                    name=drive.name,
                    x=60,
                    y=max(y, self.board_y + 4),
                    width=80,
                    height=22,
                )
                sticks += 1
                continue
            wide, tall = DRIVE_MM[drive.size]
            bays += tall + 6
            yield Box(
                view="side",
                kind="storage",
                name=drive.name,
                x=self.depth - 18 - wide,
                y=self.height - 8 - bays,
                width=wide,
                height=tall,
                assumed=True,
            )

    def _clearances(self) -> Iterator[Clearance]:
        case, machine = self.case, self.machine
        card, cooler, kit, supply = machine.graphics, machine.cooler, machine.memory, machine.supply
        if case and card:
            yield from self._of_card(case)
        if case and cooler:
            x = SOCKET_X_MM - COOLER_WIDTH_MM / 2 - 8
            yield Clearance(
                rule="cooler height",
                what="cooler",
                view="above",
                along="y",
                x=x,
                y=STANDOFF_MM,
                size_mm=cooler.height_mm,
                room_mm=case.cooler_height_mm,
                kinds=("cooler", "case"),
            )
        if cooler and kit and kit.height_mm is not None and not cooler.radiator_mm:
            x = SOCKET_X_MM + COOLER_WIDTH_MM / 2 + 46
            yield Clearance(
                rule="memory clearance",
                what="memory beside the cooler",
                view="above",
                along="y",
                x=x,
                y=STANDOFF_MM,
                size_mm=kit.height_mm,
                room_mm=cooler.memory_clearance_mm,
                kinds=("memory", "cooler"),
            )
        if case and supply and supply.length_mm is not None:
            along: Literal["x", "y"] = "x" if case.supply_place != "front" else "y"
            x, y = (
                (0.0, self.height - SUPPLY_MM[supply.form][1] - 16.0)
                if along == "x"
                else (self.depth - 110.0, float(EDGE_MM))
            )
            yield Clearance(
                rule="supply length",
                what="power supply",
                view="side",
                along=along,
                x=x,
                y=y,
                size_mm=supply.length_mm,
                room_mm=case.supply_length_mm,
                kinds=("supply", "case"),
            )

    def _of_card(self, case: Case) -> Iterator[Clearance]:
        card = self.machine.graphics
        assert card is not None
        room = card_room_mm(self.machine, case)
        thick = card.thickness_mm or 40
        y = self.slot_y + thick + 20
        kinds: tuple[Kind, ...] = (
            ("graphics", "case", "cooler") if room < case.card_length_mm else ("graphics", "case")
        )
        yield Clearance(
            rule="card length",
            what="card, length",
            view="side",
            along="x",
            x=0,
            y=y,
            size_mm=card.length_mm,
            room_mm=room,
            kinds=kinds,
        )
        if card.height_mm is not None:
            x = min(card.length_mm, self.depth) - 24
            yield Clearance(
                rule="card height",
                what="card, height",
                view="above",
                along="y",
                x=x,
                y=STANDOFF_MM,
                size_mm=tall_mm(card) or 0,
                room_mm=case.card_height_mm,
                kinds=("graphics", "case"),
            )
        if card.thickness_mm is not None:
            x = 0.6 * card.length_mm
            yield Clearance(
                rule="card thickness",
                what="card, thickness",
                view="side",
                along="y",
                x=x,
                y=self.slot_y - 6,
                size_mm=card.thickness_mm,
                room_mm=case.card_thickness_mm,
                kinds=("graphics", "case"),
            )
