"""Whether a change of a machine is sound: looked at as a whole machine, by all rules and floors.

Findings are compared by rule and the places that they concern, not by count.
"""

import re
from collections.abc import Iterable, Iterator

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import LEVELS, NOT_JUDGED, Finding
from wattmetron.core.compatibility.floor_violations import missed
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.rules import check
from wattmetron.core.compatibility.wasted_money import weighed
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.machine import Machine

HARMLESS = LEVELS.index("good to know")
FIGURES = re.compile(r"\b[0-9][0-9.,]*")


def added(before: Iterable[Finding], after: Iterable[Finding]) -> Iterator[Finding]:
    """Findings above *good to know* after a change that did not stand before, or not as gravely."""
    standing = {}
    for finding in sorted(before, key=lambda finding: -LEVELS.index(finding.level)):
        standing[finding.rule, finding.kinds] = LEVELS.index(finding.level)
    for finding in after:
        grave = LEVELS.index(finding.level)
        if grave < standing.get((finding.rule, finding.kinds), HARMLESS):
            yield finding


class Vetting:
    """What changes of one machine under a brief would add to its findings and missed floors."""

    def __init__(self, catalogue: Catalogue, brief: Brief, machine: Machine) -> None:
        self._catalogue = catalogue
        self._book = catalogue.prices(brief.region, brief.may_buy)
        self.wishes = wishes_of(brief, catalogue.games, catalogue.published)
        self.floors = floors_of(catalogue, brief).with_owned(brief.owned)
        self.findings = self.judge(machine)
        self._missed = {_about(sentences) for sentences in missed(machine, self.floors)}
        self._unjudged = _unjudged(self.findings)

    def judge(self, machine: Machine) -> tuple[Finding, ...]:
        """All findings about a machine."""
        return weighed(check(machine, self.wishes), machine, self._catalogue, self._book)

    def objections(self, machine: Machine) -> Iterator[str]:
        """A sentence for each finding that a changed machine adds and each floor that it newly
        misses.
        """
        after = self.judge(machine)
        yield from (finding.sentence for finding in added(self.findings, after))
        yield from (sentences[1] for sentences in self._newly_missed(machine))
        if _unjudged(after) > self._unjudged:
            yield from (finding.sentence for finding in after if finding.rule == NOT_JUDGED.name)

    def passes(self, machine: Machine) -> bool:
        """Whether there is no objection; what is missed is the quickest to see."""
        if next(self._newly_missed(machine), None):
            return False
        return next(self.objections(machine), None) is None

    def _newly_missed(self, machine: Machine) -> Iterator[tuple[str, str]]:
        """Floors that a changed machine misses for a part that did not miss them before."""
        return (
            sentences
            for sentences in missed(machine, self.floors)
            if _about(sentences) not in self._missed
        )


def _about(sentences: tuple[str, str]) -> tuple[str, str]:
    """A floor that is missed and what misses it, whatever the figures: the same part of a machine
    may miss a floor by more or less.
    """
    field, sentence = sentences
    return field, FIGURES.sub("", sentence)


def _unjudged(findings: Iterable[Finding]) -> int:
    """How many figures are missing: what cannot be judged is not cleared."""
    return sum(len(finding.figures) for finding in findings if finding.rule == NOT_JUDGED.name)
