"""What the handout of a set says: the builds side by side, then each of them."""

from collections.abc import Callable
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.dated import BuildSet, Dated
from wattmetron.core.values.part_kinds import KIND_NAMES
from wattmetron.places.assessment.assess import Assessment, CostLine
from wattmetron.places.handout.content import (
    Handout,
    Section,
    Table,
    budget_words,
    frames_row,
    price_words,
)
from wattmetron.places.handout.sets import assessed
from wattmetron.words.figures import money

CatalogueOf = Callable[[Dated], Catalogue]
"""The catalogue that a dated build is priced with."""


def set_handout(
    build_set: BuildSet, catalogue_of: CatalogueOf, when: str, region: str = ""
) -> Handout:
    """The handout of a set; ``when`` says of which day the prices are, another region prices it
    anew.
    """
    pairs = [(entry, _assessed(entry, catalogue_of, region)) for entry in build_set.entries]
    rows = tuple(_overview(entry, now) for entry, now in pairs)
    heads = ("build", "kept on", "budget", "processor", "graphics", "price", "targets met")
    overview = Section(key="overview", title="Side by side", table=Table(heads, rows))
    count = len(build_set.entries)
    regions = dict.fromkeys(placed.region for _, placed in pairs if isinstance(placed, _Placed))
    return Handout(
        title=build_set.name,
        opening=build_set.opening,
        dated=when,
        region=", ".join(regions),
        total=f"{count} build{'' if count == 1 else 's'}",
        met="",
        sections=(
            *((overview,) if rows else ()),
            *(_build(n, entry, now) for n, (entry, now) in enumerate(pairs, 1)),
        ),
    )


@dataclass(frozen=True, slots=True)
class _Placed:
    """A dated build judged, with the name of its region."""

    now: Assessment
    region: str


def _assessed(entry: Dated, catalogue_of: CatalogueOf, region: str) -> _Placed | str:
    """A build judged, or why it cannot be."""
    catalogue = catalogue_of(entry)
    try:
        now = assessed(catalogue, entry, region)
    except BriefError as error:
        return str(error)
    return _Placed(now, catalogue.region(now.brief.region).name)


def _overview(entry: Dated, placed: _Placed | str) -> tuple[str, ...]:
    day = f"{entry.made_at:%-d %b %Y}"
    if isinstance(placed, str):
        return (entry.name, day, "", "", "", placed, "")
    now = placed.now
    sides = [
        part.name if part else "none" for part in (now.machine.processor, now.machine.graphics)
    ]
    met = f"{now.met} of {len(now.counted)}" if now.counted else ""
    return (entry.name, day, budget_words(now), *sides, money(now.spent_minor, now.currency), met)


def _build(n: int, entry: Dated, placed: _Placed | str) -> Section:
    title = f"{n}. {entry.name}"
    if isinstance(placed, str):
        return Section(key=f"build{n}", title=title, sentences=(placed,))
    now = placed.now
    sentences = [
        f"Delivered in all: {money(now.spent_minor, now.currency)}; kept on"
        f" {entry.made_at:%-d %B %Y}."
    ]
    if now.counted:
        sentences.append(f"{now.met} of {len(now.counted)} targets met.")
    if now.unpriced:
        names = ", ".join(line.part.name for line in now.unpriced if line.part)
        sentences.append(f"Not on sale, so not in the sum: {names}.")
    rows = tuple(_part(line, now.currency) for line in now.lines if line.part)
    frames = tuple(
        _frames(frames_row(estimate))
        for estimate in now.estimates
        if estimate is not None and estimate.average_fps
    )
    findings = tuple(
        f"{finding.level[:1].upper()}{finding.level[1:]}: {finding.sentence}"
        f" {finding.advice}".strip()
        for finding in now.findings
        if finding.level in ("blocks", "do first")
    )
    heads = ("", "part", "shop", "price", "seen")
    return Section(
        key=f"build{n}",
        title=title,
        sentences=tuple(sentences),
        table=Table(heads, rows, tuple(line.part_id for line in now.lines if line.part)),
        items=(*frames, *findings),
    )


def _part(line: CostLine, currency: str) -> tuple[str, ...]:
    assert line.part is not None
    bought = line.offer is not None and not line.owned
    return (
        KIND_NAMES[line.kind],
        line.part.name,
        line.offer.shop if bought and line.offer else "",
        price_words(line, currency),
        f"{line.offer.seen_on:%-d %b %Y}" if bought and line.offer else "",
    )


def _frames(row: tuple[str, ...]) -> str:
    game, settings, wanted, expected, chance, side = row
    return f"{game} at {settings}: {expected}, wanted {wanted}; {chance}; limited by: {side}."
