"""The questions put to the search: the best build for a brief, and the cheapest one that fits."""

from dataclasses import replace

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.answer import NEVER, Aim, Proposal
from wattmetron.core.search.branch_and_bound import NO_GAIN, Hunt, Winner
from wattmetron.core.search.problem import Scenes, scenes_for
from wattmetron.core.search.resale import back_minor
from wattmetron.core.search.target_arrays import MILLION, TargetFloor
from wattmetron.core.search.tie_break import settle
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build

BAND = round(float(np.log(1.02)) * 1_000_000)
NO_KEPT = Build()


def propose(
    catalogue: Catalogue,
    brief: Brief,
    aim: Aim = "most frames",
    build: Build = NO_KEPT,
    band: int = BAND,
    budget_minor: int | None = None,
    present: Build | None = None,
) -> Proposal:
    """The best complete, fitting build for a brief by one of the aims, or the reason why there is
    none.

    ``fixed`` holds the parts that must stay; owned parts of the brief stay too and cost nothing.
    ``band`` is the part of U, in millionths of ln r, that money is not spent for. The budget is the
    brief's upper end less its extras and the further parts in ``fixed`` unless another is given.
    By the aim of the same frames the answer keeps state and frame rate of every counted target of
    the ``present`` build, which must be one that draws; without one there is no answer.
    """
    budget = (
        brief.budget_high_minor - besides_minor(catalogue, brief, build)
        if budget_minor is None
        else budget_minor
    )
    kept_floors = held_by(catalogue, brief, present) if aim == "same frames" and present else ()
    scenes = scenes_for(catalogue, brief, build, kept_floors=kept_floors)
    targets = scenes[0].targets
    hunt = Hunt(scenes, budget if aim == "most frames" else NEVER - 1)
    top: tuple[int, int] | None = (targets.weight, 0)
    best_cost = NEVER
    if aim == "most frames":
        top = hunt.most()
        winner = hunt.least(top[0], top[1] - band) if top else None
        best = hunt.least(*top) if top else None
        best_cost = best.cost if best else NEVER
    else:
        able = targets.all_can_be_met and (aim == "least money" or bool(kept_floors))
        winner = hunt.least(targets.met_weight, NO_GAIN) if able else None
    return _proposal(
        aim, catalogue, brief, scenes, hunt, winner, build, budget, top[1] if top else 0, best_cost
    )


def held_by(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[TargetFloor, ...]:
    """What the counted targets reach with a build, in their order."""
    lineup = Lineup([machine_of(catalogue, build, brief.clocks)])
    seen = (
        glance(
            lineup,
            fitted_game(catalogue, target.game_id),
            target,
            brief,
            curves_of(catalogue.keep),
            with_ratio=True,
        )
        for target in brief.counted_targets
    )
    return tuple(
        TargetFloor(round(float(each_glance.ln_ratio[0]) * MILLION), each_glance.states[0])
        for each_glance in seen
    )


def besides_minor(catalogue: Catalogue, brief: Brief, build: Build) -> int:
    """What the budget pays for besides the eight kinds, minor units: extras, and further parts that
    are neither owned nor bought later; less what owned parts would bring where their resale counts.
    """
    book = catalogue.prices(brief.region, brief.may_buy)
    owned = list(brief.owned)
    total = brief.extras_minor
    for kind, part_id in build.added:
        if part_id in owned:
            owned.remove(part_id)
        elif kind not in brief.outside and part_id not in build.later:
            total += book.cost(part_id) or 0
    return total - back_minor(catalogue, brief, build)


def cheapest_fit(
    catalogue: Catalogue, brief: Brief, build: Build, video_memory: bool = False
) -> Proposal:
    """The least that a complete, fitting build with these kept parts costs, whatever frames it
    brings.

    With ``video_memory`` it must also have enough video memory for every counted target.
    """
    bare = brief if video_memory else replace(brief, targets=())
    scenes = scenes_for(catalogue, brief, build, with_targets=video_memory)
    hunt = Hunt(scenes, NEVER - 1)
    winner = hunt.least(0, NO_GAIN)
    budget = brief.budget_high_minor - besides_minor(catalogue, brief, build)
    return _proposal("least money", catalogue, bare, scenes, hunt, winner, build, budget, 0, NEVER)


def _proposal(
    aim: Aim,
    catalogue: Catalogue,
    brief: Brief,
    scenes: Scenes,
    hunt: Hunt,
    winner: Winner | None,
    fixed: Build,
    budget: int,
    best_gain: int,
    best_cost: int,
) -> Proposal:
    return Proposal(
        aim=aim,
        build=settle(catalogue, brief, scenes, winner, fixed) if winner else None,
        cost_minor=winner.cost if winner else NEVER,
        budget_minor=budget,
        weight_met=winner.met if winner else 0,
        weight_all=scenes[0].targets.weight,
        gain=winner.gain if winner else 0,
        best_gain=best_gain,
        best_cost_minor=best_cost,
        pairings=hunt.pairings,
        pairings_in_budget=hunt.in_budget,
        estimated=hunt.estimated,
    )
