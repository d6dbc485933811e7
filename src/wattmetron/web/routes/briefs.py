"""The list of briefs: new, copy, delete with undo."""

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response

from wattmetron.services.workshop import Workshop
from wattmetron.web.pages import page
from wattmetron.web.views.briefs import brief_cards

LOCATION = '{{"path": "{}", "target": "#desk", "swap": "morph:outerHTML"}}'
router = APIRouter(include_in_schema=False)


def workshop_of(request: Request) -> Workshop:
    found: Workshop = request.app.state.workshop
    return found


@router.get("/")
def home() -> Response:
    return RedirectResponse("/briefs", 303)


@router.get("/briefs")
def list_briefs(request: Request) -> Response:
    return _list(request)


def _list(request: Request, notice: str = "", restore: int | None = None) -> Response:
    workshop = workshop_of(request)
    cards = brief_cards(workshop.catalogue(), workshop.briefs())
    content = {"cards": cards, "notice": notice, "restore": restore}
    return page(request, "briefs.html", content, url="/briefs" if request.method == "POST" else None)


def _to_brief(request: Request, brief_id: int) -> Response:
    url = f"/briefs/{brief_id}/brief"
    if request.headers.get("hx-request") == "true":
        return Response(status_code=204, headers={"hx-location": LOCATION.format(url)})
    return RedirectResponse(url, 303)


@router.post("/briefs")
def new_brief(request: Request) -> Response:
    return _to_brief(request, workshop_of(request).new_brief())


@router.post("/briefs/{brief_id}/copy")
def copy_brief(request: Request, brief_id: int) -> Response:
    return _to_brief(request, workshop_of(request).copy(brief_id))


@router.post("/briefs/{brief_id}/delete")
def delete_brief(request: Request, brief_id: int, version: Annotated[int, Form()]) -> Response:
    name = workshop_of(request).delete(brief_id, version)
    return _list(request, f"Deleted “{name}”.", brief_id)


@router.post("/briefs/{brief_id}/restore")
def restore_brief(request: Request, brief_id: int) -> Response:
    workshop_of(request).undo(brief_id)
    return _list(request, "Brought back.")
