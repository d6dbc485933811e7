"""Split: the money of a build on the processor side, on the graphics side, and on the rest."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.allowed import may_be_bought
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.proposal import cheapest_fit
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import Kind


@dataclass(frozen=True, slots=True)
class SideShare:
    """One side's money in minor units: what it costs, of which it forces so much on other kinds,
    and the build that it is held against: the cheapest fitting one with the cheapest part of the
    side.
    """

    own_minor: int
    forced_minor: int
    against: Build

    @property
    def total_minor(self) -> int:
        return self.own_minor + self.forced_minor


@dataclass(frozen=True, slots=True)
class Split:
    """Money by side; a side is None where its part is owned or nothing fits with a cheapest one."""

    total_minor: int
    processor: SideShare | None
    graphics: SideShare | None

    @property
    def rest_minor(self) -> int:
        return self.total_minor - sum(
            side.total_minor for side in (self.processor, self.graphics) if side
        )


def split(catalogue: Catalogue, brief: Brief, build: Build, costs: dict[Kind, int]) -> Split:
    """The split of a whole, fitting build; ``costs`` are those of its eight kinds, 0 for owned
    parts.

    A side forces the build's cost less the least cost of a fitting build in which its part is the
    cheapest of its kind that goes, with the other side's part, the memory's capacity and the drives
    kept, less what its own parts differ.
    """
    total = sum(costs.values())
    return Split(
        total,
        _side(catalogue, brief, build, costs, total, "processor", ("processor", "cooler")),
        _side(catalogue, brief, build, costs, total, "graphics", ("graphics",)),
    )


def _side(
    catalogue: Catalogue,
    brief: Brief,
    build: Build,
    costs: dict[Kind, int],
    total: int,
    kind: Kind,
    kinds: tuple[Kind, ...],
) -> SideShare | None:
    book = catalogue.prices(brief.region, brief.may_buy)
    if not build.of(kind) or build.of(kind)[0] in brief.owned:
        return None
    memory = catalogue.machine(build).memory
    relaxed = replace(
        brief,
        targets=(),
        counts_resale=False,
        memory_gb=memory.total_gb if memory else brief.memory_gb,
        storage_gb=0.0,
        owned=tuple(
            each_part_id
            for each_part_id in brief.owned
            if each_part_id in {part_id for _, part_id in build.ids()}
        ),
    )
    if not build.graphics:
        relaxed = replace(
            relaxed, banned=(*brief.banned, *(card.id for card in catalogue.by_kind["graphics"]))
        )
    other: Kind = "graphics" if kind == "processor" else "processor"
    drives_only = replace(Build(storage=build.storage), **{other: getattr(build, other)})
    priced = sorted(
        (price, part.id)
        for part in catalogue.by_kind[kind]
        if (price := book.cost(part.id)) is not None
        and may_be_bought(brief, part, price, (), book.supply)
    )
    for _, part_id in priced:
        proposal = cheapest_fit(catalogue, relaxed, drives_only.with_part(kind, part_id))
        if proposal.build is not None and proposal.cost_minor < NEVER:
            theirs = sum(
                0 if text in relaxed.owned else book.cost(text) or 0
                for name in kinds
                for text in proposal.build.of(name)
            )
            mine = sum(costs.get(name, 0) for name in kinds)
            return SideShare(mine, total - mine - (proposal.cost_minor - theirs), proposal.build)
    return None
