"""Benchmark results of a game from what people paste or type, stored as dated revisions."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import cast

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.games import PRESETS, Game, PresetName
from wattmetron.core.games.results import Result, Results
from wattmetron.core.reading import amounts
from wattmetron.services.tier_edits import TierError, part_called
from wattmetron.services.workshop import Workshop
from wattmetron.store import catalogues as store
from wattmetron.store.briefs import ConflictError

Form = Mapping[str, str]
MOST_RESULTS = 500
_CELLS = re.compile(r"\s*[\t;|]\s*|\s{2,}|,\s+")
_RATE = re.compile(r"(\d{1,4}(?:[.,]\d+)?)\s*(?:fps)?", re.IGNORECASE)


class ResultError(WattmetronError):
    """Results that cannot be read; the message says which line and what to do."""


@dataclass(frozen=True, slots=True)
class ResultsState:
    """The version of a game's results, and what undo would take back."""

    version: int
    undo: str | None


def results_state(workshop: Workshop, game_id: str) -> ResultsState:
    with workshop.database.reading() as session:
        found = store.revisions(session, "results", game_id, 1)
        return ResultsState(store.standing_id(session, "results", game_id), found[0].source if found else None)


def pasted_results(catalogue: Catalogue, game_id: str, form: Form) -> tuple[Result, ...]:
    """Results from a pasted table, one in a line: parts, resolution and preset in any order, then the average and,
    if known, the 1 % low. What a line leaves out comes from the form. Raises ResultError with all problems."""
    catalogue.informed(game_id)
    lines = [line.strip() for line in form.get("table", "").replace("\r", "").split("\n") if line.strip()]
    if not lines:
        raise ResultError("There is no result: paste lines with parts, settings and frame rates.")
    if len(lines) > MOST_RESULTS:
        raise ResultError(f"There are {len(lines):,} lines: paste at most {MOST_RESULTS}.")
    day = _day(form.get("measured_on", "").strip())
    usual = _Line(
        form.get("processor", "").strip(), form.get("graphics", "").strip(), form.get("size", "").strip(), form.get("preset", "").strip()
    )
    problems: list[str] = []
    own = catalogue.results.get(game_id)
    taken = len(own.items) if own else 0
    found: list[Result] = []
    for number, line in enumerate(lines, start=1):
        try:
            read = _read(catalogue, line, usual)
        except WattmetronError as error:
            if number > 1 or re.search(r"\d", line):
                problems.append(f"line {number} “{line[:40]}”: {str(error).rstrip('.')}")
            continue
        found.append(
            replace(
                read,
                id=f"r{taken + len(found) + 1}",
                ray_tracing="ray_tracing" in form,
                own="own" in form,
                source=" ".join(form.get("source", "").split())[:200],
                measured_on=day,
            )
        )
    if problems:
        more = f"; and {len(problems) - 6} more" if len(problems) > 6 else ""
        raise ResultError(f"Nothing was stored: {'; '.join(problems[:6])}{more}.")
    if not found:
        raise ResultError("Nothing here reads as a result: a line needs a processor, a graphics part and a frame rate.")
    return tuple(found)


@dataclass(frozen=True, slots=True)
class _Line:
    """What the form says for lines that leave it out."""

    processor: str
    graphics: str
    size: str
    preset: str


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text) if text else None
    except ValueError as error:
        raise ResultError(f"The date is “{text}”: enter one such as 2026-03-14, or nothing.") from error


def _read(catalogue: Catalogue, line: str, usual: _Line) -> Result:
    processor, graphics, size, preset = usual.processor, usual.graphics, usual.size, usual.preset
    rates: list[float] = []
    for cell in filter(None, _CELLS.split(line)):
        rate = _RATE.fullmatch(cell)
        word = cell.casefold()
        if rate:
            rates.append(amounts.number(rate[1]))
        elif any(pattern.fullmatch(cell) for pattern in (amounts.SIZE, amounts.LINES, amounts.NAMED_SIZE)):
            size = cell
        elif word in amounts.PRESET_WORDS:
            preset = word
        else:
            matches = catalogue.reader.names.parts.match(amounts.AMOUNT.sub(" ", cell), None)
            names = catalogue.reader.names.parts.names
            side = next((name.side for name in names if matches and name.key == matches[0].part), None)
            if side == "processor":
                processor = cell
            elif side == "graphics":
                graphics = cell
            else:
                raise ResultError(f"“{cell[:40]}” is no part, resolution, preset or frame rate")
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
        preset=cast(PresetName, amounts.PRESET_WORDS.get(preset.casefold(), "")) or _no_preset(preset),
        average_fps=rates[0],
        low_fps=low,
    )


