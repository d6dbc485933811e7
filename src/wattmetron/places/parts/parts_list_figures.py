"""Per kind: the figures that a list of parts shows and sorts by, and the facets that narrow it."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from wattmetron.core.frames.work import latency_ns
from wattmetron.core.values.part_kinds import SPECS, FacetSpec, FigureSpec, Kind
from wattmetron.core.values.parts import BOARD_FORMS, Part

Getter = Callable[[Any], float | int | None]


@dataclass(frozen=True, slots=True, kw_only=True)
class PartFigure:
    """A figure of a kind: its heading and unit; ``ranged`` ones get a least and a most in the
    list's sieve, those that are no ``column`` stand only there.
    """

    key: str
    title: str
    unit: str
    of: Getter
    ranged: bool = False
    digits: int = 0
    column: bool = True


@dataclass(frozen=True, slots=True)
class Facet:
    """Something that parts of a kind share in groups; a part may be in several."""

    key: str
    title: str
    of: Callable[[Any], tuple[str, ...]]


def _field(name: str) -> Getter:
    return lambda part: getattr(part, name)


def _words(name: str) -> Callable[[Any], tuple[str, ...]]:
    def of(part: Any) -> tuple[str, ...]:
        value = getattr(part, name)
        if isinstance(value, tuple):
            return value
        if value not in (None, ""):
            return (str(value),)
        return ()

    return of


def _radiators(part: Any) -> int | None:
    return max(
        (
            item
            for sizes in (part.radiator_front_mm, part.radiator_top_mm, part.radiator_rear_mm)
            for item in sizes
        ),
        default=None,
    )


def _sieve(key: str, title: str, unit: str, name: str) -> PartFigure:
    """A figure that only the sieve asks for."""
    return PartFigure(key=key, title=title, unit=unit, of=_field(name), ranged=True, column=False)


YES_OR_NO = {True: "yes", False: "no", None: "not known"}
CABLES = {True: "modular", False: "fixed", None: "not known"}
WORKED_OUT: dict[tuple[Kind, str], Getter] = {
    ("memory", "ns"): lambda kit: float(latency_ns(kit.cl, kit.mts)),
    ("case", "radiator"): _radiators,
}
"""Figures that no field holds."""
GROUPED: dict[tuple[Kind, str], Callable[[Any], tuple[str, ...]]] = {
    ("mainboard", "wireless"): lambda board: (board.wireless or "not known",),
    ("mainboard", "recovery"): lambda board: (YES_OR_NO[board.firmware_recovery],),
    ("cooler", "way"): lambda cooler: ("liquid" if cooler.radiator_mm else "air",),
    ("supply", "level"): lambda supply: (supply.efficiency or "none stated",),
    ("supply", "cables"): lambda supply: (CABLES[supply.modular],),
    ("case", "form"): lambda case: tuple(form for form in BOARD_FORMS if form in case.board_forms),
    ("fan", "lights"): lambda fan: fan.lights or ("none",),
}
"""Facets whose groups are not the values of a field."""


def _figure(kind: Kind, spec: FigureSpec) -> PartFigure:
    getter = WORKED_OUT.get((kind, spec.key)) or _field(spec.field)
    return PartFigure(
        key=spec.key,
        title=spec.title,
        unit=spec.unit,
        of=getter,
        ranged=spec.ranged,
        digits=spec.digits,
        column=spec.column,
    )


def _facet(kind: Kind, spec: FacetSpec) -> Facet:
    groups = GROUPED.get((kind, spec.key)) or _words(spec.field or spec.key)
    return Facet(spec.key, spec.title, groups)


EVERYWHERE = (
    _sieve("warranty", "warranty", "years", "warranty_years"),
    _sieve("score", "review score", "%", "review_percent"),
    _sieve("reviews", "number of reviews", "", "reviews"),
)
FIGURES: dict[Kind, tuple[PartFigure, ...]] = {
    kind: (*(_figure(kind, figure) for figure in spec.figures), *EVERYWHERE)
    for kind, spec in SPECS.items()
}
COLUMNS: dict[Kind, tuple[PartFigure, ...]] = {
    kind: tuple(figure for figure in figures if figure.column) for kind, figures in FIGURES.items()
}
FACETS: dict[Kind, tuple[Facet, ...]] = {
    kind: tuple(_facet(kind, facet) for facet in spec.facets) for kind, spec in SPECS.items()
}


def figure_words(figure: PartFigure, part: Part) -> str:
    """The figure as it is written; a dash where it is not known or not there."""
    value = figure.of(part)
    if value is None:
        return "–"
    if value == 0 and figure.unit == "points":
        return "none"
    return f"{value:,.{figure.digits}f}"
