"""The view Handout: what is chosen for it, and how it reads."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.handout import SECTIONS
from wattmetron.core.values.plan import Plan
from wattmetron.drawing.part_picture import part_picture
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.handout.content import Handout, handout
from wattmetron.places.handout.handout_links import Of, StoredLink, links_of
from wattmetron.places.handout.house_rules import NOTHING_KEPT, Housed, housed
from wattmetron.places.handout.notes import computed_reasons, doubt
from wattmetron.places.handout.texts import chat
from wattmetron.workshop.listed_briefs import Opened

FORMS = (
    ("html", "HTML"),
    ("md", "Markdown"),
    ("txt", "Text"),
    ("csv", "CSV"),
    ("json", "JSON"),
)


@dataclass(frozen=True, slots=True)
class HandoutLinkRow:
    """A link in words, and whether it still opens."""

    id: int
    words: str
    open: bool


@dataclass(frozen=True, slots=True)
class NoteRow:
    """A part with the builder's reason, and what no longer holds of it."""

    part_id: str
    name: str
    text: str
    doubt: str


@dataclass(frozen=True, slots=True)
class Handing:
    """What a handout takes from elsewhere: the links to it, and what is kept for all handouts."""

    links: tuple[StoredLink, ...] = ()
    shared: Housed = NOTHING_KEPT


@dataclass(frozen=True, slots=True, kw_only=True)
class HandoutView:
    """The choices, the links, and the handout itself. ``grades`` are the sets of peripherals with
    whether they are shown, ``came_with`` says that the plan brought house texts of its own.
    """

    forms: tuple[tuple[str, str], ...]
    opening: str
    sections: tuple[tuple[str, str, bool], ...]
    notes: tuple[NoteRow, ...]
    doubts: int
    grades: tuple[tuple[str, bool], ...]
    rules: int
    came_with: bool
    chat: str
    links: tuple[HandoutLinkRow, ...]
    fresh_link: str
    handout: Handout
    pictures: Mapping[str, Markup]


def handout_view(
    catalogue: Catalogue, opened: Opened, handing: Handing, today: date
) -> HandoutView:
    """The handout of the adopted build."""
    plan = opened.plan
    came_with = plan.house not in (None, handing.shared.house)
    house = plan.house or handing.shared.house
    made = handout(catalogue, replace(plan, house=house))
    choice = plan.handout
    hidden = [key for key in SECTIONS if key not in choice.shown]
    notes = tuple(_notes(catalogue, plan))
    return HandoutView(
        forms=FORMS,
        opening=choice.opening,
        sections=tuple(
            (key, SECTIONS[key], key in choice.shown) for key in (*choice.shown, *hidden)
        ),
        notes=notes,
        doubts=sum(bool(note_row.doubt) for note_row in notes),
        grades=tuple(
            (peripherals.name, peripherals.name in choice.grades) for peripherals in house.filled
        ),
        rules=len(house.rules),
        came_with=came_with,
        chat=chat(made),
        links=tuple(link_row(link, today) for link in handing.links),
        fresh_link="",
        handout=made,
        pictures=pictures_of(catalogue, made),
    )


def _notes(catalogue: Catalogue, plan: Plan) -> Iterator[NoteRow]:
    now = assess(catalogue, plan.brief, plan.build)
    reasons = computed_reasons(catalogue, now)
    for line in {cost_line.part_id: cost_line for cost_line in now.lines}.values():
        if line.part is None:
            continue
        note = plan.handout.note_on(line.part_id)
        reason = reasons.get((line.kind, line.part.name), "")
        yield NoteRow(
            line.part_id,
            line.part.name,
            note.text if note else "",
            doubt(note, line, reason, now.currency) if note else "",
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


def link_row(link: StoredLink, today: date) -> HandoutLinkRow:
    made = f"made {link.made_at:%-d %b %Y}"
    if link.revoked:
        return HandoutLinkRow(link.id, f"{made}, taken back", False)
    if link.ends_on is not None and link.ends_on < today:
        return HandoutLinkRow(link.id, f"{made}, ended on {link.ends_on:%-d %b %Y}", False)
    ends = f", until {link.ends_on:%-d %b %Y}" if link.ends_on else ""
    return HandoutLinkRow(link.id, f"{made}{ends}", True)


def _content(context: ViewContext) -> HandoutView:
    workshop, opened = context.workshop, context.opened
    handing = Handing(links_of(workshop, Of(opened.id)), housed(workshop))
    shown = handout_view(context.catalogue, opened, handing, datetime.now(UTC).date())
    return replace(shown, fresh_link=context.fresh_link)


HANDOUT = ViewSpec(
    name="handout",
    title="Handout",
    key="6",
    template="places/handout/pages/view.html",
    make=_content,
    folded=True,
)
