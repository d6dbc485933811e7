"""What a builder chooses for the page that is handed over."""

from dataclasses import dataclass

from wattmetron.core.errors import BriefError

SECTIONS: dict[str, str] = {
    "brief": "What it is for",
    "parts": "The parts",
    "frames": "How the games will run",
    "findings": "What to know and to do",
    "outside": "Not in this price",
    "alternatives": "Alternatives",
    "later": "Room to grow",
    "assembly": "Putting it together",
    "start": "If it does not start",
    "sure": "How sure this is",
    "words": "Words",
}
"""What a handout may show, in the usual order."""
LONGEST_OPENING, LONGEST_NOTE, MOST_NOTES = 2000, 300, 60


@dataclass(frozen=True, slots=True)
class HandoutChoice:
    """An opening of one's own, which sections are shown and in which order, and notes on parts by
    their ids.
    """

    opening: str = ""
    shown: tuple[str, ...] = tuple(SECTIONS)
    notes: tuple[tuple[str, str], ...] = ()

    def note_on(self, part_id: str) -> str:
        return dict(self.notes).get(part_id, "")

    def with_note(self, part_id: str, text: str) -> "HandoutChoice":
        """With a note on a part, or without one where the text is empty; raises BriefError."""
        if len(text) > LONGEST_NOTE:
            raise BriefError(f"The note is longer than {LONGEST_NOTE} characters: shorten it.")
        others = tuple(own for own in self.notes if own[0] != part_id)
        if len(others) >= MOST_NOTES:
            raise BriefError(f"There are {MOST_NOTES} notes already: take one out first.")
        notes = (*others, (part_id, text)) if text else others
        return HandoutChoice(self.opening, self.shown, notes)

    def with_opening(self, text: str) -> "HandoutChoice":
        """With another opening; raises BriefError for one that is too long."""
        if len(text) > LONGEST_OPENING:
            raise BriefError(
                f"The opening is longer than {LONGEST_OPENING:,} characters: shorten it."
            )
        return HandoutChoice(text, self.shown, self.notes)

    def moved(self, key: str, where: str) -> "HandoutChoice":
        """With a section earlier or later by one place, hidden, or shown again at the end."""
        order = list(self.shown)
        if key not in SECTIONS:
            raise BriefError("There is no such section: load the page again.")
        if where == "show" and key not in order:
            order.append(key)
        elif key in order:
            at = order.index(key)
            order.remove(key)
            if where == "earlier":
                order.insert(max(0, at - 1), key)
            elif where == "later":
                order.insert(at + 1, key)
        return HandoutChoice(self.opening, tuple(order), self.notes)
