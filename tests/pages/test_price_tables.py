"""Tables of prices in several layouts: matched, held back where odd, brought in as a new day."""

import html
from datetime import date

import pytest

from tests.pages.conftest import HTMX
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.formats.prices_table import PricesError, read_prices
from wattmetron.places.shops.price_import import preview_prices

DAY = date(2026, 11, 29)
CASE, KIT, CARD = (
    "boxwood-yard-crate",
    "quickfen-marram-16-pair-ddr5",
    "pellworth-bank-12-plain",
)


def looked(workshop, text, shop="Quayside Parts", region="vellmouth"):
    return preview_prices(workshop.catalogue(), text, shop, region, DAY)


@pytest.mark.parametrize(
    "text",
    [
        "part,shop,price,shipping\nBoxwood Yard Crate,Quayside Parts,46.90,4.90\n",
        "Part;Store;Price;Postage\nboxwood-yard-crate;Quayside Parts;46,90;4,90\n",
        "Item\tSeller\tAmount\tShipping\nCrate by Boxwood Yard\tQuayside Parts\t€ 46.90\t4.90 €\n",
        "\ufeffPRODUCT|PRICE\r\nBoxwood Yard Crate|EUR 46.90\r\n\r\n",
        'date,name,price,in stock\n2026-11-28,"Boxwood Yard Crate","46.90 EUR",yes\n',
    ],
)
def test_tables_of_many_layouts_say_the_same(workshop, text):
    found = looked(workshop, text)
    (own,) = found.taken
    assert (own.offer.part_id, own.offer.shop) == (CASE, "Quayside Parts")
    assert own.offer.price_minor == 46_90 and own.offer.shipping_minor == 4_90
    assert own.before_minor == 49_80 and own.offer.in_stock and not found.left


@pytest.mark.parametrize(
    ("cells", "stock", "condition", "price"),
    [
        ("46.90;yes;new;", "in", "new", 46_90),
        ("46.90;only 2 left, last ones;refurbished;", "few", "refurbished", 46_90),
        ("46.90;on order;remanufactured;", "ordered", "remanufactured", 46_90),
        ("46.90;in stock;pre-owned;included", "in", "used", 46_90),
        ("40.00;sold out;second hand;net", "out", "used", 48_40),
        ("40.05;1;New;excluded", "few", "new", 48_46),
    ],
)
def test_stock_condition_and_tax_as_shops_write_them(workshop, cells, stock, condition, price):
    """21 % tax is added where a price is without: 40.05 x 1.21 = 48.4605."""
    (own,) = looked(
        workshop, f"part;price;availability;state;vat\nBoxwood Yard Crate;{cells}\n"
    ).taken
    assert (own.offer.stock, own.offer.condition) == (stock, condition)
    assert own.offer.price_minor == price


def test_what_is_odd_is_held_back_and_what_cannot_be_is_left_out_with_a_word(workshop):
    text = f"""part;shop;region;price;currency;stock;date
{CASE};Quayside Parts;vellmouth;0.46;EUR;yes;2026-11-28
{KIT};Quayside Parts;vellmouth;-55.90;EUR;yes;2026-11-28
{KIT};Quayside Parts;vellmouth;much;EUR;yes;2026-11-28
{KIT};Quayside Parts;vellmouth;57.90;NOK;yes;2026-11-28
{KIT};Quayside Parts;nowhere;57.90;EUR;yes;2026-11-28
{KIT};Quayside Parts;vellmouth;57.90;EUR;yes;2027-01-01
{KIT};Quayside Parts;vellmouth;57.90;EUR;yes;soon
<script>alert(1)</script>;Quayside Parts;vellmouth;57.90;EUR;yes;2026-11-28
{KIT};Quayside Parts;vellmouth;57.90;EUR;sold out;2026-11-28
{KIT};Quayside Parts;vellmouth;58.90;EUR;yes;2026-11-28
{CARD};Quayside Parts;vellmouth;99999.00;EUR;yes;2026-11-28
"""
    found = looked(workshop, text)
    (own,) = found.taken
    assert own.line == 10 and not own.offer.in_stock and own.offer.price_minor == 57_90
    assert [(held.line, "far from" in held.why) for held in found.set_aside] == [
        (2, True),
        (12, True),
    ]
    said = {left.line: left.why for left in found.left}
    assert set(said) == {3, 4, 5, 6, 7, 8, 9, 11}
    for line, words in (
        (3, "-55.90"),
        (4, "“much”"),
        (5, "NOK"),
        (6, "no region"),
        (7, "still to come"),
        (8, "“soon”"),
        (9, "no part"),
        (11, "stands above"),
    ):
        assert words in said[line], line


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "empty"),
        ("Dear shop, please send me your prices.\nThank you.", "no column for the part"),
        ("part;shop\nx;y\n", "no column for the price"),
        ("\0\0\0", "no text"),
        ("part;price\n" + "x;1\n" * 20_001, "more than 20,000 lines"),
        ("x" * 4_000_001, "larger than 4 MB"),
    ],
)
def test_what_is_no_table_is_refused(text, said):
    with pytest.raises(PricesError, match=said):
        read_prices(text)


def test_prices_are_brought_in_as_a_new_day_and_change_what_they_change(client, workshop):
    book = workshop.catalogue().prices("vellmouth", NEW_PARTS)
    before = book.cost(CARD)
    text = (
        f"part;shop;price\n{CARD};Quayside Parts;555\n{KIT};A New Shop;50\n{CASE};Quayside Parts;1"
    )
    shown = html.unescape(
        client.post("/shops/prices", data={"table": text, "region": "vellmouth"}, headers=HTMX).text
    )
    assert "2 prices can be brought in: 0 changed, 2 new" in shown or "1 changed, 1 new" in shown
    assert "Held back" in shown and "1 held back" in shown
    held = workshop.catalogue().prices("vellmouth", NEW_PARTS).cost(CARD)
    assert held == before, "looking changes nothing"
    answer = client.post(
        "/shops/prices",
        data={"table": text, "region": "vellmouth", "bring": "1"},
        follow_redirects=False,
    )
    assert answer.headers["location"] == "/shops/changes"
    after = workshop.catalogue().prices("vellmouth", NEW_PARTS)
    assert after.cost(CARD) == 555_00 and after.cost(CASE) == book.cost(CASE)
    assert "A New Shop" in client.get("/shops").text
    assert "Cheaper: " in html.unescape(client.get("/shops/changes").text)
    count = len(workshop.imports())
    again = looked(workshop, text)
    assert all(own.before_minor == own.offer.delivered_minor for own in again.taken)
    allowed = {"table": text, "region": "vellmouth", "bring": "1", "allow.4": "on", "soldout": "on"}
    client.post("/shops/prices", data=allowed, follow_redirects=False)
    last = workshop.catalogue().prices("vellmouth", NEW_PARTS)
    assert len(workshop.imports()) == count + 1
    assert any(own.price_minor == 1_00 for own in last.all_of(CASE))
    assert not any(
        own.in_stock and own.shop == "Quayside Parts" for own in last.all_of("lowhum-level-750")
    )
    nothing = client.post("/shops/prices", data={"table": "part;price\nx;1", "bring": "1"})
    assert nothing.status_code == 422 and "Nothing of this table" in nothing.text
    evil = client.post("/shops/prices", data={"table": "part;price\n<script>alert(1)</script>;5"})
    assert "<script>alert" not in evil.text
