"""All fit rules, in families and in the order in which a builder meets them."""

from collections.abc import Callable, Iterator
from functools import partial

from wattmetron.core.fit import asks, clearance, cooling, memory, platform, ports, sources, supply
from wattmetron.core.fit.finding import LEVELS, Finding, Gap, Spoken, not_judged
from wattmetron.core.fit.wishes import USUAL, Wishes
from wattmetron.core.values.machine import Machine

Rule = Callable[[Machine], Iterator[Spoken]] | Callable[[Machine], Iterator[Finding]]
Wished = (
    Callable[[Machine, Wishes], Iterator[Spoken]] | Callable[[Machine, Wishes], Iterator[Finding]]
)
FAMILIES: dict[str, tuple[Rule, ...]] = {
    "platform": (
        platform.socket,
        platform.firmware,
        platform.board_power,
        platform.tuning,
        platform.card_slot,
    ),
    "memory": (
        memory.memory_type,
        memory.memory_slots,
        memory.registered,
        memory.error_correcting,
        memory.channels,
        memory.memory_speed,
        memory.mixed_kits,
    ),
    "ports": (
        ports.drive_ports,
        ports.drive_lengths,
        ports.drive_link,
        ports.drive_bays,
        ports.graphics_output,
        ports.front_ports,
        ports.lights,
        ports.fan_headers,
        ports.fan_places,
    ),
    "clearance": (
        clearance.board_form,
        clearance.card_length,
        clearance.card_height,
        clearance.card_thickness,
        clearance.cooler_height,
        clearance.radiator,
        clearance.memory_clearance,
        clearance.supply_form,
        clearance.supply_length,
    ),
    "cooling": (
        cooling.cooler_socket,
        cooling.cooler_capacity,
        cooling.boxed_cooler,
        cooling.case_heat,
    ),
    "supply": (
        supply.supply_spikes,
        supply.supply_connectors,
        supply.sata_plugs,
        supply.supply_trust,
    ),
}
WISHED: tuple[Wished, ...] = (
    supply.supply_watts,
    supply.watt_limit,
    ports.display_speed,
    ports.wireless,
    platform.second_card,
    asks.upscaling,
    asks.ray_tracing,
    asks.graphics_api,
    asks.operating_system,
)
RULES: tuple[Rule, ...] = tuple(rule for rules in FAMILIES.values() for rule in rules)


def check(machine: Machine, wishes: Wishes = USUAL) -> tuple[Finding, ...]:
    """Every finding about the parts that are there, the gravest first; parts not yet chosen raise
    none.

    What cannot be judged for want of a figure is one finding of its own; so is what is only
    claimed, and each figure on which sources disagree.
    """
    found = [*judged(machine, wishes)]
    if any(part.claimed or part.disputed for part in machine.parts()):
        found += [
            *sources.claimed(machine),
            *sources.disputed(machine, partial(judged, wishes=wishes)),
        ]
    return tuple(sorted(found, key=lambda finding: LEVELS.index(finding.level)))


def judged(machine: Machine, wishes: Wishes = USUAL) -> tuple[Finding, ...]:
    """The findings by the figures as they stand, in the order of the rules."""
    spoken: list[Spoken] = [one for rule in RULES for one in rule(machine)]
    spoken += [one for rule in WISHED for one in rule(machine, wishes)]
    found = [one for one in spoken if isinstance(one, Finding)]
    return (*found, *not_judged(one for one in spoken if isinstance(one, Gap)))


def goes_in(machine: Machine) -> bool:
    """Whether nothing clashes in the case: the rules of clearance and of drive places."""
    rules = (*FAMILIES["clearance"], ports.drive_bays)
    return not any(
        isinstance(one, Finding) and one.level == "blocks"
        for rule in rules
        for one in rule(machine)
    )


def blocks(machine: Machine, wishes: Wishes = USUAL) -> bool:
    """Whether any finding blocks."""
    return any(finding.level == "blocks" for finding in judged(machine, wishes))
