"""Addresses that change games: texts read and confirmed, lists, results, assumptions."""

from collections.abc import Callable
from dataclasses import replace
from typing import Literal, NamedTuple

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import UploadFile

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.game_fit.informed import informed_game
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.places.assessment import brief_edits
from wattmetron.places.games import measuring, publishing
from wattmetron.places.games.pages.reading import ReadingPage, draft_tiers, fragments, stored_tiers
from wattmetron.places.games.pages.result_forms import ResultsForm, pasted_from
from wattmetron.places.games.pages.routes import (
    blank,
    show_assumptions,
    show_game,
    show_list,
    show_reading,
)
from wattmetron.places.games.pages.tier_forms import ListForm, assumptions_from, published_from
from wattmetron.places.games.result_table import ColumnsNeeded
from wattmetron.places.games.tier_edits import excluded_from_bar, listed_at, placed
from wattmetron.shell.computation_queue import changed
from wattmetron.shell.error_pages import status_of
from wattmetron.shell.forms import (
    Form,
    Number,
    Short20,
    Short80,
    Short200,
    Tick,
    Typed,
    read,
    typed,
)
from wattmetron.shell.requests import LOCATION, in_place, workshop_of
from wattmetron.workshop.workshop import Workshop

router = APIRouter(include_in_schema=False)
Shown = Callable[[], Response]
MOST_FIELDS = 2500
MOST_TEXT = 40_000
LONGEST_ID = 10


@router.post("/games/open")
async def open_file(request: Request) -> Response:
    """Requirements from a JSON or CSV file."""
    form = await request.form(max_fields=4, max_files=1)
    chosen = form.get("file")
    if not isinstance(chosen, UploadFile) or not chosen.filename:
        error = "No file was chosen: choose a JSON or CSV file of requirements."
        return await run_in_threadpool(show_list, request, {}, 422, error=error)
    name, data = chosen.filename, await chosen.read()
    return await changed(request, lambda: _open_file(request, name, data))


def _open_file(request: Request, name: str, data: bytes) -> Shown:
    try:
        games = publishing.import_file(workshop_of(request), name, data)
    except WattmetronError as error:
        sentence = str(error)
        return lambda: show_list(request, {}, 422, error=sentence)
    count = f"{len(games)} game" + ("" if len(games) == 1 else "s")
    notice = f"Read the requirements of {count} from {name}."
    return lambda: show_list(request, {}, notice=notice)


@router.post("/games/assumptions")
async def change_assumptions(request: Request) -> Response:
    entries = await typed(request)
    return await changed(request, lambda: _change_assumptions(request, entries))


def _change_assumptions(request: Request, entries: Typed) -> Shown:
    try:
        publishing.set_assumptions(workshop_of(request), assumptions_from(entries))
    except WattmetronError as error:
        sentence = str(error)
        return lambda: show_assumptions(request, 422, error=sentence, typed=entries)
    notice = "The table was changed; bars, estimates and targets follow it."
    return lambda: show_assumptions(request, notice=notice)


# --- paste and read ---


class ReadingForm(Form):
    """A pasted text, or the draft that was read from it."""

    version: Number = 0
    brief: Short20 = ""
    as_target: Tick = False
    name: Short200 = ""
    genre: Short80 = ""
    source: Short200 = ""
    published_on: Short20 = ""
    text: str = ""

    @property
    def pasted(self) -> str:
        return self.text.replace("\r\n", "\n")

    def page(self, catalogue: Catalogue, game_id: str) -> ReadingPage:
        """The page with what was typed."""
        empty = blank(catalogue, game_id, self.version, self.brief)
        return replace(
            empty,
            game_name=empty.game_name or self.name,
            genre=empty.genre or self.genre[:60],
            text=self.pasted[:MOST_TEXT],
            as_target=self.as_target,
            source=self.source,
            published_on=self.published_on,
        )


@router.post("/games/read")
@router.post("/games/{game_id}/read")
async def read_text(request: Request, game_id: str = "") -> Response:
    """Read what was pasted; nothing is stored yet."""
    entries = await typed(request, MOST_FIELDS)
    return await run_in_threadpool(_read_text, request, game_id, entries)


