"""Where the text says which tier and which field: headings, labels, tables, columns, prose.

The result is a list of pieces in order: a stretch of text with the tier that it belongs to and, where a label
stands before it, the field.
"""

import re
from dataclasses import dataclass, field
from itertools import pairwise

from rapidfuzz import fuzz, process

from wattmetron.core.reading.vocabulary import (
    BARE_TIERS,
    BY_LENGTH,
    COLUMN_HEADS,
    LABELS,
    NEW_TIER_FIELDS,
    SURE_TIERS,
    TIER_TAIL,
    TITLE,
    Field,
)

LABEL_LIKENESS = 78


@dataclass(frozen=True, slots=True)
class Piece:
    """Text from ``start`` to before ``end`` that belongs to a tier; ``label`` is the label's own text."""

    tier: int
    field: Field | None
    label: str
    start: int
    end: int
    prose: bool = False


@dataclass
class Layout:
    """Tier labels in order, pieces, and stretches that are nothing but layout: headings, labels, titles."""

    tiers: list[str] = field(default_factory=list)
    pieces: list[Piece] = field(default_factory=list)
    structure: list[tuple[int, int, str, int | None]] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Line:
    start: int
    end: int
    text: str


_HEADING = re.compile(
    rf"[\s*#=\-\[\"'>_]*(?P<tier>{SURE_TIERS}|{BARE_TIERS})\b\.?(?P<tail>{TIER_TAIL})[*_\]\"=]*[ ]*(?P<rest>.*)\Z",
    re.IGNORECASE | re.DOTALL,
)
_SURE = re.compile(rf"(?:{SURE_TIERS})\Z", re.IGNORECASE)
_INLINE_TIER = re.compile(rf"(?<![\w-])(?P<tier>{SURE_TIERS})\b\.?{TIER_TAIL}[ ]*:", re.IGNORECASE)
_LABEL = re.compile(
    rf"(?:(?P<before>{SURE_TIERS})\.?[ ]+)?(?P<label>{BY_LENGTH})(?:[ ]*\((?P<after>{SURE_TIERS})\.?\))?[ ]*[*:]*[ ]*\*?[:=]",
    re.IGNORECASE,
)
_LABEL_ALONE = re.compile(rf"[\s*#\-]*(?:(?P<before>{SURE_TIERS})\.?[ ]+)?(?P<label>{BY_LENGTH})[ ]*[*:]*[ ]*\Z", re.IGNORECASE)
_LABEL_OPEN = re.compile(
    r"[\s*\-]*(?P<label>cpu|gpu|ram|vram|os|memory|processor|graphics|storage|hdd)(?:[ ]{2,}|[ ]+-[ ]+|[ ]+(?=[A-Z\d]))(?=\S)", re.IGNORECASE
)
_ANY_LABEL = re.compile(r"[\s*\-]*(?P<label>[^\W\d_][\w ]{2,24}?)[ ]*:", re.IGNORECASE)
_RULE = re.compile(r"[\s|:\-=_*#]*\Z")


def lay_out(text: str) -> Layout:
    """The layout of a plain text."""
    lines = [Line(one.start(), one.end(), one[0]) for one in re.finditer(r"[^\n]+", text) if one[0].strip()]
    found = Layout()
    table = _table(lines)
    if table is not None:
        _read_table(text, table, found)
        lines = [line for line in lines if line not in table]
    columns = _column_run(lines)
    if columns is not None:
        _read_columns(text, lines, columns, found)
    elif table is None or any(_HEADING.match(line.text) for line in lines):
        _Walk(text, lines, found).run()
    else:
        found.structure += [(line.start, line.end, "unread", None) for line in lines]
    return found


# --- tables -------------------------------------------------------------------------------------------


def _cells(line: Line) -> list[tuple[int, int]]:
    """Spans of the cells of a line that tabs or upright strokes divide; empty for any other line."""
    mark = "\t" if "\t" in line.text.strip("\n ") else "|"
    if line.text.count(mark) < (1 if mark == "\t" else 2) or (mark == "|" and not line.text.strip().startswith("|")):
        return []
    body = line.text
    start = line.start
    if mark == "|":
        start += body.index("|") + 1
        body = body[body.index("|") + 1 :].rstrip().removesuffix("|")
    spans, at = [], start
    for cell in body.split(mark):
        spans.append((at, at + len(cell)))
        at += len(cell) + 1
    return spans


def _table(lines: list[Line]) -> list[Line] | None:
    rows = [line for line in lines if _cells(line)]
    widths = {len(_cells(line)) for line in rows if not _RULE.match(line.text)}
    if len(rows) < 2 or not widths or max(widths) < 2:
        return None
    return rows


