"""What plugs in where besides drives: adapters, front ports, lights, fans."""

from collections import Counter
from collections.abc import Sequence
from math import ceil

from wattmetron.core.compatibility.extras import has_wireless, is_module, records
from wattmetron.core.compatibility.finding import Figure, MissingData, RuleFinding, Speech
from wattmetron.core.compatibility.rule import RuleContext, RuleFamily
from wattmetron.core.values.fan_places import homeless, places_for_fans
from wattmetron.core.values.further_parts import CaptureCard, Fan
from wattmetron.core.values.housing import Case
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import NONE, BoardForm, Graphics, Mainboard, Part
from wattmetron.core.values.words import counted

RULES = RuleFamily("ports")


@RULES.rule(
    "wireless",
    levels=("do first",),
    reads={"mainboard", "wireless"},
    speaks="the brief wants wireless, the board has none and no card or stick brings it",
    silent="one of them has it, or it is not wanted",
)
def wireless(look: RuleContext) -> Speech:
    """Wireless that the brief wants comes from the board, a card or a stick."""
    board = look.machine.mainboard
    if not board or not look.wishes.wireless or has_wireless(look.machine):
        return
    if not board.wireless:
        yield MissingData("mainboard", board.name, "wireless")
    else:
        yield RuleFinding(
            ("mainboard",),
            f"The brief wants wireless; {board.name} has no wireless, and no adapter brings it.",
            "Take a mainboard with wireless, or add an adapter.",
            (),
            ("wireless", "mainboard"),
        )


@RULES.rule(
    "front ports",
    levels=("good to know",),
    reads={"case", "mainboard"},
    speaks="front ports of the case find no header of their kind, or fewer than they are",
    silent="every port finds one",
)
def front_ports(look: RuleContext) -> Speech:
    """A front port of the case stays dead without its header."""
    case, board = look.machine.case, look.machine.mainboard
    if not case or not board or not _named(case.front_ports):
        return
    if not board.front_headers:
        yield MissingData("mainboard", board.name, "headers for front ports")
        return
    dead = [*(Counter(_named(case.front_ports)) - Counter(_named(board.front_headers))).elements()]
    if dead:
        yield RuleFinding(
            ("case", "mainboard"),
            f"{', '.join(dead)} in front of {case.name} finds no header on {board.name} and stays"
            " dead.",
            "Nothing to do unless you want that port.",
            (
                Figure("case", ", ".join(case.front_ports)),
                Figure("mainboard", ", ".join(board.front_headers)),
            ),
        )


@RULES.rule(
    "lights",
    levels=("good to know",),
    reads={"case", "mainboard", "fan"},
    speaks="lights of the case or of added fans find no header of their voltage",
    silent="a header of their voltage is there",
)
def lights(look: RuleContext) -> Speech:
    """Lights of one voltage are ruined on a header of the other."""
    case, board = look.machine.case, look.machine.mainboard
    fans = [part for part in dict.fromkeys(look.machine.of("fan")) if isinstance(part, Fan)]
    lit: list[tuple[Kind, Case | Fan]] = [("case", case)] if case else []
    lit += [("fan", fan) for fan in fans]
    for kind, part in lit if board else ():
        assert board is not None
        wrong = [volts for volts in _named(part.lights) if volts not in board.light_headers]
        if wrong and not board.light_headers:
            yield MissingData("mainboard", board.name, "headers for lights")
            continue
        if not wrong:
            continue
        yield RuleFinding(
            (kind, "mainboard"),
            f"The {', '.join(wrong)} lights of {part.name} find no header of their voltage on"
            f" {board.name}.",
            "Leave them unconnected: the other voltage would ruin them.",
            (
                Figure(part.name, ", ".join(part.lights)),
                Figure("mainboard", ", ".join(board.light_headers)),
            ),
        )


def _named(listed: tuple[str, ...]) -> list[str]:
    """What a list names; nothing where it says that there are none."""
    return [name for name in listed if name.casefold() != NONE]


