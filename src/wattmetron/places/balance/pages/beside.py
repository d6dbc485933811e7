"""The proposal beside the brief: what the page answers while one still writes."""

from collections.abc import Iterator
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import ALL_KINDS
from wattmetron.places.assessment.all_targets import at_once_words
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.balance.balance import cell_of, tables
from wattmetron.places.proposal.proposals import answer
from wattmetron.shell.address import encode_build
from wattmetron.words.figures import KIND_WORDS, money, money_change
from wattmetron.workshop.listed_briefs import Opened


@dataclass(frozen=True, slots=True, kw_only=True)
class PartLine:
    """A part of the proposal: kind, name, price, and whether the build has it already."""

    kind: str
    name: str
    price: str
    there: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class AimLine:
    """A target with the proposal: game, wanted, rate, state."""

    game: str
    wanted: str
    rate: str
    state: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class ProposalPreview:
    """The proposal of most frames; ``code`` tries it and is empty where the build is it already."""

    opened: Opened
    headline: str
    says: tuple[str, ...]
    parts: tuple[PartLine, ...]
    aims: tuple[AimLine, ...]
    change: str
    code: str
    asks: str


def beside_view(catalogue: Catalogue, opened: Opened) -> ProposalPreview:
    """The answer to the brief as it stands; a sentence where something is still missing."""
    plan = opened.plan
    brief = plan.brief
    if not brief.targets:
        return _bare(opened, "Add a game, and the best build for it stands here.")
    proposal = answer(catalogue, brief, plan.build, "most frames")
    if proposal.proposal.build is None or proposal.assessment is None:
        return _bare(opened, proposal.headline)
    now, present = proposal.assessment, assess(catalogue, brief, plan.build)
    says = [f"{money(now.left_minor, now.currency)} left of the budget"]
    if at_once := at_once_words(catalogue, now):
        says.append(at_once)
    change = (
        "" if present.missing else money_change(now.spent_minor - present.spent_minor, now.currency)
    )
    return ProposalPreview(
        opened=opened,
        headline=proposal.headline,
        says=tuple(says),
        parts=tuple(part_lines(now, plan.build)),
        aims=tuple(aim_lines(catalogue, now)),
        change=change,
        code=encode_build(proposal.proposal.build, plan.build),
        asks="",
    )


def _bare(opened: Opened, words: str) -> ProposalPreview:
    return ProposalPreview(
        opened=opened, headline="", says=(), parts=(), aims=(), change="", code="", asks=words
    )


def cell_view(catalogue: Catalogue, opened: Opened, pair: str) -> ProposalPreview:
    """The best build of a pairing of the map, by the ids of its processor and card."""
    plan = opened.plan
    all_tables = tables(catalogue, plan.brief, plan.build)
    processor, _, card = pair.partition(":")
    cell = cell_of(all_tables, processor, card)
    if cell is None:
        return _bare(opened, "Nothing fits around this pairing any more: load the page again.")
    build = all_tables.build_at(cell.winner)
    now = assess(catalogue, plan.brief, build)
    over = "" if now.left_minor >= 0 else ", over the budget"
    return ProposalPreview(
        opened=opened,
        headline=f"{money(now.spent_minor, now.currency)}{over}",
        says=tuple(
            filter(None, [f"{now.met} of {len(now.counted)} met", at_once_words(catalogue, now)])
        ),
        parts=tuple(part_lines(now, plan.build)),
        aims=tuple(aim_lines(catalogue, now)),
        change="",
        code=encode_build(build, plan.build),
        asks="",
    )


def part_lines(now: Assessment, there: Build) -> Iterator[PartLine]:
    """The parts of a build in the order of the kinds, with what is in another one already."""
    had = {part_id for _, part_id in there.ids()}
    for kind in ALL_KINDS:
        for line in now.lines:
            if line.kind == kind:
                yield PartLine(
                    kind=KIND_WORDS[kind],
                    name=line.part.name if line.part else line.part_id,
                    price="owned" if line.owned else money(line.cost_minor, now.currency),
                    there=line.part_id in had,
                )


def aim_lines(catalogue: Catalogue, now: Assessment) -> Iterator[AimLine]:
    """The targets with what a build reaches."""
    for run in now.estimates:
        if run is not None:
            game = catalogue.games.get(run.target.game_id)
            yield AimLine(
                game=game.name if game else run.target.game_id,
                wanted=f"{run.target.fps:g}",
                rate=f"{run.judged_fps:.0f}" if run.judged_fps else "–",
                state=run.state,
            )
