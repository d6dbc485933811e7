"""Memory: type, slots, capacity, channels, speed, registered and error-correcting kits."""

from wattmetron.core.compatibility.finding import Figure, MissingData, RuleFinding, Speech
from wattmetron.core.compatibility.rule import RuleContext, RuleFamily
from wattmetron.core.frames.memory_class import memory_rates, usable_mts
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Mainboard, Processor
from wattmetron.core.values.sockets import same_socket
from wattmetron.core.values.words import counted

RULES = RuleFamily("memory")


@RULES.rule(
    "memory type",
    levels=("blocks",),
    reads={"memory", "mainboard", "processor"},
    speaks="kit, board and processor do not share one memory type",
    silent="they do",
)
def memory_type(look: RuleContext) -> Speech:
    """Kit, board and processor must speak of the same memory type."""
    chip, board, kit = look.machine.processor, look.machine.mainboard, look.machine.memory
    if kit and board and kit.memory_type != board.memory_type:
        yield _other_type(
            kit.name, kit.memory_type, board.name, board.memory_type, ("memory", "mainboard")
        )
    elif kit and chip and kit.memory_type not in memory_rates(chip):
        yield _other_type(
            kit.name, kit.memory_type, chip.name, _types(chip), ("memory", "processor")
        )
    if not board or not chip or not same_socket(board.socket, chip.socket):
        return
    if board.memory_type not in memory_rates(chip):
        yield _other_type(
            board.name, board.memory_type, chip.name, _types(chip), ("mainboard", "processor")
        )


def _types(chip: Processor) -> str:
    return " or ".join(memory_rates(chip))


def _other_type(
    first: str, has: str, other: str, wants: str, kinds: tuple[Kind, ...]
) -> RuleFinding:
    return RuleFinding(
        kinds,
        f"{first} is {has}; {other} takes {wants}.",
        f"Take {wants} memory or a platform for {has}.",
        (Figure(first, has), Figure(other, wants)),
        kinds,
    )


@RULES.rule(
    "memory slots",
    levels=("blocks",),
    reads={"memory", "mainboard"},
    speaks="the kit has more sticks than the board has slots",
    silent="as many or fewer",
)
def memory_slots(look: RuleContext) -> Speech:
    """No more sticks than slots."""
    kit, board = look.machine.memory, look.machine.mainboard
    if kit and board and kit.sticks > board.memory_slots:
        several = len(look.machine.kits) > 1
        yield RuleFinding(
            ("memory", "mainboard"),
            f"{kit.name} {'together have' if several else 'has'} {counted(kit.sticks, 'stick')};"
            f" {board.name} has {counted(board.memory_slots, 'memory slot')}.",
            "Take a kit with fewer sticks or a mainboard with more slots.",
            (Figure("sticks", str(kit.sticks)), Figure("slots", str(board.memory_slots))),
            ("memory", "mainboard"),
        )


