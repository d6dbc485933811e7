"""From the winning cost and gain to one named build: the first by part ids among equals."""

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.floor_violations import broken
from wattmetron.core.compatibility.later_upgrades import ToCome
from wattmetron.core.compatibility.leads import sockets_of
from wattmetron.core.compatibility.rule import Rule, RuleContext
from wattmetron.core.compatibility.rule_wishes import Wishes, wishes_of
from wattmetron.core.compatibility.rules import BLOCKING, any_blocks, blocking_on, check
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.branch_and_bound import Winner
from wattmetron.core.search.candidate_pool import KindPool, tunings_there
from wattmetron.core.search.drive_sets import Bays
from wattmetron.core.search.enclosure import Shell
from wattmetron.core.search.equivalents import PlatformFigures
from wattmetron.core.search.platform_classes import platform_key
from wattmetron.core.search.platforms import board_cost, fitting_boards, kit_figures, rates, rest_of
from wattmetron.core.search.problem import Scene, Scenes
from wattmetron.core.search.row_keys import alike
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.housing import Cooler, PowerSupply
from wattmetron.core.values.kits import JOINT
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Graphics, Part, Processor

Ints = NDArray[np.int64]
SHELL: frozenset[Kind] = frozenset({"cooler", "supply", "case"})
"""Kinds that are chosen last, in this order."""
COOLER_RULES = blocking_on("cooler", without=SHELL - {"cooler"})
SUPPLY_RULES = blocking_on("supply", without=SHELL - {"supply"})
CASE_RULES = tuple(
    rule for rule in BLOCKING if rule.reads & SHELL and rule not in (*COOLER_RULES, *SUPPLY_RULES)
)


class TableError(AssertionError):
    """The tables promised a build that the rules refuse: a key was too small. A defect, never the
    user's.
    """


def settle(
    catalogue: Catalogue, brief: Brief, scenes: Scenes, winner: Winner, fixed: Build
) -> Build:
    """The build with the winner's cost and gain whose part ids come first, checked by the full
    rules.
    """
    by_ids = sorted(
        winner.pairings,
        key=lambda p: (
            scenes[0].pool.processors.parts[p[1]].id,
            "" if p[0] else _card(scenes, p).id,
        ),
    )
    integrated, c, g = by_ids[0]
    scene = next(scene for scene in scenes if scene.integrated == integrated)
    first = _Settler(catalogue, brief, scene, fixed, c, g).first(winner)
    staying = {part_id for _, part_id in fixed.ids()}
    build = replace(
        first,
        kept=fixed.kept,
        added=fixed.added,
        aside=fixed.aside,
        later=fixed.later & staying,
        stand_ins=tuple(stand_in for stand_in in fixed.stand_ins if stand_in.part in staying),
        tuned=tunings_there(brief, fixed),
    )
    for kind, part_id in first.added:
        build = build.with_part(kind, part_id)
    machine = machine_of(catalogue, build, brief.clocks)
    findings = check(machine, wishes_of(brief))
    against = [finding.sentence for finding in findings if finding.level == "blocks"]
    short = [*broken(machine, scene.pool.floors)]
    if against or short or machine.missing():
        raise TableError(f"{build}: {against or short or machine.missing()}")
    return build


def _card(scenes: Scenes, pairing: tuple[bool, int, int]) -> Graphics:
    return scenes[0].pool.cards.parts[pairing[2]]


