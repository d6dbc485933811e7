"""Benchmark results of a game from what people paste or type, stored as dated revisions."""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import cast

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, InvalidError, WattmetronError
from wattmetron.core.game_fit.informed import fitted_game, informed_game
from wattmetron.core.speeds.speed_scale import key_of, scale_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values import amounts
from wattmetron.core.values.games import PRESETS, Game, PresetName
from wattmetron.core.values.results import ColumnRoles, Result, Results, Role
from wattmetron.places.games.result_table import ResultLine, lines_of
from wattmetron.places.games.tier_edits import TierError, part_called
from wattmetron.store import catalogue_edits
from wattmetron.store.database import Transaction
from wattmetron.workshop.workshop import Workshop

MOST_RESULTS = 500
_RATE = re.compile(r"(\d{1,4}(?:[.,]\d+)?)\s*(?:fps)?", re.IGNORECASE)


class ResultError(InvalidError):
    """Results that cannot be read; the message says which line and what to do."""


@dataclass(frozen=True, slots=True)
class ResultsState:
    """The version of a game's results, and what undo would take back."""

    version: int
    undo: str | None


def results_state(workshop: Workshop, game_id: str) -> ResultsState:
    with workshop.database.reading() as session:
        revisions = (
            catalogue_edits.revisions(session, "results", game_id, 1)
            if _changed(session, game_id)
            else []
        )
        return ResultsState(
            catalogue_edits.standing_id(session, "results", game_id),
            revisions[0].source if revisions else None,
        )


def _changed(session: Transaction, game_id: str) -> bool:
    """Whether the results were last changed by hand: only that can be taken back here."""
    return catalogue_edits.changed_by_hand(session, "results", game_id)


@dataclass(frozen=True, slots=True, kw_only=True)
class PastedResults:
    """A pasted table with what is said of all its lines; ``roles`` is what its columns hold, where
    that was said.
    """

    table: str
    processor: str = ""
    graphics: str = ""
    size: str = ""
    preset: str = ""
    ray_tracing: bool = False
    own: bool = False
    source: str = ""
    measured_on: date | None = None
    roles: tuple[Role, ...] = ()


def pasted_results(
    catalogue: Catalogue,
    game_id: str,
    pasted: PastedResults,
    known: Mapping[int, tuple[Role, ...]] | None = None,
) -> tuple[Result, ...]:
    """Results from a pasted table, one in a line: parts, resolution and preset in any order, then
    the average and, if known, the 1 % low; or columns as the table's head, the user or the source's
    earlier tables say. What a line leaves out is taken as said of all. Raises ResultError with all
    problems, ColumnsNeeded where columns are unclear.
    """
    informed_game(catalogue, game_id)
    if not pasted.table.strip():
        raise ResultError("There is no result: paste lines with parts, settings and frame rates.")
    lines = lines_of(pasted.table, pasted.roles, known or {})
    if len(lines) > MOST_RESULTS:
        raise ResultError(f"There are {len(lines):,} lines: paste at most {MOST_RESULTS}.")
    problems: list[str] = []
    present_results = catalogue.results.get(game_id)
    taken = (
        max(
            (int(item.id[1:]) for item in present_results.items if item.id[1:].isdecimal()),
            default=0,
        )
        if present_results
        else 0
    )
    results: list[Result] = []
    for line in lines:
        try:
            read = _read(catalogue, line, pasted)
        except WattmetronError as error:
            if line is not lines[0] or re.search(r"\d", line.text):
                problems.append(f"line {line.number} “{line.text[:40]}”: {str(error).rstrip('.')}")
            continue
        results.append(
            replace(
                read,
                id=f"r{taken + len(results) + 1}",
                ray_tracing=pasted.ray_tracing,
                own=pasted.own,
                source=pasted.source,
                measured_on=pasted.measured_on,
            )
        )
    if problems:
        more = f"; and {len(problems) - 6} more" if len(problems) > 6 else ""
        raise ResultError(f"Nothing was stored: {'; '.join(problems[:6])}{more}.")
    if not results:
        raise ResultError(
            "Nothing here reads as a result: a line needs a processor, a graphics part and a frame"
            " rate."
        )
    return tuple(results)


