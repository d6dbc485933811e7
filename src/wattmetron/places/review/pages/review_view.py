"""The view Review: a list judged part by part, and better lists whose changes can be left."""

from collections.abc import Callable
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KIND_NAMES
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.sent_list import Sent
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.balance.balance_words import what_limits
from wattmetron.places.brief.sent_lists import ImportedLine, placed
from wattmetron.places.proposal.step_words import changed_names, cost_words, gain_words
from wattmetron.places.proposal.upgrade_first import gained_between
from wattmetron.places.review.improve import Improved, gain, improved
from wattmetron.places.review.review import VERDICTS, Judged, judged
from wattmetron.shell.address import DeskQuery, Link
from wattmetron.words.figures import KIND_WORDS, THIN, money, money_change
from wattmetron.words.improvements import WAYS, Way


@dataclass(frozen=True, slots=True, kw_only=True)
class PartRow:
    """A part with its verdict: prices now and theirs, reasons, what comes in its place."""

    kind: str
    name: str
    verdict: str
    means: str
    reasons: tuple[str, ...]
    instead: str
    price: str
    theirs: str
    swap_url: str
    id: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ReviewChangeRow:
    """A group of changes that move together: what goes and comes, what it costs and brings; the
    address that takes or leaves it.
    """

    number: int
    goes: str
    comes: str
    costs: str
    brings: str
    taken: bool
    along: bool
    url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class ReviewView:
    """What the view shows; without parts it asks for a list."""

    headline: str
    whole: tuple[str, ...]
    parts: tuple[PartRow, ...]
    ways: tuple[tuple[str, str, bool], ...]
    changes: tuple[ReviewChangeRow, ...]
    sums: str
    needs: str
    wishes: tuple[str, ...]
    try_url: str
    nothing: str
    unknown: tuple[tuple[str, str, str], ...]
    left_out: tuple[str, ...]


def review_view(
    catalogue: Catalogue,
    plan: Plan,
    now: Assessment,
    query: DeskQuery,
    link: Link,
    trial: Callable[[Build], str],
) -> ReviewView:
    """The review of the adopted build under the chosen aim."""
    way: Way = query.way or "few"
    left = tuple(int(index) for index in (query.leave or "").split(",") if index.isdecimal())
    better = improved(catalogue, now, way, left) if not now.build.empty else None
    best = improved(catalogue, now, "full") if not now.build.empty else None
    judgements = judged(catalogue, now, best, plan.sent)
    return ReviewView(
        headline=_headline(now, judgements),
        whole=tuple(_whole(now)),
        parts=tuple(_part(now, judgement, link) for judgement in judgements),
        ways=tuple((words, link(way=key, leave=None), key == way) for key, words in WAYS.items()),
        changes=() if better is None else tuple(_changes(catalogue, now, better, link)),
        sums="" if better is None else _sums(now, better),
        needs="" if better is None else _needs(now, better),
        wishes=() if better is None else better.wishes,
        try_url="" if better is None else trial(better.taken.build),
        nothing=_nothing(now, way),
        unknown=tuple(_unknown(sent_list) for sent_list in plan.sent if sent_list.part is None),
        left_out=_left_out(catalogue, plan),
    )


def _left_out(catalogue: Catalogue, plan: Plan) -> tuple[str, ...]:
    """What of the list had no place in the build."""
    return placed(
        catalogue,
        [ImportedLine(sent_list) for sent_list in plan.sent if sent_list.part in catalogue.parts],
    )[1]


def _headline(now: Assessment, judgements: tuple[Judged, ...]) -> str:
    if not judgements:
        return "There is no part to judge yet."
    counts = [
        (sum(judgement.verdict == verdict for judgement in judgements), verdict)
        for verdict in VERDICTS
    ]
    sentences = {
        "wrong": "wrong for this brief",
        "forced": "only in the way of another change",
        "dear": "too dear",
        "your call": "a matter of taste",
        "good": "good",
    }
    pieces = [
        f"{count} {'is' if count == 1 else 'are'} {sentences[verdict]}"
        for count, verdict in counts
        if count
    ]
    several = f"Of {len(judgements)} parts {listed(pieces)}."
    return (
        several if len(judgements) > 1 else f"{judgements[0].name} {pieces[0].partition(' ')[2]}."
    )


def _whole(now: Assessment) -> list[str]:
    """The list as a whole, in sentences."""
    currency = now.currency
    sentences = [
        f"{money(now.spent_minor, currency)} delivered of a budget of"
        f" {money(now.brief.budget_high_minor, currency)}."
    ]
    if now.counted:
        sentences.append(f"It meets {now.met} of {len(now.counted)} targets. {what_limits(now)}")
    elif not now.brief.targets:
        sentences.append("Name the games in the brief, and their frames are judged too.")
    if now.missing:
        sentences.append(
            f"Missing: {listed([KIND_WORDS[kind] for kind in now.missing])}; judged with the"
            " cheapest that fit."
        )
    fit = _fit(now)
    if fit or not now.missing:
        sentences.append(f"{fit or 'Everything fits'}.")
    if now.machine.supply is not None:
        sentences.append(
            f"{now.draw.full_w:.0f}{THIN}W with everything busy, {now.needed_w}{THIN}W wanted of a"
            f" supply; it has {now.machine.supply.watts}{THIN}W."
        )
    return sentences


