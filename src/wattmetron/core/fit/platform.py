"""Processor, mainboard and memory: socket, memory type, slots, capacity, channels, speed."""

from collections.abc import Iterator

from wattmetron.core.fit.finding import Figure, Finding
from wattmetron.core.frames.work import link_gbs
from wattmetron.core.machine import Machine, card_link
from wattmetron.core.parts import Kind, Mainboard, Processor


def socket(machine: Machine) -> Iterator[Finding]:
    """The processor must fit the board's socket."""
    chip, board = machine.processor, machine.mainboard
    if chip and board and chip.socket != board.socket:
        yield Finding(
            "socket",
            "blocks",
            ("processor", "mainboard"),
            f"{chip.name} needs socket {chip.socket}; {board.name} has socket {board.socket}.",
            f"Take a mainboard with socket {chip.socket} or a processor for {board.socket}.",
            (Figure("processor", chip.socket), Figure("mainboard", board.socket)),
            ("mainboard", "processor"),
        )


def memory_type(machine: Machine) -> Iterator[Finding]:
    """Kit, board and processor must speak of the same memory type."""
    chip, board, kit = machine.processor, machine.mainboard, machine.memory
    if kit and board and kit.memory_type != board.memory_type:
        yield _other_type(kit.name, kit.memory_type, board.name, board.memory_type, ("memory", "mainboard"))
    elif kit and chip and kit.memory_type != chip.memory_type:
        yield _other_type(kit.name, kit.memory_type, chip.name, chip.memory_type, ("memory", "processor"))
    if board and chip and board.socket == chip.socket and board.memory_type != chip.memory_type:
        yield _other_type(
            board.name, board.memory_type, chip.name, chip.memory_type, ("mainboard", "processor")
        )


def _other_type(one: str, has: str, other: str, wants: str, kinds: tuple[Kind, ...]) -> Finding:
    return Finding(
        "memory type",
        "blocks",
        kinds,
        f"{one} is {has}; {other} takes {wants}.",
        f"Take {wants} memory or a platform for {has}.",
        (Figure(one, has), Figure(other, wants)),
        kinds,
    )


def memory_slots(machine: Machine) -> Iterator[Finding]:
    """No more sticks than slots, no more capacity than board and processor take."""
    kit, board, chip = machine.memory, machine.mainboard, machine.processor
    if kit and board and kit.sticks > board.memory_slots:
        yield Finding(
            "memory slots",
            "blocks",
            ("memory", "mainboard"),
            f"{kit.name} has {kit.sticks} sticks; {board.name} has {board.memory_slots} memory slots.",
            "Take a kit with fewer sticks or a mainboard with more slots.",
            (Figure("sticks", str(kit.sticks)), Figure("slots", str(board.memory_slots))),
            ("memory", "mainboard"),
        )
    holders: list[tuple[Mainboard | Processor, Kind]] = [(board, "mainboard")] if board else []
    holders += [(chip, "processor")] if chip else []
    if not kit or not holders:
        return
    holder, kind = min(holders, key=lambda one: one[0].memory_max_gb)
    if kit.total_gb > holder.memory_max_gb:
        yield Finding(
            "memory capacity",
            "blocks",
            ("memory", kind),
            f"{kit.name} holds {kit.total_gb:g} GB; {holder.name} takes {holder.memory_max_gb:g} GB at most.",
            "Take a smaller kit.",
            (Figure("kit", f"{kit.total_gb:g}", "GB"), Figure("limit", f"{holder.memory_max_gb:g}", "GB")),
            ("memory", kind),
        )


def channels(machine: Machine) -> Iterator[Finding]:
    """Fewer sticks than channels leave bandwidth unused."""
    kit, chip = machine.memory, machine.processor
    if kit and chip and kit.sticks < chip.memory_channels:
        yield Finding(
            "memory channels",
            "wastes",
            ("memory",),
            f"{kit.sticks} {'stick' if kit.sticks == 1 else 'sticks'} on {chip.memory_channels} channels: "
            f"only {kit.sticks}/{chip.memory_channels} of the memory bandwidth is used.",
            f"Take the same capacity as {chip.memory_channels} sticks.",
            (Figure("sticks", str(kit.sticks)), Figure("channels", str(chip.memory_channels))),
            ("memory",),
        )


