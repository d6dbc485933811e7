"""The pairings map of the Balance view."""

from dataclasses import dataclass

from wattmetron.core.balance.pairs import PairCell, PairsMap
from wattmetron.core.values.parts import Part
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.balance import Tables
from wattmetron.shell.address import Link
from wattmetron.words.figures import money

BEST_ON_NARROW = 12
ALIKE = 0.1


@dataclass(frozen=True, slots=True, kw_only=True)
class CellView:
    """A pairing: targets met, edges of the sides that limit, whether it is within the budget, where
    that ends.
    """

    met: str
    edges: str
    inside: bool
    border: str
    is_current: bool
    tried: bool
    url: str
    title: str
    key: str
    pair: str
    price: str
    limits: str


@dataclass(frozen=True, slots=True)
class MapView:
    """The map: cards across with full names, processors down each with its cells (None where
    nothing fits).
    """

    cards: tuple[tuple[str, str], ...]
    rows: tuple[tuple[str, str, tuple[CellView | None, ...]], ...]
    best: tuple[CellView, ...]
    targets: int


def _limiting(processor_share: float) -> str:
    if abs(processor_share - 0.5) <= ALIKE:
        return "cg"
    return "c" if processor_share > 0.5 else "g"


def edges_of(cell: PairCell) -> str:
    """Which side limits: by targets, or both where it changes with the game."""
    sides = {_limiting(share) for share in cell.processor_shares}
    return "cg" if len(sides) > 1 or "cg" in sides else next(iter(sides), "")


EDGE_WORDS = {
    "c": "processor limits",
    "g": "graphics limits",
    "cg": "the limit changes with the game",
    "": "no targets",
}


def pairings_view(
    tables: Tables, pairs: PairsMap, subject: Assessment, tried: Assessment | None, link: Link
) -> MapView:
    chips, cards = tables.sides.chips, tables.sides.cards

    def is_of(assessment: Assessment | None, c: int, g: int | None) -> bool:
        card = "" if g is None else cards[g].id
        return assessment is not None and (
            assessment.build.processor,
            assessment.build.graphics or "",
        ) == (
            chips[c].id,
            card,
        )

    def view(c: int, g: int | None) -> CellView | None:
        cell = pairs.cells.get((c, g))
        if cell is None:
            return None
        card = cards[g] if g is not None else None
        cost = money(cell.winner.cost + tables.besides, subject.currency)
        met = sum(cell.meets)
        title = (
            f"{chips[c].name} with {card.name if card else 'integrated graphics'}: {met} of"
            f" {len(cell.meets)} met for {cost}, {EDGE_WORDS[edges_of(cell)]}"
        )
        right, below = _neighbour(pairs, c, g, 0, 1), _neighbour(pairs, c, g, 1, 0)
        border = "".join(
            side
            for side, other in (("r", right), ("b", below))
            if cell.inside and other is not None and not other.inside
        )
        url = link(pair=f"{chips[c].id}:{card.id if card else ''}", tried=None)
        return CellView(
            met=str(met),
            edges=edges_of(cell),
            inside=cell.inside,
            border=border,
            is_current=is_of(subject, c, g),
            tried=is_of(tried, c, g),
            url=url,
            title=title + ("" if cell.inside else ", over the budget"),
            key=f"{chips[c].id}:{card.id if card else ''}",
            pair=f"{_short(chips[c])} with {_short(card) if card else 'integrated graphics'}",
            price=cost,
            limits=EDGE_WORDS[edges_of(cell)],
        )

    rows = tuple(
        (_short(chips[c]), chips[c].name, tuple(view(c, g) for g in pairs.cards))
        for c in pairs.processors
    )
    best = sorted(
        (key for key, cell in pairs.cells.items() if cell.inside),
        key=lambda key: (-pairs.cells[key].winner.rank, pairs.cells[key].winner.cost),
    )[:BEST_ON_NARROW]
    heads = tuple(
        (
            _short(cards[g]) if g is not None else "integrated",
            cards[g].name if g is not None else "integrated graphics",
        )
        for g in pairs.cards
    )
    return MapView(
        heads,
        rows,
        tuple(cell_view for key in best if (cell_view := view(*key)) is not None),
        len(tables.brief.counted_targets),
    )


def _neighbour(pairs: PairsMap, c: int, g: int | None, down: int, right: int) -> PairCell | None:
    row, column = pairs.processors.index(c) + down, pairs.cards.index(g) + right
    if row >= len(pairs.processors) or column >= len(pairs.cards):
        return None
    return pairs.cells.get((pairs.processors[row], pairs.cards[column]))


def _short(part: Part) -> str:
    """The model without the maker, the last words of a long one first to go."""
    return part.model if len(part.model) <= 30 else f"{part.model[:29]}…"
