"""Targets as arrays over processors and cards, and the gain r that a pairing reaches in each."""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames import work
from wattmetron.core.frames.batch_estimate import LEAST_LN_RATIO, MOST_COUNTED
from wattmetron.core.frames.caps import JUST_SHORT, held_by_cap, most_shown, within_cap
from wattmetron.core.frames.estimate import State
from wattmetron.core.frames.memory_class import rated_bandwidth_gbs, rated_latency_ns
from wattmetron.core.frames.rate_table import ReliableTable, reliable_table
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.keep import Keep
from wattmetron.core.search.thresholds import ints
from wattmetron.core.speeds.speed_scale import anchors_of, variant_key
from wattmetron.core.values.affinity import UNSEEN, Affinity
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.games import Game
from wattmetron.core.values.parts import Graphics, Processor

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
MILLION = 1_000_000
TRIFLE = round(float(np.log(0.98)) * MILLION)
"""The change of ln r, in millionths, that counts as the same frames."""
SLACK = 5e-6
"""The tables' own error in ln, five times over: bounds are moved by it to stay bounds."""


class TargetFloor(NamedTuple):
    """What a target must not fall under: ln r of the present machine in millionths, and its
    state.
    """

    gain: int
    state: State

    @property
    def floor(self) -> int:
        return max(0, self.gain + TRIFLE) if self.state == "meets" else self.gain + TRIFLE


@dataclass(frozen=True, kw_only=True)
class DrawnSide:
    """Graphics figures of one target for n parts; times in ms on the own link, without spill.

    ``kin`` says, as a column of the covariances, what the game's results told about each part;
    ``ln_shown`` is ln of the frames shown to each drawn one; where ``held`` a cap keeps the frames
    under the target's rate.
    """

    raster_ms: Floats
    ray_ms: Floats
    over_gb: Floats
    speed_sd: Floats
    ray_sd: Floats
    unsure: work.Unsure
    kin: Ints
    ln_shown: Floats
    keeps_frames: NDArray[np.bool_]


@dataclass(frozen=True, kw_only=True)
class Pairing:
    """Flat, equally long arrays of what a target's gain depends on."""

    processor: Ints
    latency_ns: Floats
    bandwidth_gbs: Floats
    drawing: Ints
    link_gbs: Floats
    scale: Floats
    video_memory_gb: Floats | None = None


class ProcessorFigures:
    """Rated memory and speeds of all processors as arrays."""

    def __init__(self, chips: tuple[Processor, ...]) -> None:
        self.rated_latency = np.array([rated_latency_ns(chip) for chip in chips])
        self.rated_bandwidth = np.array([rated_bandwidth_gbs(chip) for chip in chips])
        self.single = np.array([chip.single_speed for chip in chips])
        self.all_core = np.array([chip.all_core_speed for chip in chips])
        self.speed_sd = np.array([chip.speed_sd for chip in chips])


class LogTimes(NamedTuple):
    """Of drawn frames ln t of both sides, their standard deviations, and their covariance."""

    ln_c: Floats
    sd_c: Floats
    ln_g: Floats
    sd_g: Floats
    covariance: Floats


