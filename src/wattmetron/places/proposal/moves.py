"""What a part of another socket, board or case forces: the cheapest whole move, tried as one."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.proposal import cheapest_fit
from wattmetron.core.values.build import Build
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.places.assessment.assess import Assessment, known_brief, known_build

FORCED: dict[Kind, frozenset[Kind]] = {
    "processor": frozenset({"mainboard", "memory", "cooler"}),
    "mainboard": frozenset({"processor", "memory", "cooler", "case"}),
    "case": frozenset({"cooler", "supply", "mainboard", "memory"}),
}
"""Kinds that may change with a part of a kind."""
MOST_MOVES = 12


@dataclass(frozen=True, slots=True)
class Move:
    """The build after a move, and the parts that it brings besides the one that was chosen."""

    build: Build
    forced: tuple[Part, ...]


def move(catalogue: Catalogue, now: Assessment, part: Part) -> Move | None:
    """The cheapest way to have a part in a whole build: everything stays but what it may force,
    memory keeps its capacity. None where nothing goes, or where it forces nothing that may change.
    """
    return catalogue.keep.once(
        ("move", now.brief, now.build, part.id), lambda: _move(catalogue, now, part)
    )


def _move(catalogue: Catalogue, now: Assessment, part: Part) -> Move | None:
    kind, build = kind_of(part), known_build(catalogue, now.build)
    if kind not in FORCED or now.missing:
        return None
    stay = {*build.kept, *now.brief.stays}
    free = {kind_there for kind_there in FORCED[kind] if not stay & {*build.of(kind_there)}} | {
        kind
    }
    fixed = Build()
    for kind_there, part_id in build.ids():
        if kind_there not in free:
            fixed = _put(fixed, kind_there, part_id).keeping(part_id, True)
    fixed = fixed.with_part(kind, part.id).keeping(part.id, True)
    wanted = known_brief(catalogue, now.brief)
    memory = catalogue.parts.get(build.memory or "")
    if isinstance(memory, Memory):
        wanted = replace(wanted, memory_gb=max(wanted.memory_gb, memory.total_gb))
    moved_build = cheapest_fit(catalogue, wanted, fixed).build
    if moved_build is None:
        return None
    moved_build = replace(
        moved_build, kept=build.kept & {part_id for _, part_id in moved_build.ids()}
    )
    here = {part_id for _, part_id in build.ids()}
    new = [part_id for _, part_id in moved_build.ids() if part_id not in {*here, part.id}]
    return Move(
        replace(moved_build, aside=build.aside),
        tuple(catalogue.part(kind_there) for kind_there in new),
    )


def _put(build: Build, kind: Kind, part_id: str) -> Build:
    if kind == "memory":
        return build.with_kit(part_id)
    return build.beside(part_id) if kind == "graphics" else build.with_part(kind, part_id)
