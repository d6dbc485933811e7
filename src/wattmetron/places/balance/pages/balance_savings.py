"""Where money could be saved: parts that buy no frames, cuts while over the budget, what is left
over.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import exp

from wattmetron.core.balance.reductions import Cut
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment, assess
from wattmetron.places.balance.balance import bought_for_years, cuts_of, trimmed
from wattmetron.places.proposal.gives_up import gives_up
from wattmetron.places.proposal.outside_budget import outside_words
from wattmetron.words.figures import KIND_WORDS, THIN, money


@dataclass(frozen=True, slots=True, kw_only=True)
class IdleRow:
    """A part with the cheapest one that costs no frames."""

    kind: str
    now: str
    instead: str
    saves: str
    gives_up: str
    url: str


def idle_row(
    catalogue: Catalogue, subject: Assessment, kind: Kind, cut: Cut, trial: Callable[[Build], str]
) -> IdleRow:
    old = catalogue.part(cut.instead_of)
    return IdleRow(
        kind=KIND_WORDS[kind],
        now=old.name,
        instead=cut.part.name,
        saves=money(cut.saves_minor, subject.currency),
        gives_up=gives_up(old, cut.part),
        url=trial(cut.build),
    )


def idle_words(free: dict[Kind, Cut], subject: Assessment) -> str:
    if subject.missing or not subject.counted:
        return "Said of a whole build with targets."
    if not free:
        return "Every part here buys frames, or the cheapest that fits stands already."
    return (
        "One swap at a time, everything else kept; no target falls by 2 % or into a worse state."
        " What it gives up may have been bought on purpose."
    )


def for_years(catalogue: Catalogue, subject: Assessment) -> Iterator[str]:
    """Money that buys no frames today but is not called waste, for it carries targets in the years
    to keep.
    """
    for kind, (cut, mine, other) in bought_for_years(catalogue, subject).items():
        saves = money(cut.saves_minor, subject.currency)
        old, years = (
            catalogue.part(cut.instead_of).name,
            f"{subject.brief.years} {'year' if subject.brief.years == 1 else 'years'}",
        )
        yield (
            f"Bought for the years: {cut.part.name} would free {saves} today, but in {years} the"
            f" {KIND_WORDS[kind]} alone carries {other} of {len(subject.counted)} targets with it,"
            f" {mine} with {old}."
        )


def cut_rows(
    catalogue: Catalogue, subject: Assessment, trial: Callable[[Build], str]
) -> Iterator[IdleRow]:
    """While the build is over the budget: for each kind the cut that loses least per unit of
    money.
    """
    if subject.left_minor >= 0:
        return
    weights = tuple(estimate.target.weight for estimate in subject.counted)
    best: dict[Kind, Cut] = {}
    for each_cut in cuts_of(catalogue, subject):
        rate = each_cut.loss(weights) / each_cut.saves_minor
        if (
            each_cut.kind not in best
            or rate < best[each_cut.kind].loss(weights) / best[each_cut.kind].saves_minor
        ):
            best[each_cut.kind] = each_cut
    for kind, cut in sorted(
        best.items(), key=lambda row: row[1].loss(weights) / row[1].saves_minor
    ):
        lost = 1 - exp(-cut.loss(weights))
        words = "no frames" if lost < 0.0005 else f"{100 * lost:.1f}{THIN}% of the frames"
        yield IdleRow(
            kind=KIND_WORDS[kind],
            now=catalogue.part(cut.instead_of).name,
            instead=cut.part.name,
            saves=money(cut.saves_minor, subject.currency),
            gives_up=words,
            url=trial(cut.build),
        )


def left_words(catalogue: Catalogue, subject: Assessment) -> str:
    """What the money that is left would buy outside the machine: of each further kind the dearest
    that it pays.
    """
    if subject.left_minor <= 0 or subject.missing:
        return ""
    return outside_words(catalogue, subject, subject.left_minor)


def trim_words(
    catalogue: Catalogue, subject: Assessment, trial: Callable[[Build], str]
) -> tuple[str, str]:
    over = -subject.left_minor
    if over <= 0 or not cuts_of(catalogue, subject):
        return "", ""
    made = trimmed(catalogue, subject, over)
    if not made:
        return "", ""
    names = listed(
        [f"{cut.part.name} ({money(cut.saves_minor, subject.currency)})" for cut in made]
    )
    then = assess(catalogue, subject.brief, made[-1].build)
    return (
        (
            f"{money(over, subject.currency)} over the budget. The cuts of least loss: {names};"
            f" then {then.met} of {len(then.counted)} targets are met."
        ),
        trial(made[-1].build),
    )
