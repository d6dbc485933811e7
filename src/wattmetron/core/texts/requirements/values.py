"""Values of a piece: amounts, conditions, systems, APIs and named parts."""

import re
from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.texts.requirements.draft import Match
from wattmetron.core.texts.requirements.name_matching import PLACED_FROM, NameIndex, tokens
from wattmetron.core.texts.requirements.pieces import Piece
from wattmetron.core.texts.requirements.scratchpad import Scratchpad, Sheet
from wattmetron.core.texts.requirements.vocabulary import GLUE, LABELS, NAME_GLUE, OR_BETTER
from wattmetron.core.values import amounts
from wattmetron.core.values.published import Listed, Side

LABELLED, BY_CONTENT, GUESSED, DOUBTFUL = 0.97, 0.9, 0.6, 0.4
_ALTERNATIVES = re.compile(
    r"(?<!\s)\s+(?:or|and)\s+|(?:(?<!\s)\s+)?[/|;*\n]\s*|,(?!\d)|,(?=\s)", re.IGNORECASE
)
_CHUNKS = re.compile(
    r"(?<!\s)\s+(?:(?:or|and)\s+(?:an?\s+)?|together with\s+)|[;|*\n]|\s/\s"
    r"|(?<=[a-z\d)])/(?=[A-Za-z])|,(?!\d)|,(?=\s)|\s-\s|\.(?=\s|\Z)",
    re.IGNORECASE,
)
_VIDEO = re.compile(
    r"\b(?:vram|video[ ]+(?:memory|ram)|graphics[ ]+memory|gddr\d?)\b", re.IGNORECASE
)
_MEMORY = re.compile(r"\b(?:ram|memory|ddr\d)\b", re.IGNORECASE)
_STORAGE = re.compile(
    r"\b(?:storage|disk|disc|drive|space|hdd|ssd|nvme|install(?:ation)?|free|available)\b",
    re.IGNORECASE,
)
_SERIES = re.compile(r"\bversion[ ]+", re.IGNORECASE)
_FIGURES = (amounts.THREADS, amounts.CORES, amounts.TIMES_CLOCK, amounts.CLOCK)
_CONTENT = re.compile(r"[^\W_]+")


