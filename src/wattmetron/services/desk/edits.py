"""Edits of a brief: checked, and summed up in one sentence."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any, Literal

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.values.brief import Brief, Extra, Resale, Target
from wattmetron.core.values.build import StandIn
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.published import Settled
from wattmetron.services.desk.differences import differences
from wattmetron.services.words.figures import money, settings
from wattmetron.services.words.tiers import tier_label

MOST_EXTRAS = 20
Edited = tuple[Plan, str]
"""A plan after an edit, and what the edit was."""


def edit_brief(plan: Plan, values: Mapping[str, Any], catalogue: Catalogue) -> Edited:
    """The plan with fields of its brief at these values, by the fields' names."""
    new = replace(plan.brief, **values)
    return replace(plan, brief=new), differences(plan.brief, new, catalogue)


def _with_targets(plan: Plan, targets: tuple[Target, ...]) -> Plan:
    return replace(plan, brief=replace(plan.brief, targets=targets))


def add_target(
    plan: Plan, game_id: str, catalogue: Catalogue, tier_place: int | None = None
) -> Edited:
    """A target for a game: at the display's resolution and a usual frame rate, or ready-made from
    a tier's place.
    """
    game = catalogue.game(game_id)
    display = plan.brief.display
    target = Target(
        id=_fresh_id(plan.brief),
        game_id=game.id,
        width_px=display.width_px,
        height_px=display.height_px,
        fps=min(60.0, display.refresh_hz),
    )
    said = f"added {game.name}"
    if tier_place is not None:
        table = tiers_of(catalogue)
        rows = table.of_game(game_id)
        if tier_place >= len(rows):
            raise BriefError(
                f"{game.name} has no such tier any more: look at what it publishes now."
            )
        row = table.rows[rows[tier_place]]
        target = at_tier(target, row.settled)
        said = f"added {game.name} as {tier_label(row.tier.label, row.place)}"
    return _with_targets(plan, (*plan.brief.targets, target)), said


def _fresh_id(brief: Brief) -> str:
    taken = {target.id for target in brief.targets}
    return next(f"t{n}" for n in range(1, 10_000) if f"t{n}" not in taken)


def at_tier(target: Target, settled: Settled) -> Target:
    """A target at a tier's conditions."""
    return replace(
        target,
        width_px=settled.width_px,
        height_px=settled.height_px,
        preset=settled.preset,
        fps=settled.fps,
        upscaling=settled.upscaling,
        ray_tracing=settled.ray_tracing,
        measure="average",
    )


def edit_target(plan: Plan, target: Target, catalogue: Catalogue) -> Edited:
    """The plan with a target in the place of the one with its id."""
    find_target(plan.brief, target.id)
    game = catalogue.game(target.game_id)
    targets = tuple(target if other.id == target.id else other for other in plan.brief.targets)
    said = f"{game.name} to {settings(target)}, {target.fps:g} fps"
    return _with_targets(plan, targets), said


def remove_target(plan: Plan, target_id: str, catalogue: Catalogue) -> Edited:
    gone = find_target(plan.brief, target_id)
    game = catalogue.games.get(gone.game_id)
    targets = tuple(target for target in plan.brief.targets if target.id != target_id)
    return _with_targets(plan, targets), f"removed {game.name if game else gone.game_id}"


def find_target(brief: Brief, target_id: str) -> Target:
    for target in brief.targets:
        if target.id == target_id:
            return target
    raise BriefError("That target is no longer in the brief: look at what it says now.")


def add_extra(plan: Plan, extra: Extra) -> Edited:
    """Something else that the budget may have to pay for."""
    if not extra.name:
        raise BriefError("The extra has no name: say what it is, such as operating system.")
    if len(plan.brief.extras) >= MOST_EXTRAS:
        raise BriefError(f"The brief has {MOST_EXTRAS} extras already: remove one first.")
    brief = replace(plan.brief, extras=(*plan.brief.extras, extra))
    return replace(plan, brief=brief), f"added {extra.name} to the budget"


def change_extra(plan: Plan, place: int, action: Literal["remove", "flip"]) -> Edited:
    """Take an extra out, or in and out of the budget."""
    extras = list(plan.brief.extras)
    if not 0 <= place < len(extras):
        raise BriefError("That extra is no longer in the brief: look at what it says now.")
    extra = extras[place]
    if action == "remove":
        del extras[place]
        said = f"removed {extra.name}"
    else:
        extras[place] = replace(extra, in_budget=not extra.in_budget)
        said = f"{extra.name} {'out of' if extra.in_budget else 'into'} the budget"
    return replace(plan, brief=replace(plan.brief, extras=tuple(extras))), said


