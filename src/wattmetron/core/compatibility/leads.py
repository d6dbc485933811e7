"""Power leads: which a supply has for card and processor, and what they carry."""

from collections.abc import Sequence
from typing import NamedTuple

from wattmetron.core.compatibility.finding import Level
from wattmetron.core.values.housing import PowerSupply
from wattmetron.core.values.parts import Graphics, Mainboard

EIGHT_PIN_W, FOUR_PIN_W = 336, 168
"""What processor leads carry: four and two contacts of 7 A at 12 V."""
SLOT_W = 75
"""What a card draws from its slot, by the open standard."""


class CardLeads(NamedTuple):
    """16-pin leads that a supply lacks for the cards, and the 8-pin leads that they need then."""

    missing_16pin: int
    needed_8pin: int


class CardPlugs(NamedTuple):
    """Power plugs of cards: how many of each kind, W over each 16-pin one, 8-pin leads for the
    adapter of one (0: not every card brings one; None: of some card that is not known), and
    whether some card takes more than the slot gives while its plugs are not known.
    """

    pcie_8pin: int = 0
    pcie_16pin: int = 0
    lead_w: int = 0
    adapter_8pin: int | None = 0
    unknown: bool = False

    @classmethod
    def of(cls, cards: Sequence[Graphics]) -> "CardPlugs":
        plugs = [(card, *(card.plugs or (0, 0))) for card in cards]
        wide = [(card, pins_16) for card, _, pins_16 in plugs if pins_16]
        return cls(
            sum(pins_8 for _, pins_8, _ in plugs),
            sum(pins_16 for _, pins_16 in wide),
            max((-(-(card.board_power_w - SLOT_W) // pins) for card, pins in wide), default=0),
            _adapter_8pin([card for card, _ in wide]),
            any(card.plugs is None and card.board_power_w > SLOT_W for card in cards),
        )

    def on(self, supply: PowerSupply) -> CardLeads:
        """What these plugs find on a supply; a lead that is rated too low counts as missing."""
        strong = supply.pcie_16pin_w is None or supply.pcie_16pin_w >= self.lead_w
        missing = max(0, self.pcie_16pin - (supply.pcie_16pin if strong else 0))
        return CardLeads(missing, self.pcie_8pin + missing * (self.adapter_8pin or 0))

    def find(self, supply: PowerSupply) -> bool:
        """Whether every plug finds a lead, by the adapter if need be, or may do for all that is
        stated.
        """
        leads = self.on(supply)
        by_adapter = not leads.missing_16pin or self.adapter_8pin != 0
        return by_adapter and leads.needed_8pin <= supply.pcie_8pin

    def open_on(self, supply: PowerSupply) -> bool:
        """Whether it hangs on an adapter of which nothing is known."""
        return bool(self.on(supply).missing_16pin) and self.adapter_8pin is None


def _adapter_8pin(wide: Sequence[Graphics]) -> int | None:
    """8-pin leads that the adapter of each of these cards takes; 0 where one has none."""
    adapters = [card.adapter_8pin for card in wide]
    if not adapters or 0 in adapters:
        return 0
    known = [adapter for adapter in adapters if adapter is not None]
    return max(known) if len(known) == len(adapters) else None


class Sockets(NamedTuple):
    """Power sockets of a board for the processor, and W up to which it states that one lead is
    enough.
    """

    cpu_8pin: int
    cpu_4pin: int
    one_lead_w: int | None


def sockets_of(board: Mainboard) -> Sockets:
    return Sockets(board.cpu_8pin, board.cpu_4pin, board.one_lead_w)


class Plugged(NamedTuple):
    """Leads in a board's processor sockets: how many 8-pin sockets are full, whether any socket is
    without its lead, W that they carry.
    """

    full: int
    short: bool
    watts: int


def plugged_in(supply: PowerSupply, board: Sockets) -> Plugged:
    """8-pin leads go into 8-pin sockets first, then 4-pin ones into what is left; what is left of
    8-pin leads divides for 4-pin sockets.
    """
    full = min(board.cpu_8pin, supply.cpu_8pin)
    half = min(board.cpu_8pin - full, supply.cpu_4pin)
    fours = supply.cpu_4pin - half + 2 * (supply.cpu_8pin - full)
    small = min(board.cpu_4pin, fours)
    return Plugged(
        full,
        full < board.cpu_8pin or small < board.cpu_4pin,
        EIGHT_PIN_W * full + FOUR_PIN_W * (half + small),
    )


def leads_level(supply: PowerSupply, board: Sockets, draw_w: int) -> Level | None:
    """How grave the leads of a supply are for a processor of so many W; None where all is well."""
    if not board.cpu_8pin and not board.cpu_4pin:
        return None
    plugged = plugged_in(supply, board)
    if not plugged.watts or plugged.watts < draw_w:
        return "blocks"
    if not plugged.short:
        return None
    if board.cpu_8pin + board.cpu_4pin == 1:
        return "good to know"
    if board.one_lead_w is None or not plugged.full:
        return "do first"
    return "good to know" if draw_w <= board.one_lead_w else "blocks"
