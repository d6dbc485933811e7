"""What a builder chooses for the page that is handed over."""

from dataclasses import dataclass, replace

from wattmetron.core.errors import BriefError

SECTIONS: dict[str, str] = {
    "brief": "What it is for",
    "parts": "The parts",
    "frames": "How the games will run",
    "findings": "What to know and to do",
    "outside": "Not in this price",
    "beside": "To go with it",
    "alternatives": "Alternatives",
    "later": "Room to grow",
    "assembly": "Putting it together",
    "start": "If it does not start",
    "house": "House rules",
    "sure": "How sure this is",
    "words": "Words",
}
"""What a handout may show, in the usual order."""
LONGEST_OPENING, LONGEST_NOTE, MOST_NOTES = 2000, 300, 60


@dataclass(frozen=True, slots=True)
class Note:
    """A builder's reason for a part, with what held when it was written: the delivered price in
    minor units (None: not known) and the computed reason (empty: not known).
    """

    part_id: str
    text: str
    price_minor: int | None = None
    reason: str = ""


@dataclass(frozen=True, slots=True)
class HandoutChoice:
    """An opening of one's own, which sections are shown and in which order, notes on parts, and the
    names of the sets of peripherals that are shown.
    """

    opening: str = ""
    shown: tuple[str, ...] = tuple(SECTIONS)
    notes: tuple[Note, ...] = ()
    grades: tuple[str, ...] = ()

    def note_on(self, part_id: str) -> Note | None:
        return next((note for note in self.notes if note.part_id == part_id), None)

    def with_note(self, note: Note) -> "HandoutChoice":
        """With a note on a part, or without one where the text is empty; raises BriefError."""
        if len(note.text) > LONGEST_NOTE:
            raise BriefError(f"The note is longer than {LONGEST_NOTE} characters: shorten it.")
        others = tuple(each_note for each_note in self.notes if each_note.part_id != note.part_id)
        if len(others) >= MOST_NOTES:
            raise BriefError(f"There are {MOST_NOTES} notes already: take one out first.")
        return replace(self, notes=(*others, note) if note.text else others)

    def with_opening(self, text: str) -> "HandoutChoice":
        """With another opening; raises BriefError for one that is too long."""
        if len(text) > LONGEST_OPENING:
            raise BriefError(
                f"The opening is longer than {LONGEST_OPENING:,} characters: shorten it."
            )
        return replace(self, opening=text)

    def with_grade(self, name: str, shown: bool) -> "HandoutChoice":
        """With a set of peripherals shown, or not."""
        others = tuple(grade for grade in self.grades if grade != name)
        return replace(self, grades=(*others, name) if shown else others)

    def moved(self, key: str, where: str) -> "HandoutChoice":
        """With a section earlier or later by one place, hidden, or shown again at the end."""
        order = list(self.shown)
        if key not in SECTIONS:
            raise BriefError("There is no such section: load the page again.")
        if where == "show" and key not in order:
            order.append(key)
        elif key in order:
            index = order.index(key)
            order.remove(key)
            if where == "earlier":
                order.insert(max(0, index - 1), key)
            elif where == "later":
                order.insert(index + 1, key)
        return replace(self, shown=tuple(order))
