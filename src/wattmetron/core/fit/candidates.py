"""What fits into a machine and why not: for each candidate of a kind the findings that block
because of it.
"""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any

from wattmetron.core.fit.finding import Finding, Spoken
from wattmetron.core.fit.rule import Look, Rule
from wattmetron.core.fit.rules import blocking_on, check
from wattmetron.core.fit.wishes import USUAL, Wishes
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import FURTHER_KINDS, KINDS, Kind, Part

RULES_OF: dict[Kind, tuple[Rule, ...]] = {kind: blocking_on(kind) for kind in KINDS}


def reasons_against(
    machine: Machine, kind: Kind, parts: Iterable[Part], wishes: Wishes = USUAL
) -> Iterator[tuple[Finding, ...]]:
    """For each part, put into its place (a drive beside the others), what then blocks and did not
    without it.
    """
    if kind in FURTHER_KINDS:
        yield from (() for _ in parts)
        return
    bare = machine if kind == "storage" else replace(machine, **{kind: None})  # type: ignore[arg-type]
    standing = {finding.rule for finding in check(bare, wishes) if finding.level == "blocks"}
    rules = RULES_OF[kind]
    places: list[Any] = [getattr(bare, place) for place in KINDS]
    own = KINDS.index(kind)
    for part in parts:
        places[own] = (*machine.storage, part) if kind == "storage" else part
        with_it = Machine(*places)
        if machine.second_card is not None:
            with_it = replace(with_it, second_card=machine.second_card)
        look = Look(with_it, wishes)
        yield _blocking([said for rule in rules for said in rule(look)], standing)


def _blocking(spoken: list[Spoken], standing: set[str]) -> tuple[Finding, ...]:
    return tuple(
        said
        for said in spoken
        if isinstance(said, Finding) and said.level == "blocks" and said.rule not in standing
    )