def _read(catalogue: Catalogue, line: ResultLine, usual: PastedResults) -> Result:
    limits: dict[Role, str] = {}
    for n, cell in enumerate(line.cells):
        role = (
            line.roles[n] if line.roles is not None else _role(catalogue, cell, "average" in limits)
        )
        if cell and role != "leave out":
            limits[role] = cell
    processor, graphics = (
        limits.get("processor", usual.processor),
        limits.get("graphics", usual.graphics),
    )
    size, preset = limits.get("resolution", usual.size), limits.get("preset", usual.preset)
    rates = [_rate(limits[role]) for role in ("average", "low") if role in limits]
    if not processor or not graphics:
        raise ResultError("it names no " + ("processor" if not processor else "graphics part"))
    if not rates or not 1 <= rates[0] <= 5000:
        raise ResultError("it has no frame rate from 1 to 5,000")
    low = rates[1] if len(rates) > 1 else None
    if low is not None and not 1 <= low <= rates[0]:
        raise ResultError(f"its low of {low:g} is above its average of {rates[0]:g}")
    width, height = _size(size)
    return Result(
        id="",
        processor=_standing(catalogue, processor, "processor"),
        graphics=_standing(catalogue, graphics, "graphics"),
        width_px=width,
        height_px=height,
        preset=cast(PresetName, amounts.PRESET_WORDS.get(preset.casefold(), ""))
        or _no_preset(preset),
        average_fps=rates[0],
        low_fps=low,
    )


def _rate(cell: str) -> float:
    match = _RATE.fullmatch(cell)
    if match is None:
        raise ResultError(f"“{cell[:40]}” is no frame rate")
    return amounts.number(match[1])


def _role(catalogue: Catalogue, cell: str, has_average: bool) -> Role:
    """What a cell holds, seen by itself."""
    if _RATE.fullmatch(cell):
        return "low" if has_average else "average"
    if any(
        pattern.fullmatch(cell) for pattern in (amounts.SIZE, amounts.LINES, amounts.NAMED_SIZE)
    ):
        return "resolution"
    if cell.casefold() in amounts.PRESET_WORDS:
        return "preset"
    matches = reader_of(catalogue).names.parts.match(amounts.AMOUNT.sub(" ", cell), None)
    side = next(
        (
            name.side
            for name in reader_of(catalogue).names.parts.names
            if matches and name.key == matches[0].part
        ),
        None,
    )
    if side is None:
        raise ResultError(f"“{cell[:40]}” is no part, resolution, preset or frame rate")
    return side


def _no_preset(text: str) -> PresetName:
    raise ResultError(
        f"its preset is “{text}”: choose one of {', '.join(PRESETS)}"
        if text
        else "it has no preset"
    )


def _size(text: str) -> tuple[int, int]:
    for pattern in (amounts.SIZE, amounts.LINES, amounts.NAMED_SIZE):
        match = pattern.search(text)
        if match:
            return amounts.pixels(match)
    raise ResultError(
        f"its resolution is “{text}”: give it as 2560x1440 or 1440p"
        if text
        else "it has no resolution"
    )


def _standing(catalogue: Catalogue, name: str, side: str) -> str:
    try:
        key = part_called(catalogue, name, "processor" if side == "processor" else "graphics")
    except TierError as error:
        raise ResultError(str(error).rstrip(".")) from error
    variants = scale_of(catalogue).variants.get(key, ())
    if len(variants) > 1:
        raise ResultError(
            f"“{name}” is sold with"
            f" {' and '.join(f'{variant.memory_gb:g}' for variant in variants)} GB:"
            " say which"
        )
    standing = scale_of(catalogue).standing(key)
    return standing.key if standing else key


# --- storing
# ------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class ResultEffect:
    """What a change of the results did to the game's work."""

    sentence: str
    effect: str


