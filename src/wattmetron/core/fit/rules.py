"""All fit rules, in families and in the order in which a builder meets them."""

from collections.abc import Callable, Iterator

from wattmetron.core.fit import clearance, cooling, memory, platform, ports, supply
from wattmetron.core.fit.finding import LEVELS, Finding, Gap, Spoken, not_judged
from wattmetron.core.fit.wishes import USUAL, Wishes
from wattmetron.core.machine import Machine

Rule = Callable[[Machine], Iterator[Spoken]] | Callable[[Machine], Iterator[Finding]]
FAMILIES: dict[str, tuple[Rule, ...]] = {
    "platform": (platform.socket, platform.firmware, platform.board_power, platform.tuning, platform.card_slot),
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
    "cooling": (cooling.cooler_socket, cooling.cooler_capacity, cooling.boxed_cooler, cooling.case_heat),
    "supply": (supply.supply_spikes, supply.supply_connectors, supply.sata_plugs, supply.supply_trust),
}
WISHED = (supply.supply_watts, supply.watt_limit, ports.display_speed, ports.wireless)
RULES: tuple[Rule, ...] = tuple(rule for rules in FAMILIES.values() for rule in rules)


def check(machine: Machine, wishes: Wishes = USUAL) -> tuple[Finding, ...]:
    """Every finding about the parts that are there, the gravest first; parts not yet chosen raise none.

    What cannot be judged for want of a figure is one finding of its own.
    """
    spoken: list[Spoken] = [one for rule in RULES for one in rule(machine)]
    found = [one for one in spoken if isinstance(one, Finding)]
    found += [one for rule in WISHED for one in rule(machine, wishes)]
    found += not_judged(one for one in spoken if isinstance(one, Gap))
    return tuple(sorted(found, key=lambda finding: LEVELS.index(finding.level)))


def goes_in(machine: Machine) -> bool:
    """Whether nothing clashes in the case: the rules of clearance and of drive places."""
    rules = (*FAMILIES["clearance"], ports.drive_bays)
    return not any(isinstance(one, Finding) and one.level == "blocks" for rule in rules for one in rule(machine))


def blocks(machine: Machine, wishes: Wishes = USUAL) -> bool:
    """Whether any finding blocks."""
    return any(finding.level == "blocks" for finding in check(machine, wishes))
