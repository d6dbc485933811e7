"""A game: facts, tiers with verdicts, rails, doubts, what runs it. On its own page and beside a
brief.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.working import WorkingStep
from wattmetron.core.requirements.agreement import Doubt
from wattmetron.core.requirements.tiers import Bars, tiers_of
from wattmetron.core.requirements.verdicts import ASPECTS, Aspect, AspectVerdict, TierVerdict
from wattmetron.core.speeds.equal_parts import Use
from wattmetron.core.speeds.speed_scale import Standing
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.published import SIDES, Settled, Side, Tier
from wattmetron.drawing.rails import rails
from wattmetron.places.games.library import GameFacts, game_facts
from wattmetron.places.games.measuring import ResultsState
from wattmetron.places.games.pages.equals_panel import EqualsView, equals_view
from wattmetron.places.games.pages.evidence_panel import (
    ResultView,
    result_rows,
    work_rows,
    work_steps,
)
from wattmetron.places.games.pages.game_rail import Odd, rail_label, rail_of
from wattmetron.places.games.pages.game_runs import BriefReach, RunView, builds_of, runs_of
from wattmetron.places.games.pages.machine_panel import MeasuredMachine
from wattmetron.places.games.publishing import GameState
from wattmetron.words.figures import THIN
from wattmetron.words.tier_words import tier_label
from wattmetron.workshop.listed_briefs import ListedBrief

Link = Callable[..., str]


@dataclass(frozen=True, slots=True, kw_only=True)
class ListedView:
    """One alternative: as named, what it stands for, its speed, and what can be done about it."""

    side: Side
    position: int
    name: str
    speed: str
    flags: tuple[str, ...]
    equal_url: str
    excluded: bool
    placeable: bool
    variants: tuple["VariantView", ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class AspectView:
    """One aspect of a tier: what is asked, the verdict, what the machine has."""

    aspect: Aspect
    required: str
    listed: tuple[ListedView, ...]
    bar: str
    verdict: AspectVerdict | None
    says: str


@dataclass(frozen=True, slots=True, kw_only=True)
class TierView:
    """A column: label, conditions with those assumed, verdict, aspects."""

    position: int
    label: str
    conditions: tuple[tuple[str, bool], ...]
    verdict: TierVerdict | None
    lacks: str
    aspects: tuple[AspectView, ...]
    notes: str

    def asks(self, aspect: Aspect) -> AspectView | None:
        """What the tier asks for in one respect."""
        return next(
            (aspect_view for aspect_view in self.aspects if aspect_view.aspect == aspect), None
        )


@dataclass(frozen=True, slots=True)
class DoubtView:
    """A doubt with the listed part it is about, if the user can do something about it."""

    doubt: Doubt
    listed: ListedView | None


@dataclass(frozen=True, slots=True)
class VariantView:
    """One of several amounts of video memory that a name can mean."""

    name: str
    speed: str
    equal_url: str


@dataclass(frozen=True, kw_only=True)
class GamePanel:
    """Everything that is shown about a game."""

    facts: GameFacts
    machine: MeasuredMachine
    tiers: tuple[TierView, ...]
    rows: tuple[Aspect, ...]
    chart: Markup | None
    narrow_chart: Markup | None
    doubts: tuple[DoubtView, ...]
    runs: tuple[RunView, ...]
    builds: tuple[BriefReach, ...]
    work: tuple[tuple[str, str, str], ...]
    steps: tuple[WorkingStep, ...]
    results: tuple[ResultView, ...]
    results_state: ResultsState
    equals: EqualsView | None
    state: GameState
    link: Link
    assumed_any: bool
    dated: str

    @property
    def base(self) -> str:
        return f"/games/{self.facts.game.id}"


def game_panel(
    catalogue: Catalogue,
    game_id: str,
    machine: MeasuredMachine,
    state: GameState,
    link: Link,
    equal: str = "",
    trial: Callable[[str], str] | None = None,
    builds: Iterable[ListedBrief] = (),
    results: ResultsState | None = None,
) -> GamePanel:
    """The panel of a game; ``link`` makes its address with changes, ``trial`` the address that
    tries a build, ``builds`` are briefs whose builds are told how far they reach.
    """
    facts = game_facts(catalogue, game_id, machine.contender, machine.sureness)
    odd: Odd = {
        (doubt.tier, doubt.side, doubt.position): doubt.rule
        for doubt in reversed(facts.doubts)
        if doubt.position is not None
    }
    tiers = tuple(_tier(catalogue, facts, n, odd, link) for n in range(len(facts.rows)))
    aspects = {aspect.aspect for tier in tiers for aspect in tier.aspects}
    region = machine.region or next(iter(catalogue.regions), "")
    buys = machine.brief.plan.brief.may_buy if machine.brief else NEW_PARTS
    return GamePanel(
        facts=facts,
        machine=machine,
        tiers=tiers,
        rows=tuple(kind for kind in ASPECTS if kind in aspects),
        chart=_chart(catalogue, facts, odd, 820),
        narrow_chart=_chart(catalogue, facts, odd, 380),
        doubts=tuple(DoubtView(doubt, _about(tiers, doubt)) for doubt in facts.doubts),
        runs=(
            tuple(runs_of(catalogue, facts, row, region, buys) for row in facts.rows)
            if region
            else ()
        ),
        builds=tuple(builds_of(catalogue, facts, builds)),
        work=work_rows(facts),
        steps=tuple(work_steps(facts)),
        results=tuple(result_rows(catalogue, facts)),
        results_state=results or ResultsState(0, None),
        equals=equals_view(catalogue, equal, machine, _use(facts), link, trial) if equal else None,
        state=state,
        link=link,
        assumed_any=any(assumed for tier in tiers for _, assumed in tier.conditions),
        dated=_dated(facts),
    )


def _dated(facts: GameFacts) -> str:
    requirements = facts.published
    if requirements is None:
        return ""
    day = f", {requirements.published_on:%-d %b %Y}" if requirements.published_on else ""
    return (requirements.source or "source not stated") + day


def _use(facts: GameFacts) -> Use:
    """Comparisons on a game's page are for this game, at the resolution of its recommended tier."""
    mpx = facts.settled[min(1, len(facts.settled) - 1)].shown_mpx if facts.settled else 2.0736
    return Use(facts.game.parallel_share, mpx)


