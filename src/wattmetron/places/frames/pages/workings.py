"""The working of a figure: of one target's frames, or of a meter."""

from collections.abc import Iterator
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.frames.working import WorkingStep, frame_working
from wattmetron.core.power.draw import BOARD_W, FANS_W, STICK_W
from wattmetron.core.values.offers import Offer
from wattmetron.places.assessment.assess import Assessment, CostLine, supply_reserve_percent
from wattmetron.places.frames.pages.sentences import (
    fit_sentence,
    frames_sentence,
    money_sentence,
    power_sentence,
)
from wattmetron.places.games.library import game_facts
from wattmetron.places.games.pages.evidence_panel import result_rows
from wattmetron.words.figures import KIND_WORDS, THIN, money
from wattmetron.words.offer_words import offer_facts
from wattmetron.words.tier_words import tier_label


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkingView:
    """Title, the figure as a sentence, the steps behind it, and the evidence of the game's work
    with its place.
    """

    title: str
    sentence: str
    steps: tuple[WorkingStep, ...]
    game_id: str = ""
    evidence: tuple[tuple[str, str], ...] = ()


def working_view(
    catalogue: Catalogue, now: Assessment, what: str, dated: str
) -> WorkingView | None:
    """The working of a target (by its id), of money, frames, fit or power; None for anything
    else.
    """
    if what == "money":
        return WorkingView(
            title="Money", sentence=money_sentence(now, dated), steps=tuple(_money(now))
        )
    if what == "power":
        return WorkingView(
            title="Power", sentence=power_sentence(now, dated), steps=tuple(_power(now))
        )
    if what == "fit":
        return WorkingView(title="Fit", sentence=fit_sentence(now, dated), steps=tuple(_fit(now)))
    if what == "frames":
        what = now.worst.target.id if now.worst else ""
    for estimate in now.estimates:
        if estimate is not None and estimate.target.id == what:
            steps = (_work(estimate), *frame_working(now.machine, estimate, now.brief))
            return WorkingView(
                title=f"Frames of {estimate.game.name}",
                sentence=frames_sentence(now, estimate, dated),
                steps=steps,
                game_id=estimate.game.id,
                evidence=tuple(_evidence(catalogue, estimate.game.id)),
            )
    return None


def _evidence(catalogue: Catalogue, game_id: str) -> Iterator[tuple[str, str]]:
    """Every tier and result behind a game's work, and where on its page it stands."""
    facts = game_facts(catalogue, game_id, None, 0.8)
    for row in result_rows(catalogue, facts):
        if not row.muted and row.model:
            yield (
                (
                    f"{row.pair}, {row.settings}: published {row.measured}, model {row.model},"
                    f" {row.away}; {row.source}"
                ),
                f"result-{row.id}",
            )
    for position in dict.fromkeys(item.row.position for item in facts.informed.items):
        sentence = ", ".join(
            f"{'C' if item.side == 'processor' else 'G'} {item.work_ms:.1f}{THIN}ms"
            f" ±{item.sd * 100:.0f}{THIN}%"
            for item in facts.informed.items
            if item.row.position == position
        )
        label = next(
            item.row.tier.label for item in facts.informed.items if item.row.position == position
        )
        source = facts.published.source if facts.published else ""
        yield f"{tier_label(label, position)}: {sentence}; {source}", "tiers"


def _work(estimate: Estimate) -> WorkingStep:
    game = estimate.game
    return WorkingStep(
        "Work of the game",
        f"C {game.processor_ms:.2f} ms ±{game.processor_work_sd * 100:.0f}{THIN}%, G"
        f" {game.graphics_ms:.2f} ms ±{game.graphics_work_sd * 100:.0f}{THIN}%",
        "at high",
        "What was known of the game before, weighed with its tiers and results: every item is"
        " below.",
    )


def _not_counted(line: CostLine) -> str:
    """Why a price is not in the total; empty where it is."""
    if line.outside:
        return ", not in the budget"
    return ", later, not counted" if line.later else ""


