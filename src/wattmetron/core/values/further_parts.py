"""Parts that a machine may have besides the eight kinds: fans, adapters, capture cards, drives for
discs, system, display, input.
"""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import LEAST, Column, Some
from wattmetron.core.values.parts import Part

SLOT_LANES: dict[str, int] = {"PCIe x1": 1, "PCIe x4": 4}
"""Lanes of the slots for expansion cards."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Fan(Part):
    """A fan for the case, or a pack of them."""

    size_mm: Annotated[Literal[80, 92, 120, 140, 200], Column("Size", "mm")]
    pack: Annotated[Some, Column("Fans in the pack")] = 1
    noise_dba: Annotated[float | None, Ge(0), Le(90), Column("Noise at full speed", "dB(A)")] = None
    lights: Annotated[tuple[str, ...], Column("Voltages of its lights, separated by ;")] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class FanSplitter(Part):
    """A cable or a hub that joins several fans on one header."""

    joins: Annotated[int, Ge(2), Le(16), Column("Fans that it joins on one header")]


@dataclass(frozen=True, slots=True, kw_only=True)
class WirelessAdapter(Part):
    """A wireless adapter."""

    standard: Annotated[str, Column("Wireless standard")]
    via: Annotated[Literal["PCIe x1", "M.2", "USB"], Column("How it is connected")]

    @property
    def slot_lanes(self) -> int:
        return SLOT_LANES.get(self.via, 0)


@dataclass(frozen=True, slots=True, kw_only=True)
class CaptureCard(Part):
    """A card or a box that records the picture of another machine."""

    via: Annotated[Literal["PCIe x1", "PCIe x4", "USB"], Column("How it is connected")]
    width_px: Annotated[int, Ge(320), Le(16_384), Column("Pixels across that it records", "px")]
    height_px: Annotated[int, Ge(200), Le(16_384), Column("Pixels down that it records", "px")]
    refresh_hz: Annotated[float, Ge(20), Le(1000), Column("Pictures a second at those", "Hz")]
    watts: Annotated[int, Ge(1), Le(75), Column("Power that it draws of slot or port", "W")]

    @property
    def slot_lanes(self) -> int:
        return SLOT_LANES.get(self.via, 0)

    @property
    def added_w(self) -> int:
        return self.watts


@dataclass(frozen=True, slots=True, kw_only=True)
class OpticalDrive(Part):
    """A drive for discs."""

    via: Annotated[Literal["SATA", "USB"], Column("How it is connected")]
    writes: Annotated[bool, Column("Whether it writes discs")] = False


@dataclass(frozen=True, slots=True, kw_only=True)
class OperatingSystem(Part):
    """A licence of an operating system."""

    family: Annotated[str, Column("System as published lists name it")]
    designs: Annotated[
        tuple[str, ...],
        Column("Designs of processors that it supports, separated by ;; empty: not known"),
    ] = ()
    apis: Annotated[tuple[str, ...], Column("Graphics APIs with their levels, separated by ;")] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Screen(Part):
    """A display."""

    width_px: Annotated[int, Ge(320), Le(16_384), Column("Pixels across", "px")]
    height_px: Annotated[int, Ge(200), Le(16_384), Column("Pixels down", "px")]
    refresh_hz: Annotated[float, Ge(20), Le(1000), Column("Highest refresh", "Hz")]
    variable_from_hz: Annotated[
        float | None, Ge(1), Le(1000), Column("Where variable refresh begins; empty: fixed", "Hz")
    ] = None
    diagonal_inch: Annotated[float, Ge(LEAST), Le(120), Column("Diagonal", "inch")] = 27.0
    inputs: Annotated[tuple[str, ...], Column("Inputs, separated by ;")] = ()
    compression: Annotated[
        bool | None,
        Column("Whether its inputs take what is sent compressed (DSC); empty: not known"),
    ] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class InputDevice(Part):
    """A keyboard, mouse, controller or headset."""

    what: Annotated[
        Literal["keyboard", "mouse", "keyboard and mouse", "controller", "headset"],
        Column("What it is"),
    ]
    cordless: Annotated[bool, Column("Whether it has no cable")] = False
