"""The form of a brief, made from what its fields declare: what stands in each entry, what can be
chosen.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.balance.granting import most_minor
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.resale import resale_minor
from wattmetron.core.values.brief import (
    BRIEF,
    DISPLAY,
    DRIVES,
    FEATURES,
    LATER,
    SURENESS,
    TARGET,
    Brief,
    Target,
)
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.games import Game
from wattmetron.core.values.parts import FURTHER_KINDS, KIND_PLURALS, KINDS, Kind
from wattmetron.core.values.trust import TRUST_FLOORS
from wattmetron.core.values.wishes import PREFERRED, wishes_held
from wattmetron.core.values.words import listed
from wattmetron.services.words.drives import drives_words, later_words
from wattmetron.services.words.figures import KIND_WORDS
from wattmetron.services.words.wishes import preference_words, wish_words
from wattmetron.web.desk.forms import GENERAL, LOWER
from wattmetron.web.shell.forms import entry_name
from wattmetron.web.shell.pages import amount, plain

GENERAL_SCOPE = "b:"
SHORT_WORDS = {"average": "avg", "low": "1\u202f% low"}
"""Choices that are shown in fewer letters."""
Drafts = Mapping[str, str]


Choice = tuple[str, str]
"""A value and its words."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Choices:
    """What can be chosen anywhere in the form, the same for every brief of a catalogue."""

    games: tuple[Choice, ...]
    game_names: tuple[Choice, ...]
    parts: tuple[tuple[str, tuple[Choice, ...]], ...]
    makers: tuple[str, ...]
    makers_by_kind: tuple[str, ...]
    colours: tuple[str, ...]
    systems: tuple[str, ...]


def choices_of(catalogue: Catalogue) -> Choices:
    """The choices of a catalogue."""
    return catalogue.keep.once(("form choices",), lambda: _choices_of(catalogue))


