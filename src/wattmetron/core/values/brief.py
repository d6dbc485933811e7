"""A brief: budget, region, display, sureness, targets and personal rules."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Literal

from wattmetron.core.errors import BriefError
from wattmetron.core.values.games import PRESETS, PresetName
from wattmetron.core.values.other_work import WORKS, WorkName
from wattmetron.core.values.parts import KINDS, Kind
from wattmetron.core.values.preferences import (
    FIELDS,
    MOST_PREFERENCES,
    PREFERRED,
    Preference,
    read,
    stricter,
)
from wattmetron.core.values.trust import TRUST_FLOORS, TrustFloor

Sureness = Literal["even odds", "likely", "near certain"]
SURENESS: dict[Sureness, float] = {"even odds": 0.5, "likely": 0.8, "near certain": 0.95}
Measure = Literal["average", "low"]
Clocks = Literal["as shipped", "tuned", "undervolted"]
GROWING_SLOTS, GROWING_M2 = 4, 2
CLOCKS: tuple[Clocks, ...] = ("as shipped", "tuned", "undervolted")


@dataclass(frozen=True, slots=True, kw_only=True)
class Display:
    """The display: size in pixels, refresh in Hz, and the variable range if it has one."""

    width_px: int = 1920
    height_px: int = 1080
    refresh_hz: float = 60.0
    variable_from_hz: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Target:
    """One game at named settings with the frame rate wanted; ``lowered`` names single options set
    lower.
    """

    id: str
    game_id: str
    width_px: int
    height_px: int
    preset: PresetName = "high"
    upscaling: bool = False
    scale: float = 0.67
    ray_tracing: bool = False
    lowered: tuple[str, ...] = ()
    fps: float = 60.0
    measure: Measure = "average"
    cap_fps: float | None = None
    weight: int = 1

    @property
    def shown_mpx(self) -> float:
        return self.width_px * self.height_px / 1e6


@dataclass(frozen=True, slots=True, kw_only=True)
class Extra:
    """Something besides the eight kinds of part that the budget may have to pay for."""

    name: str
    minor: int
    in_budget: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class Brief:
    """Everything that was asked for. Money is in minor units of the region's currency; the budget
    is of one of ``seats`` identical machines; ``system`` is the operating system that will run, as
    published lists name it. ``only_of`` names makers to buy from by kind, ``room_to_grow`` asks for
    a mainboard with ``GROWING_SLOTS`` memory slots and ``GROWING_M2`` M.2 places; each of
    ``preferences`` may cost up to ``preference_minor``, None: a share of the budget.
    """

    name: str
    region: str
    budget_low_minor: int
    budget_high_minor: int
    display: Display
    sureness: Sureness = "likely"
    targets: tuple[Target, ...] = ()
    owned: tuple[str, ...] = ()
    part_cap_minor: int | None = None
    allow_used: bool = False
    accept_spill: bool = False
    memory_gb: float = 16.0
    storage_gb: float = 500.0
    headroom_percent: int = 140
    extras: tuple[Extra, ...] = ()
    notes: str = ""
    system: str = ""
    trust_floor: TrustFloor = "nothing doubtful"
    watt_limit_w: int | None = None
    wireless: bool = False
    outside: tuple[Kind, ...] = ()
    play_hours: float = 2.0
    desk_hours: float = 2.0
    tariff_per_kwh: Decimal | None = None
    no_makers: tuple[str, ...] = ()
    banned: tuple[str, ...] = ()
    colour: str = ""
    noise_limit_dba: float | None = None
    volume_limit_l: float | None = None
    clocks: Clocks = "as shipped"
    work: tuple[WorkName, ...] = ()
    years: int = 0
    growth_percent: float = 12.0
    seats: int = 1
    only_of: tuple[tuple[Kind, str], ...] = ()
    room_to_grow: bool = False
    preferences: tuple[Preference, ...] = ()
    preference_minor: int | None = None

    @property
    def chance(self) -> float:
        """The sureness as a probability."""
        return SURENESS[self.sureness]

    @property
    def extras_minor(self) -> int:
        return sum(extra.minor for extra in self.extras if extra.in_budget)

    @property
    def counted_targets(self) -> tuple[Target, ...]:
        """Targets that count: weight above zero."""
        return tuple(target for target in self.targets if target.weight > 0)


def insisting(brief: Brief, preference: Preference) -> Brief:
    """The brief with a preference as a floor; raises BriefError where its value cannot be read."""
    field = FIELDS[preference.wish]
    held = replace(brief, preferences=tuple(one for one in brief.preferences if one != preference))
    return replace(held, **{field: stricter(field, getattr(brief, field), read(preference))})


def check_brief(brief: Brief) -> None:
    """Raise BriefError with one clear sentence for the first entry that cannot be worked with."""
    if not brief.name.strip():
        raise BriefError("The brief has no name: give it one, such as the room it is for.")
    if len(brief.name) > 120:
        raise BriefError("The brief's name is longer than 120 characters: shorten it.")
    if brief.budget_low_minor > brief.budget_high_minor:
        raise BriefError("The budget's lower end is above its upper end: swap the two amounts.")
    _check_display(brief.display)
    for place, target in enumerate(brief.targets, start=1):
        _check_target(target, f"Target {place}")
    if len(brief.targets) > 40:
        raise BriefError("The brief has more than 40 targets: keep the ones that decide.")
    if not 0 <= brief.memory_gb <= 4096 or not 0 <= brief.storage_gb <= 200_000:
        raise BriefError(
            "Memory must lie within 0–4,096 GB and storage within 0–200,000 GB: enter such a"
            " number."
        )
    if any(kind in KINDS for kind in brief.outside):
        raise BriefError(
            "Only further parts, such as a display, can be outside the budget: the machine itself"
            " is what it pays for."
        )
    if brief.watt_limit_w is not None and not 20 <= brief.watt_limit_w <= 5000:
        raise BriefError(
            "The limit in watts must lie within 20–5,000 W: enter such a number or leave it empty."
        )
    if not (0 <= brief.play_hours <= 24 and 0 <= brief.desk_hours <= 24 - brief.play_hours):
        raise BriefError(
            "Hours of play and at the desk must together lie within 0–24 a day: enter such numbers."
        )
    if brief.tariff_per_kwh is not None and not 0 <= brief.tariff_per_kwh <= 1000:
        raise BriefError(
            "The price of a kWh must lie within 0–1,000: enter such an amount or leave it empty."
        )
    if brief.trust_floor not in TRUST_FLOORS:
        floors = ", ".join(TRUST_FLOORS)
        raise BriefError(f"The trust floor is “{brief.trust_floor}”: choose one of {floors}.")
    _check_rules(brief)
    if not 100 <= brief.headroom_percent <= 300:
        raise BriefError("Headroom must lie within 100–300 %: 140 is usual.")


def listed_words(words: Iterable[str]) -> str:
    return ", ".join(words)


def _check_rules(brief: Brief) -> None:
    if brief.noise_limit_dba is not None and not 10 <= brief.noise_limit_dba <= 90:
        raise BriefError(
            "The limit of noise must lie within 10–90 dB(A): enter such a number or leave it empty."
        )
    if brief.volume_limit_l is not None and not 1 <= brief.volume_limit_l <= 500:
        raise BriefError(
            "The largest case must lie within 1–500 l: enter such a number or leave it empty."
        )
    if brief.clocks not in CLOCKS:
        raise BriefError(f"The clocks are “{brief.clocks}”: choose one of {', '.join(CLOCKS)}.")
    if not 0 <= brief.years <= 10 or not 0 <= brief.growth_percent <= 100:
        raise BriefError(
            "Years to keep must lie within 0–10 and the games' growth within 0–100 % a year: enter"
            " such numbers."
        )
    if not 1 <= brief.seats <= 500:
        raise BriefError("Identical machines must lie within 1–500: enter such a number.")
    if any(one not in WORKS for one in brief.work):
        raise BriefError(
            f"The other work is “{listed_words(brief.work)}”: choose from {listed_words(WORKS)}."
        )
    if len(brief.banned) > 200 or len(brief.no_makers) > 100:
        raise BriefError(
            "The brief excludes more than 200 parts or 100 makers: keep those that matter."
        )
    if len(brief.only_of) > 40 or any(
        kind not in KINDS or not maker.strip() for kind, maker in brief.only_of
    ):
        raise BriefError(
            "Makers to buy from are given by kind of part, 40 at most: name kind and maker of each."
        )
    if len(brief.preferences) > MOST_PREFERENCES:
        raise BriefError(
            f"The brief has more than {MOST_PREFERENCES} preferences: keep those that matter."
        )
    if brief.preference_minor is not None and not 0 <= brief.preference_minor <= 1_000_000_000:
        raise BriefError(
            "What a preference may cost must lie within 0–10,000,000: enter such an amount or leave"
            " it empty."
        )
    for one in brief.preferences:
        if one.wish not in PREFERRED:
            raise BriefError(
                f"The preference “{one.wish}” is not known: choose from {listed_words(PREFERRED)}."
            )
        check_brief(insisting(replace(brief, preferences=()), one))


def _check_display(display: Display) -> None:
    if not (320 <= display.width_px <= 16_384 and 200 <= display.height_px <= 16_384):
        raise BriefError(
            "The display's resolution must lie within 320x200 and 16384x16384: enter it in pixels."
        )
    if not 20 <= display.refresh_hz <= 1000:
        raise BriefError("The display's refresh must lie within 20–1,000 Hz: enter such a number.")
    low = display.variable_from_hz
    if low is not None and not 1 <= low <= display.refresh_hz:
        raise BriefError(
            "The variable range must begin between 1 Hz and the refresh: enter such a number."
        )


def _check_target(target: Target, place: str) -> None:
    if not 1 <= target.fps <= 2000:
        raise BriefError(
            f"{place} asks for {target.fps:g} fps: enter a frame rate from 1 to 2,000."
        )
    if not (320 <= target.width_px <= 16_384 and 200 <= target.height_px <= 16_384):
        raise BriefError(
            f"{place} has no usable resolution: choose one within 320x200 and 16384x16384."
        )
    if not 0.2 <= target.scale <= 1:
        raise BriefError(
            f"{place} upscales from {target.scale:g}: enter a scale per axis from 0.2 to 1."
        )
    if target.cap_fps is not None and not 1 <= target.cap_fps <= 2000:
        raise BriefError(
            f"{place} has a cap of {target.cap_fps:g} fps: enter 1 to 2,000 or leave it empty."
        )
    if not 0 <= target.weight <= 100:
        raise BriefError(
            f"{place} has the weight {target.weight}: enter a whole number from 0 to 100."
        )
    if target.preset not in PRESETS:
        raise BriefError(f"{place} has the preset “{target.preset}”: choose {', '.join(PRESETS)}.")
