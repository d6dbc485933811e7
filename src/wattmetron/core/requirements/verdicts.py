"""Verdicts: how a machine stands against published tiers, aspect by aspect, over one game or all of
them.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from math import fsum
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.requirements.tiers import TierTable, tiers_of
from wattmetron.core.requirements.versions import Version, offered, version_of
from wattmetron.core.speeds.blend import graphics_ln, processor_ln
from wattmetron.core.values.parts import STORAGE_KINDS, StorageKind
from wattmetron.core.values.published import SIDES, Side, Tier

Floats = NDArray[np.float64]
Codes = NDArray[np.int8]
Aspect = Literal[
    "processor", "graphics", "video memory", "memory", "storage", "operating system", "graphics API"
]
ASPECTS: tuple[Aspect, ...] = (
    "processor",
    "graphics",
    "video memory",
    "memory",
    "storage",
    "operating system",
    "graphics API",
)
Word = Literal["short", "unsure", "not known", "meets", "not asked"]
WORDS: tuple[Word, ...] = ("short", "unsure", "not known", "meets", "not asked")
SHORT, UNSURE, UNKNOWN, MEETS, NOT_ASKED = range(5)
KEPT_FREE = 0.2
"""Share of a drive that stays free."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Contender:
    """What is measured against the tiers: a whole machine or loose parts; None is not known.

    Speeds are points: ``processor`` (S, T), ``graphics`` R at the three anchor resolutions;
    ``can_draw`` is false for a machine with nothing that draws.
    """

    processor: tuple[float, float] | None = None
    processor_name: str = ""
    processor_sd: float = 0.0
    graphics: tuple[float, float, float] | None = None
    graphics_name: str = ""
    graphics_sd: float = 0.0
    ray_speed: float | None = None
    video_memory_gb: float | None = None
    memory_gb: float | None = None
    storage_gb: float | None = None
    storage_kind: StorageKind | None = None
    system: str = ""
    apis: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class AspectVerdict:
    """One aspect of one tier: what is asked and had, the ratio of the two, the chance and the
    word.
    """

    aspect: Aspect
    word: Word
    ratio: float | None
    chance: float | None
    required: str
    had: str


@dataclass(frozen=True)
class Standings:
    """All rows of a table: codes into WORDS of shape (rows, aspects), ratios and chances likewise
    (nan: none).

    ``overall`` is the worst code of a row; what is not asked, and a system or API that is not
    known, do not count.
    """

    codes: Codes
    ratios: Floats
    chances: Floats
    overall: Codes


@dataclass(frozen=True, kw_only=True)
class TiersAsked:
    """What the rows of a table ask for, as arrays; computed once per table."""

    memory_gb: Floats
    video_memory_gb: Floats
    storage_gb: Floats
    storage_kind: NDArray[np.int64]
    systems: tuple[str, ...]
    apis: tuple[str, ...]
    names: Mapping[str, NDArray[np.int64]] = field(default_factory=dict)


def asked_of(table: TierTable) -> TiersAsked:
    """The amounts and names of all rows."""

    def amounts(name: str) -> Floats:
        return np.array(
            [np.nan if (value := getattr(row.tier, name)) is None else value for row in table.rows],
            dtype=float,
        )

    kinds = [
        -1 if row.tier.storage_kind is None else STORAGE_KINDS.index(row.tier.storage_kind)
        for row in table.rows
    ]
    texts = {name: [getattr(row.tier, name) for row in table.rows] for name in ("system", "api")}
    distinct = {name: tuple(dict.fromkeys(values)) for name, values in texts.items()}
    places = {name: {text: n for n, text in enumerate(distinct[name])} for name in texts}
    names = {
        name: np.array([places[name][text] for text in texts[name]], dtype=np.int64)
        for name in texts
    }
    return TiersAsked(
        memory_gb=amounts("memory_gb"),
        video_memory_gb=amounts("video_memory_gb"),
        storage_gb=amounts("storage_gb"),
        storage_kind=np.array(kinds, dtype=np.int64),
        systems=distinct["system"],
        apis=distinct["api"],
        names=names,
    )


def asked_amounts(catalogue: Catalogue) -> TiersAsked:
    """What all tiers of a catalogue ask for, as arrays."""
    return catalogue.keep.once(("asked",), lambda: asked_of(tiers_of(catalogue)))


