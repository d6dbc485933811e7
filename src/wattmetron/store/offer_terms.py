"""The terms of an offer as they are stored: JSON of what is not usual, empty for nothing."""

import json
from dataclasses import asdict

from pydantic import TypeAdapter, ValidationError

from wattmetron.core.values.offers import PLAIN, Terms

_ADAPTER = TypeAdapter(Terms)
_PLAIN = asdict(PLAIN)


def terms_document(terms: Terms) -> str:
    if terms == PLAIN:
        return ""
    stated = {name: value for name, value in asdict(terms).items() if value != _PLAIN[name]}
    return json.dumps(stated, ensure_ascii=False, separators=(",", ":"), sort_keys=True)


def read_terms(document: str) -> Terms:
    """What cannot be read counts as not said."""
    if not document:
        return PLAIN
    try:
        return _ADAPTER.validate_json(document)
    except ValidationError:
        return PLAIN
