"""Budget steps: a few budgets side by side as complete builds, for a published guide."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from wattmetron.core.errors import BriefError
from wattmetron.core.search.answer import NEVER
from wattmetron.core.search.frontier import frontier
from wattmetron.core.search.proposal import BAND
from wattmetron.core.search.scene import scenes_for
from wattmetron.core.search.settle import settle
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.parts import KINDS, Kind
from wattmetron.services.advice.balance import Tables
from wattmetron.services.advice.preferences import settled
from wattmetron.services.desk.assess import Assessment, assess

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
    found = sorted(
        {
            max(1, round(brief.budget_high_minor * share / 100 / ROUND_MINOR)) * ROUND_MINOR
            for share in USUAL_SHARES
        }
    )
    return (
        tuple(found)
        if len(found) >= LEAST
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
    found: Tables, budgets: Sequence[int], rises: Sequence[int] = ()
) -> tuple[BudgetStep, ...]:
    """The aim's answer for each budget, with the preferences that it grants; with rises the
    targets' frame rates are so many per cent higher in each step.

    Raises BriefError for budgets that are too few, too many or not rising.
    """
    check_budgets(budgets)
    key = ("budget steps", found.wished, found.kept, tuple(budgets), tuple(rises))
    return found.catalogue.keep.long(key, lambda: _budget_steps(found, budgets, rises))


def _budget_steps(
    found: Tables, budgets: Sequence[int], rises: Sequence[int]
) -> tuple[BudgetStep, ...]:
    steps: list[BudgetStep] = []
    whole = (
        None
        if any(rises) or found.wished.preferences
        else frontier(found.scenes, _room(found, budgets[-1]))
    )
    for place, budget in enumerate(budgets):
        rise = rises[place] if place < len(rises) else 0
        brief = _risen(found, rise, budget)
        scenes = scenes_for(found.catalogue, brief, found.kept)
        table = whole or frontier(scenes, _room(found, budget))
        answer = table.answer(budget - found.besides, BAND)
        if answer is None:
            steps.append(BudgetStep(budget, rise, None, ()))
            continue
        build = settle(found.catalogue, brief, scenes, answer, found.kept)
        now = assess(found.catalogue, brief, build)
        before = next((one.assessment for one in reversed(steps) if one.assessment), None)
        changed = tuple(
            kind
            for kind in KINDS
            if before is not None and before.build.of(kind) != now.build.of(kind)
        )
        steps.append(BudgetStep(budget, rise, now, changed))
    return tuple(steps)


def _room(found: Tables, budget: int) -> int:
    return max(0, min(NEVER - 1, budget - found.besides))


def _risen(found: Tables, rise: int, budget: int) -> Brief:
    """The brief with this budget, frame rates so many per cent higher, to whole frames, and the
    preferences that it grants then.
    """
    brief = found.wished
    targets: tuple[Target, ...] = tuple(
        replace(one, fps=min(2000.0, round(one.fps * (100 + rise) / 100))) if rise else one
        for one in brief.targets
    )
    asked = replace(
        brief,
        budget_high_minor=budget,
        budget_low_minor=min(budget, brief.budget_low_minor),
        targets=targets,
    )
    return settled(found.catalogue, asked, found.kept)[0]
