"""What main memory brings to the frame model."""

from dataclasses import dataclass

from wattmetron.core.frames import work
from wattmetron.core.values.parts import Mainboard, Memory, Processor


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
    mts = min(memory.mts, processor.memory_max_mts)
    if mainboard is not None:
        mts = min(mts, mainboard.memory_max_mts)
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
