"""Feeds of shops: fetched with care, read, and brought in as the prices of a new day."""

import json
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from datetime import date
from threading import Event
from urllib.parse import urlsplit

import httpx2

from wattmetron.core.errors import BriefError, InvalidError
from wattmetron.core.values.offers import Offer
from wattmetron.formats.feed_file import FeedError, read_feed
from wattmetron.places.shops.price_import import (
    HeldBackLine,
    PricePreview,
    preview_rows,
    store_offers,
)
from wattmetron.places.shops.put_aside import known_names, lay_aside
from wattmetron.store import documents
from wattmetron.workshop.exchange import (
    Bounds,
    ExchangeTooLargeError,
    OutOfReachError,
    StoppedError,
    TooSlowError,
    fetched,
    within_reach,
)
from wattmetron.workshop.workshop import Workshop

MOST_FEEDS, LONGEST_ADDRESS = 50, 400
MOST_BYTES, MOST_SECONDS = 8_000_000, 30.0
TIMEOUTS = httpx2.Timeout(10.0, connect=5.0)
PAUSES_S = (0.5, 1.5)
"""Before the second and the third try."""
LEAST_LISTED = 0.5
"""A feed that lists less of what its shop had is not taken to say that the rest is sold out."""


class FetchError(InvalidError):
    """A shop that does not answer as it should; the message begins after its name."""


class _AgainError(FetchError):
    """What may go better on another try."""


@dataclass(frozen=True, slots=True)
class FeedOutcome:
    """What became of one feed: its shop or address, how many prices moved, how many lines were held
    back and left out, and what went wrong, empty for nothing.
    """

    name: str
    moved: int = 0
    taken: int = 0
    held: int = 0
    left: int = 0
    wrong: str = ""
    notes: tuple[str, ...] = ()

    @property
    def words(self) -> str:
        if self.wrong:
            return f"{self.name}: {self.wrong}."
        sentence = f"{self.name}: {self.moved} of {self.taken} prices moved"
        sentence += f", {self.held} held back" if self.held else ""
        sentence += f", {self.left} left out" if self.left else ""
        return ". ".join([sentence, *self.notes]) + "."


def checked_address(text: str) -> str:
    """An address that can be asked; raises BriefError."""
    address = text.strip()
    try:
        parts = urlsplit(address)
        whole = parts.scheme in ("http", "https") and bool(parts.hostname)
    except ValueError:
        whole = False
    odd = any(sign.isspace() or not sign.isprintable() for sign in address)
    if not whole or odd or len(address) > LONGEST_ADDRESS or "@" in address.split("/")[2]:
        raise BriefError(
            f"“{address[:60]}” is no address of a feed: enter one such as"
            " https://shop.example/feed.json, without a name or a password in it."
        )
    if not within_reach(address):
        raise BriefError(
            f"“{address[:60]}” may not be asked from here: whoever starts Wattmetron allows it with"
            " --allow-address."
        )
    return address


def feeds(workshop: Workshop) -> tuple[str, ...]:
    """The addresses that are asked."""
    with workshop.database.reading() as session:
        document = documents.only(session, "feeds")
    try:
        rows = json.loads(document or "[]")
    except ValueError:
        rows = []
    return tuple(str(address) for address in rows)


def change_feeds(workshop: Workshop, edit: Callable[[tuple[str, ...]], tuple[str, ...]]) -> None:
    """Change the addresses as they stand; raises BriefError for too many."""
    addresses = tuple(dict.fromkeys(edit(feeds(workshop))))
    if len(addresses) > MOST_FEEDS:
        raise BriefError(f"There are {MOST_FEEDS} feeds already: take one out first.")
    with workshop.database.writing() as session:
        documents.put_only(session, "feeds", json.dumps(addresses))


def fetch(
    address: str, pause: Callable[[float], None] = time.sleep, stop: Event | None = None
) -> bytes:
    """What stands at an address, tried three times; raises FetchError, StoppedError. Redirects are
    not followed, what is larger than 8 MB unpacked or takes longer than half a minute is broken
    off.
    """
    bounds = Bounds(MOST_BYTES, MOST_SECONDS, stop or Event())
    for wait in (*PAUSES_S, None):
        try:
            return _fetched(address, bounds)
        except _AgainError as error:
            if wait is None:
                raise FetchError(f"{error}, tried three times") from error
            pause(wait)
    raise AssertionError


