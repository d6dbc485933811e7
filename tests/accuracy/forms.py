"""Worlds of other forms than the application's own: publishers that rank otherwise, other margins
and pixel powers, heavy tails, conditions that deviate both ways, wide priors, memory that matters.
"""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from scipy.signal import lfilter
from tools.world.truth import FRAMES, PRESETS, SIZES, TrueGame, World

from wattmetron.core.values.games import Game
from wattmetron.core.values.published import Listed, Published, Tier

Ranking = Literal["one core", "all cores", "price"]
SMALL = (1280, 720)
KITS = (0.93, 0.97, 1.0, 1.0, 1.06, 1.15)
"""What memory kits do to the processor's time in a game that minds memory."""


@dataclass(frozen=True, kw_only=True)
class Form:
    """How a kind of world differs from the application's own."""

    name: str
    ranking: Ranking
    margins: tuple[float, float] = (0.9, 1.3)
    power: float = 0.95
    wide: float = 0.4
    speeds_off: float = 0.03
    tails: bool = False
    both_ways: bool = False
    correlated: float = 0.9
    kits: bool = False


FORMS = (
    Form(name="ranked by one core", ranking="one core"),
    Form(name="ranked by all cores, large margins", ranking="all cores", margins=(1.0, 1.5)),
    Form(name="ranked by price, slow growth with pixels", ranking="price", power=0.85),
    Form(
        name="tight margins, growth in proportion",
        ranking="one core",
        margins=(0.8, 1.1),
        power=1.0,
    ),
    Form(name="heavy tails and hitches", ranking="all cores", tails=True, correlated=0.97),
    Form(
        name="conditions both ways, wide priors, speeds 6 % off",
        ranking="one core",
        wide=0.55,
        speeds_off=0.06,
        both_ways=True,
    ),
    Form(name="memory that matters, various kits", ranking="price", kits=True, power=0.9),
)


