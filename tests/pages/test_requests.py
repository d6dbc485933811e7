"""Requests in forms that browsers seldom send, and what the log says of them."""

import signal
import subprocess

import pytest
import uvicorn

from tests.e2e.test_access import KINDS
from tests.strain.load import Server
from wattmetron.cli.commands import _parser
from wattmetron.cli.serving import settings_of
from wattmetron.shell.logged import MOST_LOGGED, logged_path


@pytest.mark.parametrize("address", [*KINDS[::4], "/briefs/999/frames", "/healthz"])
def test_head_is_answered_as_get_without_a_body(client, address):
    whole, head = client.get(address), client.head(address)
    assert (head.status_code, head.content) == (whole.status_code, b"")
    assert head.headers["content-security-policy"] == whole.headers["content-security-policy"]


@pytest.mark.parametrize(
    ("path", "logged"),
    [
        ("/briefs/1", "/briefs/1"),
        ("/x\n127.0.0.1 GET /forged 200", r"/x\n127.0.0.1 GET /forged 200"),
        ("/\x1b[31mred", r"/\x1b[31mred"),
        ("/h/secretkeyofalink", "/h/…"),
        ("/h/secretkeyofalink/as/txt", "/h/…/as/txt"),
        ("/" + "a" * 5000, "/" + "a" * (MOST_LOGGED - 1) + "…"),
    ],
)
def test_a_path_is_logged_on_one_line_without_secrets(path, logged):
    assert logged_path(path) == logged


def test_addresses_come_from_a_proxy_only_where_one_is_named():
    for more, trusted in (([], False), (["--behind-proxy"], True)):
        options = _parser(["serve"]).parse_args(["serve", *more])
        assert uvicorn.Config("x:y", **settings_of(options)).proxy_headers is trusted


def test_it_ends_with_nothing_wrong_when_it_is_told_to(tmp_path, small_copy):
    started = Server(tmp_path, stderr=subprocess.PIPE, database=small_copy)
    started.process.send_signal(signal.SIGTERM)
    _, said = started.process.communicate(timeout=20)
    assert (said, started.process.returncode) == ("", 0)
