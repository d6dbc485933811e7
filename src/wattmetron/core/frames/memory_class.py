"""What main memory brings to the frame model."""

from collections.abc import Iterable
from dataclasses import dataclass

from wattmetron.core.frames import work
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.parts import Mainboard, Processor

RATES_MTS = {
    "DDR3": (800, 1066, 1333, 1600, 1866, 2133, 2400),
    "DDR4": (1600, 1866, 2133, 2400, 2666, 2933, 3200, 3466, 3600, 3733, 4000, 4266, 4400, 4600),
    "DDR5": (3200, 3600, 4000, 4400, 4800, 5200, 5600, 6000, 6400, 6800, 7200, 7600, 8000, 8400),
}
"""Usual transfer rates, a step each."""
STEPS_LOWER = 2


def rate_below(memory_type: str, mts: int) -> int:
    """Two steps under a rate: what is assumed with two sticks on a channel where nothing is
    stated.
    """
    steps = [rate for rate in RATES_MTS[memory_type] if rate <= mts]
    return steps[max(0, len(steps) - 1 - STEPS_LOWER)] if steps else mts


def full_mts(memory_type: str, most_mts: int, stated: Iterable[int | None]) -> int:
    """The rate with two sticks on a channel, where without them it is ``most_mts``: as processor
    and board state it, or else two steps lower.
    """
    known = [rate for rate in stated if rate]
    return min(most_mts, *known) if known else rate_below(memory_type, most_mts)


def memory_rates(processor: Processor) -> dict[str, int]:
    """Memory types that a processor takes with their highest transfer rates in MT/s, that of its
    rated memory first.
    """
    others = (entry.partition("=") for entry in processor.other_memory)
    known = {
        name.strip(): int(rate)
        for name, _, rate in others
        if name.strip() in RATES_MTS and rate.strip().isdecimal()
    }
    return {processor.memory_type: processor.memory_max_mts} | known


def usable_mts(processor: Processor, mainboard: Mainboard | None, sticks: int) -> int:
    """The rate up to which so many sticks run on processor and board."""
    kind = mainboard.memory_type if mainboard else processor.memory_type
    most_mts = memory_rates(processor).get(kind, processor.memory_max_mts)
    stated = [processor.memory_full_mts if kind == processor.memory_type else None]
    if mainboard is not None:
        most_mts = min(most_mts, mainboard.memory_max_mts)
        stated.append(mainboard.memory_full_mts)
    return most_mts if sticks <= processor.memory_channels else full_mts(kind, most_mts, stated)


def rated_latency_ns(processor: Processor) -> float:
    return float(work.latency_ns(processor.memory_cl, processor.memory_mts))


def rated_bandwidth_gbs(processor: Processor) -> float:
    return float(work.bandwidth_gbs(processor.memory_channels, processor.memory_mts))


@dataclass(frozen=True, slots=True, kw_only=True)
class MemoryClass:
    """What main memory brings to the frame model, together with processor and board."""

    latency_ns: float
    bandwidth_gbs: float
    channels: int
    mts: int
    total_gb: float
    assumed: bool


def memory_class(
    processor: Processor, mainboard: Mainboard | None, memory: Memory | None
) -> MemoryClass:
    """Latency of the kit, bandwidth at the rate that kit, processor and board all reach.

    Without a kit the processor's rated memory is assumed, 16 GB of it.
    """
    if memory is None:
        return MemoryClass(
            latency_ns=rated_latency_ns(processor),
            bandwidth_gbs=rated_bandwidth_gbs(processor),
            channels=processor.memory_channels,
            mts=processor.memory_mts,
            total_gb=16.0,
            assumed=True,
        )
    mts = min(memory.mts, usable_mts(processor, mainboard, memory.sticks))
    channels = min(memory.sticks, processor.memory_channels)
    ranks = memory.ranks * memory.sticks // channels
    return MemoryClass(
        latency_ns=float(work.latency_ns(memory.cl, memory.mts)),
        bandwidth_gbs=float(work.bandwidth_gbs(channels, mts, ranks)),
        channels=channels,
        mts=mts,
        total_gb=memory.total_gb,
        assumed=False,
    )