def _stripped(text: str, span: tuple[int, int]) -> tuple[int, int]:
    start, end = span
    while start < end and text[start] in " \t*_`":
        start += 1
    while end > start and text[end - 1] in " \t*_`":
        end -= 1
    return start, end


def _read_table(text: str, rows: list[Line], found: Layout) -> None:
    grid = [
        [_stripped(text, span) for span in _cells(line)] for line in rows if not _RULE.match(line.text)
    ]
    found.structure += [(line.start, line.end, "layout", None) for line in rows if _RULE.match(line.text)]
    head = [text[start:end] for start, end in grid[0]]
    fields = [label_field(one) for one in head]
    if sum(one is not None for one in fields[1:]) >= 2:
        _read_tiers_down(text, grid, fields, found)
        return
    if len(head) == 2 and label_field(head[0]) is not None and head[0].casefold() not in COLUMN_HEADS:
        _read_pairs(text, grid, found)
        return
    first = len(found.tiers)
    found.tiers += [_tier_name(one) for one in head[1:]]
    found.structure += [(start, end, "tier", first + n) for n, (start, end) in enumerate(grid[0][1:])]
    if head[0]:
        found.structure.append((*grid[0][0], "layout", None))
    for row in grid[1:]:
        label = text[slice(*row[0])]
        what = label_field(label)
        if label:
            found.structure.append((*row[0], "label", None))
        for n, (start, end) in enumerate(row[1 : len(head)]):
            if start < end:
                found.pieces.append(Piece(first + n, what, label, start, end))


def _read_tiers_down(text: str, grid: list[list[tuple[int, int]]], fields: list[Field | None], found: Layout) -> None:
    found.structure += [(start, end, "label", None) for start, end in grid[0] if start < end]
    for row in grid[1:]:
        tier = len(found.tiers)
        found.tiers.append(_tier_name(text[slice(*row[0])]))
        found.structure.append((*row[0], "tier", tier))
        for what, (start, end) in zip(fields[1:], row[1:], strict=False):
            if start < end:
                found.pieces.append(Piece(tier, what, "", start, end))


def _read_pairs(text: str, grid: list[list[tuple[int, int]]], found: Layout) -> None:
    tier = len(found.tiers)
    found.tiers.append("")
    for row in grid:
        label = text[slice(*row[0])]
        found.structure.append((*row[0], "label", None))
        found.pieces += [Piece(tier, label_field(label), label, start, end) for start, end in row[1:2] if start < end]


# --- flattened columns --------------------------------------------------------------------------------


def _heads(line: Line) -> list[tuple[int, int]]:
    """Spans of tier names where a line is nothing but one or several of them."""
    spans = []
    for one in re.finditer(r"[^\s/|][^/|\t]*?(?=[ ]{2,}|[ ]*[/|\t]|[ ]*\Z)", line.text.rstrip(": ")):
        match = _HEADING.match(one[0])
        if not match or match["rest"].strip(" :") or not _SURE.match(match["tier"]):
            return []
        spans.append((line.start + one.start(), line.start + one.end()))
    return spans


def _column_run(lines: list[Line]) -> tuple[int, list[tuple[int, int]]] | None:
    """Index after the heads and their spans, where two or more tier names stand with nothing between."""
    for n, line in enumerate(lines):
        spans = _heads(line)
        if len(spans) >= 2:
            return n + 1, spans
        after = n + 1
        while spans and after < len(lines) and _heads(lines[after]):
            spans += _heads(lines[after])
            after += 1
        if len(spans) >= 2:
            return after, spans
    return None


def _read_columns(text: str, lines: list[Line], run: tuple[int, list[tuple[int, int]]], found: Layout) -> None:
    after, heads = run
    first = len(found.tiers)
    found.tiers += [_tier_name(text[slice(*span)]) for span in heads]
    found.structure += [(*span, "tier", first + n) for n, span in enumerate(heads)]
    titled = [line for line in lines[:after] if line.end <= heads[0][0]]
    found.structure += [(line.start, line.end, "title" if TITLE.fullmatch(line.text.strip()) else "unread", None) for line in titled]
    label, what, column = "", None, 0
    for line in lines[after:]:
        alone = _LABEL_ALONE.match(line.text)
        if alone and (column == 0 or column >= len(heads)):
            label, what, column = alone["label"], label_field(alone["label"]), 0
            found.structure.append((line.start, line.end, "label", None))
            continue
        opened = _LABEL.match(line.text.lstrip(" *-"))
        start = line.start
        if opened:
            label, what, column = opened["label"], label_field(opened["label"]), 0
            start = line.start + len(line.text) - len(line.text.lstrip(" *-")) + opened.end()
            found.structure.append((line.start, start, "label", None))
        found.pieces.append(Piece(first + min(column, len(heads) - 1), what, label, start, line.end))
        column += 1


