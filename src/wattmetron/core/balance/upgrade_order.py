"""From one machine to another: which parts first, in steps that each leave a machine that runs."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.balance.order import Worth, best_order
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.rule import Rule, RuleContext
from wattmetron.core.compatibility.rule_wishes import Wishes, wishes_of
from wattmetron.core.compatibility.rules import BLOCKING
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import FURTHER_KINDS, KINDS, OF_FANS, Kind
from wattmetron.core.values.part_types import kind_of

OTHERS: tuple[Kind, ...] = tuple(kind for kind in FURTHER_KINDS if kind not in OF_FANS)
"""Further kinds that change together: none of them bears on frames."""
PLACES: tuple[tuple[Kind, ...], ...] = (*((kind,) for kind in KINDS), OF_FANS, OTHERS)
MILLION = 1_000_000


@dataclass(frozen=True, slots=True)
class PartChange:
    """Kinds that change at once, the parts that come and the old ones that are left over, by id."""

    kinds: tuple[Kind, ...]
    bought: tuple[str, ...]
    left: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class UpgradeStep:
    """Changes made together, with what they cost in minor units: below 0 where less is paid than
    the parts let go would have cost.
    """

    changes: tuple[PartChange, ...]
    cost_minor: int


def changes_between(now: Build, then: Build) -> tuple[PartChange, ...]:
    """What differs between two builds, in the order of the kinds."""
    changes = []
    for kinds in PLACES:
        before, after = (
            Counter(part_id for kind in kinds for part_id in build.of(kind))
            for build in (now, then)
        )
        if before != after:
            bought, left = after - before, before - after
            changes.append(PartChange(kinds, tuple(bought.elements()), tuple(left.elements())))
    return tuple(changes)


def with_changes(now: Build, then: Build, changes: Sequence[PartChange]) -> Build:
    """The first build with these kinds as in the second."""
    kinds = {kind for change in changes for kind in change.kinds}
    places: dict[str, Any] = {kind: getattr(then, kind) for kind in KINDS if kind in kinds}
    if "memory" in kinds:
        places["more_kits"] = then.more_kits
    if "graphics" in kinds:
        places["second_card"] = then.second_card
    added = [entry for entry in now.added if entry[0] not in kinds]
    added += [entry for entry in then.added if entry[0] in kinds]
    return replace(now, added=tuple(added), **places)


def steps_between(
    catalogue: Catalogue, brief: Brief, now: Build, then: Build
) -> tuple[UpgradeStep, ...] | None:
    """The changes from one build to another as steps, by ``best_order``: after each the machine is
    whole, fits and starts. None where the second build itself does not.

    A change costs what it buys less what it lets go that is still to be paid for. What is owned, or
    paid from elsewhere, costs nothing; a part without an offer counts as free. A change that saves
    counts as free in the order: money is not spent twice.
    """
    changes = changes_between(now, then)
    mixed = _Mixed(catalogue, brief, now, then, changes)
    costs = _costs(catalogue, brief, changes)
    order = best_order([max(0, cost) for cost in costs], mixed.stands, mixed.worth)
    if order is None:
        return None
    made = ([n for n in range(len(changes)) if step >> n & 1] for step in order)
    return tuple(
        UpgradeStep(tuple(changes[n] for n in members), sum(costs[n] for n in members))
        for members in made
    )


def _costs(catalogue: Catalogue, brief: Brief, changes: Sequence[PartChange]) -> list[int]:
    book, owned = catalogue.prices(brief.region, brief.may_buy), Counter(brief.owned)

    def paid(part_ids: Sequence[str]) -> int:
        return sum(
            (book.cost(part_id) or 0) * count
            for part_id, count in (Counter(part_ids) - owned).items()
            if part_id in catalogue.parts and kind_of(catalogue.part(part_id)) not in brief.outside
        )

    return [paid(change.bought) - paid(change.left) for change in changes]


class _Mixed:
    """Machines between two: what each set of changes makes, looked at only as far as it differs."""

    def __init__(
        self,
        catalogue: Catalogue,
        brief: Brief,
        now: Build,
        then: Build,
        changes: Sequence[PartChange],
    ) -> None:
        self._brief, self._changes = brief, changes
        self._ends = tuple(machine_of(catalogue, build, brief.clocks) for build in (now, then))
        self._wishes: Wishes = wishes_of(brief)
        self._blocks: dict[tuple[str, int], bool] = {}
        self._reads = [(rule, self._bits(rule.reads)) for rule in BLOCKING]
        self._worths = self._all_worths(catalogue)

    def _bits(self, kinds: frozenset[Kind]) -> int:
        """The changes that touch one of these kinds."""
        return sum(
            1 << n for n, change in enumerate(self._changes) if not kinds.isdisjoint(change.kinds)
        )

    def machine(self, taken: int) -> Machine:
        """The machine with a set of changes."""
        kinds = {
            kind
            for n, change in enumerate(self._changes)
            if taken >> n & 1
            for kind in change.kinds
        }
        now, then = self._ends
        places: dict[str, Any] = {
            kind: getattr(then if kind in kinds else now, kind) for kind in KINDS
        }
        places["kits"] = (then if "memory" in kinds else now).kits
        places["second_card"] = (then if "graphics" in kinds else now).second_card
        added = [part for part in now.added if kind_of(part) not in kinds]
        added += [part for part in then.added if kind_of(part) in kinds]
        return Machine(**places, added=tuple(added))

    def stands(self, taken: int) -> bool:
        """Whether a machine is whole and nothing blocks."""
        if self.machine(taken).missing():
            return False
        return not any(self._rule_blocks(rule, taken & bits) for rule, bits in self._reads)

    def _rule_blocks(self, rule: Rule, taken: int) -> bool:
        key = rule.name, taken
        if key not in self._blocks:
            self._blocks[key] = rule.blocks(RuleContext(self.machine(taken), self._wishes))
        return self._blocks[key]

    def worth(self, taken: int) -> Worth:
        return self._worths[taken & self._of_frames]

    def _all_worths(self, catalogue: Catalogue) -> dict[int, Worth]:
        """Weight met and U of every machine that differs in frames."""
        frames: frozenset[Kind] = frozenset(
            {"processor", "graphics", "mainboard", "memory", "storage", "optical"}
        )
        self._of_frames = self._bits(frames)
        sets = [taken for taken in range(self._of_frames + 1) if not taken & ~self._of_frames]
        lineup = Lineup([self.machine(taken) for taken in sets])
        met, gain = [0] * len(sets), [0.0] * len(sets)
        curves = curves_of(catalogue.keep)
        for target in self._brief.counted_targets:
            game = fitted_game(catalogue, target.game_id)
            seen = glance(lineup, game, target, self._brief, curves, with_ratio=True)
            for n, state in enumerate(seen.states):
                met[n] += target.weight * (state == "meets")
                gain[n] += target.weight * float(seen.ln_ratio[n])
        weight = sum(target.weight for target in self._brief.counted_targets) or 1
        return {
            taken: Worth(met[n], round(gain[n] / weight * MILLION)) for n, taken in enumerate(sets)
        }
