"""A machine is measured: recorded from meters, held against its promise, taken as evidence, tuned,
measured again.
"""

import re

import pytest
from playwright.sync_api import expect

from wattmetron.demo.simulated_meters import MeterServer
from wattmetron.demo.simulated_run import SCENARIOS


@pytest.fixture
def meters(site):
    running = MeterServer(pace=6).start()
    site.server.app.state.meters = running.url, SCENARIOS
    yield running
    running.close()


def record(
    desk, page, game, scenario="clean", setup="", clock="", power="", seed="1", seconds="15"
):
    """Record a run of the first brief's machine and keep it."""
    desk.open("/measured/new?brief=1")
    option = page.locator("#run-target option", has_text=game).first.get_attribute("value")
    page.locator("#run-target").select_option(option)
    page.locator("#run-setup").fill(setup)
    page.locator("#seconds").fill(seconds)
    page.get_by_text("The simulated meters").click()
    page.locator("#scenario").select_option(scenario)
    page.locator("#clock").fill(clock)
    page.locator("#power").fill(power)
    page.locator("#seed").fill(seed)
    page.locator("#start").click()
    expect(page.locator("h1")).to_have_text("Recording")
    expect(page.locator("[data-live-frames]")).not_to_have_text("0")
    expect(page.locator("#stop")).to_be_disabled()
    page.locator("#keep").click()
    expect(page.locator("#evidence")).to_be_visible()


def test_two_runs_are_recorded_and_the_promise_that_failed_teaches(desk, page, meters):
    desk.open("/measured")
    expect(page.locator("main")).to_contain_text("Nothing was measured yet")
    desk.is_accessible()
    desk.open("/measured/new?brief=1")
    desk.is_accessible()
    record(desk, page, "Gullwing Circuit")
    expect(page.locator("main h2").first).to_contain_text("fps on average")
    expect(page.locator("main")).to_contain_text("Promised were")
    desk.is_accessible()
    record(desk, page, "Gullwing Circuit", "throttling", seconds="40")
    expect(page.locator(".plainlist")).to_contain_text("below the clock")
    expect(page.locator("#evidence")).to_contain_text("trim it, or the machine looks slower")
    desk.open("/briefs/1/measured")
    expect(page.locator("#measured h2")).to_contain_text("measured target")
    desk.is_accessible()
    page.get_by_role("link", name=re.compile("Run 1 of Gullwing")).click()
    expect(page.locator("#take")).to_be_visible()
    before = page.locator("#evidence td[data-name='now']").first.inner_text()
    then = page.locator("#evidence td[data-name='then']").first.inner_text()
    assert before != then
    page.keyboard.press("a")
    expect(page.get_by_role("status").first).to_contain_text("counts as evidence now")
    page.get_by_role("link", name="What would be proposed now").click()
    expect(page.locator("#adopt")).to_be_visible()
    desk.open("/briefs/1/frames")
    row = page.locator(".framerow", has_text="Gullwing Circuit")
    expect(row).to_contain_text(then.replace(" to ", "–"))
    expect(row.get_by_text("on the display")).to_be_visible()
    desk.open("/measured")
    expect(page.locator("#honesty")).to_contain_text("Over 2 runs")
    desk.is_accessible()


def test_tuned_and_measured_again_it_says_whether_it_was_worth_the_watts(desk, page, meters):
    record(desk, page, "Gullwing Circuit", seed="1")
    record(
        desk, page, "Gullwing Circuit", setup="higher clocks", clock="1.12", power="1.3", seed="2"
    )
    desk.open("/measured/difference")
    page.get_by_label("Run 1 before").check()
    page.get_by_label("Run 2 after").check()
    page.locator("#compare").click()
    expect(page.locator("#difference h2")).to_contain_text("sure that it is faster")
    expect(page.locator("#difference")).to_contain_text("energy a frame")
    desk.is_accessible()
    desk.open("/measured/bench/1")
    expect(page.locator("main")).to_contain_text("higher clocks")
    desk.is_accessible()
    page.get_by_role("button", name="Note higher clocks as this machine's own figures").click()
    expect(page.locator("#own")).to_contain_text("speed")
    page.get_by_role("button", name=re.compile("as shipped again")).click()
    expect(page.locator("#own")).to_have_count(0)


@pytest.mark.essential
def test_files_and_readings_by_hand_on_a_phone(desk, page, meters, tmp_path):
    page.set_viewport_size({"width": 390, "height": 844})
    file = tmp_path / "run.csv"
    file.write_text("a;b\n" + "\n".join(f"{n};{15 + n % 5},25" for n in range(500)))
    desk.open("/measured/new?brief=1")
    page.locator("#file").set_input_files(str(file))
    page.locator("#bring").click()
    expect(page.locator("#error")).to_contain_text("No column reads as frame times")
    desk.is_accessible()
    page.locator("select[name='column-0']").select_option("leave out")
    page.locator("select[name='column-1']").select_option("frame time")
    page.locator("#say-columns").click()
    expect(page.locator("#evidence")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    desk.open("/measured/new?brief=1")
    page.locator("#low").fill("59")
    page.locator("#high").fill("65")
    page.locator("#note").click()
    expect(page.locator("main h2").first).to_contain_text("Read by hand: 61.9")
    page.get_by_text("Trim, label, leave out").click()
    page.locator("#remove").click()
    expect(page.get_by_role("status").first).to_contain_text("taken out")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("status").first).to_contain_text("taken back")