@RULES.rule(
    "memory capacity",
    levels=("blocks",),
    reads={"memory", "mainboard", "processor"},
    speaks="the kit holds more than board or processor take",
    silent="as much or less",
    hangs_on={"mainboard": ("memory_max_gb",), "processor": ("memory_max_gb",)},
)
def memory_capacity(look: RuleContext) -> Speech:
    """No more capacity than board and processor take."""
    kit, board, chip = look.machine.memory, look.machine.mainboard, look.machine.processor
    holders: list[tuple[Mainboard | Processor, Kind]] = [(board, "mainboard")] if board else []
    holders += [(chip, "processor")] if chip else []
    if not kit or not holders:
        return
    holder, kind = min(holders, key=lambda each_holder: each_holder[0].memory_max_gb)
    if kit.total_gb > holder.memory_max_gb:
        yield RuleFinding(
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


@RULES.rule(
    "registered memory",
    levels=("blocks",),
    reads={"memory", "mainboard"},
    speaks="a kit is registered and the board does not take such memory, or the board takes nothing"
    " else and the kit is not",
    silent="the board takes the kit",
)
def registered(look: RuleContext) -> Speech:
    """A board starts only with the kinds of memory that it is made for."""
    board = look.machine.mainboard
    if not board:
        return
    for kit in look.machine.of("memory"):
        assert isinstance(kit, Memory)
        if kit.registered and board.registered is None:
            yield MissingData("mainboard", board.name, "whether it takes registered memory")
        elif kit.registered and not board.registered:
            yield RuleFinding(
                ("memory", "mainboard"),
                f"{kit.name} is registered memory; {board.name} does not start with it.",
                "Take a kit that is not registered.",
                (Figure("kit", "registered"), Figure("mainboard", "not registered")),
                ("memory", "mainboard"),
            )
        elif not kit.registered and board.unbuffered is False:
            yield RuleFinding(
                ("memory", "mainboard"),
                f"{kit.name} is not registered memory; {board.name} starts with registered memory"
                " alone.",
                "Take a registered kit, or another mainboard.",
                (Figure("kit", "not registered"), Figure("mainboard", "registered")),
                ("memory", "mainboard"),
            )


@RULES.rule(
    "error correction",
    levels=("wastes",),
    reads={"memory", "mainboard"},
    speaks="a kit with error correction is on a board that leaves it unused",
    silent="the board uses it",
)
def error_correcting(look: RuleContext) -> Speech:
    """Error correction is paid for in vain where the board leaves it unused."""
    kit, board = look.machine.memory, look.machine.mainboard
    if not kit or not board or not kit.error_correcting or kit.registered:
        return
    if board.error_correcting is None:
        yield MissingData("mainboard", board.name, "whether error correction works on it")
    elif not board.error_correcting:
        yield RuleFinding(
            ("memory", "mainboard"),
            f"{kit.name} corrects errors; {board.name} leaves that unused.",
            "Take a kit without error correction.",
            (),
            ("memory",),
        )


@RULES.rule(
    "memory channels",
    levels=("wastes",),
    reads={"memory", "processor"},
    speaks="fewer sticks than the processor has channels",
    silent="at least one stick for each channel",
)
def channels(look: RuleContext) -> Speech:
    """Fewer sticks than channels leave bandwidth unused."""
    kit, chip = look.machine.memory, look.machine.processor
    if kit and chip and kit.sticks < chip.memory_channels:
        yield RuleFinding(
            ("memory",),
            f"{counted(kit.sticks, 'stick')} on {chip.memory_channels} channels: "
            f"only {kit.sticks}/{chip.memory_channels} of the memory bandwidth is used.",
            f"Take the same capacity as {chip.memory_channels} sticks.",
            (Figure("sticks", str(kit.sticks)), Figure("channels", str(chip.memory_channels))),
            ("memory",),
        )


@RULES.rule(
    "memory speed",
    levels=("wastes", "good to know"),
    reads={"memory", "processor", "mainboard"},
    speaks="the kit is faster than processor or board can use, with two sticks on a channel too"
    " (no waste where nothing cheaper does as much)",
    silent="the kit's rate is within both limits",
    hangs_on={
        "mainboard": ("memory_max_mts", "memory_full_mts"),
        "processor": ("memory_max_mts", "memory_full_mts"),
        "memory": ("mts",),
    },
)
def memory_speed(look: RuleContext) -> Speech:
    """A kit faster than processor and board can use runs at their limit."""
    kit, chip, board = look.machine.memory, look.machine.processor, look.machine.mainboard
    if not kit:
        return
    limits = [(board.memory_max_mts, board.name)] if board else []
    if chip and (of_chip := memory_rates(chip).get(kit.memory_type)):
        limits.append((of_chip, chip.name))
    if not limits or (board and kit.memory_type != board.memory_type):
        return
    limit, name = min(limits)
    if kit.mts > limit:
        yield RuleFinding(
            ("memory",),
            f"{kit.name} can do {kit.mts} MT/s; {name} stops at {limit} MT/s, so it runs at that.",
            f"A kit rated {limit} MT/s with a lower latency does the same for less.",
            (Figure("kit", str(kit.mts), "MT/s"), Figure("limit", str(limit), "MT/s")),
            ("memory",),
        )
        return
    if chip is None or kit.sticks <= chip.memory_channels:
        return
    full = usable_mts(chip, board, kit.sticks)
    if kit.mts <= full:
        return
    of_type = kit.memory_type == chip.memory_type
    stated = (of_type and chip.memory_full_mts) or (board and board.memory_full_mts)
    source = "" if stated else " (not stated: two steps below the usual limit are assumed)"
    yield RuleFinding(
        ("memory",),
        f"{kit.name} can do {kit.mts} MT/s; with {kit.sticks} sticks on {chip.memory_channels}"
        f" channels the platform stops at {full} MT/s{source}, so it runs at that.",
        f"The same capacity as {chip.memory_channels} sticks keeps its rate.",
        (Figure("kit", str(kit.mts), "MT/s"), Figure("limit", str(full), "MT/s")),
        ("memory",),
    )


@RULES.rule(
    "mixed kits",
    levels=("blocks", "good to know"),
    reads={"memory"},
    speaks="several kits differ in type, or some are registered and some are not (blocks); or in"
    " rate, latency or stick size, or error correction is off because not all have it",
    silent="there is one kit, or all are alike",
)
def mixed_kits(look: RuleContext) -> Speech:
    """Kits that differ run at the slowest, if they start together at all."""
    kits = look.machine.kits
    types = list(dict.fromkeys(kit.memory_type for kit in kits))
    if len(types) > 1:
        yield RuleFinding(
            ("memory",),
            f"{' and '.join(types)} kits do not go onto one mainboard.",
            "Take kits of one type.",
            tuple(Figure(kit.name, kit.memory_type) for kit in kits),
            ("memory",),
        )
        return
    if len({kit.registered for kit in kits}) > 1:
        registered_kit = next(kit for kit in kits if kit.registered)
        other = next(kit for kit in kits if not kit.registered)
        yield RuleFinding(
            ("memory",),
            f"{registered_kit.name} is registered memory and {other.name} is not: they do not work"
            " together.",
            "Take kits of one kind.",
            tuple(Figure(kit.name, _registered(kit)) for kit in kits),
            ("memory",),
        )
        return
    if len({kit.error_correcting for kit in kits}) > 1:
        plain = next(kit for kit in kits if not kit.error_correcting)
        yield RuleFinding(
            ("memory",),
            f"{plain.name} has no error correction: beside it, error correction is off for all"
            " memory.",
            "Take kits that all have it if you want it.",
            tuple(Figure(kit.name, _correcting(kit)) for kit in kits),
            level="good to know",
        )
    if len({(kit.mts, kit.cl, kit.stick_gb) for kit in kits}) > 1:
        sentence = "; ".join(
            f"{kit.name} {kit.mts} MT/s CL{kit.cl}, {kit.sticks} x {kit.stick_gb:g} GB"
            for kit in kits
        )
        yield RuleFinding(
            ("memory",),
            f"Different kits together run at the slowest of them: {sentence}.",
            "Kits that are alike are surer to start with their memory profile on.",
            tuple(Figure(kit.name, str(kit.mts), "MT/s") for kit in kits),
            level="good to know",
        )


def _registered(kit: Memory) -> str:
    return "registered" if kit.registered else "not registered"


def _correcting(kit: Memory) -> str:
    return "error correction" if kit.error_correcting else "no error correction"
