"""Which of a brief's wishes decide the answer: those without which it would be another."""

from collections.abc import Iterator

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.wish_costs import WishCost, wish_costs
from wattmetron.words.figures import THIN, money
from wattmetron.words.wish_words import wish_words

LEAST_LOST = 0.0005
SHOWN = 4


def deciding(catalogue: Catalogue, now: Assessment) -> tuple[WishCost, ...]:
    """The wishes whose letting go changes the answer, those that cost most first."""
    costs = wish_costs(catalogue, now.brief, now.build)
    return tuple(sorted(filter(_decides, costs), key=_weight))


def _decides(cost: WishCost) -> bool:
    if cost.nothing_with_it:
        return True
    if cost.cost_minor is None:
        return False
    return (
        bool(cost.weight_lost) or abs(cost.frames_lost or 0.0) > LEAST_LOST or cost.cost_minor != 0
    )


def _weight(cost: WishCost) -> tuple[bool, int, float, int]:
    return (
        not cost.nothing_with_it,
        -(cost.weight_lost or 0),
        -(cost.frames_lost or 0.0),
        -(cost.cost_minor or 0),
    )


def deciding_words(catalogue: Catalogue, now: Assessment) -> str:
    """``What decides: no lights (EUR 12 more); …``; a sentence where nothing does."""
    deciders = deciding(catalogue, now)
    if not deciders:
        return "No wish decides: without any one of them the best build would be the same."
    names = {part.id: part.name for part in catalogue.parts.values()}
    sentences = [
        f"{wish_words(now.brief, wish_cost.wish, now.currency, names)}"
        f" ({listed(_price(wish_cost, now.currency))})"
        for wish_cost in deciders[:SHOWN]
    ]
    more = f"; and {len(deciders) - SHOWN} more" if len(deciders) > SHOWN else ""
    return f"What decides the best build: {'; '.join(sentences)}{more}."


def _price(cost: WishCost, currency: str) -> Iterator[str]:
    """What a wish costs, in pieces."""
    if cost.nothing_with_it:
        yield "nothing fits with it"
        return
    if cost.weight_lost and cost.weight_lost > 0:
        yield f"costs targets of weight {cost.weight_lost}"
    if cost.frames_lost and cost.frames_lost > LEAST_LOST:
        yield f"{100 * cost.frames_lost:.1f}{THIN}% of the frames"
    if cost.cost_minor:
        more = "more" if cost.cost_minor > 0 else "less"
        yield f"{money(abs(cost.cost_minor), currency)} {more}"
