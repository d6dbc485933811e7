"""Sets of dated builds as pages and files, and every change that can be made to them."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import UploadFile

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError, WattmetronError
from wattmetron.core.values.dated import BuildSet, Dated
from wattmetron.formats.set_file import read_set, set_document
from wattmetron.places.handout import handout_links as links
from wattmetron.places.handout.changes_since import read_figures
from wattmetron.places.handout.content import Handout
from wattmetron.places.handout.handout_links import Of
from wattmetron.places.handout.pages.files import as_download, handout_file, page_content
from wattmetron.places.handout.pages.view import HandoutLinkRow, link_row
from wattmetron.places.handout.set_content import set_handout
from wattmetron.places.handout.sets import (
    OpenedSet,
    all_sets,
    assessed,
    catalogue_then,
    change_set,
    dated_now,
    drop_set,
    make_set,
    open_set,
    outdated,
    undo_set,
)
from wattmetron.places.handout.texts import markdown, plain_text
from wattmetron.shell.forms import Form, Number, Short20, Short80, Typed, read, read_ends, typed
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.words.figures import money, money_range
from wattmetron.workshop.workshop import Workshop

router = APIRouter(include_in_schema=False)
FORMS = (("html", "HTML"), ("md", "Markdown"), ("txt", "Text"), ("json", "JSON"))


class SetForm(Form):
    """A change of a set: what it is called, or what is done with one of its builds."""

    version: Number = 0
    name: Short80 = ""
    opening: str = ""
    place: Number = 0
    where: Short20 = ""
    ends: Short20 = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class SetEntryRow:
    """A build of a set: what it cost then and costs now, and why it is out of date."""

    position: int
    name: str
    day: str
    budget: str
    sides: str
    then: str
    now: str
    met: str
    reasons: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class SetPage:
    """A set; ``late`` of its builds are out of date."""

    opened: OpenedSet
    rows: tuple[SetEntryRow, ...]
    late: int
    links: tuple[HandoutLinkRow, ...]
    fresh_link: str = ""
    notice: str = ""
    error: str = ""


@router.get("/sets")
def list_sets(request: Request) -> Response:
    return _list(request)


def _list(
    request: Request,
    notice: str = "",
    restore: tuple[int, int] | None = None,
    error: str = "",
    status: int = 200,
) -> Response:
    """The list; ``restore`` is the id and version of a set that can be brought back."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    rows = [
        (
            opened_set,
            sum(bool(outdated(catalogue, entry, None)) for entry in opened_set.build_set.entries),
        )
        for opened_set in all_sets(workshop)
    ]
    content = {"rows": rows, "notice": notice, "restore": restore, "error": error}
    return page(request, "places/handout/pages/sets.html", content, status, "/sets")


@router.get("/sets/{set_id}")
def show_set(request: Request, set_id: int) -> Response:
    return _page(request, set_id)


def _page(request: Request, set_id: int, status: int = 200, **more: str) -> Response:
    workshop = workshop_of(request)
    opened = open_set(workshop, set_id)
    catalogue = workshop.catalogue()
    rows = tuple(
        _row(n, catalogue, entry, catalogue_then(workshop, entry))
        for n, entry in enumerate(opened.build_set.entries)
    )
    today = datetime.now(UTC).date()
    made = SetPage(
        opened=opened,
        rows=rows,
        late=sum(bool(row.reasons) for row in rows),
        links=tuple(link_row(link, today) for link in links.links_of(workshop, Of(None, set_id))),
        **more,
    )
    content = {"s": made, "forms": FORMS}
    return page(request, "places/handout/pages/set.html", content, status, f"/sets/{set_id}")


def _row(n: int, catalogue: Catalogue, entry: Dated, then: Catalogue | None) -> SetEntryRow:
    figures, brief = read_figures(entry.figures), entry.plan.brief
    region = catalogue.regions.get(brief.region)
    currency = region.currency if region else ""
    try:
        now = assessed(catalogue, entry)
        total = money(now.spent_minor, currency)
        met = f"{now.met} of {len(now.counted)}" if now.counted else "–"
        parts = (now.machine.processor, now.machine.graphics)
        sides = ", ".join(part.name for part in parts if part)
    except BriefError:
        total, met, sides = "–", "–", ""
    return SetEntryRow(
        position=n,
        name=entry.name,
        day=f"{entry.made_at:%-d %b %Y}",
        budget=money_range(brief.budget_low_minor, brief.budget_high_minor, currency),
        sides=sides,
        then=money(figures.spent_minor, currency),
        now=total,
        met=met,
        reasons=outdated(catalogue, entry, then),
    )


Change = Callable[[Workshop, SetForm, BuildSet], BuildSet]


def _tell(workshop: Workshop, form: SetForm, build_set: BuildSet) -> BuildSet:
    return build_set.told(form.name, form.opening)


def _move(workshop: Workshop, form: SetForm, build_set: BuildSet) -> BuildSet:
    return build_set.moved(form.place, form.where)


def _remove(workshop: Workshop, form: SetForm, build_set: BuildSet) -> BuildSet:
    return build_set.without(form.place)


def _renew(workshop: Workshop, form: SetForm, build_set: BuildSet) -> BuildSet:
    entry = build_set.entry(form.place)
    return build_set.renewed(form.place, dated_now(workshop, entry.name, entry.plan))


CHANGES: dict[str, tuple[Change, str]] = {
    "text": (_tell, "Name and opening are kept."),
    "move": (_move, ""),
    "remove": (_remove, "The build is taken out of the set."),
    "renew": (_renew, "The build stands in the set with the prices of today."),
}


