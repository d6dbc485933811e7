"""Speed of reading a list, reviewing it, comparing, and handing over."""

import random
import statistics
import tempfile
from dataclasses import replace
from pathlib import Path

from playwright.sync_api import sync_playwright

from tests.bench.questions import fresh, question, timed
from tests.e2e.conftest import FLAGS, chromium
from tests.site import Site
from tests.worlds import World
from wattmetron.cache.cache import Keeper
from wattmetron.core.search.proposal import propose
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.core.values.plan import Plan
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.formats.brief_file import read_brief, read_build
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.places.assessment.assess import assess
from wattmetron.places.compare.compare import compared
from wattmetron.places.handout.content import handout
from wattmetron.places.handout.texts import markdown
from wattmetron.places.review.improve import improved
from wattmetron.places.review.review import judged
from wattmetron.words.improvements import WAYS

TIMES = 10


def handing_over():
    print("\nlists, review, comparison, handout (ms; medians unless said)")
    _list()
    _review()
    _compared()
    _handout()


def _list():
    world = World(5).catalogue(per_kind=556, games=1)
    rng = random.Random(1)
    names = [part.name for part in rng.sample(list(world.parts.values()), 20)]
    text = "\n".join(f"{n}. {name} - {rng.randint(30, 900)}.00" for n, name in enumerate(names, 1))
    first = [timed(read_list, world.kept_by(Keeper()), text)[0] for _ in range(3)]
    kept = world.kept_by(Keeper())
    read_list(kept, text)
    again = [timed(read_list, kept, text)[0] for _ in range(TIMES)]
    print(
        f"20 lines against {len(world.parts):,} parts: first"
        f" {statistics.median(first) * 1000:.0f}, again {statistics.median(again) * 1000:.0f}"
        " (aim 100)"
    )


def _review():
    times, ratios = [], []
    for seed in range(5):
        catalogue, brief = question(seed, 250)
        poor = propose(catalogue, brief, budget_minor=brief.budget_high_minor * 2 // 3).build
        if poor is None:
            continue
        cold = fresh(catalogue, brief)
        alone = timed(propose, cold, brief)[0]
        catalogue = fresh(catalogue, brief)

        def review(world=catalogue, asked=brief, build=poor):
            now = assess(world, asked, build)
            found = [improved(world, now, way) for way in WAYS]
            return judged(world, now, found[2])

        seconds = timed(review)[0]
        times.append(seconds)
        ratios.append(seconds / alone)
    print(
        f"review with four proposals, 2,000 parts: {statistics.median(times) * 1000:.0f}, at most"
        f" {max(times) * 1000:.0f} (aim 1,000); {statistics.median(ratios):.1f} x one proposal"
    )


def _demo(name):
    brief, build = (BRIEFS / f"{name}.{what}.json" for what in ("brief", "build"))
    return (
        read_brief(brief.name, brief.read_bytes()),
        read_build(build.name, build.read_bytes()),
    )


def _compared():
    world = read_catalogue(CATALOGUE)
    names = ("net-loft", "harbour-hall", "signal-tower", "weather-ship", "old-bench-machine")
    made = [(name, name, _demo(name)[1]) for name in names]
    brief = _demo("net-loft")[0]
    builds = [*made, ("again", "again", made[0][2].with_part("case", "boxwood-yard-hold"))]
    targets = (brief.targets * 2)[:10]
    many = replace(
        brief, targets=tuple(replace(own, id=f"t{n}") for n, own in enumerate(targets, 1))
    )
    kept = world.kept_by(Keeper())
    first = timed(compared, kept, many, builds)[0]
    again = [timed(compared, kept, many, builds)[0] for _ in range(TIMES)]
    print(
        f"six builds over ten targets: first {first * 1000:.0f}, again"
        f" {statistics.median(again) * 1000:.0f} (aim 50)"
    )


def _handout():
    world = read_catalogue(CATALOGUE).kept_by(Keeper())
    plan = Plan(*_demo("net-loft"))
    first = timed(handout, world, plan)[0]
    again = [timed(lambda: markdown(handout(world, plan)))[0] for _ in range(TIMES)]
    print(
        f"a handout as text: first {first * 1000:.0f}, again {statistics.median(again) * 1000:.0f}"
        " (aim 50)"
    )
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as play:
        site = Site(Path(folder) / "bench.sqlite")
        browser = play.chromium.launch(executable_path=chromium(), args=FLAGS)
        page = browser.new_page()
        page.goto(f"{site.url}/briefs/1/handout/page")
        asked = [
            timed(page.request.get, f"{site.url}/briefs/1/handout/as/html")[0] for _ in range(TIMES)
        ]
        printed = [timed(lambda: page.pdf(format="A4"))[0] for _ in range(TIMES)]
        print(
            f"as an HTML file from the server {statistics.median(asked) * 1000:.0f}, as PDF in"
            f" Chromium {statistics.median(printed) * 1000:.0f}"
        )
        browser.close()
        site.stop()


if __name__ == "__main__":
    handing_over()