class FormWorld(World):
    """A world of a form; every draw beyond the usual ones is its own."""

    def __init__(self, form: Form, seed: int, games: int = 24) -> None:
        self.form = form
        self.apart = np.random.default_rng(seed + 77_000)
        super().__init__(seed, games)
        off = np.sqrt(max(0.0, form.speeds_off**2 - 0.03**2))
        self.processors = [self._blurred(own, off) for own in self.processors]
        self.cards = [self._blurred(own, off) for own in self.cards]
        self.price_c = self.true_c.mean(axis=1) * np.exp(self.apart.normal(0, 0.12, 40))
        self.price_g = self.true_g[:, 0] * np.exp(self.apart.normal(0, 0.08, 40))

    def _blurred(self, own, off):
        factors = np.exp(self.apart.normal(0, off, len(own.speeds))) if off else np.ones(3)
        speeds = tuple(
            float(speed * factor) for speed, factor in zip(own.speeds, factors, strict=False)
        )
        return replace(own, speeds=speeds, sd=self.form.speeds_off)

    def true_game(self, known: Game, c_sd: float = 0.4) -> TrueGame:
        game = super().true_game(known, self.form.wide)
        power = float(self.apart.normal(self.form.power, 0.04))
        if self.form.tails:
            v_c, v_g = self.apart.uniform(0.12, 0.4), self.apart.uniform(0.05, 0.2)
            return replace(
                game,
                power=power,
                v_c=v_c,
                v_g=v_g,
                frames_c=self._tailed(v_c),
                frames_g=self._tailed(v_g),
            )
        return replace(game, power=power)

    def _tailed(self, variation: float):
        """Correlated frame times with the tails of Student's t, and some hitches."""
        rho = self.form.correlated
        shocks = self.apart.standard_t(4, FRAMES) / np.sqrt(2) * np.sqrt(1 - rho**2)
        noise = lfilter([1.0], [1.0, -rho], shocks)
        noise += self.apart.standard_t(4, FRAMES) / np.sqrt(2) * 0.3
        s = np.sqrt(np.log1p(variation**2))
        series = np.exp(np.clip(s * noise, -2, 2))
        hitch = self.apart.random(FRAMES) < 0.006
        series[hitch] *= self.apart.uniform(2, 5, int(hitch.sum()))
        return np.asarray(series / series.mean())

    def side_ms(self, game, p, g, size, preset):
        t_c, t_g = super().side_ms(game, p, g, size if size != SMALL else SIZES[0], preset)
        if size == SMALL:
            small = 1280 * 720 / 1e6 / 2.0736
            t_g *= game.phi + (1 - game.phi) * small**game.power
        return t_c, t_g

    def rates(self, game, p, g, size, preset):
        if not self.form.kits:
            return super().rates(game, p, g, size, preset)
        factor = float(self.apart.choice(KITS))
        return super().rates(replace(game, c=game.c * factor), p, g, size, preset)

    def question(self):
        """Any processor beside any card."""
        return (
            int(self.rng.integers(len(self.processors))),
            int(self.rng.integers(len(self.cards))),
            SIZES[int(self.rng.choice(3, p=[0.5, 0.35, 0.15]))],
            PRESETS[int(self.rng.choice(4, p=[0.15, 0.2, 0.45, 0.2]))],
        )

    def published(self, game: TrueGame, stated: bool) -> Published:
        tiers = []
        for label in ("Minimum", "Recommended"):
            size, preset, fps = self._conditions(label)
            margin = self.apart.uniform(*self.form.margins)
            chips, cards = self._named(game, size, preset, 1000 / fps / margin)
            conditions = (
                {"width_px": size[0], "height_px": size[1], "preset": preset, "fps": fps}
                if stated
                else {}
            )
            tiers.append(
                Tier(
                    label=label,
                    processors=tuple(Listed(text=f"Processor {n}", part=f"p{n}") for n in chips),
                    graphics=tuple(Listed(text=f"Card {n}", part=f"g{n}@8") for n in cards),
                    **conditions,
                )
            )
        return Published(game=game.game.id, tiers=tuple(tiers))

    def _conditions(self, label: str):
        draw = self.apart
        size, preset, fps = SIZES[0], "low" if label == "Minimum" else "high", 30.0
        fps = 30.0 if label == "Minimum" else 60.0
        if not self.form.both_ways:
            if draw.random() < 0.3:
                preset = PRESETS[min(3, PRESETS.index(preset) + int(draw.integers(0, 2)))]
                size = SIZES[int(draw.integers(0, 2))] if label == "Recommended" else size
                fps = float(draw.choice([30.0, 45.0, 60.0])) if label == "Minimum" else fps
        elif draw.random() < 0.5:
            place = PRESETS.index(preset) + int(draw.integers(-1, 2))
            preset = PRESETS[int(np.clip(place, 0, 3))]
            size = (SMALL, SIZES[0], SIZES[1])[int(draw.integers(0, 3))]
            fps = float(draw.choice([30.0, 40.0, 60.0, 75.0]))
        return size, preset, fps

    def _named(self, game, size, preset, budget_ms):
        """The two lowest in the publisher's ranking that suffice; one list in ten is careless."""
        orders = {
            "one core": (self.true_c[:, 0], self.true_g[:, 0]),
            "all cores": (self.true_c[:, 1], self.true_g[:, 0]),
            "price": (self.price_c, self.price_g),
        }[self.form.ranking]
        named = []
        for side, (order, count) in enumerate(
            zip(orders, (len(self.processors), len(self.cards)), strict=True)
        ):
            times = [
                self.side_ms(game, *((n, 0) if side == 0 else (0, n)), size, preset)[side]
                for n in range(count)
            ]
            ranked = np.argsort(order)
            enough = [int(n) for n in ranked if times[n] <= budget_ms] or [int(ranked[-1])]
            named.append(enough[:2])
        if self.apart.random() < 0.1:
            named[1][0] = int(np.clip(named[1][0] + self.apart.choice([-5, 5]), 0, 39))
        return named
