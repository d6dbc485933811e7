"""The assembly list of one very build, in working order: what is done with which part, header, slot
and cable.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from wattmetron.core.compatibility.cables import cables
from wattmetron.core.compatibility.display_link import outputs_of
from wattmetron.core.compatibility.drive_rules import seating_of
from wattmetron.core.compatibility.leads import plugged_in, sockets_of
from wattmetron.core.compatibility.platform import firmware_needed, firmware_older
from wattmetron.core.compatibility.radiator_places import placed_radiator
from wattmetron.core.frames.memory_class import memory_class
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.housing import PowerSupply
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import BOARD_FORMS, Graphics, Mainboard
from wattmetron.core.values.seating import in_slots, slots_of
from wattmetron.core.values.words import counted

STANDOFFS = dict(zip(BOARD_FORMS, (9, 9, 8, 4), strict=True))
"""Screws that hold a board of each form factor; usual figures."""


@dataclass(frozen=True, slots=True)
class AssemblyStep:
    """One thing to do; ``key`` names it for ticking off, ``why`` says more where that helps."""

    key: str
    words: str
    why: str = ""


@dataclass(frozen=True, slots=True)
class Stage:
    """Steps that belong together."""

    title: str
    steps: tuple[AssemblyStep, ...]


def assembly(machine: Machine, brief: Brief) -> tuple[Stage, ...]:
    """Stages in working order; what is missing in the build is left out."""
    stages = (
        ("Before you begin", _before(machine, brief)),
        ("On the bench, outside the case", _bench(machine)),
        ("Into the case", _case(machine)),
        ("Drives", _drives(machine)),
        ("Power supply and cables", _power(machine)),
        ("Graphics card", _card(machine)),
        ("First start in the case", _start(machine)),
        ("System and settings", _system(machine, brief)),
    )
    made = tuple(Stage(title, tuple(steps)) for title, steps in stages)
    return tuple(stage for stage in made if stage.steps)


def memory_places(sticks: int, slots: int) -> str:
    """Which slots, counted from the processor: by usage the second of each channel first; the
    manual decides.
    """
    if sticks >= slots:
        return "all memory slots" if slots > 1 else "the memory slot"
    if slots == 4:
        return {
            1: "the second memory slot",
            2: "the second and fourth memory slot",
            3: "the second, third and fourth memory slot",
        }[sticks]
    return (
        "the second memory slot"
        if slots == 2
        else f"{counted(sticks, 'memory slot')} that the manual names first"
    )


def _needs_firmware(machine: Machine) -> str | None:
    chip, board = machine.processor, machine.mainboard
    needed = firmware_needed(chip.firmware_family, board) if chip and board else None
    if (
        needed
        and board
        and board.firmware_shipped
        and firmware_older(board.firmware_shipped, needed)
    ):
        return needed
    return None


def _before(machine: Machine, brief: Brief) -> Iterator[AssemblyStep]:
    if not machine.parts():
        return
    yield AssemblyStep(
        "unpack",
        "Lay out all parts and check each against the list.",
        "What arrives is not always what was ordered.",
    )
    system = brief.system or "the operating system"
    yield AssemblyStep(
        "stick", f"Make an installer stick for {system} on another machine (8 GB or more)."
    )
    yield AssemblyStep(
        "drivers",
        "Put the network driver of the mainboard on the stick as well.",
        "A fresh system may not find the network without it.",
    )
    needed = _needs_firmware(machine)
    board = machine.mainboard
    if needed and board:
        if board.firmware_recovery:
            yield AssemblyStep(
                "firmware",
                f"Put firmware {needed} for {board.name} on a second stick.",
                "The board writes it without a processor.",
            )
        else:
            yield AssemblyStep(
                "firmware",
                f"See that {board.name} has firmware {needed}: ask the shop, or borrow an older"
                " processor to write it.",
                f"It ships with {board.firmware_shipped} and does not start"
                f" {machine.processor.name if machine.processor else ''} with that.",
            )


def _bench(machine: Machine) -> Iterator[AssemblyStep]:
    board, chip, kit, cooler = machine.mainboard, machine.processor, machine.memory, machine.cooler
    if board is None:
        return
    yield AssemblyStep("box", f"Put {board.name} on its box, not on the bag that it came in.")
    if _needs_firmware(machine) and board.firmware_recovery:
        yield AssemblyStep(
            "recover",
            "Connect 24-pin and 8-pin power and write the firmware from the stick, before the"
            " processor goes in.",
        )
    if chip:
        yield AssemblyStep(
            "processor",
            f"Set {chip.name} into socket {chip.socket}; the marked corners meet, no force.",
        )
    if kit:
        yield AssemblyStep(
            "memory",
            f"Put {counted(kit.sticks, 'stick')} of {kit.name} into"
            f" {memory_places(kit.sticks, board.memory_slots)}, counted from the processor.",
            "That is the usual order; the board's manual decides.",
        )
    if chip and cooler:
        yield AssemblyStep(
            "cooler",
            f"Mount {cooler.name} with the parts for socket {chip.socket}; paste unless it is on"
            " already.",
        )
    elif chip and machine.boxed_suffices:
        yield AssemblyStep("cooler", f"Mount the boxed cooler of {chip.name}.")
    yield AssemblyStep(
        "cooler-fan", "Plug the cooler's fan or pump into the header named for the processor's fan."
    )
    if machine.supply:
        yield AssemblyStep(
            "bench-power",
            f"Connect 24-pin and {_processor_leads(machine.supply, board)} processor power from"
            f" {machine.supply.name}.",
        )
    if machine.graphics and not (chip and chip.igpu_speed and outputs_of(board)):
        yield AssemblyStep(
            "bench-card",
            f"Hold {machine.graphics.name} in the first slot with its power connected: nothing else"
            " draws.",
        )
    shown = "; the board's display says where it stops" if board.fault_display else ""
    yield AssemblyStep(
        "bench-start",
        f"Bridge the two pins of the power switch: the firmware's screen must appear{shown}.",
        "Faults are found in minutes here.",
    )


def _processor_leads(supply: PowerSupply, board: Mainboard) -> str:
    full = plugged_in(supply, sockets_of(board)).full
    return f"{full} x 8-pin" if full else "4-pin"


def _case(machine: Machine) -> Iterator[AssemblyStep]:
    case, board, cooler = machine.case, machine.mainboard, machine.cooler
    if case is None:
        return
    if board:
        count = STANDOFFS[board.form_factor]
        yield AssemblyStep(
            "standoffs",
            f"Set {count} standoffs for {board.form_factor} in {case.name}, and none where the"
            " board has no hole.",
        )
    if cooler and cooler.radiator and (index := placed_radiator(machine)):
        where = {"top": "on top", "rear": "at the rear", "front": "in front"}[index]
        yield AssemblyStep(
            "radiator",
            f"Fasten the {cooler.radiator_mm} mm radiator {where}, hoses towards the lower end.",
        )
    if board:
        yield AssemblyStep(
            "board-in", f"Lay {board.name} in and fasten it, screws only just tight."
        )
        yield AssemblyStep(
            "front-panel",
            "Connect power switch, reset and lamps to the front panel header.",
            "Plus and minus matter for the lamps only.",
        )
        for port in case.front_ports:
            if not board.front_headers or port in board.front_headers:
                yield AssemblyStep(f"port-{port}", f"Connect the front {port} to its header.")
        for volts in case.lights:
            if volts in board.light_headers:
                yield AssemblyStep(
                    f"lights-{volts}",
                    f"Connect the lights to the {volts} header, never to another voltage.",
                )
    if case.fans_included:
        served = min(case.fans_included, board.fan_headers or 0) if board else 0
        headers = f" to {counted(served, 'fan header')}" if board and board.fan_headers else ""
        spare = (
            " and share the rest by a splitter"
            if board and board.fan_headers and case.fans_included > board.fan_headers
            else ""
        )
        yield AssemblyStep(
            "fans",
            f"Connect {counted(case.fans_included, 'fan')}{headers}{spare}; air goes in at the"
            " front and out at the rear.",
        )


def _drives(machine: Machine) -> Iterator[AssemblyStep]:
    board, case = machine.mainboard, machine.case
    sticks = in_slots(machine.storage)
    sata = [drive for drive in machine.storage if drive not in sticks]
    seats = seating_of(machine)
    slots = slots_of(board) if board else ()
    for number, drive in enumerate(sticks, start=1):
        slot = seats.slots[number - 1] if seats else number - 1
        lost = slots[slot].ports if seats else 0
        lanes = slots[slot].lanes if seats else 0
        why = f"This slot switches {counted(lost, 'SATA port')} off." if lost else ""
        if lanes:
            why = f"{why} It takes {lanes} lanes from the graphics card.".strip()
        yield AssemblyStep(
            f"m2-{number}",
            f"Fasten {drive.name} in M.2 slot {slot + 1}, under its heat shield if there is one.",
            why,
        )
    left = seats.ports_left if seats else len(sata)
    for slot, drive in enumerate(sata, start=1):
        where = f" in {case.name}" if case else ""
        yield AssemblyStep(
            f"sata-{slot}",
            f"Fasten {drive.name} in a {drive.size} place{where}; data to a SATA port that stays on"
            f" ({left} do).",
        )


def _power(machine: Machine) -> Iterator[AssemblyStep]:
    supply, case = machine.supply, machine.case
    if supply is None:
        return
    where = f" at the {case.supply_place}" if case else ""
    yield AssemblyStep("supply-in", f"Fasten {supply.name}{where}, its fan where air comes in.")
    for cable in cables(machine):
        has = "" if cable.has is None else f" (the supply has {cable.has})"
        yield AssemblyStep(
            f"cable-{cable.name}", f"{cable.needed} x {cable.name} to {cable.goes_to}{has}."
        )
    if supply.modular:
        yield AssemblyStep(
            "modular",
            "Leave unused cables off, and use none of another supply.",
            "Plugs look alike and are wired differently.",
        )


def _card(machine: Machine) -> Iterator[AssemblyStep]:
    card = machine.graphics
    if card is None:
        return
    yield AssemblyStep(
        "card-in",
        f"Set {card.name} into the first long slot until it clicks, and screw its bracket down.",
    )
    if (card.pcie_8pin or 0) > 1:
        yield AssemblyStep(
            "card-power", f"Give it {card.pcie_8pin} separate 8-pin cables, not two plugs of one."
        )
    elif card.pcie_16pin:
        yield AssemblyStep(
            "card-power", "Push the 16-pin plug home and bend it no nearer than 35 mm."
        )
    yield AssemblyStep(
        "display", f"Connect the display to the card{_among(card)}, not to the board."
    )


def _among(card: Graphics) -> str:
    outputs = outputs_of(card)
    return f" ({', '.join(outputs)})" if outputs else ""


def _start(machine: Machine) -> Iterator[AssemblyStep]:
    board, chip, kit = machine.mainboard, machine.processor, machine.memory
    if not board or not chip:
        return
    yield AssemblyStep(
        "start", "Start and enter the firmware: processor, memory and drives must be listed."
    )
    if kit:
        mts = memory_class(chip, board, kit).mts
        yield AssemblyStep(
            "profile",
            f"Switch the memory profile on: {mts} MT/s must be shown.",
            "Without it the kit runs at a slow standard rate.",
        )
    yield AssemblyStep(
        "temperatures", "Watch the processor's temperature for some minutes: it must settle."
    )


def _system(machine: Machine, brief: Brief) -> Iterator[AssemblyStep]:
    if not machine.parts():
        return
    yield AssemblyStep(
        "install",
        f"Install {brief.system or 'the operating system'} from the stick onto the fastest drive.",
    )
    if machine.mainboard:
        yield AssemblyStep(
            "chipset", "Install the drivers of the mainboard: chipset, network, sound."
        )
    if machine.can_draw:
        yield AssemblyStep(
            "graphics-driver",
            "Install the driver of"
            f" {machine.graphics.name if machine.graphics else 'the integrated graphics'}.",
        )
    yield AssemblyStep(
        "refresh",
        f"Set the display to {brief.display.width_px}x{brief.display.height_px} at"
        f" {brief.display.refresh_hz:g} Hz.",
    )
    if brief.display.variable_from_hz:
        yield AssemblyStep(
            "variable", f"Switch variable refresh on (from {brief.display.variable_from_hz:g} Hz)."
        )
    for number, drive in enumerate(machine.storage[1:], start=2):
        yield AssemblyStep(f"format-{number}", f"Format {drive.name} and put games there.")
    yield AssemblyStep(
        "measure",
        "Play one of the brief's games and note its frame rate.",
        "Then you know whether the estimate was right.",
    )
