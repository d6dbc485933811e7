"""What the games with results taught about games in general, in words, with what moved it."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.game_fit.game_evidence import MIXED
from wattmetron.core.game_fit.informed import learnt_of
from wattmetron.core.game_fit.learned_priors import NOTHING_LEARNT, Learnt, Shift
from wattmetron.core.values.words import listed
from wattmetron.words.figures import THIN

DESIGNS_OF = {"processor": "processors", "graphics": "graphics cards"}
LEAST_DESIGN, MOST_DESIGNS = 0.01, 6


@dataclass(frozen=True, slots=True, kw_only=True)
class Taught:
    """One thing that is taken for granted: before evidence, with it, and the games that moved it
    most.
    """

    what: str
    usual: str
    learnt: str
    moved_by: str


@dataclass(frozen=True, slots=True)
class Lessons:
    """On what all of it rests, and the rows; without results there are none."""

    rests_on: str
    rows: tuple[Taught, ...]


def lessons(catalogue: Catalogue) -> Lessons:
    """What is taken for granted about games, and how the catalogue's results moved it."""
    learnt = learnt_of(catalogue)
    if not learnt.games:
        return Lessons("No game has results yet: all of it is as it is taken for granted.", ())
    tiers = f", against {learnt.tiers} of their tiers" if learnt.tiers else ""
    rests_on = (
        f"From {learnt.results} result{'' if learnt.results == 1 else 's'} of {learnt.games}"
        f" game{'' if learnt.games == 1 else 's'}{tiers}. Each is drawn towards what is taken for"
        " granted, the less the more results say."
    )
    return Lessons(rests_on, tuple(_rows(catalogue, learnt)))


def _rows(catalogue: Catalogue, learnt: Learnt) -> Iterator[Taught]:
    def row(what: str, key: str, usual: str, now: str) -> Taught:
        names = [
            catalogue.games[mover].name
            for mover in learnt.movers.get(key, ())
            if mover in catalogue.games
        ]
        return Taught(what=what, usual=usual, learnt=now, moved_by=listed(names) if names else "–")

    usual = NOTHING_LEARNT
    yield row(
        "What publishers leave to spare",
        "margin",
        _percent(np.expm1(usual.margin)),
        _percent(np.expm1(learnt.margin)),
    )
    yield row("How much they differ in that", "margin", _spread(usual.noise), _spread(learnt.noise))
    yield row(
        "Where conditions are not stated: share of the usual correction that counts",
        "assumed",
        _percent(usual.assumed_share),
        _percent(learnt.assumed_share),
    )
    for side, name in learnt.rankings.items():
        says = "no one speed" if name == MIXED else name
        yield row(f"Publishers' lists of the {side} rank by", "margin", "not known", says)
    yield row(
        "Graphics work grows with the pixels to the power",
        "power",
        _with(usual.power),
        _with(learnt.power),
    )
    for key, label, before, after in (
        (
            "steps_u",
            "Processor work: low to medium, medium to high, high to ultra",
            usual.steps_u,
            learnt.steps_u,
        ),
        (
            "steps_w",
            "Graphics work: low to medium, medium to high, high to ultra",
            usual.steps_w,
            learnt.steps_w,
        ),
    ):
        yield row(label, key, _steps(before), _steps(after))
    yield row("How much frame times vary, processor side", "v_c", "as usual", _factor(learnt.v_c))
    yield row("How much frame times vary, graphics side", "v_g", "as usual", _factor(learnt.v_g))
    for side, spread in learnt.models.items():
        yield row(
            f"How differently games take to a design of {DESIGNS_OF[side]}",
            "designs",
            _spread(usual.models[side]),
            _spread(spread),
        )
    known = sorted(learnt.designs.items(), key=lambda mover: -abs(mover[1].mean))
    for (_, design), shift in known[:MOST_DESIGNS]:
        if abs(shift.mean) >= LEAST_DESIGN:
            faster = "slower" if shift.mean > 0 else "faster"
            size = _percent(abs(np.expm1(shift.mean)))
            yield row(f"{design} in all games", "designs", "as published", f"{size} {faster}")


def _percent(share: float) -> str:
    return f"{share * 100:.0f}{THIN}%".replace("-", "−")


def _spread(sd: float) -> str:
    return f"±{sd * 100:.0f}{THIN}%"


def _with(shift: Shift) -> str:
    return f"{shift.mean:.2f} ±{shift.between:.2f}"


def _factor(shift: Shift) -> str:
    return f"×{np.exp(shift.mean):.2f} ±{shift.between * 100:.0f}{THIN}%"


def _steps(shifts: tuple[Shift, ...]) -> str:
    if all(shift.mean == 0 for shift in shifts):
        return "as usual"
    return ", ".join(f"steps ×{np.exp(shift.mean):.2f}" for shift in shifts)
