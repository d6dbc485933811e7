"""The balance as plain data for the API and the command line; money as decimal strings, shares of
ratios as numbers.
"""

from math import exp
from typing import Any

from wattmetron.core.balance.cost_shares import SideShare
from wattmetron.core.catalogue import Catalogue
from wattmetron.formats.brief_file import build_file
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.balance.balance import idle_money, map_of, more_money, split_of, tables
from wattmetron.places.balance.balance_words import account
from wattmetron.places.balance.years import years_kept
from wattmetron.words.figures import amount


def balance_json(catalogue: Catalogue, now: Assessment) -> dict[str, Any]:
    """Account, split, frontier, next money and idle money of a build, or of the answer where the
    build is not whole.
    """
    all_tables = tables(catalogue, now.brief, now.build)
    step = all_tables.answer(all_tables.budget)
    answer = None if step is None else assess(catalogue, now.brief, all_tables.build_at(step))
    subject = now if not now.missing or answer is None else answer
    free = idle_money(catalogue, subject)
    more = more_money(all_tables, subject)
    pairs = map_of(all_tables, subject.machine.parts())
    steps = all_tables.frontier.steps
    return {
        "currency": subject.currency,
        "of_the_build": subject is now,
        "account": list(account(all_tables, subject, answer, pairs, more, free)),
        "answer": (
            None
            if answer is None
            else {
                "total_cost": amount(answer.spent_minor),
                "targets_met": answer.met,
                "build": _build(answer),
            }
        ),
        "split": _split(catalogue, subject),
        "knee_total_cost": (
            None
            if all_tables.knee is None
            else amount(steps[all_tables.knee].cost + all_tables.besides)
        ),
        "frontier": [
            {
                "total_cost": amount(winner.cost + all_tables.besides),
                "weight_met": winner.met,
                "gain_millionths": winner.gain,
                "reached_shares": [round(exp(gain / 1e6), 4) for gain in gains],
            }
            for winner, gains in zip(steps, all_tables.frontier.gains, strict=True)
        ],
        "next_money": [
            {
                "budget_change": _signed(extra.change_minor),
                "total_cost": (
                    None if extra.assessment is None else amount(extra.assessment.spent_minor)
                ),
                "targets_met": None if extra.assessment is None else extra.assessment.met,
                "changed": list(extra.changed),
                "build": None if extra.assessment is None else _build(extra.assessment),
            }
            for extra in more
        ],
        "preferences": [
            {
                "wish": preference.preference.wish,
                "value": preference.preference.value,
                "granted": preference.granted,
                "costs": None if preference.cost_minor is None else _signed(preference.cost_minor),
                "frames_lost_share": round(preference.frames_lost, 4),
                "weight_lost": preference.weight_lost,
            }
            for preference in all_tables.preferences
        ],
        "years": [
            {
                "year": year.year,
                "targets_met": year.met,
                "processor_alone": year.processor_alone,
                "graphics_alone": year.graphics_alone,
                "lost": list(year.lost),
            }
            for year in years_kept(catalogue, subject)
        ],
        "idle_money": [
            {
                "kind": kind,
                "part": cut.instead_of,
                "instead": cut.part.id,
                "frees": amount(cut.saves_minor),
            }
            for kind, cut in free.items()
        ],
    }


def _build(assessment: Assessment) -> dict[str, Any]:
    return build_file(assessment.build).model_dump(mode="json")


def _split(catalogue: Catalogue, subject: Assessment) -> dict[str, Any] | None:
    split = split_of(catalogue, subject)
    if split is None:
        return None
    return {
        "total": amount(split.total_minor),
        "processor_side": None if split.processor is None else _side(split.processor),
        "graphics_side": None if split.graphics is None else _side(split.graphics),
        "rest": _signed(split.rest_minor),
    }


def _side(side: SideShare) -> dict[str, str]:
    return {
        "own": amount(side.own_minor),
        "forced": _signed(side.forced_minor),
        "total": _signed(side.total_minor),
    }


def _signed(minor: int) -> str:
    return amount(minor) if minor >= 0 else f"-{amount(-minor)}"
