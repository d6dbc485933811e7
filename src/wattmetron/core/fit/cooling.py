"""Whether the processor's heat is carried away: mounting, capacity, boxed cooler."""

from collections.abc import Iterator

from wattmetron.core.fit.finding import Figure, Finding, counted
from wattmetron.core.power.draw import draw
from wattmetron.core.power.heat import FAN_W, case_heat_w
from wattmetron.core.values.machine import Machine


def cooler_socket(machine: Machine) -> Iterator[Finding]:
    """The cooler must mount on the processor's socket."""
    cooler, chip = machine.cooler, machine.processor
    if cooler and chip and chip.socket not in cooler.sockets:
        yield Finding(
            "cooler socket",
            "blocks",
            ("cooler", "processor"),
            f"{cooler.name} does not mount on socket {chip.socket}.",
            f"Take a cooler for socket {chip.socket}.",
            (Figure("processor", chip.socket), Figure("cooler", ", ".join(cooler.sockets))),
            ("cooler",),
        )


def cooler_capacity(machine: Machine) -> Iterator[Finding]:
    """The cooler must carry the processor's sustained power."""
    cooler, chip = machine.cooler, machine.processor
    if cooler and chip and cooler.capacity_w < chip.sustained_w:
        yield Finding(
            "cooler capacity",
            "blocks",
            ("cooler", "processor"),
            f"{cooler.name} carries {cooler.capacity_w} W; {chip.name} gives off {chip.sustained_w}"
            " W sustained.",
            f"Take a cooler that carries {chip.sustained_w} W or more.",
            (
                Figure("cooler", str(cooler.capacity_w), "W"),
                Figure("processor", str(chip.sustained_w), "W"),
            ),
            ("cooler", "processor"),
        )


def boxed_cooler(machine: Machine) -> Iterator[Finding]:
    """Without a cooler of its own the machine relies on the boxed one."""
    chip = machine.processor
    if machine.cooler or not chip:
        return
    if machine.boxed_suffices:
        yield Finding(
            "boxed cooler",
            "good to know",
            ("processor",),
            f"The boxed cooler of {chip.name} carries {chip.boxed_cooler_w} W; {chip.sustained_w} W"
            " are given off.",
            "Nothing to do; a larger cooler would be quieter.",
            (
                Figure("boxed cooler", str(chip.boxed_cooler_w), "W"),
                Figure("processor", str(chip.sustained_w), "W"),
            ),
        )
    elif chip.boxed_cooler_w is not None:
        yield Finding(
            "boxed cooler",
            "blocks",
            ("processor", "cooler"),
            f"The boxed cooler of {chip.name} carries {chip.boxed_cooler_w} W, too little for"
            f" {chip.sustained_w} W.",
            f"Add a cooler that carries {chip.sustained_w} W or more.",
            (
                Figure("boxed cooler", str(chip.boxed_cooler_w), "W"),
                Figure("processor", str(chip.sustained_w), "W"),
            ),
            ("cooler", "processor"),
        )


def case_heat(machine: Machine) -> Iterator[Finding]:
    """Heat beyond what the case carries off makes everything in it warm and loud."""
    case = machine.case
    if not case or not machine.processor:
        return
    heat, carries = draw(machine).full_w, case_heat_w(case.airflow, machine.fans)
    if heat > carries:
        more = -(-(heat - carries) // FAN_W)
        room = case.fan_places is None or case.fan_places >= machine.fans + more
        yield Finding(
            "case airflow",
            "good to know",
            ("case",),
            f"Up to {heat} W of heat; {case.name} with {counted(machine.fans, 'fan')} carries off"
            f" about {carries} W.",
            (
                f"Add {counted(more, 'fan')}."
                if room
                else "Expect it to be warm and loud, or take a more open case."
            ),
            (Figure("heat", str(heat), "W"), Figure("carried off, about", str(carries), "W")),
            ("fan",) if room else (),
        )
