"""Templates can be read: laid out by rule, no tag broken across lines."""

import re

import pytest
from tools.format_templates import JINJA, ROOT, laid_out

TEMPLATES = sorted(ROOT.rglob("*.html"))


@pytest.mark.parametrize("path", TEMPLATES, ids=lambda path: path.stem)
def test_a_template_is_laid_out_by_rule(path):
    assert laid_out(path.read_text()) == path.read_text(), "python -m tools.format_templates"


def test_no_tag_is_broken_across_lines():
    for path in TEMPLATES:
        # Where every space shows, tags are the one place for a line to end.
        text = re.sub(
            r'<pre.*?</pre>|<p class="lettertext">.*?</p>', "", path.read_text(), flags=re.S
        )
        bare = re.sub(JINJA, "x", text, flags=re.S)
        # A long text in a quoted value may have lines of its own; what is between values has none.
        bare = re.sub(r'"[^"]*"', '""', bare)
        assert not re.search(r"<[a-zA-Z][^<>]*\n", bare), path


def test_white_space_between_words_is_neither_made_nor_lost():
    source = "<p>{% if a %}one{% endif %}<b>two</b> three</p><ul><li>x</li></ul>\n"
    assert laid_out(source) == (
        "<p>\n  {% if a %}one{% endif %}<b>two</b> three\n</p>\n<ul>\n  <li>x</li>\n</ul>\n"
    )
