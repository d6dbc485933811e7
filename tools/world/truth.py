"""A world whose truth is known: hidden speeds and games that differ in form from the model, frames
simulated one by one, and what such a world would publish.

Wilder than the model on purpose: speeds are published 3 % off; each game takes to each design in
its own way (5 % on processors, 6 % on graphics); presets are 12 % off their priors; work grows with
a power of the pixels; frame times are correlated from frame to frame and hitch now and then; tiers
name the weakest parts on sale that suffice with a margin of 0.9 to 1.3, some under other conditions
than convention assumes, some carelessly.
"""

from dataclasses import dataclass, replace
from typing import cast

import numpy as np
from numpy.typing import NDArray
from scipy.signal import lfilter

from wattmetron.core.game_fit.priors import GENRES, PRESET_PRIORS, unknown_game
from wattmetron.core.speeds.speed_scale import Standing
from wattmetron.core.values.games import Game, PresetName
from wattmetron.core.values.published import Listed, Published, Side, Tier
from wattmetron.core.values.results import Result
from wattmetron.demo.true_work import PRESETS as PRESET_NAMES
from wattmetron.demo.true_work import SIZES, TrueWork

Floats = NDArray[np.float64]
FRAMES = 12_000
CORRELATION, HITCHES = 0.9, 0.002
PRESETS = cast(tuple[PresetName, ...], PRESET_NAMES)


@dataclass(frozen=True, kw_only=True)
class TrueGame(TrueWork):
    """A game as it really is, with the frame times of both sides around a mean of one."""

    game: Game
    frames_c: Floats
    frames_g: Floats


@dataclass(frozen=True, kw_only=True)
class HiddenMarket:
    """Parts as they are published, with their true speeds and the number of each one's design."""

    processors: list[Standing]
    cards: list[Standing]
    true_c: Floats
    true_g: Floats
    design_c: NDArray[np.int64]
    design_g: NDArray[np.int64]


