"""Edits of what a handout shows."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.handout import SECTIONS, Note
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.brief_edits import Edited


def open_with(plan: Plan, text: str) -> Edited:
    """Put an opening of one's own before the handout."""
    chosen = plan.handout.with_opening(text.strip())
    if chosen == plan.handout:
        return plan, "nothing"
    return replace(plan, handout=chosen), "changed the handout's opening"


def move_section(plan: Plan, key: str, where: str) -> Edited:
    """Move a section by a place, hide it, or show it again."""
    chosen = plan.handout.moved(key, where)
    sentence = {"hide": "hid", "show": "showed"}.get(where, "moved")
    return replace(plan, handout=chosen), f"{sentence} “{SECTIONS[key]}” in the handout"


def note(plan: Plan, note: Note, catalogue: Catalogue) -> Edited:
    """Note one's own reason for a part; an empty text takes it away."""
    part = catalogue.part(note.part_id)
    chosen = plan.handout.with_note(note)
    if chosen == plan.handout:
        return plan, "nothing"
    sentence = f"noted why {part.name}" if note.text else f"took out the note on {part.name}"
    return replace(plan, handout=chosen), sentence


def show_grade(plan: Plan, name: str, shown: bool) -> Edited:
    """Show a set of peripherals in the handout, or not."""
    sentence = f"{'showed' if shown else 'hid'} “{name}” in the handout"
    return replace(plan, handout=plan.handout.with_grade(name, shown)), sentence


def use_own_house(plan: Plan) -> Edited:
    """Take the house texts of today instead of those that a plan came with."""
    return replace(plan, house=None), "took your own house texts into the handout"
