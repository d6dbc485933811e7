"""charts.csv: what sources say about speeds, one line per value."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Annotated

from annotated_types import Ge, Gt, Le

from wattmetron.core.values.charts import Chart, ChartRow, Measure
from wattmetron.core.values.fields import Column
from wattmetron.formats.csv_table import read_table, write_table
from wattmetron.formats.problems import Problem, add_problem


@dataclass(frozen=True, slots=True, kw_only=True)
class ChartLine:
    """A line of charts.csv: one value with what its chart is."""

    chart: Annotated[str, Column("Id of the chart")]
    name: Annotated[str, Column("Name of the source")]
    measure: Annotated[Measure, Column("What it measures")]
    unit: Annotated[str, Column("Its own unit or reference")] = ""
    published_on: Annotated[date | None, Column("Date of publication, ISO 8601")] = None
    muted: Annotated[bool, Column("Whether it is left out")] = False
    noise: Annotated[float, Ge(0.005), Le(0.5), Column("Usual error of its values", "ln")] = 0.03
    text: Annotated[str, Column("As the source names the part")] = ""
    part: Annotated[
        str, Column("Processor id, or graphics chip with its memory as in nacre-reef@8")
    ]
    value: Annotated[float, Gt(0), Le(1e9), Column("Value in the chart's own unit; more is faster")]


def write_charts(charts: Iterable[Chart]) -> str:
    """The CSV text of charts."""
    return write_table(
        ChartLine,
        (
            ChartLine(
                chart=chart.id,
                name=chart.name,
                measure=chart.measure,
                unit=chart.unit,
                published_on=chart.published_on,
                muted=chart.muted,
                noise=chart.noise,
                text=row.text,
                part=row.part,
                value=row.value,
            )
            for chart in charts
            for row in chart.rows
        ),
    )


def read_charts(file: str, text: str, problems: list[Problem]) -> dict[str, Chart]:
    """The charts of a CSV text by id; problems name the line."""
    lines: dict[str, list[ChartLine]] = {}
    for number, line in read_table(ChartLine, file, text, problems):
        chart_lines = lines.setdefault(line.chart, [])
        if chart_lines and (chart_lines[0].measure, chart_lines[0].name) != (
            line.measure,
            line.name,
        ):
            add_problem(
                problems,
                file,
                actual=f"another measure or name in “{line.chart}”",
                expected="one per chart",
                line=number,
                column="measure",
            )
        if any(chart_line.part == line.part for chart_line in chart_lines):
            add_problem(
                problems,
                file,
                actual=f"“{line.part}” a second time in “{line.chart}”",
                expected="each part once",
                line=number,
                column="part",
            )
        chart_lines.append(line)
    return {
        key: Chart(
            id=key,
            name=chart_lines[0].name,
            measure=chart_lines[0].measure,
            unit=chart_lines[0].unit,
            published_on=chart_lines[0].published_on,
            muted=chart_lines[0].muted,
            noise=chart_lines[0].noise,
            rows=tuple(
                ChartRow(text=chart_line.text, part=chart_line.part, value=chart_line.value)
                for chart_line in chart_lines
            ),
        )
        for key, chart_lines in lines.items()
    }
