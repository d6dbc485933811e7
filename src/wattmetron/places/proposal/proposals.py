"""Proposals with the account of why, and what stands in the way where there is none."""

from collections.abc import Iterator
from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.extras import types
from wattmetron.core.compatibility.vetting import Vetting
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.answer import Aim, Proposal
from wattmetron.core.search.proposal import propose
from wattmetron.core.search.resale import FREE_KINDS
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KINDS, OF_FANS, Kind
from wattmetron.core.values.parts import Part
from wattmetron.places.assessment.all_targets import together_words
from wattmetron.places.assessment.assess import (
    Assessment,
    CostLine,
    assess,
    known_brief,
    known_build,
    not_allowed,
)
from wattmetron.places.proposal import same_frames
from wattmetron.places.proposal.all_at_once import asked_words
from wattmetron.places.proposal.left_over import left_over_words
from wattmetron.places.proposal.no_answer import Answer, Reason, explained_lack
from wattmetron.places.proposal.preference_answers import preference_lines, settled
from wattmetron.words.figures import KIND_WORDS, money

LEAST_SHARE_PERCENT = 0.05
"""What rounds to nothing is not told."""


def kept_parts(catalogue: Catalogue, brief: Brief, build: Build) -> Build:
    """What a proposal leaves as it is: the parts that are kept, and further ones that the brief
    does not want bought; one card at most. Parts that the catalogue lost are left out.
    """
    free = replace(known_build(catalogue, build), second_card=None)
    for kind, part_id in free.ids():
        if part_id not in build.kept and _proposed(catalogue, brief, kind, part_id):
            free = free.without(kind, part_id)
    return free


def _proposed(catalogue: Catalogue, brief: Brief, kind: Kind, part_id: str) -> bool:
    """Whether proposals decide about a part: of input devices about keyboard and mouse."""
    if kind in (*KINDS, *OF_FANS):
        return True
    if kind == "wireless":
        return brief.wireless
    if kind == "input" and not types(catalogue.part(part_id)):
        return False
    return kind in brief.buys


def answer(catalogue: Catalogue, brief: Brief, build: Build, aim: Aim) -> Answer:
    """Propose the rest around the kept parts of a build and explain the answer."""
    return catalogue.ask(_answer, brief, build, aim)


def _answer(catalogue: Catalogue, brief: Brief, build: Build, aim: Aim) -> Answer:
    brief = known_brief(catalogue, brief)
    fixed = kept_parts(catalogue, brief, build)
    if aim == "same frames":
        return _same_frames(catalogue, brief, fixed, known_build(catalogue, build))
    insisted, preferences = settled(catalogue, brief, fixed, aim)
    proposal = propose(catalogue, insisted, aim, fixed)
    if proposal.build is None:
        return explained_lack(catalogue, insisted, fixed, proposal)
    assessment = assess(catalogue, insisted, proposal.build)
    return Answer(
        proposal=proposal,
        assessment=assessment,
        headline=_headline(proposal, assessment),
        account=(
            *_account(proposal, assessment),
            *filter(
                None,
                [
                    together_words(catalogue, assessment),
                    asked_words(catalogue, insisted, assessment),
                ],
            ),
            *_left_over(catalogue, insisted, assessment),
            *preference_lines(brief, preferences, assessment.currency),
        ),
        relaxations=(),
    )


def _same_frames(catalogue: Catalogue, brief: Brief, fixed: Build, build: Build) -> Answer:
    """The cheapest build with the frames of the present one, with what each saving gives up."""
    now = assess(catalogue, brief, build)
    asks = now.whole and bool(now.counted)
    present = build if asks else None
    insisted, preferences = settled(catalogue, brief, fixed, "same frames", present)
    proposal = propose(catalogue, insisted, "same frames", fixed, present=present)
    if proposal.build is None:
        sentence = (
            "Nothing that keeps to the brief has the frames of the present build."
            if asks
            else "The same frames are those of a whole build with targets: choose one first."
        )
        return Answer(
            proposal=proposal,
            assessment=None,
            headline=sentence,
            account=(),
            relaxations=(),
        )
    then = assess(catalogue, insisted, proposal.build)
    met = sum(run.target.weight for run in then.counted if run.state == "meets")
    return Answer(
        proposal=replace(proposal, weight_met=met),
        assessment=then,
        headline=same_frames.headline(now, then),
        account=(
            *same_frames.account(catalogue, now, then),
            *_left_over(catalogue, insisted, then),
            *preference_lines(brief, preferences, then.currency),
        ),
        relaxations=(),
        savings=same_frames.savings(catalogue, now, then),
    )


def _left_over(catalogue: Catalogue, brief: Brief, assessment: Assessment) -> Iterator[str]:
    words = left_over_words(catalogue, brief, assessment.build, assessment.currency)
    if words:
        yield words


def _headline(proposal: Proposal, assessment: Assessment) -> str:
    cost = money(assessment.spent_minor, assessment.currency)
    counted = len(assessment.counted)
    targets = (
        f"meets {assessment.met} of {counted} targets" if counted else "is the cheapest that fits"
    )
    return f"The proposal costs {cost} and {targets}."


