"""The scale: charts pasted and typed, muted, taken back; files; bad input."""

import re

import pytest

from tests.pages.conftest import squeezed
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.demo import CATALOGUE
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.formats.catalogue_writing import write_catalogue
from wattmetron.formats.problems import FormatError

TABLE = (
    "Part\tPoints\nNacre Reef 16 GB\t120\nOrlop Beacon (12GB)  98,5\nMarlpoint Holm: 71\nNacre Spit"
    " 6 GB 60"
)


@pytest.mark.whole_demo
def test_the_page_ranks_compares_and_opens_the_chain(client):
    page = client.get(
        "/parts/scale",
        params={
            "measure": "one core",
            "reference": "marrowgate-heron-dun-6",
            "part": "quillon-cutter-ebb-6",
            "first": "Quillon Cutter Flood 6",
            "second": "Heron Dun 6",
        },
    ).text
    assert re.search(
        r"Quillon Cutter Flood 6 is \d+\u202f% faster than Marrowgate Heron Dun 6, between \d+ and"
        r" \d+\u202f%\.",
        page,
    )
    assert (
        "Marrowgate Heron Dun 6 at 100" in page
        and "Dry Dock Weekly" in page
        and "All together" in page
    )
    assert not re.search(r"<script>|<style| style=| on\w+=", page)
    unknown = client.get("/parts/scale?first=Nacre+Reef+16+GB&second=Zzz+9").text
    assert "No graphics part is called “Zzz 9”" in unknown and 'role="alert"' in unknown
    assert (
        "has no speed in this measure"
        in client.get("/parts/scale?measure=ray+tracing&first=Nacre+Shoal&second=Wick").text
    )
    assert "Not comparable yet" in client.get("/parts/scale").text
    bought = client.get("/parts/scale?region=overwater").text
    assert (
        "Orlop Taper 2"
        not in re.search(r"<table class=\"list scale\">.*?</table>", bought, re.DOTALL)[0]
    )


def test_a_pasted_chart_moves_speeds_and_undo_brings_them_back(client, workshop):
    before = workshop.catalogue().parts["pellworth-reef-16-plain"].speed_1080p
    done = client.post(
        "/parts/scale/charts", data={"measure": "1080p", "name": "A new bench", "table": TABLE}
    )
    assert "Added A new bench with 4 parts. Moved:" in done.text
    assert workshop.catalogue().parts["pellworth-reef-16-plain"].speed_1080p != before
    assert workshop.catalogue().described.charts["a-new-bench"].rows[1].value == 98.5
    assert (
        "Nacre Spit" not in re.search(r"Not comparable yet.*?</section>", done.text, re.DOTALL)[0]
        if "Not comparable yet" in done.text
        else True
    )
    form = re.search(
        r'action="/parts/scale/undo".*?name="chart" value="([^"]+)".*?name="version" value="(\d+)"',
        squeezed(done.text),
    )
    undone = client.post("/parts/scale/undo", data={"chart": form[1], "version": form[2]})
    assert (
        undone.status_code == 200
        and workshop.catalogue().parts["pellworth-reef-16-plain"].speed_1080p == before
    )
    stale = client.post("/parts/scale/undo", data={"chart": form[1], "version": form[2]})
    assert stale.status_code == 409


@pytest.mark.whole_demo
def test_a_comparison_ties_loose_parts_in_and_they_can_be_named_in_lists(client, workshop):
    form = {
        "measure": "1080p",
        "part": "Nacre Spit 6 GB",
        "percent": "5",
        "direction": "below",
        "than": "Nacre Inlet 8 GB",
        "name": "a letter",
    }
    done = client.post("/parts/scale/comparisons", data=form)
    assert (
        "Added a comparison of Nacre Spit 6 GB with Nacre Inlet 8 GB" in done.text
        and "Not comparable yet" not in done.text
    )
    catalogue = workshop.catalogue()
    spit = scale_of(catalogue).standings["named-graphics-nacre-spit-6-gb"]
    assert spit.speeds[0] == pytest.approx(
        0.95 * scale_of(catalogue).standings["nacre-inlet@8"].speeds[0], rel=0.02
    )
    assert reader_of(catalogue).read("GPU: Nacre Spit 6 GB").tiers[0].graphics[0].part == spit.key