class _Settler:
    """All choices for one processor and card, in the order of ids."""

    def __init__(
        self, catalogue: Catalogue, brief: Brief, scene: Scene, build: Build, c: int, g: int
    ) -> None:
        self.catalogue = catalogue
        self.stays = tuple(catalogue.part(part_id) for _, part_id in build.added)
        self.scene, self.pool, self.c, self.g = scene, scene.pool, c, g
        self.wishes = wishes_of(brief)
        self.chip: Processor = scene.pool.processors.parts[c]
        self.card: Graphics | None = None if scene.integrated else scene.pool.cards.parts[g]
        self.kind, self.power_level = platform_key(self.chip, self.pool)
        self._right: dict[bytes, NDArray[np.bool_]] = {}
        self.base_cost = int(scene.chip_cost[c]) + int(scene.card_cost[g])
        self.board_cost = board_cost(self.pool, scene.integrated)

    def first(self, winner: Winner) -> Build:
        """The first combination by ids with the winner's cost and gain."""
        boards, kits = self._fitting_memory(winner)
        so_far = self.base_cost + self.board_cost[boards] + self.pool.kits.cost[kits]
        reaching = {}
        for sort, drives_cost in self.scene.need.drives:
            takes, lanes = self.scene.need.seats[sort]
            fits = takes[boards] & (so_far + drives_cost <= winner.cost)
            fits &= self._right_gain(winner, boards, kits, lanes)
            index = np.flatnonzero(fits)
            rest = rest_of(self.pool, boards[index], kits[index], sort)
            shells = self._least_shell(boards[index], kits[index], rest, sort.bays)
            fits[index] = so_far[index] + drives_cost + shells == winner.cost
            reaching[sort] = fits
        any_way = np.flatnonzero(np.logical_or.reduce(list(reaching.values())))
        if not any_way.size:
            raise TableError(
                f"no build of {self.chip.id} costs {winner.cost} with gain {winner.gain}"
            )
        row = int(any_way[0])
        board, kit = self.pool.boards.parts[boards[row]], self.pool.kits.parts[kits[row]]
        for drives, sort, drives_cost, disc in self.scene.drives():
            if not reaching[sort][row]:
                continue
            inside = Machine(
                processor=self.chip, graphics=self.card, mainboard=board, memory=kit, storage=drives
            )
            left = winner.cost - int(so_far[row]) - drives_cost
            brought = (*self._brought(int(boards[row])), *disc)
            inside = replace(inside, added=(*self.stays, *map(self._part, brought)))
            cooler, supply, case, fans = self._shell(inside, left)
            return Build(
                processor=self.chip.id,
                graphics=self.card.id if self.card else None,
                mainboard=board.id,
                memory=kit.id.split(JOINT)[0],
                storage=tuple(drive.id for drive in drives),
                cooler=cooler,
                supply=supply,
                case=case,
                more_kits=tuple(kit.id.split(JOINT)[1:]),
                added=(*fans, *brought),
            )
        raise TableError(f"no drives go with {board.id} for {winner.cost}")

    def _fitting_memory(self, winner: Winner) -> tuple[Ints, Ints]:
        """Boards with kits that go onto them and that the cost allows, as indices in the order of
        ids.
        """
        kits, limits = self.pool.kit_arrays, self.pool.board_arrays
        fitting = fitting_boards(self.kind, self.pool, self.scene.integrated, self.power_level)
        typed = np.flatnonzero(np.isin(kits.memory_type, [name for name, _ in self.kind.memory]))
        b, k = (grid.ravel() for grid in np.meshgrid(fitting, typed, indexing="ij"))
        need = self.scene.need
        fits = (kits.sticks[k] + self.pool.floors.later_sticks <= limits.slots[b]) & (
            (kits.gb[k] >= need.memory_gb) | kits.owned[k]
        )
        if need.all_channels:
            fits &= (kits.sticks[k] >= self.kind.channels) | kits.owned[k]
        fits &= kits.memory_type[k] == limits.memory_type[b]
        fits &= np.where(kits.registered[k], limits.registered[b], limits.unbuffered[b])
        fits &= kits.gb[k] <= np.minimum(limits.gb[b], self.kind.max_gb)
        drives = min((choice.cost for choice in self.scene.need.drives), default=0)
        fits &= self.base_cost + self.board_cost[b] + self.pool.kits.cost[k] + drives <= winner.cost
        b, k = b[fits], k[fits]
        if self.pool.boards.brings:
            order = np.lexsort((b, k, self.pool.board_arrays.product[b]))
            return b[order], k[order]
        return b, k

    def _brought(self, board: int) -> tuple[tuple[Kind, str], ...]:
        """The further parts that come with processor, what draws and board."""
        pool = self.pool
        screen = pool.screens[board] if self.card is None else None
        shown_by = screen.parts if screen else ()
        return (
            *pool.processors.brought(self.c),
            *(pool.cards.brought(self.g) if self.card else shown_by),
            *pool.boards.brought(board),
        )

    def _part(self, brought: tuple[Kind, str]) -> Part:
        return self.catalogue.part(brought[1])

    def _right_gain(self, winner: Winner, b: Ints, k: Ints, lanes: Ints) -> NDArray[np.bool_]:
        """Which boards with kits give exactly the winner's gain, at these lanes of each board's
        card slot.
        """
        key = lanes.tobytes()
        if key not in self._right:
            self._right[key] = self._gains_right(winner, b, k, lanes)
        return self._right[key]

    def _gains_right(self, winner: Winner, b: Ints, k: Ints, lanes: Ints) -> NDArray[np.bool_]:
        limits = self.pool.board_arrays
        figures = kit_figures(self.kind.channels, rates(self.kind, b, self.pool), k, self.pool)
        brought = PlatformFigures(*figures, limits.gen[b], lanes[b])
        _, some, back = np.unique(alike(*brought), return_index=True, return_inverse=True)
        chip, card = np.full(some.size, self.c), np.full(some.size, self.g)
        pairing = self.scene.pairing_of(chip, card, brought.of(some))
        _, gain = self.scene.targets.evaluate(pairing, self.scene.integrated)
        return np.asarray(((gain == winner.gain) & self.scene.memory_enough(pairing))[back])

    def _least_shell(self, boards: Ints, kits: Ints, rest: Ints, bays: Bays) -> Ints:
        chip, card = np.full(boards.size, self.c), np.full(boards.size, self.g)
        arrays = self.pool.board_arrays
        places = np.full(boards.size, self.scene.enclosures.bays[bays])
        shell = Shell(
            arrays.form[boards],
            arrays.leads[boards],
            self.pool.kit_arrays.height_level[kits],
            places,
            arrays.cards[boards],
        )
        return self.scene.shell_cost(chip, card, rest, shell)

    def _shell(
        self, inside: Machine, left: int
    ) -> tuple[str | None, str, str, tuple[tuple[Kind, str], ...]]:
        """Cooler, supply, case and the fans that it lacks with their splitters, first by ids, that
        together cost exactly what is left.
        """
        pool = self.pool
        goes = Goes(inside, pool.floors.later, self.wishes)
        full_w = goes.full_w
        (heat,) = pool.airflow.levels(np.array([full_w]))
        with_fans = pool.cases.cost + pool.airflow.extra[heat]
        coolers = self._coolers(inside)
        supplies = [
            (supply, cost)
            for supply, cost in zip(pool.supplies.parts, pool.supplies.cost.tolist(), strict=True)
            if pool.floors.output_w(supply) >= pool.floors.supply_w(full_w)
            and self._leads_do(inside, supply)
        ]
        spent = np.add.outer([cost for _, cost in coolers], [cost for _, cost in supplies])
        cases: dict[int, list[int]] = {}
        for index, cost in enumerate(with_fans.tolist()):
            cases.setdefault(cost, []).append(index)
        for first, second in np.argwhere(np.isin(left - spent, with_fans)):
            cooler, supply = coolers[first][0], supplies[second][0]
            if cooler is not None and not goes.there(COOLER_RULES, "cooler", cooler):
                continue
            if not goes.there(SUPPLY_RULES, "supply", supply):
                continue
            for index in cases[left - int(spent[first, second])]:
                case = pool.cases.parts[index]
                whole = replace(inside, cooler=cooler, supply=supply, case=case)
                if not goes.blocks(CASE_RULES, whole):
                    fans = pool.airflow.packs(index, full_w).ids
                    return cooler.id if cooler else None, supply.id, case.id, fans
        name = inside.mainboard.id if inside.mainboard else "no board"
        raise TableError(f"no cooler, supply and case for {name} cost {left}")

    def _leads_do(self, inside: Machine, supply: PowerSupply) -> bool:
        """Whether a supply's leads for the processor leave no question open."""
        board, floors = inside.mainboard, self.pool.floors
        chips = filter(None, (self.chip, floors.later.chip))
        return board is None or all(
            floors.leads_do(supply, sockets_of(board), chip.sustained_w) for chip in chips
        )

    def _coolers(self, inside: Machine) -> list[tuple[Cooler | None, int]]:
        """Those on sale with their costs; none as well, where the processor's own suffices."""
        shelf: KindPool[Cooler] = self.pool.coolers
        floors = self.pool.floors
        boxed: list[tuple[Cooler | None, int]] = []
        room = floors.cooler_room_dba(self.card)
        if (
            not shelf.fixed
            and floors.boxed_stays(self.chip)
            and floors.quiet(None, self.chip, room)
        ):
            boxed.append((None, 0))
        return boxed + [
            (cooler, cost)
            for cooler, cost in zip(shelf.parts, shelf.cost.tolist(), strict=True)
            if floors.cools(floors.capacity_w(cooler), self.chip)
            and floors.quiet(cooler, self.chip, room)
        ]