def _account(proposal: Proposal, assessment: Assessment) -> tuple[str, ...]:
    currency = assessment.currency
    lines = [
        f"{proposal.pairings:,} pairings of processor and graphics part were looked at,"
        f" {proposal.pairings_in_budget:,} of them within reach; every one that could win was"
        " computed in full."
    ]
    if proposal.aim == "most frames":
        lines.append(
            f"No fitting build within {money(proposal.budget_minor, currency)} for parts meets more"
            f" of the weight ({proposal.weight_met} of {proposal.weight_all})."
            if proposal.weight_all
            else "No target counts, so the cheapest fitting build is the answer."
        )
        more = proposal.best_cost_minor - proposal.cost_minor
        share = (proposal.best_gain - proposal.gain) / 10_000
        if more > 0 and share >= LEAST_SHARE_PERCENT:
            lines.append(
                f"It is the cheapest within 2 % of the best: the last {share:.1f} % of frame rate "
                f"would cost {money(more, currency)} more."
            )
    else:
        lines.append("No fitting build meets every target for less.")
        if assessment.left_minor < 0:
            lines.append(f"That is {money(-assessment.left_minor, currency)} more than the budget.")
    return tuple(lines)


def reasons_of(catalogue: Catalogue, assessment: Assessment | None) -> tuple[Reason, ...]:
    """For each bought part, what the next cheaper one would spoil; none without a machine."""
    if assessment is None:
        return ()
    return catalogue.ask(_reasons, assessment.brief, assessment.build)


def _reasons(catalogue: Catalogue, brief: Brief, build: Build) -> tuple[Reason, ...]:
    assessment, reasons = assess(catalogue, brief, build), []
    for line in assessment.lines:
        if line.part is None:
            continue
        name = line.part.name
        if line.owned or line.is_kept:
            reasons.append(Reason(line.kind, name, _why_there(assessment, line)))
        else:
            sentence = _left_out(catalogue, assessment, line) if line.kind == "fan" else ""
            if line.kind == "splitter":
                sentence = "Joins the added fans on one header with a fan of the case."
            why = sentence or _cheaper_spoils(catalogue, assessment, line)
            reasons.append(Reason(line.kind, name, why))
    return tuple(reasons)


def _why_there(now: Assessment, line: CostLine) -> str:
    """Why a part that is not bought is in the answer."""
    if not line.owned:
        return "Kept as you asked."
    if line.part_id in now.brief.stays:
        return "Yours, and you want it to stay."
    if line.kind not in FREE_KINDS:
        return "Yours, and it always serves."
    return "Yours: nothing on sale is worth its price here."


def _left_out(catalogue: Catalogue, now: Assessment, line: CostLine) -> str:
    """What the build would miss without this part and does not miss now; empty where nothing."""
    bare = now.build.without(line.kind, line.part_id)
    machine = machine_of(catalogue, bare, now.brief.clocks)
    vetting = Vetting(catalogue, known_brief(catalogue, now.brief), now.machine)
    lacking = next(vetting.objections(machine), "")
    return f"Without it: {lacking}" if lacking else ""


def _cheaper_spoils(catalogue: Catalogue, now: Assessment, line: CostLine) -> str:
    book = catalogue.prices(now.brief.region, now.brief.may_buy)
    cheaper = sorted(
        (
            (price, part)
            for part in catalogue.by_kind[line.kind]
            if (price := book.cost(part.id)) is not None and price < line.cost_minor
        ),
        key=lambda offered: (-offered[0], offered[1].id),
    )
    if not cheaper:
        return f"The cheapest {KIND_WORDS[line.kind]} on sale."
    worst = ""
    vetting = Vetting(catalogue, known_brief(catalogue, now.brief), now.machine)
    for price, part in cheaper:
        build = now.build.with_part(line.kind, part.id, line.part_id)
        why = _why_not(catalogue, now, build, part, vetting)
        if why:
            worst = worst or f"Cheaper ones do not do: {why}"
            continue
        other = assess(catalogue, now.brief, build)
        saved = money(line.cost_minor - price, now.currency)
        lost = _lost(now, other)
        if lost:
            shown = ", ".join(lost[:2]) + (f" and {len(lost) - 2} more" if len(lost) > 2 else "")
            return f"{part.name} would save {saved} but take {shown}."
        if other.met >= now.met:
            return f"{part.name} would save {saved} for almost the same frames."
    return worst or f"The cheapest {KIND_WORDS[line.kind]} that fits."


def _why_not(
    catalogue: Catalogue, now: Assessment, build: Build, part: Part, vetting: Vetting
) -> str:
    """What any rule finds in a build with this part, or what the brief wants and it would not have,
    in a sentence; empty where nothing does. What is so in the present build already is no reason.
    """
    brief = now.brief
    machine = machine_of(catalogue, build, brief.clocks)
    book = catalogue.prices(brief.region, brief.may_buy)
    price = book.cost(part.id) or 0
    barred = next(iter(not_allowed(brief, part, price, book, now.stays)), "")
    against = barred or next(vetting.objections(machine), "")
    return against or ("Something would be missing." if machine.missing() else "")


def _lost(now: Assessment, other: Assessment) -> list[str]:
    """Targets that another build runs slower, in words."""
    return [
        f"{before.game.name} to {after.judged_fps:.0f} fps ({after.state})"
        for before, after in zip(now.counted, other.counted, strict=True)
        if after.reliable_fps < before.reliable_fps * 0.98
        or (after.state != before.state == "meets")
    ]
