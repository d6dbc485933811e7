"""What reading a text gives: tiers as a draft, and for every fragment what it was taken for."""

from dataclasses import dataclass

from wattmetron.core.errors import InvalidError
from wattmetron.core.values.published import Side, Tier


class ReadingError(InvalidError):
    """A text that cannot be read as requirements; the message says what to paste instead."""


@dataclass(frozen=True, slots=True)
class Match:
    """A part on the scale that a name can mean, and how sure that is, within 0–1."""

    part: str
    name: str
    confidence: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Mark:
    """A fragment of the text, from ``start`` to before ``end``, and what it was taken for.

    ``tier`` is the tier's place, None for what concerns none; ``confidence`` lies within 0–1.
    """

    start: int
    end: int
    what: str
    tier: int | None
    confidence: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PartMark(Mark):
    """A fragment that names a part: its side and place in the tier, what it was matched to,
    runners-up.
    """

    side: Side
    position: int
    matches: tuple[Match, ...]
    why: str


@dataclass(frozen=True, slots=True)
class Draft:
    """Tiers as read, the marks in order of the text, and the fragments that nothing was made of."""

    text: str
    tiers: tuple[Tier, ...]
    marks: tuple[Mark, ...]
    unread: tuple[tuple[int, int], ...]

    @property
    def unread_texts(self) -> tuple[str, ...]:
        return tuple(self.text[start:end].strip() for start, end in self.unread)

    def part_mark(self, tier: int, side: Side, position: int) -> PartMark | None:
        """The mark behind one listed part."""
        for mark in self.marks:
            if isinstance(mark, PartMark) and (mark.tier, mark.side, mark.position) == (
                tier,
                side,
                position,
            ):
                return mark
        return None
