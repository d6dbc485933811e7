"""A finding: what a rule says about the parts concerned."""

from dataclasses import dataclass
from typing import Literal

from wattmetron.core.parts import Kind

Level = Literal["blocks", "do first", "wastes", "good to know"]
LEVELS: tuple[Level, ...] = ("blocks", "do first", "wastes", "good to know")


@dataclass(frozen=True, slots=True)
class Figure:
    """A compared figure with its unit."""

    label: str
    value: str
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Finding:
    """Level, kinds concerned, one plain sentence, the figures compared, what to do.

    ``remedy_kinds`` are the kinds whose change can clear it, best first.
    """

    rule: str
    level: Level
    kinds: tuple[Kind, ...]
    sentence: str
    advice: str
    figures: tuple[Figure, ...] = ()
    remedy_kinds: tuple[Kind, ...] = ()
