"""What clears a finding: for each kind that can, a part after which the rule is silent.

Processors and cards decide the frames, so there it is the nearest in price; of the other kinds the
cheapest.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.allowed import may_be_bought
from wattmetron.core.compatibility.candidates import reasons_against
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.compatibility.memory_rules import channels, memory_speed
from wattmetron.core.compatibility.rule_wishes import Wishes
from wattmetron.core.compatibility.vetting import Vetting
from wattmetron.core.compatibility.wasted_money import does_as_much
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import MAX_ADDED, MAX_KITS, Build
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import FURTHER_KINDS, Kind
from wattmetron.core.values.parts import Part


@dataclass(frozen=True, slots=True, kw_only=True)
class Remedy:
    """Put this part in (in place of ``instead_of``), at its delivered price in minor units."""

    kind: Kind
    part: Part
    delivered_minor: int
    instead_of: str | None
    build: Build


def remedies(
    catalogue: Catalogue, brief: Brief, build: Build, finding: Finding
) -> tuple[Remedy, ...]:
    """One remedy per kind at most, in the order that the finding prefers: parts that the brief
    allows, after which nothing stands that did not stand before.
    """
    machine = machine_of(catalogue, build, brief.clocks)
    vetting = Vetting(catalogue, brief, machine)
    remedies = []
    for kind in finding.remedy_kinds:
        tried = [
            *_another_kit(catalogue, brief, build, finding),
            *_in_order(catalogue, brief, build, kind),
        ]
        for remedy in _hopeful(machine, finding, vetting.wishes, tried):
            after = machine_of(catalogue, remedy.build, brief.clocks)
            if (
                not _stands(finding, vetting.judge(after))
                and vetting.passes(after)
                and _worth_it(finding, machine, after)
            ):
                remedies.append(remedy)
                break
    return tuple(remedies)


def _stands(finding: Finding, left: Iterable[Finding]) -> bool:
    return any(
        (each_finding.rule, each_finding.kinds) == (finding.rule, finding.kinds)
        for each_finding in left
    )


def _another_kit(
    catalogue: Catalogue, brief: Brief, build: Build, finding: Finding
) -> Iterator[Remedy]:
    """Too few sticks: one more kit like the present one, where it is on sale and slots may take
    it.
    """
    kits = build.of("memory")
    if finding.rule != channels.name or not kits or len(kits) >= MAX_KITS:
        return
    price = catalogue.prices(brief.region, brief.may_buy).cost(kits[-1])
    if price is not None:
        yield Remedy(
            kind="memory",
            part=catalogue.part(kits[-1]),
            delivered_minor=price,
            instead_of=None,
            build=build.with_kit(kits[-1]),
        )


def _hopeful(
    machine: Machine, finding: Finding, wishes: Wishes, tried: list[Remedy]
) -> Iterator[Remedy]:
    """Remedies without those after which the same rule still blocks: looked at the short way, one
    after the other.
    """
    if finding.level != "blocks" or not tried or tried[0].kind == "storage":
        yield from tried
        return
    against = reasons_against(machine, tried[0].kind, (remedy.part for remedy in tried), wishes)
    for remedy, findings in zip(tried, against, strict=True):
        if all(
            (each_finding.rule, each_finding.kinds) != (finding.rule, finding.kinds)
            for each_finding in findings
        ):
            yield remedy


def _in_order(catalogue: Catalogue, brief: Brief, build: Build, kind: Kind) -> Iterator[Remedy]:
    """Every part that may be bought for the kind's place, the one to try first first."""
    book = catalogue.prices(brief.region, brief.may_buy)
    stays = tuple(catalogue.part(part_id) for part_id in build.kept)
    present = build.of(kind)
    if (kind == "storage" and len(present) != 1) or len(build.added) >= MAX_ADDED:
        return
    if kind in FURTHER_KINDS:
        present = ()
    instead_of = present[0] if present else None
    present_minor = book.cost(instead_of) if instead_of else None
    near = present_minor if kind in ("processor", "graphics") and present_minor is not None else 0
    candidates = [
        (abs(price - near), price, part)
        for part in catalogue.by_kind[kind]
        if (price := book.cost(part.id)) is not None
        and part.id not in present
        and may_be_bought(brief, part, price, stays, book.supply)
    ]
    for _, price, part in sorted(
        candidates, key=lambda candidate: (candidate[0], candidate[1], candidate[2].id)
    ):
        yield Remedy(
            kind=kind,
            part=part,
            delivered_minor=price,
            instead_of=instead_of,
            build=build.with_part(kind, part.id, instead_of),
        )


def _worth_it(finding: Finding, before: Machine, after: Machine) -> bool:
    """Whether clearing a waste of memory does not lose memory instead."""
    if before.memory is None or after.memory is None or before.memory == after.memory:
        return True
    if finding.rule == memory_speed.name:
        return does_as_much(before, after.memory)
    return finding.level != "wastes" or after.memory.total_gb >= before.memory.total_gb
