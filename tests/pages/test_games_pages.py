"""The place Games, paste and read, and the panel beside a brief, without a browser."""

import io
import json
import re

import pytest

from tests.pages.conftest import squeezed
from wattmetron.cli import main
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.places.games.publishing import game_state

TEXT = "Minimum\nCPU: Quilon Cutter Ebb 6\nGPU: Reef 8 GB\nMemory: 8 GB\nBring a friend"


def fields_of(html: str) -> dict[str, str]:
    """The fields of a draft as a browser would send them unchanged."""
    found = dict(re.findall(r'<input[^>]*?name="(t\d[^"]*)"[^>]*?value="([^"]*)"', html))
    for name, body in re.findall(
        r'<select[^>]*?name="(t\d[^"]*)"[^>]*>(.*?)</select>', html, re.DOTALL
    ):
        chosen = re.search(r'<option(?: value="([^"]*)")? selected>([^<]*)', body)
        found[name] = "" if chosen is None else (chosen[1] if chosen[1] is not None else chosen[2])
    return found


def test_pages_answer_with_a_strict_policy_and_no_inline_code(client):
    for path in (
        "/games",
        "/games?brief=1&met=any+tier&sort=graphics",
        "/games/hollow-meridian?brief=1&equal=nacre-reef%408",
        "/games/read",
        "/games/lanternfolk/edit",
        "/games/assumptions",
        "/briefs/1/frames?game=tin-harbour",
        "/briefs/1/brief?game=gable-row&equal=nobody",
    ):
        answer = client.get(path)
        assert answer.status_code == 200, path
        assert not re.search(r"<script>|<style| style=| on\w+=", answer.text), path
        assert "unsafe" not in answer.headers["content-security-policy"]


def test_unknown_games_and_briefs_are_said(client):
    assert "no game “atlantis”" in client.get("/games/atlantis").text
    assert client.get("/games?brief=99").status_code == 404
    assert client.get("/api/v1/games/atlantis/requirements").status_code == 404


def test_typed_parts_are_measured_and_nonsense_is_answered(client):
    asked = {"parts": "Heron Dun 6, Reef 8 GB, 16 GB ram"}
    page = squeezed(client.get("/games", params=asked).text)
    assert "measured against Marrowgate Heron Dun 6 with Nacre Reef 8" in page
    nonsense = client.get("/games", params={"parts": "good stuff"}).text
    assert 'role="alert"' in nonsense and "Nothing here reads" in nonsense


def test_reading_is_a_draft_until_it_is_confirmed(client, workshop):
    draft = client.post(
        "/games/read", data={"name": "Fathom Line", "genre": "action", "text": TEXT}
    )
    assert "Bring a friend" in draft.text and "not read: nothing was made of this" in draft.text
    assert "Part of the name is missing or misspelt" in draft.text
    assert "fathom-line" not in workshop.catalogue().games
    form = {
        "name": "Fathom Line",
        "genre": "action",
        "text": TEXT,
        "version": "0",
        **fields_of(draft.text),
    }
    assert form["t0.processor.0.part"] == "quillon-cutter-ebb-6"
    wrong = client.post("/games/confirm", data=form | {"t0.memory_gb": "lots", "t0.notes": "typed"})
    assert (
        wrong.status_code == 422
        and "The memory of Minimum is “lots”" in wrong.text
        and 'value="typed"' in wrong.text
    )
    done = client.post("/games/confirm", data=form, follow_redirects=False)
    assert done.headers["location"] == "/games/fathom-line"
    assert workshop.catalogue().published["fathom-line"].text == TEXT
    again = client.post("/games/confirm", data=form)
    assert again.status_code == 422 and "already" in again.text


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "There is no text"),
        ("\x00\x01\x02", "There is no text"),
        ("x" * 30_000, "at most 20,000"),
        ("once upon a time", "Nothing here reads"),
    ],
)
def test_what_cannot_be_read_keeps_what_was_typed(client, text, words):
    answer = client.post(
        "/games/read",
        data={"name": "Fathom Line", "genre": "action", "text": text, "source": "a shop"},
    )
    assert answer.status_code == 422 and words in answer.text
    assert 'value="Fathom Line"' in answer.text and 'value="a shop"' in answer.text


def test_script_in_a_text_stays_text(client):
    answer = client.post(
        "/games/read", data={"name": "Fathom Line", "text": TEXT + "\n<img src=x onerror=alert(1)>"}
    )
    assert "<img src=x" not in answer.text and "&lt;img src=x" in answer.text


def test_an_existing_name_is_refused_before_anything_is_read(client):
    answer = client.post("/games/read", data={"name": "lanternfolk", "text": TEXT})
    assert answer.status_code == 422 and "a game called “Lanternfolk” already" in answer.text


def test_an_entry_is_left_out_counted_again_and_a_stale_tab_is_told(client, workshop):
    version = game_state(workshop, "gullwing-circuit").version
    form = {
        "game_version": str(version),
        "tier": "1",
        "side": "graphics",
        "place": "2",
        "excluded": "1",
        "brief": "1",
    }
    done = client.post("/games/gullwing-circuit/exclude", data=form)
    assert "Orlop Beacon left out." in done.text and "Count it again" in done.text
    stale = client.post("/games/gullwing-circuit/exclude", data=form)
    assert stale.status_code == 409 and "another tab" in stale.text
    now = str(game_state(workshop, "gullwing-circuit").version)
    undone = client.post("/games/gullwing-circuit/undo", data={"game_version": now, "brief": "1"})
    assert "Undone: Orlop Beacon left out" in undone.text and "out of line" in undone.text


