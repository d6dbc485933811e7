"""What a list says, part by part."""

from dataclasses import dataclass

from wattmetron.core.errors import InvalidError
from wattmetron.core.values.part_kinds import Kind

SURE_FROM = 0.8


class ListError(InvalidError):
    """A text that is no list that can be read."""


@dataclass(frozen=True, slots=True)
class Guess:
    """A part that a text may mean, with how likely that is, 0 to 1."""

    part_id: str
    confidence: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SentPart:
    """One part of a list: the text that names it, what it may mean, the likeliest first (nothing:
    the catalogue lacks it), parts of a like name where it is lacking, how many, what one of them
    costs there in minor units, and whether it is there already.
    """

    text: str
    guesses: tuple[Guess, ...]
    kind: Kind | None = None
    quantity: int = 1
    price_minor: int | None = None
    currency: str = ""
    owned: bool = False
    alike: tuple[str, ...] = ()

    @property
    def best(self) -> Guess | None:
        return self.guesses[0] if self.guesses else None

    @property
    def sure(self) -> bool:
        return bool(self.guesses) and self.guesses[0].confidence >= SURE_FROM


@dataclass(frozen=True, slots=True)
class SentList:
    """All parts of a list in order, and whether the text was longer than what is read."""

    parts: tuple[SentPart, ...]
    cut: bool = False

    @property
    def currencies(self) -> tuple[str, ...]:
        return tuple(
            dict.fromkeys(sent_part.currency for sent_part in self.parts if sent_part.currency)
        )
