"""A memory kit."""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import Ge, Le

from wattmetron.core.values.fields import (
    Column,
    Millimetres,
    Some,
)
from wattmetron.core.values.parts import Gigabytes, MemoryType, Part, Rate


@dataclass(frozen=True, slots=True, kw_only=True)
class Memory(Part):
    """A memory kit."""

    memory_type: Annotated[MemoryType, Column("Memory type")]
    mts: Annotated[Rate, Column("Transfer rate", "MT/s")]
    cl: Annotated[Some, Column("CAS latency", "cycles")]
    sticks: Annotated[Some, Column("Sticks in the kit")]
    stick_gb: Annotated[Gigabytes, Column("Capacity of one stick", "GB")]
    ranks: Annotated[Annotated[int, Ge(1), Le(8)], Column("Ranks per stick")] = 1
    height_mm: Annotated[Millimetres | None, Column("Height; empty: not known", "mm")] = None
    registered: Annotated[
        bool, Column("Registered; empty: taken as not, as nearly all kits are")
    ] = False
    error_correcting: Annotated[
        bool, Column("With error correction; empty: taken as without, as nearly all kits are")
    ] = False
    lights: Annotated[bool, Column("With lights; empty: taken as without")] = False

    @property
    def total_gb(self) -> float:
        return self.sticks * self.stick_gb
