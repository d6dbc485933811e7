"""What fits into the case: board form factor, card length, cooler height, supply form factor."""

from collections.abc import Iterator

from wattmetron.core.fit.finding import Figure, Finding
from wattmetron.core.machine import Machine


def board_form(machine: Machine) -> Iterator[Finding]:
    """The case must take the board's form factor."""
    board, case = machine.mainboard, machine.case
    if board and case and board.form_factor not in case.board_forms:
        takes = ", ".join(case.board_forms)
        yield Finding(
            "board form factor",
            "blocks",
            ("mainboard", "case"),
            f"{board.name} is {board.form_factor}; {case.name} takes {takes}.",
            "Take a case that holds it or a smaller mainboard.",
            (Figure("mainboard", board.form_factor), Figure("case", takes)),
            ("case", "mainboard"),
        )


def card_length(machine: Machine) -> Iterator[Finding]:
    """The card must not be longer than the case allows."""
    card, case = machine.graphics, machine.case
    if card and case and card.length_mm > case.card_length_mm:
        over = card.length_mm - case.card_length_mm
        yield Finding(
            "card length",
            "blocks",
            ("graphics", "case"),
            f"{card.name} is {card.length_mm} mm long, {over} mm more than {case.name} takes.",
            "Take a case with more room for the card, or a shorter card.",
            (Figure("card", str(card.length_mm), "mm"), Figure("room", str(case.card_length_mm), "mm")),
            ("case", "graphics"),
        )


def cooler_height(machine: Machine) -> Iterator[Finding]:
    """The cooler must not be taller than the case allows."""
    cooler, case = machine.cooler, machine.case
    if cooler and case and cooler.height_mm > case.cooler_height_mm:
        over = cooler.height_mm - case.cooler_height_mm
        yield Finding(
            "cooler height",
            "blocks",
            ("cooler", "case"),
            f"{cooler.name} is {cooler.height_mm} mm tall, {over} mm more than {case.name} takes.",
            "Take a lower cooler or a wider case.",
            (Figure("cooler", str(cooler.height_mm), "mm"), Figure("room", str(case.cooler_height_mm), "mm")),
            ("cooler", "case"),
        )


def supply_form(machine: Machine) -> Iterator[Finding]:
    """The case must take the supply's form factor."""
    supply, case = machine.supply, machine.case
    if supply and case and supply.form not in case.supply_forms:
        takes = ", ".join(case.supply_forms)
        yield Finding(
            "supply form factor",
            "blocks",
            ("supply", "case"),
            f"{supply.name} is {supply.form}; {case.name} takes {takes}.",
            f"Take a power supply in {takes}.",
            (Figure("supply", supply.form), Figure("case", takes)),
            ("supply", "case"),
        )
