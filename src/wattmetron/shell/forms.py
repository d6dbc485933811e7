"""Forms as people type them, read by Pydantic models; what cannot be read is said in a sentence."""

import re
from collections.abc import Mapping, Sequence
from datetime import date
from decimal import Decimal
from functools import partial
from math import isfinite
from typing import Annotated, Any, TypeVar

from fastapi import Request
from pydantic import BaseModel, BeforeValidator, ConfigDict, ValidationError, ValidationInfo
from starlette.datastructures import FormData

from wattmetron.core.errors import BriefError, InvalidError
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.money import to_decimal, to_minor
from wattmetron.core.values.text import clean

M = TypeVar("M", bound=BaseModel)
Typed = dict[str, str]
"""What a form holds, by the names of its entries."""
LEAST_TYPED = 1e-9
_SIZE = re.compile(r"\s*(\d{3,5})\s*[x×*]\s*(\d{3,5})\s*\Z")


class Form(BaseModel):
    """A form; entries that are not asked for are left aside."""

    model_config = ConfigDict(extra="ignore", frozen=True)


async def typed(request: Request, most_fields: int = 100) -> Typed:
    """The entries of a form without files."""
    data: FormData = await request.form(max_fields=most_fields, max_files=0)
    return {name: clean(str(value)) for name, value in data.items()}


def read(model: type[M], entries: Mapping[str, Any], of: str = "") -> M:
    """A form from its entries; ``of`` says of what they are, for sentences such as "The scale of
    Gullwing Circuit is empty". Raises InvalidError with the sentence of the first bad entry.
    """
    try:
        return model.model_validate(dict(entries), context={"of": of})
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        location = " ".join(str(step) for step in first["loc"]) or "the form"
        if first["type"] == "missing":
            raise InvalidError(
                f"The entry “{location}” is missing: load the page again and repeat it."
            ) from error
        shown = str(first["input"])[:60]
        raise InvalidError(
            f"The entry “{location}” is “{shown}”, which cannot be read: load the page again and"
            " repeat it."
        ) from error


def finite(text: str) -> float | None:
    """The number that was typed, with a point or a comma, perhaps with a sign for per cent; None
    for what is none, not finite, or too small to be told from nought.
    """
    try:
        value = float(text.strip().replace(",", ".").rstrip("% "))
    except ValueError:
        return None
    return value if isfinite(value) and (value == 0 or abs(value) > LEAST_TYPED) else None


def read_number(text: str, what: str) -> float:
    """A finite number; ``what`` begins the sentence of an error."""
    if not text.strip():
        raise BriefError(f"{what} is empty: enter a number.")
    value = finite(text)
    if value is None:
        raise BriefError(f"{what} is “{text}”, which is not a number: enter one.")
    return value


def read_whole(text: str, what: str) -> int:
    value = read_number(text, what)
    if value != int(value):
        raise BriefError(f"{what} is {value:g}: enter a whole number.")
    return int(value)


def read_size(text: str, what: str) -> tuple[int, int]:
    """Pixels across and down, as in ``2560x1440``."""
    match = _SIZE.match(text)
    if not match:
        raise BriefError(f"{what} is “{text}”: enter pixels as in 2560x1440.")
    return int(match[1]), int(match[2])


def read_day(text: str, what: str) -> date:
    try:
        return date.fromisoformat(text.strip())
    except ValueError:
        raise BriefError(f"{what} is “{text}”: enter one such as 2027-03-01.") from None


def read_ends(text: str, today: date) -> date | None:
    """The day on which a link ends; None where nothing is typed."""
    if not text.strip():
        return None
    ends = read_day(text, "The day on which the link ends")
    if ends < today:
        raise BriefError(f"The link would have ended on {ends:%-d %B %Y}: choose a later day.")
    return ends


def entry_name(field: Declared) -> str:
    """The name of a declared field's entry: amounts are typed, not minor units."""
    return field.name.removesuffix("_minor")


def entry_type(field: Declared) -> Any:
    """The type of a declared field as its entry is read."""
    return Annotated[field.type, BeforeValidator(partial(_read_entry, field))]


def _read_entry(field: Declared, value: Any, info: ValidationInfo) -> Any:
    if isinstance(value, (bool, tuple)):
        return value
    what = f"The {field.spec.words}{(info.context or {}).get('of', '')}"
    text = str(value)
    if field.bare is str or field.options:
        return _read_word(field, text, what)
    if not text.strip() and (field.optional or field.spec.empty):
        return field.default
    if field.spec.amount:
        return to_minor(text, what)
    if field.bare is Decimal:
        return to_decimal(to_minor(text, what))
    return read_whole(text, what) if field.bare is int else read_number(text, what)


def _read_word(field: Declared, text: str, what: str) -> str:
    if field.options and text not in field.options:
        raise BriefError(f"{what} is “{text}”: choose one of {', '.join(field.options)}.")
    return text.strip()[: field.spec.longest]


def _size_entry(value: Any, info: ValidationInfo) -> Any:
    of = (info.context or {}).get("of", "") or " of the display"
    return value if isinstance(value, tuple) else read_size(str(value), f"The resolution{of}")


def _tick(value: Any) -> bool:
    return value not in (False, None, "", "0")


def whole_or_none(value: Any) -> int | None:
    text = str(value).strip()
    return int(text) if text.isdecimal() and len(text) < 12 else None


def _place(value: Any) -> int:
    index = whole_or_none(value)
    return -1 if index is None else index


Size = Annotated[tuple[int, int], BeforeValidator(_size_entry)]
Tick = Annotated[bool, BeforeValidator(_tick)]
"""A box that is ticked, or a hidden ``1`` or ``0``."""
Place = Annotated[
    int, BeforeValidator(lambda value: -1 if (n := whole_or_none(value)) is None else n)
]
"""A place in a list; one that cannot be read is no place."""
Number = Annotated[int, BeforeValidator(lambda value: whole_or_none(value) or 0)]
"""A whole number that a page wrote itself, such as a version; 0 where it cannot be read."""


def one_of(allowed: Sequence[object], otherwise: object) -> BeforeValidator:
    """An address may say anything: what is unknown is taken for something else."""
    return BeforeValidator(lambda value: value if value in allowed else otherwise)


def _short(most: int) -> BeforeValidator:
    return BeforeValidator(lambda value: str(value).strip()[:most])


Short20 = Annotated[str, _short(20)]
"""Text without blanks around it, at most so long; likewise the others."""
Short40 = Annotated[str, _short(40)]
Short80 = Annotated[str, _short(80)]
Short120 = Annotated[str, _short(120)]
Short200 = Annotated[str, _short(200)]
Short400 = Annotated[str, _short(400)]
