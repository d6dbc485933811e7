"""Reading published requirements from pasted text."""

from wattmetron.core.reading.draft import Draft, Mark, Match, PartMark
from wattmetron.core.reading.reader import Reader

__all__ = ["Draft", "Mark", "Match", "PartMark", "Reader"]
