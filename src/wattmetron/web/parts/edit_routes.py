"""Parts by hand and from tables: forms, offers, imports with a preview, and taking an edit back."""

from collections.abc import Callable
from datetime import UTC, datetime
from urllib.parse import urlencode

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import FormData, UploadFile

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, WattmetronError
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.parts import ALL_KINDS, KIND_PLURALS, Kind
from wattmetron.services.parts import edits as part_edits
from wattmetron.services.parts.edits import Done
from wattmetron.services.parts.table_import import TablePreview, bring_in, kind_of_file, preview
from wattmetron.services.workshop import Workshop
from wattmetron.web.parts.part import part_page
from wattmetron.web.parts.part_form import part_form
from wattmetron.web.shell.line import PageRoute
from wattmetron.web.shell.pages import page
from wattmetron.web.shell.requests import workshop_of

router = APIRouter(include_in_schema=False, route_class=PageRoute)
Form = dict[str, str]


async def _form(request: Request) -> tuple[Form, str, bytes]:
    """Fields, and the name and bytes of the one file that may be there."""
    data: FormData = await request.form(max_fields=120, max_files=1)
    fields = {name: value for name, value in data.items() if isinstance(value, str)}
    upload = data.get("file")
    if isinstance(upload, UploadFile) and upload.filename:
        return fields, upload.filename.replace("\\", "/").split("/")[-1][:120], await upload.read()
    return fields, "", b""


def _kind(text: str) -> Kind:
    return next((kind for kind in ALL_KINDS if kind == text), "processor")


@router.get("/parts/new")
def new_part(request: Request, kind: str = "", like: str = "") -> Response:
    catalogue = workshop_of(request).catalogue()
    old = catalogue.described.parts.get(like)
    cells = part_edits.variant_of(old) if old else {}
    own = kind_of(old) if old else _kind(kind)
    return page(
        request, "parts/part_form.html", {"f": part_form(own, "", "", cells, 0), "error": ""}
    )


@router.get("/parts/import")
def import_page(request: Request) -> Response:
    return _import(request, None, "")


def _import(request: Request, found: TablePreview | None, name: str, error: str = "") -> Response:
    content = {"p": found, "name": name, "error": error, "kinds": list(KIND_PLURALS.items())}
    return page(request, "parts/part_import.html", content, 422 if error else 200)


@router.post("/parts/import")
async def look_at_table(request: Request) -> Response:
    form, name, data = await _form(request)
    return await run_in_threadpool(_look, request, form, name, data)


def _look(request: Request, form: Form, name: str, data: bytes) -> Response:
    workshop = workshop_of(request)
    try:
        if not name:
            return _import(request, None, "", "No file was chosen: choose a CSV file with parts.")
        kind = kind_of_file(name, form.get("kind", ""))
        return _import(request, preview(workshop, workshop.catalogue(), kind, name, data), name)
    except WattmetronError as error:
        return _import(request, None, name, str(error))


@router.post("/parts/import/confirm")
async def confirm_table(request: Request) -> Response:
    form, _, _ = await _form(request)
    return await run_in_threadpool(_confirm, request, form)


def _confirm(request: Request, form: Form) -> Response:
    workshop = workshop_of(request)
    name, data = (
        form.get("name", "table.csv")[:120],
        form.get("text", "").replace("\r\n", "\n").encode(),
    )
    try:
        done = bring_in(workshop, workshop.catalogue(), _kind(form.get("kind", "")), name, data)
    except WattmetronError as error:
        return _import(request, None, name, str(error))
    return RedirectResponse(
        "/parts?"
        + urlencode({"kind": form.get("kind", ""), "all": "1", "done": str(done.edit_id)}),
        303,
    )


@router.get("/parts/{part_id}/edit")
def edit_part(request: Request, part_id: str) -> Response:
    return _edit(request, part_id)


def _edit(
    request: Request, part_id: str, cells: Form | None = None, error: str = "", status: int = 200
) -> Response:
    workshop = workshop_of(request)
    part = workshop.catalogue().described.part(part_id)
    kind = kind_of(part)
    version = part_edits.part_version(workshop, part_id, kind)
    shown = part_form(
        kind, part_id, part.name, part_edits.cells_of(part) if cells is None else cells, version
    )
    return page(request, "parts/part_form.html", {"f": shown, "error": error}, status)


