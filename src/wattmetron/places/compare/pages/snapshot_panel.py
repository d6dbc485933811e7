"""Snapshots of a brief: kept, listed, and what changed since one of them and why."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.places.handout.changes_since import CAUSES, Since, read_figures, since
from wattmetron.places.handout.sets import all_sets
from wattmetron.words.figures import THIN, money
from wattmetron.workshop.listed_briefs import Opened
from wattmetron.workshop.workshop import Snapshot, Workshop

LEAST_FACTOR = 0.001
CAUSE_WORDS = {
    "parts": "other parts",
    "prices": "prices",
    "evidence": "what is known of parts and games",
    "model": "the model",
}


@dataclass(frozen=True, slots=True)
class Frozen:
    """A snapshot with its plan."""

    snapshot: Snapshot
    plan: Plan


@dataclass(frozen=True, slots=True, kw_only=True)
class SnapshotListRow:
    """A line of the list."""

    id: int
    name: str
    day: str
    total: str
    met: str


@dataclass(frozen=True, slots=True, kw_only=True)
class SinceView:
    """What changed since a snapshot, in sentences, with the shares of each cause."""

    title: str
    says: tuple[str, ...]
    causes: tuple[tuple[str, str, str], ...]


@dataclass(frozen=True, slots=True)
class Past:
    """All snapshots of a brief, and the difference that is asked for; ``foreign`` is asked for, but
    came from elsewhere, so that the causes are not known; ``sets`` are id and name of those that a
    snapshot can be put into.
    """

    frozen: tuple[Frozen, ...] = ()
    since: tuple[Snapshot, Since] | None = None
    sets: tuple[tuple[int, str], ...] = ()
    foreign: Snapshot | None = None


def past_of(workshop: Workshop, catalogue: Catalogue, opened: Opened, snapshot_text: str) -> Past:
    """The snapshots of a brief; ``snapshot_text``: id of the one since which is asked."""
    frozen = tuple(
        Frozen(snapshot, workshop.read_plan(snapshot.document))
        for snapshot in workshop.snapshots(opened.id)
    )
    sets = tuple((opened_set.id, opened_set.build_set.name) for opened_set in all_sets(workshop))
    wanted = next((dated for dated in frozen if str(dated.snapshot.id) == snapshot_text), None)
    if wanted is None:
        return Past(frozen, sets=sets)
    if wanted.snapshot.as_of is None:
        return Past(frozen, sets=sets, foreign=wanted.snapshot)
    old = workshop.catalogue_of(wanted.snapshot.as_of)
    difference = since(
        (old, wanted.plan, read_figures(wanted.snapshot.figures)),
        (catalogue, opened.plan),
        workshop.studied,
    )
    return Past(frozen, (wanted.snapshot, difference), sets)


def snapshot_rows(past: Past, currency: str) -> tuple[SnapshotListRow, ...]:
    rows = []
    for dated in past.frozen:
        figures = read_figures(dated.snapshot.figures)
        rows.append(
            SnapshotListRow(
                id=dated.snapshot.id,
                name=dated.snapshot.name or "a snapshot",
                day=f"{dated.snapshot.made_at:%-d %b %Y}",
                total=money(figures.spent_minor, currency),
                met=f"{figures.met} of {len(figures.rates)}",
            )
        )
    return tuple(rows)


def since_view(catalogue: Catalogue, past: Past, currency: str) -> SinceView | None:
    """The difference in words and shares."""
    if past.foreign is not None:
        return SinceView(
            title=_title(past.foreign),
            says=(
                "This snapshot came from elsewhere with its figures; the prices and the evidence of"
                " that day are not here, so what caused a difference is not known. Put it beside"
                " this build to compare them at today's prices.",
            ),
            causes=(),
        )
    if past.since is None:
        return None
    snapshot, difference = past.since
    spent = difference.now.spent_minor - sum(difference.money_minor.values())
    change = difference.now.spent_minor - spent
    factor = 1.0
    for frame in difference.frames.values():
        factor *= frame
    says = [
        f"The build costs {money(difference.now.spent_minor, currency)} today;"
        f" it was {money(spent, currency)} ({_change(change, currency)})."
    ]
    if difference.targets:
        says.append(
            f"Over {difference.targets} targets the frame rates are {_factor(factor)} on average;"
            f" {difference.now.met} are met, {difference.then.met} were."
        )
    for step in difference.changes:
        gone, come = (_names(catalogue, ids) for ids in (step.left, step.bought))
        says.append(f"{come or 'Nothing'} instead of {gone or 'nothing'}.")
    if not difference.changes:
        says.append("The parts are the same.")
    return SinceView(
        title=_title(snapshot),
        says=tuple(says),
        causes=tuple(
            (
                CAUSE_WORDS[cause],
                _change(difference.money_minor[cause], currency),
                _factor(difference.frames[cause]),
            )
            for cause in CAUSES
        ),
    )


def _title(snapshot: Snapshot) -> str:
    return f"Since {snapshot.name or 'the snapshot'} of {snapshot.made_at:%-d %B %Y}"


def _names(catalogue: Catalogue, ids: tuple[str, ...]) -> str:
    return listed(
        [
            catalogue.parts[part_id].name if part_id in catalogue.parts else part_id
            for part_id in ids
        ]
    )


def _change(minor: int, currency: str) -> str:
    if not minor:
        return "the same"
    return f"{money(abs(minor), currency)} {'more' if minor > 0 else 'less'}"


def _factor(factor: float) -> str:
    if abs(factor - 1) < LEAST_FACTOR:
        return "the same"
    return f"{abs(factor - 1) * 100:.1f}{THIN}% {'higher' if factor > 1 else 'lower'}"
