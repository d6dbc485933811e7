"""The shelf: parts of a kind with prices, trust, whether they fit a build and what they bring,
sieved and sorted.
"""

from dataclasses import dataclass, field

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.frames.batch_estimate import glance
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.machine_batch import Lineup
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.values.offers import ANY_PARTS, Offer, PriceBook
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Part
from wattmetron.core.values.trust import Trust, trust_of
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.compatibility.fitting import against_all
from wattmetron.places.parts.parts_list_figures import FACETS, FIGURES, PartFigure

PAGE_SIZE = 50
TRUST_ORDER: tuple[Trust, ...] = ("proven", "plain", "unknown", "doubtful")
Range = tuple[float | None, float | None]


@dataclass(frozen=True, kw_only=True)
class ShelfQuery:
    """What is asked of the shelf; ``ranges`` and ``facets`` by the keys of the kind, "price" in
    minor units.
    """

    kind: Kind = "processor"
    words: str = ""
    region: str = ""
    facets: dict[str, str] = field(default_factory=dict)
    ranges: dict[str, Range] = field(default_factory=dict)
    sort: str = "price"
    falling: bool = False
    on_sale: bool = True
    fitting: bool = False
    trusted: bool = False
    again_first: bool = False
    page: int = 1


@dataclass(frozen=True, slots=True, kw_only=True)
class ShelfRow:
    """A part: the offer that counts, what speaks against it in the build, and frames for the brief.

    ``per_100`` is the geometric mean of the counted targets' rates (fps) for 100 units of money
    that the part costs.
    """

    part: Part
    offer: Offer | None
    trust: Trust
    against: tuple[Finding, ...]
    in_build: bool
    frames: float | None
    per_100: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Shelf:
    """A page of rows, how many were found, and the choices of every facet with their counts."""

    rows: tuple[ShelfRow, ...]
    count: int
    unfit: int
    page: int
    pages: int
    choices: tuple[tuple[str, str, tuple[tuple[str, int], ...]], ...]


