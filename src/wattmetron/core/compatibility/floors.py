"""Floors of every proposal: what a brief implies, and what a builder would not hand over without.

Each can be let go in the brief. What is not known does not reach a floor.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.compatibility.display_link import drives
from wattmetron.core.compatibility.extras import Besides
from wattmetron.core.compatibility.game_demands import apis_of
from wattmetron.core.compatibility.later_upgrades import (
    ToCome,
)
from wattmetron.core.compatibility.leads import CardPlugs, Sockets, leads_level
from wattmetron.core.compatibility.platform import BARELY_PERCENT, barely_w, needs_a_step
from wattmetron.core.compatibility.roles import (
    DriveNeed,
)
from wattmetron.core.frames.memory_class import memory_rates
from wattmetron.core.power.draw import Watts, needed_supply_w
from wattmetron.core.power.noise import cooler_dba, room_for_cooler_dba
from wattmetron.core.requirements.versions import Version, offered, version_of
from wattmetron.core.values.brief import Display
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor
from wattmetron.core.values.sockets import mounts_on, same_socket

LOUDEST_DBA = 200.0
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
