"""Buy: which shop for each part, ordered, arrived, wrong, sent back; planned against paid."""

import html
from dataclasses import replace
from datetime import date

import pytest

from tests.pages.conftest import HTMX, form, squeezed
from wattmetron.core.buying.purchase import purchase
from wattmetron.core.values.shops import ShopRules
from wattmetron.formats.plan_file import from_document, to_document
from wattmetron.places.assessment.assess import assess
from wattmetron.places.buy import purchase_edits
from wattmetron.words.figures import money

DAY = date(2026, 11, 29)


def asked(workshop, brief_id=1):
    catalogue, plan = workshop.catalogue(), workshop.open(brief_id).plan
    now = assess(catalogue, plan.brief, plan.build)
    return catalogue, now, plan


def post(client, workshop, path, **typed):
    return client.post(f"/briefs/1/{path}", data=form(workshop, **typed), headers=HTMX)


def test_the_purchase_of_the_demo_by_hand(workshop):
    catalogue, now, plan = asked(workshop)
    own = purchase_edits.buying(catalogue, now, plan, DAY)
    (north, quay) = own.ways[0].parcels
    assert (north.shop, north.total_minor) == ("Northlight Direct", 575_90)
    goods = (112_90, 84_90, 44_90, 56_90, 11_90, 74_90, 44_90)
    counted = 11_90 + 74_90 + 44_90
    assert quay.goods_minor == sum(goods) >= 250_00 and quay.shipping_minor == 0
    assert quay.code.code == "DRYDOCK5" and quay.off_minor == counted * 5 // 100 == 6_58
    assert own.ways[0].total_minor == 575_90 + sum(goods) - 6_58 == 1000_62
    assert own.alone_minor == now.spent_minor == 1040_50
    late = purchase_edits.buying(catalogue, now, plan, date(2026, 12, 13))
    assert not any(parcel.code for parcel in late.ways[0].parcels), "the code has ended"


def test_what_is_owned_later_or_bought_is_not_bought_again(workshop):
    catalogue, now, plan = asked(workshop)
    card, kit = plan.build.graphics, plan.build.memory
    brief = replace(plan.brief, owned=(card,))
    owning = assess(catalogue, brief, plan.build)
    market, nowhere = purchase_edits.market_of(catalogue, owning, plan, DAY)
    assert card not in {want.part_id for want in market.wants} and nowhere == ()
    waits = plan.build.buying_later(kit, True)
    later, _ = purchase_edits.market_of(catalogue, assess(catalogue, plan.brief, waits), plan, DAY)
    assert kit not in {want.part_id for want in later.wants}
    ordered, _ = purchase_edits.order(
        plan, purchase_edits.buying(catalogue, now, plan, DAY).ways[0], DAY
    )
    rest, _ = purchase_edits.market_of(catalogue, now, ordered, DAY)
    assert rest.wants == ()
    two = plan.build.with_kit(kit)
    again, _ = purchase_edits.market_of(catalogue, assess(catalogue, plan.brief, two), ordered, DAY)
    assert [(want.part_id, want.times) for want in again.wants] == [(kit, 1)]


def test_shares_of_a_parcel_add_up_to_the_cent(workshop):
    catalogue, now, plan = asked(workshop)
    for way in purchase_edits.buying(catalogue, now, plan, DAY).ways:
        for parcel in way.parcels:
            assert sum(parcel.shares().values()) == parcel.total_minor


