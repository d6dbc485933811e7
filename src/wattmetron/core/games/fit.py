"""Maximum a posteriori of a game's parameters from its tiers and results.

Priors are normal in ln (logit for phi; preset steps in ln of their size, so that their order holds). A tier is
one-sided, as `evidence` says: ln[Phi((b - x)/s) - Phi((b - gap - x)/s)] of x = ln of the listed part's time. A
result is the ln of a frame rate with Student's t errors (four degrees of freedom), so that one bad entry weighs
little. Each processor and card of the results brings an error of its own: of its speed, and of how its design
takes to this game. Solved by Gauss-Newton with halved steps; the covariance is the inverse curvature.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.special import log_ndtr

from wattmetron.core.frames import rates, work
from wattmetron.core.games.evidence import MARGIN, Item
from wattmetron.core.games.fitted import COUNT, PHI, VC, VG, C, FittedGame, G, U, W, phi_slope, steps_between
from wattmetron.core.games.model import PRESETS, Game
from wattmetron.core.games.results import Result
from wattmetron.core.games.tiers import pixel_factor, speed_at_each
from wattmetron.core.scale import Standing

Floats = NDArray[np.float64]
STEP_SD, PHI_SD, VARIATION_SD = 0.4, 0.5, 0.25
FORM_SD = 0.03
"""What the model's form leaves open at settings other than those of the evidence."""
RESULT_SD, RUN_SD, LOW_EXTRA = 0.08, 0.04, 1.25
DEGREES = 4.0
ENDLESS = 8.0
"""The band's width where nothing weaker was on sale: the tier bounds from above only."""
ROUNDS = 40
SETTLED = 1e-7


@dataclass(frozen=True, slots=True)
class Pair:
    """A result with its parts on the scale."""

    result: Result
    processor: Standing
    graphics: Standing


@dataclass(frozen=True, slots=True)
class Residual:
    """A result against the model: rates in fps, their ratio less one, and the score in spreads."""

    result: Result
    model_average_fps: float
    model_low_fps: float
    away: float
    score: float
    weight: float


@dataclass(frozen=True, slots=True)
class Times:
    """Both sides' times of one machine at given settings: ln of ms, their spreads and covariance."""

    ln_c: float
    sd_c: float
    ln_g: float
    sd_g: float
    cov: float


@dataclass(frozen=True)
class Fit:
    """A game after the fit, the residuals of its results, and what it says of any machine."""

    game: FittedGame
    residuals: tuple[Residual, ...]
    problem: "_Problem"
    z: Floats
    cover: Floats

    def times(self, processor: Standing, graphics: Standing, settings: Result) -> Times:
        """Times of a machine; parts that stand in the results bring what their own results told about them."""
        return self.problem.times(self.z, self.cover, processor, graphics, settings)


def fit_game(game: Game, items: Iterable[Item], pairs: Iterable[Pair]) -> Fit:
    """Fit a game's parameters; results that are muted must be left out beforehand."""
    problem = _Problem(game, tuple(items), tuple(pairs))
    solved, cover = problem.solve()
    return Fit(problem.game_at(solved, cover), problem.residuals(solved), problem, solved, cover)


