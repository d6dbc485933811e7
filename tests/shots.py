"""Takes the pictures in docs/screenshots from demo data."""

import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright

from tests.e2e.conftest import FLAGS, chromium
from tests.measuring import CARD, recorded
from tests.site import Site
from wattmetron.demo.past_prices import earlier

OUT = Path(__file__).parent.parent / "docs" / "screenshots"
VIEWS = (
    ("briefs", "/briefs", 1280, 800, "light"),
    ("brief", "/briefs/1/brief", 1280, 800, "light"),
    ("frames", "/briefs/1/frames", 1280, 800, "light"),
    ("proposal", "/briefs/1/frames?propose=most", 1280, 800, "light"),
    (
        "swap",
        "/briefs/2/frames?swap=graphics",
        1280,
        800,
        "light",
    ),
    ("review", "/briefs/7/review", 1280, 1000, "dark"),
    ("balance", "/briefs/8/balance?every=1&cell=2560x1440+high", 1280, 1240, "light"),
    ("fit", "/briefs/5/fit?propose=most", 1280, 1640, "light"),
    ("parts", "/parts?kind=graphics&brief=1&sort=worth&dir=down", 1280, 800, "light"),
    ("compare", "/briefs/1/compare?beside=8", 1280, 1000, "light"),
    ("handout", "/briefs/1/handout/page", 1280, 1000, "light"),
    ("buy", "/briefs/1/buy", 1280, 800, "light"),
    ("games", "/games?brief=1", 1280, 800, "light"),
    ("measured", "/measured", 1280, 1000, "light"),
    ("run", "/measured/5", 1280, 1240, "light"),
    ("before-and-after", "/measured/difference?before=1,2&after=3,4", 1280, 800, "dark"),
    ("scale", "/parts/scale?first=Nacre+Reef+16+GB&second=Orlop+Beacon", 1280, 800, "light"),
)


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as play:
        site = Site(Path(folder) / "shots.sqlite", earlier=earlier)
        browser = play.chromium.launch(executable_path=chromium(), args=FLAGS)
        _measure(site.workshop)
        for name, address, width, height, scheme in VIEWS:
            page = browser.new_page(
                viewport={"width": width, "height": height}, color_scheme=scheme
            )
            page.goto(site.url + address)
            page.wait_for_selector("#waiting", state="detached", timeout=60_000)
            page.wait_for_selector(".working", state="detached", timeout=60_000)
            page.evaluate("document.fonts.ready")
            page.wait_for_timeout(150)
            page.screenshot(path=OUT / f"{name}.png")
            page.close()
        _letter(browser, site.url)
        _pasted(browser, site.url)
        browser.close()
        site.stop()


def _measure(workshop) -> None:
    """Runs as shipped and tuned, one that throttles, others of other games."""
    for seed in (1, 2):
        recorded(workshop, seed, said=CARD)
    for seed in (3, 4):
        recorded(workshop, seed, clock=1.05, power=1.1, said={**CARD, "setup": "higher clocks"})
    recorded(workshop, 5, scenario="throttling", said=CARD)
    for seed, game in enumerate(("hollow-meridian", "ashfall-wardens", "thousand-towers"), 6):
        for more in (0, 10, 20):
            recorded(workshop, seed + more, said={"of": game})


LETTER = """Hello,

around 1,200, at most 1,400, I have a 1440p 165 Hz display, mostly Gullwing Circuit and some Hollow
Meridian on ultra, upscaling is fine, no lights. It should be as quiet as possible. My uncle built
the last one. I still have my drive and case.

Thanks"""


def _letter(browser, url: str) -> None:
    """A letter with what was read of it."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(f"{url}/briefs/letter")
    page.locator("#letter").fill(LETTER)
    page.locator("#read-letter").click()
    page.wait_for_selector("#make-brief")
    page.wait_for_timeout(150)
    page.screenshot(path=OUT / "letter.png")
    page.close()


PASTED = """TO SET OUT
CPU: Quillon Cuter Ebb 6 or Marrowgate Heron Dun 6 (6 cores, 3,9 GHz)
GPU: Orlop Wick 8GB / Nacre Inlet 8GB / Reef 16GB
RAM: 12GB
Storage: 60 GB on an SSD
Runs at 1080p, medium preset, 60 fps
Bring a friend

TO SEE IT ALL
CPU: Quillon Cutter Flood 6 or Heron Slate
GPU: Nacre Bank 12GB or Nacre Spit 12GB
RAM: 16GB
Storage: 60 GB on an SSD
Runs at 1440p, high preset, 60 fps
"""


def _pasted(browser, url: str) -> None:
    """A text that was read, beside its draft."""
    page = browser.new_page(viewport={"width": 1280, "height": 800}, color_scheme="light")
    page.goto(f"{url}/games/read")
    page.fill("#name", "Fathom Line")
    page.fill("#new-genre", "action")
    page.fill("#text", PASTED)
    page.click("#read")
    page.wait_for_selector("#draft")
    page.wait_for_timeout(200)
    page.screenshot(path=OUT / "paste-and-read.png")
    page.close()


if __name__ == "__main__":
    main()
