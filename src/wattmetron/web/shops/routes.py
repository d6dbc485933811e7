"""The place Shops: how shops sell, and what changed."""

from datetime import UTC, datetime

from fastapi import APIRouter, Request
from fastapi.responses import Response

from wattmetron.web.shell.forms import Form, Number, Short80, read
from wattmetron.web.shell.line import PageRoute
from wattmetron.web.shell.pages import page
from wattmetron.web.shell.requests import workshop_of
from wattmetron.web.shops.shops import changes_page, shop_rows

router = APIRouter(include_in_schema=False, route_class=PageRoute)


class ChangesQuery(Form):
    """Since which import, and in which region."""

    since: Number = 0
    region: Short80 = ""


@router.get("/shops")
def list_shops(request: Request) -> Response:
    workshop = workshop_of(request)
    rows = shop_rows(workshop.catalogue(), datetime.now(UTC).date())
    return page(request, "shops/shops.html", {"rows": rows})


@router.get("/shops/changes")
def what_changed(request: Request) -> Response:
    query = read(ChangesQuery, dict(request.query_params))
    shown = changes_page(workshop_of(request), query.since, query.region)
    return page(request, "shops/changes.html", {"c": shown})
