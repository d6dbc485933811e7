"""Drives: what they hold, how fast, in which place."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import (
    Column,
    Millimetres,
)
from wattmetron.core.values.parts import Gen, Part, StorageKind

HARD_DISK_MBS = 300
"""A SATA drive that reads no faster spins."""
DriveForm = Literal["M.2", "2.5 inch", "3.5 inch"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Storage(Part):
    """A drive."""

    interface: Annotated[Literal["M.2 NVMe", "SATA", "U.2 NVMe"], Column("Interface")]
    capacity_gb: Annotated[Annotated[int, Ge(1), Le(200_000)], Column("Capacity", "GB")]
    read_mbs: Annotated[Annotated[int, Ge(1), Le(100_000)], Column("Sequential read", "MB/s")]
    form: Annotated[DriveForm | None, Column("Form; empty: M.2 for NVMe, 2.5 inch for SATA")] = None
    m2_length_mm: Annotated[
        Millimetres | None, Column("Length of an M.2 drive; empty: not known", "mm")
    ] = None
    pcie_gen: Annotated[Gen | None, Column("PCIe generation of an M.2 drive; empty: not known")] = (
        None
    )
    own_cache: Annotated[
        bool | None, Column("Whether it has a cache of its own; empty: not known")
    ] = None

    @property
    def size(self) -> DriveForm:
        return self.form or ("M.2" if self.interface == "M.2 NVMe" else "2.5 inch")

    @property
    def on_u2(self) -> bool:
        """Whether it is an NVMe drive in a 2.5 inch shell, with a U.2 plug."""
        return self.interface != "SATA" and self.size != "M.2"

    @property
    def kind(self) -> StorageKind:
        if self.interface != "SATA":
            return "NVMe SSD"
        return "SSD" if self.read_mbs > HARD_DISK_MBS else "hard disk"
