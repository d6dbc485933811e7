"""Speed and size, measured in one run on one machine: ``make bench``."""

import os
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import time
from dataclasses import replace
from pathlib import Path
from urllib.request import urlopen

import psutil
from playwright.sync_api import sync_playwright

from tests.bench import (
    balance,
    buying,
    charts,
    fits,
    front_door,
    games,
    handing_over,
    hands,
    measured,
    parts,
    shops,
)
from tests.bench.highs import least_money
from tests.bench.questions import fresh, question, timed
from tests.e2e.conftest import FLAGS, chromium
from tests.site import Site
from tests.worlds import World
from wattmetron.core.search.proposal import propose
from wattmetron.formats.catalogue_writing import write_catalogue
from wattmetron.workshop.workshop import Workshop


def proposals():
    print("proposal, six targets (seconds over five catalogues)")
    print("parts   first question           asked again")
    for per_kind in (250, 625):
        first, again = [], []
        for seed in range(5):
            catalogue, brief = question(seed, per_kind)
            catalogue = fresh(catalogue, brief)
            first.append(timed(propose, catalogue, brief)[0])
            again.append(min(timed(propose, catalogue, brief)[0] for _ in range(3)))
        print(
            f"{8 * per_kind:5}   median {statistics.median(first):.3f} max {max(first):.3f}   "
            f"median {statistics.median(again):.3f} max {max(again):.3f}"
        )


def against_highs():
    print("\nleast money against HiGHS as an integer program (same optimum asserted)")
    print("parts   ours     HiGHS    ratio")
    for per_kind in (32, 56, 88):
        ratios, ours_all, theirs_all = [], [], []
        for seed in range(20, 24):
            catalogue, brief = question(seed, per_kind, with_integrated=False)
            theirs, cost = timed(least_money, catalogue, brief)
            catalogue = fresh(catalogue, brief)
            ours, found = timed(propose, catalogue, brief, "least money")
            assert (found.cost_minor if found.build else None) == cost, (
                per_kind,
                seed,
                found.cost_minor,
                cost,
            )
            ratios.append(theirs / ours)
            ours_all.append(ours)
            theirs_all.append(theirs)
        print(
            f"{8 * per_kind:5}   {statistics.median(ours_all):.3f}   "
            f" {statistics.median(theirs_all):6.2f}   {statistics.median(ratios):.0f}"
        )


def swaps():
    """From the click on a candidate to the settled page in Chromium, and the server's part of
    it.
    """
    settle = """candidate => new Promise(done => {
        const start = performance.now();
        const end = () => requestAnimationFrame(() => done(performance.now() - start));
        document.addEventListener("htmx:afterSettle", end, {once: true});
        candidate.click();
    })"""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as play:
        site = Site(Path(folder) / "bench.sqlite")
        browser = play.chromium.launch(executable_path=chromium(), args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{site.url}/briefs/1/frames?swap=graphics&cards=1")
        clicks = []
        for turn in range(40):
            candidates = page.locator("tr:not(.present):not(.tried) [data-candidate]")
            candidates.first.wait_for()
            clicks.append(candidates.nth(turn % candidates.count()).evaluate(settle))
        addresses = page.locator("tr:not(.present) [data-candidate]").evaluate_all(
            "all => all.map(one => one.href)"
        )
        browser.close()
        server = [timed(lambda url=url: urlopen(url).read())[0] for url in addresses * 3]
        empty = [timed(lambda: urlopen(f"{site.url}/static/icon.svg").read())[0] for _ in range(30)]
        blank = site.workshop.new_brief()
        plain = [
            timed(lambda: urlopen(f"{site.url}/briefs/{blank}/frames").read())[0] for _ in range(30)
        ]
        site.stop()
    click, part = statistics.median(clicks[5:]), 1000 * statistics.median(server)
    print("\nswap at demo scale, 40 clicks")
    print(
        f"click to settled page: median {click:.0f} ms, 90 % within"
        f" {sorted(clicks[5:])[int(0.9 * 35)]:.0f} ms"
    )
    print(
        f"server's part: median {part:.0f} ms; {part / 1000 / statistics.median(plain):.1f} x the"
        f" page of an empty brief, {part / 1000 / statistics.median(empty):.0f} x a static file"
    )


def imports():
    """5,000 parts with 20,000 offers against executemany of the same rows."""
    with tempfile.TemporaryDirectory() as folder:
        world = World(9)
        catalogue = world.catalogue(per_kind=625)
        offers = tuple(
            replace(offer, shop=f"Shop {n}", price_minor=offer.price_minor + n)
            for offer in catalogue.offers
            for n in range(4)
        )
        write_catalogue(replace(catalogue, offers=offers), Path(folder) / "catalogue")
        ours = []
        for turn in range(3):
            workshop = Workshop(Path(folder) / f"import{turn}.sqlite")
            ours.append(timed(workshop.import_folder, Path(folder) / "catalogue")[0])
            workshop.close()
        source = sqlite3.connect(Path(folder) / "import0.sqlite")
        tables = {
            name: source.execute(f"select * from {name}").fetchall()
            for name in ("imports", "entries", "offers")
        }
        schema = [
            row[0]
            for row in source.execute(
                "select sql from sqlite_master where sql is not null and name not like 'sqlite%'"
            )
        ]
        plain = []
        for turn in range(3):
            target = sqlite3.connect(Path(folder) / f"plain{turn}.sqlite")
            target.execute("pragma journal_mode=wal")
            target.execute("pragma synchronous=full")
            for statement in schema:
                target.execute(statement)
            plain.append(timed(_executemany, target, tables)[0])
            target.close()
    print("\nimport of 5,000 parts with 20,000 offers")
    print(
        f"{min(ours):.2f} s against {min(plain):.3f} s of plain executemany: ratio"
        f" {min(ours) / min(plain):.1f}"
    )


def _executemany(target, tables):
    for name, rows in tables.items():
        target.executemany(f"insert into {name} values ({','.join('?' * len(rows[0]))})", rows)
    target.commit()


def memory():
    with tempfile.TemporaryDirectory() as folder:
        command = [
            sys.executable,
            "-m",
            "wattmetron.cli",
            "demo",
            "--port",
            "8397",
            "--database",
            f"{folder}/idle.sqlite",
        ]
        server = subprocess.Popen(command, stdout=subprocess.PIPE, env=os.environ)
        server.stdout.readline()
        for _ in range(100):
            try:
                urlopen("http://127.0.0.1:8397/briefs/1/frames?propose=most").read()
                break
            except OSError:
                time.sleep(0.1)
        time.sleep(1)
        used = psutil.Process(server.pid).memory_info().rss / 1e6
        server.terminate()
        server.wait()
    print(f"\nresident memory of the idle server after a proposal: {used:.0f} MB")


if __name__ == "__main__":
    proposals()
    against_highs()
    balance.views()
    balance.pictures()
    balance.growth()
    balance.upgrades()
    balance.library()
    balance.against_highs_with_wishes()
    balance.against_highs_with_the_whole_machine()
    swaps()
    front_door.front_door()
    handing_over.handing_over()
    buying.buying()
    shops.prices()
    measured.runs()
    imports()
    charts.charts()
    fits.fits()
    games.reading()
    games.verdicts()
    games.games_page()
    parts.rules()
    parts.pages()
    memory()
    hands.calls()
    hands.several_at_once()
    hands.memory_of_many_questions()
