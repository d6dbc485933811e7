"""Per kind: the figures that a list of parts shows and sorts by, and the facets that narrow it."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from wattmetron.core.frames.work import latency_ns
from wattmetron.core.values.part_kinds import Kind
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
MAKER = Facet("maker", "maker", lambda part: (part.maker,))
COLOUR = Facet("colour", "colour", _words("colour"))
_OWN: dict[Kind, tuple[PartFigure, ...]] = {
    "processor": (
        PartFigure(
            key="s", title="one core", unit="points", of=_field("single_speed"), ranged=True
        ),
        PartFigure(
            key="t", title="all cores", unit="points", of=_field("all_core_speed"), ranged=True
        ),
        PartFigure(key="cores", title="cores", unit="", of=_field("cores"), ranged=True),
        PartFigure(key="watts", title="sustained", unit="W", of=_field("sustained_w"), ranged=True),
        PartFigure(
            key="integrated", title="integrated", unit="points", of=_field("igpu_speed"), digits=1
        ),
        _sieve("cache", "cache", "MB", "cache_mb"),
    ),
    "graphics": (
        PartFigure(
            key="r", title="speed 1080p", unit="points", of=_field("speed_1080p"), ranged=True
        ),
        PartFigure(
            key="q", title="ray tracing", unit="points", of=_field("ray_speed"), ranged=True
        ),
        PartFigure(key="gb", title="video memory", unit="GB", of=_field("memory_gb"), ranged=True),
        PartFigure(
            key="watts", title="board power", unit="W", of=_field("board_power_w"), ranged=True
        ),
        PartFigure(key="length", title="length", unit="mm", of=_field("length_mm"), ranged=True),
    ),
    "mainboard": (
        PartFigure(key="slots", title="memory slots", unit="", of=_field("memory_slots")),
        PartFigure(key="m2", title="M.2", unit="", of=_field("m2_slots"), ranged=True),
        PartFigure(key="sata", title="SATA", unit="", of=_field("sata_ports"), ranged=True),
        PartFigure(
            key="watts", title="processor power", unit="W", of=_field("processor_w"), ranged=True
        ),
        PartFigure(key="gen", title="PCIe", unit="", of=_field("card_pcie_gen")),
        _sieve("fan_headers", "fan headers", "", "fan_headers"),
    ),
    "memory": (
        PartFigure(key="gb", title="capacity", unit="GB", of=_field("total_gb"), ranged=True),
        PartFigure(key="mts", title="rate", unit="MT/s", of=_field("mts"), ranged=True),
        PartFigure(
            key="ns",
            title="latency",
            unit="ns",
            of=lambda kit: float(latency_ns(kit.cl, kit.mts)),
            digits=1,
        ),
        PartFigure(key="sticks", title="sticks", unit="", of=_field("sticks")),
        PartFigure(key="height", title="height", unit="mm", of=_field("height_mm"), ranged=True),
    ),
    "storage": (
        PartFigure(key="gb", title="capacity", unit="GB", of=_field("capacity_gb"), ranged=True),
        PartFigure(key="read", title="reads", unit="MB/s", of=_field("read_mbs"), ranged=True),
    ),
    "cooler": (
        PartFigure(key="watts", title="carries", unit="W", of=_field("capacity_w"), ranged=True),
        PartFigure(key="height", title="height", unit="mm", of=_field("height_mm"), ranged=True),
        PartFigure(key="noise", title="noise", unit="dB(A)", of=_field("noise_dba"), ranged=True),
        PartFigure(key="radiator", title="radiator", unit="mm", of=_field("radiator_mm")),
    ),
    "supply": (
        PartFigure(key="watts", title="output", unit="W", of=_field("watts"), ranged=True),
        PartFigure(key="spike", title="spikes", unit="W", of=_field("spike_w"), ranged=True),
        PartFigure(key="p8", title="8-pin PCIe", unit="", of=_field("pcie_8pin")),
        PartFigure(key="p16", title="16-pin PCIe", unit="", of=_field("pcie_16pin")),
        PartFigure(key="length", title="length", unit="mm", of=_field("length_mm"), ranged=True),
    ),
    "case": (
        PartFigure(key="litres", title="volume", unit="l", of=_field("volume_l"), ranged=True),
        PartFigure(
            key="card", title="card up to", unit="mm", of=_field("card_length_mm"), ranged=True
        ),
        PartFigure(
            key="cooler",
            title="cooler up to",
            unit="mm",
            of=_field("cooler_height_mm"),
            ranged=True,
        ),
        PartFigure(key="radiator", title="radiator up to", unit="mm", of=_radiators),
        PartFigure(key="fans", title="fans", unit="", of=_field("fans_included")),
    ),
    "fan": (
        PartFigure(key="size", title="size", unit="mm", of=_field("size_mm"), ranged=True),
        PartFigure(key="pack", title="in the pack", unit="", of=_field("pack")),
        PartFigure(key="noise", title="noise", unit="dB(A)", of=_field("noise_dba"), ranged=True),
    ),
    "splitter": (PartFigure(key="joins", title="joins", unit="fans", of=_field("joins")),),
    "wireless": (),
    "optical": (),
    "system": (),
    "display": (
        PartFigure(key="across", title="across", unit="px", of=_field("width_px"), ranged=True),
        PartFigure(key="down", title="down", unit="px", of=_field("height_px")),
        PartFigure(key="hz", title="refresh", unit="Hz", of=_field("refresh_hz"), ranged=True),
        PartFigure(
            key="inch",
            title="diagonal",
            unit="inch",
            of=_field("diagonal_inch"),
            ranged=True,
            digits=1,
        ),
    ),
    "input": (),
}
EVERYWHERE = (
    _sieve("warranty", "warranty", "years", "warranty_years"),
    _sieve("score", "review score", "%", "review_percent"),
    _sieve("reviews", "number of reviews", "", "reviews"),
)
FIGURES: dict[Kind, tuple[PartFigure, ...]] = {
    kind: (*figures, *EVERYWHERE) for kind, figures in _OWN.items()
}
COLUMNS: dict[Kind, tuple[PartFigure, ...]] = {
    kind: tuple(figure for figure in figures if figure.column) for kind, figures in FIGURES.items()
}
FACETS: dict[Kind, tuple[Facet, ...]] = {
    "processor": (
        Facet("socket", "socket", _words("socket")),
        Facet("type", "memory", _words("memory_type")),
        MAKER,
    ),
    "graphics": (
        Facet("chip", "chip", _words("chip")),
        MAKER,
        Facet("outputs", "output", _words("outputs")),
    ),
    "mainboard": (
        Facet("socket", "socket", _words("socket")),
        Facet("form", "form factor", _words("form_factor")),
        Facet("chipset", "chipset", _words("chipset")),
        Facet("wireless", "wireless", lambda board: (board.wireless or "not known",)),
        Facet(
            "recovery",
            "firmware recovery",
            lambda board: (YES_OR_NO[board.firmware_recovery],),
        ),
    ),
    "memory": (
        Facet("type", "type", _words("memory_type")),
        Facet("sticks", "sticks", _words("sticks")),
        MAKER,
    ),
    "storage": (
        Facet("interface", "interface", _words("interface")),
        Facet("size", "size", _words("size")),
        MAKER,
    ),
    "cooler": (
        Facet("way", "kind", lambda cooler: ("liquid" if cooler.radiator_mm else "air",)),
        Facet("socket", "socket", _words("sockets")),
        MAKER,
    ),
    "supply": (
        Facet("form", "form factor", _words("form")),
        Facet("level", "80 PLUS", lambda supply: (supply.efficiency or "none stated",)),
        Facet("cables", "cables", lambda supply: (CABLES[supply.modular],)),
        Facet("protections", "protection", _words("protections")),
        MAKER,
    ),
    "case": (
        Facet(
            "form",
            "board",
            lambda case: tuple(form for form in BOARD_FORMS if form in case.board_forms),
        ),
        Facet("supply", "power supply", _words("supply_forms")),
        Facet("airflow", "air", _words("airflow")),
        COLOUR,
    ),
    "fan": (MAKER, Facet("lights", "lights", lambda fan: fan.lights or ("none",))),
    "splitter": (MAKER,),
    "wireless": (
        Facet("standard", "standard", _words("standard")),
        Facet("via", "connected by", _words("via")),
    ),
    "optical": (Facet("via", "connected by", _words("via")),),
    "system": (Facet("family", "family", _words("family")),),
    "display": (MAKER, Facet("inputs", "input", _words("inputs"))),
    "input": (Facet("what", "what", _words("what")), MAKER),
}


def figure_words(figure: PartFigure, part: Part) -> str:
    """The figure as it is written; a dash where it is not known or not there."""
    value = figure.of(part)
    if value is None:
        return "–"
    if value == 0 and figure.unit == "points":
        return "none"
    return f"{value:,.{figure.digits}f}"
