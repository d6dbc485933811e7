"""The least-money question as an integer program for HiGHS: the second formulation of the bench."""

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_matrix

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.floors_of_brief import memory_floor_gb, storage_floor
from wattmetron.core.compatibility.platform import needs_a_step
from wattmetron.core.compatibility.ports import ROWS, rows_of
from wattmetron.core.compatibility.radiator_places import radiator_place
from wattmetron.core.compatibility.room_in_case import card_room_mm, form_goes, tall_mm
from wattmetron.core.frames.work import link_gbs
from wattmetron.core.power.draw import DRIVE_W, STICK_W, rest_w, spike_of_card_w
from wattmetron.core.search.peripherals import NOTHING
from wattmetron.core.search.platform_classes import platform_key
from wattmetron.core.search.platforms import kit_figures, rates
from wattmetron.core.search.pool_building import build_pool
from wattmetron.core.search.target_arrays import Pairing, Targets
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import BOARD_FORMS


class Program:
    """Variables and rows of an integer program, gathered sparsely."""

    def __init__(self):
        self.cost, self.upper = [], []
        self.rows, self.columns, self.values, self.low, self.high = [], [], [], [], []

    def add(self, cost, upper=1):
        self.cost.append(float(cost))
        self.upper.append(upper)
        return len(self.cost) - 1

    def row(self, terms, low=-np.inf, high=np.inf):
        place = len(self.low)
        for column, value in terms:
            self.rows.append(place)
            self.columns.append(column)
            self.values.append(float(value))
        self.low.append(low)
        self.high.append(high)

    def forbid(self, first, second, clash):
        """No two that clash, out of two groups of which one each is taken at most."""
        for i, x in enumerate(first):
            bad = [(y, 1) for j, y in enumerate(second) if clash(i, j)]
            if bad:
                self.row([(x, 1), *bad], high=1)

    def solve(self):
        matrix = csr_matrix(
            (self.values, (self.rows, self.columns)), shape=(len(self.low), len(self.cost))
        )
        return milp(
            np.array(self.cost),
            constraints=LinearConstraint(matrix, self.low, self.high),
            integrality=np.ones(len(self.cost)),
            bounds=Bounds(0, np.array(self.upper)),
            options={"mip_rel_gap": 0.0},
        )


def least_money(catalogue: Catalogue, brief: Brief) -> int | None:
    """Least cost in minor units of a build with a card that meets every target; None where there is
    none.
    """
    pool = build_pool(catalogue, brief, Build())
    chips, cards = pool.processors.parts, pool.cards.parts
    boards, kits, drives = pool.boards.parts, pool.kits.parts, pool.drives.parts
    coolers, supplies, cases = pool.coolers.parts, pool.supplies.parts, pool.cases.parts
    targets = Targets(catalogue, brief, chips, cards)
    program = Program()
    chip_x = [program.add(cost) for cost in pool.processors.whole]
    card_x = [program.add(cost) for cost in pool.cards.cost]
    board_x = [program.add(cost) for cost in pool.boards.whole]
    ways = pool.boards.brings or (NOTHING,) * len(boards)
    kit_x = [program.add(cost) for cost in pool.kits.cost]
    drive_x = [program.add(cost, 3) for cost in pool.drives.cost]
    cooler_x = [program.add(cost) for cost in pool.coolers.cost]
    supply_x = [program.add(cost) for cost in pool.supplies.cost]
    case_x = [program.add(cost) for cost in pool.cases.cost]
    for group in (chip_x, card_x, board_x, kit_x, supply_x, case_x):
        program.row([(x, 1) for x in group], 1, 1)
    program.row([(x, 1) for x in cooler_x], high=1)
    _adapters(program, boards, cards, board_x, card_x, [way.cards for way in ways])
    _frames(program, targets, pool, chips, cards, boards, kits, chip_x, card_x, board_x, kit_x)
    _platform(
        program, brief, catalogue, chips, boards, kits, drives, chip_x, board_x, kit_x, drive_x
    )
    _enclosure(
        program,
        brief,
        chips,
        cards,
        boards,
        coolers,
        supplies,
        cases,
        chip_x,
        card_x,
        board_x,
        cooler_x,
        supply_x,
        case_x,
    )
    _inside(program, pool, card_x, kit_x, drive_x, cooler_x, supply_x, case_x)
    _floors(program, brief, catalogue, pool, chip_x, board_x, kit_x, drive_x)
    if brief.enough_threads:
        program.forbid(
            chip_x,
            card_x,
            lambda c, g: chips[c].cores < 6 and pool.cards.cost[g] >= 40_000,
        )
    _heat(program, brief, catalogue, pool, chip_x, card_x, kit_x, drive_x, case_x)
    _power(
        program,
        brief,
        chips,
        cards,
        boards,
        kits,
        drives,
        supplies,
        chip_x,
        card_x,
        board_x,
        kit_x,
        drive_x,
        supply_x,
    )
    found = program.solve()
    return round(found.fun) if found.success else None


