"""Personal rules about what a mainboard has."""

from collections.abc import Callable

from wattmetron.core.compatibility.personal_rule import (
    PartCandidate,
    PersonalRules,
)
from wattmetron.core.values.brief import GROWING_M2, GROWING_SLOTS
from wattmetron.core.values.parts import Mainboard, Part

RULES = PersonalRules()


def _room(part: Part) -> tuple[int, int]:
    return (part.memory_slots, part.m2_slots) if isinstance(part, Mainboard) else (0, 0)


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
    "fault display",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to show where a start stops; the brief wants it."
    ),
)
def fault_display(purchase: PartCandidate) -> bool:
    return purchase.brief.fault_display and _lacks(purchase.part, lambda board: board.fault_display)


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


def _lacks(part: Part, has: Callable[[Mainboard], bool | None]) -> bool:
    """Whether a part is a mainboard that is not known to have something."""
    return isinstance(part, Mainboard) and not has(part)
