"""Charts: speeds of several parts in one source's own unit, and single comparisons of two parts."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Literal

from annotated_types import Ge, Le

from wattmetron.core.values.fields import LEAST, Column

Measure = Literal["one core", "all cores", "1080p", "1440p", "2160p", "ray tracing"]
MEASURES: tuple[Measure, ...] = ("one core", "all cores", "1080p", "1440p", "2160p", "ray tracing")
PROCESSOR_MEASURES: tuple[Measure, ...] = ("one core", "all cores")


@dataclass(frozen=True, slots=True, kw_only=True)
class ChartRow:
    """One part of a chart with its value in the chart's own unit."""

    text: Annotated[str, Column("As the source names it")]
    part: Annotated[
        str,
        Column(
            "Processor id, or graphics chip with its memory as in nacre-reef@8; a name of its own"
            " where the catalogue lacks it"
        ),
    ]
    value: Annotated[
        float, Ge(LEAST), Le(1e9), Column("Value in the chart's own unit; more is faster")
    ]


@dataclass(frozen=True, slots=True, kw_only=True)
class Chart:
    """What one source says about one measure. A comparison of two parts is a chart of two rows.

    ``noise`` is a prior for how far its values are off, in ln; how far they really are is found by
    their fit.
    """

    id: Annotated[str, Column("Id: small letters, digits and hyphens")]
    name: Annotated[str, Column("Name of the source")]
    measure: Annotated[Measure, Column("What it measures")]
    unit: Annotated[str, Column("Its own unit or reference")] = ""
    published_on: Annotated[date | None, Column("Date of publication, ISO 8601")] = None
    muted: Annotated[bool, Column("Whether it is left out")] = False
    noise: Annotated[float, Ge(0.005), Le(0.5), Column("Usual error of its values", "ln")] = 0.03
    rows: Annotated[tuple[ChartRow, ...], Column("Parts with their values")]

    @property
    def is_comparison(self) -> bool:
        return len(self.rows) == 2


@dataclass(frozen=True, slots=True)
class Source:
    """A source after the fit: its offset (ln of its unit per point) and the spread of its
    values.
    """

    chart: Chart
    offset: float
    noise: float
    tied: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Disagreement:
    """A value away from where all others put its part: ``away`` in ln, ``score`` in its source's
    spreads.
    """

    chart: Chart
    position: int
    away: float
    score: float
    weight: float


@dataclass(frozen=True, kw_only=True)
class Reconciled:
    """Speeds of one measure: ln and spread by part; sources; disagreements, the largest first;
    loose groups.

    A loose group is tied to the rest by no chain: its parts have no speed on the scale.
    """

    ln: Mapping[str, float]
    sd: Mapping[str, float]
    sources: tuple[Source, ...]
    disagreements: tuple[Disagreement, ...]
    loose: tuple[tuple[str, ...], ...]
    tie: tuple[tuple[str, str], ...]
