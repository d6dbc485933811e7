"""Whether what a rule calls waste really is: only where something cheaper on sale does as much."""

from collections.abc import Iterable

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.memory_rules import memory_speed
from wattmetron.core.frames.memory_class import memory_class
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.offers import PriceBook


def does_as_much(machine: Machine, kit: Memory) -> bool:
    """Whether a kit holds as much as the present one and is as quick and as wide on this
    platform.
    """
    chip, board, present = machine.processor, machine.mainboard, machine.memory
    if chip is None or present is None or kit.memory_type != present.memory_type:
        return False
    now, then = (memory_class(chip, board, memory) for memory in (present, kit))
    slots = board.memory_slots if board else kit.sticks
    return (
        kit.total_gb >= present.total_gb
        and kit.sticks <= slots
        and then.latency_ns <= now.latency_ns
        and then.bandwidth_gbs >= now.bandwidth_gbs
    )


def weighed(
    findings: Iterable[Finding], machine: Machine, catalogue: Catalogue, book: PriceBook
) -> tuple[Finding, ...]:
    """The findings, where a kit faster than its platform is no waste if none cheaper does as
    much.
    """
    return tuple(
        (
            _no_waste(finding)
            if finding.rule == memory_speed.name and not _cheaper_kit(machine, catalogue, book)
            else finding
        )
        for finding in findings
    )


def _cheaper_kit(machine: Machine, catalogue: Catalogue, book: PriceBook) -> bool:
    prices = [book.cost(kit.id) for kit in machine.of("memory")]
    if not prices or None in prices:
        return True
    price = sum(each_price for each_price in prices if each_price is not None)
    return any(
        (other := book.cost(kit.id)) is not None and other < price and does_as_much(machine, kit)
        for kit in catalogue.by_kind["memory"]
        if isinstance(kit, Memory)
    )


def _no_waste(finding: Finding) -> Finding:
    advice = "No cheaper kit on sale does as much here: nothing to do."
    return finding._replace(level="good to know", advice=advice, remedy_kinds=())