class TargetSide:
    """One target over all processors and cards (or integrated graphics)."""

    def __init__(
        self,
        keep: Keep,
        brief: Brief,
        target: Target,
        game: Game,
        chips: tuple[Processor, ...],
        figures: ProcessorFigures,
        cards: tuple[Graphics, ...],
        chance: float | None = None,
    ) -> None:
        self.weight = self.met_weight = target.weight
        self.floor = 0
        chance = brief.chance if chance is None else chance
        self.can_be_met = within_cap(game, target, most_shown(game, target))
        ratio = max(1.0, min(MOST_COUNTED, brief.display.refresh_hz / target.fps))
        self.most = round(float(np.log(ratio)) * MILLION)
        self.ln_budget_ms = float(np.log(1000 / target.fps))
        self._figures = figures
        self.load = work.workload(game, target)
        self._own_link_gbs = work.link_gbs(
            ints(card.pcie_gen for card in cards), ints(card.pcie_lanes for card in cards)
        )
        self._set_processors(game, target, chips)
        continuous = self.load.ray_ms_per_mpx > 0 or brief.accept_spill
        self.v_c = np.array([game.variation_on(chip.threads) for chip in chips])
        different, self._table_of = np.unique(self.v_c, return_inverse=True)
        self.tables: list[ReliableTable] = [
            reliable_table(keep, v_c, self.load.v_g, target.measure, chance, continuous)
            for v_c in different.tolist()
        ]
        self.cards = self._drawing(
            game,
            target,
            [anchors_of(card) for card in cards],
            [card.ray_speed or None for card in cards],
            [card.speed_sd for card in cards],
            [card.ray_speed_sd for card in cards],
            [card.memory_gb for card in cards],
            [work.drawn(game, target, card.upscalers, card.generators) for card in cards],
            [
                game.affinity("graphics", variant_key(card.chip, card.memory_gb), card.design)
                for card in cards
            ],
        )
        self.integrated = self._drawing(
            game,
            target,
            [(chip.igpu_speed or 1.0,) * 3 for chip in chips],
            [None] * len(chips),
            [chip.speed_sd for chip in chips],
            [0.0] * len(chips),
            [0.0] * len(chips),
            [work.drawn(game, target, chip.igpu_upscalers, ()) for chip in chips],
            [UNSEEN] * len(chips),
        )
        self.cov = np.array(
            [
                [
                    work.workload(game, target, work.PLAIN, chip, card).side_cov
                    for card in self._cards_seen
                ]
                for chip in self._chips_seen
            ]
        )

    def _set_processors(self, game: Game, target: Target, chips: tuple[Processor, ...]) -> None:
        """Times on rated memory and spreads of all processors."""
        known = [game.affinity("processor", chip.id, chip.design) for chip in chips]
        self._chips_seen = list(dict.fromkeys(known)) or [UNSEEN]
        self._cards_seen: list[Affinity] = [UNSEEN]
        self.kin = np.array(
            [self._chips_seen.index(affinity) for affinity in known], dtype=np.int64
        )
        figures = self._figures
        self.base_ms, self.processor_sd = np.zeros(len(chips)), np.zeros(len(chips))
        for n, affinity in enumerate(self._chips_seen):
            load, pick = work.workload(game, target, work.PLAIN, affinity), self.kin == n
            self.base_ms[pick] = work.processor_ms(
                load, figures.single[pick], figures.all_core[pick]
            )
            self.processor_sd[pick] = work.processor_sd(load, figures.speed_sd[pick])

    def _drawing(
        self,
        game: Game,
        target: Target,
        anchors: list[tuple[float, ...]],
        ray: list[float | None],
        speed_sd: list[float],
        ray_sd: list[float],
        memory_gb: list[float],
        drawn: list[work.Rendering],
        known: list[Affinity],
    ) -> DrawnSide:
        n = len(anchors)
        raster, rays, over = np.zeros(n), np.zeros(n), np.zeros(n)
        spreads = np.zeros((3, n))
        self._cards_seen += [
            fromkey for fromkey in dict.fromkeys(known) if fromkey not in self._cards_seen
        ]
        kin = np.array([self._cards_seen.index(affinity) for affinity in known], dtype=np.int64)
        alike: dict[tuple[int, work.Rendering], list[int]] = {}
        for i, key in enumerate(zip(kin.tolist(), drawn, strict=True)):
            alike.setdefault(key, []).append(i)
        for (seen, how), members in alike.items():
            pick = np.array(members)
            load = work.workload(game, target, how, UNSEEN, self._cards_seen[seen])
            spreads[:, pick] = np.array(work.unsure(load), dtype=float)[:, None]
            q = np.array([np.nan if ray[i] is None else ray[i] for i in pick], dtype=float)
            made = work.graphics_work(load, np.array([anchors[i] for i in pick]), q, np.inf, 1.0)
            raster[pick] = made.shading_ms
            rays[pick] = made.ray_ms
            over[pick] = np.maximum(
                0.0, load.video_memory_gb - np.array([memory_gb[i] for i in pick])
            )
        return DrawnSide(
            raster_ms=raster,
            ray_ms=rays,
            over_gb=over,
            speed_sd=np.array(speed_sd),
            ray_sd=np.array(ray_sd),
            unsure=work.Unsure(*spreads),
            kin=kin,
            ln_shown=np.log([float(how.shown_per_drawn) for how in drawn]),
            keeps_frames=np.array(
                [held_by_cap(game, target, how.shown_per_drawn) for how in drawn], dtype=bool
            ),
        )

    def times(self, pairing: Pairing, integrated: bool) -> LogTimes:
        """The times of drawn frames for every pairing."""
        c, figures = pairing.processor, self._figures
        factor = work.memory_factor(
            self.load.memory_sensitivity,
            pairing.latency_ns,
            pairing.bandwidth_gbs,
            figures.rated_latency[c],
            figures.rated_bandwidth[c],
        )
        side = self.integrated if integrated else self.cards
        g = pairing.drawing
        over = side.over_gb[g]
        if pairing.video_memory_gb is not None:
            over = np.maximum(0.0, over - pairing.video_memory_gb)
        spill = 1000 * self.load.spill_share * over / pairing.link_gbs
        zero = np.zeros_like(spill)
        crossing = (
            zero
            if integrated
            else work.link_ms(self.load.link_mb, pairing.link_gbs, self._own_link_gbs[g])
        )
        made = work.GraphicsWork(
            side.raster_ms[g] / pairing.scale, side.ray_ms[g], zero, zero, spill, crossing
        )
        open_ones = work.Unsure(*(np.asarray(item)[g] for item in side.unsure))
        sd_g = work.graphics_sd(open_ones, made, side.speed_sd[g], side.ray_sd[g])
        cov = self.cov[self.kin[c], side.kin[g]]
        with np.errstate(divide="ignore"):
            return LogTimes(
                np.log(self.base_ms[c] * factor),
                self.processor_sd[c],
                np.log(made.total_ms),
                sd_g,
                cov,
            )

    def gain(self, pairing: Pairing, integrated: bool) -> Ints:
        """ln r in millionths: the reliable rate over the target's, within [ln 0.01, the most that
        counts].
        """
        times, table_of = self.times(pairing, integrated), self._table_of[pairing.processor]
        if len(self.tables) == 1:
            ln_f = self.tables[0].ln_quantile(*times)
        else:
            ln_f = np.empty(pairing.processor.size)
            for n in np.unique(table_of):
                index = table_of == n
                ln_f[index] = self.tables[n].ln_quantile(*(column[index] for column in times))
        return self.counted(self.ln_budget_ms - ln_f, pairing.drawing, integrated)

    def counted(self, log_ratio: Floats, drawing: Ints, integrated: bool) -> Ints:
        """ln r in millionths from that of the frames drawn: generated ones count, a cap that holds
        a part back keeps it short, and no more counts than does.
        """
        side = self.integrated if integrated else self.cards
        clipped = np.clip(log_ratio + side.ln_shown[drawing], LEAST_LN_RATIO, None)
        gain = np.minimum(np.rint(clipped * MILLION).astype(np.int64), self.most)
        return np.where(
            side.keeps_frames[drawing], np.minimum(gain, round(JUST_SHORT * MILLION)), gain
        )

    def alone(self, pairing: Pairing, integrated: bool) -> tuple[Floats, Floats]:
        """Upper bounds of ln r of drawn frames from either side alone: no machine outruns its
        slower side's quantile.
        """
        ln_c, sd_c, ln_g, sd_g, _ = self.times(pairing, integrated)
        if not self.tables:
            return np.zeros(0), np.zeros(0)
        table_of = self._table_of[pairing.processor]
        end_c = np.array([table.line.end_c for table in self.tables])[table_of]
        end_g = np.array([table.line.end_g for table in self.tables])[table_of]
        z = float(ndtri(self.tables[0].chance))
        return (
            np.asarray(self.ln_budget_ms - (ln_c + end_c + z * sd_c) + SLACK),
            np.asarray(self.ln_budget_ms - (ln_g + end_g + z * sd_g) + SLACK),
        )


