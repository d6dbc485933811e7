"""Proposals with the account of why, and what stands in the way where there is none."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace

from wattmetron.core.balance.conflict import Relaxed, relaxed
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.extras import types
from wattmetron.core.compatibility.vetting import Vetting
from wattmetron.core.frames.caps import engine_cap, most_shown
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.answer import NEVER, Aim, Proposal
from wattmetron.core.search.proposal import besides_minor, cheapest_fit, propose
from wattmetron.core.search.resale import FREE_KINDS
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.part_kinds import KINDS, OF_FANS, Kind
from wattmetron.core.values.parts import Part
from wattmetron.core.values.words import listed
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
from wattmetron.places.proposal.preference_answers import preference_lines, settled
from wattmetron.places.proposal.same_frames import Saving
from wattmetron.words.figures import KIND_WORDS, money, resolution
from wattmetron.words.wish_words import wish_words

ROUND_FPS = 5
LEAST_SHARE_PERCENT = 0.05
"""What rounds to nothing is not told."""


@dataclass(frozen=True, slots=True)
class Reason:
    """Why one part stands where it does."""

    kind: Kind
    name: str
    sentence: str


@dataclass(frozen=True, slots=True)
class Relaxation:
    """A change of one target that would do, what the cheapest build then costs, and that against
    the budget.
    """

    sentence: str
    cost_minor: int
    against: str
    target: Target


@dataclass(frozen=True, kw_only=True)
class Answer:
    """A proposal with its words."""

    proposal: Proposal
    assessment: Assessment | None
    headline: str
    account: tuple[str, ...]
    relaxations: tuple[Relaxation, ...]
    savings: tuple[Saving, ...] = ()


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
    return catalogue.keep.long(
        ("answer", aim, brief, build), lambda: _answer(catalogue, brief, build, aim)
    )


def _answer(catalogue: Catalogue, brief: Brief, build: Build, aim: Aim) -> Answer:
    brief = known_brief(catalogue, brief)
    fixed = kept_parts(catalogue, brief, build)
    if aim == "same frames":
        return _same_frames(catalogue, brief, fixed, known_build(catalogue, build))
    insisted, preferences = settled(catalogue, brief, fixed, aim)
    proposal = propose(catalogue, insisted, aim, fixed)
    if proposal.build is None:
        return _no_answer(catalogue, insisted, fixed, proposal)
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
    key = ("reasons", assessment.brief, assessment.build)
    return catalogue.keep.once(key, lambda: _reasons(catalogue, assessment))


def _reasons(catalogue: Catalogue, assessment: Assessment) -> tuple[Reason, ...]:
    reasons = []
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


def _no_answer(catalogue: Catalogue, brief: Brief, fixed: Build, proposal: Proposal) -> Answer:
    """Say whether the budget, the targets or the rules stand in the way, and what would do."""
    currency = catalogue.region(brief.region).currency
    account: list[str] = []
    spill = replace(brief, accept_spill=True)
    if cheapest_fit(catalogue, spill, fixed).build is None:
        return Answer(
            proposal=proposal,
            assessment=None,
            headline=_nothing_fits(catalogue, brief, fixed),
            account=(),
            relaxations=(),
        )
    reachable = proposal.aim == "least money"
    if not reachable:
        free = propose(catalogue, brief, "most frames", fixed, budget_minor=NEVER - 1)
        reachable = free.build is not None
        if reachable:
            cheapest = cheapest_fit(catalogue, brief, fixed, video_memory=True).cost_minor
            more = max(0, cheapest - proposal.budget_minor)
            headline = (
                f"{money(brief.budget_high_minor, currency)} buys no working machine: the least"
                " that does costs"
                f" {money(cheapest + besides_minor(catalogue, brief, fixed), currency)},"
                f" {money(more, currency)} more."
            )
            return Answer(
                proposal=proposal,
                assessment=None,
                headline=headline,
                account=(),
                relaxations=(),
            )
    obstacles = _obstacles(catalogue, brief, fixed)
    account += [obstacle.sentence for obstacle in obstacles]
    relaxations = tuple(_relaxations(catalogue, brief, fixed, obstacles))
    headline = "No build in the catalogue meets every target at any price."
    if not obstacles:
        headline = "Each target can be met by some build, but no build meets them all together."
    return Answer(
        proposal=proposal,
        assessment=None,
        headline=headline,
        account=tuple(account),
        relaxations=relaxations,
    )


def _nothing_fits(catalogue: Catalogue, brief: Brief, build: Build) -> str:
    book = catalogue.prices(brief.region, brief.may_buy)
    for kind in KINDS:
        if kind in ("graphics", "cooler"):
            continue
        if not any(book.cost(part.id) is not None for part in catalogue.by_kind[kind]):
            return (
                f"No build is possible: the catalogue has no {KIND_WORDS[kind]} that can be bought"
                f" in {book.region.name} today. Import one or choose another region."
            )
    if not catalogue.by_kind["cooler"]:
        return (
            "No build is possible: the catalogue has no cooler, and no processor with a boxed one"
            " that suffices fits the rest. Import coolers."
        )
    why = relaxed(catalogue, brief, build)
    if why is not None:
        return _conflict_in_words(catalogue, brief, build, why)
    return (
        "No set of parts fits together even without the brief's wishes: let go of a kept or owned"
        " part, or have more parts in the catalogue."
    )


def _conflict_in_words(catalogue: Catalogue, brief: Brief, build: Build, why: Relaxed) -> str:
    """Which wishes cannot be granted, alone or together, and what letting the fewest go costs."""
    currency = catalogue.region(brief.region).currency
    names = {
        part_id: catalogue.parts[part_id].name
        for part_id in brief.banned
        if part_id in catalogue.parts
    }

    def named(wishes: Iterable[Declared]) -> str:
        return listed([wish_words(brief, wish, currency, names) for wish in wishes])

    sentences = []
    if why.alone:
        these = "This wish" if len(why.alone) == 1 else "Each of these wishes"
        sentences.append(f"{these} cannot be granted: {named(why.alone)}.")
    sentences += [
        f"These wishes cannot be granted together: {named(conflict)}."
        for conflict in why.conflicts
        if len(conflict) > 1
    ]
    cost = money(why.cost_minor + besides_minor(catalogue, brief, build), currency)
    if len(why.conflicts) == 1 and len(why.dropped) == 1 and not why.alone:
        sentences.append("Let one of them go: any one is enough.")
    it = "it" if len(why.dropped) == 1 else "them"
    which = it if {*why.dropped} == {*why.alone} else named(why.dropped)
    sentences.append(f"Let {which} go in the brief. The cheapest build without {it} costs {cost}.")
    return " ".join(sentences)


@dataclass(frozen=True, slots=True)
class Obstacle:
    """A target that nothing reaches by itself: why, and the best rate that the catalogue reaches,
    in fps.
    """

    target_id: str
    sentence: str
    best_fps: float | None = None


def _obstacles(catalogue: Catalogue, brief: Brief, fixed: Build) -> list[Obstacle]:
    """Each counted target that nothing reaches by itself, with the best that the catalogue does."""
    obstacles = []
    for target in brief.counted_targets:
        alone = replace(brief, targets=(replace(target, weight=1),))
        if propose(catalogue, alone, "least money", fixed).build is not None:
            continue
        game = fitted_game(catalogue, target.game_id)
        most = engine_cap(game, most_shown(game, target))
        if most is not None and target.fps > most:
            capped = (
                f"{game.name} is capped at {most:g} fps by its engine;"
                f" {target.fps:g} fps cannot be met."
            )
            obstacles.append(Obstacle(target.id, capped))
            continue
        best = propose(catalogue, alone, "most frames", fixed, band=0, budget_minor=NEVER - 1)
        if best.build is None:
            obstacles.append(
                Obstacle(
                    target.id,
                    f"{game.name}: no card on sale has enough video memory for these settings.",
                )
            )
            continue
        estimate = assess(catalogue, alone, best.build).estimates[0]
        if estimate is not None:
            reached = (
                f"{game.name} at {resolution(target)}, {target.preset}: the best in the catalogue"
                f" reaches {estimate.reliable_fps:.0f} fps at this sureness; {target.fps:g} are"
                " asked"
                " for."
            )
            obstacles.append(Obstacle(target.id, reached, estimate.reliable_fps))
    return obstacles


def _relaxations(
    catalogue: Catalogue, brief: Brief, fixed: Build, obstacles: list[Obstacle]
) -> list[Relaxation]:
    """Single changes of one target after which the least-money answer exists."""
    relaxations = []
    rates: dict[str, list[float]] = {target.id: [] for target in brief.counted_targets}
    for obstacle in obstacles:
        rates[obstacle.target_id] += [obstacle.best_fps] if obstacle.best_fps else []
    inside = propose(catalogue, brief, "most frames", fixed)
    for estimate in assess(catalogue, brief, inside.build).counted if inside.build else ():
        rates[estimate.target.id].append(estimate.reliable_fps)
    currency = catalogue.region(brief.region).currency
    for target in brief.counted_targets:
        for sentence, changed in easier_settings(catalogue, target, rates[target.id]):
            targets = tuple(changed if other.id == target.id else other for other in brief.targets)
            relaxed = replace(brief, targets=targets)
            result = propose(catalogue, relaxed, "least money", fixed)
            if result.build is not None:
                cost = result.cost_minor + besides_minor(catalogue, brief, fixed)
                relaxations.append(
                    Relaxation(sentence, cost, _against(brief, cost, currency), changed)
                )
    return sorted(relaxations, key=lambda relaxation: (relaxation.cost_minor, relaxation.sentence))[
        :6
    ]


def _against(brief: Brief, cost_minor: int, currency: str) -> str:
    over = cost_minor - brief.budget_high_minor
    return f"{money(over, currency)} over the budget" if over > 0 else "within the budget"


def easier_settings(
    catalogue: Catalogue, target: Target, rates: list[float]
) -> list[tuple[str, Target]]:
    """Lower presets, upscaling, no rays, and the rates that the best and the budget reach."""
    game = fitted_game(catalogue, target.game_id)
    options = []
    index = PRESETS.index(target.preset)
    if index > 0:
        lower = PRESETS[index - 1]
        options.append(
            (f"{game.name} on {lower} instead of {target.preset}", replace(target, preset=lower))
        )
    if not target.upscaling and game.upscalers:
        options.append((f"{game.name} with upscaling", replace(target, upscaling=True)))
    if not target.generated and game.generators:
        options.append(
            (
                f"{game.name} at {target.fps:g} fps shown, with frame generation",
                replace(target, generated=True),
            )
        )
    if target.ray_tracing:
        options.append((f"{game.name} without ray tracing", replace(target, ray_tracing=False)))
    for option in game.options:
        if option.name not in target.lowered:
            lowered = tuple(
                each_option.name
                for each_option in game.options
                if each_option.name in (*target.lowered, option.name)
            )
            options.append(
                (f"{game.name} with lower {option.name}", replace(target, lowered=lowered))
            )
    for fewer in sorted(
        {
            rate // ROUND_FPS * ROUND_FPS
            for rate in rates
            if 0 < rate // ROUND_FPS * ROUND_FPS < target.fps
        }
    ):
        options.append(
            (f"{game.name} at {fewer:g} instead of {target.fps:g} fps", replace(target, fps=fewer))
        )
    most = engine_cap(game, most_shown(game, target))
    if most is not None and target.fps > most:
        options.append(
            (f"{game.name} at its engine's cap of {most:g} fps", replace(target, fps=most))
        )
    return options
