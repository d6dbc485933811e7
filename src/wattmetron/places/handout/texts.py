"""A handout as text in several forms."""

import csv
import io
from collections.abc import Iterator

from wattmetron.places.handout.content import Handout, Section, Table

MOST_CHAT_CHARACTERS = 1000
FORMULA_STARTS = ("=", "+", "-", "@", "\t", "\r")


def markdown(handout: Handout) -> str:
    """GitHub-flavoured Markdown; what was typed cannot become markup."""
    return "\n".join(_markdown(handout)).rstrip() + "\n"


def _markdown(handout: Handout) -> Iterator[str]:
    yield f"# {_mark(handout.title)}\n"
    if handout.opening:
        yield (
            "\n\n".join(_mark(piece) for piece in handout.opening.split("\n") if piece.strip())
            + "\n"
        )
    yield f"{_summary(handout)}\n"
    for section in handout.sections:
        yield f"## {section.title}\n"
        yield from (f"{_mark(sentence)}\n" for sentence in section.sentences)
        if section.table:
            yield from _markdown_table(section.table)
            yield ""
        marks = (f"{n}. " if section.ordered else "- " for n in range(1, len(section.items) + 1))
        for mark, item in zip(marks, section.items, strict=True):
            yield f"{mark}{_mark(item)}"
        if section.items:
            yield ""
        for title, steps in section.stages:
            yield f"### {_mark(title)}\n"
            yield from (f"- [ ] {_mark(step)}" for step in steps)
            yield ""


def _markdown_table(table: Table) -> Iterator[str]:
    yield "| " + " | ".join(head or " " for head in table.heads) + " |"
    yield "|" + " --- |" * len(table.heads)
    for row in table.rows:
        yield "| " + " | ".join(_mark(cell).replace("\n", " ") for cell in row) + " |"


def _mark(text: str) -> str:
    """Text with the signs that Markdown and HTML would take for their own made harmless."""
    for sign in "\\`*_{}[]#|":
        text = text.replace(sign, f"\\{sign}")
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def plain_text(handout: Handout) -> str:
    """Plain text, at most some 100 characters a line in tables only where names allow it."""
    return "\n".join(_plain(handout)).rstrip() + "\n"


def _plain(handout: Handout) -> Iterator[str]:
    yield handout.title
    yield "=" * min(70, len(handout.title))
    if handout.opening:
        yield f"\n{handout.opening}"
    yield f"\n{_summary(handout)}"
    for section in handout.sections:
        yield f"\n{section.title}\n{'-' * len(section.title)}"
        yield from section.sentences
        if section.table:
            yield from _plain_table(section)
        for n, item in enumerate(section.items, 1):
            yield f"{f'{n}.' if section.ordered else '*'} {item}"
        for title, steps in section.stages:
            yield f"\n{title}"
            yield from (f"[ ] {step}" for step in steps)


def _plain_table(section: Section) -> Iterator[str]:
    table = section.table
    assert table is not None
    for row in table.rows:
        first, *rest = row
        lead = first if table.heads[0] else f"{first}:"
        yield f"{lead} {', '.join(cell for cell in rest if cell)}"


def _summary(handout: Handout) -> str:
    return (
        ". ".join(filter(None, [handout.total, handout.met, handout.region, handout.dated])) + "."
    )


def chat(handout: Handout) -> str:
    """A short form under 1,000 characters: parts with prices, frames, the sum."""
    lines = [f"{handout.title}: {handout.total}{f', {handout.met}' if handout.met else ''}"]
    parts, frames = handout.section("parts"), handout.section("frames")
    if parts and parts.table:
        lines += [f"{row[0]}: {row[1]}, {row[3]}" for row in parts.table.rows]
    if frames and frames.table:
        lines += [f"{row[0]}: {row[3]}, wanted {row[2]}" for row in frames.table.rows]
    lines.append(f"{handout.region}. {handout.dated}. Estimates, not measurements.")
    return _within(lines)


def _within(lines: list[str]) -> str:
    """So many lines as fit, the first and the last always."""
    last = lines[-1]
    pieces: list[str] = []
    for n, line in enumerate(lines[:-1]):
        more = f"… and {len(lines) - 1 - n} more"
        if len("\n".join([*pieces, line[:200], more, last])) >= MOST_CHAT_CHARACTERS:
            pieces.append(more)
            break
        pieces.append(line[:200])
    return "\n".join([*pieces, last])[: MOST_CHAT_CHARACTERS - 1]


def parts_csv(handout: Handout) -> str:
    """The parts as a table for a spreadsheet; no cell is taken for a formula there."""
    parts = handout.section("parts")
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    if parts and parts.table:
        writer.writerow(["kind", *parts.table.heads[1:]])
        writer.writerows([_harmless(cell) for cell in row] for row in parts.table.rows)
    return out.getvalue()


def _harmless(cell: str) -> str:
    return f"'{cell}" if cell.startswith(FORMULA_STARTS) else cell
