"""Pages and the API over HTTP, without a browser: security, errors, the same answers everywhere."""

import json
import re
from dataclasses import replace

import pytest

from tests.pages.conftest import HTMX, form, squeezed
from wattmetron.cli import main
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.drawing.frame_row import frame_row
from wattmetron.places.assessment.assess import assess


def test_every_answer_carries_a_strict_policy_and_no_inline_code(client):
    for path in (
        "/briefs",
        "/briefs/1/brief",
        "/briefs/1/frames?propose=most",
        "/nowhere",
        "/static/app.js",
    ):
        answer = client.get(path)
        policy = answer.headers["content-security-policy"]
        assert "script-src 'self'" in policy and "unsafe" not in policy
        if "html" in answer.headers["content-type"]:
            assert not re.search(r"<script>|<style| style=| on\w+=", answer.text)
            assert not re.search(r"(src|href)=\"(https?:)?//", answer.text)


@pytest.mark.parametrize(
    "headers",
    [{"Origin": "http://elsewhere.example"}, {"Sec-Fetch-Site": "cross-site"}, {"Origin": "null"}],
)
def test_changes_from_elsewhere_are_refused(client, workshop, headers):
    before = workshop.open(1)
    assert client.post("/briefs/1/clear", data=form(workshop), headers=headers).status_code == 403
    assert client.post("/api/v1/briefs/1/undo", headers=headers).status_code == 403
    assert workshop.open(1) == before
    own = {"Origin": "http://127.0.0.1", "Sec-Fetch-Site": "same-origin"}
    assert client.post("/briefs/1/clear", data=form(workshop), headers=own).status_code == 200


def test_foreign_hosts_and_large_bodies_are_refused(client):
    assert client.get("/briefs", headers={"Host": "evil.example"}).status_code == 400
    assert client.post("/briefs", content=b"x" * 2_000_001).status_code == 413


def test_names_are_escaped_everywhere(client, workshop):
    nasty = '<script>alert("x")</script>'
    answer = client.get("/briefs/1/brief").text
    fields = dict(
        re.findall(
            r'name="(\w+)"[^>]*value="([^"]*)"',
            answer.split('id="form-about"')[1].split("</form>")[0],
        )
    )
    fields |= {
        "name": nasty,
        "sureness": "likely",
        "notes": nasty,
    }
    assert client.post("/briefs/1/edit", data=fields, headers=HTMX).status_code == 200
    assert workshop.open(1).plan.brief.name == nasty
    for path in ("/briefs", "/briefs/1/brief", "/briefs/1/frames", "/briefs/1/find?q=<script>"):
        assert nasty not in client.get(path).text


def test_wrong_addresses_and_parts_answer_in_words(client, workshop):
    assert client.get("/briefs/99/brief").status_code == 404
    assert "no such brief" in client.get("/briefs/99/brief").text
    assert client.get("/briefs/1/../../etc/passwd").status_code in (404, 200)
    answer = client.post(
        "/briefs/1/adopt", data=form(workshop, **{"try": "graphics:nobody"}), headers=HTMX
    )
    assert answer.status_code == 404 and "no part “nobody”" in answer.text
    answer = client.post(
        "/briefs/1/adopt", data=form(workshop, **{"try": "graphics:lidd-frame-bunk"}), headers=HTMX
    )
    assert answer.status_code == 422 and "it is a case" in answer.text
    answer = client.post(
        "/briefs/1/keep", data=form(workshop, part="nobody", keep="1"), headers=HTMX
    )
    assert answer.status_code == 422
    for query in (
        "try=graphics:nobody",
        "try=:::,,",
        "swap=nothing",
        "propose=x",
        "working=zzz",
        "q=%00",
    ):
        assert client.get(f"/briefs/1/frames?{query}").status_code == 200


def test_a_stale_version_is_a_conflict_that_shows_the_present_state(client, workshop):
    stale = form(workshop)
    assert client.post("/briefs/1/clear", data=stale, headers=HTMX).status_code == 200
    answer = client.post("/briefs/1/pin", data=stale, headers=HTMX)
    assert answer.status_code == 409 and "another tab" in answer.text


