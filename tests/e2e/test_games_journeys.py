"""A new user with a new game: paste, correct, confirm, read the rails, find a cheaper equal, adopt
it.
"""

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import serious, settled

TEXT = """Minimum
CPU: Quillon Wherry Neap 4 or Marrowgate Gannet Moss 4
GPU: Orlop Taper 4 GB or Nacre Spit 4 GB
RAM: 8 GB
Runs at 1080p, low preset, 60 fps

Recommended
CPU: Quillon Cutter Flood 6 or Heron Slate
GPU: Orlop Wick 8 GB / Nacre Inlet 8 GB / Nacre Bank 12 GB
RAM: 16 GB
Runs at 1440p, high preset, 60 fps
Bring a friend
"""


def paste(site, page) -> None:
    page.goto(f"{site.url}/games?brief=1")
    page.get_by_role("link", name="Paste and read").click()
    page.get_by_label("Name of the game").fill("Fathom Line")
    page.get_by_label("Genre").fill("action")
    page.get_by_label("The requirements as they were published").fill(TEXT)
    page.get_by_role("button", name="Read it").click()
    expect(page.locator("#draft")).to_be_visible()


def test_from_pasted_text_to_a_cheaper_equal_in_the_brief(site, page):
    paste(site, page)
    expect(page.locator("#unread")).to_have_text("Bring a friend")
    expect(page.locator("mark.m-graphics").first).to_have_attribute(
        "title", re.compile("taken for graphics, Minimum, matched to Orlop Taper")
    )
    assert serious(page) == []
    doubtful = page.locator(".listedfields", has=page.locator('[value="Heron Slate"]'))
    expect(doubtful).to_contain_text("No part of the catalogue is called so")
    doubtful.get_by_label("or another").fill("Heron Slate 6")
    page.get_by_role("button", name="Confirm").click()

    expect(page.locator("h1")).to_have_text("Fathom Line")
    rails = page.locator(".onlywide svg.rails")
    expect(rails).to_have_attribute(
        "aria-label",
        re.compile(
            "Recommended asks for .*measured against Quillon Wherry Flood 4 and Pellworth Nacre"
            " Bank"
        ),
    )
    expect(rails.locator(".t-own")).to_have_count(2)
    expect(page.locator(".doubt", has_text="out of line")).to_contain_text("Nacre Bank 12")
    expect(page.locator(".doubt", has_text="not placed")).to_contain_text("Nacre Spit")
    assert serious(page) == []
    page.get_by_role("button", name="Leave Nacre Bank 12").click()
    expect(page.locator("#notice")).to_have_text("Nacre Bank left out of the bar.")
    page.get_by_label("Per cent").fill("15")
    page.get_by_label("Compared with").fill("Taper 4")
    page.get_by_role("button", name="Place it").click()
    expect(page.locator("#error")).to_be_hidden()
    expect(page.locator("#notice")).to_contain_text("Nacre Spit stands 15 % above")

    page.locator("#equal-1-graphics-0").click()
    expect(page.locator("#equals h2")).to_contain_text("As good as Orlop Wick 8")
    assert serious(page) == []
    cheapest = page.locator("#equals tbody tr").first
    name = cheapest.locator("td").first.inner_text().split("\n")[0]
    cheapest.get_by_role("button", name=f"Adopt {name}").click()
    expect(page.locator("#notice")).to_contain_text(f"Adopted {name}")
    expect(page).to_have_url(re.compile(r"/briefs/1/frames\?game=fathom-line"))
    expect(page.locator("#build")).to_contain_text(name)
    expect(page.locator("#game-beside")).to_contain_text("Fathom Line")
    page.locator("#target-from-1").click()
    expect(page.locator("#notice")).to_contain_text("Added Fathom Line as Recommended")
    page.locator("#game-close").click()
    expect(page.locator(".framerow", has_text="Fathom Line")).to_contain_text("as Recommended")
    assert serious(page) == []


def test_the_same_by_keyboard_alone(site, page):
    page.goto(f"{site.url}/briefs/1/frames")
    page.locator("#published-gullwing-circuit").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#game-beside")).to_be_focused()
    page.locator("#equal-1-graphics-2").focus()
    page.keyboard.press("Enter")
    expect(page.locator("#equals")).to_be_visible()
    first = page.locator("#equals [data-candidate]").first
    expect(first).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator("#trybar")).to_contain_text("Trying")
    page.keyboard.press("a")
    expect(page.locator("#notice")).to_contain_text("dopted")
    expect(page.locator("#game-beside")).to_be_visible()
    page.keyboard.press("u")
    expect(page.locator("#notice")).to_contain_text("Undone: adopted")
    page.goto(f"{site.url}/briefs/1/frames?game=gullwing-circuit&equal=nacre-inlet%408")
    page.keyboard.press("Escape")
    expect(page.locator("#equals")).to_have_count(0)
    page.keyboard.press("Escape")
    expect(page.locator("#game-beside")).to_have_count(0)


def test_the_list_is_sieved_in_place(site, page):
    page.goto(f"{site.url}/games")
    page.keyboard.press("/")
    page.keyboard.type("cosy")
    expect(page.locator("table.gamelist tbody tr")).to_have_count(3)
    expect(page.locator("#find-game")).to_be_focused()
    expect(page).to_have_url(re.compile("q=cosy"))
    page.locator("#find-game").fill("")
    page.locator("#brief").select_option(label="Signal tower, sent-in list")
    expect(page.locator("table.gamelist thead")).to_contain_text("Reaches")
    page.locator("#met").select_option("the recommended tier")
    settled(page)
    expect(page.locator("table.gamelist tbody tr", has_text="Deepwater Pilot")).to_have_count(0)
    page.locator("#parts").fill("Ketch Flood 8 Deep, Trench 16 GB, 64 GB ram, 4 TB nvme")
    page.locator("#brief").select_option("")
    expect(page.locator(".titleline .facts")).to_contain_text(
        "measured against Quillon Ketch Flood 8 Deep with Nacre Trench 16"
    )
    assert serious(page) == []
    page.get_by_role("link", name="Deepwater Pilot").click()
    expect(page.locator("table.tiers")).to_contain_text("meets")


def test_adding_a_game_offers_its_tiers(site, page):
    page.goto(f"{site.url}/briefs/1/brief")
    page.locator("#add-game").select_option("hollow-meridian")
    expect(page.locator("#add-tier option")).to_have_count(4)
    page.locator("#add-tier").select_option(label="as Ultra: 2560x1440, high, 60 fps")
    page.locator("#add-target").click()
    expect(page.locator("#notice")).to_have_text("Added Hollow Meridian as Ultra.")
    page.locator("#f-system").fill("Tidewater 10")
    page.locator("#f-system").press("Tab")
    expect(page.locator("#notice")).to_contain_text("perating system to Tidewater 10")


@pytest.mark.parametrize(
    ("width", "scheme", "look"),
    [(390, "dark", "structure"), (1280, "dark", "contrast"), (1280, "light", "all")],
)
def test_places_are_accessible_narrow_and_dark(browser, site, width, scheme, look):
    context = browser.new_context(viewport={"width": width, "height": 844}, color_scheme=scheme)
    page = context.new_page()
    for path in (
        "/games?brief=1",
        "/games/vantage-null?brief=1",
        "/games/lanternfolk/edit",
        "/games/read",
        "/games/assumptions",
    ):
        page.goto(f"{site.url}{path}")
        assert serious(page, look) == [], path
        wide = page.evaluate(
            "document.documentElement.scrollWidth - document.documentElement.clientWidth"
        )
        assert wide <= 0, path
    context.close()
