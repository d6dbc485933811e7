"""Edits of a brief: checked, and summed up in one sentence."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any, Literal

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.frames.work import GENERATED_SHOWN
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.values.brief import BRIEF, Brief, Display, Extra, Resale, Target
from wattmetron.core.values.build import StandIn
from wattmetron.core.values.further_parts import Screen
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.published import Settled
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.differences import differences
from wattmetron.places.assessment.named import games_named, part_named
from wattmetron.places.assessment.suggested import suggested
from wattmetron.words.figures import money, settings
from wattmetron.words.tier_words import tier_label

MOST_EXTRAS = 20
Edited = tuple[Plan, str]
"""A plan after an edit, and what the edit was."""


def edit_brief(plan: Plan, values: Mapping[str, Any], catalogue: Catalogue) -> Edited:
    """The plan with fields of its brief at these values, by the fields' names."""
    new, following = _followed(catalogue, plan.brief, replace(plan.brief, **values))
    sentence = differences(plan.brief, new, catalogue)
    follow = f"; {following} target{'s follow' if following > 1 else ' follows'} it"
    return replace(plan, brief=new), sentence + (follow if following else "")


def _followed(catalogue: Catalogue, old: Brief, new: Brief) -> tuple[Brief, int]:
    """The brief with the targets that follow another display, and how many these are: what was
    suggested is suggested anew, what was aimed at the old size is aimed at the new one.
    """
    if old.display == new.display:
        return new, 0
    targets = tuple(_following(catalogue, old, new, target) for target in new.targets)
    moved = sum(target != other for target, other in zip(targets, new.targets, strict=True))
    return replace(new, targets=targets), moved


def _following(catalogue: Catalogue, old: Brief, new: Brief, target: Target) -> Target:
    game = catalogue.games.get(target.game_id)
    if game is not None:
        usual = suggested(catalogue, game, old.display, target.id).target
        if (usual.width_px, usual.height_px, usual.fps, usual.preset) == (
            target.width_px,
            target.height_px,
            target.fps,
            target.preset,
        ):
            then = suggested(catalogue, game, new.display, target.id).target
            return replace(
                target,
                width_px=then.width_px,
                height_px=then.height_px,
                fps=then.fps,
                preset=then.preset,
            )
    size_px = (target.width_px, target.height_px)
    if size_px != (old.display.width_px, old.display.height_px):
        return target
    return replace(target, width_px=new.display.width_px, height_px=new.display.height_px)


def as_usual(plan: Plan, name: str, catalogue: Catalogue) -> Edited:
    """The plan with a field of its brief back at what is usual."""
    field = next((spec for spec in BRIEF if spec.name == name and not spec.required), None)
    if field is None:
        raise BriefError("The brief has no such wish: load the page again.")
    return edit_brief(plan, {field.name: field.default}, catalogue)


def use_display(plan: Plan, text: str, catalogue: Catalogue) -> Edited:
    """A display of the catalogue that is owned: the brief takes its size and refresh."""
    screen = catalogue.part(part_named(catalogue, text, "display"))
    assert isinstance(screen, Screen)
    display = Display(
        width_px=screen.width_px,
        height_px=screen.height_px,
        refresh_hz=screen.refresh_hz,
        variable_from_hz=screen.variable_from_hz,
    )
    plan, _ = edit_brief(plan, {"display": display}, catalogue)
    if screen.id not in plan.brief.owned:
        plan, _ = own(plan, screen.id, True, catalogue)
    return plan, f"{screen.name} is the display"


def _with_targets(plan: Plan, targets: tuple[Target, ...]) -> Plan:
    return replace(plan, brief=replace(plan.brief, targets=targets))


def add_targets(plan: Plan, text: str, catalogue: Catalogue) -> Edited:
    """A target for each game that a text names, as they are suggested."""
    sentences = []
    for game_id in games_named(catalogue, text):
        plan, words = add_target(plan, game_id, catalogue)
        sentences.append(words.removeprefix("added "))
    return plan, f"added {listed(sentences)}"


def add_target(
    plan: Plan, game_id: str, catalogue: Catalogue, tier_place: int | None = None
) -> Edited:
    """A target for a game, as it is suggested for the display or ready-made from a tier's place."""
    game = catalogue.game(game_id)
    suggestion = suggested(catalogue, game, plan.brief.display, _fresh_id(plan.brief))
    target, sentence = suggestion.target, f"added {game.name} ({suggestion.why})"
    if tier_place is not None:
        target, label = _at_place(catalogue, target, tier_place)
        sentence = f"added {game.name} as {label}"
    return _with_targets(plan, (*plan.brief.targets, target)), sentence


def target_as_tier(plan: Plan, target_id: str, index: int, catalogue: Catalogue) -> Edited:
    """A target at the conditions of a tier of its game."""
    target = find_target(plan.brief, target_id)
    game = catalogue.game(target.game_id)
    target, label = _at_place(catalogue, target, index)
    return edit_target(plan, target, catalogue)[0], f"{game.name} as {label}"


