"""Shops: how they sell, what changed by part, by kind and for each brief; prices over time."""

import html
import re
from dataclasses import replace

import pytest
from fastapi.testclient import TestClient

from tests.pages.conftest import HTMX
from tests.pages.test_snapshots import dearer
from wattmetron.api.app import make_app
from wattmetron.cache.catalogue_cache import studied
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.demo.past_prices import BACK, earlier
from wattmetron.places.shops.market_changes import brief_now, changes, kinds_words
from wattmetron.places.shops.watch_list import kept_watches
from wattmetron.words.figures import money
from wattmetron.workshop.workshop import Workshop


def later(workshop, **changed):
    """Another import, and the catalogues before and after it."""
    before = workshop.catalogue()
    workshop.import_catalogue(replace(before.described, **changed), "later")
    return before, workshop.catalogue()


@pytest.mark.whole_demo
def test_what_rose_fell_sold_out_came_back_and_is_new(workshop):
    catalogue = workshop.catalogue().described
    book = workshop.catalogue().prices("vellmouth", NEW_PARTS)
    priced = sorted(part_id for part_id in catalogue.parts if book.cost(part_id))
    risen, fallen, sold, gone, empty = priced[:5]
    out = next(
        own.part_id
        for own in catalogue.offers
        if own.condition == "new" and own.region == "vellmouth" and book.cost(own.part_id) is None
    )
    without = tuple(own for own in catalogue.offers if own.part_id != empty)
    workshop.import_catalogue(replace(catalogue, offers=without), "before it came")
    offers = []
    for own in catalogue.offers:
        change = {risen: 10_00, fallen: -1_00}.get(own.part_id, 0)
        if own.part_id == gone:
            continue
        stock = (own.in_stock and own.part_id != sold) or own.part_id == out
        offers.append(
            replace(own, price_minor=own.price_minor + change, stock="in" if stock else "out")
        )
    before, after = later(workshop, offers=tuple(offers))
    found = changes(before, after, "vellmouth")
    assert [own.part_id for own in found.rose] == [risen]
    assert [own.part_id for own in found.fell] == [fallen]
    assert [own.part_id for own in found.sold_out] == [sold]
    assert [own.part_id for own in found.gone] == [gone]
    assert out in [own.part_id for own in found.back]
    assert [own.part_id for own in found.new] == [empty]
    assert found.rose[0].now_minor - found.rose[0].then_minor == 10_00
    same = changes(after, after, "vellmouth")
    assert not (same.rose or same.fell or same.sold_out or same.back or same.new or same.gone)
    assert kinds_words(same.kinds) == "Every kind costs the same."