def test_an_empty_brief_and_unreachable_targets_say_what_to_do(client, workshop):
    client.post("/briefs")
    page = client.get("/briefs/9/frames").text
    assert "No targets yet" in page and "cost at least" in page
    page = client.get("/briefs/9/frames?propose=most").text
    assert "is the cheapest that fits" in page
    plan = client.get("/api/v1/briefs/1").json()
    plan["brief"]["targets"][0]["fps"] = 900
    question = {"brief": plan["brief"], "aim": "least money"}
    answer = client.post("/api/v1/propose", json=question).json()
    assert not answer["found"] and "Hollow Meridian" in answer["account"][0]
    plan["brief"]["targets"][0]["fps"] = 70
    plan["brief"]["budget"] = {"low": "0", "high": "200"}
    answer = client.post("/api/v1/propose", json={"brief": plan["brief"]}).json()
    assert re.search(
        r"buys no working machine: the least that does costs EUR\s[\d,.]+, EUR\s[\d,.]+ more",
        answer["headline"],
    )
    least = float(re.search(r"costs EUR\s([\d.]+)", answer["headline"].replace(",", ""))[1])
    plan["brief"]["budget"] = {"low": "0", "high": f"{least:.2f}"}
    assert client.post("/api/v1/propose", json={"brief": plan["brief"]}).json()["found"]
    plan["brief"]["budget"] = {"low": "0", "high": f"{least - 0.01:.2f}"}
    assert not client.post("/api/v1/propose", json={"brief": plan["brief"]}).json()["found"]


def test_cap_above_which_no_target_can_be_met_is_said(client):
    plan = client.get("/api/v1/briefs/1").json()
    plan["brief"]["targets"] = [{"game": "lanternfolk", "fps": 144}]
    answer = client.post(
        "/api/v1/propose", json={"brief": plan["brief"], "aim": "least money"}
    ).json()
    assert not answer["found"]
    assert "capped at 120 fps by its engine" in answer["account"][0]
    assert any("cap of 120" in item["change"] for item in answer["relaxations"])


def test_the_api_stores_replaces_and_guards_versions(client):
    plan = client.get("/api/v1/briefs/1").json()
    made = client.post(
        "/api/v1/briefs", json={"brief": plan["brief"], "build": plan["build"]}
    ).json()
    assert made["brief"] == plan["brief"] and made["id"] == 9
    made["brief"]["name"] = "Changed"
    body = {"brief": made["brief"], "build": made["build"], "version": made["version"]}
    assert client.put("/api/v1/briefs/9", json=body).json()["brief"]["name"] == "Changed"
    again = client.put("/api/v1/briefs/9", json=body)
    assert again.status_code == 409 and "another tab" in again.json()["error"]
    assert client.post("/api/v1/briefs/9/undo?version=1").status_code == 409
    assert client.post("/api/v1/briefs/9/undo?version=2").json() == {
        "undone": "replaced by the API"
    }
    assert client.post("/api/v1/briefs/9/redo?version=3").status_code == 200
    version = client.get("/api/v1/briefs/9").json()["version"]
    assert client.delete(f"/api/v1/briefs/9?version={version}").status_code == 204
    assert client.get("/api/v1/briefs/9").status_code == 404
    bad = plan["brief"] | {"region": "atlantis"}
    assert "atlantis" in client.post("/api/v1/propose", json={"brief": bad}).json()["error"]
    described = client.get("/api/v1/openapi.json").json()["paths"]
    assert {
        "/api/v1/propose",
        "/api/v1/estimate",
        "/api/v1/check",
        "/api/v1/briefs/{brief_id}",
    } <= set(described)
    assert all("/briefs/{brief_id}/edit" not in path for path in described)