class _Problem:
    def __init__(self, game: Game, items: tuple[Item, ...], pairs: tuple[Pair, ...]) -> None:
        self.game, self.items, self.pairs = game, items, pairs
        self.chips = list(dict.fromkeys(pair.processor.key for pair in pairs))
        self.cards = list(dict.fromkeys(pair.graphics.key for pair in pairs))
        self.size = COUNT + len(self.chips) + len(self.cards)
        presets = [game.preset(name) for name in PRESETS]
        u = np.diff(np.log([one.processor_factor for one in presets]))
        w = np.diff(np.log([one.graphics_factor for one in presets]))
        self.centre = np.zeros(self.size)
        self.centre[C], self.centre[G] = np.log(game.processor_ms), np.log(game.graphics_ms)
        self.centre[U], self.centre[W] = np.log(np.maximum(u, 1e-3)), np.log(np.maximum(w, 1e-3))
        phi = min(max(game.fixed_share, 0.02), 0.98)
        self.centre[PHI] = np.log(phi / (1 - phi))
        self.centre[VC], self.centre[VG] = np.log(game.processor_variation), np.log(game.graphics_variation)
        self.spread = np.full(self.size, 1.0)
        self.spread[C], self.spread[G] = max(game.processor_work_sd, 1e-3), max(game.graphics_work_sd, 1e-3)
        self.spread[U] = self.spread[W] = STEP_SD
        self.spread[PHI], self.spread[VC], self.spread[VG] = PHI_SD, VARIATION_SD, VARIATION_SD
        chip_sd = {pair.processor.key: pair.processor.sd for pair in pairs}
        card_sd = {pair.graphics.key: pair.graphics.sd for pair in pairs}
        for n, key in enumerate(self.chips):
            self.spread[COUNT + n] = np.hypot(chip_sd[key], work.PROCESSOR_MODEL_SD)
        for n, key in enumerate(self.cards):
            self.spread[COUNT + len(self.chips) + n] = np.hypot(card_sd[key], work.GRAPHICS_MODEL_SD)
        self.fixed = [self._pair_times(pair) for pair in pairs]

    # --- times --------------------------------------------------------------------------------------

    def _pair_times(self, pair: Pair) -> tuple[float, float, float]:
        """ln of 100/S and 100/R of a pair in this game, and the ray-tracing time in ms."""
        share = self.game.parallel_share
        single, all_core = pair.processor.speeds
        ln_c = float(np.log(100 * ((1 - share) / single + share / all_core)))
        speed = float(speed_at_each(np.array([pair.graphics.speeds], dtype=float), np.array([pair.result.mpx]))[0])
        rays = 0.0
        if pair.result.ray_tracing and pair.graphics.ray_speed and self.game.ray_tracing_ms_per_mpx:
            rays = 100 / pair.graphics.ray_speed * self.game.ray_tracing_ms_per_mpx * pair.result.mpx
        return ln_c, float(np.log(100 / speed)), rays

    def _sides(self, z: Floats, n: int) -> tuple[float, float, Floats, Floats]:
        """Times of both sides of a result in ms, and the gradients of their ln."""
        pair, (ln_c, ln_g, rays) = self.pairs[n], self.fixed[n]
        signs = steps_between(pair.result.preset)
        row_c, row_g = np.zeros(self.size), np.zeros(self.size)
        row_c[C] = row_g[G] = 1.0
        row_c[U], row_g[W] = signs * np.exp(z[U]), signs * np.exp(z[W])
        row_c[COUNT + self.chips.index(pair.processor.key)] = 1.0
        row_g[COUNT + len(self.chips) + self.cards.index(pair.graphics.key)] = 1.0
        phi = 1 / (1 + np.exp(-z[PHI]))
        row_g[PHI] = phi_slope(phi, pair.result.mpx)
        pixels = np.log(phi + (1 - phi) * pair.result.mpx / work.REFERENCE_MPX)
        chip, card = COUNT + self.chips.index(pair.processor.key), COUNT + len(self.chips) + self.cards.index(pair.graphics.key)
        t_c = float(np.exp(z[C] + signs @ np.exp(z[U]) + ln_c + z[chip]))
        raster = float(np.exp(z[G] + signs @ np.exp(z[W]) + ln_g + pixels + z[card]))
        t_g = raster + rays
        return t_c, t_g, row_c, row_g * raster / t_g

    # --- terms --------------------------------------------------------------------------------------

    def _tier(self, z: Floats, item: Item) -> tuple[float, Floats, float, float]:
        """ln of a tier's likelihood, its gradient row, slope and curvature in x."""
        settled = item.row.settled
        signs = steps_between(settled.preset)
        row = np.zeros(self.size)
        own = self.game.preset(settled.preset)
        base = np.log(item.factor)
        if item.side == "processor":
            row[C], row[U] = 1.0, signs * np.exp(z[U])
            x = z[C] + signs @ np.exp(z[U]) + base - np.log(own.processor_factor)
        else:
            mpx = settled.shown_mpx
            phi = 1 / (1 + np.exp(-z[PHI]))
            row[G], row[W], row[PHI] = 1.0, signs * np.exp(z[W]), phi_slope(phi, mpx)
            pixels = np.log(phi + (1 - phi) * mpx / work.REFERENCE_MPX) - np.log(pixel_factor(self.game, mpx))
            x = z[G] + signs @ np.exp(z[W]) + base - np.log(own.graphics_factor) + pixels
        sigma = float(np.sqrt(max(item.sd**2 - (item.gap - item.lead) ** 2 / 12, 1e-4)))
        upper = float(np.log(1000 / settled.fps)) - MARGIN - item.lead
        width = item.gap - item.lead if item.next_weaker else ENDLESS
        value, slope, bend = _band(x, upper, max(width, 1e-3), sigma)
        return value, row, slope, bend

    def _result(self, z: Floats, n: int) -> list[tuple[float, Floats, float]]:
        """Residuals of a result in ln with their gradients and spreads: average and, where known, low."""
        result = self.pairs[n].result
        t_c, t_g, row_c, row_g = self._sides(z, n)
        v_c, v_g = float(np.exp(z[VC])), float(np.exp(z[VG]))
        sd = RUN_SD if result.own else RESULT_SD
        found = []
        for fps, statistic, elasticity, spread in (
            (result.average_fps, rates.mean_ms, rates.mean_elasticity, sd),
            (result.low_fps, rates.low_ms, rates.low_elasticity, sd * LOW_EXTRA),
        ):
            if fps is None:
                continue
            value = float(statistic(t_c, t_g, v_c, v_g))
            share = float(elasticity(t_c, t_g, v_c, v_g))
            row = share * row_c + (1 - share) * row_g
            row[VC] = (np.log(float(statistic(t_c, t_g, v_c * 1.01, v_g))) - np.log(value)) / np.log(1.01)
            row[VG] = (np.log(float(statistic(t_c, t_g, v_c, v_g * 1.01))) - np.log(value)) / np.log(1.01)
            found.append((float(np.log(1000 / fps) - np.log(value)), row, spread))
        return found

    def _objective(self, z: Floats) -> float:
        total = 0.5 * float((((z - self.centre) / self.spread) ** 2).sum())
        total -= sum(self._tier(z, item)[0] for item in self.items)
        for n in range(len(self.pairs)):
            for miss, _, sd in self._result(z, n):
                total += 0.5 * (DEGREES + 1) * float(np.log1p((miss / sd) ** 2 / DEGREES))
        return total

    # --- solving ------------------------------------------------------------------------------------

    def solve(self) -> tuple[Floats, Floats]:
        """The parameters with the largest posterior, and the inverse curvature there."""
        z = self.centre.copy()
        best = self._objective(z)
        for _ in range(ROUNDS):
            curvature, gradient = self._curvature(z)
            step = np.linalg.solve(curvature, gradient)
            scale = min(1.0, 1.5 / max(1e-12, float(np.abs(step).max())))
            value = self._objective(z + scale * step)
            while value > best + 1e-12 and scale > 1e-4:
                scale /= 2
                value = self._objective(z + scale * step)
            if value > best + 1e-12:
                break
            z, gained, best = z + scale * step, best - value, value
            if gained < SETTLED:
                break
        return z, np.asarray(np.linalg.inv(self._curvature(z)[0]))

    def _curvature(self, z: Floats) -> tuple[Floats, Floats]:
        """Gauss-Newton curvature and downhill gradient of the objective."""
        curvature = np.diag(1 / self.spread**2)
        gradient = (self.centre - z) / self.spread**2
        for item in self.items:
            _, row, slope, bend = self._tier(z, item)
            curvature += bend * np.outer(row, row)
            gradient += slope * row
        for n in range(len(self.pairs)):
            for miss, row, sd in self._result(z, n):
                weight = (DEGREES + 1) / (DEGREES + (miss / sd) ** 2) / sd**2
                curvature += min(weight, 1 / sd**2) * np.outer(row, row)
                gradient += weight * miss * row
        return curvature, gradient

    # --- answers ------------------------------------------------------------------------------------

    def game_at(self, z: Floats, cover: Floats) -> FittedGame:
        """The game with the parameters found."""
        steps_u, steps_w = np.exp(z[U]), np.exp(z[W])
        presets = tuple(
            replace(
                self.game.preset(name),
                name=name,
                processor_factor=float(np.exp(steps_between(name) @ steps_u)),
                graphics_factor=float(np.exp(steps_between(name) @ steps_w)),
            )
            for name in PRESETS
        )
        values = {name: getattr(self.game, name) for name in Game.__dataclass_fields__}
        values |= {
            "processor_ms": float(np.exp(z[C])),
            "graphics_ms": float(np.exp(z[G])),
            "fixed_share": float(1 / (1 + np.exp(-z[PHI]))),
            "processor_variation": float(np.exp(z[VC])),
            "graphics_variation": float(np.exp(z[VG])),
            "processor_work_sd": float(np.sqrt(cover[C, C])),
            "graphics_work_sd": float(np.sqrt(cover[G, G])),
            "presets": presets,
        }
        return FittedGame(
            **values,
            cover=cover[:COUNT, :COUNT],
            steps_u=(float(steps_u[0]), float(steps_u[1]), float(steps_u[2])),
            steps_w=(float(steps_w[0]), float(steps_w[1]), float(steps_w[2])),
        )

    def times(self, z: Floats, cover: Floats, processor: Standing, graphics: Standing, settings: Result) -> Times:
        """Joint normal of both sides' ln times, the parts' own errors included."""
        pair = Pair(settings, processor, graphics)
        ln_c, ln_g, rays = self._pair_times(pair)
        signs = steps_between(settings.preset)
        phi = 1 / (1 + np.exp(-z[PHI]))
        row = np.zeros((2, self.size))
        row[0, C] = row[1, G] = 1.0
        row[0, U], row[1, W] = signs * np.exp(z[U]), signs * np.exp(z[W])
        row[1, PHI] = phi_slope(phi, settings.mpx)
        own = [np.hypot(processor.sd, work.PROCESSOR_MODEL_SD) ** 2, np.hypot(graphics.sd, work.GRAPHICS_MODEL_SD) ** 2]
        form = FORM_SD**2
        shift = [0.0, 0.0]
        if processor.key in self.chips:
            place = COUNT + self.chips.index(processor.key)
            row[0, place], shift[0], own[0] = 1.0, z[place], 0.0
        if graphics.key in self.cards:
            place = COUNT + len(self.chips) + self.cards.index(graphics.key)
            row[1, place], shift[1], own[1] = 1.0, z[place], 0.0
        pixels = np.log(phi + (1 - phi) * settings.mpx / work.REFERENCE_MPX)
        raster = float(np.exp(z[G] + signs @ np.exp(z[W]) + ln_g + pixels + shift[1]))
        share = raster / (raster + rays)
        row[1] *= share
        joint = row @ cover @ row.T
        return Times(
            float(z[C] + signs @ np.exp(z[U]) + ln_c + shift[0]),
            float(np.sqrt(joint[0, 0] + own[0] + form)),
            float(np.log(raster + rays)),
            float(np.sqrt(joint[1, 1] + own[1] * share**2 + form)),
            float(joint[0, 1]),
        )

    def residuals(self, z: Floats) -> tuple[Residual, ...]:
        """Every result against the game's own parameters, without what its parts' own errors take up."""
        bare = z.copy()
        bare[COUNT:] = 0.0
        found = []
        for n, pair in enumerate(self.pairs):
            t_c, t_g, _, _ = self._sides(bare, n)
            v_c, v_g = float(np.exp(z[VC])), float(np.exp(z[VG]))
            average = 1000 / float(rates.mean_ms(t_c, t_g, v_c, v_g))
            low = 1000 / float(rates.low_ms(t_c, t_g, v_c, v_g))
            miss, _, sd = self._result(z, n)[0]
            score = miss / sd
            weight = min(1.0, (DEGREES + 1) / (DEGREES + score**2))
            found.append(Residual(pair.result, average, low, average / pair.result.average_fps - 1, score, weight))
        return tuple(found)


def _band(x: float, upper: float, gap: float, sigma: float) -> tuple[float, float, float]:
    """ln[Phi((b - x)/s) - Phi((b - gap - x)/s)], its slope in x and the magnitude of its curvature.

    Log-concave in x, so the curvature is never positive; differences of log_ndtr keep the far tails.
    """
    high, low = (upper - x) / sigma, (upper - gap - x) / sigma
    if low > 0:
        high, low = -low, -high
        mirrored = True
    else:
        mirrored = False
    top, bottom = float(log_ndtr(high)), float(log_ndtr(low))
    value = top + float(np.log1p(-np.exp(min(bottom - top, -1e-12))))
    a = float(np.exp(-0.5 * high**2 - 0.9189385332046727 - value))
    b = float(np.exp(-0.5 * low**2 - 0.9189385332046727 - value))
    slope = -(a - b) / sigma
    bend = ((a - b) ** 2 + (high * a - low * b)) / sigma**2
    return value, -slope if mirrored else slope, max(bend, 1e-9)
