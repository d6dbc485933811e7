"""The list of briefs: new, copy, delete with undo."""

import re
from dataclasses import replace
from typing import Annotated, Literal

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import UploadFile

from wattmetron.core.errors import WattmetronError
from wattmetron.core.texts.table_text import text_of
from wattmetron.core.values.text import clean
from wattmetron.formats.brief_file import brief_file, build_file, document_text
from wattmetron.places.brief.pages.briefs_page import brief_cards
from wattmetron.places.brief.pages.message_page import LetterPage, read_text
from wattmetron.places.brief.pages.message_plan import plan_with_list
from wattmetron.places.handout.whole import open_whole
from wattmetron.places.shops.watch_list import kept_watches, looked_at
from wattmetron.shell.address import ViewName
from wattmetron.shell.computation_queue import PageRoute
from wattmetron.shell.forms import Typed, typed
from wattmetron.shell.pages import page
from wattmetron.shell.requests import LOCATION, workshop_of
from wattmetron.workshop.plan_checks import usual_plan

router = APIRouter(include_in_schema=False, route_class=PageRoute)


@router.get("/")
def home() -> Response:
    return RedirectResponse("/briefs", 303)


@router.get("/briefs")
def list_briefs(request: Request) -> Response:
    return _list(request)


def _list(
    request: Request, notice: str = "", restore: tuple[int, int] | None = None, error: str = ""
) -> Response:
    """The list; ``restore`` is the id and version of a brief that can be brought back."""
    workshop = workshop_of(request)
    cards = brief_cards(workshop.catalogue(), workshop.briefs())
    content = {
        "cards": cards,
        "unreadable": workshop.unreadable_briefs(),
        "notice": notice,
        "restore": restore,
        "error": error,
        "is_demo": workshop.is_demo,
        "fired": [
            watched
            for watched in looked_at(workshop, workshop.catalogue(), kept_watches(workshop).watches)
            if watched.fires
        ],
    }
    url = "/briefs" if request.method == "POST" else None
    return page(request, "places/brief/pages/briefs.html", content, 422 if error else 200, url)


def _to_brief(request: Request, brief_id: int, view: ViewName = "brief") -> Response:
    url = f"/briefs/{brief_id}/{view}"
    if request.headers.get("hx-request") == "true":
        return Response(status_code=204, headers={"hx-location": LOCATION.format(url)})
    return RedirectResponse(url, 303)


@router.post("/briefs")
def new_brief(request: Request) -> Response:
    return _to_brief(request, workshop_of(request).new_brief())


EXAMPLE = (
    "Hello, around 1,200, at most 1,400. I have a 1440p 165 Hz display, mostly Gullwing Circuit and"
    " some Hollow Meridian, upscaling is fine, no lights. I still have my drive and case."
)


@router.get("/briefs/letter")
def ask_for_letter(request: Request) -> Response:
    return page(request, "places/brief/pages/letter.html", {"l": LetterPage(), "example": EXAMPLE})


@router.post("/briefs/letter")
async def read_letter_sent(request: Request) -> Response:
    """The letter or list with what was read of it, to be corrected."""
    form = await request.form(max_fields=4, max_files=1)
    text, file = clean(str(form.get("letter") or "")), form.get("file")
    if isinstance(file, UploadFile) and file.filename:
        text = clean(text_of(await file.read()))
    return await run_in_threadpool(_letter, request, text)


def _letter(request: Request, text: str, error: str = "", drafts: Typed | None = None) -> Response:
    """The page of a letter; what was typed stays where it could not be taken."""
    catalogue = workshop_of(request).catalogue()
    try:
        letter_page = read_text(catalogue, text)
        letter_page = replace(letter_page, error=error, drafts=drafts or {})
    except WattmetronError as refused:
        letter_page = LetterPage(text=text[:2000], error=str(refused))
    content = {"l": letter_page, "example": EXAMPLE}
    return page(
        request,
        "places/brief/pages/letter.html",
        content,
        422 if letter_page.error else 200,
        "/briefs/letter",
    )


@router.post("/briefs/letter/make")
async def make_from_letter(request: Request) -> Response:
    """A brief with what was read and corrected."""
    entries = await typed(request, 1500)
    return await run_in_threadpool(_make, request, entries)


def _make(request: Request, entries: Typed) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    region = entries.get("region", "")
    try:
        usual = usual_plan(catalogue, region if region in catalogue.regions else "")
        plan = plan_with_list(catalogue, usual, entries)
        return _to_brief(request, workshop.create(plan), "review" if plan.sent else "brief")
    except WattmetronError as error:
        return _letter(request, entries.get("letter", ""), str(error), entries)


@router.post("/briefs/open")
async def open_files(request: Request) -> Response:
    """A brief from its file, with its build if that was chosen too."""
    form = await request.form(max_fields=4, max_files=4)
    chosen = [
        item for item in form.getlist("files") if isinstance(item, UploadFile) and item.filename
    ]
    files = [(str(file.filename), await file.read()) for file in chosen]
    return await run_in_threadpool(_open_files, request, files)


def _open_files(request: Request, files: list[tuple[str, bytes]]) -> Response:
    if not files:
        return _list(
            request,
            error="No file was chosen: choose a brief as JSON, and its build if you have it.",
        )
    try:
        return _to_brief(request, open_whole(workshop_of(request), files))
    except WattmetronError as error:
        return _list(request, error=str(error))


@router.get("/briefs/{brief_id}/file/stored")
def download_stored(request: Request, brief_id: int) -> Response:
    """A brief as it is stored, also one that cannot be read."""
    headers = {"content-disposition": f'attachment; filename="brief-{brief_id}.stored.txt"'}
    text = workshop_of(request).raw_brief(brief_id)
    return Response(text.encode(errors="replace"), media_type="text/plain", headers=headers)


@router.get("/briefs/{brief_id}/file/{what}")
def download(request: Request, brief_id: int, what: Literal["brief", "build"]) -> Response:
    """The brief or its build as a file in the open format."""
    plan = workshop_of(request).stored_plan(brief_id)
    file = brief_file(plan.brief) if what == "brief" else build_file(plan.build)
    name = re.sub(r"[^a-z0-9]+", "-", plan.brief.name.lower()).strip("-") or "brief"
    headers = {"content-disposition": f'attachment; filename="{name[:60]}.{what}.json"'}
    return Response(document_text(file), media_type="application/json", headers=headers)


@router.post("/briefs/{brief_id}/copy")
def copy_brief(request: Request, brief_id: int) -> Response:
    return _to_brief(request, workshop_of(request).copy(brief_id))


@router.post("/briefs/{brief_id}/delete")
def delete_brief(request: Request, brief_id: int, version: Annotated[int, Form()]) -> Response:
    name = workshop_of(request).delete(brief_id, version)
    return _list(request, f"Deleted “{name}”.", (brief_id, version + 1))


@router.post("/briefs/{brief_id}/restore")
def restore_brief(request: Request, brief_id: int, version: Annotated[int, Form()]) -> Response:
    workshop_of(request).undo(brief_id, version)
    return _list(request, "Brought back.")