@pytest.mark.whole_demo
def test_page_api_and_command_line_give_the_same_answer_on_an_edited_folder(
    client, workshop, tmp_path, capsys
):
    folder = tmp_path / "edited"
    database = str(tmp_path / "copy.sqlite")
    assert main(["export", str(folder), "--database", database]) == 0
    brief = tmp_path / "brief.json"
    brief.write_text(json.dumps(client.get("/api/v1/briefs/1").json()["brief"]))
    before = client.post("/api/v1/propose", json={"brief": json.loads(brief.read_text())}).json()
    card = next(item["part"] for item in before["build"]["parts"] if item["kind"] == "graphics")
    offers = (folder / "offers.csv").read_text().splitlines()
    gone = [
        line.replace(",EUR,true,", ",EUR,false,") if line.startswith(card) else line
        for line in offers
    ]
    assert gone != offers
    (folder / "offers.csv").write_text("\n".join(gone) + "\n")
    capsys.readouterr()
    assert main(["propose", str(brief), "--catalogue", str(folder), "--json"]) == 0
    direct = json.loads(capsys.readouterr().out)
    assert direct["build"] != before["build"]
    assert main(["import", str(folder), "--yes", "--database", database]) == 0
    through_api = client.post(
        "/api/v1/propose", json={"brief": json.loads(brief.read_text())}
    ).json()
    assert through_api == direct
    page = client.get("/briefs/1/frames?propose=most").text
    for line in direct["lines"]:
        assert line["name"].replace("&", "&amp;") in page
    assert direct["headline"] in page


def test_command_line_speaks_plainly(tmp_path, capsys):
    build, brief = str(BRIEFS / "signal-tower.build.json"), str(BRIEFS / "signal-tower.brief.json")
    folder = ["--catalogue", str(CATALOGUE)]
    assert main(["check", build, *folder]) == 1
    assert "45 mm more than Lidd & Frame Porthole takes" in capsys.readouterr().out
    assert main(["estimate", brief, build, *folder, "--json"]) == 0
    estimates = json.loads(capsys.readouterr().out)["estimates"]
    assert {estimate["state"] for estimate in estimates} == {"short", "unsure"}
    assert main(["check", build, "--brief", brief, *folder, "--json"]) == 1
    assert json.loads(capsys.readouterr().out)["floors"]
    assert main(["propose", str(tmp_path / "none.json"), *folder]) == 2
    assert "none.json" in capsys.readouterr().err
    assert main(["import", str(tmp_path), "--database", str(tmp_path / "x.sqlite")]) == 2
    assert "nothing was imported" in capsys.readouterr().err
    assert main(["propose", brief, "--database", str(tmp_path / "y.sqlite")]) == 2
    assert "no catalogue yet" in capsys.readouterr().err
    for command in ("demo", "serve", "import", "export", "propose", "estimate", "check"):
        with pytest.raises(SystemExit):
            main([command, "--help"])
        assert "examples:" in capsys.readouterr().out


@pytest.mark.whole_demo
def test_a_catalogue_without_coolers_still_proposes_boxed_ones_or_says_why(client, workshop):
    catalogue = workshop.catalogue().described
    parts = {
        key: part
        for key, part in catalogue.parts.items()
        if part not in catalogue.by_kind["cooler"]
    }
    offers = tuple(offer for offer in catalogue.offers if offer.part_id in parts)
    workshop.import_catalogue(
        replace(catalogue, parts=parts, offers=offers, published={}, results={}), "no coolers"
    )
    brief = client.get("/api/v1/briefs/1").json()["brief"]
    answer = client.post("/api/v1/propose", json={"brief": brief}).json()
    assert answer["found"] and all(line["kind"] != "cooler" for line in answer["lines"])
    without_boxed = {
        key: part for key, part in parts.items() if not getattr(part, "boxed_cooler_w", None)
    }
    offers = tuple(offer for offer in offers if offer.part_id in without_boxed)
    workshop.import_catalogue(
        replace(catalogue, parts=without_boxed, offers=offers, published={}, results={}), "none"
    )
    answer = client.post("/api/v1/propose", json={"brief": brief}).json()
    assert not answer["found"] and "no cooler" in answer["headline"]
    assert client.get("/briefs/1/frames?propose=most").status_code == 200
    assert client.get("/briefs/2/frames").status_code == 200


