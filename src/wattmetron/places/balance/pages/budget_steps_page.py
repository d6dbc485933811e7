"""Budget steps as a page: complete builds side by side, and what each step adds."""

from dataclasses import dataclass
from urllib.parse import urlencode

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.money import MoneyError, to_minor
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.all_targets import at_once_words
from wattmetron.places.balance.balance import tables
from wattmetron.places.balance.budget_steps import BudgetStep, budget_steps, usual_budgets
from wattmetron.places.balance.coverage import cover
from wattmetron.shell.address import encode_build
from wattmetron.shell.forms import whole_or_none
from wattmetron.words.figures import KIND_WORDS, THIN, money, percent
from wattmetron.workshop.listed_briefs import Opened


@dataclass(frozen=True, slots=True, kw_only=True)
class StepPart:
    """A part of a step's build; whether it is another than in the step before."""

    kind: str
    name: str
    price: str
    changed: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class StepCard:
    """One budget: its build's parts with prices, what is met, its targets' rates, what it adds,
    where it is tried.
    """

    budget: str
    total: str
    left: str
    met: str
    targets: tuple[tuple[str, str, str], ...]
    parts: tuple[StepPart, ...]
    adds: str
    power: str
    runs: str
    url: str


@dataclass(frozen=True, kw_only=True)
class StepsPage:
    """The page; what was typed stays with an error."""

    opened: Opened
    amounts: str
    rise: str
    cards: tuple[StepCard, ...]
    currency: str
    prices: str
    error: str = ""


def steps_page(catalogue: Catalogue, opened: Opened, amounts: str, rise: str) -> StepsPage:
    """Budgets as typed, separated by spaces; without any the usual ones around the brief's."""
    plan = opened.plan
    currency = catalogue.region(plan.brief.region).currency
    newest = catalogue.prices(plan.brief.region, plan.brief.may_buy).newest
    prices = f"prices of {newest:%-d %b %Y}" if newest else "no prices"
    error = ""
    cards: tuple[StepCard, ...] = ()
    budgets = usual_budgets(plan.brief)
    try:
        budgets, made = asked_steps(catalogue, plan, amounts, rise)
        cards = tuple(
            _card(catalogue, step, made[index - 1] if index else None, opened, currency)
            for index, step in enumerate(made)
        )
    except WattmetronError as problem:
        error = str(problem)
    shown = amounts.strip() or " ".join(f"{budget // 100}" for budget in budgets)
    return StepsPage(
        opened=opened,
        amounts=shown,
        rise=rise.strip() or "0",
        cards=cards,
        currency=currency,
        prices=prices,
        error=error,
    )


def asked_steps(
    catalogue: Catalogue, plan: Plan, amounts: str, rise: str
) -> tuple[tuple[int, ...], tuple[BudgetStep, ...]]:
    """The budgets as typed, in minor units, and the build for each; raises BriefError."""
    budgets = usual_budgets(plan.brief)
    if amounts.strip():
        budgets = tuple(
            to_minor(piece, "A budget step") for piece in amounts.replace(";", " ").split()[:12]
        )
    per_step = _percent(rise)
    all_tables = tables(catalogue, plan.brief, plan.build)
    rises = [round(((1 + per_step / 100) ** n - 1) * 100) for n in range(len(budgets))]
    return budgets, budget_steps(all_tables, budgets, rises)


def _percent(text: str) -> int:
    text = text.strip() or "0"
    percent = whole_or_none(text)
    if percent is None or percent > 100:
        raise MoneyError(
            f"The rise of the targets is “{text[:20]}”: enter whole per cent from 0 to 100."
        )
    return percent


def _card(
    catalogue: Catalogue,
    step: BudgetStep,
    before: BudgetStep | None,
    opened: Opened,
    currency: str,
) -> StepCard:
    budget = money(step.budget_minor, currency)
    now = step.assessment
    if now is None:
        return StepCard(
            budget=budget,
            total="",
            left="",
            met="",
            targets=(),
            parts=(),
            adds="No fitting build for this money.",
            power="",
            runs="",
            url="",
        )
    parts = tuple(
        StepPart(
            kind=KIND_WORDS[line.kind],
            name=line.part.name if line.part else line.part_id,
            price=money(line.cost_minor, currency),
            changed=line.kind in step.changed,
        )
        for line in now.lines
    )
    targets = tuple(
        (
            estimate.game.name,
            f"{estimate.judged_fps:.0f} of {estimate.target.fps:g}{THIN}fps",
            estimate.state,
        )
        for estimate in now.counted
    )
    code = encode_build(now.build, opened.plan.build)
    url = f"/briefs/{opened.id}/balance?{urlencode({'try': code})}"
    runs = cover(catalogue, now.brief, now.machine)
    power = f"{now.draw.full_w}{THIN}W full draw"
    return StepCard(
        budget=budget,
        total=money(now.spent_minor, currency),
        left=money(now.left_minor, currency),
        met=f"{now.met} of {len(now.counted)} targets met"
        + (f", asked {step.rise_percent}{THIN}% higher" if step.rise_percent else "")
        + (f", {at_once}" if (at_once := at_once_words(catalogue, now)) else ""),
        targets=targets,
        parts=parts,
        adds=_adds(step, before, currency),
        power=power,
        runs=runs.words if runs else "",
        url=url,
    )


def _adds(step: BudgetStep, before: BudgetStep | None, currency: str) -> str:
    """What the step adds to the one before."""
    now = step.assessment
    if before is None or before.assessment is None or now is None:
        return "The first step."
    if not step.changed:
        return "The same build as the step before: the money is better kept."
    delta = now.spent_minor - before.assessment.spent_minor
    pairs = [
        (estimate, two)
        for estimate, two in zip(before.assessment.counted, now.counted, strict=True)
        if estimate.judged_fps
    ]
    weight = sum(estimate.target.weight for estimate, _ in pairs)
    gain = (
        sum(
            estimate.target.weight * (two.judged_fps / estimate.judged_fps - 1)
            for estimate, two in pairs
        )
        / weight
        if weight
        else 0.0
    )
    frames = f"{percent(abs(gain))} {'more' if gain >= 0 else 'fewer'} frames on average"
    kinds = listed([KIND_WORDS[kind] for kind in step.changed])
    return f"{money(delta, currency)} more: another {kinds}; {frames}."
