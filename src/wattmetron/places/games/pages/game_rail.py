"""The rail of a game: where its tiers stand on one scale, as a drawing."""

from collections.abc import Mapping

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.speeds.blend import graphics_ln, processor_ln
from wattmetron.core.values.published import SIDES, Side
from wattmetron.drawing.rails import Band, Marker, Rail, Tick
from wattmetron.places.games.library import GameFacts
from wattmetron.words.tier_words import tier_label

Odd = Mapping[tuple[int, Side | None, int | None], str]


def rail_of(catalogue: Catalogue, facts: GameFacts, side: Side, odd: Odd) -> Rail:
    bars = tiers_of(catalogue).sides[side]
    ticks, bands = [], []
    gaps = {item.row.position: item.gap for item in facts.informed.items if item.side == side}
    for n, row in enumerate(facts.rows):
        for bar in bars.of_row(row):
            entry = bars.entries[bar]
            stands_out = odd.get((n, side, entry.position), "") == "out of line"
            speeds = tiers_of(catalogue).speeds(side, entry.meant, np.full(len(entry.meant), row))
            ticks += [
                Tick(float(ln), standing.name, stands_out, entry.listed.excluded)
                for ln, standing in zip(speeds, entry.meant, strict=True)
                if np.isfinite(ln)
            ]
        if np.isfinite(bars.bar[row]):
            bands.append(Band(float(bars.bar[row]), gaps.get(n, 0.05), n))
    return Rail(tuple(ticks), tuple(bands), _marker(catalogue, facts, side))


def _marker(catalogue: Catalogue, facts: GameFacts, side: Side) -> Marker | None:
    """The machine's speed as the first tier sees it."""
    contender = facts.contender
    if contender is None:
        return None
    if side == "processor":
        if contender.processor is None:
            return None
        ln = float(
            processor_ln(contender.processor[0], contender.processor[1], facts.game.parallel_share)
        )
        return Marker(ln, contender.processor_sd, contender.processor_name)
    if contender.graphics is None or not len(facts.rows):
        return None
    row = facts.rows[0]
    ln = float(
        graphics_ln(
            np.array([contender.graphics]),
            np.array([np.nan]),
            tiers_of(catalogue).rendered_mpx[row : row + 1],
            np.zeros(1),
        )[0]
    )
    return Marker(ln, contender.graphics_sd, contender.graphics_name)


def rail_label(catalogue: Catalogue, facts: GameFacts) -> str:
    """The chart in words."""
    sentences = []
    for n, row in enumerate(facts.rows):
        bars = [float(tiers_of(catalogue).sides[side].bar[row]) for side in SIDES]
        points = [
            f"{side} {np.exp(bar):.0f}"
            for side, bar in zip(SIDES, bars, strict=True)
            if not np.isnan(bar)
        ]
        sentences.append(
            f"{tier_label(tiers_of(catalogue).rows[row].tier.label, n)} asks for"
            f" {', '.join(points) or 'nothing placed'}"
        )
    contender = facts.contender
    if contender is not None:
        names = [name for name in (contender.processor_name, contender.graphics_name) if name]
        sentences.append(f"measured against {' and '.join(names)}")
    return f"{facts.game.name} on the scale of speeds, reference part at 100: " + "; ".join(
        sentences
    )
