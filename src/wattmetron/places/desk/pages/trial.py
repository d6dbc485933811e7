"""What is being tried on a brief's page, and what its pointers are compared with."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import ALL_KINDS
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.assess import Assessment, assess, known_build
from wattmetron.places.balance.balance import cell_of, tables
from wattmetron.places.proposal.no_answer import Answer
from wattmetron.shell.address import DeskQuery, decode_build, encode_build
from wattmetron.words.figures import KIND_WORDS, money
from wattmetron.workshop.listed_briefs import Opened


@dataclass(frozen=True, slots=True)
class Trying:
    """What is being tried: the encoded build and one sentence about it."""

    code: str
    sentence: str
    leave_url: str


def tried_build(
    catalogue: Catalogue, plan: Plan, query: DeskQuery, answer: Answer | None
) -> Build | None:
    """The build being tried, unless it is the present one or names unknown parts."""
    build = plan.build
    if query.tried is not None:
        try:
            tried = decode_build(query.tried, build)
            catalogue.machine(known_build(catalogue, tried))
        except WattmetronError:
            return None
        return None if _same(tried, build) else tried
    if query.pair is not None or query.step is not None:
        chosen = _chosen_build(catalogue, plan, query)
        return None if chosen is None or _same(chosen, build) else chosen
    if (
        answer is not None
        and answer.proposal.build is not None
        and not _same(answer.proposal.build, build)
    ):
        return answer.proposal.build
    return None


def _chosen_build(catalogue: Catalogue, plan: Plan, query: DeskQuery) -> Build | None:
    """The build of a pairing of the map or of a step of the frontier that the address names."""
    all_tables = tables(catalogue, plan.brief, plan.build)
    if query.step is not None:
        step = all_tables.frontier.best(int(query.step)) if query.step.isdecimal() else None
        return None if step is None else all_tables.build_at(step)
    processor, _, card = (query.pair or "").partition(":")
    cell = cell_of(all_tables, processor, card)
    return None if cell is None else all_tables.build_at(cell.winner)


def _same(build: Build, other: Build) -> bool:
    return all(build.of(kind) == other.of(kind) for kind in ALL_KINDS)


def ghost_of(
    catalogue: Catalogue, opened: Opened, present: Assessment, trying: bool
) -> tuple[Assessment | None, str]:
    """What the pointers' ghosts stand for: the pinned build, else the adopted one, else the last
    state.
    """
    if opened.plan.pinned is not None:
        return (
            assess(catalogue, opened.plan.brief, opened.plan.pinned),
            "compared with the pinned build",
        )
    if trying:
        return present, "compared with the adopted build"
    before = opened.before
    if before is None or before.brief.region not in catalogue.regions:
        return None, ""
    return assess(catalogue, before.brief, before.build), "compared with before the last change"


def trying(
    present: Assessment, now: Assessment, build: Build, query: DeskQuery, brief_id: int
) -> Trying:
    changed = [kind for kind in ALL_KINDS if now.build.of(kind) != build.of(kind)]
    delta = now.spent_minor - present.spent_minor
    cost = "at the same price"
    if delta:
        cost = f"{money(abs(delta), now.currency)} {'more' if delta > 0 else 'less'}"
    words = KIND_WORDS[changed[0]] if len(changed) == 1 else f"{len(changed)} changes"
    what = words
    if len(changed) == 1 and now.build.of(changed[0]):
        part = next(
            (line.part for line in now.lines if line.part_id == now.build.of(changed[0])[-1]), None
        )
        what = part.name if part else words
    met = f"{now.met} of {len(now.counted)} targets met" if now.counted else ""
    if present.counted and now.met != present.met:
        met += f" (was {present.met})"
    leave = query.url(brief_id, tried=None, propose=None, pair=None, step=None)
    sentence = f"Trying {what}: {cost}" + (f", {met}" if met else "") + "."
    return Trying(encode_build(now.build, build), sentence, leave)
