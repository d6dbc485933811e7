"""What draws: the card on its link, or integrated graphics."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from wattmetron.core.frames import work
from wattmetron.core.frames.memory_class import MemoryClass, rated_bandwidth_gbs
from wattmetron.core.speeds.speed_scale import anchors_of, variant_key
from wattmetron.core.values.affinity import UNSEEN, Affinity
from wattmetron.core.values.brief import Target
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.games import Game
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics, Mainboard, Processor
from wattmetron.core.values.seating import cabled, lanes_left, seating


def card_link(
    processor: Processor,
    mainboard: Mainboard | None,
    card: Graphics,
    drives: Sequence[Storage] = (),
    sata_taken: int = 0,
) -> tuple[int, int]:
    """Generation and lanes of the link to the card: the least of processor, slot and card; M.2
    drives may take lanes from the slot; ``sata_taken`` SATA ports are taken besides.
    """
    gens = [processor.card_pcie_gen, card.pcie_gen]
    lanes: list[int] = [processor.card_pcie_lanes, card.pcie_lanes]
    if mainboard is not None:
        gens.append(mainboard.card_pcie_gen)
        seats = seating(mainboard, drives, cabled(drives) + sata_taken)
        lanes.append(lanes_left(mainboard.card_pcie_lanes, seats.lanes_lost if seats else 0))
    return min(gens), min(lanes)


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawingSide:
    """The graphics side as the frame model sees it."""

    name: str
    anchors: tuple[float, float, float]
    speed_sd: float
    ray_speed: float
    ray_sd: float
    video_memory_gb: float
    link_gbs: float
    own_link_gbs: float
    upscalers: tuple[str, ...]
    generators: tuple[str, ...]

    def draws(self, game: Game, target: Target) -> work.Rendering:
        """How it draws a target."""
        return work.drawn(game, target, self.upscalers, self.generators)


def graphics_work(load: work.Workload, side: DrawingSide) -> work.GraphicsWork:
    """Graphics time per frame of one target on what draws."""
    return work.graphics_work(
        load,
        side.anchors,
        side.ray_speed,
        side.video_memory_gb,
        side.link_gbs,
        side.own_link_gbs,
    )


def affinities(machine: Machine, game: Game) -> tuple[Affinity, Affinity]:
    """What a game's results told about a machine's processor and card; of integrated graphics
    nothing.
    """
    chip, card = machine.processor, machine.graphics
    return (
        UNSEEN if chip is None else game.affinity("processor", chip.id, chip.design),
        (
            UNSEEN
            if card is None
            else game.affinity("graphics", variant_key(card.chip, card.memory_gb), card.design)
        ),
    )


def drawing_side(machine: Machine, memory: MemoryClass) -> DrawingSide:
    """The card's figures, or those of the integrated graphics fed by main memory.

    Integrated: R scales with (bandwidth / rated)^0.6, video memory is half of main memory and the
    link is the memory itself.
    """
    chip, card = machine.processor, machine.graphics
    assert chip is not None
    if card is not None:
        gen, lanes = card_link(chip, machine.mainboard, card, machine.storage, machine.sata_optical)
        return DrawingSide(
            name=card.name,
            anchors=anchors_of(card),
            speed_sd=card.speed_sd,
            ray_speed=card.ray_speed or np.nan,
            ray_sd=card.ray_speed_sd,
            video_memory_gb=card.memory_gb,
            link_gbs=float(work.link_gbs(gen, lanes)),
            own_link_gbs=float(work.link_gbs(card.pcie_gen, card.pcie_lanes)),
            upscalers=card.upscalers,
            generators=card.generators,
        )
    assert chip.igpu_speed
    scale = (memory.bandwidth_gbs / rated_bandwidth_gbs(chip)) ** work.INTEGRATED_EXPONENT
    speed = chip.igpu_speed * scale
    return DrawingSide(
        name=f"{chip.name}, integrated",
        anchors=(speed, speed, speed),
        speed_sd=chip.speed_sd,
        ray_speed=np.nan,
        ray_sd=0.0,
        video_memory_gb=memory.total_gb * work.INTEGRATED_MEMORY_SHARE,
        link_gbs=memory.bandwidth_gbs,
        own_link_gbs=memory.bandwidth_gbs,
        upscalers=chip.igpu_upscalers,
        generators=(),
    )