def test_owned_kept_and_extras_change_the_money(client, workshop):
    client.post(
        "/briefs/1/own", data=form(workshop, part="coldreach-gust", owned="1"), headers=HTMX
    )
    page = client.get("/briefs/1/brief").text
    assert "Coldreach Gust is owned" in page
    before = workshop.open(1).plan
    client.post(
        "/briefs/1/extras",
        data=form(workshop, extra_name="Operating system", extra_amount="100"),
        headers=HTMX,
    )
    answer = client.get("/briefs/1/frames?working=money").text
    assert "Operating system" in answer
    kept = before.build.graphics
    client.post("/briefs/1/keep", data=form(workshop, part=kept, keep="1"), headers=HTMX)
    stored = client.get("/api/v1/briefs/1").json()
    answer = client.post(
        "/api/v1/propose", json={"brief": stored["brief"], "build": stored["build"]}
    ).json()
    chosen = {line["kind"]: line for line in answer["lines"]}
    assert chosen["graphics"]["part"] == kept and chosen["cooler"]["owned"]
    assert float(answer["total_cost"]) <= 1250
    assert float(answer["total_cost"]) == pytest.approx(float(answer["parts_cost"]) + 100)


def test_a_brief_goes_out_as_files_and_comes_back(client, workshop):
    brief, build = (client.get(f"/briefs/1/file/{what}") for what in ("brief", "build"))
    assert 'filename="net-loft-all-rounder.brief.json"' in brief.headers["content-disposition"]
    files = [("files", ("a.json", build.content)), ("files", ("b.json", brief.content))]
    opened = client.post("/briefs/open", files=files, follow_redirects=False)
    assert opened.headers["location"] == "/briefs/9/brief"
    assert workshop.open(9).plan == workshop.open(1).plan
    alone = client.post("/briefs/open", files=files[1:], follow_redirects=False)
    assert alone.headers["location"] == "/briefs/10/brief"
    assert workshop.open(10).plan.build.empty
    assert client.get("/briefs/1/file/secrets").status_code == 422
    noted = brief.content.replace(b'"notes": "', b'"notes": "like wattmetron-build/1, ')
    told = client.post("/briefs/open", files=[("files", ("c.json", noted))], follow_redirects=False)
    assert told.headers["location"] == "/briefs/11/brief"


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda data: b"", "nothing was imported"),
        (lambda data: b"\x00\xff\xfe", "nothing was imported"),
        (lambda data: data.replace(b'"vellmouth"', b'"atlantis"'), "no region “atlantis”"),
        (
            lambda data: data.replace(b'"hollow-meridian"', b'"no-such-game"'),
            "no game “no-such-game”",
        ),
        (
            lambda data: data.replace(b'"fps": 70.0', b'"fps": -1'),
            "frame rate must lie",
        ),
        (lambda data: data + b" " * 1_100_000, "at most 1 MB"),
        (
            lambda data: data.replace(b"wattmetron-brief/1", b"wattmetron-build/1"),
            "nothing was imported",
        ),
    ],
)
def test_bad_files_are_refused_with_a_sentence_and_store_nothing(client, workshop, change, said):
    data = change(client.get("/briefs/1/file/brief").content)
    answer = client.post("/briefs/open", files=[("files", ("<b>bad</b>.json", data))])
    assert answer.status_code == 422
    assert said in answer.text and "<b>bad</b>" not in answer.text
    assert len(workshop.briefs()) == 8


def test_no_file_and_two_briefs_are_refused(client, workshop):
    assert "No file was chosen" in client.post("/briefs/open", files=[("files", ("", b""))]).text
    data = client.get("/briefs/1/file/brief").content
    twice = client.post(
        "/briefs/open", files=[("files", (name, data)) for name in ("a.json", "b.json")]
    )
    assert "2 briefs and 0 builds" in twice.text
    assert len(workshop.briefs()) == 8


def test_a_stale_undo_is_a_conflict_on_the_page_too(client, workshop):
    old = form(workshop)
    client.post("/briefs/1/keep", data=form(workshop, part="lowhum-level-750", keep="1"))
    answer = client.post("/briefs/1/undo", data=old, headers=HTMX)
    assert answer.status_code == 409 and "another tab" in answer.text
    assert workshop.open(1).plan.build.kept == {"lowhum-level-750"}


