"""What fits into the case: board, card, cooler, radiator and memory beside them, power supply."""

from collections.abc import Iterator

from wattmetron.core.fit.finding import Figure, Finding, Gap, Spoken
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Case, Kind, Radiator


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


def takes_radiator(longest_mm: Radiator | None, radiator_mm: Radiator) -> bool:
    """Whether a place takes a radiator: no longer than the place, and no wider (120 or 140 mm)."""
    return (
        longest_mm is not None
        and radiator_mm <= longest_mm
        and _width_mm(radiator_mm) <= _width_mm(longest_mm)
    )


def _width_mm(radiator_mm: int) -> int:
    return 140 if radiator_mm % 140 == 0 else 120


def radiator_place(case: Case, radiator_mm: Radiator) -> str | None:
    """Where a radiator goes: on top, else at the rear, else in front; None where it goes
    nowhere.
    """
    if takes_radiator(case.radiator_top_mm, radiator_mm):
        return "top"
    if takes_radiator(case.radiator_rear_mm, radiator_mm):
        return "rear"
    return "front" if takes_radiator(case.radiator_front_mm, radiator_mm) else None


def card_room_mm(case: Case, radiator: tuple[Radiator, int] | None) -> int:
    """Longest card, in mm, beside a radiator of this length and thickness: in front it takes its
    thickness away.
    """
    if radiator is not None and radiator_place(case, radiator[0]) == "front":
        return case.card_length_mm - radiator[1]
    return case.card_length_mm


def card_length(machine: Machine) -> Iterator[Finding]:
    """The card must not be longer than the case allows, less a radiator in front of it."""
    card, case, cooler = machine.graphics, machine.case, machine.cooler
    if not card or not case:
        return
    room = card_room_mm(case, cooler.radiator if cooler else None)
    if card.length_mm > room:
        shortened = (
            f" with the radiator of {cooler.name} in front"
            if cooler and room < case.card_length_mm
            else ""
        )
        kinds: tuple[Kind, ...] = (
            ("graphics", "case", "cooler") if shortened else ("graphics", "case")
        )
        yield Finding(
            "card length",
            "blocks",
            kinds,
            f"{card.name} is {card.length_mm} mm long, {card.length_mm - room} mm more than"
            f" {case.name} takes{shortened}.",
            "Take a case with more room for the card, or a shorter card.",
            (Figure("card", str(card.length_mm), "mm"), Figure("room", str(room), "mm")),
            ("case", "cooler", "graphics") if shortened else ("case", "graphics"),
        )


def card_height(machine: Machine) -> Iterator[Spoken]:
    """The card must not stand taller above its slot than the side panel allows."""
    card, case = machine.graphics, machine.case
    if card and case:
        yield from _within(
            ("card height", "graphics", "tall"),
            (card.name, card.height_mm, "height"),
            (case.name, case.card_height_mm, "tallest card"),
        )


def card_thickness(machine: Machine) -> Iterator[Spoken]:
    """The card must not be thicker than the case's slots allow."""
    card, case = machine.graphics, machine.case
    if card and case:
        yield from _within(
            ("card thickness", "graphics", "thick"),
            (card.name, card.thickness_mm, "thickness"),
            (case.name, case.card_thickness_mm, "thickest card"),
        )


def supply_length(machine: Machine) -> Iterator[Spoken]:
    """The supply must not be longer than its place."""
    supply, case = machine.supply, machine.case
    if supply and case and supply.form in case.supply_forms:
        yield from _within(
            ("supply length", "supply", "long"),
            (supply.name, supply.length_mm, "length"),
            (case.name, case.supply_length_mm, "longest power supply"),
        )


def _within(
    rule: tuple[str, Kind, str], own: tuple[str, int | None, str], room: tuple[str, int | None, str]
) -> Iterator[Spoken]:
    """A part's size against the room that the case leaves; either may be unknown."""
    (name, kind, word), (part, size_mm, size), (case, room_mm, limit) = rule, own, room
    if size_mm is None:
        yield Gap(name, kind, part, size)
    elif room_mm is None:
        yield Gap(name, "case", case, limit)
    elif size_mm > room_mm:
        yield Finding(
            name,
            "blocks",
            (kind, "case"),
            f"{part} is {size_mm} mm {word}, {size_mm - room_mm} mm more than {case} takes.",
            "Take a case with more room, or a smaller one of these.",
            (Figure(size, str(size_mm), "mm"), Figure("room", str(room_mm), "mm")),
            ("case", kind),
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
            (
                Figure("cooler", str(cooler.height_mm), "mm"),
                Figure("room", str(case.cooler_height_mm), "mm"),
            ),
            ("cooler", "case"),
        )


def radiator(machine: Machine) -> Iterator[Finding]:
    """A radiator needs a place of its length and width."""
    cooler, case = machine.cooler, machine.case
    if (
        not cooler
        or not case
        or cooler.radiator_mm is None
        or radiator_place(case, cooler.radiator_mm)
    ):
        return
    has = (
        ("front", case.radiator_front_mm),
        ("top", case.radiator_top_mm),
        ("rear", case.radiator_rear_mm),
    )
    places = ", ".join(f"{place} {longest} mm" for place, longest in has if longest) or "none"
    yield Finding(
        "radiator place",
        "blocks",
        ("cooler", "case"),
        f"The {cooler.radiator_mm} mm radiator of {cooler.name} finds no place in {case.name},"
        f" which has {places}.",
        "Take a case with a place for it, or another cooler.",
        (Figure("radiator", str(cooler.radiator_mm), "mm"), Figure("places", places)),
        ("cooler", "case"),
    )


def memory_clearance(machine: Machine) -> Iterator[Spoken]:
    """Tall memory must fit beside an air cooler."""
    cooler, kit = machine.cooler, machine.memory
    if not cooler or not kit or cooler.radiator_mm is not None:
        return
    if kit.height_mm is None:
        yield Gap("memory clearance", "memory", kit.name, "height")
    elif cooler.memory_clearance_mm is None:
        yield Gap("memory clearance", "cooler", cooler.name, "memory clearance")
    elif kit.height_mm > cooler.memory_clearance_mm:
        yield Finding(
            "memory clearance",
            "blocks",
            ("memory", "cooler"),
            f"{kit.name} is {kit.height_mm} mm tall; {cooler.name} leaves"
            f" {cooler.memory_clearance_mm} mm beside it.",
            "Take lower memory, or a cooler that does not reach over it.",
            (
                Figure("memory", str(kit.height_mm), "mm"),
                Figure("room", str(cooler.memory_clearance_mm), "mm"),
            ),
            ("cooler", "memory"),
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
