"""Links to the handouts of briefs and sets: made, listed, taken back, opened."""

from datetime import date

from wattmetron.formats.plan_file import to_document
from wattmetron.places.handout.house_rules import with_house
from wattmetron.store import briefs, catalogues, documents, links
from wattmetron.store.links import NoSuchLinkError, Of, StoredLink
from wattmetron.workshop.workshop import Workshop

__all__ = ["NoSuchLinkError", "Of", "StoredLink", "links_of", "make_link", "opened_link", "revoke"]


def links_of(workshop: Workshop, of: Of) -> tuple[StoredLink, ...]:
    """The newest first."""
    with workshop.database.reading() as session:
        return links.links_of(session, of)


def make_link(workshop: Workshop, of: Of, ends_on: date | None) -> str:
    """A link to the handout as it is now; returns its key, which is kept nowhere."""
    document = _document(workshop, of)
    with workshop.database.writing() as session:
        as_of = catalogues.latest_import(session) or 0
        return links.make_link(session, of, document, as_of, ends_on)


def _document(workshop: Workshop, of: Of) -> str:
    if of.brief_id is not None:
        return to_document(with_house(workshop, workshop.stored_plan(of.brief_id)))
    with workshop.database.reading() as session:
        return documents.get(session, "set", of.paper_id or 0).document or ""


def revoke(workshop: Workshop, of: Of, link_id: int) -> None:
    with workshop.database.writing() as session:
        links.revoke_link(session, of, link_id)


def opened_link(workshop: Workshop, key: str, today: date) -> StoredLink:
    """What a key opens; raises NoSuchLinkError, also where what it belongs to is gone."""
    with workshop.database.reading() as session:
        link = links.open_link(session, key, today)
        if link.brief_id is not None and not briefs.is_there(session, link.brief_id):
            raise NoSuchLinkError
        if link.paper_id is not None:
            papers_there = {paper.id for paper in documents.papers_of(session, "set")}
            if link.paper_id not in papers_there:
                raise NoSuchLinkError
    return link
