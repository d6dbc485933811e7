"""Amounts, clocks, cores, resolutions, presets and frame rates in running text."""

import re
from typing import Literal

from wattmetron.core.values.games import PresetName
from wattmetron.core.values.parts import StorageKind

Unit = Literal["memory", "storage"]

AMOUNT = re.compile(
    r"(?<![\w.,])(\d{1,6}(?:[.,]\d{1,3})?)\s*(tib|gib|mib|tb|gb|mb|gigabytes?|megabytes?|terabytes?|gigs?)\b",
    re.IGNORECASE,
)
CLOCK = re.compile(
    r"(?:(?<![\w.])@?\s{0,3}(?:\d{1,2}\s*x\s*)?)(?<![\w.,])(\d{1,4}(?:[.,]\d{1,3})?)\s*(ghz|mhz)\b\+?",
    re.IGNORECASE,
)
_COUNTS = {
    "single": 1,
    "dual": 2,
    "two": 2,
    "triple": 3,
    "quad": 4,
    "four": 4,
    "six": 6,
    "hexa": 6,
    "eight": 8,
    "octa": 8,
}
CORES = re.compile(
    r"\b(\d{1,3}|" + "|".join(_COUNTS) + r")[ -]*(?:physical[ ]+)?cores?\b", re.IGNORECASE
)
TIMES_CLOCK = re.compile(r"\b(\d{1,2})\s*x(?=\s*\d)", re.IGNORECASE)
THREADS = re.compile(r"\b\d{1,3}[ -]*threads?\b", re.IGNORECASE)
SIZE = re.compile(r"\b(\d{3,5})\s*x\s*(\d{3,5})\b", re.IGNORECASE)
LINES = re.compile(r"\b(720|900|1080|1440|2160)p(?=\d|\b)", re.IGNORECASE)
NAMED_SIZE = re.compile(r"\b(4k|uhd|qhd|wqhd|full[ -]?hd|fhd)\b", re.IGNORECASE)
FPS = re.compile(
    r"(?:(?<=p)|(?<![\w.]))(\d{2,3})\s*(?:fps|frames per second|frames/s|hz)\b|(?<=p)(\d{2,3})\b",
    re.IGNORECASE,
)
PRESET_WORDS: dict[str, PresetName] = {
    "lowest": "low",
    "low": "low",
    "minimal": "low",
    "medium": "medium",
    "normal": "medium",
    "mid": "medium",
    "high": "high",
    "very high": "ultra",
    "ultra": "ultra",
    "maximum": "ultra",
    "max": "ultra",
    "highest": "ultra",
}
_WORDS = "|".join(sorted(PRESET_WORDS, key=len, reverse=True))
PRESET = re.compile(
    rf"\b({_WORDS})\b[ -]*(?:graphics[ ]+|quality[ ]+|detail["
    r" ]+)?(?:preset|settings?|quality|details?|graphics)\b"
    rf"|\b(?:preset|settings?|quality|details?|graphics)[ ]*[:=]?[ ]*({_WORDS})\b",
    re.IGNORECASE,
)
BARE_PRESET = re.compile(rf"\b({_WORDS})\b", re.IGNORECASE)
RAYS = re.compile(
    r"(?:\b(no|without)[ ]+)?\b(?:with[ ]+)?(?:ray[ -]?trac(?:ing|ed)|rt)\b(?:[ ]*[:=]?["
    r" ]*(on|off|enabled|disabled))?",
    re.IGNORECASE,
)
GENERATED = re.compile(
    r"(?:\b(no|without)[ ]+)?\b(?:with[ ]+)?(?:generated[ ]+frames|frame[ -]?(?:generation|gen)\b"
    r"|interpolated[ ]+frames)(?:[ ]*[:=]?[ ]*(on|off|enabled|disabled))?",
    re.IGNORECASE,
)
UPSCALING = re.compile(
    r"(?:\b(no|without)[ ]+)?\b(?:with[ ]+)?upscal(?:ing|ed|er)\b(?:[ ]*[:=]?["
    r" ]*(on|off|enabled|disabled))?|\b(native)\b",
    re.IGNORECASE,
)
KIND = re.compile(
    r"\b(?:(nvme|m\.2)(?:[ ]+ssd)?|(ssd|solid[ -]state(?:[ ]+drive)?)|(hdd|hard["
    r" -](?:disk|drive|disc)(?:[ ]+drive)?))\b",
    re.IGNORECASE,
)
BITS = re.compile(r"\b(?:32|64)[ -]?bits?\b", re.IGNORECASE)

SIZES = {"4k": (3840, 2160), "uhd": (3840, 2160), "qhd": (2560, 1440), "wqhd": (2560, 1440)}
HEIGHTS = {720: 1280, 900: 1600, 1080: 1920, 1440: 2560, 2160: 3840}


def number(text: str) -> float:
    """``12,5`` and ``12.5`` alike; a comma or point before three digits groups thousands."""
    if re.fullmatch(r"\d{1,3}[.,]\d{3}", text):
        return float(re.sub("[.,]", "", text))
    return float(text.replace(",", "."))


def gigabytes(match: re.Match[str], unit: Unit = "memory") -> float:
    """An amount in GB: memory counts by 1,024 and storage by 1,000, whole thousands of MB always by
    1,000; GiB and GB are not told apart.
    """
    value, word = number(match[1]), match[2].lower()
    round_thousands = value % 1000 == 0 or (unit == "storage" and value % 1024 != 0)
    step = 1000.0 if round_thousands else 1024.0
    if word[0] == "t":
        return round(value * (1000.0 if unit == "storage" else 1024.0), 3)
    return round(value / step, 3) if word[0] == "m" else value


def gigahertz(match: re.Match[str]) -> float:
    value = number(match[1])
    return round(value / 1000, 3) if match[2].lower() == "mhz" else value


def core_count(match: re.Match[str]) -> int:
    word = match[1].lower()
    return _COUNTS.get(word) or int(word)


def pixels(match: re.Match[str]) -> tuple[int, int]:
    """Of a match of SIZE, LINES or NAMED_SIZE."""
    if match.re is SIZE:
        return int(match[1]), int(match[2])
    if match.re is LINES:
        return HEIGHTS[int(match[1])], int(match[1])
    return SIZES.get(match[1].lower(), (1920, 1080))


def storage_kind(match: re.Match[str]) -> StorageKind:
    if match[1]:
        return "NVMe SSD"
    return "SSD" if match[2] else "hard disk"


def switched_on(match: re.Match[str]) -> bool:
    """Whether a match of RAYS, GENERATED or UPSCALING says on."""
    if match.re is UPSCALING and match[3]:
        return False
    return not match[1] and (match[2] or "on").lower() in ("on", "enabled")
