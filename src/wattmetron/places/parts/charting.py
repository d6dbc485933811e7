"""Charts from what people paste or type, what each changes, and the scale as it is shown."""

import re
from dataclasses import dataclass, replace
from datetime import date

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, InvalidError
from wattmetron.core.speeds.scaled_catalogue import known_speeds, reconciled
from wattmetron.core.speeds.speed_scale import key_of, scale_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values import amounts
from wattmetron.core.values.charts import (
    MEASURES,
    PROCESSOR_MEASURES,
    Chart,
    ChartRow,
    Measure,
    Reconciled,
)
from wattmetron.core.values.published import Side
from wattmetron.places.games.tier_edits import TierError, part_called
from wattmetron.store import catalogue_edits
from wattmetron.workshop.workshop import Workshop

USUAL_NOISE, LEAST_NOISE = 0.03, 0.005
Z80 = 1.2816
SURE_MATCH = 0.9
MOST_ROWS = 2000
MOST_IN_LINE, VALUE_WITHIN = 500, 80
_VALUE = re.compile(
    r"(?:(?<!\s)\s+)?(?:[;|:=]\s*|,\s+|(?<=\s))"
    r"(?P<value>[+-]?\d[\d.,]*)\s*(?P<unit>%|x|fps|points?|pts)?\Z",
    re.IGNORECASE,
)
"""The end of a line: what parts it from the name, a value, a unit."""


class ChartError(InvalidError):
    """A chart that cannot be read; the message says which line and what to do."""


def side_of(measure: Measure) -> Side:
    return "processor" if measure in PROCESSOR_MEASURES else "graphics"


def _fresh_id(catalogue: Catalogue, name: str) -> str:
    base = (key_of(name) or "chart")[:60]
    taken = catalogue.described.charts
    return next(
        key for n in range(1, 10_000) if (key := base if n == 1 else f"{base}-{n}") not in taken
    )


# --- reading
# ------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True, kw_only=True)
class ChartSource:
    """Where figures stand: a name, the measure, the date, the usual error as a share."""

    name: str
    measure: Measure
    published_on: date | None = None
    noise: float = USUAL_NOISE


def pasted_chart(catalogue: Catalogue, source: ChartSource, table: str, unit: str = "") -> Chart:
    """A chart from a pasted table: a name and a value in every line. Raises ChartError with all
    problems.
    """
    if not source.name:
        raise ChartError("The source has no name: say where the chart stands.")
    rows, problems, units = _rows(catalogue, table, side_of(source.measure))
    if len(units - {""}) > 1:
        problems.append(
            f"the values mix {' and '.join(sorted(units - {''}))}: a chart has one unit"
        )
    if not problems and len(rows) < 2:
        problems.append("fewer than two parts: a chart compares at least two")
    if problems:
        shown = "; ".join(problems[:8]) + (
            f"; and {len(problems) - 8} more" if len(problems) > 8 else ""
        )
        raise ChartError(f"Nothing was stored: {shown}.")
    return Chart(
        id=_fresh_id(catalogue, source.name),
        name=source.name,
        measure=source.measure,
        unit=unit or next(iter(units - {""}), ""),
        published_on=source.published_on,
        noise=source.noise,
        rows=tuple(rows),
    )


def _rows(
    catalogue: Catalogue, text: str, side: Side
) -> tuple[list[ChartRow], list[str], set[str]]:
    rows: list[ChartRow] = []
    problems: list[str] = []
    units: set[str] = set()
    lines = [line for line in text.replace("\r", "").split("\n") if line.strip()]
    if len(lines) > MOST_ROWS:
        return [], [f"{len(lines):,} lines, at most {MOST_ROWS:,}"], units
    for number, line in enumerate(lines, start=1):
        line = line.strip()
        if len(line) > MOST_IN_LINE:
            problems.append(f"line {number} has {len(line):,} characters, at most {MOST_IN_LINE}")
            continue
        tail = max(0, len(line) - VALUE_WITHIN)
        match = _VALUE.search(line[tail:])
        name = line[: tail + match.start()] if match else ""
        if match is None or not name:
            if number > 1 or line[-1].isdigit():
                problems.append(f"line {number} “{line[:40]}” has no name with a value after it")
            continue
        value = (
            amounts.number(match["value"].lstrip("+"))
            if re.fullmatch(r"[+]?\d+(?:[.,]\d+)?", match["value"])
            else -1.0
        )
        units.add((match["unit"] or "").lower())
        if not 0 < value <= 1e9:
            problems.append(
                f"line {number} has the value {match['value']}: it must be above nought"
            )
            continue
        key = _key(catalogue, name, side, number, problems)
        if key and any(row.part == key for row in rows):
            problems.append(f"line {number} names “{name[:40]}” a second time")
        elif key:
            rows.append(ChartRow(text=name.strip()[:200], part=key, value=value))
    return rows, problems, units


