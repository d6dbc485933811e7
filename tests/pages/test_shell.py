"""What every page has: a sentence and a way back for errors, protection, health, the log of
requests.
"""

import html
import logging

import pytest
from fastapi.testclient import TestClient

from wattmetron.api.app import make_app
from wattmetron.workshop.workshop import Workshop


@pytest.mark.parametrize(
    ("ask", "status", "said"),
    [
        (lambda c: c.get("/no-such-page"), 404, "no such page"),
        (lambda c: c.get("/briefs/99/fit"), 404, "no such brief"),
        (lambda c: c.put("/briefs/1/fit"), 405, "does not take that kind of request"),
        (
            lambda c: c.post("/briefs/1/clear", headers={"origin": "http://elsewhere"}),
            403,
            "own pages only",
        ),
        (lambda c: c.post("/briefs", content=b"x" * 2_000_001), 413, "larger than 2 MB"),
        (
            lambda c: c.post("/briefs", content=(part for part in [b"x"])),
            411,
            "length of the request is missing",
        ),
        (lambda c: c.get("/parts?kind=teapot"), 422, "no kind of part called “teapot”"),
    ],
)
def test_an_error_is_a_sentence_with_a_way_back(client, ask, status, said):
    answer = ask(client)
    assert answer.status_code == status
    text = html.unescape(answer.text)
    assert said in text
    assert 'href="/briefs"' in text
    assert "default-src 'none'" in answer.headers["content-security-policy"]


def test_programs_are_told_in_json(client):
    answer = client.get("/api/v1/briefs/99")
    assert answer.status_code == 404
    assert "no such brief" in answer.json()["error"]


@pytest.fixture
def broken(workshop, monkeypatch):
    """An application in which looking a brief up fails."""

    def fail(*_):
        raise RuntimeError("the shelf fell down")

    monkeypatch.setattr(Workshop, "open", fail)
    return TestClient(
        make_app(workshop), base_url="http://127.0.0.1", raise_server_exceptions=False
    )


def test_the_unexpected_has_a_page_and_its_trace_in_the_log(broken, caplog):
    with caplog.at_level(logging.ERROR, "wattmetron"):
        answer = broken.get("/briefs/1/fit")
    assert answer.status_code == 500 and answer.headers["connection"] == "close"
    assert "nothing was changed" in answer.text
    assert "the shelf fell down" not in answer.text
    assert 'href="/briefs"' in answer.text
    assert "default-src 'none'" in answer.headers["content-security-policy"]
    (record,) = caplog.records
    assert "the shelf fell down" in str(record.exc_info[1])


def test_health_counts_what_is_kept_and_who_waits(client):
    assert client.get("/healthz").json()["study"] is None
    client.get("/briefs/1/fit")
    first = client.get("/healthz").json()
    client.get("/briefs/1/fit")
    again = client.get("/healthz").json()
    assert first["status"] == "ok"
    assert again["study"]["misses"] == first["study"]["misses"]
    assert again["study"]["hits"] > first["study"]["hits"]
    assert 0 < again["study"]["held_bytes"] <= again["study"]["most_bytes"]
    assert again["line"]["running"] == again["line"]["waiting"] == 0


def test_a_line_for_every_request_where_it_is_asked_for(client, caplog):
    client.get("/briefs/1/fit")
    assert not caplog.records
    with caplog.at_level(logging.INFO, "wattmetron.requests"):
        client.get("/briefs/1/fit?by=part")
    (line,) = [record.getMessage() for record in caplog.records]
    assert line.startswith("GET /briefs/1/fit 200 ")
    assert "misses" in line
