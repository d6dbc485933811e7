"""Room to grow: what a build takes later without anything else being replaced.

A part is named only where the whole machine with it adds no finding and misses no floor; a firmware
update that it needs is said with it.
"""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.drive_rules import ports_needed, seating_of
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.platform import firmware
from wattmetron.core.compatibility.rule import RuleContext
from wattmetron.core.compatibility.vetting import Vetting
from wattmetron.core.speeds.speed_scale import anchors_of
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Graphics, Part, Processor
from wattmetron.core.values.seating import sticks_of
from wattmetron.places.assessment.assess import Assessment, known_brief
from wattmetron.places.compatibility.fitting import against_all


@dataclass(frozen=True, slots=True, kw_only=True)
class Stronger:
    """The strongest part of a kind that goes in as the build stands, and how much faster than the
    present one it is.

    ``delivered_minor`` is None where nobody sells it; ``first`` is what would have to be done
    before, such as firmware.
    """

    kind: Kind
    part: Part
    faster: float | None
    delivered_minor: int | None
    first: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Growth:
    """The strongest card and processor (None where nothing stronger goes in), and places left."""

    graphics: Stronger | None
    processor: Stronger | None
    memory_slots: int | None
    memory_gb: float | None
    m2_slots: int | None
    sata_ports: int | None


def growth(catalogue: Catalogue, now: Assessment) -> Growth:
    """Computed over the whole catalogue by the rules that block; the limit in watts of the brief
    holds too.
    """
    board, kit = now.machine.mainboard, now.machine.memory
    seats = seating_of(now.machine)
    sticks = kit.sticks if kit else 0
    most_gb = min(
        [part.memory_max_gb for part in (board, now.machine.processor) if part], default=None
    )
    return Growth(
        graphics=_strongest(catalogue, now, "graphics"),
        processor=_strongest(catalogue, now, "processor"),
        memory_slots=None if board is None else board.memory_slots - sticks,
        memory_gb=most_gb,
        m2_slots=None if board is None else board.m2_slots - len(sticks_of(now.machine.storage)),
        sata_ports=None if seats is None else seats.ports_left - ports_needed(now.machine),
    )


def _strongest(catalogue: Catalogue, now: Assessment, kind: Kind) -> Stronger | None:
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    parts = [
        part
        for part in catalogue.by_kind[kind]
        if part.withdrawn is None or book.cost(part.id) is not None
    ]
    against = against_all(catalogue, now, kind)
    present = next(iter(now.machine.of(kind)), None)
    stronger = (
        part
        for part in sorted(parts, key=lambda part: (_speed(part), part.id), reverse=True)
        if not against[part.id] and (present is None or _speed(part) > _speed(present))
    )
    vetting = Vetting(catalogue, known_brief(catalogue, now.brief), now.machine)
    best = next((part for part in stronger if _goes_alone(now.machine, part, vetting)), None)
    if best is None:
        return None
    faster = None if present is None else _speed(best) / _speed(present) - 1
    machine = now.machine.with_part(kind, best)
    return Stronger(
        kind=kind,
        part=best,
        faster=faster,
        delivered_minor=book.cost(best.id),
        first=_first(machine),
    )


def _goes_alone(present: Machine, part: Part, vetting: Vetting) -> bool:
    """Whether a whole machine with a part in the place of the present one needs nothing else, but
    for a firmware update.
    """
    machine = replace(present.with_part(kind_of(part), part), second_card=present.second_card)
    updates = {
        finding.sentence
        for finding in firmware(RuleContext(machine))
        if isinstance(finding, Finding)
    }
    objections = (
        objection for objection in vetting.objections(machine) if objection not in updates
    )
    return {*machine.missing()} <= {*present.missing()} and next(objections, None) is None


def _speed(part: Part) -> float:
    """One busy core for processors, 2560x1440 for cards, in points."""
    if isinstance(part, Graphics):
        return anchors_of(part)[1]
    return part.single_speed if isinstance(part, Processor) else 0.0


def _first(machine: Machine) -> str:
    return next(
        (gap.sentence for gap in firmware(RuleContext(machine)) if isinstance(gap, Finding)), ""
    )
