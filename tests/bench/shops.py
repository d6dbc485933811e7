"""Speed and size of prices: best offers, a large feed, two years of weekly prices."""

import os
import random
import tempfile
import time
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

from tests.bench.questions import fresh, question, timed
from tests.worlds import World
from wattmetron.cache.catalogue_cache import studied
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.offers import NEW_PARTS, Offer, PriceBook
from wattmetron.core.values.price_history import price_steps
from wattmetron.drawing.price_line import price_line
from wattmetron.formats.prices_table import PriceRow
from wattmetron.places.assessment.assess import assess
from wattmetron.places.review.improve import improved
from wattmetron.places.shops.price_import import preview_rows, store_offers
from wattmetron.store import catalogues
from wattmetron.workshop.workshop import Workshop

DAY = date(2026, 11, 20)


def prices():
    print("\nshops and prices")
    _best()
    _feed()
    _two_years()
    _round()


def _round():
    """Thirty builds, each with the same frames for less and more for the money."""
    catalogue, brief = question(1, 250)
    catalogue = fresh(catalogue, brief)
    begun, builds = time.perf_counter(), 0
    for n in range(30):
        asked = replace(brief, budget_high_minor=brief.budget_high_minor * (70 + 3 * n) // 100)
        found = propose(catalogue, asked)
        if found.build is None:
            continue
        now = assess(catalogue, asked, found.build)
        improved(catalogue, now, "same frames")
        improved(catalogue, now, "full")
        builds += 1
    seconds = time.perf_counter() - begun
    print(f"the round over {builds} builds at 2,000 parts: {seconds:.1f} s (aim 10)")


def _best():
    world = World(3).catalogue(per_kind=556, games=1)
    region = next(iter(world.regions.values()))
    rng = random.Random(1)
    offers = [
        Offer(
            part_id=part_id,
            shop=f"shop {n}",
            region=region.id,
            currency=region.currency,
            price_minor=rng.randint(1_000, 90_000),
            shipping_minor=490,
            stock="in" if rng.random() < 0.9 else "out",
            condition="new",
            seen_on=DAY,
        )
        for part_id in world.parts
        for n in range(40)
    ]
    seconds = min(timed(PriceBook, region, offers, NEW_PARTS)[0] for _ in range(3))
    print(f"best of {len(offers):,} offers of {len(world.parts):,} parts: {1000 * seconds:.0f} ms")


def _feed():
    world = World(4).catalogue(per_kind=625, games=1)
    region = next(iter(world.regions.values()))
    with tempfile.TemporaryDirectory() as folder:
        workshop = Workshop(Path(folder) / "bench.sqlite", studied)
        workshop.import_catalogue(world, "bench")
        workshop.catalogue()
        rows = tuple(
            PriceRow(
                line=n,
                part=part_id,
                shop="Feed",
                region=region.id,
                price_minor=5_000 + n,
                currency=region.currency,
                seen_on=DAY,
            )
            for n, part_id in enumerate(list(world.parts)[:5_000])
        )
        begun = time.perf_counter()
        found = preview_rows(workshop.catalogue(), rows, "", region.id, DAY)
        offers = [own.offer for own in (*found.taken, *found.set_aside) if own.offer]
        store_offers(workshop, offers, "feed")
        print(
            f"a feed of {len(rows):,} offers taken in: {time.perf_counter() - begun:.1f} s (aim 3)"
        )
        workshop.close()


def _two_years():
    world = World(5).catalogue(per_kind=222, games=1)
    region = next(iter(world.regions.values()))
    offers = [own for own in world.offers if own.region == region.id]
    rng = random.Random(2)
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "bench.sqlite"
        workshop = Workshop(path, studied)
        for week in range(104):
            offers = [
                replace(own, price_minor=max(100, round(own.price_minor * rng.gauss(1, 0.02))))
                if rng.random() < 0.4
                else own
                for own in offers
            ]
            at = datetime(2024, 12, 1, tzinfo=UTC) + timedelta(weeks=week)
            with workshop.database.writing() as session:
                catalogues.store_catalogue(
                    session, replace(world, offers=tuple(offers)), "week", at
                )
        part = offers[0].part_id

        def line():
            steps = price_steps(workshop.offer_spans([part], region.id))
            return price_line(steps, steps[-1].day, region.currency, "bench")

        seconds = min(timed(line)[0] for _ in range(5))
        size = sum(os.path.getsize(own) for own in Path(folder).glob("bench.sqlite*")) / 1e6
        print(
            f"two years of weekly prices of {len(world.parts):,} parts: a price line"
            f" {1000 * seconds:.0f} ms (aim 30), the database {size:.0f} MB (aim 60)"
        )
        workshop.close()
