"""The preferences of a brief: which are granted for this build's kept parts, and what is said of
each.
"""

from collections.abc import Iterator

from wattmetron.core.balance.preference_prices import Granted, grant, most_minor
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.answer import Aim
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.words import listed
from wattmetron.places.proposal.all_at_once import surer
from wattmetron.words.figures import THIN, money
from wattmetron.words.wish_words import preference_words


def settled(
    catalogue: Catalogue,
    brief: Brief,
    build: Build,
    aim: Aim = "most frames",
    present: Build | None = None,
) -> tuple[Brief, tuple[Granted, ...]]:
    """The brief with its granted preferences as floors and its targets as surely as all at once
    want them, and every preference with its price; the brief is a known one.
    """
    if not brief.preferences:
        return surer(catalogue, brief, build, aim), ()
    insisted, granted = catalogue.ask(grant, brief, build, aim, present)
    return surer(catalogue, insisted, build, aim), granted


def price_words(granted: Granted, currency: str) -> str:
    """What a preference costs: ``EUR 38 and 2.0 % of the frames``."""
    if granted.cost_minor is None:
        return "nothing fits with it"
    price = [money(granted.cost_minor, currency)] if granted.cost_minor > 0 else []
    if granted.frames_lost > 0.0005:
        price.append(f"{100 * granted.frames_lost:.1f}{THIN}% of the frames")
    if granted.weight_lost > 0:
        price.append(f"targets of the weight {granted.weight_lost}")
    return f"it costs {listed(price) or 'nothing'}" + (
        f" while the answer is {money(-granted.cost_minor, currency)} cheaper"
        if granted.cost_minor < 0
        else ""
    )


def preference_lines(brief: Brief, granteds: tuple[Granted, ...], currency: str) -> Iterator[str]:
    """One sentence for each preference of an answer."""
    for granted in granteds:
        words, price = (
            preference_words(brief, granted.preference, currency),
            price_words(granted, currency),
        )
        if granted.granted:
            yield f"Preferred and granted: {words}; {price}."
        else:
            most = (
                f"more than {money(most_minor(brief), currency)}, a target or 2{THIN}% of the"
                " frames is too much"
            )
            yield (
                f"Preferred but not granted: {words};"
                f" {price}{'' if granted.cost_minor is None else f' ({most})'}."
            )