@RULES.rule(
    "fan headers",
    levels=("do first",),
    reads={"case", "mainboard", "fan", "splitter", "cooler"},
    speaks="case and added fans with the cooler's (of a liquid one its pump and its fans together)"
    " are more than the board has headers, with those that splitters join",
    silent="as many or fewer",
)
def fan_headers(look: RuleContext) -> Speech:
    """Every fan, of the case, the cooler or added, wants a header; a pump wants one too."""
    case, board, cooler = look.machine.case, look.machine.mainboard, look.machine.cooler
    if not case or not board:
        return
    if board.fan_headers is None:
        yield MissingData("mainboard", board.name, "fan headers")
        return
    if case.fans_included is None:
        yield MissingData("case", case.name, "fans included")
    of_cooler = 2 if cooler and cooler.radiator else 1
    included = case.fans_included or 0
    needed = look.machine.fans - look.machine.fans_joined + of_cooler
    if needed > board.fan_headers:
        added = look.machine.fans - included
        wants = "pump and fans of the cooler want two" if of_cooler == 2 else "the cooler wants one"
        brings = f"{case.name} brings {counted(included, 'fan')}"
        if added:
            brings += f" and {added} more {'is' if added == 1 else 'are'} added"
        yield RuleFinding(
            ("case", "mainboard"),
            f"{brings}; {wants}; {board.name} has {counted(board.fan_headers, 'header')}"
            + (" and a splitter does not join enough." if look.machine.fans_joined else "."),
            "Get a splitter cable and join case fans with it; the cooler keeps a header of its"
            " own.",
            (
                Figure("fans", str(look.machine.fans)),
                Figure("joined by splitters", str(look.machine.fans_joined)),
                Figure("for the cooler", str(of_cooler)),
                Figure("headers", str(board.fan_headers)),
            ),
            ("splitter",),
        )


ROWS: dict[BoardForm, int] = {"E-ATX": 7, "ATX": 7, "Micro-ATX": 4, "Mini-ITX": 1}
"""Rows for expansion cards by form factor, as the open standards have them."""
ROW_MM = 20.32
"""0.8 inch: the pitch of expansion slots in the ATX standard."""


def rows_of(card: Graphics) -> int:
    """Rows that a card hides with its thickness; none where that is not known."""
    return ceil((card.thickness_mm or 0) / ROW_MM)


@RULES.rule(
    "expansion cards",
    levels=("blocks",),
    reads={"wireless", "capture", "mainboard", "graphics"},
    speaks="an expansion card finds no slot of its lanes, or no row that the graphics card leaves"
    " free, or a module no slot of its kind",
    silent="it does, or hangs on USB",
)
def expansion_cards(look: RuleContext) -> Speech:
    """An expansion card needs a slot that the thickness of the graphics card does not hide."""
    board, cards = look.machine.mainboard, look.machine.expansion_cards
    if board:
        yield from _modules(board, [part for part in look.machine.added if is_module(part)])
    if not board or not cards:
        return
    spare = max(0, (board.card_slots or 0) - len(look.machine.cards))
    wide = [card for card in cards if card.slot_lanes > 1]
    if wide and board.card_slots is None:
        yield MissingData("mainboard", board.name, "slots for a graphics card")
        wide = []
    if board.short_slots is None:
        yield MissingData("mainboard", board.name, "short slots")
        slots = max(len(cards), spare)
    else:
        slots = board.short_slots + spare
    sentence = (
        _without_slot(board, cards, slots)
        or _without_lanes(board, wide, spare)
        or _without_row(board, cards, look.machine.cards)
    )
    if sentence:
        kinds = tuple(dict.fromkeys(map(kind_of, cards)))
        yield RuleFinding(
            (*kinds, "mainboard"),
            sentence,
            _instead(kinds),
            (Figure("cards", str(len(cards))), Figure("slots", str(slots))),
            (*kinds, "mainboard"),
        )


def _without_slot(board: Mainboard, cards: Sequence[Part], slots: int) -> str:
    """What finds no slot beside the graphics card; empty where everything does."""
    if len(cards) <= slots:
        return ""
    names, needs = ", ".join(part.name for part in cards), "needs" if len(cards) == 1 else "need"
    return (
        f"{names} {needs} {counted(len(cards), 'slot')}; {board.name} has"
        f" {counted(slots, 'slot')} beside the graphics card."
    )


