"""Lines of feeds that are not brought in by themselves: kept until somebody says what is meant."""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from datetime import date

from pydantic import TypeAdapter, ValidationError

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.lists.reader import read_list
from wattmetron.services.shops.price_import import Held, made_offer, name_key, store_offers
from wattmetron.services.workshop import Workshop
from wattmetron.store import papers

MOST_LINES, MOST_NAMES = 300, 5_000
_LINES: TypeAdapter[list[Held]] = TypeAdapter(list[Held])
_NAMES: TypeAdapter[dict[str, str]] = TypeAdapter(dict[str, str])


def put_aside(workshop: Workshop) -> tuple[Held, ...]:
    """What waits for a word, the newest feeds' lines last."""
    with workshop.database.reading() as session:
        found = papers.only(session, "aside")
    try:
        return tuple(_LINES.validate_json(found or "[]"))
    except ValidationError:
        return ()


def known_names(workshop: Workshop) -> Mapping[str, str]:
    """Which part a shop means by a name, as it was said before."""
    with workshop.database.reading() as session:
        found = papers.only(session, "names")
    try:
        return _NAMES.validate_json(found or "{}")
    except ValidationError:
        return {}


def lay_aside(workshop: Workshop, asked: Iterable[tuple[str, str, tuple[Held, ...]]]) -> None:
    """Put the lines of the feeds that were just asked (shop, region, lines) in the place of those
    of the same shops.
    """
    new = list(asked)
    shops = {(shop, region) for shop, region, _ in new}
    kept = [own for own in put_aside(workshop) if (own.row.shop, own.row.region) not in shops]
    lines = [*kept, *(own for _, _, several in new for own in several if own.fix)]
    _store(workshop, lines[-MOST_LINES:])


def _store(workshop: Workshop, lines: Iterable[Held]) -> None:
    with workshop.database.writing() as session:
        papers.put_only(session, "aside", _LINES.dump_json(list(lines)).decode())


def candidates(catalogue: Catalogue, own: Held) -> tuple[tuple[str, str], ...]:
    """Parts that a line may mean, by id and name, the likeliest first."""
    found = read_list(catalogue, own.row.part).parts if own.row.part.strip() else ()
    ids = [guess.part_id for part in found[:1] for guess in part.guesses]
    ids += [alike for part in found[:1] for alike in part.alike]
    return tuple(
        (part_id, catalogue.part(part_id).name)
        for part_id in dict.fromkeys(ids)
        if part_id in catalogue.parts
    )


def settle_line(
    workshop: Workshop, line: int, shop: str, today: date, part_id: str = "", take: bool = True
) -> str:
    """Bring one line in, as the part that is said where its name was not sure, or let it go;
    returns what was done. Raises BriefError where it is gone or cannot be brought in.
    """
    waiting = put_aside(workshop)
    own = next((one for one in waiting if (one.line, one.row.shop) == (line, shop)), None)
    if own is None:
        raise BriefError("This line is settled already: look at what is still put aside.")
    rest = [one for one in waiting if one is not own]
    if not take:
        _store(workshop, rest)
        return f"{own.text} of {shop} is let go."
    catalogue = workshop.catalogue()
    row = own.row
    if part_id:
        row = replace(row, part=catalogue.part(part_id).id)
    made = made_offer(catalogue, row, shop, row.region, today)
    if isinstance(made, str):
        raise BriefError(f"{own.text}: {made}.")
    if made.price_minor <= 0:
        raise BriefError(f"{own.text}: its price is 0, which is not brought in.")
    store_offers(workshop, [made], f"a line of {shop}, looked at")
    if part_id:
        _remember(workshop, own, part_id)
    _store(workshop, rest)
    return f"{catalogue.part(made.part_id).name} of {shop} is brought in."


def _remember(workshop: Workshop, own: Held, part_id: str) -> None:
    names = {**known_names(workshop), name_key(own.row.shop, own.row.part): part_id}
    kept = dict(list(names.items())[-MOST_NAMES:])
    with workshop.database.writing() as session:
        papers.put_only(session, "names", _NAMES.dump_json(kept).decode())
