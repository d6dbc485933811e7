"""The kinds of part, and what they are called."""

from typing import Literal, get_args

Kind = Literal[
    "processor",
    "graphics",
    "mainboard",
    "memory",
    "storage",
    "cooler",
    "supply",
    "case",
    "fan",
    "splitter",
    "wireless",
    "optical",
    "system",
    "display",
    "input",
]
ALL_KINDS: tuple[Kind, ...] = get_args(Kind)
KINDS, FURTHER_KINDS = ALL_KINDS[:8], ALL_KINDS[8:]
"""What every machine is made of, and what else it may have: several of each, none needed."""
OF_FANS: tuple[Kind, ...] = ("fan", "splitter")
"""Further kinds that come along with a case."""
KIND_NAMES: dict[Kind, str] = {
    "processor": "processor",
    "graphics": "graphics card",
    "mainboard": "mainboard",
    "memory": "memory kit",
    "storage": "drive",
    "cooler": "cooler",
    "supply": "power supply",
    "case": "case",
    "fan": "fan",
    "splitter": "fan splitter",
    "wireless": "wireless adapter",
    "optical": "optical drive",
    "system": "operating system",
    "display": "display",
    "input": "input device",
}
KIND_PLURALS: dict[Kind, str] = {
    kind: "power supplies" if kind == "supply" else f"{name}s" for kind, name in KIND_NAMES.items()
}
