"""Learns about games in general from all games that have results; see ``learnt``."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from functools import partial
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.special import log_ndtr

from wattmetron.core.game_fit.fit_problem import ENDLESS, GameFitProblem
from wattmetron.core.game_fit.fitted_values import PHI, POWER, VC, VG, U, W
from wattmetron.core.game_fit.game_evidence import MIXED, Item
from wattmetron.core.game_fit.learned_priors import (
    NOTHING_LEARNT,
    Learnt,
    ParameterEvidence,
    Shift,
    look,
    shift_of,
)
from wattmetron.core.game_fit.residuals import Pair
from wattmetron.core.keep import NOTHING_KEPT, Keep
from wattmetron.core.values.games import Game
from wattmetron.core.values.published import Side

Floats = NDArray[np.float64]
POWER_SD, STEP_SD, PHI_SD, VARIATION_SD, DESIGN_SD = 0.1, 0.3, 0.4, 0.5, 0.03
MARGIN_SD, NOISE_SD, SHARE_SD, WIDTH_SD = 0.12, 0.4, 0.3, 0.4
"""How far what is learnt may lie from what is taken for granted, before any evidence."""
AS_MANY_GAMES = 6.0
"""The usual spread over games counts as if so many games had shown it."""
LEAST_LOOKS, MOST_MOVERS = 3, 3
LEAST_LISTS, AGREE = 5, 0.8
MARGINS, NOISES = np.linspace(-0.3, 0.6, 31), np.exp(np.linspace(-1.2, 0.7, 12))
SHARES, WIDTHS = np.linspace(0.0, 1.2, 19), np.exp(np.linspace(-1.0, 1.0, 13))


class GameEvidence(NamedTuple):
    """A game with its tiers' items, made without anything learnt, and its results."""

    game: Game
    items: tuple[Item, ...]
    pairs: tuple[Pair, ...]


class Stand(NamedTuple):
    """Where the listed part of a tier stands: ln of the frame budget without a margin less ln of
    its time, the variance of that, the band's ends, the shift that assumed conditions bring and
    their spread.
    """

    away: float
    variance: float
    lead: float
    gap: float
    shift: float
    assumed_sd: float


class Lesson(NamedTuple):
    """What one game's results say: of parameters by their place, of designs, of its publisher."""

    parameters: tuple[tuple[int, ParameterEvidence], ...]
    designs: tuple[tuple[Side, str, ParameterEvidence], ...]
    stands: tuple[Stand, ...]


class GameLesson(NamedTuple):
    """A game's evidence, and what it says of all games."""

    evidence: GameEvidence
    lesson: Lesson


def learn(known: Iterable[GameEvidence], keep: Keep = NOTHING_KEPT) -> Learnt:
    """What the games that have results teach; nothing where there is none."""
    return learn_from(taught_by(known, keep))


def taught_by(known: Iterable[GameEvidence], keep: Keep) -> tuple[GameLesson, ...]:
    """What each game with results says, kept by what it rests on, so that one more result fits one
    game anew.
    """
    return tuple(
        GameLesson(
            evidence,
            keep.lasting(
                ("lesson", evidence.game.id, hash(evidence)),
                (evidence,),
                partial(lesson_of, evidence),
            ),
        )
        for evidence in known
        if evidence.pairs
    )


def learn_from(taught: Sequence[GameLesson]) -> Learnt:
    """What games teach together."""
    if not taught:
        return NOTHING_LEARNT
    games = [each.evidence for each in taught]
    lessons = [each.lesson for each in taught]
    learnt = replace(
        NOTHING_LEARNT,
        rankings=_rankings(games),
        games=len(games),
        results=sum(len(game.pairs) for game in games),
        tiers=len(
            {
                (each_game.game.id, item.row.position)
                for each_game in games
                for item in each_game.items
            }
        ),
    )
    learnt = _parameters(lessons, learnt)
    learnt = _designs(lessons, learnt)
    ids = [each_game.game.id for each_game in games]
    learnt = replace(learnt, movers=dict(_movers(ids, lessons)))
    return _publishers([stand for lesson in lessons for stand in lesson.stands], learnt)


