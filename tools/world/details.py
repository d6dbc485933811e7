"""What made-up parts have besides their main figures: sizes, ports, firmware, warranty, reviews."""

import random
from dataclasses import replace
from datetime import date
from typing import Any, TypeVar

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import (
    Fan,
    FanSplitter,
    InputDevice,
    OpticalDrive,
    Screen,
    WirelessAdapter,
)
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.parts import BOARD_FORMS, NONE, Graphics, Mainboard, Part, Processor

P = TypeVar("P", bound=Part)
SEEN_ON = date(2026, 11, 10)
PROTECTIONS = ("OVP", "UVP", "OCP", "OPP", "SCP", "OTP")
COLOURS = {"Pale": "white", "Black": "black", "Show": "white", "Lit": "black", "Glass": "black"}
WARRANTY_YEARS: dict[type[Part], float] = {
    Processor: 3,
    Graphics: 2,
    Mainboard: 3,
    Memory: 10,
    Storage: 5,
    Cooler: 5,
    PowerSupply: 5,
    Case: 2,
    Fan: 3,
    FanSplitter: 2,
    WirelessAdapter: 2,
    OpticalDrive: 2,
    Screen: 3,
    InputDevice: 2,
}

LONG_WARRANTY = {"Saltgrove", "Fennwick", "Lidd & Frame", "Ledgerock", "Ampherst"}

# Few parts disappoint; few are hardly known.
POORLY_REVIEWED = {"coldreach-puff": 48.0, "ledgerock-spoil-1000": 55.0, "lowhum-small-300": 57.0}
UNREVIEWED = {
    "lowhum-plain-400",
    "boxwood-yard-trunk",
    "stonepier-drum-2000",
    "coldreach-cat-s-paw-black",
}
NO_NAME_SUPPLIES = {"lowhum-bargain-700", "lowhum-bargain-500"}

# Chips with unlocked clocks, and what boards ship with: firmware of each platform by year of the
# board.
TUNABLE = ("Ketch", "Barque", "Galleass", "Osprey", "Albatross")
FIRMWARE = {"Capstan": "1.10", "Rudder": "2.04", "Bollard": "3.20", "Tiller": "1.30"}
NEEDED = {
    "Capstan": ("Flood Deep=1.20", "Flood Low=1.32"),
    "Rudder": ("Slate Low=2.11", "Slate Small=2.08"),
}
UP_TO_DATE = ("Sluice", "Mole", "Weatherboard", "Grand", "Headless", "Inlet", "Cove Mini Five")


LEVEL_FIELDS = ("tuning", "error_correcting", "fault_display", "light_headers", "front_headers")
BY_BOARD_LEVEL: dict[str, dict[str, Any]] = {
    "plain": {
        "processor_w": 130,
        "mini_processor_w": 130,
        "tuning": False,
        "error_correcting": False,
        "fault_display": False,
        "rear_usb": 6,
        "mini_rear_usb": 5,
        "audio_channels": 6,
        "mini_audio_channels": 2,
        "fan_headers": 3,
        "mini_fan_headers": 2,
        "light_headers": ("12 V",),
        "front_headers": ("USB 3",),
        "one_lead_w": 180,
        "short_slots": 2,
    },
    "usual": {
        "processor_w": 220,
        "mini_processor_w": 180,
        "tuning": True,
        "error_correcting": False,
        "fault_display": False,
        "rear_usb": 8,
        "mini_rear_usb": 5,
        "audio_channels": 8,
        "mini_audio_channels": 2,
        "fan_headers": 5,
        "mini_fan_headers": 2,
        "light_headers": ("5 V",),
        "front_headers": ("USB 3", "USB-C"),
        "one_lead_w": 180,
        "short_slots": 1,
    },
    "grand": {
        "processor_w": 260,
        "mini_processor_w": 260,
        "tuning": True,
        "error_correcting": True,
        "fault_display": True,
        "rear_usb": 10,
        "mini_rear_usb": 10,
        "audio_channels": 8,
        "mini_audio_channels": 8,
        "fan_headers": 7,
        "mini_fan_headers": 7,
        "light_headers": ("5 V", "12 V"),
        "front_headers": ("USB 3", "USB-C"),
        "one_lead_w": 225,
        "short_slots": 1,
    },
}
"""What boards of a level have, and small ones of it."""

