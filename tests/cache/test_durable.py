"""Answers that outlive a start: told by their content alone, and never in the way."""

import os
import sqlite3
import subprocess
import sys
from contextlib import closing
from dataclasses import replace
from datetime import date
from decimal import Decimal
from functools import partial
from threading import Thread

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests import small
from wattmetron.cache.catalogue_cache import studied
from wattmetron.cache.durable import digest, stored
from wattmetron.cli.serving import _workshop
from wattmetron.core.game_fit.informed import informed_game
from wattmetron.store.stored_answers import LARGEST_BYTES, StoredAnswers
from wattmetron.workshop.warming import warm
from wattmetron.workshop.workshop import Workshop

PLAIN = st.one_of(
    st.none(), st.booleans(), st.integers(), st.floats(allow_nan=False), st.text(max_size=5)
)
VALUES = st.recursive(
    PLAIN,
    lambda inner: st.one_of(
        st.lists(inner, max_size=3).map(tuple), st.dictionaries(st.text(max_size=3), inner)
    ),
    max_leaves=8,
)


def copied(value):
    """The same content in other objects, mappings in another order."""
    if isinstance(value, dict):
        return {key: copied(value[key]) for key in reversed(list(value))}
    if isinstance(value, tuple):
        return tuple(map(copied, value))
    return "".join(list(value)) if isinstance(value, str) else value


def same(one, other) -> bool:
    """Equal, and of the same types all through: 1, 1.0 and True are three things."""
    if type(one) is not type(other):
        return False
    if isinstance(one, dict):
        return one.keys() == other.keys() and all(same(one[key], other[key]) for key in one)
    if isinstance(one, tuple):
        return len(one) == len(other) and all(map(same, one, other))
    return repr(one) == repr(other)


@given(VALUES, VALUES)
def test_a_digest_is_of_the_content_alone(one, other):
    assert digest(one) == digest(copied(one))
    assert (digest(one) == digest(other)) == same(one, other)


@pytest.mark.parametrize(
    ("one", "other"),
    [
        (np.array([1.0, 2.0]), np.array([[1.0, 2.0]])),
        (np.array([1, 2]), np.array([1.0, 2.0])),
        (date(2026, 1, 2), date(2026, 2, 1)),
        (Decimal("1.0"), Decimal("1.00")),
        (("ab", "c"), ("a", "bc")),
        (frozenset({"a"}), frozenset({"b"})),
    ],
)
def test_what_differs_has_another_digest(one, other):
    assert digest(one) != digest(other) and digest(one) == digest(one)


def test_what_has_no_content_is_refused():
    with pytest.raises(TypeError, match="no content"):
        digest((1, lambda: 2))


def test_another_process_comes_to_the_same_digest():
    """Though the order of sets of words differs from process to process."""
    code = "from wattmetron.cache.durable import digest; print(digest({'a', 'bee', 'sea', 'dee'}))"
    told = {
        subprocess.run(
            [sys.executable, "-c", code],
            capture_output=True,
            text=True,
            check=True,
            env={**os.environ, "PYTHONHASHSEED": str(seed)},
        ).stdout
        for seed in (1, 2, 3)
    }
    assert len(told) == 1


def test_games_are_fitted_once_and_found_again_after_a_start(tmp_path, monkeypatch):
    answers = tmp_path / "answers"
    described = small.described()
    game_ids = list(described.games)
    fresh = [informed_game(studied(described), game_id) for game_id in game_ids]
    first = studied(described, StoredAnswers(answers))
    assert [informed_game(first, game_id) for game_id in game_ids] == fresh
    monkeypatch.setattr("wattmetron.core.game_fit.informed.informed", None)
    again = studied(described, StoredAnswers(answers))
    assert [informed_game(again, game_id) for game_id in game_ids] == fresh
    changed = next(result for result in described.results.values() if result.items)
    item = replace(changed.items[0], average_fps=changed.items[0].average_fps + 1)
    other = replace(changed, items=(item, *changed.items[1:]))
    results = {
        key: other if value is changed else value for key, value in described.results.items()
    }
    anew = studied(replace(described, results=results), StoredAnswers(answers))
    with pytest.raises(TypeError):
        informed_game(anew, next(key for key, value in results.items() if value is other))


