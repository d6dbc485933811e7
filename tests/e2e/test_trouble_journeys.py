"""Trouble under the page: it stays usable, and says what to do."""

import shutil
import sqlite3
import subprocess
from contextlib import closing, suppress
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from tests.e2e.places import Desk
from tests.site import Site

KEEP = "#keep-lowhum-level-750"


def statement(path, text, *values):
    with closing(sqlite3.connect(path)) as database, database:
        database.execute(text, values)


def still_works(desk, page):
    """The page under the trouble can be gone on with, and so can others."""
    page.locator("#view-fit").click()
    expect(page.locator("#view-fit")).to_have_attribute("aria-current", "page")
    expect(page.locator("#build")).to_contain_text("Delivered total")


def test_the_server_is_killed_under_the_page(desk, site, page):
    desk.open("/briefs/1/frames")
    site.stop()
    page.locator(KEEP).click()
    expect(page.locator("#gone")).to_contain_text("does not answer")
    expect(page.locator("#build")).to_contain_text("Delivered total")
    desk.picture()
    site.start()
    page.locator(KEEP).click()
    expect(page.locator(KEEP)).to_have_text("kept")
    expect(page.locator("#gone")).not_to_be_visible()


def test_the_database_is_locked_by_another_program(desk, site, page):
    site.workshop.database.patience_ms = 300
    desk.open("/briefs/1/frames")
    with closing(sqlite3.connect(site.path, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        page.locator(KEEP).click()
        desk.refuses("is busy")
        desk.refuses("nothing was changed")
        desk.picture()
        desk.is_accessible()
        still_works(desk, page)
        expect(page.locator("#error")).to_have_count(0)
        other.execute("ROLLBACK")
    page.locator(KEEP).click()
    expect(page.locator(KEEP)).to_have_text("kept")


def test_the_database_is_deleted_under_the_page(desk, site, page):
    desk.open("/briefs/1/frames")
    site.path.unlink()
    page.locator(KEEP).click()
    desk.refuses("deleted or replaced")
    desk.refuses("start it again")
    desk.picture()
    still_works(desk, page)
    desk.open("/briefs")
    page.locator("#new-brief").click()
    expect(page.locator("#trouble")).to_contain_text("deleted or replaced")
    desk.picture("-list")
    page.get_by_role("button", name="Close", exact=True).click()
    expect(page.locator("#trouble")).to_be_empty()
    page.get_by_role("link", name="Net loft all-rounder").click()
    still_works(desk, page)


@pytest.fixture
def small_disk(tmp_path, demo_database):
    disk = tmp_path / "disk"
    disk.mkdir()
    size_kb = demo_database.stat().st_size // 1024 + 700
    mount = ["mount", "-t", "tmpfs", "-o", f"size={size_kb}k", "none", str(disk)]
    if shutil.which("mount") is None or subprocess.run(mount, check=False).returncode:
        pytest.skip("a small disk can only be mounted by root")
    with (
        closing(sqlite3.connect(demo_database)) as source,
        closing(sqlite3.connect(disk / "demo.sqlite")) as copy,
    ):
        source.backup(copy)
    yield disk
    subprocess.run(["umount", "--lazy", str(disk)], check=True)


def test_the_disk_is_full(small_disk, shared_study, page):
    site = Site(small_disk / "demo.sqlite", shared_study)
    desk = Desk(page, site.url)
    desk.open("/briefs/1/frames")
    with (small_disk / "ballast").open("wb", buffering=0) as ballast, suppress(OSError):
        while True:
            ballast.write(b"x" * 4096)
    for _ in range(12):
        page.locator(KEEP).click()
        desk.settles()
        if page.locator("#error").count():
            break
    desk.refuses("full")
    desk.refuses("free some space")
    desk.picture()
    still_works(desk, page)
    (small_disk / "ballast").unlink()
    word = page.locator(KEEP).inner_text()
    page.locator(KEEP).click()
    expect(page.locator(KEEP)).not_to_have_text(word)
    site.stop()


def test_a_targeted_game_is_removed(desk, site, page):
    catalogue = site.workshop.catalogue().described
    games = {key: game for key, game in catalogue.games.items() if key != "hollow-meridian"}
    site.workshop.import_catalogue(replace(catalogue, games=games), "without one")
    desk.open("/briefs/1/frames")
    expect(page.locator("#desk")).to_contain_text("which the catalogue no longer has")
    desk.picture()
    desk.is_accessible()
    page.get_by_role("button", name="Take the target out").click()
    expect(page.locator("#desk")).not_to_contain_text("which the catalogue no longer has")
    page.locator("#undo").click()
    expect(page.locator("#desk")).to_contain_text("which the catalogue no longer has")


def test_a_brief_breaks(desk, site, page):
    statement(site.path, "UPDATE briefs SET document='{half' WHERE id=2")
    desk.open("/briefs")
    expect(page.locator("#unreadable-2")).to_contain_text("Brief 2 cannot be read")
    desk.picture()
    desk.is_accessible()
    with page.expect_download() as download:
        page.get_by_role("link", name="Save it as it is").click()
    assert download.value.path().read_text() == "{half"
    page.get_by_role("button", name="Delete brief 2").click()
    expect(page.locator("#unreadable-2")).to_have_count(0)
    expect(page.get_by_role("link", name="Net loft all-rounder")).to_be_visible()


def test_a_page_that_fails_leaves_the_one_that_is_there(desk, site, page, monkeypatch):
    desk.open("/briefs/1/frames")

    def fail(*_, **__):
        raise RuntimeError

    monkeypatch.setattr("wattmetron.places.desk.pages.routes.make_desk", fail)
    page.locator("#view-fit").click()
    expect(page.locator("#trouble")).to_contain_text("Something went wrong inside Wattmetron")
    expect(page.locator("#build")).to_contain_text("Delivered total")
    desk.picture()
    page.goto(site.url + "/briefs/1/fit")
    expect(page.get_by_role("heading", name="Something went wrong")).to_be_visible()
    desk.picture("page")
    page.get_by_role("link", name="To the briefs").click()
    monkeypatch.undo()
    page.get_by_role("link", name="Net loft all-rounder").click()
    still_works(desk, page)
