"""Letters with the briefs that they ask for, written before the reader."""

from dataclasses import dataclass, field
from typing import Any


@dataclass(frozen=True)
class Letter:
    """A letter in one tone, and what is to be read of it by field."""

    tone: str
    text: str
    expected: dict[str, Any] = field(default_factory=dict)