def test_the_store_is_bounded_and_the_least_recently_used_goes_first(tmp_path):
    answers = StoredAnswers(tmp_path / "answers", most_bytes=1000)
    for number in range(12):
        answers.put(str(number), bytes(100))
    left = [number for number in range(12) if answers.get(str(number))]
    assert left == list(range(12 - len(left), 12)) and 8 <= len(left) <= 10
    answers.put("large", bytes(LARGEST_BYTES + 1))
    assert answers.get("large") is None


@pytest.mark.parametrize("harm", ["garbage", "other tables", "a folder", "no folder"])
def test_without_a_file_answers_are_worked_out(tmp_path, harm, caplog):
    path = tmp_path / "answers"
    if harm == "garbage":
        path.write_bytes(b"no database at all" * 100)
    elif harm == "other tables":
        StoredAnswers(path)
        subprocess.run(
            [sys.executable, "-c", "import sqlite3, sys; c = sqlite3.connect(sys.argv[1]);"
             " c.execute('DROP TABLE answers'); c.execute('CREATE TABLE answers (x)')", path],
            check=True,
        )  # fmt: skip
    elif harm == "a folder":
        path.mkdir()
    else:
        path = tmp_path / "nowhere" / "answers"
    answers = StoredAnswers(path)
    assert [stored(answers, "sum", (1, 2), lambda: 3) for _ in range(2)] == [3, 3]
    assert "Answers are not stored" in caplog.text


def test_what_cannot_be_read_is_computed_anew_and_replaced(tmp_path):
    answers = StoredAnswers(tmp_path / "answers")
    asked = []

    def three():
        asked.append(1)
        return 3

    assert stored(answers, "sum", (1, 2), three) == 3
    (key,) = _keys(answers)
    answers.put(key, b"of another version")
    assert [stored(answers, "sum", (1, 2), three) for _ in range(2)] == [3, 3]
    assert len(asked) == 2
    assert stored(answers, "product", (1, 2), lambda: 2) == 2


def test_many_write_at_once(tmp_path):
    path = tmp_path / "answers"
    stores = [StoredAnswers(path) for _ in range(4)]

    def work(answers):
        for number in range(25):
            stored(answers, "square", (number,), partial(pow, number, 2))

    threads = [Thread(target=work, args=(answers,)) for answers in stores]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    for number in range(25):
        assert stored(stores[0], "square", (number,), lambda: None) == number * number


def _keys(answers: StoredAnswers) -> list[str]:
    from sqlalchemy import select

    from wattmetron.store.stored_answers import ANSWERS

    with answers._engine.connect() as connection:
        return list(connection.scalars(select(ANSWERS.c.key)))


def test_after_a_start_the_games_of_all_briefs_are_fitted(small_copy):
    workshop = Workshop(small_copy, studied)
    warm(workshop)
    keep = workshop.catalogue().keep
    wanted = {target.game_id for row in workshop.briefs() for target in row.plan.brief.targets}
    assert wanted and all(("informed", game_id) in keep for game_id in wanted)
    workshop.close()


def test_warming_an_empty_database_does_nothing(tmp_path):
    workshop = Workshop(tmp_path / "new.sqlite")
    warm(workshop)
    workshop.close()


def test_the_store_of_a_first_start_is_in_the_folder_that_the_database_makes(tmp_path, caplog):
    path = tmp_path / "new" / "home" / "own.sqlite"
    workshop = _workshop(path)
    workshop.load_demo(small.CATALOGUE, small.BRIEFS, lambda catalogue: [])
    warm(workshop)
    workshop.close()
    answers = path.with_name("own.sqlite-answers")
    assert _keys(StoredAnswers(answers)) and "not stored" not in caplog.text


def test_a_busy_store_is_asked_again_later(tmp_path, monkeypatch):
    monkeypatch.setattr("wattmetron.store.stored_answers.WAIT_S", 0.01)
    answers = StoredAnswers(tmp_path / "answers")
    with closing(sqlite3.connect(tmp_path / "answers")) as other:
        other.execute("BEGIN EXCLUSIVE")
        assert stored(answers, "sum", (1,), lambda: 1) == 1
        other.rollback()
    assert stored(answers, "sum", (1,), lambda: 1) == 1
    assert stored(answers, "sum", (1,), lambda: 2) == 1
