"""Files of what the core declares: Pydantic models from its fields, and values to and fro."""

from collections.abc import Collection, Mapping
from decimal import Decimal
from typing import Annotated, Any, get_args, get_origin

from pydantic import BaseModel, ConfigDict, Field, create_model

from wattmetron.core.values.declared import Declared, declared
from wattmetron.core.values.money import to_decimal, to_minor

MOST_AMOUNT = 10_000_000
Amount = Annotated[Decimal, Field(ge=0, le=MOST_AMOUNT, decimal_places=2)]
Text = Annotated[str, Field(max_length=120)]
Fields = tuple[Declared, ...]
Models = Mapping[Any, type[BaseModel]]
"""By the type of a field's value or of its entries the model that stands for it in files."""


class Strict(BaseModel):
    """A model that takes nothing but its own fields."""

    model_config = ConfigDict(extra="forbid")


Instead = Mapping[str, Mapping[str, Any]]
"""By the name of a field what the file has in its place."""


def file_model(
    kind: type, name: str, models: Models, instead: Instead | None = None, **first: Any
) -> type[Strict]:
    """A model of a dataclass's declared fields, in their order; ``first`` are fields of the file's
    own.
    """
    values: dict[str, Any] = {}
    for field in declared(kind):
        usual = {field.file: (_type(field, models), _spec(field))}
        values |= (instead or {}).get(field.name, usual)
    made: type[Strict] = create_model(
        name, __base__=Strict, __doc__=kind.__doc__, **{**first, **values}
    )
    return made


def values_of(fields: Fields, file: BaseModel, but: Collection[str] = ()) -> dict[str, Any]:
    """The values of declared fields from a file, entries of lists as they stand there."""
    return {
        field.name: _to_core(field, getattr(file, field.file))
        for field in fields
        if field.name not in but
    }


def file_values(fields: Fields, value: Any, but: Collection[str] = ()) -> dict[str, Any]:
    """What a file says of a value, by the names of the file."""
    return {
        field.file: _to_file(field, getattr(value, field.name))
        for field in fields
        if field.name not in but
    }


def _type(field: Declared, models: Models) -> Any:
    if field.several:
        entry = get_args(field.bare)[0]
        inner: Any = models.get(entry, entry)
        if inner is str:
            inner = Text
        return list[inner]
    bare: Any = Amount if field.spec.amount or field.bare is Decimal else field.bare
    return bare | None if field.optional else bare


def _spec(field: Declared) -> Any:
    spec = field.spec
    bounds = {"minimum": spec.least, "maximum": spec.most}
    numeric = field.bare in (int, float) and not spec.amount and spec.most is not None
    settings: dict[str, Any] = {
        "description": spec.text,
        "json_schema_extra": bounds if numeric else None,
    }
    if field.several or field.bare is str:
        settings["max_length"] = spec.longest
    if field.required:
        return Field(**settings)
    default = _to_file(field, field.default)
    return Field(default_factory=list, **settings) if field.several else Field(default, **settings)


def _to_core(field: Declared, value: Any) -> Any:
    if field.several:
        return tuple(value)
    if field.spec.amount:
        return None if value is None else to_minor(value)
    return value


def _to_file(field: Declared, value: Any) -> Any:
    if field.several:
        return [list(item) if get_origin(item) is tuple else item for item in value]
    if field.spec.amount and value is not None:
        return to_decimal(value)
    return value
