"""Measured without a browser: files in any layout, readings by hand, evidence, before and after,
the tuning bench, and what cannot be.
"""

import io
import re
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from threading import Event

import numpy as np
import pytest

from tests.measuring import CARD, base, recorded, target_of
from tests.pages.conftest import squeezed
from wattmetron.core.errors import NotPossibleError, StorageError
from wattmetron.demo.simulated_meters import MeterServer
from wattmetron.demo.simulated_run import TrueMachine, simulated
from wattmetron.formats.frames_table import read_frames
from wattmetron.formats.run_file import frames_table, packed, unpacked
from wattmetron.places.measured.as_result import result_of
from wattmetron.places.measured.evidence import effect, take_as_evidence
from wattmetron.places.measured.machines import machine_keys
from wattmetron.places.measured.pages.forms import RunForm, run_from
from wattmetron.places.measured.recorder import PROTOCOL, Recorder, asked_at
from wattmetron.places.measured.run_library import all_runs, open_run, trace_of
from wattmetron.shell.forms import read


def csv_of(fps, count=3000, head="frame time (ms)", seed=1):
    ms = 1000 / fps * np.exp(np.random.default_rng(seed).normal(0, 0.05, count))
    return (head + "\n" + "\n".join(f"{own:.3f}" for own in ms)).encode()


def bring(client, workshop, data, name="run.csv", **more):
    return client.post(
        "/measured/import",
        data=base(workshop, **more),
        files={"file": (name, io.BytesIO(data), "text/csv")},
        follow_redirects=False,
    )


@pytest.mark.whole_demo
def test_a_file_becomes_a_run_that_is_held_against_its_promise(client, workshop):
    answer = bring(client, workshop, csv_of(62))
    assert answer.status_code == 303
    page = client.get(answer.headers["location"]).text
    assert "as promised" in page and "62." in page
    would = client.get(f"{answer.headers['location']}/would").text
    assert "Take it as evidence" in would and "Net loft all-rounder" in would
    view = client.get("/briefs/1/measured").text
    assert "0 of 1 measured targets are met, 1 falls short" in view
    assert "within what is promised" in view
    frames = client.get(f"{answer.headers['location']}/frames.csv").text
    assert frames.startswith("start (s),frame time (ms)\n") and frames.count("\n") == 3001


def test_columns_that_are_not_clear_are_asked_for_once(client, workshop):
    data = b"a;b\n" + b"\n".join(b"%d;%.2f" % (n, 14 + n % 7) for n in range(400))
    asked = bring(client, workshop, data.replace(b".", b","), "odd.csv")
    assert asked.status_code == 422 and "No column reads as frame times" in asked.text
    key = asked.text.split('name="key" value="')[1].split('"')[0]
    said = {"column-0": "leave out", "column-1": "frame time", "unit": "ms", "key": key}
    done = client.post("/measured/import", data=base(workshop, **said), follow_redirects=False)
    assert done.status_code == 303
    again = bring(client, workshop, data.replace(b".", b","), "odd2.csv")
    assert again.status_code == 303
    first, second = all_runs(workshop)
    assert first.measured.fps == pytest.approx(second.measured.fps)
    assert first.measured.fps == pytest.approx(1000 / 17, rel=0.01)


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "empty"),
        (b"\0\1\2" * 50, "binary"),
        (b"frame time\n" + b"\n".join(b"0.5" for _ in range(300)), "unit of the frame times"),
        (b"game,ms\n" + b"a,16\n" * 200 + b"b,8\n" * 200, "2 games"),
        (b"frame time (ms)\n16\n17\n16\n", "too few"),
        (b"frame time (ms)\n" + b"-5\n0\n" * 200, "no two frames"),
        (b"just words\nand more\n", "no line of numbers"),
    ],
)
def test_files_that_cannot_be_taken_are_refused_in_a_sentence(client, workshop, data, said):
    answer = bring(client, workshop, data)
    assert answer.status_code == 422 and said in answer.text
    assert all_runs(workshop) == ()


