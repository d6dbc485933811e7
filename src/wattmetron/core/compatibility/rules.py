"""All fit rules, in families and in the order in which a builder meets them, and what they find."""

from collections.abc import Iterable, Iterator
from functools import partial

from wattmetron.core.compatibility import (
    clearance,
    cooling,
    display_link,
    drive_rules,
    game_demands,
    memory_rules,
    platform,
    ports,
    sources,
    supply,
)
from wattmetron.core.compatibility.finding import (
    LEVELS,
    NOT_JUDGED,
    Finding,
    Gap,
    MissingData,
    RuleFinding,
    Told,
    not_judged,
)
from wattmetron.core.compatibility.rule import Rule, RuleContext
from wattmetron.core.compatibility.rule_wishes import USUAL, Wishes
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import Kind

RULES: tuple[Rule, ...] = tuple(
    rule
    for module in (
        platform,
        memory_rules,
        drive_rules,
        display_link,
        ports,
        clearance,
        cooling,
        supply,
        game_demands,
    )
    for rule in module.RULES
)
BLOCKING: tuple[Rule, ...] = tuple(rule for rule in RULES if rule.can_block)
TOLD: tuple[Told, ...] = (*RULES, sources.CLAIMED, sources.DISPUTED, NOT_JUDGED)
"""Every rule as it is told of, with those about figures that are only claimed or not known."""
BY_NAME: dict[str, Told] = {rule_text.name: rule_text for rule_text in TOLD}


def check(machine: Machine, wishes: Wishes = USUAL) -> tuple[Finding, ...]:
    """Every finding about the parts that are there, the gravest first; parts not yet chosen raise
    none.

    What cannot be judged for want of a figure is one finding of its own; so is what is only
    claimed, and each figure on which sources disagree.
    """
    findings = [*judged(machine, wishes)]
    if any(part.claimed or part.disputed for part in machine.parts()):
        findings += [
            *sources.claimed(machine, RULES),
            *sources.disputed(machine, partial(judged, wishes=wishes)),
        ]
    return tuple(sorted(findings, key=lambda finding: LEVELS.index(finding.level)))


def judged(machine: Machine, wishes: Wishes = USUAL) -> tuple[Finding, ...]:
    """The findings by the figures as they stand, in the order of the rules."""
    look = RuleContext(machine, wishes)
    spoken = [(rule, statement) for rule in RULES for statement in rule.speak(look)]
    findings = [
        rule.finding(statement) for rule, statement in spoken if isinstance(statement, RuleFinding)
    ]
    gaps = (
        Gap(rule.name, *statement)
        for rule, statement in spoken
        if isinstance(statement, MissingData)
    )
    return (*findings, *not_judged(gaps))


def blocks(machine: Machine, wishes: Wishes = USUAL) -> bool:
    """Whether any finding blocks."""
    return any_blocks(BLOCKING, RuleContext(machine, wishes))


def any_blocks(rules: Iterable[Rule], look: RuleContext) -> bool:
    """Whether one of these rules blocks."""
    return any(rule.blocks(look) for rule in rules)


def blocking(rules: Iterable[Rule], look: RuleContext) -> Iterator[Finding]:
    """What these rules find that blocks."""
    return (
        statement
        for rule in rules
        for statement in rule(look)
        if isinstance(statement, Finding) and statement.level == "blocks"
    )


def blocking_on(kind: Kind, without: frozenset[Kind] = frozenset()) -> tuple[Rule, ...]:
    """The rules that can block because of a part of a kind, but for those that also read kinds
    that are not there yet.
    """
    return tuple(rule for rule in BLOCKING if kind in rule.reads and not rule.reads & without)


def rules_markdown() -> str:
    """The table of the documentation."""
    lines = [
        "| rule | family | level | speaks when | silent when |",
        "| --- | --- | --- | --- | --- |",
    ]
    lines += [
        f"| {row.name} | {row.family} | {', '.join(row.levels)} | {row.speaks} | {row.silent} |"
        for row in TOLD
    ]
    return "\n".join(lines) + "\n"
