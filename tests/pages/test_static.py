"""Styles, scripts and fonts are kept by browsers for good, and what is sent is compressed."""

import re

import pytest

from wattmetron.shell.static_files import FOR_GOOD, STATIC, VERSION, _version, static

PACKED = {"accept-encoding": "gzip"}


def test_every_file_that_a_page_names_is_there_for_good(client):
    page = client.get("/briefs/1/frames").text
    named = set(re.findall(r'(?:src|href)="(/static/[^"]+)"', page))
    assert len(named) >= 7
    styles = [name for name in named if name.endswith(".css")]
    for sheet in styles:
        fonts = re.findall(r'url\("?([^"):]+\.woff2)', client.get(sheet).text)
        named |= {f"{sheet.rpartition('/')[0]}/{font}" for font in fonts}
    assert any(name.endswith(".woff2") for name in named)
    for name in named:
        answer = client.get(name)
        assert (answer.status_code, answer.headers["cache-control"]) == (200, FOR_GOOD), name


@pytest.mark.parametrize("address", ["/static/app.js", "/static/v-0123456789ab/app.js"])
def test_a_page_of_another_version_gets_what_there_is_and_does_not_keep_it(client, address):
    answer = client.get(address)
    assert answer.content == (STATIC / "app.js").read_bytes()
    assert answer.headers["cache-control"] == "no-cache"


@pytest.mark.parametrize(
    "address",
    ["/static/none.js", f"/static/{VERSION}/none.js", f"/static/{VERSION}/../../pages.py",
     f"/static/{VERSION}/%2e%2e/pages.py", "/static/v-0123456789ab/v-0123456789ab/app.js"],
)  # fmt: skip
def test_nothing_else_is_served(client, address):
    assert client.get(address).status_code == 404


def test_the_version_is_that_of_what_the_files_hold(tmp_path):
    (tmp_path / "a.js").write_text("1")
    first = _version(tmp_path)
    assert first == _version(tmp_path)
    (tmp_path / "a.js").write_text("2")
    assert _version(tmp_path) != first
    assert static("app.css").startswith(f"/static/{VERSION}/")


def test_pages_scripts_and_data_are_compressed_where_a_browser_takes_it(client):
    for address in ("/briefs/1/frames", "/games", static("app.css"), "/api/v1/openapi.json"):
        packed, plain = (
            client.get(address, headers=headers) for headers in (PACKED, {"accept-encoding": ""})
        )
        assert packed.headers["content-encoding"] == "gzip", address
        assert "content-encoding" not in plain.headers, address
        assert int(packed.headers["content-length"]) < len(plain.content) / 2, address
        assert "accept-encoding" in packed.headers["vary"].lower(), address
    font = next(STATIC.glob("fonts/text-latin.woff2"))
    answer = client.get(static(f"fonts/{font.name}"), headers=PACKED)
    assert "content-encoding" not in answer.headers
