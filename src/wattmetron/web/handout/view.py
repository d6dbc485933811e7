"""The view Handout: what is chosen for it, and how it reads."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.handout import SECTIONS
from wattmetron.services.handout.content import Handout, handout
from wattmetron.services.handout.texts import chat
from wattmetron.services.workshop import Opened, StoredLink
from wattmetron.web.drawing.part_picture import part_picture

FORMS = (
    ("html", "HTML"),
    ("md", "Markdown"),
    ("txt", "Text"),
    ("csv", "CSV"),
    ("json", "JSON"),
)


@dataclass(frozen=True, slots=True)
class LinkRow:
    """A link in words, and whether it still opens."""

    id: int
    words: str
    open: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class HandoutView:
    """The choices, the links, and the handout itself."""

    forms: tuple[tuple[str, str], ...]
    opening: str
    sections: tuple[tuple[str, str, bool], ...]
    notes: tuple[tuple[str, str, str], ...]
    chat: str
    links: tuple[LinkRow, ...]
    fresh_link: str
    handout: Handout
    pictures: Mapping[str, Markup]


def handout_view(
    catalogue: Catalogue, opened: Opened, links: tuple[StoredLink, ...], today: date
) -> HandoutView:
    """The handout of the adopted build."""
    plan = opened.plan
    made = handout(catalogue, plan)
    choice = plan.handout
    hidden = [key for key in SECTIONS if key not in choice.shown]
    return HandoutView(
        forms=FORMS,
        opening=choice.opening,
        sections=tuple(
            (key, SECTIONS[key], key in choice.shown) for key in (*choice.shown, *hidden)
        ),
        notes=tuple(
            (part_id, catalogue.parts[part_id].name, choice.note_on(part_id))
            for part_id in dict.fromkeys(own for _, own in plan.build.ids())
            if part_id in catalogue.parts
        ),
        chat=chat(made),
        links=tuple(_link(own, today) for own in links),
        fresh_link="",
        handout=made,
        pictures=pictures_of(catalogue, made),
    )


def pictures_of(catalogue: Catalogue, made: Handout, drawn_only: bool = False) -> dict[str, Markup]:
    """The picture of each part of a handout; drawings alone where a file must hold them all."""
    parts = made.section("parts")
    ids = parts.table.parts if parts and parts.table else ()
    return {
        part_id: part_picture(catalogue.parts[part_id], drawn_only=drawn_only)
        for part_id in ids
        if part_id in catalogue.parts
    }


def _link(own: StoredLink, today: date) -> LinkRow:
    made = f"made {own.made_at:%-d %b %Y}"
    if own.revoked:
        return LinkRow(own.id, f"{made}, taken back", False)
    if own.ends_on is not None and own.ends_on < today:
        return LinkRow(own.id, f"{made}, ended on {own.ends_on:%-d %b %Y}", False)
    ends = f", until {own.ends_on:%-d %b %Y}" if own.ends_on else ""
    return LinkRow(own.id, f"{made}{ends}", True)
