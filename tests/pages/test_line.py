"""Long computations wait in line and hold nobody up; what nobody waits for any more is not
begun.
"""

import http.client
import threading
import time
from collections.abc import Callable
from urllib.error import HTTPError
from urllib.request import Request, urlopen

import pytest
from fastapi import APIRouter, FastAPI
from fastapi import Request as WebRequest

from tests.site import Server
from wattmetron.cache.cache import Keeper
from wattmetron.cache.engines import InPlace
from wattmetron.core.keep import Computation
from wattmetron.shell.computation_queue import ComputationQueue, PatientRoute
from wattmetron.shell.error_pages import answer_errors
from wattmetron.shell.pages import asks_for_part

PATIENT_S = 20
WAITS = "Working it out"


class Narrow(Server):
    """A server that works out one question at a time, each as long as it is not let go."""

    def __init__(self) -> None:
        super().__init__()
        self.begun, self.go, self.fails, self.changes = [], threading.Event(), False, 0
        self.keep, self.line = Keeper(), ComputationQueue(InPlace(1))
        router = APIRouter(route_class=PatientRoute)
        router.add_api_route("/long/{number}", self.long)
        router.add_api_route("/short", lambda: "short")
        app = FastAPI()
        app.state.line = self.line
        app.include_router(router)
        answer_errors(app)
        self.run(app)

    def long(self, number: int, request: WebRequest) -> str:
        answer = self.keep.answer(Computation(work_out, (number, self.changes)), self)
        return f"{answer} in place" if asks_for_part(request) else answer

    def ask(self, number: int) -> http.client.HTTPConnection:
        """A request that stays open."""
        connection = http.client.HTTPConnection("127.0.0.1", self.port)
        connection.request("GET", f"/long/{number}")
        return connection

    def navigate(self, path: str) -> str:
        """What a browser is shown."""
        request = Request(f"{self.url}{path}", headers={"sec-fetch-mode": "navigate"})
        return urlopen(request).read().decode()

    def look_again(self, path: str) -> str:
        """What the page that waits is answered."""
        request = Request(f"{self.url}{path}", headers={"hx-request": "true"})
        return urlopen(request).read().decode()

    def comes_back(self, look: Callable[[str], str], path: str) -> str:
        """What turns up first in place of the page that waits."""
        for _ in range(PATIENT_S):
            if WAITS not in (shown := look(path)):
                return shown
        raise AssertionError("it waits for ever")

    def leave_an_answer(self, path: str) -> None:
        """A browser has looked, has not yet come back, and its answer is there."""
        ended = self.line.ended
        assert WAITS in self.navigate(path)
        self.go.set()
        until(lambda: self.line.ended > ended)


def work_out(server: Narrow, number: int, changes: int) -> str:
    server.begun.append(number)
    assert server.go.wait(PATIENT_S)
    if server.fails:
        raise RuntimeError("it did not work out")
    return f"answer {number}" + changes * " changed"


@pytest.fixture
def narrow():
    server = Narrow()
    yield server
    server.go.set()
    server.stop()


def until(condition):
    end = time.monotonic() + PATIENT_S
    while not condition():
        assert time.monotonic() < end, "nothing happened"
        time.sleep(0.02)


def test_short_answers_come_while_long_ones_wait(narrow):
    waiting = [narrow.ask(1)]
    until(lambda: narrow.line.running == 1)
    waiting.append(narrow.ask(2))
    until(lambda: narrow.line.waiting == 1)
    assert urlopen(f"{narrow.url}/short").read() == b'"short"'
    assert narrow.begun == [1]
    narrow.go.set()
    assert [own.getresponse().read() for own in waiting] == [b'"answer 1"', b'"answer 2"']