def standings(
    table: TierTable, tiers_asked: TiersAsked, contender: Contender, sureness: float
) -> Standings:
    """Verdicts of one contender against every row: met where the chance is at least the sureness,
    short where it is below its complement, unsure between; amounts and names are met or short.
    """
    rows = len(table.rows)
    codes = np.full((rows, len(ASPECTS)), NOT_ASKED, dtype=np.int8)
    ratios, chances = np.full((rows, len(ASPECTS)), np.nan), np.full((rows, len(ASPECTS)), np.nan)
    for column, side in enumerate(SIDES):
        codes[:, column], ratios[:, column], chances[:, column] = _side(
            table, side, contender, sureness
        )
    for column, had, wanted in (
        (2, contender.video_memory_gb, tiers_asked.video_memory_gb),
        (3, contender.memory_gb, tiers_asked.memory_gb),
        (4, contender.storage_gb, tiers_asked.storage_gb),
    ):
        codes[:, column], ratios[:, column] = _amount(had, wanted)
    slower = _slower_kind(contender, tiers_asked.storage_kind)
    codes[slower, 4], ratios[slower, 4] = SHORT, np.nan
    codes[:, 5] = _named(
        tiers_asked.systems,
        tiers_asked.names["system"],
        (contender.system,) if contender.system else (),
    )
    codes[:, 6] = _named(tiers_asked.apis, tiers_asked.names["api"], contender.apis)
    judged = codes.copy()
    judged[:, 5:][judged[:, 5:] == UNKNOWN] = NOT_ASKED
    return Standings(
        codes, ratios, chances, judged.min(axis=1) if rows else np.empty(0, dtype=np.int8)
    )


def _side(
    table: TierTable, side: Side, contender: Contender, sureness: float
) -> tuple[Codes, Floats, Floats]:
    bars = table.sides[side]
    speeds, sd = _speeds(table, side, contender)
    has_bar = np.isfinite(bars.bar)
    codes = np.where(has_bar, UNKNOWN, NOT_ASKED).astype(np.int8)
    listed = np.zeros(len(table.rows), dtype=bool)
    listed[np.unique(bars.row)] = True
    codes[listed & ~has_bar] = UNKNOWN
    if speeds is None:
        return codes, np.full(len(table.rows), np.nan), np.full(len(table.rows), np.nan)
    away = speeds - bars.bar
    with np.errstate(invalid="ignore", over="ignore"):
        chance = np.where(has_bar, ndtr(away / np.maximum(np.hypot(sd, bars.bar_sd), 1e-9)), np.nan)
        ratio = np.where(has_bar, np.exp(away), np.nan)
    codes[has_bar] = np.where(
        chance[has_bar] >= sureness, MEETS, np.where(chance[has_bar] < 1 - sureness, SHORT, UNSURE)
    )
    return codes, ratio, chance


def _speeds(table: TierTable, side: Side, contender: Contender) -> tuple[Floats | None, float]:
    rows = len(table.rows)
    if side == "processor":
        if contender.processor is None:
            return None, 0.0
        return (
            processor_ln(contender.processor[0], contender.processor[1], table.parallel_share),
            contender.processor_sd,
        )
    if contender.graphics is None:
        return None, 0.0
    anchors = np.broadcast_to(np.array(contender.graphics, dtype=float), (rows, 3))
    ray = np.full(rows, np.nan if contender.ray_speed is None else contender.ray_speed)
    return graphics_ln(anchors, ray, table.rendered_mpx, table.ray_share), contender.graphics_sd


def _amount(had: float | None, wanted: Floats) -> tuple[Codes, Floats]:
    has_bar = np.isfinite(wanted)
    if had is None:
        return np.where(has_bar, UNKNOWN, NOT_ASKED).astype(np.int8), np.full(wanted.size, np.nan)
    with np.errstate(invalid="ignore"):
        codes = np.where(has_bar, np.where(had >= wanted, MEETS, SHORT), NOT_ASKED)
        return codes.astype(np.int8), had / wanted


