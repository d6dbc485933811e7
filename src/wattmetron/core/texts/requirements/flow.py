"""Where tiers begin in a text whose layout does not say so: a new one where a second processor or
card appears, or in turn where the tiers are named before the parts.
"""

import re
from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from itertools import groupby, pairwise

from wattmetron.core.texts.requirements.headings import LABEL, SURE, tier_name
from wattmetron.core.texts.requirements.mentions import CORE, Kind, Mention
from wattmetron.core.texts.requirements.pieces import Layout, Piece
from wattmetron.core.texts.requirements.prose_layout import every_tier, head_by_conditions
from wattmetron.core.texts.requirements.vocabulary import BARE_TIERS, Field

LONGEST_HEAD, MOST_TIERS = 60, 16
_BREAKS = (re.compile(r"\n\s*\n"), re.compile(r"\n"), re.compile(r"[.;!?](?=\s|\Z)"))
_ANY_BREAK = re.compile(r"\n|[.;!?](?=\s|\Z)")
_SENTENCE = re.compile(r"[.;!?](?=\s|\Z)|\n\s*\n")
_BARE = re.compile(rf"(?<![\w-])(?:{BARE_TIERS})(?![^\W_])", re.IGNORECASE)
_SAID: dict[str, str] = {"least": "Minimum", "ideally": "Recommended"}
_STATED: frozenset[Kind] = frozenset({"resolution", "frame rate", "preset"})
_FIELDS: dict[str, Field] = {"kind of storage": "storage"}


def flow(text: str, mentions: Sequence[Mention]) -> Layout | None:
    """The layout of a text by what it mentions; None where it names no part twice over."""
    core = [mention for mention in mentions if mention.kind in CORE]
    if not core:
        return None
    return _in_turn(text, mentions, core) or _one_after_another(text, mentions, core)


def _in_turn(text: str, mentions: Sequence[Mention], core: Sequence[Mention]) -> Layout | None:
    """Tiers named first, then each field with a value for every tier."""
    heads = _heads(text, [mention for mention in mentions if mention.start < core[0].start])
    runs = [list(run) for _, run in groupby(core, key=lambda mention: mention.kind)]
    if len(heads) < 2 or any(len(run) != len(heads) for run in runs):
        return None
    layout = Layout([tier_name(text[mention.start : mention.end]) for mention in heads])
    layout.structure += [(mention.start, mention.end, "tier", n) for n, mention in enumerate(heads)]
    rest = [
        mention for mention in mentions if mention.start >= core[0].start or mention not in heads
    ]
    for kind in dict.fromkeys(mention.kind for mention in rest):
        several = [mention for mention in rest if mention.kind == kind and kind != "tier"]
        if len(several) % len(heads) == 0 and several:
            for n, several_mention in enumerate(several):
                layout.pieces.append(_piece(n % len(heads), several_mention))
        elif len(several) == 1:
            layout.pieces.append(_piece(every_tier(layout), several[0]))
    return layout


def _heads(text: str, before: Sequence[Mention]) -> list[Mention]:
    """The tiers that a text names before its first part, on one line or on lines of their own."""
    named = [mention for mention in before if mention.kind == "tier"]
    if not named:
        return []
    line_end = text.find("\n", named[-1].end)
    line_end = line_end if line_end >= 0 else len(text)
    start = text.rfind("\n", 0, named[0].start) + 1
    bare = [Mention("tier", *match.span()) for match in _BARE.finditer(text, start, line_end)]
    known = {*range(0)}
    for tier_mention in named:
        known.update(range(tier_mention.start, tier_mention.end))
    heads = named + [mention for mention in bare if mention.start not in known]
    return sorted(heads, key=lambda mention: mention.start)


def _one_after_another(
    text: str, mentions: Sequence[Mention], core: Sequence[Mention]
) -> Layout | None:
    groups = _groups(mentions, core)[:MOST_TIERS]
    starts = [mention.start for mention in mentions]
    ahead = [mention.kind for mention in mentions if mention.start < core[0].start]
    bounds = [0]
    for before, after in pairwise(groups):
        last, first = before[-1], after[0]
        between = mentions[bisect_left(starts, last.end) : bisect_left(starts, first.start)]
        bounds.append(_bound(text, between, ahead, last.end, first.start))
    bounds.append(len(text))
    layout = Layout()
    spans = list(pairwise(bounds))
    for n, (start, end) in enumerate(spans):
        inside = mentions[bisect_left(starts, start) : bisect_left(starts, end)]
        layout.tiers.append(_label(text, start, groups[n][0].start, inside, layout, n))
        layout.structure += [
            (*label.span(), "label", None) for label in LABEL.finditer(text, start, end)
        ]
    shared = _shared(text, mentions, spans, core)
    for other_mention in mentions:
        if other_mention.kind in ("tier", "every"):
            continue
        tier = bisect_right(bounds, other_mention.start, hi=len(spans)) - 1
        layout.pieces.append(
            _piece(every_tier(layout) if other_mention in shared else tier, other_mention)
        )
    return layout