@pytest.mark.parametrize(
    ("data", "fps"),
    [
        (b"t,frame time\n" + b"".join(b"%.4f,0.0200\n" % (n / 50) for n in range(300)), 50),
        (b"Frametime [us]\n" + b"20000\n" * 300, 50),
        (b"FPS\n" + b"50\n" * 300, 50),
        (b"time (s)\n" + b"".join(b"%.4f\n" % (n / 50) for n in range(300)), 50),
        (b"# log\n\nstart;frame time (ms);GPU load\n" + b"0,1;20,0;99,5\n" * 300, 50),
        ("frame time (ms)\t°C\n".encode() + b"20\t60\n" * 300, 50),
    ],
)
def test_units_separators_and_commas_are_found(data, fps):
    assert np.median(read_frames(data).trace.frame_ms) == pytest.approx(1000 / fps)


def test_what_is_written_is_read_again():
    run = simulated(TrueMachine(processor_ms=9, graphics_ms=7), "hitches", 20, 4, fault="drop out")
    again = read_frames("".join(frames_table(run.trace)).encode()).trace
    stored = unpacked(packed(run.trace))
    for other in (again, stored):
        assert other.count == run.trace.count
        assert other.frame_ms == pytest.approx(run.trace.frame_ms, rel=1e-5)
        assert other.start_s == pytest.approx(run.trace.start_s, abs=2e-3)
        assert other.channels["watts"] == pytest.approx(run.trace.channels["watts"], rel=1e-5)


def test_by_hand_has_its_honest_width_and_nonsense_is_refused(client, workshop):
    answer = client.post(
        "/measured/hand",
        data=base(workshop, low="59", high="65", limits="graphics", noise="34,5"),
        follow_redirects=False,
    )
    own = open_run(workshop, int(answer.headers["location"].rsplit("/", 1)[1]))
    assert own.measured.fps == pytest.approx((59 * 65) ** 0.5) and own.measured.ln_sd >= 0.03
    assert own.run.by_hand.noise_dba == 34.5
    for typed, said in (
        ({"low": "70", "high": "60"}, "above the most"),
        ({"low": "fast"}, "enter a number"),
        ({}, "Nothing was noted"),
        ({"locked": "0"}, "enter 1 or more"),
    ):
        answer = client.post("/measured/hand", data=base(workshop, **typed))
        assert answer.status_code == 422 and said in answer.text
    assert len(all_runs(workshop)) == 1


def test_a_run_becomes_evidence_with_a_preview_and_lets_go_again(client, workshop):
    run_id = int(bring(client, workshop, csv_of(75)).headers["location"].rsplit("/", 1)[1])
    would = effect(workshop, open_run(workshop, run_id))
    assert would.changes[0].brief_id == 1
    before = workshop.catalogue().results["hollow-meridian"]
    taken = client.post(f"/measured/{run_id}/evidence", data={"version": "1"})
    assert "counts as evidence now" in taken.text
    own = open_run(workshop, run_id)
    after = workshop.catalogue().results["hollow-meridian"]
    assert own.run.result == f"m{run_id}" and len(after.items) == len(before.items) + 1
    assert after.items[-1].own and after.items[-1].average_fps == pytest.approx(75, rel=0.01)
    frames = client.get("/briefs/1/frames").text
    low, high = would.changes[0].after.split(" to ")
    assert f"{low}–{high}" in frames
    stale = client.post(f"/measured/{run_id}/leave", data={"version": "1"})
    assert stale.status_code == 422 and "another tab" in stale.text
    assert workshop.catalogue().results["hollow-meridian"] == after
    client.post(f"/measured/{run_id}/undo", data={"version": "2"})
    assert workshop.catalogue().results["hollow-meridian"] == before
    client.post(f"/measured/{run_id}/undo", data={"version": "3"})
    again = workshop.catalogue().results["hollow-meridian"].items[-1]
    assert again.id == f"m{run_id}" and again.average_fps == pytest.approx(75, rel=0.01)
    client.post(f"/measured/{run_id}/mute", data={"version": "4"})
    assert workshop.catalogue().results["hollow-meridian"] == before
    assert open_run(workshop, run_id).run.muted
    gone = client.post(f"/measured/{run_id}/remove", data={"version": "6"})
    assert "taken out" in gone.text and all_runs(workshop) == ()
    back = client.post(f"/measured/{run_id}/undo", data={"version": "7"})
    assert back.status_code == 200 and len(all_runs(workshop)) == 1


