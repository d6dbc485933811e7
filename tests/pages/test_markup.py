"""Every kind of page as a strict parser reads it."""

import html5lib
import pytest

from tests.e2e.test_access import KINDS

FRAGMENTS = ("/briefs/8/balance", "/briefs/1/fit", "/games?brief=1", "/shops")


def faults(parser):
    """What the parser objects to, each once; drawings are XML that it reads as HTML."""
    return sorted({(code, str(more)) for _, code, more in parser.errors})


@pytest.mark.parametrize("address", KINDS)
def test_a_page_has_no_parse_error(client, address):
    answer = client.get(address)
    assert answer.status_code == 200
    parser = html5lib.HTMLParser()
    parser.parse(answer.text)
    assert faults(parser) == []


@pytest.mark.parametrize("address", FRAGMENTS)
def test_what_is_put_in_place_has_none(client, address):
    answer = client.get(address, headers={"HX-Request": "true"})
    parser = html5lib.HTMLParser()
    parser.parseFragment(answer.text)
    assert faults(parser) == []
