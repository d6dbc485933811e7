"""Where a radiator goes in a case, and what it takes of the room there."""

from collections.abc import Iterable

from wattmetron.core.values.housing import Case
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Radiator


def takes_radiator(sizes_mm: Iterable[Radiator], radiator_mm: Radiator) -> bool:
    """Whether a place that takes these radiators takes one that is no longer and no wider (120 or
    140 mm) than one of them.
    """
    return any(
        radiator_mm <= size_mm and _width_mm(radiator_mm) <= _width_mm(size_mm)
        for size_mm in sizes_mm
    )


def _width_mm(radiator_mm: int) -> int:
    return 140 if radiator_mm % 140 == 0 else 120


LOW_MEMORY_MM = 35
"""Memory of this height goes under a radiator that reaches over the mainboard; usual."""


def tall_memory(memory_mm: int | None) -> bool:
    """Whether memory is known to be too tall to go under a radiator that reaches over the board."""
    return memory_mm is not None and memory_mm > LOW_MEMORY_MM


def over_board(case: Case, thickness_mm: int) -> bool:
    """Whether a radiator on top reaches over the mainboard."""
    return case.above_board_mm is not None and thickness_mm > case.above_board_mm


def radiator_place(case: Case, radiator: tuple[Radiator, int], tall: bool = False) -> str | None:
    """Where a radiator of this length and thickness with its fans goes: on top, else at the rear,
    else in front; None where it goes nowhere. Beside ``tall`` memory it does not go where it
    reaches over the mainboard.
    """
    length_mm, thickness_mm = radiator
    top_mm = case.radiator_top_thickness_mm
    on_top = takes_radiator(case.radiator_top_mm, length_mm)
    meets_memory = tall and over_board(case, thickness_mm)
    if on_top and not meets_memory and thickness_mm <= (top_mm or thickness_mm):
        return "top"
    if takes_radiator(case.radiator_rear_mm, length_mm):
        return "rear"
    return "front" if takes_radiator(case.radiator_front_mm, length_mm) else None


def placed_radiator(machine: Machine) -> str | None:
    """Where the radiator of a machine's cooler goes in its case, beside its memory."""
    case, cooler, kit = machine.case, machine.cooler, machine.memory
    if case is None or cooler is None or cooler.radiator is None:
        return None
    return radiator_place(case, cooler.radiator, tall_memory(kit.height_mm if kit else None))
