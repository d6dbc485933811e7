"""When each rule speaks and when it stays silent, in words: shown beside the findings and in the
documentation.
"""

from typing import NamedTuple

from wattmetron.core.fit.finding import Level


class Told(NamedTuple):
    """A rule by its name: family, levels that it can speak at, when it speaks, when it stays
    silent.
    """

    rule: str
    family: str
    levels: tuple[Level, ...]
    speaks: str
    silent: str


TOLD: tuple[Told, ...] = (
    Told(
        "socket",
        "platform",
        ("blocks",),
        "processor and board have different sockets",
        "they are the same",
    ),
    Told(
        "firmware",
        "platform",
        ("do first",),
        "the board ships with firmware older than the processor's family needs",
        "it ships with that firmware or newer, or the board names no need of the family",
    ),
    Told(
        "board power delivery",
        "platform",
        ("blocks",),
        "the processor's sustained power is above what the board delivers",
        "it is equal or below",
    ),
    Told(
        "tuning",
        "platform",
        ("good to know",),
        "a chip whose clocks can be tuned sits on a board that cannot",
        "the board can, or the chip cannot",
    ),
    Told(
        "card slot",
        "platform",
        ("good to know",),
        "the link of processor, slot and card has under half the bandwidth that the card could use",
        "it has half or more: that makes no difference in games",
    ),
    Told(
        "second card",
        "platform",
        ("blocks", "wastes"),
        "a second card has no slot on the board (blocks), or no game of the brief is known to gain"
        " from it",
        "there is one card, or a game gains from two",
    ),
    Told(
        "memory type",
        "memory",
        ("blocks",),
        "kit, board and processor do not share one memory type",
        "they do",
    ),
    Told(
        "memory slots",
        "memory",
        ("blocks",),
        "the kit has more sticks than the board has slots",
        "as many or fewer",
    ),
    Told(
        "memory capacity",
        "memory",
        ("blocks",),
        "the kit holds more than board or processor take",
        "as much or less",
    ),
    Told(
        "registered memory",
        "memory",
        ("blocks",),
        "a registered kit is on a board that is not made for it",
        "the board is, or the kit is not registered",
    ),
    Told(
        "error correction",
        "memory",
        ("wastes",),
        "a kit with error correction is on a board that leaves it unused",
        "the board uses it",
    ),
    Told(
        "memory channels",
        "memory",
        ("wastes",),
        "fewer sticks than the processor has channels",
        "at least one stick for each channel",
    ),
    Told(
        "memory speed",
        "memory",
        ("wastes", "good to know"),
        "the kit is faster than processor or board can use (no waste where nothing cheaper does as"
        " much)",
        "the kit's rate is within both limits",
    ),
    Told(
        "mixed kits",
        "memory",
        ("blocks", "good to know"),
        "several kits differ in type (blocks) or in rate, latency or stick size",
        "there is one kit, or all are alike",
    ),
    Told(
        "drive ports",
        "ports",
        ("blocks",),
        "more drives than M.2 slots, or than SATA ports left beside the M.2 slots in use",
        "every drive has a port",
    ),
    Told(
        "drive length",
        "ports",
        ("blocks",),
        "an M.2 drive is longer than the slot that is left for it, the longest drives in the"
        " longest slots",
        "every drive has a slot as long, or lengths are not known",
    ),
    Told(
        "drive link",
        "ports",
        ("good to know",),
        "an M.2 drive could use a newer PCIe generation than the slot that is left for it",
        "the slot is as new, or not known",
    ),
    Told(
        "drive places",
        "ports",
        ("blocks",),
        "more 3.5 or 2.5 inch drives than the case has places",
        "every drive has a place",
    ),
    Told(
        "graphics output",
        "ports",
        ("blocks",),
        "nothing draws, or what draws has no display output",
        "card or board have an output for what draws",
    ),
    Told(
        "display output",
        "ports",
        ("wastes",),
        "the fastest output carries less than the display's pixels at its refresh",
        "it carries them, or an output's standard is not stated",
    ),
    Told(
        "wireless",
        "ports",
        ("do first",),
        "the brief wants wireless and the board has none",
        "the board has it, or it is not wanted",
    ),
    Told(
        "upscaling",
        "asks",
        ("good to know",),
        "upscaling is asked for and game and card have no upscaler in common",
        "they have one, or it is not asked for",
    ),
    Told(
        "ray tracing",
        "asks",
        ("do first",),
        "ray tracing is asked for and what draws cannot trace rays",
        "it can, or it is not asked for",
    ),
    Told(
        "graphics API",
        "asks",
        ("do first",),
        "the lowest tier of a game names an API that the card does not know at that level",
        "the card knows it or newer, or its APIs are not known",
    ),
    Told(
        "operating system",
        "asks",
        ("do first",),
        "a game names another system, or a newer version, than the one that will run",
        "it is the same or newer, or not stated",
    ),
    Told(
        "front ports",
        "ports",
        ("good to know",),
        "a front port of the case finds no header",
        "every port finds one, or the board's headers are not known",
    ),
    Told(
        "lights",
        "ports",
        ("good to know",),
        "lights of the case find no header of their voltage",
        "a header of their voltage is there",
    ),
    Told(
        "fan headers",
        "ports",
        ("do first",),
        "case and added fans are more than the board has headers",
        "as many or fewer",
    ),
    Told(
        "fan places",
        "ports",
        ("wastes",),
        "there are more fans than places for them in the case",
        "as many or fewer, or the places are not known",
    ),
    Told(
        "board form factor",
        "clearance",
        ("blocks",),
        "the case does not take the board's form factor",
        "it does",
    ),
    Told(
        "card length",
        "clearance",
        ("blocks",),
        "the card is longer than the case takes, less the thickness of a radiator in front",
        "as long or shorter",
    ),
    Told(
        "card height",
        "clearance",
        ("blocks",),
        "the card stands taller above its slot than the case takes",
        "as tall or lower",
    ),
    Told(
        "card thickness",
        "clearance",
        ("blocks",),
        "the card is thicker than the case takes",
        "as thick or thinner",
    ),
    Told(
        "cooler height",
        "clearance",
        ("blocks",),
        "the cooler is taller than the case takes",
        "as tall or lower",
    ),
    Told(
        "radiator place",
        "clearance",
        ("blocks",),
        "no place of the case is as long and as wide as the radiator",
        "one is",
    ),
    Told(
        "memory clearance",
        "clearance",
        ("blocks",),
        "the memory is taller than an air cooler leaves beside it",
        "as tall or lower, or the cooler is liquid",
    ),
    Told(
        "supply form factor",
        "clearance",
        ("blocks",),
        "the case does not take the supply's form factor",
        "it does",
    ),
    Told(
        "supply length",
        "clearance",
        ("blocks",),
        "the supply is longer than its place",
        "as long or shorter",
    ),
    Told(
        "cooler socket",
        "cooling",
        ("blocks",),
        "the cooler does not mount on the processor's socket",
        "it does",
    ),
    Told(
        "cooler capacity",
        "cooling",
        ("blocks",),
        "the cooler carries less than the processor's sustained power",
        "as much or more",
    ),
    Told(
        "boxed cooler",
        "cooling",
        ("blocks", "good to know"),
        "no cooler is chosen and the processor has a boxed one: whether that suffices",
        "a cooler is chosen, or none comes in the box",
    ),
    Told(
        "case airflow",
        "cooling",
        ("good to know",),
        "the full draw is above what case and fans carry off quietly, by a rule of thumb",
        "equal or below",
    ),
    Told(
        "supply watts",
        "supply",
        ("blocks",),
        "the rated output is below full draw x headroom",
        "equal or above",
    ),
    Told(
        "watt limit",
        "supply",
        ("blocks",),
        "the full draw is above the brief's limit",
        "equal or below, or there is no limit",
    ),
    Told(
        "supply spikes",
        "supply",
        ("blocks",),
        "the supply rides out less than the short spikes",
        "as much or more",
    ),
    Told(
        "supply connectors",
        "supply",
        ("blocks",),
        "card or board need more power connectors of a type than the supply has",
        "as many or more",
    ),
    Told(
        "SATA power plugs",
        "supply",
        ("do first",),
        "more SATA drives than the supply has plugs",
        "as many or more, or the number is not known",
    ),
    Told(
        "supply trust",
        "supply",
        ("do first",),
        "what is known of the supply makes it doubtful",
        "it is unknown, plain or proven",
    ),
    Told(
        "only claimed",
        "all",
        ("good to know",),
        "a figure that a rule hangs on is claimed by a maker's list or an offer's text alone",
        "figures are confirmed",
    ),
    Told(
        "sources disagree",
        "all",
        ("do first", "good to know"),
        "another source gives another figure; do first where something blocks by that figure",
        "sources agree",
    ),
    Told(
        "not judged",
        "all",
        ("good to know",),
        "a figure that a rule needs is not known: the finding names part and figure",
        "all figures are known",
    ),
)
BY_RULE = {one.rule: one for one in TOLD}


def rules_markdown() -> str:
    """The table of the documentation."""
    lines = [
        "| rule | family | level | speaks when | silent when |",
        "| --- | --- | --- | --- | --- |",
    ]
    lines += [
        f"| {one.rule} | {one.family} | {', '.join(one.levels)} | {one.speaks} | {one.silent} |"
        for one in TOLD
    ]
    return "\n".join(lines) + "\n"
