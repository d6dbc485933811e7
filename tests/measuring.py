"""Runs of the first brief's machine, as the demo's hidden truth has them."""

from wattmetron.demo.simulated_meters import MeterQuery, truth
from wattmetron.places.measured.memory_set import memory_in_run
from wattmetron.places.measured.pages.forms import RunForm, run_from
from wattmetron.places.measured.run_library import take_in
from wattmetron.shell.forms import read

BRIEF = {"brief": "1", "scene": "play"}
CARD = {"of": "gullwing-circuit"}
"""A game in which graphics limit nearly every frame."""


def target_of(workshop, game="hollow-meridian", brief_id=1):
    brief = workshop.open(brief_id).plan.brief
    return next(own for own in brief.targets if own.game_id == game)


def base(workshop, of="hollow-meridian", **more):
    return {**BRIEF, "target": target_of(workshop, of).id, **more}


def recorded(workshop, seed=1, **asked):
    """A run of the first brief's machine as the meters know it, taken in."""
    catalogue = workshop.catalogue()
    run = run_from(workshop, catalogue, read(RunForm, base(workshop, **asked.pop("said", {}))))
    plan = workshop.open(1).plan
    memory = memory_in_run(catalogue, plan, run, run.measured_on)
    about = MeterQuery(
        latency=memory.latency_ns,
        bandwidth=memory.bandwidth_gbs,
        game=run.game,
        processor=run.processor,
        graphics=run.graphics,
        width=run.width_px,
        height=run.height_px,
        preset=run.preset,
        rays=int(run.ray_tracing),
        scale=run.scale if run.upscaling else 1.0,
        generated=int(run.generated),
        lower=";".join(run.lowered),
        seconds=30,
        seed=seed,
        **asked,
    )
    return take_in(workshop, run, truth().run(about).trace)
