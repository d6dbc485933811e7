"""The page Scale: parts ranked by one measure, sources, disagreements, the chain behind a speed."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated
from urllib.parse import urlencode

import numpy as np
from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.frames.working import WorkingStep
from wattmetron.core.speeds.scaled_catalogue import known_speeds
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.charts import MEASURES, Measure, Reconciled, Source
from wattmetron.core.values.offers import ANY_PARTS
from wattmetron.drawing.scale_row import scale_row
from wattmetron.places.parts.charting import Z80, compare, fit_of, name_of, side_of
from wattmetron.shell.forms import Form, Short80, Short120, one_of, read
from wattmetron.words.figures import THIN, money

MEASURE_WORDS: dict[Measure, str] = {
    "one core": "processors, one busy core in games",
    "all cores": "processors, all cores busy",
    "1080p": "graphics at 1920x1080",
    "1440p": "graphics at 2560x1440",
    "2160p": "graphics at 3840x2160",
    "ray tracing": "graphics, ray tracing",
}


class ScaleQuery(Form):
    """The state of the page that lives in its address; unknown values are taken for nothing."""

    measure: Annotated[Measure, one_of(MEASURES, "1080p")] = "1080p"
    reference: Short120 = ""
    part: Short120 = ""
    first: Short120 = ""
    second: Short120 = ""
    words: Short80 = ""
    region: Short80 = ""

    def url(self, **changes: object) -> str:
        merged = self.model_dump() | changes
        query = {
            name: str(value)
            for name, value in merged.items()
            if value and (name, value) != ("measure", "1080p")
        }
        return "/parts/scale" + (f"?{urlencode(query)}" if query else "")


def read_scale_query(catalogue: Catalogue, params: Mapping[str, str]) -> ScaleQuery:
    """The query of an address; a region that the catalogue lacks is taken for none."""
    query = read(ScaleQuery, params)
    known = query.region in catalogue.regions
    return query if known else query.model_copy(update={"region": ""})


@dataclass(frozen=True, slots=True, kw_only=True)
class ScaleRow:
    """A part on the scale."""

    rank: int
    key: str
    name: str
    speed: str
    interval: str
    sources: int
    price: str
    chart: Markup
    only_charts: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class SourceRow:
    """A source: how far its values are off, how many it has."""

    id: str
    name: str
    unit: str
    day: str
    values: int
    noise: str
    muted: bool
    loose: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class LooseGroup:
    """Parts tied to nothing, and the comparison that would tie them in."""

    names: str
    part: str
    other: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ScalePage:
    """The page's content."""

    query: ScaleQuery
    rows: tuple[ScaleRow, ...]
    count: int
    reference: str
    sources: tuple[SourceRow, ...]
    disagreements: tuple[tuple[str, str], ...]
    loose: tuple[LooseGroup, ...]
    chain: tuple[str, tuple[WorkingStep, ...]] | None
    compared: str
    error: str
    regions: tuple[tuple[str, str], ...]
    names: tuple[tuple[str, str], ...]


def scale_page(catalogue: Catalogue, query: ScaleQuery) -> ScalePage:
    """Compute what the page shows."""
    fit = fit_of(catalogue, query.measure)
    reference = query.reference if query.reference in fit.ln else ""
    base = fit.ln[reference] if reference else float(np.log(100))
    order = sorted(fit.ln, key=lambda key: (-fit.ln[key], key))
    most = float(np.exp(fit.ln[order[0]] - base)) * 100 * 1.12 if order else 100.0
    rows = [
        _row(catalogue, fit, query, key, rank, base, most)
        for rank, key in enumerate(order, start=1)
    ]
    words = query.words.casefold().split()
    shown = [
        row
        for row in rows
        if all(word in row.name.casefold() for word in words) and (not query.region or row.price)
    ]
    compared, error = _compared(catalogue, fit, query)
    return ScalePage(
        query=query,
        rows=tuple(shown),
        count=len(order),
        reference=name_of(catalogue, reference) if reference else "",
        sources=tuple(_source(source) for source in fit.sources),
        disagreements=tuple(_disagreements(catalogue, fit)),
        loose=tuple(_loose(catalogue, fit)),
        chain=_chain(catalogue, fit, query.part, query.measure, base)
        if query.part in fit.ln
        else None,
        compared=compared,
        error=error,
        regions=tuple((region.id, region.name) for region in catalogue.regions.values()),
        names=tuple((key, name_of(catalogue, key)) for key in order),
    )


def _row(
    catalogue: Catalogue,
    fit: Reconciled,
    query: ScaleQuery,
    key: str,
    rank: int,
    base: float,
    most: float,
) -> ScaleRow:
    ln, sd = fit.ln[key] - base, fit.sd[key]
    speed, low, high = (float(np.exp(ln + z * sd)) * 100 for z in (0.0, -Z80, Z80))
    name = name_of(catalogue, key)
    sources = sum(
        any(row.part == key for row in source.chart.rows)
        for source in fit.sources
        if not source.chart.muted
    )
    standing = scale_of(catalogue).standings.get(key)
    return ScaleRow(
        rank=rank,
        key=key,
        name=name,
        speed=f"{speed:.1f}",
        interval=f"{low:.1f}–{high:.1f}",
        sources=sources,
        price=_price(catalogue, key, query.region or next(iter(catalogue.regions), "")),
        chart=scale_row(
            speed,
            low,
            high,
            most,
            side_of(query.measure) == "processor",
            f"{name}: {speed:.1f}, 80 % interval {low:.1f} to {high:.1f}",
        ),
        only_charts=standing is None or not standing.part_ids,
    )


