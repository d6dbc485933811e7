"""Whatever texts the catalogue holds, an export is read again as it was."""

from dataclasses import replace
from functools import cache

from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.demo import described
from tests.extent import exhaustive, extent
from wattmetron.core.values.text import clean
from wattmetron.formats.catalogue_folder import parse_catalogue
from wattmetron.formats.catalogue_writing import catalogue_files, write_catalogue


@cache
def a_case():
    return next(part for part in described().by_kind["case"])


@cache
def a_game():
    return next(iter(described().games.values()))


@cache
def small():
    return replace(
        described(),
        parts={a_case().id: a_case()},
        offers=tuple(offer for offer in described().offers if offer.part_id == a_case().id)[:1],
        games={a_game().id: a_game()},
        published={a_game().id: described().published[a_game().id]}
        if a_game().id in described().published
        else {},
        results={},
        charts={},
        named={},
    )


TEXTS = st.text(max_size=60).map(clean).map(str.strip).filter(bool)


@exhaustive
@settings(max_examples=extent(50, 600))
@given(TEXTS, TEXTS, TEXTS)
@example("a\rb", '"quoted", and\nbroken', "'=1+1")
@example("-5", "\ttab", "\ufeffmark")
def test_random_texts_survive_an_export(model, maker, shop):
    part = replace(a_case(), model=model, maker=maker, notes=shop)
    offers = tuple(replace(offer, shop=shop) for offer in small().offers)
    game = replace(a_game(), name=model)
    catalogue = replace(small(), parts={part.id: part}, offers=offers, games={game.id: game})
    files = {name: text.encode() for name, text in catalogue_files(catalogue).items()}
    again = parse_catalogue(files.get)
    assert again.parts == catalogue.parts
    assert again.offers == catalogue.offers
    assert again.games == catalogue.games


@exhaustive
@settings(max_examples=extent(20, 240))
@given(st.text(max_size=60))
@example("a\x00b")
def test_texts_from_before_are_exported_readable(text):
    part = replace(a_case(), notes=text)
    files = {
        name: text.encode(errors="replace")
        for name, text in catalogue_files(replace(small(), parts={part.id: part})).items()
    }
    assert parse_catalogue(files.get).parts[part.id].notes == clean(text)


def test_an_export_that_fails_leaves_the_folder_as_it_was(tmp_path, monkeypatch):
    import pytest

    folder = tmp_path / "mine"
    write_catalogue(small(), folder)
    (folder / "letter.txt").write_text("mine")
    before = {path.name: path.read_bytes() for path in folder.iterdir()}
    full = iter(range(100))

    def write(path, text):
        if next(full) == 5:
            raise OSError(28, "No space left on device")
        path.write_text(text)

    monkeypatch.setattr("wattmetron.formats.catalogue_writing._write_through", write)
    with pytest.raises(OSError, match="No space"):
        write_catalogue(described(), folder)
    assert {path.name: path.read_bytes() for path in folder.iterdir()} == before
    assert [path.name for path in tmp_path.iterdir()] == ["mine"]
