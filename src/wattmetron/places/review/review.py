"""A list judged part by part: good, wrong, forced to change, dear, or a matter of taste."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from wattmetron.core.balance.reductions import Cut
from wattmetron.core.balance.upgrade_order import with_changes
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.finding import Finding
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.values.further_parts import Fan
from wattmetron.core.values.housing import PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import FURTHER_KINDS, KINDS, Kind
from wattmetron.core.values.sent_list import Sent
from wattmetron.core.values.trust import judge, trust_of
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment, CostLine, assess
from wattmetron.places.assessment.remaining import remaining
from wattmetron.places.balance.balance import idle_money
from wattmetron.places.proposal.gives_up import gives_up
from wattmetron.places.review.improve import Improved
from wattmetron.words.figures import KIND_WORDS, THIN, money

Verdict = Literal["wrong", "forced", "dear", "your call", "good"]
VERDICTS: dict[Verdict, str] = {
    "wrong": "does not do the job of this brief",
    "forced": "fine, but another change takes it along",
    "dear": "fine, but the same is to be had for less",
    "your call": "a matter of taste, or of what you want to spend",
    "good": "good as it is",
}
LEAST_DEAR_SHARE, LEAST_DEAR_MINOR = 0.03, 3_00
SIDES: tuple[Kind, ...] = ("processor", "graphics")
HEAVY = 1_000_000_000
FLOOR_WORDS: dict[Kind, str] = {"storage": "Storage", "memory": "Memory"}
"""How sentences about the brief's floors begin that name no part."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Judged:
    """One part with its verdict, the reasons for it in figures, and what would take its place in
    the better list; ``weight`` puts the gravest first.
    """

    kind: Kind
    part_id: str
    name: str
    verdict: Verdict
    reasons: tuple[str, ...]
    instead: tuple[str, ...]
    weight: int
    price_minor: int | None
    theirs_minor: int | None


def judged(
    catalogue: Catalogue,
    now: Assessment,
    better: Improved | None,
    sent: tuple[Sent, ...] = (),
) -> tuple[Judged, ...]:
    """Every part of a build against the best list within the brief, what matters most first; what
    is missing is filled in for it.
    """
    subject = completed(catalogue, now)
    free = idle_money(catalogue, subject) if not subject.missing and not subject.blocking else {}
    court = _Court(catalogue, subject, better, free, _theirs(now, sent))
    judgements = [court.verdict(line) for line in now.lines]
    order = list(VERDICTS)
    return tuple(
        sorted(
            judgements,
            key=lambda judgement: (
                order.index(judgement.verdict),
                -judgement.weight,
                judgement.name,
            ),
        )
    )


def completed(catalogue: Catalogue, now: Assessment) -> Assessment:
    """The build with what is missing filled in by the cheapest that fits."""
    left = remaining(catalogue, now) if now.missing and not now.build.empty else None
    return assess(catalogue, now.brief, left.build) if left and left.build else now


def _theirs(now: Assessment, sent: tuple[Sent, ...]) -> dict[str, int]:
    """Their price of each part, where it is in the region's currency or in none."""
    return {
        sent_list.part: sent_list.price_minor
        for sent_list in sent
        if sent_list.part and sent_list.price_minor and sent_list.currency in ("", now.currency)
    }