def _key(catalogue: Catalogue, name: str, side: Side, number: int, problems: list[str]) -> str:
    """The key of a part by its name; a name that the catalogue lacks is kept as one of its own."""
    bare = amounts.AMOUNT.sub(" ", name)
    amount = amounts.AMOUNT.search(name)
    matches = reader_of(catalogue).names.parts.match(bare, side)
    if not matches or matches[0].confidence < SURE_MATCH:
        return key_of("named", side, name)[:80]
    part = matches[0].part
    if side == "processor":
        return part
    memory = amounts.gigabytes(amount) if amount else None
    meant = scale_of(catalogue).meant(part, side, memory)
    if len(meant) != 1:
        sold = ", ".join(f"{standing.memory_gb:g}" for standing in meant)
        problems.append(f"line {number} “{name.strip()[:40]}” is sold with {sold} GB: say which")
        return ""
    return meant[0].key


@dataclass(frozen=True, slots=True)
class SpeedRatio:
    """That one part is so many times another, both by the names that were typed."""

    part: str
    than: str
    times: float


def typed_comparison(catalogue: Catalogue, source: ChartSource, ratio: SpeedRatio) -> Chart:
    """A chart of two parts from “A is so many per cent above B”."""
    side = side_of(source.measure)
    names = (ratio.part, ratio.than)
    if not all(names):
        raise ChartError("A comparison needs two parts: name both.")
    keys = [_compared(catalogue, name, side) for name in names]
    if keys[0] == keys[1]:
        raise ChartError(f"“{names[0]}” is compared with itself: name another part.")
    name = source.name or "typed in"
    return Chart(
        id=_fresh_id(catalogue, f"{name} {keys[0]} {keys[1]}"),
        name=name,
        measure=source.measure,
        unit="ratio",
        published_on=source.published_on,
        noise=max(LEAST_NOISE, source.noise / float(np.sqrt(2))),
        rows=(
            ChartRow(text=names[0], part=keys[0], value=ratio.times),
            ChartRow(text=names[1], part=keys[1], value=1.0),
        ),
    )


def _compared(catalogue: Catalogue, name: str, side: Side) -> str:
    parts = {row.part for chart in catalogue.described.charts.values() for row in chart.rows}
    if name in parts or scale_of(catalogue).standing(name) is not None:
        return name
    problems: list[str] = []
    key = _key(catalogue, name, side, 1, problems)
    if problems:
        raise ChartError(
            f"“{name}” is sold with several amounts of video memory: say which, as in Reef 16 GB."
        )
    return key


# --- storing
# ------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class ChartChange:
    """A change of the charts: what it was, and what moved by it."""

    chart_id: str
    sentence: str
    moved: str


def store_chart(
    workshop: Workshop, chart: Chart | None, chart_id: str, sentence: str
) -> ChartChange:
    """Store a chart (None takes it out) as an edit by hand; says what moved."""
    before = workshop.catalogue()
    with workshop.database.writing() as session:
        catalogue_edits.revise(session, {("chart", chart_id): chart}, sentence)
    return ChartChange(chart_id, sentence, what_moved(before, workshop.catalogue()))


def mute(workshop: Workshop, chart_id: str, muted: bool) -> ChartChange:
    """Leave a chart out, or take it in again."""
    chart = workshop.catalogue().described.charts.get(chart_id)
    if chart is None:
        raise ChartError("There is no such chart any more: look at the list of sources.")
    return store_chart(
        workshop,
        replace(chart, muted=muted),
        chart_id,
        f"{chart.name} {'left out' if muted else 'counts again'}",
    )


def undo_chart(workshop: Workshop, chart_id: str, version: int) -> ChartChange:
    """Take the last change of a chart back."""
    before = workshop.catalogue()
    with workshop.database.writing() as session:
        standing = catalogue_edits.standing_id(session, "chart", chart_id)
        if standing != version:
            raise ConflictError(
                "The charts were changed in another tab: here is what they say now."
            )
        revisions = catalogue_edits.revisions(session, "chart", chart_id, 2)
        if not revisions:
            raise ChartError("Nothing was changed here yet.")
        if not standing:
            value = revisions[0].value
        elif len(revisions) > 1:
            value = revisions[1].value
        else:
            value = None
        catalogue_edits.revise(session, {("chart", chart_id): value}, "undone")
    return ChartChange(chart_id, "undone", what_moved(before, workshop.catalogue()))