def _choices_of(catalogue: Catalogue) -> Choices:
    parts = catalogue.parts.values()
    lists = catalogue.published.values()
    by_kind = {(KIND_WORDS[kind], part.maker) for kind in KINDS for part in catalogue.by_kind[kind]}
    return Choices(
        games=tuple((game.id, f"{game.name}, {game.genre}") for game in catalogue.games.values()),
        game_names=tuple((game.id, game.name) for game in catalogue.games.values()),
        parts=tuple(
            (KIND_WORDS[kind], tuple((part.id, part.name) for part in own))
            for kind, own in catalogue.by_kind.items()
        ),
        makers=tuple(sorted({part.maker for part in parts})),
        makers_by_kind=tuple(f"{kind}: {maker}" for kind, maker in sorted(by_kind)),
        colours=tuple(sorted({part.colour for part in parts if part.colour})),
        systems=tuple(sorted({tier.system for own in lists for tier in own.tiers if tier.system})),
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class AskedEntry:
    """One entry of a form: its id, name and label, the trade word to explain, how it is typed, what
    stands in it, and what can be chosen (value, words) or is suggested.
    """

    id: str
    name: str
    label: str
    term: str
    mode: str
    value: str
    empty: str
    longest: int
    choices: tuple[Choice, ...] = ()
    suggested: tuple[str, ...] = ()
    wide: bool = False

    @property
    def is_figure(self) -> bool:
        return self.mode in ("decimal", "numeric", "size")


@dataclass(frozen=True, slots=True, kw_only=True)
class TickBox:
    """A box to tick."""

    id: str
    name: str
    label: str
    term: str
    ticked: bool
    disabled: bool = False


@dataclass(frozen=True, slots=True)
class Ticks:
    """Boxes of which several may be ticked."""

    label: str
    term: str
    boxes: tuple[TickBox, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class TargetForm:
    """The form of one target."""

    id: str
    name: str
    scope: str
    entries: tuple[AskedEntry, ...]
    upscaling: TickBox
    scale: AskedEntry
    ray_tracing: TickBox
    lower: tuple[TickBox, ...]
    cap: str
    tiers: str
    game_id: str


@dataclass(frozen=True, slots=True)
class Folded:
    """Entries and boxes that stand folded under one line, which says what they come to."""

    id: str
    name: str
    said: str
    entries: tuple[AskedEntry, ...]
    flags: tuple[TickBox, ...]


@dataclass(frozen=True, kw_only=True)
class BriefForm:
    """Everything that the Brief view asks for, with the lists to choose from."""

    entries: tuple[AskedEntry, ...]
    folded: tuple[Folded, ...]
    groups: tuple[Ticks, ...]
    flags: tuple[TickBox, ...]
    floors: tuple[TickBox, ...]
    targets: tuple[TargetForm, ...]
    games: tuple[tuple[str, str], ...]
    makers: tuple[str, ...]
    bannable: tuple[tuple[str, tuple[Choice, ...]], ...]
    ownable: tuple[tuple[str, tuple[Choice, ...]], ...]
    resale: Mapping[str, tuple[str, str]]
    part_names: Mapping[str, str]
    preferences: tuple[str, ...]
    preferable: tuple[tuple[str, str], ...]
    preferable_values: tuple[str, ...]
    preference_most: str
    preference_up_to: str
    only_of: tuple[tuple[Kind, str, str], ...]
    drafts: Drafts

    def typed(self, scope: str, name: str) -> str:
        """What was typed into an entry that could not be taken."""
        return self.drafts.get(scope + name, "")


def brief_form(
    catalogue: Catalogue, brief: Brief, drafts: Drafts, tier_words: Mapping[str, str]
) -> BriefForm:
    """The form of a brief; ``drafts`` are entries that could not be taken, by scope and name."""
    currency = catalogue.region(brief.region).currency
    asked = _Asking(catalogue, brief, currency, drafts)
    lists = choices_of(catalogue)
    named = {*brief.banned, *brief.owned}
    up_to = "" if brief.preference_minor is None else amount(brief.preference_minor)
    return BriefForm(
        entries=tuple(asked.entries()),
        folded=tuple(asked.folded()),
        groups=tuple(asked.groups()),
        flags=tuple(asked.flags(False)),
        floors=tuple(asked.flags(True)),
        targets=tuple(
            _target(catalogue, target, drafts, tier_words.get(target.id, ""))
            for target in brief.targets
        ),
        games=lists.games,
        makers=tuple(maker for maker in lists.makers if maker not in brief.no_makers),
        bannable=tuple(
            (kind, tuple(part for part in parts if part[0] not in brief.banned))
            for kind, parts in lists.parts
        ),
        ownable=lists.parts,
        resale={part_id: _resale(catalogue, brief, part_id, drafts) for part_id in brief.owned},
        part_names={
            part_id: catalogue.parts[part_id].name if part_id in catalogue.parts else part_id
            for part_id in named
        },
        preferences=tuple(preference_words(brief, own, currency) for own in brief.preferences),
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
                listed([maker for own, maker in brief.only_of if own == kind]),
            )
            for kind in dict.fromkeys(kind for kind, _ in brief.only_of)
        ),
        drafts=drafts,
    )


def _resale(catalogue: Catalogue, brief: Brief, part_id: str, drafts: Drafts) -> tuple[str, str]:
    """What an owned part may sell for: as entered, and what stands there while nothing is."""
    by_hand = next((amount(said.minor) for said in brief.resale if said.part == part_id), "")
    usual = resale_minor(catalogue, replace(brief, resale=()), part_id)
    entered = drafts.get(f"r:{part_id}:amount", by_hand)
    return entered, "unknown" if usual is None else amount(usual)


