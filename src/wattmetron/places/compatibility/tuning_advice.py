"""Tuned clocks for a brief: frames, watts and what stands in the way, for each way of tuning."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.rules import check
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.power.draw import draw
from wattmetron.core.power.tuning import CHANGES, Way, in_the_way, tuned
from wattmetron.places.assessment.assess import Assessment


@dataclass(frozen=True, slots=True, kw_only=True)
class Tuned:
    """One way: the range of changes over the brief's targets (shares), watts at full draw, targets
    met, obstacles.
    """

    way: Way
    least: float
    most: float
    watts: int
    met: int
    obstacles: tuple[str, ...]


def ways_to_tune(catalogue: Catalogue, now: Assessment) -> tuple[Tuned, ...]:
    """Empty while no frames can be estimated."""
    return catalogue.keep.once(
        ("tuned", now.brief, now.build), lambda: _ways_to_tune(catalogue, now)
    )


def _ways_to_tune(catalogue: Catalogue, now: Assessment) -> tuple[Tuned, ...]:
    tuneds = []
    wishes = wishes_of(now.brief)
    before = {finding.sentence for finding in check(now.machine, wishes)}
    for way in CHANGES:
        machine = tuned(now.machine, way)
        if machine is None or not machine.can_draw:
            continue
        runs = [estimate for estimate in now.counted if estimate.average_fps > 0]
        pairs = [
            (run, after)
            for run in runs
            if (
                after := estimate(
                    machine, run.game, run.target, now.brief, curves_of(catalogue.keep)
                )
            )
            is not None
        ]
        if not pairs:
            continue
        changes = [after.judged_fps / estimate.judged_fps - 1 for estimate, after in pairs]
        blocks = [
            finding.sentence
            for finding in check(machine, wishes)
            if finding.level == "blocks" and finding.sentence not in before
        ]
        met = sum(after.state == "meets" for _, after in pairs)
        full = draw(machine).full_w - now.draw.full_w
        tuneds.append(
            Tuned(
                way=way,
                least=min(changes),
                most=max(changes),
                watts=full,
                met=met,
                obstacles=(*in_the_way(now.machine, way), *blocks),
            )
        )
    return tuple(tuneds)
