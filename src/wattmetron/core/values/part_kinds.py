"""The kinds of part, and what they are called."""

import tomllib
from dataclasses import dataclass
from importlib.resources import files
from typing import Any, Literal, get_args

Kind = Literal[
    "processor",
    "graphics",
    "mainboard",
    "memory",
    "storage",
    "cooler",
    "supply",
    "case",
    "fan",
    "splitter",
    "wireless",
    "capture",
    "optical",
    "system",
    "display",
    "input",
]
ALL_KINDS: tuple[Kind, ...] = get_args(Kind)
KINDS, FURTHER_KINDS = ALL_KINDS[:8], ALL_KINDS[8:]
"""What every machine is made of, and what else it may have: several of each, none needed."""
OF_FANS: tuple[Kind, ...] = ("fan", "splitter")
"""Further kinds that come along with a case."""


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureSpec:
    """A figure of a kind: its heading and unit, and the field that holds it; ``ranged`` ones get a
    least and a most among the filters of the list of parts, those that are no ``column`` stand only
    there.
    """

    key: str
    title: str
    unit: str = ""
    field: str = ""
    ranged: bool = False
    digits: int = 0
    column: bool = True


@dataclass(frozen=True, slots=True, kw_only=True)
class FacetSpec:
    """Something that parts of a kind share in groups, and the field that holds it (the key where it
    has none of its own).
    """

    key: str
    title: str
    field: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class KindSpec:
    """A kind as ``kinds.toml`` declares it: whether the machine's draw hangs on it, and of further
    ones the words of the link that adds one and the sentence where one is wanted and not there.
    """

    name: str
    plural: str
    file: str
    words: str
    words_rank: int
    matters: str
    figures: tuple[FigureSpec, ...]
    facets: tuple[FacetSpec, ...]
    draws: bool = False
    add: str = ""
    lacking: str = ""


def _spec(row: dict[str, Any]) -> KindSpec:
    figures = tuple(FigureSpec(**figure) for figure in row.pop("figures"))
    facets = tuple(FacetSpec(**facet) for facet in row.pop("facets"))
    return KindSpec(**{"plural": f"{row['name']}s", **row}, figures=figures, facets=facets)


_DECLARED = tomllib.loads(files("wattmetron.core.values").joinpath("kinds.toml").read_text("utf-8"))
SPECS: dict[Kind, KindSpec] = {kind: _spec(_DECLARED[kind]) for kind in ALL_KINDS}
KIND_NAMES: dict[Kind, str] = {kind: spec.name for kind, spec in SPECS.items()}
KIND_PLURALS: dict[Kind, str] = {kind: spec.plural for kind, spec in SPECS.items()}