def test_no_more_are_begun_at_once_than_may_be(narrow):
    waiting = [narrow.ask(number) for number in (1, 2, 3)]
    until(lambda: narrow.line.waiting == 2)
    assert len(narrow.begun) == narrow.line.running == 1
    narrow.go.set()
    assert [own.getresponse().status for own in waiting] == [200, 200, 200]
    assert sorted(narrow.begun) == [1, 2, 3]


def test_one_place_for_all_that_ask_the_same(narrow):
    waiting = [narrow.ask(1) for _ in range(4)]
    until(lambda: narrow.line.running == 1)
    time.sleep(0.1)
    narrow.go.set()
    assert {own.getresponse().read() for own in waiting} == {b'"answer 1"'}
    assert narrow.begun == [1]


def test_what_nobody_waits_for_any_more_is_not_begun(narrow):
    first = narrow.ask(1)
    until(lambda: narrow.line.running == 1)
    gone = narrow.ask(2)
    until(lambda: narrow.line.waiting == 1)
    gone.close()
    time.sleep(0.6)
    narrow.go.set()
    assert first.getresponse().status == 200
    until(lambda: narrow.line.given_up == 1)
    assert narrow.begun == [1]


def test_a_browser_is_told_how_many_come_first_and_finds_its_answer_later(narrow):
    first = narrow.ask(1)
    until(lambda: narrow.line.running == 1)
    shown = narrow.navigate("/long/2?x=1")
    assert "1 other question comes first" in shown
    assert 'hx-get="/long/2?x=1"' in shown
    narrow.go.set()
    assert first.getresponse().status == 200
    until(lambda: narrow.navigate("/long/2?x=1") == '"answer 2"')


def test_a_browser_that_is_gone_gives_its_place_up(narrow, monkeypatch):
    monkeypatch.setattr("wattmetron.shell.computation_queue.GRACE_S", 0.1)
    first = narrow.ask(1)
    until(lambda: narrow.line.running == 1)
    assert "comes first" in narrow.navigate("/long/2")
    time.sleep(0.3)
    narrow.go.set()
    assert first.getresponse().status == 200
    until(lambda: narrow.line.given_up == 1)
    assert narrow.begun == [1]


def test_an_error_reaches_whoever_waits_and_is_not_kept(narrow):
    narrow.fails = True
    waiting = [narrow.ask(1) for _ in range(2)]
    until(lambda: narrow.line.running == 1)
    narrow.go.set()
    answers = [own.getresponse() for own in waiting]
    assert [answer.status for answer in answers] == [500, 500]
    assert all(b"nothing was changed" in answer.read() for answer in answers)
    narrow.fails = False
    assert urlopen(f"{narrow.url}/long/1").read() == b'"answer 1"'


def test_an_answer_too_large_to_be_kept_is_not_worked_out_twice(narrow):
    narrow.keep = Keeper(10)
    narrow.go.set()
    assert urlopen(f"{narrow.url}/long/1").read() == b'"answer 1"'
    assert narrow.begun == [1]


@pytest.mark.parametrize("most_bytes", [10, 1_000_000])
def test_a_page_that_waits_gets_what_it_can_put_in_place(narrow, most_bytes):
    narrow.keep = Keeper(most_bytes)
    narrow.leave_an_answer("/long/1")
    assert narrow.comes_back(narrow.look_again, "/long/1") == '"answer 1 in place"'
    assert narrow.navigate("/long/1") == '"answer 1"'


@pytest.mark.parametrize("most_bytes", [10, 1_000_000])
def test_an_answer_left_for_a_browser_is_forgotten_when_something_changes(narrow, most_bytes):
    narrow.keep = Keeper(most_bytes)
    narrow.leave_an_answer("/long/1")
    narrow.changes += 1
    assert narrow.comes_back(narrow.navigate, "/long/1") == '"answer 1 changed"'


def test_what_is_refused_is_no_error_of_the_line(narrow):
    with pytest.raises(HTTPError) as refused:
        urlopen(f"{narrow.url}/long/many")
    assert refused.value.code == 422
    assert narrow.line.ended == 0
