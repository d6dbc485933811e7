"""Whether the power supply carries the machine: watts with headroom, spikes, connectors."""

from wattmetron.core.fit.finding import Figure, Said, Speech
from wattmetron.core.fit.rule import DRAWN, Look, rule
from wattmetron.core.power.draw import needed_supply_w
from wattmetron.core.values.parts import Graphics, Kind
from wattmetron.core.values.trust import judge


@rule(
    "supply watts",
    family="supply",
    levels=("do first", "blocks"),
    reads=DRAWN | {"supply"},
    speaks="the rated output is below full draw x headroom (do first), or below the full draw"
    " itself (blocks)",
    silent="equal or above",
    hangs_on={"supply": ("watts",)},
)
def supply_watts(look: Look) -> Speech:
    """Rated output must reach the full draw, and should reach it x headroom."""
    supply, headroom_percent = look.machine.supply, look.wishes.headroom_percent
    if not supply or not look.machine.processor:
        return
    full = look.draw.full_w
    needed = needed_supply_w(full, headroom_percent)
    if supply.watts < needed:
        short = supply.watts < full
        yield Said(
            ("supply",),
            f"{supply.name} gives {supply.watts} W, less than the full draw of {full} W."
            if short
            else f"{supply.name} gives {supply.watts} W, {supply.watts * 100 // full - 100} % more"
            f" than the full draw of {full} W; {headroom_percent - 100} % headroom needs"
            f" {needed} W.",
            f"Take a power supply of {needed} W or more.",
            (
                Figure("supply", str(supply.watts), "W"),
                Figure("full draw", str(full), "W"),
                Figure("needed", str(needed), "W"),
            ),
            ("supply", "graphics"),
            "blocks" if short else "do first",
        )


@rule(
    "watt limit",
    family="supply",
    levels=("blocks",),
    reads=DRAWN,
    speaks="the full draw is above the brief's limit",
    silent="equal or below, or there is no limit",
)
def watt_limit(look: Look) -> Speech:
    """The brief may limit what the machine draws with everything busy."""
    limit = look.wishes.watt_limit_w
    if limit is None or not look.machine.processor:
        return
    full = look.draw.full_w
    if full > limit:
        yield Said(
            ("processor", "graphics"),
            f"The full draw of {full} W is {full - limit} W above the brief's limit of {limit} W.",
            "Take a card or a processor that draws less.",
            (Figure("full draw", str(full), "W"), Figure("limit", str(limit), "W")),
            ("graphics", "processor"),
        )


@rule(
    "supply spikes",
    family="supply",
    levels=("blocks",),
    reads=DRAWN | {"supply"},
    speaks="the supply rides out less than the short spikes",
    silent="as much or more",
    hangs_on={"supply": ("spike_w",)},
)
def supply_spikes(look: Look) -> Speech:
    """The supply must ride out short spikes of the card on top of everything else."""
    supply = look.machine.supply
    if not supply or not look.machine.processor:
        return
    spike = look.draw.spike_w
    if supply.spike_w < spike:
        yield Said(
            ("supply",),
            f"Short spikes reach {spike} W; {supply.name} rides out {supply.spike_w} W.",
            f"Take a power supply that rides out {spike} W or more.",
            (Figure("spike", str(spike), "W"), Figure("supply", str(supply.spike_w), "W")),
            ("supply", "graphics"),
        )


@rule(
    "supply connectors",
    family="supply",
    levels=("blocks",),
    reads={"supply", "graphics", "mainboard"},
    speaks="card or board need more power connectors of a type than the supply has",
    silent="as many or more",
)
def supply_connectors(look: Look) -> Speech:
    """Card and board must find their power connectors."""
    supply, card, board = look.machine.supply, look.machine.graphics, look.machine.mainboard
    if not supply:
        return
    wanted: list[tuple[str, int, int, str, Kind]] = []
    if card:
        both = [part for part in look.machine.of("graphics") if isinstance(part, Graphics)]
        name = card.name if len(both) < 2 else "Both cards together"
        wanted += [
            (
                "8-pin PCIe",
                sum(graphics.pcie_8pin for graphics in both),
                supply.pcie_8pin,
                name,
                "graphics",
            ),
            (
                "16-pin PCIe",
                sum(graphics.pcie_16pin for graphics in both),
                supply.pcie_16pin,
                name,
                "graphics",
            ),
        ]
    if board:
        wanted.append(("8-pin processor", board.cpu_8pin, supply.cpu_8pin, board.name, "mainboard"))
    for word, needs, has, name, kind in wanted:
        if has < needs:
            yield Said(
                ("supply", kind),
                f"{name} {'need' if name.startswith('Both') else 'needs'} {needs} x {word};"
                f" {supply.name} has {has}.",
                f"Take a power supply with {needs} x {word}.",
                (Figure("needed", str(needs)), Figure("supply", str(has))),
                ("supply", kind),
            )


@rule(
    "SATA power plugs",
    family="supply",
    levels=("do first",),
    reads={"supply", "storage", "optical"},
    speaks="more SATA drives, those for discs among them, than the supply has plugs; M.2 drives"
    " need none",
    silent="as many or more, or the number is not known",
)
def sata_plugs(look: Look) -> Speech:
    """Every SATA drive needs a power plug."""
    supply = look.machine.supply
    count = sum(drive.interface == "SATA" and drive.size != "M.2" for drive in look.machine.storage)
    count += look.machine.sata_optical
    if supply and supply.sata_plugs is not None and count > supply.sata_plugs:
        yield Said(
            ("supply", "storage"),
            f"{count} SATA drives need a power plug each; {supply.name} has {supply.sata_plugs}.",
            "Get an adapter from a plug that stays free, or take M.2 drives.",
            (Figure("drives", str(count)), Figure("plugs", str(supply.sata_plugs))),
        )


@rule(
    "supply trust",
    family="supply",
    levels=("do first",),
    reads=DRAWN | {"supply"},
    speaks="what is known of the supply makes it doubtful",
    silent="it is unknown, plain or proven",
)
def supply_trust(look: Look) -> Speech:
    """A supply that fails can take everything else with it: a doubtful one is named with its
    reasons.
    """
    supply = look.machine.supply
    if not supply:
        return
    judgement = judge(supply)
    if judgement.trust == "doubtful":
        load = f" for the {look.draw.full_w} W of this machine" if look.machine.processor else ""
        yield Said(
            ("supply",),
            f"{supply.name} is doubtful{load}: {'; '.join(judgement.reasons)}.",
            "Take a supply with a test or protections to its name before anything hangs on it.",
            tuple(Figure("reason", reason) for reason in judgement.reasons),
            ("supply",),
        )
