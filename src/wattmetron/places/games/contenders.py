"""Who is measured against published tiers: a build, an owned machine, or loose parts typed in."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError
from wattmetron.core.frames.drawing_side import drawing_side
from wattmetron.core.frames.memory_class import memory_class
from wattmetron.core.requirements.verdicts import Contender
from wattmetron.core.speeds.speed_scale import Standing, anchors_of, scale_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import STORAGE_KINDS, StorageKind
from wattmetron.core.values.published import Side, Tier


class NothingTypedError(InvalidError):
    """Loose parts in which nothing is a part, an amount or a system."""

    def __init__(self) -> None:
        super().__init__(
            "Nothing of what was typed is a part or an amount: type for example “Heron Dun 6, Reef"
            " 8 GB, 16 GB memory”."
        )


def machine_contender(machine: Machine, system: str = "") -> Contender:
    """A machine's own figures; without a card its integrated graphics count."""
    chip, card = machine.processor, machine.graphics
    drives = machine.storage
    common = Contender(
        processor=None if chip is None else (chip.single_speed, chip.all_core_speed),
        processor_name="" if chip is None else chip.name,
        processor_sd=0.0 if chip is None else chip.speed_sd,
        memory_gb=None if machine.memory is None else machine.memory.total_gb,
        storage_gb=float(sum(drive.capacity_gb for drive in drives)) if drives else None,
        storage_kind=_best_kind(drives),
        system=system,
    )
    if card is not None:
        return replace(
            common,
            graphics=anchors_of(card),
            graphics_name=card.name,
            graphics_sd=card.speed_sd,
            ray_speed=card.ray_speed or None,
            video_memory_gb=card.memory_gb,
            apis=card.apis,
        )
    if chip is None or not chip.draws:
        return common
    side = drawing_side(machine, memory_class(chip, machine.mainboard, machine.memory))
    return replace(
        common,
        graphics=side.anchors,
        graphics_name=side.name,
        graphics_sd=side.speed_sd,
        video_memory_gb=side.video_memory_gb,
        apis=chip.igpu_apis,
    )


def _best_kind(drives: tuple[Storage, ...]) -> StorageKind | None:
    return max((drive.kind for drive in drives), key=STORAGE_KINDS.index, default=None)


def typed_contender(catalogue: Catalogue, text: str) -> Contender:
    """Loose parts as somebody types them, read as a tier would be; raises for a text that says
    nothing.
    """
    tier = reader_of(catalogue).read(text).tiers[0]
    processor = _listed(catalogue, tier, "processor")
    graphics = _listed(catalogue, tier, "graphics")
    contender = Contender(
        memory_gb=tier.memory_gb,
        storage_gb=tier.storage_gb,
        storage_kind=tier.storage_kind,
        system=tier.system,
        apis=(tier.api,) if tier.api else _apis(catalogue, graphics),
        video_memory_gb=tier.video_memory_gb or (graphics.memory_gb if graphics else None),
    )
    if processor is not None:
        contender = replace(
            contender,
            processor=(processor.speeds[0], processor.speeds[1]),
            processor_name=processor.name,
            processor_sd=processor.sd,
        )
    if graphics is not None:
        contender = replace(
            contender,
            graphics=(graphics.speeds[0], graphics.speeds[1], graphics.speeds[2]),
            graphics_name=graphics.name,
            graphics_sd=graphics.sd,
            ray_speed=graphics.ray_speed,
        )
    if contender == Contender():
        raise NothingTypedError
    return contender


def _listed(catalogue: Catalogue, tier: Tier, side: Side) -> Standing | None:
    scale = scale_of(catalogue)
    for listed in tier.listed(side):
        meant = scale.meant(listed.part, side, listed.memory_gb) if listed.part else ()
        if meant:
            return meant[0]
    return None


def _apis(catalogue: Catalogue, graphics: Standing | None) -> tuple[str, ...]:
    if graphics is None or not graphics.part_ids:
        return ()
    part = catalogue.part(graphics.part_ids[0])
    apis: tuple[str, ...] = getattr(part, "apis", ())
    return apis
