"""Right together: eight threads that share cold tables get what one gets alone."""

import random
import sys
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import pytest

from tests.core.questions import question
from tests.extent import exhaustive, extent
from wattmetron.cache.cache import Keeper
from wattmetron.core.balance.pairs import pairs_map
from wattmetron.core.balance.part_price_limits import price_limit
from wattmetron.core.search.frontier import frontier
from wattmetron.core.search.problem import scenes_for
from wattmetron.core.search.proposal import BAND, propose
from wattmetron.places.assessment.assess import assess

WORLDS = extent(3, 10)
AMOUNTS = range(0, 57_000, 3_000)


@pytest.fixture
def restless():
    """Threads take turns five times more often than usual."""
    usual = sys.getswitchinterval()
    sys.setswitchinterval(usual / 5)
    yield
    sys.setswitchinterval(usual)


def most_frames(catalogue, brief, kept):
    return propose(catalogue, brief, "most frames", kept)


def least_money(catalogue, brief, kept):
    return propose(catalogue, brief, "least money", kept)


def whole_frontier(catalogue, brief, kept):
    found = frontier(scenes_for(catalogue, brief, kept))
    return found.steps, found.gains


def map_of_pairings(catalogue, brief, kept):
    return pairs_map(scenes_for(catalogue, brief, kept), brief.budget_high_minor, BAND)


def limit_and_frames(catalogue, brief, kept):
    answer = propose(catalogue, brief, "most frames", kept)
    part = catalogue.by_kind["memory"][0]
    limit = price_limit(catalogue, brief, kept, part, answer, BAND)
    return limit, answer.build and assess(catalogue, brief, answer.build).estimates


ASKED = {
    most_frames: AMOUNTS,
    least_money: AMOUNTS,
    whole_frontier: AMOUNTS,
    map_of_pairings: AMOUNTS,
    limit_and_frames: AMOUNTS[:4],
}


@exhaustive
def test_many_questions_from_eight_threads(restless):
    worlds = [question(seed) for seed in range(WORLDS)]
    questions = [
        (n, ask, more) for n in range(WORLDS) for ask, amounts in ASKED.items() for more in amounts
    ]
    assert len(questions) == extent(240, 800)
    alone = _answers(worlds, questions, threads=1)
    random.Random(1).shuffle(questions)
    assert _answers(worlds, questions, threads=8) == alone


def _answers(worlds, questions, threads):
    """By question what is answered, in full figures, from tables that are cold at the start."""
    cold = [(catalogue.kept_by(Keeper()), brief, kept) for catalogue, brief, kept in worlds]

    def answer(asked):
        number, ask, more = asked
        catalogue, brief, kept = cold[number]
        richer = replace(brief, budget_high_minor=brief.budget_high_minor + more)
        return repr(ask(catalogue, richer, kept))

    with ThreadPoolExecutor(threads) as pool:
        return dict(zip(questions, pool.map(answer, questions), strict=True))
