"""Columns of a core value, read off its annotations: names, types, units, limits, defaults."""

import types
from collections.abc import Callable
from dataclasses import MISSING, dataclass, fields
from datetime import date
from decimal import Decimal, InvalidOperation
from typing import Annotated, Any, Literal, Union, cast, get_args, get_origin, get_type_hints

from annotated_types import Ge, Gt, Le, Lt

from wattmetron.core.values.fields import Column

LIST_MARK = ";"


@dataclass(frozen=True, slots=True, kw_only=True)
class ColumnSpec:
    """One column: how it is called, what it holds and within which limits."""

    name: str
    text: str
    unit: str
    base: type
    many: bool
    optional: bool
    choices: tuple[Any, ...]
    limits: tuple[Any, ...]
    required: bool
    default: Any

    @property
    def type_name(self) -> str:
        """The Data Package type."""
        if self.many:
            return "string"
        return {
            int: "integer",
            float: "number",
            Decimal: "number",
            str: "string",
            bool: "boolean",
            date: "date",
        }[self.base]

    @property
    def expected(self) -> str:
        """In words, what a cell must hold."""
        if self.choices:
            words = " or ".join(str(choice) for choice in self.choices)
            text = f"{words}, separated by {LIST_MARK}" if self.many else words
        else:
            text = {
                int: "a whole number",
                float: "a number",
                Decimal: "an amount with at most two decimals",
                str: "text",
                bool: "true or false",
                date: "a date such as 2026-03-14",
            }[self.base]
        bounds = " and ".join(_limit_words(limit) for limit in self.limits)
        empty = ", or nothing" if self.optional or not self.required else ""
        return f"{text}{' ' + bounds if bounds else ''}{empty}"


def _limit_words(limit: object) -> str:
    match limit:
        case Gt(gt):
            return f"above {gt}"
        case Ge(ge):
            return f"from {ge}"
        case Lt(lt):
            return f"below {lt}"
        case Le(le):
            return f"up to {le}"
    return ""


_KNOWN: dict[type, tuple[ColumnSpec, ...]] = {}


def columns_of(kind: type) -> tuple[ColumnSpec, ...]:
    """The columns of a dataclass in the order of its fields."""
    if kind not in _KNOWN:
        _KNOWN[kind] = _read_columns(kind)
    return _KNOWN[kind]


def _read_columns(kind: type) -> tuple[ColumnSpec, ...]:
    hints = get_type_hints(kind, include_extras=True)
    specs = []
    for item in fields(kind):
        if item.metadata.get("folded"):
            continue
        default: Any = item.default if item.default is not MISSING else None
        required = item.default is MISSING and item.default_factory is MISSING
        specs.append(_spec(item.name, hints[item.name], required, default))
    return tuple(specs)


def _spec(name: str, hint: Any, required: bool, default: Any) -> ColumnSpec:
    base, metadata = _unwrap(hint)
    optional = many = False
    if get_origin(base) in (Union, types.UnionType):
        inner = [arg for arg in get_args(base) if arg is not type(None)]
        optional = True
        base, more = _unwrap(inner[0])
        metadata += more
    if get_origin(base) is tuple:
        many = True
        base, more = _unwrap(get_args(base)[0])
        metadata += more
    choices: tuple[Any, ...] = ()
    if get_origin(base) is Literal:
        choices = get_args(base)
        base = type(choices[0])
    column = next(
        (each_hint for each_hint in metadata if isinstance(each_hint, Column)), Column(name)
    )
    limits = tuple(each_hint for each_hint in metadata if isinstance(each_hint, (Gt, Ge, Lt, Le)))
    return ColumnSpec(
        name=name,
        text=column.text,
        unit=column.unit,
        base=base,
        many=many,
        optional=optional,
        choices=choices,
        limits=limits,
        required=required,
        default=default,
    )


def _unwrap(hint: Any) -> tuple[Any, list[Any]]:
    metadata: list[Any] = []
    while get_origin(hint) is Annotated:
        metadata += hint.__metadata__
        hint = hint.__origin__
    return hint, metadata


def _limit_test(spec: ColumnSpec) -> Callable[[Any], bool]:
    low: Any = max(
        (cast(Any, limit.ge) for limit in spec.limits if isinstance(limit, Ge)), default=None
    )
    above: Any = max(
        (cast(Any, limit.gt) for limit in spec.limits if isinstance(limit, Gt)), default=None
    )
    high: Any = min(
        (cast(Any, limit.le) for limit in spec.limits if isinstance(limit, Le)), default=None
    )

    def within(value: Any) -> bool:
        return (
            (low is None or value >= low)
            and (above is None or value > above)
            and (high is None or value <= high)
        )

    return within


Reader = Callable[[str], Any]


def _read_bool(cell: str) -> bool:
    word = cell.lower()
    if word in ("true", "yes", "1"):
        return True
    if word in ("false", "no", "0"):
        return False
    raise ValueError(cell)


def _read_amount(cell: str) -> Decimal:
    try:
        amount = Decimal(cell)
    except InvalidOperation as error:
        raise ValueError(cell) from error
    exponent = amount.as_tuple().exponent
    if not isinstance(exponent, int) or exponent < -2:
        raise ValueError(cell)
    return amount


def _read_text(cell: str) -> str:
    return cell


_BASE_READERS: dict[type, Reader] = {
    int: int,
    float: float,
    Decimal: _read_amount,
    str: _read_text,
    bool: _read_bool,
    date: date.fromisoformat,
}


def reader_of(spec: ColumnSpec) -> Reader:
    """A function that turns a cell into the field's value and raises ValueError where it cannot."""
    base = _BASE_READERS[spec.base]
    within = _limit_test(spec)
    choices = frozenset(spec.choices)
    limited = bool(spec.limits)

    def checked(cell: str) -> Any:
        value = base(cell)
        if (choices and value not in choices) or (limited and not within(value)):
            raise ValueError(cell)
        return value

    if spec.many:
        return lambda cell: tuple(
            checked(piece.strip()) for piece in cell.split(LIST_MARK) if piece.strip()
        )
    return checked


def cell_of(value: Any) -> str:
    """The cell that holds a value; read back it gives the same."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "true" if value else "false"
    if isinstance(value, tuple):
        return LIST_MARK.join(cell_of(item) for item in value)
    if isinstance(value, float) and value.is_integer():
        return str(int(value))
    return str(value)


def column_title(spec: ColumnSpec) -> str:
    """A column in a few words: ``Longest card``."""
    return spec.text.split(";")[0].split(":")[0].split(", ")[0]