@pytest.mark.whole_demo
def test_leaving_a_source_out_shows_what_moved(client, workshop):
    sd = workshop.catalogue().parts["pellworth-ness-16-plain"].speed_sd
    done = client.post(
        "/parts/scale/mute", data={"measure": "1080p", "chart": "harbour-lab-1080p", "muted": "1"}
    )
    assert (
        "Harbour Lab left out. Moved: " in done.text
        and workshop.catalogue().parts["pellworth-ness-16-plain"].speed_sd > sd
    )
    again = client.post(
        "/parts/scale/mute", data={"measure": "1080p", "chart": "harbour-lab-1080p", "muted": "0"}
    )
    assert "Harbour Lab counts again" in again.text and workshop.catalogue().parts[
        "pellworth-ness-16-plain"
    ].speed_sd == pytest.approx(sd)
    removed = client.post("/parts/scale/remove", data={"chart": "harbour-lab-1080p"})
    assert (
        "Removed Harbour Lab" in removed.text
        and "harbour-lab-1080p" not in workshop.catalogue().described.charts
    )


@pytest.mark.parametrize(
    ("table", "words"),
    [
        ("Nacre Reef 16 GB 100", "fewer than two parts"),
        ("Nacre Reef 16 GB 100\nReef 16GB 101", "a second time"),
        ("Nacre Reef 16 GB 0\nOrlop Beacon 12 GB 10", "above nought"),
        ("Nacre Reef 16 GB -3\nOrlop Beacon 12 GB 10", "above nought"),
        ("Nacre Reef 16 GB 120 %\nOrlop Beacon 12 GB 1.1x", "mix"),
        ("Nacre Reef 100\nOrlop Beacon 12 GB 98", "sold with 8, 16 GB"),
        ("", "fewer than two parts"),
        ("Orlop Beacon 12 GB 98\njust words", "no name with a value"),
    ],
)
def test_a_chart_that_cannot_be_read_stores_nothing_and_keeps_what_was_typed(
    client, workshop, table, words
):
    answer = client.post(
        "/parts/scale/charts", data={"measure": "1080p", "name": "Bad", "table": table}
    )
    assert answer.status_code == 422 and words in answer.text
    assert "bad" not in workshop.catalogue().described.charts
    assert 'value="Bad"' in answer.text


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"percent": "lots"}, "enter per cent"),
        ({"percent": "100", "direction": "below"}, "below 100 for slower"),
        ({"than": "Nacre Inlet 8 GB"}, "compared with itself"),
        ({"part": ""}, "name both"),
        ({"part": "Reef"}, "several amounts"),
        ({"measure": "speediness"}, "choose one of"),
        ({"published_on": "soon"}, "2027-03-01"),
        ({"noise": "900"}, "from 0.5 to 50"),
    ],
)
def test_a_comparison_that_makes_no_sense_is_refused_in_one_sentence(client, change, words):
    form = {
        "measure": "1080p",
        "part": "Nacre Inlet 8 GB",
        "percent": "5",
        "direction": "above",
        "than": "Orlop Wick 8 GB",
    }
    answer = client.post("/parts/scale/comparisons", data=form | change)
    assert answer.status_code == 422 and words in answer.text


def test_charts_round_trip_in_a_folder_and_bad_lines_are_named(tmp_path):
    world = read_catalogue(CATALOGUE)
    write_catalogue(world, tmp_path)
    assert read_catalogue(tmp_path).charts == world.charts
    path = tmp_path / "charts.csv"
    lines = path.read_text().splitlines()
    path.write_text(
        "\n".join([*lines, lines[1], lines[2].replace("1080p,rel", "one core,rel")]) + "\n"
    )
    with pytest.raises(FormatError, match="a second time in “harbour-lab-1080p”"):
        read_catalogue(tmp_path)
