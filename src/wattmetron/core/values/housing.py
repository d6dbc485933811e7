"""What houses, cools and powers a machine."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import (
    LEAST,
    Capacity,
    Column,
    Count,
    Millimetres,
    Watts,
)
from wattmetron.core.values.parts import BoardForm, Gen, Part, Radiator, SupplyForm


@dataclass(frozen=True, slots=True, kw_only=True)
class Cooler(Part):
    """A cooler for the processor: air, or liquid with a radiator."""

    sockets: Annotated[tuple[str, ...], Column("Sockets that it mounts on, separated by ;")]
    height_mm: Annotated[Millimetres, Column("Height", "mm")]
    capacity_w: Annotated[Capacity, Column("Sustained heat that it carries", "W")]
    noise_dba: Annotated[float | None, Ge(0), Le(90), Column("Noise at full load", "dB(A)")] = None
    memory_clearance_mm: Annotated[
        Millimetres | None, Column("Tallest memory that goes beside it; empty: not known", "mm")
    ] = None
    radiator_mm: Annotated[
        Radiator | None, Column("Length of the radiator; empty: an air cooler", "mm")
    ] = None
    radiator_thickness_mm: Annotated[
        Millimetres, Column("Thickness of the radiator with its fans", "mm")
    ] = 52

    @property
    def radiator(self) -> tuple[Radiator, int] | None:
        """Length and thickness of the radiator in mm; None for an air cooler."""
        return None if self.radiator_mm is None else (self.radiator_mm, self.radiator_thickness_mm)


@dataclass(frozen=True, slots=True, kw_only=True)
class PowerSupply(Part):
    """A power supply."""

    watts: Annotated[Capacity, Column("Rated output", "W")]
    spike_w: Annotated[Capacity, Column("Short spikes that it stands", "W")]
    form: Annotated[SupplyForm, Column("Form factor")]
    cpu_8pin: Annotated[Count, Column("8-pin processor power connectors")]
    cpu_4pin: Annotated[Count, Column("4-pin processor power connectors besides")] = 0
    pcie_16pin_w: Annotated[
        Watts | None, Column("What a 16-pin lead is rated for; empty: not known", "W")
    ] = None
    pcie_8pin: Annotated[Count, Column("8-pin PCIe power connectors")]
    pcie_16pin: Annotated[Count, Column("16-pin PCIe power connectors")]
    efficiency: Annotated[str, Column("80 PLUS level; empty: none is stated")] = ""
    length_mm: Annotated[Millimetres | None, Column("Length; empty: not known", "mm")] = None
    modular: Annotated[bool | None, Column("Whether its cables are modular; empty: not known")] = (
        None
    )
    protections: Annotated[
        tuple[str, ...],
        Column(
            "Protections named, such as OVP, OCP, OPP, SCP, separated by ;, or none; empty: not"
            " known"
        ),
    ] = ()
    tested: Annotated[
        Literal["passed", "failed"] | None, Column("Independent test; empty: none known")
    ] = None
    sata_plugs: Annotated[Count | None, Column("SATA power plugs; empty: not known")] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Case(Part):
    """A case."""

    board_forms: Annotated[tuple[BoardForm, ...], Column("Board form factors, separated by ;")]
    supply_forms: Annotated[tuple[SupplyForm, ...], Column("Supply form factors, separated by ;")]
    card_length_mm: Annotated[Millimetres, Column("Longest card", "mm")]
    cooler_height_mm: Annotated[Millimetres, Column("Tallest cooler", "mm")]
    fans_included: Annotated[Count | None, Column("Fans included; empty: not known")] = None
    volume_l: Annotated[float, Ge(LEAST), Le(500), Column("Volume", "l")] = 40.0
    airflow: Annotated[Literal["mesh", "side vents", "closed"], Column("How air gets in")] = "mesh"
    depth_mm: Annotated[Millimetres | None, Column("Depth outside; empty: not known", "mm")] = None
    width_mm: Annotated[Millimetres | None, Column("Width outside; empty: not known", "mm")] = None
    height_mm: Annotated[Millimetres | None, Column("Height outside; empty: not known", "mm")] = (
        None
    )
    card_height_mm: Annotated[
        Millimetres | None, Column("Tallest card above its slot; empty: not known", "mm")
    ] = None
    card_thickness_mm: Annotated[
        Millimetres | None, Column("Thickest card; empty: not known", "mm")
    ] = None
    supply_length_mm: Annotated[
        Millimetres | None, Column("Longest power supply; empty: not known", "mm")
    ] = None
    supply_place: Annotated[
        Literal["bottom rear", "top rear", "front"], Column("Where the power supply sits")
    ] = "bottom rear"
    radiator_front_mm: Annotated[
        tuple[Radiator, ...],
        Column("Radiators in front, the longest of each width, separated by ;; empty: none", "mm"),
    ] = ()
    radiator_top_mm: Annotated[
        tuple[Radiator, ...],
        Column("Radiators on top, the longest of each width, separated by ;; empty: none", "mm"),
    ] = ()
    radiator_rear_mm: Annotated[
        tuple[Radiator, ...],
        Column("Radiators at the rear, the longest of each width, separated by ;", "mm"),
    ] = ()
    radiator_top_thickness_mm: Annotated[
        Millimetres | None,
        Column("Thickest radiator with its fans on top; empty: not known", "mm"),
    ] = None
    places_25: Annotated[
        Count | None, Column("Places for 2.5 inch drives alone; empty: not known")
    ] = None
    places_35: Annotated[
        Count | None, Column("Places for 3.5 or 2.5 inch drives; empty: not known")
    ] = None
    places_525: Annotated[Count | None, Column("Bays for 5.25 inch drives; empty: not known")] = (
        None
    )
    fan_places: Annotated[Count | None, Column("Places for fans; empty: not known")] = None
    fan_sizes: Annotated[
        tuple[str, ...],
        Column(
            "Sizes in mm that each place for a fan takes, such as 120/140, separated by ;; empty:"
            " not known"
        ),
    ] = ()
    side_fan_mm: Annotated[
        Millimetres | None,
        Column("How far a fan in the side panel reaches in; empty: there is none", "mm"),
    ] = None
    above_board_mm: Annotated[
        Millimetres | None,
        Column(
            "Room between the mainboard and a radiator's place on top; empty: enough for all that"
            " goes there",
            "mm",
        ),
    ] = None
    riser_gen: Annotated[
        Gen | None,
        Column("PCIe generation of the riser that the card stands on; empty: there is none"),
    ] = None
    front_ports: Annotated[
        tuple[str, ...], Column("Front ports by the header they need, separated by ;")
    ] = ()
    lights: Annotated[tuple[str, ...], Column("Voltages of its lights, separated by ;")] = ()
    cable_room_mm: Annotated[
        Millimetres | None,
        Column("Room for cables behind the mainboard; empty: not known", "mm"),
    ] = None
    tool_free: Annotated[
        bool | None, Column("Whether it opens and takes drives without tools; empty: not known")
    ] = None