def _frames(program, targets, pool, chips, cards, boards, kits, chip_x, card_x, board_x, kit_x):
    """Pairs of processor and card, and of board and kit; a pair of the first kind needs a quick
    enough second.
    """
    fitting = [
        (b, k)
        for b, board in enumerate(boards)
        for k, kit in enumerate(kits)
        if kit.memory_type == board.memory_type
        and kit.sticks <= board.memory_slots
        and kit.total_gb <= board.memory_max_gb
        and (board.registered or not kit.registered)
    ]
    pair_x = {pair: program.add(0) for pair in fitting}
    for b, x in enumerate(board_x):
        program.row([(pair_x[pair], 1) for pair in fitting if pair[0] == b] + [(x, -1)], 0, 0)
    for k, x in enumerate(kit_x):
        program.row([(pair_x[pair], 1) for pair in fitting if pair[1] == k] + [(x, -1)], 0, 0)
    chosen = {}
    for c, chip in enumerate(chips):
        kind = platform_key(chip, pool).kind
        usable = [
            pair
            for pair in fitting
            if (boards[pair[0]].socket, boards[pair[0]].memory_type)
            == (chip.socket, chip.memory_type)
            and kits[pair[1]].total_gb <= kind.max_gb
        ]
        if not usable:
            continue
        own = np.array([b for b, _ in usable])
        most = rates(kind, own, pool)
        figures = kit_figures(kind.channels, most, np.array([k for _, k in usable]), pool)
        gens = np.array([min(boards[b].card_pcie_gen, chip.card_pcie_gen) for b in own])
        lanes = np.array([min(boards[b].card_pcie_lanes, chip.card_pcie_lanes) for b in own])
        speeds, which = np.unique(
            np.stack([figures.latency_ns, figures.bandwidth_gbs, gens, lanes]),
            axis=1,
            return_inverse=True,
        )
        for g, card in enumerate(cards):
            if any(side.cards.over_gb[g] > 0 for side in targets.sides):
                continue
            n = speeds.shape[1]
            pairing = Pairing(
                processor=np.full(n, c),
                latency_ns=speeds[0],
                bandwidth_gbs=speeds[1],
                drawing=np.full(n, g),
                link_gbs=link_gbs(
                    np.minimum(speeds[2], card.pcie_gen).astype(int),
                    np.minimum(speeds[3], card.pcie_lanes),
                ),
                scale=np.ones(n),
            )
            met, _ = targets.evaluate(pairing, False)
            good = met == targets.weight
            if good.any():
                chosen[c, g] = program.add(0)
                if not good.all():
                    terms = [
                        (pair_x[pair], -1)
                        for pair, at in zip(usable, which.tolist(), strict=True)
                        if good[at]
                    ]
                    program.row([(chosen[c, g], 1), *terms], high=0)
    for c, x in enumerate(chip_x):
        program.row([(y, 1) for (a, _), y in chosen.items() if a == c] + [(x, -1)], 0, 0)
    for g, x in enumerate(card_x):
        program.row([(y, 1) for (_, b), y in chosen.items() if b == g] + [(x, -1)], 0, 0)


def _platform(
    program, brief, catalogue, chips, boards, kits, drives, chip_x, board_x, kit_x, drive_x
):
    for trait in ("socket", "memory_type"):
        for value in {getattr(part, trait) for part in (*chips, *boards)}:
            program.row(
                [
                    (x, 1)
                    for x, chip in zip(chip_x, chips, strict=True)
                    if getattr(chip, trait) == value
                ]
                + [
                    (x, -1)
                    for x, board in zip(board_x, boards, strict=True)
                    if getattr(board, trait) == value
                ],
                0,
                0,
            )
    program.row(
        [(x, kit.total_gb) for x, kit in zip(kit_x, kits, strict=True)],
        low=memory_floor_gb(catalogue, brief),
    )
    program.row(
        [(x, chip.memory_max_gb) for x, chip in zip(chip_x, chips, strict=True)]
        + [(x, -kit.total_gb) for x, kit in zip(kit_x, kits, strict=True)],
        low=0,
    )
    program.row([(x, 1) for x in drive_x], 1, 3)
    least_w = 1.0 if brief.reserve_percent else 1 / 1.1
    program.forbid(
        chip_x, board_x, lambda c, b: over(chips[c].sustained_w * least_w, boards[b].processor_w)
    )
    _shared_ports(program, boards, drives, board_x, drive_x)
    for in_slot, places in ((True, "m2_slots"), (False, "sata_ports")):
        program.row(
            [(x, getattr(board, places)) for x, board in zip(board_x, boards, strict=True)]
            + [
                (x, -1)
                for x, drive in zip(drive_x, drives, strict=True)
                if stands_in_slot(drive) == in_slot
            ],
            low=0,
        )


