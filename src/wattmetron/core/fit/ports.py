"""What plugs in where besides drives: adapters, front ports, lights, fans."""

from collections import Counter
from math import ceil

from wattmetron.core.fit.besides import has_wireless
from wattmetron.core.fit.finding import Figure, Said, Speech, Unknown, counted
from wattmetron.core.fit.rule import Look, rule
from wattmetron.core.values.further_parts import Fan, WirelessAdapter
from wattmetron.core.values.parts import BoardForm, Case, Graphics, Kind


@rule(
    "wireless",
    family="ports",
    levels=("do first",),
    reads={"mainboard", "wireless"},
    speaks="the brief wants wireless, the board has none and no card or stick brings it",
    silent="one of them has it, or it is not wanted",
)
def wireless(look: Look) -> Speech:
    """Wireless that the brief wants comes from the board, a card or a stick."""
    board = look.machine.mainboard
    if board and look.wishes.wireless and not has_wireless(look.machine):
        yield Said(
            ("mainboard",),
            f"The brief wants wireless; {board.name} has none.",
            "Take a mainboard with wireless, or add an adapter.",
            (),
            ("wireless", "mainboard"),
        )


@rule(
    "front ports",
    family="ports",
    levels=("good to know",),
    reads={"case", "mainboard"},
    speaks="front ports of the case find no header of their kind, or fewer than they are",
    silent="every port finds one, or the board's headers are not known",
)
def front_ports(look: Look) -> Speech:
    """A front port of the case stays dead without its header."""
    case, board = look.machine.case, look.machine.mainboard
    if not case or not board or not board.front_headers:
        return
    dead = [*(Counter(case.front_ports) - Counter(board.front_headers)).elements()]
    if dead:
        yield Said(
            ("case", "mainboard"),
            f"{', '.join(dead)} in front of {case.name} finds no header on {board.name} and stays"
            " dead.",
            "Nothing to do unless you want that port.",
            (
                Figure("case", ", ".join(case.front_ports)),
                Figure("mainboard", ", ".join(board.front_headers)),
            ),
        )


@rule(
    "lights",
    family="ports",
    levels=("good to know",),
    reads={"case", "mainboard", "fan"},
    speaks="lights of the case or of added fans find no header of their voltage",
    silent="a header of their voltage is there",
)
def lights(look: Look) -> Speech:
    """Lights of one voltage are ruined on a header of the other."""
    case, board = look.machine.case, look.machine.mainboard
    fans = [part for part in dict.fromkeys(look.machine.of("fan")) if isinstance(part, Fan)]
    lit: list[tuple[Kind, Case | Fan]] = [("case", case)] if case else []
    lit += [("fan", fan) for fan in fans]
    for kind, part in lit if board else ():
        assert board is not None
        wrong = [volts for volts in part.lights if volts not in board.light_headers]
        if not wrong:
            continue
        yield Said(
            (kind, "mainboard"),
            f"The {', '.join(wrong)} lights of {part.name} find no header of their voltage on"
            f" {board.name}.",
            "Leave them unconnected: the other voltage would ruin them.",
            (
                Figure(part.name, ", ".join(part.lights)),
                Figure("mainboard", ", ".join(board.light_headers) or "none"),
            ),
        )


@rule(
    "fan headers",
    family="ports",
    levels=("good to know",),
    reads={"case", "mainboard", "fan", "cooler"},
    speaks="case and added fans with the cooler's (of a liquid one its pump and its fans together)"
    " are more than the board has headers",
    silent="as many or fewer",
)
def fan_headers(look: Look) -> Speech:
    """Every fan, of the case, the cooler or added, wants a header; a pump wants one too."""
    case, board, cooler = look.machine.case, look.machine.mainboard, look.machine.cooler
    if not case or not board:
        return
    if board.fan_headers is None:
        yield Unknown("mainboard", board.name, "fan headers")
        return
    of_cooler = 2 if cooler and cooler.radiator else 1
    if look.machine.fans + of_cooler > board.fan_headers:
        added = look.machine.fans - case.fans_included
        wants = "pump and fans of the cooler want two" if of_cooler == 2 else "the cooler wants one"
        brings = f"{case.name} brings {counted(case.fans_included, 'fan')}" + (
            f" and {added} more {'is' if added == 1 else 'are'} added" if added else ""
        )
        yield Said(
            ("case", "mainboard"),
            f"{brings}; {wants}; {board.name} has {counted(board.fan_headers, 'header')}.",
            "Join case fans with a splitter cable; the cooler keeps a header of its own.",
            (
                Figure("fans", str(look.machine.fans)),
                Figure("for the cooler", str(of_cooler)),
                Figure("headers", str(board.fan_headers)),
            ),
        )


ROWS: dict[BoardForm, int] = {"E-ATX": 7, "ATX": 7, "Micro-ATX": 4, "Mini-ITX": 1}
"""Rows for expansion cards by form factor, as the open standards have them."""
ROW_MM = 20.32


def rows_of(card: Graphics) -> int:
    """Rows that a card hides with its thickness; none where that is not known."""
    return ceil((card.thickness_mm or 0) / ROW_MM)


@rule(
    "expansion cards",
    family="ports",
    levels=("blocks",),
    reads={"wireless", "mainboard", "graphics"},
    speaks="an adapter finds no slot, or no row that the graphics card leaves free",
    silent="it does, or hangs on USB",
)
def expansion_cards(look: Look) -> Speech:
    """An adapter needs a slot that the thickness of the graphics card does not hide."""
    board, cards = look.machine.mainboard, look.machine.cards
    adapters = [part for part in look.machine.added if isinstance(part, WirelessAdapter)]
    own = [part for part in adapters if part.via == "PCIe x1"]
    for part in adapters:
        if board and part.via == "M.2":
            yield Unknown("mainboard", board.name, "place for a wireless module")
    if not board or not own:
        return
    slots = len(own)
    if board.short_slots is None:
        yield Unknown("mainboard", board.name, "short slots")
    else:
        slots = board.short_slots + max(0, (board.card_slots or 0) - len(cards))
    rows = ROWS[board.form_factor] - sum(rows_of(card) for card in cards)
    names = ", ".join(part.name for part in own)
    if len(own) > slots:
        sentence = (
            f"{names} {'needs' if len(own) == 1 else 'need'} {counted(len(own), 'slot')};"
            f" {board.name} has {counted(slots, 'slot')} beside the graphics card."
        )
    elif len(own) > rows:
        sentence = (
            f"The graphics card is so thick that it hides the slots for {names} on {board.name}:"
            f" {counted(max(0, rows), 'row')} left."
        )
    else:
        return
    yield Said(
        ("wireless", "mainboard"),
        sentence,
        "Take an adapter on USB, or a mainboard with wireless.",
        (Figure("adapters", str(len(own))), Figure("slots", str(slots))),
        ("wireless", "mainboard"),
    )


@rule(
    "fan places",
    family="ports",
    levels=("wastes",),
    reads={"case", "fan"},
    speaks="there are more fans than places for them in the case",
    silent="as many or fewer, or the places are not known",
)
def fan_places(look: Look) -> Speech:
    """A fan without a place in the case is bought in vain."""
    case = look.machine.case
    if case and case.fan_places is not None and look.machine.fans > case.fan_places:
        yield Said(
            ("case", "fan"),
            f"{look.machine.fans} fans for {case.fan_places} places in {case.name}.",
            "Take fans out, or take a case with more places.",
            (Figure("fans", str(look.machine.fans)), Figure("places", str(case.fan_places))),
        )