# --- one tier after another ---------------------------------------------------------------------------


class _Walk:
    """Goes down the lines with the tier and the label that stand open."""

    def __init__(self, text: str, lines: list[Line], found: Layout) -> None:
        self.text, self.lines, self.found = text, lines, found
        self.tier: int | None = None
        self.seen: set[Field] = set()
        self.label = ""
        self.what: Field | None = None
        self.fresh = self.waiting = False
        self.by_word: dict[str, int] = {}

    def run(self) -> None:
        structured = any(_LABEL.search(line.text) or _LABEL_ALONE.match(line.text) or self._heading(line) for line in self.lines)
        if not structured:
            _read_prose(self.text, self.lines, self.found)
            return
        for n, line in enumerate(self.lines):
            following = self.lines[n + 1] if n + 1 < len(self.lines) else None
            self._line(line, following)

    def _line(self, line: Line, following: Line | None) -> None:
        heading = self._heading(line)
        if heading is not None:
            name, rest = heading
            if self.what is not None and rest < line.end:
                self._tier_under_label(name, line, rest)
                return
            self._open(name, line.start, rest)
            self._content(Line(rest, line.end, self.text[rest : line.end]))
            return
        if TITLE.fullmatch(line.text.strip(" *#-_:")):
            self.found.structure.append((line.start, line.end, "title", None))
            return
        alone = _LABEL_ALONE.match(line.text)
        if alone:
            self._label(alone, line.start, line.end)
            self.waiting = True
            return
        if self._own_heading(line, following):
            self._open(line.text.strip(" :*#=-[]"), line.start, line.end)
            return
        self._content(line)

    def _heading(self, line: Line) -> tuple[str, int] | None:
        """The tier's name and where the rest of the line begins."""
        match = _HEADING.match(line.text)
        if not match:
            slip = _slip_of_tier(line.text)
            return None if slip is None else (slip, line.end)
        rest = match["rest"].lstrip()
        sure = bool(_SURE.match(match["tier"]))
        if not rest.strip(" :]*=-"):
            if not sure and self.fresh and self.what in ("preset", "conditions"):
                return None
            return _tier_name(match["tier"]), line.end
        start = line.start + match.start("rest") + len(match["rest"]) - len(rest)
        if rest[0] in ":-(,[" or (match["tail"] and sure):
            return (_tier_name(match["tier"]), start) if sure or rest[0] in ":(" else None
        return None

    def _own_heading(self, line: Line, following: Line | None) -> bool:
        """A short line without figures, before a label: the publisher's own name for a tier."""
        words = line.text.strip(" :*#=-[]\t")
        if following is None or not words or len(words.split()) > 4 or any(sign.isdigit() or sign == ":" for sign in words):
            return False
        if not _LABEL.match(following.text.lstrip(" *-")) and not _LABEL_ALONE.match(following.text):
            return False
        return self.what is None or line.text.rstrip().endswith(":")

    def _open(self, name: str, start: int, end: int) -> None:
        self.tier = len(self.found.tiers)
        self.found.tiers.append(name)
        self.found.structure.append((start, end, "tier", self.tier))
        self.seen, self.label, self.what = set(), "", None

    def _tier_under_label(self, name: str, line: Line, rest: int) -> None:
        """A tier's name before a value, where the label stands above them all."""
        self.tier = self._tier_called(name)
        self.found.structure.append((line.start, rest, "tier", self.tier))
        self.found.pieces.append(Piece(self.tier, self.what, self.label, rest, line.end))

    def _tier_called(self, word: str) -> int:
        key = word.casefold()
        if key not in self.by_word:
            self.by_word[key] = len(self.found.tiers)
            self.found.tiers.append(_tier_name(word))
        return self.by_word[key]

    def _ensure(self, what: Field | None) -> int:
        """The open tier; a field that it has already begins another."""
        full = what in NEW_TIER_FIELDS and what in self.seen and len(self.seen) > 1
        if self.tier is None or full:
            self.tier = len(self.found.tiers)
            self.found.tiers.append("")
            self.seen = set()
        if what is not None:
            self.seen.add(what)
        return self.tier

    def _label(self, match: re.Match[str], start: int, end: int) -> None:
        self.label, self.what, self.fresh = match["label"], label_field(match["label"]), True
        self._named_tier(match)
        self.found.structure.append((start, end, "label", None))

    def _named_tier(self, match: re.Match[str]) -> None:
        """A tier that stands in the label itself, before or after it."""
        groups = match.groupdict()
        word = groups.get("before") or groups.get("after")
        if not word:
            return
        self.tier, self.seen = self._tier_called(word), set()

    def _content(self, line: Line) -> None:
        """Values of a line, each with the label before it; a tier's name with a colon begins another tier."""
        cuts = self._cuts(line)
        bounds = [*[cut.start() for cut in cuts], len(line.text)]
        self._value(line.start, line.start + bounds[0])
        for cut, (_, end) in zip(cuts, pairwise(bounds), strict=True):
            if cut.re is _INLINE_TIER:
                self._open(_tier_name(cut["tier"]), line.start + cut.start(), line.start + cut.end())
            elif cut.re is _ANY_LABEL:
                self._slip(cut, line.start)
            else:
                self._label(cut, line.start + cut.start(), line.start + cut.end())
            self._value(line.start + cut.end(), line.start + end, cut.re is not _INLINE_TIER)

    def _cuts(self, line: Line) -> list[re.Match[str]]:
        found = [*_LABEL.finditer(line.text), *_INLINE_TIER.finditer(line.text)]
        found = [cut for cut in found if cut.start() == 0 or not line.text[cut.start() - 1].isalnum()]
        if not found:
            opened = _LABEL_OPEN.match(line.text)
            if opened:
                return [opened]
            slip = _ANY_LABEL.match(line.text)
            return [slip] if slip and _slip_of_label(slip["label"]) is not None else []
        return sorted(found, key=lambda cut: cut.start())

    def _slip(self, cut: re.Match[str], offset: int) -> None:
        what = _slip_of_label(cut["label"])
        self.label, self.what = cut["label"], what
        self.found.structure.append((offset + cut.start(), offset + cut.end(), "label", None))

    def _value(self, start: int, end: int, labelled: bool = False) -> None:
        if not self.text[start:end].strip(" ;,.*-|()[]"):
            if labelled:
                self._ensure(self.what)
            return
        what, self.fresh = self.what, False
        tier = self._ensure(what if labelled or self.waiting else None)
        self.waiting = False
        self.found.pieces.append(Piece(tier, what, self.label, start, end))
        if labelled:
            self.label, self.what = "", None


