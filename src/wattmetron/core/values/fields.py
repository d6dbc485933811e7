"""What a field of a core value means: one place for its text and its unit."""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import Ge, Le


@dataclass(frozen=True, slots=True)
class Column:
    """Explains a field to people: what it holds and in which unit."""

    text: str
    unit: str = ""


FOLDED = {"folded": True}
"""Metadata of a field that is folded in from elsewhere and stands in no table."""
LEAST = 1e-4
"""What has to be above zero is at least so much: every formula stays finite."""
Points = Annotated[float, Ge(0.01), Le(100_000)]
PointsOrNone = Annotated[float, Ge(0), Le(100_000)]
"""Points where 0 says that there is nothing to be fast."""
Spread = Annotated[float, Ge(0), Le(0.3)]
WorkSpread = Annotated[float, Ge(0), Le(1)]
Watts = Annotated[int, Ge(0), Le(5_000)]
Capacity = Annotated[int, Ge(1), Le(5_000)]
"""Watts of which there have to be some."""
Millimetres = Annotated[int, Ge(1), Le(5_000)]
Count = Annotated[int, Ge(0), Le(64)]
Some = Annotated[int, Ge(1), Le(512)]
