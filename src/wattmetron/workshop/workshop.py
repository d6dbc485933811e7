"""The workshop: one database with its catalogue and briefs, and every change that can be made to
them.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace
from datetime import date, datetime
from pathlib import Path
from threading import Lock

from cachetools import LRUCache

from wattmetron.cache.cache import Count, Keeper
from wattmetron.cache.catalogue_cache import studied
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import NotPossibleError, StorageError
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.price_history import OfferSpan
from wattmetron.core.values.wishes import check_brief
from wattmetron.formats.brief_file import read_documents
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.formats.catalogue_writing import write_catalogue
from wattmetron.formats.plan_file import PlanError, from_document, to_document
from wattmetron.store import briefs as brief_store
from wattmetron.store import catalogues as catalogue_store
from wattmetron.store import history as history_store
from wattmetron.store import imports as import_store
from wattmetron.store import snapshots as snapshot_store
from wattmetron.store.database import Database, Transaction
from wattmetron.store.history import Imported
from wattmetron.store.imports import ImportEffect
from wattmetron.store.snapshots import NoSuchSnapshotError, Snapshot
from wattmetron.workshop.listed_briefs import ListedBrief, Opened, UnreadableBrief
from wattmetron.workshop.plan_checks import (
    checked_plan,
    in_known_region,
    lost_targets_of,
    plans_in,
    usual_plan,
)

__all__ = ["ImportEffect", "Imported", "ListedBrief", "Opened", "Snapshot", "Workshop"]
Earlier = Callable[[Catalogue], list[tuple[datetime, tuple[Offer, ...]]]]
PLAN_BYTES, PAST_CATALOGUES = 8_000_000, 2
"""What plans that were read may take."""


class EmptyCatalogueError(NotPossibleError):
    """Nothing was imported yet."""

    def __init__(self) -> None:
        super().__init__(
            "There is no catalogue yet: run “wattmetron import FOLDER”, or “wattmetron demo” for"
            " the demo data."
        )


class NotImportedError(NotPossibleError):
    """An import that would take something away, to which nobody agreed."""

    def __init__(self) -> None:
        super().__init__("Nothing was imported: the catalogue is as it was.")


class UnreadableBriefError(StorageError):
    """A brief whose stored document is no brief any more."""

    def __init__(self, brief_id: int) -> None:
        super().__init__(
            f"Brief {brief_id} cannot be read, the others can: save it as it is, or delete it, in"
            " the list of briefs."
        )


class NoRegionError(NotPossibleError):
    """A catalogue in which nothing can be bought anywhere."""

    def __init__(self) -> None:
        super().__init__(
            "The catalogue has no region, so nothing has a price: import one whose regions.csv has"
            " a line at least."
        )


class Workshop:
    """All use cases over one database; ``study`` gives a catalogue a keeper of its own."""

    def __init__(self, path: Path, study: Callable[[Catalogue], Catalogue] = studied) -> None:
        self.database = Database(path)
        self._study = study
        self._lock = Lock()
        self._loaded: tuple[int, Catalogue] | None = None
        self._plans = Keeper(PLAN_BYTES)
        self._past: LRUCache[int, Catalogue] = LRUCache(PAST_CATALOGUES)
        self.is_demo = False

    def catalogue(self) -> Catalogue:
        """The current catalogue, its speeds where the charts put them; raises EmptyCatalogueError
        before the first import.
        """
        with self.database.reading() as session:
            catalogue = self._current(session)
        if catalogue is None:
            raise EmptyCatalogueError
        if not catalogue.regions:
            raise NoRegionError
        return catalogue

    def _current(self, session: Transaction) -> Catalogue | None:
        newest = catalogue_store.latest_import(session)
        if newest is None:
            return None
        with self._lock:
            if self._loaded is None or self._loaded[0] != newest:
                described = catalogue_store.load_catalogue(session, newest)
                self._loaded = (newest, self._study(described))
            return self._loaded[1]

    @property
    def study_count(self) -> Count | None:
        """What is kept of the catalogue that was loaded last; None before."""
        loaded = self._loaded
        keeper = None if loaded is None else loaded[1].keep
        return keeper.count if isinstance(keeper, Keeper) else None

    def has_catalogue(self) -> bool:
        with self.database.reading() as session:
            return catalogue_store.latest_import(session) is not None

    def import_folder(
        self, folder: Path, agrees: Callable[[ImportEffect], bool] = lambda _: True
    ) -> Catalogue:
        """Make a catalogue folder the current catalogue; all or nothing. Where something would be
        lost, ``agrees`` is asked before anything is written; raises NotImportedError where not.
        """
        catalogue = read_catalogue(folder)
        with self.database.reading() as session:
            effect = import_store.effect_of(session, catalogue, folder.name)
        if effect.loses and not agrees(effect):
            raise NotImportedError
        self.import_catalogue(catalogue, folder.name)
        return catalogue

    def import_catalogue(self, catalogue: Catalogue, source: str) -> None:
        with self.database.writing() as session:
            import_store.store_catalogue(session, catalogue, source)

    def import_prices(self, offers: Iterable[Offer], source: str) -> None:
        """Make these the current offers; parts, games and all else stay as they are."""
        with self.database.writing() as session:
            import_store.store_prices(session, offers, source)

    def undo_import(self) -> str:
        """Take the last import back; returns where it came from. Raises ConflictError."""
        with self.database.writing() as session:
            return import_store.undo_import(session)

    def export_folder(self, folder: Path) -> Catalogue:
        """Write the current catalogue as a folder."""
        catalogue = self.catalogue()
        write_catalogue(catalogue, folder)
        return catalogue

    def briefs(self) -> list[ListedBrief]:
        """All briefs that can be read."""
        with self.database.reading() as session:
            rows = brief_store.all_briefs(session)
            catalogue = self._current(session)
        return [
            ListedBrief(
                record.brief_id, record.version, in_known_region(plan, catalogue), record.changed_at
            )
            for record in rows
            if (plan := self._readable(record.document)) is not None
        ]

    def stored_plans(self) -> list[tuple[int, Plan]]:
        """The id of every brief that can be read, and what is stored of it."""
        with self.database.reading() as session:
            rows = brief_store.all_briefs(session)
        return [
            (record.brief_id, plan)
            for record in rows
            if (plan := self._readable(record.document)) is not None
        ]

    def unreadable_briefs(self) -> list[UnreadableBrief]:
        """The briefs that cannot be read."""
        with self.database.reading() as session:
            rows = brief_store.all_briefs(session)
        return [
            UnreadableBrief(record.brief_id, record.version)
            for record in rows
            if self._readable(record.document) is None
        ]

    def raw_brief(self, brief_id: int) -> str:
        """A brief's document as it is stored, readable or not."""
        with self.database.reading() as session:
            return brief_store.get(session, brief_id).document

    def _plan(self, document: str) -> Plan:
        return self._plans.once(("plan", document), lambda: from_document(document))

    def _readable(self, document: str | None) -> Plan | None:
        try:
            return None if document is None else self._plan(document)
        except PlanError:
            return None

    def _plan_of(self, brief_id: int, document: str) -> Plan:
        try:
            return self._plan(document)
        except PlanError as error:
            raise UnreadableBriefError(brief_id) from error

    def open(self, brief_id: int) -> Opened:
        with self.database.reading() as session:
            stored = brief_store.get(session, brief_id)
            catalogue = self._current(session)
        plan = self._plan_of(brief_id, stored.document)
        placed = in_known_region(plan, catalogue)
        return Opened(
            id=stored.id,
            version=stored.version,
            plan=placed,
            before=self._readable(stored.before),
            undo=stored.undo,
            redo=stored.redo,
            changed_at=stored.changed_at,
            lost_region="" if placed.brief.region == plan.brief.region else plan.brief.region,
            lost_targets=lost_targets_of(plan, catalogue),
        )

    def stored_plan(self, brief_id: int) -> Plan:
        """A brief as it is stored, also what the catalogue no longer has of it."""
        return self._plan_of(brief_id, self.raw_brief(brief_id))

    def create(self, plan: Plan) -> int:
        with self.database.writing() as session:
            return self.store(session, plan)

    @staticmethod
    def store(session: Transaction, plan: Plan) -> int:
        """A new brief within a change that stores more; returns its id."""
        check_brief(plan.brief)
        return brief_store.create(session, to_document(plan), f"made “{plan.brief.name}”")

    def new_brief(self) -> int:
        """An empty brief with usual figures in the first region."""
        return self.create(usual_plan(self.catalogue()))

    def open_files(self, files: Sequence[tuple[str, bytes]]) -> int:
        """Store the brief among these files (name, bytes), with its build if one is there; returns
        its id.
        """
        brief, build = read_documents(files)
        return self.create(checked_plan(self.catalogue(), brief, build))

    def copy(self, brief_id: int) -> int:
        plan = self.stored_plan(brief_id)
        name = f"{plan.brief.name[:110]}, copy"
        return self.create(replace(plan, brief=replace(plan.brief, name=name), pinned=None))

    def delete(self, brief_id: int, version: int) -> str:
        """Delete a brief; undo with the next version brings it back. Returns its name."""
        with self.database.writing() as session:
            plan = self._readable(brief_store.get(session, brief_id).document)
            name = f"brief {brief_id}" if plan is None else plan.brief.name
            brief_store.change(session, brief_id, version, f"deleted “{name}”", lambda _: None)
        return name

    def change(self, brief_id: int, version: int, edit: Callable[[Plan], tuple[Plan, str]]) -> str:
        """Change a plan; ``edit`` returns the new plan and a summary. Returns the summary."""
        sentences: list[str] = []

        with self.database.writing() as session:
            stored = brief_store.get(session, brief_id)
            plan, summary = edit(self._plan_of(brief_id, stored.document))
            check_brief(plan.brief)
            sentences.append(summary)
            brief_store.change(session, brief_id, version, summary, lambda _: to_document(plan))
        return sentences[0]

    def undo(self, brief_id: int, version: int) -> str:
        """Take the last change back; returns its summary."""
        with self.database.writing() as session:
            return brief_store.undo(session, brief_id, version)

    def redo(self, brief_id: int, version: int) -> str:
        """Make the change again that was undone last; returns its summary."""
        with self.database.writing() as session:
            return brief_store.redo(session, brief_id, version)

    def snapshots(self, brief_id: int) -> tuple[Snapshot, ...]:
        """A brief's snapshots, the newest first."""
        with self.database.reading() as session:
            return snapshot_store.snapshots_of(session, brief_id)

    def snapshot(self, brief_id: int, snapshot_id: int) -> Snapshot:
        """One snapshot of a brief; raises NoSuchSnapshotError."""
        for snapshot in self.snapshots(brief_id):
            if snapshot.id == snapshot_id:
                return snapshot
        raise NoSuchSnapshotError

    def freeze(self, brief_id: int, name: str, figures: str, document: str = "") -> int:
        """Keep a brief as it is now, or a copy of it, with what was computed of it; returns the
        snapshot's id.
        """
        with self.database.writing() as session:
            document = document or brief_store.get(session, brief_id).document
            as_of = catalogue_store.latest_import(session) or 0
            return snapshot_store.freeze(session, brief_id, name, document, as_of, figures)

    def drop_snapshot(self, brief_id: int, snapshot_id: int) -> None:
        with self.database.writing() as session:
            snapshot_store.drop(session, brief_id, snapshot_id)

    def read_plan(self, document: str) -> Plan:
        """The plan of a stored document; raises PlanError."""
        return self._plan(document)

    def studied(self, described: Catalogue) -> Catalogue:
        """A catalogue that is none of the stored ones, ready to be asked."""
        return self._study(described)

    def catalogue_of(self, as_of: int) -> Catalogue:
        """The catalogue as it stood after an import; the last two are kept."""
        with self._lock:
            if self._loaded is not None and self._loaded[0] == as_of:
                return self._loaded[1]
            if as_of not in self._past:
                with self.database.reading() as session:
                    past = catalogue_store.load_catalogue(session, as_of)
                self._past[as_of] = self._study(past)
            return self._past[as_of]

    def load_demo(
        self, catalogue_folder: Path, briefs_folder: Path, earlier: Earlier | None = None
    ) -> None:
        """Fill an empty database with demo data, all of it or nothing; a database in use is left
        as it is. ``earlier`` gives the offers of days before, the oldest first.
        """
        self.is_demo = True
        if self.has_catalogue():
            return
        catalogue = read_catalogue(catalogue_folder)
        plans = plans_in(briefs_folder)
        with self.database.writing() as session:
            if catalogue_store.latest_import(session) is not None:
                return
            for day, offers in earlier(catalogue) if earlier else ():
                before = replace(catalogue, offers=offers)
                import_store.store_catalogue(session, before, "earlier prices", day)
            import_store.store_catalogue(session, catalogue, catalogue_folder.name)
            for plan in plans:
                self.store(session, plan)

    def build_changes(self, brief_id: int) -> tuple[tuple[date, str], ...]:
        """The days on which the parts of a brief's build changed, with what was done."""
        with self.database.reading() as session:
            rows = brief_store.changes_of(session, brief_id)
        listed = []
        for row in rows:
            before, after = (self._readable(text) for text in (row.before, row.after))
            if before and after and tuple(before.build.ids()) != tuple(after.build.ids()):
                listed.append((row.at.date(), row.summary))
        return tuple(listed)

    def imports(self) -> tuple[Imported, ...]:
        """The imports of catalogues, the newest first."""
        with self.database.reading() as session:
            return history_store.imports_of(session)

    def offer_spans(self, part_ids: Iterable[str], region: str) -> tuple[OfferSpan, ...]:
        """What shops asked for some parts over time."""
        with self.database.reading() as session:
            return history_store.offer_spans(session, part_ids, region)

    def reopen(self) -> None:
        """Go on after ``close``, here or in a process that was forked meanwhile."""
        self.database = Database(self.database.path)

    def close(self) -> None:
        self.database.close()