def _adapters(program, boards, cards, board_x, card_x, taken):
    """An adapter that is a card finds a slot that is stated, and a row that no card hides."""
    for x, board, count in zip(board_x, boards, taken, strict=True):
        slots = -1 if board.short_slots is None else board.short_slots
        if count and slots + max(0, (board.card_slots or 0) - 1) < count:
            program.row([(x, 1)], high=0)
    program.forbid(
        board_x,
        card_x,
        lambda b, g: taken[b] and rows_of(cards[g]) + taken[b] > ROWS[boards[b].form_factor],
    )


def stands_in_slot(drive):
    return drive.size == "M.2" or drive.interface == "M.2 NVMe"


def _shared_ports(program, boards, drives, board_x, drive_x):
    """Drives on cables need the ports that so many drives in slots leave, best slots first."""
    sticks = [program.add(0) for _ in range(4)]
    program.row([(x, 1) for x in sticks], 1, 1)
    in_slots = [(x, 1) for x, own in zip(drive_x, drives, strict=True) if stands_in_slot(own)]
    program.row([*in_slots, *((x, -n) for n, x in enumerate(sticks))], 0, 0)
    cables = [(x, 1) for x, own in zip(drive_x, drives, strict=True) if not stands_in_slot(own)]
    for x, board in zip(board_x, boards, strict=True):
        lost = sorted((*board.m2_disables_sata, *[0] * board.m2_slots)[: board.m2_slots])
        for n, used in enumerate(sticks[1:], start=1):
            left = max(0, board.sata_ports - sum(lost[:n]))
            program.row([*cables, (x, 3), (used, 3)], high=left + 6)


def over(size, limit):
    """Whether a size passes a limit; what is not known passes nothing."""
    return size is not None and limit is not None and size > limit


def _inside(program, pool, card_x, kit_x, drive_x, cooler_x, supply_x, case_x):
    """What clashes in the case two by two, radiators in front of cards, and places for drives."""
    cards, kits, cases = pool.cards.parts, pool.kits.parts, pool.cases.parts
    coolers, supplies, drives = pool.coolers.parts, pool.supplies.parts, pool.drives.parts
    program.forbid(
        card_x,
        case_x,
        lambda g, k: (
            over(tall_mm(cards[g]), cases[k].card_height_mm)
            or over(cards[g].thickness_mm, cases[k].card_thickness_mm)
        ),
    )
    program.forbid(
        supply_x, case_x, lambda s, k: over(supplies[s].length_mm, cases[k].supply_length_mm)
    )
    program.forbid(
        kit_x,
        cooler_x,
        lambda m, a: (
            coolers[a].radiator_mm is None
            and over(kits[m].height_mm, coolers[a].memory_clearance_mm)
        ),
    )
    program.forbid(
        cooler_x,
        case_x,
        lambda a, k: (
            coolers[a].radiator_mm is not None
            and radiator_place(cases[k], coolers[a].radiator) is None
        ),
    )
    for a, cooler in enumerate(coolers):
        for k, case in enumerate(cases):
            room = card_room_mm(Machine(case=case, cooler=cooler), case)
            long = [
                (x, 1)
                for x, card in zip(card_x, cards, strict=True)
                if room < card.length_mm <= case.card_length_mm
            ]
            if long:
                program.row([*long, (cooler_x[a], 1), (case_x[k], 1)], high=2)
    for sizes, places in (
        (("3.5 inch",), lambda case: case.places_35),
        (("2.5 inch", "3.5 inch"), lambda case: case.places_25 + case.places_35),
    ):
        own = [(x, 1) for x, drive in zip(drive_x, drives, strict=True) if drive.size in sizes]
        rooms = [
            (x, -(3 if case.places_25 is None or case.places_35 is None else places(case)))
            for x, case in zip(case_x, cases, strict=True)
        ]
        program.row([*own, *rooms], high=0)


