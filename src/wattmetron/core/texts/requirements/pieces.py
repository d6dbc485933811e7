"""The pieces that a text is laid out into."""

from dataclasses import dataclass, field

from wattmetron.core.texts.requirements.vocabulary import Field


@dataclass(frozen=True, slots=True, kw_only=True)
class Piece:
    """Text from ``start`` to before ``end`` that belongs to a tier; ``label`` is the label's own
    text.
    """

    tier: int
    field: Field | None
    label: str
    start: int
    end: int
    prose: bool = False


@dataclass
class Layout:
    """Tier labels in order, pieces, and stretches that are nothing but layout: headings, labels,
    titles.
    """

    tiers: list[str] = field(default_factory=list)
    pieces: list[Piece] = field(default_factory=list)
    structure: list[tuple[int, int, str, int | None]] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class TextLine:
    """A line of a pasted text."""

    start: int
    end: int
    text: str
