"""Consoles and prebuilts to compare with: entered and taken out from a brief's comparison."""

from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.references import Reference, read_reached
from wattmetron.places.brief.reference_edits import add_reference, drop_reference
from wattmetron.places.desk.pages.routes import show
from wattmetron.shell.forms import Form, Number, Short120, Short400, Typed, read, typed
from wattmetron.shell.requests import workshop_of

router = APIRouter(include_in_schema=False)


class ReferenceForm(Form):
    """A machine as it is typed; ``back`` is the brief that is compared."""

    name: Short120 = ""
    price: str = ""
    includes: Short400 = ""
    lacks: Short400 = ""
    source: Short120 = ""
    back: Number = 0


@router.post("/references")
async def add(request: Request) -> Response:
    entries = await typed(request, 200)
    return await run_in_threadpool(_add, request, entries)


def _add(request: Request, entries: Typed) -> Response:
    workshop = workshop_of(request)
    catalogue, form = workshop.catalogue(), read(ReferenceForm, entries)
    brief = workshop.open(form.back).plan.brief
    url = f"/briefs/{form.back}/compare"
    try:
        reached = [
            read_reached(game_id, entries.get(f"settings.{game_id}", ""), words)
            for game_id in catalogue.games
            if (words := entries.get(f"rate.{game_id}", "").strip())
        ]
        machine = Reference(
            id="",
            name=form.name,
            price_minor=to_minor(form.price, "The price"),
            currency=catalogue.region(brief.region).currency,
            includes=form.includes,
            lacks=form.lacks,
            source=form.source,
            seen_on=datetime.now(UTC).date(),
        )
        add_reference(workshop, catalogue, machine, reached)
    except WattmetronError as error:
        return show(request, form.back, "compare", {}, 422, url, error=str(error))
    return RedirectResponse(f"{url}#fixed", 303)


@router.post("/references/{reference_id}/remove")
async def remove(request: Request, reference_id: str) -> Response:
    entries = await typed(request)
    return await run_in_threadpool(_remove, request, reference_id, entries)


def _remove(request: Request, reference_id: str, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(ReferenceForm, entries)
    workshop.open(form.back)
    url = f"/briefs/{form.back}/compare"
    try:
        drop_reference(workshop, workshop.catalogue(), reference_id)
    except WattmetronError as error:
        return show(request, form.back, "compare", {}, 422, url, error=str(error))
    return RedirectResponse(url, 303)
