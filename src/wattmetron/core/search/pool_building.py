"""The candidates of a brief, gathered kind by kind, with what comes along with each."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace
from typing import cast

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.allowed import may_be_bought
from wattmetron.core.compatibility.extras import is_module
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.part_wishes import clocks_set
from wattmetron.core.compatibility.rule import RuleContext
from wattmetron.core.compatibility.rule_wishes import USUAL
from wattmetron.core.compatibility.rules import BLOCKING, any_blocks
from wattmetron.core.power.tuning import (
    carrying,
    changed_by,
    clocked,
    measured_change,
    set_kit,
)
from wattmetron.core.search.candidate_pool import (
    NEW_DRIVES,
    H,
    KindPool,
    P,
    Pool,
    T,
    fixed_parts,
    tunings_there,
)
from wattmetron.core.search.peripherals import NOTHING, Brought, Further
from wattmetron.core.search.resale import FREE_KINDS, forgone_minor
from wattmetron.core.search.thresholds import ints
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build, OwnTuning
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import Fan, FanSplitter
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import KINDS, OF_FANS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor
from wattmetron.core.values.seating import on_u2

OF_KITS = tuple(rule for rule in BLOCKING if rule.reads == {"memory"})
"""The rules of kits among themselves."""


def at_hand(catalogue: Catalogue, brief: Brief, kind: Kind) -> dict[str, Part]:
    """Owned parts of a kind by id: candidates where none of the kind stays, at no price or at their
    resale.
    """
    parts = (catalogue.part(part_id) for part_id in brief.owned)
    return {part.id: part for part in parts if kind_of(part) == kind}


def build_pool(
    catalogue: Catalogue,
    brief: Brief,
    build: Build,
    new_drives: int = NEW_DRIVES,
    stays: Build | None = None,
) -> Pool:
    """Candidates for a brief: bought in its region, in stock, allowed by its rules, or fixed; at
    the clocks that it wishes. The floors are those beside ``stays``, or else beside what is kept.
    """
    book = catalogue.prices(brief.region, brief.may_buy)
    fixed = fixed_parts(catalogue, brief, build)
    present = tuple(part for entries in fixed.values() for part, _ in entries)
    settled = fixed if stays is None else fixed_parts(catalogue, brief, stays)
    floors = floors_of(catalogue, brief).with_owned(brief.owned).beside(_staying(settled))
    others = [catalogue.part(part_id) for kind, part_id in build.added if kind not in OF_FANS]
    floors = replace(floors, besides=floors.besides.beside(others))
    further = Further(catalogue, brief, floors.besides, present)
    tuned = all(clocks_set(part) for part in present)

    def shelf(kind: Kind) -> KindPool[Part]:
        if fixed[kind] and kind != "storage":
            goes = kind != "memory" or _go_together(catalogue, build)
            stays_there = [
                parts
                for parts in fixed[kind][:1]
                if goes and floors.hosts(parts[0]) and goes_beside(parts[0], present)
            ]
            return _shelf(stays_there, True)
        parts = at_hand(catalogue, brief, kind) if kind in FREE_KINDS else {}
        priced = ((part, book.cost(part.id)) for part in catalogue.by_kind[kind])
        allowed = [
            (part, cost)
            for part, cost in priced
            if cost is not None
            and part.id not in parts
            and may_be_bought(brief, part, cost, present, book.supply)
            and floors.takes(part)
            and goes_beside(part, present)
        ]
        if parts:
            allowed += [
                (part, forgone_minor(catalogue, brief, part.id))
                for part in parts.values()
                if floors.takes(part) and goes_beside(part, present)
            ]
            allowed.sort(key=lambda priced_part: priced_part[0].id)
        return _shelf(allowed, False)

    stands = catalogue.machine(Build(added=build.added))
    drives = fixed["storage"]
    tunings = tunings_there(brief, build)
    processors = _carrying(
        _run(cast(KindPool[Processor], shelf("processor")), brief, tunings, tuned), tunings
    )
    cards = _run(cast(KindPool[Graphics], shelf("graphics")), brief, tunings, tuned)
    boards = _on_each(
        _carrying(cast(KindPool[Mainboard], shelf("mainboard")), tunings), further.with_board
    )
    kits = cast(KindPool[Memory], shelf("memory"))
    if any(tuning.mts for tuning in tunings):
        kits = replace(kits, parts=tuple(set_kit(kit, tunings) for kit in kits.parts))
    return Pool(
        processors=_on_each(processors, lambda chip: _with_chip(further, chip)),
        cards=_on_each(cards, lambda card: _some(further.screen(card))),
        boards=boards,
        screens=tuple(further.screen(board) for board in boards.parts),
        discs=further.discs(),
        kits=kits,
        drives=cast(KindPool[Storage], shelf("storage")),
        fixed_drives=tuple(cast(Storage, part) for part, _ in drives),
        fixed_drives_cost=sum(cost for _, cost in drives),
        coolers=cast(KindPool[Cooler], shelf("cooler")),
        supplies=cast(KindPool[PowerSupply], shelf("supply")),
        cases=cast(KindPool[Case], shelf("case")),
        fans=cast(KindPool[Fan], _beside_the_case(catalogue, brief, present, "fan")),
        splitters=cast(
            KindPool[FanSplitter], _beside_the_case(catalogue, brief, present, "splitter")
        ),
        fans_there=stands.added_fans,
        sata_taken=stands.sata_optical,
        adapters=len(stands.expansion_cards),
        wide_adapters=sum(card.slot_lanes > 1 for card in stands.expansion_cards),
        added_w=stands.added_w,
        floors=floors,
        new_drives=new_drives,
    )


def goes_beside(part: Part, stays: Sequence[Part]) -> bool:
    """Whether a mainboard has the U.2 ports and the slots for wireless modules that parts which
    stay need. New drives with a U.2 plug are not proposed.
    """
    if isinstance(part, Storage):
        return not part.on_u2
    if not isinstance(part, Mainboard):
        return True
    u2 = on_u2(part for part in stays if isinstance(part, Storage))
    modules = sum(map(is_module, stays))
    return u2 <= (part.u2_ports or 0) and (
        part.module_slots is None or modules <= part.module_slots
    )


def _with_chip(further: Further, chip: Processor) -> list[Brought]:
    """What comes with a processor: its operating system, and what every machine has alike."""
    system, inputs = further.system(chip), further.inputs()
    return [system.plus(inputs)] if system is not None and inputs is not None else []


def _some(brought: Brought | None) -> list[Brought]:
    return [] if brought is None else [brought]


def _on_each(shelf: KindPool[P], ways: Callable[[P], list[Brought]]) -> KindPool[P]:
    """Each candidate once for every way to have what comes with it; none where there is no way."""
    ways_by_index = [(index, way) for index, part in enumerate(shelf.parts) for way in ways(part)]
    if len(ways_by_index) == len(shelf) and all(way == NOTHING for _, way in ways_by_index):
        return shelf
    return KindPool(
        tuple(shelf.parts[index] for index, _ in ways_by_index),
        shelf.cost[[index for index, _ in ways_by_index]],
        shelf.fixed,
        tuple(way for _, way in ways_by_index),
    )


def _staying(fixed: dict[Kind, list[tuple[Part, int]]]) -> Machine:
    """The parts that stay, one of each kind, as a machine."""
    return Machine(
        **{  # type: ignore[arg-type]
            kind: fixed[kind][0][0] for kind in KINDS if kind != "storage" and fixed[kind]
        }
    )


def _beside_the_case(
    catalogue: Catalogue, brief: Brief, stays: tuple[Part, ...], kind: Kind
) -> KindPool[Part]:
    """Fans or splitters that may be bought; where the budget does not count them they are free."""
    book = catalogue.prices(brief.region, brief.may_buy)
    counts = kind not in brief.outside
    return _shelf(
        (
            (part, cost if counts else 0)
            for part in catalogue.by_kind[kind]
            if (cost := book.cost(part.id)) is not None
            and may_be_bought(brief, part, cost, stays, book.supply)
        ),
        False,
    )


def _go_together(catalogue: Catalogue, build: Build) -> bool:
    """Whether the kits that stay could stand in any machine."""
    kits = catalogue.machine(Build(memory=build.memory, more_kits=build.more_kits))
    return len(kits.kits) < 2 or not any_blocks(OF_KITS, RuleContext(kits, USUAL))


def _carrying(shelf: KindPool[H], tunings: Sequence[OwnTuning]) -> KindPool[H]:
    """Processors or boards with the rates of memory that they were noted to carry."""
    if not any(tuning.mts for tuning in tunings):
        return shelf
    return replace(shelf, parts=tuple(carrying(part, tunings) for part in shelf.parts))


def _run(
    shelf: KindPool[T], brief: Brief, tunings: Sequence[OwnTuning], can_be_tuned: bool
) -> KindPool[T]:
    """Processors or cards as they run at the brief's clocks, those that are there as they were
    measured.
    """
    tuning_by_part = {tuning.part: tuning for tuning in tunings if not tuning.mts}
    if brief.clocks == "as shipped" and not tuning_by_part:
        return shelf
    return replace(
        shelf,
        parts=tuple(
            changed_by(part, measured_change(tuning_by_part[part.id]))
            if part.id in tuning_by_part
            else clocked(part, brief.clocks, can_be_tuned)
            for part in shelf.parts
        ),
    )


def _shelf(priced: Iterable[tuple[Part, int]], fixed: bool) -> KindPool[Part]:
    pairs = list(priced)
    return KindPool(tuple(part for part, _ in pairs), ints(cost for _, cost in pairs), fixed)
