"""The application with processes beside it that work answers out: as it is without, and tidy."""

import http.client
import json
import os
import signal
import subprocess
import time

import psutil
import pytest

from tests.cache.test_engines import DaskHere, connected
from tests.conftest import copied
from tests.extent import exhaustive, extent, thorough
from tests.strain.load import Server
from wattmetron.api.app import make_app
from wattmetron.workshop.workshop import Workshop

PAGES = (
    "/briefs/1/frames?propose=most&whole=1",
    "/briefs/99/balance?whole=1",
    "/briefs/1/balance?whole=1",
)
JSON = {"content-type": "application/json"}


@pytest.fixture(scope="module")
def server(tmp_path_factory, small_database):
    folder = tmp_path_factory.mktemp("workers")
    started = Server(folder, database=copied(small_database, folder))
    yield started
    started.stop()


def ask(server, path, body=None, **headers):
    connection = http.client.HTTPConnection("127.0.0.1", server.port, timeout=60)
    connection.request("POST" if body else "GET", path, body, {**JSON, **headers})
    answer = connection.getresponse()
    return answer.status, answer.read().decode(), dict(answer.getheaders())


def children(server):
    """The workers: forked by a process that does nothing else."""
    processes = psutil.Process(server.process.pid).children()
    return [worker for process in processes for worker in process.children()]


def question(server, budget):
    brief = json.loads(ask(server, "/api/v1/briefs/1")[1])["brief"]
    brief["budget"]["high"] = f"{budget}.00"
    return json.dumps({"brief": brief})


@exhaustive
def test_what_workers_answer_is_what_the_application_answers(server, workshop):
    from fastapi.testclient import TestClient

    alone = TestClient(make_app(workshop), base_url=f"http://127.0.0.1:{server.port}")
    asked = question(server, 1717)
    status, text, headers = ask(server, "/api/v1/propose", asked)
    own = alone.post("/api/v1/propose", content=asked, headers=JSON)
    assert (status, json.loads(text)) == (200, own.json())
    assert headers["content-security-policy"] == own.headers["content-security-policy"]
    for path in PAGES[: extent(2, 3)]:
        for hx in ({}, {"HX-Request": "true"}):
            status, text, headers = ask(server, path, **hx)
            own = alone.get(path, headers=hx)
            assert (status, text) == (own.status_code, own.text)
            assert headers.get("hx-retarget") == own.headers.get("hx-retarget")
    busy = [child.cpu_times().user for child in children(server)]
    assert len(busy) == os.cpu_count() and max(busy) > 0.1


def test_a_change_is_seen_by_every_worker(server):
    before = ask(server, "/briefs/1/balance")[1]
    version = json.loads(ask(server, "/api/v1/briefs/1")[1])["version"]
    form = f"version={version}&view=brief&budget_high=2345"
    kind = "application/x-www-form-urlencoded"
    assert ask(server, "/briefs/1/edit", form, **{"content-type": kind})[0] in (200, 303)
    after = ask(server, "/briefs/1/balance")[1]
    assert "2,345" in after and "2,345" not in before


def propose_all(server, budgets):
    for budget in budgets:
        status, text, _ = ask(server, "/api/v1/propose", question(server, budget))
        assert status == 200 and json.loads(text)["build"]


def test_workers_that_are_gone_are_replaced(server):
    before = {child.pid for child in children(server)}
    for child in children(server):
        child.send_signal(signal.SIGKILL)
    time.sleep(0.3)
    propose_all(server, (1801, 1802, 1803))
    after = {child.pid for child in children(server)}
    assert len(after) == len(before) == os.cpu_count() and not before & after


@thorough
def test_without_the_process_that_forks_them_another_does(tmp_path, small_copy):
    started = Server(tmp_path, database=small_copy)
    for process in psutil.Process(started.process.pid).children(recursive=True):
        process.send_signal(signal.SIGKILL)
    time.sleep(0.3)
    propose_all(started, (1811, 1812))
    started.stop()


@thorough
def test_no_worker_outlives_a_server_that_was_killed(tmp_path, small_copy):
    started = Server(tmp_path, database=small_copy)
    ask(started, "/briefs/1/balance")
    left = children(started)
    assert left
    started.process.kill()
    started.process.wait()
    gone, alive = psutil.wait_procs(left, timeout=10)
    assert not alive and len(gone) == os.cpu_count()


def test_a_workshop_goes_on_after_it_was_closed(small_copy):
    opened = Workshop(small_copy)
    name = opened.open(1).plan.brief.name
    opened.close()
    opened.reopen()
    assert opened.open(1).plan.brief.name == name
    opened.close()


@thorough
def test_it_ends_quietly_when_it_is_interrupted(tmp_path, small_copy):
    started = Server(tmp_path, stderr=subprocess.PIPE, database=small_copy)
    ask(started, "/briefs/1/balance")
    left = children(started)
    started.process.send_signal(signal.SIGINT)
    _, said = started.process.communicate(timeout=20)
    assert said == "" and started.process.returncode == 0
    assert not psutil.wait_procs(left, timeout=10)[1]


@thorough
def test_a_dask_cluster_answers_as_the_application_alone(tmp_path, small_database, workshop):
    from fastapi.testclient import TestClient

    dask = DaskHere()
    connected(dask).close()
    folder = tmp_path / "served"
    folder.mkdir()
    started = Server(folder, database=copied(small_database, folder), compute=dask.address)
    alone = TestClient(make_app(workshop), base_url=f"http://127.0.0.1:{started.port}")
    for path in PAGES:
        assert ask(started, path)[:2] == ((own := alone.get(path)).status_code, own.text)
    assert json.loads(ask(started, "/healthz")[1])["line"]["engine"] == "cluster"
    started.stop()
    dask.stop()
