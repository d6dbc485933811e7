"""Simulated shops: a small server whose feeds drift from day to day, and which can fail on purpose.

``/feed/quayside-parts`` is the feed of today, ``?day=2026-12-24`` that of another day. What may be
asked to fail: ``?fault=slow``, ``hang``, ``error``, ``markup``, ``malformed``, ``wrong``,
``cut``, ``redirect``, ``huge``, ``bomb``, ``lies``.
"""

import asyncio
import gzip
import json
import random
from collections.abc import Iterator
from datetime import UTC, date, datetime
from math import exp, sin
from typing import Any
from urllib.parse import urlsplit

from starlette.applications import Starlette
from starlette.requests import Request
from starlette.responses import (
    HTMLResponse,
    JSONResponse,
    PlainTextResponse,
    RedirectResponse,
    Response,
)
from starlette.routing import Route

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_types import kind_of
from wattmetron.demo import TODAY, shop_rules
from wattmetron.demo.past_prices import DRIFT, USUAL_DRIFT, WOBBLE
from wattmetron.demo.small_server import SmallServer

SALE_SHARE, SALE_OFF, SHORT = 0.08, 0.12, 0.04
WAITS_S = {"hang": 20.0, "slow": 1.0}


def slug(shop: str, region: str) -> str:
    """The last piece of a feed's address."""
    words = "-".join(shop.lower().replace("&", " ").split())
    return words if region == "vellmouth" else f"{words}-{region}"


FEEDS = {slug(rules.shop, rules.region): (rules.shop, rules.region) for rules in shop_rules()}


def feed(catalogue: Catalogue, name: str, day: date, seed: int = 1) -> dict[str, Any]:
    """The feed of a shop on a day; the same day and seed always give the same."""
    shop, region = FEEDS[name]
    currency = catalogue.region(region).currency
    offers = [offer for offer in catalogue.offers if (offer.shop, offer.region) == (shop, region)]
    return {
        "format": "wattmetron-feed/1",
        "shop": shop,
        "region": region,
        "currency": currency,
        "at": datetime(day.year, day.month, day.day, 6, tzinfo=UTC).isoformat(),
        "offers": list(_entries(catalogue, offers, day, seed)),
    }


def _entries(
    catalogue: Catalogue, offers: list[Offer], day: date, seed: int
) -> Iterator[dict[str, Any]]:
    days = (day - TODAY).days
    for offer in offers:
        slow = random.Random(f"{seed} {offer.part_id} {offer.shop} {offer.region}")
        today = random.Random(f"{seed} {offer.part_id} {offer.shop} {offer.region} {day}")
        drift = DRIFT.get(kind_of(catalogue.parts[offer.part_id]), USUAL_DRIFT)
        trend = -slow.gauss(drift, WOBBLE / 2) * days / 14
        wave = WOBBLE * sin(days / slow.uniform(4, 20) + slow.uniform(0, 6))
        on_sale = days and today.random() < SALE_SHARE
        off = 1 - SALE_OFF if on_sale else 1
        moved = exp(trend + wave) * off if days else 1.0
        step = 1_000 if offer.currency == "NOK" else 100
        price = max(step, round(offer.price_minor * moved / step) * step - step // 10)
        price = offer.price_minor if not days else price
        chance = today.random()
        stock = "out" if not offer.in_stock or (days and chance < SHORT) else offer.stock
        if stock == "in" and chance > 1 - SHORT:
            stock = "few"
        yield {
            "part": offer.part_id,
            "price": f"{price / 100:.2f}",
            "shipping": f"{offer.shipping_minor / 100:.2f}",
            "stock": stock,
            "condition": offer.condition,
            **_unusual_terms(offer),
        }


def _unusual_terms(offer: Offer) -> dict[str, Any]:
    """The terms of an offer, those that are not usual."""
    terms = offer.terms
    document = {
        "sold_by": terms.sold_by,
        "rebate": f"{terms.rebate_minor / 100:.2f}",
        "extra": terms.extra,
        "extra_worth": f"{terms.extra_minor / 100:.2f}",
        "remarks": list(terms.remarks),
        "warranty_months": terms.warranty_months,
        "returns": terms.returns,
        "link": terms.link,
    }
    usual: tuple[object, ...] = ("order", "0.00", "", [], None)
    return {name: value for name, value in document.items() if value not in usual}


class ShopServer(SmallServer):
    """The simulated shops on a port of this machine; ``day`` is the day that their feeds are of,
    where an address names none.
    """

    def __init__(self, catalogue: Catalogue, port: int = 0, day: date | None = None) -> None:
        self.catalogue, self.day = catalogue, day
        self.tries: dict[str, int] = {}
        super().__init__(Starlette(routes=[Route("/feed/{name}", self._feed)]), port)

    @staticmethod
    def is_simulated(address: str) -> bool:
        """Whether an address is a simulated shop's, on whichever port it was."""
        parts = urlsplit(address)
        return parts.hostname == "127.0.0.1" and parts.path.removeprefix("/feed/") in FEEDS

    @property
    def addresses(self) -> tuple[str, ...]:
        return tuple(f"{self.url}/feed/{name}" for name in FEEDS)

    async def _feed(self, request: Request) -> Response:
        name, query = request.path_params["name"], request.query_params
        if name not in FEEDS:
            return PlainTextResponse("no such shop", 404)
        named_day = query.get("day", "")
        usual_day = self.day or datetime.now(UTC).date()
        day = date.fromisoformat(named_day) if named_day else usual_day
        answer = feed(self.catalogue, name, day)
        fault = query.get("fault", "")
        if fault == "once":
            return self._second_try(str(request.url), answer)
        await asyncio.sleep(WAITS_S.get(fault, 0.0))
        return faulty(fault, answer)

    def _second_try(self, address: str, answer: dict[str, Any]) -> Response:
        """Fails the first time that an address is asked."""
        self.tries[address] = self.tries.get(address, 0) + 1
        return JSONResponse(answer, 503 if self.tries[address] == 1 else 200)


def faulty(fault: str, answer: dict[str, Any]) -> Response:
    """A feed with the fault that is wanted; without one where none is."""
    data = json.dumps(answer).encode()
    match fault:
        case "error":
            return JSONResponse({}, 500)
        case "markup":
            return HTMLResponse("<html><script>alert(1)</script></html>")
        case "malformed":
            return _json(data[: len(data) // 2])
        case "wrong":
            return JSONResponse(_spoilt(answer))
        case "cut" | "lies":
            return _json(data[: len(data) // 2], {"content-length": str(len(data))})
        case "redirect":
            return RedirectResponse("http://10.0.0.1/feed", 302)
        case "huge":
            return _json(b" " * 9_000_000 + data)
        case "bomb":
            bomb = gzip.compress(b" " * 60_000_000 + data)
            return _json(bomb, {"content-encoding": "gzip"})
    return _json(data)


def _json(data: bytes, headers: dict[str, str] | None = None) -> Response:
    return Response(data, headers=headers, media_type="application/json")


def _spoilt(whole: dict[str, Any]) -> dict[str, Any]:
    """Entries that no shop should send, among those that are right."""
    first, second, third, fourth, *rest = whole["offers"]
    odd: list[object] = [
        {**first, "price": "-5.00"},
        {**second, "price": f"{float(second['price']) / 100:.2f}"},
        {**third, "part": "<b>nothing of ours</b>"},
        {**fourth, "stock": "perhaps"},
        rest[0],
        rest[0],
        "no offer",
    ]
    return {**whole, "offers": [*odd, *rest[1:]]}
