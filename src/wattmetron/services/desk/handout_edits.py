"""Edits of what a handout shows."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.handout import SECTIONS
from wattmetron.core.values.plan import Plan
from wattmetron.services.desk.edits import Edited


def open_with(plan: Plan, text: str) -> Edited:
    """Put an opening of one's own before the handout."""
    chosen = plan.handout.with_opening(text.strip())
    if chosen == plan.handout:
        return plan, "nothing"
    return replace(plan, handout=chosen), "changed the handout's opening"


def move_section(plan: Plan, key: str, where: str) -> Edited:
    """Move a section by a place, hide it, or show it again."""
    chosen = plan.handout.moved(key, where)
    said = {"hide": "hid", "show": "showed"}.get(where, "moved")
    return replace(plan, handout=chosen), f"{said} “{SECTIONS[key]}” in the handout"


def note(plan: Plan, part_id: str, text: str, catalogue: Catalogue) -> Edited:
    """Note one's own reason for a part; an empty text takes it away."""
    part = catalogue.part(part_id)
    chosen = plan.handout.with_note(part_id, text.strip())
    said = f"noted why {part.name}" if text.strip() else f"took out the note on {part.name}"
    return replace(plan, handout=chosen), said
