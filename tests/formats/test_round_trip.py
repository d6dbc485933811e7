"""Whatever texts the catalogue holds, an export is read again as it was."""

from dataclasses import replace

from hypothesis import example, given, settings
from hypothesis import strategies as st

from wattmetron.core.values.text import clean
from wattmetron.demo import CATALOGUE
from wattmetron.formats.catalogue_folder import (
    catalogue_files,
    parse_catalogue,
    read_catalogue,
    write_catalogue,
)

WORLD = read_catalogue(CATALOGUE)
PART = next(part for part in WORLD.by_kind["case"])
GAME = next(iter(WORLD.games.values()))
SMALL = replace(
    WORLD,
    parts={PART.id: PART},
    offers=tuple(offer for offer in WORLD.offers if offer.part_id == PART.id)[:1],
    games={GAME.id: GAME},
    published={GAME.id: WORLD.published[GAME.id]} if GAME.id in WORLD.published else {},
    results={},
    charts={},
    named={},
)
TEXTS = st.text(max_size=60).map(clean).map(str.strip).filter(bool)


@settings(max_examples=150)
@given(TEXTS, TEXTS, TEXTS)
@example("a\rb", '"quoted", and\nbroken', "'=1+1")
@example("-5", "\ttab", "\ufeffmark")
def test_random_texts_survive_an_export(model, maker, shop):
    part = replace(PART, model=model, maker=maker, notes=shop)
    offers = tuple(replace(offer, shop=shop) for offer in SMALL.offers)
    game = replace(GAME, name=model)
    catalogue = replace(SMALL, parts={part.id: part}, offers=offers, games={game.id: game})
    files = {name: text.encode() for name, text in catalogue_files(catalogue).items()}
    again = parse_catalogue(files.get)
    assert again.parts == catalogue.parts
    assert again.offers == catalogue.offers
    assert again.games == catalogue.games


@settings(max_examples=60)
@given(st.text(max_size=60))
@example("a\x00b")
def test_texts_from_before_are_exported_readable(text):
    part = replace(PART, notes=text)
    files = {
        name: text.encode(errors="replace")
        for name, text in catalogue_files(replace(SMALL, parts={part.id: part})).items()
    }
    assert parse_catalogue(files.get).parts[part.id].notes == clean(text)


def test_an_export_that_fails_leaves_the_folder_as_it_was(tmp_path, monkeypatch):
    import pytest

    folder = tmp_path / "mine"
    write_catalogue(SMALL, folder)
    (folder / "letter.txt").write_text("mine")
    before = {path.name: path.read_bytes() for path in folder.iterdir()}
    full = iter(range(100))

    def write(path, text):
        if next(full) == 5:
            raise OSError(28, "No space left on device")
        path.write_text(text)

    monkeypatch.setattr("wattmetron.formats.catalogue_folder._write_through", write)
    with pytest.raises(OSError, match="No space"):
        write_catalogue(WORLD, folder)
    assert {path.name: path.read_bytes() for path in folder.iterdir()} == before
    assert [path.name for path in tmp_path.iterdir()] == ["mine"]
