"""Which parts a brief lets be bought: its personal rules, each declared once with what it says."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import NamedTuple

from wattmetron.core.values.brief import GROWING_M2, GROWING_SLOTS, Brief
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import Fan
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.offers import AMPLE, Supply
from wattmetron.core.values.other_work import all_core_floor
from wattmetron.core.values.part_kinds import KIND_NAMES
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Mainboard, Memory, Part, Processor
from wattmetron.core.values.trust import TRUST_FLOORS, judge, trust_of
from wattmetron.core.values.words import listed

Supplies = Callable[[str], Supply]
"""In how many shops a part is in stock, by its id."""


def ample(_: str) -> Supply:
    return AMPLE


class PartCandidate(NamedTuple):
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
Bars = Callable[[PartCandidate], bool]
Says = Callable[[PartCandidate, Money], str]


@dataclass(frozen=True, slots=True, kw_only=True)
class PersonalRule:
    """A rule of the brief with its name, whether it keeps a part from being bought, and the
    sentence for that.
    """

    name: str
    bars: Bars
    says: Says


PROTECTIONS = ("OVP", "OCP", "OPP", "SCP")


class PersonalRules:
    """All personal rules, in the order in which they stand below."""

    def __init__(self) -> None:
        self._rules = list[PersonalRule]()

    def __iter__(self) -> Iterator[PersonalRule]:
        return iter(self._rules)

    def rule(self, name: str, says: Says) -> Callable[[Bars], PersonalRule]:
        """Declares a personal rule; the function says whether it bars."""

        def declare(bars: Bars) -> PersonalRule:
            declared = PersonalRule(name=name, bars=bars, says=says)
            self._rules.append(declared)
            return declared

        return declare


PERSONAL = PersonalRules()


@PERSONAL.rule(
    "part price cap",
    lambda purchase, money: (
        f"{purchase.part.name} costs"
        f" {money(purchase.cost_minor - (purchase.brief.part_cap_minor or 0))} more than"
        " the brief allows for a part."
    ),
)
def price_cap(candidate: PartCandidate) -> bool:
    return (
        candidate.brief.part_cap_minor is not None
        and candidate.cost_minor > candidate.brief.part_cap_minor
    )


@PERSONAL.rule("banned part", lambda purchase, money: f"The brief excludes {purchase.part.name}.")
def banned(candidate: PartCandidate) -> bool:
    return candidate.part.id in candidate.brief.banned


@PERSONAL.rule(
    "maker",
    lambda purchase, money: (
        f"The brief excludes parts of {purchase.part.maker}: {purchase.part.name} is one."
    ),
)
def maker(candidate: PartCandidate) -> bool:
    return candidate.part.maker in candidate.brief.no_makers


def _makers(purchase: PartCandidate) -> list[str]:
    kind = kind_of(purchase.part)
    return [maker for of_kind, maker in purchase.brief.only_of if of_kind == kind]


@PERSONAL.rule(
    "other maker",
    lambda purchase, money: (
        f"{purchase.part.name} is of {purchase.part.maker}; the brief wants"
        f" {KIND_NAMES[kind_of(purchase.part)]} of {listed(_makers(purchase))}."
    ),
)
def other_maker(candidate: PartCandidate) -> bool:
    makers = _makers(candidate) if candidate.brief.only_of else []
    return bool(makers) and candidate.part.maker not in makers


@PERSONAL.rule(
    "colour",
    lambda purchase, money: (
        f"{purchase.part.name} is {purchase.part.colour}; the brief wants {purchase.brief.colour}."
    ),
)
def colour(candidate: PartCandidate) -> bool:
    """Counts only where it is known."""
    return (
        bool(candidate.brief.colour and candidate.part.colour)
        and candidate.part.colour != candidate.brief.colour
    )


@PERSONAL.rule(
    "no lights",
    lambda purchase, money: f"{purchase.part.name} has lights; the brief wants a machine without.",
)
def no_lights(purchase: PartCandidate) -> bool:
    return (
        purchase.brief.no_lights
        and isinstance(purchase.part, (Case, Fan, Memory))
        and bool(purchase.part.lights)
    )


@PERSONAL.rule(
    "cooling",
    lambda purchase, money: (
        f"{purchase.part.name} has {cooling_of(purchase.part)} cooling; the brief wants"
        f" {purchase.brief.cooling} cooling."
    ),
)
def cooling(purchase: PartCandidate) -> bool:
    kind = cooling_of(purchase.part)
    return bool(kind) and purchase.brief.cooling not in ("any", kind)


def cooling_of(part: Part) -> str:
    """How a cooler carries heat off: air or liquid; empty for other parts."""
    if not isinstance(part, Cooler):
        return ""
    return "air" if part.radiator_mm is None else "liquid"


@PERSONAL.rule(
    "spinning disk",
    lambda purchase, money: (
        f"{purchase.part.name} is a hard disk; the brief wants no spinning disk."
    ),
)
def spinning_disk(purchase: PartCandidate) -> bool:
    return (
        purchase.brief.no_disks
        and isinstance(purchase.part, Storage)
        and purchase.part.kind == "hard disk"
    )


@PERSONAL.rule(
    "noise",
    lambda purchase, money: (
        f"{purchase.part.name} reaches {_noise_dba(purchase.part):g} dB(A); the brief allows"
        f" {purchase.brief.noise_limit_dba:g} for the whole machine."
        if _noise_dba(purchase.part) is not None
        else f"How loud {purchase.part.name} is is not known; the brief allows"
        f" {purchase.brief.noise_limit_dba:g} dB(A)."
    ),
)
def noise(purchase: PartCandidate) -> bool:
    """What is not known is not quiet. How loud a cooler is in play hangs on the processor."""
    loudest, loud = purchase.brief.noise_limit_dba, _noise_dba(purchase.part)
    if loudest is None or not isinstance(purchase.part, (Cooler, Fan)):
        return False
    return loud is None or (isinstance(purchase.part, Fan) and loud > loudest)


def _noise_dba(part: Part) -> float | None:
    return part.noise_dba if isinstance(part, (Cooler, Fan)) else None


@PERSONAL.rule(
    "size",
    lambda purchase, money: (
        f"{purchase.part.name} takes {_volume_l(purchase.part):g} l; the brief allows"
        f" {purchase.brief.volume_limit_l:g} l."
    ),
)
def size(candidate: PartCandidate) -> bool:
    largest = candidate.brief.volume_limit_l
    return largest is not None and _volume_l(candidate.part) > largest


def _volume_l(part: Part) -> float:
    return part.volume_l if isinstance(part, Case) else 0.0


def _room(part: Part) -> tuple[int, int]:
    return (part.memory_slots, part.m2_slots) if isinstance(part, Mainboard) else (0, 0)


@PERSONAL.rule(
    "room to grow",
    lambda purchase, money: (
        f"{purchase.part.name} has {_room(purchase.part)[0]} memory slots and"
        f" {_room(purchase.part)[1]} M.2"
        f" places; with room to grow the brief wants {GROWING_SLOTS} and {GROWING_M2}."
    ),
)
def room_to_grow(candidate: PartCandidate) -> bool:
    if not candidate.brief.room_to_grow or not isinstance(candidate.part, Mainboard):
        return False
    slots, m2_slots = _room(candidate.part)
    return slots < GROWING_SLOTS or m2_slots < GROWING_M2


@PERSONAL.rule(
    "firmware recovery",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to write firmware without a processor; the brief"
        " wants it."
    ),
)
def recovery(candidate: PartCandidate) -> bool:
    return candidate.brief.recovery and _lacks(
        candidate.part, lambda board: board.firmware_recovery
    )


@PERSONAL.rule(
    "fault display",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to show where a start stops; the brief wants it."
    ),
)
def fault_display(purchase: PartCandidate) -> bool:
    return purchase.brief.fault_display and _lacks(purchase.part, lambda board: board.fault_display)


@PERSONAL.rule(
    "front USB-C",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to have a header for USB-C in front; the brief wants"
        " one."
    ),
)
def front_usb_c(candidate: PartCandidate) -> bool:
    return candidate.brief.front_usb_c and _lacks(
        candidate.part, lambda board: "USB-C" in board.front_headers
    )


@PERSONAL.rule(
    "fan headers",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to have {purchase.brief.fan_headers} fan headers,"
        " which the brief"
        " wants."
    ),
)
def fan_headers(purchase: PartCandidate) -> bool:
    least = purchase.brief.fan_headers
    return least > 0 and _lacks(purchase.part, lambda board: (board.fan_headers or 0) >= least)


@PERSONAL.rule(
    "rear USB ports",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to have {purchase.brief.rear_usb} USB ports at the"
        " rear, which"
        " the brief wants."
    ),
)
def rear_usb(purchase: PartCandidate) -> bool:
    least = purchase.brief.rear_usb
    return least > 0 and _lacks(purchase.part, lambda board: (board.rear_usb or 0) >= least)


@PERSONAL.rule(
    "audio channels",
    lambda purchase, money: (
        f"The audio of {purchase.part.name} is not known to have {purchase.brief.audio_channels}"
        " channels,"
        " which the brief wants."
    ),
)
def audio_channels(candidate: PartCandidate) -> bool:
    least = candidate.brief.audio_channels
    return least > 0 and _lacks(candidate.part, lambda board: (board.audio_channels or 0) >= least)


@PERSONAL.rule(
    "lights wanted",
    lambda purchase, money: (
        f"{purchase.part.name} has no lights; the brief wants a case with lights."
    ),
)
def lights_wanted(candidate: PartCandidate) -> bool:
    return (
        candidate.brief.lights_wanted
        and isinstance(candidate.part, Case)
        and not candidate.part.lights
    )


@PERSONAL.rule(
    "case without tools",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to open without tools; the brief wants such a case."
    ),
)
def tool_free(purchase: PartCandidate) -> bool:
    return (
        purchase.brief.tool_free and isinstance(purchase.part, Case) and not purchase.part.tool_free
    )


@PERSONAL.rule(
    "room for cables",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to have {purchase.brief.cable_room_mm} mm for cables,"
        " which the"
        " brief wants."
    ),
)
def cable_room(purchase: PartCandidate) -> bool:
    least_mm = purchase.brief.cable_room_mm
    return (
        least_mm > 0
        and isinstance(purchase.part, Case)
        and (purchase.part.cable_room_mm or 0) < least_mm
    )


@PERSONAL.rule(
    "smallest case",
    lambda purchase, money: (
        f"{purchase.part.name} takes {_volume_l(purchase.part):g} l; the brief wants"
        f" {purchase.brief.volume_least_l} l or more."
    ),
)
def roomy(purchase: PartCandidate) -> bool:
    return (
        isinstance(purchase.part, Case) and purchase.part.volume_l < purchase.brief.volume_least_l
    )


def _lacks(part: Part, has: Callable[[Mainboard], bool | None]) -> bool:
    """Whether a part is a mainboard that is not known to have something."""
    return isinstance(part, Mainboard) and not has(part)


@PERSONAL.rule(
    "graphics in the processor",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to have graphics of its own; the brief wants them."
    ),
)
def own_graphics(purchase: PartCandidate) -> bool:
    return (
        purchase.brief.own_graphics
        and isinstance(purchase.part, Processor)
        and not purchase.part.draws
    )


@PERSONAL.rule(
    "modular cables",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to have modular cables; the brief wants them."
    ),
)
def modular(purchase: PartCandidate) -> bool:
    return (
        purchase.brief.modular
        and isinstance(purchase.part, PowerSupply)
        and not purchase.part.modular
    )


@PERSONAL.rule(
    "protections",
    lambda purchase, money: (
        f"{purchase.part.name} does not name {listed(PROTECTIONS)}; the brief wants them."
    ),
)
def protections(candidate: PartCandidate) -> bool:
    return (
        candidate.brief.protected
        and isinstance(candidate.part, PowerSupply)
        and not {*PROTECTIONS} <= {*candidate.part.protections}
    )


@PERSONAL.rule(
    "other work",
    lambda purchase, money: (
        f"{purchase.part.name} is too slow with all cores for {listed(purchase.brief.work)}:"
        f" {_all_core_speed(purchase.part):g} of {all_core_floor(purchase.brief.work):g} points."
    ),
)
def other_work(candidate: PartCandidate) -> bool:
    return isinstance(candidate.part, Processor) and _all_core_speed(
        candidate.part
    ) < all_core_floor(candidate.brief.work)


def _all_core_speed(part: Part) -> float:
    return part.all_core_speed if isinstance(part, Processor) else 0.0


@PERSONAL.rule(
    "tuned clocks",
    lambda purchase, money: (
        f"The brief wants tuned clocks; those of {purchase.part.name} are fixed."
    ),
)
def tuned_clocks(purchase: PartCandidate) -> bool:
    """A part that stays and whose clocks cannot be set ends the wish."""
    return (
        purchase.brief.clocks == "tuned"
        and not clocks_set(purchase.part)
        and all(clocks_set(part) for part in purchase.stays)
    )


def clocks_set(part: Part) -> bool:
    """Whether a part does not stand in the way of a tuned processor, as a chip or board whose
    clocks are fixed does.
    """
    if isinstance(part, Processor):
        return bool(part.tunable)
    return not isinstance(part, Mainboard) or bool(part.tuning)


def _trust(purchase: PartCandidate) -> str:
    judgement = judge(purchase.part)
    return f"{judgement.trust} ({'; '.join(judgement.reasons)})"


@PERSONAL.rule(
    "trust floor",
    lambda purchase, money: (
        f"{purchase.part.name} is {_trust(purchase)}; the brief wants {purchase.brief.trust_floor}."
    ),
)
def trust_floor(candidate: PartCandidate) -> bool:
    return trust_of(candidate.part) not in TRUST_FLOORS[candidate.brief.trust_floor]


AMPLE_WORDS = {
    "anywhere": "nothing of the kind",
    "not few": "more than the last few",
    "two shops": "two shops",
}


@PERSONAL.rule(
    "availability",
    lambda purchase, money: (
        f"{purchase.part.name} is in stock in {_shops(purchase.supply(purchase.part.id).shops)}, in"
        f" {purchase.supply(purchase.part.id).ample or 'none'} with more than the last few; the"
        f" brief wants {AMPLE_WORDS[purchase.brief.availability]}."
    ),
)
def availability(purchase: PartCandidate) -> bool:
    match purchase.brief.availability:
        case "not few":
            return purchase.supply(purchase.part.id).ample < 1
        case "two shops":
            return purchase.supply(purchase.part.id).shops < 2
    return False


def _shops(count: int) -> str:
    return {0: "no shop", 1: "one shop"}.get(count, f"{count} shops")


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
    purchase = PartCandidate(brief, part, cost_minor, stays, supply)
    return (rule for rule in PERSONAL if rule.bars(purchase))


def may_be_bought(
    brief: Brief, part: Part, cost_minor: int, stays: tuple[Part, ...], supply: Supplies
) -> bool:
    """Whether the brief lets a part be bought at this price, in stock so, beside parts that
    stay.
    """
    purchase = PartCandidate(brief, part, cost_minor, stays, supply)
    return not any(rule.bars(purchase) for rule in PERSONAL)