def _at_place(catalogue: Catalogue, target: Target, index: int) -> tuple[Target, str]:
    """A target at the conditions of a tier, with the tier's name."""
    table = tiers_of(catalogue)
    rows = table.of_game(target.game_id)
    if not 0 <= index < len(rows):
        name = catalogue.game(target.game_id).name
        raise BriefError(f"{name} has no such tier any more: look at what it publishes now.")
    row = table.rows[rows[index]]
    offered = bool(catalogue.game(target.game_id).generators)
    return at_tier(target, row.settled, offered), tier_label(row.tier.label, row.position)


def _fresh_id(brief: Brief) -> str:
    taken = {target.id for target in brief.targets}
    return next(f"t{n}" for n in range(1, 10_000) if f"t{n}" not in taken)


def at_tier(target: Target, settled: Settled, generation_offered: bool = False) -> Target:
    """A target at a tier's conditions; one that means generated frames asks for the frames shown
    where the game is known to offer them, else for the half that is drawn.
    """
    shown = settled.generated and generation_offered
    return replace(
        target,
        width_px=settled.width_px,
        height_px=settled.height_px,
        preset=settled.preset,
        fps=settled.fps * GENERATED_SHOWN if shown else settled.fps,
        generated=shown,
        upscaling=settled.upscaling,
        ray_tracing=settled.ray_tracing,
        measure="average",
    )


def edit_target(plan: Plan, target: Target, catalogue: Catalogue) -> Edited:
    """The plan with a target in the place of the one with its id."""
    find_target(plan.brief, target.id)
    game = catalogue.game(target.game_id)
    targets = tuple(target if other.id == target.id else other for other in plan.brief.targets)
    sentence = f"{game.name} to {settings(target)}, {target.fps:g} fps"
    return _with_targets(plan, targets), sentence


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


def change_extra(plan: Plan, index: int, action: Literal["remove", "flip"]) -> Edited:
    """Take an extra out, or in and out of the budget."""
    extras = list(plan.brief.extras)
    if not 0 <= index < len(extras):
        raise BriefError("That extra is no longer in the brief: look at what it says now.")
    extra = extras[index]
    if action == "remove":
        del extras[index]
        sentence = f"removed {extra.name}"
    else:
        extras[index] = replace(extra, in_budget=not extra.in_budget)
        sentence = f"{extra.name} {'out of' if extra.in_budget else 'into'} the budget"
    return replace(plan, brief=replace(plan.brief, extras=tuple(extras))), sentence


def own(plan: Plan, part_id: str, owned: bool, catalogue: Catalogue) -> Edited:
    """Say that a part is there already, or that it is not; an owned part goes into the build."""
    part = catalogue.part(part_id)
    brief = plan.brief
    if not owned:
        left = list(brief.owned)
        if part_id in left:
            left.remove(part_id)
        stays = tuple(other for other in brief.stays if other in left)
        resale = tuple(each_resale for each_resale in brief.resale if each_resale.part in left)
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
    sentence = "stays in every proposal" if stays else "may be replaced"
    return replace(plan, brief=brief), f"{part.name} {sentence}"


def sell_for(plan: Plan, part_id: str, minor: int | None, catalogue: Catalogue) -> Edited:
    """Say what an owned part may sell for; None goes back to the guess."""
    part, brief = catalogue.part(part_id), plan.brief
    currency = catalogue.region(brief.region).currency
    new_minor = catalogue.prices(brief.region, NEW_PARTS).cost(part_id)
    if minor is not None and new_minor is not None and minor > new_minor:
        raise BriefError(
            f"{money(minor, currency)} for {part.name} is more than a new one costs today,"
            f" {money(new_minor, currency)}: enter what a used one brings."
        )
    others = tuple(each_resale for each_resale in brief.resale if each_resale.part != part_id)
    resale = () if minor is None else (Resale(part=part_id, minor=minor),)
    sentence = (
        "sells for what is usual" if minor is None else f"may sell for {money(minor, currency)}"
    )
    return replace(plan, brief=replace(brief, resale=(*others, *resale))), f"{part.name} {sentence}"


def count_resale(plan: Plan, counts: bool) -> Edited:
    """Say whether the budget counts on what left-over parts may sell for."""
    sentence = "the budget counts" if counts else "the budget does not count"
    brief = replace(plan.brief, counts_resale=counts)
    return replace(plan, brief=brief), f"{sentence} on the sale of what is left over"


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
    return "is allowed again" if again else "is excluded"


def stand_in(plan: Plan, stands: StandIn, catalogue: Catalogue) -> Edited:
    """Say that a part is there only until a date and what it may then sell for."""
    name = catalogue.part(stands.part).name
    build = plan.build.standing_in(stands)
    return replace(plan, build=build), f"{name} stands in until {stands.until:%-d %b %Y}"


def stay(plan: Plan, part_id: str, catalogue: Catalogue) -> Edited:
    """Say that a part stays after all."""
    part = catalogue.part(part_id)
    return replace(plan, build=plan.build.staying(part.id)), f"{part.name} stays"
