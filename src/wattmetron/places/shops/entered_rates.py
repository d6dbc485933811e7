"""Rates between currencies, as they are kept."""

from pydantic import TypeAdapter, ValidationError

from wattmetron.core.errors import BriefError
from wattmetron.core.values.exchange_rates import MOST_RATES, Rate, read_rates, with_rates
from wattmetron.store import documents
from wattmetron.store.database import Transaction
from wattmetron.workshop.workshop import Workshop

_RATES: TypeAdapter[tuple[Rate, ...]] = TypeAdapter(tuple[Rate, ...])


def kept_rates(workshop: Workshop) -> tuple[Rate, ...]:
    """The rates, the newest first."""
    with workshop.database.reading() as session:
        return _rates(session)


def _rates(session: Transaction) -> tuple[Rate, ...]:
    try:
        return _RATES.validate_json(documents.only(session, "rates") or "[]")
    except ValidationError:
        return ()


def enter_rates(workshop: Workshop, text: str) -> int:
    """Add the rates of a text and return how many they are; raises BriefError."""
    new = read_rates(text)
    with workshop.database.writing() as session:
        rates = with_rates(_rates(session), new)
        if len(rates) > MOST_RATES:
            raise BriefError(f"There would be more than {MOST_RATES:,} rates: clear them first.")
        documents.put_only(session, "rates", _RATES.dump_json(rates).decode())
    return len(new)


def clear_rates(workshop: Workshop) -> None:
    with workshop.database.writing() as session:
        documents.put_only(session, "rates", "[]")
