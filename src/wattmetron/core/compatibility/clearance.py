"""What fits into the case: board, card, cooler, radiator and memory beside them, power supply."""

from wattmetron.core.compatibility.finding import Figure, MissingData, RuleFinding, Speech
from wattmetron.core.compatibility.radiator_places import (
    LOW_MEMORY_MM,
    placed_radiator,
    radiator_place,
    takes_radiator,
)
from wattmetron.core.compatibility.room_in_case import (
    PLUG_MM,
    card_room_mm,
    form_fits,
    form_goes,
    tall_mm,
)
from wattmetron.core.compatibility.rule import RuleContext, RuleFamily
from wattmetron.core.values.housing import Case
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import Kind

RULES = RuleFamily("clearance")


@RULES.rule(
    "board form factor",
    levels=("blocks",),
    reads={"mainboard", "case"},
    speaks="the case does not take the board's form factor",
    silent="it does",
    hangs_on={"case": ("board_forms",)},
)
def board_form(look: RuleContext) -> Speech:
    """The case must take the board's form factor."""
    board, case = look.machine.mainboard, look.machine.case
    if board and case and board.form_factor not in case.board_forms:
        takes = ", ".join(case.board_forms)
        yield RuleFinding(
            ("mainboard", "case"),
            f"{board.name} is {board.form_factor}; {case.name} takes {takes}.",
            "Take a case that holds it or a smaller mainboard.",
            (Figure("mainboard", board.form_factor), Figure("case", takes)),
            ("case", "mainboard"),
        )


@RULES.rule(
    "card length",
    levels=("blocks",),
    reads={"graphics", "case", "cooler", "memory"},
    speaks="the card is longer than the case takes, less the thickness of a radiator in front",
    silent="as long or shorter",
    hangs_on={"case": ("card_length_mm",), "graphics": ("length_mm",)},
)
def card_length(look: RuleContext) -> Speech:
    """The card must not be longer than the case allows, less a radiator in front of it."""
    case, cooler = look.machine.case, look.machine.cooler
    if not case:
        return
    room = card_room_mm(look.machine, case)
    for card in dict.fromkeys(look.machine.cards):
        if card.length_mm <= room:
            continue
        shortened = (
            f" with the radiator of {cooler.name} in front"
            if cooler and room < case.card_length_mm
            else ""
        )
        kinds: tuple[Kind, ...] = (
            ("graphics", "case", "cooler") if shortened else ("graphics", "case")
        )
        yield RuleFinding(
            kinds,
            f"{card.name} is {card.length_mm} mm long, {card.length_mm - room} mm more than"
            f" {case.name} takes{shortened}.",
            "Take a case with more room for the card, or a shorter card.",
            (Figure("card", str(card.length_mm), "mm"), Figure("room", str(room), "mm")),
            ("case", "cooler", "graphics") if shortened else ("case", "graphics"),
        )


@RULES.rule(
    "card height",
    levels=("blocks",),
    reads={"graphics", "case"},
    speaks="the card, with the plug of a 16-pin lead 15 mm above it, stands taller above its slot"
    " than the case takes",
    silent="as tall or lower",
    hangs_on={"case": ("card_height_mm",), "graphics": ("height_mm",)},
)
def card_height(look: RuleContext) -> Speech:
    """The card must not stand taller above its slot than the side panel allows."""
    case = look.machine.case
    for card in dict.fromkeys(look.machine.cards) if case else ():
        assert case is not None
        plug = " with its 16-pin plug" if card.pcie_16pin else ""
        yield from _within(
            ("graphics", "tall"),
            (card.name + plug, tall_mm(card), "height"),
            (case.name, case.card_height_mm, "tallest card"),
        )


@RULES.rule(
    "card thickness",
    levels=("blocks",),
    reads={"graphics", "case"},
    speaks="the card is thicker than the case takes",
    silent="as thick or thinner",
    hangs_on={"case": ("card_thickness_mm",)},
)
def card_thickness(look: RuleContext) -> Speech:
    """The card must not be thicker than the case's slots allow."""
    case = look.machine.case
    for card in dict.fromkeys(look.machine.cards) if case else ():
        assert case is not None
        yield from _within(
            ("graphics", "thick"),
            (card.name, card.thickness_mm, "thickness"),
            (case.name, case.card_thickness_mm, "thickest card"),
        )


def _within(
    what: tuple[Kind, str], its_size: tuple[str, int | None, str], room: tuple[str, int | None, str]
) -> Speech:
    """A part's size against the room that the case leaves; either may be unknown."""
    (kind, word), (part, size_mm, size), (case, room_mm, limit) = what, its_size, room
    if size_mm is None:
        yield MissingData(kind, part, size)
    elif room_mm is None:
        yield MissingData("case", case, limit)
    elif size_mm > room_mm:
        yield RuleFinding(
            (kind, "case"),
            f"{part} is {size_mm} mm {word}, {size_mm - room_mm} mm more than {case} takes.",
            "Take a case with more room, or a smaller one of these.",
            (Figure(size, str(size_mm), "mm"), Figure("room", str(room_mm), "mm")),
            ("case", kind),
        )


