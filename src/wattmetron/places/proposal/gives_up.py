"""What one part gives up against another."""

from collections.abc import Iterator

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor
from wattmetron.core.values.trust import TRUSTS, trust_of

Figure = tuple[str, float | None, str]
"""What it is called, how much (None: not known), and its unit; more is better."""


def gives_up(old: Part, new: Part) -> str:
    """What was perhaps bought on purpose and is less with the other part: trust, warranty, quiet,
    and its figures.
    """
    sentences = []
    if TRUSTS.index(trust_of(new)) < TRUSTS.index(trust_of(old)):
        sentences.append(f"{trust_of(new)} instead of {trust_of(old)}")
    before, after = (getattr(part, "noise_dba", None) for part in (old, new))
    if before is not None and after is not None and after > before:
        sentences.append(f"{after:g} dB(A) instead of {before:g}")
    had, has = [*_figures(old)], {name: value for name, value, _ in _figures(new)}
    for name, value, unit in had:
        then = has.get(name)
        if value and then is None:
            sentences.append(f"{name} not known instead of {_shown(value)} {unit}".rstrip())
        elif value and then is not None and then < value:
            sentences.append(f"{_amount(name, then, unit)} instead of {_shown(value)}")
    return "; ".join(sentences) or "nothing that is known"


def _amount(name: str, value: float, unit: str) -> str:
    figure = f"{_shown(value)} {unit}".rstrip()
    return f"{name} {figure}" if unit != name else f"{_shown(value)} {unit}"


def _shown(value: float) -> str:
    return f"{round(value, 1):,g}"


def _figures(part: Part) -> Iterator[Figure]:
    yield "warranty", part.warranty_years, "years"
    match part:
        case Processor():
            yield "one core", part.single_speed, ""
            yield "all cores", part.all_core_speed, ""
            yield "cores", part.cores, "cores"
            yield "integrated graphics", part.igpu_speed, ""
        case Graphics():
            yield "speed", part.speed_1080p, ""
            yield "ray tracing", part.ray_speed, ""
            yield "video memory", part.memory_gb, "GB"
        case Mainboard():
            yield "memory slots", part.memory_slots, "memory slots"
            yield "M.2 places", part.m2_slots, "M.2 places"
            yield "card slot PCIe", part.card_pcie_gen, ""
            yield "memory up to", part.memory_max_mts, "MT/s"
            yield "fan headers", part.fan_headers, "fan headers"
            yield "USB at the rear", part.rear_usb, ""
        case Memory():
            yield "memory", part.total_gb, "GB"
            yield "rate", part.mts, "MT/s"
            yield "sticks", part.sticks, "sticks"
        case Storage():
            yield "room", part.capacity_gb, "GB"
            yield "reads", part.read_mbs, "MB/s"
        case Cooler():
            yield "carries", part.capacity_w, "W"
        case PowerSupply():
            yield "gives", part.watts, "W"
            yield "stands spikes of", part.spike_w, "W"
            yield "8-pin leads", part.pcie_8pin, "8-pin leads"
            yield "16-pin leads", part.pcie_16pin, "16-pin leads"
        case Case():
            yield "fans", part.fans_included, "fans"
            yield "room for a card", part.card_length_mm, "mm"
            yield "room for a cooler", part.cooler_height_mm, "mm"