class _Asking:
    """The general form of one brief."""

    def __init__(self, catalogue: Catalogue, brief: Brief, currency: str, drafts: Drafts) -> None:
        self.catalogue, self.brief, self.currency, self.drafts = catalogue, brief, currency, drafts

    def entries(self) -> Iterable[AskedEntry]:
        """In the order of their declaration, the display's after the money's."""
        for field in BRIEF:
            if not field.asked.group and _is_entry(field):
                yield self._entry(field, getattr(self.brief, field.name))
            if field.name == "part_cap_minor":
                yield self._size()
                for shown in DISPLAY:
                    if shown.asked.label:
                        yield self._entry(shown, getattr(self.brief.display, shown.name))

    def folded(self) -> Iterable[Folded]:
        """What the drives are for, and what is to come later."""
        for group, name, said in (
            (DRIVES, "Drives", drives_words(self.brief)),
            (LATER, "Room for later", later_words(self.brief, self.catalogue.parts)),
            (FEATURES, "Mainboard, case and cables", self._wanted()),
        ):
            own = [field for field in BRIEF if field.asked.group == group]
            yield Folded(
                group,
                name,
                said,
                tuple(
                    self._entry(field, getattr(self.brief, field.name))
                    for field in own
                    if _is_entry(field)
                ),
                tuple(self._flag(field) for field in own if field.bare is bool),
            )

    def _wanted(self) -> str:
        """The features that the brief insists on, in one line."""
        said = [
            wish_words(self.brief, field, self.currency)
            for field in wishes_held(self.brief)
            if field.asked.group == FEATURES
        ]
        return listed(said) or "nothing asked"

    def _size(self) -> AskedEntry:
        display = self.brief.display
        value = self._draft("size", f"{display.width_px}x{display.height_px}")
        return AskedEntry(
            id="f-size",
            name="size",
            label="Display, pixels",
            term="",
            mode="size",
            value=value,
            empty="",
            longest=20,
        )

    def _draft(self, name: str, actual: str) -> str:
        return self.drafts.get(GENERAL_SCOPE + name, actual)

    def _entry(self, field: Declared, value: Any) -> AskedEntry:
        name, asked = entry_name(field), field.asked
        if name in ("budget_low", "budget_high"):
            value *= self.brief.seats
        empty = asked.empty
        if asked.choices == "tariff":
            empty = str(self.catalogue.region(self.brief.region).tariff_per_kwh or "")
        return AskedEntry(
            id="f-" + name.replace("_", "-"),
            name=name,
            label=self._label(field),
            term=field.name if asked.meaning else "",
            mode=_mode(field),
            value=self._draft(name, _shown(field, value)),
            empty=empty,
            longest=asked.longest,
            choices=self._choices(field),
            suggested=self._suggested(asked.choices),
            wide=asked.wide,
        )

    def _label(self, field: Declared) -> str:
        label, unit = field.asked.label, field.asked.unit
        if field.asked.amount or field.asked.choices == "tariff":
            together = self.brief.seats > 1 and field.name.startswith("budget")
            return f"{label} ({self.currency}{', all' if together else ''})"
        return f"{label}, {unit}" if unit else label

    def _choices(self, field: Declared) -> tuple[tuple[str, str], ...]:
        if field.asked.choices == "regions":
            regions = self.catalogue.regions.values()
            return tuple((region.id, f"{region.name} ({region.currency})") for region in regions)
        if field.asked.choices in OF_KIND:
            parts = self.catalogue.by_kind[OF_KIND[field.asked.choices]]
            return (("", "none"), *((part.id, part.name) for part in parts))
        if field.name == "sureness":
            return tuple((word, f"{word}, {share:.0%}") for word, share in SURENESS.items())
        return tuple((word, word) for word in field.options)

    def _suggested(self, source: str) -> tuple[str, ...]:
        lists = choices_of(self.catalogue)
        return {"colours": lists.colours, "systems": lists.systems}.get(source, ())

    def groups(self) -> Iterable[Ticks]:
        for field in BRIEF:
            if not field.asked.label or not field.several:
                continue
            options: Iterable[Any] = field.options
            if field.asked.choices == "further kinds":
                options = FURTHER_KINDS
            chosen = getattr(self.brief, field.name)
            boxes = tuple(
                self._tick(
                    f"f-{field.name}-{option.replace(' ', '-')}",
                    f"{field.name}.{option}",
                    (KIND_PLURALS if options is FURTHER_KINDS else BOUGHT).get(option, option),
                    option in chosen,
                )
                for option in options
            )
            yield Ticks(field.asked.label, field.name if field.asked.meaning else "", boxes)

    def flags(self, usual: bool) -> Iterable[TickBox]:
        """Boxes that are usually ticked, the floors of every proposal, or those that are not."""
        for field in GENERAL:
            if field.bare is bool and field.default is usual and not field.asked.group:
                yield self._flag(field)

    def _flag(self, field: Declared) -> TickBox:
        id_ = "f-" + field.name.replace("_", "-")
        term = field.name if field.asked.meaning else ""
        return self._tick(id_, field.name, field.asked.label, getattr(self.brief, field.name), term)

    def _tick(self, id_: str, name: str, label: str, actual: bool, term: str = "") -> TickBox:
        return TickBox(
            id=id_,
            name=name,
            label=label,
            term=term,
            ticked=_ticked(self.drafts, GENERAL_SCOPE, name, actual),
        )


