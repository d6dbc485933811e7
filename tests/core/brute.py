"""The best build by trying every one: an independent formulation for small catalogues."""

from dataclasses import dataclass, replace
from itertools import combinations_with_replacement, product

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.rule_wishes import Wishes, wishes_of
from wattmetron.core.compatibility.rules import blocks, judged
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.frames.rate_table import reliable_table
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.draw import draw
from wattmetron.core.power.tuning import run_at
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import KINDS
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.trust import TRUST_FLOORS, trust_of

TOGETHER = (("wireless", "capture"), ("optical",), ("system", "display", "input"))
"""Kinds whose parts are compared together where costs are equal."""


@dataclass(frozen=True)
class Tried:
    cost: int
    met: int
    gain: int
    ids: tuple
    reached: tuple = ()
    """ln r in millionths and the state of each counted target."""

    @property
    def order(self) -> tuple:
        """In which order equal ones are gone through."""
        adapters, discs, _ = self.ids[9]
        return (self.ids[:4], adapters, self.ids[4], discs, self.ids[5:9])


def worth(catalogue, brief, part_id):
    """What using an owned part costs where the budget counts on its sale: as said, else seven
    tenths of the cheapest used price.
    """
    if not brief.counts_resale or part_id in brief.stays:
        return 0
    said = {own.part: own.minor for own in brief.resale}
    used = [
        offer.price_minor
        for offer in catalogue.offers
        if (offer.part_id, offer.region, offer.condition) == (part_id, brief.region, "used")
    ]
    return said.get(part_id, min(used) * 7 // 10 if used else 0)


def money_for(catalogue, brief, kept):
    """What the parts of a build may cost: owned parts that are not kept may all be sold, and are
    bought back at what they bring.
    """
    there = list(brief.owned)
    for _, part_id in kept.ids():
        if part_id in there:
            there.remove(part_id)
    sold = sum(
        worth(catalogue, brief, part_id)
        for part_id in there
        if kind_of(catalogue.part(part_id)) in set(KINDS) - {"storage"}
    )
    return brief.budget_high_minor - brief.extras_minor + sold


def every_build(catalogue: Catalogue, brief: Brief, kept: Build = Build()) -> list[Tried]:  # noqa: B008
    """All complete fitting builds with cost, weight met and U."""
    book = catalogue.prices(brief.region, brief.may_buy)
    fixed = {}
    for _, part_id in kept.ids():
        cost = 0 if part_id in brief.owned else book.cost(part_id) or 0
        fixed.setdefault(kind_of(catalogue.part(part_id)), []).append(
            (catalogue.part(part_id), cost)
        )
    for part_id in brief.owned:
        kind = kind_of(catalogue.part(part_id))
        stays = kind == "storage" or (part_id in brief.stays and kind not in fixed)
        if part_id not in kept.of(kind) and stays:
            fixed.setdefault(kind, []).append((catalogue.part(part_id), 0))

    def shelf(kind):
        if kind in fixed and kind != "storage":
            return fixed[kind]
        priced = [(part, book.cost(part.id)) for part in catalogue.by_kind[kind]]
        stays = tuple(part for own in fixed.values() for part, _ in own)
        mine = {part_id for part_id in brief.owned if kind_of(catalogue.part(part_id)) == kind}
        mine = mine if kind != "storage" else set()
        bought = [
            (part, cost)
            for part, cost in priced
            if cost is not None and part.id not in mine and may_be_bought(brief, part, cost, stays)
        ]
        there = [(catalogue.part(part_id), worth(catalogue, brief, part_id)) for part_id in mine]
        return sorted(bought + there, key=lambda priced_part: priced_part[0].id)

    others = tuple(
        catalogue.part(part_id) for kind, part_id in kept.added if kind not in ("fan", "splitter")
    )

    def at(*parts, added=()):
        own = dict(zip(KINDS, parts, strict=False))
        return run_at(Machine(**own, added=(*others, *added)), brief.clocks)

    nothing = [(None, 0)]
    counted = [target for target in brief.targets if target.weight]
    beside = sum({"streaming": 4, "voice and browser": 4}.get(item, 0) for item in brief.work)
    memory_gb = max(
        [brief.memory_gb, beside, *(catalogue.game(t.game_id).memory_gb + beside for t in counted)]
    )
    memory_gb = max(
        [memory_gb, *(32 for item in brief.work if item in ("video editing", "many things open"))]
    )
    if "memory" in fixed:
        memory_gb = min(memory_gb, fixed["memory"][0][0].total_gb)
    asked = Asked(catalogue, brief, fixed)
    further = Others(catalogue, brief, others, shelf)
    own = fixed.get("storage", [])
    new = [()] + [
        combination
        for n in (1, 2, 3)
        for combination in combinations_with_replacement(shelf("storage"), n)
    ]
    drive_sets = [[*own, *extra] for extra in new]
    drive_sets = [s for s in drive_sets if s and asked.stores([drive for drive, _ in s])]
    if own in drive_sets:
        drive_sets = [own]
    fans = [
        (fan, 0 if "fan" in brief.outside else cost)
        for fan, cost in sorted(_priced_fans(catalogue, book), key=lambda pair: pair[0].id)
        if fan.size_mm == 120
        and may_be_bought(brief, fan, cost, tuple(p for row in fixed.values() for p, _ in row))
    ]
    there = sum(catalogue.part(part_id).pack for part_id in kept.of("fan"))
    joining = [
        (part.joins, 0 if "splitter" in brief.outside else cost, part.id)
        for part in sorted(catalogue.by_kind["splitter"], key=lambda part: part.id)
        if (cost := book.cost(part.id)) is not None
        and may_be_bought(brief, part, cost, tuple(p for row in fixed.values() for p, _ in row))
    ]
    cards = shelf("graphics") if "graphics" in fixed else shelf("graphics") + nothing
    coolers = shelf("cooler") if "cooler" in fixed else shelf("cooler") + nothing
    supplies, cases = shelf("supply"), shelf("case")
    found = []
    for chip, chip_cost in shelf("processor"):
        for card, card_cost in cards:
            for board, board_cost in shelf("mainboard"):
                if chip.threads < asked.threads and chip.id not in brief.owned:
                    continue
                bare = at(chip, card, board)
                if _clash(bare):
                    continue
                if not asked.starts(chip, card, board):
                    continue
                if not asked.stand_together(bare.processor, card, board):
                    continue
                for kit, kit_cost in shelf("memory"):
                    half = at(chip, card, board, kit)
                    mine = kit.id in brief.owned
                    if (kit.total_gb < memory_gb and not mine) or _clash(half):
                        continue
                    if asked.channels and kit.sticks < chip.memory_channels and not mine:
                        continue
                    if not asked.takes_kit(board, kit):
                        continue
                    judged = {}
                    if _judged(catalogue, brief, half) is None:
                        continue
                    so_far = chip_cost + card_cost + board_cost + kit_cost
                    for added, ids, price in further.ways(chip, card, board):
                        whole = at(chip, card, board, kit, added=added)
                        if _clash(whole):
                            continue
                        found += _ended(
                            catalogue,
                            brief,
                            asked,
                            whole,
                            (so_far + price, ids),
                            _shells(brief, whole, drive_sets, coolers, supplies, cases),
                            (fans, there, joining),
                            judged,
                        )
    return found


def _ended(catalogue, brief, asked, half, so_far, shells, fans, judged):
    """Whole builds around processor, card, board and memory with what comes with them."""
    chip, card, found = half.processor, half.graphics, []
    for drives, cooler, supply, case, cost in shells:
        if not asked.cools(chip, cooler) or not asked.quiet(chip, card, cooler):
            continue
        whole = replace(half, storage=tuple(drive for drive, _ in drives))
        if not asked.led(replace(whole, supply=supply)):
            continue
        if whole.storage not in judged:
            judged[whole.storage] = _judged(catalogue, brief, whole)
        packs = asked.fans(whole, supply, case, *fans)
        if packs is None:
            continue
        if not asked.takes_later(replace(whole, cooler=cooler, supply=supply, case=case)):
            continue
        ids = (
            chip.id,
            card.id if card else "",
            half.mainboard.id,
            half.memory.id,
            tuple(d.id for d, _ in drives),
            cooler.id if cooler else "",
            supply.id,
            case.id,
            packs[1],
            so_far[1],
        )
        met, gain, reached = judged[whole.storage]
        found.append(Tried(so_far[0] + cost + packs[0], met, gain, ids, reached))
    return found


class Others:
    """Every way to what a brief wants besides the eight kinds."""

    def __init__(self, catalogue, brief, stays, shelf):
        self.brief, self.catalogue, self.stays = brief, catalogue, stays
        there = {kind_of(part) for part in stays}
        self.wireless = brief.wireless and "wireless" not in there
        self.wanted = [kind for kind in brief.buys if kind not in there]
        book = catalogue.prices(brief.region, brief.may_buy)
        self.on_sale = {}
        for kind in ("wireless", "capture", "optical", "system", "display", "input"):
            own = [
                (part, cost)
                for part in catalogue.by_kind[kind]
                if (cost := book.cost(part.id)) is not None
                and part.id not in brief.owned
                and may_be_bought(brief, part, cost, stays)
            ]
            own += [
                (catalogue.part(part_id), 0)
                for part_id in brief.owned
                if kind_of(catalogue.part(part_id)) == kind
            ]
            self.on_sale[kind] = sorted(own, key=lambda row: (row[1], row[0].id))

    def ways(self, chip, card, board):
        """(parts, ids, cost) of every way, the cheapest system, display and input only."""
        singles = [self._system(chip), self._screen(card or board), self._inputs()]
        if None in singles:
            return
        radios = [()]
        if self.wireless and board.wireless in ("", "none"):
            known = {"USB", "PCIe x1"} if board.short_slots is not None else {"USB"}
            radios = [(own,) for own in self.on_sale["wireless"] if own[0].via in known]
        recorders = [()]
        if "capture" in self.wanted:
            slots = {"USB"} | ({"PCIe x1"} if board.short_slots is not None else set())
            slots |= {"PCIe x4"} if None not in (board.short_slots, board.card_slots) else set()
            size = self.brief.display
            recorders = [
                (own,)
                for own in self.on_sale["capture"]
                if own[0].via in slots
                and (own[0].width_px >= size.width_px and own[0].height_px >= size.height_px)
                and own[0].refresh_hz >= min(60, size.refresh_hz)
            ]
        discs = [()]
        if "optical" in self.wanted:
            discs = [(own,) for own in self.on_sale["optical"]]
        rest = [own for single in singles for own in single]
        for radio, recorder in product(radios, recorders):
            for disc in discs:
                rows = (*radio, *recorder, *disc, *rest)
                ids = tuple(
                    tuple(
                        part.id
                        for kind in kinds
                        for part in (*self.stays, *(part for part, _ in rows))
                        if kind_of(part) == kind
                    )
                    for kinds in TOGETHER
                )
                cost = sum(0 if kind_of(p) in self.brief.outside else cost for p, cost in rows)
                yield tuple(part for part, _ in rows), ids, cost

    def _system(self, chip):
        if "system" not in self.wanted:
            return ()
        lists = [self.catalogue.published.get(target.game_id) for target in self.brief.targets]
        named = [self.brief.system, *(own.tiers[0].system for own in lists if own)]
        least = max([int(text.split()[1]) for text in named if text], default=0)
        able = [
            own
            for own in self.on_sale["system"]
            if chip.design in (own[0].designs or (chip.design,))
            and int(own[0].family.split()[1]) >= least
        ]
        return able[:1] or None

    def _screen(self, source):
        if "display" not in self.wanted:
            return ()
        rates = {"HDMI 1.4": 8.16, "HDMI 2.0": 14.4, "DisplayPort 1.4": 25.92, "HDMI 2.1": 42.6}
        asked = self.brief.display
        able = []
        for screen, cost in self.on_sale["display"]:
            lines = screen.height_px / (1 / screen.refresh_hz - 460e-6)
            needed = 24 * (screen.width_px + 80) * lines / 1e9
            if (
                (screen.width_px, screen.height_px) == (asked.width_px, asked.height_px)
                and screen.refresh_hz >= asked.refresh_hz
                and any(
                    output.split()[0] == plug.split()[0]
                    and min(rates.get(output, 999), rates[plug]) >= needed
                    for output in source.outputs
                    for plug in screen.inputs
                )
            ):
                able.append((screen, cost))
        return able[:1] or None

    def _inputs(self):
        if "input" not in self.wanted:
            return ()
        of = {
            what: [row for row in self.on_sale["input"] if row[0].what == what][:1]
            for what in ("keyboard and mouse", "keyboard", "mouse")
        }
        ways = [of["keyboard and mouse"]] if of["keyboard and mouse"] else []
        if of["keyboard"] and of["mouse"]:
            ways.append([*of["keyboard"], *of["mouse"]])
        free = "input" in self.brief.outside
        return min(
            ways,
            key=lambda way: (0 if free else sum(c for _, c in way), [p.id for p, _ in way]),
            default=None,
        )


def _priced_fans(catalogue, book):
    for fan in catalogue.by_kind["fan"]:
        if (cost := book.cost(fan.id)) is not None:
            yield fan, cost


class Asked:
    """The floors of a proposal, written out for one machine after the other."""

    def __init__(self, catalogue, brief, fixed):
        stay = {kind for kind in fixed if kind != "storage"}
        lists = [catalogue.published.get(target.game_id) for target in brief.targets]
        self.brief = brief
        self.loudest = (
            None if {"processor", "cooler", "graphics"} <= stay else brief.noise_limit_dba
        )
        self.channels = brief.all_channels and "memory" not in stay
        self.threads = max(
            (
                catalogue.game(target.game_id).threads or 12
                for target in brief.targets
                if target.weight and brief.enough_threads and "processor" not in stay
            ),
            default=0,
        )
        self.first_start = brief.starts_as_bought and not {"processor", "mainboard"} <= stay
        self.heat = brief.heat_carried and not {"processor", "graphics", "case"} <= stay
        self.cooler_factor = 100 if {"processor", "cooler"} <= stay else 100 + brief.reserve_percent
        self.supply_factor = (
            100 if {"processor", "graphics", "supply"} <= stay else 100 + brief.reserve_percent
        )
        levels = [float(own.tiers[0].api.split()[1]) for own in lists if own and own.tiers[0].api]
        stated = any(
            getattr(part, "apis", ()) or getattr(part, "igpu_apis", ())
            for part in catalogue.parts.values()
        )
        self.level = max(levels, default=0) if brief.games_start and stated else 0
        self.card_stays, self.chip_stays = "graphics" in stay, "processor" in stay
        self.rooms = self._rooms(catalogue, brief, lists)
        self.slots_settled = {"memory", "mainboard"} <= stay
        self.later = None if {"supply", "case"} <= stay else self._later(catalogue)
        self.second = brief.later_second and not {"supply", "mainboard"} <= stay
        settled = {"supply", "mainboard", "cooler", "memory"} <= stay
        self.chip_later = None if settled else catalogue.parts.get(brief.later_processor)
        self.first_leads = self.first_start
        book = catalogue.prices(brief.region, brief.may_buy)
        self.price_of = lambda part: book.cost(part.id) or 0
        self.six_cores = brief.enough_threads and "processor" not in stay
        self.delivers = brief.reserve_percent > 0 and not {"processor", "mainboard"} <= stay
        self.display = brief.display if brief.display_driven and "graphics" not in stay else None

    def stand_together(self, chip, card, board):
        """Six cores beside a dear card, an output for the display, power for the processor."""
        owned = self.brief.owned
        few = self.six_cores and chip.cores < 6 and chip.id not in owned
        if card and few and self.price_of(card) >= 40_000:
            return False
        delivered_w = board.processor_w or chip.sustained_w
        if board.id in owned:
            delivered_w = delivered_w * 110 // 100
        if self.delivers and delivered_w < chip.sustained_w:
            return False
        if self.display is None or (card and card.id in owned):
            return True
        rates = {"HDMI 1.4": 8.16, "HDMI 2.0": 14.4, "DisplayPort 1.4": 25.92, "HDMI 2.1": 42.6}
        outputs = card.outputs if card else board.outputs
        if not outputs or any(output not in rates for output in outputs):
            return True
        lines = self.display.height_px / (1 / self.display.refresh_hz - 460e-6)
        if card is None or card.compression is not False:
            rates = {
                o: r * 3 if o in ("DisplayPort 1.4", "HDMI 2.1") else r for o, r in rates.items()
            }
        return max(rates[o] for o in outputs) * 1e9 >= 24 * (self.display.width_px + 80) * lines

    def takes_kit(self, board, kit):
        """Whether registered memory goes onto a board that does not say so: not on a mere hope."""
        asks = self.first_start and board.id not in self.brief.owned
        return not (asks and kit.registered and board.registered is None)

    def takes_later(self, whole):
        """Whether the later card goes in, as the rules have it, and memory slots stay free."""
        free = whole.mainboard.memory_slots - whole.memory.sticks
        if not self.slots_settled and free < self.brief.later_sticks:
            return False
        wishes = Wishes(headroom_percent=self.brief.headroom_percent)
        if self.second and not (whole.graphics and (whole.mainboard.card_slots or 0) > 1):
            return False
        if self.chip_later and not self._takes_chip(whole, self.chip_later):
            return False
        if not all(self.plugged(then) for then in self.to_come(whole)):
            return False
        return not any(blocks(then, wishes) for then in self.to_come(whole))

    def _takes_chip(self, whole, chip):
        """Power from the board, the cooler's reserve and known leads for a processor to come."""
        board, own = whole.mainboard, whole.cooler
        brings = chip.boxed_cooler_w is not None and chip.boxed_cooler_w >= chip.sustained_w
        if not brings:
            mine = own and own.id in self.brief.owned
            factor = 100 if mine else self.cooler_factor
            if not own or own.capacity_w * 100 < chip.sustained_w * factor:
                return False
        delivered_w = board.processor_w or chip.sustained_w
        if board.id in self.brief.owned:
            delivered_w = delivered_w * 110 // 100
        if self.delivers and delivered_w < chip.sustained_w:
            return False
        return self.led(replace(whole, processor=chip))

    def to_come(self, whole):
        """The machines that come of one: every card with every processor."""
        chips = [(whole.processor, whole.cooler)]
        if chip := self.chip_later:
            brings = (chip.boxed_cooler_w or 0) >= chip.sustained_w
            chips.append((chip, None if brings else whole.cooler))
        for chip, cooler in chips:
            own = replace(whole, processor=chip, cooler=cooler)
            if chip is not whole.processor:
                yield own
            if self.later:
                yield replace(own, graphics=self.later)
            if self.second and own.graphics:
                yield replace(own, second_card=own.graphics)

    def led(self, whole):
        """Whether the leads for the processor leave no question open before the first start."""
        if not self.first_leads or whole.supply.id in self.brief.owned:
            return True
        if not self.plugged(whole):
            return False
        return not any(f.rule == "processor leads" and f.level == "do first" for f in judged(whole))

    def plugged(self, whole):
        """Whether no card hangs on an adapter of which nothing is known."""
        supply = whole.supply
        cards = [card for card in whole.cards if card.pcie_16pin]
        if not self.first_leads or supply.id in self.brief.owned:
            return True
        if not any(card.adapter_8pin is None for card in cards):
            return True
        if any(card.adapter_8pin == 0 for card in cards):
            return True
        needed = max((card.board_power_w - 75) / card.pcie_16pin for card in cards)
        strong = supply.pcie_16pin_w is None or supply.pcie_16pin_w >= needed
        return strong and supply.pcie_16pin >= sum(card.pcie_16pin for card in cards)

    @staticmethod
    def _rooms(catalogue, brief, lists):
        """Rooms for games by how fast a drive they want (0 to 2), and the room for bulk."""
        pace = {"hard disk": 0, "SSD": 1, "NVMe SSD": 2}
        wanted = {}
        for target, own in zip(brief.targets, lists, strict=True):
            named = pace[(own and own.tiers[0].storage_kind) or "hard disk"]
            level = max(named, pace[brief.games_on]) if brief.solid_state else 0
            wanted[target.game_id] = (level, catalogue.game(target.game_id).storage_gb / 0.8)
        games = [sum(gb for own, gb in wanted.values() if own == level) for level in range(3)]
        usual = pace[brief.games_on] if brief.solid_state else 0
        games[usual] += max(0, brief.games_gb - sum(games))
        bulk = brief.bulk_gb
        more = sum({"streaming": 100, "video editing": 500}.get(item, 0) for item in brief.work)
        return games, (pace[brief.bulk_on], bulk + more), more

    def _later(self, catalogue):
        """The card to come: the named one, or one with as many plugs as its watts want."""
        watts = self.brief.later_card_w
        if self.brief.later_card:
            return catalogue.parts[self.brief.later_card]
        if watts is None:
            return None
        some = catalogue.by_kind["graphics"][0]
        return replace(
            some,
            board_power_w=watts,
            spike_factor=1.5,
            length_mm=self.brief.later_card_mm,
            height_mm=None,
            thickness_mm=None,
            pcie_8pin=max(0, int(np.ceil((watts - 75) / 150))),
            pcie_16pin=0,
            adapter_8pin=0,
        )

    def stores(self, drives):
        """Whether each role finds its drives, tried drive by drive."""
        games, bulk, more = self.rooms
        brief = self.brief
        if sum(drive.capacity_gb for drive in drives) < brief.storage_gb + more:
            return False

        def pace(drive):
            if drive.interface == "M.2 NVMe":
                return 2
            return 1 if drive.read_mbs > 300 else 0

        least = {"hard disk": 0, "SSD": 1, "NVMe SSD": 2}[brief.system_on]
        for at, first in enumerate(drives):
            if pace(first) < (least if brief.solid_state else 0):
                continue
            if first.capacity_gb < brief.system_gb:
                continue
            others = [(pace(own), own.capacity_gb) for n, own in enumerate(drives) if n != at]
            if not brief.drives_apart:
                own = (pace(first), first.capacity_gb - brief.system_gb)
                if packs([own, *others], [*enumerate(games), bulk]):
                    return True
                continue
            for mask in range(2 ** len(others)):
                sides = [[], []]
                for n, other in enumerate(others):
                    sides[mask >> n & 1].append(other)
                if packs(sides[0], enumerate(games)) and packs(sides[1], [bulk]):
                    return True
        return False

    def starts(self, chip, card, board):
        apis = card.apis if card else chip.igpu_apis
        best = max([float(api.split()[1]) for api in apis], default=-1)
        if self.level and best < self.level and not (self.card_stays if card else self.chip_stays):
            return False
        needed = dict(entry.split("=") for entry in board.firmware_needed).get(chip.firmware_family)
        if not self.first_start or needed is None or board.firmware_recovery:
            return True
        if board.id in self.brief.owned:
            return True
        shipped = board.firmware_shipped
        return bool(shipped) and [*map(int, shipped.split("."))] >= [*map(int, needed.split("."))]

    def cools(self, chip, cooler):
        if cooler:
            factor = 100 if cooler.id in self.brief.owned else self.cooler_factor
            return cooler.capacity_w * 100 >= chip.sustained_w * factor
        if self.brief.cooling == "liquid":
            return False
        if chip.id in self.brief.owned:
            return chip.boxed_cooler_w >= chip.sustained_w
        return chip.boxed_cooler_w * 100 >= chip.sustained_w * self.cooler_factor and (
            chip.boxed_height_mm is not None or not self.brief.boxed_judged
        )

    def quiet(self, chip, card, cooler):
        if self.loudest is None:
            return True
        left = 10 ** (self.loudest / 10) - 100
        if card:
            left -= max(10**1.8, 10**3.6 * card.board_power_w / 200)
        stated = cooler.noise_dba if cooler else chip.boxed_noise_dba
        if stated is None or left < 1:
            return False
        capacity = cooler.capacity_w if cooler else chip.boxed_cooler_w
        heard = stated + 50 * min(0.0, np.log10(chip.gaming_w / capacity))
        return max(18, heard) <= np.floor(10 * np.log10(left))

    def fans(self, whole, supply, case, fans, there, joining):
        """(cost, ids) of the fans that a machine lacks, with the splitters for them; None where
        nothing helps, or where its supply has no reserve.
        """
        watts = draw(whole).full_w
        watts = max([watts, *(draw(then).full_w for then in self.to_come(whole))])
        output_w = supply.watts
        if supply.id in self.brief.owned:
            output_w = output_w * self.supply_factor // 100
        if output_w * 10_000 < watts * self.brief.headroom_percent * self.supply_factor:
            return None
        places = case.fan_places
        placed = (case.fans_included or 0) + there
        placed = placed if places is None else min(placed, places)
        if case.fans_included is None:
            return 0, ()
        carried = {"mesh": 340, "side vents": 250, "closed": 160}[case.airflow] + 90 * placed
        carried = int(carried * 1.5) if case.id in self.brief.owned else carried
        if not self.heat or carried >= watts:
            return 0, ()
        free = 0 if places is None else places - placed
        if case.fan_sizes:
            free = min(free, sum("120" in place.split("/") for place in case.fan_sizes))
        able = []
        for fan, cost in fans:
            for n in range(1, 10):
                if n * fan.pack <= free and carried + 90 * n * fan.pack >= watts:
                    more, cables = self.joined(n * fan.pack, joining)
                    able.append((cost * n + more, (fan.id,) * n + cables))
        return min(able, key=lambda pair: pair[0]) if able else None

    @staticmethod
    def joined(count, joining):
        """(cost, ids) of the cheapest splitters with an end for each fan and for one more each."""
        ways = []
        for ends, cost, name in joining:
            n = 1
            while n * (ends - 1) < count:
                n += 1
            ways.append((cost * n, (name,) * n))
        return min(ways) if ways else (0, ())


def packs(drives, wants):
    """Whether rooms go onto drives: the choosiest first, each onto the slowest that will do."""
    left = sorted(drives)
    for pace, gb in sorted(wants, reverse=True):
        for n, (own, room) in enumerate(left):
            if own >= pace:
                taken = min(room, gb)
                left[n] = (own, room - taken)
                gb -= taken
        if gb > 0:
            return False
    return True


def may_be_bought(brief, part, cost, stays):
    """The brief's rules about single parts, written out."""
    kind = kind_of(part)
    fixed_clocks = [
        item
        for item in (part, *stays)
        if not getattr(
            item, {"processor": "tunable", "mainboard": "tuning"}.get(kind_of(item), "id")
        )
    ]
    return (
        (brief.part_cap_minor is None or cost <= brief.part_cap_minor)
        and trust_of(part) in TRUST_FLOORS[brief.trust_floor]
        and part.id not in brief.banned
        and part.maker not in brief.no_makers
        and part.maker in ([maker for own, maker in brief.only_of if own == kind] or [part.maker])
        and part.colour in ("", brief.colour or part.colour)
        and not (
            kind in ("cooler", "fan")
            and brief.noise_limit_dba is not None
            and (
                part.noise_dba is None or (kind == "fan" and part.noise_dba > brief.noise_limit_dba)
            )
        )
        and not (
            kind == "mainboard"
            and (
                (brief.recovery and not part.firmware_recovery)
                or (brief.fault_display and not part.fault_display)
                or (brief.front_usb_c and "USB-C" not in part.front_headers)
                or brief.fan_headers > (part.fan_headers or 0)
                or brief.rear_usb > (part.rear_usb or 0)
                or brief.audio_channels > (part.audio_channels or 0)
            )
        )
        and not (
            kind == "case"
            and (
                (brief.lights_wanted and not part.lights)
                or (brief.tool_free and not part.tool_free)
                or brief.cable_room_mm > (part.cable_room_mm or 0)
                or brief.volume_least_l > part.volume_l
            )
        )
        and not (kind == "processor" and brief.own_graphics and not part.igpu_speed)
        and not (
            kind == "supply"
            and (
                (brief.modular and not part.modular)
                or (brief.protected and {"OVP", "OCP", "OPP", "SCP"} - {*part.protections})
            )
        )
        and not (brief.no_disks and kind == "storage" and part.read_mbs <= 300)
        and not (
            kind == "cooler"
            and {"air": part.radiator_mm, "liquid": not part.radiator_mm}.get(brief.cooling)
        )
        and not (kind == "case" and part.volume_l > (brief.volume_limit_l or 999))
        and not (
            kind == "mainboard"
            and brief.room_to_grow
            and not (part.memory_slots > 3 and part.m2_slots > 1)
        )
        and not (kind in ("memory", "case") and brief.no_lights and part.lights)
        and not (
            kind == "processor"
            and part.all_core_speed
            < max(
                [0, *({"streaming": 60, "video editing": 90}.get(item, 0) for item in brief.work)]
            )
        )
        and not (brief.clocks == "tuned" and fixed_clocks == [part])
    )


def _clash(machine):
    """Whether parts that are there clash; a cooler may still come."""
    return any(f.level == "blocks" and f.rule != "boxed cooler" for f in judged(machine))


def _shells(brief, half, drive_sets, coolers, supplies, cases):
    """Whole machines; what clashes with a part of the rest clashes with all of it, so each is tried
    by itself first.
    """
    wishes = wishes_of(brief)
    for drives in drive_sets:
        stored = replace(half, storage=tuple(drive for drive, _ in drives))
        for cooler, cooler_cost in coolers:
            part = replace(stored, cooler=cooler)
            if blocks(part):
                continue
            fitting = [
                each_case for each_case in cases if not blocks(replace(part, case=each_case[0]))
            ]
            strong = [
                each_supply
                for each_supply in supplies
                if fitting and not blocks(replace(part, supply=each_supply[0]), wishes)
            ]
            for supply, supply_cost in strong:
                for case, case_cost in fitting:
                    whole = replace(part, supply=supply, case=case)
                    if not whole.missing() and not blocks(whole, wishes):
                        cost = (
                            sum(price for _, price in drives)
                            + cooler_cost
                            + supply_cost
                            + case_cost
                        )
                        yield drives, cooler, supply, case, cost


def _judged(catalogue, brief, machine):
    """(weight met, U), or None where video memory is short and spill is not accepted."""
    met = total = weight = 0
    reached = []
    for target in brief.targets:
        if not target.weight:
            continue
        game = fitted_game(catalogue, target.game_id)
        item = estimate(machine, game, target, brief)
        if item is None or (item.short_of_video_memory_gb > 0 and not brief.accept_spill):
            return None
        gain = round(np.log(0.01) * 1e6)
        if np.isfinite(item.graphics_ms):
            table = reliable_table(
                catalogue.keep,
                item.workload.v_c,
                game.graphics_variation,
                target.measure,
                brief.chance,
                brief.accept_spill
                or (target.ray_tracing and game.ray_tracing_ms_per_mpx is not None),
            )
            columns = (
                np.log(item.processor_ms),
                item.processor_sd,
                np.log(item.graphics_ms),
                item.graphics_sd,
                item.workload.side_cov,
            )
            ln_f = float(table.ln_quantile(*(np.array([value]) for value in columns))[0])
            shown = shown_frames(game, target, machine)
            gain = max(gain, round((np.log(shown * 1000 / target.fps) - ln_f) * 1e6))
        gain = min(
            gain, round(np.log(max(1.0, min(1.5, brief.display.refresh_hz / target.fps))) * 1e6)
        )
        engine = game.engine_cap_fps or np.inf
        limit = min(engine * shown_frames(game, target, machine), target.cap_fps or np.inf)
        capped = target.fps > limit
        able = 2 if target.generated and game.generators else 1
        if capped and target.fps <= min(engine * able, target.cap_fps or np.inf):
            gain = min(gain, -1)
        met += target.weight if gain >= 0 and not capped else 0
        total += target.weight * gain
        weight += target.weight
        reached.append((gain, ("short", "unsure", "meets").index(item.state)))
    return met, (2 * total + weight) // (2 * weight) if weight else total, tuple(reached)


def shown_frames(game, target, machine):
    """Two to each drawn frame where the target counts generated ones and game and card can."""
    card = machine.graphics
    shared = [name for name in game.generators if card is not None and name in card.generators]
    return 2 if target.generated and shared else 1


def answer(
    found: list[Tried], aim: str, weight: int, budget: int, band: int, present: Tried | None = None
) -> Tried | None:
    """The best of all builds by one of the aims; ``present`` is the build of the same frames."""
    if aim == "same frames":
        able = [
            item
            for item in found
            if all(
                mine[0] - now[0] >= round(np.log(0.98) * 1e6) and mine[1] >= now[1]
                for mine, now in zip(item.reached, present.reached, strict=True)
            )
        ]
    elif aim == "least money":
        able = [item for item in found if item.met == weight]
    else:
        able = [item for item in found if item.cost <= budget]
        if able:
            met = max(item.met for item in able)
            gain = max(item.gain for item in able if item.met == met)
            able = [item for item in able if item.met == met and item.gain >= gain - band]
    return min(able, key=lambda item: (item.cost, -item.gain, item.order)) if able else None
