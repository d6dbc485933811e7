"""Simulated shops: a small server whose feeds drift from day to day, and which can fail on purpose.

``/feed/quayside-parts`` is the feed of today, ``?day=2026-12-24`` that of another day. What may be
asked to fail: ``?fault=slow``, ``hang``, ``error``, ``markup``, ``malformed``, ``wrong``,
``cut``, ``redirect``, ``huge``, ``bomb``, ``lies``.
"""

import gzip
import json
import random
import time
from collections.abc import Iterator
from contextlib import suppress
from datetime import UTC, date, datetime
from http.server import BaseHTTPRequestHandler
from math import exp, sin
from typing import Any
from urllib.parse import parse_qs, urlsplit

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.part_types import kind_of
from wattmetron.demo import TODAY
from wattmetron.demo.demo_shops import SHOPS
from wattmetron.demo.past_prices import DRIFT, USUAL_DRIFT, WOBBLE
from wattmetron.demo.small_server import SmallServer

SALE_SHARE, SALE_OFF, SHORT = 0.08, 0.12, 0.04
HANG_S, SLOW_S = 20.0, 1.0


def slug(shop: str, region: str) -> str:
    """The last piece of a feed's address."""
    words = "-".join(shop.lower().replace("&", " ").split())
    return words if region == "vellmouth" else f"{words}-{region}"


FEEDS = {slug(own.shop, own.region): (own.shop, own.region) for own in SHOPS}


def feed(catalogue: Catalogue, name: str, day: date, seed: int = 1) -> dict[str, Any]:
    """The feed of a shop on a day; the same day and seed always give the same."""
    shop, region = FEEDS[name]
    currency = catalogue.region(region).currency
    offers = [own for own in catalogue.offers if (own.shop, own.region) == (shop, region)]
    return {
        "format": "wattmetron-feed/1",
        "shop": shop,
        "region": region,
        "currency": currency,
        "at": datetime(day.year, day.month, day.day, 6, tzinfo=UTC).isoformat(),
        "offers": list(_told(catalogue, offers, day, seed)),
    }


def _told(
    catalogue: Catalogue, offers: list[Offer], day: date, seed: int
) -> Iterator[dict[str, Any]]:
    days = (day - TODAY).days
    for own in offers:
        slow = random.Random(f"{seed} {own.part_id} {own.shop} {own.region}")
        today = random.Random(f"{seed} {own.part_id} {own.shop} {own.region} {day}")
        drift = DRIFT.get(kind_of(catalogue.parts[own.part_id]), USUAL_DRIFT)
        trend = -slow.gauss(drift, WOBBLE / 2) * days / 14
        wave = WOBBLE * sin(days / slow.uniform(4, 20) + slow.uniform(0, 6))
        on_sale = days and today.random() < SALE_SHARE
        moved = exp(trend + wave) * (1 - SALE_OFF if on_sale else 1) if days else 1.0
        step = 1_000 if own.currency == "NOK" else 100
        price = max(step, round(own.price_minor * moved / step) * step - step // 10)
        price = own.price_minor if not days else price
        chance = today.random()
        stock = "out" if not own.in_stock or (days and chance < SHORT) else own.stock
        if stock == "in" and chance > 1 - SHORT:
            stock = "few"
        yield {
            "part": own.part_id,
            "price": f"{price / 100:.2f}",
            "shipping": f"{own.shipping_minor / 100:.2f}",
            "stock": stock,
            "condition": own.condition,
            **_more(own),
        }


def _more(own: Offer) -> dict[str, Any]:
    """The terms of an offer, those that are not usual."""
    terms = own.terms
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
        super().__init__(type("Handler", (_Handler,), {"shops": self}), port)

    @staticmethod
    def is_one(address: str) -> bool:
        """Whether an address is a simulated shop's, on whichever port it was."""
        parts = urlsplit(address)
        return parts.hostname == "127.0.0.1" and parts.path.removeprefix("/feed/") in FEEDS

    @property
    def addresses(self) -> tuple[str, ...]:
        return tuple(f"{self.url}/feed/{name}" for name in FEEDS)


class _Handler(BaseHTTPRequestHandler):
    """Answers feeds, whole or with the fault that is asked for."""

    shops: ShopServer
    tries: dict[str, int] = {}  # noqa: RUF012

    def log_message(self, *_: object) -> None:
        """The shops say nothing."""

    def do_GET(self) -> None:
        address = urlsplit(self.path)
        query = parse_qs(address.query)
        name = address.path.removeprefix("/feed/")
        if name not in FEEDS:
            self._send(404, b"no such shop", "text/plain")
            return
        day_text = query.get("day", [""])[0]
        day = (
            date.fromisoformat(day_text) if day_text else self.shops.day or datetime.now(UTC).date()
        )
        fault = query.get("fault", [""])[0]
        whole = feed(self.shops.catalogue, name, day)
        with suppress(BrokenPipeError, ConnectionResetError):
            self._answer(fault, whole)

    def _answer(self, fault: str, whole: dict[str, Any]) -> None:
        data = json.dumps(whole).encode()
        match fault:
            case "slow":
                time.sleep(SLOW_S)
                self._send(200, data)
            case "hang":
                time.sleep(HANG_S)
            case "error":
                self._send(500, b"{}")
            case "once":
                count = self.tries.get(self.path, 0)
                self.tries[self.path] = count + 1
                self._send(200 if count else 503, data)
            case "markup":
                self._send(200, b"<html><script>alert(1)</script></html>", "text/html")
            case "malformed":
                self._send(200, data[: len(data) // 2])
            case "wrong":
                self._send(200, json.dumps(_spoilt(whole)).encode())
            case "cut" | "lies":
                self._send(200, data[: len(data) // 2], length=len(data))
            case "redirect":
                self.send_response(302)
                self.send_header("location", "http://10.0.0.1/feed")
                self.end_headers()
            case "huge":
                self._send(200, b" " * 9_000_000 + data)
            case "bomb":
                self._send(200, gzip.compress(b" " * 60_000_000 + data), encoding="gzip")
            case _:
                self._send(200, data)

    def _send(
        self,
        status: int,
        data: bytes,
        kind: str = "application/json",
        length: int | None = None,
        encoding: str = "",
    ) -> None:
        self.send_response(status)
        self.send_header("content-type", kind)
        self.send_header("content-length", str(len(data) if length is None else length))
        if encoding:
            self.send_header("content-encoding", encoding)
        self.end_headers()
        self.wfile.write(data)


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
