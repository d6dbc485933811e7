"""Paste and read: the marked text beside the draft, every field open to correction."""

from dataclasses import dataclass, field

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.texts.requirements.draft import Draft, Mark, PartMark
from wattmetron.core.values.published import SIDES, Listed, Published, Side, Tier
from wattmetron.words.figures import percent
from wattmetron.words.tier_words import tier_label

NOTHING_PLACED = "Nothing of the catalogue: it stays as named"


@dataclass(frozen=True, slots=True)
class Fragment:
    """A stretch of the text: what it was taken for, in a tier, how surely; nothing for plain
    text.
    """

    text: str
    kind: str
    title: str


@dataclass(frozen=True, slots=True)
class PartChoice:
    """A part that a name may mean."""

    key: str
    name: str
    confidence: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ListedField:
    """The fields of one listed part."""

    prefix: str
    side: Side
    listed: Listed
    choices: tuple[PartChoice, ...]
    confidence: str
    doubtful: bool
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class TierFields:
    """The fields of one tier."""

    prefix: str
    label: str
    tier: Tier
    parts: tuple[tuple[Side, tuple[ListedField, ...], str], ...]
    confidences: dict[str, str]


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadingPage:
    """The page: for a game of the catalogue or a new one; with a draft once something was read."""

    game_id: str
    game_name: str
    genre: str
    genres: tuple[str, ...]
    text: str
    source: str
    published_on: str
    version: int
    brief: str
    as_target: bool = False
    fragments: tuple[Fragment, ...] = ()
    unread: tuple[str, ...] = ()
    tiers: tuple[TierFields, ...] = ()
    error: str = ""
    typed: dict[str, str] = field(default_factory=dict)

    @property
    def base(self) -> str:
        return f"/games/{self.game_id}" if self.game_id else "/games"

    def value(self, name: str, actual: object) -> str:
        """What was typed into a field, else what it holds."""
        if name in self.typed:
            return self.typed[name]
        if actual is None:
            return ""
        if isinstance(actual, float):
            return f"{actual:g}"
        return str(actual)

    def ticked(self, name: str, actual: bool) -> bool:
        return (name in self.typed) if self.typed else actual


_KINDS = {
    "processor": "processor",
    "clock: kept, no speed follows": "processor",
    "cores: kept, no speed follows": "processor",
    "graphics": "graphics",
    "video memory": "graphics",
    "video memory of this part": "graphics",
    "label": "structure",
    "tier": "tier",
    "title": "structure",
    "layout": "structure",
}


def fragments(draft: Draft) -> tuple[Fragment, ...]:
    """The text cut into marked and plain stretches; unread ones are marked as such."""
    marks = [(mark.start, mark.end, _kind(mark), _title(mark, draft)) for mark in draft.marks]
    marks += [
        (start, end, "unread", "not read: nothing was made of this") for start, end in draft.unread
    ]
    fragments, position = [], 0
    for start, end, kind, title in sorted(marks):
        if start < position or start == end:
            continue
        if start > position:
            fragments.append(Fragment(draft.text[position:start], "", ""))
        fragments.append(Fragment(draft.text[start:end], kind, title))
        position = end
    fragments.append(Fragment(draft.text[position:], "", ""))
    return tuple(fragments)


def _kind(mark: Mark) -> str:
    if "contradicts" in mark.what:
        return "unread"
    return _KINDS.get(mark.what, "value")


def _title(mark: Mark, draft: Draft) -> str:
    tier = "" if mark.tier is None else f", {tier_label(draft.tiers[mark.tier].label, mark.tier)}"
    matched = ""
    if isinstance(mark, PartMark):
        best = mark.matches[0] if mark.matches else None
        placed = (
            draft.tiers[mark.tier].listed(mark.side)[mark.position].part
            if mark.tier is not None
            else None
        )
        matched = (
            f", matched to {best.name}" if best is not None and placed else ", not in the catalogue"
        )
    return f"taken for {mark.what}{tier}{matched}, {percent(mark.confidence)} sure"


def draft_tiers(draft: Draft, catalogue: Catalogue) -> tuple[TierFields, ...]:
    """The fields of a draft."""
    return tuple(_fields(tier, n, catalogue, draft) for n, tier in enumerate(draft.tiers))


def stored_tiers(published: Published, catalogue: Catalogue) -> tuple[TierFields, ...]:
    """The fields of what is stored."""
    return tuple(_fields(tier, n, catalogue, None) for n, tier in enumerate(published.tiers))


_FIELD_MARKS = {
    "memory": "memory_gb",
    "video memory": "video_memory_gb",
    "storage": "storage_gb",
    "kind of storage": "storage_kind",
    "operating system": "system",
    "graphics API": "api",
    "resolution": "size",
    "preset": "preset",
    "frame rate": "fps",
}


def _fields(tier: Tier, n: int, catalogue: Catalogue, draft: Draft | None) -> TierFields:
    prefix = f"t{n}."
    parts: list[tuple[Side, tuple[ListedField, ...], str]] = []
    for side in SIDES:
        listed = tier.listed(side)
        listed_fields = tuple(
            _listed(prefix, side, m, each_listed, catalogue, draft, n)
            for m, each_listed in enumerate(listed)
        )
        parts.append((side, listed_fields, f"{prefix}{side}.{len(listed)}."))
    confidences: dict[str, str] = {}
    for mark in draft.marks if draft else ():
        if mark.tier == n and mark.what in _FIELD_MARKS and mark.confidence < 0.85:
            confidences[_FIELD_MARKS[mark.what]] = percent(mark.confidence)
    return TierFields(
        prefix=prefix,
        label=tier_label(tier.label, n),
        tier=tier,
        parts=tuple(parts),
        confidences=confidences,
    )


def _listed(
    prefix: str,
    side: Side,
    m: int,
    listed: Listed,
    catalogue: Catalogue,
    draft: Draft | None,
    n: int,
) -> ListedField:
    mark = draft.part_mark(n, side, m) if draft else None
    matches = mark.matches if mark else ()
    choices = [PartChoice(match.part, match.name, percent(match.confidence)) for match in matches]
    if listed.part and all(choice.key != listed.part for choice in choices):
        standing = scale_of(catalogue).standing(listed.part)
        choices.insert(0, PartChoice(listed.part, standing.name if standing else listed.part, ""))
    doubtful = (
        mark is not None
        and not listed.figures_only
        and (listed.part is None or mark.confidence < 0.9)
    )
    sure = percent(mark.confidence) if mark and listed.part else ""
    return ListedField(
        prefix=f"{prefix}{side}.{m}.",
        side=side,
        listed=listed,
        choices=tuple(choices),
        confidence=sure,
        doubtful=doubtful,
        why=mark.why if mark else "",
    )
