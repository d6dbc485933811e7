"""What an answer is, and what is said where nothing fits: the wishes against it, easier ones."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from wattmetron.core.balance.conflict import Relaxed, relaxed
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.caps import engine_cap, most_shown
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.search.answer import NEVER, Proposal
from wattmetron.core.search.proposal import besides_minor, cheapest_fit, propose
from wattmetron.core.values.brief import Brief, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.part_kinds import KINDS, Kind
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import (
    Assessment,
    assess,
)
from wattmetron.places.proposal.same_frames import Saving
from wattmetron.words.figures import KIND_WORDS, money, resolution
from wattmetron.words.wish_words import wish_words

ROUND_FPS = 5


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


def explained_lack(catalogue: Catalogue, brief: Brief, fixed: Build, proposal: Proposal) -> Answer:
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
