"""Parts of a machine and the catalogue that holds them."""

from wattmetron.core.parts.model import (
    BOARD_FORMS,
    KINDS,
    PART_TYPES,
    SUPPLY_FORMS,
    Case,
    Cooler,
    Graphics,
    Kind,
    Mainboard,
    Memory,
    Part,
    PowerSupply,
    Processor,
    Storage,
    kind_of,
)

__all__ = [
    "BOARD_FORMS",
    "KINDS",
    "PART_TYPES",
    "SUPPLY_FORMS",
    "Case",
    "Cooler",
    "Graphics",
    "Kind",
    "Mainboard",
    "Memory",
    "Part",
    "PowerSupply",
    "Processor",
    "Storage",
    "kind_of",
]
