"""The monthly round over a set: what each build is today, what it could be, the next edition."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import partial
from itertools import accumulate
from typing import Literal

from wattmetron.cache.glimpse import Glimpse
from wattmetron.cache.must_wait import all_of
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.build import Build
from wattmetron.core.values.dated import LONGEST_NAME, BuildSet, Dated
from wattmetron.core.values.handout import LONGEST_OPENING
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.handout.changes_since import read_figures
from wattmetron.places.handout.sets import assessed, catalogue_then, dated_now, outdated
from wattmetron.places.proposal.step_words import changed_names
from wattmetron.places.review.improve import Improved, improved
from wattmetron.words.figures import money, money_change
from wattmetron.workshop.workshop import Workshop

Pick = Literal["keep", "less", "more"]
PICKS: dict[Pick, str] = {
    "keep": "the same list",
    "less": "the same frames for less",
    "more": "more for the money",
}
REST = "And {} more, at the prices of today."


@dataclass(frozen=True, slots=True)
class EditionChoice:
    """What a build could be from now on: its parts, and what that means in a sentence."""

    pick: Pick
    build: Build
    says: str


@dataclass(frozen=True, slots=True, kw_only=True)
class RoundRow:
    """One build of the set: what it cost then and costs now in minor units (None: cannot be
    judged), why it is out of date, and the choices, the same list first.
    """

    entry: Dated
    then_minor: int
    now_minor: int | None
    currency: str
    reasons: tuple[str, ...]
    choices: tuple[EditionChoice, ...]

    def choice(self, pick: str) -> EditionChoice:
        """The choice of this name; raises BriefError where the build has none such."""
        for system_choice in self.choices:
            if system_choice.pick == pick:
                return system_choice
        raise BriefError(f"“{self.entry.name}” has no such choice any more: load the page again.")


def round_of(
    workshop: Workshop, catalogue: Catalogue, build_set: BuildSet, glimpse: Glimpse
) -> tuple[RoundRow | None, ...]:
    """Every build of a set at the prices of today; None for those that are still worked out."""
    return tuple(
        glimpse.part(partial(_row, workshop, catalogue, entry, True), None)
        for entry in build_set.entries
    )


def _row(workshop: Workshop, catalogue: Catalogue, entry: Dated, looks: bool) -> RoundRow:
    """One build; without looking there is but the same list to choose."""
    then_minor = read_figures(entry.figures).spent_minor
    reasons = outdated(catalogue, entry, catalogue_then(workshop, entry))
    try:
        now = assessed(catalogue, entry)
    except BriefError:
        keep = EditionChoice(
            "keep", entry.plan.build, "It cannot be judged today and stays as it is."
        )
        return RoundRow(
            entry=entry,
            then_minor=then_minor,
            now_minor=None,
            currency="",
            reasons=reasons,
            choices=(keep,),
        )
    return RoundRow(
        entry=entry,
        then_minor=then_minor,
        now_minor=now.spent_minor,
        currency=now.currency,
        reasons=reasons,
        choices=tuple(_choices(catalogue, entry, now, then_minor, looks)),
    )


def _choices(
    catalogue: Catalogue, entry: Dated, now: Assessment, then_minor: int, looks: bool
) -> list[EditionChoice]:
    change = money_change(now.spent_minor - then_minor, now.currency)
    lacking = ""
    if now.unpriced:
        names = listed([line.part.name for line in now.unpriced if line.part])
        lacking = f"; not to be had: {names}"
    choices = [
        EditionChoice(
            "keep",
            entry.plan.build,
            f"{money(now.spent_minor, now.currency)}, {change}{lacking}.",
        )
    ]
    if not looks:
        return choices
    less, more = all_of(
        lambda: improved(catalogue, now, "same frames"), lambda: improved(catalogue, now, "full")
    )
    if less is not None and less.taken.spent_minor < now.spent_minor:
        choices.append(EditionChoice("less", less.taken.build, _says(catalogue, now, less)))
    if more is not None and more.taken.build not in {choice.build for choice in choices}:
        choices.append(EditionChoice("more", more.taken.build, _says(catalogue, now, more)))
    return choices


def _says(catalogue: Catalogue, now: Assessment, better: Improved) -> str:
    """What changes, what it costs, what it meets."""
    steps = [change for step in better.steps for change in step.changes]
    come = listed(changed_names(catalogue, steps, "bought")) or "nothing"
    go = listed(changed_names(catalogue, steps, "left")) or "nothing"
    taken = better.taken
    met = f", {taken.met} of {len(taken.counted)} targets met instead of {now.met}"
    return (
        f"{come} instead of {go}: {money(taken.spent_minor, now.currency)},"
        f" {money_change(taken.spent_minor - now.spent_minor, now.currency)}"
        f"{met if taken.counted else ''}."
    )


def next_edition(
    workshop: Workshop,
    catalogue: Catalogue,
    build_set: BuildSet,
    picks: Mapping[int, str],
    name: str,
) -> BuildSet:
    """The set as it is from now on, dated today, with what changed and why before its builds;
    raises BriefError for a choice that there is not.
    """
    entries = []
    moved: list[str] = []
    stayed: list[str] = []
    for n, entry in enumerate(build_set.entries):
        pick = picks.get(n, "keep")
        row = _row(workshop, catalogue, entry, pick != "keep")
        choice = row.choice(pick)
        plan = replace(row.entry.plan, build=choice.build)
        entries.append(dated_now(workshop, row.entry.name, plan))
        why = f" {' '.join(row.reasons)}" if row.reasons else ""
        words = PICKS[choice.pick]
        sentence = f"{row.entry.name}: {words}. {choice.says}{why}"
        (stayed if choice.pick == "keep" else moved).append(sentence)
    since = min((entry.made_at for entry in build_set.entries), default=None)
    head = f"What changed since {since:%-d %B %Y}:" if since else ""
    before = build_set.opening.partition("What changed since")[0].strip()
    edition = BuildSet((name or build_set.name)[:LONGEST_NAME], "", tuple(entries))
    return edition.told(edition.name, _fitting(before, [head, *moved, *stayed]))


def _fitting(before: str, sentences: list[str]) -> str:
    """What stood before and as many whole lines, the head first, as an opening holds; the rest
    are counted.
    """
    room = LONGEST_OPENING - len(before) - len(REST) - 2
    count = sum(end <= room for end in accumulate(len(line) + 1 for line in sentences))
    if count < min(2, len(sentences)):
        return before
    rest = [REST.format(len(sentences) - count)] if count < len(sentences) else []
    return "\n".join([before, *sentences[:count], *rest]).strip()