def _slower_kind(contender: Contender, wanted: NDArray[np.int64]) -> NDArray[np.bool_]:
    """Where a slower kind of storage is had than is asked for: that is short, whatever its size."""
    if contender.storage_kind is None:
        return np.zeros(wanted.size, dtype=bool)
    return wanted > STORAGE_KINDS.index(contender.storage_kind)


def _named(texts: tuple[str, ...], index: NDArray[np.int64], had: tuple[str, ...]) -> Codes:
    versions = [version_of(name) for name in had]
    codes = np.array([_name_code(text, versions) for text in texts] or [NOT_ASKED], dtype=np.int8)
    return codes[index] if index.size else np.empty(0, dtype=np.int8)


def _name_code(wanted: str, had: list[Version]) -> int:
    if not wanted:
        return NOT_ASKED
    enough = offered(version_of(wanted), had)
    if enough is None:
        return UNKNOWN
    if enough:
        return MEETS
    return SHORT


@dataclass(frozen=True, slots=True)
class TierVerdict:
    """One tier: its word and its aspects, the one that is shortest first."""

    row: int
    tier: Tier
    word: Word
    aspects: tuple[AspectVerdict, ...]

    @property
    def shortest(self) -> AspectVerdict | None:
        """The aspect that is short or unsure by most, if any."""
        first = self.aspects[0] if self.aspects else None
        return first if first is not None and first.word in ("short", "unsure") else None


def tier_verdicts(
    table: TierTable, standings: Standings, contender: Contender, game_id: str
) -> tuple[TierVerdict, ...]:
    """The verdicts of a game's tiers in words and figures."""
    return tuple(_tier_verdict(table, standings, contender, row) for row in table.of_game(game_id))


def _tier_verdict(
    table: TierTable, standings: Standings, contender: Contender, row: int
) -> TierVerdict:
    tier = table.rows[row].tier
    aspects = []
    for column, aspect in enumerate(ASPECTS):
        code = int(standings.codes[row, column])
        if code == NOT_ASKED:
            continue
        ratio, chance = float(standings.ratios[row, column]), float(standings.chances[row, column])
        aspects.append(
            AspectVerdict(
                aspect=aspect,
                word=WORDS[code],
                ratio=None if np.isnan(ratio) else ratio,
                chance=None if np.isnan(chance) else chance,
                required=_asked_words(tier, aspect),
                had=_had_words(contender, aspect),
            )
        )
    aspects.sort(
        key=lambda each: (WORDS.index(each.word), np.inf if each.ratio is None else each.ratio)
    )
    return TierVerdict(row, tier, WORDS[int(standings.overall[row])], tuple(aspects))


def _asked_words(tier: Tier, aspect: Aspect) -> str:
    match aspect:
        case "processor":
            return " or ".join(processor.text for processor in tier.processors)
        case "graphics":
            return " or ".join(graphic.text for graphic in tier.graphics)
        case "video memory":
            return _gb(tier.video_memory_gb)
        case "memory":
            return _gb(tier.memory_gb)
        case "storage":
            return " ".join(filter(None, [_gb(tier.storage_gb), tier.storage_kind or ""]))
        case "operating system":
            return tier.system
        case "graphics API":
            return tier.api


def _had_words(contender: Contender, aspect: Aspect) -> str:
    match aspect:
        case "processor":
            return contender.processor_name
        case "graphics":
            return contender.graphics_name
        case "video memory":
            return _gb(contender.video_memory_gb)
        case "memory":
            return _gb(contender.memory_gb)
        case "storage":
            return " ".join(filter(None, [_gb(contender.storage_gb), contender.storage_kind or ""]))
        case "operating system":
            return contender.system
        case "graphics API":
            return ", ".join(contender.apis)


def _gb(amount: float | None) -> str:
    return "" if amount is None else f"{amount:,g}\u202fGB"


def highest_met(table: TierTable, standings: Standings, game_id: str) -> int | None:
    """The row of the highest tier of a game that is met, with none below it short or unsure; None
    where none is. What is not known never counts as met.
    """
    best = None
    for row in table.of_game(game_id):
        if standings.overall[row] in (SHORT, UNSURE):
            break
        if standings.overall[row] != UNKNOWN:
            best = row
    return best


def storage_needed_gb(amounts_gb: list[float]) -> float:
    """Storage for all of these together with a fifth kept free."""
    return fsum(amounts_gb) / (1 - KEPT_FREE)