_REMARK = re.compile(
    r"\((?=[^()\n]*[^\W\d_]{2,}[ ]+[^\W_][\w.]*[ ]+[^\W_])[^()\n]{8,160}\)", re.IGNORECASE
)
_SAYS_MUCH = re.compile(
    r"\d[ ]?(?:fps|hz|p\b|x[ ]?\d|ghz|mhz)|\bcores?\b[ ]*[,)]|\b(?:settings?|preset|vram|video|ssd"
    r"|nvme|equivalent|better|minimum|recommended|ray)\b",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class Names:
    """What a reader can recognise by name: parts, operating systems, graphics APIs, upscalers."""

    parts: NameIndex
    systems: re.Pattern[str] | None
    apis: re.Pattern[str] | None
    upscalers: re.Pattern[str] | None


def any_of(words: Iterable[str], tail: str = "") -> re.Pattern[str] | None:
    """A pattern for any of these names, the longest first."""
    ordered = sorted({word for word in words if word}, key=len, reverse=True)
    if not ordered:
        return None
    return re.compile(rf"\b(?:{'|'.join(map(re.escape, ordered))}){tail}", re.IGNORECASE)


class Values:
    """Reads pieces into their tiers' sheets."""

    def __init__(self, pad: Scratchpad, sheets: list[Sheet], names: Names) -> None:
        self.pad, self.sheets, self.names = pad, sheets, names

    def read(self, piece: Piece) -> None:
        if piece.field in ("processor", "graphics", "memory", "storage"):
            self._remarks(piece)
        match piece.field:
            case "processor" | "graphics":
                self._parts(piece, piece.field)
            case "memory":
                self._amount(piece, "memory_gb", "memory")
            case "video memory":
                self._amount(piece, "video_memory_gb", "video memory")
            case "storage":
                self._storage(piece)
            case "system":
                self._text(piece, "system", "operating system")
            case "api":
                self._text(piece, "api", "graphics API")
            case "conditions" | "resolution" | "preset" | "frame rate":
                self._conditions(piece, True)
            case "notes":
                self._notes(piece)
            case None:
                if piece.label:
                    self._notes(piece)
                else:
                    self._anything(piece)

    # --- setting
    # ------------------------------------------------------------------------------------

    def _set(
        self, tier: int, name: str, value: Any, start: int, end: int, what: str, confidence: float
    ) -> None:
        """A value of a tier; the first counts, another one is marked as contradicting it."""
        values = self.sheets[tier].values
        if name in values and values[name] != value:
            self.pad.take(start, end, f"{what}, contradicts {values[name]}", tier, DOUBTFUL)
            return
        values[name] = value
        self.pad.take(start, end, what, tier, confidence)

    def _matches(
        self, pattern: re.Pattern[str] | None, start: int, end: int
    ) -> list[tuple[re.Match[str], int, int]]:
        """Matches in what is left of a stretch, with their places in the text."""
        if pattern is None:
            return []
        return [
            (match, start + match.start(), start + match.end())
            for match in pattern.finditer(self.pad.left(start, end))
        ]

    def _amount(self, piece: Piece, name: str, what: str) -> None:
        hits = self._matches(amounts.AMOUNT, piece.start, piece.end)
        for match, start, end in hits:
            confidence = LABELLED if len(hits) == 1 else GUESSED
            self._set(piece.tier, name, amounts.gigabytes(match), start, end, what, confidence)

    def _storage(self, piece: Piece) -> None:
        for match, start, end in self._matches(amounts.AMOUNT, piece.start, piece.end)[:1]:
            self._set(
                piece.tier,
                "storage_gb",
                amounts.gigabytes(match, "storage"),
                start,
                end,
                "storage",
                LABELLED,
            )
        self._kind(piece.tier, piece.start, piece.end)
        label = amounts.KIND.fullmatch(piece.label.strip())
        if label and label[0].casefold() in ("hdd", "ssd", "nvme"):
            self.sheets[piece.tier].values.setdefault("storage_kind", amounts.storage_kind(label))

    def _kind(self, tier: int, start: int, end: int) -> None:
        for match, first, last in self._matches(amounts.KIND, start, end)[:1]:
            self._set(
                tier,
                "storage_kind",
                amounts.storage_kind(match),
                first,
                last,
                "kind of storage",
                BY_CONTENT,
            )

    def _text(self, piece: Piece, name: str, what: str) -> None:
        left = self.pad.left(piece.start, piece.end)
        value = _SERIES.sub("", left.strip(" \t\n;,.*:"), count=1).strip()
        if value and name == "api" and piece.label.casefold() not in LABELS:
            value = f"{piece.label.strip()} {value}"
        if value:
            self._set(
                piece.tier,
                name,
                " ".join(value.split())[:120],
                piece.start,
                piece.end,
                what,
                LABELLED,
            )

    def _known_text(
        self, tier: int, start: int, end: int, pattern: re.Pattern[str] | None, name: str, what: str
    ) -> None:
        """A system or API that is recognised by its name."""
        for _, first, last in self._matches(pattern, start, end)[:1]:
            self._set(
                tier,
                name,
                " ".join(self.pad.text[first:last].split()),
                first,
                last,
                what,
                BY_CONTENT,
            )

    def _remarks(self, piece: Piece) -> None:
        """A remark in brackets is no part of a name; what holds figures of the tier stays."""
        for match, start, end in self._matches(_REMARK, piece.start, piece.end):
            if not _SAYS_MUCH.search(match[0]):
                self._note(piece.tier, match[0][1:-1].strip())
                self.pad.take(start, end, "notes", piece.tier, BY_CONTENT)

    def _note(self, tier: int, sentence: str) -> None:
        values = self.sheets[tier].values
        values["notes"] = "; ".join(filter(None, [values.get("notes", ""), sentence]))[:600]

    def _notes(self, piece: Piece) -> None:
        self._conditions(piece, True)
        left = " ".join(self.pad.left(piece.start, piece.end).split()).strip(" ,;.*|")
        if not any(word.casefold() not in GLUE for word in _CONTENT.findall(left)):
            return
        sentence = " ".join(self.pad.text[piece.start : piece.end].split()).strip(" ,;.*|")
        if piece.label and LABELS.get(piece.label.casefold()) is None:
            sentence = f"{piece.label}: {sentence}"
        self._note(piece.tier, sentence)
        self.pad.take_left(piece.start, piece.end, "notes", piece.tier, BY_CONTENT)

    # --- conditions
    # ---------------------------------------------------------------------------------

    def _conditions(self, piece: Piece, labelled: bool) -> None:
        """Resolution, frame rate, ray tracing, upscaling and preset; a bare preset word counts only
        here.
        """
        start, end, tier = piece.start, piece.end, piece.tier
        sure = LABELLED if labelled else BY_CONTENT
        stated = False
        for pattern in (amounts.SIZE, amounts.LINES, amounts.NAMED_SIZE):
            for match, first, last in self._matches(pattern, start, end):
                width, height = amounts.pixels(match)
                if 320 <= width <= 16_384 and 320 <= height <= 16_384:
                    self._set(tier, "width_px", width, first, first, "resolution", sure)
                    self._set(tier, "height_px", height, first, last, "resolution", sure)
                    stated = True
        for match, first, last in self._matches(amounts.FPS, start, end):
            self._set(tier, "fps", float(match[1] or match[2]), first, last, "frame rate", sure)
            stated = True
        if piece.field == "frame rate":
            for match, first, last in self._matches(re.compile(r"\b\d{2,3}\b"), start, end)[:1]:
                self._set(tier, "fps", float(match[0]), first, last, "frame rate", sure)
        self._switches(tier, start, end, sure)
        self._preset(tier, start, end, amounts.PRESET, sure)
        if stated or labelled:
            self._preset(tier, start, end, amounts.BARE_PRESET, sure if labelled else BY_CONTENT)

    def _switches(self, tier: int, start: int, end: int, sure: float) -> None:
        for match, first, last in self._matches(amounts.RAYS, start, end):
            self._set(
                tier, "ray_tracing", amounts.switched_on(match), first, last, "ray tracing", sure
            )
        for match, first, last in self._matches(amounts.GENERATED, start, end):
            self._set(
                tier, "generated", amounts.switched_on(match), first, last, "generated frames", sure
            )
        for match, first, last in self._matches(amounts.UPSCALING, start, end):
            self._set(tier, "upscaling", amounts.switched_on(match), first, last, "upscaling", sure)
        for _, first, last in self._matches(self.names.upscalers, start, end):
            off = re.match(r"\s*(?:off|disabled)", self.pad.text[last:]) is not None
            self._set(tier, "upscaling", not off, first, last, "upscaling", sure)

    def _preset(
        self, tier: int, start: int, end: int, pattern: re.Pattern[str], sure: float
    ) -> None:
        for match, first, last in self._matches(pattern, start, end)[:1]:
            word = next(group for group in match.groups() if group).casefold()
            if "preset" not in self.sheets[tier].values:
                self._set(tier, "preset", amounts.PRESET_WORDS[word], first, last, "preset", sure)

    # --- parts
    # --------------------------------------------------------------------------------------

    def _parts(self, piece: Piece, side: Side) -> None:
        better = bool(OR_BETTER.search(self.pad.left(piece.start, piece.end)))
        self._blank_better(piece)
        if side == "graphics":
            self._known_text(
                piece.tier, piece.start, piece.end, self.names.apis, "api", "graphics API"
            )
        for start, end in _split(
            self.pad.text, self.pad.left(piece.start, piece.end), piece.start, _ALTERNATIVES
        ):
            self._alternative(piece.tier, side, start, end, better)

    def _blank_better(self, piece: Piece) -> None:
        for _, start, end in self._matches(OR_BETTER, piece.start, piece.end):
            self.pad.take(start, end, "or better", piece.tier, LABELLED)

    def _alternative(self, tier: int, side: Side, start: int, end: int, better: bool) -> None:
        """One alternative: a name with its figures, or figures alone, which belong to the name
        before.
        """
        listed = self.sheets[tier].listed[side]
        figures = self._figures(start, end)
        amount = self._matches(amounts.AMOUNT, start, end)
        video = bool(_VIDEO.search(self.pad.left(start, end)))
        name, first, last = self._name(start, end)
        if name:
            matches = self.names.parts.match(name, side)
            part = matches[0].part if matches and matches[0].confidence >= PLACED_FROM else None
            memory = amounts.gigabytes(amount[0][0]) if amount and side == "graphics" else None
            memory = memory if memory is not None else self._amount_in_name(name, part)
            self.pad.take_part(first, last, tier, side, len(listed), matches, _why(part, matches))
            listed.append(
                Listed(text=name, part=part, memory_gb=memory, or_better=better, **figures)
            )
            for _, a, b in amount[:1] if side == "graphics" else ():
                self.pad.take(a, b, "video memory of this part", tier, LABELLED)
        elif figures and not amount:
            self._figures_alone(listed, tier, side, start, end, figures)
        elif amount and side == "graphics":
            self._memory_alone(listed, tier, amount[0], video)
        self.pad.blank(*(start, end) if name or figures or amount else (start, start))

    def _figures(self, start: int, end: int) -> dict[str, Any]:
        """Cores and clock of a stretch, blanked out."""
        figures: dict[str, Any] = {}
        for match, first, last in self._matches(amounts.CORES, start, end)[:1]:
            figures["cores"] = amounts.core_count(match)
            self.pad.take(first, last, "cores: kept, no speed follows", None, LABELLED)
        for match, first, last in self._matches(amounts.CLOCK, start, end)[:1]:
            figures["clock_ghz"] = amounts.gigahertz(match)
            self.pad.take(first, last, "clock: kept, no speed follows", None, LABELLED)
        for pattern in (amounts.THREADS, amounts.TIMES_CLOCK):
            for _, first, last in self._matches(pattern, start, end):
                self.pad.blank(first, last)
        return figures

    def _name(self, start: int, end: int) -> tuple[str, int, int]:
        """What is left of an alternative without amounts and glue, and where it stands."""
        left = self.pad.left(start, end)
        for match in (*amounts.AMOUNT.finditer(left), *_VIDEO.finditer(left)):
            left = left[: match.start()] + " " * (match.end() - match.start()) + left[match.end() :]
        words = [
            match
            for match in re.finditer(r"[^\s()\[\]@,;:.*|&+\-]+", left)
            if self._counts(match[0])
        ]
        if not words or not any(any(sign.isalpha() for sign in word[0]) for word in words):
            return "", start, start
        text = " ".join(word[0] for word in words)
        return text[:120], start + words[0].start(), start + words[-1].end()

    def _counts(self, word: str) -> bool:
        """Whether a word is part of a name: no glue, unless some part is called so."""
        return word.casefold() not in NAME_GLUE or all(
            token in self.names.parts.count for token in tokens(word)
        )

    def _amount_in_name(self, name: str, part: str | None) -> float | None:
        """A number at the end of a chip's name that is one of its amounts of video memory."""
        known = next(
            (
                each_name
                for each_name in self.names.parts.names
                if each_name.key == part and each_name.side == "graphics"
            ),
            None,
        )
        if known is None:
            return None
        extra = [word for word in tokens(name) if word.isdecimal() and word not in known.words]
        return float(extra[0]) if len(extra) == 1 and int(extra[0]) in known.amounts_gb else None

    def _figures_alone(
        self,
        listed: list[Listed],
        tier: int,
        side: Side,
        start: int,
        end: int,
        figures: dict[str, Any],
    ) -> None:
        if listed:
            readings = {
                name: value for name, value in figures.items() if getattr(listed[-1], name) is None
            }
            if listed[-1].figures_only and readings:
                more = " ".join(self.pad.text[start:end].split()).strip(" ,;.()")
                readings["text"] = f"{listed[-1].text}, {more}"[:120]
            listed[-1] = replace(listed[-1], **readings)
            return
        text = " ".join(self.pad.text[start:end].split()).strip(" ,;.()")
        listed.append(Listed(text=text, **figures))

    def _memory_alone(
        self, listed: list[Listed], tier: int, amount: tuple[re.Match[str], int, int], video: bool
    ) -> None:
        value = amounts.gigabytes(amount[0])
        if listed and listed[-1].memory_gb is None and not video:
            listed[-1] = replace(listed[-1], memory_gb=value)
            self.pad.take(amount[1], amount[2], "video memory of this part", tier, BY_CONTENT)
        else:
            self._set(
                tier,
                "video_memory_gb",
                value,
                amount[1],
                amount[2],
                "video memory",
                LABELLED if video else GUESSED,
            )

    # --- without a label
    # ----------------------------------------------------------------------------

    def _anything(self, piece: Piece) -> None:
        """A piece without a label, chunk by chunk, by what each looks like."""
        better = bool(OR_BETTER.search(self.pad.left(piece.start, piece.end)))
        self._blank_better(piece)
        for start, end in _split(
            self.pad.text, self.pad.left(piece.start, piece.end), piece.start, _CHUNKS
        ):
            self._named(piece.tier, start, end, better)
        self._conditions(piece, False)
        for start, end in _split(
            self.pad.text, self.pad.left(piece.start, piece.end), piece.start, _CHUNKS
        ):
            self._loose_amount(piece.tier, start, end)
            self._kind(piece.tier, start, end)

    def _named(self, tier: int, start: int, end: int, better: bool) -> None:
        """Systems, APIs and parts of a chunk."""
        self._known_text(tier, start, end, self.names.systems, "system", "operating system")
        self._known_text(tier, start, end, self.names.apis, "api", "graphics API")
        figures_text = self.pad.left(start, end)
        window = self._window(start, end)
        if window is None:
            if any(pattern.search(figures_text) for pattern in (amounts.CORES, amounts.CLOCK)):
                figures = self._figures(start, end)
                self._figures_alone(
                    self.sheets[tier].listed["processor"], tier, "processor", start, end, figures
                )
            return
        first, last, side = window
        figures = self._figures(start, end)
        name = " ".join(self.pad.text[first:last].split())
        matches = self.names.parts.match(name, side)
        part = matches[0].part if matches and matches[0].confidence >= PLACED_FROM else None
        listed = self.sheets[tier].listed[side]
        memory = None
        if side == "graphics":
            for match, a, b in self._matches(amounts.AMOUNT, start, end)[:1]:
                memory = amounts.gigabytes(match)
                self.pad.take(a, b, "video memory of this part", tier, BY_CONTENT)
        self.pad.take_part(first, last, tier, side, len(listed), matches, _why(part, matches))
        listed.append(Listed(text=name, part=part, memory_gb=memory, or_better=better, **figures))

    def _window(self, start: int, end: int) -> tuple[int, int, Side] | None:
        """From the first to the last word of a chunk that some name has, numbers among them
        included.
        """
        left = self.pad.left(start, end)
        for word in (
            *amounts.AMOUNT.finditer(left),
            *amounts.CLOCK.finditer(left),
            *amounts.CORES.finditer(left),
        ):
            left = left[: word.start()] + " " * (word.end() - word.start()) + left[word.end() :]
        words = list(re.finditer(r"[^\W_]+", left))
        index = self.names.parts
        known = [
            word
            for word in words
            if not word[0].isdecimal()
            and len(word[0]) > 2
            and index.known(word[0].casefold())
            and self._telling(word[0].casefold())
        ]
        if not known:
            return None
        first = known[0]
        last = [
            match
            for match in known
            if not self._read_between(start + first.start(), start + match.start())
        ][-1]
        for word in words:
            if (
                word.start() >= last.end()
                and not left[last.end() : word.start()].strip()
                and self._continues(word[0])
            ):
                last = word
        name = left[first.start() : last.end()]
        best = index.match(name, None)
        if not best:
            return None
        side: Side = next(
            each_name.side for each_name in index.names if each_name.key == best[0].part
        )
        return start + first.start(), start + last.end(), side

    def _read_between(self, start: int, end: int) -> bool:
        """Whether something between two places was read already: a name does not reach over it."""
        return self.pad.left(start, end) != self.pad.text[start:end]

    def _telling(self, word: str) -> bool:
        """Whether a word tells that a part is meant: a preset word or glue alone does not."""
        return word not in GLUE and word not in amounts.PRESET_WORDS

    def _continues(self, word: str) -> bool:
        small = word.casefold()
        if small.isdecimal():
            return True
        return small in self.names.parts.count or (
            small not in NAME_GLUE and small not in amounts.PRESET_WORDS
        )

    def _loose_amount(self, tier: int, start: int, end: int) -> None:
        values, around = self.sheets[tier].values, self.pad.text[start:end]
        video, memory, storage = (
            bool(words.search(around)) for words in (_VIDEO, _MEMORY, _STORAGE)
        )
        for match, first, last in self._matches(amounts.AMOUNT, start, end):
            if video:
                name, what, sure = "video_memory_gb", "video memory", BY_CONTENT
            elif storage:
                name, what, sure = "storage_gb", "storage", BY_CONTENT
            elif memory:
                name, what, sure = "memory_gb", "memory", BY_CONTENT
            elif "memory_gb" not in values:
                name, what, sure = "memory_gb", "memory", GUESSED
            elif "storage_gb" not in values:
                name, what, sure = "storage_gb", "storage", GUESSED
            else:
                return
            unit: amounts.Unit = "storage" if what == "storage" else "memory"
            self._set(tier, name, amounts.gigabytes(match, unit), first, last, what, sure)


def _why(part: str | None, matches: tuple[Match, ...]) -> str:
    """One sentence about a match that is not sure."""
    if part is None:
        return "No part of the catalogue is called so: it stays as named until you place it."
    equals = [match for match in matches if matches[0].confidence - match.confidence < 0.02]
    if len(equals) > 1:
        return f"{len(equals)} parts answer to this name equally well: choose one."
    if matches[0].confidence < 0.9:
        return "Part of the name is missing or misspelt: check the match."
    return ""


def _split(text: str, left: str, offset: int, pattern: re.Pattern[str]) -> list[tuple[int, int]]:
    """Spans between separators that stand outside brackets."""
    spans, position = [], 0
    for match in pattern.finditer(left):
        before = left[: match.start()]
        if before.count("(") > before.count(")"):
            continue
        spans.append((position, match.start()))
        position = match.end()
    spans.append((position, len(left)))
    return [
        (offset + start, offset + end) for start, end in spans if left[start:end].strip(" ()[]")
    ]
