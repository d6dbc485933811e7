"""The eight kinds of part and the attributes that rules and estimates need."""

from dataclasses import dataclass, field
from datetime import date
from typing import Annotated, Any, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import (
    FOLDED,
    LEAST,
    Column,
    Count,
    Millimetres,
    Points,
    PointsOrNone,
    Some,
    Spread,
    Watts,
)

StorageKind = Literal["hard disk", "SSD", "NVMe SSD"]
STORAGE_KINDS: tuple[StorageKind, ...] = ("hard disk", "SSD", "NVMe SSD")
"""Slower kinds first."""
MemoryType = Literal["DDR3", "DDR4", "DDR5"]
BoardForm = Literal["E-ATX", "ATX", "Micro-ATX", "Mini-ITX"]
SupplyForm = Literal["ATX", "SFX", "SFX-L", "external"]
Radiator = Literal[120, 140, 240, 280, 360, 420]
BOARD_FORMS: tuple[BoardForm, ...] = ("E-ATX", "ATX", "Micro-ATX", "Mini-ITX")
SUPPLY_FORMS: tuple[SupplyForm, ...] = ("ATX", "SFX", "SFX-L", "external")
NONE = "none"
"""Stands in a list for: there are none. An empty list is not known."""

Slots = Annotated[int, Ge(0), Le(12)]
Gen = Annotated[int, Ge(1), Le(9)]
Lanes = Literal[1, 2, 4, 8, 16]
Rate = Annotated[int, Ge(200), Le(40_000)]
Gigabytes = Annotated[float, Ge(LEAST), Le(100_000)]


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """What every part has."""

    id: Annotated[str, Column("Part id, unique over all kinds: small letters, digits and hyphens")]
    maker: Annotated[str, Column("Maker")]
    model: Annotated[str, Column("Model name")]
    released: Annotated[date | None, Column("Release date, ISO 8601")] = None
    withdrawn: Annotated[
        date | None, Column("Date on which its sale ended, ISO 8601; empty: still made")
    ] = None
    colour: Annotated[str, Column("Colour")] = ""
    returns_percent: Annotated[
        Annotated[float, Ge(0), Le(100)] | None,
        Column(
            "The maker's record: parts of this kind sent back within two years; empty: not known",
            "%",
        ),
    ] = None
    warranty_years: Annotated[
        Annotated[float, Ge(0), Le(30)] | None, Column("Warranty; empty: not known", "years")
    ] = None
    reviews: Annotated[
        Annotated[int, Ge(0), Le(1_000_000)] | None, Column("Number of reviews; empty: none known")
    ] = None
    review_percent: Annotated[
        Annotated[float, Ge(0), Le(100)] | None, Column("Mean score of the reviews", "%")
    ] = None
    reviews_from: Annotated[str, Column("Source of the reviews")] = ""
    reviews_on: Annotated[date | None, Column("Date of the reviews, ISO 8601")] = None
    source: Annotated[str, Column("Where the figures come from")] = ""
    claimed: Annotated[
        tuple[str, ...],
        Column(
            "Columns whose figures are only claimed, by a maker's list or an offer's text,"
            " separated by ;"
        ),
    ] = ()
    disputed: Annotated[
        tuple[str, ...],
        Column("What other sources say instead, such as length_mm=309 by a shop, separated by ;"),
    ] = ()
    notes: Annotated[str, Column("Free text")] = ""
    own: tuple[Any, ...] = field(default=(), compare=False, metadata=FOLDED)
    """Own records of the part and of its maker."""
    picture: str = field(default="", compare=False, metadata=FOLDED)
    """Digest of the user's picture of it; empty: none."""

    @property
    def again(self) -> bool:
        """Whether one would buy it again."""
        return any(record.again for record in self.own)

    @property
    def name(self) -> str:
        return f"{self.maker} {self.model}"

    @property
    def slot_lanes(self) -> int:
        """Lanes of the slot for expansion cards that it takes; 0: it takes none."""
        return 0

    @property
    def added_w(self) -> int:
        """What it draws as a further part, in W."""
        return 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Processor(Part):
    """A processor; speeds are relative to a reference part at 100."""

    socket: Annotated[str, Column("Socket")]
    cores: Annotated[Some, Column("Cores")]
    threads: Annotated[Some, Column("Hardware threads")]
    single_speed: Annotated[Points, Column("S: one busy core in games, rated memory", "points")]
    all_core_speed: Annotated[Points, Column("T: all cores busy", "points")]
    speed_sd: Annotated[Spread, Column("How well S and T are known: standard deviation", "ln")]
    memory_type: Annotated[MemoryType, Column("Memory type")]
    memory_mts: Annotated[Rate, Column("Rated memory transfer rate", "MT/s")]
    memory_cl: Annotated[Some, Column("CAS latency of the rated memory", "cycles")]
    memory_channels: Annotated[Some, Column("Memory channels")]
    memory_max_mts: Annotated[Rate, Column("Highest usable memory transfer rate", "MT/s")]
    memory_max_gb: Annotated[Gigabytes, Column("Most memory", "GB")]
    card_pcie_gen: Annotated[Gen, Column("PCIe generation of the link to the card")]
    card_pcie_lanes: Annotated[Lanes, Column("PCIe lanes of the link to the card")]
    sustained_w: Annotated[Watts, Column("Sustained power, all cores busy", "W")]
    gaming_w: Annotated[Watts, Column("Power in games when it is the limit", "W")]
    design: Annotated[
        str, Column("Design that games take to alike, such as a generation; empty: its own")
    ] = ""
    other_memory: Annotated[
        tuple[str, ...],
        Column(
            "Other memory types that it takes with their highest transfer rates in MT/s, such as"
            " DDR4=3200, separated by ;"
        ),
    ] = ()
    memory_full_mts: Annotated[
        Rate | None,
        Column(
            "Highest memory transfer rate with two sticks on a channel; empty: not stated", "MT/s"
        ),
    ] = None
    igpu_speed: Annotated[
        PointsOrNone | None,
        Column("R of the integrated graphics; 0: there are none; empty: not known", "points"),
    ] = None
    igpu_upscalers: Annotated[
        tuple[str, ...], Column("Upscalers that the integrated graphics can run, separated by ;")
    ] = ()
    igpu_apis: Annotated[
        tuple[str, ...],
        Column("Graphics APIs and levels of the integrated graphics, separated by ;"),
    ] = ()
    boxed_cooler_w: Annotated[
        Watts | None,
        Column("Capacity of the boxed cooler; 0: none in the box; empty: not known", "W"),
    ] = None
    boxed_height_mm: Annotated[
        Millimetres | None, Column("Height of the boxed cooler; empty: not known", "mm")
    ] = None
    boxed_noise_dba: Annotated[
        float | None,
        Ge(0),
        Le(90),
        Column("Noise of the boxed cooler at full load; empty: not known", "dB(A)"),
    ] = None
    cache_mb: Annotated[
        Annotated[float, Ge(0.1), Le(2_000)] | None,
        Column("Last-level cache; empty: not known", "MB"),
    ] = None
    tunable: Annotated[bool | None, Column("Whether its clocks can be tuned; empty: not known")] = (
        None
    )
    firmware_family: Annotated[
        str, Column("Family by which mainboards name the firmware it needs")
    ] = ""

    @property
    def draws(self) -> bool:
        """Whether it is known to have integrated graphics."""
        return bool(self.igpu_speed)

    @property
    def brings_cooler(self) -> bool:
        """Whether it is known to come with a cooler that carries its sustained power."""
        carries_w = self.boxed_cooler_w or 0
        return 0 < carries_w >= self.sustained_w


