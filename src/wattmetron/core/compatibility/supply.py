"""Whether the power supply carries the machine: watts with headroom, spikes, connectors."""

from wattmetron.core.compatibility.finding import (
    Figure,
    Level,
    MissingData,
    RuleFinding,
    Speech,
)
from wattmetron.core.compatibility.leads import CardPlugs, leads_level, plugged_in, sockets_of
from wattmetron.core.compatibility.rule import DRAWN, RuleContext, RuleFamily
from wattmetron.core.power.draw import needed_supply_w
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.seating import in_slots
from wattmetron.core.values.trust import judge
from wattmetron.core.values.words import counted

RULES = RuleFamily("supply")


@RULES.rule(
    "supply watts",
    levels=("do first", "blocks"),
    reads=DRAWN | {"supply"},
    speaks="the rated output is below full draw x headroom (do first), or below the full draw"
    " itself (blocks)",
    silent="equal or above",
    hangs_on={"supply": ("watts",)},
)
def supply_watts(look: RuleContext) -> Speech:
    """Rated output must reach the full draw, and should reach it x headroom."""
    supply, headroom_percent = look.machine.supply, look.wishes.headroom_percent
    if not supply or not look.machine.processor:
        return
    full = look.draw.full_w
    needed = needed_supply_w(full, headroom_percent)
    if supply.watts < needed:
        short = supply.watts < full
        yield RuleFinding(
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


@RULES.rule(
    "watt limit",
    levels=("blocks",),
    reads=DRAWN,
    speaks="the full draw is above the brief's limit",
    silent="equal or below, or there is no limit",
)
def watt_limit(look: RuleContext) -> Speech:
    """The brief may limit what the machine draws with everything busy."""
    limit = look.wishes.watt_limit_w
    if limit is None or not look.machine.processor:
        return
    full = look.draw.full_w
    if full > limit:
        yield RuleFinding(
            ("processor", "graphics"),
            f"The full draw of {full} W is {full - limit} W above the brief's limit of {limit} W.",
            "Take a card or a processor that draws less.",
            (Figure("full draw", str(full), "W"), Figure("limit", str(limit), "W")),
            ("graphics", "processor"),
        )


@RULES.rule(
    "supply spikes",
    levels=("blocks",),
    reads=DRAWN | {"supply"},
    speaks="the supply stands less than the short spikes",
    silent="as much or more",
    hangs_on={"supply": ("spike_w",)},
)
def supply_spikes(look: RuleContext) -> Speech:
    """The supply must ride out short spikes of the card on top of everything else."""
    supply = look.machine.supply
    if not supply or not look.machine.processor:
        return
    spike = look.draw.spike_w
    if supply.spike_w < spike:
        yield RuleFinding(
            ("supply",),
            f"Short spikes reach {spike} W; {supply.name} stands {supply.spike_w} W.",
            f"Take a power supply that stands {spike} W or more.",
            (Figure("spike", str(spike), "W"), Figure("supply", str(supply.spike_w), "W")),
            ("supply", "graphics"),
        )


@RULES.rule(
    "card leads",
    levels=("blocks", "do first", "good to know"),
    reads={"supply", "graphics"},
    speaks="the cards need more 8- or 16-pin leads than the supply has, or a stronger 16-pin lead"
    " (whether an adapter is in the box is not stated: do first; by the adapter: good to know)",
    silent="it has them",
)
def card_leads(look: RuleContext) -> Speech:
    """Every card must find its power leads, each strong enough."""
    supply, cards = look.machine.supply, look.machine.cards
    if not supply or not cards:
        return
    card_plugs = CardPlugs.of(cards)
    leads = card_plugs.on(supply)
    name = cards[0].name if len(cards) < 2 else "Both cards together"
    needs = "needs" if len(cards) < 2 else "need"
    if card_plugs.pcie_16pin and supply.pcie_16pin and supply.pcie_16pin_w is None:
        yield MissingData("supply", supply.name, "rating of its 16-pin lead")
    if card_plugs.unknown:
        bare = next(card for card in cards if card.plugs is None)
        yield MissingData("graphics", bare.name, "power connectors")
    weak = supply.pcie_16pin >= card_plugs.pcie_16pin > 0
    if card_plugs.open_on(supply) and leads.needed_8pin <= supply.pcie_8pin:
        yield MissingData("graphics", cards[0].name, "adapter for its 16-pin connector in the box")
        if weak:
            yield _short(
                "graphics",
                f"{name} {needs} {card_plugs.lead_w} W over a 16-pin lead; that of {supply.name} is"
                f" rated {supply.pcie_16pin_w} W.",
                "See whether an adapter for 8-pin leads is in the card's box, or take a power"
                f" supply with a 16-pin lead rated {card_plugs.lead_w} W or more.",
                str(card_plugs.lead_w),
                str(supply.pcie_16pin_w),
                "do first",
            )
    elif leads.missing_16pin and card_plugs.adapter_8pin == 0:
        yield _short(
            "graphics",
            f"{name} {needs} {card_plugs.lead_w} W over a 16-pin lead; that of {supply.name} is"
            " rated"
            f" {supply.pcie_16pin_w} W."
            if weak
            else f"{name} {needs} {card_plugs.pcie_16pin} x 16-pin PCIe; {supply.name} has"
            f" {supply.pcie_16pin}.",
            f"Take a power supply with {card_plugs.pcie_16pin} x 16-pin PCIe"
            + (f" rated {card_plugs.lead_w} W or more." if weak else "."),
            str(card_plugs.lead_w if weak else card_plugs.pcie_16pin),
            str(supply.pcie_16pin_w if weak else supply.pcie_16pin),
        )
    elif leads.needed_8pin > supply.pcie_8pin:
        adapter = " with the adapter from its box" if leads.missing_16pin else ""
        yield _short(
            "graphics",
            f"{name} {needs} {leads.needed_8pin} x 8-pin PCIe{adapter}; {supply.name} has"
            f" {supply.pcie_8pin}.",
            f"Take a power supply with {leads.needed_8pin} x 8-pin PCIe.",
            str(leads.needed_8pin),
            str(supply.pcie_8pin),
        )
    elif leads.missing_16pin:
        yield RuleFinding(
            ("supply", "graphics"),
            f"{supply.name} has no 16-pin lead that carries {name}: the adapter from the card's box"
            f" joins {card_plugs.adapter_8pin} 8-pin leads.",
            "Give the adapter as many separate leads; a supply with a 16-pin lead needs none.",
            (
                Figure("8-pin needed", str(leads.needed_8pin)),
                Figure("supply", str(supply.pcie_8pin)),
            ),
            level="good to know",
        )


def _short(
    kind: Kind, sentence: str, advice: str, needed: str, has: str, level: Level = "blocks"
) -> RuleFinding:
    figures = Figure("needed", needed), Figure("supply", has)
    return RuleFinding(("supply", kind), sentence, advice, figures, ("supply", kind), level)


@RULES.rule(
    "processor leads",
    levels=("blocks", "do first", "good to know"),
    reads={"supply", "mainboard", "processor"},
    speaks="the supply leaves processor power sockets of the board empty: what is plugged in"
    " carries too little (blocks), or the board does not state that it suffices (do first), or it"
    " does suffice (good to know)",
    silent="every socket finds its lead and they carry the processor",
)
def processor_leads(look: RuleContext) -> Speech:
    """The leads that find a socket must carry the processor, as the board states it."""
    supply, board, chip = look.machine.supply, look.machine.mainboard, look.machine.processor
    if not supply or not board:
        return
    draw_w = chip.sustained_w if chip else 0
    level = leads_level(supply, sockets_of(board), draw_w)
    if level is None:
        return
    plugged = plugged_in(supply, sockets_of(board))
    wants = _leads(board.cpu_8pin, board.cpu_4pin)
    has = _leads(supply.cpu_8pin, supply.cpu_4pin)
    needed_w = f"{draw_w} W" if draw_w else "the processor's power"
    limit_w = min(plugged.watts, board.one_lead_w or plugged.watts)
    sentence = {
        "blocks": f"{board.name} has {wants} for the processor's power; {supply.name} has {has}"
        + (f", which is good for {limit_w} W of {needed_w}." if limit_w else "."),
        "do first": f"{board.name} has {wants} for the processor's power; {supply.name} has {has}."
        f" Whether {board.name} is content with that for {needed_w} is not stated.",
        "good to know": f"{board.name} has {wants} for the processor's power; {supply.name} has"
        f" {has}, enough for {needed_w}.",
    }
    advice = {
        "blocks": f"Take a power supply with {wants} for the processor.",
        "do first": "Look it up in the board's manual, or take a power supply with all leads.",
        "good to know": "Nothing to do: what stays empty is for tuning.",
    }
    yield _short(
        "mainboard",
        sentence[level],
        advice[level],
        wants,
        has,
        level,
    )._replace(remedy_kinds=() if level == "good to know" else ("supply", "mainboard"))


def _leads(eight: int, four: int) -> str:
    counts = [f"{n} x {pins}-pin" for n, pins in ((eight, 8), (four, 4)) if n]
    return " and ".join(counts) or "no 8-pin"


@RULES.rule(
    "SATA power plugs",
    levels=("do first",),
    reads={"supply", "storage", "optical"},
    speaks="more SATA drives, those for discs among them, than the supply has plugs; M.2 drives"
    " need none",
    silent="as many or more",
)
def sata_plugs(look: RuleContext) -> Speech:
    """Every drive that does not sit in an M.2 slot needs a power plug."""
    supply = look.machine.supply
    drives = look.machine.storage
    count = len(drives) - len(in_slots(drives)) + look.machine.sata_optical
    if not supply or not count:
        return
    if supply.sata_plugs is None:
        yield MissingData("supply", supply.name, "SATA power plugs")
    elif count > supply.sata_plugs:
        yield RuleFinding(
            ("supply", "storage"),
            f"{counted(count, 'drive')} on cables need{'s' if count == 1 else ''} a SATA power plug"
            f" each; {supply.name} has {supply.sata_plugs}.",
            "Get an adapter from a plug that stays free, or take M.2 drives.",
            (Figure("drives", str(count)), Figure("plugs", str(supply.sata_plugs))),
        )


@RULES.rule(
    "supply trust",
    levels=("do first",),
    reads=DRAWN | {"supply"},
    speaks="what is known of the supply makes it doubtful",
    silent="it is unknown, plain or proven",
)
def supply_trust(look: RuleContext) -> Speech:
    """A supply that fails can take everything else with it: a doubtful one is named with its
    reasons.
    """
    supply = look.machine.supply
    if not supply:
        return
    judgement = judge(supply)
    if judgement.trust == "doubtful":
        load = f" for the {look.draw.full_w} W of this machine" if look.machine.processor else ""
        yield RuleFinding(
            ("supply",),
            f"{supply.name} is doubtful{load}: {'; '.join(judgement.reasons)}.",
            "Take a supply with a test or protections to its name before anything hangs on it.",
            tuple(Figure("reason", reason) for reason in judgement.reasons),
            ("supply",),
        )
