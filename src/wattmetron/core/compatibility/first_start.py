"""What to try when a machine does not start, in order, from its own parts."""

from collections.abc import Iterator

from wattmetron.core.compatibility.display_link import outputs_of
from wattmetron.core.compatibility.platform import firmware_needed, firmware_older
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.seating import in_slots

FIRMWARE_WAYS: dict[bool | None, str] = {
    True: "the board writes it from a stick without a processor",
    False: "it takes a processor that the board knows already, or a shop",
    None: "look up whether the board writes it from a stick without a processor; else it takes a"
    " processor that the board knows already, or a shop",
}


def first_start(machine: Machine) -> tuple[str, ...]:
    """Steps from the likeliest and easiest on; what the machine lacks is left out."""
    return tuple(
        step
        for steps in (_power(machine), _picture(machine), _memory(machine), _board(machine))
        for step in steps
    ) + tuple(_drives(machine))


def _power(machine: Machine) -> Iterator[str]:
    supply, board = machine.supply, machine.mainboard
    if supply is None or board is None:
        return
    leads = board.cpu_8pin + board.cpu_4pin
    yield (
        f"Nothing moves: the switch of {supply.name} is on, the 24-pin plug and"
        f" {'the processor lead' if leads == 1 else f'all {leads} processor leads'} sit in"
        f" {board.name} up to the click, the case's power switch is on the right two pins."
    )
    if supply.modular:
        yield "Use only the cables that came with this supply: others fit and still kill."


def _picture(machine: Machine) -> Iterator[str]:
    card, chip, board = machine.graphics, machine.processor, machine.mainboard
    if card is not None:
        plugs = sum(card.plugs or (0, 0))
        leads = "its power lead is" if plugs == 1 else f"all its {plugs} power leads are"
        power = f", {leads} in" if plugs else ""
        yield (
            f"Fans turn, no picture: the display is on {card.name} and not on the board, the card"
            f" is down in its slot{power}."
        )
    if card is not None and chip is not None and chip.igpu_speed and board and outputs_of(board):
        yield (
            f"Still no picture: take the card out and connect the display to the board;"
            f" {chip.name} draws by itself, so a picture there means that the card or its slot is"
            " at fault."
        )


def _memory(machine: Machine) -> Iterator[str]:
    kit = machine.memory
    if kit is None:
        return
    if kit.sticks > 1:
        yield (
            "It starts and stops: try one stick of memory alone in the second slot from the"
            " processor, then the other one."
        )
    else:
        yield "It starts and stops: press the memory in again until both ends click."
    yield "The first start with new memory may take some minutes without a picture: wait for it."


def _board(machine: Machine) -> Iterator[str]:
    board, chip = machine.mainboard, machine.processor
    if board is None or chip is None:
        return
    needed = firmware_needed(chip.firmware_family, board)
    if needed and (not board.firmware_shipped or firmware_older(board.firmware_shipped, needed)):
        way = FIRMWARE_WAYS[board.firmware_recovery]
        yield f"{board.name} needs firmware {needed} for {chip.name}: {way}."
    if board.fault_display:
        yield f"{board.name} shows where the start stops: look the code up in its manual."
    if machine.cooler is not None:
        yield (
            f"It runs for seconds and goes off: {machine.cooler.name} sits flat, its film is off,"
            " its lead is on the header named for the processor's fan."
        )
    yield (
        "Nothing helps: take the board out of the case and start it on its box with processor,"
        " one stick and supply alone. If it starts there, something in the case touched it."
    )


def _drives(machine: Machine) -> Iterator[str]:
    sticks = in_slots(machine.storage)
    if sticks:
        yield (
            f"The drive is not listed: {sticks[0].name} sits flat in its M.2 slot with the screw"
            " in, and the slot is switched on in the firmware."
        )
