"""A new user with a new game: paste, correct, confirm, read the rails, find a cheaper equal, adopt
it.
"""

import re

import pytest
from playwright.sync_api import expect

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


def paste(desk, page) -> None:
    desk.open("/games?brief=1")
    page.get_by_role("link", name="Paste and read").click()
    page.get_by_label("Name of the game").fill("Fathom Line")
    page.get_by_label("Genre").fill("action")
    page.get_by_label("The requirements as they were published").fill(TEXT)
    page.get_by_role("button", name="Read it").click()
    expect(page.locator("#draft")).to_be_visible()


def test_from_pasted_text_to_a_cheaper_equal_in_the_brief(desk, page):
    paste(desk, page)
    expect(page.locator("#unread")).to_have_text("Bring a friend")
    expect(page.locator("mark.m-graphics").first).to_have_attribute(
        "title", re.compile("taken for graphics, Minimum, matched to Orlop Taper")
    )
    desk.is_accessible()
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
    desk.is_accessible()
    page.get_by_role("button", name="Leave Nacre Bank 12").click()
    expect(page.locator("#notice")).to_have_text("Nacre Bank left out.")
    page.get_by_label("Per cent").fill("15")
    page.get_by_label("Compared with").fill("Taper 4")
    page.get_by_role("button", name="Place it").click()
    expect(page.locator("#error")).to_be_hidden()
    desk.says("Nacre Spit stands 15 % above")

    page.locator("#equal-1-graphics-0").click()
    expect(page.locator("#equals h2")).to_contain_text("As good as Orlop Wick 8")
    desk.is_accessible()
    cheapest = page.locator("#equals tbody tr").first
    name = cheapest.locator("td").first.inner_text().split("\n")[0]
    cheapest.get_by_role("button", name=f"Adopt {name}").click()
    desk.says(f"Adopted {name}")
    expect(page).to_have_url(re.compile(r"/briefs/1/frames\?game=fathom-line"))
    expect(desk.build).to_contain_text(name)
    expect(page.locator("#game-beside")).to_contain_text("Fathom Line")
    page.locator("#target-from-1").click()
    desk.says("Added Fathom Line as Recommended")
    page.locator("#game-close").click()
    expect(desk.frames_of("Fathom Line")).to_contain_text("as Recommended")
    desk.is_accessible()


def test_the_same_by_keyboard_alone(desk, page):
    desk.open("/briefs/1/frames")
    page.locator("#published-gullwing-circuit").focus()
    desk.press("Enter")
    expect(page.locator("#game-beside")).to_be_focused()
    page.locator("#equal-1-graphics-2").focus()
    desk.press("Enter")
    expect(page.locator("#equals")).to_be_visible()
    first = page.locator("#equals [data-candidate]").first
    expect(first).to_be_focused()
    desk.press("Enter")
    desk.tries("Trying")
    desk.press("a")
    desk.says("dopted")
    expect(page.locator("#game-beside")).to_be_visible()
    desk.press("u")
    desk.says("Undone: adopted")
    desk.open("/briefs/1/frames?game=gullwing-circuit&equal=nacre-inlet%408")
    desk.press("Escape")
    expect(page.locator("#equals")).to_have_count(0)
    desk.press("Escape")
    expect(page.locator("#game-beside")).to_have_count(0)


def test_the_list_is_sieved_in_place(desk, page):
    desk.open("/games")
    desk.press("/")
    desk.type("cosy")
    expect(page.locator("table.gamelist tbody tr")).to_have_count(3)
    expect(page.locator("#find-game")).to_be_focused()
    expect(page).to_have_url(re.compile("q=cosy"))
    page.locator("#find-game").fill("")
    page.locator("#brief").select_option(label="Signal tower, sent-in list")
    expect(page.locator("table.gamelist thead")).to_contain_text("Reaches")
    page.locator("#met").select_option("the recommended tier")
    desk.settles()
    expect(page.locator("table.gamelist tbody tr", has_text="Deepwater Pilot")).to_have_count(0)
    page.locator("#parts").fill("Ketch Flood 8 Deep, Trench 16 GB, 64 GB ram, 4 TB nvme")
    page.locator("#brief").select_option("")
    expect(page.locator(".titleline .facts")).to_contain_text(
        "measured against Quillon Ketch Flood 8 Deep with Nacre Trench 16"
    )
    desk.is_accessible()
    page.get_by_role("link", name="Deepwater Pilot").click()
    expect(page.locator("table.tiers")).to_contain_text("meets")


