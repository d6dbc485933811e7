"""Drives: which slot, port and place each takes."""

from wattmetron.core.compatibility.finding import Figure, MissingData, RuleFinding, Speech
from wattmetron.core.compatibility.roles import (
    NVME,
    SOLID,
    DriveNeed,
    DriveRoom,
    Room,
    held_gb,
    served,
)
from wattmetron.core.compatibility.rule import RuleContext, RuleFamily
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import STORAGE_KINDS, Mainboard
from wattmetron.core.values.seating import (
    Seating,
    cabled,
    in_slots,
    seated,
    seating,
    slots_of,
    sticks_of,
)
from wattmetron.core.values.words import counted, with_article

RULES = RuleFamily("drives")


def ports_needed(machine: Machine) -> int:
    """SATA ports that the machine's drives need, those for discs among them."""
    return cabled(machine.storage) + machine.sata_optical


def seating_of(machine: Machine) -> Seating | None:
    """How the machine's M.2 drives stand on its board; None without a board, or where they do not
    all find a slot.
    """
    if machine.mainboard is None:
        return None
    return seating(machine.mainboard, machine.storage, ports_needed(machine))


def _whatever_length(machine: Machine, board: Mainboard) -> Seating | None:
    """The seating if lengths did not matter."""
    sticks = tuple(stick._replace(length_mm=None) for stick in sticks_of(machine.storage))
    return seated(slots_of(board), sticks, board.sata_ports, ports_needed(machine))


@RULES.rule(
    "drive ports",
    levels=("blocks",),
    reads={"storage", "mainboard", "optical"},
    speaks="more M.2 drives than slots, or than slots that take SATA drives; or more drives on"
    " cables than SATA ports left beside the slots in use; drives for discs count",
    silent="every drive has a slot or a port, slots that switch nothing off first",
)
def drive_ports(look: RuleContext) -> Speech:
    """Every drive needs an M.2 slot or a SATA port that no M.2 slot in use switches off."""
    machine, board = look.machine, look.machine.mainboard
    if not board:
        return
    sticks, needed = sticks_of(machine.storage), ports_needed(machine)
    if len(sticks) > board.m2_slots:
        yield _short_of(board, len(sticks), "M.2 slot", board.m2_slots)
        return
    if any(stick.sata for stick in sticks) and not board.m2_sata:
        yield MissingData("mainboard", board.name, "which M.2 slots take SATA drives")
    seats = seating_of(machine) or _whatever_length(machine, board)
    if seats is None:
        talking = sum(stick.sata for stick in sticks)
        taking = sum(slot.sata for slot in slots_of(board))
        yield _short_of(board, talking, "M.2 slot", taking, tail=" for SATA drives")
    elif needed > seats.ports_left:
        beside = (
            f" of {board.sata_ports} left beside {counted(len(sticks), 'M.2 drive')}"
            if seats.ports_left < board.sata_ports
            else ""
        )
        yield _short_of(board, needed, "SATA port", seats.ports_left, beside)


def _short_of(
    board: Mainboard, count: int, word: str, places: int, beside: str = "", tail: str = ""
) -> RuleFinding:
    return RuleFinding(
        ("storage", "mainboard"),
        f"The drives need {counted(count, word)}{tail}; {board.name} has {places}{beside}.",
        "Take fewer or larger drives, or a mainboard with more places.",
        (Figure("drives", str(count)), Figure(word, str(places))),
        ("mainboard", "storage"),
    )


@RULES.rule(
    "U.2 drives",
    levels=("blocks",),
    reads={"storage", "mainboard"},
    speaks="an NVMe drive in a 2.5 inch shell finds no U.2 port: an M.2 slot does not take it",
    silent="there is a port for each",
)
def u2_drives(look: RuleContext) -> Speech:
    """An NVMe drive in a 2.5 inch shell has a U.2 plug, which few boards for desktops take."""
    board = look.machine.mainboard
    drives = [drive for drive in look.machine.storage if drive.on_u2]
    if not board or len(drives) <= (board.u2_ports or 0):
        return
    names = ", ".join(dict.fromkeys(drive.name for drive in drives))
    has = (
        "is not known to have a U.2 port"
        if board.u2_ports is None
        else f"has {counted(board.u2_ports, 'U.2 port')}"
    )
    yield RuleFinding(
        ("storage", "mainboard"),
        f"{names} {'has' if len(drives) == 1 else 'have'} a U.2 plug, which does not go into an M.2"
        f" slot; {board.name} {has}.",
        "Take an M.2 drive, or a mainboard with a U.2 port.",
        (Figure("U.2 drives", str(len(drives))), Figure("U.2 ports", str(board.u2_ports or 0))),
        ("storage", "mainboard"),
    )


