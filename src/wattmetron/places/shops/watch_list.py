"""Watches kept, changed and looked at: which of them fire at the prices of today."""

from collections.abc import Callable
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.offers import Buys
from wattmetron.core.values.watches import Watch
from wattmetron.formats.watches_file import watches_document, watches_from
from wattmetron.places.assessment.assess import assess
from wattmetron.store import documents
from wattmetron.store.documents import Paper
from wattmetron.workshop.workshop import Workshop

Watches = tuple[Watch, ...]


@dataclass(frozen=True, slots=True)
class StoredWatches:
    """All watches, with their version (0: none yet) and whether the last change can be undone."""

    watches: Watches
    version: int
    can_undo: bool


@dataclass(frozen=True, slots=True)
class Looked:
    """A watch with what it watches: its name, its price today in minor units (None: not to be had),
    the currency, and whether it fires.
    """

    watch: Watch
    name: str
    minor: int | None
    currency: str
    fires: bool


def kept_watches(workshop: Workshop) -> StoredWatches:
    with workshop.database.reading() as session:
        papers = documents.papers_of(session, "watches")
    return StoredWatches((), 0, False) if not papers else _kept(papers[0])


def _kept(paper: Paper) -> StoredWatches:
    try:
        watches = watches_from(paper.document or "")
    except ValueError:
        watches = ()
    return StoredWatches(watches, paper.version, paper.can_undo)


def change_watches(workshop: Workshop, edit: Callable[[Watches], Watches]) -> None:
    """Change the watches as they stand; raises BriefError."""
    with workshop.database.writing() as session:
        papers = documents.papers_of(session, "watches")
        if not papers:
            documents.add(session, "watches", watches_document(()))
            papers = documents.papers_of(session, "watches")
        watches = edit(_kept(papers[0]).watches)
        documents.change(
            session, "watches", papers[0].id, papers[0].version, watches_document(watches)
        )


def undo_watches(workshop: Workshop, version: int) -> None:
    with workshop.database.writing() as session:
        for paper in documents.papers_of(session, "watches")[:1]:
            documents.take_back(session, "watches", paper.id, version)


def looked_at(workshop: Workshop, catalogue: Catalogue, watches: Watches) -> tuple[Looked, ...]:
    """Every watch whose part, brief and region are still there, those that fire first."""
    briefs = {row.id: row.plan for row in workshop.briefs()}
    watched = []
    for watch in watches:
        if watch.region not in catalogue.regions:
            continue
        if watch.part_id:
            if watch.part_id not in catalogue.parts:
                continue
            name = catalogue.part(watch.part_id).name
            minor = catalogue.prices(watch.region, Buys(watch.used)).cost(watch.part_id)
        else:
            plan = briefs.get(watch.brief_id)
            if plan is None or plan.build.empty:
                continue
            now = assess(catalogue, plan.brief, plan.build)
            name = f"the list of {plan.brief.name}"
            minor = None if now.unpriced else now.spent_minor
        currency = catalogue.region(watch.region).currency
        watched.append(Looked(watch, name, minor, currency, watch.fires_at(minor)))
    return tuple(sorted(watched, key=lambda watch: (not watch.fires, watch.name)))
