"""Headings and labels: how tiers and fields are named, slips of spelling included."""

import re

from rapidfuzz import fuzz, process

from wattmetron.core.texts.requirements.vocabulary import (
    BARE_TIERS,
    BY_LENGTH,
    LABELS,
    SURE_TIERS,
    TIER_TAIL,
    Field,
)
from wattmetron.core.values import amounts

LABEL_LIKENESS = 78
HEADING = re.compile(
    rf"[\s*#=\-\[\"'>_]*(?P<tier>{SURE_TIERS}|{BARE_TIERS})\b\.?(?P<tail>{TIER_TAIL})[*_\]\"=]*["
    r" ]*(?P<rest>.*)\Z",
    re.IGNORECASE | re.DOTALL,
)
SURE = re.compile(rf"(?:{SURE_TIERS})\Z", re.IGNORECASE)
INLINE_TIER = re.compile(rf"(?<![\w-])(?P<tier>{SURE_TIERS})\b\.?{TIER_TAIL}[ ]*:", re.IGNORECASE)
LABEL = re.compile(
    rf"(?:(?P<before>{SURE_TIERS})\.?[ ]+)?(?P<label>{BY_LENGTH})(?:["
    rf" ]*\((?P<after>{SURE_TIERS})\.?\))?[ ]*[*:]*[ ]*\*?[:=]",
    re.IGNORECASE,
)
LABEL_ALONE = re.compile(
    rf"[\s*#\-]*(?:(?P<before>{SURE_TIERS})\.?[ ]+)?(?P<label>{BY_LENGTH})[ ]*[*:]*[ ]*\Z",
    re.IGNORECASE,
)
LABEL_OPEN = re.compile(
    r"[\s*\-]*(?P<label>cpu|gpu|ram|vram|os|memory|processor|graphics|storage|hdd)(?:[ ]{2,}|[ ]+-["
    r" ]+|[ ]+(?=[A-Z\d]))(?=\S)",
    re.IGNORECASE,
)
ANY_LABEL = re.compile(r"[\s*\-]*(?P<label>[^\W\d_][\w ]{2,24}?)[ ]*:", re.IGNORECASE)
API_LABEL = re.compile(r"(?P<label>[^\W\d_][\w ]{1,20}?)[ ]*:[ ]*(?=version[ ]+\d)", re.IGNORECASE)
MARKED = re.compile(rf"\((?P<tier>{SURE_TIERS})\b[^()]*\)", re.IGNORECASE)
GAP = re.compile(r"[ ]{2,}|[ ]*[\t|][ ]*")
SLASH = re.compile(r"[ ]+/[ ]+")
RULE = re.compile(r"[\s|:\-=_*#]*\Z")


_SHORT = {
    "minimal": "Minimum",
    "minimums": "Minimum",
    "recommendation": "Recommended",
    "recommend": "Recommended",
    "recommends": "Recommended",
}


def tier_name(text: str) -> str:
    """A tier's label without the words that every list has: ``MINIMUM REQUIREMENTS:`` gives
    ``Minimum``.
    """
    match = HEADING.match(text)
    name = match["tier"] if match and not match["rest"].strip(" :)]*=-") else text
    name = name.strip(" ,;:*#=[]\t_-")
    name = _SHORT.get(name.casefold(), name)
    return name.capitalize() if name.isupper() or name.islower() else name


def says_conditions(text: str) -> bool:
    """Whether a text names a resolution, a frame rate or a preset."""
    return any(
        pattern.search(text)
        for pattern in (amounts.SIZE, amounts.LINES, amounts.FPS, amounts.PRESET)
    )


def label_field(label: str) -> Field | None:
    """The field that a label names, None for a label of no meaning here."""
    words = " ".join(re.sub(r"[^\w ]", " ", label).casefold().split())
    return LABELS.get(words) or slip_of_label(words)


def slip_of_label(label: str) -> Field | None:
    words = " ".join(label.casefold().split())
    if len(words) < 5:
        return None
    likest = process.extractOne(words, list(LABELS), scorer=fuzz.ratio, score_cutoff=LABEL_LIKENESS)
    return None if likest is None else LABELS[likest[0]]


def slip_of_tier(text: str) -> str | None:
    """A misspelt tier name alone on its line."""
    word = text.strip(" :*#=-[]")
    if not 7 <= len(word) <= 14 or not word.isalpha():
        return None
    likest = process.extractOne(
        word.casefold(), ("minimum", "recommended"), scorer=fuzz.ratio, score_cutoff=86
    )
    return None if likest is None else tier_name(word)