def _price(catalogue: Catalogue, key: str, region: str) -> str:
    """The cheapest offer of a standing's parts, new or used; nothing where it cannot be bought."""
    standing = scale_of(catalogue).standings.get(key)
    if standing is None or not region:
        return ""
    book = catalogue.prices(region, ANY_PARTS)
    prices = [price for part_id in standing.part_ids if (price := book.cost(part_id)) is not None]
    return money(min(prices), book.currency) if prices else ""


def _source(source: Source) -> SourceRow:
    chart = source.chart
    day = f"{chart.published_on:%-d %b %Y}" if chart.published_on else ""
    noise = "" if chart.muted else f"±{source.noise * 100:.1f}{THIN}%"
    if chart.is_comparison:
        noise = "" if chart.muted else f"±{source.noise * np.sqrt(2) * 100:.1f}{THIN}%"
    return SourceRow(
        id=chart.id,
        name=chart.name,
        unit=chart.unit,
        day=day,
        values=len(chart.rows),
        noise=noise,
        muted=chart.muted,
        loose=not source.tied and not chart.muted,
    )


def _disagreements(catalogue: Catalogue, fit: Reconciled) -> list[tuple[str, str]]:
    """A sentence for each, with the chart's id."""
    return [
        (
            (
                f"{disagreement.chart.name} puts"
                f" {name_of(catalogue, disagreement.chart.rows[disagreement.position].part)}"
                f" {abs(np.expm1(disagreement.away)) * 100:.0f}{THIN}%"
                f" {'above' if disagreement.away > 0 else 'below'} where all sources together do,"
                f" {abs(disagreement.score):.1f} times its usual error; it counts"
                f" {disagreement.weight * 100:.0f}{THIN}%."
            ),
            disagreement.chart.id,
        )
        for disagreement in fit.disagreements[:10]
    ]


def _loose(catalogue: Catalogue, fit: Reconciled) -> list[LooseGroup]:
    """Groups tied to nothing: their names, and the comparison that would tie them in."""
    return [
        LooseGroup(
            names=", ".join(name_of(catalogue, key) for key in group),
            part=name_of(catalogue, key),
            other=name_of(catalogue, other),
        )
        for group, (key, other) in zip(fit.loose, fit.tie, strict=False)
    ]


def _chain(
    catalogue: Catalogue, fit: Reconciled, key: str, measure: Measure, base: float
) -> tuple[str, tuple[WorkingStep, ...]]:
    """What every source says of one part, brought to this scale."""
    steps = []
    known = known_speeds(scale_of(catalogue.described), measure).get(key)
    if known is not None:
        steps.append(
            WorkingStep(
                "The catalogue",
                f"{np.exp(known.ln):.1f} points",
                f"{np.exp(known.ln - base) * 100:.1f}",
                f"Known to ±{known.sd * 100:.1f}{THIN}%.",
            )
        )
    for source in fit.sources:
        for row in source.chart.rows:
            if row.part != key or source.chart.muted:
                continue
            brought = (
                float(np.exp(np.log(row.value) - source.offset - base)) * 100
                if source.tied
                else float("nan")
            )
            others = " and ".join(
                name_of(catalogue, other.part) for other in source.chart.rows if other.part != key
            )
            sentence = (
                f"compared with {others}"
                if source.chart.is_comparison
                else f"among {len(source.chart.rows)} parts"
            )
            day = f", {source.chart.published_on:%-d %b %Y}" if source.chart.published_on else ""
            steps.append(
                WorkingStep(
                    source.chart.name,
                    f"{row.value:g} {source.chart.unit} / {np.exp(source.offset):.3g} of that per"
                    " point",
                    f"{brought:.1f}",
                    f"{sentence}{day}; its values are off by ±{source.noise * 100:.1f}{THIN}%.",
                )
            )
    steps.append(
        WorkingStep(
            "All together",
            "weighted least squares in ln, weights by each source's fit",
            f"{np.exp(fit.ln[key] - base) * 100:.1f} ±{fit.sd[key] * 100:.1f}{THIN}%",
            "A value far from all others weighs little (Student's t, four degrees of freedom).",
        )
    )
    return name_of(catalogue, key), tuple(steps)


def _compared(catalogue: Catalogue, fit: Reconciled, query: ScaleQuery) -> tuple[str, str]:
    if not query.first or not query.second:
        return "", ""
    try:
        return (
            compare(catalogue, fit, query.first, query.second, side_of(query.measure)).sentence,
            "",
        )
    except WattmetronError as error:
        return "", str(error)