def own(plan: Plan, part_id: str, owned: bool, catalogue: Catalogue) -> Edited:
    """Say that a part is there already, or that it is not; an owned part goes into the build."""
    part = catalogue.part(part_id)
    brief = plan.brief
    if not owned:
        left = list(brief.owned)
        if part_id in left:
            left.remove(part_id)
        stays = tuple(other for other in brief.stays if other in left)
        resale = tuple(said for said in brief.resale if said.part in left)
        brief = replace(brief, owned=tuple(left), stays=stays, resale=resale)
        return replace(plan, brief=brief), f"{part.name} is not owned"
    if part_id in brief.owned:
        return plan, "nothing"
    kind = kind_of(part)
    build = plan.build if part_id in plan.build.of(kind) else plan.build.with_part(kind, part_id)
    brief = replace(brief, owned=(*brief.owned, part_id))
    return replace(plan, brief=brief, build=build), f"{part.name} is owned"


def let_stay(plan: Plan, part_id: str, stays: bool, catalogue: Catalogue) -> Edited:
    """Say that an owned part stays in every proposal, or that it may be replaced."""
    part, brief = catalogue.part(part_id), plan.brief
    if part_id not in brief.owned or (part_id in brief.stays) == stays:
        return plan, "nothing"
    left = tuple(other for other in brief.stays if other != part_id)
    brief = replace(brief, stays=(*left, part_id) if stays else left)
    said = "stays in every proposal" if stays else "may be replaced"
    return replace(plan, brief=brief), f"{part.name} {said}"


def sell_for(plan: Plan, part_id: str, minor: int | None, catalogue: Catalogue) -> Edited:
    """Say what an owned part may sell for; None goes back to the guess."""
    part, brief = catalogue.part(part_id), plan.brief
    currency = catalogue.region(brief.region).currency
    new_minor = catalogue.prices(brief.region, False).delivered(part_id)
    if minor is not None and new_minor is not None and minor > new_minor:
        raise BriefError(
            f"{money(minor, currency)} for {part.name} is more than a new one costs today,"
            f" {money(new_minor, currency)}: enter what a used one brings."
        )
    others = tuple(said for said in brief.resale if said.part != part_id)
    own = () if minor is None else (Resale(part=part_id, minor=minor),)
    said = "sells for what is usual" if minor is None else f"may sell for {money(minor, currency)}"
    return replace(plan, brief=replace(brief, resale=(*others, *own))), f"{part.name} {said}"


def count_resale(plan: Plan, counts: bool) -> Edited:
    """Say whether the budget counts on what left-over parts may sell for."""
    said = "the budget counts" if counts else "the budget does not count"
    brief = replace(plan.brief, counts_resale=counts)
    return replace(plan, brief=brief), f"{said} on the sale of what is left over"


def exclude_maker(plan: Plan, maker: str, again: bool) -> Edited:
    """Exclude a maker from what may be bought, or let it in again."""
    makers = tuple(other for other in plan.brief.no_makers if other != maker)
    brief = replace(plan.brief, no_makers=makers if again else (*makers, maker))
    return replace(plan, brief=brief), f"{maker} {_excluded(again)}"


def exclude_part(plan: Plan, part_id: str, again: bool, catalogue: Catalogue) -> Edited:
    """Exclude a part from what may be bought, or let it in again; a lost one can be let in."""
    part = catalogue.parts.get(part_id) if again else catalogue.part(part_id)
    banned = tuple(other for other in plan.brief.banned if other != part_id)
    brief = replace(plan.brief, banned=banned if again else (*banned, part_id))
    return replace(plan, brief=brief), f"{part.name if part else part_id} {_excluded(again)}"


def _excluded(again: bool) -> str:
    return "is welcome again" if again else "is excluded"


def stand_in(plan: Plan, stands: StandIn, catalogue: Catalogue) -> Edited:
    """Say that a part is there only until a date and what it may then sell for."""
    name = catalogue.part(stands.part).name
    build = plan.build.standing_in(stands)
    return replace(plan, build=build), f"{name} stands in until {stands.until:%-d %b %Y}"


def stay(plan: Plan, part_id: str, catalogue: Catalogue) -> Edited:
    """Say that a part stays after all."""
    part = catalogue.part(part_id)
    return replace(plan, build=plan.build.staying(part.id)), f"{part.name} stays"
