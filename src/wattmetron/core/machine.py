"""A machine: the parts of a build, looked up, with what they amount to together."""

from dataclasses import dataclass, replace
from typing import cast

import numpy as np

from wattmetron.core.frames import work
from wattmetron.core.games import Game
from wattmetron.core.games.affinity import UNSEEN, Affinity
from wattmetron.core.parts import (
    ALL_KINDS,
    FURTHER_KINDS,
    Case,
    Cooler,
    Fan,
    Graphics,
    Kind,
    Mainboard,
    Memory,
    Part,
    PowerSupply,
    Processor,
    Storage,
    kind_of,
)
from wattmetron.core.scale import anchors_of, variant_key


def rated_latency_ns(processor: Processor) -> float:
    return float(work.latency_ns(processor.memory_cl, processor.memory_mts))


def rated_bandwidth_gbs(processor: Processor) -> float:
    return float(work.bandwidth_gbs(processor.memory_channels, processor.memory_mts))


@dataclass(frozen=True, slots=True)
class Machine:
    """Looked-up parts; any place can be empty."""

    processor: Processor | None = None
    graphics: Graphics | None = None
    mainboard: Mainboard | None = None
    memory: Memory | None = None
    storage: tuple[Storage, ...] = ()
    cooler: Cooler | None = None
    supply: PowerSupply | None = None
    case: Case | None = None
    added: tuple[Part, ...] = ()
    kits: tuple[Memory, ...] = ()
    """The single kits where ``memory`` stands for several."""
    second_card: Graphics | None = None

    def of(self, kind: Kind) -> tuple[Part, ...]:
        if kind in FURTHER_KINDS:
            return tuple(part for part in self.added if kind_of(part) == kind)
        if kind == "memory" and self.kits:
            return self.kits
        if kind == "graphics":
            return tuple(card for card in (self.graphics, self.second_card) if card is not None)
        found = getattr(self, kind)
        if kind == "storage":
            return tuple(found)
        return (found,) if found is not None else ()

    def with_part(self, kind: Kind, part: Part) -> "Machine":
        """This machine with a part in its place; a drive comes beside the others."""
        if kind in FURTHER_KINDS:
            return replace(self, added=(*self.added, part))
        if kind == "memory":
            return replace(self, memory=cast(Memory, part), kits=())
        place = (*self.storage, part) if kind == "storage" else part
        return replace(self, **{kind: place})  # type: ignore[arg-type]

    def hastened(self, game: Game) -> float:
        """How many times as fast as the card alone both cards are in a game: 1 without evidence of
        a gain.
        """
        pair = (
            self.second_card is not None
            and self.graphics is not None
            and self.second_card.chip == self.graphics.chip
        )
        return 1 + game.second_card_gain if pair else 1.0

    def parts(self) -> tuple[Part, ...]:
        return tuple(part for kind in ALL_KINDS for part in self.of(kind))

    @property
    def fans(self) -> int:
        """Fans for the case: included ones and added ones."""
        included = self.case.fans_included if self.case else 0
        return included + sum(part.pack for part in self.added if isinstance(part, Fan))

    @property
    def uses_integrated(self) -> bool:
        return (
            self.graphics is None
            and self.processor is not None
            and self.processor.igpu_speed is not None
        )

    @property
    def can_draw(self) -> bool:
        """Whether there is a processor and something that draws, so that frames can be
        estimated.
        """
        return self.processor is not None and (self.graphics is not None or self.uses_integrated)

    @property
    def boxed_suffices(self) -> bool:
        """Whether the processor comes with a cooler that carries its sustained power."""
        chip = self.processor
        return (
            chip is not None
            and chip.boxed_cooler_w is not None
            and chip.boxed_cooler_w >= chip.sustained_w
        )

    def missing(self) -> tuple[Kind, ...]:
        """Kinds that still have to be filled before the machine is whole."""
        needed: list[Kind] = ["processor", "mainboard", "memory", "storage", "supply", "case"]
        if not self.uses_integrated:
            needed.insert(1, "graphics")
        if not self.boxed_suffices:
            needed.insert(-2, "cooler")
        return tuple(kind for kind in needed if not self.of(kind))


@dataclass(frozen=True, slots=True)
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
            rated_latency_ns(processor),
            rated_bandwidth_gbs(processor),
            processor.memory_channels,
            processor.memory_mts,
            16.0,
            True,
        )
    mts = min(memory.mts, processor.memory_max_mts)
    if mainboard is not None:
        mts = min(mts, mainboard.memory_max_mts)
    channels = min(memory.sticks, processor.memory_channels)
    ranks = memory.ranks * memory.sticks // channels
    return MemoryClass(
        float(work.latency_ns(memory.cl, memory.mts)),
        float(work.bandwidth_gbs(channels, mts, ranks)),
        channels,
        mts,
        memory.total_gb,
        False,
    )


def card_link(processor: Processor, mainboard: Mainboard | None, card: Graphics) -> tuple[int, int]:
    """Generation and lanes of the link to the card: the least of processor, slot and card."""
    gens, lanes = (
        [processor.card_pcie_gen, card.pcie_gen],
        [processor.card_pcie_lanes, card.pcie_lanes],
    )
    if mainboard is not None:
        gens.append(mainboard.card_pcie_gen)
        lanes.append(mainboard.card_pcie_lanes)
    return min(gens), min(lanes)


@dataclass(frozen=True, slots=True)
class DrawingSide:
    """The graphics side as the frame model sees it."""

    name: str
    anchors: tuple[float, float, float]
    speed_sd: float
    ray_speed: float
    ray_sd: float
    video_memory_gb: float
    link_gbs: float
    upscalers: tuple[str, ...]


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
        gen, lanes = card_link(chip, machine.mainboard, card)
        return DrawingSide(
            card.name,
            anchors_of(card),
            card.speed_sd,
            np.nan if card.ray_speed is None else card.ray_speed,
            card.ray_speed_sd,
            card.memory_gb,
            float(work.link_gbs(gen, lanes)),
            card.upscalers,
        )
    assert chip.igpu_speed is not None
    scale = (memory.bandwidth_gbs / rated_bandwidth_gbs(chip)) ** work.INTEGRATED_EXPONENT
    speed = chip.igpu_speed * scale
    return DrawingSide(
        f"{chip.name}, integrated",
        (speed, speed, speed),
        chip.speed_sd,
        np.nan,
        0.0,
        memory.total_gb * work.INTEGRATED_MEMORY_SHARE,
        memory.bandwidth_gbs,
        chip.igpu_upscalers,
    )
