"""A copy that came back: brought in, looked at, taken over."""

from dataclasses import replace
from pathlib import PurePosixPath

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import UploadFile

from wattmetron.core.errors import BriefError, WattmetronError
from wattmetron.formats.plan_file import is_plan, read_plan, to_document
from wattmetron.places.assessment.assess import assess
from wattmetron.places.brief.merged_copy import take_over
from wattmetron.places.brief.pages.returned_page import left_places, returned_page
from wattmetron.places.desk.pages.routes import show
from wattmetron.places.handout.changes_since import figures_of
from wattmetron.shell.forms import Form, Number, Short400, Typed, read, typed
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.workshop.plan_checks import checked_plan

router = APIRouter(include_in_schema=False)


class TakeForm(Form):
    """What of a copy is left, and the version of the brief that it was looked at with."""

    version: Number = 0
    leave: Short400 = ""


@router.post("/briefs/{brief_id}/returned")
async def bring_back(request: Request, brief_id: int) -> Response:
    """A copy of this brief, as a file that was handed out."""
    form = await request.form(max_fields=4, max_files=1)
    file = form.get("file")
    if not isinstance(file, UploadFile) or not file.filename:
        sentence = "No file was chosen: choose the JSON that came back."
        return await run_in_threadpool(_refused, request, brief_id, sentence)
    name, data = str(file.filename), await file.read()
    return await run_in_threadpool(_bring_back, request, brief_id, name, data)


def _refused(request: Request, brief_id: int, sentence: str) -> Response:
    return show(
        request, brief_id, "handout", {}, 422, f"/briefs/{brief_id}/handout", error=sentence
    )


def _bring_back(request: Request, brief_id: int, name: str, data: bytes) -> Response:
    workshop = workshop_of(request)
    try:
        if not is_plan(data):
            raise BriefError(f"{name} is no whole brief: ask for the JSON of the handout.")
        theirs = replace(read_plan(name, data), pinned=None, sent=(), house=None, purchases=())
        catalogue = workshop.catalogue()
        checked_plan(catalogue, theirs.brief, theirs.build)
        figures = figures_of(assess(catalogue, theirs.brief, theirs.build))
        snapshot_name = f"came back, {PurePosixPath(name).stem}"
        snapshot_id = workshop.freeze(brief_id, snapshot_name, figures.text, to_document(theirs))
    except WattmetronError as error:
        return _refused(request, brief_id, str(error))
    return RedirectResponse(f"/briefs/{brief_id}/returned/{snapshot_id}", 303)


@router.get("/briefs/{brief_id}/returned/{snapshot_id}")
def show_returned(request: Request, brief_id: int, snapshot_id: int, leave: str = "") -> Response:
    """What differs in a copy or a snapshot, to be taken or left."""
    return _page(request, brief_id, snapshot_id, leave)


def _page(
    request: Request, brief_id: int, snapshot_id: int, leave: str, error: str = ""
) -> Response:
    workshop = workshop_of(request)
    opened, snapshot = workshop.open(brief_id), workshop.snapshot(brief_id, snapshot_id)
    theirs = workshop.read_plan(snapshot.document)
    returned = returned_page(
        workshop.catalogue(), opened, snapshot, theirs, left_places(leave[:400])
    )
    content = {"r": replace(returned, error=error)}
    url = f"/briefs/{brief_id}/returned/{snapshot_id}" if error else None
    return page(request, "places/brief/pages/returned.html", content, 422 if error else 200, url)


@router.post("/briefs/{brief_id}/returned/{snapshot_id}")
async def take(request: Request, brief_id: int, snapshot_id: int) -> Response:
    """Take over what is not left, as one change."""
    entries = await typed(request)
    return await run_in_threadpool(_take, request, brief_id, snapshot_id, entries)


def _take(request: Request, brief_id: int, snapshot_id: int, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(TakeForm, entries)
    catalogue = workshop.catalogue()
    theirs = workshop.read_plan(workshop.snapshot(brief_id, snapshot_id).document)
    left = left_places(form.leave)
    try:
        sentence = workshop.change(
            brief_id, form.version, lambda plan: take_over(catalogue, plan, theirs, left)
        )
    except WattmetronError as error:
        return _page(request, brief_id, snapshot_id, form.leave, str(error))
    url, notice = f"/briefs/{brief_id}/frames", f"{sentence[:1].upper()}{sentence[1:]}."
    return show(request, brief_id, "frames", {}, 200, url, notice=notice)
