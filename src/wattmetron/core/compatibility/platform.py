"""Processor and mainboard: socket, firmware, power delivery, tuning; the slot of the card."""

import re

from wattmetron.core.compatibility.finding import Figure, MissingData, RuleFinding, Speech
from wattmetron.core.compatibility.rule import RuleContext, RuleFamily
from wattmetron.core.frames.drawing_side import card_link
from wattmetron.core.frames.work import link_gbs, link_ms
from wattmetron.core.values.genres import USUAL_LINK_MB
from wattmetron.core.values.parts import Mainboard, Processor
from wattmetron.core.values.sockets import same_socket

RULES = RuleFamily("platform")


@RULES.rule(
    "socket",
    levels=("blocks",),
    reads={"processor", "mainboard"},
    speaks="processor and board have different sockets",
    silent="they are the same",
)
def socket(look: RuleContext) -> Speech:
    """The processor must fit the board's socket."""
    chip, board = look.machine.processor, look.machine.mainboard
    if chip and board and not same_socket(chip.socket, board.socket):
        yield RuleFinding(
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


def firmware_older(first: str, other: str) -> bool:
    """Whether a version is older, piece by piece: 1.9 before 1.10, 1.20 before 1.20a before
    1.20b.
    """
    return _pieces(first) < _pieces(other)


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


@RULES.rule(
    "firmware",
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
def firmware(look: RuleContext) -> Speech:
    """A board may ship with firmware that does not know the processor yet."""
    chip, board = look.machine.processor, look.machine.mainboard
    if not chip or not board or not same_socket(chip.socket, board.socket):
        return
    needed = firmware_needed(chip.firmware_family, board)
    if needed is None:
        return
    if not board.firmware_shipped:
        yield MissingData("mainboard", board.name, "firmware as shipped")
        return
    if not firmware_older(board.firmware_shipped, needed):
        return
    since = f" since {board.firmware_shipped_since:%B %Y}" if board.firmware_shipped_since else ""
    if board.firmware_recovery:
        advice = (
            f"Write {needed} from a stick before the first start: {board.name} can do that without"
            " a processor."
        )
    elif board.firmware_recovery is None:
        advice = (
            f"Look up whether {board.name} writes firmware from a stick without a processor; else"
            f" have the shop write {needed}, or take a board that ships with it."
        )
    else:
        advice = (
            f"Have the shop write {needed}, borrow an older processor, or take a board that ships"
            " with it."
        )
    yield RuleFinding(
        ("mainboard", "processor"),
        f"{chip.name} needs firmware {needed} on {board.name}, which ships with"
        f" {board.firmware_shipped}{since}.",
        advice,
        (Figure("needed", needed), Figure("as shipped", board.firmware_shipped)),
        () if board.firmware_recovery else ("mainboard", "processor"),
    )


BARELY_PERCENT = 110
"""A board that is short by no more holds the processor, at lower clocks under long load."""


def barely_w(chip: Processor) -> int:
    """What a board must deliver so that a processor starts on it."""
    return -(-chip.sustained_w * 100 // BARELY_PERCENT)


@RULES.rule(
    "board power delivery",
    levels=("do first", "blocks"),
    reads={"processor", "mainboard"},
    speaks="the processor's sustained power is above what the board delivers: by up to a tenth (do"
    " first: it holds lower clocks), or by more (blocks)",
    silent="it is equal or below",
    hangs_on={"mainboard": ("processor_w",)},
)
def board_power(look: RuleContext) -> Speech:
    """The board must deliver the processor's sustained power."""
    chip, board = look.machine.processor, look.machine.mainboard
    if not chip or not board or not same_socket(chip.socket, board.socket):
        return
    if board.processor_w is None:
        yield MissingData("mainboard", board.name, "sustained processor power")
    elif chip.sustained_w > board.processor_w:
        far = board.processor_w < barely_w(chip)
        yield RuleFinding(
            ("mainboard", "processor"),
            f"{chip.name} takes {chip.sustained_w} W sustained; {board.name} delivers"
            f" {board.processor_w} W" + ("." if far else ": under long load it runs slower."),
            f"Take a mainboard that delivers {chip.sustained_w} W, or a processor of"
            f" {board.processor_w} W or less"
            + ("." if far else f"; or limit this one to {board.processor_w} W in the firmware."),
            (
                Figure("processor", str(chip.sustained_w), "W"),
                Figure("mainboard", str(board.processor_w), "W"),
            ),
            ("mainboard", "processor"),
            "blocks" if far else "do first",
        )


@RULES.rule(
    "tuning",
    levels=("good to know",),
    reads={"processor", "mainboard"},
    speaks="a chip whose clocks can be tuned sits on a board that cannot",
    silent="the board can, or the chip cannot",
)
def tuning(look: RuleContext) -> Speech:
    """A chip whose clocks can be tuned is paid for in vain on a board that cannot."""
    chip, board = look.machine.processor, look.machine.mainboard
    if not chip or not board or chip.tunable is False or board.tuning:
        return
    if not same_socket(chip.socket, board.socket):
        return
    if chip.tunable is None:
        yield MissingData("processor", chip.name, "whether its clocks can be tuned")
    elif board.tuning is None:
        yield MissingData("mainboard", board.name, "whether clocks can be tuned on it")
    else:
        yield RuleFinding(
            ("processor", "mainboard"),
            f"The clocks of {chip.name} can be tuned, but not on {board.name}.",
            "Nothing to do unless you want to tune it.",
        )


HEARD_OF = 2.0
"""Frames in % that a slow link must cost to be named."""
WASTED = 5.0
"""From so many % on a part of the card's price is wasted."""
USUAL_FPS = 100.0
"""At which the loss is worked out where the brief names no game."""


@RULES.rule(
    "card slot",
    levels=("good to know", "wastes"),
    reads={"graphics", "mainboard", "processor", "storage", "optical"},
    speaks="the link of processor, slot and card costs 2 % or more of the frames that the card"
    " would draw on its own link (5 % or more: wastes), or M.2 drives take lanes from the card",
    silent="it costs less",
)
def card_slot(look: RuleContext) -> Speech:
    """A link slower than the card's own costs a little of every frame, and more where video memory
    runs out.
    """
    machine = look.machine
    card, board, chip = machine.graphics, machine.mainboard, machine.processor
    if not card or not board or not chip:
        return
    gen, lanes = card_link(chip, board, card, machine.storage, machine.sata_optical)
    taken = lanes < card_link(chip, board, card)[1]
    here, wanted_gbs = link_gbs(gen, lanes), link_gbs(card.pcie_gen, card.pcie_lanes)
    demands = [(ask.link_mb, ask.fps, ask.game) for ask in look.wishes.asks]
    lost_percent, game = max(
        (float(link_ms(megabytes, here, wanted_gbs)) * fps / 10, name)
        for megabytes, fps, name in demands or [(USUAL_LINK_MB, USUAL_FPS, "")]
    )
    if lost_percent < HEARD_OF and not taken:
        return
    where = f" in {game}" if game else f" at {USUAL_FPS:g} fps"
    cost = f"about {max(1, round(lost_percent))} %" if lost_percent >= 0.5 else "under 1 %"
    yield RuleFinding(
        ("graphics", "mainboard"),
        f"{card.name} could use PCIe {card.pcie_gen} x{card.pcie_lanes}; on {board.name}"
        + (" beside these M.2 drives" if taken else "")
        + f" it gets PCIe {gen} x{lanes}: {cost} of its frames{where}.",
        "The estimates count that already; where video memory runs out it costs more.",
        (
            Figure("card", f"PCIe {card.pcie_gen} x{card.pcie_lanes}"),
            Figure("here", f"PCIe {gen} x{lanes}"),
        ),
        ("mainboard",) if lost_percent >= WASTED else (),
        "wastes" if lost_percent >= WASTED else "good to know",
    )


@RULES.rule(
    "riser",
    levels=("do first",),
    reads={"graphics", "mainboard", "processor", "case"},
    speaks="the case puts the card on a riser of an older PCIe generation than its link would use",
    silent="the riser is as new, or there is none",
)
def riser(look: RuleContext) -> Speech:
    """On an older riser a link starts surely only at the riser's generation."""
    machine = look.machine
    card, board, chip, case = machine.graphics, machine.mainboard, machine.processor, machine.case
    if not card or not board or not chip or not case or case.riser_gen is None:
        return
    gen, lanes = card_link(chip, board, card, machine.storage, machine.sata_optical)
    if gen <= case.riser_gen:
        return
    yield RuleFinding(
        ("case", "graphics", "mainboard"),
        f"{card.name} stands on the riser of {case.name}, made for PCIe {case.riser_gen}; on"
        f" {board.name} its link would start at PCIe {gen} x{lanes} and may fail.",
        f"Set the card's slot to PCIe {case.riser_gen} in the firmware before the card goes onto"
        f" the riser, or get a riser for PCIe {gen}. The estimates count PCIe {gen}.",
        (Figure("riser", f"PCIe {case.riser_gen}"), Figure("link", f"PCIe {gen} x{lanes}")),
        ("case",),
    )


@RULES.rule(
    "second card",
    levels=("blocks", "wastes"),
    reads={"graphics", "mainboard"},
    speaks="a second card has no slot on the board (blocks), or no game of the brief is known to"
    " gain from it",
    silent="there is one card, or a game gains from two",
)
def second_card(look: RuleContext) -> Speech:
    """A second graphics card needs a slot, and brings frames only in games that are known to share
    the work.
    """
    first, second, board = look.machine.graphics, look.machine.second_card, look.machine.mainboard
    if not first or not second:
        return
    if board and board.card_slots is None:
        yield MissingData("mainboard", board.name, "slots that take a graphics card")
    elif board and board.card_slots is not None and board.card_slots < 2:
        yield RuleFinding(
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
    yield RuleFinding(
        ("graphics",),
        f"No game of the brief is known to draw faster with a second card: {first.name} and"
        f" {second.name} together do what the first does alone.",
        f"Take the second one out: it saves its price and up to {second.board_power_w} W.",
        (Figure("gain", "none known"), Figure("second card", str(second.board_power_w), "W")),
        level="wastes",
    )