class World:
    """Hidden truths and what is published about them."""

    def __init__(self, seed: int, games: int = 24, processors: int = 40, cards: int = 40) -> None:
        self.rng = np.random.default_rng(seed)
        self.take(drawn_market(self.rng, processors, cards))
        self.games = [self.true_game(known) for known in some_games(games)]

    @classmethod
    def of(cls, seed: int, market: HiddenMarket) -> "World":
        """A world of parts that are there already, without games yet."""
        world = cls(seed, 0, 1, 1)
        world.take(market)
        return world

    def take(self, market: HiddenMarket) -> None:
        self.processors, self.cards = market.processors, market.cards
        self.true_c, self.true_g = market.true_c, market.true_g
        self.design_c, self.design_g = market.design_c, market.design_g

    def true_game(self, known: Game, c_sd: float = 0.4) -> TrueGame:
        """A game around what is known of it; its work is off by ``c_sd`` in ln."""
        draw = self.rng
        factors = {name: (u, w) for name, u, w, _ in PRESET_PRIORS}
        wild = {
            name: np.exp(draw.normal(0, 0.12, 2)) if name != "high" else np.ones(2)
            for name in PRESETS
        }
        u = np.maximum.accumulate([factors[name][0] * wild[name][0] ** 0.3 for name in PRESETS])
        w = np.maximum.accumulate([factors[name][1] * wild[name][1] for name in PRESETS])
        v_c, v_g = draw.uniform(0.1, 0.25), draw.uniform(0.04, 0.12)
        apart = np.random.default_rng(len(known.id) + round(1e6 * v_c))
        return TrueGame(
            game=known,
            c=float(known.processor_ms * np.exp(draw.normal(0, c_sd))),
            g=float(known.graphics_ms * np.exp(draw.normal(0, c_sd))),
            pi=float(np.clip(draw.normal(known.parallel_share, 0.05), 0.02, 0.8)),
            phi=float(np.clip(draw.normal(known.fixed_share, 0.05), 0.05, 0.6)),
            power=float(draw.normal(0.95, 0.04)),
            u=dict(zip(PRESETS, (u / u[2]).tolist(), strict=True)),
            w=dict(zip(PRESETS, (w / w[2]).tolist(), strict=True)),
            v_c=float(v_c),
            v_g=float(v_g),
            likes_c=tuple(np.exp(draw.normal(0, 0.05, int(self.design_c.max()) + 1)).tolist()),
            likes_g=tuple(np.exp(draw.normal(0, 0.06, int(self.design_g.max()) + 1)).tolist()),
            frames_c=self._series(v_c),
            frames_g=self._series(v_g),
            threads=int(known.threads_used * apart.choice([0.75, 1.0, 1.0, 1.5])),
            crowding=float(apart.uniform(0.35, 0.65)),
        )

    def _series(self, variation: float) -> Floats:
        """Frame times around a mean of one: correlated lognormals with hitches."""
        shocks = self.rng.normal(size=FRAMES) * np.sqrt(1 - CORRELATION**2)
        noise = lfilter([1.0], [1.0, -CORRELATION], shocks)
        s = np.sqrt(np.log1p(variation**2))
        series = np.exp(s * noise - s**2 / 2)
        hitch = self.rng.random(FRAMES) < HITCHES
        series[hitch] *= self.rng.uniform(2, 4, int(hitch.sum()))
        return np.asarray(series / series.mean())

    # --- the truth
    # ----------------------------------------------------------------------------------

    def side_ms(
        self, game: TrueGame, p: int, g: int, size: tuple[int, int], preset: str
    ) -> tuple[float, float]:
        """True mean times of both sides in ms."""
        single, all_core = self.true_c[p]
        speed = self.true_g[g][SIZES.index(size)]
        return (
            float(game.processor_ms((single, all_core), self.design_c[p], preset)),
            float(game.graphics_ms(speed, self.design_g[g], size, preset)),
        )

    def rates(
        self, game: TrueGame, p: int, g: int, size: tuple[int, int], preset: str
    ) -> tuple[float, float, float]:
        """Average fps, 1 % low and share of frames that the processor limits, frame by frame."""
        t_c, t_g = self.side_ms(game, p, g, size, preset)
        first, second = t_c * self._crowded(game, p), t_g * game.frames_g
        frames = np.maximum(first, second)
        return (
            1000 / float(frames.mean()),
            1000 / float(np.percentile(frames, 99)),
            float((first > second).mean()),
        )

    def _crowded(self, game: TrueGame, p: int) -> Floats:
        """The processor's frame times around a mean of one, wider where threads must share."""
        threads = self.processors[p].threads
        if threads is None or threads >= game.threads:
            return game.frames_c
        series = game.frames_c ** ((game.threads / threads) ** game.crowding)
        return np.asarray(series / series.mean())

    # --- what is published
    # --------------------------------------------------------------------------

    def published(self, game: TrueGame, stated: bool) -> Published:
        """Minimum and recommended tiers, with their conditions or without."""
        draw = self.rng
        usual = {
            "Minimum": ((1920, 1080), "low", 30.0),
            "Recommended": ((1920, 1080), "high", 60.0),
        }
        tiers = []
        for label, (size, preset, fps) in usual.items():
            if draw.random() < 0.3:
                preset = PRESETS[min(3, PRESETS.index(preset) + int(draw.integers(0, 2)))]
                fps = float(draw.choice([30.0, 45.0, 60.0])) if label == "Minimum" else 60.0
                size = SIZES[int(draw.integers(0, 2))] if label == "Recommended" else size
            margin = draw.uniform(0.9, 1.3)
            processors, cards = self._sufficient(game, size, preset, fps, margin)
            if draw.random() < 0.1:
                cards = [
                    int(np.clip(cards[0] + draw.choice([-5, 5]), 0, len(self.cards) - 1)),
                    *cards[1:],
                ]
            conditions = (
                {"width_px": size[0], "height_px": size[1], "preset": preset, "fps": fps}
                if stated
                else {}
            )
            tiers.append(
                Tier(
                    label=label,
                    processors=tuple(
                        Listed(text=f"Processor {n}", part=f"p{n}") for n in processors
                    ),
                    graphics=tuple(Listed(text=f"Card {n}", part=f"g{n}@8") for n in cards),
                    **conditions,
                )
            )
        return Published(game=game.game.id, tiers=tuple(tiers))

    def _sufficient(
        self, game: TrueGame, size: tuple[int, int], preset: str, fps: float, margin: float
    ) -> tuple[list[int], list[int]]:
        """The two weakest parts on the market of either side that suffice with a margin; the
        strongest where none does.
        """
        budget = 1000 / fps / margin
        times = [self.side_ms(game, n, 0, size, preset)[0] for n in range(len(self.processors))]
        draws = [self.side_ms(game, 0, n, size, preset)[1] for n in range(len(self.cards))]
        sufficient = []
        for side in (times, draws):
            order = sorted(range(len(side)), key=lambda n: -side[n])
            enough = [n for n in order if side[n] <= budget] or order[-1:]
            sufficient.append(enough[:2])
        return sufficient[0], sufficient[1]

    def result(
        self,
        game: TrueGame,
        p: int,
        g: int,
        size: tuple[int, int],
        preset: PresetName,
        number: int,
        own: bool = False,
    ) -> Result:
        """A published result, 5 % off and one in twenty wrong; an own run is 1.5 % off."""
        average, low, _ = self.rates(game, p, g, size, preset)
        error = self.rng.normal(0, 0.015 if own else 0.05)
        ratio = self._side_ratio(game, p, g, size, preset) if own else None
        if not own and self.rng.random() < 0.05:
            error += float(self.rng.choice([-0.4, 0.4]))
        return Result(
            id=f"r{number}",
            processor=self.processors[p].key,
            graphics=self.cards[g].key,
            width_px=size[0],
            height_px=size[1],
            preset=preset,
            average_fps=average * float(np.exp(error)),
            low_fps=low * float(np.exp(error + self.rng.normal(0, 0.03))),
            own=own,
            side_ratio=ratio,
            side_ratio_sd=0.05 if own else None,
        )

    def _side_ratio(
        self, game: TrueGame, p: int, g: int, size: tuple[int, int], preset: str
    ) -> float:
        """The processor's median time a frame over the graphics', as a logger that tells both
        measures it: 3 % off.
        """
        t_c, t_g = self.side_ms(game, p, g, size, preset)
        first, second = np.median(t_c * self._crowded(game, p)), np.median(t_g * game.frames_g)
        return float(first / second * np.exp(self.rng.normal(0, 0.03)))

    def question(self) -> tuple[int, int, tuple[int, int], PresetName]:
        """A pairing and settings as people ask: no card beside a processor of another age, no ultra
        at full size on little.
        """
        p = int(self.rng.integers(len(self.processors)))
        near = np.argsort(np.abs(np.log(self.true_g[:, 0]) - np.log(self.true_c[p][0])))
        g = int(near[int(self.rng.integers(max(1, len(near) * 2 // 3)))])
        return (
            p,
            g,
            SIZES[int(self.rng.choice(3, p=[0.5, 0.35, 0.15]))],
            PRESETS[int(self.rng.choice(4, p=[0.15, 0.2, 0.45, 0.2]))],
        )


def drawn_market(rng: np.random.Generator, processors: int, cards: int) -> HiddenMarket:
    """Parts of random speeds, published 3 % off, of four and five designs."""
    single = np.exp(rng.uniform(np.log(40), np.log(135), processors))
    true_c = np.stack([single, single * np.exp(rng.normal(-0.1, 0.35, processors))], axis=1)
    base = np.exp(rng.uniform(np.log(18), np.log(210), cards))
    falls = np.cumprod(
        np.stack([np.ones(cards), *(rng.normal(0.97, 0.03, cards) for _ in range(2))]), axis=0
    )
    true_g = (base * falls).T
    design_c, design_g = rng.integers(0, 4, processors), rng.integers(0, 5, cards)

    def standing(
        side: Side,
        key: str,
        name: str,
        speeds: Floats,
        memory_gb: float | None,
        design: str,
        threads: int | None = None,
    ) -> Standing:
        off = tuple(float(speed) for speed in speeds * np.exp(rng.normal(0, 0.03)))
        return Standing(
            key=key,
            side=side,
            name=name,
            speeds=off,
            sd=0.03,
            ray_speed=None,
            ray_sd=0.0,
            memory_gb=memory_gb,
            released=None,
            withdrawn=None,
            part_ids=(key.partition("@")[0],),
            design=design,
            threads=threads,
        )

    return HiddenMarket(
        processors=[
            standing(
                "processor",
                f"p{n}",
                f"Processor {n}",
                true_c[n],
                None,
                f"c{design_c[n]}",
                drawn_threads(true_c[n]),
            )
            for n in range(processors)
        ],
        cards=[
            standing("graphics", f"g{n}@8", f"Card {n}", true_g[n], 8.0, f"d{design_g[n]}")
            for n in range(cards)
        ],
        true_c=true_c,
        true_g=true_g,
        design_c=design_c,
        design_g=design_g,
    )


def drawn_threads(speeds: Floats) -> int:
    """Threads as the speed of all cores has them beside that of one: 4, 8, 12, 16."""
    ratio = float(speeds[1] / speeds[0])
    if ratio < 0.6:
        return 4
    if ratio < 0.85:
        return 8
    if ratio < 1.2:
        return 12
    return 16


def some_games(count: int) -> list[Game]:
    """Games of which nothing but the genre is known."""
    genres = list(GENRES)
    return [unknown_game(f"game-{n}", f"Game {n}", genres[n % len(genres)]) for n in range(count)]


def known_game(game: TrueGame) -> Game:
    """What anybody knows of a game: its genre's priors."""
    return replace(game.game, name=game.game.name)
