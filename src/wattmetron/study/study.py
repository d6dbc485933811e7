"""A catalogue with a keeper of its own: everything computed from one revision, once."""

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.speeds.settled import settled
from wattmetron.study.keeper import Keeper

RAW_BYTES = 8_000_000
"""What may be kept about the catalogue as it was described."""


def studied(described: Catalogue) -> Catalogue:
    """The catalogue with its parts where its charts put them, and a keeper of what is computed."""
    return settled(described.kept_by(Keeper(RAW_BYTES))).kept_by(Keeper())