def shelf(catalogue: Catalogue, query: ShelfQuery, now: Assessment | None) -> Shelf:
    """The parts that answer; with a build also whether each fits it."""
    region = now.brief.region if now else query.region or next(iter(catalogue.regions), "")
    may_buy = ANY_PARTS if now is None else now.brief.may_buy
    book = catalogue.prices(region, may_buy) if region else None
    parts = [part for part in catalogue.by_kind[query.kind] if _answers(part, query, book)]
    choices = _choices(query.kind, parts)
    parts = [part for part in parts if _in_facets(part, query)]
    against = _against(catalogue, now, query.kind, parts)
    unfit = sum(bool(findings) for findings in against)
    if query.fitting:
        parts, against = _kept(parts, against)
    frames = _frames(catalogue, now, query.kind, parts) if query.sort in ("frames", "worth") else {}
    rows = [
        _row(part, findings, book, now, frames.get(part.id))
        for part, findings in zip(parts, against, strict=True)
    ]
    rows.sort(key=lambda row: _order(row, query))
    if query.again_first:
        rows.sort(key=lambda row: not row.part.again)
    pages = max(1, -(-len(rows) // PAGE_SIZE))
    page = min(max(1, query.page), pages)
    shown = rows[(page - 1) * PAGE_SIZE : page * PAGE_SIZE]
    if not frames:
        seen = _frames(catalogue, now, query.kind, [row.part for row in shown])
        shown = [_row(row.part, row.against, book, now, seen.get(row.part.id)) for row in shown]
    return Shelf(
        rows=tuple(shown), count=len(rows), unfit=unfit, page=page, pages=pages, choices=choices
    )


def _answers(part: Part, query: ShelfQuery, book: PriceBook | None) -> bool:
    """All but the facets, whose choices are counted over what answers so far."""
    name = f"{part.name} {part.colour}".lower()
    if not all(word in name for word in query.words.lower().split()):
        return False
    price = book.cost(part.id) if book else None
    if query.on_sale and price is None:
        return False
    if query.trusted and trust_of(part) == "doubtful":
        return False
    if not _within(price, query.ranges.get("price")):
        return False
    return all(
        _within(figure.of(part), query.ranges.get(figure.key)) for figure in FIGURES[query.kind]
    )


def _within(value: float | None, wanted: Range | None) -> bool:
    if wanted is None or wanted == (None, None):
        return True
    least, most = wanted
    return (
        value is not None and (least is None or value >= least) and (most is None or value <= most)
    )


def _in_facets(part: Part, query: ShelfQuery) -> bool:
    return all(
        query.facets.get(facet.key, "") in ("", *facet.of(part))
        for facet in FACETS[query.kind]
        if query.facets.get(facet.key)
    )


def _choices(
    kind: Kind, parts: list[Part]
) -> tuple[tuple[str, str, tuple[tuple[str, int], ...]], ...]:
    """For every facet its key, title and choices with counts."""
    choices = []
    for facet in FACETS[kind]:
        counts: dict[str, int] = {}
        for part in parts:
            for word in facet.of(part):
                counts[word] = counts.get(word, 0) + 1
        choices.append((facet.key, facet.title, tuple(sorted(counts.items()))))
    return tuple(choices)


def _against(
    catalogue: Catalogue, now: Assessment | None, kind: Kind, parts: list[Part]
) -> list[tuple[Finding, ...]]:
    if now is None:
        return [()] * len(parts)
    reasons = against_all(catalogue, now, kind)
    return [reasons[part.id] for part in parts]


def _kept(
    parts: list[Part], against: list[tuple[Finding, ...]]
) -> tuple[list[Part], list[tuple[Finding, ...]]]:
    fitting = [part for part, findings in zip(parts, against, strict=True) if not findings]
    return fitting, [()] * len(fitting)


def _frames(
    catalogue: Catalogue, now: Assessment | None, kind: Kind, parts: list[Part]
) -> dict[str, float]:
    """Geometric mean of the counted targets' judged rates with each part in its place; none where
    it changes none.
    """
    if now is None or kind not in ("processor", "graphics", "memory") or not parts:
        return {}
    return catalogue.keep.once(
        ("shelf frames", now.brief, now.build, kind, tuple(part.id for part in parts)),
        lambda: _frames_of(catalogue, now, kind, parts),
    )


def _frames_of(
    catalogue: Catalogue, now: Assessment, kind: Kind, parts: list[Part]
) -> dict[str, float]:
    targets = [target for target in now.brief.counted_targets if target.game_id in catalogue.games]
    machines = [now.machine.with_part(kind, part) for part in parts]
    if not targets or not any(machine.can_draw for machine in machines):
        return {}
    lineup = Lineup(machines)
    curves = curves_of(catalogue.keep)
    rates = np.array(
        [
            glance(lineup, fitted_game(catalogue, target.game_id), target, now.brief, curves).fps
            for target in targets
        ]
    )
    means = np.exp(np.log(rates).mean(axis=0))
    return {part.id: float(mean) for part, mean in zip(parts, means, strict=True) if mean == mean}


def _row(
    part: Part,
    against: tuple[Finding, ...],
    book: PriceBook | None,
    now: Assessment | None,
    frames: float | None,
) -> ShelfRow:
    offer = book.best(part.id) if book else None
    worth = (
        None
        if frames is None or offer is None or not offer.cost_minor
        else frames / offer.cost_minor * 10_000
    )
    in_build = now is not None and any(part.id == present_id for _, present_id in now.build.ids())
    return ShelfRow(
        part=part,
        offer=offer,
        trust=trust_of(part),
        against=against,
        in_build=in_build,
        frames=frames,
        per_100=worth,
    )


def _order(row: ShelfRow, query: ShelfQuery) -> tuple[bool, float | str, str]:
    """What is not known comes last either way."""
    value: float | None
    if query.sort == "name":
        return False, row.part.name.casefold(), row.part.id
    if query.sort == "price":
        value = row.offer.cost_minor if row.offer else None
    elif query.sort == "trust":
        value = TRUST_ORDER.index(row.trust)
    elif query.sort in ("frames", "worth"):
        value = row.frames if query.sort == "frames" else row.per_100
    else:
        value = _figure_of(query.kind, query.sort, row.part)
    if value is None or value != value:
        return True, 0.0, row.part.id
    return False, -value if query.falling else value, row.part.id


def _figure_of(kind: Kind, key: str, part: Part) -> float | None:
    figure: PartFigure | None = next(
        (part_figure for part_figure in FIGURES[kind] if part_figure.key == key), None
    )
    return None if figure is None else figure.of(part)