@pytest.mark.parametrize(
    ("more", "said"),
    [({"scene": "menu"}, "A menu says nothing"), ({"generated": "on"}, "Generated frames")],
)
def test_menus_and_generated_frames_are_no_evidence(client, workshop, more, said):
    answer = bring(client, workshop, csv_of(75), **more)
    page = client.get(f"{answer.headers['location']}/would").text
    assert said in page and "Take it as evidence" not in page


def test_a_capped_run_is_no_verdict_and_no_evidence(client, workshop):
    run_id = recorded(workshop, scenario="cap")
    assert "held back: no verdict" in client.get(f"/measured/{run_id}").text
    assert "measure again without it" in client.get(f"/measured/{run_id}/would").text
    assert "1 held back by a cap or the display" in client.get("/briefs/1/measured").text


def test_trimming_works_the_figures_out_again(client, workshop):
    run_id = recorded(workshop, scenario="menu in between")
    own = open_run(workshop, run_id)
    (menu,) = own.report.happenings
    start = menu.stretches[0][0]
    done = client.post(
        f"/measured/{run_id}",
        data={"version": "1", "scene": "play", "from_s": "0", "to_s": f"{start - 0.5:.1f}"},
    )
    assert done.status_code == 200
    trimmed = open_run(workshop, run_id)
    assert trimmed.report.happenings == ()
    assert trimmed.measured.fps < own.measured.fps
    assert trace_of(workshop, run_id).seconds == pytest.approx(30, abs=0.1)
    short = client.post(f"/measured/{run_id}", data={"version": "2", "from_s": "1", "to_s": "2"})
    assert short.status_code == 422 and "too short" in short.text


@pytest.mark.whole_demo
def test_shown_frames_are_held_against_a_target_that_asks_for_them_alone(client, workshop):
    """The same machine with and without generation: the shown rate meets a target of shown frames,
    stands beside the rate before generation, and is no evidence of true frames.
    """
    recorded(workshop)
    fields = {"size": "2560x1440", "preset": "high", "scale": "67", "fps": "110"}
    fields |= {"measure": "average", "cap_fps": "", "weight": "3", "generated": "on"}
    version = str(workshop.open(1).version)
    done = client.post("/briefs/1/targets/t1", data=fields | {"version": version})
    assert done.status_code == 200 and workshop.open(1).plan.brief.targets[0].generated
    rows = client.get("/briefs/1/frames").text
    assert "fps shown" in rows and "drawn before generation, which adds" in rows
    assert "1 at other settings" in client.get("/briefs/1/measured").text
    shown = open_run(workshop, recorded(workshop, 1))
    plain = next(own for own in all_runs(workshop) if own.id != shown.id)
    assert shown.run.generated and shown.promised.generated
    assert 1.6 * plain.measured.fps < shown.measured.fps < 2 * plain.measured.fps
    assert shown.report.limits.evidence == plain.report.limits.evidence
    view = client.get("/briefs/1/measured").text
    assert "after 1 run; within what is promised" in view and "110\u202ffps shown" in view
    assert "Generated frames" in client.get(f"/measured/{shown.id}/would").text
    assert "one of two generated" in client.get(f"/measured/{shown.id}").text
    assert "Over 1 run" in client.get("/measured").text


