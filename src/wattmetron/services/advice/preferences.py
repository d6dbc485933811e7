"""The preferences of a brief: which are granted for this build's kept parts, and what is said of
each.
"""

from collections.abc import Iterator

from wattmetron.core.balance.granting import Granted, grant, most_minor
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.answer import Aim
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.words import listed
from wattmetron.services.words.figures import THIN, money
from wattmetron.services.words.wishes import preference_words


def settled(
    catalogue: Catalogue, brief: Brief, kept: Build, aim: Aim = "most frames"
) -> tuple[Brief, tuple[Granted, ...]]:
    """The brief with its granted preferences as floors, and every preference with its price; the
    brief is a known one.
    """
    if not brief.preferences:
        return brief, ()
    return catalogue.keep.long(
        ("preferences", aim, brief, kept), lambda: grant(catalogue, brief, kept, aim)
    )


def price_words(one: Granted, currency: str) -> str:
    """What a preference costs: ``EUR 38 and 2.0 % of the frames``."""
    if one.cost_minor is None:
        return "nothing fits with it"
    price = [money(one.cost_minor, currency)] if one.cost_minor > 0 else []
    if one.frames_lost > 0.0005:
        price.append(f"{100 * one.frames_lost:.1f}{THIN}% of the frames")
    if one.weight_lost > 0:
        price.append(f"targets of the weight {one.weight_lost}")
    return f"it costs {listed(price) or 'nothing'}" + (
        f" while the answer is {money(-one.cost_minor, currency)} cheaper"
        if one.cost_minor < 0
        else ""
    )


def preference_lines(brief: Brief, found: tuple[Granted, ...], currency: str) -> Iterator[str]:
    """One sentence for each preference of an answer."""
    for one in found:
        words, price = preference_words(brief, one.preference, currency), price_words(one, currency)
        if one.granted:
            yield f"Preferred and granted: {words}; {price}."
        else:
            most = (
                f"more than {money(most_minor(brief), currency)}, a target or 2{THIN}% of the"
                " frames is too much"
            )
            yield (
                f"Preferred but not granted: {words};"
                f" {price}{'' if one.cost_minor is None else f' ({most})'}."
            )