def _tier(catalogue: Catalogue, facts: GameFacts, n: int, odd: Odd, link: Link) -> TierView:
    row = facts.rows[n]
    tier = tiers_of(catalogue).rows[row].tier
    verdict = facts.verdicts[n] if facts.verdicts else None
    by_aspect = {aspect.aspect: aspect for aspect in verdict.aspects} if verdict else {}
    aspects = [
        _side_aspect(tiers_of(catalogue).sides[side], row, side, by_aspect.get(side), odd, n, link)
        for side in SIDES
        if tier.listed(side)
    ]
    aspects += [
        AspectView(
            aspect=aspect,
            required=words,
            listed=(),
            bar="",
            verdict=by_aspect.get(aspect),
            says=_says(by_aspect.get(aspect)),
        )
        for aspect, words in _amounts(tier)
        if words
    ]
    return TierView(
        position=n,
        label=tier_label(tier.label, n),
        conditions=_conditions(facts.settled[n]),
        verdict=verdict,
        lacks=_lacks(verdict),
        aspects=tuple(aspects),
        notes=tier.notes,
    )


def _lacks(verdict: TierVerdict | None) -> str:
    """What is short or unsure, the shortest first."""
    if verdict is None:
        return ""
    return ", ".join(
        aspect.aspect
        + ("" if aspect.ratio is None else f" {aspect.ratio:.2f}")
        + (" unsure" if aspect.word == "unsure" else "")
        for aspect in verdict.aspects
        if aspect.word in ("short", "unsure")
    )


def _amounts(tier: Tier) -> list[tuple[Aspect, str]]:
    def gb(value: float | None) -> str:
        return "" if value is None else f"{value:,g}{THIN}GB"

    storage = " ".join(filter(None, [gb(tier.storage_gb), tier.storage_kind or ""]))
    return [
        ("video memory", gb(tier.video_memory_gb)),
        ("memory", gb(tier.memory_gb)),
        ("storage", storage),
        ("operating system", tier.system),
        ("graphics API", tier.api),
    ]


def _conditions(settled: Settled) -> tuple[tuple[str, bool], ...]:
    """Conditions in words, each with whether it was assumed."""
    conditions = [
        (f"{settled.width_px}x{settled.height_px}", "resolution" in settled.assumed),
        (settled.preset, "preset" in settled.assumed),
        (f"{settled.fps:g}{THIN}fps", "frame rate" in settled.assumed),
    ]
    if settled.upscaling:
        conditions.append(("upscaling", False))
    if settled.ray_tracing:
        conditions.append(("ray tracing", False))
    if settled.generated:
        conditions.append(("half of the frames shown, the rest generated", True))
    return tuple(conditions)