def _read_prose(text: str, lines: list[Line], found: Layout) -> None:
    """Sentences: each belongs to the tier that it names, else to the one before; one tier where none is named."""
    tier: int | None = None
    word = re.compile(rf"\b({SURE_TIERS})\b", re.IGNORECASE)
    if not any(word.search(line.text) for line in lines):
        tier = 0
        found.tiers.append("")
    for line in lines:
        for one in re.finditer(r"(?:[^.;!?]|[.;!?](?!\s|\Z))+[.;!?]?", line.text):
            named = word.search(one[0])
            if named:
                tier = len(found.tiers)
                found.tiers.append(_tier_name(named[1]))
                at = line.start + one.start()
                found.structure.append((at + named.start(), at + named.end(), "tier", tier))
            start, end = line.start + one.start(), line.start + one.end()
            if tier is None:
                found.structure.append((start, end, "unread", None))
            else:
                found.pieces.append(Piece(tier, None, "", start, end, True))


# --- words --------------------------------------------------------------------------------------------


_SHORT = {"minimal": "Minimum", "minimums": "Minimum", "recommendation": "Recommended", "recommend": "Recommended", "recommends": "Recommended"}


def _tier_name(text: str) -> str:
    """A tier's label without the words that every list has: ``MINIMUM REQUIREMENTS:`` gives ``Minimum``."""
    match = _HEADING.match(text)
    name = match["tier"] if match and not match["rest"].strip(" :)]*=-") else text
    name = name.strip(" :*#=[]\t_-")
    name = _SHORT.get(name.casefold(), name)
    return name.capitalize() if name.isupper() or name.islower() else name


def label_field(label: str) -> Field | None:
    """The field that a label names, None for a label of no meaning here."""
    words = " ".join(re.sub(r"[^\w ]", " ", label).casefold().split())
    return LABELS.get(words) or _slip_of_label(words)


def _slip_of_label(label: str) -> Field | None:
    words = " ".join(label.casefold().split())
    if len(words) < 5:
        return None
    found = process.extractOne(words, list(LABELS), scorer=fuzz.ratio, score_cutoff=LABEL_LIKENESS)
    return None if found is None else LABELS[found[0]]


def _slip_of_tier(text: str) -> str | None:
    """A misspelt tier name alone on its line."""
    word = text.strip(" :*#=-[]")
    if not 7 <= len(word) <= 14 or not word.isalpha():
        return None
    found = process.extractOne(word.casefold(), ("minimum", "recommended"), scorer=fuzz.ratio, score_cutoff=86)
    return None if found is None else _tier_name(word)