def _read_text(request: Request, game_id: str, entries: Typed) -> Response:
    catalogue = workshop_of(request).catalogue()
    form = read(ReadingForm, entries)
    filled = form.page(catalogue, game_id)
    try:
        if not game_id:
            publishing.new_game(catalogue, filled.game_name, filled.genre)
        read_page = _with_draft(filled, catalogue, form.pasted)
    except WattmetronError as error:
        return show_reading(request, replace(filled, error=str(error)), 422)
    return show_reading(request, read_page)


def _with_draft(filled: ReadingPage, catalogue: Catalogue, text: str) -> ReadingPage:
    draft = reader_of(catalogue).read(text)
    return replace(
        filled,
        fragments=fragments(draft),
        unread=draft.unread_texts,
        tiers=draft_tiers(draft, catalogue),
    )


@router.post("/games/confirm")
@router.post("/games/{game_id}/confirm")
async def confirm(request: Request, game_id: str = "") -> Response:
    """Store the draft as corrected."""
    entries = await typed(request, MOST_FIELDS)
    return await run_in_threadpool(_confirm, request, game_id, entries)


def _confirm(request: Request, game_id: str, entries: Typed) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    form = read(ReadingForm, entries)
    try:
        game = None if game_id else publishing.new_game(catalogue, form.name, form.genre)
        if game is None:
            informed_game(catalogue, game_id)
        published = published_from(entries, game.id if game else game_id, catalogue)
        tiers = len(published.tiers)
        sentence = f"read {tiers} tiers" if tiers > 1 else "read one tier"
        publishing.publish(workshop, published, form.version, sentence, game)
    except WattmetronError as error:
        reading_page = _kept(catalogue, game_id, entries, str(error))
        return show_reading(request, reading_page, status_of(error))
    url = f"/games/{published.game}" + (f"?brief={form.brief}" if form.brief.isdecimal() else "")
    if game and form.as_target and form.brief.isdecimal() and len(form.brief) < LONGEST_ID:
        url = _as_target(workshop, int(form.brief), published.game) or url
    if in_place(request):
        return Response(status_code=204, headers={"hx-location": LOCATION.format(url)})
    return RedirectResponse(url, 303)


def _as_target(workshop: Workshop, brief_id: int, game_id: str) -> str:
    """Make a new game a target of the brief that asked for it; the brief's address, empty where it
    cannot take one.
    """
    catalogue = workshop.catalogue()
    try:
        version = workshop.open(brief_id).version
        workshop.change(
            brief_id, version, lambda plan: brief_edits.add_target(plan, game_id, catalogue)
        )
    except WattmetronError:
        return ""
    return f"/briefs/{brief_id}/brief"


def _kept(catalogue: Catalogue, game_id: str, entries: Typed, error: str) -> ReadingPage:
    """The draft with everything as it was typed."""
    filled = replace(
        read(ReadingForm, entries).page(catalogue, game_id), error=error, typed=entries
    )
    try:
        return _with_draft(filled, catalogue, filled.text)
    except WattmetronError:
        requirements = catalogue.published.get(game_id)
        return replace(filled, tiers=stored_tiers(requirements, catalogue) if requirements else ())


# --- results ---


@router.post("/games/{game_id}/results")
async def add_results(request: Request, game_id: str) -> Response:
    return await _results(request, game_id, "add")


@router.post("/games/{game_id}/results/{action}")
async def change_results(
    request: Request, game_id: str, action: Literal["mute", "remove", "undo"]
) -> Response:
    """Leave a result out, remove one, or take the last change back."""
    return await _results(request, game_id, action)


async def _results(request: Request, game_id: str, action: str) -> Response:
    entries = await typed(request, MOST_FIELDS)
    return await changed(request, lambda: _change_results(request, game_id, entries, action))


def _change_results(request: Request, game_id: str, entries: Typed, action: str) -> Shown:
    params = _machine(entries)
    try:
        done = _results_changed(workshop_of(request), game_id, entries, action)
    except ColumnsNeeded as needed:
        columns, notice = needed, str(needed)
        return lambda: show_game(
            request, game_id, params, 422, notice=notice, typed=entries, columns=columns
        )
    except WattmetronError as error:
        sentence, status = str(error), status_of(error)
        return lambda: show_game(request, game_id, params, status, error=sentence, typed=entries)
    notice = f"{done.sentence[:1].upper()}{done.sentence[1:]}: {done.effect}."
    return lambda: show_game(request, game_id, params, notice=notice)


