"""What a letter says is there already, is to be bought too, and whose parts are not wanted."""

import re
from collections.abc import Iterable, Iterator, Mapping

from wattmetron.core.texts.messages.display_wishes import names_display
from wattmetron.core.texts.messages.stated_wishes import NO
from wattmetron.core.texts.messages.statements import Clause, MessageReading
from wattmetron.core.texts.requirements.name_matching import tokens

OWNS = re.compile(
    r"\bhave\b(?! to\b)|\bhas\b(?! to\b)|\bown\b|\balready\b|\bkeep my\b|\bcarry over\b|"
    r"\bgot\b[^,;.]*\balready\b|"
    r"\bi've got\b|\bstill have\b|\breuse\b"
)
CAPTURE = re.compile(r"\bcapture (?:cards?|devices?)\b")
KINDS: tuple[tuple[str, re.Pattern[str]], ...] = (
    ("processor", re.compile(r"\bprocessors?\b|\bcpus?\b")),
    ("graphics", re.compile(r"\bgraphics cards?\b|\bgpus?\b|\bvideo cards?\b")),
    ("mainboard", re.compile(r"\bmainboards?\b|\bmotherboards?\b")),
    ("memory", re.compile(r"\bram\b|\bmemory\b")),
    ("storage", re.compile(r"\bdrives?\b|\bssds?\b|\bhard ?(?:disks?|drives?)\b|\bhdds?\b")),
    ("cooler", re.compile(r"\bcoolers?\b")),
    ("supply", re.compile(r"\bpower suppl\w+|\bpsus?\b")),
    ("case", re.compile(r"\bcases?\b(?!\s*:)|\bhousing\b|\btower\b(?= and|,|$)")),
    ("input", re.compile(r"\bkeyboards?\b|\bmouse\b|\bcontrollers?\b")),
    ("display", re.compile(r"\bmonitors?\b|\bdisplays?\b|\bscreens?\b")),
    ("capture", CAPTURE),
)
BUYS = re.compile(
    r"\binclud\w*|\bincl\b\.?|\bneeds?\b[^,;.]*\btoo\b|\bto be bought\b|\bcome with\b|"
    r"\bcomes with\b"
)
BOUGHT: tuple[tuple[str, re.Pattern[str]], ...] = (
    ("system", re.compile(r"\boperating system\b|\bos\b")),
    ("display", re.compile(r"\bmonitors?\b|\bdisplays?\b|\bscreens?\b")),
    ("input", re.compile(r"\bkeyboards?\b|\bmouse\b")),
    ("capture", CAPTURE),
)


def owns(sentence: Clause) -> bool:
    """Whether a sentence says what is there already."""
    return bool(OWNS.search(sentence.text)) or bool(
        re.match(r"\s*(?:have|owned|own|existing)\s*:", sentence.text)
    )


def own_kinds(sentence: Clause) -> Iterator[MessageReading]:
    """Kinds of part that are there already; a display that is only described is not one."""
    opening = OWNS.search(sentence.text) or re.match(r"\s*\w+\s*:", sentence.text)
    first = opening.start() if opening else 0
    is_question = "?" in sentence.text
    for kind, words in KINDS:
        for match in words.finditer(sentence.text, 0 if is_question else max(0, first - 40)):
            piece = _around(sentence, match)
            if kind == "display" and names_display(piece):
                continue
            if NO.search(piece.text) or BUYS.search(piece.text):
                continue
            yield MessageReading(
                field="own_kind",
                value=kind,
                start=sentence.start + match.start(),
                end=sentence.start + match.end(),
            )
            break


def _around(sentence: Clause, match: re.Match[str]) -> Clause:
    """The part of a sentence between commas around a word."""
    start = max(sentence.text.rfind(mark, 0, match.start()) for mark in ",;:") + 1
    ends = [position for mark in ",;" if (position := sentence.text.find(mark, match.end())) >= 0]
    return Clause(sentence.text[start : min(ends, default=len(sentence.text))], start, 0)


def buys(sentence: Clause) -> Iterator[MessageReading]:
    """What is to be bought besides the machine."""
    if not BUYS.search(sentence.text):
        return
    for kind, words in BOUGHT:
        match = words.search(sentence.text)
        if match and not NO.search(_around(sentence, match).text):
            yield MessageReading(
                field="buys",
                value=kind,
                start=sentence.start + match.start(),
                end=sentence.start + match.end(),
            )


def named_parts(
    text: str, parts: Mapping[str, str], sentences: list[Clause]
) -> Iterator[MessageReading]:
    """Parts of the catalogue (id by name) that stand in a sentence about what is owned; the longest
    name where one is the beginning of another.
    """
    owning = [sentence for sentence in sentences if owns(sentence)]
    there = {word for sentence in owning for word in tokens(sentence.text)}
    for name, part_id in parts.items() if owning else ():
        words = tokens(name)
        if not there.issuperset(words):
            continue
        pattern = r"\b" + r"\W{1,3}".join(map(re.escape, words)) + r"\b"
        for match in re.finditer(pattern, text):
            if any(clause.start <= match.start() < clause.end for clause in owning):
                yield MessageReading(
                    field="owned", value=part_id, start=match.start(), end=match.end()
                )
                break


def refused(sentence: Clause, makers: Iterable[str]) -> Iterator[MessageReading]:
    """Makers of whom nothing is wanted."""
    if not NO.search(sentence.text):
        return
    for maker in makers:
        match = re.search(rf"\b{re.escape(maker.lower())}\b", sentence.text)
        if match:
            start = sentence.start + match.start()
            yield MessageReading(field="no_maker", value=maker, start=start, end=start + len(maker))
