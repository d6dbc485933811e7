"""Whether the power supply carries the machine: watts with headroom, spikes, connectors."""

from collections.abc import Iterator

from wattmetron.core.fit.finding import Figure, Finding
from wattmetron.core.fit.wishes import Wishes
from wattmetron.core.power.draw import draw, needed_supply_w
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics, Kind
from wattmetron.core.values.trust import judge


def supply_watts(machine: Machine, wishes: Wishes) -> Iterator[Finding]:
    """Rated output must reach full draw x headroom."""
    supply, headroom_percent = machine.supply, wishes.headroom_percent
    if not supply or not machine.processor:
        return
    full = draw(machine).full_w
    needed = needed_supply_w(full, headroom_percent)
    if supply.watts < needed:
        yield Finding(
            "supply watts",
            "blocks",
            ("supply",),
            f"{supply.name} gives {supply.watts} W; a full draw of {full} W with "
            f"{headroom_percent - 100} % headroom needs {needed} W.",
            f"Take a power supply of {needed} W or more.",
            (
                Figure("supply", str(supply.watts), "W"),
                Figure("full draw", str(full), "W"),
                Figure("needed", str(needed), "W"),
            ),
            ("supply", "graphics"),
        )


def watt_limit(machine: Machine, wishes: Wishes) -> Iterator[Finding]:
    """The brief may limit what the machine draws with everything busy."""
    limit = wishes.watt_limit_w
    if limit is None or not machine.processor:
        return
    full = draw(machine).full_w
    if full > limit:
        yield Finding(
            "watt limit",
            "blocks",
            ("processor", "graphics"),
            f"The full draw of {full} W is {full - limit} W above the brief's limit of {limit} W.",
            "Take a card or a processor that draws less.",
            (Figure("full draw", str(full), "W"), Figure("limit", str(limit), "W")),
            ("graphics", "processor"),
        )


def supply_spikes(machine: Machine) -> Iterator[Finding]:
    """The supply must ride out short spikes of the card on top of everything else."""
    supply = machine.supply
    if not supply or not machine.processor:
        return
    spike = draw(machine).spike_w
    if supply.spike_w < spike:
        yield Finding(
            "supply spikes",
            "blocks",
            ("supply",),
            f"Short spikes reach {spike} W; {supply.name} rides out {supply.spike_w} W.",
            f"Take a power supply that rides out {spike} W or more.",
            (Figure("spike", str(spike), "W"), Figure("supply", str(supply.spike_w), "W")),
            ("supply", "graphics"),
        )


def supply_connectors(machine: Machine) -> Iterator[Finding]:
    """Card and board must find their power connectors."""
    supply, card, board = machine.supply, machine.graphics, machine.mainboard
    if not supply:
        return
    wanted: list[tuple[str, int, int, str, Kind]] = []
    if card:
        both = [one for one in machine.of("graphics") if isinstance(one, Graphics)]
        name = card.name if len(both) < 2 else "Both cards together"
        wanted += [
            ("8-pin PCIe", sum(one.pcie_8pin for one in both), supply.pcie_8pin, name, "graphics"),
            (
                "16-pin PCIe",
                sum(one.pcie_16pin for one in both),
                supply.pcie_16pin,
                name,
                "graphics",
            ),
        ]
    if board:
        wanted.append(("8-pin processor", board.cpu_8pin, supply.cpu_8pin, board.name, "mainboard"))
    for word, needs, has, name, kind in wanted:
        if has < needs:
            yield Finding(
                "supply connectors",
                "blocks",
                ("supply", kind),
                f"{name} {'need' if name.startswith('Both') else 'needs'} {needs} x {word};"
                f" {supply.name} has {has}.",
                f"Take a power supply with {needs} x {word}.",
                (Figure("needed", str(needs)), Figure("supply", str(has))),
                ("supply", kind),
            )


def supply_trust(machine: Machine) -> Iterator[Finding]:
    """A supply that fails can take everything else with it: a doubtful one is named with its
    reasons.
    """
    supply = machine.supply
    if not supply:
        return
    found = judge(supply)
    if found.trust == "doubtful":
        load = f" for the {draw(machine).full_w} W of this machine" if machine.processor else ""
        yield Finding(
            "supply trust",
            "do first",
            ("supply",),
            f"{supply.name} is doubtful{load}: {'; '.join(found.reasons)}.",
            "Take a supply with a test or protections to its name before anything hangs on it.",
            tuple(Figure("reason", reason) for reason in found.reasons),
            ("supply",),
        )


def sata_plugs(machine: Machine) -> Iterator[Finding]:
    """Every SATA drive needs a power plug."""
    supply = machine.supply
    count = sum(drive.interface == "SATA" for drive in machine.storage)
    if supply and supply.sata_plugs is not None and count > supply.sata_plugs:
        yield Finding(
            "SATA power plugs",
            "do first",
            ("supply", "storage"),
            f"{count} SATA drives need a power plug each; {supply.name} has {supply.sata_plugs}.",
            "Get an adapter from a plug that stays free, or take M.2 drives.",
            (Figure("drives", str(count)), Figure("plugs", str(supply.sata_plugs))),
        )
