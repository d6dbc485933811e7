"""The page of a letter: the text with what was read marked in it, each value to be corrected."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.texts.messages.clauses import LONGEST
from wattmetron.core.texts.messages.message_reader import read_letter
from wattmetron.core.texts.messages.statements import Field, Letter, MessageReading
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.core.texts.part_lists.prose import prose_of
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.part_kinds import KIND_NAMES, Kind
from wattmetron.places.brief.message_import import (
    QUIET_DBA,
    SMALL_L,
    Wanted,
    WantedGame,
    wanted,
)
from wattmetron.places.brief.pages.sent_panel import ListRow, list_rows, list_said
from wattmetron.places.brief.sent_lists import tastes_of
from wattmetron.shell.pages import amount, plain
from wattmetron.words.wish_words import preference_words
from wattmetron.workshop.plan_checks import usual_plan

WORDS: dict[Field, str] = {
    "budget": "budget",
    "currency": "currency",
    "size": "display",
    "refresh_hz": "refresh",
    "game": "game",
    "fps": "frame rate",
    "preset": "preset",
    "ray_tracing": "ray tracing",
    "upscaling": "upscaling",
    "generated": "frame generation",
    "no_lights": "no lights",
    "quiet": "quiet",
    "small": "small case",
    "colour": "colour",
    "cooling": "cooling",
    "wireless": "wireless",
    "allow_used": "used parts",
    "own_kind": "owned",
    "owned": "owned part",
    "no_maker": "not wanted",
    "memory_gb": "memory",
    "storage_gb": "storage",
    "no_disks": "no spinning disk",
    "work": "other work",
    "years": "years to keep",
    "buys": "also to be bought",
}
FLAGS = {
    "no_lights": "No lights",
    "wireless": "Wireless",
    "no_disks": "No spinning disk",
}
FIGURES = {
    "noise_limit_dba": ("Noise in play at most, dB(A)", f"“quiet” is taken as {QUIET_DBA:g}"),
    "volume_limit_l": ("Case at most, litres", f"“small” is taken as {SMALL_L:g}"),
    "colour": ("Colour", ""),
    "cooling": ("Cooling: air or liquid", ""),
    "memory_gb": ("Memory at least, GB", ""),
    "storage_gb": ("Storage at least, GB", ""),
    "years": ("Years to keep", ""),
}
LISTS = ("work", "buys", "no_makers")


@dataclass(frozen=True, slots=True)
class MessagePiece:
    """A piece of the letter: what it was read as, empty for none; whether nothing of its sentence
    was read.
    """

    text: str
    read_as: str = ""
    sure: bool = True
    unread: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureRow:
    """A value that was read, to be taken or changed."""

    name: str
    label: str
    value: str
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class MessageGameRow:
    """A game that was read."""

    id: str
    name: str
    fps: str
    preset: str
    rays: bool
    offers_rays: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class LetterPage:
    """What the page shows; without pieces it asks for the letter."""

    text: str = ""
    error: str = ""
    pieces: tuple[MessagePiece, ...] = ()
    figures: tuple[FigureRow, ...] = ()
    flags: tuple[tuple[str, str], ...] = ()
    games: tuple[MessageGameRow, ...] = ()
    lists: tuple[tuple[str, str, str], ...] = ()
    owned: tuple[tuple[str, str], ...] = ()
    unnamed: tuple[tuple[Kind, str], ...] = ()
    regions: tuple[tuple[str, str], ...] = ()
    region: str = ""
    budget: tuple[str, str] = ("", "")
    size: str = ""
    refresh: str = ""
    yes_or_no: tuple[tuple[str, str, str], ...] = ()
    sentences: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    rows: tuple[ListRow, ...] = ()
    tastes: tuple[tuple[int, str, str], ...] = ()
    drafts: Mapping[str, str] = field(default_factory=dict)

    @property
    def read(self) -> bool:
        """Whether there is something to correct."""
        return bool(self.pieces)

    def typed(self, name: str, read: str) -> str:
        """What stands in an entry: as typed, else as read."""
        return self.drafts.get(name, read)

    @property
    def presets(self) -> tuple[str, ...]:
        return PRESETS


def read_text(catalogue: Catalogue, text: str) -> LetterPage:
    """A letter, a list, or one with the other in it; raises BriefError or ListError."""
    if not text.strip():
        raise BriefError("There is no text: paste the message or the list, or choose a file.")
    sent_list = read_list(catalogue, text)
    prose = prose_of(catalogue, text) if sent_list.parts else text
    if prose.strip():
        letter = replace(read_letter(catalogue, prose), text=text[:LONGEST])
    else:
        letter = Letter(text[:LONGEST], (), ())
    listed_parts = {sent_part.best.part_id for sent_part in sent_list.parts if sent_part.best}
    shown = letter_page(catalogue, letter, bool(sent_list.parts))
    brief = usual_plan(catalogue, shown.region).brief
    tastes = tastes_of(catalogue, brief, listed_parts)
    currency = catalogue.region(brief.region).currency
    return replace(
        shown,
        rows=list_rows(catalogue, sent_list),
        owned=tuple(part for part in shown.owned if part[0] not in listed_parts),
        unnamed=() if sent_list.parts else shown.unnamed,
        sentences=(*shown.sentences, *list_said(sent_list)),
        tastes=tuple(
            (n, preference_words(brief, taste.preference, currency), taste.shown_by)
            for n, taste in enumerate(tastes)
        ),
    )


def letter_page(catalogue: Catalogue, letter: Letter, listed: bool = False) -> LetterPage:
    """What was read of a letter; one with a list is not asked for what it does not say."""
    wants = wanted(catalogue, letter)
    fields = wants.fields
    low, high = fields.get("budget_low_minor"), fields.get("budget_high_minor")
    size = fields.get("size")
    return LetterPage(
        text=letter.text,
        pieces=tuple(_pieces(letter)),
        figures=tuple(_figures(fields)),
        flags=tuple((name, words) for name, words in FLAGS.items() if fields.get(name)),
        games=tuple(_game(catalogue, game) for game in wants.games),
        lists=tuple(_lists(fields)),
        owned=tuple((part_id, catalogue.part(part_id).name) for part_id in wants.owned),
        unnamed=tuple((kind, KIND_NAMES[kind]) for kind in wants.unnamed),
        regions=tuple(
            (region.id, f"{region.name} ({region.currency})")
            for region in catalogue.regions.values()
        ),
        region=fields.get("region", ""),
        budget=("" if not low else amount(low), "" if high is None else amount(high)),
        size="" if size is None else f"{size[0]}x{size[1]}",
        refresh=plain(fields.get("refresh_hz")),
        yes_or_no=tuple(
            (name, label, "yes" if reading else "no")
            for name, label, reading in (
                ("upscaling", "Upscaling", wants.upscaling),
                ("generated", "Generated frames count", wants.generated),
                ("used", "Used parts", fields.get("allow_used")),
            )
            if reading is not None
        ),
        sentences=tuple(_told(letter, wants, listed)),
        parts=tuple(part.name for part in catalogue.parts.values()) if wants.unnamed else (),
    )


def _told(letter: Letter, wants: Wanted, listed: bool) -> list[str]:
    """What is missing, unsure, or left to be said."""
    sentences = []
    if letter.cut:
        sentences.append(
            f"Only the first {LONGEST:,} characters were read: paste the part that says what is"
            " wanted."
        )
    if not wants.games:
        sentences.append(
            "No game of the catalogue was found: add one in the brief, or paste what it asks for."
        )
    if "budget_high_minor" not in wants.fields:
        sentences.append("No budget was found: enter one.")
    unsure = [WORDS[reading.field] for reading in letter.readings if not reading.sure]
    if unsure:
        sentences.append(f"Not sure, please check: {', '.join(dict.fromkeys(unsure))}.")
    foreign = [reading.value for reading in letter.of("currency")]
    if foreign and "region" not in wants.fields:
        sentences.append(f"No region has prices in {foreign[0]}: choose one, and check the budget.")
    if len(foreign) > 1:
        sentences.append(f"The letter names several currencies: {', '.join(foreign)}.")
    if letter.unread and not listed:
        count = len(letter.unread)
        sentences.append(
            f"Of {count} sentence{'s' if count > 1 else ''} nothing was read:"
            f" {'they are' if count > 1 else 'it is'} underlined in the letter."
        )
    return sentences


def _pieces(letter: Letter) -> list[MessagePiece]:
    """The letter cut at what was read; where readings overlap the first one is marked."""
    pieces, position = [], 0
    for reading in letter.readings:
        if reading.start < position:
            continue
        pieces += _plain(letter, position, reading.start)
        end = max(reading.end, reading.start)
        pieces.append(
            MessagePiece(letter.text[reading.start : end], _as(letter, reading), reading.sure)
        )
        position = end
    return [*pieces, *_plain(letter, position, len(letter.text))]


def _as(letter: Letter, reading: MessageReading) -> str:
    """All that was read at one place."""
    there = (
        other
        for other in letter.readings
        if other.start < reading.end and other.end > reading.start
    )
    return ", ".join(dict.fromkeys(WORDS[other.field] for other in there))


def _plain(letter: Letter, start: int, end: int) -> list[MessagePiece]:
    """A stretch without readings, with the sentences marked of which nothing was read."""
    pieces, position = [], start
    for first, last in letter.unread:
        if first >= start and last <= end:
            pieces += [
                MessagePiece(letter.text[position:first]),
                MessagePiece(letter.text[first:last], unread=True),
            ]
            position = last
    pieces.append(MessagePiece(letter.text[position:end]))
    return [piece for piece in pieces if piece.text]


def _figures(fields: dict[str, Any]) -> list[FigureRow]:
    return [
        FigureRow(
            name=name,
            label=label,
            value=plain(fields[name]) if isinstance(fields[name], float) else str(fields[name]),
            note=note,
        )
        for name, (label, note) in FIGURES.items()
        if name in fields
    ]


def _lists(fields: dict[str, Any]) -> list[tuple[str, str, str]]:
    """Field, value and words of each entry of a list."""
    words = {"work": "Other work: ", "buys": "Also to be bought: ", "no_makers": "Nothing of "}
    kinds = {str(kind): word for kind, word in KIND_NAMES.items()} | {"input": "keyboard and mouse"}
    return [
        (name, value, words[name] + kinds.get(value, value))
        for name in LISTS
        for value in fields.get(name, ())
    ]


def _game(catalogue: Catalogue, game: WantedGame) -> MessageGameRow:
    known = catalogue.game(game.game_id)
    return MessageGameRow(
        id=known.id,
        name=known.name,
        fps=plain(game.fps),
        preset=game.preset or "",
        rays=game.ray_tracing,
        offers_rays=known.ray_tracing_ms_per_mpx is not None,
    )