def test_a_kind_is_spoken_of_by_its_median(workshop):
    catalogue = workshop.catalogue().described
    kits = {part.id for part in workshop.catalogue().by_kind["memory"]}
    offers = tuple(
        replace(own, price_minor=own.price_minor * 9 // 10, shipping_minor=0)
        if own.part_id in kits
        else replace(own, shipping_minor=0)
        for own in catalogue.offers
    )
    free = tuple(replace(own, shipping_minor=0) for own in catalogue.offers)
    workshop.import_catalogue(replace(catalogue, offers=free), "free of shipping")
    before, after = later(workshop, offers=offers)
    words = kinds_words(changes(before, after, "vellmouth").kinds)
    assert words == "Memory kits fell by 10\u202f%; the other kinds cost what they cost."


def test_a_brief_is_told_what_it_would_be_and_why(workshop):
    plan = workshop.open(1).plan
    best = workshop.catalogue().described
    before, after = later(workshop, offers=dearer(best, plan.build.graphics, 200_00))
    found = changes(before, after, "vellmouth")
    own = brief_now(before, after, 1, plan, found)
    name = best.parts[plan.build.graphics].name
    assert not own.right and own.now_minor - own.then_minor == 200_00
    said = " ".join(own.says)
    assert f"The same list costs {money(200_00, 'EUR')} more: {name}" in said
    assert f"{name} is dearer than then." in said and "targets met instead of" in said
    offers = tuple(one for one in best.offers if one.part_id != plan.build.memory)
    before, after = later(workshop, offers=offers)
    gone = brief_now(before, after, 1, plan, changes(before, after, "vellmouth"))
    kit = best.parts[plan.build.memory].name
    assert not gone.right and f"Not to be had today: {kit}." in gone.says


def test_the_pages_of_the_demo_with_the_weeks_before(tmp_path):
    workshop = Workshop(tmp_path / "own.sqlite", studied)
    workshop.load_demo(CATALOGUE, BRIEFS, earlier)
    client = TestClient(make_app(workshop), base_url="http://127.0.0.1")
    shown = html.unescape(client.get("/shops").text)
    assert "Quayside Parts" in shown and "Code DRYDOCK5" in shown and "Free from EUR" in shown
    page = html.unescape(client.get("/shops/changes").text)
    assert "What changed since" in page and "Your briefs" in page and "Cheaper:" in page
    first = workshop.imports()[-1]
    assert len(workshop.imports()) == len(BACK) + 1
    oldest = html.unescape(client.get(f"/shops/changes?since={first.id}&region=overwater").text)
    assert f"since {first.at:%-d %b %Y}" in oldest and "NOK" in oldest
    part = html.unescape(client.get("/parts/quickfen-marram-16-pair-ddr5").text)
    assert "Price line, Vellmouth" in part and 'role="img"' in part and "As a table" in part
    buy = html.unescape(client.get("/briefs/1/buy").text)
    assert "This list over time" in buy and "budget" in buy
    plan = workshop.open(1).plan
    then = workshop.catalogue_of(first.id).prices("vellmouth", NEW_PARTS)
    total = sum(then.cost(part_id) for _, part_id in plan.build.ids())
    assert money(total, "EUR") in buy, "this list on that day, by hand"
    assert "When the build" not in buy
    build = workshop.open(1).plan.build.with_part("case", "boxwood-yard-galley")
    workshop.change(
        1, workshop.open(1).version, lambda own: (replace(own, build=build), "swapped the case")
    )
    changed = html.unescape(client.get("/briefs/1/buy").text)
    assert "swapped the case" in changed and ">A<" in changed, "a notch with its letter"
    for odd in ("since=9999", "since=x", "region=nowhere", "since=-1&region=%00"):
        assert client.get(f"/shops/changes?{odd}").status_code == 200, odd


def test_one_day_alone_says_so(client, workshop):
    assert "Only one day's prices are known" in html.unescape(client.get("/shops/changes").text)
    assert "Price line" not in client.get("/parts/quickfen-marram-16-pair-ddr5").text
    assert "This list over time" not in client.get("/briefs/1/buy").text


def watch(client, **typed):
    return client.post("/watches", data={"region": "vellmouth", **typed}, headers=HTMX)


def test_a_watched_price_stands_above_the_briefs_once_it_is_reached(client, workshop):
    part = workshop.open(1).plan.build.graphics
    today = workshop.catalogue().prices("vellmouth", NEW_PARTS).cost(part)
    assert "is watched" in watch(client, part=part, below=f"{(today - 5_00) / 100:.2f}").text
    assert "fired-1" not in client.get("/briefs").text
    watch(client, brief="1", below="1000")
    assert len(kept_watches(workshop).watches) == 2
    described = workshop.catalogue().described
    workshop.import_catalogue(replace(described, offers=dearer(described, part, -5_00)), "cheaper")
    shown = re.sub(r"[ \n]+", " ", html.unescape(client.get("/briefs").text))
    assert "fired-1" in shown and "fired-2" not in shown
    assert f"costs {money(today - 5_00, 'EUR')} today" in shown
    key = kept_watches(workshop).watches[0].key
    client.post("/watches/seen", data={"key": key, "minor": str(today - 5_00)}, headers=HTMX)
    assert "fired-1" not in client.get("/briefs").text
    workshop.import_catalogue(replace(described, offers=dearer(described, part, -90_00)), "sale")
    both = re.sub(r"[ \n]+", " ", html.unescape(client.get("/briefs").text))
    assert "fired-2" in both and "The list of Net loft all-rounder costs" in both
    client.post("/watches/remove", data={"key": key}, headers=HTMX)
    assert len(kept_watches(workshop).watches) == 1
    version = str(kept_watches(workshop).version)
    client.post("/watches/undo", data={"version": version}, headers=HTMX)
    assert len(kept_watches(workshop).watches) == 2


def test_a_near_miss_is_watched_in_one_click(client, workshop):
    page = client.get("/briefs/8/balance?limits=1").text
    found = re.search(
        r'name="part" value="([^"]+)">.{0,400}?name="below"\s+value="([\d.]+)"', page, re.S
    )
    part, below = found.groups()
    assert "is watched" in watch(client, part=part, below=below, why="picked from here down").text
    (own,) = kept_watches(workshop).watches
    assert own.part_id == part and own.below_minor == round(float(below) * 100)


def test_odd_watches_are_refused(client, workshop):
    part = workshop.open(1).plan.build.graphics
    for typed, said in (
        ({"part": part, "below": "cheap"}, "“cheap”"),
        ({"part": part, "below": "0"}, "above 0"),
        ({"part": "no-such-part", "below": "5"}, "no-such-part"),
        ({"brief": "999", "below": "5"}, "no such brief"),
        ({"part": part, "below": "5", "region": "nowhere"}, "nowhere"),
    ):
        refused = watch(client, **typed)
        assert refused.status_code == 422 and said in html.unescape(refused.text), said
    assert kept_watches(workshop).watches == ()
    watch(client, part=part, below="5", why="<script>alert(1)</script>")
    assert "<script>alert" not in client.get("/shops").text


def test_the_usual_price_is_said_beside_the_line(tmp_path):
    workshop = Workshop(tmp_path / "own.sqlite", studied)
    workshop.load_demo(CATALOGUE, BRIEFS, earlier)
    client = TestClient(make_app(workshop), base_url="http://127.0.0.1")
    page = html.unescape(client.get("/parts/quickfen-weir-32-pair-show-ddr5").text)
    assert "Usually EUR" in page.replace("\u00a0", " ") and "below that." in page
