"""Processor and mainboard: socket, firmware, power delivery, tuning; the slot of the card."""

import re

from wattmetron.core.fit.finding import Figure, Said, Speech, Unknown
from wattmetron.core.fit.rule import Look, rule
from wattmetron.core.frames.drawing import card_link
from wattmetron.core.frames.work import link_gbs
from wattmetron.core.values.parts import Mainboard


@rule(
    "socket",
    family="platform",
    levels=("blocks",),
    reads={"processor", "mainboard"},
    speaks="processor and board have different sockets",
    silent="they are the same",
)
def socket(look: Look) -> Speech:
    """The processor must fit the board's socket."""
    chip, board = look.machine.processor, look.machine.mainboard
    if chip and board and chip.socket != board.socket:
        yield Said(
            ("processor", "mainboard"),
            f"{chip.name} needs socket {chip.socket}; {board.name} has socket {board.socket}.",
            f"Take a mainboard with socket {chip.socket} or a processor for {board.socket}.",
            (Figure("processor", chip.socket), Figure("mainboard", board.socket)),
            ("mainboard", "processor"),
        )


def firmware_needed(family: str, board: Mainboard) -> str | None:
    """The firmware that a family of processors needs on a board, where the board names one."""
    for entry in board.firmware_needed:
        named, _, version = entry.partition("=")
        if named.strip() == family and family:
            return version.strip()
    return None


def firmware_older(one: str, other: str) -> bool:
    """Whether a version is older, piece by piece: 1.9 before 1.10, 1.20 before 1.20a before
    1.20b.
    """
    return _pieces(one) < _pieces(other)


def _pieces(version: str) -> list[tuple[int, str]]:
    pieces = re.findall(r"[0-9]+|[a-z]+", version.lower())
    return [(int(piece), "") if piece.isdecimal() else (-1, piece) for piece in pieces]


def needs_a_step(family: str, board: Mainboard) -> bool:
    """Whether a processor of a family starts on a board only after a firmware update that needs
    another processor, or may do so for all that is known.
    """
    needed = firmware_needed(family, board)
    if needed is None or board.firmware_recovery:
        return False
    return not board.firmware_shipped or firmware_older(board.firmware_shipped, needed)


@rule(
    "firmware",
    family="platform",
    levels=("do first",),
    reads={"processor", "mainboard"},
    speaks="the board ships with firmware older than the processor's family needs",
    silent="it ships with that firmware or newer, or the board names no need of the family",
    hangs_on={
        "mainboard": (
            "firmware_needed",
            "firmware_shipped",
        )
    },
)
def firmware(look: Look) -> Speech:
    """A board may ship with firmware that does not know the processor yet."""
    chip, board = look.machine.processor, look.machine.mainboard
    if not chip or not board or chip.socket != board.socket:
        return
    needed = firmware_needed(chip.firmware_family, board)
    if needed is None:
        return
    if not board.firmware_shipped:
        yield Unknown("mainboard", board.name, "firmware as shipped")
        return
    if not firmware_older(board.firmware_shipped, needed):
        return
    since = f" since {board.firmware_shipped_since:%B %Y}" if board.firmware_shipped_since else ""
    if board.firmware_recovery:
        advice = (
            f"Write {needed} from a stick before the first start: {board.name} can do that without"
            " a processor."
        )
    else:
        advice = (
            f"Have the shop write {needed}, borrow an older processor, or take a board that ships"
            " with it."
        )
    yield Said(
        ("mainboard", "processor"),
        f"{chip.name} needs firmware {needed} on {board.name}, which ships with"
        f" {board.firmware_shipped}{since}.",
        advice,
        (Figure("needed", needed), Figure("as shipped", board.firmware_shipped)),
        () if board.firmware_recovery else ("mainboard", "processor"),
    )


