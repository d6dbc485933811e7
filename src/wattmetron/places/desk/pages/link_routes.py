"""Links to a brief's handouts: made, shown once, taken back."""

from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.errors import WattmetronError
from wattmetron.places.desk.pages.routes import show
from wattmetron.places.handout import handout_links
from wattmetron.places.handout.handout_links import Of
from wattmetron.shell.forms import Form, Short20, Typed, read, read_ends, typed
from wattmetron.shell.requests import workshop_of

router = APIRouter(include_in_schema=False)


class LinkForm(Form):
    """When a link ends; empty: never."""

    ends: Short20 = ""


@router.post("/briefs/{brief_id}/links")
async def make_link(request: Request, brief_id: int) -> Response:
    """A link to the handout as it is now; shown once."""
    entries = await typed(request)
    return await run_in_threadpool(_made, request, brief_id, entries)


def _made(request: Request, brief_id: int, entries: Typed) -> Response:
    url = f"/briefs/{brief_id}/handout"
    try:
        ends_on = read_ends(read(LinkForm, entries).ends, datetime.now(UTC).date())
        key = handout_links.make_link(workshop_of(request), Of(brief_id), ends_on)
    except WattmetronError as error:
        return show(request, brief_id, "handout", {}, 422, url, error=str(error))
    address = f"{request.url.scheme}://{request.url.netloc}/h/{key}"
    return show(request, brief_id, "handout", {}, 200, url, fresh_link=address)


@router.post("/briefs/{brief_id}/links/{link_id}/revoke")
def revoke(request: Request, brief_id: int, link_id: int) -> Response:
    handout_links.revoke(workshop_of(request), Of(brief_id), link_id)
    url = f"/briefs/{brief_id}/handout"
    return show(request, brief_id, "handout", {}, 200, url, notice="The link is taken back.")
