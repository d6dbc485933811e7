"""Floors of every proposal: what a brief implies, and what a builder would not hand over without.

Each can be let go in the brief. What is not known does not reach a floor.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.display_link import drives
from wattmetron.core.compatibility.extras import Besides, besides_missed
from wattmetron.core.compatibility.game_demands import apis_of
from wattmetron.core.compatibility.later_upgrades import (
    ToCome,
    against_later,
    later_card,
    later_chip,
)
from wattmetron.core.compatibility.leads import CardPlugs, Sockets, leads_level, sockets_of
from wattmetron.core.compatibility.platform import BARELY_PERCENT, barely_w, needs_a_step
from wattmetron.core.compatibility.roles import (
    ANY,
    NVME,
    SOLID,
    DriveNeed,
    DriveRoom,
    Room,
    held_gb,
    of_room,
    served,
    takes_system,
)
from wattmetron.core.compatibility.rule_wishes import kind_asked
from wattmetron.core.frames.memory_class import memory_rates
from wattmetron.core.power.draw import Watts, draw, needed_supply_w
from wattmetron.core.power.heat import TOO_HOT, case_heat_w
from wattmetron.core.power.noise import cooler_dba, in_play_dba, room_for_cooler_dba
from wattmetron.core.requirements.verdicts import storage_needed_gb
from wattmetron.core.requirements.versions import Version, offered, version_of
from wattmetron.core.values.brief import Brief, Display
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.other_work import storage_more_gb, with_work_gb
from wattmetron.core.values.parts import (
    STORAGE_KINDS,
    Case,
    Cooler,
    Graphics,
    Mainboard,
    Memory,
    Part,
    PowerSupply,
    Processor,
    Storage,
    StorageKind,
)
from wattmetron.core.values.published import Published
from wattmetron.core.values.sockets import mounts_on, same_socket
from wattmetron.core.values.words import counted, with_article

LOUDEST_DBA = 200.0
DEAR_CARD_MINOR = 400_00
"""From this price on a card wants at least six cores beside it, in minor units of the region's
currency.
"""
CORES_BESIDE_A_DEAR_CARD = 6
NOTHING_TO_COME = ToCome()


@dataclass(frozen=True, slots=True, kw_only=True)
class Floors:
    """What a whole machine must reach to be proposed; ``apis`` are those that its games need to
    start, ``most_dba`` the loudest that it may be in play, ``display`` the one that its outputs
    must drive, ``dear_cards`` those that want six cores beside them, ``owned`` parts that are there
    already, ``staying`` those that are not asked whether games start on them, ``besides`` what is
    wanted besides the eight kinds, ``later`` what it must take later, ``later_sticks`` memory slots
    that stay free.
    """

    memory_gb: float
    storage: DriveNeed
    apis: tuple[Version, ...]
    starts_as_bought: bool
    heat_carried: bool
    boxed_judged: bool
    liquid: bool
    most_dba: float | None
    all_channels: bool
    threads: int
    cooler_reserve_percent: int
    supply_reserve_percent: int
    headroom_percent: int
    delivered: bool
    display: Display | None
    dear_cards: frozenset[str]
    owned: frozenset[str] = frozenset()
    staying: frozenset[str] = frozenset()
    besides: Besides
    later: ToCome = NOTHING_TO_COME
    later_sticks: int = 0

    def with_owned(self, parts: Iterable[str]) -> "Floors":
        """The floors where these parts are there already: what an owned part decides by itself is
        not asked of it.
        """
        return replace(self, owned=frozenset(parts))

    def takes(self, part: Part) -> bool:
        """Whether a part may be bought as far as it decides by itself."""
        mine = part.id in self.owned
        if not self.hosts(part):
            return False
        if isinstance(part, Processor):
            return mine or part.threads >= self.threads
        if not isinstance(part, Graphics):
            return True
        return self.starts_on(part) and (mine or self.shown_by(part))

    def hosts(self, part: Part) -> bool:
        """Whether a part goes with what is to come as far as it decides by itself."""
        chip = self.later.chip
        if isinstance(part, Mainboard) and self.later.second and (part.card_slots or 0) < 2:
            return False
        if chip is None:
            return True
        match part:
            case Mainboard():
                goes = same_socket(part.socket, chip.socket) and part.memory_type in memory_rates(
                    chip
                )
                delivers_w = self.delivers_w(part)
                return goes and (delivers_w is None or delivers_w >= self.delivered_w(chip))
            case Memory():
                return part.total_gb <= chip.memory_max_gb
            case Cooler():
                carries = self.cools(self.capacity_w(part), chip)
                return chip.brings_cooler or (mounts_on(part.sockets, chip.socket) and carries)
            case Case():
                box_mm = chip.boxed_height_mm if chip.brings_cooler else None
                return (box_mm or 0) <= (part.cooler_height_mm or 0)
        return True

    def shown_by(self, source: Graphics | Mainboard) -> bool:
        """Whether the outputs of a card or a board carry the brief's display at its refresh."""
        return self.display is None or drives(source, self.display)

    def takes_registered(self, board: Mainboard) -> bool:
        """Whether registered memory may go onto a board: not on a mere hope."""
        if board.registered is None:
            return not self.starts_as_bought or board.id in self.owned
        return board.registered

    def has_few_cores(self, chip: Processor) -> bool:
        """Whether a processor has too few cores to stand beside a dear card."""
        few = bool(self.dear_cards) and chip.cores < CORES_BESIDE_A_DEAR_CARD
        return few and chip.id not in self.owned

    def delivered_w(self, chip: Processor) -> int:
        """Sustained power that a board must deliver to a processor."""
        return chip.sustained_w if self.delivered else barely_w(chip)

    def delivers_w(self, board: Mainboard) -> int | None:
        """Sustained power that a board counts for: an owned one may be a little short."""
        lenient = self.delivered and board.id in self.owned
        if board.processor_w is None or not lenient:
            return board.processor_w
        return board.processor_w * BARELY_PERCENT // 100

    def capacity_w(self, cooler: Cooler) -> int:
        """What a cooler counts for: an owned one needs no reserve."""
        if cooler.id not in self.owned:
            return cooler.capacity_w
        return -(-cooler.capacity_w * (100 + self.cooler_reserve_percent) // 100)

    def output_w(self, supply: PowerSupply) -> int:
        """The output that a supply counts for: an owned one needs no reserve."""
        if supply.id not in self.owned:
            return supply.watts
        return supply.watts * (100 + self.supply_reserve_percent) // 100

    def leads_do(self, supply: PowerSupply, sockets: Sockets, power_w: int) -> bool:
        """Whether a supply has the leads for a processor of so many W, without a question left open
        before the first start.
        """
        level = leads_level(supply, sockets, power_w)
        asks = self.starts_as_bought and supply.id not in self.owned
        return level not in ("blocks", "do first" if asks else "blocks")

    def card_leads_do(self, supply: PowerSupply, plugs: CardPlugs) -> bool:
        """Whether a supply has the leads for cards, without a question about their adapters left
        open before the first start.
        """
        asks = self.starts_as_bought and supply.id not in self.owned
        return plugs.find(supply) and not (asks and plugs.open_on(supply))

    def starts_on(self, part: Graphics | Processor) -> bool:
        """Whether every game starts on what draws."""
        if not self.apis:
            return True
        had = [version_of(api) for api in apis_of(part)]
        return all(offered(api, had) for api in self.apis)

    def cooler_w(self, chip: Processor) -> int:
        """The least capacity of a cooler for a processor, with the reserve."""
        return -(-chip.sustained_w * (100 + self.cooler_reserve_percent) // 100)

    def cools(self, capacity_w: int, chip: Processor) -> bool:
        """Whether a cooler of this capacity carries a processor's heat with the reserve."""
        return capacity_w * 100 >= chip.sustained_w * (100 + self.cooler_reserve_percent)

    def boxed_does(self, chip: Processor) -> bool:
        """Whether a processor's boxed cooler carries its heat and may; how high it is, if that is
        known, is for the case to judge.
        """
        if self.liquid:
            return False
        if chip.boxed_cooler_w is None or chip.boxed_cooler_w < chip.sustained_w:
            return False
        if chip.id in self.owned:
            return True
        if not self.cools(chip.boxed_cooler_w, chip):
            return False
        return chip.boxed_height_mm is not None or not self.boxed_judged

    def boxed_stays(self, chip: Processor) -> bool:
        """Whether a processor's boxed cooler does, and none is wanted for a later processor."""
        later = self.later.chip
        return self.boxed_does(chip) and (later is None or later.brings_cooler)

    def cooler_room_dba(self, card: Graphics | None) -> float:
        """The loudest cooler beside a card; below nothing where the card alone is too loud."""
        if self.most_dba is None:
            return LOUDEST_DBA
        room = room_for_cooler_dba(self.most_dba, card)
        return -1 if room is None else room

    def quiet(self, cooler: Cooler | None, chip: Processor, room_dba: float) -> bool:
        """Whether a cooler, or the boxed one, is known to be no louder than its room."""
        if self.most_dba is None:
            return True
        loud = cooler_dba(cooler, chip)
        return loud is not None and loud <= room_dba

    def starts_with(self, family: str, board: Mainboard) -> bool:
        """Whether a board starts a family of processors as it is bought."""
        asks = self.starts_as_bought and board.id not in self.owned
        return not asks or not needs_a_step(family, board)

    def supply_w(self, full_w: Watts) -> Watts:
        """The least output of the power supply, in W, for a full draw."""
        return needed_supply_w(full_w, self.headroom_percent, self.supply_reserve_percent)

    def beside(self, stays: Machine) -> "Floors":
        """The floors for what is bought beside parts that stay: what these alone decide is not
        asked of the others.
        """
        changes: dict[str, Any] = {"staying": frozenset(part.id for part in stays.parts())}
        if stays.memory:
            changes |= {
                "all_channels": False,
                "memory_gb": min(self.memory_gb, stays.memory.total_gb),
            }
        if stays.memory and stays.mainboard:
            changes["later_sticks"] = 0
        later = self.later
        if stays.supply and stays.case:
            later = later._replace(card=None)
        if stays.supply and stays.mainboard:
            later = later._replace(second=False)
        if stays.supply and stays.mainboard and stays.cooler and stays.memory:
            later = later._replace(chip=None)
        changes["later"] = later
        if stays.processor:
            changes |= {"threads": 0, "dear_cards": frozenset()}
        if stays.processor and stays.cooler:
            changes["cooler_reserve_percent"] = 0
        if stays.processor and stays.cooler and stays.graphics:
            changes["most_dba"] = None
        if stays.processor and stays.mainboard:
            changes |= {"starts_as_bought": False, "delivered": False}
        if stays.graphics:
            changes["display"] = None
        if stays.processor and stays.graphics and stays.supply:
            changes["supply_reserve_percent"] = 0
        if stays.processor and stays.graphics and stays.case:
            changes["heat_carried"] = False
        return replace(self, **changes)


def floors_of(catalogue: Catalogue, brief: Brief) -> Floors:
    """The floors of a brief. Where no part of the catalogue states its APIs, none can be asked
    for.
    """
    stated = any(
        apis_of(part)
        for kind in ("graphics", "processor")
        for part in catalogue.by_kind[kind]
        if isinstance(part, (Graphics, Processor))
    )
    return Floors(
        memory_gb=memory_floor_gb(catalogue, brief),
        storage=storage_floor(catalogue, brief),
        apis=tuple(_apis(catalogue, brief)) if brief.games_start and stated else (),
        starts_as_bought=brief.starts_as_bought,
        heat_carried=brief.heat_carried,
        boxed_judged=brief.boxed_judged,
        liquid=brief.cooling == "liquid",
        most_dba=brief.noise_limit_dba,
        all_channels=brief.all_channels,
        threads=_threads(catalogue, brief) if brief.enough_threads else 0,
        cooler_reserve_percent=brief.reserve_percent,
        supply_reserve_percent=brief.reserve_percent,
        headroom_percent=brief.headroom_percent,
        delivered=brief.reserve_percent > 0,
        display=brief.display if brief.display_driven else None,
        dear_cards=_dear_cards(catalogue, brief) if brief.enough_threads else frozenset(),
        besides=besides_of(catalogue, brief),
        later=ToCome(
            later_card(catalogue, brief), brief.later_second, later_chip(catalogue, brief)
        ),
        later_sticks=brief.later_sticks,
    )


def besides_of(catalogue: Catalogue, brief: Brief) -> Besides:
    """What the brief wants besides the eight kinds; the system is the named one, and what its games
    name as the least.
    """
    named = [
        brief.system,
        *(requirements.tiers[0].system for requirements in _lists(catalogue, brief)),
    ]
    return Besides(
        wireless=brief.wireless,
        kinds=frozenset(brief.buys),
        systems=tuple(version_of(system) for system in dict.fromkeys(named) if system),
        display=brief.display,
    )


def _lists(catalogue: Catalogue, brief: Brief) -> Iterator[Published]:
    """The lists with tiers of the brief's games."""
    for game_id in dict.fromkeys(target.game_id for target in brief.targets):
        published = catalogue.published.get(game_id)
        if published is not None and published.tiers:
            yield published


def _dear_cards(catalogue: Catalogue, brief: Brief) -> frozenset[str]:
    """The cards that cost so much that a builder puts six cores beside them."""
    book = catalogue.prices(brief.region, brief.may_buy)
    return frozenset(
        card.id
        for card in catalogue.by_kind["graphics"]
        if (book.cost(card.id) or 0) >= DEAR_CARD_MINOR
    )


def _threads(catalogue: Catalogue, brief: Brief) -> int:
    """How many threads the most demanding of the games that count uses."""
    games = (catalogue.game(target.game_id) for target in brief.counted_targets)
    return max((game.threads_used for game in games), default=0)


def _apis(catalogue: Catalogue, brief: Brief) -> Iterator[Version]:
    """The API that the lowest tier of each game names."""
    for published in _lists(catalogue, brief):
        if published.tiers[0].api:
            yield version_of(published.tiers[0].api)


def memory_floor_gb(catalogue: Catalogue, brief: Brief) -> float:
    """Main memory that the brief, one of its games with the work beside it, or other work wants."""
    games_gb = max(
        (catalogue.game(t.game_id).memory_gb for t in brief.counted_targets), default=0.0
    )
    return max(brief.memory_gb, with_work_gb(brief.work, games_gb))


def storage_floor(catalogue: Catalogue, brief: Brief) -> DriveNeed:
    """What system, games and bulk ask of the drives: the games' published kinds and sizes with a
    fifth kept free, what other work wants as bulk on top; kinds count only where solid state does.
    """
    more_gb = storage_more_gb(brief.work)
    games = DriveRoom(*(_games_gb(catalogue, brief, slowest) for slowest in (ANY, SOLID, NVME)))
    bulk_gb = brief.bulk_gb + more_gb
    return DriveNeed(
        system=Room(brief.system_gb, _slowest(brief, brief.system_on)),
        games=games,
        bulk=Room(bulk_gb, STORAGE_KINDS.index(brief.bulk_on)),
        all_gb=max(brief.storage_gb + more_gb, brief.system_gb + games.all_gb + bulk_gb),
        apart=brief.drives_apart,
    )


def _slowest(brief: Brief, kind: StorageKind) -> int:
    return STORAGE_KINDS.index(kind) if brief.solid_state else ANY


def _games_gb(catalogue: Catalogue, brief: Brief, slowest: int) -> float:
    """Room for the games that belong on this kind of storage or a faster one: by the brief all of
    them, or as their lists name it; a fifth is kept free.
    """
    games = sorted({target.game_id for target in brief.targets})
    if _slowest(brief, brief.games_on) >= slowest:
        sizes = [catalogue.game(game).storage_gb for game in games]
        return max(brief.games_gb, storage_needed_gb(sizes))
    if not brief.solid_state:
        return 0.0
    return storage_needed_gb(
        [
            catalogue.game(game).storage_gb
            for game in games
            if STORAGE_KINDS.index(kind_asked(catalogue.published.get(game))) >= slowest
        ]
    )


def missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    """The brief's fields whose floors the parts that are there do not reach, each with a
    sentence.
    """
    yield from _amounts_missed(machine, floors)
    yield from besides_missed(machine, floors.besides)
    yield from _later_missed(machine, floors)
    yield from _start_missed(machine, floors)
    yield from _cooling_missed(machine, floors)
    chip, kit, supply = machine.processor, machine.memory, machine.supply
    needed_w = floors.supply_w(draw(machine).full_w)
    if chip and supply and floors.output_w(supply) < needed_w:
        yield (
            "reserve_percent",
            f"{supply.name} gives {supply.watts} W; with headroom and reserve {needed_w} W are"
            " wanted.",
        )
    if chip and chip.threads < floors.threads and chip.id not in floors.owned:
        yield (
            "enough_threads",
            f"{chip.name} has {chip.threads} threads; the brief's games use {floors.threads}.",
        )
    card = machine.graphics
    if chip and card and card.id in floors.dear_cards and floors.has_few_cores(chip):
        yield (
            "enough_threads",
            f"{chip.name} has {counted(chip.cores, 'core')}; {card.name} wants"
            f" {CORES_BESIDE_A_DEAR_CARD} or more beside it.",
        )
    if card and card.id not in floors.owned and not floors.shown_by(card):
        yield "display_driven", f"No output of {card.name} carries the display at its refresh."
    if machine.uses_integrated and machine.mainboard:
        board = machine.mainboard
        if not floors.shown_by(board):
            yield "display_driven", f"No output of {board.name} carries the display at its refresh."
    asks = floors.all_channels and kit and kit.id not in floors.owned
    if asks and chip and kit and kit.sticks < chip.memory_channels:
        yield (
            "all_channels",
            f"{kit.name} leaves channels of {chip.name} empty: {kit.sticks} of"
            f" {chip.memory_channels} in use.",
        )


def _later_missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    board, kit, later = machine.mainboard, machine.memory, floors.later
    if board and kit and floors.later_sticks > board.memory_slots - kit.sticks:
        yield (
            "later_sticks",
            f"{board.name} has {counted(board.memory_slots - kit.sticks, 'memory slot')} left;"
            f" {floors.later_sticks} are to stay free for sticks to come.",
        )
    if machine.missing():
        return
    if later.second and not machine.graphics:
        yield "later_second", "There is no graphics card to have a second like it later."
    sentences = set[str]()
    for field, then in later.machines(machine):
        sentence = "" if field in sentences else _against(then, floors, field)
        if sentence:
            sentences.add(field)
            yield field, sentence


def _against(then: Machine, floors: Floors, field: str) -> str:
    """Why a machine to come does not do; empty where it does."""
    chip, card, supply, case = then.processor, then.graphics, then.supply, then.case
    assert chip and supply and case
    if field == "later_processor":
        name = chip.name
    elif card:
        name = card.name
    else:
        name = ""
    if field == "later_second":
        name = f"a second {name}"
    against = against_later(then, floors.headroom_percent)
    if against:
        return f"{name[:1].upper()}{name[1:]} does not go in later: {against}"
    full_w = draw(then).full_w
    if floors.output_w(supply) < (needed_w := floors.supply_w(full_w)):
        return (
            f"{supply.name} gives {supply.watts} W; with {name} later {needed_w} W with headroom"
            " and reserve are wanted."
        )
    if not floors.card_leads_do(supply, CardPlugs.of(then.cards)):
        return f"Whether {supply.name} has the leads for {name} later is not stated."
    fans_known = case.fans_included is not None
    if floors.heat_carried and fans_known and _carried_w(then, floors) < full_w:
        return f"{case.name} does not carry off the {full_w} W that arise with {name} later."
    if field == "later_second" and then.mainboard and not floors.hosts(then.mainboard):
        return f"{then.mainboard.name} is not known to have a slot for {name}."
    if field != "later_processor":
        return ""
    board, cooler = then.mainboard, then.cooler
    if cooler and not floors.cools(floors.capacity_w(cooler), chip):
        return f"{cooler.name} does not carry {name} later with the reserve."
    if board and (floors.delivers_w(board) or chip.sustained_w) < floors.delivered_w(chip):
        return (
            f"{board.name} delivers {board.processor_w} W; {name} later takes {chip.sustained_w} W."
        )
    if board and not floors.leads_do(supply, sockets_of(board), chip.sustained_w):
        return f"Whether {supply.name} has the leads for {name} later is not stated."
    return ""


def _carried_w(machine: Machine, floors: Floors) -> float:
    """Heat that the case with its fans carries off; an owned one may be heard."""
    assert machine.case is not None
    carried = case_heat_w(machine.case.airflow, machine.fans_placed)
    return carried * (TOO_HOT if machine.case.id in floors.owned else 1)


def broken(machine: Machine, floors: Floors) -> frozenset[str]:
    """The fields of ``missed``."""
    return frozenset(field for field, _ in missed(machine, floors))


def _amounts_missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    kit = machine.memory
    if kit and kit.total_gb < floors.memory_gb and kit.id not in floors.owned:
        yield (
            "memory_gb",
            f"Memory is {kit.total_gb:g} GB; brief and games want {floors.memory_gb:g} GB.",
        )
    if machine.storage:
        yield from _roles_missed(machine.storage, floors.storage)


def _roles_missed(drives: tuple[Storage, ...], need: DriveNeed) -> Iterator[tuple[str, str]]:
    room = held_gb(drives)
    if room.all_gb < need.all_gb:
        yield (
            "storage_gb",
            f"Storage is {room.all_gb:,.0f} GB; {_wanted_by(need)} {need.all_gb:,.0f} GB.",
        )
        need = need._replace(all_gb=0.0)
    if served(drives, need):
        return
    on_anything = need._replace(
        system=Room(need.system.gb), games=of_room(Room(need.games.all_gb)), bulk=Room(need.bulk.gb)
    )
    if served(drives, on_anything):
        yield "solid_state", _kind_missed(drives, need)
    elif need.apart and served(drives, need._replace(apart=False)):
        yield "drives_apart", "System, games and bulk do not have drives of their own."
    elif room.all_gb >= need.system.gb + need.shared.all_gb:
        yield "system_gb", f"No drive has {need.system.gb:,.0f} GB for the system."


def _wanted_by(need: DriveNeed) -> str:
    """What wants so much room in all: the roles together, or the brief where it asks for more."""
    together_gb = need.system.gb + need.shared.all_gb
    return "the brief wants" if need.all_gb > together_gb else "system, games and bulk want"


def _kind_missed(drives: tuple[Storage, ...], need: DriveNeed) -> str:
    if not any(takes_system(drive, need.system) for drive in drives):
        kind = STORAGE_KINDS[need.system.slowest]
        return f"The system wants {need.system.gb:,.0f} GB on {with_article(kind)}; there is none."
    for level in (NVME, SOLID):
        if need.games[level]:
            kind = STORAGE_KINDS[level]
            return (
                f"Games that belong on {with_article(kind)} want {need.games[level]:,.0f} GB on one"
                f" beside the rest; drives of that kind hold {held_gb(drives)[level]:,.0f} GB."
            )
    return f"Bulk wants {need.bulk.gb:,.0f} GB on {with_article(STORAGE_KINDS[need.bulk.slowest])}."


def _start_missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    chip, board = machine.processor, machine.mainboard
    source = machine.graphics or (chip if machine.uses_integrated else None)
    if source and source.id not in floors.staying and not floors.starts_on(source):
        wanted = ", ".join(dict.fromkeys(api.text for api in floors.apis))
        yield "games_start", f"{source.name} is not known to have {wanted}, which games need."
    if chip and board and not floors.starts_with(chip.firmware_family, board):
        yield (
            "starts_as_bought",
            f"{chip.name} starts on {board.name} only after a firmware update that needs another"
            " processor.",
        )
    supply = machine.supply
    if chip and board and supply and same_socket(chip.socket, board.socket):
        sockets = sockets_of(board)
        if leads_level(supply, sockets, chip.sustained_w) != "blocks" and not floors.leads_do(
            supply, sockets, chip.sustained_w
        ):
            yield (
                "starts_as_bought",
                f"Whether {board.name} starts with the processor leads of {supply.name} is not"
                " stated.",
            )
    plugs = CardPlugs.of(machine.cards)
    if supply and plugs.find(supply) and not floors.card_leads_do(supply, plugs):
        yield (
            "starts_as_bought",
            f"Whether an adapter for the leads of {supply.name} comes with"
            f" {machine.cards[0].name} is not stated.",
        )
    kit = machine.memory
    stated = not board or not kit or not kit.registered or board.registered is not None
    if board and not stated and not floors.takes_registered(board):
        yield "starts_as_bought", f"Whether {board.name} takes registered memory is not stated."


def _cooling_missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    chip, cooler, case = machine.processor, machine.cooler, machine.case
    if chip and cooler and not floors.cools(floors.capacity_w(cooler), chip):
        yield (
            "reserve_percent",
            f"{cooler.name} carries {cooler.capacity_w} W; {chip.name} gives off {chip.sustained_w}"
            f" W, and with {floors.cooler_reserve_percent} % reserve"
            f" {floors.cooler_w(chip)} W are wanted.",
        )
    board = machine.mainboard
    if chip and board and (floors.delivers_w(board) or chip.sustained_w) < floors.delivered_w(chip):
        yield (
            "reserve_percent",
            f"{board.name} delivers {board.processor_w} W; {chip.name} takes {chip.sustained_w} W.",
        )
    if chip and not cooler and chip.boxed_cooler_w and floors.liquid:
        yield "cooling", f"The boxed cooler of {chip.name} is an air cooler; liquid is wanted."
    elif chip and not cooler and chip.boxed_cooler_w and not floors.boxed_does(chip):
        yield (
            "boxed_judged",
            f"The boxed cooler of {chip.name} lacks the reserve, or is not known to fit.",
        )
    room_dba = floors.cooler_room_dba(machine.graphics)
    if chip and (cooler or machine.boxed_suffices) and not floors.quiet(cooler, chip, room_dba):
        loud = in_play_dba(machine, machine.graphics.board_power_w if machine.graphics else 0)
        if cooler_dba(cooler, chip) is None or loud is None:
            name = cooler.name if cooler else "the boxed cooler"
            yield (
                "noise_limit_dba",
                f"How loud {name} is is not known; the brief allows {floors.most_dba:g} dB(A).",
            )
        else:
            yield (
                "noise_limit_dba",
                f"About {loud:.0f} dB(A) in play; the brief allows {floors.most_dba:g}.",
            )
    heat = draw(machine).full_w
    if floors.heat_carried and case and chip and case.fans_included is not None:
        carried = case_heat_w(case.airflow, machine.fans_placed)
        if _carried_w(machine, floors) < heat:
            yield (
                "heat_carried",
                f"{case.name} with its fans carries off {carried} W quietly; up to {heat} W arise.",
            )
