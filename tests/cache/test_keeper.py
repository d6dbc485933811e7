"""What is kept: computed once however many ask, bounded in bytes, shared only where it may be."""

import sys
import threading
from concurrent.futures import ThreadPoolExecutor
from types import SimpleNamespace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.demo import described
from wattmetron.cache.cache import Keeper
from wattmetron.cache.must_wait import MustWait, Task, hurried
from wattmetron.cache.weight import weight
from wattmetron.core.game_fit import informed
from wattmetron.core.game_fit.informed import informed_game, learnt_of
from wattmetron.core.keep import Computation
from wattmetron.core.lazy import GrowingRows, Later, NumberedRows

THREADS = 8


def at_once(work, count=THREADS):
    """The results of threads that begin together."""
    gate = threading.Barrier(count)

    def begin(number):
        gate.wait()
        return work(number)

    with ThreadPoolExecutor(count) as pool:
        return list(pool.map(begin, range(count)))


def test_one_computation_however_many_ask_at_once():
    keeper, made, go = Keeper(), [], threading.Event()

    def compute():
        go.wait(0.2)
        made.append(threading.get_ident())
        return object()

    answers = at_once(lambda _: keeper.once(("question",), compute))
    assert len(made) == 1
    assert len(set(map(id, answers))) == 1
    assert keeper.count.misses == 1
    assert keeper.count.hits == THREADS - 1


def test_an_error_reaches_everybody_and_is_not_kept():
    keeper, made = Keeper(), []

    def fail():
        made.append(1)
        threading.Event().wait(0.1)
        raise ValueError("no")

    def ask(_):
        with pytest.raises(ValueError, match="no"):
            keeper.once(("question",), fail)
        return True

    assert all(at_once(ask))
    assert keeper.once(("question",), lambda: 7) == 7


def inner(about):
    return 2


def test_who_is_in_a_hurry_comes_back_and_spoils_nothing_for_the_others():
    keeper, begun = Keeper(), threading.Event()
    about = SimpleNamespace(keep=keeper)

    def outer():
        begun.set()
        threading.Event().wait(0.05)
        return keeper.answer(Computation(inner), about) + 1

    def ask(number):
        if number:
            begun.wait(1)
            return keeper.once(("outer",), outer)
        with hurried(), pytest.raises(MustWait) as need:
            keeper.once(("outer",), outer)
        return need.value.tasks

    assert at_once(ask, 3) == [(Task(Computation(inner), about),), 3, 3]
    with hurried():
        assert keeper.once(("outer",), outer) == 3


def test_a_computation_may_ask_for_itself_in_another_guise():
    keeper = Keeper()
    assert keeper.once(("a",), lambda: keeper.once(("a",), lambda: 1) + 1) == 2


@given(st.lists(st.tuples(st.integers(0, 30), st.integers(1, 4000)), max_size=80))
def test_never_more_bytes_than_agreed_and_never_a_wrong_answer(questions):
    keeper = Keeper(10_000)
    for key, size in questions:
        answer = keeper.once((key, size), lambda size=size: np.zeros(size, dtype=np.int8))
        assert answer.size == size
        assert keeper.count.held_bytes <= 10_000


def test_the_least_recently_used_goes_first():
    keeper = Keeper(3 * weight(np.zeros(1000)).nbytes)
    for key in ("a", "b", "c"):
        keeper.once((key,), lambda: np.zeros(1000))
    keeper.once(("a",), lambda: np.zeros(1000))
    keeper.once(("d",), lambda: np.zeros(1000))
    held = [key for key in "abcd" if (key,) in keeper]
    assert held == ["a", "c", "d"]


class Growing:
    grows = True

    def __init__(self):
        self.rows = np.zeros(10)

    @property
    def nbytes(self):
        return self.rows.nbytes


def test_what_grows_is_weighed_again():
    keeper = Keeper(100_000)
    value = keeper.once(("table",), Growing)
    value.rows = np.zeros(5000)
    keeper.once(("table",), Growing)
    assert keeper.count.held_bytes == 40_000
    value.rows = np.zeros(50_000)
    assert all(keeper.once(("table",), Growing) is value for _ in range(3))
    assert keeper.count.entries == 0


