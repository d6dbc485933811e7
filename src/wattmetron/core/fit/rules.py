"""All fit rules, in the order in which a builder meets them."""

from collections.abc import Callable, Iterator

from wattmetron.core.fit import clearance, cooling, platform, supply
from wattmetron.core.fit.finding import LEVELS, Finding
from wattmetron.core.machine import Machine

RULES: tuple[Callable[[Machine], Iterator[Finding]], ...] = (
    platform.socket,
    platform.memory_type,
    platform.memory_slots,
    platform.drive_places,
    platform.graphics_output,
    clearance.board_form,
    clearance.card_length,
    clearance.cooler_height,
    clearance.supply_form,
    cooling.cooler_socket,
    cooling.cooler_capacity,
    cooling.boxed_cooler,
    supply.supply_spikes,
    supply.supply_connectors,
    platform.channels,
    platform.memory_speed,
    platform.card_slot,
)


def check(machine: Machine, headroom_percent: int = 140) -> tuple[Finding, ...]:
    """Every finding about the parts that are there, the gravest first; parts not yet chosen raise none."""
    found = [finding for rule in RULES for finding in rule(machine)]
    found += supply.supply_watts(machine, headroom_percent)
    return tuple(sorted(found, key=lambda finding: LEVELS.index(finding.level)))


def blocks(machine: Machine, headroom_percent: int = 140) -> bool:
    """Whether any finding blocks."""
    return any(finding.level == "blocks" for finding in check(machine, headroom_percent))
