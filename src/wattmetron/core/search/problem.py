"""All that one question's search looks at, as arrays: candidates, targets, platforms, enclosures,
supplies.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.display_link import may_show
from wattmetron.core.compatibility.leads import CardPlugs
from wattmetron.core.compatibility.ports import ROWS, rows_of
from wattmetron.core.frames import work
from wattmetron.core.lazy import Later
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.candidate_pool import NEW_DRIVES, Pool
from wattmetron.core.search.card_to_come import Ints, full_of_card_w, spike_w_of, with_later
from wattmetron.core.search.drive_sets import DriveSet, drive_choices, drive_sets
from wattmetron.core.search.enclosure import Enclosures, Shell
from wattmetron.core.search.equivalents import SPAN, Groups, PlatformFigures
from wattmetron.core.search.platform_classes import Options, PlatformKey, platform_key
from wattmetron.core.search.platforms import Need, platform_options
from wattmetron.core.search.pool_building import build_pool
from wattmetron.core.search.supplies import NO_PLUGS, Supplies
from wattmetron.core.search.target_arrays import Pairing, TargetFloor, Targets
from wattmetron.core.search.thresholds import ints
from wattmetron.core.values.brief import Brief, searched
from wattmetron.core.values.build import Build
from wattmetron.core.values.parts import BOARD_FORMS

ROWS_OF_FORM = ints(ROWS[form] for form in BOARD_FORMS)


class OpenGroups(NamedTuple):
    """Groups of options that pairings can have: the index of the pairing, the group, and how much
    more it costs than the cheapest of its class.
    """

    pairing: Ints
    group: Ints
    more: Ints


class PlatformTables(NamedTuple):
    """Options of each class of processors, the cost of the cheapest, and the options in groups."""

    options: list[Options]
    least: Ints
    groups: Groups

    @classmethod
    def of(cls, keys: list[PlatformKey], pool: Pool, need: Need) -> "PlatformTables":
        options = platform_options(keys, pool, need)
        return cls(options, ints(o.cost[0] if len(o) else NEVER for o in options), Groups(options))


@dataclass(frozen=True, kw_only=True)
class Scene:
    """Everything that one question's search looks at; ``integrated`` scenes have no card.

    ``platforms`` are made when first asked for, for integrated graphics often do not matter;
    ``drives`` are those behind the choices of the platforms, in the order of their ids.
    """

    pool: Pool
    targets: Targets
    integrated: bool
    need: Need
    option_of: Ints
    enclosures: Enclosures
    supplies: Supplies
    watt_limit_w: int | None
    chip_w: Ints
    card_w: Ints
    card_spike_w: Ints
    card_shape: Ints
    card_room: Ints
    card_plugs: Ints
    card_cost: Ints
    chip_cost: Ints
    card_gen: Ints
    card_lanes: Ints
    chip_gen: Ints
    chip_lanes: Ints
    igpu: NDArray[np.bool_]
    allowed: NDArray[np.bool_]
    few_cores: NDArray[np.bool_]
    dear: NDArray[np.bool_]
    card_rows: Ints
    accept_spill: bool
    platforms: Later[PlatformTables]
    drives: Later[list[DriveSet]]

    @property
    def options(self) -> list[Options]:
        return self.platforms().options

    @property
    def least_option(self) -> Ints:
        return self.platforms().least

    @property
    def groups(self) -> Groups:
        return self.platforms().groups

    def grid(self) -> tuple[Ints, Ints]:
        """All pairings that could be built, as flat indices of processors and cards."""
        if self.integrated:
            chips = np.flatnonzero(self.igpu)
            return chips, np.zeros(chips.size, dtype=np.int64)
        cards = np.flatnonzero(self.allowed)
        c, g = np.meshgrid(np.arange(len(self.pool.processors)), cards, indexing="ij")
        goes = self.stand_together(c, g)
        return c[goes], g[goes]

    def stand_together(self, c: Ints, g: Ints) -> NDArray[np.bool_]:
        """Which of these pairings a builder would put together."""
        return ~(self.few_cores[c] & self.dear[g])

    def cost_bound(self, c: Ints, g: Ints) -> Ints:
        """A cost that no build of these pairings undercuts."""
        least = self.least_option
        rest = np.array([o.rest_w.min() if len(o) else 0 for o in self.options])
        by_class = self.option_of[c]
        bound = self.chip_cost[c] + self.card_cost[g] + least[by_class]
        bound += self.shell_cost(c, g, rest[by_class], None)
        bound[~self.stand_together(c, g)] = NEVER
        return np.asarray(np.minimum(bound, NEVER))

    def shell_cost(self, c: Ints, g: Ints, rest_w: Ints, shell: Shell | None) -> Ints:
        """Least cost of supply, cooler and case together; without a shell the best that any option
        could have.
        """
        floors, airflow, later = self.pool.floors, self.pool.airflow, self.pool.floors.later
        now_w = self.chip_w[c] + rest_w + self.card_w[g]
        chip_w = self.chip_w[c]
        if later.chip:
            chip_w = np.maximum(chip_w, later.chip.sustained_w)
        base_w = chip_w + rest_w
        full_w = base_w + with_later(self.card_w[g], later, full_of_card_w)
        needed_w = floors.supply_w(full_w)
        spike_w = base_w + with_later(self.card_spike_w[g], later, spike_w_of)
        kind = self.enclosures.kinds(c, self.card_room[g])
        shape, plugs = self.card_shape[g], self.card_plugs[g]
        heat = airflow.levels(full_w)
        cases = (
            self.enclosures.least(kind, shape, heat)
            if shell is None
            else self.enclosures.cost(kind, shell, shape, heat)
        )
        leads = self.supplies.leads[c, shell.leads] if shell else 0
        least = np.full(c.size, NEVER, dtype=np.int64)
        for sort in self.enclosures.sorts:
            supply = self.supplies.cost(sort, leads, plugs, needed_w, spike_w)
            np.minimum(least, supply + cases[sort], out=least)
        if shell is not None and (self.pool.adapters or self.pool.board_arrays.cards.any()):
            cards = self.pool.adapters + shell.cards
            rows = with_later(self.card_rows[g], later, rows_of)
            hidden = rows + cards > ROWS_OF_FORM[shell.form]
            least[hidden & (cards > 0)] = NEVER
        if self.watt_limit_w is not None:
            least[now_w > self.watt_limit_w] = NEVER
        return least

    def grouped(self, c: Ints, spare: Ints) -> OpenGroups:
        """For every pairing the groups of options of which one costs at most ``spare`` more than
        the cheapest of its class: the place of the pairing, the group, and how much more that is.
        """
        kind = self.option_of[c]
        least = self.least_option[kind]
        index, group = self.groups.of(kind, least + spare)
        return OpenGroups(index, group, self.groups.least[group] - least[index])

    def least_cost(self, c: Ints, g: Ints, group: Ints, bound: Ints, limit: Ints) -> Ints:
        """Least cost of complete builds of pairings with options of a group; ``bound`` is each
        pairing's ``cost_bound``.

        NEVER where that is above ``limit``.
        """
        cost = self.cost(c, g, self.groups.head[group])
        under = np.minimum(cost, limit + 1) - bound + self.least_option[self.option_of[c]]
        index, others = self.groups.dearer(group, under)
        np.minimum.at(cost, index, self.cost(c[index], g[index], others))
        cost[cost > limit] = NEVER
        return cost

    def cost(self, c: Ints, g: Ints, option: Ints) -> Ints:
        """Least cost of complete builds with these processors, cards and options (as ``groups``
        numbers them).
        """
        columns = self.groups.columns
        needs = Shell(*(columns[name][option] for name in Shell._fields))
        shell = self.shell_cost(c, g, columns["rest_w"][option], needs)
        return np.asarray(
            np.minimum(
                self.chip_cost[c] + self.card_cost[g] + columns["cost"][option] + shell,
                NEVER,
            )
        )

    def pairing(self, c: Ints, g: Ints, group: Ints) -> Pairing:
        """What the frame model needs of pairings with options of a group."""
        return self.pairing_of(c, g, self.groups.figures.of(group))

    def best_pairing(self, c: Ints, g: Ints, spare: Ints | int = SPAN) -> Pairing:
        """The same with the best memory and link among the options that cost at most ``spare`` more
        than the cheapest.
        """
        kind = self.option_of[c]
        return self.pairing_of(
            c, g, self.groups.best.of(self.groups.last(kind, self.least_option[kind] + spare))
        )

    def dream_pairing(self, c: Ints, g: Ints) -> Pairing:
        """Pairings with the best figures that any memory on sale has: no option brings more."""
        kits, chips = self.pool.kit_arrays, self.pool.processors.parts
        mts = np.minimum(ints(chip.memory_max_mts for chip in chips), kits.mts.max(initial=0))
        full = work.bandwidth_gbs(ints(chip.memory_channels for chip in chips), mts, 2)
        best = PlatformFigures(
            np.full(c.size, work.latency_ns(kits.cl, kits.mts).min(initial=np.inf)),
            full[c],
            np.full(c.size, kits.gb.max(initial=0.0)),
            np.full(c.size, 99),
            np.full(c.size, 99),
        )
        return self.pairing_of(c, g, best)

    def pairing_of(self, c: Ints, g: Ints, figures: PlatformFigures) -> Pairing:
        latency, bandwidth, gb, gen, lanes = figures
        if self.integrated:
            rated = self.targets.figures.rated_bandwidth[c]
            scale = (bandwidth / rated) ** work.INTEGRATED_EXPONENT
            share = gb * work.INTEGRATED_MEMORY_SHARE
            return Pairing(
                processor=c,
                latency_ns=latency,
                bandwidth_gbs=bandwidth,
                drawing=c,
                link_gbs=bandwidth,
                scale=scale,
                video_memory_gb=share,
            )
        gens = np.minimum(np.minimum(gen, self.chip_gen[c]), self.card_gen[g])
        link = work.link_gbs(
            gens, np.minimum(np.minimum(lanes, self.chip_lanes[c]), self.card_lanes[g])
        )
        return Pairing(
            processor=c,
            latency_ns=latency,
            bandwidth_gbs=bandwidth,
            drawing=g,
            link_gbs=link,
            scale=np.ones(c.size),
        )

    def memory_enough(self, pairing: Pairing) -> NDArray[np.bool_]:
        """For integrated graphics: whether the share of main memory covers every counted target."""
        enough = np.ones(pairing.processor.size, dtype=bool)
        if self.integrated and not self.accept_spill and pairing.video_memory_gb is not None:
            for side in self.targets.sides:
                enough &= side.integrated.over_gb[pairing.drawing] <= pairing.video_memory_gb
        return enough


Scenes = tuple[Scene, ...]


def scenes_for(
    catalogue: Catalogue,
    brief: Brief,
    build: Build,
    with_targets: bool = True,
    new_drives: int = NEW_DRIVES,
    stays: Build | None = None,
    kept_floors: tuple[TargetFloor, ...] = (),
) -> Scenes:
    """``make_scenes``, kept: another budget or aim asks the same scenes."""
    searched_brief = searched(brief)
    return catalogue.keep.once(
        ("scenes", searched_brief, build, with_targets, new_drives, stays, kept_floors),
        lambda: make_scenes(
            catalogue, searched_brief, build, with_targets, new_drives, stays, kept_floors
        ),
    )


def make_scenes(
    catalogue: Catalogue,
    brief: Brief,
    build: Build,
    with_targets: bool = True,
    new_drives: int = NEW_DRIVES,
    stays: Build | None = None,
    kept_floors: tuple[TargetFloor, ...] = (),
) -> Scenes:
    """The scene with cards and, where no card is fixed, the one with integrated graphics; at most
    so many drives are added; ``stays`` as ``build_pool`` has it, ``kept_floors`` as ``Targets``.
    """
    pool = build_pool(catalogue, brief, build, new_drives, stays)
    chips, cards = pool.processors.parts, pool.cards.parts
    question = brief if with_targets else replace(brief, targets=())
    targets = Targets(catalogue, question, chips, cards, kept_floors)
    floors = pool.floors
    choices = drive_choices(pool, floors.storage)
    classes: dict[PlatformKey, int] = {}
    option_of = ints(classes.setdefault(platform_key(chip, pool), len(classes)) for chip in chips)
    enclosures = Enclosures(pool, [choice.sort.bays for choice in choices])
    seats = {
        choice.sort: pool.board_arrays.seats(
            choice.sort.sticks, choice.sort.cabled + choice.sort.bays.discs
        )
        for choice in choices
    }
    plugs = [CardPlugs.of([card] * (1 + floors.later.second)) for card in cards]
    draws_later = not floors.later.second and (floors.later.chip is None or floors.later.chip.draws)
    supplies = Supplies(pool, enclosures.sort_of_supply, plugs)
    allowed = np.array([may_show(card) for card in cards], dtype=bool)
    if not brief.accept_spill:
        for side in targets.sides:
            allowed &= side.cards.over_gb <= 0

    def scene(integrated: bool) -> Scene:
        need = Need(
            memory_gb=floors.memory_gb,
            all_channels=floors.all_channels,
            drives=choices,
            seats=seats,
            bays=enclosures.bays,
            integrated=integrated,
            most_gen=0 if integrated else max((card.pcie_gen for card in cards), default=0),
            most_lanes=0 if integrated else max((card.pcie_lanes for card in cards), default=0),
        )
        drawn = [] if integrated else cards
        return Scene(
            pool=pool,
            targets=targets,
            integrated=integrated,
            need=need,
            option_of=option_of,
            enclosures=enclosures,
            supplies=supplies,
            watt_limit_w=brief.watt_limit_w,
            chip_w=ints(chip.sustained_w for chip in chips),
            card_w=_or_none(full_of_card_w(card) for card in drawn),
            card_spike_w=_or_none(spike_w_of(card) for card in drawn),
            card_shape=ints([0]) if integrated else enclosures.card_shape,
            card_room=ints([0]) if integrated else enclosures.room_of_card,
            card_plugs=ints(
                supplies.plugs[card_plugs] for card_plugs in ([NO_PLUGS] if integrated else plugs)
            ),
            card_cost=ints([0]) if integrated else pool.cards.whole,
            chip_cost=pool.processors.whole,
            card_gen=ints(card.pcie_gen for card in cards),
            card_lanes=ints(card.pcie_lanes for card in cards),
            chip_gen=ints(chip.card_pcie_gen for chip in chips),
            chip_lanes=ints(chip.card_pcie_lanes for chip in chips),
            igpu=np.array(
                [
                    draws_later and chip.draws and (pool.processors.fixed or floors.starts_on(chip))
                    for chip in chips
                ],
                dtype=bool,
            ),
            allowed=allowed,
            few_cores=np.array([floors.has_few_cores(chip) for chip in chips], dtype=bool),
            dear=np.array([card.id in floors.dear_cards for card in drawn] or [False], dtype=bool),
            card_rows=_or_none(rows_of(card) for card in drawn),
            accept_spill=brief.accept_spill,
            platforms=Later(lambda: PlatformTables.of(list(classes), pool, need)),
            drives=Later(lambda: drive_sets(pool, choices, floors.storage)),
        )

    return (scene(False),) if pool.cards.fixed else (scene(False), scene(True))


def _or_none(values: Iterable[int]) -> Ints:
    """One value for each card; a nought where there is none."""
    numbers = ints(values)
    return numbers if numbers.size else ints([0])