def test_ordered_arrived_wrong_kept_and_undone(client, workshop):
    page = html.unescape(client.get("/briefs/1/buy").text)
    assert "8 parts for EUR" in page.replace("\u00a0", " ") and "Note as ordered" in page
    total = workshop_total(workshop)
    assert "ordered 8 parts" in post(client, workshop, "order", parcels="2").text.lower()
    plan = workshop.open(1).plan
    assert sum(own.planned_minor for own in plan.purchases) == total
    assert from_document(to_document(plan)) == plan
    chip, case = plan.build.processor, plan.build.case
    dearer = next(own for own in plan.purchases if own.part_id == chip).paid_minor + 5_00
    post(client, workshop, "purchase", part=chip, state="arrived", paid=f"{dearer / 100:.2f}")
    post(client, workshop, "purchase", part=case, state="wrong", instead="Boxwood Yard Galley")
    shown = squeezed(html.unescape(client.get("/briefs/1/buy").text))
    assert "1 of 8 arrived." in shown and f"{money(5_00, 'EUR')} more" in shown
    assert "keep what came" in shown and "targets met" in shown
    post(client, workshop, "purchase-kept", part=case)
    kept = workshop.open(1).plan
    assert kept.build.case == "boxwood-yard-galley"
    (own,) = [entry for entry in kept.purchases if entry.part_id == "boxwood-yard-galley"]
    assert own.state == "arrived" and not own.instead
    post(client, workshop, "undo")
    assert workshop.open(1).plan.build.case == case
    post(client, workshop, "purchase", part=case, state="refunded", postage="6,90")
    assert "1 part for" in html.unescape(client.get("/briefs/1/buy").text)
    back = next(own for own in workshop.open(1).plan.purchases if own.part_id == case)
    assert back.cost_minor == 6_90
    post(client, workshop, "purchase-forgotten", part=chip)
    assert "2 parts for" in html.unescape(client.get("/briefs/1/buy").text)


def workshop_total(workshop):
    catalogue, now, plan = asked(workshop)
    return purchase_edits.buying(catalogue, now, plan, date.today()).ways[0].total_minor


def test_what_came_is_judged_by_all_rules(client, workshop):
    post(client, workshop, "order")
    kit = workshop.open(1).plan.build.memory
    wrong = "quickfen-marram-16-pair-ddr4"
    post(client, workshop, "purchase", part=kit, state="wrong", instead=wrong)
    assert "Blocks:" in client.get("/briefs/1/buy").text


@pytest.mark.parametrize(
    ("path", "typed", "said"),
    [
        ("purchase", {"part": "nothing", "state": "arrived"}, "not ordered yet"),
        ("purchase", {"state": "lost"}, "choose one of them"),
        ("purchase", {"state": "arrived", "paid": "much"}, "“much”"),
        ("purchase", {"state": "arrived", "paid": "-3"}, "-3"),
        ("purchase", {"state": "wrong", "instead": "no such thing"}, "no such thing"),
        ("purchase-kept", {}, "Nothing else came"),
    ],
)
def test_what_cannot_be_noted_is_refused(client, workshop, path, typed, said):
    post(client, workshop, "order")
    before = workshop.open(1).plan
    part = {"part": before.build.case}
    refused = post(client, workshop, path, **(part | typed))
    assert refused.status_code == 422 and said in html.unescape(refused.text)
    assert workshop.open(1).plan == before
    client.post("/briefs/1/undo", data=form(workshop), headers=HTMX)
    again = post(client, workshop, "order")
    assert again.status_code == 200
    nothing = post(client, workshop, "order")
    assert nothing.status_code == 422 and "nothing to order" in nothing.text


def test_a_shop_that_sends_for_free_is_worth_it_and_nobody_having_it_is_said(client, workshop):
    described = workshop.catalogue().described
    plan = workshop.open(1).plan
    gone = tuple(own for own in described.offers if own.part_id != plan.build.case)
    free = ShopRules(
        shop="Quayside Parts", region="vellmouth", parcel_minor=4_90, free_above_minor=0
    )
    workshop.import_catalogue(
        replace(described, offers=gone, shops={**described.shops, free.key: free}), "later"
    )
    page = html.unescape(client.get("/briefs/1/buy").text)
    assert (
        "Nobody has Boxwood Yard Crate in stock" in page
        and "Nearest that fit" in page
        and "7 parts for" in page
    )
    catalogue, now, plan = asked(workshop)
    market, _ = purchase_edits.market_of(catalogue, now, plan, DAY)
    assert market.rules["Quayside Parts"].free_above_minor == 0
    found = purchase(market)
    assert all(not own.shipping_minor for own in found.parcels if own.shop == "Quayside Parts")