def _without_lanes(board: Mainboard, wide: Sequence[Part], spare: int) -> str:
    """What a short slot has too few lanes for; empty where long ones are left."""
    if len(wide) <= spare:
        return ""
    names, needs = ", ".join(part.name for part in wide), "needs" if len(wide) == 1 else "need"
    return (
        f"{names} {needs} more lanes than a short slot has; {board.name} has"
        f" {counted(spare, 'long slot')} beside the graphics card."
    )


def _without_row(board: Mainboard, cards: Sequence[Part], graphics: Sequence[Graphics]) -> str:
    """What finds no row that graphics cards leave free; empty where everything does."""
    hidden, rows = sum(map(rows_of, graphics)), ROWS[board.form_factor]
    if len(cards) <= rows - hidden:
        return ""
    thick = graphics[0].name if len(graphics) == 1 else "The two graphics cards"
    return (
        f"{thick} {'takes' if len(graphics) == 1 else 'take'} {counted(hidden, 'row')} of {rows} on"
        f" {board.name}: too thick to leave one for {', '.join(part.name for part in cards)}."
    )


def _instead(kinds: Sequence[Kind]) -> str:
    """What to take instead of cards of these kinds."""
    if "wireless" not in kinds:
        return "Take a capture card on USB, or a mainboard with more slots."
    if "capture" not in kinds:
        return "Take an adapter on USB, or a mainboard with wireless."
    return "Take an adapter or a capture card on USB, or a mainboard with wireless or more slots."


@RULES.rule(
    "recording",
    levels=("good to know",),
    reads={"capture"},
    speaks="a capture card records fewer pixels than the brief's display has, or fewer than 60"
    " pictures a second of them",
    silent="it records all, or the brief names no display",
)
def recording(look: RuleContext) -> Speech:
    """What is recorded is scaled down where the card takes fewer pixels than are shown."""
    display = look.wishes.display
    for part in dict.fromkeys(look.machine.of("capture")):
        if display and isinstance(part, CaptureCard) and not records(part, display):
            most = f"{part.width_px}x{part.height_px} at {part.refresh_hz:g} Hz"
            shown = f"{display.width_px}x{display.height_px} at {display.refresh_hz:g} Hz"
            yield RuleFinding(
                ("capture",),
                f"{part.name} records {most}; the display shows {shown}.",
                "Nothing to do unless recordings are to have every pixel.",
                (Figure("records", most), Figure("display", shown)),
                ("capture",),
            )


def _modules(board: Mainboard, modules: list[Part]) -> Speech:
    if modules and board.module_slots is None:
        yield MissingData("mainboard", board.name, "slots for a wireless module")
    elif modules and len(modules) > (board.module_slots or 0):
        yield RuleFinding(
            ("wireless", "mainboard"),
            f"{', '.join(part.name for part in modules)} wants a slot for a wireless module;"
            f" {board.name} has {counted(board.module_slots or 0, 'such slot')}.",
            "Take an adapter on USB or for a PCIe slot, or a mainboard with wireless.",
            (Figure("modules", str(len(modules))), Figure("slots", str(board.module_slots))),
            ("wireless", "mainboard"),
        )


@RULES.rule(
    "fan places",
    levels=("wastes",),
    reads={"case", "fan"},
    speaks="there are more fans than places for them in the case, or than places of their size",
    silent="as many or fewer, or the places are not known",
)
def fan_places(look: RuleContext) -> Speech:
    """A fan without a place in the case is bought in vain."""
    case = look.machine.case
    without = homeless(case, look.machine.added_fans) if case else {}
    for size_mm, count in without.items():
        assert case is not None
        yield RuleFinding(
            ("case", "fan"),
            f"{counted(count, 'added fan')} of {size_mm} mm {'finds' if count == 1 else 'find'} no"
            f" place of that size in {case.name}, whose places take"
            f" {', '.join(case.fan_sizes)} mm.",
            "Take fans of a size that fits, or a case with more places.",
            (
                Figure("fans", f"{count} x {size_mm} mm"),
                Figure("places", ", ".join(case.fan_sizes)),
            ),
        )
    if without:
        return
    places = places_for_fans(case) if case else None
    if case and places is not None and look.machine.fans > places:
        yield RuleFinding(
            ("case", "fan"),
            f"{look.machine.fans} fans for {places} places in {case.name}.",
            "Take fans out, or take a case with more places.",
            (Figure("fans", str(look.machine.fans)), Figure("places", str(places))),
        )
