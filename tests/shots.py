"""Takes the pictures in docs/screenshots from demo data."""

import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright

from tests.e2e.conftest import FLAGS, Site, chromium

OUT = Path(__file__).parent.parent / "docs" / "screenshots"
VIEWS = (
    ("briefs", "/briefs", 1280, 800, "light"),
    ("brief", "/briefs/1/brief", 1280, 800, "light"),
    ("wide", "/briefs/4/frames", 1920, 1000, "light"),
    ("frames", "/briefs/1/frames", 1280, 800, "light"),
    ("proposal", "/briefs/1/frames?propose=most", 1280, 800, "light"),
    ("swap", "/briefs/1/frames?swap=graphics&try=graphics:pellworth-ness-16-plain", 1280, 800, "light"),
    ("working", "/briefs/1/frames?working=t1", 1280, 800, "light"),
    ("by-hand", "/briefs/3/frames?swap=processor", 1280, 800, "light"),
    ("review-night", "/briefs/5/frames", 1280, 800, "dark"),
    ("no-answer", "/briefs/2/frames?propose=least", 1280, 800, "light"),
    ("narrow", "/briefs/1/frames", 390, 844, "light"),
)


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as play:
        site = Site(Path(folder) / "shots.sqlite")
        browser = play.chromium.launch(executable_path=chromium(), args=FLAGS)
        for name, address, width, height, scheme in VIEWS:
            page = browser.new_page(viewport={"width": width, "height": height}, color_scheme=scheme)
            page.goto(site.url + address)
            page.evaluate("document.fonts.ready")
            page.wait_for_timeout(150)
            page.screenshot(path=OUT / f"{name}.png")
            page.close()
        browser.close()
        site.stop()


if __name__ == "__main__":
    main()
