"""Classes of processor that the same boards and kits suit, and what their options are."""

from dataclasses import dataclass, fields
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames.memory_class import memory_rates
from wattmetron.core.search.candidate_pool import Pool
from wattmetron.core.search.row_keys import Ints
from wattmetron.core.values.parts import Processor
from wattmetron.core.values.sockets import socket_key

Floats = NDArray[np.float64]


class PlatformClass(NamedTuple):
    """What of a processor decides which boards and kits go with it."""

    socket: str
    memory: tuple[tuple[str, int], ...]
    """Memory types with their highest rates in MT/s, that of its rated memory first."""
    channels: int
    max_gb: float
    full_mts: int
    """Of the first type with two sticks on a channel; 0 where it is not stated."""
    family: str
    """Of its firmware, where not every board starts it as it is bought."""


class PlatformKey(NamedTuple):
    """A class of processors and a level of the power that boards must deliver to it."""

    kind: PlatformClass
    power_level: int


def platform_key(chip: Processor, pool: Pool) -> PlatformKey:
    """The key of a processor; its power counts only as far as boards differ in what they
    deliver.
    """
    (level,) = pool.powers.levels([pool.floors.delivered_w(chip)])
    kind = PlatformClass(
        socket_key(chip.socket),
        tuple(memory_rates(chip).items()),
        chip.memory_channels,
        chip.memory_max_gb,
        chip.memory_full_mts or 0,
        chip.firmware_family if chip.firmware_family in pool.board_arrays.starts else "",
    )
    return PlatformKey(kind, int(level))


@dataclass(frozen=True, kw_only=True)
class Options:
    """Options of one processor class as equally long arrays; ``frames`` numbers what bears on frame
    rates.
    """

    cost: Ints
    form: Ints
    leads: Ints
    memory_level: Ints
    bays: Ints
    cards: Ints
    rest_w: Ints
    link_gen: Ints
    link_lanes: Ints
    power_level: Ints
    latency_ns: Floats
    bandwidth_gbs: Floats
    gb: Floats
    frames: Ints

    def __len__(self) -> int:
        return int(self.cost.size)

    def taken(self, rows: NDArray[Any]) -> "Options":
        """Some of the options."""
        return Options(**{item.name: getattr(self, item.name)[rows] for item in fields(Options)})


def joined_options(pieces: list[Options]) -> Options:
    names = [item.name for item in fields(Options)]
    return Options(
        **{name: np.concatenate([getattr(piece, name) for piece in pieces]) for name in names}
    )


PARTIAL = ("latency_ns", "bandwidth_gbs", "gb")
NO_OPTIONS = Options(
    **{
        item.name: np.empty(0, dtype=float if item.name in PARTIAL else np.int64)
        for item in fields(Options)
    }
)
