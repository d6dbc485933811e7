"""Text copied from anywhere becomes a structured draft beside the text."""

import re
from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import NamedTuple

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.speeds.speed_scale import Scale, scale_of
from wattmetron.core.texts.requirements.cleanup import checked, plain
from wattmetron.core.texts.requirements.draft import Draft, Mark, ReadingError
from wattmetron.core.texts.requirements.flow import flow
from wattmetron.core.texts.requirements.layout import lay_out
from wattmetron.core.texts.requirements.mentions import Kind, PartFinder, mentions
from wattmetron.core.texts.requirements.name_matching import Name, NameIndex
from wattmetron.core.texts.requirements.pieces import Layout
from wattmetron.core.texts.requirements.plausible import plausibility
from wattmetron.core.texts.requirements.rewriting import rewritten
from wattmetron.core.texts.requirements.scratchpad import Scratchpad, Sheet
from wattmetron.core.texts.requirements.shortening import Shortened, shortened
from wattmetron.core.texts.requirements.values import LABELLED, Names, Values, any_of
from wattmetron.core.texts.requirements.vocabulary import EVERY
from wattmetron.core.values.parts import Graphics
from wattmetron.core.values.published import Tier

MAX_TIERS = 12
DOUBTED = 0.8
_STRUCTURE = {"tier": "tier", "label": "label", "title": "title", "layout": "layout"}


class _Reading(NamedTuple):
    """Tiers, marks and what is left of a text that was read in one way."""

    tiers: tuple[Tier, ...]
    marks: list[Mark]
    pad: Scratchpad


class Reader:
    """Reads texts against the names of a scale; systems, APIs and upscalers are recognised where
    they are known.

    ``systems`` are names without their versions: a version may follow in the text.
    """

    def __init__(
        self,
        scale: Scale,
        systems: Iterable[str] = (),
        apis: Iterable[str] = (),
        upscalers: Iterable[str] = (),
    ) -> None:
        self.names = Names(
            NameIndex(scale),
            any_of(systems, r"(?:[ ]+[\d.]+)?(?:[ ,]*\(?(?:32|64)[ -]?bits?\)?)?"),
            any_of({re.sub(r"[\s\d._]+\Z", "", api) for api in apis}, r"[ ]+\d+(?:[._]\d+)*"),
            any_of(upscalers),
        )
        index = self.names.parts
        self.finder = PartFinder(index.names)
        self.by_name: tuple[tuple[Kind, re.Pattern[str] | None], ...] = (
            ("system", self.names.systems),
            ("api", self.names.apis),
            ("conditions", self.names.upscalers),
        )
        by_side = {
            side: [name for name in index.names if name.side == side]
            for side in ("processor", "graphics")
        }
        self._named = [any_of(_models(names)) for names in by_side.values()]
        makers = {
            side: frozenset(word for name in names for word in name.maker)
            for side, names in by_side.items()
        }
        self.makers = {
            "Processor": makers["processor"] - makers["graphics"],
            "Graphics": makers["graphics"] - makers["processor"],
        }

    def names_both(self, text: str) -> bool:
        """Whether a stretch names a processor and a graphics part."""
        return all(pattern is not None and pattern.search(text) for pattern in self._named)

    def read(self, text: str) -> Draft:
        """The draft of a text; raises ReadingError for one that is empty, binary, too long or says
        nothing.
        """
        short = rewritten(shortened(plain(checked(text))), self.makers)
        best = self._best(short.text)
        if not best.tiers:
            raise ReadingError(
                "Nothing here reads as requirements: paste the lines that name processor, graphics"
                " and memory."
            )
        placed = [_placed(mark, short) for mark in best.marks]
        ordered = tuple(_apart(sorted(placed, key=lambda mark: (mark.start, mark.end))))
        unread = _beside_marks([short.span(*span) for span in best.pad.unread()], ordered)
        return Draft(text, best.tiers, ordered, unread)

    def _best(self, text: str) -> "_Reading":
        """By the layout of the text; by what it mentions where that accounts for more."""
        first = self._by(text, lay_out(text, self.names_both))
        mentioned = mentions(text, self.finder, self.by_name)
        stands = plausibility(first.tiers, first.marks, mentioned)
        if stands.clean:
            return first
        layout = flow(text, mentioned)
        best = first
        if layout is not None:
            second = self._by(text, layout)
            rivals = plausibility(second.tiers, second.marks, mentioned)
            if rivals.points > stands.points:
                best, stands = second, rivals
        return best if stands.clean else _doubted(best)

    def _by(self, text: str, layout: Layout) -> "_Reading":
        pad = Scratchpad(text)
        sheets = [Sheet(label[:80]) for label in layout.tiers[:MAX_TIERS]]
        self._structure(pad, layout)
        values = Values(pad, sheets, self.names)
        for piece in layout.pieces:
            if piece.tier < len(sheets):
                values.read(piece)
        return _Reading(*_filled(_shared(sheets), pad.marks), pad)

    @staticmethod
    def _structure(pad: Scratchpad, layout: Layout) -> None:
        for start, end, what, tier in layout.structure:
            if what in _STRUCTURE and (tier is None or tier < MAX_TIERS):
                pad.take(start, end, _STRUCTURE[what], tier, LABELLED)


