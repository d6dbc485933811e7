"""What fits into a machine and why not: for each candidate of a kind the findings that block
because of it.
"""

from collections.abc import Iterable, Iterator
from dataclasses import replace

from wattmetron.core.compatibility.finding import Finding, MissingData, RuleFinding
from wattmetron.core.compatibility.rule import Rule, RuleContext
from wattmetron.core.compatibility.rule_wishes import USUAL, Wishes
from wattmetron.core.compatibility.rules import blocking_on, check
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import ALL_KINDS, FURTHER_KINDS, OF_FANS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part

RULES_OF: dict[Kind, tuple[Rule, ...]] = {kind: blocking_on(kind) for kind in ALL_KINDS}


def reasons_against(
    machine: Machine, kind: Kind, parts: Iterable[Part], wishes: Wishes = USUAL
) -> Iterator[tuple[Finding, ...]]:
    """For each part, put into its place (a drive or a fan beside the others), what then blocks and
    did not without it.
    """
    bare = _without(machine, kind)
    standing = {finding.rule for finding in check(bare, wishes) if finding.level == "blocks"}
    rules = RULES_OF[kind]
    look = RuleContext(replace(bare, kits=()), wishes)
    for part in parts:
        tried = look.with_part(kind, part)
        spoken = [(rule, spoken) for rule in rules for spoken in rule.speak(tried)]
        yield _blocking(spoken, standing) if spoken else ()


def _without(machine: Machine, kind: Kind) -> Machine:
    """A machine without the part of a kind; drives and fans stay."""
    if kind == "storage" or kind in OF_FANS:
        return machine
    if kind in FURTHER_KINDS:
        return replace(
            machine, added=tuple(part for part in machine.added if kind_of(part) != kind)
        )
    return replace(machine, **{kind: None})  # type: ignore[arg-type]


def _blocking(
    spoken: list[tuple[Rule, RuleFinding | MissingData]], standing: set[str]
) -> tuple[Finding, ...]:
    return tuple(
        finding
        for rule, spoken_finding in spoken
        if isinstance(spoken_finding, RuleFinding) and rule.name not in standing
        if (finding := rule.finding(spoken_finding)).level == "blocks"
    )
