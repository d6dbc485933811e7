"""Speed of measured runs: a file of a million frames, its page, the live page, a game with many
runs.
"""

import statistics
import tempfile
import time
from pathlib import Path
from urllib.request import urlopen

import numpy as np
from playwright.sync_api import sync_playwright
from tools.world.truth import World, known_game

from tests.accuracy.run import _pair
from tests.e2e.conftest import FLAGS, chromium
from tests.site import Site
from wattmetron.core.game_fit.calibration import fit_game
from wattmetron.places.measured.importing import bring_in, frames_in
from wattmetron.places.measured.pages.forms import RunForm, run_from
from wattmetron.places.measured.recorder import PROTOCOL
from wattmetron.places.measured.run_library import promise_of
from wattmetron.shell.forms import read

FRAMES, RATE = 1_000_000, 500


def table() -> bytes:
    source = np.random.default_rng(1)
    ms = 8 * np.exp(source.normal(0, 0.1, FRAMES))
    start = np.concatenate([[0], np.cumsum(ms)[:-1] / 1000])
    rows = "\n".join(f"{a:.5f},{b:.4f}" for a, b in zip(start, ms, strict=True))
    return f"time (s),frame time (ms)\n{rows}\n".encode()


def as_they_come(seconds: float):
    """Lines of a logger at 500 frames a second, as they would come."""
    yield {"protocol": PROTOCOL, "kind": "frames", "columns": ["start_s", "frame_ms"]}
    begin, at = time.monotonic(), 0.0
    while at < seconds:
        rows = [[at + n / RATE, 2.0 + 0.3 * (n % 7)] for n in range(RATE // 10)]
        at += 0.1
        time.sleep(max(0.0, begin + at - time.monotonic()))
        yield {"rows": rows}
    yield {"end": "over"}


def runs() -> None:
    print("\nmeasured runs")
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as play:
        site = Site(Path(folder) / "bench.sqlite")
        workshop = site.workshop
        target = workshop.open(1).plan.brief.targets[0]
        form = read(RunForm, {"brief": "1", "target": target.id})
        run = run_from(workshop, workshop.catalogue(), form)
        promise_of(workshop, workshop.catalogue(), run)
        data = table()
        begin = time.perf_counter()
        found = frames_in(workshop, data)
        read_s = time.perf_counter() - begin
        (run_id,) = bring_in(workshop, run, [found.trace])
        whole_s = time.perf_counter() - begin
        browser = play.chromium.launch(executable_path=chromium(), args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        served = _median(lambda: urlopen(f"{site.url}/measured/{run_id}").read())
        shown = [
            _median(lambda to=to: page.goto(f"{site.url}{to}", wait_until="domcontentloaded"))
            for to in (f"/measured/{run_id}", "/briefs/letter")
        ]
        print(
            f"CSV of {FRAMES:,} frames: read {read_s:.2f} s, taken in {whole_s:.2f} s; its page"
            f" {1000 * served:.0f} ms at the server, in Chromium {shown[0] / shown[1]:.1f} x a page"
            " that computes nothing"
        )
        _live(site, page, run)
        browser.close()
        site.stop()
    _refit()


def _median(work) -> float:
    """Seconds, the first time left aside."""
    work()
    took = []
    for _ in range(7):
        begin = time.perf_counter()
        work()
        took.append(time.perf_counter() - begin)
    return statistics.median(took)


def _live(site: Site, page, run) -> None:
    recorder = site.app.state.recorder
    recorder._lines = lambda _: as_they_come(14)
    recorder.start(run, "frames")
    page.goto(f"{site.url}/measured/live")
    page.wait_for_timeout(3000)
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable")

    def busy() -> float:
        metrics = session.send("Performance.getMetrics")["metrics"]
        return next(own["value"] for own in metrics if own["name"] == "TaskDuration")

    begin, first = time.perf_counter(), busy()
    page.wait_for_timeout(8000)
    work = (busy() - first) / (time.perf_counter() - begin)
    frames = recorder.live.frames
    print(
        f"live page at {RATE} frames a second: {1000 * work:.0f} ms of work a second,"
        f" {frames} frames"
    )
    recorder.discard()


def _refit() -> None:
    world = World(5, 3)
    took = []
    for true in world.games:
        pairs = [
            _pair(world, world.result(true, *world.question(), n, own=True)) for n in range(200)
        ]
        begin = time.perf_counter()
        fit_game(known_game(true), (), pairs)
        took.append(time.perf_counter() - begin)
    print(f"fit of a game with 200 runs: {1000 * statistics.median(took):.0f} ms")


if __name__ == "__main__":
    runs()
