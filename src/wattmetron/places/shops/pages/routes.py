"""The place Shops: how shops sell, and what changed."""

from collections.abc import Callable
from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.watches import Watch, put_away, with_watch, without_watch
from wattmetron.places.assessment.named import part_named
from wattmetron.places.shops.entered_rates import clear_rates, enter_rates, kept_rates
from wattmetron.places.shops.feeds import change_feeds, checked_address, feeds
from wattmetron.places.shops.pages.aside import aside_list
from wattmetron.places.shops.pages.shops_page import changes_page, shop_rows
from wattmetron.places.shops.put_aside import settle_line
from wattmetron.places.shops.refresher import Refresher
from wattmetron.places.shops.watch_list import (
    change_watches,
    kept_watches,
    looked_at,
    undo_watches,
)
from wattmetron.shell.computation_queue import PageRoute
from wattmetron.shell.forms import (
    Form,
    Number,
    Short20,
    Short80,
    Short120,
    Short200,
    Short400,
    Tick,
    Typed,
    read,
    typed,
)
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of

MOST_RATES_SHOWN = 12
router = APIRouter(include_in_schema=False, route_class=PageRoute)


class ChangesQuery(Form):
    """Since which import, and in which region."""

    since: Number = 0
    region: Short80 = ""


class WatchForm(Form):
    """A price to wait for: of a part, or of a brief's list; ``back`` is where it was asked."""

    part: Short120 = ""
    brief: Number = 0
    region: Short80 = ""
    used: Tick = False
    below: Short20 = ""
    why: Short120 = ""
    key: Short200 = ""
    minor: Number = 0
    version: Number = 0


@router.get("/shops")
def list_shops(request: Request) -> Response:
    return _list(request)


def _list(request: Request, notice: str = "", error: str = "", status: int = 200) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    watches = kept_watches(workshop)
    content = {
        "rows": shop_rows(catalogue, datetime.now(UTC).date()),
        "watches": looked_at(workshop, catalogue, watches.watches),
        "feeds": feeds(workshop),
        "aside": aside_list(workshop, catalogue),
        "rates": kept_rates(workshop)[:MOST_RATES_SHOWN],
        "state": refresher_of(request).state,
        "kept": watches,
        "notice": notice,
        "error": error,
    }
    return page(request, "places/shops/pages/shops.html", content, status, "/shops")


@router.post("/watches")
async def watch(request: Request) -> Response:
    """Wait for a price."""
    entries = await typed(request)
    return await run_in_threadpool(_watch, request, entries)


