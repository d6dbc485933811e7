"""Whether the parts of a machine go together, and what to do where they do not."""

from wattmetron.core.fit.finding import LEVELS, Figure, Finding, Level
from wattmetron.core.fit.rules import blocks, check, goes_in

__all__ = ["LEVELS", "Figure", "Finding", "Level", "blocks", "check", "goes_in"]