def _side_aspect(
    bars: Bars,
    row: int,
    side: Side,
    verdict: AspectVerdict | None,
    odd: Odd,
    n: int,
    link: Link,
) -> AspectView:
    listed = tuple(
        _listed(bars, each_bar, side, odd.get((n, side, bars.entries[each_bar].position), ""), link)
        for each_bar in bars.of_row(row)
    )
    bar = float(bars.bar[row])
    spread = float(bars.bar_sd[row]) * 100
    words = "" if np.isnan(bar) else f"asks for {np.exp(bar):.0f} ±{spread:.0f}{THIN}%"
    return AspectView(
        aspect=side, required="", listed=listed, bar=words, verdict=verdict, says=_says(verdict)
    )


_FLAGS = {
    "out of line": "out of line",
    "variant open": "variant open",
    "too little video memory": "too little video memory",
}


def _listed(bars: Bars, bar: int, side: Side, rule: str, link: Link) -> ListedView:
    entry = bars.entries[bar]
    listed = entry.listed
    memory = f" {listed.memory_gb:g}{THIN}GB" if listed.memory_gb else ""
    flags = [_FLAGS[rule]] if rule in _FLAGS else []
    if listed.excluded:
        flags.append("left out")
    if listed.figures_only:
        flags.append("no speed follows from clocks or cores")
    elif not entry.meant:
        flags.append("not in the catalogue")
    strictest = max(entry.meant, key=lambda standing: standing.speeds[0], default=None)
    key = "" if strictest is None else strictest.key
    speed = "" if np.isnan(bars.ln[bar]) else f"{np.exp(bars.ln[bar]):.0f}"
    return ListedView(
        side=side,
        position=entry.position,
        name=listed.text + memory,
        speed=speed,
        flags=tuple(flags),
        equal_url=link(equal=key) if key else "",
        excluded=listed.excluded,
        placeable=not entry.meant and not listed.figures_only,
        variants=(
            tuple(
                _variant(bars, bar, standing, strictest is standing, link)
                for standing in entry.meant
            )
            if len(entry.meant) > 1
            else ()
        ),
    )


def _variant(bars: Bars, bar: int, standing: Standing, counts: bool, link: Link) -> VariantView:
    speed = f"{np.exp(bars.ln[bar]):.0f}, counts" if counts else f"{standing.speeds[0]:.0f}"
    return VariantView(standing.name, speed, link(equal=standing.key))


def _says(verdict: AspectVerdict | None) -> str:
    """The ratio and what the machine has."""
    if verdict is None:
        return ""
    if verdict.aspect == "operating system" and verdict.word == "not known":
        return "the brief can name it"
    pieces = []
    if verdict.ratio is not None:
        pieces.append(f"{verdict.ratio:.2f} of it" if verdict.ratio < 10 else "over 10 times")
    if verdict.had:
        pieces.append(verdict.had)
    return ": ".join(pieces) if len(pieces) == 2 else "".join(pieces)


def _about(tiers: tuple[TierView, ...], doubt: Doubt) -> ListedView | None:
    if doubt.position is None:
        return None
    for aspect in tiers[doubt.tier].aspects:
        for view in aspect.listed:
            if (aspect.aspect, view.position) == (doubt.side, doubt.position):
                return view
    return None


# --- rails
# --------------------------------------------------------------------------------------------


def _chart(catalogue: Catalogue, facts: GameFacts, odd: Odd, width: int) -> Markup | None:
    sides = [rail_of(catalogue, facts, side, odd) for side in SIDES]
    if not any(rail.bands for rail in sides):
        return None
    names = tuple(
        (tier_label(tiers_of(catalogue).rows[row].tier.label, n), _said(settled))
        for n, (row, settled) in enumerate(zip(facts.rows, facts.settled, strict=True))
    )
    return rails(sides[0], sides[1], names, rail_label(catalogue, facts), width)


def _said(settled: Settled) -> str:
    """The conditions in one line, with how many of them are assumed."""
    words = ", ".join(words for words, _ in _conditions(settled))
    if len(settled.assumed) == 3:
        return f"{words} (assumed)"
    if settled.assumed:
        return f"{words} (partly assumed)"
    return words
