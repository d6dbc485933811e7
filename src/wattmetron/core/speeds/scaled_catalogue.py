"""The catalogue with the speeds that its charts give: parts as described, moved to where all
sources put them.
"""

from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.speeds.reconcile import SpeedPrior, reconcile
from wattmetron.core.speeds.speed_scale import Scale, Standing, scale_of
from wattmetron.core.values import amounts
from wattmetron.core.values.charts import MEASURES, PROCESSOR_MEASURES, Chart, Measure, Reconciled
from wattmetron.core.values.parts import Graphics, Part, Processor
from wattmetron.core.values.published import NamedPart

LEAST_SD = 0.004
"""In ln: no speed counts as exact, however many sources agree on it."""
MOST_SD = 0.3
SD_STEP = 0.0025
"""Spreads are kept to a quarter of a per cent, so that parts share the tables of reliable rates."""


def known_speeds(scale: Scale, measure: Measure) -> dict[str, SpeedPrior]:
    """What the catalogue says of every standing in one measure, by key."""
    return {
        standing.key: SpeedPrior(float(np.log(speed)), max(sd, LEAST_SD))
        for standing in scale.standings.values()
        if standing.placed is None and (speeds := speed_of(standing, measure)) is not None
        for speed, sd in [speeds]
    }


def speed_of(standing: Standing, measure: Measure) -> tuple[float, float] | None:
    """A standing's speed in points and its spread in a measure; None where it has none."""
    if (measure in PROCESSOR_MEASURES) != (standing.side == "processor"):
        return None
    if measure == "ray tracing":
        return (
            None if not standing.ray_speed else (standing.ray_speed, standing.ray_sd or standing.sd)
        )
    position = {"one core": 0, "all cores": 1, "1080p": 0, "1440p": 1, "2160p": 2}[measure]
    return standing.speeds[position], standing.sd


def reconciled(scale: Scale, charts: Mapping[str, Chart]) -> dict[Measure, Reconciled]:
    """The scale of every measure from what the catalogue says and its charts."""
    return {
        measure: reconcile(
            known_speeds(scale, measure),
            [chart for chart in charts.values() if chart.measure == measure],
        )
        for measure in MEASURES
    }


def settled(catalogue: Catalogue) -> Catalogue:
    """The catalogue with its parts where the charts put them; itself where it has no chart in
    use.
    """
    if not any(not chart.muted for chart in catalogue.charts.values()):
        return catalogue
    scale = scale_of(catalogue)
    fits = reconciled(scale, catalogue.charts)
    parts: dict[str, Part] = {}
    for part_id, part in catalogue.parts.items():
        key = scale.of_part.get(part_id)
        if key is not None and isinstance(part, (Processor, Graphics)):
            part = _moved(part, scale.standings[key], fits)
        parts[part_id] = part
    named = {**_named(catalogue, scale, fits), **catalogue.named}
    return replace(catalogue, parts=parts, raw=catalogue, fits=fits, named=named)


def _named(
    catalogue: Catalogue, scale: Scale, fits: Mapping[Measure, Reconciled]
) -> dict[str, NamedPart]:
    """Parts that only charts know, placed by their speed in the first measure of their side."""
    texts = {row.part: row.text for chart in catalogue.charts.values() for row in chart.rows}
    placed = {}
    for measure, side in (("one core", "processor"), ("1080p", "graphics")):
        fit = fits[measure]  # type: ignore[index]
        bases = [standing for standing in scale.of(side) if standing.key in fit.ln]  # type: ignore[arg-type]
        for key, ln in fit.ln.items():
            if key in scale.standings or not bases:
                continue
            base = min(bases, key=lambda standing: (abs(fit.ln[standing.key] - ln), standing.key))
            placed[key] = NamedPart(
                id=key,
                side=side,  # type: ignore[arg-type]
                name=texts[key],
                memory_gb=(
                    None
                    if (amount := amounts.AMOUNT.search(texts[key])) is None
                    else amounts.gigabytes(amount)
                ),
                than=base.key,
                percent=float(np.expm1(ln - fit.ln[base.key])) * 100,
                speed_sd=min(0.5, fit.sd[key]),
            )
    return placed


def _moved(
    part: Processor | Graphics, standing: Standing, fits: Mapping[Measure, Reconciled]
) -> Part:
    """A part moved by as much as its standing moved in each measure."""

    def factor(measure: Measure) -> float:
        before = speed_of(standing, measure)
        if before is None or standing.key not in fits[measure].ln:
            return 1.0
        return float(np.exp(fits[measure].ln[standing.key])) / before[0]

    def sd(*measures: Measure) -> float:
        spreads = [
            fits[measure].sd[standing.key]
            for measure in measures
            if standing.key in fits[measure].sd
        ]
        if not spreads:
            return 0.0
        steps = max(1, round(float(np.sqrt(np.mean(np.square(spreads)))) / SD_STEP))
        return min(MOST_SD, round(steps * SD_STEP, 4))

    if isinstance(part, Processor):
        return replace(
            part,
            single_speed=part.single_speed * factor("one core"),
            all_core_speed=part.all_core_speed * factor("all cores"),
            speed_sd=sd("one core", "all cores"),
        )
    return replace(
        part,
        speed_1080p=part.speed_1080p * factor("1080p"),
        speed_1440p=None if part.speed_1440p is None else part.speed_1440p * factor("1440p"),
        speed_2160p=None if part.speed_2160p is None else part.speed_2160p * factor("2160p"),
        speed_sd=sd("1080p", "1440p", "2160p"),
        ray_speed=None if part.ray_speed is None else part.ray_speed * factor("ray tracing"),
        ray_speed_sd=sd("ray tracing") if part.ray_speed is not None else part.ray_speed_sd,
    )