@RULES.rule(
    "drive length",
    levels=("blocks",),
    reads={"storage", "mainboard", "optical"},
    speaks="the M.2 drives do not all find a slot as long as they are",
    silent="every drive has a slot as long",
)
def drive_lengths(look: RuleContext) -> Speech:
    """Every M.2 drive needs a slot that is as long."""
    machine, board = look.machine, look.machine.mainboard
    drives = in_slots(machine.storage)
    if not board or not drives:
        return
    if not board.m2_lengths_mm:
        yield MissingData("mainboard", board.name, "lengths of its M.2 slots")
        return
    for drive in drives:
        if not drive.m2_length_mm:
            yield MissingData("storage", drive.name, "length")
    if seating_of(machine) or not (seats := _whatever_length(machine, board)):
        return
    drive, slot_mm = max(
        (
            (drive, slots_of(board)[index].length_mm or 0)
            for drive, index in zip(drives, seats.slots, strict=True)
        ),
        key=lambda pair: (pair[0].m2_length_mm or 0) - pair[1],
    )
    lengths = ", ".join(f"{mm} mm" for mm in board.m2_lengths_mm[: board.m2_slots])
    yield RuleFinding(
        ("storage", "mainboard"),
        f"{drive.name} is {drive.m2_length_mm} mm long; the M.2 slot that is left on {board.name}"
        f" takes {slot_mm} mm.",
        f"Take a drive of {slot_mm} mm or less, or a mainboard with a longer slot.",
        (Figure("drive", str(drive.m2_length_mm), "mm"), Figure("slots", lengths)),
        ("storage", "mainboard"),
    )


@RULES.rule(
    "drive link",
    levels=("good to know",),
    reads={"storage", "mainboard", "optical"},
    speaks="an M.2 drive could use a newer PCIe generation than the slot that it stands in",
    silent="the slot is as new, or not known",
)
def drive_link(look: RuleContext) -> Speech:
    """A drive faster than its slot runs at the slot's pace, which loading times hardly show."""
    board, seats = look.machine.mainboard, seating_of(look.machine)
    if not board or not seats:
        return
    drives = in_slots(look.machine.storage)
    slots = slots_of(board)
    for drive, slot in zip(drives, seats.slots, strict=True):
        gen = slots[slot].gen
        if drive.pcie_gen and gen and drive.pcie_gen > gen:
            yield RuleFinding(
                ("storage", "mainboard"),
                f"{drive.name} could use PCIe {drive.pcie_gen}; in M.2 slot {slot + 1} of"
                f" {board.name} it gets PCIe {gen}.",
                "Games load hardly faster from a quicker link: nothing to do, but a slower drive"
                " may be cheaper.",
                (Figure("drive", f"PCIe {drive.pcie_gen}"), Figure("slot", f"PCIe {gen}")),
            )
            return


@RULES.rule(
    "system drive",
    levels=("do first",),
    reads={"storage"},
    speaks="all drives are hard disks, so the system would stand on one",
    silent="there is an SSD",
)
def system_drive(look: RuleContext) -> Speech:
    """A system on a spinning disk takes minutes to start and makes everything wait."""
    drives = look.machine.storage
    if drives and not held_gb(drives).solid_gb:
        names = ", ".join(dict.fromkeys(drive.name for drive in drives))
        yield RuleFinding(
            ("storage",),
            f"The system would stand on a spinning disk: {names}.",
            "Add an SSD for the system; the disk can hold what is rarely used.",
            (Figure("on SSDs", "0", "GB"),),
            ("storage",),
        )


