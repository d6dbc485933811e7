"""A hundred questions take no more memory than the study may hold."""

import gc
import multiprocessing
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from pathlib import Path

from tests.core.questions import question
from tests.extent import thorough
from wattmetron.cache.cache import Count, Keeper
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.balance import map_of, split_of, tables
from wattmetron.places.proposal.proposals import answer

MOST_BYTES = 2_000_000
PAGE_BYTES = 4096
LOOSE_BYTES = 24_000_000
"""What the allocator may hold back of what was let go."""


def ask(catalogue, brief, kept):
    """What a Balance page asks."""
    told = answer(catalogue, brief, kept, "most frames")
    now = assess(catalogue, brief, told.proposal.build or kept)
    split_of(catalogue, now)
    map_of(tables(catalogue, brief, kept), ())


def resident_bytes() -> int:
    gc.collect()
    return int(Path("/proc/self/statm").read_text().split()[1]) * PAGE_BYTES


def grown_by_asking(times: int) -> tuple[Count, int]:
    """The study after so many questions, and the bytes that the process grew after the first."""
    catalogue, brief, kept = question(2)
    keeper = Keeper(MOST_BYTES)
    asked, before = catalogue.kept_by(keeper), 0
    for n in range(times):
        ask(asked, replace(brief, memory_gb=8.0 + n, budget_high_minor=90_000 + 100 * n), kept)
        assert keeper.count.held_bytes <= MOST_BYTES
        before = before or resident_bytes()
    return keeper.count, resident_bytes() - before


@thorough
def test_a_hundred_questions_stay_within_bounds():
    """Asked in a process of its own: what other tests left behind is not counted."""
    with ProcessPoolExecutor(1, multiprocessing.get_context("spawn")) as alone:
        count, grown_bytes = alone.submit(grown_by_asking, 100).result()
    assert count.misses > 600
    assert count.held_bytes > MOST_BYTES / 2
    assert grown_bytes < MOST_BYTES + LOOSE_BYTES
