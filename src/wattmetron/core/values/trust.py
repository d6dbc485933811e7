"""How far a part can be trusted, derived from what is known of it, never copied from a list."""

from dataclasses import dataclass
from typing import Literal, get_args

from wattmetron.core.values.housing import PowerSupply
from wattmetron.core.values.own_record import OwnRecord
from wattmetron.core.values.part_kinds import KIND_PLURALS
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.core.values.words import counted

Trust = Literal["doubtful", "unknown", "plain", "proven"]
TRUSTS: tuple[Trust, ...] = get_args(Trust)
TrustFloor = Literal["anything", "nothing doubtful", "plain or proven", "proven only"]
TRUST_FLOORS: dict[TrustFloor, frozenset[Trust]] = {
    "anything": frozenset({"doubtful", "unknown", "plain", "proven"}),
    "nothing doubtful": frozenset({"unknown", "plain", "proven"}),
    "plain or proven": frozenset({"plain", "proven"}),
    "proven only": frozenset({"proven"}),
}
FEW_REVIEWS = 10
MANY_REVIEWS = 50
POOR_PERCENT = 60.0
GOOD_PERCENT = 80.0
LONG_WARRANTY_YEARS = 3.0
MANY_RETURNS_PERCENT = 5.0
FEW_RETURNS_PERCENT = 1.5
MAIN_PROTECTIONS = ("OVP", "OCP", "OPP", "SCP")
NO_PROTECTIONS = ("none",)
OFTEN_USED = 5
CAME_BACK_TWICE = 2
CAME_BACK_SHARE = 0.1
"""Of one's own records: two that came back, or a tenth of those used, speak against a part."""


@dataclass(frozen=True, slots=True)
class Judgement:
    """A level of trust with its reasons in words, those that decide first."""

    trust: Trust
    reasons: tuple[str, ...]


def judge(part: Part) -> Judgement:
    """One reason against makes a part doubtful, two for it proven; known without either it is
    plain, else unknown.

    Few reviews (under 10) say nothing, and no reviews are no reason against. Of one's own records
    two that came back, and a tenth of those used, speak against; five used and none back in favour.
    """
    against, in_favour, known = _by_reviews(part)
    years = part.warranty_years
    if years is not None:
        if not years:
            against.append("sold without warranty")
        else:
            long = years >= LONG_WARRANTY_YEARS
            (in_favour if long else known).append(f"{counted(years, 'year')} of warranty")
    if part.returns_percent is not None:
        words = (
            f"{part.returns_percent:g} % of the maker's {KIND_PLURALS[kind_of(part)]} come back"
            " within two years"
        )
        if part.returns_percent >= MANY_RETURNS_PERCENT:
            against.append(words)
        else:
            (in_favour if part.returns_percent <= FEW_RETURNS_PERCENT else known).append(words)
    for record in part.own:
        _by_own(record, against, in_favour, known)
    if isinstance(part, PowerSupply):
        worse, better = _by_make(part)
        against, in_favour = against + worse, in_favour + better
    reasons = (*against, *in_favour, *known)
    if against:
        return Judgement("doubtful", reasons)
    if not reasons:
        return Judgement("unknown", ("no reviews, test or warranty known",))
    return Judgement("proven" if len(in_favour) > 1 else "plain", reasons)


def trust_of(part: Part) -> Trust:
    return judge(part).trust


def _by_reviews(part: Part) -> tuple[list[str], list[str], list[str]]:
    """Reasons against, in favour, and neither."""
    if part.reviews is None or part.review_percent is None or part.reviews < FEW_REVIEWS:
        return [], [], []
    words = f"{part.reviews:,} reviews average {part.review_percent:g} %"
    if part.review_percent < POOR_PERCENT:
        return [words], [], []
    good = part.review_percent >= GOOD_PERCENT and part.reviews >= MANY_REVIEWS
    return [], [words] if good else [], [] if good else [words]


def _by_own(record: OwnRecord, against: list[str], in_favour: list[str], known: list[str]) -> None:
    """Adds what one has seen oneself, a line for the part and one for its maker."""
    seen = f"your own record{f' of {record.name}' if record.of == 'maker' else ''}"
    if record.used or record.failed:
        worse = record.failed >= max(CAME_BACK_TWICE, CAME_BACK_SHARE * record.used)
        better = not record.failed and record.used >= OFTEN_USED
        side = in_favour if better else known
        (against if worse else side).append(f"{seen}: {record_words(record)}")
    if record.again:
        known.append(f"{seen}: you would buy {'it' if record.of == 'part' else 'from them'} again")


def record_words(record: OwnRecord) -> str:
    """``8 used, none came back`` or ``2 came back``."""
    used = f"{record.used:,} used" if record.used else ""
    back = f"{record.failed:,} came back" if record.failed else "none came back"
    return ", ".join(filter(None, (used, back)))


def _by_make(supply: PowerSupply) -> tuple[list[str], list[str]]:
    """What protections and tests say of a supply, which can take everything else with it when it
    fails.
    """
    against, in_favour = [], []
    if supply.tested == "failed":
        against.append("failed an independent test")
    elif supply.tested == "passed":
        in_favour.append("passed an independent test")
    if supply.protections == NO_PROTECTIONS:
        against.append("names no protections")
    elif supply.protections and all(text in supply.protections for text in MAIN_PROTECTIONS):
        in_favour.append("names all main protections")
    return against, in_favour
