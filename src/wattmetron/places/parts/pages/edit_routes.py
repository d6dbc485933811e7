"""Addresses that change parts: forms, offers, tables with a preview, edits taken back."""

from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime
from typing import NamedTuple
from urllib.parse import urlencode

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import FormData, UploadFile

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, WattmetronError
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.text import clean
from wattmetron.places.parts import part_edits
from wattmetron.places.parts.pages.part_form import part_form
from wattmetron.places.parts.pages.part_forms import (
    NewPartForm,
    OfferForm,
    OwnForm,
    PictureForm,
    TableForm,
    UndoForm,
    VersionForm,
    typed_part,
)
from wattmetron.places.parts.pages.routes import show_edit, show_import
from wattmetron.places.parts.part_edits import Done
from wattmetron.places.parts.table_import import bring_in, kind_of_file, preview
from wattmetron.shell.error_pages import status_of
from wattmetron.shell.forms import Typed, read
from wattmetron.shell.pages import page
from wattmetron.shell.requests import sayings_of, workshop_of
from wattmetron.shell.security import MAX_BODY_BYTES
from wattmetron.workshop.workshop import Workshop

router = APIRouter(include_in_schema=False)


class TypedWithFile(NamedTuple):
    """The fields of a form, and the name and bytes of the one file that may be there."""

    fields: Typed
    file_name: str
    data: bytes


async def typed_with_file(request: Request) -> TypedWithFile:
    """Fields, and the name and bytes of the one file that may be there."""
    data: FormData = await request.form(max_fields=120, max_files=1, max_part_size=MAX_BODY_BYTES)
    fields = {name: clean(value) for name, value in data.items() if isinstance(value, str)}
    upload = data.get("file")
    if isinstance(upload, UploadFile) and upload.filename:
        name = upload.filename.replace("\\", "/").split("/")[-1][:120]
        return TypedWithFile(fields, name, await upload.read())
    return TypedWithFile(fields, "", b"")


def _to(path: str, **query: object) -> Response:
    words = urlencode({name: str(value) for name, value in query.items()})
    return RedirectResponse(f"{path}?{words}", 303)


def _kept(request: Request, sentence: str) -> str:
    return sayings_of(request).keep(sentence)


# --- tables ---


@router.post("/parts/import")
async def look_at_table(request: Request) -> Response:
    entries, name, data = await typed_with_file(request)
    return await run_in_threadpool(_look, request, entries, name, data)


def _look(request: Request, entries: Typed, name: str, data: bytes) -> Response:
    workshop = workshop_of(request)
    if not name:
        sentence = "No file was chosen: choose a CSV file with parts."
        return show_import(request, None, "", sentence)
    try:
        kind = kind_of_file(name, entries.get("kind", ""))
        table_preview = preview(workshop, workshop.catalogue(), kind, name, data)
    except WattmetronError as error:
        return show_import(request, None, name, str(error))
    return show_import(request, table_preview, name)


@router.post("/parts/import/confirm")
async def confirm_table(request: Request) -> Response:
    entries = (await typed_with_file(request)).fields
    return await run_in_threadpool(_confirm, request, entries)


def _confirm(request: Request, entries: Typed) -> Response:
    workshop = workshop_of(request)
    form = read(TableForm, entries)
    data = form.text.replace("\r\n", "\n").encode()
    try:
        done = bring_in(workshop, workshop.catalogue(), form.kind, form.name, data)
    except WattmetronError as error:
        return show_import(request, None, form.name, str(error))
    return _to("/parts", kind=form.kind, all="1", done=done.edit_id)


# --- parts and offers ---


@router.post("/parts/new")
async def add(request: Request) -> Response:
    entries = (await typed_with_file(request)).fields
    return await run_in_threadpool(_add, request, entries)


def _add(request: Request, entries: Typed) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    form = read(NewPartForm, entries)
    part_id = part_edits.new_id(catalogue, form.maker, form.model, form.colour)
    try:
        done = part_edits.add_part(workshop, catalogue, typed_part(form.kind, entries, part_id))
    except WattmetronError as error:
        shown = part_form(form.kind, "", "", entries, 0)
        content = {"f": shown, "error": str(error)}
        return page(request, "places/parts/pages/part_form.html", content, status_of(error))
    return _to_part(done)


