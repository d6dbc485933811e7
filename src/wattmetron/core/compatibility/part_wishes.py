"""Personal rules about cases, processors and supplies, and about how far a part is trusted."""

from wattmetron.core.compatibility.personal_rule import (
    PartCandidate,
    PersonalRules,
)
from wattmetron.core.values.housing import Case, PowerSupply
from wattmetron.core.values.other_work import all_core_floor
from wattmetron.core.values.parts import Mainboard, Part, Processor
from wattmetron.core.values.trust import TRUST_FLOORS, judge, trust_of
from wattmetron.core.values.words import listed

RULES = PersonalRules()
PROTECTIONS = ("OVP", "OCP", "OPP", "SCP")


def _volume_l(part: Part) -> float:
    return part.volume_l if isinstance(part, Case) else 0.0


@RULES.rule(
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


@RULES.rule(
    "case without tools",
    lambda purchase, money: (
        f"{purchase.part.name} is not known to open without tools; the brief wants such a case."
    ),
)
def tool_free(purchase: PartCandidate) -> bool:
    return (
        purchase.brief.tool_free and isinstance(purchase.part, Case) and not purchase.part.tool_free
    )


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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


@RULES.rule(
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
