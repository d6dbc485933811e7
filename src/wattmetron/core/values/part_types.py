"""Which type holds the parts of each kind."""

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import (
    CaptureCard,
    Fan,
    FanSplitter,
    InputDevice,
    OperatingSystem,
    OpticalDrive,
    Screen,
    WirelessAdapter,
)
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor

PART_TYPES: dict[Kind, type[Part]] = {
    "processor": Processor,
    "graphics": Graphics,
    "mainboard": Mainboard,
    "memory": Memory,
    "storage": Storage,
    "cooler": Cooler,
    "supply": PowerSupply,
    "case": Case,
    "fan": Fan,
    "splitter": FanSplitter,
    "wireless": WirelessAdapter,
    "capture": CaptureCard,
    "optical": OpticalDrive,
    "system": OperatingSystem,
    "display": Screen,
    "input": InputDevice,
}
_KIND_BY_TYPE: dict[type[Part], Kind] = {part_type: kind for kind, part_type in PART_TYPES.items()}


def kind_of(part: Part) -> Kind:
    """The kind of a part."""
    return _KIND_BY_TYPE[type(part)]
