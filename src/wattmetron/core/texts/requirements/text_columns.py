"""Tables, and columns that copying has flattened."""

import re

from wattmetron.core.texts.requirements.headings import (
    GAP,
    HEADING,
    LABEL,
    LABEL_ALONE,
    RULE,
    SLASH,
    SURE,
    label_field,
    says_conditions,
    tier_name,
)
from wattmetron.core.texts.requirements.pieces import Layout, Piece, TextLine
from wattmetron.core.texts.requirements.vocabulary import COLUMN_HEADS, TITLE, Field


def _cells(line: TextLine) -> list[tuple[int, int]]:
    """Spans of the cells of a line that tabs or upright strokes divide; empty for any other
    line.
    """
    mark = "\t" if "\t" in line.text.strip("\n ") else "|"
    if line.text.count(mark) < (1 if mark == "\t" else 2) or (
        mark == "|" and not line.text.strip().startswith("|")
    ):
        return []
    body = line.text
    start = line.start
    if mark == "|":
        start += body.index("|") + 1
        body = body[body.index("|") + 1 :].rstrip().removesuffix("|")
    spans, position = [], start
    for cell in body.split(mark):
        spans.append((position, position + len(cell)))
        position += len(cell) + 1
    return spans


def table_rows(lines: list[TextLine]) -> list[TextLine] | None:
    rows = [line for line in lines if _cells(line)]
    widths = {len(_cells(line)) for line in rows if not RULE.match(line.text)}
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


def read_table(text: str, rows: list[TextLine], layout: Layout) -> None:
    grid = [
        [_stripped(text, span) for span in _cells(line)]
        for line in rows
        if not RULE.match(line.text)
    ]
    layout.structure += [
        (line.start, line.end, "layout", None) for line in rows if RULE.match(line.text)
    ]
    head = [text[start:end] for start, end in grid[0]]
    fields = [label_field(cell) for cell in head]
    if sum(field is not None for field in fields[1:]) >= 2:
        _read_tiers_down(text, grid, fields, layout)
        return
    if (
        len(head) == 2
        and label_field(head[0]) is not None
        and head[0].casefold() not in COLUMN_HEADS
    ):
        _read_pairs(text, grid, layout)
        return
    first = len(layout.tiers)
    layout.tiers += [tier_name(cell) for cell in head[1:]]
    for n, (start, end) in enumerate(grid[0][1:]):
        if says_conditions(text[start:end]):
            layout.pieces.append(
                Piece(tier=first + n, field="conditions", label="", start=start, end=end)
            )
        else:
            layout.structure.append((start, end, "tier", first + n))
    if head[0]:
        layout.structure.append((*grid[0][0], "layout", None))
    for row in grid[1:]:
        label = text[slice(*row[0])]
        what = label_field(label)
        if label:
            layout.structure.append((*row[0], "label", None))
        for n, (start, end) in enumerate(row[1 : len(head)]):
            if start < end:
                layout.pieces.append(
                    Piece(tier=first + n, field=what, label=label, start=start, end=end)
                )


def _read_tiers_down(
    text: str, grid: list[list[tuple[int, int]]], fields: list[Field | None], layout: Layout
) -> None:
    layout.structure += [(start, end, "label", None) for start, end in grid[0] if start < end]
    for row in grid[1:]:
        tier = len(layout.tiers)
        layout.tiers.append(tier_name(text[slice(*row[0])]))
        layout.structure.append((*row[0], "tier", tier))
        for what, (start, end) in zip(fields[1:], row[1:], strict=False):
            if start < end:
                layout.pieces.append(Piece(tier=tier, field=what, label="", start=start, end=end))


def _read_pairs(text: str, grid: list[list[tuple[int, int]]], layout: Layout) -> None:
    tier = len(layout.tiers)
    layout.tiers.append("")
    for row in grid:
        label = text[slice(*row[0])]
        layout.structure.append((*row[0], "label", None))
        layout.pieces += [
            Piece(tier=tier, field=label_field(label), label=label, start=start, end=end)
            for start, end in row[1:2]
            if start < end
        ]