@rule(
    "board power delivery",
    family="platform",
    levels=("blocks",),
    reads={"processor", "mainboard"},
    speaks="the processor's sustained power is above what the board delivers",
    silent="it is equal or below",
    hangs_on={"mainboard": ("processor_w",)},
)
def board_power(look: Look) -> Speech:
    """The board must deliver the processor's sustained power."""
    chip, board = look.machine.processor, look.machine.mainboard
    if not chip or not board or chip.socket != board.socket:
        return
    if board.processor_w is None:
        yield Unknown("mainboard", board.name, "sustained processor power")
    elif chip.sustained_w > board.processor_w:
        yield Said(
            ("mainboard", "processor"),
            f"{chip.name} takes {chip.sustained_w} W sustained; {board.name} delivers"
            f" {board.processor_w} W.",
            f"Take a mainboard that delivers {chip.sustained_w} W, or a processor of"
            f" {board.processor_w} W or less.",
            (
                Figure("processor", str(chip.sustained_w), "W"),
                Figure("mainboard", str(board.processor_w), "W"),
            ),
            ("mainboard", "processor"),
        )


@rule(
    "tuning",
    family="platform",
    levels=("good to know",),
    reads={"processor", "mainboard"},
    speaks="a chip whose clocks can be tuned sits on a board that cannot",
    silent="the board can, or the chip cannot",
)
def tuning(look: Look) -> Speech:
    """A chip whose clocks can be tuned is paid for in vain on a board that cannot."""
    chip, board = look.machine.processor, look.machine.mainboard
    if chip and board and chip.tunable and chip.socket == board.socket and not board.tuning:
        yield Said(
            ("processor", "mainboard"),
            f"The clocks of {chip.name} can be tuned, but not on {board.name}.",
            "Nothing to do unless you want to tune it.",
        )


@rule(
    "card slot",
    family="platform",
    levels=("good to know",),
    reads={"graphics", "mainboard", "processor"},
    speaks="the link of processor, slot and card has under half the bandwidth that the card"
    " could use",
    silent="it has half or more: that makes no difference in games",
)
def card_slot(look: Look) -> Speech:
    """A link far slower than the card's own is worth knowing; half its bandwidth makes no
    difference in games.
    """
    card, board, chip = look.machine.graphics, look.machine.mainboard, look.machine.processor
    if not card or not board or not chip:
        return
    gen, lanes = card_link(chip, board, card)
    if link_gbs(gen, lanes) < link_gbs(card.pcie_gen, card.pcie_lanes) / 2:
        yield Said(
            ("graphics", "mainboard"),
            f"{card.name} could use PCIe {card.pcie_gen} x{card.pcie_lanes}; on {board.name} it"
            f" gets PCIe {gen} x{lanes}.",
            "This costs frames only where video memory runs out; nothing to do otherwise.",
            (
                Figure("card", f"PCIe {card.pcie_gen} x{card.pcie_lanes}"),
                Figure("here", f"PCIe {gen} x{lanes}"),
            ),
        )


@rule(
    "second card",
    family="platform",
    levels=("blocks", "wastes"),
    reads={"graphics", "mainboard"},
    speaks="a second card has no slot on the board (blocks), or no game of the brief is known to"
    " gain from it",
    silent="there is one card, or a game gains from two",
)
def second_card(look: Look) -> Speech:
    """A second graphics card needs a slot, and brings frames only in games that are known to share
    the work.
    """
    first, second, board = look.machine.graphics, look.machine.second_card, look.machine.mainboard
    if not first or not second:
        return
    if board and board.card_slots is None:
        yield Unknown("mainboard", board.name, "slots that take a graphics card")
    elif board and board.card_slots is not None and board.card_slots < 2:
        yield Said(
            ("graphics", "mainboard"),
            f"Two graphics cards need two slots; {board.name} has {board.card_slots} that takes"
            " one.",
            "Take one card out, or a mainboard with two such slots.",
            (Figure("cards", "2"), Figure("slots", str(board.card_slots))),
            ("mainboard",),
        )
        return
    gaining = [
        ask.game
        for ask in look.wishes.asks
        if ask.second_card_gain > 0 and first.chip == second.chip
    ]
    if gaining:
        return
    yield Said(
        ("graphics",),
        f"No game of the brief is known to draw faster on {first.name} and {second.name} together"
        " than on the first alone.",
        f"Take the second one out: it saves its price and up to {second.board_power_w} W.",
        (Figure("gain", "none known"), Figure("second card", str(second.board_power_w), "W")),
        level="wastes",
    )