def _to_part(done: Done) -> Response:
    return _to(f"/parts/{done.part_id}", done=done.edit_id)


@router.post("/parts/{part_id}/edit")
async def change(request: Request, part_id: str) -> Response:
    entries = (await typed_with_file(request)).fields
    return await run_in_threadpool(_change, request, part_id, entries)


def _change(request: Request, part_id: str, entries: Typed) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    version = read(VersionForm, entries).version
    try:
        kind = kind_of(catalogue.described.part(part_id))
        part = typed_part(kind, entries, part_id)
        return _to_part(part_edits.change_part(workshop, catalogue, part, version))
    except ConflictError as error:
        return show_edit(request, part_id, None, str(error), 409)
    except WattmetronError as error:
        return show_edit(request, part_id, entries, str(error), status_of(error))


Edit = Callable[[Workshop, Catalogue, str, Typed], Done]


def _offer(workshop: Workshop, catalogue: Catalogue, part_id: str, entries: Typed) -> Done:
    offer, today = read(OfferForm, entries).offer, datetime.now(UTC).date()
    return part_edits.type_offer(workshop, catalogue, part_id, offer, today)


def _take_out(workshop: Workshop, catalogue: Catalogue, part_id: str, entries: Typed) -> Done:
    version = read(VersionForm, entries).version
    return part_edits.take_out_part(workshop, catalogue, part_id, version)


@router.post("/parts/{part_id}/offer")
async def offer(request: Request, part_id: str) -> Response:
    entries = (await typed_with_file(request)).fields
    return await run_in_threadpool(_done, request, part_id, entries, _offer)


def _own(workshop: Workshop, catalogue: Catalogue, part_id: str, entries: Typed) -> Done:
    form = read(OwnForm, entries)
    record = form.record(catalogue.part(part_id))
    return replace(part_edits.note_own(workshop, record, form.version), part_id=part_id)


@router.post("/parts/{part_id}/own")
async def own(request: Request, part_id: str) -> Response:
    entries = (await typed_with_file(request)).fields
    return await run_in_threadpool(_done, request, part_id, entries, _own)


@router.post("/parts/{part_id}/picture")
async def keep_picture(request: Request, part_id: str) -> Response:
    entries, name, data = await typed_with_file(request)

    def edit(workshop: Workshop, catalogue: Catalogue, part_id: str, entries: Typed) -> Done:
        form = read(PictureForm, entries)
        if form.away:
            return part_edits.drop_picture(workshop, catalogue, part_id, form.version)
        return part_edits.keep_picture(workshop, catalogue, part_id, (name, data), form.version)

    return await run_in_threadpool(_done, request, part_id, entries, edit)


@router.post("/parts/{part_id}/remove")
async def remove(request: Request, part_id: str) -> Response:
    entries = (await typed_with_file(request)).fields
    return await run_in_threadpool(_done, request, part_id, entries, _take_out)


def _done(request: Request, part_id: str, entries: Typed, edit: Edit) -> Response:
    """Makes an edit; what cannot be done is said on the part's page."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    kind = kind_of(catalogue.part(part_id))
    try:
        done = edit(workshop, catalogue, part_id, entries)
    except WattmetronError as error:
        return _to(f"/parts/{part_id}", error=_kept(request, str(error)))
    if part_id not in workshop.catalogue().parts:
        return _to("/parts", kind=kind, done=done.edit_id)
    return _to_part(done)


@router.post("/parts/undo")
async def undo(request: Request) -> Response:
    entries = (await typed_with_file(request)).fields
    return await run_in_threadpool(_undo, request, entries)


def _undo(request: Request, entries: Typed) -> Response:
    form = read(UndoForm, entries)
    try:
        sentence = part_edits.undo_edit(workshop_of(request), form.edit)
    except WattmetronError as error:
        return _to("/parts", kind=form.kind, error=_kept(request, str(error)))
    return _to("/parts", kind=form.kind, said=_kept(request, f"Took back: {sentence}."))
