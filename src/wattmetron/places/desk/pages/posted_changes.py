"""Every change that a brief's page can make: what was typed, read and handed to its edit."""

from collections.abc import Callable
from datetime import UTC, datetime

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.purchases import read_state
from wattmetron.places.assessment import brief_edits
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.brief_edits import Edited
from wattmetron.places.assessment.named import games_named, part_named
from wattmetron.places.brief import build_edits, preference_edits, sent_lists
from wattmetron.places.brief.pages.forms import (
    AddTargetForm,
    AdoptForm,
    AsideForm,
    ExcludeForm,
    ExtraForm,
    FieldForm,
    HandoutForm,
    KindForm,
    LaterForm,
    OwnListForm,
    PlacedPartForm,
    PreferForm,
    PurchaseForm,
    ResaleForm,
    ScreenForm,
    StandInForm,
    general_values,
    target_from,
)
from wattmetron.places.buy import purchase_edits
from wattmetron.places.buy.purchase_edits import buying, chosen_way
from wattmetron.places.handout import handout_edits
from wattmetron.places.handout.notes import stamped
from wattmetron.shell.address import decode_build
from wattmetron.shell.forms import Typed, read

Change = Callable[[Plan, Typed, Catalogue], Edited]


def edit_brief(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    values = general_values(entries, plan.brief)
    for name, kind in NAMED_PARTS.items():
        if name in values:
            values[name] = _named(catalogue, values[name], getattr(plan.brief, name), kind)
    return brief_edits.edit_brief(plan, values, catalogue)


NAMED_PARTS: dict[str, Kind] = {"later_card": "graphics", "later_processor": "processor"}
"""Fields that take a part by its name."""


def _named(catalogue: Catalogue, typed: str, now: str, kind: Kind) -> str:
    """The part that was typed; one that was there may be lost by now."""
    known = catalogue.parts.get(now)
    if not typed or typed in (now, known.name if known else now):
        return now if typed else ""
    return part_named(catalogue, typed, kind)


def add_target(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(AddTargetForm, entries)
    if form.tier_place is None:
        return brief_edits.add_targets(plan, form.game, catalogue)
    (game_id,) = games_named(catalogue, form.game)[:1]
    return brief_edits.add_target(plan, game_id, catalogue, form.tier_place)


def as_tier(target_id: str) -> Change:
    """The change that puts a target at the conditions of a tier."""

    def change(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
        index = read(AddTargetForm, entries).tier_place
        return brief_edits.target_as_tier(
            plan, target_id, -1 if index is None else index, catalogue
        )

    return change


def as_usual(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return brief_edits.as_usual(plan, read(FieldForm, entries).field, catalogue)


def use_display(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return brief_edits.use_display(plan, read(ScreenForm, entries).screen, catalogue)


def edit_target(target_id: str) -> Change:
    def change(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
        old = brief_edits.find_target(plan.brief, target_id)
        game = catalogue.game(entries.get("game", old.game_id))
        return brief_edits.edit_target(plan, target_from(entries, old, game), catalogue)

    return change


def remove_target(target_id: str) -> Change:
    return lambda plan, _, catalogue: brief_edits.remove_target(plan, target_id, catalogue)


def add_extra(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return brief_edits.add_extra(plan, read(ExtraForm, entries).extra)


def own(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(PlacedPartForm, entries)
    part = part_named(catalogue, form.part) if form.owned else form.part
    return brief_edits.own(plan, part, form.owned, catalogue)


def own_all(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return sent_lists.own_all(plan, read(OwnListForm, entries).list, catalogue)


def let_stay(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(PlacedPartForm, entries)
    return brief_edits.let_stay(plan, form.part, form.keep, catalogue)


def resale(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(ResaleForm, entries)
    if not form.part:
        return brief_edits.count_resale(plan, form.counts)
    minor = form.minor(catalogue.part(form.part).name)
    return brief_edits.sell_for(plan, form.part, minor, catalogue)


def exclude(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(ExcludeForm, entries)
    if form.maker:
        return brief_edits.exclude_maker(plan, form.maker, form.again)
    part = form.part if form.again else part_named(catalogue, form.part)
    return brief_edits.exclude_part(plan, part, form.again, catalogue)


def stand_in(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(StandInForm, entries)
    if form.stays:
        return brief_edits.stay(plan, form.part, catalogue)
    return brief_edits.stand_in(plan, form.stand_in(catalogue.part(form.part).name), catalogue)


def prefer(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(PreferForm, entries)
    match form.act:
        case "limit":
            return preference_edits.limit(plan, form.most_minor, catalogue)
        case "insist":
            return preference_edits.insist(plan, form.place, catalogue)
        case "drop":
            return preference_edits.let_go(plan, form.place, catalogue)
    return preference_edits.prefer(plan, form.preference, catalogue)


def any_maker(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return preference_edits.buy_from_anyone(plan, read(KindForm, entries).kind)


def adopt(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    tried = read(AdoptForm, {"tried": entries.get("try", "")}).tried
    return build_edits.adopt(plan, decode_build(tried, plan.build), catalogue)


def set_aside(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(AsideForm, entries)
    if form.again:
        return build_edits.count_again(plan, form.aside.rule, form.aside.parts)
    return build_edits.set_aside(plan, form.aside)


def remove(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return build_edits.remove(plan, read(PlacedPartForm, entries).part, catalogue)


def keep(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(PlacedPartForm, entries)
    return build_edits.keep(plan, form.part, form.keep, catalogue)


def buy_later(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(LaterForm, entries)
    return build_edits.buy_later(plan, form.part, not form.now, catalogue)


def handout_opening(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return handout_edits.open_with(plan, read(HandoutForm, entries).opening)


def handout_section(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(HandoutForm, entries)
    return handout_edits.move_section(plan, form.section, form.where)


def handout_note(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(HandoutForm, entries)
    return handout_edits.note(
        plan, stamped(catalogue, plan, form.part, form.note.strip()), catalogue
    )


def handout_grade(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(HandoutForm, entries)
    return handout_edits.show_grade(plan, form.grade, form.where == "show")


def order_parts(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    """Order the purchase in so many parcels, as the page shows it."""
    form, today = read(PurchaseForm, entries), datetime.now(UTC).date()
    now = assess(catalogue, plan.brief, plan.build)
    chosen = chosen_way(buying(catalogue, now, plan, today), form.parcels)
    if chosen is None:
        raise BriefError("There is nothing to order: all of it is bought, or nobody has it.")
    return purchase_edits.order(plan, chosen, today)


def mark_purchase(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    form = read(PurchaseForm, entries)
    paid = to_minor(form.paid, "What was paid") if form.paid.strip() else None
    postage = to_minor(form.postage, "The postage") if form.postage.strip() else 0
    instead = part_named(catalogue, form.instead) if form.instead.strip() else ""
    return purchase_edits.mark(
        plan, catalogue, form.part, read_state(form.state), paid, instead, postage
    )


def keep_what_came(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return purchase_edits.keep_what_came(plan, catalogue, read(PurchaseForm, entries).part)


def forget_purchase(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return purchase_edits.forget(plan, read(PurchaseForm, entries).part)


def handout_house(plan: Plan, entries: Typed, catalogue: Catalogue) -> Edited:
    return handout_edits.use_own_house(plan)


CHANGES: dict[str, Change] = {
    "edit": edit_brief,
    "targets": add_target,
    "extras": add_extra,
    "usual": as_usual,
    "display": use_display,
    "own": own,
    "own-list": own_all,
    "let-stay": let_stay,
    "resale": resale,
    "exclude": exclude,
    "prefer": prefer,
    "any-maker": any_maker,
    "stand-in": stand_in,
    "later": buy_later,
    "handout-opening": handout_opening,
    "handout-section": handout_section,
    "handout-note": handout_note,
    "handout-grade": handout_grade,
    "handout-house": handout_house,
    "order": order_parts,
    "purchase": mark_purchase,
    "purchase-kept": keep_what_came,
    "purchase-forgotten": forget_purchase,
    "adopt": adopt,
    "aside": set_aside,
    "remove": remove,
    "keep": keep,
    "clear": lambda plan, _, catalogue: build_edits.clear(plan),
    "pin": lambda plan, _, catalogue: build_edits.pin(plan),
}
"""Changes by the last word of their address."""