@pytest.mark.essential
def test_adding_a_game_offers_its_tiers(desk, page):
    desk.open("/briefs/1/brief")
    page.locator("#add-game").fill("hollow")
    page.locator("#add-game").press("Enter")
    desk.says("dded Hollow Meridian (open world: 60 fps is usual")
    more = page.locator(".targetcard").last.locator("details.more")
    more.locator("summary").click()
    expect(more.get_by_role("button", name=re.compile("fps"))).to_have_count(3)
    more.get_by_role("button", name="Ultra: 2560x1440, high, 60 fps").click()
    expect(page.locator("#notice")).to_have_text("Hollow Meridian as Ultra.")
    desk.unfold("work")
    desk.field("system").fill("Tidewater 10")
    desk.field("system").press("Tab")
    desk.says("perating system to Tidewater 10")


@pytest.mark.parametrize(
    ("width", "scheme", "look"),
    [(390, "dark", "structure"), (1280, "dark", "contrast"), (1280, "light", "all")],
)
def test_places_are_accessible_narrow_and_dark(desk, width, scheme, look):
    desk.page.emulate_media(color_scheme=scheme)
    desk.page.set_viewport_size({"width": width, "height": 844})
    for path in (
        "/games?brief=1",
        "/games/vantage-null?brief=1",
        "/games/lanternfolk/edit",
        "/games/read",
        "/games/assumptions",
    ):
        desk.open(path)
        desk.is_accessible(look)
        desk.fits_the_width()


GERMAN = """Mindestanforderungen:
Betriebssystem: Tidewater 10
Prozessor: Quillon Wherry Neap 4 oder Marrowgate Gannet Moss 4
Arbeitsspeicher: 8 GB
Grafikkarte: Orlop Taper 4 GB oder Marlpoint Skerry 4 GB
Festplattenspeicher: 40 GB verfügbar

Empfohlene Anforderungen:
Prozessor: Quillon Cutter Flood 6 oder Marrowgate Heron Slate
Arbeitsspeicher: 16 GB
Grafikkarte: Orlop Wick 8 GB oder Nacre Inlet 8 GB
Festplattenspeicher: 40 GB verfügbar
"""
PROSE = (
    "To get going you want a Quillon Wherry Ebb 4, eight gigabytes of memory and an Orlop Taper"
    " 4 GB; for the full experience at 1440p and sixty frames per second, bring a Quillon Cutter"
    " Flood 6, sixteen gigabytes of memory and a Nacre Reef 8 GB."
)
ROWS = "Cutter Flood 6; {card}; 1080p; high; {fps}; {low}"


def test_a_german_list_and_prose_are_read_and_results_teach_about_other_games(desk, page):
    for name, text, corrected in (("Torn Ledger", GERMAN, True), ("Second Tide", PROSE, False)):
        desk.open("/games?brief=1")
        page.get_by_role("link", name="Paste and read").click()
        page.get_by_label("Name of the game").fill(name)
        page.get_by_label("Genre").fill("action")
        page.get_by_label("The requirements as they were published").fill(text)
        page.get_by_role("button", name="Read it").click()
        expect(page.locator("#draft")).to_be_visible()
        expect(page.locator("mark.m-processor")).to_have_count(5 if corrected else 3)
        if corrected:
            desk.is_accessible()
            doubtful = page.locator(
                ".listedfields", has=page.locator('[value="Marrowgate Heron Slate"]')
            )
            doubtful.get_by_label("or another").fill("Heron Slate 6")
        page.get_by_role("button", name="Confirm").click()
        expect(page.locator("h1")).to_have_text(name)
    desk.open("/games/assumptions")
    before = page.locator("#taught").inner_text()
    for game in ("torn-ledger", "second-tide"):
        desk.open(f"/games/{game}?brief=1")
        if not page.locator("#results-table").is_visible():
            page.locator("#add-results summary").click()
        rows = [ROWS.format(card=card, fps=fps, low=fps * 3 // 4) for card, fps in CARDS]
        page.locator("#results-table").fill("\n".join(rows))
        page.locator("#results-source").fill("Harbour Lab")
        page.locator("#store-results").click()
        desk.says("Added 3 results")
    desk.open("/games/assumptions")
    expect(page.locator("#taught")).to_contain_text("Torn Ledger")
    assert page.locator("#taught").inner_text() != before
    desk.is_accessible()
    desk.fits_the_width()


CARDS = (("Reef 8 GB", 96), ("Wick 8 GB", 61), ("Bank 12 GB", 118))
