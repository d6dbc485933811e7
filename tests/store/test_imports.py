"""What an import takes away is said before, is never what was typed, and comes back."""

from dataclasses import replace
from datetime import date

import pytest

from tests import small
from tests.store.test_upkeep import run
from wattmetron.cli.data import effect_in_words
from wattmetron.core.errors import ConflictError
from wattmetron.formats.catalogue_writing import write_catalogue
from wattmetron.places.shops.price_import import store_offers
from wattmetron.store import catalogue_edits
from wattmetron.workshop.workshop import NotImportedError, Workshop

TYPED = "typed-case"


@pytest.fixture
def workshop(small_copy, shared_study):
    opened = Workshop(small_copy, shared_study)
    yield opened
    opened.close()


@pytest.fixture
def folder(workshop, tmp_path):
    """The small catalogue as a folder, without its most expensive cards."""
    whole = workshop.catalogue().described
    cards = [part.id for part in whole.by_kind["graphics"]][:3]
    parts = {key: part for key, part in whole.parts.items() if key not in cards}
    offers = tuple(own for own in whole.offers if own.part_id in parts)
    fewer = replace(whole, parts=parts, offers=offers)
    write_catalogue(fewer, tmp_path / "small_world")
    return tmp_path / "small_world"


def type_in(workshop):
    """A case and a game typed by hand, and a word changed of a part that was imported."""
    world = workshop.catalogue().described
    case, game = world.by_kind["case"][0], next(iter(world.games.values()))
    with workshop.database.writing() as session:
        edits = {
            ("case", TYPED): replace(case, id=TYPED, model="Typed"),
            ("game", "typed-game"): replace(game, id="typed-game", name="Typed Game"),
        }
        catalogue_edits.revise(session, edits, "typed")


def origin(workshop, kind, key):
    with workshop.database.reading() as session:
        return catalogue_edits.made_by_hand(session, kind, key)


def a_price(workshop, minor=9_90):
    best = workshop.catalogue().offers[0]
    return replace(best, price_minor=minor, seen_on=date(2026, 11, 30))


def test_a_pasted_price_leaves_what_was_typed_typed_and_the_next_import_keeps_it(workshop, folder):
    type_in(workshop)
    before = len(workshop.catalogue().parts)
    store_offers(workshop, [a_price(workshop)], "pasted")
    assert len(workshop.catalogue().parts) == before
    assert origin(workshop, "case", TYPED) and origin(workshop, "game", "typed-game")
    workshop.import_folder(folder)
    after = workshop.catalogue()
    assert TYPED in after.parts and "typed-game" in after.games
    assert len(after.parts) == before - 3


def test_a_price_that_was_typed_is_replaced_by_a_newer_one_and_not_doubled(workshop):
    offer = a_price(workshop, 77_00)
    with workshop.database.writing() as session:
        catalogue_edits.revise_offers(session, offer.part_id, offer.region, [offer], "typed")
    store_offers(workshop, [replace(offer, price_minor=66_00)], "pasted")
    same = [
        own.price_minor
        for own in workshop.catalogue().offers
        if (own.part_id, own.shop, own.condition) == (offer.part_id, offer.shop, offer.condition)
    ]
    assert same == [66_00]


def test_what_an_import_takes_away_is_said_before_it_does_and_comes_back_after_a_restart(
    workshop, folder, small_copy, shared_study
):
    type_in(workshop)
    told = []

    def refuses(effect):
        told.append(effect_in_words(effect))
        return False

    before = workshop.catalogue().described
    with pytest.raises(NotImportedError):
        workshop.import_folder(folder, refuses)
    assert workshop.catalogue().described == before
    assert told == ["This removes 3 parts and 6 offers, imported from “catalogue”."]
    workshop.import_folder(folder, lambda _: True)
    assert len(workshop.catalogue().parts) == len(before.parts) - 3
    workshop.close()
    again = Workshop(small_copy, shared_study)
    assert again.undo_import() == "small_world"
    back = again.catalogue().described
    assert back.parts == before.parts and set(back.offers) == set(before.offers)
    assert origin(again, "case", TYPED) and not origin(again, "case", small.PARTS[-14])
    with pytest.raises(ConflictError):
        again.undo_import()
    again.close()


def test_an_import_that_overwrites_what_was_typed_says_so(workshop, tmp_path):
    world = workshop.catalogue().described
    case = world.by_kind["case"][0]
    write_catalogue(world, tmp_path / "other")
    with workshop.database.writing() as session:
        catalogue_edits.revise(session, {("case", case.id): replace(case, volume_l=99.0)}, "typed")
    told = []
    with pytest.raises(NotImportedError):
        workshop.import_folder(tmp_path / "other", lambda effect: told.append(effect))
    assert effect_in_words(told[0]) == "It replaces what was typed in 1 part."


def test_the_command_asks_and_takes_back(workshop, folder, small_copy, capsys):
    workshop.close()
    code, said = run(capsys, "import", folder, "--database", small_copy)
    assert code == 2 and "This removes 3 parts" in said and "--yes" in said
    assert run(capsys, "import", folder, "--yes", "--database", small_copy)[0] == 0
    code, said = run(capsys, "import", "--undo", "--database", small_copy)
    assert code == 0 and "Took the import of “small_world” back" in said
    code, said = run(capsys, "import", "--database", small_copy)
    assert code == 2 and "Name the folder" in said


def test_an_edit_that_is_undone_is_no_day_of_prices_and_keeps_the_origin(workshop):
    world = workshop.catalogue().described
    case, imports = world.by_kind["case"][0], workshop.imports()
    with workshop.database.writing() as session:
        edit = catalogue_edits.revise(
            session, {("case", case.id): replace(case, volume_l=99.0)}, "typed"
        )
    with workshop.database.writing() as session:
        catalogue_edits.undo_edit(session, edit)
    assert workshop.catalogue().parts[case.id].volume_l == case.volume_l
    assert workshop.imports() == imports and not origin(workshop, "case", case.id)
    with pytest.raises(ConflictError):
        workshop.undo_import()