def _fit(now: Assessment) -> str:
    """How many findings block, and how many are to be done first; empty where none."""
    blocks, first = (
        sum(finding.level == level for finding in now.findings) for level in ("blocks", "do first")
    )
    sentences = []
    if blocks:
        sentences.append(f"{blocks} thing{' does' if blocks == 1 else 's do'} not fit")
    if first:
        sentences.append(f"{first} {'is' if first == 1 else 'are'} to be done first")
    return ", ".join(sentences)


def _part(now: Assessment, judgement: Judged, link: Link) -> PartRow:
    currency = now.currency
    return PartRow(
        kind=KIND_NAMES[judgement.kind],
        name=judgement.name,
        verdict=judgement.verdict,
        means=VERDICTS[judgement.verdict],
        reasons=judgement.reasons,
        instead=listed(list(judgement.instead)),
        price="–" if judgement.price_minor is None else money(judgement.price_minor, currency),
        theirs="" if judgement.theirs_minor is None else money(judgement.theirs_minor, currency),
        swap_url=link(swap=judgement.kind, place=judgement.part_id),
        id=judgement.part_id,
    )


def _changes(
    catalogue: Catalogue, now: Assessment, better: Improved, link: Link
) -> list[ReviewChangeRow]:
    rows, before = [], now
    after_each = better.after_each(catalogue, now)
    for n, (step, after) in enumerate(zip(better.steps, after_each, strict=True)):
        left = better.left | better.along
        turned = left - {n} if n in left else left | {n}
        rows.append(
            ReviewChangeRow(
                number=n + 1,
                goes=listed(changed_names(catalogue, step.changes, "left")) or "nothing",
                comes=listed(changed_names(catalogue, step.changes, "bought")) or "nothing",
                costs=cost_words(step.cost_minor, now.currency),
                brings=gain_words(
                    gained_between(before, after), max(0, before.blocking - after.blocking)
                ),
                taken=n not in better.left,
                along=n in better.along,
                url=link(leave=",".join(str(index) for index in sorted(turned)) or None),
            )
        )
        before = after
    return rows


def _sums(now: Assessment, better: Improved) -> str:
    taken = better.taken
    count = len(better.steps) - len(better.left)
    change = money_change(taken.spent_minor - now.spent_minor, now.currency)
    met = f"; {taken.met} of {len(taken.counted)} targets met instead of {now.met}"
    met = met if now.counted else ""
    over = ", over the budget" if taken.left_minor < 0 else ""
    return (
        f"{count} of {len(better.steps)} changes taken:"
        f" {money(taken.spent_minor, now.currency)}{over}, {change}{met}."
    )


def _needs(now: Assessment, better: Improved) -> str:
    """What came along although it was to be left, and why frames are lost where they are."""
    sentences = []
    if better.along:
        which = listed([str(n + 1) for n in sorted(better.along)])
        sentences.append(
            f"Change {which} comes along: without it the others make no machine that runs."
        )
    if now.floors and not now.missing and gain(now, better.taken) < 0:
        sentences.append(
            f"Fewer frames, because this list does not keep to the brief: {now.floors[0]}"
        )
    return " ".join(sentences)


def _nothing(now: Assessment, way: Way) -> str:
    if now.build.empty:
        return "Paste a list, or choose parts, and they are judged here."
    return {
        "few": "Nothing within the budget is better than this list.",
        "full": "Nothing within the budget is better than this list.",
        "same money": "Nothing for the same money is better than this list.",
        "same frames": "Nothing has the same frames for less.",
    }[way]


def _unknown(sent_list: Sent) -> tuple[str, str, str]:
    """Text, what else is known, and where it is entered."""
    known = [KIND_NAMES[sent_list.kind]] if sent_list.kind else []
    if sent_list.price_minor is not None:
        known.append(money(sent_list.price_minor, sent_list.currency or ""))
    return sent_list.text, ", ".join(known), f"/parts/new?kind={sent_list.kind or 'processor'}"


def _content(context: ViewContext) -> ReviewView:
    return review_view(
        context.catalogue,
        context.opened.plan,
        context.present,
        context.query,
        context.link,
        context.trial,
    )


REVIEW = ViewSpec(
    name="review",
    title="Review",
    key="4",
    template="places/review/pages/review.html",
    make=_content,
)