def known_columns(workshop: Workshop, source: str) -> dict[int, tuple[Role, ...]]:
    """What the columns of a source's tables hold, by their number, as was said before."""
    key = key_of(source)
    with workshop.database.reading() as session:
        revisions = catalogue_edits.revisions(session, "columns", key, 1) if key else []
    return (
        {len(roles): roles for roles in revisions[0].value.roles}
        if revisions and revisions[0].value
        else {}
    )


def told_columns(workshop: Workshop, pasted: PastedResults) -> ColumnRoles | None:
    """What is said about a source's columns, together with what was said before; None where
    nothing is said.
    """
    if not pasted.roles or not key_of(pasted.source):
        return None
    roles = {**known_columns(workshop, pasted.source), len(pasted.roles): pasted.roles}
    return ColumnRoles(source=pasted.source, roles=tuple(roles.values()))


def change_results(
    workshop: Workshop,
    game_id: str,
    version: int,
    sentence: str,
    items: tuple[Result, ...],
    columns: ColumnRoles | None = None,
    also: Callable[[Transaction], None] | None = None,
) -> ResultEffect:
    """Store a game's results in place of a version, what was said about their source's columns, and
    ``also`` what belongs to the same change; says what it did to C and G.
    """
    before = fitted_game(workshop.catalogue(), game_id)
    with workshop.database.writing() as session:
        if catalogue_edits.standing_id(session, "results", game_id) != version:
            raise ConflictError(
                "These results were changed in another tab: here is what they say now; make your"
                " change again."
            )
        edits: dict[tuple[str, str], catalogue_edits.Edit] = {
            ("results", game_id): Results(game=game_id, items=items)
        }
        if columns is not None:
            edits["columns", key_of(columns.source)] = columns
        catalogue_edits.revise(session, edits, sentence)
        if also is not None:
            also(session)
    return ResultEffect(sentence, effect_words(before, fitted_game(workshop.catalogue(), game_id)))


def undo_results(workshop: Workshop, game_id: str, version: int) -> ResultEffect:
    """Bring back the results before their last change."""
    before = fitted_game(workshop.catalogue(), game_id)
    with workshop.database.writing() as session:
        if catalogue_edits.standing_id(session, "results", game_id) != version:
            raise ConflictError(
                "These results were changed in another tab: here is what they say now."
            )
        revisions = catalogue_edits.revisions(session, "results", game_id, 2)
        if not revisions or not _changed(session, game_id):
            raise ResultError("Nothing was changed here yet.")
        older = revisions[1].value if len(revisions) > 1 else None
        catalogue_edits.revise(
            session, {("results", game_id): older}, f"took back: {revisions[0].source}"[:200]
        )
    after = fitted_game(workshop.catalogue(), game_id)
    return ResultEffect(f"took back: {revisions[0].source}", effect_words(before, after))


def muted(items: tuple[Result, ...], result_id: str, out: bool) -> tuple[Result, ...]:
    """The results with one left out, or counting again."""
    if all(item.id != result_id for item in items):
        raise ResultError("That result is no longer there: look at the list.")
    return tuple(replace(item, muted=out) if item.id == result_id else item for item in items)


def without(items: tuple[Result, ...], result_id: str) -> tuple[Result, ...]:
    return tuple(item for item in items if item.id != result_id)


def effect_words(before: Game, after: Game) -> str:
    """``C 9.0 ms ±14 % to 8.6 ms ±6 %``, likewise G."""

    def side(name: str, old_ms: float, old_sd: float, new_ms: float, new_sd: float) -> str:
        return (
            f"{name} {old_ms:.1f}\u202fms ±{old_sd * 100:.0f}\u202f% to {new_ms:.1f}\u202fms"
            f" ±{new_sd * 100:.0f}\u202f%"
        )

    return ", ".join(
        (
            side(
                "C",
                before.processor_ms,
                before.processor_work_sd,
                after.processor_ms,
                after.processor_work_sd,
            ),
            side(
                "G",
                before.graphics_ms,
                before.graphics_work_sd,
                after.graphics_ms,
                after.graphics_work_sd,
            ),
        )
    )
