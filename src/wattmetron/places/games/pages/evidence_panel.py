"""What is known of a game's work and why: before and after its evidence, tier by tier, result by
result.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.working import WorkingStep
from wattmetron.core.game_fit.game_evidence import Item
from wattmetron.core.game_fit.learned_priors import Learnt
from wattmetron.core.game_fit.residuals import Residual
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.results import Result
from wattmetron.places.games.library import GameFacts
from wattmetron.words.figures import THIN
from wattmetron.words.tier_words import tier_label


@dataclass(frozen=True, slots=True, kw_only=True)
class ResultView:
    """A result against the model."""

    id: str
    pair: str
    settings: str
    measured: str
    model: str
    away: str
    source: str
    muted: bool
    odd: bool


class WorkRow(NamedTuple):
    """The work of one side: what it is, now, and before the tiers."""

    name: str
    now: str
    before: str


def work_rows(facts: GameFacts) -> tuple[WorkRow, ...]:
    """C and G: what was known before, and with the tiers."""
    before, after = facts.informed.before, facts.game
    return (
        WorkRow(
            "Processor work, a frame",
            _work(after.processor_ms, after.processor_work_sd),
            f"before the tiers {_work(before.processor_ms, before.processor_work_sd)}",
        ),
        WorkRow(
            "Graphics work, a frame",
            _work(after.graphics_ms, after.graphics_work_sd),
            f"before the tiers {_work(before.graphics_ms, before.graphics_work_sd)}",
        ),
    )


def _work(ms: float, sd: float) -> str:
    return f"{ms:.1f}{THIN}ms ±{sd * 100:.0f}{THIN}%"


def work_steps(facts: GameFacts) -> list[WorkingStep]:
    """How C and G came about, item by item."""
    steps = [
        WorkingStep(
            f"{'C' if item.side == 'processor' else 'G'} from"
            f" {tier_label(item.row.tier.label, item.row.position)}",
            f"{1000 / item.row.settled.fps:.1f}{THIN}ms x e^−{facts.informed.learnt.margin:.2f} x"
            f" e^−(({item.gap:.2f} + {item.lead:.2f})/2) / {item.factor:.3f}",
            f"{item.work_ms:.1f}{THIN}ms ±{item.sd * 100:.0f}{THIN}%",
            _item_source(item, facts.informed.learnt),
        )
        for item in facts.informed.items
    ]
    for name, sd, ms in (
        ("C", facts.game.processor_work_sd, facts.game.processor_ms),
        ("G", facts.game.graphics_work_sd, facts.game.graphics_ms),
    ):
        steps.append(
            WorkingStep(
                f"{name} as used",
                "largest posterior of what was known before, the one-sided tiers and the results",
                f"{ms:.1f}{THIN}ms ±{sd * 100:.0f}{THIN}%",
                "On the reference part at high, 1920x1080; fitted together with presets, the pixel"
                " share and both variations.",
            )
        )
    return steps


STANDS_OUT = 2.5


def result_rows(catalogue: Catalogue, facts: GameFacts) -> Iterator[ResultView]:
    """Every result with what the model says of it; one that stands out is named."""
    results = catalogue.results.get(facts.game.id)
    rows = {each_residual.result.id: each_residual for each_residual in facts.informed.residuals}
    for item in results.items if results else ():
        residual = rows.get(item.id)
        names = [
            standing.name if (standing := scale_of(catalogue).standing(key)) else key
            for key in (item.processor, item.graphics)
        ]
        low = f", low {item.low_fps:.0f}" if item.low_fps else ""
        day = f", {item.measured_on:%-d %b %Y}" if item.measured_on else ""
        yield ResultView(
            id=item.id,
            pair=" with ".join(names),
            settings=f"{item.width_px}x{item.height_px}, {item.preset}"
            + (", ray tracing" if item.ray_tracing else ""),
            measured=f"{_least(item)}{item.average_fps:.0f}{THIN}fps{low}{_sides(item)}",
            model=f"{residual.model_average_fps:.0f}" if residual else "",
            away=_away(item, residual),
            source=("own run" if item.own else item.source or "source not stated") + day,
            muted=item.muted,
            odd=residual is not None and abs(residual.score) > STANDS_OUT,
        )


def _away(item: Result, residual: Residual | None) -> str:
    """How far the model is off; nothing where a rate that is only known from below is kept."""
    if residual is None or (item.at_least and residual.away >= 0):
        return ""
    return f"{residual.away * 100:+.0f}{THIN}%".replace("-", "−")


def _least(item: Result) -> str:
    return "at least " if item.at_least else ""


def _sides(item: Result) -> str:
    """What it says of both sides' times against each other."""
    if item.side_ratio is None:
        return ""
    if item.side_ratio_is == "about":
        return f"; processor {item.side_ratio:.2f} x graphics"
    return f"; limited by {'the processor' if item.side_ratio_is == 'at least' else 'graphics'}"


def _item_source(item: Item, learnt: Learnt) -> str:
    weaker = (
        f"the next weaker part on sale was {item.next_weaker}"
        if item.next_weaker
        else "nothing weaker was on sale near it"
    )
    ranked = f"; the list ranks by {item.ranked_by}" if item.ranked_by else ""
    assumed = f", assumed conditions {item.assumed_sd:.2f}" if item.assumed_sd else ""
    return (
        "The frame budget less the publisher's margin, the middle of the band from the weakest"
        f" listed down to what did not suffice: {weaker}{ranked},"
        f" {np.expm1(item.gap) * 100:.0f}{THIN}%"
        f" below what the tier asks for. The part that it asks for does the work in"
        f" {item.factor:.3f} of the reference part's time,"
        f" what is assumed of the conditions included. Spread: unevenness of publishers"
        f" {learnt.noise:.2f}, band {(item.gap - item.lead) / np.sqrt(12):.2f}, unevenness of the"
        f" list {item.uneven_sd:.2f}{assumed}."
    )