def memory_speed(machine: Machine) -> Iterator[Finding]:
    """A kit faster than processor and board can use runs at their limit."""
    kit, chip, board = machine.memory, machine.processor, machine.mainboard
    limits = [(holder.memory_max_mts, holder.name) for holder in (chip, board) if holder]
    if not kit or not limits or kit.memory_type != (board or chip).memory_type:  # type: ignore[union-attr]
        return
    limit, name = min(limits)
    if kit.mts > limit:
        yield Finding(
            "memory speed",
            "wastes",
            ("memory",),
            f"{kit.name} can do {kit.mts} MT/s; {name} stops at {limit} MT/s, so it runs at that.",
            f"A kit rated {limit} MT/s with a lower latency does the same for less.",
            (Figure("kit", str(kit.mts), "MT/s"), Figure("limit", str(limit), "MT/s")),
            ("memory",),
        )


def card_slot(machine: Machine) -> Iterator[Finding]:
    """A link far slower than the card's own is worth knowing; half its bandwidth makes no difference in games."""
    card, board, chip = machine.graphics, machine.mainboard, machine.processor
    if not card or not board or not chip:
        return
    gen, lanes = card_link(chip, board, card)
    if link_gbs(gen, lanes) < link_gbs(card.pcie_gen, card.pcie_lanes) / 2:
        yield Finding(
            "card slot",
            "good to know",
            ("graphics", "mainboard"),
            f"{card.name} could use PCIe {card.pcie_gen} x{card.pcie_lanes}; on {board.name} it gets "
            f"PCIe {gen} x{lanes}.",
            "This costs frames only where video memory runs out; nothing to do otherwise.",
            (
                Figure("card", f"PCIe {card.pcie_gen} x{card.pcie_lanes}"),
                Figure("here", f"PCIe {gen} x{lanes}"),
            ),
        )


def drive_places(machine: Machine) -> Iterator[Finding]:
    """Every drive needs an M.2 slot or a SATA port."""
    board = machine.mainboard
    if not board:
        return
    nvme = sum(drive.interface == "M.2 NVMe" for drive in machine.storage)
    for count, places, word in (
        (nvme, board.m2_slots, "M.2 slots"),
        (len(machine.storage) - nvme, board.sata_ports, "SATA ports"),
    ):
        if count > places:
            yield Finding(
                "drive places",
                "blocks",
                ("storage", "mainboard"),
                f"The drives need {count} {word}; {board.name} has {places}.",
                "Take fewer or larger drives, or a mainboard with more places.",
                (Figure("drives", str(count)), Figure(word, str(places))),
                ("mainboard", "storage"),
            )


def graphics_output(machine: Machine) -> Iterator[Finding]:
    """Something has to draw, and something has to have a socket for the display."""
    chip, card, board = machine.processor, machine.graphics, machine.mainboard
    if card:
        if not card.outputs:
            yield Finding(
                "graphics output",
                "blocks",
                ("graphics",),
                f"{card.name} has no display output.",
                "Take a card with display outputs.",
                (Figure("outputs", "0"),),
                ("graphics",),
            )
        return
    if not chip:
        return
    if chip.igpu_speed is None:
        if board and machine.case:
            yield Finding(
                "graphics output",
                "blocks",
                ("processor", "graphics"),
                f"Nothing draws: {chip.name} has no integrated graphics and there is no card.",
                "Add a graphics card or take a processor with integrated graphics.",
                (),
                ("graphics", "processor"),
            )
    elif board and not board.outputs:
        yield Finding(
            "graphics output",
            "blocks",
            ("mainboard",),
            f"{board.name} has no display output for the integrated graphics of {chip.name}.",
            "Take a mainboard with display outputs or add a graphics card.",
            (Figure("outputs", "0"),),
            ("mainboard", "graphics"),
        )
