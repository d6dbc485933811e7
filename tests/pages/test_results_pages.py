"""Results of a game: pasted, left out, taken back; what they do to estimates and proposals; bad
input.
"""

import re

import pytest

from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.formats.catalogue_writing import write_catalogue
from wattmetron.places.games.measuring import results_state

GAME = "breakwater-siege"
TABLE = (
    "machine; card; size; preset; fps; low\nHeron Slate 6; Reef 16 GB; 1440p; high; 84; 61\nKetch"
    " Flood 8\tNess 16 GB\t1080p\tmedium\t182\t128\nCutter Ebb 6 | Shoal 8 GB | 1920x1080 | high |"
    " 98,5"
)


def send(client, workshop, path="", **form):
    version = str(results_state(workshop, GAME).version)
    return client.post(f"/games/{GAME}/results{path}", data={"results_version": version, **form})


@pytest.mark.whole_demo
def test_pasted_results_narrow_the_game_and_undo_widens_it_again(client, workshop):
    before = fitted_game(workshop.catalogue(), GAME)
    done = send(client, workshop, table=TABLE, source="Harbour Lab", measured_on="2026-03-14")
    assert (
        re.search(r"Added 3 results: C \d+\.\d\u202fms ±\d+\u202f% to", done.text)
        and "Harbour Lab, 14 Mar 2026" in done.text
    )
    after = fitted_game(workshop.catalogue(), GAME)
    assert after.graphics_work_sd < 0.7 * before.graphics_work_sd
    items = workshop.catalogue().results[GAME].items
    assert [(item.processor, item.graphics, item.average_fps, item.low_fps) for item in items] == [
        ("marrowgate-heron-slate-6", "nacre-reef@16", 84, 61),
        ("quillon-ketch-flood-8", "marlpoint-ness@16", 182, 128),
        ("quillon-cutter-ebb-6", "nacre-shoal@8", 98.5, None),
    ]
    muted = send(client, workshop, "/mute", result="r2", muted="1")
    assert "Left a result out" in muted.text and "left out" in muted.text
    assert fitted_game(workshop.catalogue(), GAME).graphics_ms != after.graphics_ms
    stale = client.post(
        f"/games/{GAME}/results/mute", data={"results_version": "1", "result": "r1", "muted": "1"}
    )
    assert stale.status_code == 409 and "another tab" in stale.text
    send(client, workshop, "/undo")
    assert fitted_game(workshop.catalogue(), GAME).graphics_ms == pytest.approx(after.graphics_ms)
    removed = send(client, workshop, "/remove", result="r1")
    assert "Removed a result" in removed.text and len(workshop.catalogue().results[GAME].items) == 2


def test_results_change_what_a_brief_is_told(client, workshop):
    brief = client.get("/api/v1/briefs/1").json()
    brief["brief"]["targets"] = [
        {"game": GAME, "width_px": 2560, "height_px": 1440, "preset": "high", "fps": 100}
    ]
    question = {"brief": brief["brief"], "build": brief["build"]}
    (before,) = client.post("/api/v1/estimate", json=question).json()["estimates"]
    table = "\n".join(
        f"Cutter Flood 6; {card}; 1440p; high; {fps}"
        for card, fps in (("Reef 16 GB", 70), ("Ness 16 GB", 79), ("Bank 12 GB", 92))
    )
    send(client, workshop, table=table)
    (after,) = client.post("/api/v1/estimate", json=question).json()["estimates"]
    width = [item["interval_80_fps"][1] / item["interval_80_fps"][0] for item in (before, after)]
    assert width[1] < width[0] and after["chance"] != before["chance"]
    proposal = client.post("/api/v1/propose", json=question).json()
    assert proposal["found"]
    shown = next(item for item in proposal["estimates"])
    again = client.post(
        "/api/v1/estimate", json={"brief": brief["brief"], "build": proposal["build"]}
    ).json()["estimates"][0]
    assert shown == again, "the proposal and the estimate of its build agree under joint spreads"


def test_what_lines_leave_out_comes_from_the_form_and_own_runs_are_marked(client, workshop):
    send(
        client,
        workshop,
        table="Reef 16 GB; 84\nBank 12 GB; 101",
        processor="Heron Slate 6",
        size="1440p",
        preset="high",
        own="on",
    )
    items = workshop.catalogue().results[GAME].items
    assert {(item.processor, item.preset, item.height_px, item.own) for item in items} == {
        ("marrowgate-heron-slate-6", "high", 1440, True)
    }


