"""The balance as plain data for the API and the command line; money as decimal strings, shares of
ratios as numbers.
"""

from math import exp
from typing import Any

from wattmetron.core.balance.split import Side
from wattmetron.core.catalogue import Catalogue
from wattmetron.formats.brief_file import build_file
from wattmetron.services.advice.balance import idle_money, map_of, more_money, split_of, tables
from wattmetron.services.advice.balance_words import account
from wattmetron.services.advice.years import years_kept
from wattmetron.services.desk.assess import Assessment, assess
from wattmetron.services.words.figures import amount


def balance_json(catalogue: Catalogue, now: Assessment) -> dict[str, Any]:
    """Account, split, frontier, next money and idle money of a build, or of the answer where the
    build is not whole.
    """
    found = tables(catalogue, now.brief, now.build)
    step = found.answer(found.budget)
    answer = None if step is None else assess(catalogue, now.brief, found.build_at(step))
    subject = now if not now.missing or answer is None else answer
    free = idle_money(catalogue, subject)
    more = more_money(found, subject)
    pairs = map_of(found, subject.machine.parts())
    steps = found.frontier.steps
    return {
        "currency": subject.currency,
        "of_the_build": subject is now,
        "account": list(account(found, subject, answer, pairs, more, free)),
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
            None if found.knee is None else amount(steps[found.knee].cost + found.besides)
        ),
        "frontier": [
            {
                "total_cost": amount(one.cost + found.besides),
                "weight_met": one.met,
                "gain_millionths": one.gain,
                "reached_shares": [round(exp(gain / 1e6), 4) for gain in gains],
            }
            for one, gains in zip(steps, found.frontier.gains, strict=True)
        ],
        "next_money": [
            {
                "budget_change": _signed(one.change_minor),
                "total_cost": (
                    None if one.assessment is None else amount(one.assessment.spent_minor)
                ),
                "targets_met": None if one.assessment is None else one.assessment.met,
                "changed": list(one.changed),
                "build": None if one.assessment is None else _build(one.assessment),
            }
            for one in more
        ],
        "preferences": [
            {
                "wish": one.preference.wish,
                "value": one.preference.value,
                "granted": one.granted,
                "costs": None if one.cost_minor is None else _signed(one.cost_minor),
                "frames_lost_share": round(one.frames_lost, 4),
                "weight_lost": one.weight_lost,
            }
            for one in found.preferences
        ],
        "years": [
            {
                "year": one.year,
                "targets_met": one.met,
                "processor_alone": one.processor_alone,
                "graphics_alone": one.graphics_alone,
                "lost": list(one.lost),
            }
            for one in years_kept(catalogue, subject)
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


def _build(one: Assessment) -> dict[str, Any]:
    return build_file(one.build).model_dump(mode="json")


def _split(catalogue: Catalogue, subject: Assessment) -> dict[str, Any] | None:
    found = split_of(catalogue, subject)
    if found is None:
        return None
    return {
        "total": amount(found.total_minor),
        "processor_side": None if found.processor is None else _side(found.processor),
        "graphics_side": None if found.graphics is None else _side(found.graphics),
        "rest": _signed(found.rest_minor),
    }


def _side(side: Side) -> dict[str, str]:
    return {
        "own": amount(side.own_minor),
        "forced": _signed(side.forced_minor),
        "total": _signed(side.total_minor),
    }


def _signed(minor: int) -> str:
    return amount(minor) if minor >= 0 else f"-{amount(-minor)}"
