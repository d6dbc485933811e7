"""A catalogue with a keeper of its own: everything computed from one revision, once."""

from wattmetron.cache.cache import MOST_BYTES, Branch, Keeper
from wattmetron.cache.durable import AnswerStore
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.speeds.scaled_catalogue import settled

RAW_BYTES, LESSON_BYTES = 8_000_000, 16_000_000
"""What may be kept about the catalogue as it was described, and of what single games teach."""
LESSONS = Keeper(LESSON_BYTES)
"""What single games teach, kept by what it rests on, so that it outlives a revision."""
LESSON = frozenset({"lesson"})


def studied(described: Catalogue, store: AnswerStore | None = None) -> Catalogue:
    """The catalogue with its parts where its charts put them, and a keeper of what is computed;
    what lasts is looked for in a store.
    """
    keep = Branch(LESSONS, LESSON, MOST_BYTES, store)
    return settled(described.kept_by(Keeper(RAW_BYTES))).kept_by(keep)
