"""The cheapest machine that a tier runs on, by side."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.offers import Buys
from wattmetron.core.values.published import SIDES, Side, Tier
from wattmetron.places.assessment.assess import known_build
from wattmetron.places.games.contenders import machine_contender
from wattmetron.places.games.library import GameFacts, judged, reach_words
from wattmetron.words.figures import money
from wattmetron.words.tier_words import tier_label
from wattmetron.workshop.listed_briefs import ListedBrief


@dataclass(frozen=True, slots=True)
class RunView:
    """The cheapest parts that reach a tier today."""

    tier: str
    processor: str
    graphics: str


# --- what runs it
# -------------------------------------------------------------------------------------


def runs_of(catalogue: Catalogue, facts: GameFacts, row: int, region: str, buys: Buys) -> RunView:
    tier = tiers_of(catalogue).rows[row].tier
    runs = [_cheapest(catalogue, row, side, region, buys, tier) for side in SIDES]
    return RunView(tier_label(tier.label, tiers_of(catalogue).rows[row].position), *runs)


def _cheapest(
    catalogue: Catalogue, row: int, side: Side, region: str, buys: Buys, tier: Tier
) -> str:
    """The cheapest part on sale whose best estimate reaches the bar, with enough video memory."""
    table = tiers_of(catalogue)
    bar = float(table.sides[side].bar[row])
    if np.isnan(bar):
        return "not known"
    book = catalogue.prices(region, buys)
    standings = scale_of(catalogue).of(side)
    speeds = table.speeds(side, standings, np.full(len(standings), row))
    best: tuple[int, str] | None = None
    for standing, ln in zip(standings, speeds, strict=True):
        if ln < bar - 1e-9 or (
            side == "graphics" and (standing.memory_gb or 0) < (tier.video_memory_gb or 0)
        ):
            continue
        for part_id in standing.part_ids:
            price = book.cost(part_id)
            if price is not None and (best is None or (price, part_id) < best):
                best = (price, part_id)
    if best is None:
        return "nothing on sale reaches it"
    return f"{catalogue.part(best[1]).name}, {money(best[0], book.currency)}"


class BriefReach(NamedTuple):
    """A brief by id and name, and the highest tier that its build meets."""

    id: int
    name: str
    reach: str


def builds_of(
    catalogue: Catalogue, facts: GameFacts, builds: Iterable[ListedBrief]
) -> Iterator[BriefReach]:
    """Briefs whose build has a processor and something that draws, and the highest tier that it
    meets.
    """
    if not len(facts.rows):
        return
    for build in builds:
        brief = build.plan.brief
        machine = catalogue.machine(known_build(catalogue, build.plan.build))
        if machine.can_draw:
            standings = judged(catalogue, machine_contender(machine, brief.system), brief.chance)
            reach = reach_words(catalogue, standings, facts.game.id)[0]
            yield BriefReach(build.id, brief.name, reach)
