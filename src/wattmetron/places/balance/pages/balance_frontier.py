"""The frontier of the Balance view: its chart, strips and table."""

from dataclasses import dataclass
from math import exp, log

from markupsafe import Markup

from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.drawing import frontier_drawing as chart
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.balance import Tables
from wattmetron.shell.address import Link
from wattmetron.words.figures import THIN, money

LESS = 0.02
LEFT_END = 0.4
"""Where the axis of the frontier begins, as a share of the budget."""
MOST_MARKS = 40


@dataclass(frozen=True, slots=True)
class Strip:
    """A target along the frontier."""

    name: str
    chart: Markup
    words: str


@dataclass(frozen=True, slots=True, kw_only=True)
class StepRow:
    """A step of the frontier."""

    cost: str
    met: str
    worst: str
    url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class FrontierView:
    """The chart with its axis, strips and steps as rows of a table."""

    steps: Markup
    scale: Markup
    strips: tuple[Strip, ...]
    rows: tuple[StepRow, ...]
    words: str


def _worst_percent(gains: tuple[int, ...]) -> float:
    return 100 * exp(min(gains, default=0) / 1e6)


def frontier_view(
    tables: Tables, subject: Assessment, tried: Assessment | None, link: Link
) -> FrontierView | None:
    steps, gains = tables.frontier.steps, tables.frontier.gains
    if not steps or not tables.brief.counted_targets:
        return None
    besides, currency = tables.besides, subject.currency
    shown = _worth_marking(tables)
    low = (
        max(steps[0].cost + besides, int(LEFT_END * tables.brief.budget_high_minor)) // 5000 * 5000
    )
    high = max(steps[-1].cost + besides, tables.brief.budget_high_minor * 5 // 4)
    axis = chart.Axis(low, max(high, low + 10_000), currency)
    marks = tuple(
        chart.FrontierMark(
            steps[i].cost + besides,
            _worst_percent(gains[i]),
            link(step=str(steps[i].cost), tried=None),
            f"{money(steps[i].cost + besides, currency)}: {_met(tables, i)} of {len(gains[i])} met,"
            f" worst at {_worst_percent(gains[i]):.0f} %",
        )
        for i in shown
    )
    knee = tables.knee
    current, trying = _place(subject), _place(tried)
    budget = (tables.brief.budget_low_minor, tables.brief.budget_high_minor)
    rows = tuple(
        StepRow(
            cost=money(steps[i].cost + besides, currency),
            met=f"{_met(tables, i)} of {len(gains[i])}",
            worst=f"{_worst_percent(gains[i]):.0f}{THIN}%",
            url=link(step=str(steps[i].cost), tried=None),
        )
        for i in shown
    )
    words = (
        "Each square is the best complete build for its money; a stretch without squares gains"
        " under 2 %."
    )
    if knee is not None:
        words += (
            f" The knee lies at {money(steps[knee].cost + besides, currency)}: from there on 2 % of"
            " the budget bring less than 1 %."
        )
    return FrontierView(
        steps=chart.steps(
            marks,
            axis,
            budget,
            None if knee is None else steps[knee].cost + besides,
            current,
            trying,
        ),
        scale=chart.scale(axis),
        strips=tuple(_strips(tables, axis)),
        rows=rows,
        words=words,
    )


def _place(assessment: Assessment | None) -> tuple[int, float] | None:
    """Cost and worst target in % of a whole build."""
    if assessment is None or assessment.worst is None or assessment.missing:
        return None
    return assessment.spent_minor, min(150.0, 100 * assessment.worst.share_of_target)


def _met(tables: Tables, index: int) -> int:
    return sum(_met_ones(tables, index))


def _worth_marking(tables: Tables) -> list[int]:
    """Places of the steps that are shown: every one at which a target starts or stops being met,
    the answers of the brief's own budgets, the knee and both ends; between them those that gain
    2 %, thinned evenly.
    """
    steps = tables.frontier.steps
    must = {0, len(steps) - 1, *_answers(tables)}
    must |= {
        index
        for index in range(1, len(steps))
        if _met_ones(tables, index) != _met_ones(tables, index - 1)
    }
    if tables.knee is not None:
        must.add(tables.knee)
    between: list[int] = []
    last = steps[0]
    for index, step in enumerate(steps):
        if index in must:
            last = step
        elif step.gain - last.gain >= log(1 + LESS) * 1e6:
            between.append(index)
            last = step
    return sorted(must | set(_thinned(between, MOST_MARKS - len(must))))


def _answers(tables: Tables) -> set[int]:
    """Places of what the brief's own budgets are answered with."""
    budgets = {tables.brief.budget_low_minor, tables.brief.budget_high_minor}
    answers = [tables.answer(budget - tables.besides) for budget in budgets]
    places = {step.cost: index for index, step in enumerate(tables.frontier.steps)}
    return {places[answer.cost] for answer in answers if answer is not None}


def _met_ones(tables: Tables, index: int) -> tuple[bool, ...]:
    """Which of the targets a step meets."""
    return tuple(
        gain >= 0 and can_be_met
        for gain, can_be_met in zip(
            tables.frontier.gains[index], tables.sides.can_be_met, strict=True
        )
    )


def _thinned(places: list[int], most: int) -> list[int]:
    if len(places) <= most:
        return places
    if most < 2:
        return []
    return [places[round(n * (len(places) - 1) / (most - 1))] for n in range(most)]


def _strips(tables: Tables, axis: chart.Axis) -> list[Strip]:
    steps, rows = tables.frontier.steps, []
    for position, (target, can_be_met) in enumerate(
        zip(tables.brief.counted_targets, tables.sides.can_be_met, strict=True)
    ):
        spans: list[tuple[int, int]] = []
        for index, step in enumerate(steps):
            if tables.frontier.gains[index][position] < 0 or not can_be_met:
                continue
            end = steps[index + 1].cost + tables.besides if index + 1 < len(steps) else axis.high
            start = step.cost + tables.besides
            spans = (
                [*spans[:-1], (spans[-1][0], end)]
                if spans and spans[-1][1] == start
                else [*spans, (start, end)]
            )
        words = f"from {money(spans[0][0], axis.currency)}" if spans else "by no build shown"
        if len(spans) > 1:
            words += ", with gaps"
        name = f"{fitted_game(tables.catalogue, target.game_id).name} {target.fps:g}{THIN}fps"
        rows.append(Strip(name, chart.strip(spans, axis, f"{name} met {words}"), words))
    return rows
