"""Power in the Fit view: bars and curve, size of the supply with its reasoning, the year, heat and
noise.
"""

from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.power.account import PowerAccount, PowerUse, Span, account
from wattmetron.drawing import load_curve
from wattmetron.places.assessment.assess import Assessment, supply_reserve_percent
from wattmetron.places.compatibility.power_use import use_of
from wattmetron.words.figures import THIN, percent, round_money


@dataclass(frozen=True, slots=True, kw_only=True)
class SpanRow:
    """One state with its bar and figures."""

    name: str
    total: str
    load: str
    wall: str
    split: str
    chart: Markup
    game: bool
    heaviest: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class PowerView:
    """Rows, curve, axis, and short paragraphs with a heading each."""

    rows: tuple[SpanRow, ...]
    curve: Markup | None
    scale: Markup
    level: str
    notes: tuple[tuple[str, str], ...]


def power_view(catalogue: Catalogue, now: Assessment) -> PowerView | None:
    """None while there is neither processor nor card."""
    machine = now.machine
    if machine.processor is None and machine.graphics is None:
        return None
    use = use_of(catalogue, now)
    power_account = account(
        machine, tuple(estimate for estimate in now.estimates if estimate is not None), use
    )
    most_w = load_curve.axis_end_w(power_account.spans, machine.supply)
    heaviest = max(power_account.of("game"), key=lambda span: span.total_w, default=None)
    return PowerView(
        rows=tuple(_row(span, most_w, now, span is heaviest) for span in power_account.spans),
        curve=(
            load_curve.curve(machine.supply, use.mains_v, most_w, power_account.spans)
            if machine.supply
            else None
        ),
        scale=load_curve.scale(most_w),
        level=_level(now, use.mains_v),
        notes=tuple(_notes(now, power_account, use)),
    )


def _row(span: Span, most_w: float, now: Assessment, heaviest: bool) -> SpanRow:
    wall = "" if span.wall_w is None else f"{span.wall_w:.0f}{THIN}W at the wall"
    load = "" if span.load_share is None else f"{percent(span.load_share)} of the supply"
    if span.state == "spike" and now.machine.supply:
        load = f"of {now.machine.supply.spike_w}{THIN}W that it stands"
    return SpanRow(
        name=span.name,
        total=f"{span.total_w:.0f}{THIN}W",
        load=load,
        wall=wall,
        split=f"processor {span.processor_w:.0f}, card {span.graphics_w:.0f}, rest"
        f" {span.rest_w:.0f}",
        chart=load_curve.bar(span, most_w, now.machine.supply),
        game=span.state == "game",
        heaviest=heaviest,
    )


def _level(now: Assessment, mains_v: int) -> str:
    supply = now.machine.supply
    if supply is None:
        return ""
    level = (
        f"80 PLUS {supply.efficiency}"
        if supply.efficiency
        else "no 80 PLUS level stated: efficiency assumed"
    )
    return f"{supply.name}, {level}, {mains_v}{THIN}V mains"


def _notes(now: Assessment, power_account: PowerAccount, use: PowerUse) -> list[tuple[str, str]]:
    return [
        note
        for note in (
            _size(now, power_account),
            _later(now, power_account),
            _year(now, power_account, use),
            _heat(now, power_account),
            _noise(power_account),
        )
        if note
    ]


def _size(now: Assessment, power_account: PowerAccount) -> tuple[str, str]:
    full, headroom = now.draw.full_w, now.brief.headroom_percent
    reserve = supply_reserve_percent(now.brief, now.machine)
    more = f" x {1 + reserve / 100:g} reserve" if reserve else ""
    words = (
        f"{full}{THIN}W with everything busy x {headroom / 100:g} headroom{more} ="
        f" {power_account.needed_w}{THIN}W"
    )
    if power_account.fitting_w:
        words += f"; the next usual size is {power_account.fitting_w}{THIN}W"
    less = -(-full * 120 // 100)
    if headroom > 120:
        words += f". At 120{THIN}% headroom {less}{THIN}W would do"
    if now.machine.supply:
        words += f". Chosen: {now.machine.supply.watts}{THIN}W"
    return "Size", f"{words}."


def _later(now: Assessment, power_account: PowerAccount) -> tuple[str, str] | None:
    card, supply = now.machine.graphics, now.machine.supply
    if supply is None or power_account.later_card_w is None:
        return None
    have = f"; the present one takes {card.board_power_w}{THIN}W" if card else ""
    plugs = f"{supply.pcie_8pin} x 8-pin and {supply.pcie_16pin} x 16-pin"
    return (
        "A later card",
        (
            f"This supply keeps headroom and reserve up to a card of"
            f" {power_account.later_card_w}{THIN}W"
            f"{have}."
            f" Connectors: {plugs}."
        ),
    )


def _year(now: Assessment, power_account: PowerAccount, use: PowerUse) -> tuple[str, str] | None:
    year = power_account.year
    if year is None:
        return None
    words = (
        f"{use.play_hours:g} hours of play and {use.desk_hours:g} at the desk a day: about"
        f" {year.kwh:.0f}{THIN}kWh a year, {round_money(year.cost_minor, now.currency)} at"
        f" {now.currency}"
        f" {use.tariff_per_kwh} a kWh."
    )
    if year.better:
        words += (
            f" {year.better} would save about {round_money(year.saves_minor, now.currency)} a year."
        )
    return "A year", words


def _heat(now: Assessment, power_account: PowerAccount) -> tuple[str, str]:
    heat, parts = power_account.heat, []
    if now.machine.processor:
        carries = (
            f", the cooler carries {heat.cooler_w}{THIN}W"
            if heat.cooler_w is not None
            else ", no cooler is chosen"
        )
        parts.append(f"The processor gives off {heat.processor_w}{THIN}W sustained{carries}.")
    if heat.case_w is not None:
        parts.append(
            f"The whole machine gives off {heat.machine_w}{THIN}W; the case carries off about"
            f" {heat.case_w}{THIN}W quietly."
        )
    return "Heat", " ".join(parts)


def _noise(power_account: PowerAccount) -> tuple[str, str] | None:
    if power_account.noise_dba is None:
        return None
    return (
        "Noise",
        (
            f"About {power_account.noise_dba:.0f}{THIN}dB(A) in play, within some 5: an"
            " indication from"
            " cooler and card, not a measurement."
        ),
    )
