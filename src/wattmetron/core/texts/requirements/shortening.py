"""Runs of blanks and signs cut short and long lines broken, so that reading takes time in
proportion to a text's length; every place in the short text knows its place in the long one.
"""

import re
from dataclasses import dataclass

MOST_BLANKS, MOST_SIGNS, MOST_IN_LINE = 40, 120, 500
_BLANKS = re.compile(rf"[ ]{{{MOST_BLANKS + 1},}}")
_SIGNS = re.compile(rf"[^\w]{{{MOST_SIGNS + 1},}}")


@dataclass(frozen=True, slots=True)
class Shortened:
    """A short text, and for each of its characters the place in the long text."""

    text: str
    places: list[int]

    def span(self, start: int, end: int) -> tuple[int, int]:
        """A stretch of the short text where it stands in the long one."""
        if start >= end:
            position = self.places[start] if start < len(self.places) else len(self.places)
            return position, position
        return self.places[start], self.places[end - 1] + 1


def shortened(text: str) -> Shortened:
    short = Shortened(text, list(range(len(text))))
    short = _cut(short, _BLANKS, MOST_BLANKS)
    short = _cut(short, _SIGNS, MOST_SIGNS)
    return _broken(short)


def _cut(long: Shortened, run: re.Pattern[str], most: int) -> Shortened:
    """Runs keep their ends, and one line end and one tab of what stands between."""
    signs: list[str] = []
    places: list[int] = []
    position = 0
    for match in run.finditer(long.text):
        first, last = match.start() + most // 2, match.end() - most // 2 + 2
        signs.append(long.text[position:first])
        places += long.places[position:first]
        for sign in "\n\t":
            if (index := long.text.find(sign, first, last)) >= 0:
                signs.append(sign)
                places.append(long.places[index])
        position = last
    signs.append(long.text[position:])
    places += long.places[position:]
    return Shortened("".join(signs), places)


def _broken(long: Shortened) -> Shortened:
    """Lines end at a blank before they grow too long, in the middle of a word if need be."""
    signs: list[str] = []
    places: list[int] = []
    for line in re.finditer(r"[^\n]*\n?", long.text):
        position, end = line.span()
        while end - position > MOST_IN_LINE:
            blank = long.text.rfind(" ", position + MOST_IN_LINE // 2, position + MOST_IN_LINE)
            stop = blank if blank >= 0 else position + MOST_IN_LINE
            signs += [long.text[position:stop], "\n"]
            places += [*long.places[position:stop], long.places[stop]]
            position = stop + (blank >= 0)
        signs.append(long.text[position:end])
        places += long.places[position:end]
    return Shortened("".join(signs), places)
