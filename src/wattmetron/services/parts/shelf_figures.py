"""Per kind: the figures that a list of parts shows and sorts by, and the facets that narrow it."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from wattmetron.core.frames.work import latency_ns
from wattmetron.core.values.parts import BOARD_FORMS, Kind, Part

Getter = Callable[[Any], float | int | None]


@dataclass(frozen=True, slots=True)
class PartFigure:
    """A figure of a kind: its heading and unit; ``ranged`` ones get a least and a most in the
    list's sieve.
    """

    key: str
    title: str
    unit: str
    of: Getter
    ranged: bool = False
    digits: int = 0


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
        return (
            value if isinstance(value, tuple) else (str(value),) if value not in (None, "") else ()
        )

    return of


def _radiators(part: Any) -> int | None:
    return max(
        (
            item
            for item in (part.radiator_front_mm, part.radiator_top_mm, part.radiator_rear_mm)
            if item
        ),
        default=None,
    )


MAKER = Facet("maker", "maker", lambda part: (part.maker,))
COLOUR = Facet("colour", "colour", _words("colour"))
FIGURES: dict[Kind, tuple[PartFigure, ...]] = {
    "processor": (
        PartFigure("s", "one core", "points", _field("single_speed"), True),
        PartFigure("t", "all cores", "points", _field("all_core_speed"), True),
        PartFigure("cores", "cores", "", _field("cores"), True),
        PartFigure("watts", "sustained", "W", _field("sustained_w"), True),
        PartFigure("integrated", "integrated", "points", _field("igpu_speed"), digits=1),
    ),
    "graphics": (
        PartFigure("r", "speed 1080p", "points", _field("speed_1080p"), True),
        PartFigure("q", "ray tracing", "points", _field("ray_speed"), True),
        PartFigure("gb", "video memory", "GB", _field("memory_gb"), True),
        PartFigure("watts", "board power", "W", _field("board_power_w"), True),
        PartFigure("length", "length", "mm", _field("length_mm"), True),
    ),
    "mainboard": (
        PartFigure("slots", "memory slots", "", _field("memory_slots")),
        PartFigure("m2", "M.2", "", _field("m2_slots"), True),
        PartFigure("sata", "SATA", "", _field("sata_ports"), True),
        PartFigure("watts", "processor power", "W", _field("processor_w"), True),
        PartFigure("gen", "PCIe", "", _field("card_pcie_gen")),
    ),
    "memory": (
        PartFigure("gb", "capacity", "GB", _field("total_gb"), True),
        PartFigure("mts", "rate", "MT/s", _field("mts"), True),
        PartFigure("ns", "latency", "ns", lambda kit: float(latency_ns(kit.cl, kit.mts)), digits=1),
        PartFigure("sticks", "sticks", "", _field("sticks")),
        PartFigure("height", "height", "mm", _field("height_mm"), True),
    ),
    "storage": (
        PartFigure("gb", "capacity", "GB", _field("capacity_gb"), True),
        PartFigure("read", "reads", "MB/s", _field("read_mbs"), True),
    ),
    "cooler": (
        PartFigure("watts", "carries", "W", _field("capacity_w"), True),
        PartFigure("height", "height", "mm", _field("height_mm"), True),
        PartFigure("noise", "noise", "dB(A)", _field("noise_dba"), True),
        PartFigure("radiator", "radiator", "mm", _field("radiator_mm")),
    ),
    "supply": (
        PartFigure("watts", "output", "W", _field("watts"), True),
        PartFigure("spike", "spikes", "W", _field("spike_w"), True),
        PartFigure("p8", "8-pin PCIe", "", _field("pcie_8pin")),
        PartFigure("p16", "16-pin PCIe", "", _field("pcie_16pin")),
        PartFigure("length", "length", "mm", _field("length_mm"), True),
    ),
    "case": (
        PartFigure("litres", "volume", "l", _field("volume_l"), True),
        PartFigure("card", "card up to", "mm", _field("card_length_mm"), True),
        PartFigure("cooler", "cooler up to", "mm", _field("cooler_height_mm"), True),
        PartFigure("radiator", "radiator up to", "mm", _radiators),
        PartFigure("fans", "fans", "", _field("fans_included")),
    ),
    "fan": (
        PartFigure("size", "size", "mm", _field("size_mm"), True),
        PartFigure("pack", "in the pack", "", _field("pack")),
        PartFigure("noise", "noise", "dB(A)", _field("noise_dba"), True),
    ),
    "wireless": (),
    "optical": (),
    "system": (),
    "display": (
        PartFigure("across", "across", "px", _field("width_px"), True),
        PartFigure("down", "down", "px", _field("height_px")),
        PartFigure("hz", "refresh", "Hz", _field("refresh_hz"), True),
        PartFigure("inch", "diagonal", "inch", _field("diagonal_inch"), True, 1),
    ),
    "input": (),
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
        Facet("wireless", "wireless", lambda board: (board.wireless or "none",)),
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
        Facet("level", "80 PLUS", lambda supply: (supply.efficiency or "none",)),
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
    return "–" if value is None else f"{value:,.{figure.digits}f}"
