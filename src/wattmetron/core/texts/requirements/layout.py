"""Where the text says which tier and which field: headings, labels, tables, columns, prose.

The result is a list of pieces in order: a stretch of text with the tier that it belongs to and,
where a label stands before it, the field.
"""

import re
from collections.abc import Callable
from itertools import pairwise

from wattmetron.core.texts.requirements.headings import (
    ANY_LABEL,
    API_LABEL,
    HEADING,
    INLINE_TIER,
    LABEL,
    LABEL_ALONE,
    LABEL_OPEN,
    MARKED,
    SURE,
    label_field,
    says_conditions,
    slip_of_label,
    slip_of_tier,
    tier_name,
)
from wattmetron.core.texts.requirements.pieces import Layout, Piece, TextLine
from wattmetron.core.texts.requirements.prose_layout import (
    BEFORE_COLON,
    conditions_alone,
    every_tier,
    head_by_conditions,
    read_prose,
)
from wattmetron.core.texts.requirements.text_columns import (
    column_run,
    read_columns,
    read_table,
    table_rows,
)
from wattmetron.core.texts.requirements.vocabulary import (
    EVERY,
    NEW_TIER_FIELDS,
    SURE_TIERS,
    TITLE,
    Field,
)


def lay_out(text: str, names_both: Callable[[str], bool] = lambda _: False) -> Layout:
    """The layout of a plain text; ``names_both`` tells whether a stretch names a processor and a
    graphics part.
    """
    lines = [
        TextLine(match.start(), match.end(), match[0])
        for match in re.finditer(r"[^\n]+", text)
        if match[0].strip()
    ]
    layout = Layout()
    table = table_rows(lines)
    if table is not None:
        read_table(text, table, layout)
        lines = [line for line in lines if line not in table]
    columns = column_run(lines)
    if columns is not None:
        read_columns(text, lines, columns, layout)
    elif table is None or any(HEADING.match(line.text) for line in lines):
        _Walk(text, lines, layout, names_both).run()
    else:
        layout.structure += [(line.start, line.end, "unread", None) for line in lines]
    return layout