def _heads(line: TextLine) -> list[tuple[int, int]]:
    """Spans of tier names where a line is nothing but one or several of them."""
    spans = []
    for each_match in re.finditer(
        r"[^\s/|][^/|\t]*?(?=[ ]{2,}|[ ]*[/|\t]|[ ]*\Z)", line.text.rstrip(": ")
    ):
        match = HEADING.match(each_match[0])
        if not match or match["rest"].strip(" :") or not SURE.match(match["tier"]):
            return []
        spans.append((line.start + each_match.start(), line.start + each_match.end()))
    return spans


def column_run(lines: list[TextLine]) -> tuple[int, list[tuple[int, int]]] | None:
    """Index after the heads and their spans, where two or more tier names stand with nothing
    between.
    """
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


def read_columns(
    text: str, lines: list[TextLine], run: tuple[int, list[tuple[int, int]]], layout: Layout
) -> None:
    after, heads = run
    first = len(layout.tiers)
    layout.tiers += [tier_name(text[slice(*span)]) for span in heads]
    layout.structure += [(*span, "tier", first + n) for n, span in enumerate(heads)]
    titled = [line for line in lines[:after] if line.end <= heads[0][0]]
    layout.structure += [
        (line.start, line.end, "title" if TITLE.fullmatch(line.text.strip()) else "unread", None)
        for line in titled
    ]
    label, what, column = "", None, 0
    for line in lines[after:]:
        if _read_row(line, heads, first, layout):
            continue
        alone = LABEL_ALONE.match(line.text)
        if alone and (column == 0 or column >= len(heads)):
            label, what, column = alone["label"], label_field(alone["label"]), 0
            layout.structure.append((line.start, line.end, "label", None))
            continue
        opened = LABEL.match(line.text.lstrip(" *-"))
        start = line.start
        if opened:
            label, what, column = opened["label"], label_field(opened["label"]), 0
            start = line.start + len(line.text) - len(line.text.lstrip(" *-")) + opened.end()
            layout.structure.append((line.start, start, "label", None))
        layout.pieces.append(
            Piece(
                tier=first + min(column, len(heads) - 1),
                field=what,
                label=label,
                start=start,
                end=line.end,
            )
        )
        column += 1


def _read_row(line: TextLine, heads: list[tuple[int, int]], first: int, layout: Layout) -> bool:
    """A line that holds a label and a value for every head, with gaps or strokes between."""
    opened = LABEL.match(line.text.lstrip(" *-"))
    body, start = line.text, line.start
    if opened:
        start += len(line.text) - len(line.text.lstrip(" *-")) + opened.end()
        body = line.text[start - line.start :]
    for divider in (GAP, SLASH):
        cells = _pieces(body, start, divider)
        if opened:
            label = None
        elif cells:
            label = cells.pop(0)
        else:
            label = None
        if opened:
            words = opened["label"]
        elif label:
            words = line.text[label[0] - line.start : label[1] - line.start]
        else:
            words = ""
        if len(cells) != len(heads) or label_field(words) is None:
            continue
        layout.structure.append((line.start, cells[0][0], "label", None))
        layout.pieces += [
            Piece(tier=first + n, field=label_field(words), label=words, start=start, end=end)
            for n, (start, end) in enumerate(cells)
        ]
        return True
    return False


def _pieces(text: str, offset: int, divider: re.Pattern[str]) -> list[tuple[int, int]]:
    """Spans between dividers, without empty ones."""
    spans, position = [], 0
    for match in divider.finditer(text):
        spans.append((position, match.start()))
        position = match.end()
    spans.append((position, len(text)))
    return [(offset + start, offset + end) for start, end in spans if text[start:end].strip()]