DRIVE_LENGTHS_MM = {"Long": 110, "Short": 30}
CLAIMED = {"boxwood-yard-stowage": ("card_length_mm",), "lowhum-small-300": ("watts", "spike_w")}
DISPUTED = {
    "lidd-frame-chart-table": ("card_length_mm=282 by Quayside Parts",),
    "coldreach-rip": ("height_mm=157 by Three Gulls Computing",),
}
RETURNS_PERCENT = {
    "Ampherst": 1.1,
    "Boxwood Yard": 2.6,
    "Coldreach": 2.0,
    "Dunmarrow": 2.2,
    "Fennwick": 0.9,
    "Ledgerock": 1.4,
    "Lidd & Frame": 1.8,
    "Lowhum": 4.4,
    "Pellworth": 2.9,
    "Saltgrove": 1.2,
    "Stonepier": 3.3,
}
CASE_SIZES = {"E-ATX": "full", "ATX": "full", "Micro-ATX": "micro"}
"""How large a case is by the largest board that it takes."""
CACHE_STATED_FROM, LARGE_CACHE_FROM, DEEP_CACHE_MB = 2018, 2022, 64
SHALLOW = {"lidd-frame-porthole": 130}
NOT_KNOWN = {
    "lidd-frame-foredeck": ("card_height_mm", "card_thickness_mm"),
    "pellworth-cove-mini-plain": ("processor_w",),
}


def detailed(part: Part) -> Part:
    """The part with everything else that is known of it."""
    draw = random.Random(f"details of {part.id}")
    whole = _known(_of_kind(part), draw)
    whole = replace(whole, claimed=CLAIMED.get(part.id, ()), disputed=DISPUTED.get(part.id, ()))
    if isinstance(whole, Case) and part.id in SHALLOW:
        whole = replace(whole, card_height_mm=SHALLOW[part.id])
    return replace(whole, **dict.fromkeys(NOT_KNOWN.get(part.id, ())))


def _of_kind(part: Part) -> Part:
    match part:
        case Processor():
            return _processor(part)
        case Graphics():
            return _card(part)
        case Mainboard():
            return _board(part)
        case Memory():
            return _kit(part)
        case Storage():
            return _drive(part)
        case Cooler():
            return _cooler(part)
        case PowerSupply():
            return _supply(part)
        case Case():
            return _case(part)
    return part


def _known(part: P, draw: random.Random) -> P:
    """Warranty, reviews and colour."""
    details: dict[str, Any] = {
        "source": "the maker's data sheet",
        "warranty_years": _warranty_years(part),
    }
    details["returns_percent"] = RETURNS_PERCENT.get(part.maker)
    details["colour"] = next((colour for word, colour in COLOURS.items() if word in part.model), "")
    if part.id in NO_NAME_SUPPLIES:
        return replace(
            part,
            source="the offer's text",
            warranty_years=None,
            reviews=14,
            review_percent=51.0,
            reviews_from="Three Gulls Computing",
            reviews_on=SEEN_ON,
        )
    if part.id not in UNREVIEWED:
        percent = POORLY_REVIEWED.get(part.id, round(draw.uniform(74, 94), 0))
        details |= {
            "reviews": draw.randint(18, 900),
            "review_percent": percent,
            "reviews_on": SEEN_ON,
        }
        details["reviews_from"] = draw.choice(
            ("Quayside Parts", "Three Gulls Computing", "Northlight Direct")
        )
    return replace(part, **details)