@dataclass(frozen=True, slots=True, kw_only=True)
class Graphics(Part):
    """A graphics card."""

    chip: Annotated[str, Column("Graphics chip")]
    speed_1080p: Annotated[Points, Column("R at 1920x1080", "points")]
    speed_1440p: Annotated[Points | None, Column("R at 2560x1440", "points")] = None
    speed_2160p: Annotated[Points | None, Column("R at 3840x2160", "points")] = None
    speed_sd: Annotated[Spread, Column("How well R is known: standard deviation", "ln")]
    ray_speed: Annotated[
        PointsOrNone | None,
        Column("Q: ray tracing; 0: cannot trace rays; empty: not known", "points"),
    ] = None
    ray_speed_sd: Annotated[Spread, Column("How well Q is known: standard deviation", "ln")] = 0.0
    memory_gb: Annotated[Gigabytes, Column("Video memory", "GB")]
    pcie_gen: Annotated[Gen, Column("PCIe generation")]
    pcie_lanes: Annotated[Lanes, Column("PCIe lanes")]
    board_power_w: Annotated[Watts, Column("Board power", "W")]
    spike_factor: Annotated[
        float, Ge(1), Le(4), Column("Short spikes as a multiple of board power")
    ]
    length_mm: Annotated[Millimetres, Column("Length", "mm")]
    height_mm: Annotated[
        Millimetres | None, Column("Height above the slot; empty: not known", "mm")
    ] = None
    thickness_mm: Annotated[Millimetres | None, Column("Thickness; empty: not known", "mm")] = None
    design: Annotated[
        str, Column("Design that games take to alike, such as a generation; empty: its own")
    ] = ""
    pcie_8pin: Annotated[
        Count | None,
        Column("8-pin PCIe power connectors needed; empty, and no 16-pin ones named: not known"),
    ] = None
    pcie_16pin: Annotated[
        Count | None,
        Column("16-pin PCIe power connectors needed; empty, and no 8-pin ones named: not known"),
    ] = None
    adapter_8pin: Annotated[
        Count | None,
        Column(
            "8-pin leads that the 16-pin adapter in its box takes; 0: none in the box; empty: not"
            " known"
        ),
    ] = None
    compression: Annotated[
        bool | None,
        Column("Whether its outputs can compress what they send (DSC); empty: not known"),
    ] = None
    outputs: Annotated[
        tuple[str, ...],
        Column("Display outputs, separated by ;, or none; empty: not known"),
    ] = ()
    upscalers: Annotated[tuple[str, ...], Column("Upscalers it can run, separated by ;")] = ()
    generators: Annotated[
        tuple[str, ...], Column("Frame generators it can run, separated by ;; empty: none known")
    ] = ()
    apis: Annotated[tuple[str, ...], Column("Graphics APIs with their levels, separated by ;")] = ()

    @property
    def traces_rays(self) -> bool:
        """Whether it is known to trace rays."""
        return bool(self.ray_speed)

    @property
    def plugs(self) -> tuple[int, int] | None:
        """8-pin and 16-pin power connectors; None where nothing is known of either."""
        if self.pcie_8pin is None and self.pcie_16pin is None:
            return None
        return self.pcie_8pin or 0, self.pcie_16pin or 0