def test_single_options_set_lower_belong_to_a_run(client, workshop):
    """Promised and held against with them; as evidence the rate is that of the plain preset."""
    fields = {"size": "2560x1440", "preset": "high", "scale": "67", "fps": "70", "weight": "3"}
    fields |= {"measure": "average", "cap_fps": "", "lower:distant fields": "on"}
    version = str(workshop.open(1).version)
    client.post("/briefs/1/targets/t1", data=fields | {"version": version})
    assert workshop.open(1).plan.brief.targets[0].lowered == ("distant fields",)
    lower = open_run(workshop, recorded(workshop))
    assert lower.run.lowered == ("distant fields",)
    assert result_of(workshop, lower).average_fps < 0.99 * lower.measured.fps
    assert "after 1 run" in client.get("/briefs/1/measured").text
    assert "lower distant fields" in client.get(f"/measured/{lower.id}").text
    other = {"version": str(workshop.open(1).version)} | fields
    client.post("/briefs/1/targets/t1", data={k: v for k, v in other.items() if ":" not in k})
    assert "1 at other settings" in client.get("/briefs/1/measured").text


def test_runs_of_other_settings_and_of_parts_that_changed_do_not_count(client, workshop):
    bring(
        client,
        workshop,
        csv_of(62),
        target="",
        game="hollow-meridian",
        size="1920x1080",
        preset="high",
    )
    assert "1 at other settings" in client.get("/briefs/1/measured").text
    bring(client, workshop, csv_of(62))
    opened = workshop.open(1)
    other = next(
        part.id
        for part in workshop.catalogue().by_kind["graphics"]
        if part.id != opened.plan.build.graphics
        and machine_keys(workshop.catalogue(), opened.plan)[1] not in part.id
        and part.chip != workshop.catalogue().parts[opened.plan.build.graphics].chip
    )

    def swap(plan):
        return replace(plan, build=plan.build.with_part("graphics", other)), "another card"

    workshop.change(1, opened.version, swap)
    assert "on other parts than the build has now" in client.get("/briefs/1/measured").text


LIVING_ROOM = {
    "brief": "0",
    "target": "",
    "machine": "living room",
    "chip": "Quillon Ketch Flood 8",
    "card": "nacre bank 12 gb",
    "game": "Hollow Meridian",
    "size": "2560x1440",
    "preset": "high",
}


def test_a_machine_in_no_brief_is_measured_promised_and_teaches(client, workshop):
    answer = bring(client, workshop, csv_of(64), **LIVING_ROOM)
    assert answer.status_code == 303, answer.text
    page = client.get(answer.headers["location"]).text
    assert "living room" in page and "Promised were" in page
    (own,) = all_runs(workshop)
    assert (own.run.brief_id, own.run.graphics) == (0, "nacre-bank@12") and own.promised
    assert own.run.processor in workshop.catalogue().parts
    assert result_of(workshop, own).average_fps == pytest.approx(own.measured.fps)
    would = client.get(f"{answer.headers['location']}/would").text
    assert "Net loft all-rounder" in would
    taken = client.post(f"/measured/{own.id}/evidence", data={"version": "1"})
    assert "counts as evidence now" in taken.text
    again = client.get("/measured/new?other=on&machine=living+room").text
    assert 'value="Quillon Ketch Flood 8' in again and 'value="Nacre Bank 12 GB"' in again
    assert client.get("/measured/new?brief=1").text.count("living room") == 1
    assert "living room" in client.get("/measured").text


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({"machine": " "}, "has no name"),
        ({"chip": ""}, "has no processor"),
        ({"chip": "No Such Chip"}, "No Such Chip"),
        ({"card": "No Such Card"}, "No Such Card"),
        ({"card": "nacre reef"}, "more than one graphics chip: choose Nacre Reef"),
        ({"card": "", "chip": "draws nothing"}, "draws nothing by itself"),
    ],
)
def test_a_machine_that_is_not_known_is_refused_with_what_was_typed(client, workshop, typed, said):
    if typed.get("chip") == "draws nothing":
        chips = workshop.catalogue().by_kind["processor"]
        typed = {**typed, "chip": next(own.name for own in chips if not own.draws)}
    answer = bring(client, workshop, csv_of(64), **{**LIVING_ROOM, **typed})
    assert answer.status_code == 422 and said in answer.text
    assert 'value="Hollow Meridian"' in answer.text and all_runs(workshop) == ()


