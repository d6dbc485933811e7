"""What a plan holds to when it is opened or made anew."""

from dataclasses import replace
from pathlib import Path

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError, NotFoundError
from wattmetron.core.values.brief import Brief, Display, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.plan import Plan
from wattmetron.formats.brief_file import read_brief, read_build


def plans_in(folder: Path) -> list[Plan]:
    """The briefs of a folder with their builds, the typical one first."""
    plans = []
    for path in sorted(folder.glob("*.brief.json"), key=_demo_order):
        build_path = path.with_name(path.name.replace(".brief.", ".build."))
        build = Build()
        if build_path.exists():
            build = read_build(build_path.name, build_path.read_bytes())
        plans.append(Plan(read_brief(path.name, path.read_bytes()), build))
    return plans


def in_known_region(plan: Plan, catalogue: Catalogue | None) -> Plan:
    """A plan without the targets whose games the catalogue lost, in a region that there is."""
    lost = lost_targets_of(plan, catalogue)
    if catalogue is None or (plan.brief.region in catalogue.regions and not lost):
        return plan
    region = plan.brief.region
    if region not in catalogue.regions:
        region = next(iter(catalogue.regions), region)
    targets = tuple(target for target in plan.brief.targets if target not in lost)
    return replace(plan, brief=replace(plan.brief, region=region, targets=targets))


def lost_targets_of(plan: Plan, catalogue: Catalogue | None) -> tuple[Target, ...]:
    if catalogue is None:
        return ()
    return tuple(t for t in plan.brief.targets if t.game_id not in catalogue.games)


def usual_plan(catalogue: Catalogue, region: str = "") -> Plan:
    """An empty brief with usual figures in a region, or in the first one."""
    brief = Brief(
        name="New brief",
        region=region or next(iter(catalogue.regions)),
        budget_low_minor=0,
        budget_high_minor=0,
        display=Display(),
    )
    return Plan(replace(brief, budget_high_minor=_usual_budget(catalogue, brief)))


def _usual_budget(catalogue: Catalogue, brief: Brief) -> int:
    """A first guess for a new brief: twice the cheapest machine with a card, in one significant
    figure.
    """
    book = catalogue.prices(brief.region, brief.may_buy)
    least = sum(
        min((price for part in parts if (price := book.cost(part.id)) is not None), default=0)
        for parts in catalogue.by_kind.values()
    )
    step = int(10 ** max(2, len(str(2 * least)) - 1))
    return max(1, round(2 * least / step)) * step


def _demo_order(path: Path) -> tuple[bool, str]:
    """The typical brief first."""
    return not path.name.startswith("net-loft"), path.name


def checked_plan(catalogue: Catalogue, brief: Brief, build: Build) -> Plan:
    """A plan from outside; raises for a region, game or part that the catalogue lacks."""
    try:
        catalogue.region(brief.region)
        for target in brief.targets:
            catalogue.game(target.game_id)
        for part_id in brief.owned:
            catalogue.part(part_id)
        if not build.empty:
            catalogue.machine(build)
    except NotFoundError as error:
        raise BriefError(str(error)) from error
    return Plan(brief, build)