@pytest.mark.whole_demo
def test_every_working_begins_with_its_figure_as_a_dated_sentence(client):
    for what, said in (
        (
            "money",
            (
                "EUR\u00a01,040.50 delivered, EUR\u00a0209.50 left of EUR\u00a01,250; prices of 20"
                " Nov 2026, 1 stale."
            ),
        ),
        (
            "t1",
            (
                "80 % interval 57–65\u202ffps; chance of 70\u202ffps under 1\u202f%; limited by the"
                " processor in 39\u202f% of frames."
            ),
        ),
        (
            "power",
            (
                "a supply of 523\u202fW is needed. Estimated from the parts&#39; figures; prices of"
                " 20 Nov 2026, 1 stale."
            ),
        ),
        ("fit", "nothing blocks; prices of 20 Nov 2026, 1 stale."),
    ):
        text = client.get(f"/briefs/1/frames?working={what}").text
        sentence = re.search(r'id="sentence">(.*?)</span>', text)[1]
        assert said in sentence, sentence
    assert "does not fit: " in client.get("/briefs/7/frames?working=fit").text


def test_every_word_asked_about_is_explained_once(client):
    for path in ("/briefs/1/brief", "/briefs/1/frames"):
        text = client.get(path).text
        asked = set(re.findall(r'popovertarget="([\w-]+)"', text))
        assert asked and all(text.count(f'id="{word}"') == 1 for word in asked)
        assert 'id="word-' not in client.get(path, headers=HTMX).text


def test_a_new_brief_starts_with_a_budget_that_buys_something(client, workshop):
    client.post("/briefs")
    plan = workshop.open(9).plan
    answer = client.post(
        "/api/v1/propose", json={"brief": client.get("/api/v1/briefs/9").json()["brief"]}
    ).json()
    assert answer["found"] and plan.brief.budget_high_minor % 10_000 == 0


def test_chart_marks_stand_where_their_figures_say(workshop):
    """On a low target the diamond is still the mean; the whisker goes with the low."""
    catalogue, plan = workshop.catalogue(), workshop.open(4).plan
    seen = set()
    for estimate in assess(catalogue, plan.brief, plan.build).estimates:
        chart, per_ms = str(frame_row(estimate)), estimate.target.fps / 1000 * 50
        places = [float(x) for x in re.findall(r'<svg x="([\d.]+)%"', chart)]
        assert any(abs(x - estimate.mean_frame_ms * per_ms) < 0.01 for x in places)
        assert any(abs(x - 1000 / estimate.low_fps * per_ms) < 0.01 for x in places)
        whisker = re.search(r'<line x1="([\d.]+)%" x2="([\d.]+)%" y1="41"', chart)
        judged = 1000 / estimate.judged_fps * per_ms
        assert float(whisker[1]) < judged < float(whisker[2])
        bars = [
            float(width) for width in re.findall(r'width="([\d.]+)%" y="\d+" height="10"', chart)
        ]
        assert bars == [
            pytest.approx(ms * per_ms, abs=0.01)
            for ms in (estimate.processor_ms, estimate.graphics_ms)
        ]
        seen.add(estimate.target.measure)
    assert seen == {"average", "low"}


