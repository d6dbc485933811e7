"""A card that a build must take later: a named one, or one of so many watts and millimetres."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.fit.leads import SLOT_W
from wattmetron.core.fit.rule import Look
from wattmetron.core.fit.rules import BLOCKING, blocking
from wattmetron.core.fit.wishes import Wishes
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics

LEAD_W = 150
"""What an 8-pin lead is taken to carry to a card."""
SPIKES = 1.5
"""Short spikes of a card of which only the power is known; assumed."""


def later_card(catalogue: Catalogue, brief: Brief) -> Graphics | None:
    """The card that the brief wants room for; None without one, or where the catalogue lost it."""
    named = catalogue.parts.get(brief.later_card)
    if isinstance(named, Graphics):
        return named
    if brief.later_card or brief.later_card_w is None:
        return None
    return Graphics(
        id="later",
        maker="A later card",
        model=f"of {brief.later_card_w} W and {brief.later_card_mm} mm",
        chip="later",
        speed_1080p=1.0,
        speed_sd=0.0,
        memory_gb=1.0,
        pcie_gen=1,
        pcie_lanes=16,
        board_power_w=brief.later_card_w,
        spike_factor=SPIKES,
        length_mm=brief.later_card_mm,
        pcie_8pin=max(0, -(-(brief.later_card_w - SLOT_W) // LEAD_W)),
        outputs=("later",),
    )


def with_later(machine: Machine, card: Graphics) -> Machine:
    """The machine with the later card in the place of what draws now."""
    return replace(machine, graphics=card, second_card=None)


def against_later(machine: Machine, card: Graphics, headroom_percent: int) -> str:
    """Why a machine does not take a later card, in a sentence; empty where it does."""
    look = Look(with_later(machine, card), Wishes(headroom_percent=headroom_percent))
    return next((said.sentence for said in blocking(BLOCKING, look)), "")
