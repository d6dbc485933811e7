"""The pages about the code name files and folders that are there."""

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
