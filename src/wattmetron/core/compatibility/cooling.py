"""Whether the processor's heat is carried away: mounting, capacity, boxed cooler."""

from wattmetron.core.compatibility.finding import Figure, MissingData, RuleFinding, Speech
from wattmetron.core.compatibility.rule import DRAWN, RuleContext, RuleFamily
from wattmetron.core.power.heat import FAN_MM, FAN_W, TOO_HOT, case_heat_w
from wattmetron.core.values.fan_places import free_for
from wattmetron.core.values.sockets import mounts_on
from wattmetron.core.values.words import counted

RULES = RuleFamily("cooling")


@RULES.rule(
    "cooler socket",
    levels=("blocks",),
    reads={"cooler", "processor"},
    speaks="the cooler does not mount on the processor's socket",
    silent="it does",
    hangs_on={"cooler": ("sockets",)},
)
def cooler_socket(look: RuleContext) -> Speech:
    """The cooler must mount on the processor's socket."""
    cooler, chip = look.machine.cooler, look.machine.processor
    if cooler and chip and not mounts_on(cooler.sockets, chip.socket):
        yield RuleFinding(
            ("cooler", "processor"),
            f"{cooler.name} does not mount on socket {chip.socket}.",
            f"Take a cooler for socket {chip.socket}.",
            (Figure("processor", chip.socket), Figure("cooler", ", ".join(cooler.sockets))),
            ("cooler",),
        )


@RULES.rule(
    "cooler capacity",
    levels=("blocks",),
    reads={"cooler", "processor"},
    speaks="the cooler carries less than the processor's sustained power",
    silent="as much or more",
    hangs_on={"cooler": ("capacity_w",)},
)
def cooler_capacity(look: RuleContext) -> Speech:
    """The cooler must carry the processor's sustained power."""
    cooler, chip = look.machine.cooler, look.machine.processor
    if cooler and chip and cooler.capacity_w < chip.sustained_w:
        yield RuleFinding(
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


@RULES.rule(
    "boxed cooler",
    levels=("blocks", "good to know"),
    reads={"cooler", "processor"},
    speaks="no cooler is chosen and the processor has a boxed one: whether that suffices",
    silent="a cooler is chosen, or none comes in the box",
)
def boxed_cooler(look: RuleContext) -> Speech:
    """Without a cooler of its own the machine relies on the boxed one."""
    chip = look.machine.processor
    if look.machine.cooler or not chip:
        return
    if look.machine.boxed_suffices:
        yield RuleFinding(
            ("processor",),
            f"The boxed cooler of {chip.name} carries {chip.boxed_cooler_w} W; {chip.sustained_w} W"
            " are given off.",
            "Nothing to do; a larger cooler would be quieter.",
            (
                Figure("boxed cooler", str(chip.boxed_cooler_w), "W"),
                Figure("processor", str(chip.sustained_w), "W"),
            ),
            level="good to know",
        )
    elif chip.boxed_cooler_w is None:
        yield MissingData("processor", chip.name, "boxed cooler")
    elif chip.boxed_cooler_w:
        yield RuleFinding(
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


@RULES.rule(
    "case airflow",
    levels=("good to know", "do first"),
    reads=DRAWN | {"case", "fan"},
    speaks="the full draw is above what case and fans carry off quietly, by a rule of thumb (good"
    " to know: it is heard), or above one and a half times that (do first: too hot)",
    silent="equal or below",
)
def case_heat(look: RuleContext) -> Speech:
    """Heat beyond what the case carries off makes everything in it warm and loud."""
    case = look.machine.case
    if not case or not look.machine.processor:
        return
    if case.fans_included is None:
        yield MissingData("case", case.name, "fans included")
        return
    fans = look.machine.fans_placed
    heat, carries = look.draw.full_w, case_heat_w(case.airflow, fans)
    if heat > carries:
        more = -(-(heat - carries) // FAN_W)
        free = free_for(case, look.machine.added_fans, FAN_MM)
        room = free is None or free >= more
        hot = heat > TOO_HOT * carries
        yield RuleFinding(
            ("case",),
            f"Up to {heat} W of heat; {case.name} with"
            f" {counted(fans, 'fan')} carries off about {carries} W quietly:"
            f" {'too hot' if hot else 'it will be heard'}.",
            (
                f"Add {counted(more, 'fan')}."
                if room
                else "Take a more open case, or parts that draw less."
            ),
            (Figure("heat", str(heat), "W"), Figure("carried off, about", str(carries), "W")),
            ("fan", "case") if room else ("case",),
            "do first" if hot else "good to know",
        )
