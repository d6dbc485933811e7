"""The address of the meters that are asked."""

import json

from wattmetron.core.errors import BriefError
from wattmetron.places.shops.feeds import checked_address
from wattmetron.store import documents
from wattmetron.workshop.workshop import Workshop


def known_meter(workshop: Workshop) -> str:
    """The address that was asked last; empty for none."""
    with workshop.database.reading() as session:
        text = documents.only(session, "meters")
    try:
        return str(json.loads(text or '""'))
    except ValueError:
        return ""


def note_meter(workshop: Workshop, address: str) -> None:
    """Remember an address; raises BriefError for one that cannot be asked."""
    try:
        checked_address(address)
    except BriefError as error:
        raise BriefError(
            f"“{address[:60]}” is no address of a meter: enter one such as http://127.0.0.1:8500,"
            " as “wattmetron meters” prints it."
        ) from error
    with workshop.database.writing() as session:
        documents.put_only(session, "meters", json.dumps(address))
