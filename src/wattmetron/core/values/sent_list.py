"""What a list that somebody sent said, kept beside the build that was made of it."""

from dataclasses import dataclass

from wattmetron.core.values.part_kinds import Kind


@dataclass(frozen=True, slots=True, kw_only=True)
class Sent:
    """One line of a sent list: its text, the part that it was taken for (None: not known), how
    many, and what one of them cost there, in minor units of a currency.
    """

    text: str
    kind: Kind | None = None
    part: str | None = None
    quantity: int = 1
    price_minor: int | None = None
    currency: str = ""
