"""Edits of published tiers: parts placed, left out, and found by the name that was typed."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError
from wattmetron.core.speeds.speed_scale import key_of, scale_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values import amounts
from wattmetron.core.values.published import Listed, NamedPart, Published, Side

SURE_MATCH = 0.9


class TierError(InvalidError):
    """Tiers that cannot be stored as typed; the message says which entry and what to do."""


@dataclass(frozen=True, slots=True)
class ListEntry:
    """Where a listed part stands in a game's list: its tier's place, its side, its own place."""

    tier: int
    side: Side
    position: int


@dataclass(frozen=True, slots=True)
class SpeedComparison:
    """That a part is so many per cent above another (below: less than nothing)."""

    than: str
    percent: float


def part_called(catalogue: Catalogue, text: str, side: Side) -> str:
    """The one part on the scale that a typed name means, with its amount of video memory where that
    is said; raises TierError with what it could be.
    """
    standing = scale_of(catalogue).standing(text)
    if standing is not None and standing.side == side:
        return text
    amount = amounts.AMOUNT.search(text) if side == "graphics" else None
    matches = reader_of(catalogue).names.parts.match(
        amounts.AMOUNT.sub(" ", text) if amount else text, side
    )
    if matches and matches[0].confidence >= SURE_MATCH:
        meant = (
            scale_of(catalogue).meant(matches[0].part, side, amounts.gigabytes(amount))
            if amount
            else ()
        )
        return meant[0].key if len(meant) == 1 else matches[0].part
    likely = ", ".join(match.name for match in matches[:3])
    raise TierError(
        f"“{text}” could be {likely}: type the name in full."
        if likely
        else f"No {side} part is called “{text}”: check the name."
    )


def listed_at(published: Published, entry: ListEntry) -> Listed:
    """The part that is listed there; raises TierError where there is none any more."""
    try:
        return published.tiers[entry.tier].listed(entry.side)[entry.position]
    except IndexError as error:
        raise TierError("That entry is no longer in the list: look at what it says now.") from error


def excluded_from_bar(published: Published, entry: ListEntry, excluded: bool) -> Published:
    """The requirements with one listed part left out of its tier's bar, or taken in again."""
    return _with_listed(published, entry, lambda listed: replace(listed, excluded=excluded))


def _with_listed(
    published: Published, entry: ListEntry, change: Callable[[Listed], Listed]
) -> Published:
    changed = change(listed_at(published, entry))
    tiers = [*published.tiers]
    old = tiers[entry.tier]
    listed = list(old.listed(entry.side))
    listed[entry.position] = changed
    if entry.side == "processor":
        tiers[entry.tier] = replace(old, processors=tuple(listed))
    else:
        tiers[entry.tier] = replace(old, graphics=tuple(listed))
    return replace(published, tiers=tuple(tiers))


def placed(
    published: Published, entry: ListEntry, comparison: SpeedComparison, catalogue: Catalogue
) -> tuple[Published, NamedPart]:
    """A named part placed by one comparison, wherever the game's list names it."""
    listed = listed_at(published, entry)
    base = part_called(catalogue, comparison.than, entry.side)
    standing = scale_of(catalogue).standing(base)
    assert standing is not None
    part_id = key_of("named", entry.side, listed.text)
    if standing.key == part_id:
        raise TierError(f"“{listed.text}” cannot be compared with itself: name another part.")
    named = NamedPart(
        id=part_id,
        side=entry.side,
        name=listed.text,
        than=standing.key,
        percent=comparison.percent,
        memory_gb=listed.memory_gb,
    )
    done = published
    for tier, listed_tier in enumerate(published.tiers):
        for index, other in enumerate(listed_tier.listed(entry.side)):
            if other.part is None and other.text.casefold() == listed.text.casefold():
                here = ListEntry(tier, entry.side, index)
                done = _with_listed(done, here, lambda old: replace(old, part=part_id))
    return done, named