def _machine(entries: Typed) -> Typed:
    """What of a form says against which machine the game is shown."""
    return {name: entries.get(name, "") for name in ("brief", "parts", "equal")}


def _results_changed(
    workshop: Workshop, game_id: str, entries: Typed, action: str
) -> measuring.ResultEffect:
    form = read(ResultsForm, entries)
    version = form.results_version
    if action == "undo":
        return measuring.undo_results(workshop, game_id, version)
    catalogue = workshop.catalogue()
    results = catalogue.results.get(game_id)
    items = results.items if results else ()
    if action == "mute":
        sentence = "left a result out" if form.muted else "a result counts again"
        left = measuring.muted(items, form.result, form.muted)
        return measuring.change_results(workshop, game_id, version, sentence, left)
    if action == "remove":
        left = measuring.without(items, form.result)
        return measuring.change_results(workshop, game_id, version, "removed a result", left)
    pasted = pasted_from(entries)
    known = measuring.known_columns(workshop, pasted.source)
    new = measuring.pasted_results(catalogue, game_id, pasted, known)
    sentence = "added a result" if len(new) == 1 else f"added {len(new)} results"
    columns = measuring.told_columns(workshop, pasted)
    return measuring.change_results(workshop, game_id, version, sentence, (*items, *new), columns)


# --- the list of a game, the game itself ---


@router.post("/games/{game_id}/{action}")
async def change_game(
    request: Request,
    game_id: str,
    action: Literal["exclude", "place", "undo", "remove", "restore"],
) -> Response:
    """Leave an entry out of the bar, place a named part, take the last change back; take a game
    out that was made by hand, or bring it back.
    """
    entries = await typed(request, MOST_FIELDS)
    if action in ("remove", "restore"):
        return await changed(
            request, lambda: _remove_or_restore(request, game_id, entries, action == "remove")
        )
    return await changed(request, lambda: _change_list(request, game_id, entries, action))


def _remove_or_restore(request: Request, game_id: str, entries: Typed, removing: bool) -> Shown:
    workshop = workshop_of(request)
    try:
        if removing:
            version = read(ListForm, entries).game_version
            name = publishing.remove_game(workshop, game_id, version)
            return lambda: show_list(request, {}, notice=f"Removed “{name}”.", restore=game_id)
        name = publishing.restore_game(workshop, game_id)
    except WattmetronError as error:
        sentence, status = str(error), status_of(error)
        return lambda: show_list(request, {}, status, error=sentence)
    return lambda: show_list(request, {}, notice=f"“{name}” is back.")


def _change_list(request: Request, game_id: str, entries: Typed, action: str) -> Shown:
    status, notice, error = change_list(request, game_id, entries, action)
    params = _machine(entries)
    return lambda: show_game(request, game_id, params, status, notice=notice, error=error)


class ListOutcome(NamedTuple):
    """The status with what was done, or what could not be."""

    status: int
    notice: str
    error: str


def change_list(request: Request, game_id: str, entries: Typed, action: str) -> ListOutcome:
    """Makes a change of a game's list; the status with what was done, or what could not be."""
    try:
        return ListOutcome(200, _list_changed(workshop_of(request), game_id, entries, action), "")
    except WattmetronError as error:
        return ListOutcome(status_of(error), "", str(error))


def _list_changed(workshop: Workshop, game_id: str, entries: Typed, action: str) -> str:
    form = read(ListForm, entries)
    if action == "undo":
        return f"Undone: {publishing.undo_publishing(workshop, game_id, form.game_version)}."
    catalogue = workshop.catalogue()
    requirements = publishing.edited(catalogue, game_id)
    text = listed_at(requirements, form.entry).text
    if action == "place":
        published, named = placed(requirements, form.entry, form.comparison(text), catalogue)
        direction = "above" if named.percent >= 0 else "below"
        sentence = f"{named.name} stands {abs(named.percent):g} % {direction} {named.than}"
        publishing.publish(workshop, published, form.game_version, sentence, named=named)
        return f"{sentence[:1].upper()}{sentence[1:]}."
    published = excluded_from_bar(requirements, form.entry, form.excluded)
    out = "left out" if form.excluded else "counts again"
    sentence = f"{text} {out}"
    publishing.publish(workshop, published, form.game_version, sentence)
    return f"{sentence}."