@RULES.rule(
    "cooler height",
    levels=("blocks",),
    reads={"cooler", "case", "processor"},
    speaks="the cooler, or the boxed one that is relied on, is taller than the case takes",
    silent="as tall or lower",
    hangs_on={"case": ("cooler_height_mm",), "cooler": ("height_mm",)},
)
def cooler_height(look: RuleContext) -> Speech:
    """The cooler must not be taller than the case allows."""
    cooler, case = look.machine.cooler, look.machine.case
    if case and not cooler and look.machine.boxed_suffices:
        yield from _boxed_height(look.machine, case)
    if cooler and case and cooler.height_mm > case.cooler_height_mm:
        over = cooler.height_mm - case.cooler_height_mm
        yield RuleFinding(
            ("cooler", "case"),
            f"{cooler.name} is {cooler.height_mm} mm tall, {over} mm more than {case.name} takes.",
            "Take a lower cooler or a wider case.",
            (
                Figure("cooler", str(cooler.height_mm), "mm"),
                Figure("room", str(case.cooler_height_mm), "mm"),
            ),
            ("cooler", "case"),
        )


@RULES.rule(
    "side fan",
    levels=("do first",),
    reads={"cooler", "case", "processor"},
    speaks="a fan in the side panel reaches down to the cooler",
    silent="there is none, or it leaves room for the cooler",
)
def side_fan(look: RuleContext) -> Speech:
    """A fan in the side panel takes room from the cooler under it."""
    cooler, case, chip = look.machine.cooler, look.machine.case, look.machine.processor
    if not case or case.side_fan_mm is None:
        return
    boxed_mm = chip.boxed_height_mm if chip and look.machine.boxed_suffices else None
    height_mm = cooler.height_mm if cooler else boxed_mm
    room_mm = case.cooler_height_mm - case.side_fan_mm
    if height_mm and room_mm < height_mm <= case.cooler_height_mm:
        yield RuleFinding(
            ("case", "cooler"),
            f"The fan in the side panel of {case.name} leaves {room_mm} mm above the processor;"
            f" {cooler.name if cooler else 'the boxed cooler'} is {height_mm} mm tall.",
            f"Take the side fan out, or take a cooler of {room_mm} mm or less.",
            (Figure("cooler", str(height_mm), "mm"), Figure("room", str(room_mm), "mm")),
            ("cooler",),
        )


def _boxed_height(machine: Machine, case: Case) -> Speech:
    chip = machine.processor
    if chip is None:
        return
    height_mm = chip.boxed_height_mm
    if height_mm is None:
        yield MissingData("processor", chip.name, "height of the boxed cooler")
    elif height_mm > case.cooler_height_mm:
        yield RuleFinding(
            ("processor", "case"),
            f"The boxed cooler of {chip.name} is {height_mm} mm tall,"
            f" {height_mm - case.cooler_height_mm} mm more than {case.name} takes.",
            "Add a lower cooler, or take a wider case.",
            (
                Figure("boxed cooler", str(height_mm), "mm"),
                Figure("room", str(case.cooler_height_mm), "mm"),
            ),
            ("cooler", "case"),
        )


@RULES.rule(
    "radiator place",
    levels=("blocks",),
    reads={"cooler", "case", "memory"},
    speaks="no place of the case is as long and as wide as the radiator, on top as thick with its"
    " fans; on top it must not reach over the board onto memory above 35 mm",
    silent="one is",
)
def radiator(look: RuleContext) -> Speech:
    """A radiator needs a place of its length, width and, on top, thickness."""
    cooler, case = look.machine.cooler, look.machine.case
    if not cooler or not case or cooler.radiator is None:
        return
    position = placed_radiator(look.machine)
    if position == "top" and case.radiator_top_thickness_mm is None:
        yield MissingData("case", case.name, "thickest radiator on top")
    if position:
        return
    kit = look.machine.memory
    if kit and radiator_place(case, cooler.radiator) == "top":
        thickness_mm = cooler.radiator_thickness_mm
        yield RuleFinding(
            ("cooler", "case", "memory"),
            f"On top of {case.name} there are {case.above_board_mm} mm above the mainboard; the"
            f" radiator of {cooler.name} is {thickness_mm} mm thick with its fans and meets"
            f" {kit.name}, which is {kit.height_mm} mm tall.",
            f"Take memory of {LOW_MEMORY_MM} mm or less, a thinner radiator, or a case with more"
            " room on top.",
            (
                Figure("radiator", str(thickness_mm), "mm"),
                Figure("above the board", str(case.above_board_mm), "mm"),
                Figure("memory", str(kit.height_mm), "mm"),
            ),
            ("memory", "cooler", "case"),
        )
        return
    has = (
        ("front", case.radiator_front_mm),
        ("top", case.radiator_top_mm),
        ("rear", case.radiator_rear_mm),
    )
    places = ", ".join(
        f"{position} {' or '.join(map(str, sizes))} mm" for position, sizes in has if sizes
    )
    thick = (
        f" up to {case.radiator_top_thickness_mm} mm thick"
        if takes_radiator(case.radiator_top_mm, cooler.radiator[0])
        else ""
    )
    yield RuleFinding(
        ("cooler", "case"),
        f"The {cooler.radiator_mm} mm radiator of {cooler.name} finds no place in {case.name},"
        f" which has {places or 'none'}{thick}.",
        "Take a case with a place for it, or another cooler.",
        (Figure("radiator", str(cooler.radiator_mm), "mm"), Figure("places", places or "none")),
        ("cooler", "case"),
    )


