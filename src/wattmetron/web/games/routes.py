"""The place Games: the list, one game, paste and read, assumptions, files."""

from dataclasses import replace
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import FormData, UploadFile

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, WattmetronError
from wattmetron.core.requirements.reading.reader import reader_of
from wattmetron.core.values.published import ROLES, Side
from wattmetron.core.values.results import COLUMN_ROLES
from wattmetron.core.workloads.fit import informed_game
from wattmetron.services.games import measuring, publishing
from wattmetron.services.games.library import (
    DEMANDS,
    MET_CHOICES,
    SORTS,
    Question,
    judged,
    list_games,
)
from wattmetron.services.games.measuring import results_state
from wattmetron.services.games.result_table import ColumnsNeeded
from wattmetron.services.games.tier_edits import (
    assumptions_from,
    excluded_from_bar,
    placed,
    published_from,
)
from wattmetron.services.workshop import Workshop
from wattmetron.web.desk.routes import show as show_desk
from wattmetron.web.games.game import game_panel
from wattmetron.web.games.machine import Machine, read_machine
from wattmetron.web.games.reading import ReadingPage, draft_tiers, fragments, stored_tiers
from wattmetron.web.shell.address import DeskQuery
from wattmetron.web.shell.line import PageRoute
from wattmetron.web.shell.pages import page
from wattmetron.web.shell.requests import LOCATION, workshop_of

router = APIRouter(include_in_schema=False, route_class=PageRoute)
Form = dict[str, str]


async def _form(request: Request) -> Form:
    data: FormData = await request.form(max_fields=2500, max_files=0)
    return {name: str(value) for name, value in data.items()}


def _whole(text: str) -> int:
    return int(text) if text.isdecimal() and len(text) < 12 else 0


# --- the list
# -----------------------------------------------------------------------------------------


@router.get("/games")
def list_page(request: Request) -> Response:
    return _list(request, dict(request.query_params))


def _list(request: Request, params: Form, status: int = 200, **more: Any) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    machine = read_machine(workshop, catalogue, params)
    question = Question(
        params.get("q", "")[:80],
        params.get("genre", ""),
        params.get("demand", "") if params.get("demand") in DEMANDS else "",
        params.get("met", "") if params.get("met") in MET_CHOICES else "",
        params.get("sort", "name") if params.get("sort") in SORTS else "name",
        _whole(params.get("page", "1")) or 1,
    )
    found = list_games(catalogue, question, judged(catalogue, machine.contender, machine.sureness))
    content = {
        "machine": machine,
        "question": question,
        "found": found,
        "briefs": [
            (row.id, row.plan.brief.name) for row in workshop.briefs() if not row.plan.build.empty
        ],
        "demands": tuple(DEMANDS),
        "met_choices": MET_CHOICES,
        "sorts": SORTS,
        "notice": "",
        "restore": "",
        "error": machine.error,
    }
    return page(
        request,
        "games/games.html",
        content | more,
        status,
        "/games" if request.method == "POST" else None,
    )


@router.get("/games/requirements.json")
def all_json(request: Request) -> Response:
    return _download(publishing.export_json(workshop_of(request).catalogue()), "requirements.json")


@router.get("/games/requirements.csv")
def all_csv(request: Request) -> Response:
    return _download(publishing.export_csv(workshop_of(request).catalogue()), "requirements.csv")


def _download(text: str, name: str) -> Response:
    kind = "application/json" if name.endswith(".json") else "text/csv; charset=utf-8"
    return Response(
        text, media_type=kind, headers={"content-disposition": f'attachment; filename="{name}"'}
    )


@router.post("/games/open")
async def open_file(request: Request) -> Response:
    """Requirements from a JSON or CSV file."""
    form = await request.form(max_fields=4, max_files=1)
    chosen = form.get("file")
    if not isinstance(chosen, UploadFile) or not chosen.filename:
        return await run_in_threadpool(
            _list,
            request,
            {},
            422,
            error="No file was chosen: choose a JSON or CSV file of requirements.",
        )
    return await run_in_threadpool(_open_file, request, chosen.filename, await chosen.read())


def _open_file(request: Request, name: str, data: bytes) -> Response:
    try:
        games = publishing.import_file(workshop_of(request), name, data)
    except WattmetronError as error:
        return _list(request, {}, 422, error=str(error))
    count = f"{len(games)} game" + ("" if len(games) == 1 else "s")
    return _list(request, {}, notice=f"Read the requirements of {count} from {name}.")


# --- assumptions
# --------------------------------------------------------------------------------------


@router.get("/games/assumptions")
def assumptions_page(request: Request) -> Response:
    return _assumptions(request)


