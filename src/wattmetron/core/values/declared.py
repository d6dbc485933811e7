"""What a field of the brief is: its type and default stand in its class, all else in a TOML file
of ``brief/fields``, read by everything that shows it.

File format, schema, form, checks, words of explanation and the costs of wishes derive from these
declarations.
"""

import tomllib
from collections.abc import Mapping
from dataclasses import MISSING, Field, dataclass, fields
from importlib.resources import files
from math import isfinite
from types import NoneType, UnionType
from typing import Any, Literal, Union, get_args, get_origin, get_type_hints

from wattmetron.core.errors import BriefError

Sense = Literal["at least", "at most", "as said", "strictest", "also"]


@dataclass(frozen=True, slots=True, kw_only=True)
class FieldSpec:
    """How a field is called, explained, bounded and asked for.

    ``words`` name it in sentences, ``text`` explains it in files. A field with a ``label`` stands
    in the form of the brief, with what an empty entry means and, perhaps, a term with its meaning.
    ``choices`` names where the entries to choose from come from, where the type does not say it.
    ``file`` is its name in files where that differs; ``amount`` says that minor units are amounts
    there. What is not ``searched`` changes nothing that the search looks at. Fields with a
    ``group`` stand folded together in the form.
    """

    words: str
    text: str
    label: str = ""
    unit: str = ""
    least: float | None = None
    most: float | None = None
    hint: str = "enter such a number"
    longest: int = 120
    empty: str = ""
    choices: str = ""
    wide: bool = False
    flag: tuple[str, str] = ("wanted", "not wanted")
    term: str = ""
    meaning: str = ""
    file: str = ""
    amount: bool = False
    searched: bool = True
    group: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class Wish:
    """That a field can hold a wish: it can be let go, has a price, and may be a preference.

    ``without`` is the value that wishes nothing. ``phrase`` puts it into words, with ``{value}``
    and its like in it. With ``preferred`` it is offered as a preference in these words, under the
    name ``preference`` where that is not the field's; ``value`` is what the preference of a flag
    sets.
    """

    name: str
    without: Any
    phrase: str = ""
    preferred: str = ""
    preference: str = ""
    value: Any = None
    sense: Sense = "as said"


@dataclass(frozen=True, slots=True, kw_only=True)
class Declared:
    """A field with its type, its default (None where it has none) and what was declared of it.

    ``bare`` is the type without None, ``optional`` whether None stands for nothing said,
    ``several`` whether it has entries; ``options`` are the values of a choice, or of the entries.
    """

    name: str
    type: Any
    bare: Any
    optional: bool
    several: bool
    options: tuple[str, ...]
    default: Any
    required: bool
    spec: FieldSpec
    wish: Wish | None

    @property
    def file(self) -> str:
        return self.spec.file or self.name

    def check(self, value: Any) -> None:
        """Raises BriefError for a value that is out of bounds, too long or no choice."""
        spec = self.spec
        if value is None and self.optional:
            return
        for item in value if self.several else (value,):
            if self.options and item not in self.options:
                listed = ", ".join(value) if self.several else value
                raise BriefError(
                    f"The {spec.words} is “{listed}”: choose one of {', '.join(self.options)}."
                )
        if spec.least is not None and spec.most is not None and not self.several:
            self._check_bounds(value, spec.least, spec.most)
        if isinstance(value, (str, tuple)) and len(value) > spec.longest:
            what = "entries: keep those that matter" if self.several else "characters: shorten it"
            raise BriefError(f"The {spec.words} has more than {spec.longest:,} {what}.")

    def _check_bounds(self, value: Any, least: float, most: float) -> None:
        scale = 100 if self.spec.amount else 1
        if not (isfinite(value) and least * scale <= value <= most * scale):
            unit = f" {self.spec.unit}" if self.spec.unit else ""
            empty = " or leave it empty" if self.optional else ""
            raise BriefError(
                f"The {self.spec.words} must lie within {least:,g}–{most:,g}{unit}:"
                f" {self.spec.hint}{empty}."
            )


def _read_specs() -> Mapping[tuple[str, str], tuple[FieldSpec, Wish | None]]:
    """What the files declare, by class and field."""
    specs: dict[tuple[str, str], tuple[FieldSpec, Wish | None]] = {}
    folder = files("wattmetron.core.values").joinpath("brief", "fields")
    for file in sorted(folder.iterdir(), key=lambda file: file.name):
        document = tomllib.loads(file.read_text(encoding="utf-8"))
        group = document.pop("group", "")
        for kind, rows in document.items():
            for name, row in rows.items():
                specs[kind, name] = _spec(row, group), _wish(row)
    return specs


def _spec(row: Mapping[str, Any], group: str) -> FieldSpec:
    least, most = row.get("range", (None, None))
    rest = {name: value for name, value in row.items() if name not in ("wish", "range")}
    if "flag" in rest:
        rest["flag"] = tuple(rest["flag"])
    return FieldSpec(**rest, least=least, most=most, group=group)


def _wish(row: Mapping[str, Any]) -> Wish | None:
    """A wish is called as the field is, where it has no name of its own."""
    if "wish" not in row:
        return None
    wish = {"name": row["words"], "without": None, **row["wish"]}
    if isinstance(wish["without"], list):
        wish["without"] = tuple(wish["without"])
    return Wish(**wish)


_SPECS = _read_specs()


def declared(kind: type) -> tuple[Declared, ...]:
    """The declared fields of a dataclass, in their order."""
    hints = get_type_hints(kind)
    return tuple(
        _declared(item, hints[item.name], *_SPECS[kind.__name__, item.name])
        for item in fields(kind)
    )


def _declared(item: Field[Any], whole: Any, spec: FieldSpec, wish: Wish | None) -> Declared:
    required = item.default is MISSING and item.default_factory is MISSING
    default = None if required else item.default
    if item.default_factory is not MISSING:
        default = item.default_factory()
    bare = _bare(whole)
    several = get_origin(bare) is tuple
    entry = get_args(bare)[0] if several else bare
    return Declared(
        name=item.name,
        type=whole,
        bare=bare,
        optional=NoneType in get_args(whole),
        several=several,
        options=get_args(entry) if get_origin(entry) is Literal else (),
        default=default,
        required=required,
        spec=spec,
        wish=wish,
    )


def _bare(whole: Any) -> Any:
    if get_origin(whole) in (Union, UnionType):
        return next(kind for kind in get_args(whole) if kind is not NoneType)
    return whole
