"""Lines of feeds that were put aside, as the place Shops lists them."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.places.shops.price_import import HeldBackLine
from wattmetron.places.shops.put_aside import candidates, put_aside
from wattmetron.words.figures import money
from wattmetron.workshop.workshop import Workshop

MOST_SHOWN = 40


@dataclass(frozen=True, slots=True, kw_only=True)
class AsideRow:
    """One line in words; ``choices`` are parts that it may mean where its name is not sure."""

    line: int
    shop: str
    region: str
    text: str
    price: str
    why: str
    asks_part: bool
    choices: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True)
class AsideList:
    """The lines that are shown, and how many more there are."""

    rows: tuple[AsideRow, ...]
    more: int


def aside_list(workshop: Workshop, catalogue: Catalogue) -> AsideList:
    waiting = put_aside(workshop)
    rows = tuple(_row(catalogue, line) for line in waiting[:MOST_SHOWN])
    return AsideList(rows, max(0, len(waiting) - MOST_SHOWN))


def _row(catalogue: Catalogue, line: HeldBackLine) -> AsideRow:
    region = catalogue.regions.get(line.row.region)
    price = line.row.price_minor
    asks_part = line.fix == "part"
    return AsideRow(
        line=line.line,
        shop=line.row.shop,
        region=line.row.region,
        text=catalogue.parts[line.text].name if line.text in catalogue.parts else line.text,
        price="–" if price is None or region is None else money(price, region.currency),
        why=line.why,
        asks_part=asks_part,
        choices=candidates(catalogue, line) if asks_part else (),
    )
