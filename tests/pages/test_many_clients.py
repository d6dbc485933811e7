"""Right together over HTTP: eight clients at once on cold tables get, byte for byte, what one
gets.
"""

import random
import sys
from concurrent.futures import ThreadPoolExecutor
from urllib.request import urlopen

import pytest

from tests.extent import thorough
from tests.site import Site

BRIEFS = (1,)
PAGES = (
    "/briefs/{}/brief",
    "/briefs/{}/brief?trust=1",
    "/briefs/{}/frames",
    "/briefs/{}/frames?propose=most",
    "/briefs/{}/frames?propose=least",
    "/briefs/{}/frames?swap=graphics",
    "/briefs/{}/frames?swap=processor",
    "/briefs/{}/frames?swap=supply",
    "/briefs/{}/frames?working=money",
    "/briefs/{}/frames?game=gable-row",
    "/briefs/{}/fit",
    "/briefs/{}/fit?propose=most",
    "/briefs/{}/balance",
    "/briefs/{}/balance?picture=1",
    "/briefs/{}/balance?prices=1",
    "/briefs/{}/assembly",
    "/briefs/{}/handout/as/txt",
    "/briefs/{}/buy",
    "/briefs/{}/find?q=reef",
    "/briefs/{}/steps",
    "/parts?kind=graphics&brief={}&sort=worth",
    "/parts?kind=supply&brief={}",
    "/parts/lowhum-level-750?brief={}",
    "/games?brief={}",
    "/games/hollow-meridian?brief={}",
)
QUESTIONS = [page.format(brief) for brief in BRIEFS for page in PAGES]


@pytest.fixture
def restless():
    """Threads take turns five times more often than usual."""
    usual = sys.getswitchinterval()
    sys.setswitchinterval(usual / 5)
    yield
    sys.setswitchinterval(usual)


def answers(path, asked: list[str], clients: int) -> list[bytes]:
    """The bytes of every answer, from a server that knows nothing at the start."""
    site = Site(path)
    try:
        with ThreadPoolExecutor(clients) as pool:
            return list(pool.map(lambda page: urlopen(site.url + page).read(), asked))
    finally:
        site.stop()


@thorough
def test_requests_eight_at_a_time(small_copy, restless):
    """Every question is asked twice."""
    alone = dict(zip(QUESTIONS, answers(small_copy, QUESTIONS, 1), strict=True))
    asked = [page for page in QUESTIONS for _ in range(2)]
    assert len(asked) == 50
    random.Random(4).shuffle(asked)
    together = zip(asked, answers(small_copy, asked, 8), strict=True)
    assert [page for page, answer in together if answer != alone[page]] == []