def _no_preset(text: str) -> PresetName:
    raise ResultError(f"its preset is “{text}”: choose one of {', '.join(PRESETS)}" if text else "it has no preset")


def _size(text: str) -> tuple[int, int]:
    for pattern in (amounts.SIZE, amounts.LINES, amounts.NAMED_SIZE):
        match = pattern.search(text)
        if match:
            return amounts.pixels(match)
    raise ResultError(f"its resolution is “{text}”: give it as 2560x1440 or 1440p" if text else "it has no resolution")


def _standing(catalogue: Catalogue, name: str, side: str) -> str:
    try:
        key = part_called(catalogue, name, "processor" if side == "processor" else "graphics")
    except TierError as error:
        raise ResultError(str(error).rstrip(".")) from error
    variants = catalogue.scale.variants.get(key, ())
    if len(variants) > 1:
        raise ResultError(f"“{name}” is sold with {' and '.join(f'{one.memory_gb:g}' for one in variants)} GB: say which")
    standing = catalogue.scale.one(key)
    return standing.key if standing else key


# --- storing ------------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class Effect:
    """What a change of the results did to the game's work."""

    said: str
    effect: str


def change_results(workshop: Workshop, game_id: str, version: int, said: str, items: tuple[Result, ...]) -> Effect:
    """Store a game's results in place of a version; says what it did to C and G."""
    before = workshop.catalogue().game(game_id)
    with workshop.database.writing() as session:
        if store.standing_id(session, "results", game_id) != version:
            raise ConflictError("These results were changed in another tab: here is what they say now; make your change again.")
        store.revise(session, {("results", game_id): Results(game=game_id, items=items)}, said)
    return Effect(said, effect_words(before, workshop.catalogue().game(game_id)))


def undo_results(workshop: Workshop, game_id: str, version: int) -> Effect:
    """Bring back the results before their last change."""
    before = workshop.catalogue().game(game_id)
    with workshop.database.writing() as session:
        if store.standing_id(session, "results", game_id) != version:
            raise ConflictError("These results were changed in another tab: here is what they say now.")
        found = store.revisions(session, "results", game_id, 2)
        if not found:
            raise ResultError("Nothing was changed here yet.")
        older = found[1].value if len(found) > 1 else None
        store.revise(session, {("results", game_id): older}, f"took back: {found[0].source}"[:200])
    return Effect(f"took back: {found[0].source}", effect_words(before, workshop.catalogue().game(game_id)))


def muted(items: tuple[Result, ...], result_id: str, out: bool) -> tuple[Result, ...]:
    """The results with one left out, or counting again."""
    if all(one.id != result_id for one in items):
        raise ResultError("That result is no longer there: look at the list.")
    return tuple(replace(one, muted=out) if one.id == result_id else one for one in items)


def without(items: tuple[Result, ...], result_id: str) -> tuple[Result, ...]:
    return tuple(one for one in items if one.id != result_id)


def effect_words(before: Game, after: Game) -> str:
    """``C 9.0 ms ±14 % to 8.6 ms ±6 %``, likewise G."""

    def side(name: str, old_ms: float, old_sd: float, new_ms: float, new_sd: float) -> str:
        return f"{name} {old_ms:.1f}\u202fms ±{old_sd * 100:.0f}\u202f% to {new_ms:.1f}\u202fms ±{new_sd * 100:.0f}\u202f%"

    return ", ".join(
        (
            side("C", before.processor_ms, before.processor_work_sd, after.processor_ms, after.processor_work_sd),
            side("G", before.graphics_ms, before.graphics_work_sd, after.graphics_ms, after.graphics_work_sd),
        )
    )
