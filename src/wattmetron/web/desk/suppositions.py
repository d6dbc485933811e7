"""What wishes cost, what if, an announced part, years to keep: as rows."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.build import Build
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.words import listed
from wattmetron.services.advice.what_if import Supposed, announced, elsewhere, what_if
from wattmetron.services.advice.wish_costs import wish_costs
from wattmetron.services.advice.years import Step, years_kept
from wattmetron.services.desk.assess import Assessment
from wattmetron.services.words.figures import KIND_WORDS, THIN, money, money_change
from wattmetron.services.words.wishes import wish_words
from wattmetron.web.shell.address import DeskQuery


@dataclass(frozen=True, slots=True)
class SupposedRow:
    """A supposition, what its answer costs and meets, and what differs."""

    words: str
    cost: str
    met: str
    change: str
    url: str


def years_rows(
    catalogue: Catalogue, subject: Assessment
) -> Iterator[tuple[str, str, str, str, str, str]]:
    """Each year with what is met, what either side carries alone, what is lost, and the next step
    where something is lost first.
    """
    count = len(subject.counted)
    for one in years_kept(catalogue, subject):
        name = "today" if not one.year else f"in {one.year} {'year' if one.year == 1 else 'years'}"
        steps = "; ".join(_step_words(step, subject.currency) for step in one.steps)
        yield (
            name,
            f"{one.met} of {count}",
            str(one.processor_alone),
            str(one.graphics_alone),
            listed(list(one.lost)) or "none",
            steps,
        )


def _step_words(step: Step, currency: str) -> str:
    side = "both sides" if len(step.sides) > 1 else f"{KIND_WORDS[step.sides[0]]} side"
    if not step.parts:
        return f"{side}{'' if len(step.sides) > 1 else ' alone'}: nothing does"
    own = [part.name for part in step.parts if kind_of(part) in step.sides]
    forced = [part.name for part in step.parts if kind_of(part) not in step.sides]
    return (
        f"{side}: {listed(own)}{f', and with it {listed(forced)}' if forced else ''},"
        f" {money(step.cost_minor, currency)}"
    )


def wishes_rows(catalogue: Catalogue, now: Assessment) -> Iterator[tuple[str, str, str, str]]:
    """Each wish with what it costs in money, frames and targets."""
    names = {part_id: part.name for part_id, part in catalogue.parts.items()}
    for one in wish_costs(catalogue, now.brief, now.build):
        words = wish_words(now.brief, one.wish, now.currency, names)
        if one.cost_minor is None or one.frames_lost is None or one.weight_lost is None:
            yield (
                words,
                "",
                "",
                (
                    "stands in the way of any answer"
                    if one.nothing_with_it
                    else "no answer either way"
                ),
            )
            continue
        frames = "none" if abs(one.frames_lost) < 0.0005 else f"{100 * one.frames_lost:.1f}{THIN}%"
        weight = (
            f"{one.weight_lost} of the weight unmet because of it"
            if one.weight_lost > 0
            else "no target"
        )
        yield words, money_change(one.cost_minor, now.currency), frames, weight


def announced_row(
    catalogue: Catalogue, now: Assessment, asked: DeskQuery
) -> tuple[SupposedRow | None, str]:
    """The answer with an announced part as typed, or what is wrong with it."""
    if not asked.suppose or asked.like is None:
        return None, ""
    try:
        faster = float((asked.faster or "0").replace(",", "."))
        one = announced(
            catalogue,
            now.brief,
            now.build,
            asked.like,
            faster,
            to_minor(asked.price or "", "The expected price"),
        )
    except ValueError:
        return None, f"“{asked.faster}” is no number of per cent: enter one such as 15."
    except WattmetronError as problem:
        return None, str(problem)
    return _row(one), ""


def elsewhere_row(
    catalogue: Catalogue, now: Assessment, asked: DeskQuery
) -> tuple[SupposedRow | None, str]:
    """The answer in another region for the budget as typed, or what is wrong with it."""
    if not asked.suppose or asked.where is None:
        return None, ""
    try:
        budget = to_minor(asked.purse, "The budget there") if asked.purse else None
        one = elsewhere(catalogue, now.brief, now.build, asked.where, budget)
    except WattmetronError as problem:
        return None, str(problem)
    return _row(one), ""


def supposed_rows(
    catalogue: Catalogue, now: Assessment, trial: Callable[[Build], str]
) -> Iterator[SupposedRow]:
    today, found = what_if(catalogue, now.brief, now.build)
    if today is not None:
        yield SupposedRow(
            "as it is today",
            money(today.spent_minor, now.currency),
            f"{today.met} of {len(today.counted)}",
            "",
            trial(today.build),
        )
    for one in found:
        yield _row(one, trial)


def _row(one: Supposed, trial: Callable[[Build], str] = lambda _: "") -> SupposedRow:
    then = one.assessment
    if then is None:
        return SupposedRow(one.words, "", "", "nothing fits within the budget", "")
    parts = listed([part.name for kind in one.changed for part in then.machine.of(kind)])
    return SupposedRow(
        one.words,
        money(then.spent_minor, then.currency),
        f"{then.met} of {len(then.counted)}",
        parts or "the same parts",
        trial(then.build),
    )
