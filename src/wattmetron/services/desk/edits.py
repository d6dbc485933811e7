"""Edits of a brief from what people type: read, checked, and summed up in one sentence."""

import re
from collections.abc import Mapping

# MOVED HERE
from dataclasses import fields, replace
from datetime import date
from typing import cast

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.values.brief import (
    CLOCKS,
    SURENESS,
    Brief,
    Clocks,
    Display,
    Extra,
    Measure,
    Sureness,
    Target,
)
from wattmetron.core.values.build import StandIn
from wattmetron.core.values.games import PRESETS, PresetName
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.money import to_decimal, to_minor
from wattmetron.core.values.other_work import WORKS
from wattmetron.core.values.parts import FURTHER_KINDS, Kind
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.published import Settled
from wattmetron.core.values.trust import TRUST_FLOORS, TrustFloor
from wattmetron.services.words.figures import KIND_WORDS, listed, money, money_range, settings
from wattmetron.services.words.tiers import tier_label

Form = Mapping[str, str]
LOWER = "lower:"
_SIZE = re.compile(r"\s*(\d{3,5})\s*[x×*]\s*(\d{3,5})\s*\Z")


def _number(form: Form, name: str, what: str) -> float:
    text = form.get(name, "").strip().replace(",", ".")
    try:
        value = float(text)
    except ValueError:
        value = float("nan")
    if not text:
        raise BriefError(f"{what} is empty: enter a number.")
    if value != value or abs(value) == float("inf"):
        raise BriefError(f"{what} is “{form[name]}”, which is not a number: enter one.")
    return value


def _whole(form: Form, name: str, what: str) -> int:
    value = _number(form, name, what)
    if value != int(value):
        raise BriefError(f"{what} is {value:g}: enter a whole number.")
    return int(value)


def _size(form: Form, name: str, what: str) -> tuple[int, int]:
    match = _SIZE.match(form.get(name, ""))
    if not match:
        raise BriefError(f"{what} is “{form.get(name, '')}”: enter pixels as in 2560x1440.")
    return int(match[1]), int(match[2])


def _choice(form: Form, name: str, what: str, allowed: tuple[str, ...]) -> str:
    value = form.get(name, "")
    if value not in allowed:
        raise BriefError(f"{what} is “{value}”: choose one of {', '.join(allowed)}.")
    return value


def edit_brief(plan: Plan, form: Form, catalogue: Catalogue) -> tuple[Plan, str]:
    """The plan with the general part of its brief as typed, and what changed."""
    old = plan.brief
    width, height = _size(form, "size", "The display's resolution")
    variable = form.get("variable_from_hz", "").strip()
    cap = form.get("part_cap", "").strip()
    watts, tariff = form.get("watt_limit_w", "").strip(), form.get("tariff", "").strip()
    noise, litres = form.get("noise_limit_dba", "").strip(), form.get("volume_limit_l", "").strip()
    seats = _whole(form, "seats", "Identical machines") if form.get("seats", "").strip() else 1
    if seats < 1:
        raise BriefError(f"Identical machines is {seats}: enter a whole number from 1.")
    new = replace(
        old,
        seats=seats,
        name=form.get("name", "").strip(),
        region=_choice(form, "region", "The region", tuple(catalogue.regions)),
        budget_low_minor=to_minor(
            form.get("budget_low", "").strip() or "0", "The budget's lower end"
        )
        // seats,
        budget_high_minor=to_minor(form.get("budget_high", ""), "The budget's upper end") // seats,
        display=Display(
            width_px=width,
            height_px=height,
            refresh_hz=_number(form, "refresh_hz", "The display's refresh"),
            variable_from_hz=(
                _number(form, "variable_from_hz", "The variable range") if variable else None
            ),
        ),
        sureness=cast(Sureness, _choice(form, "sureness", "The sureness", tuple(SURENESS))),
        part_cap_minor=to_minor(cap, "The part price cap") if cap else None,
        allow_used="allow_used" in form,
        accept_spill="accept_spill" in form,
        memory_gb=_number(form, "memory_gb", "The least memory"),
        storage_gb=_number(form, "storage_gb", "The least storage"),
        trust_floor=cast(
            TrustFloor, _choice(form, "trust_floor", "The trust floor", tuple(TRUST_FLOORS))
        ),
        watt_limit_w=_whole(form, "watt_limit_w", "The limit in watts") if watts else None,
        wireless="wireless" in form,
        room_to_grow="room_to_grow" in form,
        outside=tuple(kind for kind in FURTHER_KINDS if f"outside.{kind}" in form),
        play_hours=(
            _number(form, "play_hours", "The hours of play")
            if "play_hours" in form
            else old.play_hours
        ),
        desk_hours=(
            _number(form, "desk_hours", "The hours at the desk")
            if "desk_hours" in form
            else old.desk_hours
        ),
        tariff_per_kwh=to_decimal(to_minor(tariff, "The price of a kWh")) if tariff else None,
        headroom_percent=_whole(form, "headroom_percent", "Supply headroom"),
        noise_limit_dba=_number(form, "noise_limit_dba", "The limit of noise") if noise else None,
        volume_limit_l=_number(form, "volume_limit_l", "The largest case") if litres else None,
        colour=form.get("colour", old.colour).strip()[:120],
        clocks=(
            cast(Clocks, _choice(form, "clocks", "The clocks", CLOCKS))
            if "clocks" in form
            else old.clocks
        ),
        work=tuple(one for one in WORKS if f"work.{one}" in form),
        years=_whole(form, "years", "Years to keep") if form.get("years", "").strip() else 0,
        growth_percent=(
            _number(form, "growth_percent", "The games' growth")
            if form.get("growth_percent", "").strip()
            else old.growth_percent
        ),
        notes=form.get("notes", "")[:4000],
        system=form.get("system", old.system).strip()[:120],
    )
    return replace(plan, brief=new), _differences(old, new, catalogue)


