"""House rules and peripherals: kept once, added to every handout."""

import json
from dataclasses import dataclass, replace

from pydantic import ValidationError

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.texts.part_lists.list_figures import price_at_end
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.house import House, Peripherals, checked_house
from wattmetron.core.values.plan import Plan
from wattmetron.formats.house_file import HouseFile, house_file, house_from
from wattmetron.store import documents
from wattmetron.workshop.workshop import Workshop


@dataclass(frozen=True, slots=True)
class Housed:
    """What is kept, with its version (0: nothing yet) and whether the last change can be undone."""

    house: House
    version: int
    can_undo: bool


NOTHING_KEPT = Housed(House(), 0, False)


def housed(workshop: Workshop) -> Housed:
    """The house texts; those that cannot be read count as none."""
    with workshop.database.reading() as session:
        papers = documents.papers_of(session, "house")
    if not papers:
        return NOTHING_KEPT
    paper = papers[0]
    return Housed(_read(paper.document or ""), paper.version, paper.can_undo)


def _read(document: str) -> House:
    try:
        return house_from(HouseFile.model_validate(json.loads(document)))
    except (ValidationError, ValueError):
        return House()


def keep_house(workshop: Workshop, version: int, house: House) -> None:
    """Put other texts in the place of those that are kept; raises BriefError, ConflictError."""
    document = house_file(checked_house(house)).model_dump_json()
    with workshop.database.writing() as session:
        papers = documents.papers_of(session, "house")
        if papers:
            documents.change(session, "house", papers[0].id, version, document)
        else:
            documents.add(session, "house", house_file(House()).model_dump_json())
            first = documents.papers_of(session, "house")[0]
            documents.change(session, "house", first.id, first.version, document)


def undo_house(workshop: Workshop, version: int) -> None:
    """Take the last change of the texts back."""
    with workshop.database.writing() as session:
        for paper in documents.papers_of(session, "house")[:1]:
            documents.take_back(session, "house", paper.id, version)


def with_house(workshop: Workshop, plan: Plan) -> Plan:
    """The plan as it is handed over: with the house texts that it came with, or those of today."""
    rules = housed(workshop).house
    return plan if plan.house is not None or rules == House() else replace(plan, house=rules)


@dataclass(frozen=True, slots=True)
class Priced:
    """A line of a set of peripherals: what it is, and its price in minor units if it has one."""

    words: str
    minor: int | None


def priced(catalogue: Catalogue, brief: Brief, peripherals: Peripherals) -> tuple[Priced, ...]:
    """The lines of a set with today's price where one names a part of the catalogue, else the price
    that the line ends in, in the region's currency.
    """
    return tuple(_priced(catalogue, brief, line) for line in peripherals.lines)


def _priced(catalogue: Catalogue, brief: Brief, line: str) -> Priced:
    sent_parts = read_list(catalogue, line).parts
    book = catalogue.prices(brief.region, brief.may_buy)
    if len(sent_parts) == 1 and sent_parts[0].sure and sent_parts[0].best:
        part = catalogue.part(sent_parts[0].best.part_id)
        count, minor = max(1, sent_parts[0].quantity), book.cost(part.id)
        words = part.name if count == 1 else f"{count} {part.name}"
        return Priced(words, None if minor is None else count * minor)
    words, price = price_at_end(line)
    currency = catalogue.region(brief.region).currency
    if price is None or price.currency not in ("", currency):
        return Priced(line, None)
    return Priced(words, price.minor)
