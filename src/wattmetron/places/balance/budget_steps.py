"""Budget steps: a few budgets side by side as complete builds, for a published guide."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.frontier import frontier
from wattmetron.core.search.problem import scenes_for
from wattmetron.core.search.proposal import BAND
from wattmetron.core.search.tie_break import settle
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.balance.balance import Tables
from wattmetron.places.balance.balance import tables as tables_of
from wattmetron.places.proposal.preference_answers import settled

LEAST, MOST = 3, 6
ROUND_MINOR = 5000
USUAL_SHARES = (70, 85, 100, 120, 150)


@dataclass(frozen=True, slots=True)
class BudgetStep:
    """One budget in minor units, the rise of its targets in %, its build (None where nothing fits)
    and the kinds that differ from the step before.
    """

    budget_minor: int
    rise_percent: int
    assessment: Assessment | None
    changed: tuple[Kind, ...]


def usual_budgets(brief: Brief) -> tuple[int, ...]:
    """Budgets around the brief's upper end, in round amounts."""
    budgets = sorted(
        {
            max(1, round(brief.budget_high_minor * share / 100 / ROUND_MINOR)) * ROUND_MINOR
            for share in USUAL_SHARES
        }
    )
    return (
        tuple(budgets)
        if len(budgets) >= LEAST
        else tuple(ROUND_MINOR * share for share in USUAL_SHARES)
    )


def check_budgets(budgets: Sequence[int]) -> None:
    """Raises BriefError unless there are three to six different budgets, rising."""
    if not LEAST <= len(budgets) <= MOST:
        raise BriefError(
            f"Budget steps need {LEAST} to {MOST} budgets; there are {len(budgets)}: add or take"
            " out some."
        )
    if any(later <= before for before, later in pairwise(budgets)):
        raise BriefError(
            "Budget steps must rise from one to the next: put the amounts in order, each once."
        )


def budget_steps(
    tables: Tables, budgets: Sequence[int], rises: Sequence[int] = ()
) -> tuple[BudgetStep, ...]:
    """The aim's answer for each budget, with the preferences that it grants; with rises the
    targets' frame rates are so many per cent higher in each step.

    Raises BriefError for budgets that are too few, too many or not rising.
    """
    check_budgets(budgets)
    return tables.catalogue.ask(
        _budget_steps, tables.wished, tables.fixed_build, tuple(budgets), tuple(rises)
    )


def _budget_steps(
    catalogue: Catalogue,
    wished: Brief,
    fixed: Build,
    budgets: tuple[int, ...],
    rises: tuple[int, ...],
) -> tuple[BudgetStep, ...]:
    tables = tables_of(catalogue, wished, fixed)
    steps: list[BudgetStep] = []
    whole = (
        None
        if any(rises) or tables.wished.preferences
        else frontier(scenes_for(catalogue, tables.brief, fixed), _room(tables, budgets[-1]))
    )
    for index, budget in enumerate(budgets):
        rise = rises[index] if index < len(rises) else 0
        brief = _risen(tables, rise, budget)
        scenes = scenes_for(tables.catalogue, brief, tables.fixed_build)
        table = whole or frontier(scenes, _room(tables, budget))
        answer = table.answer(budget - tables.besides, BAND)
        if answer is None:
            steps.append(BudgetStep(budget, rise, None, ()))
            continue
        build = settle(tables.catalogue, brief, scenes, answer, tables.fixed_build)
        now = assess(tables.catalogue, brief, build)
        before = next((step.assessment for step in reversed(steps) if step.assessment), None)
        changed = tuple(
            kind
            for kind in ALL_KINDS
            if before is not None and before.build.of(kind) != now.build.of(kind)
        )
        steps.append(BudgetStep(budget, rise, now, changed))
    return tuple(steps)


def _room(tables: Tables, budget: int) -> int:
    return max(0, min(NEVER - 1, budget - tables.besides))


def _risen(tables: Tables, rise: int, budget: int) -> Brief:
    """The brief with this budget, frame rates so many per cent higher, to whole frames, and the
    preferences that it grants then.
    """
    brief = tables.wished
    targets: tuple[Target, ...] = tuple(
        replace(target, fps=min(2000.0, round(target.fps * (100 + rise) / 100))) if rise else target
        for target in brief.targets
    )
    stepped = replace(
        brief,
        budget_high_minor=budget,
        budget_low_minor=min(budget, brief.budget_low_minor),
        targets=targets,
    )
    return settled(tables.catalogue, stepped, tables.fixed_build)[0]