_WORDS = {
    "name": "name",
    "region": "region",
    "display": "display",
    "sureness": "sureness",
    "allow_used": "used parts",
    "accept_spill": "too little video memory",
    "memory_gb": "least memory",
    "storage_gb": "least storage",
    "headroom_percent": "supply headroom",
    "trust_floor": "trust floor",
    "watt_limit_w": "limit in watts",
    "wireless": "wireless",
    "room_to_grow": "room to grow",
    "outside": "what another purse pays",
    "play_hours": "hours of play",
    "desk_hours": "hours at the desk",
    "tariff_per_kwh": "price of a kWh",
    "noise_limit_dba": "limit of noise",
    "volume_limit_l": "largest case",
    "colour": "colour",
    "clocks": "clocks",
    "work": "other work",
    "years": "years to keep",
    "seats": "identical machines",
    "growth_percent": "growth of the games' work",
    "notes": "notes",
    "system": "operating system",
}


def _differences(old: Brief, new: Brief, catalogue: Catalogue) -> str:
    currency = catalogue.region(new.region).currency
    said = []
    if (old.budget_low_minor, old.budget_high_minor) != (
        new.budget_low_minor,
        new.budget_high_minor,
    ):
        said.append(
            f"budget to {money_range(new.budget_low_minor, new.budget_high_minor, currency)}"
        )
    if old.part_cap_minor != new.part_cap_minor:
        said.append(
            "part price cap "
            + ("off" if new.part_cap_minor is None else f"to {money(new.part_cap_minor, currency)}")
        )
    for item in fields(Brief):
        if item.name in _WORDS and getattr(old, item.name) != getattr(new, item.name):
            said.append(_said(item.name, getattr(new, item.name)))
    return "; ".join(said)[:200] or "nothing"


def _said(name: str, value: object) -> str:
    if name in ("notes", "display"):
        return _WORDS[name]
    if value is None or (name == "colour" and not value):
        return f"{_WORDS[name]} off"
    if name == "work":
        return f"other work: {listed([*cast(tuple[str, ...], value)]) or 'none'}"
    if name == "outside":
        return (
            "another purse pays for"
            f" {listed([KIND_WORDS[kind] for kind in cast(tuple[Kind, ...], value)]) or 'nothing'}"
        )
    if name in ("wireless", "room_to_grow"):
        return f"{_WORDS[name]} {'wanted' if value else 'not wanted'}"
    if isinstance(value, bool):
        return f"{_WORDS[name]} {'allowed' if value else 'not allowed'}"
    return (
        f"{_WORDS[name]} to {value:g}" if isinstance(value, float) else f"{_WORDS[name]} to {value}"
    )


def add_target(plan: Plan, game_id: str, catalogue: Catalogue, tier: str = "") -> tuple[Plan, str]:
    """A target for a game: at the display's resolution and a usual frame rate, or ready-made from a
    tier's place.
    """
    game = catalogue.game(game_id)
    display = plan.brief.display
    taken = {target.id for target in plan.brief.targets}
    fresh = next(f"t{n}" for n in range(1, 10_000) if f"t{n}" not in taken)
    target = Target(
        id=fresh,
        game_id=game.id,
        width_px=display.width_px,
        height_px=display.height_px,
        fps=min(60.0, display.refresh_hz),
    )
    said = f"added {game.name}"
    if tier:
        rows = tiers_of(catalogue).of_game(game_id)
        if not tier.isdecimal() or int(tier) >= len(rows):
            raise BriefError(
                f"{game.name} has no such tier any more: look at what it publishes now."
            )
        row = tiers_of(catalogue).rows[rows[int(tier)]]
        target = tier_target(target, row.settled)
        said = f"added {game.name} as {tier_label(row.tier.label, row.place)}"
    brief = replace(plan.brief, targets=(*plan.brief.targets, target))
    return replace(plan, brief=brief), said


