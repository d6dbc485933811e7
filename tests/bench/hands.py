"""Many hands: several clients at once, memory over many questions, a short page behind long ones,
and what two everyday requests touch.
"""

import contextlib
import re
import socket
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from pathlib import Path
from urllib.error import URLError
from urllib.request import urlopen

import psutil
from fastapi.testclient import TestClient

from tests.bench.questions import question, timed
from wattmetron.api.app import make_app
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.workshop.workshop import Workshop

QUESTIONS = 200
CLIENTS = 8
CROWD = 20
SHORT = "/parts/import"
"""A page that computes nothing."""


class Asked:
    """A database of 2,000 parts with as many briefs as questions, each with a budget and an amount
    of memory of its own.
    """

    def __init__(self, folder: str) -> None:
        self.path = Path(folder) / "hands.sqlite"
        catalogue, brief = question(0, 250)
        workshop = Workshop(self.path)
        workshop.import_catalogue(catalogue, "2,000 parts")
        for n in range(QUESTIONS):
            made = workshop.new_brief()
            own = replace(
                brief, memory_gb=8.0 + n / 8, budget_high_minor=brief.budget_high_minor + 100 * n
            )
            opened = workshop.open(made)
            workshop.change(
                made, opened.version, lambda plan, own=own: (replace(plan, brief=own), "")
            )
        workshop.close()
        self.pages = [f"/briefs/{n + 1}/balance" for n in range(QUESTIONS)]

    @contextlib.contextmanager
    def server(self):
        """A process of its own, cold."""
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            port = probe.getsockname()[1]
        command = [sys.executable, "-m", "wattmetron.cli", "serve", "--port", str(port)]
        process = subprocess.Popen(
            [*command, "--database", str(self.path)], stdout=subprocess.DEVNULL
        )
        url = f"http://127.0.0.1:{port}"
        for _ in range(200):
            try:
                urlopen(url + SHORT).read()
                break
            except URLError:
                time.sleep(0.1)
        yield url, psutil.Process(process.pid)
        process.terminate()
        process.wait()


def fetch(address: str) -> bytes:
    return urlopen(address).read()


def resident_mb(process: psutil.Process) -> tuple[float, float]:
    """Of the process that serves pages, and of all together."""
    shares = [
        own.memory_full_info().pss / 1e6 for own in (process, *process.children(recursive=True))
    ]
    return process.memory_info().rss / 1e6, sum(shares)


def memory_of_many_questions():
    with tempfile.TemporaryDirectory() as folder:
        asked = Asked(folder)
        with asked.server() as (url, process):
            before = resident_mb(process)
            for page in asked.pages:
                fetch(url + page)
            after = resident_mb(process)
    print(
        f"\n{QUESTIONS} Balance questions at 2,000 parts: resident {before[0]:.0f}, then"
        f" {after[0]:.0f} MB; with the workers, what they share counted once, {before[1]:.0f}, then"
        f" {after[1]:.0f} MB"
    )


def several_at_once():
    with tempfile.TemporaryDirectory() as folder:
        asked = Asked(folder)
        pages = asked.pages[: 4 * CLIENTS]
        with asked.server() as (url, _):
            alone, one_by_one = timed(lambda: [fetch(url + page) for page in pages])
        with asked.server() as (url, _), ThreadPoolExecutor(CLIENTS) as pool:
            together, at_once = timed(lambda: list(pool.map(lambda page: fetch(url + page), pages)))
        assert at_once == one_by_one
        print(
            f"\n{len(pages)} cold Balance pages, one after the other {alone:.1f} s, {CLIENTS}"
            " clients"
            f" at once {together:.1f} s: {alone / together:.2f} x, the same answers"
        )
        with asked.server() as (url, _), ThreadPoolExecutor(CROWD) as pool:
            idle = [timed(fetch, url + SHORT)[0] for _ in range(40)]
            crowd = [pool.submit(fetch, url + page) for page in asked.pages[:CROWD]]
            behind = []
            while not all(own.done() for own in crowd):
                behind.append(timed(fetch, url + SHORT)[0])
        ratio = statistics.median(behind) / statistics.median(idle)
        print(
            f"a page that computes nothing: idle median {1000 * statistics.median(idle):.0f} ms;"
            f" while {CROWD} clients ask cold questions {1000 * statistics.median(behind):.0f} ms,"
            f" {ratio:.1f} x, longest {1000 * max(behind):.0f} ms ({len(behind)} looks)"
        )


class Calls:
    """Calls of our own functions, by file."""

    def __init__(self) -> None:
        self.of_file: Counter[str] = Counter()
        self._on = False
        threading.setprofile(self._seen)

    def _seen(self, frame, event, _):
        path = frame.f_code.co_filename
        if self._on and event == "call" and "/wattmetron/" in path:
            self.of_file[path.split("/wattmetron/")[-1]] += 1

    def say(self, name, work):
        self.of_file.clear()
        self._on = True
        work()
        self._on = False
        total = sum(self.of_file.values())
        print(f"{name}: {total:,} calls of our functions in {len(self.of_file)} files")


def calls():
    print("\nwhat two everyday requests touch, demo catalogue")
    counted = Calls()
    headers = {"HX-Request": "true", "origin": "http://127.0.0.1"}
    with tempfile.TemporaryDirectory() as folder:
        workshop = Workshop(Path(folder) / "calls.sqlite")
        workshop.load_demo(CATALOGUE, BRIEFS)
        client = TestClient(make_app(workshop), base_url="http://127.0.0.1")
        swap = client.get("/briefs/1/frames?swap=graphics").text
        preview = re.search(r'href="(/briefs/1/frames\?[^"]*try=[^"]*)"', swap)[1]
        preview = preview.replace("&amp;", "&")
        client.get(preview, headers=headers)
        counted.say("swap preview, again", lambda: client.get(preview, headers=headers))

        def edit(fps: int):
            opened = workshop.open(1)
            target = opened.plan.brief.targets[0]
            form = {
                "version": str(opened.version),
                "view": "brief",
                "scope": f"{target.id}:",
                "game": target.game_id,
                "fps": str(fps),
                "measure": target.measure,
                "size": f"{target.width_px}x{target.height_px}",
                "preset": target.preset,
                "scale": "67",
                "cap": "",
                "cap_fps": "",
                "weight": str(target.weight),
            }
            answer = client.post(f"/briefs/1/targets/{target.id}", data=form, headers=headers)
            assert answer.status_code == 200

        edit(71)
        counted.say("one target's frame rate edited", lambda: edit(72))
        workshop.close()
    threading.setprofile(None)


if __name__ == "__main__":
    calls()
    several_at_once()
    memory_of_many_questions()