def test_before_and_after_on_the_tuning_bench(client, workshop):
    shipped = [recorded(workshop, seed, said=CARD) for seed in (1, 2)]
    tuned = [
        recorded(workshop, seed, clock=1.08, power=0.9, said={**CARD, "setup": "tuned"})
        for seed in (3, 4)
    ]
    page = squeezed(
        client.get(
            f"/measured/difference?before={shipped[0]},{shipped[1]}&after={tuned[0]},{tuned[1]}"
        ).text
    )
    assert "sure that it is faster" in page and "energy a frame" in page
    wrong = client.get(f"/measured/difference?before={shipped[0]}&after=").text
    assert "at least one run before and one after" in wrong
    bench = squeezed(client.get("/measured/bench/1").text)
    assert "as shipped" in bench and "tuned" in bench and "note as" in bench
    attempt = bench.split('name="attempt"')[1].split('value="')[1].split('"')[0]
    version = str(workshop.open(1).version)
    noted = client.post("/measured/bench/1", data={"version": version, "attempt": attempt})
    assert "Every estimate of this build counts it" in noted.text
    (own,) = workshop.open(1).plan.build.tuned
    assert own.gain == pytest.approx(0.08, abs=0.03) and own.power < 1
    before = client.get("/briefs/1/frames").text
    part = {"version": str(workshop.open(1).version), "part": own.part}
    assert "as shipped again" in client.post("/measured/bench/1", data=part).text
    assert client.get("/briefs/1/frames").text != before and not workshop.open(1).plan.build.tuned


def test_memory_is_noted_as_it_is_set_and_evidence_is_reduced_to_rated_memory(client, workshop):
    """Thousand Towers waits for the processor: with quicker memory it runs faster. Noted, the
    promise counts it; as evidence the run says of the processor what it says without.
    """
    said = {"target": target_of(workshop, "thousand-towers").id}
    quick = {**said, "setup": "memory 8000 CL22"}
    for seed in (1, 2):
        recorded(workshop, seed, said=said)
        recorded(workshop, seed, said=quick)
    bench = squeezed(client.get("/measured/bench/1").text)
    assert "note the memory at 8,000\u202fMT/s CL22" in bench and "Memory as it is" in bench
    place = re.search(r'id="memory-(\d+)"', bench)[1]
    version = str(workshop.open(1).version)
    fields = {"version": version, "memory": "on"}
    noted = client.post("/measured/bench/1", data={**fields, "attempt": place}).text
    assert "% measured, +" in noted and "by the model" in noted
    assert "sold as" in noted and "MT/s CL22" in noted
    (own,) = workshop.open(1).plan.build.tuned
    assert (own.mts, own.cl, len(own.beside)) == (8000, 22, 2)
    assert 'value="memory 8000 CL22"' in client.get("/measured/new?brief=1").text
    view = client.get("/briefs/1/measured").text
    assert "after 2 runs" in view and "2 set otherwise than the build is now" in view
    later = open_run(workshop, recorded(workshop, 1, said=quick))
    plain = [each for each in all_runs(workshop) if not each.run.setup][-1]
    assert later.promised.average_fps > 1.03 * plain.promised.average_fps
    as_measured, reduced = (result_of(workshop, each).average_fps for each in (plain, later))
    assert later.measured.fps > 1.04 * plain.measured.fps
    assert reduced == pytest.approx(as_measured, rel=0.03)
    assert effect(workshop, later).cautions == ()
    version = str(workshop.open(1).version)
    typed = {"version": version, "memory": "on", "mts": "6000", "cl": "300"}
    refused = client.post("/measured/bench/1", data=typed)
    assert refused.status_code == 422 and "which no memory does" in refused.text
    assert 'value="300"' in refused.text
    done = client.post("/measured/bench/1", data={**typed, "cl": "30"})
    assert "memory at 6,000\u202fMT/s CL30" in done.text
    assert workshop.open(1).plan.build.tuned[0].setup == "memory 6000 CL30"
    assert 'value="memory 6000 CL30"' in client.get("/measured/new?brief=1").text
    assert "as it is set now" in client.get("/briefs/1/measured").text
    back = client.post(
        "/measured/bench/1",
        data={"version": str(workshop.open(1).version), "part": own.part},
    )
    assert "as shipped again" in back.text and workshop.open(1).plan.build.tuned == ()


