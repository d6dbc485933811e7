"""A table of prices as a page: pasted or chosen, looked at, brought in."""

from dataclasses import dataclass
from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import UploadFile

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.texts.table_text import text_of
from wattmetron.core.values.text import clean
from wattmetron.places.shops.price_import import (
    HeldBackLine,
    PricePreview,
    Taken,
    bring_prices_in,
    preview_prices,
)
from wattmetron.shell.forms import Typed
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of
from wattmetron.shell.security import MAX_BODY_BYTES
from wattmetron.words.figures import money, money_change

router = APIRouter(include_in_schema=False)
MOST_SHOWN = 40


@dataclass(frozen=True, slots=True, kw_only=True)
class PricesPage:
    """What was typed, and what the table would do where it was read."""

    text: str = ""
    shop: str = ""
    region: str = ""
    shops: tuple[str, ...] = ()
    regions: tuple[tuple[str, str], ...] = ()
    sentence: str = ""
    taken: tuple[tuple[str, str, str, str, str], ...] = ()
    more: int = 0
    set_aside: tuple[HeldBackLine, ...] = ()
    left: tuple[HeldBackLine, ...] = ()
    gone: int = 0
    error: str = ""


@router.get("/shops/prices")
def ask(request: Request) -> Response:
    return _page(request, _empty(workshop_of(request).catalogue(), {}))


def _empty(catalogue: Catalogue, entries: Typed) -> PricesPage:
    regions = tuple((region.id, region.name) for region in catalogue.regions.values())
    region = entries.get("region", "")
    return PricesPage(
        text=entries.get("table", ""),
        shop=entries.get("shop", "").strip(),
        region=region if region in catalogue.regions else regions[0][0],
        shops=tuple(sorted({offer.shop for offer in catalogue.offers})),
        regions=regions,
    )


def _page(request: Request, shown: PricesPage) -> Response:
    status = 422 if shown.error else 200
    return page(request, "places/shops/pages/prices.html", {"p": shown}, status, "/shops/prices")


@router.post("/shops/prices")
async def look(request: Request) -> Response:
    """The table with what it would do; with ``bring`` it is brought in."""
    form = await request.form(max_fields=600, max_files=1, max_part_size=MAX_BODY_BYTES)
    entries = {name: clean(value) for name, value in form.items() if isinstance(value, str)}
    file = form.get("file")
    if isinstance(file, UploadFile) and file.filename:
        entries["table"] = clean(text_of(await file.read()))
    return await run_in_threadpool(_look, request, entries)


def _look(request: Request, entries: Typed) -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    shown = _empty(catalogue, entries)
    try:
        preview = preview_prices(
            catalogue, shown.text, shown.shop, shown.region, datetime.now(UTC).date()
        )
        if "bring" in entries:
            allowed = {line.line for line in preview.set_aside if f"allow.{line.line}" in entries}
            bring_prices_in(workshop, preview, allowed, "soldout" in entries)
            return RedirectResponse("/shops/changes", 303)
    except WattmetronError as error:
        return _page(request, _with(shown, None, str(error), catalogue))
    return _page(request, _with(shown, preview, "", catalogue))


def _with(
    shown: PricesPage, preview: PricePreview | None, error: str, catalogue: Catalogue
) -> PricesPage:
    if preview is None:
        return PricesPage(
            text=shown.text,
            shop=shown.shop,
            region=shown.region,
            shops=shown.shops,
            regions=shown.regions,
            error=error,
        )
    moved = sorted(preview.taken, key=_by_change)
    changed = sum(
        taken_offer.before_minor not in (None, taken_offer.offer.delivered_minor)
        for taken_offer in moved
    )
    new = sum(taken_offer.before_minor is None for taken_offer in moved)
    return PricesPage(
        text=shown.text,
        shop=shown.shop,
        region=shown.region,
        shops=shown.shops,
        regions=shown.regions,
        sentence=f"{len(moved)} prices can be brought in: {changed} changed, {new} new,"
        f" {len(moved) - changed - new} as before. {len(preview.set_aside)} held back,"
        f" {len(preview.left)}"
        " left out.",
        taken=tuple(_taken(catalogue, taken_offer) for taken_offer in moved[:MOST_SHOWN]),
        more=max(0, len(moved) - MOST_SHOWN),
        set_aside=preview.set_aside[:200],
        left=preview.left[:200],
        gone=len(preview.gone),
    )


def _by_change(taken_offer: Taken) -> tuple[float, int]:
    """The largest change first, new ones after those that moved."""
    if not taken_offer.before_minor:
        return 0.0, taken_offer.line
    return -abs(taken_offer.offer.delivered_minor / taken_offer.before_minor - 1), taken_offer.line


def _taken(catalogue: Catalogue, taken_offer: Taken) -> tuple[str, str, str, str, str]:
    currency = taken_offer.offer.currency
    before = taken_offer.before_minor
    now = taken_offer.offer.delivered_minor
    return (
        catalogue.part(taken_offer.offer.part_id).name,
        taken_offer.offer.shop,
        "–" if before is None else money(before, currency),
        money(now, currency) if taken_offer.offer.in_stock else f"{money(now, currency)}, sold out",
        "new" if before is None else money_change(now - before, currency),
    )
