"""What is solved when a game is fitted: residuals of evidence and priors, and their minimum."""

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames import frame_rates, work
from wattmetron.core.game_fit.fitted_values import (
    COUNT,
    PHI,
    POWER,
    VC,
    VG,
    C,
    FittedGame,
    G,
    Place,
    U,
    W,
    phi_slope,
    power_slope,
    steps_between,
)
from wattmetron.core.game_fit.game_evidence import Item
from wattmetron.core.game_fit.learned_priors import Learnt
from wattmetron.core.game_fit.residuals import DEGREES, SETTLED, Floats, Pair, Residual, band
from wattmetron.core.requirements.tiers import pixel_factor
from wattmetron.core.speeds.blend import speed_at_each
from wattmetron.core.speeds.speed_scale import Standing
from wattmetron.core.values.games import PRESETS, Game
from wattmetron.core.values.threads import crowding

RESULT_SD, RUN_SD, LOW_SHARE_SD, RATIO_SD = 0.08, 0.04, 0.05, 0.1
"""In ln: how far a published result, an own run, a 1 % low and a ratio of sides may be off."""
ENDLESS = 8.0
"""The band's width where nothing weaker was on sale: the tier bounds from above only."""
ROUNDS = 40
OPEN = {"about": 0.0, "at least": 1.0, "at most": -1.0}
"""On which side a ratio that is only bounded still says something."""
LEAST_SPEED_SD = 1e-3
"""Keeps the covariance invertible where a speed is stated without a spread."""


