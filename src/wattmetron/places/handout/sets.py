"""Sets of dated builds: kept, changed, and which of their builds are out of date and why."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.dated import BuildSet, Dated
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.formats.set_file import SetError, set_document, set_from
from wattmetron.places.assessment.assess import Assessment, assess, known_brief, known_build
from wattmetron.places.handout.changes_since import figures_of, read_figures
from wattmetron.store import catalogues, documents
from wattmetron.store.database import Transaction
from wattmetron.store.documents import Paper
from wattmetron.words.figures import THIN, money
from wattmetron.workshop.workshop import Snapshot, Workshop

LEAST_MONEY, LEAST_FRAMES = 0.02, 0.02
"""A build is out of date from such a change of its total or of a frame rate on."""
MOST_NAMED = 3


@dataclass(frozen=True, slots=True)
class OpenedSet:
    """A set as stored; ``can_undo``: its last change can be taken back."""

    id: int
    version: int
    build_set: BuildSet
    can_undo: bool


def all_sets(workshop: Workshop) -> tuple[OpenedSet, ...]:
    """Every set that can be read."""
    with workshop.database.reading() as session:
        stored = documents.papers_of(session, "set")
    opened_sets = []
    for paper in stored:
        try:
            opened_sets.append(_opened(paper))
        except SetError:
            continue
    return tuple(opened_sets)


def _opened(paper: Paper) -> OpenedSet:
    return OpenedSet(paper.id, paper.version, set_from(paper.document or ""), paper.can_undo)


def open_set(workshop: Workshop, set_id: int) -> OpenedSet:
    """Raises NoSuchPaperError, SetError."""
    with workshop.database.reading() as session:
        return _opened(documents.get(session, "set", set_id))


def make_set(workshop: Workshop, build_set: BuildSet) -> int:
    """Store a set and return its id."""
    with workshop.database.writing() as session:
        return documents.add(session, "set", set_document(build_set))


def change_set(
    workshop: Workshop, set_id: int, version: int, edit: Callable[[BuildSet], BuildSet]
) -> None:
    """Change a set; raises ConflictError on a stale version."""
    with workshop.database.writing() as session:
        build_set = set_from(documents.get(session, "set", set_id).document or "")
        documents.change(session, "set", set_id, version, set_document(edit(build_set)))


def drop_set(workshop: Workshop, set_id: int, version: int) -> None:
    with workshop.database.writing() as session:
        documents.change(session, "set", set_id, version, None)


def undo_set(workshop: Workshop, set_id: int, version: int) -> None:
    """Take the last change of a set back, its being taken out included."""
    with workshop.database.writing() as session:
        documents.take_back(session, "set", set_id, version)


def dated_now(workshop: Workshop, name: str, plan: Plan) -> Dated:
    """A plan as it stands today."""
    catalogue = workshop.catalogue()
    figures = figures_of(assess(catalogue, plan.brief, plan.build))
    with workshop.database.reading() as session:
        as_of = catalogues.latest_import(session)
        return _dated(session, name, datetime.now(UTC), as_of, plan, figures.text)


def dated_snapshot(workshop: Workshop, snapshot: Snapshot) -> Dated:
    """A snapshot as a dated build."""
    plan = workshop.read_plan(snapshot.document)
    name = snapshot.name or plan.brief.name[:80]
    with workshop.database.reading() as session:
        made_at, figures = snapshot.made_at, snapshot.figures
        return _dated(session, name, made_at, snapshot.as_of, plan, figures)


def _dated(
    session: Transaction, name: str, made_at: datetime, as_of: int | None, plan: Plan, figures: str
) -> Dated:
    imported_at = None if as_of is None else catalogues.import_time(session, as_of)
    bare_plan = replace(plan, pinned=None, sent=(), purchases=())
    return Dated(
        name=name,
        made_at=made_at,
        as_of=as_of,
        imported_at=imported_at,
        plan=bare_plan,
        figures=figures,
    )


def import_here(session: Transaction, dated_build: Dated) -> int | None:
    """The import of a dated build's day, where it is the same one in this database."""
    if dated_build.as_of is None or dated_build.imported_at is None:
        return None
    here = catalogues.import_time(session, dated_build.as_of)
    same = here is not None and here.replace(tzinfo=None) == dated_build.imported_at.replace(
        tzinfo=None
    )
    return dated_build.as_of if same else None


