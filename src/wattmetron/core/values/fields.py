"""What a field of a core value means: one place for its text and its unit."""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import Ge, Gt, Le


@dataclass(frozen=True, slots=True)
class Column:
    """Explains a field to people: what it holds and in which unit."""

    text: str
    unit: str = ""


Points = Annotated[float, Gt(0), Le(100_000)]
Spread = Annotated[float, Ge(0), Le(0.3)]
WorkSpread = Annotated[float, Ge(0), Le(1)]
Watts = Annotated[int, Ge(0), Le(5_000)]
Millimetres = Annotated[int, Ge(1), Le(5_000)]
Count = Annotated[int, Ge(0), Le(64)]
Some = Annotated[int, Ge(1), Le(512)]
