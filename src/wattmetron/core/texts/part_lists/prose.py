"""What of a text is no list: the letter around it, at its place."""

import re

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.texts.part_lists.kind_words import leading_kind
from wattmetron.core.texts.part_lists.list_figures import prices_of
from wattmetron.core.texts.part_lists.part_list_reader import NO_PART
from wattmetron.core.texts.part_lists.part_names import names_of
from wattmetron.core.texts.part_lists.rows import rows_of

MOST_AROUND = 9
"""Words around the parts of a line; a line with more of them says something itself."""
LEAST_SHARE = 0.5
WORD = re.compile(r"[^\W\d_]{2,}")


def prose_of(catalogue: Catalogue, text: str) -> str:
    """The text with the lines of its list blanked, its length unchanged."""
    rows = rows_of(text)
    if text.lstrip()[:1] in "{[" and any(row.heads for row in rows):
        return " " * len(text)
    names, lines = names_of(catalogue), []
    for line in text.split("\n"):
        matches = [
            match for match in names.find(line) if match.share >= LEAST_SHARE and match.words > 1
        ]
        around = len(WORD.findall(line)) - max((match.words for match in matches), default=0)
        counted = NO_PART.search(line) and prices_of(line, True) and "budget" not in line.lower()
        priced = leading_kind(line)[0] is not None and bool(prices_of(line, False))
        listed = (bool(matches) or priced) and around <= MOST_AROUND and not _speaks(line)
        lines.append(" " * len(line) if listed or counted else line)
    return "\n".join(lines)


def _speaks(line: str) -> bool:
    """Whether a line is a sentence about its sender."""
    return bool(re.search(r"\b(?:i|we|my|our|me)\b", line, re.I))