def _doubted(reading: _Reading) -> _Reading:
    """A reading that does not account for all that its text mentions: no value of it is sure."""
    marks = [replace(mark, confidence=DOUBTED * mark.confidence) for mark in reading.marks]
    return reading._replace(marks=marks)


def _models(names: Iterable[Name]) -> Iterator[str]:
    """What names are called without their makers, as they are written."""
    for name in names:
        words = [word for word in name.text.split() if word.casefold() not in name.maker]
        if any(word.isalpha() and len(word) > 2 for word in words):
            yield " ".join(words)


def _apart(marks: Iterable[Mark]) -> Iterator[Mark]:
    """Marks that share a sign, where several words stand in the place of one: each sign once."""
    position = 0
    for mark in marks:
        start = max(position, mark.start)
        yield replace(mark, start=start, end=max(start, mark.end))
        position = max(position, mark.end)


def _beside_marks(
    spans: Iterable[tuple[int, int]], marks: Iterable[Mark]
) -> tuple[tuple[int, int], ...]:
    """Spans of the text that are unread, without what a mark covers: a word that was rewritten
    ("10 frames" as "10 fps") is read whole or not, wherever its pieces stood.
    """
    covered = {
        position for mark in marks for position in range(mark.start, max(mark.start, mark.end))
    }
    left: list[tuple[int, int]] = []
    for start, end in spans:
        for position in range(start, end):
            if position in covered:
                continue
            if left and left[-1][1] == position > start:
                left[-1] = (left[-1][0], position + 1)
            else:
                left.append((position, position + 1))
    return tuple(left)


def _placed(mark: Mark, short: Shortened) -> Mark:
    start, end = short.span(mark.start, mark.end)
    return replace(mark, start=start, end=end)


def _shared(sheets: list[Sheet]) -> list[Sheet]:
    """The sheets with what is said of every tier in each that does not say otherwise."""
    every = next((sheet for sheet in sheets if sheet.label == EVERY), None)
    if every is None:
        return sheets
    others = [sheet for sheet in sheets if sheet is not every and not sheet.empty]
    if not others:
        every.label = ""
        return sheets
    for sheet in others:
        for name, value in every.values.items():
            sheet.values.setdefault(name, value)
    every.values.clear()
    for listed in every.listed.values():
        listed.clear()
    return sheets


def _filled(sheets: list[Sheet], marks: list[Mark]) -> tuple[tuple[Tier, ...], list[Mark]]:
    """The tiers that say something, and the marks with their places."""
    position: dict[int, int] = {}
    tiers: list[Tier] = []
    for number, sheet in enumerate(sheets):
        if not sheet.empty:
            position[number] = len(tiers)
            tiers.append(sheet.tier())
    moved = [
        mark if mark.tier is None else replace(mark, tier=position.get(mark.tier)) for mark in marks
    ]
    return tuple(tiers), moved


_SYSTEM_NAME = re.compile(r"[\d(,]")


def reader_of(catalogue: Catalogue) -> Reader:
    """A reader that knows a catalogue's parts, and the systems, APIs and upscalers that occur in
    it.
    """
    return catalogue.keep.once(("reader",), lambda: _reader(catalogue))


def _reader(catalogue: Catalogue) -> Reader:
    systems = {
        _SYSTEM_NAME.split(tier.system)[0].strip()
        for published in catalogue.published.values()
        for tier in published.tiers
    }
    cards = catalogue.by_kind["graphics"]
    apis = {api for card in cards if isinstance(card, Graphics) for api in card.apis}
    upscalers = {name for game in catalogue.games.values() for name in game.upscalers}
    return Reader(scale_of(catalogue), systems, apis, upscalers)
