"""The cables of a machine, and where each goes."""

from collections.abc import Iterator
from dataclasses import dataclass

from wattmetron.core.compatibility.leads import CardPlugs, plugged_in, sockets_of
from wattmetron.core.values.housing import PowerSupply
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics
from wattmetron.core.values.seating import cabled
from wattmetron.core.values.words import counted


@dataclass(frozen=True, slots=True)
class Cable:
    """Cables of a type: how many the machine needs and the supply has; None where that is not
    known.
    """

    name: str
    needed: int
    has: int | None
    goes_to: str


def cables(machine: Machine) -> tuple[Cable, ...]:
    """Every type of cable that the machine needs, against the supply."""
    supply, board, card = machine.supply, machine.mainboard, machine.graphics
    if supply is None:
        return ()
    rows = []
    if board:
        rows.append(Cable("24-pin", 1, 1, board.name))
        plugged = plugged_in(supply, sockets_of(board))
        if board.cpu_8pin:
            needed = plugged.full or board.cpu_8pin
            rows.append(Cable("8-pin processor", needed, supply.cpu_8pin, board.name))
        if board.cpu_4pin:
            fours = supply.cpu_4pin + 2 * (supply.cpu_8pin - plugged.full)
            rows.append(Cable("4-pin processor", board.cpu_4pin, fours, board.name))
    if card:
        rows += _card_cables(machine, card, supply)
    if sata := cabled(machine.storage) + machine.sata_optical:
        rows.append(Cable("SATA power", sata, supply.sata_plugs, counted(sata, "drive")))
    return tuple(rows)


def _card_cables(machine: Machine, card: Graphics, supply: PowerSupply) -> Iterator[Cable]:
    """Leads of the cards, by the adapter where the supply has no fitting 16-pin lead."""
    plugs = CardPlugs.of(machine.cards)
    leads = plugs.on(supply)
    if leads.needed_8pin:
        where = f"{card.name}, through its adapter" if leads.missing_16pin else card.name
        yield Cable("8-pin PCIe", leads.needed_8pin, supply.pcie_8pin, where)
    if plugs.pcie_16pin and not (leads.missing_16pin and plugs.adapter_8pin):
        yield Cable("16-pin PCIe", plugs.pcie_16pin, supply.pcie_16pin, card.name)