def _assumptions(request: Request, status: int = 200, **more: Any) -> Response:
    table = workshop_of(request).catalogue().assumptions
    content = {"table": table, "roles": ROLES, "typed": {}, "error": "", "notice": ""}
    return page(
        request,
        "games/assumptions.html",
        content | more,
        status,
        "/games/assumptions" if request.method == "POST" else None,
    )


@router.post("/games/assumptions")
async def change_assumptions(request: Request) -> Response:
    form = await _form(request)
    return await run_in_threadpool(_change_assumptions, request, form)


def _change_assumptions(request: Request, form: Form) -> Response:
    try:
        publishing.set_assumptions(workshop_of(request), assumptions_from(form))
    except WattmetronError as error:
        return _assumptions(request, 422, error=str(error), typed=form)
    return _assumptions(
        request, notice="The table was changed; bars, estimates and targets follow it."
    )


# --- paste and read
# -----------------------------------------------------------------------------------


@router.get("/games/read")
def read_new(request: Request) -> Response:
    catalogue = workshop_of(request).catalogue()
    return page(
        request,
        "games/reading.html",
        {"r": _blank(catalogue, "", 0, request.query_params.get("brief", ""))},
    )


@router.get("/games/{game_id}/read")
def read_for(request: Request, game_id: str) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    informed_game(catalogue, game_id)
    version = publishing.game_state(workshop, game_id).version
    return page(
        request,
        "games/reading.html",
        {"r": _blank(catalogue, game_id, version, request.query_params.get("brief", ""))},
    )


