"""The front door in Chromium at the demo's size: from a change to a settled answer, as ratios to a
page that computes nothing, all in one run.
"""

import gzip
import re
import statistics
import tempfile
import time
from pathlib import Path
from urllib.request import urlopen

from playwright.sync_api import sync_playwright

from tests.e2e.conftest import FLAGS, chromium
from tests.site import Site

TIMES = 30
SHIFTS = """() => new Promise(done => {
    let sum = 0;
    new PerformanceObserver(list => {
        for (const entry of list.getEntries()) if (!entry.hadRecentInput) sum += entry.value;
    }).observe({type: "layout-shift", buffered: true});
    setTimeout(() => done(sum), 1500);
})"""


def front_door():
    """Medians over 30 in milliseconds, and as ratios to the page of the keys."""
    print("\nfront door in Chromium (medians of 30, ms; ratio to a static page)")
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as play:
        site = Site(Path(folder) / "bench.sqlite")
        browser = play.chromium.launch(executable_path=chromium(), args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        still = _median(lambda n: _open(page, f"{site.url}/briefs/letter?n={n}", "#letter"))
        _say("a static page", still, still)
        page.goto(f"{site.url}/briefs/1/brief")
        page.wait_for_selector("#answer-in-full", timeout=60_000)
        _say("a change in the three lines, answered", _median(lambda n: _change(page, n)), still)
        chips = f"{site.url}/briefs/2/frames?swap=graphics"
        first = _open(page, chips, "#every-card")
        _say("graphics by chip on an empty build, first", first, still)
        again = _median(lambda n: _open(page, f"{chips}&n={n}", "#every-card"))
        _say("the same again", again, still)
        page.goto(f"{site.url}/briefs/1/frames?swap=processor")
        page.wait_for_selector("tr:has-text('in all')", timeout=60_000)
        _say("a move with board and memory tried", _median(lambda _: _move(page)), still)
        balance = f"{site.url}/briefs/8/balance"
        first = _open(page, balance, "#glance-2, .glances")
        _say("Balance, first screen, first", first, still)
        again = _median(lambda n: _open(page, f"{balance}?n={n}", ".glances"))
        _say("the same again", again, still)
        _size(site.url)
        for address in ("/briefs", "/briefs/1/brief", "/briefs/8/balance"):
            page.goto(site.url + address)
            print(f"layout shift after load of {address}: {page.evaluate(SHIFTS):.3f}")
        browser.close()
        site.stop()


def _median(work):
    return statistics.median(work(n) for n in range(TIMES))


def _say(what, seconds, still):
    print(f"{what:45} {1000 * seconds:7.0f}   {seconds / still:5.1f} x")


def _open(page, address, ready):
    start = time.perf_counter()
    page.goto(address, wait_until="commit")
    page.wait_for_selector(ready, timeout=60_000)
    return time.perf_counter() - start


def _change(page, n):
    """Another upper budget, until the answer beside stands again."""
    before = page.locator("[id^=answer-1-]").get_attribute("id")
    page.locator("#f-budget-high").fill(str(1200 + 7 * n))
    start = time.perf_counter()
    page.locator("#f-budget-high").press("Tab")
    page.wait_for_selector(f"[id^=answer-1-]:not(#{before}) .aims", timeout=60_000)
    return time.perf_counter() - start


def _move(page):
    """A processor of another socket, tried with what it forces, and left again."""
    row = page.locator("tr:has-text('in all') [data-candidate]").first
    start = time.perf_counter()
    row.click()
    page.wait_for_selector("#trybar")
    spent = time.perf_counter() - start
    page.keyboard.press("Escape")
    page.wait_for_selector("#trybar", state="detached")
    return spent


def _size(url):
    """Bytes of the first page with all that it loads, compressed as a server would."""
    text = urlopen(f"{url}/briefs").read()
    names = re.findall(r'(?:src|href)="(/static/[^"]+\.(?:js|css))"', text.decode())
    style = urlopen(f"{url}/static/app.css").read().decode()
    fonts = re.findall(r'url\("?(fonts/[^")]+)', style)
    names += [f"/static/{name}" for name in fonts if "ext" not in name]
    sizes = {name: len(gzip.compress(urlopen(url + name).read())) for name in dict.fromkeys(names)}
    total = len(gzip.compress(text)) + sum(sizes.values())
    of_fonts = sum(size for name, size in sizes.items() if "fonts" in name)
    print(f"first page, compressed: {total / 1000:.0f} kB, {of_fonts / 1000:.0f} kB of it fonts")
