"""Balance at a glance: four questions, each answered in a sentence with a small picture."""

from collections.abc import Callable
from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.balance.reductions import Cut
from wattmetron.core.balance.upgrade_order import changes_between
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import Kind
from wattmetron.drawing import small
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.balance import More
from wattmetron.places.balance.balance_words import (
    mean_change,
    next_step,
    savings_words,
    what_limits,
)
from wattmetron.places.proposal.pages.first_panel import first_rows
from wattmetron.words.figures import money


@dataclass(frozen=True, slots=True, kw_only=True)
class GlanceCard:
    """A question with its answer, a picture, and the panel that says more; perhaps something to
    try.
    """

    question: str
    sentence: str
    picture: Markup | None
    panel: str
    more: str
    try_url: str = ""


def glances(
    catalogue: Catalogue,
    now: Assessment,
    subject: Assessment,
    answer: Assessment | None,
    more: tuple[More, ...],
    free: dict[Kind, Cut],
    trial: Callable[[Build], str],
) -> tuple[GlanceCard, ...]:
    return (
        _limits(subject),
        _first(catalogue, now, answer, trial),
        _next(subject, answer, more, trial),
        _nothing(subject, free, trial),
    )


def _limits(subject: Assessment) -> GlanceCard:
    shares = [run.processor_share for run in subject.counted]
    names = ", ".join(f"{run.game.name} {run.processor_share:.0%}" for run in subject.counted)
    return GlanceCard(
        question="Which side limits where?",
        sentence=what_limits(subject) or "Nothing can be said without targets.",
        picture=small.limit_shares(shares, f"Limited by the processor: {names}")
        if shares
        else None,
        panel="limits",
        more="in figures, by resolution",
    )


def _first(
    catalogue: Catalogue,
    now: Assessment,
    answer: Assessment | None,
    trial: Callable[[Build], str],
) -> GlanceCard:
    question, panel = "What to change first?", "pairings"
    if answer is None:
        return GlanceCard(
            question=question,
            sentence="Nothing within the budget fits: Propose says what stands in the way.",
            picture=None,
            panel=panel,
            more="all pairings",
        )
    rows = first_rows(catalogue, now, answer, trial) if not now.missing else ()
    if not rows:
        another = bool(changes_between(now.build, answer.build))
        return GlanceCard(
            question=question,
            sentence=_without_steps(now, another),
            picture=None,
            panel=panel,
            more="all pairings",
            try_url=trial(answer.build) if another else "",
        )
    first, met = rows[0], [now.met, *(row.met_then for row in rows)]
    steps = len(rows)
    return GlanceCard(
        question=question,
        sentence=(
            f"{first.parts} {'' if first.costs.startswith('saves') else 'for '}{first.costs}:"
            f" {_brings(met, first.brings)}."
            + (f" The first of {steps} steps to the best build." if steps > 1 else "")
        ),
        picture=small.stairs(met, len(now.counted), f"Targets met after each step: {met}"),
        panel=panel,
        more="all pairings",
        try_url=first.url,
    )


def _without_steps(now: Assessment, another: bool) -> str:
    """What to change where no steps lead to the best build."""
    if now.missing:
        return "The build is not complete: try the best one for this budget."
    if another:
        return "The best build for this budget is another one: try it as a whole."
    return "Nothing: this is the best build for its budget."


def _brings(met: list[int], brings: str) -> str:
    """What the first step brings: more targets met, else the frames."""
    if met[1] > met[0]:
        return f"meets {met[1]} target{'s' if met[1] > 1 else ''} instead of {met[0]}"
    return brings


def _next(
    subject: Assessment,
    answer: Assessment | None,
    more: tuple[More, ...],
    trial: Callable[[Build], str],
) -> GlanceCard:
    base = answer or subject
    gains = [
        max(0.0, mean_change(base, extra.assessment))
        for extra in more
        if extra.change_minor > 0 and extra.assessment is not None and base.counted
    ]
    amounts = [extra for extra in more if extra.change_minor > 0 and extra.assessment is not None]
    summary = ", ".join(
        f"{money(extra.change_minor, subject.currency)} more: {gain:.0%}"
        for extra, gain in zip(amounts, gains, strict=False)
    )
    better = next(
        (extra for extra, gain in zip(amounts, gains, strict=False) if gain >= 0.02), None
    )
    return GlanceCard(
        question="What does the next money buy?",
        sentence=next_step(base, more) or "Nothing can be said without targets.",
        picture=small.stairs(gains, max(0.1, *gains), f"Frames gained: {summary}")
        if gains
        else None,
        panel="more",
        more="more and less, step by step",
        try_url=trial(better.assessment.build) if better and better.assessment else "",
    )


def _nothing(
    subject: Assessment, free: dict[Kind, Cut], trial: Callable[[Build], str]
) -> GlanceCard:
    best = max(free.values(), key=lambda cut: cut.saves_minor, default=None)
    spent = max(1, subject.spent_minor)
    label = (
        f"{money(best.saves_minor, subject.currency)} of {money(spent, subject.currency)}"
        if best
        else "All of it buys frames"
    )
    return GlanceCard(
        question="What buys nothing?",
        sentence=savings_words(subject, free) or "No part could be cheaper for the same frames.",
        picture=small.money_share(best.saves_minor / spent if best else 0.0, label),
        panel="idle",
        more="part by part",
        try_url=trial(best.build) if best else "",
    )
