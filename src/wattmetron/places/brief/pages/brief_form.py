"""The form of a brief, made from what its fields declare: what stands in each entry, what can be
chosen.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.balance.preference_prices import most_minor
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.resale import resale_minor
from wattmetron.core.values.brief import (
    TARGET,
    Brief,
    Target,
)
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.games import Game
from wattmetron.core.values.part_kinds import KIND_PLURALS, Kind
from wattmetron.core.values.trust import TRUST_FLOORS
from wattmetron.core.values.wishes import PREFERRED
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.suggested import USUAL_DISPLAYS
from wattmetron.places.brief.pages.brief_choices import choices_of
from wattmetron.places.brief.pages.form_fields import (
    BOUGHT,
    AskedEntry,
    Choice,
    Drafts,
    FieldGroup,
    FormFields,
    TickBox,
    field_mode,
    field_words,
    is_ticked,
)
from wattmetron.places.brief.pages.forms import LOWER
from wattmetron.places.games.library import tier_targets
from wattmetron.shell.pages import amount, plain
from wattmetron.words.figures import KIND_WORDS, THIN
from wattmetron.words.standing import GROUPS, differing, standing_words
from wattmetron.words.wish_words import preference_words

SHORT_WORDS = {"average": "avg", "low": "1\u202f% low"}
"""Choices that are shown in fewer letters."""


@dataclass(frozen=True, slots=True, kw_only=True)
class TargetForm:
    """The form of one target."""

    id: str
    name: str
    scope: str
    entries: tuple[AskedEntry, ...]
    more: tuple[AskedEntry, ...]
    upscaling: TickBox
    scale: AskedEntry
    ray_tracing: TickBox
    generated: TickBox
    lower: tuple[TickBox, ...]
    cap: str
    tiers: str
    ready: tuple[tuple[int, str], ...]
    summary: str
    game_id: str


@dataclass(frozen=True, slots=True)
class ChangedWish:
    """A wish that is not as usual, and the field to put back."""

    field: str
    words: str


@dataclass(frozen=True, kw_only=True)
class BriefForm:
    """Everything that the Brief view asks for, with the lists to choose from."""

    money: FieldGroup
    display: FieldGroup
    usual_displays: tuple[Choice, ...]
    usual_display: str
    groups: tuple[FieldGroup, ...]
    owned: FieldGroup
    out: tuple[str, ...]
    owned_words: str
    chips: tuple[ChangedWish, ...]
    screens: tuple[str, ...]
    targets: tuple[TargetForm, ...]
    games: tuple[str, ...]
    makers: tuple[str, ...]
    parts: tuple[str, ...]
    resale: Mapping[str, tuple[str, str]]
    part_names: Mapping[str, str]
    preferences: tuple[str, ...]
    preferable: tuple[tuple[str, str], ...]
    preferable_values: tuple[str, ...]
    preference_most: str
    preference_up_to: str
    only_of: tuple[tuple[Kind, str, str], ...]
    drafts: Drafts

    @property
    def not_wanted(self) -> str:
        return listed(self.out) or "nothing"

    def typed(self, scope: str, name: str) -> str:
        """What was typed into an entry that could not be taken."""
        return self.drafts.get(scope + name, "")


def brief_form(
    catalogue: Catalogue, brief: Brief, drafts: Drafts, tier_words: Mapping[str, str]
) -> BriefForm:
    """The form of a brief; ``drafts`` are entries that could not be taken, by scope and name."""
    currency = catalogue.region(brief.region).currency
    asking = FormFields(catalogue, brief, currency, drafts)
    lists = choices_of(catalogue)
    named = {*brief.banned, *brief.owned}
    up_to = "" if brief.preference_minor is None else amount(brief.preference_minor)
    return BriefForm(
        money=asking.group("money"),
        display=asking.group("display"),
        usual_displays=tuple(
            (usual_display.key, usual_display.words) for usual_display in USUAL_DISPLAYS
        ),
        usual_display=next(
            (
                usual_display.key
                for usual_display in USUAL_DISPLAYS
                if usual_display.is_like(brief.display)
            ),
            "",
        ),
        groups=tuple(asking.group(name) for name in GROUPS),
        owned=asking.group("owned"),
        chips=tuple(
            ChangedWish(field.name, standing_words(brief, field, currency, asking.names))
            for field in differing(brief)
        ),
        out=(*brief.no_makers, *(lists.names.get(part_id, part_id) for part_id in brief.banned)),
        owned_words=_owned_words(brief, lists.names),
        screens=tuple(screen.name for screen in catalogue.by_kind["display"]),
        targets=tuple(
            _target(catalogue, target, drafts, tier_words.get(target.id, ""))
            for target in brief.targets
        ),
        games=lists.games,
        makers=tuple(maker for maker in lists.makers if maker not in brief.no_makers),
        parts=lists.parts,
        resale={part_id: _resale(catalogue, brief, part_id, drafts) for part_id in brief.owned},
        part_names={part_id: lists.names.get(part_id, part_id) for part_id in named},
        preferences=tuple(
            preference_words(brief, preference, currency) for preference in brief.preferences
        ),
        preferable=tuple(
            (name, field.wish.preferred) for name, field in PREFERRED.items() if field.wish
        ),
        preferable_values=(*lists.colours, *TRUST_FLOORS, *lists.makers_by_kind),
        preference_most=amount(most_minor(brief)),
        preference_up_to=drafts.get("q:up_to", up_to),
        only_of=tuple(
            (
                kind,
                KIND_WORDS[kind],
                listed([maker for own_kind, maker in brief.only_of if own_kind == kind]),
            )
            for kind in dict.fromkeys(kind for kind, _ in brief.only_of)
        ),
        drafts=drafts,
    )


def _owned_words(brief: Brief, names: Mapping[str, str]) -> str:
    """What is owned, and what else the budget pays for, in one line."""
    sentences = (
        [f"owned: {listed([names.get(part_id, part_id) for part_id in brief.owned])}"]
        if brief.owned
        else []
    )
    if brief.outside:
        sentences.append(
            f"not in the budget: {listed([KIND_PLURALS[kind] for kind in brief.outside])}"
        )
    if brief.buys:
        sentences.append(
            f"also to be bought: {listed([BOUGHT.get(kind, kind) for kind in brief.buys])}"
        )
    sentences += (
        [f"extras: {listed([extra.name for extra in brief.extras])}"] if brief.extras else []
    )
    return "; ".join(sentences) or "nothing owned, all parts from the budget"


def _resale(catalogue: Catalogue, brief: Brief, part_id: str, drafts: Drafts) -> tuple[str, str]:
    """What an owned part may sell for: as entered, and what stands there while nothing is."""
    by_hand = next(
        (amount(each_resale.minor) for each_resale in brief.resale if each_resale.part == part_id),
        "",
    )
    usual = resale_minor(catalogue, replace(brief, resale=()), part_id)
    entered = drafts.get(f"r:{part_id}:amount", by_hand)
    return entered, "unknown" if usual is None else amount(usual)


def _target(catalogue: Catalogue, target: Target, drafts: Drafts, tiers: str) -> TargetForm:
    game = catalogue.games.get(target.game_id)
    scope = f"{target.id}:"
    prefix = f"t-{target.id}-"

    def draft(name: str, actual: str) -> str:
        return drafts.get(scope + name, actual)

    def tick(name: str, id_: str, label: str, actual: bool, offered: bool = True) -> TickBox:
        words = label if offered else f"{label} (not offered)"
        ticked = is_ticked(drafts, scope, name, actual)
        return TickBox(
            id=prefix + id_,
            name=name,
            label=words,
            term="generated" if name == "generated" else "",
            ticked=ticked,
            disabled=not offered,
        )

    def entry(field: Declared) -> AskedEntry:
        label = field.spec.label + (", fps" if field.name == "cap_fps" else "")
        explained = field.name if field.spec.meaning else ""
        return AskedEntry(
            id=prefix + field.name.removesuffix("_fps"),
            name=field.name,
            label=label,
            term="low" if field.name == "measure" else explained,
            mode=field_mode(field),
            value=draft(field.name, field_words(field, getattr(target, field.name))),
            empty=field.spec.empty,
            longest=field.spec.longest,
            choices=tuple((word, _short_word(field, word)) for word in field.options),
        )

    fields = {field.name: entry(field) for field in TARGET if field.spec.label}
    size = AskedEntry(
        id=f"{prefix}size",
        name="size",
        label="Resolution",
        term="",
        mode="size",
        value=draft("size", f"{target.width_px}x{target.height_px}"),
        empty="",
        longest=20,
    )
    scale = AskedEntry(
        id=f"{prefix}scale",
        name="scale",
        label="from",
        term="",
        mode="decimal",
        value=draft("scale", plain(target.scale * 100)),
        empty="",
        longest=20,
    )
    offers_up = game is None or bool(game.upscalers)
    offers_rays = game is None or game.ray_tracing_ms_per_mpx is not None
    offers_generation = game is None or bool(game.generators)
    return TargetForm(
        id=target.id,
        name=game.name if game else f"{target.game_id} (gone)",
        scope=scope,
        entries=(fields["fps"], fields["measure"], size, fields["preset"]),
        more=(fields["cap_fps"], fields["weight"]),
        upscaling=tick("upscaling", "up", "upscaling", target.upscaling, offers_up),
        scale=scale,
        ray_tracing=tick("ray_tracing", "rt", "ray tracing", target.ray_tracing, offers_rays),
        generated=tick(
            "generated", "fg", "count generated frames", target.generated, offers_generation
        ),
        lower=tuple(_lower(tick, game, target)) if game else (),
        cap=plain(game.engine_cap_fps) if game else "",
        tiers=tiers,
        ready=tuple(tier_targets(catalogue, target.game_id)),
        summary=_more_words(target),
        game_id=target.game_id,
    )


def _more_words(target: Target) -> str:
    """What of a target stands folded and is not as usual; ``more`` where nothing is."""
    usual = Target(id=target.id, game_id=target.game_id)
    sentences = [
        f"upscaling from {target.scale * 100:.0f}{THIN}%" if target.upscaling else "",
        "ray tracing" if target.ray_tracing else "",
        "generated frames count" if target.generated else "",
        f"lower {listed(target.lowered)}" if target.lowered else "",
        f"capped at {target.cap_fps:g}" if target.cap_fps is not None else "",
        f"weight {target.weight}" if target.weight != usual.weight else "",
    ]
    return ", ".join(filter(None, sentences)) or "more"


def _short_word(field: Declared, word: str) -> str:
    return SHORT_WORDS[word] if field.name == "measure" else word


def _lower(tick: Any, game: Game, target: Target) -> Iterable[TickBox]:
    for n, option in enumerate(game.options, start=1):
        name = LOWER + option.name
        yield tick(name, f"lower-{n}", f"lower {option.name}", option.name in target.lowered)
