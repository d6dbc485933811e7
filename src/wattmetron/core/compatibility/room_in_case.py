"""The room that a case leaves for a graphics card, and for a power supply."""

from wattmetron.core.compatibility.radiator_places import (
    placed_radiator,
)
from wattmetron.core.values.housing import Case, PowerSupply
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics, Radiator, SupplyForm


def card_room_mm(machine: Machine, case: Case) -> int:
    """Longest card, in mm, that a case takes beside the machine's radiator: in front this takes
    its thickness away.
    """
    cooler = machine.cooler
    if cooler is None or cooler.radiator is None:
        return case.card_length_mm
    return card_room_beside_mm(case, cooler.radiator, placed_radiator(machine))


def card_room_beside_mm(case: Case, radiator: tuple[Radiator, int], place_name: str | None) -> int:
    """The same where the radiator's place is known."""
    return case.card_length_mm - (radiator[1] if place_name == "front" else 0)


PLUG_MM = 15
"""How far the plug of a 16-pin lead stands above the card's edge; usual."""


def tall_mm(card: Graphics) -> int | None:
    """Height of a card above its slot, with the plug of a 16-pin lead; None where it is not
    known.
    """
    return card.height_mm and card.height_mm + (PLUG_MM if card.pcie_16pin else 0)


GOES_INTO: dict[SupplyForm, tuple[SupplyForm, ...]] = {
    "ATX": ("ATX",),
    "SFX": ("SFX", "SFX-L"),
    "SFX-L": ("SFX-L",),
    "external": ("external",),
}
"""Places that take a form factor as it is."""
ON_BRACKET: tuple[SupplyForm, ...] = ("SFX", "SFX-L")
"""Forms that stand on a bracket in an ATX place."""


def form_fits(form: SupplyForm, case: Case) -> bool:
    """Whether a case takes supplies of a form factor as they are."""
    return any(room in case.supply_forms for room in GOES_INTO[form])


def form_goes(form: SupplyForm, case: Case) -> bool:
    """The same, on a bracket if need be."""
    return form_fits(form, case) or (form in ON_BRACKET and "ATX" in case.supply_forms)


def inside_length_mm(supply: PowerSupply) -> int | None:
    """Length of a supply in its place; one that stands outside takes none."""
    return 0 if supply.form == "external" else supply.length_mm