class _Walk:
    """Goes down the lines with the tier and the label that stand open."""

    def __init__(
        self,
        text: str,
        lines: list[TextLine],
        layout: Layout,
        names_both: Callable[[str], bool],
    ) -> None:
        self.names_both = names_both
        self.text, self.lines, self.found = text, lines, layout
        self.tier: int | None = None
        self.seen: set[Field] = set()
        self.label = ""
        self.what: Field | None = None
        self.fresh = self.waiting = self.by_conditions = self.by_heads = self.by_parts = False
        self.filled = False
        self.by_word: dict[str, int] = {}

    def run(self) -> None:
        headed = any(self._heading(line) for line in self.lines)
        self.by_conditions = (
            not headed and sum(conditions_alone(line.text) for line in self.lines) >= 2
        )
        self.by_heads = (
            not headed and sum(head_by_conditions(line.text) is not None for line in self.lines) > 1
        )
        self.by_parts = (
            not self.by_heads
            and any(self._says_both(line) for line in self.lines)
            and sum(self.names_both(line.text) for line in self.lines) > 1
        )
        labelled = any(
            LABEL.search(line.text) or LABEL_ALONE.match(line.text) for line in self.lines
        )
        if not (headed or labelled or self.by_conditions or self.by_heads or self.by_parts):
            read_prose(self.text, self.lines, self.found)
            return
        for n, line in enumerate(self.lines):
            following = self.lines[n + 1] if n + 1 < len(self.lines) else None
            self._line(line, following)

    def _line(self, line: TextLine, following: TextLine | None) -> None:
        if EVERY in line.text:
            self._of_every_tier(line)
            return
        head = head_by_conditions(line.text) if self.by_heads else None
        if head is not None:
            name, first = head
            self._open(name, line.start, line.start + first)
            self._in_two(line, first)
            return
        heading = self._heading(line)
        if heading is None and self.by_parts and self._is_tier(line):
            self._tier_in_a_line(line)
            return
        if heading is not None:
            name, rest = heading
            if self.what is not None and rest < line.end:
                self._tier_under_label(name, line, rest)
                return
            self._open(name, line.start, rest)
            self._content(TextLine(rest, line.end, self.text[rest : line.end]))
            return
        if TITLE.fullmatch(line.text.strip(" *#-_:")):
            self.found.structure.append((line.start, line.end, "title", None))
            return
        if self.by_conditions and conditions_alone(line.text):
            self._open(line.text.strip(" :*#=-[]"), line.start, line.start)
            self._content(line)
            return
        alone = LABEL_ALONE.match(line.text)
        if alone:
            self._label(alone, line.start, line.end)
            self.waiting = True
            return
        if self._own_heading(line, following):
            self._open(line.text.strip(" :*#=-[]"), line.start, line.end)
            return
        self._content(line)

    def _of_every_tier(self, line: TextLine) -> None:
        """What is said of every tier stands in a sheet of its own, which the others share."""
        before, _, after = line.text.partition(EVERY)
        if before.strip(" ,;.-*("):
            self._content(TextLine(line.start, line.start + len(before), before))
        open_tier, seen = self.tier, self.seen
        self.tier, self.seen = every_tier(self.found), set()
        start = line.end - len(after)
        self.found.structure.append((start - 1, start, "layout", None))
        self._content(TextLine(start, line.end, after))
        self.tier, self.seen, self.label, self.what = open_tier, seen, "", None

    def _tier_in_a_line(self, line: TextLine) -> None:
        """A line with a processor and a card is a tier; what stands before its colon names it."""
        match = BEFORE_COLON.match(line.text)
        name = match["head"].strip(" -*#[") if match else ""
        if match is None or self.names_both(line.text[: match.end()]) or LABEL.match(match[0]):
            self._open("", line.start, line.start)
            self._content(line)
            return
        says = says_conditions(match["head"])
        start = match.start("head") if says else match.end()
        self._open(name, line.start, line.start + start)
        self._in_two(line, start)

    def _is_tier(self, line: TextLine) -> bool:
        """Whether a line says all of a tier by itself: it names both sides without labels, no tier
        is named in it, and none that was opened before is still empty.
        """
        return (self.tier is None or self.filled) and self._says_both(line)

    def _says_both(self, line: TextLine) -> bool:
        match = SURE_WORD.search(line.text) or SIDE_WORD.search(line.text)
        return match is None and self.names_both(line.text)

    def _in_two(self, line: TextLine, start: int) -> None:
        """What stands before the first colon from a place on, and what stands after it."""
        colon = line.text.find(":", start)
        for first, last in ((start, colon), (colon + 1, len(line.text))):
            if first < last:
                self._content(
                    TextLine(line.start + first, line.start + last, line.text[first:last])
                )

    def _heading(self, line: TextLine) -> tuple[str, int] | None:
        """The tier's name and where the rest of the line begins."""
        match = HEADING.match(line.text)
        question = SURE_WORD.search(line.text) if line.text.rstrip().endswith("?") else None
        if question:
            return tier_name(question[0]), line.end
        if not match:
            slip = slip_of_tier(line.text)
            return None if slip is None else (slip, line.end)
        rest = match["rest"].lstrip()
        sure = bool(SURE.match(match["tier"]))
        if not rest.strip(" :]*=-"):
            if not sure and self.fresh and self.what in ("preset", "conditions"):
                return None
            return tier_name(match["tier"]), line.end
        start = line.start + match.start("rest") + len(match["rest"]) - len(rest)
        if rest[0] in ":-(,[" or (match["tail"] and sure):
            known = sure or rest[0] in ":(" or (rest[0] == "-" and conditions_alone(rest[1:]))
            return (tier_name(match["tier"]), start) if known else None
        return None

    def _own_heading(self, line: TextLine, following: TextLine | None) -> bool:
        """A short line without figures, before a label: the publisher's own name for a tier."""
        words = line.text.strip(" :*#=-[]\t")
        if (
            following is None
            or not words
            or len(words.split()) > 4
            or any(sign.isdecimal() or sign == ":" for sign in words)
        ):
            return False
        if not LABEL.match(following.text.lstrip(" *-")) and not LABEL_ALONE.match(following.text):
            return False
        return self.what is None or line.text.rstrip().endswith(":")

    def _open(self, name: str, start: int, end: int) -> None:
        self.tier = len(self.found.tiers)
        self.found.tiers.append(_NUMBERED.sub("", name).strip(" ,;"))
        self.found.structure.append((start, end, "tier", self.tier))
        self.seen, self.label, self.what, self.filled = set(), "", None, False

    def _tier_under_label(self, name: str, line: TextLine, rest: int) -> None:
        """A tier's name before a value, where the label stands above them all."""
        self.tier = self._tier_called(name)
        self.found.structure.append((line.start, rest, "tier", self.tier))
        self.found.pieces.append(
            Piece(tier=self.tier, field=self.what, label=self.label, start=rest, end=line.end)
        )

    def _tier_called(self, word: str) -> int:
        key = word.casefold()[:3]
        if key not in self.by_word:
            self.by_word[key] = len(self.found.tiers)
            self.found.tiers.append(tier_name(word))
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

    def _content(self, line: TextLine) -> None:
        """Values of a line, each with the label before it; a tier's name with a colon begins
        another tier.
        """
        cuts = self._cuts(line)
        bounds = [*[cut.start() for cut in cuts], len(line.text)]
        self._value(line.start, line.start + bounds[0])
        for cut, (_, end) in zip(cuts, pairwise(bounds), strict=True):
            if cut.re is INLINE_TIER:
                self._open(tier_name(cut["tier"]), line.start + cut.start(), line.start + cut.end())
            elif cut.re in (ANY_LABEL, API_LABEL):
                self._slip(cut, line.start)
            else:
                self._label(cut, line.start + cut.start(), line.start + cut.end())
            self._value(line.start + cut.end(), line.start + end, cut.re is not INLINE_TIER)

    def _cuts(self, line: TextLine) -> list[re.Match[str]]:
        matches = [*LABEL.finditer(line.text), *INLINE_TIER.finditer(line.text)]
        matches += [
            match for match in API_LABEL.finditer(line.text) if label_field(match["label"]) is None
        ]
        matches = [
            cut for cut in matches if cut.start() == 0 or not line.text[cut.start() - 1].isalnum()
        ]
        if not matches:
            opened = LABEL_OPEN.match(line.text)
            if opened:
                return [opened]
            slip = ANY_LABEL.match(line.text)
            return [slip] if slip and slip_of_label(slip["label"]) is not None else []
        return sorted(matches, key=lambda cut: cut.start())

    def _slip(self, cut: re.Match[str], offset: int) -> None:
        what: Field | None = "api" if cut.re is API_LABEL else slip_of_label(cut["label"])
        self.label, self.what = cut["label"], what
        self.found.structure.append((offset + cut.start(), offset + cut.end(), "label", None))

    def _value(self, start: int, end: int, labelled: bool = False) -> None:
        if not self.text[start:end].strip(" ;,.*-|()[]"):
            if labelled:
                self._ensure(self.what)
            return
        marked = list(MARKED.finditer(self.text, start, end))
        if marked and self.what is not None:
            self._marked_values(start, marked)
            return
        what, self.fresh, self.filled = self.what, False, True
        tier = self._ensure(what if labelled or self.waiting else None)
        self.waiting = False
        self.found.pieces.append(
            Piece(tier=tier, field=what, label=self.label, start=start, end=end)
        )
        if labelled:
            self.label, self.what = "", None

    def _marked_values(self, start: int, marked: list[re.Match[str]]) -> None:
        """Values that are each followed by their tier in brackets."""
        for match in marked:
            self.tier = self._tier_called(match["tier"])
            self.found.structure.append((match.start(), match.end(), "tier", self.tier))
            self.found.pieces.append(
                Piece(
                    tier=self.tier,
                    field=self.what,
                    label=self.label,
                    start=start,
                    end=match.start(),
                )
            )
            start = match.end()
        self.label, self.what = "", None


_NUMBERED = re.compile(r"\A\s*\d{1,2}[.)]\s+")
SIDE_WORD = re.compile(
    r"(?<![^\W_])(?:cpu|gpu|processor|graphics|graphics card|video card)(?![^\W_])", re.IGNORECASE
)
SURE_WORD = re.compile(rf"(?<![^\W_])(?:{SURE_TIERS})(?![^\W_])", re.IGNORECASE)
