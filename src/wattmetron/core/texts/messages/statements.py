"""What was read of a letter: each piece with its place in the text."""

from dataclasses import dataclass
from typing import Any, Literal

Field = Literal[
    "budget",
    "currency",
    "size",
    "refresh_hz",
    "game",
    "fps",
    "preset",
    "ray_tracing",
    "upscaling",
    "generated",
    "no_lights",
    "quiet",
    "small",
    "colour",
    "cooling",
    "wireless",
    "allow_used",
    "own_kind",
    "owned",
    "no_maker",
    "memory_gb",
    "storage_gb",
    "no_disks",
    "work",
    "years",
    "buys",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class MessageReading:
    """A field with its value, where it stands (start and end in the text), the game that it is
    about, and whether it may be taken as said.
    """

    field: Field
    value: Any
    start: int
    end: int
    game: str = ""
    sure: bool = True


@dataclass(frozen=True, slots=True)
class Clause:
    """A piece of a sentence with its place; ``sentence`` numbers the sentences."""

    text: str
    start: int
    sentence: int

    @property
    def end(self) -> int:
        return self.start + len(self.text)


@dataclass(frozen=True, slots=True)
class Letter:
    """A letter with what was read, in the order of the text, and the sentences (start, end) of
    which nothing was; whether the end of a long one was cut off before.
    """

    text: str
    readings: tuple[MessageReading, ...]
    unread: tuple[tuple[int, int], ...]
    cut: bool = False

    def of(self, field: Field) -> tuple[MessageReading, ...]:
        return tuple(reading for reading in self.readings if reading.field == field)
