"""Addresses that change a brief: each makes one change and shows the page again."""

from collections.abc import Callable
from typing import Any, Literal
from urllib.parse import urlencode

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response

from wattmetron.core.errors import ConflictError, NotPossibleError, WattmetronError
from wattmetron.places.assessment import brief_edits
from wattmetron.places.brief.pages.forms import ChangeForm
from wattmetron.places.desk.pages.posted_changes import (
    CHANGES,
    Change,
    as_tier,
    edit_target,
    remove_target,
)
from wattmetron.places.desk.pages.routes import show
from wattmetron.places.games.pages.game_change_routes import change_list
from wattmetron.shell.computation_queue import changed
from wattmetron.shell.error_pages import status_of
from wattmetron.shell.forms import Typed, read, typed
from wattmetron.shell.requests import in_place, workshop_of

router = APIRouter(include_in_schema=False)
Shown = Callable[[], Response]


async def _changed(request: Request, brief_id: int, change: Change) -> Response:
    entries = await typed(request)
    return await changed(request, lambda: _change(request, brief_id, entries, change))


def _change(request: Request, brief_id: int, entries: Typed, change: Change) -> Shown:
    """Makes a change; an error keeps what was typed and says what to do."""
    workshop, form = workshop_of(request), read(ChangeForm, entries)
    beside = {"game": form.beside} if form.beside else {}
    url = f"/briefs/{brief_id}/{form.view}" + (f"?{urlencode(beside)}" if beside else "")

    def shown(status: int = 200, **more: Any) -> Shown:
        return lambda: show(request, brief_id, form.view, beside, status, url, **more)

    try:
        catalogue = workshop.catalogue()
        sentence = workshop.change(
            brief_id, form.version, lambda plan: change(plan, entries, catalogue)
        )
    except ConflictError as error:
        return shown(409, error=str(error))
    except WattmetronError as error:
        drafts = {f"{form.scope}{name}": value for name, value in entries.items()}
        return shown(status_of(error), error=str(error), drafts=drafts | {f"{form.scope}*": "1"})
    if not in_place(request):
        return lambda: RedirectResponse(url, 303)
    return shown(notice="" if sentence == "nothing" else f"{sentence[:1].upper()}{sentence[1:]}.")


@router.post("/briefs/{brief_id}/targets/{target_id}")
async def change_target(request: Request, brief_id: int, target_id: str) -> Response:
    return await _changed(request, brief_id, edit_target(target_id))


@router.post("/briefs/{brief_id}/targets/{target_id}/remove")
async def take_target_out(request: Request, brief_id: int, target_id: str) -> Response:
    return await _changed(request, brief_id, remove_target(target_id))


@router.post("/briefs/{brief_id}/targets/{target_id}/tier")
async def put_target_at_tier(request: Request, brief_id: int, target_id: str) -> Response:
    return await _changed(request, brief_id, as_tier(target_id))


@router.post("/briefs/{brief_id}/extras/{place}/{action}")
async def change_extra(
    request: Request, brief_id: int, place: int, action: Literal["remove", "flip"]
) -> Response:
    return await _changed(
        request, brief_id, lambda plan, _, catalogue: brief_edits.change_extra(plan, place, action)
    )


@router.post("/briefs/{brief_id}/games/{game_id}/{action}")
async def change_game(
    request: Request, brief_id: int, game_id: str, action: Literal["exclude", "place", "undo"]
) -> Response:
    """A change of what a game publishes, made beside a brief."""
    entries = await typed(request, 2500)
    form = read(ChangeForm, entries)
    params = {"game": game_id, "equal": entries.get("equal", "")}
    url = f"/briefs/{brief_id}/{form.view}?game={game_id}"

    def change() -> Shown:
        status, notice, error = change_list(request, game_id, entries, action)
        return lambda: show(
            request, brief_id, form.view, params, status, url, notice=notice, error=error
        )

    return await changed(request, change)


@router.post("/briefs/{brief_id}/undo")
@router.post("/briefs/{brief_id}/redo")
async def undo_or_redo(request: Request, brief_id: int) -> Response:
    """Take the last change back, or make it again."""
    entries = await typed(request)
    back = request.url.path.endswith("/undo")
    return await changed(request, lambda: _undo_or_redo(request, brief_id, entries, back))


def _undo_or_redo(request: Request, brief_id: int, entries: Typed, back: bool) -> Shown:
    workshop, form = workshop_of(request), read(ChangeForm, entries)
    url = f"/briefs/{brief_id}/{form.view}"

    def shown(status: int = 200, **more: Any) -> Shown:
        return lambda: show(request, brief_id, form.view, {}, status, url, **more)

    try:
        change = workshop.undo if back else workshop.redo
        sentence = change(brief_id, form.version)
    except ConflictError as error:
        return shown(409, error=str(error))
    except NotPossibleError as error:
        return shown(notice=str(error))
    if not in_place(request):
        return lambda: RedirectResponse(url, 303)
    return shown(notice=f"{'Undone' if back else 'Done again'}: {sentence}.", offers_redo=back)


def _register(path: str, change: Change) -> None:
    async def handle(request: Request, brief_id: int) -> Response:
        return await _changed(request, brief_id, change)

    router.add_api_route(
        f"/briefs/{{brief_id}}/{path}", handle, methods=["POST"], response_model=None
    )


for _path, _edit in CHANGES.items():
    _register(_path, _edit)
