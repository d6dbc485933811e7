"""The list of the place Parts: a kind's parts with their figures, prices, trust, and whether they
fit a build.
"""

from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.part_kinds import ALL_KINDS, KIND_PLURALS, SPECS
from wattmetron.drawing.part_picture import part_picture
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.parts.key_figures import what_matters
from wattmetron.places.parts.pages.part_figures import PartComparison, beside
from wattmetron.places.parts.pages.parts_list_state import (
    MOST_BESIDE,
    ShelfState,
    kind_url,
    part_url,
    try_in_brief,
)
from wattmetron.places.parts.parts_list import Shelf, ShelfRow, shelf
from wattmetron.places.parts.parts_list_figures import (
    COLUMNS,
    EVERYWHERE,
    FIGURES,
    PartFigure,
    figure_words,
)
from wattmetron.words.figures import KIND_WORDS, money
from wattmetron.words.offer_words import offer_marks


@dataclass(frozen=True, slots=True)
class Head:
    """A heading that sorts: its words, the address, and whether it sorts now (and which way)."""

    title: str
    unit: str
    url: str
    way: str


@dataclass(frozen=True, slots=True, kw_only=True)
class RowView:
    """A line of the list."""

    id: str
    name: str
    url: str
    traits: str
    figures: tuple[str, ...]
    price: str
    seen: str
    trust: str
    against: tuple[str, ...]
    fits: str
    in_build: bool
    frames: str
    worth: str
    try_url: str
    beside_url: str
    in_beside: bool
    again: bool
    picture: Markup


@dataclass(frozen=True, slots=True, kw_only=True)
class KindTab:
    """A kind of part with how many there are."""

    words: str
    url: str
    count: int
    here: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class ShelfPage:
    """The page's content."""

    state: ShelfState
    kinds: tuple[KindTab, ...]
    shelf: Shelf
    heads: tuple[Head, ...]
    rows: tuple[RowView, ...]
    ranged: tuple[PartFigure, ...]
    further: tuple[PartFigure, ...]
    beside: PartComparison | None
    words: str
    currency: str
    now: Assessment | None
    loosened: dict[str, str]
    general: str
    matters: tuple[str, ...]
    price_head: Head
    name_head: Head
    trust_head: Head
    frames_heads: tuple[Head, ...]

    @property
    def further_title(self) -> str:
        """What the folded filters are about: those of every kind, then those of this one."""
        special = [figure.title for figure in self.further if figure not in EVERYWHERE]
        return ", ".join(["Warranty and reviews", *special])

    @property
    def further_typed(self) -> bool:
        """Whether one of the folded bounds holds."""
        return any(figure.key in self.state.query.ranges for figure in self.further)


def shelf_page(catalogue: Catalogue, state: ShelfState) -> ShelfPage:
    """Compute what the list shows."""
    query = state.query
    now = assess(catalogue, state.brief.plan.brief, state.brief.plan.build) if state.brief else None
    listed = shelf(catalogue, query, now)
    region = now.brief.region if now else query.region or next(iter(catalogue.regions), "")
    currency = catalogue.regions[region].currency if region else ""
    kinds = tuple(
        KindTab(
            words=KIND_PLURALS[kind],
            url=kind_url(state, kind),
            count=len(catalogue.by_kind[kind]),
            here=kind == query.kind,
        )
        for kind in ALL_KINDS
    )
    frames = tuple(
        _head(state, key, title, unit)
        for key, title, unit in (
            ("frames", "frames", "fps"),
            ("worth", f"fps per {currency} 100", ""),
        )
        if now is not None and query.kind in ("processor", "graphics", "memory")
    )
    return ShelfPage(
        state=state,
        kinds=kinds,
        shelf=listed,
        heads=tuple(
            _head(state, figure.key, figure.title, figure.unit) for figure in COLUMNS[query.kind]
        ),
        rows=tuple(_row(catalogue, state, now, row, currency) for row in listed.rows),
        ranged=tuple(figure for figure in FIGURES[query.kind] if figure.ranged and figure.column),
        further=tuple(figure for figure in FIGURES[query.kind] if not figure.column),
        beside=beside(catalogue, state, now, currency),
        words=f"{listed.count}"
        f" {KIND_PLURALS[query.kind] if listed.count != 1 else KIND_WORDS[query.kind]}",
        currency=currency,
        now=now,
        loosened={
            name: ""
            for name in state.typed
            if name.split(".")[0] in ("q", "f", "min", "max", "fits", "trusted")
        },
        general=SPECS[query.kind].matters,
        matters=what_matters(catalogue, now, query.kind) if now else (),
        price_head=_head(state, "price", "delivered", currency),
        name_head=_head(state, "name", "part", ""),
        trust_head=_head(state, "trust", "trust", ""),
        frames_heads=frames,
    )


def _head(state: ShelfState, key: str, title: str, unit: str) -> Head:
    """Figures fall first, price, name and trust rise first; a second click turns it round."""
    query = state.query
    first = "" if key in ("price", "name", "trust") else "down"
    turn = "down" if query.falling else "up"
    way = turn if query.sort == key else ""
    turned = {"up": "down", "down": ""}.get(way, first)
    return Head(title, unit, state.url(sort=key, dir=turned), way)


def _row(
    catalogue: Catalogue, state: ShelfState, now: Assessment | None, row: ShelfRow, currency: str
) -> RowView:
    part, kind = row.part, state.query.kind
    against = tuple(finding.sentence.removeprefix(f"{part.name} ") for finding in row.against)
    if now is None:
        fits = ""
    elif row.in_build:
        fits = "in the build"
    elif against:
        fits = "does not fit"
    else:
        fits = "fits"
    try_url = ""
    if state.brief is not None and not row.in_build:
        try_url = try_in_brief(state.brief, kind, part.id)
    listed_beside = [part_id for part_id in state.beside if part_id != part.id]
    if part.id not in state.beside:
        listed_beside = [*listed_beside, part.id][-MOST_BESIDE:]
    return RowView(
        id=part.id,
        name=part.name,
        url=part_url(part.id, state.brief),
        traits=part.colour,
        figures=tuple(figure_words(figure, part) for figure in COLUMNS[kind]),
        price="no offer" if row.offer is None else money(row.offer.cost_minor, currency),
        seen=(
            ""
            if row.offer is None
            else (
                ", ".join((row.offer.shop, f"{row.offer.seen_on:%-d %b}", *offer_marks(row.offer)))
            )
        ),
        trust=row.trust,
        against=against,
        fits=fits,
        in_build=row.in_build,
        frames="–" if row.frames is None else f"{row.frames:.0f}",
        worth="–" if row.per_100 is None else f"{row.per_100:.1f}",
        try_url=try_url,
        beside_url=state.url(beside=" ".join(listed_beside)),
        in_beside=part.id in state.beside,
        again=part.again,
        picture=part_picture(part),
    )
