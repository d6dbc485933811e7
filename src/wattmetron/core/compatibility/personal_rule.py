"""What a personal rule of a brief is: declared once, beside the function that judges a part."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import NamedTuple

from wattmetron.core.values.brief import Brief
from wattmetron.core.values.offers import AMPLE, Supply
from wattmetron.core.values.parts import Part

Supplies = Callable[[str], Supply]
"""In how many shops a part is in stock, by its id."""


def ample(_: str) -> Supply:
    return AMPLE


class PartCandidate(NamedTuple):
    """A part that might be bought, at its cost in minor units, from so many shops, beside parts
    that stay in any case.
    """

    brief: Brief
    part: Part
    cost_minor: int
    stays: tuple[Part, ...] = ()
    supply: Supplies = ample


Money = Callable[[int], str]
"""An amount in minor units, written out."""
Bars = Callable[[PartCandidate], bool]
Says = Callable[[PartCandidate, Money], str]


@dataclass(frozen=True, slots=True, kw_only=True)
class PersonalRule:
    """A rule of the brief with its name, whether it keeps a part from being bought, and the
    sentence for that.
    """

    name: str
    bars: Bars
    says: Says


class PersonalRules:
    """All personal rules, in the order in which they stand below."""

    def __init__(self) -> None:
        self._rules = list[PersonalRule]()

    def __iter__(self) -> Iterator[PersonalRule]:
        return iter(self._rules)

    def rule(self, name: str, says: Says) -> Callable[[Bars], PersonalRule]:
        """Declares a personal rule; the function says whether it bars."""

        def declare(bars: Bars) -> PersonalRule:
            declared = PersonalRule(name=name, bars=bars, says=says)
            self._rules.append(declared)
            return declared

        return declare