@dataclass(frozen=True, slots=True, kw_only=True)
class Mainboard(Part):
    """A mainboard."""

    socket: Annotated[str, Column("Socket")]
    chipset: Annotated[str, Column("Chipset")]
    form_factor: Annotated[BoardForm, Column("Form factor")]
    memory_type: Annotated[MemoryType, Column("Memory type")]
    memory_slots: Annotated[Some, Column("Memory slots")]
    memory_max_gb: Annotated[Gigabytes, Column("Most memory", "GB")]
    memory_max_mts: Annotated[Rate, Column("Highest memory transfer rate", "MT/s")]
    card_pcie_gen: Annotated[Gen, Column("PCIe generation of the card slot")]
    card_pcie_lanes: Annotated[Lanes, Column("PCIe lanes of the card slot")]
    m2_slots: Annotated[Slots, Column("M.2 slots for drives")]
    sata_ports: Annotated[Count, Column("SATA ports")]
    cpu_8pin: Annotated[Count, Column("8-pin processor power connectors")]
    cpu_4pin: Annotated[Count, Column("4-pin processor power connectors")] = 0
    one_lead_w: Annotated[
        Watts | None,
        Column(
            "Sustained processor power up to which one 8-pin lead is enough; empty: not stated", "W"
        ),
    ] = None
    outputs: Annotated[
        tuple[str, ...],
        Column("Rear display outputs, separated by ;, or none; empty: not known"),
    ] = ()
    processor_w: Annotated[
        Watts | None, Column("Sustained processor power that it delivers; empty: not known", "W")
    ] = None
    m2_lengths_mm: Annotated[
        tuple[Millimetres, ...],
        Column("Longest drive of each M.2 slot in turn, separated by ;; empty: not known", "mm"),
    ] = ()
    m2_gens: Annotated[
        tuple[Gen, ...],
        Column("PCIe generation of each M.2 slot in turn, separated by ;; empty: not known"),
    ] = ()
    m2_sata: Annotated[
        tuple[Count, ...],
        Column(
            "Whether each M.2 slot in turn takes SATA drives too (1) or not (0), separated by ;;"
            " empty: not known"
        ),
    ] = ()
    m2_card_lanes: Annotated[
        tuple[Count, ...],
        Column(
            "PCIe lanes that each M.2 slot in turn takes from the card when used, separated by ;"
        ),
    ] = ()
    card_slots: Annotated[
        Count | None, Column("Slots that take a graphics card; empty: not known")
    ] = None
    short_slots: Annotated[
        Count | None, Column("Short slots for expansion cards; empty: not known")
    ] = None
    memory_full_mts: Annotated[
        Rate | None,
        Column(
            "Highest memory transfer rate with two sticks on a channel; empty: two steps lower",
            "MT/s",
        ),
    ] = None
    m2_disables_sata: Annotated[
        tuple[Count, ...],
        Column("SATA ports that each M.2 slot in turn disables when used, separated by ;"),
    ] = ()
    registered: Annotated[
        bool | None, Column("Whether it takes registered memory; empty: not known")
    ] = None
    unbuffered: Annotated[
        bool | None,
        Column("Whether it takes memory that is not registered; empty: it does, as nearly all do"),
    ] = None
    u2_ports: Annotated[Count | None, Column("U.2 ports for drives; empty: not known")] = None
    module_slots: Annotated[
        Count | None, Column("M.2 slots for a wireless module; empty: not known")
    ] = None
    error_correcting: Annotated[
        bool | None, Column("Whether error correction of memory works on it; empty: not known")
    ] = None
    tuning: Annotated[
        bool | None, Column("Whether clocks can be tuned on it; empty: not known")
    ] = None
    firmware_needed: Annotated[
        tuple[str, ...],
        Column("Firmware that families of processors need, such as Flood=1.20, separated by ;"),
    ] = ()
    firmware_shipped: Annotated[str, Column("Firmware as shipped")] = ""
    firmware_shipped_since: Annotated[
        date | None, Column("Date since which it ships with it, ISO 8601")
    ] = None
    firmware_recovery: Annotated[
        bool | None, Column("Whether firmware can be written without a processor; empty: not known")
    ] = None
    fault_display: Annotated[
        bool | None, Column("Whether it shows where a start stops; empty: not known")
    ] = None
    fan_headers: Annotated[Count | None, Column("Fan headers; empty: not known")] = None
    light_headers: Annotated[
        tuple[str, ...],
        Column("Headers for lights by voltage, separated by ;, or none; empty: not known"),
    ] = ()
    front_headers: Annotated[
        tuple[str, ...],
        Column("Headers for front ports, separated by ;, or none; empty: not known"),
    ] = ()
    wireless: Annotated[str, Column("Wireless standard, or none; empty: not known")] = ""
    rear_usb: Annotated[Count | None, Column("USB ports at the rear; empty: not known")] = None
    audio_channels: Annotated[Count | None, Column("Channels of its audio; empty: not known")] = (
        None
    )

    @property
    def stated_wireless(self) -> str:
        """The wireless standard that is stated; empty where there is none, or nothing is stated."""
        return "" if self.wireless.casefold() == NONE else self.wireless