def test_programs_send_frames_read_runs_and_let_them_count(client, workshop):
    times = 16.0 * np.exp(np.random.default_rng(1).normal(0, 0.05, 800))
    sent = {"brief": 1, "target": target_of(workshop).id, "frame_ms": times.tolist()}
    run = client.post("/api/v1/runs", json=sent)
    assert run.status_code == 201, run.text
    whole = run.json()
    assert whole["measured"]["fps"] == pytest.approx(1000 / times.mean(), abs=0.01)
    assert whole["promised"]["average_fps"] > 0 and whole["report"]["summary"]["frames"] == 800
    (listed,) = client.get("/api/v1/runs", params={"brief": 1}).json()
    assert listed["id"] == whole["id"] and "report" not in listed
    assert client.get("/api/v1/runs", params={"brief": 2}).json() == []
    path = f"/api/v1/runs/{whole['id']}/evidence"
    assert client.post(path, params={"version": 1}).status_code == 200
    assert client.post(path, params={"version": 1}).status_code == 409
    assert client.get(f"/api/v1/runs/{whole['id']}").json()["run"]["result"] == "m1"
    assert client.post(path, params={"version": 2, "counts": False}).status_code == 200
    for wrong, said in (
        ({"frame_ms": [16.0, 0.0]}, "Frame 2 takes 0 ms"),
        ({"frame_ms": [16.0] * 20}, "too few"),
        ({"target": "t99"}, "no longer in the brief"),
        ({"brief": 99}, "no such brief"),
    ):
        refused = client.post("/api/v1/runs", json={**sent, **wrong})
        assert refused.status_code in (404, 422) and said in refused.text, refused.text
    assert len(all_runs(workshop)) == 1


def test_a_run_and_its_evidence_are_one_change(client, workshop, monkeypatch):
    """Where the run cannot be written the results of its game stay as they were."""
    run_id = int(bring(client, workshop, csv_of(75)).headers["location"].rsplit("/", 1)[1])
    before = workshop.catalogue().results["hollow-meridian"]

    def full(*_args, **_more):
        raise StorageError("the disk is full")

    with monkeypatch.context() as patched:
        patched.setattr("wattmetron.places.measured.run_library.store.change", full)
        with pytest.raises(StorageError):
            take_as_evidence(workshop, run_id, 1)
    assert workshop.catalogue().results["hollow-meridian"] == before
    assert take_as_evidence(workshop, run_id, 1)
    assert workshop.catalogue().results["hollow-meridian"] != before


def test_what_is_read_by_hand_counts_with_what_it_knows(client, workshop):
    """A locked rate bounds from below, the game's own read-out says which side is ahead."""
    said = base(workshop, locked="60", limits="graphics")
    where = client.post("/measured/hand", data=said, follow_redirects=False).headers["location"]
    own = open_run(workshop, int(where.rsplit("/", 1)[1]))
    result = result_of(workshop, own)
    assert (result.at_least, result.side_ratio_is) == (True, "at most")
    assert 55 < result.average_fps < 65 and 0.8 < result.side_ratio < 1.25
    would = client.get(f"{where}/would").text
    assert "It says: at least 6" in would and "the graphics take longer for a frame" in would
    range_of = base(workshop, low="59", high="65", limits="alternating")
    where = client.post("/measured/hand", data=range_of, follow_redirects=False).headers["location"]
    result = result_of(workshop, open_run(workshop, int(where.rsplit("/", 1)[1])))
    assert (result.at_least, result.side_ratio_is, result.side_ratio_sd) == (False, "about", 0.1)


