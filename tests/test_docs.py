"""The pages about the code name files and folders that are there."""

import ast
import re
from pathlib import Path

import pytest

import wattmetron

SOURCE = Path(wattmetron.__file__).parent
DOCS = SOURCE.parent.parent / "docs"
ROOM = re.compile(r"`((?:core|cache|formats|store|places|shell|demo)(?:/\w+)*(?:\.py)?)`")


def test_every_room_is_described():
    said = set(ROOM.findall((DOCS / "architecture.md").read_text()))
    rooms = {
        str(path.parent.relative_to(SOURCE))
        for layer in ("core", "places")
        for path in (SOURCE / layer).rglob("*.py")
        if path.name != "__init__.py" and path.parent.name not in (layer, "pages")
    }
    assert rooms - said == set()


@pytest.mark.parametrize("page", ["architecture.md", "../CONTRIBUTING.md", "formats.md"])
def test_what_is_named_is_there(page):
    text = (DOCS / page).read_text()
    assert [name for name in ROOM.findall(text) if not (SOURCE / name).exists()] == []


def test_the_glossary_has_every_term():
    terms = {
        node.name
        for room in ("core", "cache", "formats", "store", "workshop", "places", "shell")
        for path in (SOURCE / room).rglob("*.py")
        if "pages" not in path.parts
        for node in ast.parse(path.read_text()).body
        if isinstance(node, ast.ClassDef) and not node.name.startswith("_")
    }
    listed = re.findall(r"^\| `(\w+)` \| \S", (DOCS / "glossary.md").read_text(), re.MULTILINE)
    assert set(listed) == terms, "run “make docs”"
