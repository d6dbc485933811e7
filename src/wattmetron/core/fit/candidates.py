"""What fits into a machine and why not: for each candidate of a kind the findings that block
because of it.
"""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any

from wattmetron.core.fit import clearance, cooling, memory, platform, ports, supply
from wattmetron.core.fit.finding import Finding, Spoken
from wattmetron.core.fit.rules import check
from wattmetron.core.fit.wishes import USUAL, Wishes
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import FURTHER_KINDS, KINDS, Kind, Part

DRAWING: frozenset[Kind] = frozenset({"processor", "graphics", "memory", "storage"})
"""Kinds that the draw is made of."""
READS: tuple[tuple[Any, frozenset[Kind]], ...] = (
    (platform.socket, frozenset({"processor", "mainboard"})),
    (platform.board_power, frozenset({"processor", "mainboard"})),
    (memory.memory_type, frozenset({"memory", "mainboard", "processor"})),
    (memory.memory_slots, frozenset({"memory", "mainboard", "processor"})),
    (memory.registered, frozenset({"memory", "mainboard"})),
    (ports.drive_ports, frozenset({"storage", "mainboard"})),
    (ports.drive_lengths, frozenset({"storage", "mainboard"})),
    (ports.drive_bays, frozenset({"storage", "case"})),
    (ports.graphics_output, frozenset({"graphics", "processor", "mainboard", "case"})),
    (clearance.board_form, frozenset({"mainboard", "case"})),
    (clearance.card_length, frozenset({"graphics", "case", "cooler"})),
    (clearance.card_height, frozenset({"graphics", "case"})),
    (clearance.card_thickness, frozenset({"graphics", "case"})),
    (clearance.cooler_height, frozenset({"cooler", "case"})),
    (clearance.radiator, frozenset({"cooler", "case"})),
    (clearance.memory_clearance, frozenset({"cooler", "memory"})),
    (clearance.supply_form, frozenset({"supply", "case"})),
    (clearance.supply_length, frozenset({"supply", "case"})),
    (cooling.cooler_socket, frozenset({"cooler", "processor"})),
    (cooling.cooler_capacity, frozenset({"cooler", "processor"})),
    (cooling.boxed_cooler, frozenset({"cooler", "processor"})),
    (supply.supply_spikes, DRAWING | {"supply"}),
    (supply.supply_connectors, frozenset({"supply", "graphics", "mainboard"})),
)
"""Every rule that can block, with the kinds that it looks at."""
READS_WISHES: tuple[tuple[Any, frozenset[Kind]], ...] = (
    (supply.supply_watts, DRAWING | {"supply"}),
    (supply.watt_limit, DRAWING),
    (platform.second_card, frozenset({"graphics", "mainboard"})),
)
RULES_OF: dict[Kind, tuple[Any, ...]] = {
    kind: tuple(rule for rule, reads in READS if kind in reads) for kind in KINDS
}
WISHED_OF: dict[Kind, tuple[Any, ...]] = {
    kind: tuple(rule for rule, reads in READS_WISHES if kind in reads) for kind in KINDS
}


def reasons_against(
    machine: Machine, kind: Kind, parts: Iterable[Part], wishes: Wishes = USUAL
) -> Iterator[tuple[Finding, ...]]:
    """For each part, put into its place (a drive beside the others), what then blocks and did not
    without it.
    """
    if kind in FURTHER_KINDS:
        yield from (() for _ in parts)
        return
    bare = machine if kind == "storage" else replace(machine, **{kind: None})  # type: ignore[arg-type]
    standing = {one.rule for one in check(bare, wishes) if one.level == "blocks"}
    rules, wished = RULES_OF[kind], WISHED_OF[kind]
    places: list[Any] = [getattr(bare, place) for place in KINDS]
    own = KINDS.index(kind)
    for part in parts:
        places[own] = (*machine.storage, part) if kind == "storage" else part
        with_it = Machine(*places)
        if machine.second_card is not None:
            with_it = replace(with_it, second_card=machine.second_card)
        found: list[Spoken] = []
        for rule in rules:
            found.extend(rule(with_it))
        for rule in wished:
            found.extend(rule(with_it, wishes))
        yield _blocking(found, standing) if found else ()


def _blocking(found: list[Spoken], standing: set[str]) -> tuple[Finding, ...]:
    return tuple(
        one
        for one in found
        if isinstance(one, Finding) and one.level == "blocks" and one.rule not in standing
    )
