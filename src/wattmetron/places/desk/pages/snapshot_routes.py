"""Snapshots made and taken out."""

from fastapi import APIRouter, Request
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.errors import WattmetronError
from wattmetron.places.assessment.assess import assess
from wattmetron.places.desk.pages.routes import show
from wattmetron.places.handout.changes_since import figures_of
from wattmetron.shell.forms import Form, Short80, Typed, read, typed
from wattmetron.shell.requests import workshop_of

router = APIRouter(include_in_schema=False)


class SnapshotForm(Form):
    """What a snapshot is called."""

    name: Short80 = ""


@router.post("/briefs/{brief_id}/snapshots")
async def freeze(request: Request, brief_id: int) -> Response:
    """Keep the brief as it is now."""
    entries = await typed(request)
    return await run_in_threadpool(_freeze, request, brief_id, entries)


def _freeze(request: Request, brief_id: int, entries: Typed) -> Response:
    workshop, url = workshop_of(request), f"/briefs/{brief_id}/compare"
    plan = workshop.open(brief_id).plan
    figures = figures_of(assess(workshop.catalogue(), plan.brief, plan.build))
    try:
        workshop.freeze(brief_id, read(SnapshotForm, entries).name, figures.text)
    except WattmetronError as error:
        return show(request, brief_id, "compare", {}, 422, url, error=str(error))
    return show(
        request, brief_id, "compare", {}, 200, url, notice="The build is kept as it is now."
    )


@router.post("/briefs/{brief_id}/snapshots/{snapshot_id}/remove")
def drop(request: Request, brief_id: int, snapshot_id: int) -> Response:
    workshop_of(request).drop_snapshot(brief_id, snapshot_id)
    url = f"/briefs/{brief_id}/compare"
    return show(request, brief_id, "compare", {}, 200, url, notice="The snapshot is taken out.")