def lesson_of(evidence: GameEvidence) -> Lesson:
    """A game fitted to its results alone, around what is taken for granted, with its prior divided
    out.
    """
    problem = GameFitProblem(evidence.game, (), evidence.pairs, NOTHING_LEARNT)
    z, cover = problem.solve()

    def seen(index: int) -> ParameterEvidence | None:
        away = float(z[index] - problem.centre[index])
        variance = float(problem.spread[index] ** 2)
        return look(away, float(cover[index, index]), 0.0, variance)

    places = (POWER, *range(U.start, U.stop), *range(W.start, W.stop), PHI, VC, VG)
    designs = [
        (side, key, each_look)
        for (side, kind, key), index in problem.places.items()
        if kind == "design" and (each_look := seen(index)) is not None
    ]
    return Lesson(
        tuple((index, each_look) for index in places if (each_look := seen(index)) is not None),
        tuple(designs),
        tuple(_stands(evidence.items, problem, z, cover)),
    )


def _stands(
    items: Iterable[Item], problem: GameFitProblem, z: Floats, cover: Floats
) -> Iterator[Stand]:
    for item in items:
        x, row = problem.listed_ln(z, item)
        yield Stand(
            away=float(np.log(item.budget_ms))
            + NOTHING_LEARNT.margin
            - x
            + NOTHING_LEARNT.assumed_share * item.shift,
            variance=float(row @ cover @ row) + item.uneven_sd**2 + item.bar_sd**2,
            lead=item.lead,
            gap=item.gap if item.next_weaker else ENDLESS,
            shift=item.shift,
            assumed_sd=item.assumed_sd,
        )


def _parameters(lessons: Sequence[Lesson], learnt: Learnt) -> Learnt:
    looks: dict[int, list[ParameterEvidence]] = defaultdict(list)
    for lesson in lessons:
        for position, evidence in lesson.parameters:
            looks[position].append(evidence)

    def learn_one(position: int, usual: Shift, mean_sd: float) -> Shift:
        middle = usual.mean if position == POWER else 0.0
        seen = [
            ParameterEvidence(each_look.away + middle, each_look.variance)
            for each_look in looks[position]
        ]
        return shift_of(seen, usual, mean_sd, AS_MANY_GAMES)

    return replace(
        learnt,
        power=learn_one(POWER, learnt.power, POWER_SD),
        steps_u=tuple(
            learn_one(U.start + n, shift, STEP_SD) for n, shift in enumerate(learnt.steps_u)
        ),
        steps_w=tuple(
            learn_one(W.start + n, shift, STEP_SD) for n, shift in enumerate(learnt.steps_w)
        ),
        phi=learn_one(PHI, learnt.phi, PHI_SD),
        v_c=learn_one(VC, learnt.v_c, VARIATION_SD),
        v_g=learn_one(VG, learnt.v_g, VARIATION_SD),
    )


def _designs(lessons: Sequence[Lesson], learnt: Learnt) -> Learnt:
    """How each design is liked by all games, and how differently by each."""
    looks: dict[tuple[Side, str], list[ParameterEvidence]] = defaultdict(list)
    for lesson in lessons:
        for side, key, evidence in lesson.designs:
            looks[side, key].append(evidence)
    models = dict(learnt.models)
    for side in models:
        apart = [
            each_look for (of, _), several in looks.items() if of == side for each_look in several
        ]
        usual = Shift(0.0, models[side])
        models[side] = shift_of(apart, usual, DESIGN_SD, 2 * AS_MANY_GAMES).between
    designs = {
        key: _liked(several, models[key[0]])
        for key, several in looks.items()
        if len(several) >= LEAST_LOOKS
    }
    return replace(learnt, models=models, designs=designs)


def _liked(looks: Sequence[ParameterEvidence], model: float) -> Shift:
    """The mean over games of how they take to a design, with its own spread."""
    weights = [1 / (each_look.variance + model**2) for each_look in looks]
    total = 1 / DESIGN_SD**2 + sum(weights)
    mean = sum(w * each_look.away for w, each_look in zip(weights, looks, strict=True)) / total
    return Shift(float(mean), float(total**-0.5))


def _movers(ids: Sequence[str], lessons: Sequence[Lesson]) -> Iterator[tuple[str, tuple[str, ...]]]:
    """By what is learnt the games whose results pull at it most."""
    places: dict[str, Sequence[int]] = {
        "power": (POWER,),
        "steps_u": range(U.start, U.stop),
        "steps_w": range(W.start, W.stop),
        "v_c": (VC,),
        "v_g": (VG,),
    }
    for name, position in places.items():
        yield (
            name,
            _most(
                ids,
                [
                    _pull(f for index, f in lesson.parameters if index in position)
                    for lesson in lessons
                ],
            ),
        )
    yield (
        "designs",
        _most(ids, [_pull(each_look for *_, each_look in lesson.designs) for lesson in lessons]),
    )
    usual = NOTHING_LEARNT
    for name, assumed in (("margin", False), ("assumed", True)):
        pulls = [
            sum(
                abs(stand.away - usual.margin - stand.lead) / (stand.variance + usual.noise**2)
                for stand in lesson.stands
                if bool(stand.assumed_sd) == assumed
            )
            for lesson in lessons
        ]
        yield name, _most(ids, pulls)