@pytest.mark.whole_demo
def test_beside_a_brief_a_change_stays_in_the_brief(client, workshop):
    version = game_state(workshop, "gable-row").version
    form = {
        "game_version": str(version),
        "tier": "0",
        "side": "processor",
        "place": "1",
        "percent": "5",
        "direction": "above",
        "than": "Heron Dun 6",
        "view": "frames",
    }
    place = "/briefs/1/games/gable-row/place"
    done = client.post(place, data=form, headers={"HX-Request": "true"})
    assert done.headers["hx-push-url"] == "/briefs/1/frames?game=gable-row"
    assert (
        "Quillon Pilot 5 stands 5 % above marrowgate-heron-dun-6." in done.text
        and "The build" in done.text
    )


@pytest.mark.whole_demo
def test_a_tier_becomes_a_target_and_an_equal_is_adopted_beside_the_game(client, workshop):
    version = workshop.open(1).version
    form = {
        "version": str(version),
        "view": "frames",
        "beside": "ropewalk",
        "game": "ropewalk",
        "tier": "1",
    }
    done = client.post("/briefs/1/targets", data=form, headers={"HX-Request": "true"})
    assert "Added Ropewalk as Recommended." in done.text and 'id="game-beside"' in done.text
    assert workshop.open(1).plan.brief.targets[-1].fps == 60
    page = client.get("/briefs/1/frames?game=ropewalk&equal=nacre-cove%406").text
    code = re.search(r'name="try" value="(graphics:[^"]+)"', page)[1]
    form = {
        "version": str(workshop.open(1).version),
        "view": "frames",
        "beside": "ropewalk",
        "try": code,
    }
    assert (
        client.post("/briefs/1/adopt", data=form, headers={"HX-Request": "true"}).status_code == 200
    )
    assert workshop.open(1).plan.build.graphics == code.split(":")[1]
    choices = client.get("/briefs/1/tiers?game=lanternfolk").text
    assert "frame rate, preset, resolution assumed" in choices


def test_files_go_out_of_and_into_the_pages(client, workshop):
    item = client.get("/games/lanternfolk/requirements.json")
    assert 'filename="lanternfolk.requirements.json"' in item.headers["content-disposition"]
    document = json.loads(item.text)
    document["games"][0] |= {"game": "second-lantern", "name": "Second Lantern"}
    opened = client.post("/games/open", files={"file": ("new.json", json.dumps(document))})
    assert "Read the requirements of 1 game from new.json." in opened.text
    bad = client.post("/games/open", files={"file": ("bad.csv", "game,tier\nnobody,Min\n")})
    assert bad.status_code == 422 and "nobody" in bad.text
    assert client.post("/games/open", data={}).status_code == 422
    for path in (
        "/games/requirements.json",
        "/games/requirements.csv",
        "/games/lanternfolk/requirements.csv",
    ):
        assert client.get(path).status_code == 200


@pytest.mark.whole_demo
def test_the_api_reads_judges_stores_and_finds_equals(client):
    read = client.post("/api/v1/requirements/read", json={"text": TEXT}).json()
    assert read["tiers"][0]["processors"][0]["part"] == "quillon-cutter-ebb-6" and read[
        "unread"
    ] == ["Bring a friend"]
    assert "no text" in client.post("/api/v1/requirements/read", json={"text": " "}).json()["error"]
    asked = {"parts": "Heron Dun 6, Reef 8 GB", "games": ["hollow-meridian"]}
    (game,) = client.post("/api/v1/requirements/verdict", json=asked).json()["games"]
    assert game["tiers"][0]["verdict"] == "not known"
    stored = client.get("/api/v1/games/gable-row/requirements").json()
    assert client.put("/api/v1/games/gable-row/requirements", json=stored).status_code == 200
    assert client.put("/api/v1/games/gable-row/requirements", json=stored).status_code == 409
    equal = client.get("/api/v1/parts/nacre-reef@8/equals", params={"region": "vellmouth"}).json()
    assert equal["equals"][0]["chance_as_good"] == 1 and equal["currency"] == "EUR"
    assert len(client.get("/api/v1/games").json()) == 26


def test_the_command_line_reads_and_judges(capsys, monkeypatch, tmp_path):
    where = ["--catalogue", str(CATALOGUE)]
    path = tmp_path / "list.txt"
    path.write_text(TEXT)
    assert main(["requirements", "read", str(path), *where]) == 0
    assert "Not read: “Bring a friend”" in capsys.readouterr().out
    monkeypatch.setattr("sys.stdin", io.TextIOWrapper(io.BytesIO(TEXT.encode())))
    assert main(["requirements", "read", "-", "--json", *where]) == 0
    assert json.loads(capsys.readouterr().out)["unread"] == ["Bring a friend"]
    build = str(BRIEFS / "signal-tower.build.json")
    assert main(["requirements", "verdict", build, "hollow-meridian", *where]) == 0
    assert re.search(r"Ultra +short +processor short 0\.\d\d", capsys.readouterr().out)
    assert (
        main(
            [
                "requirements",
                "verdict",
                build,
                "hollow-meridian",
                "deepwater-pilot",
                "--json",
                *where,
            ]
        )
        == 1
    )
    assert len(json.loads(capsys.readouterr().out)["games"]) == 2
    assert main(["requirements", "verdict", build, "atlantis", *where]) == 2
    path.write_bytes(b"\x00\x01\x02")
    assert main(["requirements", "read", str(path), *where]) == 2