def _enclosure(
    program,
    brief,
    chips,
    cards,
    boards,
    coolers,
    supplies,
    cases,
    chip_x,
    card_x,
    board_x,
    cooler_x,
    supply_x,
    case_x,
):
    for form in BOARD_FORMS:
        program.row(
            [(x, 1) for x, case in zip(case_x, cases, strict=True) if form in case.board_forms]
            + [
                (x, -1)
                for x, board in zip(board_x, boards, strict=True)
                if board.form_factor == form
            ],
            low=0,
        )
    for form in dict.fromkeys(supply.form for supply in supplies):
        program.row(
            [(x, 1) for x, case in zip(case_x, cases, strict=True) if form_goes(form, case)]
            + [
                (x, -1) for x, supply in zip(supply_x, supplies, strict=True) if supply.form == form
            ],
            low=0,
        )
    program.row(
        [(x, case.card_length_mm) for x, case in zip(case_x, cases, strict=True)]
        + [(x, -card.length_mm) for x, card in zip(card_x, cards, strict=True)],
        low=0,
    )
    program.row(
        [(x, case.cooler_height_mm) for x, case in zip(case_x, cases, strict=True)]
        + [(x, -cooler.height_mm) for x, cooler in zip(cooler_x, coolers, strict=True)],
        low=0,
    )
    factor = 100 + brief.reserve_percent
    boxed = [
        (program.add(0), x, chip)
        for x, chip in zip(chip_x, chips, strict=True)
        if (chip.boxed_cooler_w or 0) * 100 >= chip.sustained_w * factor
        and (chip.boxed_height_mm is not None or not brief.boxed_judged)
        and brief.cooling != "liquid"
    ]
    for own, x, _ in boxed:
        program.row([(own, 1), (x, -1)], high=0)
    program.row([(x, 1) for x in cooler_x] + [(own, 1) for own, _, _ in boxed], low=1)
    program.forbid(
        [own for own, _, _ in boxed],
        case_x,
        lambda i, k: over(boxed[i][2].boxed_height_mm, cases[k].cooler_height_mm),
    )
    program.row(
        [(x, 100 * cooler.capacity_w) for x, cooler in zip(cooler_x, coolers, strict=True)]
        + [(x, -factor * chip.sustained_w) for x, chip in zip(chip_x, chips, strict=True)]
        + [(own, factor * chip.sustained_w) for own, _, chip in boxed],
        low=0,
    )
    for socket in {chip.socket for chip in chips}:
        program.row(
            [
                (x, 1)
                for x, cooler in zip(cooler_x, coolers, strict=True)
                if socket not in cooler.sockets
            ]
            + [(x, 1) for x, chip in zip(chip_x, chips, strict=True) if chip.socket == socket],
            high=1,
        )


def _floors(program, brief, catalogue, pool, chip_x, board_x, kit_x, drive_x):
    """Storage by kind, memory in all channels, no borrowed processor for the first start."""
    chips, boards, kits = pool.processors.parts, pool.boards.parts, pool.kits.parts
    _roles(program, pool.drives.parts, drive_x, storage_floor(catalogue, brief))
    if brief.all_channels:
        program.forbid(chip_x, kit_x, lambda c, m: kits[m].sticks < chips[c].memory_channels)
    if brief.starts_as_bought:
        program.forbid(
            chip_x, board_x, lambda c, b: needs_a_step(chips[c].firmware_family, boards[b])
        )


def _roles(program, drives, drive_x, need):
    """The system on one drive; games and bulk on the rest, each copy of a drive for one of them or,
    where roles are not apart, wherever there is room.
    """
    kinds = ["hard disk", "SSD", "NVMe SSD"]
    level = [kinds.index(drive.kind) for drive in drives]
    program.row(
        [(x, own.capacity_gb) for x, own in zip(drive_x, drives, strict=True)], low=need.all_gb
    )
    system = []
    for n, (x, drive) in enumerate(zip(drive_x, drives, strict=True)):
        able = level[n] >= need.system.slowest and drive.capacity_gb >= need.system.gb
        system.append(program.add(0, 1 if able else 0))
        program.row([(system[n], 1), (x, -1)], high=0)
    program.row([(x, 1) for x in system], 1, 1)
    games = [program.add(0, 3) for _ in drives] if need.apart else drive_x
    bulk = [program.add(0, 3) for _ in drives] if need.apart else drive_x
    for at in range(len(drives)) if need.apart else ():
        program.row([(drive_x[at], 1), (system[at], -1), (games[at], -1), (bulk[at], -1)], 0, 0)
    for place in range(3):
        of_bulk = need.bulk.gb if place <= need.bulk.slowest else 0
        own = [n for n in range(len(drives)) if level[n] >= place]
        taken = [(system[n], -need.system.gb) for n in own]
        asked = (
            [(games, need.games[place], []), (bulk, of_bulk, [])]
            if need.apart
            else [(drive_x, need.games[place] + of_bulk, taken)]
        )
        for count, gb, less in asked:
            program.row([(count[n], drives[n].capacity_gb) for n in own] + less, low=gb)