def _warranty_years(part: Part) -> float | None:
    """A licence has none."""
    years = WARRANTY_YEARS.get(type(part))
    return None if years is None else years + (2 if part.maker in LONG_WARRANTY else 0)


def _processor(chip: Processor) -> Processor:
    generation = next((word for word in ("Flood", "Slate") if word in chip.model), "")
    special = next((word for word in ("Deep", "Low") if word in chip.model), "")
    if "Petrel" in chip.model:
        special = "Small"
    tunable = bool(generation) and any(word in chip.model for word in TUNABLE)
    return replace(
        chip,
        firmware_family=f"{generation} {special}".strip(),
        tunable=tunable,
        cache_mb=_cache_mb(chip, special == "Deep"),
    )


def _cache_mb(chip: Processor, deep: bool) -> float | None:
    """A cache by the core; of the oldest chips nobody wrote it down."""
    if chip.released is None or chip.released.year < CACHE_STATED_FROM:
        return None
    if chip.released.year < LARGE_CACHE_FROM:
        of_a_core = 2
    elif chip.cores <= 6:
        of_a_core = 3
    else:
        of_a_core = 4
    return float(chip.cores * of_a_core + (DEEP_CACHE_MB if deep else 0))


OUTPUTS = {
    2: ("DisplayPort 1.2", "HDMI 1.4"),
    3: ("DisplayPort 1.4", "HDMI 2.0"),
    4: ("DisplayPort 1.4", "HDMI 2.1"),
    5: ("DisplayPort 2.1", "HDMI 2.1"),
}


