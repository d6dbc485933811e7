"""Forms about charts: a pasted table, a comparison, a chart to leave out or remove."""

from typing import Annotated

from pydantic import BeforeValidator

from wattmetron.core.values.charts import MEASURES, Measure
from wattmetron.places.parts.charting import USUAL_NOISE, ChartError, ChartSource, SpeedRatio
from wattmetron.shell.forms import Form, Number, Short20, Short80, Tick, finite, read_day


def _measure(text: object) -> object:
    if text not in MEASURES:
        raise ChartError(f"The measure is “{text}”: choose one of {', '.join(MEASURES)}.")
    return text


class ChartForm(Form):
    """A chart or a comparison, with what is said of its source."""

    name: str = ""
    measure: Annotated[Measure, BeforeValidator(_measure)]
    published_on: Short20 = ""
    noise: Short20 = ""
    unit: Short80 = ""
    table: str = ""
    part: str = ""
    than: str = ""
    percent: Short20 = ""
    direction: str = "above"

    @property
    def source(self) -> ChartSource:
        day = read_day(self.published_on, "The date of the source") if self.published_on else None
        return ChartSource(
            name=_line(self.name), measure=self.measure, published_on=day, noise=self._noise()
        )

    @property
    def ratio(self) -> SpeedRatio:
        below = self.direction == "below"
        percent = finite(self.percent)
        if percent is None or not 0 <= percent <= 900 or (below and percent >= 100):
            raise ChartError(
                f"The difference is “{self.percent}”: enter per cent from 0 to 900, below 100 for"
                " slower."
            )
        times = 1 - percent / 100 if below else 1 + percent / 100
        return SpeedRatio(_line(self.part), _line(self.than), times)

    def _noise(self) -> float:
        if not self.noise:
            return USUAL_NOISE
        percent = finite(self.noise)
        if percent is None or not 0.5 <= percent <= 50:
            raise ChartError(
                f"The usual error is “{self.noise}”: enter a number of per cent from 0.5 to 50, or"
                " nothing."
            )
        return percent / 100


class OneChartForm(Form):
    """One chart, to leave out or take in, to remove, or to bring back."""

    chart: Short80 = ""
    muted: Tick = False
    version: Number = 0


def _line(text: str) -> str:
    return " ".join(text.split())[:120]
