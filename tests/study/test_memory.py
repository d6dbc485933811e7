"""Two hundred questions take no more memory than the study may hold, as Python counts it."""

import gc
import tracemalloc
from dataclasses import replace

import pytest

from tests.core.questions import question
from wattmetron.services.advice.balance import map_of, split_of, tables
from wattmetron.services.advice.proposals import answer
from wattmetron.services.desk.assess import assess
from wattmetron.study.keeper import Keeper

MOST_BYTES = 2_000_000


@pytest.fixture
def traced():
    tracemalloc.start()
    yield
    tracemalloc.stop()


def ask(catalogue, brief, kept):
    """What a Balance page asks."""
    told = answer(catalogue, brief, kept, "most frames")
    now = assess(catalogue, brief, told.proposal.build or kept)
    split_of(catalogue, now)
    map_of(tables(catalogue, brief, kept), ())


def taken_bytes() -> int:
    gc.collect()
    return tracemalloc.get_traced_memory()[0]


def test_two_hundred_questions_stay_within_bounds(traced):
    catalogue, brief, kept = question(2)
    keeper = Keeper(MOST_BYTES)
    asked, before = catalogue.kept_by(keeper), taken_bytes()
    for n in range(200):
        ask(asked, replace(brief, memory_gb=8.0 + n, budget_high_minor=90_000 + 100 * n), kept)
        assert keeper.count.held_bytes <= MOST_BYTES
    assert keeper.count.misses > 1000
    assert keeper.count.held_bytes > MOST_BYTES / 2
    assert taken_bytes() - before < 2 * MOST_BYTES