@router.post("/parts/new")
async def add(request: Request) -> Response:
    form, _, _ = await _form(request)
    return await run_in_threadpool(_add, request, form)


def _add(request: Request, form: Form) -> Response:
    workshop = workshop_of(request)
    kind = _kind(form.get("kind", ""))
    try:
        done = part_edits.add_part(workshop, workshop.catalogue(), kind, form)
    except WattmetronError as error:
        return page(
            request,
            "parts/part_form.html",
            {"f": part_form(kind, "", "", form, 0), "error": str(error)},
            422,
        )
    return _to_part(done)


def _to_part(done: Done) -> Response:
    return RedirectResponse(f"/parts/{done.part_id}?done={done.edit_id}", 303)


@router.post("/parts/{part_id}/edit")
async def change(request: Request, part_id: str) -> Response:
    form, _, _ = await _form(request)
    return await run_in_threadpool(_change, request, part_id, form)


def _change(request: Request, part_id: str, form: Form) -> Response:
    workshop = workshop_of(request)
    try:
        return _to_part(part_edits.change_part(workshop, workshop.catalogue(), part_id, form))
    except ConflictError as error:
        return _edit(request, part_id, None, str(error), 409)
    except WattmetronError as error:
        return _edit(request, part_id, form, str(error), 422)


Edit = Callable[[Workshop, Catalogue, str, Form], Done]


def _offer(workshop: Workshop, catalogue: Catalogue, part_id: str, form: Form) -> Done:
    return part_edits.type_offer(workshop, catalogue, part_id, form, datetime.now(UTC).date())


@router.post("/parts/{part_id}/offer")
async def offer(request: Request, part_id: str) -> Response:
    form, _, _ = await _form(request)
    return await run_in_threadpool(_done, request, part_id, form, _offer)


@router.post("/parts/{part_id}/remove")
async def remove(request: Request, part_id: str) -> Response:
    form, _, _ = await _form(request)
    return await run_in_threadpool(_done, request, part_id, form, part_edits.take_out_part)


def _done(request: Request, part_id: str, form: Form, edit: Edit) -> Response:
    """Make an edit; what cannot be done is said on the part's page."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    kind = kind_of(catalogue.part(part_id))
    try:
        done = edit(workshop, catalogue, part_id, form)
    except WattmetronError as error:
        return RedirectResponse(f"/parts/{part_id}?" + urlencode({"error": str(error)[:400]}), 303)
    if part_id not in workshop.catalogue().parts:
        return RedirectResponse(
            "/parts?" + urlencode({"kind": kind, "done": str(done.edit_id)}), 303
        )
    return _to_part(done)


@router.post("/parts/undo")
async def undo(request: Request) -> Response:
    form, _, _ = await _form(request)
    return await run_in_threadpool(_undo, request, form)


def _undo(request: Request, form: Form) -> Response:
    edit_id = form.get("edit", "")
    try:
        said = part_edits.undo_edit(
            workshop_of(request), int(edit_id) if edit_id.isdecimal() else 0
        )
    except WattmetronError as error:
        return RedirectResponse(
            "/parts?" + urlencode({"kind": _kind(form.get("kind", "")), "error": str(error)}), 303
        )
    return RedirectResponse(
        "/parts?" + urlencode({"kind": _kind(form.get("kind", "")), "said": f"Took back: {said}."}),
        303,
    )


def notice_of(workshop: Workshop, params: Form) -> dict[str, str]:
    """What was just done, with the edit that can be taken back, or what could not be done."""
    done = part_edits.edit_said(workshop, params.get("done", ""))
    notice = f"{done[:1].upper()}{done[1:]}." if done else params.get("said", "")[:300]
    return {
        "notice": notice,
        "edit": params.get("done", "") if done else "",
        "refused": params.get("error", "")[:500],
    }


@router.get("/parts/{part_id}")
def one_part(request: Request, part_id: str) -> Response:
    workshop = workshop_of(request)
    catalogue, params = workshop.catalogue(), dict(request.query_params)
    content = {
        "s": part_page(workshop, catalogue, part_id, params),
        "regions": [(one.id, f"{one.name} ({one.currency})") for one in catalogue.regions.values()],
        **notice_of(workshop, params),
    }
    return page(request, "parts/part.html", content)
