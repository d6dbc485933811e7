"""What wishes cost, what if, an announced part, years to keep: as rows."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.build import Build
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.words import counted, listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.assessment.named import part_named
from wattmetron.places.balance.what_if import Supposed, announced, elsewhere, what_if
from wattmetron.places.balance.wish_costs import wish_costs
from wattmetron.places.balance.years import YearStep, years_kept
from wattmetron.shell.address import DeskQuery
from wattmetron.shell.forms import finite
from wattmetron.words.figures import KIND_WORDS, THIN, money, money_change
from wattmetron.words.wish_words import wish_words


@dataclass(frozen=True, slots=True, kw_only=True)
class SupposedRow:
    """A supposition, what its answer costs and meets, and what differs."""

    words: str
    cost: str
    met: str
    change: str
    url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class YearRow:
    """A year with what is met, what either side carries alone, what is lost, the next step."""

    name: str
    met: str
    processor_alone: str
    card_alone: str
    lost: str
    steps: str


@dataclass(frozen=True, slots=True, kw_only=True)
class WishRow:
    """What a wish costs in money, frames and targets."""

    words: str
    cost: str
    frames: str
    targets: str


def years_rows(catalogue: Catalogue, subject: Assessment) -> Iterator[YearRow]:
    """Each year with what is met, what either side carries alone, what is lost, and the next step
    where something is lost first.
    """
    count = len(subject.counted)
    for year in years_kept(catalogue, subject):
        name = f"in {counted(year.year, 'year')}" if year.year else "today"
        steps = "; ".join(_step_words(step, subject.currency) for step in year.steps)
        yield YearRow(
            name=name,
            met=f"{year.met} of {count}",
            processor_alone=str(year.processor_alone),
            card_alone=str(year.graphics_alone),
            lost=listed([*year.lost, *_short_words(year.short_gb)]) or "none",
            steps=steps,
        )


def _short_words(short_gb: float) -> Iterator[str]:
    if short_gb:
        yield f"room in main memory ({short_gb:.0f} GB too little)"


def _step_words(step: YearStep, currency: str) -> str:
    side = "both sides" if len(step.sides) > 1 else f"{KIND_WORDS[step.sides[0]]} side"
    if not step.parts:
        return f"{side}{'' if len(step.sides) > 1 else ' alone'}: nothing does"
    names = [part.name for part in step.parts if kind_of(part) in step.sides]
    forced = [part.name for part in step.parts if kind_of(part) not in step.sides]
    return (
        f"{side}: {listed(names)}{f', and with it {listed(forced)}' if forced else ''},"
        f" {money(step.cost_minor, currency)}"
    )


def wishes_rows(catalogue: Catalogue, now: Assessment) -> Iterator[WishRow]:
    """Each wish with what it costs in money, frames and targets."""
    names = {part_id: part.name for part_id, part in catalogue.parts.items()}
    for cost in wish_costs(catalogue, now.brief, now.build):
        words = wish_words(now.brief, cost.wish, now.currency, names)
        if cost.cost_minor is None or cost.frames_lost is None or cost.weight_lost is None:
            why = "stands in the way of any" if cost.nothing_with_it else "no"
            way = "" if cost.nothing_with_it else " either way"
            yield WishRow(words=words, cost="", frames="", targets=f"{why} answer{way}")
            continue
        frames = (
            "none" if abs(cost.frames_lost) < 0.0005 else f"{100 * cost.frames_lost:.1f}{THIN}%"
        )
        weight = (
            f"{cost.weight_lost} of the weight unmet because of it"
            if cost.weight_lost > 0
            else "no target"
        )
        yield WishRow(
            words=words,
            cost=money_change(cost.cost_minor, now.currency),
            frames=frames,
            targets=weight,
        )


def announced_row(
    catalogue: Catalogue, now: Assessment, query: DeskQuery
) -> tuple[SupposedRow | None, str]:
    """The answer with an announced part as typed, or what is wrong with it."""
    if not query.suppose or not query.like:
        return None, ""
    faster = finite(query.faster or "0")
    if faster is None:
        return None, f"“{query.faster}” is no number of per cent: enter one such as 15."
    try:
        supposed = announced(
            catalogue,
            now.brief,
            now.build,
            part_named(catalogue, query.like),
            faster,
            to_minor(query.price or "", "The expected price"),
        )
    except WattmetronError as problem:
        return None, str(problem)
    return _row(supposed), ""


def elsewhere_row(
    catalogue: Catalogue, now: Assessment, query: DeskQuery
) -> tuple[SupposedRow | None, str]:
    """The answer in another region for the budget as typed, or what is wrong with it."""
    if not query.suppose or query.where is None:
        return None, ""
    try:
        budget = to_minor(query.purse, "The budget there") if query.purse else None
        supposed = elsewhere(catalogue, now.brief, now.build, query.where, budget)
    except WattmetronError as problem:
        return None, str(problem)
    return _row(supposed), ""


def supposed_rows(
    catalogue: Catalogue, now: Assessment, trial: Callable[[Build], str]
) -> Iterator[SupposedRow]:
    today, supposeds = what_if(catalogue, now.brief, now.build)
    if today is not None:
        yield SupposedRow(
            words="as it is today",
            cost=money(today.spent_minor, now.currency),
            met=f"{today.met} of {len(today.counted)}",
            change="",
            url=trial(today.build),
        )
    for supposed in supposeds:
        yield _row(supposed, trial)


def _row(supposed: Supposed, trial: Callable[[Build], str] = lambda _: "") -> SupposedRow:
    then = supposed.assessment
    if then is None:
        return SupposedRow(
            words=supposed.words, cost="", met="", change="nothing fits within the budget", url=""
        )
    parts = listed([part.name for kind in supposed.changed for part in then.machine.of(kind)])
    return SupposedRow(
        words=supposed.words,
        cost=money(then.spent_minor, then.currency),
        met=f"{then.met} of {len(then.counted)}",
        change=parts or "the same parts",
        url=trial(then.build),
    )