def chart_version(workshop: Workshop, chart_id: str) -> int:
    with workshop.database.reading() as session:
        return catalogue_edits.standing_id(session, "chart", chart_id)


def what_moved(before: Catalogue, after: Catalogue) -> str:
    """The three speeds that moved most, and how many moved less."""
    moves = []
    for measure in MEASURES:
        old, new = fit_of(before, measure), fit_of(after, measure)
        for key, ln in new.ln.items():
            if key in old.ln and abs(ln - old.ln[key]) > 0.0005:
                moves.append(
                    (
                        abs(ln - old.ln[key]),
                        float(np.expm1(ln - old.ln[key])),
                        name_of(after, key),
                        measure,
                    )
                )
    if not moves:
        return "no speed moved"
    moves.sort(reverse=True)
    shown = ", ".join(
        f"{name} {change * 100:+.1f}\u202f% ({measure})".replace("-", "−")
        for _, change, name, measure in moves[:3]
    )
    rest = len(moves) - 3
    return shown + (f"; {rest} more by less" if rest > 0 else "")


# --- showing
# ------------------------------------------------------------------------------------------


def fit_of(catalogue: Catalogue, measure: Measure) -> Reconciled:
    """The scale of a measure, computed also where no chart is in use."""
    fit = catalogue.fits.get(measure)
    if fit is not None:
        return fit
    base = catalogue.described
    return (
        reconciled(scale_of(base), base.charts)[measure]
        if base.charts
        else _from_catalogue(base, measure)
    )


def _from_catalogue(catalogue: Catalogue, measure: Measure) -> Reconciled:
    known = known_speeds(scale_of(catalogue), measure)
    return Reconciled(
        ln={key: each_known.ln for key, each_known in known.items()},
        sd={key: each_known.sd for key, each_known in known.items()},
        sources=(),
        disagreements=(),
        loose=(),
        tie=(),
    )


def name_of(catalogue: Catalogue, key: str) -> str:
    """A part's name: of the catalogue, else as the charts name it."""
    standing = scale_of(catalogue).standing(key)
    if standing is not None:
        return standing.name
    for chart in catalogue.described.charts.values():
        for row in chart.rows:
            if row.part == key:
                return row.text
    return key


@dataclass(frozen=True, slots=True)
class Compared:
    """Two parts: how much faster the first is, with its 80 % interval, in ln."""

    first: str
    second: str
    ln: float
    sd: float

    @property
    def sentence(self) -> str:
        """``A is 18 % faster than B, between 11 and 25 %``."""
        low, middle, high = (float(np.expm1(self.ln + z * self.sd)) * 100 for z in (-Z80, 0.0, Z80))
        if low < 0 < high:
            return (
                f"{self.first} is {abs(middle):.0f}\u202f% {'faster' if middle >= 0 else 'slower'}"
                f" than {self.second}, between {-low:.0f} slower and {high:.0f}\u202f% faster."
            )
        word = "faster" if middle >= 0 else "slower"
        ends = sorted((abs(low), abs(high)))
        return (
            f"{self.first} is {abs(middle):.0f}\u202f% {word} than {self.second}, between"
            f" {ends[0]:.0f} and {ends[1]:.0f}\u202f%."
        )


def compare(catalogue: Catalogue, fit: Reconciled, first: str, second: str, side: Side) -> Compared:
    """Two parts of a measure by name or key; raises ChartError for one without a speed."""
    keys = []
    for text in (first, second):
        key = text if text in fit.ln else _looked_up(catalogue, text, side)
        if key not in fit.ln:
            raise ChartError(f"“{text}” has no speed in this measure: choose a part of the list.")
        keys.append(key)
    return Compared(
        name_of(catalogue, keys[0]),
        name_of(catalogue, keys[1]),
        fit.ln[keys[0]] - fit.ln[keys[1]],
        float(np.hypot(fit.sd[keys[0]], fit.sd[keys[1]])) if keys[0] != keys[1] else 0.0,
    )


def _looked_up(catalogue: Catalogue, text: str, side: Side) -> str:
    try:
        key = part_called(catalogue, text, side)
    except TierError as error:
        raise ChartError(str(error)) from error
    standing = scale_of(catalogue).standing(key)
    return standing.key if standing else key