@pytest.mark.whole_demo
def test_the_api_gives_the_figures_of_the_core(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    now = assess(catalogue, plan.brief, plan.build)
    question = {key: client.get("/api/v1/briefs/1").json()[key] for key in ("brief", "build")}
    whole = client.post("/api/v1/assess", json=question).json()
    assert whole["total_cost"] == "1040.50" and whole["targets_met"] == now.met == 2
    assert whole["power"]["full_w"] == now.draw.full_w
    assert client.post("/api/v1/estimate", json=question).json()["estimates"] == whole["estimates"]
    assert [item["average_fps"] for item in whole["estimates"]] == [
        round(estimate.average_fps, 2) for estimate in now.estimates
    ]
    assert client.post("/api/v1/check", json=question).json()["findings"] == whole["findings"]
    cards = client.get("/api/v1/parts?kind=graphics").json()
    assert [card["id"] for card in cards] == [part.id for part in catalogue.by_kind["graphics"]]
    assert len(client.get("/api/v1/parts").json()) == len(catalogue.parts)
    lost = {**question, "build": {"parts": [{"kind": "case", "part": "no-such-case"}]}}
    answer = client.post("/api/v1/assess", json=lost)
    assert answer.status_code == 422 and "no part “no-such-case”" in answer.json()["error"]
    paths = client.get("/api/v1/openapi.json").json()["paths"]
    assert {
        "/api/v1/propose",
        "/api/v1/estimate",
        "/api/v1/check",
        "/api/v1/briefs/{brief_id}",
    } <= set(paths)


@pytest.mark.whole_demo
def test_the_swap_page_lists_what_the_core_says(client, workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(1).plan
    text = client.get("/briefs/1/frames?swap=processor&all=1&unfit=1").text
    rows = re.findall(r'id="try-([\w-]+)".*?</tr>', text, re.DOTALL)
    book = catalogue.prices("vellmouth", NEW_PARTS)
    sold = [chip for chip in catalogue.by_kind["processor"] if book.cost(chip.id) is not None]
    assert sorted(rows) == sorted(chip.id for chip in sold)
    prices = [book.cost(each_row) for each_row in rows]
    assert prices == sorted(prices)
    row = re.search(r'id="try-quillon-ketch-flood-8".*?</tr>', text, re.DOTALL)[0]
    swapped = assess(
        catalogue, plan.brief, plan.build.with_part("processor", "quillon-ketch-flood-8")
    )
    shown = [int(rate) for rate in re.findall(r'<span class="fig">(\d+)</span></span>', row)]
    assert shown == [round(estimate.judged_fps) for estimate in swapped.estimates]
    assert (
        "needs socket" in re.search(r'id="try-marrowgate-gannet-dun-4".*?</tr>', text, re.DOTALL)[0]
    )
    assert "called “zzz”" in client.get("/briefs/1/frames?swap=processor&q=zzz").text


def test_data_lies_where_it_was_told_to(tmp_path, monkeypatch, capsys):
    monkeypatch.setenv("WATTMETRON_DATA", str(tmp_path / "here"))
    assert main(["import", str(CATALOGUE)]) == 0
    assert (tmp_path / "here" / "wattmetron.sqlite").exists()
    assert main(["export", str(tmp_path / "out")]) == 0
    assert (tmp_path / "out" / "offers.csv").read_text() == (CATALOGUE / "offers.csv").read_text()
    brief, build = (str(BRIEFS / f"net-loft.{what}.json") for what in ("brief", "build"))
    capsys.readouterr()
    assert main(["estimate", brief, build]) == 0
    assert "62 fps (57–65) of 70: short, limited by graphics" in capsys.readouterr().out
    assert main(["check", build]) == 0
    assert "No findings." in capsys.readouterr().out
    assert main(["propose", str(BRIEFS / "chart-room.brief.json"), "--aim", "least money"]) == 1
    assert "Would do: Tin Harbour at 60 instead of 75 fps" in capsys.readouterr().out


def test_a_region_that_an_import_took_away_is_said_and_another_stands_in(client, workshop):
    catalogue = workshop.catalogue().described
    regions = {
        "elsewhere": replace(catalogue.regions["vellmouth"], id="elsewhere", name="Elsewhere")
    }
    offers = tuple(
        replace(offer, region="elsewhere")
        for offer in catalogue.offers
        if offer.region == "vellmouth"
    )
    workshop.import_catalogue(replace(catalogue, regions=regions, offers=offers), "moved")
    assert "Net loft all-rounder" in client.get("/briefs").text
    page = squeezed(client.get("/briefs/1/fit").text)
    assert (
        "no longer has the region “vellmouth”: this is Elsewhere" in page
        and client.get("/briefs/1/assembly").status_code == 200
    )
    assert (
        client.get("/parts?brief=1").status_code == 200
        and client.get("/games?brief=1").status_code == 200
    )
