"""Memory: type, slots, capacity, channels, speed, registered and error-correcting kits."""

from collections.abc import Iterator

from wattmetron.core.fit.finding import Figure, Finding, counted
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Kind, Mainboard, Processor


def memory_type(machine: Machine) -> Iterator[Finding]:
    """Kit, board and processor must speak of the same memory type."""
    chip, board, kit = machine.processor, machine.mainboard, machine.memory
    if kit and board and kit.memory_type != board.memory_type:
        yield _other_type(
            kit.name, kit.memory_type, board.name, board.memory_type, ("memory", "mainboard")
        )
    elif kit and chip and kit.memory_type != chip.memory_type:
        yield _other_type(
            kit.name, kit.memory_type, chip.name, chip.memory_type, ("memory", "processor")
        )
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
            f"{kit.name} has {kit.sticks} sticks; {board.name} has {board.memory_slots} memory"
            " slots.",
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
            f"{kit.name} holds {kit.total_gb:g} GB; {holder.name} takes {holder.memory_max_gb:g} GB"
            " at most.",
            "Take a smaller kit.",
            (
                Figure("kit", f"{kit.total_gb:g}", "GB"),
                Figure("limit", f"{holder.memory_max_gb:g}", "GB"),
            ),
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
            f"{counted(kit.sticks, 'stick')} on {chip.memory_channels} channels: "
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


def registered(machine: Machine) -> Iterator[Finding]:
    """Registered memory starts only on boards made for it."""
    kit, board = machine.memory, machine.mainboard
    if kit and board and kit.registered and not board.registered:
        yield Finding(
            "registered memory",
            "blocks",
            ("memory", "mainboard"),
            f"{kit.name} is registered memory; {board.name} does not start with it.",
            "Take a kit that is not registered.",
            (Figure("kit", "registered"), Figure("mainboard", "not registered")),
            ("memory", "mainboard"),
        )


def error_correcting(machine: Machine) -> Iterator[Finding]:
    """Error correction is paid for in vain where the board leaves it unused."""
    kit, board = machine.memory, machine.mainboard
    if kit and board and kit.error_correcting and not kit.registered and not board.error_correcting:
        yield Finding(
            "error correction",
            "wastes",
            ("memory", "mainboard"),
            f"{kit.name} corrects errors; {board.name} leaves that unused.",
            "Take a kit without error correction.",
            (),
            ("memory",),
        )


def mixed_kits(machine: Machine) -> Iterator[Finding]:
    """Kits that differ run at the slowest, if they start together at all."""
    kits = machine.kits
    types = list(dict.fromkeys(kit.memory_type for kit in kits))
    if len(types) > 1:
        yield Finding(
            "mixed kits",
            "blocks",
            ("memory",),
            f"{' and '.join(types)} kits do not go onto one mainboard.",
            "Take kits of one type.",
            tuple(Figure(kit.name, kit.memory_type) for kit in kits),
            ("memory",),
        )
    elif len({(kit.mts, kit.cl, kit.stick_gb) for kit in kits}) > 1:
        told = "; ".join(
            f"{kit.name} {kit.mts} MT/s CL{kit.cl}, {kit.sticks} x {kit.stick_gb:g} GB"
            for kit in kits
        )
        yield Finding(
            "mixed kits",
            "good to know",
            ("memory",),
            f"Different kits together run at the slowest of them: {told}.",
            "Kits that are alike are surer to start with their memory profile on.",
            tuple(Figure(kit.name, str(kit.mts), "MT/s") for kit in kits),
        )
