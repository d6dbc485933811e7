"""Tidying: at every import that stays the catalogue is the same, and what past answers were worked
out from stays.
"""

import random
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import pytest

from tests.extent import extent
from tests.store.test_upkeep import run
from wattmetron.places.handout.handout_links import Of, links_of, make_link, revoke
from wattmetron.store import catalogues
from wattmetron.store.imports import store_catalogue
from wattmetron.store.tables import ImportRow, LinkRow
from wattmetron.store.tidying import tidy
from wattmetron.workshop.workshop import Workshop

NOW = datetime(2026, 12, 1, tzinfo=UTC)


@pytest.fixture
def workshop(small_copy, shared_study):
    opened = Workshop(small_copy, shared_study)
    yield opened
    opened.close()


def years_of_prices(workshop, days):
    """An import every other day, ending yesterday, in each of which some prices are others, some
    parts are gone and one is named otherwise.
    """
    world = workshop.catalogue().described
    moved = random.Random(7)
    offers = world.offers[:40]
    for ago in range(days, 0, -2):
        shown = tuple(
            replace(own, price_minor=own.price_minor + moved.choice((0, 0, 0, 100, 300)))
            for own in offers
            if moved.random() < 0.9
        )
        part = world.by_kind["case"][0]
        parts = world.parts | {part.id: replace(part, notes=f"{moved.choice('abc')}")}
        at = NOW - timedelta(days=ago)
        with workshop.database.writing() as session:
            store_catalogue(session, replace(world, parts=parts, offers=shown), "shops", at)
    return moved


def imports(workshop):
    with workshop.database.reading() as session:
        return {row.id: row.at for row in session.query(ImportRow)}


def catalogue_at(workshop, number):
    with workshop.database.reading() as session:
        found = catalogues.load_catalogue(session, number)
    return found.parts, sorted(found.offers, key=repr), found.games, found.regions


def test_every_import_that_stays_shows_what_it_showed(workshop, database_of):
    years_of_prices(workshop, extent(820, 1100))
    old = sorted(number for number, at in imports(workshop).items() if at < datetime(2024, 11, 1))
    watched = old[1]
    make_link(workshop, Of(brief_id=1), None)
    with workshop.database.writing() as session:
        session.query(LinkRow).order_by(LinkRow.id.desc()).first().as_of = watched
    there = imports(workshop)
    before = {number: catalogue_at(workshop, number) for number in there}
    with workshop.database.reading() as session:
        promised = tidy(session, NOW)
    assert imports(workshop).keys() == before.keys(), "a dry run changes nothing"
    with workshop.database.writing() as session:
        done = tidy(session, NOW)
    after = imports(workshop)
    assert promised == done and done.imports == len(before) - len(after) > 0 < done.revisions
    assert watched in after
    left = [at.isocalendar()[:2] for number, at in after.items() if number in old]
    assert len(left) - len(set(left)) <= 1, "one a week, and the one that is linked to"
    recent = {number for number, at in there.items() if at >= datetime(2024, 12, 2)}
    assert recent and recent <= after.keys()
    for number in after:
        assert catalogue_at(workshop, number) == before[number], number
    with workshop.database.writing() as session:
        again = tidy(session, NOW)
    assert again.nothing


@pytest.fixture
def database_of(small_copy):
    return small_copy


def test_the_command_says_first_and_makes_the_file_smaller(workshop, small_copy, capsys):
    code, said = run(capsys, "tidy", "--dry-run", "--database", small_copy)
    assert code == 0 and "Nothing is past its time" in said
    years_of_prices(workshop, 820)
    make_link(workshop, Of(brief_id=1), date(2024, 1, 1))
    link = links_of(workshop, Of(brief_id=1))[0]
    revoke(workshop, Of(brief_id=1), link.id)
    there = imports(workshop)
    code, said = run(capsys, "tidy", "--dry-run", "--database", small_copy)
    assert code == 0 and "Would remove" in said and "1 link that opens nothing" in said
    assert imports(workshop) == there
    workshop.close()
    code, said = run(capsys, "tidy", "--database", small_copy)
    assert code == 0 and "Removed" in said and "it had" in said
    workshop.reopen()
    assert len(imports(workshop)) < len(there) and not links_of(workshop, Of(brief_id=1))
    assert run(capsys, "doctor", "--database", small_copy)[0] == 0
