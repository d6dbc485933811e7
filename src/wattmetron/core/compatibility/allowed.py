"""Which parts a brief lets be bought, by its personal rules."""

from collections.abc import Iterator

from wattmetron.core.compatibility import board_wishes, part_wishes
from wattmetron.core.compatibility.personal_rule import (
    PartCandidate,
    PersonalRule,
    PersonalRules,
    Supplies,
    ample,
)
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import Fan
from wattmetron.core.values.housing import Case, Cooler
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import KIND_NAMES
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.core.values.words import listed

RULES = PersonalRules()


@RULES.rule(
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


@RULES.rule("banned part", lambda purchase, money: f"The brief excludes {purchase.part.name}.")
def banned(candidate: PartCandidate) -> bool:
    return candidate.part.id in candidate.brief.banned


@RULES.rule(
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


@RULES.rule(
    "other maker",
    lambda purchase, money: (
        f"{purchase.part.name} is of {purchase.part.maker}; the brief wants"
        f" {KIND_NAMES[kind_of(purchase.part)]} of {listed(_makers(purchase))}."
    ),
)
def other_maker(candidate: PartCandidate) -> bool:
    makers = _makers(candidate) if candidate.brief.only_of else []
    return bool(makers) and candidate.part.maker not in makers


@RULES.rule(
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


@RULES.rule(
    "no lights",
    lambda purchase, money: f"{purchase.part.name} has lights; the brief wants a machine without.",
)
def no_lights(purchase: PartCandidate) -> bool:
    return (
        purchase.brief.no_lights
        and isinstance(purchase.part, (Case, Fan, Memory))
        and bool(purchase.part.lights)
    )


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


PERSONAL: tuple[PersonalRule, ...] = (*RULES, *board_wishes.RULES, *part_wishes.RULES)
"""All personal rules, in the order in which they are told."""


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