OF_KIND: dict[str, Kind] = {"cards": "graphics", "chips": "processor"}
"""Entries that are chosen from the parts of a kind."""
BOUGHT = {**KIND_WORDS, "input": "keyboard and mouse"}


def _is_entry(field: Declared) -> bool:
    return bool(field.asked.label) and not field.several and field.bare is not bool


def _ticked(drafts: Drafts, scope: str, name: str, actual: bool) -> bool:
    return (scope + name) in drafts if f"{scope}*" in drafts else actual


def _mode(field: Declared) -> str:
    if field.options or field.asked.choices in ("regions", *OF_KIND):
        return "choice"
    if field.bare is str:
        return "notes" if field.asked.longest > 1000 else "text"
    return "numeric" if field.bare is int and not field.asked.amount else "decimal"


def _shown(field: Declared, value: Any) -> str:
    if value is None or (field.name == "years" and not value):
        return ""
    if field.asked.amount:
        return amount(value)
    return plain(value) if isinstance(value, float) else str(value)


def _target(catalogue: Catalogue, target: Target, drafts: Drafts, tiers: str) -> TargetForm:
    game = catalogue.games.get(target.game_id)
    scope = f"{target.id}:"
    prefix = f"t-{target.id}-"

    def draft(name: str, actual: str) -> str:
        return drafts.get(scope + name, actual)

    def tick(name: str, id_: str, label: str, actual: bool, offered: bool = True) -> TickBox:
        words = label if offered else f"{label} (not offered)"
        ticked = _ticked(drafts, scope, name, actual)
        return TickBox(
            id=prefix + id_, name=name, label=words, term="", ticked=ticked, disabled=not offered
        )

    def entry(field: Declared) -> AskedEntry:
        label = field.asked.label + (", fps" if field.name == "cap_fps" else "")
        return AskedEntry(
            id=prefix + field.name.removesuffix("_fps"),
            name=field.name,
            label=label,
            term="low" if field.name == "measure" else field.name if field.asked.meaning else "",
            mode=_mode(field),
            value=draft(field.name, _shown(field, getattr(target, field.name))),
            empty=field.asked.empty,
            longest=field.asked.longest,
            choices=tuple((word, _short_word(field, word)) for word in field.options),
        )

    fields = {field.name: entry(field) for field in TARGET if field.asked.label}
    games = choices_of(catalogue).game_names
    if game is None:
        games = ((target.game_id, f"{target.game_id} (gone)"), *games)
    chosen = AskedEntry(
        id=f"{prefix}game",
        name="game",
        label="Game",
        term="",
        mode="choice",
        value=target.game_id,
        empty="",
        longest=80,
        choices=games,
    )
    size = draft("size", f"{target.width_px}x{target.height_px}")
    scale = draft("scale", plain(target.scale * 100))
    names = ("preset", "cap_fps", "weight")
    return TargetForm(
        id=target.id,
        name=game.name if game else target.game_id,
        scope=scope,
        entries=(
            chosen,
            fields["fps"],
            fields["measure"],
            AskedEntry(
                id=f"{prefix}size",
                name="size",
                label="Resolution",
                term="",
                mode="size",
                value=size,
                empty="",
                longest=20,
            ),
            *(fields[name] for name in names),
        ),
        upscaling=tick(
            "upscaling", "up", "upscaling", target.upscaling, game is None or bool(game.upscalers)
        ),
        scale=AskedEntry(
            id=f"{prefix}scale",
            name="scale",
            label="from",
            term="",
            mode="decimal",
            value=scale,
            empty="",
            longest=20,
        ),
        ray_tracing=tick(
            "ray_tracing",
            "rt",
            "ray tracing",
            target.ray_tracing,
            game is None or game.ray_tracing_ms_per_mpx is not None,
        ),
        lower=tuple(_lower(tick, game, target)) if game else (),
        cap=plain(game.engine_cap_fps) if game else "",
        tiers=tiers,
        game_id=target.game_id,
    )


def _short_word(field: Declared, word: str) -> str:
    return SHORT_WORDS[word] if field.name == "measure" else word


def _lower(tick: Any, game: Game, target: Target) -> Iterable[TickBox]:
    for n, option in enumerate(game.options, start=1):
        name = LOWER + option.name
        yield tick(name, f"lower-{n}", f"lower {option.name}", option.name in target.lowered)