@router.get("/games/{game_id}/edit")
def edit_stored(request: Request, game_id: str) -> Response:
    """The stored tiers, open to correction."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    own = publishing.edited(catalogue, game_id)
    blank = _blank(
        catalogue,
        game_id,
        publishing.game_state(workshop, game_id).version,
        request.query_params.get("brief", ""),
    )
    filled = replace(
        blank,
        text=own.text,
        source=own.source,
        published_on=own.published_on.isoformat() if own.published_on else "",
        tiers=stored_tiers(own, catalogue),
    )
    return page(request, "games/reading.html", {"r": filled})


def _blank(catalogue: Catalogue, game_id: str, version: int, brief: str) -> ReadingPage:
    game = catalogue.games.get(game_id)
    name, genre = ("", "") if game is None else (game.name, game.genre)
    return ReadingPage(
        game_id,
        name,
        genre,
        catalogue.genres,
        "",
        "",
        "",
        version,
        brief if brief.isdecimal() else "",
    )


@router.post("/games/read")
@router.post("/games/{game_id}/read")
async def read_text(request: Request, game_id: str = "") -> Response:
    """Read what was pasted; nothing is stored yet."""
    form = await _form(request)
    return await run_in_threadpool(_read_text, request, game_id, form)


def _filled(catalogue: Catalogue, game_id: str, form: Form) -> ReadingPage:
    blank = _blank(catalogue, game_id, _whole(form.get("version", "")), form.get("brief", ""))
    return replace(
        blank,
        game_name=blank.game_name or form.get("name", "").strip()[:200],
        genre=blank.genre or form.get("genre", "").strip()[:60],
        text=form.get("text", "").replace("\r\n", "\n")[:40_000],
        source=form.get("source", "").strip()[:200],
        published_on=form.get("published_on", "").strip()[:20],
    )


def _read_text(request: Request, game_id: str, form: Form) -> Response:
    catalogue = workshop_of(request).catalogue()
    filled = _filled(catalogue, game_id, form)
    try:
        if not game_id:
            publishing.new_game(catalogue, filled.game_name, filled.genre)
        draft = reader_of(catalogue).read(form.get("text", "").replace("\r\n", "\n"))
    except WattmetronError as error:
        return page(request, "games/reading.html", {"r": replace(filled, error=str(error))}, 422)
    content = replace(
        filled,
        fragments=fragments(draft),
        unread=draft.unread_texts,
        tiers=draft_tiers(draft, catalogue),
    )
    return page(request, "games/reading.html", {"r": content})


@router.post("/games/confirm")
@router.post("/games/{game_id}/confirm")
async def confirm(request: Request, game_id: str = "") -> Response:
    """Store the draft as corrected."""
    form = await _form(request)
    return await run_in_threadpool(_confirm, request, game_id, form)


def _confirm(request: Request, game_id: str, form: Form) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    try:
        game = (
            None
            if game_id
            else publishing.new_game(catalogue, form.get("name", ""), form.get("genre", ""))
        )
        if game is None:
            informed_game(catalogue, game_id)
        published = published_from(form, game.id if game else game_id, catalogue)
        said = f"read {len(published.tiers)} tiers" if len(published.tiers) > 1 else "read one tier"
        publishing.publish(workshop, published, _whole(form.get("version", "")), said, game)
    except WattmetronError as error:
        status = 409 if isinstance(error, ConflictError) else 422
        return page(
            request,
            "games/reading.html",
            {"r": _kept(catalogue, game_id, form, str(error))},
            status,
        )
    brief = form.get("brief", "")
    url = f"/games/{published.game}" + (f"?brief={brief}" if brief.isdecimal() else "")
    if request.headers.get("hx-request") == "true":
        return Response(status_code=204, headers={"hx-location": LOCATION.format(url)})
    return RedirectResponse(url, 303)


def _kept(catalogue: Catalogue, game_id: str, form: Form, error: str) -> ReadingPage:
    """The draft with everything as it was typed."""
    filled = _filled(catalogue, game_id, form)
    try:
        draft = reader_of(catalogue).read(filled.text)
    except WattmetronError:
        own = catalogue.published.get(game_id)
        tiers = stored_tiers(own, catalogue) if own else ()
        return replace(filled, tiers=tiers, error=error, typed=form)
    return replace(
        filled,
        fragments=fragments(draft),
        unread=draft.unread_texts,
        tiers=draft_tiers(draft, catalogue),
        error=error,
        typed=form,
    )


# --- one game
# -----------------------------------------------------------------------------------------


@router.get("/games/{game_id}")
def game_page(request: Request, game_id: str) -> Response:
    return _game(request, game_id, dict(request.query_params))


def _game(
    request: Request,
    game_id: str,
    params: Form,
    status: int = 200,
    notice: str = "",
    error: str = "",
    typed: Form | None = None,
    columns: ColumnsNeeded | None = None,
) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    machine = read_machine(workshop, catalogue, params)

    def link(equal: str | None = params.get("equal")) -> str:
        return machine.url(f"/games/{game_id}", equal=equal)

    def trial(code: str) -> str:
        return trial_url(machine, game_id, code)

    panel = game_panel(
        catalogue,
        game_id,
        machine,
        publishing.game_state(workshop, game_id),
        link,
        params.get("equal", "")[:80],
        trial,
        workshop.briefs(),
        results_state(workshop, game_id),
    )
    content = {
        "g": panel,
        "briefs": [(row.id, row.plan.brief.name) for row in workshop.briefs()],
        "notice": notice,
        "error": error or machine.error,
        "typed": typed or {},
        "columns": columns,
        "roles": COLUMN_ROLES,
    }
    url = machine.url(f"/games/{game_id}") if request.method == "POST" else None
    return page(request, "games/game.html", content, status, url)


def trial_url(machine: Machine, game_id: str, code: str) -> str:
    """Trying a part happens in the brief, with the game beside it."""
    return (
        ""
        if machine.brief is None
        else DeskQuery(view="frames").url(machine.brief.id, game=game_id, tried=code)
    )


@router.post("/games/{game_id}/results")
@router.post("/games/{game_id}/results/mute")
@router.post("/games/{game_id}/results/remove")
@router.post("/games/{game_id}/results/undo")
async def change_evidence(request: Request, game_id: str) -> Response:
    """Add results, leave one out, remove one, or take the last change back."""
    form = await _form(request)
    action = request.url.path.rsplit("/", 1)[-1]
    return await run_in_threadpool(_change_evidence, request, game_id, form, action)


def _change_evidence(request: Request, game_id: str, form: Form, action: str) -> Response:
    workshop = workshop_of(request)
    params = {"brief": form.get("brief", ""), "parts": form.get("parts", "")}
    try:
        done = _evidence_changed(workshop, game_id, form, action)
    except ColumnsNeeded as needed:
        return _game(request, game_id, params, 422, notice=str(needed), typed=form, columns=needed)
    except WattmetronError as error:
        status = 409 if isinstance(error, ConflictError) else 422
        return _game(request, game_id, params, status, error=str(error), typed=form)
    return _game(
        request, game_id, params, notice=f"{done.said[:1].upper()}{done.said[1:]}: {done.effect}."
    )


def _evidence_changed(
    workshop: Workshop, game_id: str, form: Form, action: str
) -> measuring.Effect:
    version = _whole(form.get("results_version", ""))
    if action == "undo":
        return measuring.undo_results(workshop, game_id, version)
    catalogue = workshop.catalogue()
    own = catalogue.results.get(game_id)
    items = own.items if own else ()
    if action == "mute":
        out = form.get("muted") == "1"
        said = "left a result out" if out else "a result counts again"
        return measuring.change_results(
            workshop, game_id, version, said, measuring.muted(items, form.get("result", ""), out)
        )
    if action == "remove":
        return measuring.change_results(
            workshop,
            game_id,
            version,
            "removed a result",
            measuring.without(items, form.get("result", "")),
        )
    new = measuring.pasted_results(
        catalogue, game_id, form, measuring.known_columns(workshop, form.get("source", ""))
    )
    said = "added a result" if len(new) == 1 else f"added {len(new)} results"
    return measuring.change_results(
        workshop, game_id, version, said, (*items, *new), measuring.told_columns(workshop, form)
    )


@router.get("/games/{game_id}/requirements.json")
def one_json(request: Request, game_id: str) -> Response:
    catalogue = workshop_of(request).catalogue()
    game = publishing.edited(catalogue, game_id).game
    return _download(publishing.export_json(catalogue, [game]), f"{game}.requirements.json")


@router.get("/games/{game_id}/requirements.csv")
def one_csv(request: Request, game_id: str) -> Response:
    catalogue = workshop_of(request).catalogue()
    game = publishing.edited(catalogue, game_id).game
    return _download(publishing.export_csv(catalogue, [game]), f"{game}.requirements.csv")


@router.post("/games/{game_id}/remove")
@router.post("/games/{game_id}/restore")
async def remove_or_restore(request: Request, game_id: str) -> Response:
    """Take out a game that was made by hand, or bring it back."""
    form = await _form(request)
    removing = request.url.path.endswith("/remove")
    return await run_in_threadpool(_remove_or_restore, request, game_id, form, removing)


def _remove_or_restore(request: Request, game_id: str, form: Form, removing: bool) -> Response:
    workshop = workshop_of(request)
    try:
        if removing:
            name = publishing.remove_game(workshop, game_id, _whole(form.get("game_version", "")))
            return _list(request, {}, notice=f"Removed “{name}”.", restore=game_id)
        name = publishing.restore_game(workshop, game_id)
    except WattmetronError as error:
        return _list(
            request, {}, 409 if isinstance(error, ConflictError) else 422, error=str(error)
        )
    return _list(request, {}, notice=f"“{name}” is back.")


@router.post("/games/{game_id}/exclude")
@router.post("/games/{game_id}/place")
@router.post("/games/{game_id}/undo")
async def change_list(request: Request, game_id: str) -> Response:
    """Leave an entry out of the bar, place a named part, or take the last change back."""
    form = await _form(request)
    action = request.url.path.rsplit("/", 1)[-1]
    return await run_in_threadpool(_change_list, request, game_id, form, action)


def _change_list(request: Request, game_id: str, form: Form, action: str) -> Response:
    workshop = workshop_of(request)
    try:
        notice, status, error = _changed(workshop, game_id, form, action), 200, ""
    except WattmetronError as problem:
        notice, error = "", str(problem)
        status = 409 if isinstance(problem, ConflictError) else 422
    brief, view = form.get("brief", ""), form.get("view", "")
    if brief.isdecimal() and view:
        params = {"game": game_id, "equal": form.get("equal", "")}
        url = f"/briefs/{brief}/{view}?game={game_id}"
        return show_desk(request, int(brief), view, params, status, url, notice=notice, error=error)
    params = {"brief": brief, "parts": form.get("parts", ""), "equal": form.get("equal", "")}
    return _game(request, game_id, params, status, notice, error)


def _changed(workshop: Workshop, game_id: str, form: Form, action: str) -> str:
    """Make the change; returns what it was in one sentence."""
    version = _whole(form.get("game_version", ""))
    if action == "undo":
        return f"Undone: {publishing.undo_publishing(workshop, game_id, version)}."
    catalogue = workshop.catalogue()
    own = publishing.edited(catalogue, game_id)
    tier, place = _whole(form.get("tier", "")), _whole(form.get("place", ""))
    side: Side = "graphics" if form.get("side") == "graphics" else "processor"
    if action == "place":
        published, named = placed(own, tier, side, place, form, catalogue)
        direction = "above" if named.percent >= 0 else "below"
        said = f"{named.name} stands {abs(named.percent):g} % {direction} {named.than}"
        publishing.publish(workshop, published, version, said, named=named)
        return f"{said[:1].upper()}{said[1:]}."
    out = form.get("excluded") == "1"
    published = excluded_from_bar(own, tier, side, place, out)
    text = own.tiers[tier].listed(side)[place].text
    said = f"{text} left out of the bar" if out else f"{text} counts for the bar again"
    publishing.publish(workshop, published, version, said)
    return f"{said}."