def _fetched(address: str, bounds: Bounds) -> bytes:
    try:
        return fetched(address, bounds, _check, TIMEOUTS)
    except OutOfReachError as error:
        raise FetchError("it may not be asked from here: allow it with --allow-address") from error
    except ExchangeTooLargeError as error:
        raise FetchError("it sent more than 8 MB, which was not taken") from error
    except TooSlowError as error:
        raise FetchError("it took longer than half a minute and was broken off") from error
    except httpx2.DecodingError as error:
        raise FetchError("what it sent cannot be unpacked") from error
    except httpx2.TimeoutException as error:
        raise _AgainError("it does not answer in time") from error
    except httpx2.TransportError as error:
        raise _AgainError("the connection failed or broke off") from error
    except (httpx2.HTTPError, httpx2.InvalidURL) as error:
        raise FetchError("its address cannot be asked") from error


def _check(answer: httpx2.Response) -> None:
    if answer.is_redirect:
        raise FetchError("it sends elsewhere, which is not followed: enter the new address")
    if answer.status_code >= 500 or answer.status_code == 429:
        raise _AgainError(f"it answers with an error ({answer.status_code})")
    if answer.status_code != 200:
        raise FetchError(f"it refuses ({answer.status_code})")


def refresh(
    workshop: Workshop,
    today: date,
    done: Callable[[FeedOutcome], None] = lambda _: None,
    stop: Event | None = None,
    pause: Callable[[float], None] = time.sleep,
) -> tuple[FeedOutcome, ...]:
    """Ask every feed and bring in what can be, all of it as one day; ``done`` is told of each. One
    that fails leaves its shop's prices as they are; when it is stopped, so do those that were not
    asked yet. Raises BriefError without feeds.
    """
    stop = stop or Event()
    addresses = feeds(workshop)
    if not addresses:
        raise BriefError("No feed is known: enter the address of one under Shops.")
    outcomes: list[FeedOutcome] = []
    offers: list[Offer] = []
    aside: list[tuple[str, str, tuple[HeldBackLine, ...]]] = []
    for address in addresses:
        if stop.is_set():
            break
        try:
            outcome, exchange, set_aside = _asked(workshop, address, today, pause, stop)
            offers += exchange
            aside.append(set_aside)
        except (FetchError, FeedError) as error:
            outcome = FeedOutcome(
                urlsplit(address).netloc + urlsplit(address).path, wrong=str(error)
            )
        except StoppedError:
            break
        outcomes.append(outcome)
        done(outcome)
    if offers:
        store_offers(workshop, offers, "prices of the feeds")
    lay_aside(workshop, aside)
    return tuple(outcomes)


def _asked(
    workshop: Workshop, address: str, today: date, pause: Callable[[float], None], stop: Event
) -> tuple[FeedOutcome, list[Offer], tuple[str, str, tuple[HeldBackLine, ...]]]:
    feed = read_feed(fetch(address, pause, stop))
    catalogue = workshop.catalogue()
    preview = preview_rows(
        catalogue, feed.rows, feed.shop, feed.region, today, known_names(workshop)
    )
    offers = [taken_offer.offer for taken_offer in preview.taken]
    notes = list(_notes(preview))
    known = len(offers) + len(preview.gone)
    if preview.gone and len(offers) >= LEAST_LISTED * known:
        offers += [_sold_out(offer) for offer in preview.gone]
        notes.append(f"{len(preview.gone)} no longer listed: sold out")
    elif preview.gone:
        notes.append(f"{len(preview.gone)} that it had are not listed and are left as they are")
    moved = sum(
        taken_offer.before_minor != taken_offer.offer.delivered_minor
        for taken_offer in preview.taken
    )
    return (
        FeedOutcome(
            name=feed.shop,
            moved=moved,
            taken=len(preview.taken),
            held=len(preview.set_aside),
            left=len(preview.left),
            notes=tuple(notes),
        ),
        offers,
        (feed.shop, feed.region, (*preview.set_aside, *preview.left)),
    )


def _sold_out(offer: Offer) -> Offer:
    return replace(offer, stock="out")


def _notes(preview: PricePreview) -> Iterator[str]:
    """The first odd lines, by name."""
    for line in [*preview.set_aside, *preview.left][:3]:
        yield f"{line.text[:80]}: {line.why}"
