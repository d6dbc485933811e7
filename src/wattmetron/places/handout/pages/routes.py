"""Handouts as pages and files, and what a link opens."""

from datetime import UTC, date, datetime

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response

from wattmetron.formats.set_file import set_from
from wattmetron.places.handout.content import Handout, handout
from wattmetron.places.handout.handout_links import NoSuchLinkError, StoredLink, opened_link
from wattmetron.places.handout.house_rules import with_house
from wattmetron.places.handout.pages.files import (
    FILE_TYPES,
    as_download,
    handout_file,
    page_content,
)
from wattmetron.places.handout.pages.set_pages import handed_set
from wattmetron.places.handout.texts import markdown, parts_csv, plain_text
from wattmetron.places.handout.whole import whole_document
from wattmetron.shell.computation_queue import AloneRoute
from wattmetron.shell.error_pages import Refusal, refusal
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.workshop.workshop import Workshop

router = APIRouter(include_in_schema=False, route_class=AloneRoute)
QUIET = {"referrer-policy": "no-referrer", "x-robots-tag": "noindex, nofollow"}


def _today() -> date:
    return datetime.now(UTC).date()


@router.get("/briefs/{brief_id}/handout/page")
def alone(request: Request, brief_id: int) -> Response:
    """The handout without anything around it, to be printed."""
    workshop = workshop_of(request)
    catalogue, plan = workshop.catalogue(), with_house(workshop, workshop.open(brief_id).plan)
    made = handout(catalogue, plan)
    return page(request, "places/handout/pages/page.html", page_content(catalogue, made))


@router.get("/briefs/{brief_id}/handout/as/{form}")
def as_file(request: Request, brief_id: int, form: str) -> Response:
    """The handout in one of its forms, to be kept."""
    workshop = workshop_of(request)
    if form not in FILE_TYPES:
        return RedirectResponse(f"/briefs/{brief_id}/handout", 303)
    plan = workshop.open(brief_id).plan
    if form == "json":
        return as_download(plan.brief.name, form, whole_document(workshop, brief_id))
    catalogue = workshop.catalogue()
    made = handout(catalogue, with_house(workshop, plan))
    if form == "html":
        return as_download(plan.brief.name, form, handout_file(catalogue, made))
    write = {"md": markdown, "txt": plain_text, "csv": parts_csv}[form]
    return as_download(plan.brief.name, form, write(made))


@router.get("/h/{key}")
def read_handout(request: Request, key: str, when: str = "", region: str = "") -> Response:
    """What a link opens: this handout, priced as on that day or as today, in any region."""
    workshop = workshop_of(request)
    try:
        link = opened_link(workshop, key, _today())
    except NoSuchLinkError as error:
        answer = refusal(request, Refusal(str(error), 404))
    else:
        today = "today" if when == "today" else ""
        made, region = _handed(workshop, link, today, region)
        catalogue = workshop.catalogue()
        content = page_content(
            catalogue,
            made,
            choices=tuple((region.id, region.name) for region in catalogue.regions.values()),
            when=today,
            region=region,
        )
        answer = page(request, "places/handout/pages/page.html", content)
    answer.headers.update(QUIET)
    return answer


def _handed(workshop: Workshop, link: StoredLink, when: str, region: str) -> tuple[Handout, str]:
    """The handout of a link, and the region whose prices it has."""
    if link.paper_id is not None:
        build_set = set_from(link.document)
        where = region if region in workshop.catalogue().regions else ""
        return handed_set(workshop, build_set, when, where), where
    catalogue = workshop.catalogue() if when else workshop.catalogue_of(link.as_of)
    plan = workshop.read_plan(link.document)
    where = region if region in catalogue.regions else plan.brief.region
    return handout(catalogue, plan, where), where
