"""Graphics by chip: what each could draw by itself, the processor that it would take, and what the
whole machine around it costs. It needs no build.
"""

from dataclasses import dataclass, replace

import numpy as np

from wattmetron.core.balance.pairs import PairCell, PairsMap, pairs_map
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.problem import Scene, scenes_for
from wattmetron.core.search.proposal import BAND, besides_minor
from wattmetron.core.speeds.speed_scale import variant_key
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.parts import Graphics
from wattmetron.places.assessment.assess import Assessment, known_brief
from wattmetron.places.proposal.preference_answers import settled
from wattmetron.places.proposal.proposals import kept_parts

MOST_CHIPS = 48
LEVEL = 0.03
"""Chips whose speeds differ by less are called as fast as each other."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Around:
    """The best build around a chip: its processor, what everything costs in minor units, which of
    the counted targets are met, whether that is within the budget.
    """

    processor_id: str
    cost_minor: int
    meets: tuple[bool, ...]
    inside: bool

    @property
    def met(self) -> int:
        return sum(self.meets)


@dataclass(frozen=True, slots=True, kw_only=True)
class ChipOffer:
    """A chip with an amount of video memory, at its cheapest allowed card: what it draws of each
    counted target by itself in fps, the video memory that it lacks in GB, the best build around
    it (None where nothing fits), and other cards with the chip and their offers.
    """

    card: Graphics
    offer: Offer
    alone_fps: tuple[float, ...]
    short_gb: float
    around: Around | None
    others: tuple[tuple[Graphics, Offer], ...]

    @property
    def name(self) -> str:
        return f"{self.card.chip} {self.card.memory_gb:g} GB"

    @property
    def met(self) -> int:
        """Targets that the best build within the budget meets."""
        return self.around.met if self.around is not None and self.around.inside else 0

    @property
    def mean_fps(self) -> float:
        """The geometric mean over the targets; 0 without any."""
        rates = self.alone_fps
        return float(np.exp(np.mean(np.log(rates)))) if rates and min(rates) > 0 else 0.0


def chips(catalogue: Catalogue, now: Assessment) -> tuple[ChipOffer, ...]:
    """All chips on sale that the brief allows, the cheapest first; what is kept of the build but
    its card stays.
    """
    return catalogue.ask(_chips, now.brief, now.build)


def _chips(catalogue: Catalogue, wanted: Brief, build: Build) -> tuple[ChipOffer, ...]:
    brief = known_brief(catalogue, wanted)
    fixed = _without_card(kept_parts(catalogue, brief, build))
    insisted, _ = settled(catalogue, brief, fixed)
    scene = scenes_for(catalogue, insisted, fixed)[0]
    book = catalogue.prices(brief.region, brief.may_buy)
    by_chip: dict[str, list[tuple[int, str, int]]] = {}
    for index, card in enumerate(scene.pool.cards.parts):
        price = book.cost(card.id)
        if price is not None:
            key = variant_key(card.chip, card.memory_gb)
            by_chip.setdefault(key, []).append((price, card.id, index))
    ranked = sorted((sorted(priced) for priced in by_chip.values()), key=lambda cards: cards[0])[
        :MOST_CHIPS
    ]
    firsts = [priced[0][2] for priced in ranked]
    besides = besides_minor(catalogue, insisted, fixed)
    shown = tuple(scene.pool.cards.parts[index] for index in firsts)
    pairs = pairs_map((scene,), brief.budget_high_minor - besides, BAND, shown)
    rates = _alone(scene, firsts)
    short = _short(scene, firsts)
    return tuple(
        ChipOffer(
            card=scene.pool.cards.parts[index],
            offer=_offer(catalogue, wanted, priced[0][1]),
            alone_fps=tuple(row[n] for row in rates),
            short_gb=short[n],
            around=_around(scene, pairs, index, besides),
            others=tuple(
                (scene.pool.cards.parts[other], _offer(catalogue, wanted, part_id))
                for _, part_id, other in priced[1:]
            ),
        )
        for n, (priced, index) in enumerate(zip(ranked, firsts, strict=True))
    )


def _without_card(build: Build) -> Build:
    return replace(build, graphics=None, second_card=None) if build.graphics else build


def _offer(catalogue: Catalogue, brief: Brief, part_id: str) -> Offer:
    offer = catalogue.prices(brief.region, brief.may_buy).best(part_id)
    assert offer is not None
    return offer


def _alone(scene: Scene, cards: list[int]) -> list[list[float]]:
    """For each target what each card draws by itself in fps, on its own link, never short of video
    memory.
    """
    index, rows = np.array(cards, dtype=np.int64), []
    for side in scene.targets.sides:
        made = side.cards.raster_ms[index] + side.cards.ray_ms[index]
        with np.errstate(divide="ignore"):
            rows.append((1000 / made).tolist())
    return rows


def _short(scene: Scene, cards: list[int]) -> list[float]:
    """The video memory that each card lacks for the most demanding target, in GB."""
    lacking = np.zeros(len(cards))
    for side in scene.targets.sides:
        lacking = np.maximum(lacking, side.cards.over_gb[np.array(cards, dtype=np.int64)])
    return lacking.tolist()


def _around(scene: Scene, pairs: PairsMap, card: int, besides: int) -> Around | None:
    """The best of a card's cells: within the budget, most targets met, then U, then the least
    money.
    """
    cells = [(c, cell) for (c, g), cell in pairs.cells.items() if g == card]
    if not cells:
        return None
    c, cell = _pick(cells)
    return Around(
        processor_id=scene.pool.processors.parts[c].id,
        cost_minor=cell.winner.cost + besides,
        meets=cell.meets,
        inside=cell.inside,
    )


def _pick(cells: list[tuple[int, PairCell]]) -> tuple[int, PairCell]:
    """The cheapest of those that meet most and gain at most the band less than the best; without
    one in the budget the cheapest.
    """
    able = [cell for cell in cells if cell[1].inside] or [min(cells, key=_cost)]
    most = max(cell.winner.met for _, cell in able)
    able = [row for row in able if row[1].winner.met == most]
    top = max(cell.winner.gain for _, cell in able)
    return min((row for row in able if row[1].winner.gain >= top - BAND), key=_cost)


def _cost(cell: tuple[int, PairCell]) -> tuple[int, int]:
    return cell[1].winner.cost, cell[0]


def compared(chip: ChipOffer, other: ChipOffer, amount: str) -> str:
    """A chip beside a cheaper one in words; ``amount`` is what it costs more."""
    if not other.mean_fps or not chip.mean_fps:
        return ""
    ratio = chip.mean_fps / other.mean_fps
    dearer = chip.offer.cost_minor > other.offer.cost_minor
    price = f"for {amount} more" if dearer else "at the same price"
    if abs(ratio - 1) < LEVEL:
        return f"as fast as {other.name} {price}"
    if ratio >= 2:
        return f"{ratio:.1f} times as fast as {other.name} {price}"
    if ratio > 1:
        return f"{_share(ratio - 1)} faster than {other.name} {price}"
    return f"{_share(1 - ratio)} slower than {other.name} {price}"


def _share(part: float) -> str:
    """A share as builders say it."""
    for value, words in ((0.5, "half"), (1 / 3, "a third"), (0.25, "a quarter")):
        if abs(part - value) < 0.02:
            return words
    return f"{100 * part:.0f}\u202f%"
