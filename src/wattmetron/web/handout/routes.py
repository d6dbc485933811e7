"""Handouts as pages and files, and what a link opens."""

import re
from base64 import b64encode
from datetime import UTC, date, datetime
from pathlib import Path

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.plan import Plan
from wattmetron.formats.plan_file import to_document
from wattmetron.services.handout.content import Handout, handout
from wattmetron.services.handout.house import with_house
from wattmetron.services.handout.links import NoSuchLinkError, opened_link
from wattmetron.services.handout.texts import markdown, parts_csv, plain_text
from wattmetron.web.handout.view import pictures_of
from wattmetron.web.shell.errors import Refusal, refusal
from wattmetron.web.shell.line import AloneRoute
from wattmetron.web.shell.pages import page, rendered
from wattmetron.web.shell.requests import workshop_of

router = APIRouter(include_in_schema=False, route_class=AloneRoute)
STYLE = Path(__file__).parent.parent / "static" / "handout.css"
QUIET = {"referrer-policy": "no-referrer", "x-robots-tag": "noindex, nofollow"}
TYPES = {
    "html": "text/html",
    "md": "text/markdown",
    "txt": "text/plain",
    "csv": "text/csv",
    "json": "application/json",
}


def _today() -> date:
    return datetime.now(UTC).date()


@router.get("/briefs/{brief_id}/handout/page")
def alone(request: Request, brief_id: int) -> Response:
    """The handout without anything around it, to be printed."""
    workshop = workshop_of(request)
    catalogue, plan = workshop.catalogue(), with_house(workshop, workshop.open(brief_id).plan)
    return page(request, "handout/page.html", _content(catalogue, handout(catalogue, plan)))


def _content(catalogue: Catalogue, made: Handout, **more: object) -> dict[str, object]:
    served = {"style": "/static/handout.css", "icon": "/static/icon.svg"}
    usual = {**served, "says": "", "choices": (), "when": "", "region": ""}
    return {"h": made, "pictures": pictures_of(catalogue, made, drawn_only=True), **usual, **more}


@router.get("/briefs/{brief_id}/handout/as/{form}")
def as_file(request: Request, brief_id: int, form: str) -> Response:
    """The handout in one of its forms, to be kept."""
    workshop = workshop_of(request)
    if form not in TYPES:
        return RedirectResponse(f"/briefs/{brief_id}/handout", 303)
    catalogue, plan = workshop.catalogue(), workshop.open(brief_id).plan
    whole = plan if form != "json" else workshop.stored_plan(brief_id)
    text = _text(form, catalogue, with_house(workshop, whole))
    name = re.sub(r"[^a-z0-9]+", "-", plan.brief.name.lower()).strip("-") or "handout"
    headers = {"content-disposition": f'attachment; filename="{name[:60]}.{form}"'}
    return Response(
        text.encode(errors="replace"), media_type=f"{TYPES[form]}; charset=utf-8", headers=headers
    )


def _text(form: str, catalogue: Catalogue, plan: Plan) -> str:
    if form == "json":
        return to_document(plan) + "\n"
    made = handout(catalogue, plan)
    if form == "html":
        style = f"data:text/css;base64,{b64encode(STYLE.read_bytes()).decode()}"
        content = _content(catalogue, made, style=style, icon="")
        return rendered("handout/page.html", content)
    return {"md": markdown, "txt": plain_text, "csv": parts_csv}[form](made)


@router.get("/h/{key}")
def read_handout(request: Request, key: str, when: str = "", region: str = "") -> Response:
    """What a link opens: this handout, priced as on that day or as today, in any region."""
    workshop = workshop_of(request)
    try:
        link = opened_link(workshop, key, _today())
    except NoSuchLinkError as error:
        answer = refusal(request, Refusal(str(error), 404))
    else:
        today = when == "today"
        catalogue = workshop.catalogue() if today else workshop.catalogue_of(link.as_of)
        plan = workshop.read_plan(link.document)
        where = region if region in catalogue.regions else plan.brief.region
        made = handout(catalogue, plan, where)
        content = _content(
            catalogue,
            made,
            choices=tuple((own.id, own.name) for own in catalogue.regions.values()),
            when="today" if when == "today" else "",
            region=where,
        )
        answer = page(request, "handout/page.html", content)
    answer.headers.update(QUIET)
    return answer