def _piece(tier: int, mention: Mention) -> Piece:
    field = _FIELDS.get(mention.kind, mention.kind)
    return Piece(tier=tier, field=field, label="", start=mention.start, end=mention.end)  # type: ignore[arg-type]


def _groups(mentions: Sequence[Mention], core: Sequence[Mention]) -> list[list[Mention]]:
    """Parts tier by tier: another begins where a side appears again after the other one, or after
    a tier was named.
    """
    named = [mention.start for mention in mentions if mention.kind == "tier"]
    groups, seen = [[core[0]]], {core[0].kind}
    for before, after in pairwise(core):
        again = after.kind in seen
        apart = after.kind != before.kind or any(
            before.end <= position < after.start for position in named
        )
        if again and apart:
            groups.append([after])
            seen = {after.kind}
        else:
            groups[-1].append(after)
            seen.add(after.kind)
    return groups


def _bound(
    text: str, between: Sequence[Mention], ahead: Sequence[Kind], start: int, end: int
) -> int:
    """Where between two tiers' parts the second begins: with the sentence or line that names it;
    where the tier's word stands behind its parts, after that; else at the conditions, where those
    come first, or after the hardest break. ``ahead`` is what stands before the first part of all.
    """
    named = [mention for mention in between if mention.kind == "tier"]
    if named:
        leading = "tier" in ahead
        if leading or not _ANY_BREAK.search(text, named[-1].end, end):
            position = (named[0] if leading else named[-1]).start
            breaks = _ANY_BREAK.finditer(text, start, position)
            return max((match.end() for match in breaks), default=position)
        start = named[0].end
    else:
        usual = _STATED.intersection(ahead)
        stated = next((mention.start for mention in between if mention.kind in usual), None)
        if stated is not None:
            return stated
    for pattern in _BREAKS:
        places = [match.end() for match in pattern.finditer(text, start, end)]
        if places:
            return places[-1]
    return start if named else end


def _label(
    text: str, start: int, first: int, mentions: Sequence[Mention], layout: Layout, tier: int
) -> str:
    """What a tier is called: by a tier's word, else by what stands on its first line before its
    parts.
    """
    named = [mention for mention in mentions if mention.kind == "tier"]
    if named:
        word = text[named[0].start : named[0].end]
        layout.structure += [(mention.start, mention.end, "tier", tier) for mention in named]
        return _SAID.get(word.casefold(), tier_name(word))
    head = text[start:first].strip("\n \t*-#").split("\n")[0]
    by_conditions = head_by_conditions(head)
    if by_conditions is not None:
        return by_conditions[0]
    if "\n" not in text[start:first].lstrip() and not re.search("[:(=]", head):
        return ""
    cut = re.split(r"[:(=]", head)[0] if not SURE.match(head) else head
    words = cut.strip(" ,;-*·:")
    if not 2 < len(words) <= LONGEST_HEAD or "." in words:
        return ""
    return tier_name(words).replace("*", "·")


def _names_parts(mentions: Sequence[Mention]) -> bool:
    return any(mention.kind in CORE for mention in mentions)


def _shared(
    text: str,
    mentions: Sequence[Mention],
    spans: Sequence[tuple[int, int]],
    core: Sequence[Mention],
) -> list[Mention]:
    """What is said of every tier: what follows such a phrase, and the room on disk where it has a
    sentence of its own before or after all parts and no tier has its own.
    """
    every = [mention.start for mention in mentions if mention.kind == "every"]
    shared = []
    for position in every:
        stop = _SENTENCE.search(text, position)
        end = stop.start() if stop else len(text)
        start = max([0, *(match.end() for match in _SENTENCE.finditer(text, 0, position))])
        within = [mention for mention in mentions if start <= mention.start < end]
        shared += [
            mention for mention in within if mention.start >= position or not _names_parts(within)
        ]
    disk = [mention for mention in mentions if mention.kind in ("storage", "kind of storage")]
    if len(spans) < 2 or not disk or shared:
        return shared
    stops = [match.end() for match in _SENTENCE.finditer(text, core[-1].end)]
    apart = [
        mention
        for mention in disk
        if mention.start < core[0].start or any(stop <= mention.start for stop in stops)
    ]
    return [*shared, *apart] if len(apart) == len(disk) else shared
