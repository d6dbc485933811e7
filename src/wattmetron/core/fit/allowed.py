"""Which parts a brief lets be bought: its personal rules, each declared once with what it says."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import NamedTuple

from wattmetron.core.values.brief import GROWING_M2, GROWING_SLOTS, Brief
from wattmetron.core.values.further_parts import Fan
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.offers import AMPLE, Supply
from wattmetron.core.values.other_work import all_core_floor
from wattmetron.core.values.parts import (
    KIND_NAMES,
    Case,
    Cooler,
    Mainboard,
    Memory,
    Part,
    PowerSupply,
    Processor,
    Storage,
)
from wattmetron.core.values.trust import TRUST_FLOORS, judge, trust_of
from wattmetron.core.values.words import listed

Supplies = Callable[[str], Supply]
"""In how many shops a part is in stock, by its id."""


def ample(_: str) -> Supply:
    return AMPLE


class Purchase(NamedTuple):
    """A part that might be bought, at its cost in minor units, from so many shops, beside parts
    that stay in any case.
    """

    brief: Brief
    part: Part
    cost_minor: int
    stays: tuple[Part, ...] = ()
    supply: Supplies = ample


Money = Callable[[int], str]
"""An amount in minor units, written out."""
Bars = Callable[[Purchase], bool]
Says = Callable[[Purchase, Money], str]


@dataclass(frozen=True, slots=True, kw_only=True)
class PersonalRule:
    """A rule of the brief with its name, whether it keeps a part from being bought, and the
    sentence for that.
    """

    name: str
    bars: Bars
    says: Says


PROTECTIONS = ("OVP", "OCP", "OPP", "SCP")


def personal(name: str, says: Says) -> Callable[[Bars], PersonalRule]:
    """Declares a personal rule; the function says whether it bars."""
    return lambda bars: PersonalRule(name=name, bars=bars, says=says)


@personal(
    "part price cap",
    lambda own, money: (
        f"{own.part.name} costs {money(own.cost_minor - (own.brief.part_cap_minor or 0))} more than"
        " the brief allows for a part."
    ),
)
def price_cap(own: Purchase) -> bool:
    return own.brief.part_cap_minor is not None and own.cost_minor > own.brief.part_cap_minor


@personal("banned part", lambda own, money: f"The brief excludes {own.part.name}.")
def banned(own: Purchase) -> bool:
    return own.part.id in own.brief.banned


@personal(
    "maker",
    lambda own, money: f"The brief excludes parts of {own.part.maker}: {own.part.name} is one.",
)
def maker(own: Purchase) -> bool:
    return own.part.maker in own.brief.no_makers


def _makers(own: Purchase) -> list[str]:
    kind = kind_of(own.part)
    return [maker for of_kind, maker in own.brief.only_of if of_kind == kind]


@personal(
    "other maker",
    lambda own, money: (
        f"{own.part.name} is of {own.part.maker}; the brief wants"
        f" {KIND_NAMES[kind_of(own.part)]} of {listed(_makers(own))}."
    ),
)
def other_maker(own: Purchase) -> bool:
    makers = _makers(own) if own.brief.only_of else []
    return bool(makers) and own.part.maker not in makers


@personal(
    "colour",
    lambda own, money: f"{own.part.name} is {own.part.colour}; the brief wants {own.brief.colour}.",
)
def colour(own: Purchase) -> bool:
    """Counts only where it is known."""
    return bool(own.brief.colour and own.part.colour) and own.part.colour != own.brief.colour


@personal(
    "no lights",
    lambda own, money: f"{own.part.name} has lights; the brief wants a machine without.",
)
def no_lights(own: Purchase) -> bool:
    return (
        own.brief.no_lights and isinstance(own.part, (Case, Fan, Memory)) and bool(own.part.lights)
    )


@personal(
    "cooling",
    lambda own, money: (
        f"{own.part.name} has {cooling_of(own.part)} cooling; the brief wants"
        f" {own.brief.cooling} cooling."
    ),
)
def cooling(own: Purchase) -> bool:
    kind = cooling_of(own.part)
    return bool(kind) and own.brief.cooling not in ("any", kind)


def cooling_of(part: Part) -> str:
    """How a cooler carries heat off: air or liquid; empty for other parts."""
    if not isinstance(part, Cooler):
        return ""
    return "air" if part.radiator_mm is None else "liquid"


@personal(
    "spinning disk",
    lambda own, money: f"{own.part.name} is a hard disk; the brief wants no spinning disk.",
)
def spinning_disk(own: Purchase) -> bool:
    return own.brief.no_disks and isinstance(own.part, Storage) and own.part.kind == "hard disk"


@personal(
    "noise",
    lambda own, money: (
        f"{own.part.name} reaches {_noise_dba(own.part):g} dB(A); the brief allows"
        f" {own.brief.noise_limit_dba:g} for the whole machine."
        if _noise_dba(own.part) is not None
        else f"How loud {own.part.name} is is not known; the brief allows"
        f" {own.brief.noise_limit_dba:g} dB(A)."
    ),
)
def noise(own: Purchase) -> bool:
    """What is not known is not quiet. How loud a cooler is in play hangs on the processor."""
    loudest, loud = own.brief.noise_limit_dba, _noise_dba(own.part)
    if loudest is None or not isinstance(own.part, (Cooler, Fan)):
        return False
    return loud is None or (isinstance(own.part, Fan) and loud > loudest)


def _noise_dba(part: Part) -> float | None:
    return part.noise_dba if isinstance(part, (Cooler, Fan)) else None


@personal(
    "size",
    lambda own, money: (
        f"{own.part.name} takes {_volume_l(own.part):g} l; the brief allows"
        f" {own.brief.volume_limit_l:g} l."
    ),
)
def size(own: Purchase) -> bool:
    largest = own.brief.volume_limit_l
    return largest is not None and _volume_l(own.part) > largest


def _volume_l(part: Part) -> float:
    return part.volume_l if isinstance(part, Case) else 0.0


def _room(part: Part) -> tuple[int, int]:
    return (part.memory_slots, part.m2_slots) if isinstance(part, Mainboard) else (0, 0)


@personal(
    "room to grow",
    lambda own, money: (
        f"{own.part.name} has {_room(own.part)[0]} memory slots and {_room(own.part)[1]} M.2"
        f" places; with room to grow the brief wants {GROWING_SLOTS} and {GROWING_M2}."
    ),
)
def room_to_grow(own: Purchase) -> bool:
    if not own.brief.room_to_grow or not isinstance(own.part, Mainboard):
        return False
    slots, m2_slots = _room(own.part)
    return slots < GROWING_SLOTS or m2_slots < GROWING_M2


@personal(
    "firmware recovery",
    lambda own, money: (
        f"{own.part.name} is not known to write firmware without a processor; the brief wants it."
    ),
)
def recovery(own: Purchase) -> bool:
    return own.brief.recovery and _lacks(own.part, lambda board: board.firmware_recovery)


@personal(
    "fault display",
    lambda own, money: (
        f"{own.part.name} is not known to show where a start stops; the brief wants it."
    ),
)
def fault_display(own: Purchase) -> bool:
    return own.brief.fault_display and _lacks(own.part, lambda board: board.fault_display)


@personal(
    "front USB-C",
    lambda own, money: (
        f"{own.part.name} is not known to have a header for USB-C in front; the brief wants one."
    ),
)
def front_usb_c(own: Purchase) -> bool:
    return own.brief.front_usb_c and _lacks(own.part, lambda board: "USB-C" in board.front_headers)


@personal(
    "fan headers",
    lambda own, money: (
        f"{own.part.name} is not known to have {own.brief.fan_headers} fan headers, which the brief"
        " wants."
    ),
)
def fan_headers(own: Purchase) -> bool:
    least = own.brief.fan_headers
    return least > 0 and _lacks(own.part, lambda board: (board.fan_headers or 0) >= least)


@personal(
    "rear USB ports",
    lambda own, money: (
        f"{own.part.name} is not known to have {own.brief.rear_usb} USB ports at the rear, which"
        " the brief wants."
    ),
)
def rear_usb(own: Purchase) -> bool:
    least = own.brief.rear_usb
    return least > 0 and _lacks(own.part, lambda board: (board.rear_usb or 0) >= least)


@personal(
    "audio channels",
    lambda own, money: (
        f"The audio of {own.part.name} is not known to have {own.brief.audio_channels} channels,"
        " which the brief wants."
    ),
)
def audio_channels(own: Purchase) -> bool:
    least = own.brief.audio_channels
    return least > 0 and _lacks(own.part, lambda board: (board.audio_channels or 0) >= least)


@personal(
    "lights wanted",
    lambda own, money: f"{own.part.name} has no lights; the brief wants a case with lights.",
)
def lights_wanted(own: Purchase) -> bool:
    return own.brief.lights_wanted and isinstance(own.part, Case) and not own.part.lights


@personal(
    "case without tools",
    lambda own, money: (
        f"{own.part.name} is not known to open without tools; the brief wants such a case."
    ),
)
def tool_free(own: Purchase) -> bool:
    return own.brief.tool_free and isinstance(own.part, Case) and not own.part.tool_free


@personal(
    "room for cables",
    lambda own, money: (
        f"{own.part.name} is not known to have {own.brief.cable_room_mm} mm for cables, which the"
        " brief wants."
    ),
)
def cable_room(own: Purchase) -> bool:
    least_mm = own.brief.cable_room_mm
    return least_mm > 0 and isinstance(own.part, Case) and (own.part.cable_room_mm or 0) < least_mm


@personal(
    "smallest case",
    lambda own, money: (
        f"{own.part.name} takes {_volume_l(own.part):g} l; the brief wants"
        f" {own.brief.volume_least_l} l or more."
    ),
)
def roomy(own: Purchase) -> bool:
    return isinstance(own.part, Case) and own.part.volume_l < own.brief.volume_least_l


def _lacks(part: Part, has: Callable[[Mainboard], bool]) -> bool:
    """Whether a part is a mainboard without something."""
    return isinstance(part, Mainboard) and not has(part)


@personal(
    "graphics in the processor",
    lambda own, money: f"{own.part.name} has no graphics of its own; the brief wants them.",
)
def own_graphics(own: Purchase) -> bool:
    return (
        own.brief.own_graphics and isinstance(own.part, Processor) and own.part.igpu_speed is None
    )


@personal(
    "modular cables",
    lambda own, money: (
        f"{own.part.name} is not known to have modular cables; the brief wants them."
    ),
)
def modular(own: Purchase) -> bool:
    return own.brief.modular and isinstance(own.part, PowerSupply) and not own.part.modular


@personal(
    "protections",
    lambda own, money: (
        f"{own.part.name} does not name {listed(PROTECTIONS)}; the brief wants them."
    ),
)
def protections(own: Purchase) -> bool:
    return (
        own.brief.protected
        and isinstance(own.part, PowerSupply)
        and not {*PROTECTIONS} <= {*own.part.protections}
    )


@personal(
    "other work",
    lambda own, money: (
        f"{own.part.name} is too slow with all cores for {listed(own.brief.work)}:"
        f" {_all_core_speed(own.part):g} of {all_core_floor(own.brief.work):g} points."
    ),
)
def other_work(own: Purchase) -> bool:
    return isinstance(own.part, Processor) and _all_core_speed(own.part) < all_core_floor(
        own.brief.work
    )


def _all_core_speed(part: Part) -> float:
    return part.all_core_speed if isinstance(part, Processor) else 0.0


@personal(
    "tuned clocks",
    lambda own, money: f"The brief wants tuned clocks; those of {own.part.name} are fixed.",
)
def tuned_clocks(own: Purchase) -> bool:
    """A part that stays and whose clocks cannot be set ends the wish."""
    return (
        own.brief.clocks == "tuned"
        and not clocks_set(own.part)
        and all(clocks_set(part) for part in own.stays)
    )


def clocks_set(part: Part) -> bool:
    """Whether a part does not stand in the way of a tuned processor, as a chip or board whose
    clocks are fixed does.
    """
    if isinstance(part, Processor):
        return part.tunable
    return not isinstance(part, Mainboard) or bool(part.tuning)


def _trust(own: Purchase) -> str:
    told = judge(own.part)
    return f"{told.trust} ({'; '.join(told.reasons)})"


@personal(
    "trust floor",
    lambda own, money: (
        f"{own.part.name} is {_trust(own)}; the brief wants {own.brief.trust_floor}."
    ),
)
def trust_floor(own: Purchase) -> bool:
    return trust_of(own.part) not in TRUST_FLOORS[own.brief.trust_floor]


@personal(
    "availability",
    lambda own, money: (
        f"{own.part.name} is in stock in {_shops(own.supply(own.part.id).shops)}, in"
        f" {own.supply(own.part.id).ample or 'none'} with more than the last few; the brief wants"
        f" {'two shops' if own.brief.availability == 'two shops' else 'more than the last few'}."
    ),
)
def availability(own: Purchase) -> bool:
    match own.brief.availability:
        case "not few":
            return own.supply(own.part.id).ample < 1
        case "two shops":
            return own.supply(own.part.id).shops < 2
    return False


def _shops(count: int) -> str:
    return {0: "no shop", 1: "one shop"}.get(count, f"{count} shops")


PERSONAL: tuple[PersonalRule, ...] = tuple(
    value for value in list(globals().values()) if isinstance(value, PersonalRule)
)
"""All personal rules, in the order in which they stand above."""


def barring(
    brief: Brief,
    part: Part,
    cost_minor: int,
    stays: tuple[Part, ...] = (),
    supply: Supplies = ample,
) -> Iterator[PersonalRule]:
    """The brief's rules that keep a part from being bought at this price; none where it is
    allowed.
    """
    purchase = Purchase(brief, part, cost_minor, stays, supply)
    return (rule for rule in PERSONAL if rule.bars(purchase))


def may_be_bought(
    brief: Brief, part: Part, cost_minor: int, stays: tuple[Part, ...], supply: Supplies
) -> bool:
    """Whether the brief lets a part be bought at this price, in stock so, beside parts that
    stay.
    """
    purchase = Purchase(brief, part, cost_minor, stays, supply)
    return not any(rule.bars(purchase) for rule in PERSONAL)