def _pull(looks: Iterable[ParameterEvidence]) -> float:
    return sum(abs(each_look.away) / each_look.variance for each_look in looks)


def _most(ids: Sequence[str], pulls: Sequence[float]) -> tuple[str, ...]:
    order = sorted(range(len(ids)), key=lambda n: (-pulls[n], ids[n]))
    return tuple(ids[n] for n in order[:MOST_MOVERS] if pulls[n] > 0)


def _rankings(games: Iterable[GameEvidence]) -> dict[Side, str]:
    """By which speed publishers usually rank, where enough lists show it and agree."""
    shown: dict[Side, Counter[str]] = defaultdict(Counter)
    for game in games:
        shown_here = ((item.side, item.ranked_by) for item in game.items if item.ranked_by)
        for side, name in shown_here:
            shown[side][name] += 1
    evidence: dict[Side, str] = {}
    for side, counts in shown.items():
        (name, most), *_ = counts.most_common(1)
        if counts.total() >= LEAST_LISTS:
            evidence[side] = name if most >= AGREE * counts.total() else MIXED
    return evidence


def _publishers(stands: Sequence[Stand], learnt: Learnt) -> Learnt:
    """The margin and unevenness from tiers with their conditions stated, then what assumed
    conditions are worth from the others: means over a grid.
    """
    usual = NOTHING_LEARNT
    stated = _columns([stand for stand in stands if not stand.assumed_sd])
    if stated is not None:
        margin, noise = MARGINS[:, None, None], (usual.noise * NOISES)[None, :, None]
        seen = _between(
            stated.away - margin, stated.lead, stated.gap, np.sqrt(stated.variance + noise**2)
        )
        weights = (
            seen.sum(axis=2)
            + _normal(MARGINS, usual.margin, MARGIN_SD)[:, None]
            + _normal(np.log(NOISES), 0.0, NOISE_SD)[None, :]
        )
        learnt = replace(
            learnt,
            margin=_mean(weights, MARGINS[:, None]),
            noise=usual.noise * float(np.exp(_mean(weights, np.log(NOISES)[None, :]))),
        )
    assumed = _columns([stand for stand in stands if stand.assumed_sd])
    if assumed is not None:
        share, width = SHARES[:, None, None], WIDTHS[None, :, None]
        spread = assumed.variance + learnt.noise**2 + (width * assumed.assumed_sd) ** 2
        seen = _between(
            assumed.away - learnt.margin - share * assumed.shift,
            assumed.lead,
            assumed.gap,
            np.sqrt(spread),
        )
        weights = (
            seen.sum(axis=2)
            + _normal(SHARES, usual.assumed_share, SHARE_SD)[:, None]
            + _normal(np.log(WIDTHS), 0.0, WIDTH_SD)[None, :]
        )
        learnt = replace(
            learnt,
            assumed_share=_mean(weights, SHARES[:, None]),
            assumed_width=float(np.exp(_mean(weights, np.log(WIDTHS)[None, :]))),
        )
    return learnt


class _Columns(NamedTuple):
    """Stands as arrays, shape (n,) each."""

    away: Floats
    variance: Floats
    lead: Floats
    gap: Floats
    shift: Floats
    assumed_sd: Floats


def _columns(stands: Sequence[Stand]) -> _Columns | None:
    return _Columns(*np.array(stands, dtype=float).T) if stands else None


def _between(away: Floats, lead: Floats, gap: Floats, spread: Floats) -> Floats:
    """ln of the chance that the listed part's time lies in its band."""
    high, low = (away - lead) / spread, (away - np.maximum(gap, lead + 1e-3)) / spread
    flip = low > 0
    top = log_ndtr(np.where(flip, -low, high))
    bottom = log_ndtr(np.where(flip, -high, low))
    return np.asarray(top + np.log1p(-np.exp(np.minimum(bottom - top, -1e-12))))


def _normal(x: Floats, mean: float, sd: float) -> Floats:
    return np.asarray(-0.5 * ((x - mean) / sd) ** 2)


def _mean(ln_weights: Floats, values: Floats) -> float:
    weights = np.exp(ln_weights - ln_weights.max())
    return float((weights * values).sum() / weights.sum())
