"""What first: the way from the present machine to another, step by step."""

from dataclasses import dataclass

from wattmetron.core.balance.upgrade_order import PartChange, steps_between, with_changes
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.places.assessment.assess import Assessment, assess

LEAST_PERCENT = 1.0
"""Changes of frame rates below this are not named."""


@dataclass(frozen=True, slots=True)
class Gained:
    """What a step does to one target: rates in fps before (None: nothing ran) and after."""

    game: str
    before_fps: float | None
    after_fps: float
    state: str


@dataclass(frozen=True, slots=True, kw_only=True)
class FirstStep:
    """One step: what changes, the machine after it, its cost and all costs so far, minor units, how
    many findings that block it clears, and what it does to the targets.
    """

    changes: tuple[PartChange, ...]
    build: Build
    cost_minor: int
    together_minor: int
    met: int
    cleared: int
    gained: tuple[Gained, ...]


def what_first(
    catalogue: Catalogue, now: Assessment, then: Assessment | None
) -> tuple[FirstStep, ...]:
    """The steps from the present build to another; empty where nothing differs, where the other one
    does not stand, or where the catalogue lost a part of the present one.
    """
    if then is None or not then.whole or not now.build.processor or not now.build.mainboard:
        return ()
    if any(line.part is None for line in now.lines):
        return ()
    return catalogue.ask(_steps, now.brief, now.build, then.build)


def _steps(catalogue: Catalogue, brief: Brief, build: Build, to: Build) -> tuple[FirstStep, ...]:
    upgrade_steps = steps_between(catalogue, brief, build, to)
    if upgrade_steps is None:
        return ()
    before = assess(catalogue, brief, build)
    steps, done, together = [], list[PartChange](), 0
    for step in upgrade_steps:
        done += step.changes
        after = assess(catalogue, brief, with_changes(build, to, done))
        together += step.cost_minor
        steps.append(
            FirstStep(
                changes=step.changes,
                build=after.build,
                cost_minor=step.cost_minor,
                together_minor=together,
                met=after.met,
                cleared=max(0, before.blocking - after.blocking),
                gained=gained_between(before, after),
            )
        )
        before = after
    return tuple(steps)


def gained_between(before: Assessment, after: Assessment) -> tuple[Gained, ...]:
    """The counted targets whose rate moves, or whose state does."""
    gained = []
    for old, new in zip(before.estimates, after.estimates, strict=True):
        if new is None or not new.target.weight:
            continue
        had = None if old is None or old.cannot else old.judged_fps
        moved = had is None or abs(new.judged_fps / had - 1) * 100 >= LEAST_PERCENT
        if moved or (old is not None and old.state != new.state):
            gained.append(Gained(new.game.name, had, new.judged_fps, new.state))
    return tuple(gained)