def test_a_supposed_catalogue_shares_by_name_and_keeps_the_rest_to_itself():
    keeper = Keeper()
    branch = keeper.branch(frozenset({"games"}))
    assert branch.once(("games",), lambda: 1) == keeper.once(("games",), lambda: 2) == 1
    assert branch.once(("prices",), lambda: 1) == 1
    assert keeper.once(("prices",), lambda: 2) == 2


def test_a_value_that_comes_later_is_made_once():
    made = []
    later = Later(lambda: made.append(1) or len(made))
    assert at_once(lambda _: later()) == [1] * THREADS


def test_numbered_rows_under_many_hands_are_what_one_computes():
    rng = np.random.default_rng(5)
    asked = [rng.integers(0, 3000, 400) for _ in range(64)]

    def squares(keys):
        assert np.unique(keys).size == keys.size
        return np.stack((keys, keys**2), axis=1)

    for most in (1 << 17, 500):
        rows = NumberedRows(3000, 2, squares, most)
        answers = at_once(lambda n, rows=rows: [rows[keys] for keys in asked[n::THREADS]])
        for n, own in enumerate(answers):
            for keys, found in zip(asked[n::THREADS], own, strict=True):
                assert (found == np.stack((keys, keys**2), axis=1)).all()
        assert rows.nbytes < 200_000


def test_growing_rows_are_extended_and_bounded():
    rows = GrowingRows(most=20)

    def longer(length):
        return lambda short: [(key, length) for key, _ in short]

    def ask(n):
        for turn in range(30):
            length = 1 + (n * turn) % 7
            keys = [(n + turn) % 9, turn % 5]
            found = rows.having(keys, lambda row, length=length: row[1] >= length, longer(length))
            assert [key for key, _ in found] == keys
            assert all(has >= length for _, has in found)
        return True

    assert all(at_once(ask))
    rows.having(list(range(100, 125)), lambda _: True, longer(1))
    assert len(rows) == 25
    rows.having([200], lambda _: True, longer(1))
    assert len(rows) <= 20


def test_weights_count_arrays_once_and_parts_not_at_all(demo_part):
    base = np.zeros(1000)
    assert 8000 <= weight((base, base, base[10:20])).nbytes < 8300
    assert weight((demo_part,) * 1000).nbytes < 8200
    assert weight({"a": [base.copy(), base.copy()]}).nbytes > 16_000


@pytest.fixture(scope="module")
def demo_part():
    from tests.worlds import World

    return World(1).kit(1)


def test_the_weight_of_what_is_long_is_close_though_a_sample_is_weighed():
    shared = np.zeros(50_000)
    rows = tuple((np.zeros(100 + n % 7), shared) for n in range(6000))
    every = sum(row[0].nbytes + sys.getsizeof(row) for row in rows)
    exact = every + shared.nbytes + sys.getsizeof(rows)
    assert weight(rows).nbytes == pytest.approx(exact, rel=0.05)


class Scene:
    """A value within which more is worked out."""

    def __init__(self) -> None:
        self.later = Later(lambda: np.zeros(10_000))


def test_what_is_worked_out_later_is_weighed_too():
    keeper = Keeper(100_000)
    keeper.once(("scene",), Scene).later()
    assert keeper.count.held_bytes < 8000
    keeper.once(("scene",), Scene)
    assert keeper.count.held_bytes > 80_000


def test_many_games_teach_in_shares_that_are_waited_for_together(monkeypatch):
    there = learnt_of(described().kept_by(Keeper()))
    monkeypatch.setattr(informed, "MOST_AT_ONCE", 0)
    monkeypatch.setattr(informed, "SHARE", 4)
    later = described().kept_by(Keeper())
    with hurried(), pytest.raises(MustWait) as waits:
        informed_game(later, next(iter(later.games)))
    shares = [each.computation.arguments[0] for each in waits.value.tasks]
    assert sum(shares, ()) == tuple(later.results) and len(shares) > 2
    assert learnt_of(later) == there