class GameFitProblem:
    """The parameters of one game with everything that speaks of them."""

    def __init__(
        self, game: Game, items: tuple[Item, ...], pairs: tuple[Pair, ...], learnt: Learnt
    ) -> None:
        self.game, self.items, self.pairs, self.learnt = game, items, pairs, learnt
        self.places, error_means, error_sds = _errors_of(pairs, learnt)
        self.size = COUNT + len(self.places)
        presets = [game.preset(name) for name in PRESETS]
        u = np.diff(np.log([preset.processor_factor for preset in presets]))
        w = np.diff(np.log([preset.graphics_factor for preset in presets]))
        self.centre = np.zeros(self.size)
        self.centre[C], self.centre[G] = np.log(game.processor_ms), np.log(game.graphics_ms)
        self.centre[U], self.centre[W] = np.log(np.maximum(u, 1e-3)), np.log(np.maximum(w, 1e-3))
        phi = min(max(game.fixed_share, 0.02), 0.98)
        self.centre[PHI] = np.log(phi / (1 - phi))
        self.centre[VC], self.centre[VG] = (
            np.log(game.processor_variation),
            np.log(game.graphics_variation),
        )
        self.spread = np.full(self.size, 1.0)
        self.spread[C], self.spread[G] = (
            max(game.processor_work_sd, 1e-3),
            max(game.graphics_work_sd, 1e-3),
        )
        self.spread[U] = [shift.between for shift in learnt.steps_u]
        self.spread[W] = [shift.between for shift in learnt.steps_w]
        self.spread[PHI], self.spread[POWER] = learnt.phi.between, learnt.power.between
        self.spread[VC], self.spread[VG] = learnt.v_c.between, learnt.v_g.between
        self.centre[POWER] = game.pixel_power
        self.centre[COUNT:], self.spread[COUNT:] = error_means, error_sds
        fixed = np.array([self._pair_times(pair) for pair in pairs], dtype=float).reshape(-1, 3)
        self.ln_c, self.ln_g, self.rays_ms = fixed.T
        self.signs = np.array([steps_between(pair.result.preset) for pair in pairs]).reshape(-1, 3)
        self.crowding = np.array(
            [crowding(pair.processor.threads, game.threads_used) for pair in pairs], dtype=float
        )
        self.mpx = np.array([pair.result.mpx for pair in pairs], dtype=float)
        self.chip = self._places_of([pair.processor for pair in pairs])
        self.card = self._places_of([pair.graphics for pair in pairs])
        self.ln_average = np.log(
            1000 / np.array([pair.result.average_fps for pair in pairs], dtype=float)
        )
        self.at_least = np.array([pair.result.at_least for pair in pairs], dtype=bool)
        lows = [np.nan if pair.result.at_least else pair.result.low_fps or np.nan for pair in pairs]
        self.ln_low = np.log(1000 / np.array(lows, dtype=float))
        ratios = [pair.result.side_ratio or np.nan for pair in pairs]
        self.ln_ratio = np.log(np.array(ratios, dtype=float))
        self.ratio_sd = np.array(
            [pair.result.side_ratio_sd or RATIO_SD for pair in pairs], dtype=float
        )
        self.ratio_open = np.array([OPEN[pair.result.side_ratio_is] for pair in pairs], dtype=float)
        self.sd = np.array(
            [
                max(RUN_SD if pair.result.own else RESULT_SD, pair.result.ln_sd or 0.0)
                for pair in pairs
            ],
            dtype=float,
        )

    def _places_of(self, standings: list[Standing]) -> NDArray[np.int64]:
        """Where the errors of parts and of their designs stand, shape (n, 2)."""
        rows = [
            [
                self.places[standing.side, "part", standing.key],
                self.places[standing.side, "design", standing.design or standing.key],
            ]
            for standing in standings
        ]
        return np.array(rows, dtype=np.int64).reshape(-1, 2)

    # --- times
    # --------------------------------------------------------------------------------------

    def _pair_times(self, pair: Pair) -> tuple[float, float, float]:
        """ln of 100/S and 100/R of a pair in this game, and the ray-tracing time in ms."""
        share = self.game.parallel_share
        single, all_core = pair.processor.speeds
        ln_c = float(np.log(100 * ((1 - share) / single + share / all_core)))
        speed = float(
            speed_at_each(
                np.array([pair.graphics.speeds], dtype=float), np.array([pair.result.mpx])
            )[0]
        )
        rays = 0.0
        if pair.result.ray_tracing and pair.graphics.ray_speed and self.game.ray_tracing_ms_per_mpx:
            rays = (
                100 / pair.graphics.ray_speed * self.game.ray_tracing_ms_per_mpx * pair.result.mpx
            )
        return ln_c, float(np.log(100 / speed)), rays

    def _sides(self, z: Floats) -> tuple[Floats, Floats, Floats, Floats]:
        """Times of both sides of all results in ms, shape (n,), and the gradients of their ln,
        shape (n, size).
        """
        n = np.arange(self.mpx.size)[:, None]
        row_c, row_g = np.zeros((n.size, self.size)), np.zeros((n.size, self.size))
        row_c[:, C] = row_g[:, G] = 1.0
        row_c[:, U], row_g[:, W] = self.signs * np.exp(z[U]), self.signs * np.exp(z[W])
        row_c[n, self.chip] = row_g[n, self.card] = 1.0
        phi = 1 / (1 + np.exp(-z[PHI]))
        row_g[:, PHI] = phi_slope(phi, self.mpx, z[POWER])
        row_g[:, POWER] = power_slope(phi, self.mpx, z[POWER])
        pixels = np.log(work.pixel_factor(phi, z[POWER], self.mpx))
        t_c = np.exp(z[C] + self.signs @ np.exp(z[U]) + self.ln_c + z[self.chip].sum(axis=1))
        raster = np.exp(
            z[G] + self.signs @ np.exp(z[W]) + self.ln_g + pixels + z[self.card].sum(axis=1)
        )
        t_g = raster + self.rays_ms
        return t_c, t_g, row_c, row_g * (raster / t_g)[:, None]

    # --- terms
    # --------------------------------------------------------------------------------------

    def listed_ln(self, z: Floats, item: Item) -> tuple[float, Floats]:
        """ln of the time of what a tier lists in ms, and its gradient row."""
        settled = item.row.settled
        signs = steps_between(settled.preset)
        row = np.zeros(self.size)
        preset = self.game.preset(settled.preset)
        base = np.log(item.factor)
        if item.side == "processor":
            row[C], row[U] = 1.0, signs * np.exp(z[U])
            x = z[C] + signs @ np.exp(z[U]) + base - np.log(preset.processor_factor)
        else:
            mpx = settled.shown_mpx
            phi = 1 / (1 + np.exp(-z[PHI]))
            row[G], row[W] = 1.0, signs * np.exp(z[W])
            row[PHI] = phi_slope(phi, mpx, z[POWER])
            row[POWER] = power_slope(phi, mpx, z[POWER])
            pixels = np.log(work.pixel_factor(phi, z[POWER], mpx) / pixel_factor(self.game, mpx))
            x = z[G] + signs @ np.exp(z[W]) + base - np.log(preset.graphics_factor) + pixels
        return float(x), row

    def _tier(self, z: Floats, item: Item) -> tuple[float, Floats, float, float]:
        """ln of a tier's likelihood, its gradient row, slope and curvature in x."""
        x, row = self.listed_ln(z, item)
        sigma = float(np.sqrt(max(item.sd**2 - (item.gap - item.lead) ** 2 / 12, 1e-4)))
        upper = float(np.log(item.budget_ms)) - item.lead
        width = item.gap - item.lead if item.next_weaker else ENDLESS
        value, slope, bend = band(x, upper, max(width, 1e-3), sigma)
        return value, row, slope, bend

    def _results(self, z: Floats) -> tuple[Floats, Floats, Floats]:
        """Residuals of all results in ln with their gradients and spreads: averages, then, where
        known, the lows' shares of them, for both are off together, and the ratios of both sides.
        """
        t_c, t_g, row_c, row_g = self._sides(z)
        v_c, v_g = np.exp(z[VC]) * self.crowding, float(np.exp(z[VG]))
        results = []
        for wanted, statistic, elasticity in (
            (self.ln_average, frame_rates.mean_ms, frame_rates.mean_elasticity),
            (self.ln_low, frame_rates.low_ms, frame_rates.low_elasticity),
        ):
            value = np.log(statistic(t_c, t_g, v_c, v_g))
            share = np.asarray(elasticity(t_c, t_g, v_c, v_g))[:, None]
            row = share * row_c + (1 - share) * row_g
            row[:, VC] = (np.log(statistic(t_c, t_g, v_c * 1.01, v_g)) - value) / np.log(1.01)
            row[:, VG] = (np.log(statistic(t_c, t_g, v_c, v_g * 1.01)) - value) / np.log(1.01)
            results.append((wanted - value, row))
        (miss, row), (low_miss, low_row) = results
        ratio_row = row_c - row_g
        ratio_row[:, VC] = -(v_c**2) / (1 + v_c**2)
        ratio_row[:, VG] = v_g**2 / (1 + v_g**2)
        low = low_row - row
        row = np.where((self.at_least & (miss > 0))[:, None], 0.0, row)
        misses, sds, (has, knows) = self._together(miss, low_miss, t_c, t_g, v_c, v_g)
        rows = np.concatenate([row, low[has], ratio_row[knows]])
        return misses, rows, sds

    def _together(
        self, miss: Floats, low_miss: Floats, t_c: Floats, t_g: Floats, v_c: Floats, v_g: float
    ) -> tuple[Floats, Floats, tuple[NDArray[np.bool_], NDArray[np.bool_]]]:
        """Residuals of averages, of the lows that are known and of ratios that speak, with their
        spreads; which results have a low, and of which the ratio speaks.
        """
        has = np.isfinite(low_miss)
        medians = np.log(t_c / t_g) - 0.5 * (np.log1p(v_c**2) - np.log1p(v_g**2))
        away = self.ln_ratio - medians
        knows = np.isfinite(away) & (away * self.ratio_open >= 0)
        misses = np.where(self.at_least & (miss > 0), 0.0, miss)
        return (
            np.concatenate([misses, (low_miss - miss)[has], away[knows]]),
            np.concatenate([self.sd, np.full(int(has.sum()), LOW_SHARE_SD), self.ratio_sd[knows]]),
            (has, knows),
        )

    def _objective(self, z: Floats) -> float:
        total = 0.5 * float((((z - self.centre) / self.spread) ** 2).sum())
        total -= sum(self._tier(z, item)[0] for item in self.items)
        if self.pairs:
            miss, sd = self._misses(z)
            total += 0.5 * (DEGREES + 1) * float(np.log1p((miss / sd) ** 2 / DEGREES).sum())
        return total

    def _misses(self, z: Floats) -> tuple[Floats, Floats]:
        """Residuals and spreads of all results, without gradients."""
        t_c, t_g, _, _ = self._sides(z)
        v_c, v_g = np.exp(z[VC]) * self.crowding, float(np.exp(z[VG]))
        miss = self.ln_average - np.log(frame_rates.mean_ms(t_c, t_g, v_c, v_g))
        low_miss = self.ln_low - np.log(frame_rates.low_ms(t_c, t_g, v_c, v_g))
        return self._together(miss, low_miss, t_c, t_g, v_c, v_g)[:2]

    # --- solving
    # ------------------------------------------------------------------------------------

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
        if self.pairs:
            miss, row, sd = self._results(z)
            weight = (DEGREES + 1) / (DEGREES + (miss / sd) ** 2) / sd**2
            curvature += (row * np.minimum(weight, 1 / sd**2)[:, None]).T @ row
            gradient += row.T @ (weight * miss)
        return curvature, gradient

    # --- answers
    # ------------------------------------------------------------------------------------

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
            "pixel_power": float(np.clip(z[POWER], 0.5, 1.5)),
            "processor_variation": float(np.exp(z[VC])),
            "graphics_variation": float(np.exp(z[VG])),
            "processor_work_sd": float(np.sqrt(cover[C, C])),
            "graphics_work_sd": float(np.sqrt(cover[G, G])),
            "presets": presets,
        }
        return FittedGame(
            **values,
            cover=cover,
            steps_u=(float(steps_u[0]), float(steps_u[1]), float(steps_u[2])),
            steps_w=(float(steps_w[0]), float(steps_w[1]), float(steps_w[2])),
            places=self.places,
            learnt=self.learnt,
            errors=tuple(z[COUNT:].tolist()),
        )

    def residuals(self, z: Floats) -> tuple[Residual, ...]:
        """Every result against the game's own parameters, without what its parts' own errors take
        up.
        """
        if not self.pairs:
            return ()
        bare = z.copy()
        bare[COUNT:] = 0.0
        t_c, t_g, _, _ = self._sides(bare)
        v_c, v_g = np.exp(z[VC]) * self.crowding, float(np.exp(z[VG]))
        average = 1000 / np.asarray(frame_rates.mean_ms(t_c, t_g, v_c, v_g))
        low = 1000 / np.asarray(frame_rates.low_ms(t_c, t_g, v_c, v_g))
        score = self._misses(z)[0][: len(self.pairs)] / self.sd
        weight = np.minimum(1.0, (DEGREES + 1) / (DEGREES + score**2))
        return tuple(
            Residual(
                result=pair.result,
                model_average_fps=float(average[n]),
                model_low_fps=float(low[n]),
                away=float(average[n]) / pair.result.average_fps - 1,
                score=float(score[n]),
                weight=float(weight[n]),
            )
            for n, pair in enumerate(self.pairs)
        )


def _errors_of(
    pairs: tuple[Pair, ...], learnt: Learnt
) -> tuple[dict[Place, int], list[float], list[float]]:
    """Places, prior means and spreads of the errors of all parts and designs in the results."""
    places: dict[Place, int] = {}
    means: list[float] = []
    spreads: list[float] = []
    for pair in pairs:
        for standing in (pair.processor, pair.graphics):
            design = standing.design or standing.key
            usual = learnt.design(standing.side, design)
            errors: tuple[tuple[Place, float, float], ...] = (
                ((standing.side, "part", standing.key), 0.0, max(standing.sd, LEAST_SPEED_SD)),
                ((standing.side, "design", design), usual.mean, usual.between),
            )
            for index, mean, spread in errors:
                if index not in places:
                    places[index] = COUNT + len(places)
                    means.append(mean)
                    spreads.append(spread)
    return places, means, spreads
