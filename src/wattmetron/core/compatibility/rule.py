"""What a fit rule is: declared once, beside the function that looks at a machine."""

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import cached_property

from wattmetron.core.compatibility.finding import (
    Finding,
    Gap,
    Level,
    RuleFinding,
    Speech,
    Spoken,
    Told,
)
from wattmetron.core.compatibility.rule_wishes import USUAL, Wishes
from wattmetron.core.power.draw import Draw, draw
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import SPECS, Kind
from wattmetron.core.values.parts import Part

DRAWN: frozenset[Kind] = frozenset(kind for kind, spec in SPECS.items() if spec.draws)
"""Kinds that the draw is made of."""


class RuleContext:
    """A machine and the wishes that it is held against; its draw is worked out once."""

    def __init__(self, machine: Machine, wishes: Wishes = USUAL) -> None:
        self.machine, self.wishes = machine, wishes

    @cached_property
    def draw(self) -> Draw:
        return draw(self.machine)

    def with_part(self, kind: Kind, part: Part) -> "RuleContext":
        """At the machine with a part in its place; what it draws is the same where that cannot
        hang on the part.
        """
        other = RuleContext(self.machine.with_part(kind, part), self.wishes)
        if kind not in DRAWN:
            other.__dict__["draw"] = self.draw
        return other


Speak = Callable[[RuleContext], Speech]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule(Told):
    """A rule with the kinds that it reads, the figures of parts that it hangs on where they may be
    claimed or disputed, and the function that speaks.
    """

    reads: frozenset[Kind]
    speak: Speak
    hangs_on: Mapping[Kind, tuple[str, ...]] = field(default_factory=dict)

    def __call__(self, look: RuleContext) -> Iterator[Spoken]:
        """What the rule says of a machine."""
        for statement in self.speak(look):
            yield (
                self.finding(statement)
                if isinstance(statement, RuleFinding)
                else Gap(self.name, *statement)
            )

    def finding(self, statement: RuleFinding) -> Finding:
        """What was said, with the name of the rule and the level."""
        *rest, level = statement
        return Finding._make((self.name, level or self.levels[0], *rest))

    @property
    def can_block(self) -> bool:
        return "blocks" in self.levels

    def blocks(self, look: RuleContext) -> bool:
        """Whether the rule blocks a machine."""
        return any(
            isinstance(statement, RuleFinding) and (statement.level or self.levels[0]) == "blocks"
            for statement in self.speak(look)
        )


class RuleFamily:
    """The rules of a module, in the order in which they stand there: each is added by its
    declaration, while the module is read.
    """

    def __init__(self, name: str) -> None:
        self.name, self._rules = name, list[Rule]()

    def __iter__(self) -> Iterator[Rule]:
        return iter(self._rules)

    def rule(
        self,
        name: str,
        *,
        levels: tuple[Level, ...],
        reads: Iterable[Kind],
        speaks: str,
        silent: str,
        hangs_on: Mapping[Kind, tuple[str, ...]] | None = None,
    ) -> Callable[[Speak], Rule]:
        """Declares a rule; the function yields what is said, the first level where it names
        none.
        """

        def declare(speak: Speak) -> Rule:
            declared = Rule(
                name=name,
                family=self.name,
                levels=levels,
                speaks=speaks,
                silent=silent,
                reads=frozenset(reads),
                speak=speak,
                hangs_on=hangs_on or {},
            )
            self._rules.append(declared)
            return declared

        return declare
