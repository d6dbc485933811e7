"""What a build must take later: a card (a named one, one of so many watts and millimetres, a second
like the first) and a processor.
"""

from collections.abc import Iterator
from dataclasses import replace
from typing import NamedTuple

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.leads import SLOT_W
from wattmetron.core.compatibility.rule import RuleContext
from wattmetron.core.compatibility.rule_wishes import Wishes
from wattmetron.core.compatibility.rules import BLOCKING, blocking
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics, Processor

LEAD_W = 150
"""What an 8-pin lead is taken to carry to a card."""
LATER_ID = "later"
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
        id=LATER_ID,
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


def later_chip(catalogue: Catalogue, brief: Brief) -> Processor | None:
    """The processor that the brief wants room for; None without one, or where it was lost."""
    named = catalogue.parts.get(brief.later_processor)
    return named if isinstance(named, Processor) else None


class ToCome(NamedTuple):
    """What a build must take later: a card, a second card like its first, a processor."""

    card: Graphics | None = None
    second: bool = False
    chip: Processor | None = None

    def machines(self, machine: Machine) -> Iterator[tuple[str, Machine]]:
        """Machines that come of one, by the field of the brief that asks for each: with every
        part in its place alone, and with all of them.
        """
        cards = [("", machine)]
        if self.card is not None:
            field = "later_card_w" if self.card.id == LATER_ID else "later_card"
            cards.append((field, replace(machine, graphics=self.card, second_card=None)))
        if self.second and machine.graphics is not None:
            cards.append(("later_second", replace(machine, second_card=machine.graphics)))
        yield from cards[1:]
        if self.chip is not None:
            for _, with_card in cards:
                yield "later_processor", self.with_chip(with_card, self.chip)

    def with_chip(self, machine: Machine, chip: Processor) -> Machine:
        """The machine with the later processor, on its own boxed cooler where that suffices."""
        cooler = None if chip.brings_cooler else machine.cooler
        return replace(machine, processor=chip, cooler=cooler)


def against_later(machine: Machine, headroom_percent: int) -> str:
    """Why a machine to come does not go together, in a sentence; empty where it does."""
    look = RuleContext(machine, Wishes(headroom_percent=headroom_percent))
    return next((finding.sentence for finding in blocking(BLOCKING, look)), "")