class Targets:
    """All counted targets of a brief. Where ``held`` says for each what it must not fall under,
    that counts as met in the place of the rate wanted.
    """

    def __init__(
        self,
        catalogue: Catalogue,
        brief: Brief,
        chips: tuple[Processor, ...],
        cards: tuple[Graphics, ...],
        kept_floors: tuple[TargetFloor, ...] = (),
    ) -> None:
        self.figures = figures = ProcessorFigures(chips)

        def side(target: Target, chance: float | None = None) -> TargetSide:
            game = fitted_game(catalogue, target.game_id)
            return TargetSide(catalogue.keep, brief, target, game, chips, figures, cards, chance)

        self.sides = [side(target) for target in brief.counted_targets]
        self.weight = sum(target_side.weight for target_side in self.sides)
        for target_side, target, least in zip(
            list(self.sides), brief.counted_targets, kept_floors, strict=False
        ):
            target_side.floor, target_side.met_weight, target_side.can_be_met = least.floor, 1, True
            if least.state == "unsure":
                self.sides.append(_unsure(side(target, 1 - brief.chance)))
        self.met_weight = sum(target_side.met_weight for target_side in self.sides)

    def score(self, gains: list[Ints], size: int) -> tuple[Ints, Ints]:
        """Weight met and U (millionths) from the gains of every target, one array each."""
        met = np.zeros(size, dtype=np.int64)
        total = np.zeros(size, dtype=np.int64)
        for side, gain in zip(self.sides, gains, strict=True):
            total += side.weight * gain
            if side.can_be_met:
                met += np.where(gain >= side.floor, side.met_weight, 0)
        if not self.weight:
            return met, total
        return met, (2 * total + self.weight) // (2 * self.weight)

    def evaluate(self, pairing: Pairing, integrated: bool, slack: int = 0) -> tuple[Ints, Ints]:
        """Weight met and U of flat pairings; ``slack`` (millionths) is granted to every gain, up to
        what counts.
        """
        gains = [
            np.minimum(side.gain(pairing, integrated) + slack, side.most) for side in self.sides
        ]
        return self.score(gains, pairing.processor.size)

    @property
    def all_can_be_met(self) -> bool:
        return all(side.can_be_met for side in self.sides)


def _unsure(side: TargetSide) -> TargetSide:
    """A target that is to stay possible: at the chance below which it would be short."""
    side.weight, side.met_weight = 0, 1
    return side