@router.post("/sets/open")
async def open_file(request: Request) -> Response:
    """A set from its file."""
    form = await request.form(max_fields=2, max_files=1)
    file = form.get("file")
    if not isinstance(file, UploadFile) or not file.filename:
        return await run_in_threadpool(
            _list, request, error="No file was chosen: choose a set as JSON.", status=422
        )
    name, data = str(file.filename), await file.read()
    return await run_in_threadpool(_open_file, request, name, data)


def _open_file(request: Request, name: str, data: bytes) -> Response:
    try:
        set_id = make_set(workshop_of(request), read_set(name, data))
    except WattmetronError as error:
        return _list(request, error=str(error), status=422)
    return RedirectResponse(f"/sets/{set_id}", 303)


@router.post("/sets/{set_id}/change/{what}")
async def change(request: Request, set_id: int, what: str) -> Response:
    entries = await typed(request)
    return await run_in_threadpool(_change, request, set_id, what, entries)


def _change(request: Request, set_id: int, what: str, entries: Typed) -> Response:
    if what not in CHANGES:
        return RedirectResponse(f"/sets/{set_id}", 303)
    workshop, form = workshop_of(request), read(SetForm, entries)
    edit, notice = CHANGES[what]
    try:
        build_set = edit(workshop, form, open_set(workshop, set_id).build_set)
        change_set(workshop, set_id, form.version, lambda _: build_set)
    except WattmetronError as error:
        return _page(request, set_id, 422, error=str(error))
    return _page(request, set_id, notice=notice)


@router.post("/sets/{set_id}/undo")
async def undo(request: Request, set_id: int) -> Response:
    form = read(SetForm, await typed(request))
    await run_in_threadpool(undo_set, workshop_of(request), set_id, form.version)
    return await run_in_threadpool(_page, request, set_id, notice="The last change is taken back.")


@router.post("/sets/{set_id}/delete")
async def delete(request: Request, set_id: int) -> Response:
    form = read(SetForm, await typed(request))
    return await run_in_threadpool(_delete, request, set_id, form.version)


def _delete(request: Request, set_id: int, version: int) -> Response:
    workshop = workshop_of(request)
    name = open_set(workshop, set_id).build_set.name
    drop_set(workshop, set_id, version)
    return _list(request, f"Took out “{name}”.", (set_id, version + 1))


@router.post("/sets/{set_id}/start")
async def start(request: Request, set_id: int) -> Response:
    """A brief of its own from one of the builds."""
    form = read(SetForm, await typed(request))
    return await run_in_threadpool(_start, request, set_id, form.place)


def _start(request: Request, set_id: int, index: int) -> Response:
    workshop = workshop_of(request)
    try:
        entry = open_set(workshop, set_id).build_set.entry(index)
        brief_id = workshop.create(entry.plan)
    except WattmetronError as error:
        return _page(request, set_id, 422, error=str(error))
    return RedirectResponse(f"/briefs/{brief_id}/frames", 303)


@router.post("/sets/{set_id}/links")
async def make_link(request: Request, set_id: int) -> Response:
    entries = await typed(request)
    return await run_in_threadpool(_make_link, request, set_id, entries)


def _make_link(request: Request, set_id: int, entries: Typed) -> Response:
    try:
        ends_on = read_ends(read(SetForm, entries).ends, datetime.now(UTC).date())
        key = links.make_link(workshop_of(request), Of(None, set_id), ends_on)
    except WattmetronError as error:
        return _page(request, set_id, 422, error=str(error))
    address = f"{request.url.scheme}://{request.url.netloc}/h/{key}"
    return _page(request, set_id, fresh_link=address)


@router.post("/sets/{set_id}/links/{link_id}/revoke")
def revoke(request: Request, set_id: int, link_id: int) -> Response:
    links.revoke(workshop_of(request), Of(None, set_id), link_id)
    return _page(request, set_id, notice="The link is taken back.")


@router.get("/sets/{set_id}/page")
def alone(request: Request, set_id: int, when: str = "") -> Response:
    """The set without anything around it, to be printed."""
    workshop = workshop_of(request)
    made = handed_set(workshop, open_set(workshop, set_id).build_set, when)
    return page(request, "places/handout/pages/page.html", page_content(workshop.catalogue(), made))


def handed_set(workshop: Workshop, build_set: BuildSet, when: str, region: str = "") -> Handout:
    """The handout of a set, priced as on each build's day, or as today."""
    if when == "today":
        return set_handout(build_set, lambda _: workshop.catalogue(), "Prices of today", region)
    return set_handout(
        build_set,
        lambda entry: catalogue_then(workshop, entry) or workshop.catalogue(),
        "Prices of the day on which each was kept",
        region,
    )


@router.get("/sets/{set_id}/as/{form}")
def as_file(request: Request, set_id: int, form: str) -> Response:
    """The set in one of its forms, to be kept."""
    workshop = workshop_of(request)
    if form not in dict(FORMS):
        return RedirectResponse(f"/sets/{set_id}", 303)
    build_set = open_set(workshop, set_id).build_set
    if form == "json":
        return as_download(build_set.name, form, set_document(build_set) + "\n")
    made = handed_set(workshop, build_set, "")
    if form == "html":
        return as_download(build_set.name, form, handout_file(workshop.catalogue(), made))
    return as_download(build_set.name, form, {"md": markdown, "txt": plain_text}[form](made))
