"""The monthly round over a set as a page: each build kept, made cheaper or made better."""

from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool

from wattmetron.cache.glimpse import Glimpse
from wattmetron.core.errors import WattmetronError
from wattmetron.places.handout.edition import PICKS, RoundRow, next_edition, round_of
from wattmetron.places.handout.sets import make_set, open_set
from wattmetron.shell.computation_queue import PageRoute, answered, ask_meanwhile
from wattmetron.shell.forms import Form, Short80, Typed, read, typed
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.words.figures import money

router = APIRouter(include_in_schema=False, route_class=PageRoute)


class EditionForm(Form):
    """What the next edition is called; what is picked for each build stands beside it."""

    name: Short80 = ""


@router.get("/sets/{set_id}/round")
def show_round(request: Request, set_id: int, stop: bool = False) -> Response:
    """What each build of a set is today, and what it could be; build after build, until it is
    stopped.
    """
    return _page(request, set_id, stop)


def _page(request: Request, set_id: int, stop: bool, error: str = "") -> Response:
    workshop = workshop_of(request)
    opened = open_set(workshop, set_id)
    glimpse = Glimpse(not error)
    rows = round_of(workshop, workshop.catalogue(), opened.build_set, glimpse)
    if not stop:
        ask_meanwhile(request, glimpse)
    done = sum(row is not None for row in rows)
    today, name = datetime.now(UTC).date(), opened.build_set.name
    content = {
        "opened": opened,
        "rows": [
            (n, row, money(row.then_minor, row.currency), _today(row))
            for n, row in enumerate(rows)
            if row is not None
        ],
        "later": [
            entry.name
            for row, entry in zip(rows, opened.build_set.entries, strict=True)
            if row is None
        ],
        "done": done,
        "of": len(rows),
        "going": done < len(rows) and not stop,
        "picks": PICKS,
        "name": f"{name.rpartition(', ')[0] or name}, {today:%B %Y}"[:80],
        "error": error,
    }
    return page(request, "places/handout/pages/round.html", content, 422 if error else 200)


def _today(row: RoundRow) -> str:
    return "–" if row.now_minor is None else money(row.now_minor, row.currency)


@router.post("/sets/{set_id}/round")
async def publish(request: Request, set_id: int) -> Response:
    """The next edition of a set, as a set of its own."""
    entries = await typed(request)
    return await answered(request, lambda: run_in_threadpool(_publish, request, set_id, entries))


def _publish(request: Request, set_id: int, entries: Typed) -> Response:
    workshop = workshop_of(request)
    build_set = open_set(workshop, set_id).build_set
    picks = {n: entries.get(f"pick.{n}", "keep") for n in range(len(build_set.entries))}
    try:
        name = read(EditionForm, entries).name.strip()
        edition = next_edition(workshop, workshop.catalogue(), build_set, picks, name)
        made = make_set(workshop, edition)
    except WattmetronError as error:
        return _page(request, set_id, False, str(error))
    return RedirectResponse(f"/sets/{made}", 303)
