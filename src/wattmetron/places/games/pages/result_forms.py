"""Forms about a game's results: pasted tables, and one result to leave out or remove."""

from wattmetron.core.values.results import COLUMN_ROLES, Role
from wattmetron.places.games.measuring import PastedResults, ResultError
from wattmetron.places.games.result_table import MOST_COLUMNS
from wattmetron.shell.forms import (
    Form,
    Number,
    Short20,
    Short40,
    Short200,
    Tick,
    Typed,
    read,
    read_day,
)


class ResultsForm(Form):
    """Results typed or pasted, with the version that they are based on."""

    results_version: Number = 0
    table: str = ""
    processor: Short200 = ""
    graphics: Short200 = ""
    size: Short40 = ""
    preset: Short40 = ""
    ray_tracing: Tick = False
    own: Tick = False
    source: Short200 = ""
    measured_on: Short20 = ""
    result: Short20 = ""
    muted: Tick = False


def pasted_from(entries: Typed) -> PastedResults:
    """A pasted table as the form says it; columns only where all of them are told."""
    form = read(ResultsForm, entries)
    day = read_day(form.measured_on, "The date of the results") if form.measured_on else None
    return PastedResults(
        table=form.table,
        processor=form.processor,
        graphics=form.graphics,
        size=form.size,
        preset=form.preset,
        ray_tracing=form.ray_tracing,
        own=form.own,
        source=" ".join(form.source.split()),
        measured_on=day,
        roles=_roles(entries),
    )


def _roles(entries: Typed) -> tuple[Role, ...]:
    entrieses = [entries[name] for n in range(MOST_COLUMNS) if (name := f"column-{n}") in entries]
    known = tuple(role for text in entrieses for role in COLUMN_ROLES if role == text)
    if entrieses and len(known) < len(entrieses) and any(entrieses):
        left = [text for text in entrieses if text and text not in COLUMN_ROLES]
        if left:
            raise ResultError(
                f"A column is said to hold “{left[0]}”: choose one of {', '.join(COLUMN_ROLES)}."
            )
    return known if len(known) == len(entrieses) else ()
