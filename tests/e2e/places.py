"""The application as its user meets it: pages opened, read and worked, by what stands on them."""

import os

from playwright.sync_api import Locator, Page, expect

from tests.e2e.axe import serious
from tests.extent import extent

WAIT_MS = 60_000
STOPS_AHEAD = """id => {
    const active = document.activeElement;
    if (active && active.id === id) return 0;
    const sorts = "a, button, input, select, textarea, summary, [tabindex]";
    const stops = [...document.querySelectorAll(sorts)].filter(
        stop => stop.tabIndex >= 0 && !stop.disabled && stop.getClientRects().length
            && stop.checkVisibility()
    );
    return Math.max(1, stops.findIndex(stop => stop.id === id) - stops.indexOf(active));
}"""
"""How far an element is from the focus in the order of the Tab key, at most; 0 where it has it."""


class Place:
    """Any page: opened, looked at for what it says, worked with keys."""

    def __init__(self, page: Page, url: str) -> None:
        self.page, self.url = page, url

    def open(self, path: str) -> None:
        """The page itself: what is shown while it is worked out has gone."""
        self.page.goto(f"{self.url}{path}")
        expect(self.page.locator("#waiting")).to_have_count(0, timeout=WAIT_MS)

    def picture(self, more: str = "") -> None:
        """One to look at, where ``PICTURES`` names a folder for them."""
        if folder := os.environ.get("PICTURES"):
            test = os.environ["PYTEST_CURRENT_TEST"].split("::")[-1].split(" ")[0]
            self.page.screenshot(path=f"{folder}/{test}{more}.png")

    def press(self, *keys: str) -> None:
        for key in keys:
            self.page.keyboard.press(key)

    def type(self, text: str) -> None:
        self.page.keyboard.type(text)

    def says(self, words: str) -> None:
        expect(self.page.locator("#notice")).to_contain_text(words)

    def refuses(self, words: str) -> None:
        expect(self.page.locator("#error")).to_contain_text(words)

    def is_accessible(self, look: str = "all") -> None:
        """On the way of a journey looked at in ``make journeys`` alone: every kind of page has a
        test of its own.
        """
        if extent(few=False, everything=True):
            self.has_no_serious_finding(look)

    def has_no_serious_finding(self, look: str = "all") -> None:
        assert serious(self.page, look) == [], self.page.url

    def fits_the_width(self) -> None:
        root = "document.documentElement"
        wide = self.page.evaluate(f"{root}.scrollWidth - {root}.clientWidth")
        assert wide <= 0, (self.page.url, wide)

    def settles(self) -> None:
        """No request and no swap is under way any more."""
        self.page.wait_for_function(
            "() => !document.querySelector('.htmx-request, .htmx-swapping, .htmx-settling')"
        )

    def tab_to(self, element: str) -> None:
        """Reach an element with the Tab key."""
        for _ in range(150):
            ahead = self.page.evaluate(STOPS_AHEAD, element)
            if ahead == 0:
                return
            for _ in range(max(1, ahead // 2)):
                self.press("Tab")
        raise AssertionError(f"the Tab key does not reach {element}")

    def tab_to_and_type(self, element: str, text: str) -> None:
        self.tab_to(element)
        self.press("Control+a")
        self.type(text)

    def focused(self, attribute: str) -> str:
        """An attribute of what has the focus."""
        return str(
            self.page.evaluate("name => document.activeElement.getAttribute(name)", attribute)
        )


class Desk(Place):
    """A brief with its build, whichever view is shown."""

    @property
    def build(self) -> Locator:
        return self.page.locator("#build")

    @property
    def ghosts(self) -> int:
        """How many gauges show what was before."""
        return self.page.locator(".meters .ghost").count()

    @property
    def candidates(self) -> Locator:
        """Of an open swap what could come instead."""
        return self.page.locator("tr:not(.present) [data-candidate]:visible")

    def part_names(self) -> list[str]:
        return self.build.locator(".name").all_inner_texts()

    def meter(self, name: str) -> Locator:
        return self.page.locator(f"#meter-{name}")

    def meter_says(self, name: str) -> str:
        return self.meter(name).locator(".value").inner_text()

    def field(self, name: str) -> Locator:
        return self.page.locator(f"#f-{name}")

    def unfold(self, group: str) -> None:
        """Open a folded group of the brief."""
        if self.page.locator(f"#{group}").get_attribute("open") is None:
            self.page.locator(f"#{group} > summary").click()

    def frames_of(self, game: str) -> Locator:
        return self.page.locator(".framerow", has_text=game)

    def propose(self, aim: str) -> None:
        self.page.locator(f"#propose-{aim}").click()

    def tries(self, words: str) -> None:
        expect(self.page.locator("#trybar")).to_contain_text(words)

    def tries_nothing(self) -> None:
        expect(self.page.locator("#trybar")).to_have_count(0)

    def adopt(self) -> None:
        self.page.locator("#adopt").click()

    def swap(self, kind: str) -> None:
        self.page.locator(f"[id^=row-{kind}-]").click()

    def undo(self) -> None:
        self.page.locator("#undo").click()
        self.settles()

    def redo(self) -> None:
        self.page.locator("#redo").click()
        self.settles()