def _money(now: Assessment) -> list[WorkingStep]:
    steps = []
    for line in now.lines:
        name = line.part.name if line.part else line.part_id
        if line.owned:
            steps.append(WorkingStep(name, "owned", money(0, now.currency)))
        elif line.offer is None:
            steps.append(WorkingStep(name, "no offer in stock in this region", "unknown"))
        else:
            offer = line.offer
            steps.append(
                WorkingStep(
                    name,
                    f"{money(offer.price_minor, now.currency)} +"
                    f" {money(offer.shipping_minor, now.currency)} shipping{_risk(offer)}",
                    f"{money(offer.cost_minor, now.currency)}{_not_counted(line)}",
                    f"{offer.shop}, seen {offer.seen_on:%-d %b %Y}, {offer.condition}; the cheapest"
                    f" delivered offer in stock. {' '.join(_facts(line))}".strip(),
                )
            )
    steps += [
        WorkingStep(
            extra.name,
            "in the budget" if extra.in_budget else "not in the budget",
            money(extra.minor, now.currency),
        )
        for extra in now.brief.extras
    ]
    if now.sold_minor:
        steps.append(
            WorkingStep(
                "Owned parts that are left over",
                "what they may sell for, as the brief counts it",
                f"−{money(now.sold_minor, now.currency)}",
            )
        )
    steps.append(
        WorkingStep("Total", "sum of what the budget pays", money(now.spent_minor, now.currency))
    )
    return steps


def _power(now: Assessment) -> list[WorkingStep]:
    drawn, machine = now.draw, now.machine
    sticks = machine.memory.sticks if machine.memory else 0
    steps = [
        WorkingStep(
            "Board, fans, memory, drives",
            f"{BOARD_W} + {FANS_W} + {sticks} x {STICK_W} + drives (NVMe 7, SATA 5)"
            + (f" + {machine.added_w} further parts" if machine.added_w else ""),
            f"{drawn.rest_w}{THIN}W",
            "Usual figures per kind.",
        ),
        WorkingStep(
            "Full draw",
            f"{drawn.processor_w} processor sustained + {drawn.graphics_w} card + {drawn.rest_w}"
            " rest",
            f"{drawn.full_w}{THIN}W",
        ),
        WorkingStep(
            "Short spike",
            f"{drawn.processor_w} + {drawn.graphics_w} x"
            f" {machine.graphics.spike_factor if machine.graphics else 1:g} + {drawn.rest_w}",
            f"{drawn.spike_w}{THIN}W",
            "Board power x the card's spike factor, the rest at full draw.",
        ),
        WorkingStep(
            "Supply needed",
            f"{drawn.full_w} x {now.brief.headroom_percent / 100:g} x"
            f" {1 + supply_reserve_percent(now.brief, machine) / 100:g}",
            f"{now.needed_w}{THIN}W",
            "Headroom and the reserve above it are settings of the brief; an owned supply needs no"
            " reserve.",
        ),
    ]
    if drawn.gaming_w is not None:
        heaviest = max(
            (
                estimate
                for estimate in now.estimates
                if estimate is not None and estimate.average_fps
            ),
            key=lambda estimate: (
                estimate.graphics_ms / estimate.mean_frame_ms
                + estimate.processor_ms / estimate.mean_frame_ms
            ),
        )
        steps.append(
            WorkingStep(
                "Gaming draw",
                "processor gaming power x t_c/E + board power x t_g/E + rest",
                f"{drawn.gaming_w:.0f}{THIN}W",
                f"The heaviest target; in {heaviest.game.name} both sides are busiest.",
            )
        )
    return steps


def _fit(now: Assessment) -> list[WorkingStep]:
    steps = [
        WorkingStep(
            finding.rule,
            ", ".join(
                f"{figure.label} {figure.value}{THIN}{figure.unit}".strip()
                for figure in finding.figures
            ),
            finding.level,
            finding.sentence,
        )
        for finding in now.findings
    ]
    if now.missing:
        words = ", ".join(KIND_WORDS[kind] for kind in now.missing)
        steps.append(
            WorkingStep(
                "Missing", words, str(len(now.missing)), "Parts not yet chosen raise no findings."
            )
        )
    if not steps:
        steps.append(
            WorkingStep(
                "All rules", "sockets, memory, sizes, cooling, power, outputs", "no findings"
            )
        )
    return steps


def _risk(offer: Offer) -> str:
    return f" + {money(offer.risk_minor, offer.currency)} for the risk" if offer.risk_minor else ""


def _facts(line: CostLine) -> tuple[str, ...]:
    return offer_facts(line.part, line.offer) if line.part and line.offer else ()