@RULES.rule(
    "memory clearance",
    levels=("blocks",),
    reads={"cooler", "memory"},
    speaks="the memory is taller than an air cooler leaves beside it",
    silent="as tall or lower, or the cooler is liquid",
    hangs_on={"memory": ("height_mm",), "cooler": ("memory_clearance_mm",)},
)
def memory_clearance(look: RuleContext) -> Speech:
    """Tall memory must fit beside an air cooler."""
    cooler, kit = look.machine.cooler, look.machine.memory
    if not cooler or not kit or cooler.radiator_mm is not None:
        return
    if kit.height_mm is None:
        yield MissingData("memory", kit.name, "height")
    elif cooler.memory_clearance_mm is None:
        yield MissingData("cooler", cooler.name, "memory clearance")
    elif kit.height_mm > cooler.memory_clearance_mm:
        yield RuleFinding(
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


@RULES.rule(
    "supply form factor",
    levels=("blocks", "good to know"),
    reads={"supply", "case"},
    speaks="the case does not take the supply's form factor (an SFX supply in an ATX place needs a"
    " bracket: good to know)",
    silent="it does",
)
def supply_form(look: RuleContext) -> Speech:
    """The case must take the supply's form factor."""
    supply, case = look.machine.supply, look.machine.case
    if not supply or not case or form_fits(supply.form, case):
        return
    takes = ", ".join(case.supply_forms)
    figures = Figure("supply", supply.form), Figure("case", takes)
    if form_goes(supply.form, case):
        yield RuleFinding(
            ("supply", "case"),
            f"{supply.name} is {supply.form}; in the ATX place of {case.name} it stands on a"
            " bracket.",
            "Most SFX supplies come with one: look that it is in the box.",
            figures,
            level="good to know",
        )
        return
    yield RuleFinding(
        ("supply", "case"),
        f"The form factor of {supply.name} is {supply.form}; {case.name} takes {takes}.",
        f"Take a power supply of form factor {' or '.join(case.supply_forms)}.",
        figures,
        ("supply", "case"),
    )


@RULES.rule(
    "supply length",
    levels=("blocks",),
    reads={"supply", "case"},
    speaks="the supply is longer than its place",
    silent="as long or shorter",
    hangs_on={"case": ("supply_length_mm",), "supply": ("length_mm",)},
)
def supply_length(look: RuleContext) -> Speech:
    """The supply must not be longer than its place."""
    supply, case = look.machine.supply, look.machine.case
    if supply and case and supply.form != "external" and form_goes(supply.form, case):
        yield from _within(
            ("supply", "long"),
            (supply.name, supply.length_mm, "length"),
            (case.name, case.supply_length_mm, "longest power supply"),
        )


BEND_MM = 35
"""Straight cable that a 16-pin plug wants before the first bend; usual advice."""


@RULES.rule(
    "cable bend",
    levels=("good to know",),
    reads={"graphics", "case"},
    speaks="the panel leaves room for the plug of a card's 16-pin lead, but less than 35 mm before"
    " the bend",
    silent="it leaves as much or more, or one of both is not known",
)
def cable_bend(look: RuleContext) -> Speech:
    """A 16-pin plug is bent only behind a straight piece of cable."""
    card, case = look.machine.graphics, look.machine.case
    if not card or not case or not card.pcie_16pin or not card.height_mm:
        return
    left_mm = (case.card_height_mm or card.height_mm + BEND_MM) - card.height_mm
    if PLUG_MM <= left_mm < BEND_MM:
        yield RuleFinding(
            ("graphics", "case"),
            f"Between the 16-pin plug of {card.name} and the panel of {case.name} there are"
            f" {left_mm} mm; the cable wants {BEND_MM} mm before its bend.",
            "Take a lead with an angled plug, or a wider case.",
            (Figure("room", str(left_mm), "mm"), Figure("wanted", str(BEND_MM), "mm")),
        )