def test_a_run_says_how_the_sides_stand_and_upscaling_is_taken_out(client, workshop):
    """Vantage Null is upscaled: as evidence its rate is that of frames drawn in full."""
    plain = open_run(workshop, recorded(workshop, said=CARD))
    ratio = result_of(workshop, plain).side_ratio
    levels = plain.report.levels
    assert ratio == pytest.approx(
        levels["processor_ms"].median / levels["graphics_ms"].median, rel=0.05
    )
    assert ratio < 0.9 and plain.report.limits.side == "graphics"
    said = {"target": target_of(workshop, "vantage-null").id}
    upscaled = open_run(workshop, recorded(workshop, said=said))
    result = result_of(workshop, upscaled)
    assert upscaled.run.upscaling and result.average_fps < 0.9 * upscaled.measured.fps
    assert result.ln_sd > 0.04 and result.side_ratio < 1


def test_a_recording_is_listened_to_stopped_and_kept(workshop):
    meters = MeterServer().start()
    run = run_from(workshop, workshop.catalogue(), read(RunForm, base(workshop)))
    recorder = Recorder()
    more = {"pace": "0", "scenario": "hitches"}
    addresses = (asked_at(meters.url, what, run, 20, more) for what in ("frames", "watts"))
    recorder.start(run, *addresses).join(20)
    live = recorder.live
    assert not live.running and not live.wrong and live.seconds == pytest.approx(20, abs=0.3)
    count, rows = recorder.since(live.frames - 10)
    assert count == live.frames and rows.shape == (10, 2)
    _, trace = recorder.recorded()
    assert np.isfinite(trace.channels["watts"]).mean() > 0.9
    recorder.discard()
    recorder.start(
        run, asked_at(meters.url, "frames", run, 20, {"pace": "0", "fault": "hang up"})
    ).join(20)
    assert "broke off" in recorder.live.wrong and recorder.recorded()[1].count > 100
    recorder.discard()
    recorder.start(run, "http://127.0.0.1:1/frames").join(20)
    assert "is it started" in recorder.live.wrong
    recorder.discard()
    recorder.start(run, f"{meters.url}/frames?game=nothing&processor=a&graphics=b").join(20)
    assert "not connected to this meter" in recorder.live.wrong
    meters.close()


def test_many_may_look_at_a_recording_while_it_goes_on(workshop):
    """Every look sees frames in their order, none twice, whatever comes in meanwhile."""
    run = run_from(workshop, workshop.catalogue(), read(RunForm, base(workshop)))

    def lines(*_):
        yield {"protocol": PROTOCOL, "kind": "frames", "columns": ["start_s", "frame_ms"]}
        for n in range(3000):
            yield {"rows": [[(n * 4 + m) / 500, 2.0] for m in range(4)]}
        yield {"end": "over"}

    recorder = Recorder(lines)

    def look(_):
        seen, at = 0, []
        while recorder.live.running or seen < recorder.live.frames:
            total, rows = recorder.since(seen)
            at += rows[:, 0].tolist()
            recorder.now()
            seen = total
        return at

    thread = recorder.start(run, "frames")
    with ThreadPoolExecutor(8) as pool:
        looks = list(pool.map(look, range(8)))
    thread.join(10)
    for at in looks:
        assert at == sorted(set(at)) and at[-1] == pytest.approx(11999 / 500)
    with pytest.raises(NotPossibleError, match="recorded already"):
        recorder.start(run, "frames")


HEAD = {"protocol": PROTOCOL, "kind": "frames", "columns": ["start_s", "frame_ms"]}


