"""Maximum a posteriori of a game's parameters from its tiers and results.

Priors are normal in ln (logit for phi; preset steps in ln of their size, so that their order
holds). A tier is one-sided, as `evidence` says: ln[Phi((b - x)/s) - Phi((b - gap - x)/s)] of x = ln
of the listed part's time. A result is the ln of a frame rate with Student's t errors (four degrees
of freedom), so that one bad entry weighs little; so is the ratio of both sides' times where a run
knows it, and what is only known to be at least or at most something says nothing beyond. Each
processor and card of the results brings the error of its speed, and each of their designs how this
game takes to it, so that results tell about other parts of the design too. Solved by Gauss-Newton
with halved steps; the covariance is the inverse curvature.
"""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from wattmetron.core.game_fit.fit_problem import GameFitProblem
from wattmetron.core.game_fit.fitted_values import (
    FittedGame,
    U,
    UninformedGame,
    W,
)
from wattmetron.core.game_fit.game_evidence import Item
from wattmetron.core.game_fit.learned_priors import NOTHING_LEARNT, Learnt
from wattmetron.core.game_fit.residuals import Pair, Residual
from wattmetron.core.values.games import Game


@dataclass(frozen=True)
class Fit:
    """A game after the fit, and the residuals of its results."""

    game: FittedGame
    residuals: tuple[Residual, ...]


def fit_game(
    game: Game, items: Iterable[Item], pairs: Iterable[Pair], learnt: Learnt = NOTHING_LEARNT
) -> Fit:
    """Fit a game's parameters around what is learnt of games; results that are muted must be left
    out beforehand. ``game`` is as ``as_learnt`` gives it, and so were the items made.
    """
    problem = GameFitProblem(game, tuple(items), tuple(pairs), learnt)
    solved, cover = problem.solve()
    return Fit(problem.game_at(solved, cover), problem.residuals(solved))


def uninformed(game: Game, learnt: Learnt = NOTHING_LEARNT) -> UninformedGame:
    """A game of which no list and no result speaks: as it is described, as wide as games differ in
    every parameter, so that presets and resolutions are as uncertain as they are before evidence.
    """
    problem = GameFitProblem(game, (), (), learnt)
    steps_u, steps_w = (np.exp(problem.centre[steps]).tolist() for steps in (U, W))
    return UninformedGame(
        **{name: getattr(game, name) for name in Game.__dataclass_fields__},
        cover=np.diag(problem.spread**2),
        steps_u=tuple(steps_u),
        steps_w=tuple(steps_w),
        places={},
        learnt=learnt,
        errors=(),
    )
