"""Edits of a build: parts taken, kept and put aside, findings set aside."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BuildError
from wattmetron.core.values.build import Build, SetAside
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.brief_edits import Edited


def adopt(plan: Plan, build: Build, catalogue: Catalogue) -> Edited:
    """Put a build that was tried in the place of the present one; raises for unknown parts."""
    catalogue.machine(build)
    before = {part_id for _, part_id in plan.build.ids()}
    gone = before - {part_id for _, part_id in build.ids()}
    new = [
        catalogue.part(part_id)
        for kind, part_id in build.ids()
        if part_id not in plan.build.of(kind)
    ]
    sentence = f"took out {len(gone)} parts" if gone else "nothing"
    if new:
        sentence = f"adopted {new[0].name}" if len(new) == 1 else f"adopted {len(new)} parts"
    return replace(plan, build=build), sentence


def remove(plan: Plan, part_id: str, catalogue: Catalogue) -> Edited:
    """Take a part out."""
    kind = next((kind for kind, present_id in plan.build.ids() if present_id == part_id), None)
    if kind is None:
        raise BuildError("That part is no longer in the build: look at what it holds now.")
    build = plan.build.without(kind, part_id)
    return replace(plan, build=build), f"took out {_name(part_id, catalogue)}"


def keep(plan: Plan, part_id: str, fixed: bool, catalogue: Catalogue) -> Edited:
    """Let a part stay when the rest is proposed, or let it go again."""
    build = plan.build.keeping(part_id, fixed)
    sentence = f"{_name(part_id, catalogue)} {'kept' if fixed else 'free again'}"
    return replace(plan, build=build), sentence


def buy_later(plan: Plan, part_id: str, later: bool, catalogue: Catalogue) -> Edited:
    """Leave a part for later, its price outside the total, or buy it with the rest after all;
    raises BuildError where the machine would not run until then.
    """
    name, build = _name(part_id, catalogue), plan.build.buying_later(part_id, later)
    if later and not _runs_without(plan, build.later, catalogue):
        raise BuildError(
            f"{name} cannot wait: without it the machine is not complete or does not start. Choose"
            " a cheaper one for now and mark that as a stand-in."
        )
    sentence = f"{name} is bought {'later' if later else 'with the rest'}"
    return replace(plan, build=build), sentence


def _runs_without(plan: Plan, later: frozenset[str], catalogue: Catalogue) -> bool:
    """Whether what is bought now is a machine that lacks and breaks no more than the whole one."""
    now = build = plan.build
    for kind, part_id in now.ids():
        if part_id in later:
            build = build.without(kind, part_id)
    before, after = (assess(catalogue, plan.brief, each_build) for each_build in (now, build))
    lacks = set(after.missing) - set(before.missing)
    return not lacks and after.blocking <= before.blocking


def clear(plan: Plan) -> Edited:
    """Take out what is neither kept nor owned."""
    build = plan.build
    for kind, part_id in plan.build.ids():
        if part_id not in plan.build.kept and part_id not in plan.brief.owned:
            build = build.without(kind, part_id)
    return replace(plan, build=build), "emptied the build but for kept and owned parts"


def pin(plan: Plan) -> Edited:
    """Set the build aside to compare with, or let go of the one that was."""
    if plan.pinned is not None:
        return replace(plan, pinned=None), "let go of the pinned build"
    return replace(plan, pinned=plan.build), "pinned this build to compare with"


def set_aside(plan: Plan, aside: SetAside) -> Edited:
    """Let a finding not count, for a reason."""
    build = plan.build.setting_aside(aside)
    return replace(plan, build=build), f"set “{aside.rule}” aside: {aside.reason}"


def count_again(plan: Plan, rule: str, parts: tuple[str, ...]) -> Edited:
    """Let a finding count that was set aside."""
    return replace(plan, build=plan.build.counting_again(rule, parts)), f"“{rule}” counts again"


def _name(part_id: str, catalogue: Catalogue) -> str:
    part = catalogue.parts.get(part_id)
    return part.name if part else part_id