@RULES.rule(
    "game drives",
    levels=("do first",),
    reads={"storage"},
    speaks="games whose lists ask for an SSD, or an NVMe SSD, find no room on drives of that kind"
    " beside the system, which stands on an SSD",
    silent="there is room for them and the system",
)
def game_drives(look: RuleContext) -> Speech:
    """Games that ask for solid state load from it while they run; the system stands there too."""
    drives, wishes = look.machine.storage, look.wishes
    if not drives:
        return
    nvme, solid = (
        {ask.game: ask.drive_gb for ask in wishes.asks if STORAGE_KINDS.index(ask.drive) >= level}
        for level in (NVME, SOLID)
    )
    nvme_gb, solid_gb = sum(nvme.values()), sum(solid.values())
    system = Room(wishes.system_gb, SOLID)
    if nvme and not served(
        drives, DriveNeed(system, DriveRoom(nvme_gb, nvme_gb, nvme_gb), Room(0.0))
    ):
        yield _no_room(nvme, NVME, look)
    elif solid and not served(
        drives, DriveNeed(system, DriveRoom(solid_gb, solid_gb, nvme_gb), Room(0.0))
    ):
        yield _no_room(solid, SOLID, look)


def _no_room(games: dict[str, float], level: int, look: RuleContext) -> RuleFinding:
    """Games that find no room on drives of a kind, with what each takes in GB."""
    name, wanted = STORAGE_KINDS[level], sum(games.values())
    kind, system_gb = with_article(name), look.wishes.system_gb
    verbs = ("asks", "takes") if len(games) == 1 else ("ask", "take")
    drives_gb = held_gb(look.machine.storage)[level]
    return RuleFinding(
        ("storage",),
        f"{', '.join(games)} {verbs[0]} for {kind} and {verbs[1]} {wanted:,.0f} GB; drives of that"
        f" kind hold {drives_gb:,.0f} GB, and the system takes {system_gb:,.0f} GB of an SSD.",
        f"Add {kind}, or take a larger one.",
        (
            Figure("games", f"{wanted:,.0f}", "GB"),
            Figure("system", f"{system_gb:,.0f}", "GB"),
            Figure(name, f"{drives_gb:,.0f}", "GB"),
        ),
        ("storage",),
    )


@RULES.rule(
    "drive places",
    levels=("blocks",),
    reads={"storage", "case"},
    speaks="more 3.5 or 2.5 inch drives than the case has places",
    silent="every drive has a place",
)
def drive_bays(look: RuleContext) -> Speech:
    """Drives that are no M.2 sticks need a place in the case; a place for 3.5 inch takes 2.5 inch
    too.
    """
    case = look.machine.case
    large = sum(drive.size == "3.5 inch" for drive in look.machine.storage)
    small = sum(drive.size == "2.5 inch" for drive in look.machine.storage)
    if not case or not large + small:
        return
    if case.places_25 is None or case.places_35 is None:
        yield MissingData("case", case.name, "drive places")
        return
    if large > case.places_35 or large + small > case.places_25 + case.places_35:
        has = f"{case.places_35} for 3.5 inch and {case.places_25} for 2.5 inch"
        needs = " and ".join(
            f"{n} x {size}" for n, size in ((large, "3.5 inch"), (small, "2.5 inch")) if n
        )
        yield RuleFinding(
            ("storage", "case"),
            f"{needs} need a place; {case.name} has {has}.",
            "Take M.2 drives, or a case with more places.",
            (Figure("drives", needs), Figure("case", has)),
            ("case", "storage"),
        )


@RULES.rule(
    "disc bay",
    levels=("blocks",),
    reads={"optical", "case"},
    speaks="a drive for discs has no 5.25 inch bay in the case",
    silent="it has one, or hangs on USB",
)
def disc_bay(look: RuleContext) -> Speech:
    """A drive for discs with a SATA plug is built into a bay."""
    case, count = look.machine.case, look.machine.sata_optical
    if not case or not count:
        return
    if case.places_525 is None:
        yield MissingData("case", case.name, "bays for 5.25 inch drives")
    elif count > case.places_525:
        yield RuleFinding(
            ("optical", "case"),
            f"{counted(count, 'drive')} for discs need{'s' if count == 1 else ''} a 5.25 inch bay;"
            f" {case.name} has {case.places_525 or 'none'}.",
            "Take an outside drive on USB, or a case with such a bay.",
            (Figure("drives", str(count)), Figure("bays", str(case.places_525))),
            ("case", "optical"),
        )
