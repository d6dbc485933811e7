"""Watches as a document."""

from pydantic import TypeAdapter

from wattmetron.core.values.watches import Watch

_ADAPTER = TypeAdapter(tuple[Watch, ...])


def watches_document(watches: tuple[Watch, ...]) -> str:
    return _ADAPTER.dump_json(watches).decode()


def watches_from(document: str) -> tuple[Watch, ...]:
    """Raises ValueError for what is none."""
    return _ADAPTER.validate_json(document)
