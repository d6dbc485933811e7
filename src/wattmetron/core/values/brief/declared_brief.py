"""The declared fields of a brief and of what it holds, and the checks of a whole brief."""

from dataclasses import replace
from typing import Any

from wattmetron.core.errors import BriefError
from wattmetron.core.values.brief.brief_items import Display, Extra, Resale, Target
from wattmetron.core.values.brief.whole_brief import Brief
from wattmetron.core.values.declared import Declared, declared
from wattmetron.core.values.part_kinds import KINDS

BRIEF: tuple[Declared, ...] = declared(Brief)
DISPLAY: tuple[Declared, ...] = declared(Display)
TARGET: tuple[Declared, ...] = declared(Target)
EXTRA: tuple[Declared, ...] = declared(Extra)
RESALE: tuple[Declared, ...] = declared(Resale)


NOT_SEARCHED: dict[str, Any] = {
    field.name: field.bare() if field.required else field.default
    for field in BRIEF
    if not field.spec.searched
}


def searched(brief: Brief) -> Brief:
    """The brief as the search looks at it: without what changes nothing there."""
    return replace(brief, **NOT_SEARCHED)


def check_fields(brief: Brief) -> None:
    """Raises BriefError with one clear sentence for the first entry that cannot be worked with;
    preferences are left to ``wishes.check_preferences``.
    """
    if not brief.name.strip():
        raise BriefError("The brief has no name: give it one, such as the room it is for.")
    if brief.budget_low_minor > brief.budget_high_minor:
        raise BriefError("The budget's lower end is above its upper end: swap the two amounts.")
    for field in DISPLAY:
        field.check(getattr(brief.display, field.name))
    low_hz = brief.display.variable_from_hz
    if low_hz is not None and low_hz > brief.display.refresh_hz:
        raise BriefError(
            "The variable range must begin between 1 Hz and the refresh: enter such a number."
        )
    for number, target in enumerate(brief.targets, start=1):
        check_target(target, f"Target {number}")
    for field in BRIEF:
        field.check(getattr(brief, field.name))
    if brief.play_hours + brief.desk_hours > 24:
        raise BriefError(
            "Hours of play and at the desk must together lie within 0–24 a day: enter such numbers."
        )
    if any(kind in KINDS for kind in brief.outside):
        raise BriefError(
            "Only further parts, such as a display, can be outside the budget: the machine itself"
            " is what it pays for."
        )
    if any(kind not in KINDS or not maker.strip() for kind, maker in brief.only_of):
        raise BriefError(
            "Makers to buy from are given by kind of part: name kind and maker of each."
        )


def check_target(target: Target, where: str) -> None:
    """Raises BriefError for the first entry of a target that cannot be worked with."""
    for field in TARGET:
        try:
            field.check(getattr(target, field.name))
        except BriefError as error:
            raise BriefError(f"{where}: {str(error)[:1].lower()}{str(error)[1:]}") from error
