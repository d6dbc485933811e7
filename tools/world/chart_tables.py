"""Charts of the made-up world: who measured what, in which unit, and how well."""

import random

from tools.world.part_tables import slug
from tools.world.tables import items, rows
from wattmetron.core.speeds.scaled_catalogue import speed_of
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.values.charts import MEASURES, Chart, ChartRow
from wattmetron.core.values.parts import Part

SEED = 20261122
SLIP = 1.22
"""By how much a source is off at the one part where it slipped."""


def charts(parts: dict[str, Part]) -> dict[str, Chart]:
    """What sources of the made-up world measured, around the true speeds."""
    draw = random.Random(SEED)
    scale = Scale(parts.values(), {})
    truths: dict[tuple[str, str], float] = {
        (key, measure): speeds[0]
        for key, standing in scale.standings.items()
        for measure in MEASURES
        if (speeds := speed_of(standing, measure)) is not None
    }
    charts: dict[str, Chart] = {}
    for row in rows("charts"):
        measured = [
            ChartRow(
                text=scale.standings[key].name.replace("\u00a0", " "),
                part=key,
                value=round(
                    truths[key, row.measure]
                    * row.unit_per_point
                    * draw.gauss(1, row.noise)
                    * (SLIP if key == row.part_with_slip else 1),
                    1,
                ),
            )
            for key in items(row.parts)
        ]
        charts[row.id] = Chart(
            id=row.id,
            name=row.source,
            measure=row.measure,
            unit=row.unit,
            published_on=row.published_on,
            rows=tuple(measured),
        )
    return charts | loose_charts()


def loose_charts() -> dict[str, Chart]:
    """Charts of parts that the catalogue lacks."""
    charts: dict[str, Chart] = {}
    for row in rows("loose_charts"):
        earlier = charts[row.id].rows if row.id in charts else ()
        part = slug("named", "graphics", row.part)
        charts[row.id] = Chart(
            id=row.id,
            name=row.source,
            measure=row.measure,
            published_on=row.published_on,
            rows=(*earlier, ChartRow(text=row.part, part=part, value=row.value)),
        )
    return charts
