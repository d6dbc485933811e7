"""The tables of parts as parts, each with its usual price in EUR; series are spelt out size by size
and socket by socket.
"""

import re
from collections.abc import Iterator
from datetime import date
from types import SimpleNamespace
from typing import Any

from tools.world.tables import items, rows
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_types import PART_TYPES
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor
from wattmetron.formats.columns import columns_of, reader_of

Priced = Iterator[tuple[Part, float]]
GENERATIONS = ("Neap", "Ebb", "Flood", "Moss", "Dun", "Slate")
CHIP_DESIGNS = ((2015, "Marl"), (2021, "Chalk"), (2024, "Flint"))
"""From which year on chips are of a design; games take to alike ones alike."""
BOXED_MEASURED_FROM = 2020
"""Of older boxed coolers nobody wrote the height down."""
DRIVE_SIZES_GB = (250, 500, 1000, 2000, 4000, 8000)
SUPPLY_SIZES_W = (450, 550, 650, 750, 850, 1000)


def slug(*words: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", " ".join(words).lower()).strip("-")


def processors(table: str) -> Priced:
    sockets = {row.socket: row for row in rows("sockets")}
    for row in rows(table):
        platform = sockets[row.socket]
        yield (
            Processor(
                **named(row),
                socket=row.socket,
                cores=row.cores,
                threads=row.threads,
                single_speed=float(row.single_speed),
                all_core_speed=float(row.all_core_speed),
                speed_sd=0.03 if row.released.year >= 2024 else 0.02,
                memory_type=platform.memory_type,
                memory_mts=platform.mts,
                memory_cl=platform.cl,
                memory_channels=2,
                memory_max_mts=platform.max_mts,
                memory_max_gb=float(platform.max_gb),
                card_pcie_gen=platform.pcie_gen,
                card_pcie_lanes=platform.pcie_lanes,
                sustained_w=row.sustained_w,
                gaming_w=row.gaming_w,
                igpu_speed=float(row.igpu_speed or 0),
                igpu_upscalers=("Spyglass",) if (row.igpu_speed or 0) > 15 else (),
                boxed_cooler_w=row.boxed_w or 0,
                **boxed_cooler(row.boxed_w, row.released),
                released=row.released,
                withdrawn=row.withdrawn,
                igpu_apis=apis(row.released) if row.igpu_speed else (),
                design=f"{row.maker} {next(word for word in GENERATIONS if word in row.model)}",
                notes=(
                    "Made for rendering and compiling; many slow cores."
                    if "Foundry" in row.model
                    else ""
                ),
            ),
            row.eur,
        )


def named(row: SimpleNamespace, *more: str) -> dict[str, str]:
    """What every part has: the identifier from its name, the maker, the model."""
    return {
        "id": slug(row.maker, str(row.model), *more),
        "maker": row.maker,
        "model": " ".join((str(row.model), *more)),
    }


def boxed_cooler(carries_w: int | None, released: date) -> dict[str, Any]:
    """Height and noise of a boxed cooler."""
    if carries_w is None:
        return {}
    height = None if released.year < BOXED_MEASURED_FROM else 30 + round(carries_w * 0.45)
    return {"boxed_height_mm": height, "boxed_noise_dba": 34.0 + carries_w // 20}


def generators(upscalers: tuple[str, ...], released: date) -> tuple[str, ...]:
    """The made-up frame generators that a card can run: one of any newer card, one of its maker."""
    any_card = ("Halfwake",) if upscalers and released.year >= 2023 else ()
    by_maker = ("Interswell",) if "Driftlens" in upscalers and released.year >= 2025 else ()
    return (*any_card, *by_maker)


def apis(released: date) -> tuple[str, ...]:
    """The made-up graphics API at the level of the day."""
    return ("Fairlead 11",) if released.year < 2018 else ("Fairlead 11", "Fairlead 12")


def cards(chips: str, partners: str = "partners") -> Priced:
    """Every chip as its partners sell it, where its wattage suits their coolers."""
    for chip in rows(chips):
        for partner in rows(partners):
            too_hot = partner.trim == "Short" and chip.watts > 260
            if chip.watts >= partner.from_w and not too_hot:
                yield card(chip, partner), chip.eur * partner.price_factor


def card(chip: SimpleNamespace, partner: SimpleNamespace) -> Graphics:
    upscalers, clock = items(chip.upscalers), partner.clock_factor
    design = next(word for year, word in reversed(CHIP_DESIGNS) if chip.released.year >= year)
    return Graphics(
        id=slug(partner.partner, chip.chip, str(chip.gb), partner.trim),
        maker=partner.partner,
        model=f"{chip.maker} {chip.chip} {chip.gb} GB {partner.trim}",
        chip=f"{chip.maker} {chip.chip}",
        speed_1080p=round(chip.speed_1080p * clock, 1),
        speed_1440p=round(chip.speed_1440p * clock, 1),
        speed_2160p=round(chip.speed_2160p * clock, 1),
        speed_sd=0.03,
        ray_speed=round((chip.ray_speed or 0) * clock, 1),
        ray_speed_sd=0.05,
        memory_gb=float(chip.gb),
        pcie_gen=chip.pcie_gen,
        pcie_lanes=chip.pcie_lanes,
        board_power_w=round(chip.watts * (1.06 if partner.trim == "Triple" else 1.0)),
        spike_factor=chip.spike_factor,
        length_mm=round(partner.length_mm + partner.length_mm_per_w * chip.watts),
        pcie_8pin=chip.pcie_8pin,
        pcie_16pin=chip.pcie_16pin,
        outputs=("DisplayPort", "HDMI"),
        upscalers=upscalers,
        generators=generators(upscalers, chip.released),
        released=chip.released,
        withdrawn=chip.withdrawn,
        apis=apis(chip.released),
        design=f"{chip.maker} {design}",
    )


def boards() -> Priced:
    for row in rows("mainboards"):
        yield board(row), row.eur


def series_boards() -> Priced:
    """Every series of boards on every platform."""
    for row in rows("board_series"):
        for platform in rows("platforms"):
            chipsets = (platform.plain_chipset, platform.usual_chipset, platform.grand_chipset)
            gen = platform.pcie_gen if row.chipset_level else max(3, platform.pcie_gen - 1)
            two = row.memory_slots == 2
            spelt_out = SimpleNamespace(
                **vars(row),
                model=f"{row.series} {platform.socket}",
                socket=platform.socket,
                chipset=chipsets[row.chipset_level],
                memory_type=platform.memory_type,
                memory_gb=platform.two_slots_gb if two else platform.four_slots_gb,
                memory_mts=platform.mts,
                pcie_gen=gen,
            )
            yield board(spelt_out), row.eur_ddr5 if platform.memory_type == "DDR5" else row.eur_ddr4


def board(row: SimpleNamespace) -> Mainboard:
    return Mainboard(
        **named(row),
        socket=row.socket,
        chipset=row.chipset,
        form_factor=row.form,
        memory_type=row.memory_type,
        memory_slots=row.memory_slots,
        memory_max_gb=float(row.memory_gb),
        memory_max_mts=row.memory_mts,
        card_pcie_gen=row.pcie_gen,
        card_pcie_lanes=16,
        m2_slots=row.m2_slots,
        sata_ports=row.sata_ports,
        cpu_8pin=row.cpu_8pin,
        outputs=items(row.outputs),
    )


def kits(table: str) -> Priced:
    for row in rows(table):
        yield kit(row), row.eur


def series_kits() -> Priced:
    """Every series of kits in every size."""
    for row in rows("kit_series"):
        for size in rows("kit_sizes"):
            gb = size.sticks * size.stick_gb
            spelt_out = SimpleNamespace(
                **{**vars(size), **vars(row)}, model=f"{row.series} {gb} {size.word}"
            )
            yield kit(spelt_out), round(row.eur + row.eur_per_gb * gb)


def kit(row: SimpleNamespace) -> Memory:
    return Memory(
        **named(row, row.memory_type),
        memory_type=row.memory_type,
        mts=row.mts,
        cl=row.cl,
        sticks=row.sticks,
        stick_gb=float(row.stick_gb),
        ranks=row.ranks,
    )


def drives(table: str) -> Priced:
    for row in rows(table):
        yield drive(row), row.eur


def series_drives() -> Priced:
    for row in rows("drive_series"):
        for gb in DRIVE_SIZES_GB:
            spelt_out = SimpleNamespace(**vars(row), model=f"{row.series} {gb}", gb=gb)
            yield drive(spelt_out), round(row.eur + row.eur_per_tb * gb / 1000)


def drive(row: SimpleNamespace) -> Storage:
    return Storage(**named(row), interface=row.interface, capacity_gb=row.gb, read_mbs=row.read_mbs)


def coolers(table: str) -> Priced:
    for row in rows(table):
        liquid = hasattr(row, "radiator_mm")
        size = {"radiator_mm": row.radiator_mm} if liquid else {}
        cooler = Cooler(
            **named(row),
            sockets=items(row.sockets),
            height_mm=row.pump_mm if liquid else row.height_mm,
            capacity_w=row.capacity_w,
            noise_dba=row.noise_dba,
            **size,
        )
        yield cooler, row.eur


def supplies(table: str) -> Priced:
    for row in rows(table):
        yield supply(row), row.eur


def series_supplies() -> Priced:
    """Every series of supplies in every size; the best is not made small."""
    for row in rows("supply_series"):
        for watts in SUPPLY_SIZES_W:
            small = watts < 650
            if row.series == "Bedrock" and small:
                continue
            spelt_out = SimpleNamespace(
                **vars(row),
                model=f"{row.series} {watts}",
                watts=watts,
                spike_w=round(watts * row.spike_share / 10) * 10,
                cpu_8pin=1 if small else 2,
                pcie_8pin=2 if small else 4,
                pcie_16pin=int(watts >= row.pcie_16pin_from_w),
            )
            yield supply(spelt_out), round(row.eur + row.eur_per_100_w * watts / 100)


def supply(row: SimpleNamespace) -> PowerSupply:
    return PowerSupply(
        **named(row),
        watts=row.watts,
        spike_w=row.spike_w,
        form=row.form,
        cpu_8pin=row.cpu_8pin,
        pcie_8pin=row.pcie_8pin,
        pcie_16pin=row.pcie_16pin,
        efficiency=row.efficiency or "",
        notes="No test result and no protections named." if "Bargain" in row.model else "",
    )


def cases(table: str) -> Priced:
    for row in rows(table):
        case = Case(
            **named(row),
            board_forms=items(row.boards),
            supply_forms=items(row.supplies),
            card_length_mm=row.card_mm,
            cooler_height_mm=row.cooler_mm,
            fans_included=row.fans,
            volume_l=float(row.litres),
            airflow=row.airflow,
        )
        yield case, row.eur


def further_parts() -> Priced:
    """Parts of every other kind: what each has stands as name=value."""
    for row in rows("further_parts"):
        kind = PART_TYPES[row.kind]
        specs = {spec.name: spec for spec in columns_of(kind)}
        details = dict(detail.split("=") for detail in row.details.split("; "))
        values = {
            name: reader_of(specs[name])(text.replace("|", ";")) for name, text in details.items()
        }
        yield kind(**named(row), **values), row.eur
