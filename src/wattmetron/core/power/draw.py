"""What a machine draws, in W: in games, with everything sustained, and in short spikes."""

from dataclasses import dataclass
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.values.machine import Machine

BOARD_W = 30
FANS_W = 8
STICK_W = 3
"""Usual figures: a board with its chipset, all fans of a case, a stick of memory."""
IDLE_CARD_SHARE = 0.08
"""What a second card draws, as a share of its board power, in games that leave it idle."""
DRIVE_W = {"M.2 NVMe": 7, "SATA": 5}


def rest_w(sticks: int, nvme: int, sata: int) -> int:
    """Board, fans, memory and drives, from a table of usual figures per kind."""
    return BOARD_W + FANS_W + STICK_W * sticks + DRIVE_W["M.2 NVMe"] * nvme + DRIVE_W["SATA"] * sata


def spike_of_card_w(board_power_w: int, factor: float) -> int:
    """Short spike of a card: board power x spike factor, rounded up to whole watts."""
    return -int(-round(board_power_w * factor * 1000) // 1000)


Watts = TypeVar("Watts", int, NDArray[np.int64])


def needed_supply_w(full_w: Watts, headroom_percent: int, reserve_percent: int = 0) -> Watts:
    """Least rated output: full draw x headroom, with a reserve on top, rounded up."""
    return -(-full_w * headroom_percent * (100 + reserve_percent) // 10_000)


@dataclass(frozen=True, slots=True, kw_only=True)
class Draw:
    """Draw in W; ``gaming_w`` is the heaviest target's, or None without an estimate."""

    processor_w: int
    graphics_w: int
    rest_w: int
    spike_w: int
    gaming_w: float | None

    @property
    def full_w(self) -> int:
        return self.processor_w + self.graphics_w + self.rest_w


def busy_shares(estimate: Estimate) -> tuple[float, float]:
    """Shares (0–1) of the (capped) mean frame in which processor and graphics are busy."""
    capped = estimate.capped_fps
    frame_ms = estimate.shown * 1000 / capped if capped else estimate.mean_frame_ms
    if not frame_ms:
        return 0.0, 0.0
    return min(1.0, estimate.processor_ms / frame_ms), min(1.0, estimate.graphics_ms / frame_ms)


def gaming_w(machine: Machine, estimate: Estimate, rest: int) -> float:
    """Gaming draw in one target: each side's power by its busy share of the (capped) mean frame."""
    chip, card = machine.processor, machine.graphics
    busy_c, busy_g = busy_shares(estimate)
    idle = IDLE_CARD_SHARE * machine.second_card.board_power_w if machine.second_card else 0.0
    return (
        (chip.gaming_w * busy_c if chip else 0.0)
        + (card.board_power_w * busy_g if card else 0.0)
        + idle
        + rest
    )


def draw(machine: Machine, estimates: tuple[Estimate, ...] = ()) -> Draw:
    """Draw of what is in the machine so far."""
    sticks = machine.memory.sticks if machine.memory else 0
    nvme = sum(drive.kind == "NVMe SSD" for drive in machine.storage)
    rest = rest_w(sticks, nvme, len(machine.storage) - nvme) + machine.added_w
    chip_w = machine.processor.sustained_w if machine.processor else 0
    cards = [card for card in (machine.graphics, machine.second_card) if card is not None]
    card_w = sum(card.board_power_w for card in cards)
    spike = sum(spike_of_card_w(card.board_power_w, card.spike_factor) for card in cards)
    gaming = [
        gaming_w(machine, estimate, rest)
        for estimate in estimates
        if not estimate.cannot or estimate.cap_fps
    ]
    return Draw(
        processor_w=chip_w,
        graphics_w=card_w,
        rest_w=rest,
        spike_w=chip_w + spike + rest,
        gaming_w=max(gaming) if gaming else None,
    )