def _joining(catalogue, book, fans):
    """Least cost of splitters of one kind with an end for each fan and for one more each."""
    costs = [
        cost * -(-fans // (part.joins - 1))
        for part in catalogue.by_kind["splitter"]
        if (cost := book.cost(part.id)) is not None
    ]
    return min(costs, default=0)


def _heat(program, brief, catalogue, pool, chip_x, card_x, kit_x, drive_x, case_x):
    """Every case with the numbers of fans that it could get, at the least price of so many."""
    if not brief.heat_carried:
        return
    book = catalogue.prices(brief.region, brief.may_buy)
    fans = [
        (fan, book.cost(fan.id))
        for fan in catalogue.by_kind["fan"]
        if fan.size_mm == 120
        and book.cost(fan.id) is not None
        and (brief.part_cap_minor is None or book.cost(fan.id) <= brief.part_cap_minor)
    ]
    carried = []
    for x, case in zip(case_x, pool.cases.parts, strict=True):
        places = case.fan_places
        placed = case.fans_included if places is None else min(case.fans_included, places)
        air = {"mesh": 340, "side vents": 250, "closed": 160}[case.airflow]
        carried.append((x, air + 90 * placed))
        more = []
        for count in range(1, (places or placed) - placed + 1):
            costs = [
                cost * packs + _joining(catalogue, book, packs * fan.pack)
                for fan, cost in fans
                for packs in [-(-count // fan.pack)]
                if -(-count // fan.pack) * fan.pack <= places - placed
            ]
            if costs:
                more.append((program.add(min(costs)), 90 * count))
        if more:
            program.row([(own, 1) for own, _ in more] + [(x, -1)], high=0)
            carried += more
    drawn = [(x, -chip.sustained_w) for x, chip in zip(chip_x, pool.processors.parts, strict=True)]
    drawn += [(x, -card.board_power_w) for x, card in zip(card_x, pool.cards.parts, strict=True)]
    drawn += [(x, -STICK_W * kit.sticks) for x, kit in zip(kit_x, pool.kits.parts, strict=True)]
    drawn += [
        (x, -DRIVE_W[drive.interface]) for x, drive in zip(drive_x, pool.drives.parts, strict=True)
    ]
    program.row([*carried, *drawn], low=rest_w(0, 0, 0))


def _power(
    program,
    brief,
    chips,
    cards,
    boards,
    kits,
    drives,
    supplies,
    chip_x,
    card_x,
    board_x,
    kit_x,
    drive_x,
    supply_x,
):
    common = [(x, -chip.sustained_w) for x, chip in zip(chip_x, chips, strict=True)]
    common += [(x, -STICK_W * kit.sticks) for x, kit in zip(kit_x, kits, strict=True)]
    common += [(x, -DRIVE_W[drive.interface]) for x, drive in zip(drive_x, drives, strict=True)]
    base = rest_w(0, 0, 0)
    full = common + [(x, -card.board_power_w) for x, card in zip(card_x, cards, strict=True)]
    spike = common + [
        (x, -spike_of_card_w(card.board_power_w, card.spike_factor))
        for x, card in zip(card_x, cards, strict=True)
    ]
    if brief.watt_limit_w is not None:
        program.row(full, low=base - brief.watt_limit_w)
    share = brief.headroom_percent * (100 + brief.reserve_percent) / 100
    program.row(
        [(x, 100 * supply.watts) for x, supply in zip(supply_x, supplies, strict=True)]
        + [(x, share * w) for x, w in full],
        low=share * base,
    )
    program.row(
        [(x, supply.spike_w) for x, supply in zip(supply_x, supplies, strict=True)] + spike,
        low=base,
    )
    for plug in ("pcie_8pin", "pcie_16pin"):
        program.row(
            [(x, getattr(supply, plug)) for x, supply in zip(supply_x, supplies, strict=True)]
            + [(x, -getattr(card, plug)) for x, card in zip(card_x, cards, strict=True)],
            low=0,
        )
    if brief.starts_as_bought:
        program.row(
            [(x, supply.cpu_8pin) for x, supply in zip(supply_x, supplies, strict=True)]
            + [(x, -board.cpu_8pin) for x, board in zip(board_x, boards, strict=True)],
            low=0,
        )
