"""As good for less: the table of parts at or above a part's speed."""

from collections.abc import Callable
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import UnknownPartError
from wattmetron.core.speeds.equal_parts import Use
from wattmetron.core.values.offers import ANY_PARTS
from wattmetron.core.values.parts import Graphics, Part, Processor
from wattmetron.places.assessment.part_alternatives import Alternative, Alternatives, alternatives
from wattmetron.places.games.pages.machine_panel import MeasuredMachine
from wattmetron.shell.address import encode_build
from wattmetron.words.figures import GAP, THIN, money, percent, round_money


@dataclass(frozen=True, slots=True, kw_only=True)
class EqualRow:
    """One part as good: what it costs and saves, how surely it is as good, and what it brings
    along.
    """

    id: str
    name: str
    price: str
    saving: str
    speed: str
    chance: str
    memory: str
    draw: str
    size: str
    age: str
    condition: str
    forces: tuple[str, ...]
    present: bool
    code: str
    try_url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class EqualsView:
    """The table with its head."""

    name: str
    side: str
    named_price: str
    rows: tuple[EqualRow, ...]
    hidden: int
    left_out: str
    used: bool
    close_url: str
    basis: str
    region: str


def equals_view(
    catalogue: Catalogue,
    key: str,
    machine: MeasuredMachine,
    use: Use,
    link: Callable[..., str],
    trial: Callable[[str], str] | None = None,
) -> EqualsView | None:
    """The table for a part, chip or named part; None for a key that stands for nothing."""
    opened = machine.brief
    region = machine.region or next(iter(catalogue.regions), "")
    buys = opened.plan.brief.may_buy if opened else ANY_PARTS
    try:
        offered = alternatives(catalogue, key, region, buys, machine.now, use)
    except UnknownPartError:
        return None
    named = "" if offered.named_minor is None else money(offered.named_minor, offered.currency)
    return EqualsView(
        name=offered.wanted.name,
        side=offered.wanted.side,
        named_price=named,
        rows=tuple(_row(offered, row, machine, trial) for row in offered.rows),
        hidden=offered.hidden,
        left_out=_left_out(offered),
        used=buys.used,
        close_url=link(equal=None),
        basis=_basis(offered),
        region=catalogue.regions[region].name,
    )


def _left_out(offered: Alternatives) -> str:
    """How many are as good, and why they are not listed."""
    reasons = [
        f"{count} {words}"
        for count, words in (
            (offered.dearer, "cost as much or more"),
            (offered.unfit, "do not fit"),
        )
        if count
    ]
    return f"Not listed: {' and '.join(reasons)}." if reasons else ""


def _basis(alternatives: Alternatives) -> str:
    wanted, use = alternatives.wanted, alternatives.use
    spread = f"known to ±{wanted.sd * 100:.0f}{THIN}%"
    if wanted.placed is not None:
        base = (
            f"placed {abs(wanted.placed.percent):g}{THIN}%"
            f" {'above' if wanted.placed.percent >= 0 else 'below'} {wanted.placed.than}"
        )
        spread = f"{base}, {spread}"
    if wanted.side == "processor":
        return (
            f"speed with {percent(use.parallel_share)} of the work on all cores; {wanted.name} is"
            f" {spread}"
        )
    return f"speed at {use.rendered_mpx:.1f} Mpx; {wanted.name} is {spread}"


def _row(
    alternatives: Alternatives,
    alternative: Alternative,
    machine: MeasuredMachine,
    trial: Callable[[str], str] | None,
) -> EqualRow:
    part = alternative.part
    code = ""
    if alternative.build is not None and machine.brief is not None and not alternative.present:
        code = encode_build(alternative.build, machine.brief.plan.build)
    return EqualRow(
        id=part.id,
        name=part.name,
        price=money(alternative.offer.cost_minor, alternatives.currency),
        saving=_saving(alternative, alternatives.currency),
        speed=f"{alternative.ratio:.2f}",
        chance="is it" if alternative.named else percent(alternative.chance),
        memory=f"{part.memory_gb:g}{THIN}GB" if isinstance(part, Graphics) else "",
        draw=_draw(alternative),
        size=_size(part),
        age=_age(alternative),
        condition=f"{alternative.offer.condition}, {alternative.offer.shop}",
        forces=alternative.forces,
        present=alternative.present,
        code=code,
        try_url=trial(code) if trial is not None and code else "",
    )


def _size(part: Part) -> str:
    """What decides whether a part goes in: a card's length, a processor's socket."""
    if isinstance(part, Graphics):
        return f"{part.length_mm}{THIN}mm"
    return part.socket if isinstance(part, Processor) else ""


def _saving(alternative: Alternative, currency: str) -> str:
    if alternative.saving_minor is None:
        return ""
    if alternative.saving_minor == 0:
        return "the same"
    sign = "−" if alternative.saving_minor > 0 else "+"
    return sign + round_money(abs(alternative.saving_minor), currency).split(GAP)[-1]


def _draw(alternative: Alternative) -> str:
    part = alternative.part
    if isinstance(part, Graphics):
        return f"{part.board_power_w}{THIN}W"
    return f"{part.sustained_w}{THIN}W" if isinstance(part, Processor) else ""


def _age(alternative: Alternative) -> str:
    if alternative.age_days is None:
        return "not known"
    years = alternative.age_days / 365.25
    return (
        f"{years:.1f}{THIN}years"
        if years >= 1
        else f"{alternative.age_days / 30.4:.0f}{THIN}months"
    )
