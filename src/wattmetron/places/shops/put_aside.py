"""Lines of feeds that are not brought in by themselves: kept until somebody says what is meant."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from datetime import date

from pydantic import TypeAdapter, ValidationError

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.places.shops.price_import import HeldBackLine, made_offer, name_key, store_offers
from wattmetron.store import documents
from wattmetron.store.database import Transaction
from wattmetron.workshop.workshop import Workshop

MOST_LINES, MOST_NAMES = 300, 5_000
_LINES: TypeAdapter[list[HeldBackLine]] = TypeAdapter(list[HeldBackLine])
_NAMES: TypeAdapter[dict[str, str]] = TypeAdapter(dict[str, str])


def put_aside(workshop: Workshop) -> tuple[HeldBackLine, ...]:
    """What waits for a word, the newest feeds' lines last."""
    with workshop.database.reading() as session:
        return tuple(_lines(session))


def _lines(session: Transaction) -> list[HeldBackLine]:
    try:
        return _LINES.validate_json(documents.only(session, "aside") or "[]")
    except ValidationError:
        return []


def known_names(workshop: Workshop) -> Mapping[str, str]:
    """Which part a shop means by a name, as it was said before."""
    with workshop.database.reading() as session:
        return _names(session)


def _names(session: Transaction) -> dict[str, str]:
    try:
        return _NAMES.validate_json(documents.only(session, "names") or "{}")
    except ValidationError:
        return {}


def lay_aside(
    workshop: Workshop, lines_by_feed: Iterable[tuple[str, str, tuple[HeldBackLine, ...]]]
) -> None:
    """Put the lines of the feeds that were just asked (shop, region, lines) in the place of those
    of the same shops.
    """
    new = list(lines_by_feed)
    shops = {(shop, region) for shop, region, _ in new}
    added = [line for _, _, several in new for line in several if line.fix]
    _edit(
        workshop,
        lambda lines: [
            *(line for line in lines if (line.row.shop, line.row.region) not in shops),
            *added,
        ],
    )


def _edit(workshop: Workshop, edit: Callable[[list[HeldBackLine]], list[HeldBackLine]]) -> None:
    """Change what waits as it stands, whoever else changes it."""
    with workshop.database.writing() as session:
        lines = edit(_lines(session))[-MOST_LINES:]
        documents.put_only(session, "aside", _LINES.dump_json(lines).decode())


def candidates(catalogue: Catalogue, line: HeldBackLine) -> tuple[tuple[str, str], ...]:
    """Parts that a line may mean, by id and name, the likeliest first."""
    sent_parts = read_list(catalogue, line.row.part).parts if line.row.part.strip() else ()
    ids = [guess.part_id for part in sent_parts[:1] for guess in part.guesses]
    ids += [alike for part in sent_parts[:1] for alike in part.alike]
    return tuple(
        (part_id, catalogue.part(part_id).name)
        for part_id in dict.fromkeys(ids)
        if part_id in catalogue.parts
    )


def settle_line(
    workshop: Workshop,
    line: int,
    shop: str,
    region: str,
    today: date,
    part_id: str = "",
    take: bool = True,
) -> str:
    """Bring one line in, as the part that is said where its name was not sure, or let it go;
    returns what was done. Raises BriefError where it is gone or cannot be brought in.
    """
    waiting = put_aside(workshop)
    key = (line, shop, region)
    found_line = next(
        (line for line in waiting if (line.line, line.row.shop, line.row.region) == key), None
    )
    if found_line is None:
        raise BriefError("This line is settled already: look at what is still put aside.")
    if not take:
        _let_go(workshop, found_line)
        return f"{found_line.text} of {shop} is let go."
    catalogue = workshop.catalogue()
    row = found_line.row
    if part_id:
        row = replace(row, part=catalogue.part(part_id).id)
    made = made_offer(catalogue, row, shop, row.region, today)
    if isinstance(made, str):
        raise BriefError(f"{found_line.text}: {made}.")
    if made.price_minor <= 0:
        raise BriefError(f"{found_line.text}: its price is 0, which is not brought in.")
    store_offers(workshop, [made], f"a line of {shop}, looked at")
    if part_id:
        _remember(workshop, found_line, part_id)
    _let_go(workshop, found_line)
    return f"{catalogue.part(made.part_id).name} of {shop} is brought in."


def _let_go(workshop: Workshop, released: HeldBackLine) -> None:
    _edit(workshop, lambda lines: [line for line in lines if line != released])


def _remember(workshop: Workshop, line: HeldBackLine, part_id: str) -> None:
    with workshop.database.writing() as session:
        names = {**_names(session), name_key(line.row.shop, line.row.part): part_id}
        remembered = dict(list(names.items())[-MOST_NAMES:])
        documents.put_only(session, "names", _NAMES.dump_json(remembered).decode())
