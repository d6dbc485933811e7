"""Parts and Fit over HTTP: the list against the core, bad ranges, a part in full, findings,
drawing, power, assembly.
"""

import html
import re
from dataclasses import replace

import pytest

from tests.pages.conftest import HTMX, form, squeezed
from wattmetron.core.compatibility.candidates import reasons_against
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.power.account import account
from wattmetron.core.values.offers import ANY_PARTS
from wattmetron.core.values.part_kinds import ALL_KINDS, SPECS
from wattmetron.core.values.trust import TRUST_FLOORS, trust_of
from wattmetron.places.assessment.assess import assess
from wattmetron.places.compatibility.pages.power import use_of
from wattmetron.places.parts.pages.part_figures import figures_of
from wattmetron.places.proposal.proposals import answer
from wattmetron.words.figures import money

CODE = r"<script>|<style| style=| on\w+="


def listed(text: str) -> list[str]:
    return re.findall(r'id="part-([\w-]+)"', text)


def test_the_list_says_of_every_part_what_the_core_says(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    now = assess(catalogue, plan.brief, plan.build)
    book = catalogue.prices(plan.brief.region, plan.brief.may_buy)
    for kind in ("case", "cooler", "processor"):
        sold = [part for part in catalogue.by_kind[kind] if book.cost(part.id) is not None]
        against = dict(
            zip(
                (part.id for part in sold),
                reasons_against(now.machine, kind, sold, wishes_of(plan.brief)),
                strict=True,
            )
        )
        text = client.get(f"/parts?kind={kind}&brief=1").text
        rows = listed(text)
        assert sorted(rows) == sorted(against) and not re.search(CODE, text)
        assert [book.cost(each_row) for each_row in rows] == sorted(
            book.cost(each_row) for each_row in rows
        )
        for part_id in rows:
            row = html.unescape(re.search(rf'id="part-{part_id}".*?</tr>', text, re.DOTALL)[0])
            assert ("does not fit" in row) == bool(against[part_id]), part_id
            for item in against[part_id][:1]:
                assert item.sentence.removeprefix(f"{catalogue.parts[part_id].name} ") in row
        fitting = listed(client.get(f"/parts?kind={kind}&brief=1&fits=1").text)
        assert sorted(fitting) == sorted(item for item, found in against.items() if not found)


@pytest.mark.whole_demo
def test_the_sieve_narrows_by_words_facets_and_ranges_and_sorts_by_any_figure(client, workshop):
    cards = workshop.catalogue().by_kind["graphics"]
    book = workshop.catalogue().prices("vellmouth", ANY_PARTS)
    text = client.get(
        "/parts?kind=graphics&min.gb=16&max.length=300&sort=watts&f.maker=Saltgrove"
    ).text
    wanted = [
        card
        for card in cards
        if card.memory_gb >= 16
        and card.length_mm <= 300
        and card.maker == "Saltgrove"
        and book.cost(card.id)
    ]
    assert sorted(listed(text)) == sorted(item.id for item in wanted) and wanted
    by_id = {card.id: card for card in cards}
    assert [by_id[item].board_power_w for item in listed(text)] == sorted(
        item.board_power_w for item in wanted
    )
    cheap = listed(client.get("/parts?kind=supply&max.price=40&trusted=1").text)
    assert cheap and "lowhum-bargain-700" not in cheap
    assert "lowhum-bargain-700" in listed(client.get("/parts?kind=supply&max.price=40").text)
    modular = client.get(
        "/parts?kind=supply&f.cables=modular&f.protections=OTP&min.score=85&min.reviews=50&all=1"
    ).text
    answering = {
        own.id
        for own in workshop.catalogue().by_kind["supply"]
        if own.modular
        and "OTP" in own.protections
        and (own.review_percent or 0) >= 85
        and (own.reviews or 0) >= 50
    }
    assert set(listed(modular)) == answering != set()
    worth = client.get("/parts?kind=processor&brief=4&sort=worth&dir=down").text
    rates = [float(piece) for piece in re.findall(r'data-name="for the money">([\d.]+)<', worth)]
    assert rates == sorted(rates, reverse=True) and len(rates) > 5
    every = listed(client.get("/parts?kind=processor&all=1").text)
    assert (
        len(every) == len(workshop.catalogue().by_kind["processor"])
        and "marrowgate-foundry-slate-24" in every
    )


def test_what_cannot_be_read_is_said_and_nothing_found_shows_a_way_out(client):
    text = client.get("/parts?kind=case&min.litres=small&max.price=a+lot").text
    assert (
        "The least volume is “small”" in text
        and "The most price is “a lot”" in text
        and 'role="alert"' in text
    )
    empty = client.get("/parts?kind=case&q=zzz&fits=1").text
    assert "No part matches" in empty and "Show all of them" in empty
    assert client.get("/parts?kind=case&sort=wit&page=9999&brief=none").status_code == 200
    teapot = client.get("/parts?kind=teapot")
    assert teapot.status_code == 422 and "no kind of part called “teapot”" in teapot.text
    assert client.get("/parts?brief=99").status_code == 404
    nasty = client.get("/parts?kind=case&q=<script>alert(1)</script>&beside=<b>").text
    assert "<script>alert" not in nasty


def test_parts_stand_side_by_side_and_what_is_alike_is_dimmed(client):
    text = client.get(
        "/parts?kind=supply&brief=1&beside=lowhum-bargain-700+lowhum-level-750+no-such-part"
    ).text
    table = html.unescape(
        re.search(r'<table class="list small beside">.*?</table>', squeezed(text))[0]
    )
    assert (
        "doubtful: 14 reviews average 51 %; names no protections" in table
        and "needs 1 x 16-pin PCIe" in table
    )
    assert re.search(
        r'class="quiet"><th scope="row">Form factor</th><td>ATX</td><td>ATX</td>', table
    )


def test_a_part_in_full_with_trust_offers_use_and_fit(client, workshop):
    text = html.unescape(client.get("/parts/lowhum-bargain-700?brief=1").text)
    for said in (
        "14 reviews average 51 %",
        "names no protections",
        "Does not fit the build of Net loft all-rounder",
        "It would replace Lowhum Level 750",
        "Quayside Parts",
        "Signal tower, sent-in list",
        "560\u202fW",
        "in the build",
    ):
        assert said in text, said
    present = workshop.open(1).plan.build.supply
    assert "In the build of Net loft all-rounder" in client.get(f"/parts/{present}?brief=1").text
    assert (
        client.get("/parts/no-such-part").status_code == 404
        and "no-such-part" in client.get("/parts/no-such-part").text
    )
    unsold = client.get("/parts/quillon-wherry-neap-4").text
    assert "Offers" in unsold and not re.search(CODE, unsold)
    tried = re.search(
        r'id="try-part" href="([^"]+)"', client.get("/parts/lidd-frame-porthole?brief=1").text
    )[1]
    assert "Trying Lidd &amp; Frame Porthole" in client.get(html.unescape(tried)).text


def test_the_fit_view_numbers_its_findings_and_pins_them_to_the_drawing(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(7).plan
    now = assess(catalogue, plan.brief, plan.build)
    text = client.get("/briefs/7/fit").text
    assert not re.search(CODE, text)
    drawn = re.search(r'<svg role="img" class="drawing".*?</svg>', text, re.DOTALL)[0]
    pins = [int(piece) for piece in re.findall(r'class="t-pin">(\d+)<', drawn)]
    assert sorted(pins) == list(range(1, len(now.findings) + 1))
    assert "card, length 45 mm too much" in drawn and "335 of 290" in drawn
    for finding in now.findings:
        assert finding.sentence in html.unescape(text)
    assert "2 changes clear all 4 that block for EUR\u00a0" in text
    by_part = html.unescape(client.get("/briefs/7/fit?by=part").text)
    assert (
        "case: Lidd & Frame Porthole" in by_part and by_part.count("335 mm long, 45 mm more") >= 2
    )
    cured = html.unescape(re.search(r'id="try-cure"[^>]*href="([^"]+)"', text)[1])
    after = client.get(cured).text
    assert "too much" not in after and "Everything that is chosen fits" in after


def test_power_shows_the_figures_of_the_account(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    now = assess(catalogue, plan.brief, plan.build)
    told = account(
        now.machine,
        tuple(estimate for estimate in now.estimates if estimate),
        use_of(catalogue, now),
    )
    text = client.get("/briefs/1/fit").text
    for span in told.spans:
        assert f"{span.total_w:.0f}\u202fW" in text, span
    assert f"about {told.year.kwh:.0f}\u202fkWh a year" in text and "EUR 0.32 a kWh" in text
    answer = client.post(
        "/briefs/1/edit", data=form(workshop, **general(workshop), tariff_per_kwh="0.64")
    ).text
    assert "rice of a kWh to 0.64" in answer
    dearer = client.get("/briefs/1/fit").text
    assert "EUR 0.64 a kWh" in dearer


def general(workshop) -> dict[str, str]:
    brief = workshop.open(1).plan.brief
    return {
        "name": brief.name,
        "region": brief.region,
        "budget_low": "1050",
        "budget_high": "1250",
        "size": "2560x1440",
        "refresh_hz": "144",
        "variable_from_hz": "48",
        "sureness": brief.sureness,
        "memory_gb": "16",
        "storage_gb": "1000",
        "headroom_percent": "140",
        "trust_floor": brief.trust_floor,
    }


def test_an_empty_build_and_one_without_a_case_are_drawn_or_explained(client, workshop):
    client.post("/briefs")
    empty = client.get("/briefs/9/fit").text
    assert "The build is empty" in empty and 'class="drawing"' not in empty
    assert "The build is empty" in client.get("/briefs/9/assembly").text
    bare = client.get("/briefs/1/fit?try=case:,mainboard:").text
    assert 'class="drawing"' in bare and "assumed" in bare


def test_the_assembly_list_is_made_from_the_build(client):
    text = squeezed(client.get("/briefs/7/assembly").text)
    assert "Before it can be built" in text and "Kitefall Orlop Pharos 16 GB Triple" in text
    keys = re.findall(r'data-tick="([^"]+)"', text)
    assert len(keys) == len(set(keys)) > 25 and not re.search(CODE, text)
    assert re.search(r'<span class="inverse">2</span>', text), (
        "two 8-pin cables where three are needed"
    )


def test_a_finding_is_set_aside_with_a_reason_and_counts_again_with_other_parts(client, workshop):
    fields = form(
        workshop,
        7,
        rule="card height",
        parts="kitefall-pharos-16-triple lidd-frame-porthole",
        view="fit",
    )
    silent = client.post("/briefs/7/aside", data=fields, headers=HTMX)
    assert silent.status_code == 422 and "say in a few words" in silent.text
    done = client.post(
        "/briefs/7/aside", data=fields | {"reason": "the side panel stays off"}, headers=HTMX
    ).text
    assert (
        "Set aside: the side panel stays off" in done
        and "1 set aside" in done
        and "3 blocks" in done
    )
    saved = client.get("/briefs/7/file/build").content
    brief = client.get("/briefs/7/file/brief").content
    made = client.post(
        "/briefs/open",
        files=[("files", ("a.json", brief)), ("files", ("b.json", saved))],
        follow_redirects=False,
    )
    copy = int(made.headers["location"].split("/")[2])
    assert workshop.open(copy).plan.build.aside == workshop.open(7).plan.build.aside != ()
    tried = client.get("/briefs/7/fit?try=graphics:kitefall-trench-16-triple").text
    assert "Set aside: the side panel stays off" not in tried
    again = client.post(
        "/briefs/7/aside",
        data=form(workshop, 7, **{k: fields[k] for k in ("rule", "parts")}, again="1"),
        headers=HTMX,
    ).text
    assert "4 blocks" in again


def test_what_each_trust_floor_costs_is_a_proposal_of_its_own(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    text = html.unescape(client.get("/briefs/1/brief?trust=1").text)
    table = re.search(r'id="trust-rows".*?</section>', text, re.DOTALL)[0]
    costs = [
        answer(
            catalogue, replace(plan.brief, trust_floor=floor), plan.build, "most frames"
        ).assessment
        for floor in TRUST_FLOORS
    ]
    assert all(costs)
    for floor, own in zip(TRUST_FLOORS, costs, strict=True):
        row = re.search(rf"<td>{floor}</td>.*?</tr>", table, re.DOTALL)[0]
        assert money(own.spent_minor, "EUR") in row and f"{own.met} of 6 met" in row
    for floor, own in zip(TRUST_FLOORS, costs, strict=True):
        assert all(trust_of(part) in TRUST_FLOORS[floor] for part in own.machine.parts())


def test_what_matters_is_said_with_the_briefs_own_figures(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    now = assess(catalogue, plan.brief, plan.build)
    supply = client.get("/parts?kind=supply&brief=1").text
    assert (
        f"Here {now.needed_w}\u202fW with headroom and reserve are needed,"
        f" spikes of {now.draw.spike_w}\u202fW and 1 x 16-pin" in supply
    )
    limited = [item.game.name for item in now.counted if item.limit_words == "processor"]
    assert limited and all(
        name in client.get("/parts?kind=processor&brief=1").text for name in limited
    )
    assert "Choose a build to check the list with" in client.get("/parts?kind=case").text
    for kind in ALL_KINDS:
        text = client.get(f"/parts?kind={kind}&brief=7&all=1").text
        assert SPECS[kind].matters in squeezed(html.unescape(text)) and not re.search(CODE, text)
        part_id = listed(text)[0]
        assert client.get(f"/parts/{part_id}?brief=7").status_code == 200
        assert client.get(f"/parts/{part_id}/edit").status_code == 200


def test_wireless_and_air_are_mended_by_adding_the_cheapest_that_does(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    closed = plan.build.with_part("case", "boxwood-yard-plank")
    workshop.change(1, 1, lambda plan: (replace(plan, build=closed), "closed"))
    book = catalogue.prices(plan.brief.region, plan.brief.may_buy)
    text = html.unescape(client.get("/briefs/1/fit").text)
    fans = min(
        price for fan in catalogue.by_kind["fan"] if (price := book.cost(fan.id)) is not None
    )
    assert "Add 1 fan." in text and money(fans, "EUR") in re.search(r"Try Coldreach [^<]*", text)[0]
    tried = html.unescape(
        re.search(r'href="([^"]*)">Try Coldreach', client.get("/briefs/1/fit").text)[1]
    )
    assert "it will be heard" not in client.get(tried).text


def test_a_part_is_marked_as_a_stand_in_and_stays_again(client, workshop):
    part = workshop.open(1).plan.build.graphics
    fields = {"version": "1", "view": "fit", "part": part}
    bad = client.post("/briefs/1/stand-in", data=fields | {"until": "soon"}, headers=HTMX)
    assert bad.status_code == 422 and "“soon”: enter one such as 2027-03-01" in bad.text
    done = html.unescape(
        client.post(
            "/briefs/1/stand-in",
            data=fields | {"until": "2027-03-01", "resale": "310.50"},
            headers=HTMX,
        ).text
    )
    assert (
        "stand-in until 1 Mar 2027, then perhaps EUR\u00a0310.50 back" in done
        and "may bring back EUR\u00a0310.50, a guess" in done
    )
    for page in (f"/parts/{part}?brief=1", "/briefs/1/frames"):
        text = client.get(page).text
        assert text.count('value="2027-03-01"') == text.count('value="310.50"') == 1, page
    files = [
        ("files", (name, client.get(f"/briefs/1/file/{name}").content))
        for name in ("brief", "build")
    ]
    copy = int(
        client.post("/briefs/open", files=files, follow_redirects=False)
        .headers["location"]
        .split("/")[2]
    )
    assert workshop.open(copy).plan.build.stand_ins == workshop.open(1).plan.build.stand_ins != ()
    client.post(
        "/briefs/1/remove", data={"version": "2", "view": "fit", "part": part}, headers=HTMX
    )
    assert workshop.open(1).plan.build.stand_ins == ()
    client.post("/briefs/1/undo", data={"version": "3", "view": "fit"}, headers=HTMX)
    stays = client.post(
        "/briefs/1/stand-in",
        data={"version": "4", "view": "fit", "part": part, "stays": "1"},
        headers=HTMX,
    ).text
    assert "stand-in until" not in stays and workshop.open(1).plan.build.stand_ins == ()


def test_what_the_machine_runs_without_is_bought_later_outside_the_total(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    before = assess(catalogue, plan.brief, plan.build)
    book = catalogue.prices(plan.brief.region, plan.brief.may_buy)
    screen = next(part for part in catalogue.by_kind["display"] if book.cost(part.id) is not None)
    fields = {"version": "1", "view": "fit"}
    board = client.post(
        "/briefs/1/later", data=fields | {"part": plan.build.mainboard}, headers=HTMX
    )
    assert board.status_code == 422 and "cannot wait: without it the machine" in board.text
    client.post(
        "/briefs/1/adopt", data=fields | {"try": f"display:{screen.id}"}, headers=HTMX
    ).raise_for_status()
    fields |= {"version": "2", "part": screen.id}
    done = html.unescape(client.post("/briefs/1/later", data=fields, headers=HTMX).text)
    price = money(book.cost(screen.id), before.currency)
    assert f"{price} more for what is bought later" in done and f"later, {price}" in done
    own = workshop.open(1).plan
    assert assess(catalogue, own.brief, own.build).spent_minor == before.spent_minor
    files = [
        ("files", (name, client.get(f"/briefs/1/file/{name}").content))
        for name in ("brief", "build")
    ]
    copy = client.post("/briefs/open", files=files, follow_redirects=False).headers["location"]
    assert workshop.open(int(copy.split("/")[2])).plan.build.later == {screen.id}
    again = client.post("/briefs/1/later", data=fields | {"version": "3", "now": "1"}, headers=HTMX)
    assert "bought with the rest" in again.text
    own = workshop.open(1).plan
    whole = assess(catalogue, own.brief, own.build)
    assert whole.spent_minor == before.spent_minor + book.cost(screen.id)


@pytest.mark.whole_demo
def test_what_one_would_buy_again_is_noted_marked_and_listed_first(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    book = catalogue.prices(plan.brief.region, plan.brief.may_buy)
    dearest = max(
        (part for part in catalogue.by_kind["supply"] if book.cost(part.id)),
        key=lambda part: book.cost(part.id),
    )
    url = f"/parts/{dearest.id}/own"
    for fields, said in (
        ({"of": "part", "used": "two"}, "How many you used is “two”: enter a whole number"),
        ({"of": "part", "used": "2", "failed": "3"}, "enter at least as many used as came back"),
        ({"of": "part"}, "Nothing was noted"),
    ):
        assert said in html.unescape(client.post(url, data=fields | {"version": "0"}).text)
    noted = client.post(
        url, data={"version": "0", "of": "part", "used": "8", "again": "on", "remarks": "<b>quiet"}
    ).text
    assert "your own record: 8 used, none came back" in noted and "&lt;b&gt;quiet" in noted
    stale = client.post(url, data={"version": "0", "of": "part", "used": "9"}).text
    assert "changed in another tab" in stale
    rows = r'id="part-([^"]+)"'
    listed = client.get("/parts?kind=supply&again=1").text
    marked = [part.id for part in workshop.catalogue().by_kind["supply"] if part.again]
    assert set(re.findall(rows, listed)[: len(marked)]) == set(marked) >= {dearest.id}
    assert listed.count("buy again</span>") == len(marked)
    assert re.findall(rows, client.get("/parts?kind=supply").text)[0] not in marked
    chooser = client.get("/briefs/1/frames?swap=supply").text
    assert "Those I buy again first" in chooser and f'id="try-{dearest.id}"' not in chooser
    first = client.get("/briefs/1/frames?swap=supply&again=1").text
    fitting = re.findall(r'id="try-([^"]+)"', first)
    assert dearest.id in fitting and {dearest.id} <= set(fitting[: len(marked)])
    undo = re.search(r'name="edit" value="(\d+)"', noted)[1]
    client.post("/parts/undo", data={"edit": undo, "kind": "supply"})
    assert not workshop.catalogue().parts[dearest.id].own


def test_what_a_part_lacks_is_said_and_not_shown_as_zero(client, workshop):
    part = next(chip for chip in workshop.catalogue().by_kind["processor"] if chip.igpu_speed == 0)
    figures = dict(figures_of(part))
    assert figures["R of the integrated graphics"] == "there are none"
    assert figures["Capacity of the boxed cooler"] == "none in the box"
    assert "there are none" in client.get(f"/parts/{part.id}").text
    unstated = dict(figures_of(replace(part, igpu_speed=None, boxed_cooler_w=None)))
    assert unstated.keys() == figures.keys() - {
        "R of the integrated graphics",
        "Capacity of the boxed cooler",
    }


def test_the_folded_filters_are_named_after_what_is_in_them(client):
    for kind, title in (("processor", ", cache"), ("mainboard", ", fan headers"), ("fan", "")):
        page = client.get(f"/parts?kind={kind}").text
        assert f">Warranty and reviews{title}</summary>" in page
