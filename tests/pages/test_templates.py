"""Templates can be read: no line past 160 characters."""

from pathlib import Path

import wattmetron

ROOT = Path(wattmetron.__file__).parent
LONGEST = 160


def test_no_line_is_longer_than_a_screen_is_wide():
    long = [
        f"{path.relative_to(ROOT)}:{number}"
        for path in ROOT.rglob("*.html")
        for number, line in enumerate(path.read_text().splitlines(), 1)
        if len(line) > LONGEST
    ]
    assert long == []