def _watch(request: Request, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(WatchForm, entries)
    catalogue = workshop.catalogue()
    try:
        catalogue.region(form.region)
        if form.part:
            catalogue.part(form.part)
        else:
            workshop.open(form.brief)
        watch = Watch(
            part_id=form.part,
            brief_id=0 if form.part else form.brief,
            region=form.region,
            used=form.used,
            below_minor=to_minor(form.below, "The price to wait for"),
            made_on=datetime.now(UTC).date(),
            why=form.why,
        )
        change_watches(workshop, lambda watches: with_watch(watches, watch))
    except WattmetronError as error:
        return _list(request, error=str(error), status=422)
    return _list(request, "The price is watched; what fires stands above your briefs.")


@router.post("/watches/remove")
async def remove(request: Request) -> Response:
    form = read(WatchForm, await typed(request))
    return await run_in_threadpool(_edit, request, lambda watches: without_watch(watches, form.key))


@router.post("/watches/seen")
async def seen(request: Request) -> Response:
    """Put a watch away that has fired; it fires again below this price."""
    form = read(WatchForm, await typed(request))
    return await run_in_threadpool(
        _edit, request, lambda watches: put_away(watches, form.key, form.minor)
    )


def _edit(request: Request, edit: Callable[[tuple[Watch, ...]], tuple[Watch, ...]]) -> Response:
    change_watches(workshop_of(request), edit)
    return _list(request, "The watches are changed.")


@router.post("/watches/undo")
async def undo(request: Request) -> Response:
    form = read(WatchForm, await typed(request))
    await run_in_threadpool(undo_watches, workshop_of(request), form.version)
    return await run_in_threadpool(_list, request, "The last change of the watches is taken back.")


@router.get("/shops/changes")
def what_changed(request: Request) -> Response:
    query = read(ChangesQuery, dict(request.query_params))
    shown = changes_page(workshop_of(request), query.since, query.region)
    return page(request, "places/shops/pages/changes.html", {"c": shown})


class RatesForm(Form):
    """Lines of rates, or the wish to clear them all."""

    lines: str = ""
    clear: Tick = False


@router.post("/rates")
async def note_rates(request: Request) -> Response:
    form = read(RatesForm, await typed(request))
    return await run_in_threadpool(_rates, request, form)


def _rates(request: Request, form: RatesForm) -> Response:
    workshop = workshop_of(request)

    def note() -> str:
        if form.clear:
            clear_rates(workshop)
            return "All rates are cleared."
        count = enter_rates(workshop, form.lines)
        return f"{count} rate{'' if count == 1 else 's'} noted."

    return _done(request, note)


class SettleLineForm(Form):
    """Which line that was put aside, and what is said of it; ``typed`` names another part."""

    line: Number = 0
    shop: Short120 = ""
    region: Short80 = ""
    part: Short120 = ""
    typed: Short120 = ""
    drop: Tick = False


@router.post("/shops/aside")
async def settle_aside(request: Request) -> Response:
    form = read(SettleLineForm, await typed(request))
    return await run_in_threadpool(_settle, request, form)


def _settle(request: Request, form: SettleLineForm) -> Response:
    workshop, today = workshop_of(request), datetime.now(UTC).date()

    def settle() -> str:
        named = form.typed.strip()
        part = part_named(workshop.catalogue(), named) if named else form.part
        key = (form.line, form.shop, form.region)
        return settle_line(workshop, *key, today, part, not form.drop)

    return _done(request, settle)


def _done(request: Request, work: Callable[[], str]) -> Response:
    """The list with what was done, or with why it was not."""
    try:
        sentence = work()
    except WattmetronError as error:
        return _list(request, error=str(error), status=422)
    return _list(request, sentence)


def refresher_of(request: Request) -> Refresher:
    refresher: Refresher = request.app.state.refresher
    return refresher


class FeedForm(Form):
    """The address of a feed."""

    address: Short400 = ""


@router.post("/feeds")
async def add_feed(request: Request) -> Response:
    form = read(FeedForm, await typed(request))
    return await run_in_threadpool(_add_feed, request, form.address)


def _add_feed(request: Request, text: str) -> Response:
    def add() -> str:
        address = checked_address(text)
        change_feeds(workshop_of(request), lambda feeds: (*feeds, address))
        return "The feed is asked from the next refresh on."

    return _done(request, add)


@router.post("/feeds/remove")
async def remove_feed(request: Request) -> Response:
    form = read(FeedForm, await typed(request))
    return await run_in_threadpool(_remove_feed, request, form.address)


def _remove_feed(request: Request, address: str) -> Response:
    change_feeds(
        workshop_of(request), lambda feeds: tuple(feed for feed in feeds if feed != address)
    )
    return _list(request, "The feed is not asked any more; its prices stay.")


@router.post("/shops/refresh")
def begin_refresh(request: Request) -> Response:
    """Ask every feed, beside what else is done."""
    try:
        refresher_of(request).start(workshop_of(request), datetime.now(UTC).date())
    except WattmetronError as error:
        return _list(request, error=str(error), status=409)
    return _list(request)


@router.post("/shops/refresh/stop")
def stop_refresh(request: Request) -> Response:
    """End a refresh under way: what came so far is brought in."""
    refresher_of(request).stop()
    return _list(request, "The refresh ends: shops that have not answered keep their prices.")


@router.get("/shops/refresh")
def show_refresh(request: Request) -> Response:
    """How far a refresh is; looked at again until it has ended."""
    return page(request, "places/shops/pages/refresh.html", {"state": refresher_of(request).state})