def edit_target(plan: Plan, target_id: str, form: Form, catalogue: Catalogue) -> tuple[Plan, str]:
    """The plan with one target as typed."""
    old = find_target(plan.brief, target_id)
    game = catalogue.game(form.get("game", old.game_id))
    width, height = _size(form, "size", f"The resolution of {game.name}")
    cap = form.get("cap_fps", "").strip()
    new = replace(
        old,
        game_id=game.id,
        width_px=width,
        height_px=height,
        preset=cast(PresetName, _choice(form, "preset", "The preset", PRESETS)),
        upscaling="upscaling" in form,
        scale=_number(form, "scale", f"The scale of {game.name}") / 100,
        ray_tracing="ray_tracing" in form and game.ray_tracing_ms_per_mpx is not None,
        lowered=tuple(one.name for one in game.options if LOWER + one.name in form),
        fps=_number(form, "fps", f"The frame rate of {game.name}"),
        measure=cast(Measure, _choice(form, "measure", "The measure", ("average", "low"))),
        cap_fps=_number(form, "cap_fps", f"The cap of {game.name}") if cap else None,
        weight=_whole(form, "weight", f"The weight of {game.name}"),
    )
    targets = tuple(new if one.id == target_id else one for one in plan.brief.targets)
    return (
        replace(plan, brief=replace(plan.brief, targets=targets)),
        f"{game.name} to {settings(new)}, {new.fps:g} fps",
    )


def remove_target(plan: Plan, target_id: str, catalogue: Catalogue) -> tuple[Plan, str]:
    gone = find_target(plan.brief, target_id)
    targets = tuple(one for one in plan.brief.targets if one.id != target_id)
    game = catalogue.games.get(gone.game_id)
    return (
        replace(plan, brief=replace(plan.brief, targets=targets)),
        f"removed {game.name if game else gone.game_id}",
    )


def find_target(brief: Brief, target_id: str) -> Target:
    for target in brief.targets:
        if target.id == target_id:
            return target
    raise BriefError("That target is no longer in the brief: look at what it says now.")


def add_extra(plan: Plan, form: Form) -> tuple[Plan, str]:
    """Something else that the budget may have to pay for."""
    name = form.get("extra_name", "").strip()[:120]
    if not name:
        raise BriefError("The extra has no name: say what it is, such as operating system.")
    if len(plan.brief.extras) >= 20:
        raise BriefError("The brief has 20 extras already: remove one first.")
    extra = Extra(name=name, minor=to_minor(form.get("extra_amount", ""), f"The amount of {name}"))
    return (
        replace(plan, brief=replace(plan.brief, extras=(*plan.brief.extras, extra))),
        f"added {name} to the budget",
    )


def change_extra(plan: Plan, place: int, action: str) -> tuple[Plan, str]:
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


def own(plan: Plan, part_id: str, owned: bool, catalogue: Catalogue) -> tuple[Plan, str]:
    """Say that a part is there already, or that it is not; an owned part goes into the build."""
    part = catalogue.part(part_id)
    brief = plan.brief
    if not owned:
        left = list(brief.owned)
        if part_id in left:
            left.remove(part_id)
        return replace(plan, brief=replace(brief, owned=tuple(left))), f"{part.name} is not owned"
    if part_id in brief.owned:
        return plan, "nothing"
    kind = kind_of(part)
    build = plan.build if part_id in plan.build.of(kind) else plan.build.with_part(kind, part_id)
    return (
        replace(plan, brief=replace(brief, owned=(*brief.owned, part_id)), build=build),
        f"{part.name} is owned",
    )


def exclude(plan: Plan, form: Form, catalogue: Catalogue) -> tuple[Plan, str]:
    """Exclude a maker or a part from what may be bought, or let it in again."""
    brief, again = plan.brief, form.get("again") == "1"
    maker, part_id = form.get("maker", "").strip()[:120], form.get("part", "").strip()[:80]
    if maker:
        makers = tuple(one for one in brief.no_makers if one != maker)
        brief = replace(brief, no_makers=makers if again else (*makers, maker))
        return (
            replace(plan, brief=brief),
            f"{maker} {'is welcome again' if again else 'is excluded'}",
        )
    name = catalogue.parts[part_id].name if part_id in catalogue.parts else part_id
    if not again:
        catalogue.part(part_id)
    banned = tuple(one for one in brief.banned if one != part_id)
    brief = replace(brief, banned=banned if again else (*banned, part_id))
    return replace(plan, brief=brief), f"{name} {'is welcome again' if again else 'is excluded'}"


def stand_in(plan: Plan, form: Form, catalogue: Catalogue) -> tuple[Plan, str]:
    """Say that a part is there only until a date and what it may then sell for, or that it
    stays.
    """
    part = catalogue.part(form.get("part", ""))
    if form.get("stays") == "1":
        return replace(plan, build=plan.build.staying(part.id)), f"{part.name} stays"
    try:
        until = date.fromisoformat(form.get("until", "").strip())
    except ValueError:
        raise BriefError(
            f"The day until which {part.name} stands in is “{form.get('until', '')}”: enter one"
            " such as 2027-03-01."
        ) from None
    resale = to_minor(form.get("resale", "").strip() or "0", f"What {part.name} may sell for")
    return (
        replace(plan, build=plan.build.standing_in(StandIn(part.id, until, resale))),
        f"{part.name} stands in until {until:%-d %b %Y}",
    )


def tier_target(target: Target, settled: Settled) -> Target:
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