@pytest.mark.parametrize(
    ("table", "words"),
    [
        ("", "There is no result"),
        ("Heron Slate 6; Reef 16 GB; 1440p; high", "no frame rate"),
        ("Heron Slate 6; Reef 16 GB; 1440p; high; 0", "no frame rate from 1"),
        ("Heron Slate 6; Reef 16 GB; 1440p; high; 9000", "no frame rate from 1"),
        ("Heron Slate 6; Reef 16 GB; 1440p; high; 60; 90", "above its average"),
        ("Heron Slate 6; Reef; 1440p; high; 60", "sold with 8 and 16 GB"),
        ("Heron Slate 6; 1440p; high; 60", "names no graphics part"),
        ("Heron Slate 6; Reef 16 GB; high; 60", "no resolution"),
        ("Heron Slate 6; Reef 16 GB; 1440p; 60", "no preset"),
        ("Zebra 9; Reef 16 GB; 1440p; high; 60", "“Zebra 9” is no part"),
    ],
)
def test_results_that_cannot_be_read_store_nothing_and_keep_what_was_typed(
    client, workshop, table, words
):
    answer = send(client, workshop, table=table, source="A paper")
    assert answer.status_code == 422 and words in answer.text
    assert GAME not in workshop.catalogue().results and 'value="A paper"' in answer.text


WIDE = (
    "Heron Slate 6\tReef 16 GB\t1440p\thigh\t112\t84\t61\nKetch Flood 8\tNess 16"
    " GB\t1440p\thigh\t121\t92\t70"
)


def test_columns_that_cannot_be_told_apart_are_explained_once_per_source(client, workshop):
    asked = send(client, workshop, table=WIDE, source="Dry Dock Weekly")
    assert (
        asked.status_code == 422
        and "What does each column hold?" in asked.text
        and GAME not in workshop.catalogue().results
    )
    guessed = re.findall(
        r"<option selected>\s*([^<]+?)\s*</option>",
        asked.text.split('id="columns"')[1].split("</thead>")[0],
    )
    assert guessed == [
        "processor",
        "graphics",
        "resolution",
        "preset",
        "average",
        "low",
        "leave out",
    ]
    said = ("processor", "graphics", "resolution", "preset", "leave out", "average", "low")
    told = {f"column-{n}": role for n, role in enumerate(said)}
    assert (
        "Added 2 results"
        in send(client, workshop, table=WIDE, source="Dry Dock Weekly", **told).text
    )
    again = send(client, workshop, table=WIDE.replace("84", "90"), source="Dry Dock  Weekly")
    assert "Added 2 results" in again.text
    assert [
        (item.average_fps, item.low_fps) for item in workshop.catalogue().results[GAME].items
    ] == [
        (84, 61),
        (92, 70),
        (90, 61),
        (92, 70),
    ]
    assert send(client, workshop, table=WIDE, source="Another").status_code == 422
    send(client, workshop, "/remove", result="r1")
    send(client, workshop, table=WIDE, source="Dry Dock Weekly")
    names = [item.id for item in workshop.catalogue().results[GAME].items]
    assert len(names) == len(set(names)) == 5


@pytest.mark.parametrize(
    ("table", "found"),
    [
        (
            (
                "GPU | CPU | Quality | Size | 0.1 % | 1% low | Avg fps\nReef 16 GB | Heron Slate 6"
                " | high | 1440p | 40 | 61 | 84"
            ),
            [(84, 61)],
        ),
        (
            (
                "Card; Processor; Preset; Resolution; Average\nReef 16 GB; Heron Slate 6; high;"
                " 1440p; 84\nNess 16 GB; Heron Slate 6; high; 1440p; 91,5"
            ),
            [(84, None), (91.5, None)],
        ),
        ("GPU;CPU;Quality;Size;Avg;Average\nReef 16 GB;Heron Slate 6;high;1440p;61;84", None),
        ("GPU;CPU;Quality;Size;Cosiness;Average\nReef 16 GB;Heron Slate 6;high;1440p;61;84", None),
    ],
)
def test_a_head_says_what_columns_hold_and_what_it_leaves_open_is_asked(
    client, workshop, table, found
):
    answer = send(client, workshop, table=table)
    if found is None:
        assert answer.status_code == 422 and "What does each column hold?" in answer.text
    else:
        assert [
            (item.average_fps, item.low_fps) for item in workshop.catalogue().results[GAME].items
        ] == found


@pytest.mark.whole_demo
def test_results_travel_with_the_requirements_and_the_folder(client, workshop, tmp_path):
    send(client, workshop, table=TABLE)
    world = workshop.catalogue()
    write_catalogue(world, tmp_path)
    assert read_catalogue(tmp_path).results == world.results
    document = client.get(f"/games/{GAME}/requirements.json").text
    assert '"average_fps": 84' in document
    send(client, workshop, "/remove", result="r1")
    opened = client.post("/games/open", files={"file": ("one.json", document)})
    assert opened.status_code == 200 and workshop.catalogue().results == world.results