def catalogue_then(workshop: Workshop, dated_build: Dated) -> Catalogue | None:
    """The catalogue of a dated build's day; None where it is not here."""
    with workshop.database.reading() as session:
        as_of = import_here(session, dated_build)
    return None if as_of is None else workshop.catalogue_of(as_of)


def assessed(catalogue: Catalogue, dated_build: Dated, region: str = "") -> Assessment:
    """A dated build judged with a catalogue, perhaps in another region; raises BriefError where
    that lacks the region.
    """
    brief = replace(dated_build.plan.brief, region=region or dated_build.plan.brief.region)
    if brief.region not in catalogue.regions:
        raise BriefError(f"The region of “{dated_build.name}” is not in the catalogue any more.")
    known = known_brief(catalogue, brief)
    targets = tuple(target for target in known.targets if target.game_id in catalogue.games)
    known = replace(known, targets=targets)
    return assess(catalogue, known, known_build(catalogue, dated_build.plan.build))


def outdated(catalogue: Catalogue, dated_build: Dated, then: Catalogue | None) -> tuple[str, ...]:
    """Why a dated build is out of date, in sentences; none where it is not. ``then`` is the
    catalogue of its day, to say which prices moved.
    """
    lost = [
        part_id for _, part_id in dated_build.plan.build.ids() if part_id not in catalogue.parts
    ]
    try:
        now = assessed(catalogue, dated_build)
    except BriefError as error:
        return (str(error),)
    figures = read_figures(dated_build.figures)
    sentences = []
    if lost:
        sentences.append(
            f"{listed(lost)} {'is' if len(lost) == 1 else 'are'} not in the catalogue."
        )
    if now.unpriced:
        names = [line.part.name for line in now.unpriced if line.part]
        sentences.append(f"{listed(names)} {'is' if len(names) == 1 else 'are'} not on sale.")
    change = now.spent_minor - figures.spent_minor
    if figures.spent_minor and abs(change) >= LEAST_MONEY * figures.spent_minor:
        more = "more" if change > 0 else "less"
        moved = f": {listed(_moved(now, then))}" if then is not None and _moved(now, then) else ""
        sentences.append(f"It costs {money(abs(change), now.currency)} {more}{moved}.")
    if now.left_minor < 0 and figures.spent_minor <= dated_build.plan.brief.budget_high_minor:
        sentences.append(f"It is {money(-now.left_minor, now.currency)} over its budget now.")
    sentences += _frames_moved(now, figures.rates)
    if now.blocking:
        sentences.append(
            f"{now.blocking} thing{'s' if now.blocking > 1 else ''} would not fit now."
        )
    return tuple(sentences)


def _moved(now: Assessment, then: Catalogue) -> list[str]:
    """The parts whose prices moved most, with by how much."""
    if now.brief.region not in then.regions:
        return []
    book = then.prices(now.brief.region, now.brief.may_buy)
    moves = []
    for line in now.lines:
        before = book.cost(line.part_id)
        if line.part is None or line.owned or line.offer is None or before is None:
            continue
        moves.append((line.offer.cost_minor - before, line.part.name))
    most = sorted((move for move in moves if move[0]), key=lambda move: -abs(move[0]))[:MOST_NAMED]
    return [
        f"{name} {money(abs(minor), now.currency)} {'more' if minor > 0 else 'less'}"
        for minor, name in most
    ]


def _frames_moved(now: Assessment, rates: dict[str, float]) -> list[str]:
    """Targets whose estimate moved, which the parts did not cause."""
    sentences = []
    for estimate in now.counted:
        before = rates.get(estimate.target.id)
        if before and abs(estimate.judged_fps / before - 1) >= LEAST_FRAMES:
            sentences.append(
                f"{estimate.game.name} is estimated at {estimate.judged_fps:.0f}{THIN}fps now,"
                f" {before:.0f}{THIN}fps then: the evidence or the model changed."
            )
    return sentences
