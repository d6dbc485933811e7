"""What is left of a text while it is read, and what was made of each stretch."""

import re
from dataclasses import dataclass, field
from typing import Any

from wattmetron.core.texts.requirements.draft import Mark, Match, PartMark
from wattmetron.core.texts.requirements.vocabulary import GLUE
from wattmetron.core.values.published import Listed, Side, Tier

_WORD = re.compile(r"[^\W_]+(?:[.,'][^\W_]+)*")


@dataclass
class Sheet:
    """One tier while it fills up."""

    label: str
    values: dict[str, Any] = field(default_factory=dict)
    listed: dict[Side, list[Listed]] = field(
        default_factory=lambda: {"processor": [], "graphics": []}
    )

    def tier(self) -> Tier:
        return Tier(
            label=self.label,
            processors=tuple(self.listed["processor"]),
            graphics=tuple(self.listed["graphics"]),
            **self.values,
        )

    @property
    def empty(self) -> bool:
        return not self.values and not any(self.listed.values())


class Scratchpad:
    """The text with everything blanked out that was read; marks for what was."""

    def __init__(self, text: str) -> None:
        self.text = text
        self._left = list(text)
        self.marks: list[Mark] = []

    def left(self, start: int, end: int) -> str:
        """A stretch with blanks where it was read already; of the same length."""
        return "".join(self._left[start:end])

    def take(self, start: int, end: int, what: str, tier: int | None, confidence: float) -> None:
        """Mark a stretch, without the blanks around it, as read; around what was read within."""
        start, end = self._trim(start, end)
        if self._was_read_within(start, end):
            self.take_left(start, end, what, tier, confidence)
            return
        if start < end:
            self.marks.append(
                Mark(start=start, end=end, what=what, tier=tier, confidence=confidence)
            )
        self.blank(start, end)

    def take_left(
        self, start: int, end: int, what: str, tier: int | None, confidence: float
    ) -> None:
        """Mark what is left of a stretch, around what was read already."""
        position = start
        for index in range(start, end + 1):
            if index == end or (self._left[index] == " " != self.text[index]):
                if any(sign.isalnum() for sign in self._left[position:index]):
                    self.take(position, index, what, tier, confidence)
                position = index + 1

    def take_part(
        self,
        start: int,
        end: int,
        tier: int,
        side: Side,
        position: int,
        matches: tuple[Match, ...],
        why: str,
    ) -> None:
        """Mark a stretch as the name of a part."""
        start, end = self._trim(start, end)
        self.marks = [mark for mark in self.marks if not (start < mark.end and mark.start < end)]
        confidence = matches[0].confidence if matches else 0.0
        self.marks.append(
            PartMark(
                start=start,
                end=end,
                what=side,
                tier=tier,
                confidence=confidence,
                side=side,
                position=position,
                matches=matches,
                why=why,
            )
        )
        self.blank(start, end)

    def blank(self, start: int, end: int) -> None:
        self._left[start:end] = [" " if sign != "\n" else sign for sign in self._left[start:end]]

    def _trim(self, start: int, end: int) -> tuple[int, int]:
        while start < end and self._left[start] in " \t\n*;,|":
            start += 1
        while end > start and self._left[end - 1] in " \t\n*;,|":
            end -= 1
        return start, end

    def unread(self) -> tuple[tuple[int, int], ...]:
        """Stretches with words that nothing was made of; glue alone does not count."""
        stretches: list[tuple[int, int]] = []
        rest = "".join(self._left)
        for line in re.finditer(r"[^\n]+", rest):
            words = [match for match in _WORD.finditer(line[0]) if match[0].casefold() not in GLUE]
            for word in words:
                start, end = line.start() + word.start(), line.start() + word.end()
                if stretches and not self._between(stretches[-1][1], start):
                    stretches[-1] = (stretches[-1][0], end)
                else:
                    stretches.append((start, end))
        return tuple(stretches)

    def _was_read_within(self, start: int, end: int) -> bool:
        return any(
            self._left[position] == " " != self.text[position] for position in range(start, end)
        )

    def _between(self, start: int, end: int) -> bool:
        """Whether something that was read, or a new line, lies between two places."""
        return (
            "".join(self._left[start:end]) != self.text[start:end] or "\n" in self.text[start:end]
        )
