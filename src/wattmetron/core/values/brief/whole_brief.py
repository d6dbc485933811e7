"""A brief: budget, region, display, sureness, targets and personal rules.

How a field is called, explained, bounded and asked for stands in ``fields``, a file for each group
of the form.
"""

from dataclasses import dataclass, field
from datetime import timedelta
from decimal import Decimal

from wattmetron.core.values.brief.brief_items import Display, Extra, Resale, Target
from wattmetron.core.values.brief.choices import (
    SURENESS,
    Availability,
    BoughtKind,
    Clocks,
    Cooling,
    Period,
    Sureness,
)
from wattmetron.core.values.offers import Buys
from wattmetron.core.values.other_work import WorkName
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import StorageKind
from wattmetron.core.values.preferences import Preference
from wattmetron.core.values.trust import TrustFloor


@dataclass(frozen=True, slots=True, kw_only=True)
class Brief:
    """Everything that was asked for.

    Money is in minor units of the region's currency; the budget is of one of ``seats`` identical
    machines. Name and notes ask for nothing: briefs that differ in them alone are equal.
    """

    name: str = field(compare=False)
    region: str
    sureness: Sureness = "likely"
    each_percent: int | None = None
    together_percent: int | None = None
    budget_low_minor: int = 0
    budget_high_minor: int
    part_cap_minor: int | None = None
    display: Display
    memory_gb: float = 16.0
    storage_gb: float = 500.0
    system_gb: float = 80.0
    system_on: StorageKind = "SSD"
    games_gb: float = 0.0
    games_on: StorageKind = "SSD"
    bulk_gb: float = 0.0
    bulk_on: StorageKind = "hard disk"
    headroom_percent: int = 140
    reserve_percent: int = 10
    watt_limit_w: int | None = None
    play_hours: float = 2.0
    desk_hours: float = 2.0
    tariff_per_kwh: Decimal | None = None
    trust_floor: TrustFloor = "nothing doubtful"
    clocks: Clocks = "as shipped"
    noise_limit_dba: float | None = None
    volume_limit_l: float | None = None
    colour: str = ""
    seats: int = 1
    years: int = 0
    growth_percent: float = 12.0
    system: str = ""
    notes: str = field(default="", compare=False)
    work: tuple[WorkName, ...] = ()
    outside: tuple[Kind, ...] = ()
    allow_used: bool = False
    allow_lists: bool = False
    old_after_days: int = 14
    availability: Availability = "anywhere"
    accept_spill: bool = False
    wireless: bool = False
    later_card: str = ""
    later_card_w: int | None = None
    later_card_mm: int = 300
    later_second: bool = False
    later_processor: str = ""
    later_sticks: int = 0
    upgrade_minor: int | None = None
    upgrade_every: Period = "month"
    buys: tuple[BoughtKind, ...] = ()
    no_lights: bool = False
    recovery: bool = False
    fault_display: bool = False
    front_usb_c: bool = False
    own_graphics: bool = False
    modular: bool = False
    protected: bool = False
    fan_headers: int = 0
    rear_usb: int = 0
    audio_channels: int = 0
    lights_wanted: bool = False
    cooling: Cooling = "any"
    tool_free: bool = False
    cable_room_mm: int = 0
    volume_least_l: int = 0
    room_to_grow: bool = False
    no_disks: bool = False
    drives_apart: bool = False
    solid_state: bool = True
    games_start: bool = True
    starts_as_bought: bool = True
    heat_carried: bool = True
    boxed_judged: bool = True
    all_channels: bool = True
    enough_threads: bool = True
    display_driven: bool = True
    targets: tuple[Target, ...] = ()
    owned: tuple[str, ...] = ()
    stays: tuple[str, ...] = ()
    resale: tuple[Resale, ...] = ()
    counts_resale: bool = False
    no_makers: tuple[str, ...] = ()
    banned: tuple[str, ...] = ()
    only_of: tuple[tuple[Kind, str], ...] = ()
    preferences: tuple[Preference, ...] = ()
    preference_minor: int | None = None
    extras: tuple[Extra, ...] = ()

    @property
    def chance(self) -> float:
        """The sureness of each target as a probability."""
        return SURENESS[self.sureness] if self.each_percent is None else self.each_percent / 100

    @property
    def old_after(self) -> timedelta:
        return timedelta(days=self.old_after_days)

    @property
    def may_buy(self) -> Buys:
        return Buys(self.allow_used, self.allow_lists, self.trust_floor == "anything")

    @property
    def extras_minor(self) -> int:
        return sum(extra.minor for extra in self.extras if extra.in_budget)

    @property
    def counted_targets(self) -> tuple[Target, ...]:
        """Targets that count: weight above zero."""
        return tuple(target for target in self.targets if target.weight > 0)