@pytest.mark.parametrize(
    ("lines", "said"),
    [
        ([{"protocol": "other/2", "columns": []}], "does not speak the protocol"),
        ([{"protocol": "wattmetron-meter/1", "kind": "frames", "columns": ["x"]}], "does not tell"),
        ([HEAD, {"rows": [["a", 1]]}], "no number"),
        ([HEAD, {"rows": [[1, 2, 3]]}], "more or less"),
        ([HEAD, {"rows": [[1, 2]]}, HEAD], "says anew"),
        ([{**HEAD, "columns": ["start_s", "frame_ms", "frame_ms"]}], "the same thing twice"),
        ([{**HEAD, "columns": ["start_s", "frame_ms", *map(str, range(50_000))]}], "more than 200"),
        ([{**HEAD, "columns": ["at_s", "watts"], "kind": "watts"}], "does not tell"),
    ],
)
def test_meters_that_tell_nonsense_are_named(workshop, lines, said):
    run = run_from(workshop, workshop.catalogue(), read(RunForm, base(workshop)))
    recorder = Recorder(lambda *_: iter(lines))
    recorder.start(run, "x").join(10)
    assert said in recorder.live.wrong


@pytest.mark.parametrize(
    "odd", [[float("nan"), 16.0], [0.5, float("nan")], [-1000.0, 16.0], [float("inf"), 16.0]]
)
def test_a_recording_with_odd_times_is_kept(client, workshop, odd):
    """Clocks that run backwards or stand nowhere: the frames that are known make the run."""
    run = run_from(workshop, workshop.catalogue(), read(RunForm, base(workshop)))
    rows = [[n / 60, 16.0 + n % 3] for n in range(3000)]
    rows[7] = odd
    recorder = client.app.state.recorder = Recorder(
        lambda *_: iter([HEAD, {"rows": rows}, {"end": "over"}])
    )
    recorder.start(run, "x").join(10)
    kept = client.post("/measured/live/keep", follow_redirects=False)
    assert kept.status_code == 303, kept.text
    assert "fps on average" in client.get(kept.headers["location"]).text


@pytest.mark.parametrize("blanks", ["\u00a0\n" * 50, "\u2028" * 90, "\v\f" * 40, "\u3000\n"])
def test_a_file_of_odd_blanks_is_told_to_be_empty(client, workshop, blanks):
    answer = client.post(
        "/measured/import",
        data=base(workshop),
        files={"file": ("run.csv", blanks.encode())},
    )
    assert answer.status_code == 422 and "empty" in answer.text


def test_kept_too_early_a_recording_goes_on(client, workshop):
    """Who is quicker than the first frame loses nothing and is shown the way back."""
    run = run_from(workshop, workshop.catalogue(), read(RunForm, base(workshop)))
    gate = Event()

    def lines(*_):
        yield {"protocol": PROTOCOL, "kind": "frames", "columns": ["start_s", "frame_ms"]}
        gate.wait(20)
        for n in range(3000):
            yield {"rows": [[n / 100, 10.0 + n % 3]]}
        yield {"end": "over"}

    recorder = client.app.state.recorder = Recorder(lines)
    thread = recorder.start(run, "x")
    early = client.post("/measured/live/keep")
    assert early.status_code == 422 and "No frames have come yet" in early.text
    assert recorder.live.running
    assert 'href="/measured/live"' in client.get("/measured/new?brief=1").text
    gate.set()
    thread.join(20)
    kept = client.post("/measured/live/keep", follow_redirects=False)
    assert kept.status_code == 303 and recorder.live.run is None
    assert "fps on average" in client.get(kept.headers["location"]).text


def test_pages_of_measured_stand_empty_and_unknown_runs_are_said(client):
    assert "Nothing was measured yet" in client.get("/measured").text
    assert "Nothing was measured yet" in client.get("/measured/difference").text
    assert client.get("/measured/new?brief=1").status_code == 200
    assert client.get("/measured/99").status_code == 404
    assert client.get("/measured/live", follow_redirects=False).status_code == 303
    assert client.post("/measured/live/keep").status_code == 409
    assert client.get("/measured/99/frames.csv").status_code in (404, 409, 422)