def _card(card: Graphics) -> Graphics:
    tall = {"Plain": 112, "Twin": 121, "Triple": 136, "Short": 118, "Broad": 140, "Pale": 132}
    trim = card.model.split()[-1]
    if card.board_power_w <= 100:
        thin = 38
    elif card.board_power_w <= 180:
        thin = 42
    elif card.board_power_w <= 260:
        thin = 48
    else:
        thin = 58
    more = {"Triple": 4, "Short": 6, "Broad": 14}.get(trim, 0)
    outputs = OUTPUTS[card.pcie_gen]
    return replace(
        card,
        outputs=outputs,
        compression=card.pcie_gen >= 4,
        adapter_8pin=-(-(card.board_power_w - 75) // 150)
        if card.pcie_16pin and trim in ("Triple", "Broad")
        else 0,
        height_mm=tall[trim],
        thickness_mm=thin + more + (8 if card.board_power_w > 400 else 0),
    )


def _board(board: Mainboard) -> Mainboard:
    level = _board_level(board)
    grand, plain = level == "grand", level == "plain"
    mini = board.form_factor == "Mini-ITX"
    fresh = any(word in board.model for word in UP_TO_DATE)
    displays = "1.4" if plain else "2.0"
    versions = {"DisplayPort": "1.4"}
    slots = range(board.m2_slots)
    by_level = BY_BOARD_LEVEL[level]
    return replace(
        board,
        **{name: by_level[name] for name in LEVEL_FIELDS},
        processor_w=by_level["mini_processor_w" if mini else "processor_w"],
        m2_disables_sata=_disabled_sata(board, plain),
        firmware_needed=NEEDED.get(board.socket, ()),
        firmware_shipped=_firmware(board, fresh),
        firmware_shipped_since=date(2025, 9, 1) if fresh else date(2024, 10, 1),
        firmware_recovery=not plain or mini,
        rear_usb=by_level["mini_rear_usb" if mini else "rear_usb"],
        audio_channels=by_level["mini_audio_channels" if mini else "audio_channels"],
        fan_headers=by_level["mini_fan_headers" if mini else "fan_headers"],
        outputs=tuple(f"{name} {versions.get(name, displays)}" for name in board.outputs)
        or (NONE,),
        registered=False,
        unbuffered=True,
        u2_ports=0,
        module_slots=0,
        wireless="Wi-Fi 6E" if mini or grand else NONE,
        m2_lengths_mm=tuple(110 if grand and not slot else 80 for slot in slots),
        m2_gens=tuple(
            max(3, board.card_pcie_gen - 1) if slot else board.card_pcie_gen for slot in slots
        ),
        m2_sata=tuple(int(plain and slot == board.m2_slots - 1) for slot in slots),
        m2_card_lanes=(8,) if grand and board.m2_slots > 2 else (),
        one_lead_w=by_level["one_lead_w"] if board.cpu_8pin >= 2 else None,
        memory_full_mts=_full_memory_mts(board, level),
        short_slots=0 if mini else by_level["short_slots"],
        card_slots=2 if board.form_factor in ("ATX", "E-ATX") and not plain else 1,
    )


def _board_level(board: Mainboard) -> str:
    """How grand a board's chipset is."""
    if board.chipset in ("Gyrfalcon", "Kestrel"):
        return "grand"
    if board.chipset in ("Tern", "Fulmar", "Dunlin", "Sandpiper"):
        return "plain"
    return "usual"


def _disabled_sata(board: Mainboard, plain: bool) -> tuple[int, ...]:
    """How many SATA ports each M.2 slot switches off."""
    if board.m2_slots == 3:
        return (0, 0, 2)
    return (0, 2) if board.m2_slots == 2 and plain else ()


def _firmware(board: Mainboard, fresh: bool) -> str:
    if not fresh:
        return FIRMWARE[board.socket]
    return "2.20" if board.socket == "Rudder" else "1.40"


def _full_memory_mts(board: Mainboard, level: str) -> int | None:
    """The data rate with every slot taken, where the board's maker states one."""
    if level == "plain":
        return None
    if board.memory_type == "DDR4":
        return 3200
    return 5200 if level == "grand" else 4800


def _kit(kit: Memory) -> Memory:
    tall = {
        "Plain": 31,
        "Low": 31,
        "Show": 53,
        "Thorn": 33,
        "Cordage": 31,
        "Burdock": 33,
        "Teasel": 34,
        "Reed": 36,
        "Rill": 40,
        "Sedge": 44,
        "Weir": 46,
        "Marram": 42,
    }
    words = kit.model.split()
    height = next(tall[word] for word in (*reversed(words[1:]), words[0]) if word in tall)
    return replace(
        kit,
        height_mm=height,
        registered="Registered" in words,
        error_correcting="Registered" in words or "Careful" in words,
        lights="Show" in words,
    )


def _drive(drive: Storage) -> Storage:
    large = drive.model.startswith("Drum")
    cheap = any(word in drive.model for word in ("Ledge", "Spoil", "Shingle"))
    if drive.interface == "M.2 NVMe":
        length_mm = next((mm for word, mm in DRIVE_LENGTHS_MM.items() if word in drive.model), 80)
        drive = replace(
            drive,
            m2_length_mm=length_mm,
            pcie_gen=_drive_gen(drive.read_mbs),
        )
    return replace(
        drive, form="3.5 inch" if large else None, own_cache=None if large else not cheap
    )


def _drive_gen(read_mbs: float) -> int:
    """The PCI Express generation that a drive of this speed needs."""
    if read_mbs > 8000:
        return 5
    return 4 if read_mbs > 4000 else 3


def _cooler(cooler: Cooler) -> Cooler:
    if cooler.radiator_mm:
        return replace(cooler, radiator_thickness_mm=52)
    low = cooler.height_mm < 100
    wide = any(word in cooler.model for word in ("Twin", "Spring", "High", "Gale"))
    usual_mm = 42 if wide else 60
    broad_and_low = low and cooler.capacity_w > 90
    return replace(cooler, memory_clearance_mm=35 if broad_and_low else usual_mm)


def _supply(supply: PowerSupply) -> PowerSupply:
    if supply.id in NO_NAME_SUPPLIES:
        return replace(
            supply,
            length_mm=140,
            modular=False,
            protections=("none",),
            sata_plugs=3,
            pcie_16pin_w=None,
        )
    good = supply.efficiency in ("Gold", "Platinum", "Titanium")
    stated_w = 450 if supply.pcie_16pin else None
    length = {
        "ATX": 140 + 20 * (supply.watts >= 750) + 20 * (supply.watts >= 1000),
        "SFX": 100,
    }[supply.form]
    return replace(
        supply,
        length_mm=length + (25 if supply.form == "SFX" and supply.watts >= 750 else 0),
        modular=good,
        protections=PROTECTIONS if good else PROTECTIONS[:5],
        tested="passed" if good or "Even" in supply.model else None,
        sata_plugs=8 if supply.watts >= 650 else 4,
        pcie_16pin_w=600 if supply.watts >= 850 else stated_w,
    )


def _case(case: Case) -> Case:
    """Outer sizes from the room inside; radiators where there is height for them."""
    largest = next(form for form in BOARD_FORMS if form in case.board_forms)
    size = CASE_SIZES.get(largest, "small")
    full, small, tight = size == "full", size == "small", case.volume_l < 15
    width = max(case.cooler_height_mm + 50, 95)
    depth = case.card_length_mm + {"full": 110, "micro": 80, "small": 30}[size]
    height = round(case.volume_l * 1e6 / (width * depth))
    lit = any(word in case.model for word in ("Lit", "Glass", "Porthole"))
    return replace(
        case,
        width_mm=width,
        depth_mm=depth,
        height_mm=height,
        card_height_mm=130 if tight else width - 60 + 40 * small,
        card_thickness_mm=_card_thickness_mm(case, full),
        supply_length_mm=_supply_length_mm(case, full),
        supply_place="front" if small else "bottom rear",
        places_25=2 if full else int(not tight),
        places_35=_large_drives(case, size),
        places_525=1 if full and case.airflow == "closed" else 0,
        fan_places=_fan_places(case, size),
        front_ports=("USB 3", "USB-C") if case.volume_l >= 44 or tight else ("USB 3",),
        cable_room_mm=_cable_room_mm(case, full),
        tool_free=full and case.airflow != "closed",
        lights=("5 V",) if lit else (),
        **_radiators(case, size),
    )


def _card_thickness_mm(case: Case, full: bool) -> int:
    if case.volume_l < 9:
        return 44
    return 84 if full else 62


def _supply_length_mm(case: Case, full: bool) -> int:
    if case.supply_forms == ("SFX",):
        return 130
    return 200 if full else 160


def _large_drives(case: Case, size: str) -> int:
    if size == "full":
        return 2 if case.volume_l < 60 else 4
    return int(size == "micro")


def _fan_places(case: Case, size: str) -> int:
    if size == "full":
        return 7 if case.volume_l >= 44 else 5
    return 4 if size == "micro" else 2


def _cable_room_mm(case: Case, full: bool) -> int:
    if case.volume_l >= 55:
        return 28
    if full:
        return 22
    return 8 if case.volume_l < 15 else 16


def _radiators(case: Case, size: str) -> dict[str, Any]:
    """Where radiators go: there must be height for them."""
    radiators: dict[str, Any] = {}
    if size == "full":
        radiators = {
            "radiator_front_mm": (280, 360) if case.volume_l >= 44 else (280,),
            "radiator_rear_mm": (120,),
            "radiator_top_mm": _top_radiators(case),
        }
    elif size == "micro" and case.volume_l >= 24:
        radiators = {"radiator_front_mm": (240,), "radiator_rear_mm": (120,)}
    elif case.volume_l >= 16:
        radiators = {"radiator_top_mm": (240,)}
    if radiators.get("radiator_top_mm"):
        radiators["radiator_top_thickness_mm"] = 55
    return radiators


def _top_radiators(case: Case) -> tuple[int, ...]:
    if case.volume_l >= 58:
        return (280, 360)
    return (240,) if case.volume_l >= 44 else ()