class Goes:
    """Which parts go into a machine, as it is and with what is to come; each asked about once."""

    def __init__(self, inside: Machine, later: ToCome, wishes: Wishes) -> None:
        self._later, self._wishes = later, wishes
        self._wishes_later = replace(wishes, watt_limit_w=None, display=None)
        self._looks = self._looks_at(inside)
        self._known = dict[str, bool]()
        self.full_w = max(look.draw.full_w for look in self._looks)

    def _looks_at(self, machine: Machine) -> list[RuleContext]:
        to_come = (then for _, then in self._later.machines(machine))
        return [
            RuleContext(machine, self._wishes),
            *(RuleContext(then, self._wishes_later) for then in to_come),
        ]

    def blocks(self, rules: tuple[Rule, ...], machine: Machine) -> bool:
        """Whether one of the rules blocks the machine or what comes of it."""
        return any(any_blocks(rules, look) for look in self._looks_at(machine))

    def there(self, rules: tuple[Rule, ...], kind: Kind, part: Part) -> bool:
        if part.id not in self._known:
            self._known[part.id] = not self._blocked(rules, kind, part)
        return self._known[part.id]

    def _blocked(self, rules: tuple[Rule, ...], kind: Kind, part: Part) -> bool:
        """A later processor may come with a cooler of its own."""
        if kind == "cooler":
            return self.blocks(rules, self._looks[0].machine.with_part(kind, part))
        return any(any_blocks(rules, look.with_part(kind, part)) for look in self._looks)