class _Court:
    """Judges the parts of one build."""

    def __init__(
        self,
        catalogue: Catalogue,
        now: Assessment,
        better: Improved | None,
        free: Mapping[Kind, Cut],
        theirs: Mapping[str, int],
    ) -> None:
        self._catalogue, self._now, self._better = catalogue, now, better
        self._free, self._theirs = free, theirs
        then = better.whole.build if better else now.build
        self._changed = {
            kind for kind in (*KINDS, *FURTHER_KINDS) if then.of(kind) != now.build.of(kind)
        }

    def verdict(self, line: CostLine) -> Judged:
        wrong = [*self._broken(line), *self._too_weak(line)]
        dear, saved = self._dear(line)
        replaced = line.kind in self._changed and self._goes(line)
        verdict: Verdict
        if wrong:
            verdict, reasons, weight = "wrong", wrong, self._gravity(line)
        elif replaced and line.kind not in SIDES and (forced := self._forced(line)):
            verdict, reasons, weight = "forced", [forced], 0
        elif dear:
            verdict, reasons, weight = "dear", dear, saved
        elif replaced and (less := self._less(line)):
            verdict, reasons, weight = "dear", [self._cheaper(line, less)], less
        elif taste := self._taste(line, replaced):
            verdict, reasons, weight = "your call", taste, 0
        else:
            verdict, reasons, weight = "good", self._praise(line), 0
        part = line.part
        return Judged(
            kind=line.kind,
            part_id=line.part_id,
            name=part.name if part else line.part_id,
            verdict=verdict,
            reasons=tuple(dict.fromkeys(reasons)),
            instead=self._instead(line) if replaced else (),
            weight=weight,
            price_minor=None if line.offer is None else line.offer.cost_minor,
            theirs_minor=self._theirs.get(line.part_id),
        )

    def _goes(self, line: CostLine) -> bool:
        return self._better is not None and line.part_id not in self._better.whole.build.of(
            line.kind
        )

    def _new(self, line: CostLine) -> list[str]:
        """Ids of what stands in a part's place in the better list."""
        assert self._better is not None
        old = self._now.build.of(line.kind)
        return [part_id for part_id in self._better.whole.build.of(line.kind) if part_id not in old]

    def _instead(self, line: CostLine) -> tuple[str, ...]:
        return tuple(self._catalogue.part(part_id).name for part_id in self._new(line))

    def _broken(self, line: CostLine) -> Iterator[str]:
        """What the part breaks, misses, or leaves unsafe: of parts that do not go together the one
        is at fault that the better list replaces.
        """
        if line.part is None:
            yield "It is no longer in the catalogue: nothing can be said of it."
            return
        if line.offer is None and not line.owned:
            yield "Nobody offers it today."
        doubtful = False
        for finding in self._now.findings:
            if line.kind not in finding.kinds or not self._at_fault(finding, line):
                continue
            if finding.level == "blocks" or (finding.level == "do first" and self._goes(line)):
                doubtful = doubtful or "doubtful" in finding.sentence
                yield finding.sentence
        for sentence in self._now.floors:
            about = (line.part.name, FLOOR_WORDS.get(line.kind, line.part.name))
            if sentence.startswith(about) and not (doubtful and "doubtful" in sentence):
                doubtful = doubtful or "doubtful" in sentence
                yield sentence
        if trust_of(line.part) == "doubtful" and not line.owned and not doubtful:
            yield f"It is doubtful: {judge(line.part).reasons[0]}."

    def _at_fault(self, finding: Finding, line: CostLine) -> bool:
        order = (*finding.remedy_kinds, *finding.kinds)
        replaced = [kind for kind in order if kind in self._changed]
        return line.kind == replaced[0] if replaced else True

    def _too_weak(self, line: CostLine) -> Iterator[str]:
        """The targets that a processor or card leaves short, where the better list replaces it."""
        if line.kind not in SIDES or not self._goes(line):
            return
        short = [
            estimate
            for estimate in self._now.counted
            if estimate.state != "meets" and _holds(estimate, line.kind)
        ]
        if short:
            yield f"It holds back {listed([_rate(estimate) for estimate in short])}."

    def _gravity(self, line: CostLine) -> int:
        blocks = sum(
            line.kind in finding.kinds
            for finding in self._now.findings
            if finding.level == "blocks"
        )
        short = sum(
            _holds(estimate, line.kind)
            for estimate in self._now.counted
            if estimate.state != "meets"
        )
        return HEAVY * blocks + 1000 * short

    def _dear(self, line: CostLine) -> tuple[list[str], int]:
        """Cheaper for the same: the part today, or another without a frame lost."""
        reasons, saved = [], 0
        currency = self._now.currency
        theirs, today = self._theirs.get(line.part_id), line.offer
        if theirs and today and not line.owned:
            less = theirs - today.cost_minor
            if less >= max(LEAST_DEAR_MINOR, LEAST_DEAR_SHARE * theirs):
                reasons.append(
                    f"Their price is {money(theirs, currency)}; today {today.shop} asks"
                    f" {money(today.cost_minor, currency)} delivered."
                )
                saved = less
        cut = self._free.get(line.kind)
        if cut is not None and cut.instead_of == line.part_id and not line.owned and line.part:
            lost = gives_up(line.part, cut.part)
            reasons.append(
                f"{cut.part.name} brings the same frames for {money(cut.saves_minor, currency)}"
                f" less{f', with {lost}' if lost else ''}."
            )
            saved += cut.saves_minor
        return reasons, saved

    def _less(self, line: CostLine) -> int:
        """What the better list saves on a part, in minor units."""
        if line.offer is None or line.owned:
            return 0
        new = self._new(line)
        book = self._catalogue.prices(self._now.brief.region, self._now.brief.may_buy)
        costs = [book.cost(part_id) for part_id in new]
        if len(new) != 1 or costs[0] is None or new[0] in self._now.brief.owned:
            return 0
        return max(0, line.offer.cost_minor - costs[0])

    def _cheaper(self, line: CostLine, less: int) -> str:
        assert line.part is not None
        new = self._catalogue.part(self._new(line)[0])
        lost = gives_up(line.part, new)
        if line.kind in SIDES:
            return (
                f"{new.name} is enough here, and {money(less, self._now.currency)} less: the money"
                " buys more frames elsewhere."
            )
        return (
            f"{new.name} does here for {money(less, self._now.currency)} less"
            f"{f', with {lost}' if lost else ''}."
        )

    def _forced(self, line: CostLine) -> str:
        """Why a part cannot stay beside the other changes; empty where it could."""
        assert self._better is not None
        for step in self._better.steps:
            others = [change for change in step.changes if line.kind not in change.kinds]
            if len(others) == len(step.changes):
                continue
            changes = [change for other in self._better.steps for change in other.changes]
            changes = [change for change in changes if line.kind not in change.kinds]
            build = with_changes(self._now.build, self._better.whole.build, changes)
            after = assess(self._catalogue, self._now.brief, build)
            blocks = [
                finding
                for finding in after.findings
                if finding.level == "blocks" and line.kind in finding.kinds
            ]
            if blocks:
                names = [KIND_WORDS[kind] for change in others for kind in change.kinds]
                beside = f" with the {listed(names)}" if names else ""
                return f"It changes{beside}: {blocks[0].sentence}"
        return ""

    def _taste(self, line: CostLine, replaced: bool) -> list[str]:
        part = line.part
        if part is None:
            return []
        if line.kind in FURTHER_KINDS and not isinstance(part, Fan):
            return ["Whether it is wanted is up to you: it bears on no frame rate."]
        if isinstance(part, Memory | Fan) and part.lights:
            return ["Its lights are a matter of taste."]
        if replaced:
            new = listed(list(self._instead(line)))
            return [
                f"It could stay; {new} is what this choice would buy." if new else "It could go."
            ]
        return []

    def _to_see_to(self, line: CostLine) -> list[str]:
        """What is to be done first with a part that stays, and what another part must mend."""
        concerning = [finding for finding in self._now.findings if line.kind in finding.kinds]
        sentences = [finding.sentence for finding in concerning if finding.level == "do first"]
        if any(finding.level == "blocks" for finding in concerning):
            sentences.append("It can stay: what does not fit is mended by another part.")
        return sentences

    def _praise(self, line: CostLine) -> list[str]:
        """What is good about a part, in a figure; what is still to be seen to before all praise."""
        now, part = self._now, line.part
        sentences = self._to_see_to(line)
        if line.kind in SIDES and now.counted:
            estimates = [estimate for estimate in now.counted if _holds(estimate, line.kind)]
            met = [estimate for estimate in estimates if estimate.state == "meets"]
            sentences.append(
                f"It sets the pace in {len(estimates)} of {len(now.counted)} targets and meets"
                f" {len(met)} of these."
                if estimates
                else "It limits none of the targets."
            )
        elif sentences:
            return sentences
        elif isinstance(part, PowerSupply):
            sentences.append(
                f"{part.watts:,}{THIN}W for {now.draw.full_w:.0f}{THIN}W with everything busy."
            )
        elif line.kind == "memory" and part is not None:
            sentences.append("Enough for every game of the brief.")
        elif line.kind == "case":
            sentences.append("Everything fits.")
        elif line.kind == "cooler":
            sentences.append("It carries what the processor gives off.")
        elif line.kind == "mainboard":
            sentences.append("It takes everything that is chosen.")
        elif line.kind == "storage":
            sentences.append(
                f"{'Room for the games' if line.roles else 'Room'} as the brief wants it."
            )
        if line.owned:
            sentences.append("It is there already.")
        elif part is not None and part.again:
            sentences.append("You would buy it again.")
        elif part is not None and trust_of(part) == "proven":
            sentences.append(f"Proven: {judge(part).reasons[0]}.")
        return sentences


def _holds(estimate: Estimate, kind: Kind) -> bool:
    """Whether a side sets the pace of a target, or shares in it."""
    if estimate.limit_words == "evenly matched":
        return True
    return estimate.limit_words == kind


def _rate(estimate: Estimate) -> str:
    return f"{estimate.game.name} ({estimate.judged_fps:.0f} of {estimate.target.fps:g}{THIN}fps)"
