"""Edits of a brief's preferences, and of the makers to buy from."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.preferences import Preference
from wattmetron.core.values.wishes import check_brief, insisting, read_preference
from wattmetron.places.assessment.brief_edits import Edited
from wattmetron.words.figures import KIND_WORDS, money
from wattmetron.words.wish_words import preference_words


def prefer(plan: Plan, preference: Preference, catalogue: Catalogue) -> Edited:
    """Add a preference, behind those that are there."""
    brief = plan.brief
    if preference in brief.preferences:
        return plan, "nothing"
    if preference.wish == "maker":
        _known_maker(preference, catalogue)
    brief = replace(brief, preferences=(*brief.preferences, preference))
    check_brief(brief)
    return replace(plan, brief=brief), f"prefer {_words(brief, preference, catalogue)}"


def let_go(plan: Plan, index: int, catalogue: Catalogue) -> Edited:
    """Take a preference out."""
    brief, preference = plan.brief, _at(plan.brief, index)
    left = tuple(
        each_preference for each_preference in brief.preferences if each_preference != preference
    )
    sentence = f"no longer prefer {_words(brief, preference, catalogue)}"
    return replace(plan, brief=replace(brief, preferences=left)), sentence


def insist(plan: Plan, index: int, catalogue: Catalogue) -> Edited:
    """Make a preference a floor."""
    preference = _at(plan.brief, index)
    sentence = f"insist on {_words(plan.brief, preference, catalogue)}"
    return replace(plan, brief=insisting(plan.brief, preference)), sentence


def limit(plan: Plan, most_minor: int | None, catalogue: Catalogue) -> Edited:
    """Say what each preference may cost, in minor units; None: a twentieth of the budget."""
    currency = catalogue.region(plan.brief.region).currency
    most = "a twentieth of the budget" if most_minor is None else money(most_minor, currency)
    brief = replace(plan.brief, preference_minor=most_minor)
    return replace(plan, brief=brief), f"a preference may cost {most}"


def buy_from_anyone(plan: Plan, kind: Kind) -> Edited:
    """Let a kind be bought from any maker again."""
    left = tuple(kind_maker for kind_maker in plan.brief.only_of if kind_maker[0] != kind)
    return replace(
        plan, brief=replace(plan.brief, only_of=left)
    ), f"{KIND_WORDS[kind]} of any maker"


def _at(brief: Brief, index: int) -> Preference:
    if not 0 <= index < len(brief.preferences):
        raise BriefError("That preference is no longer there: load the page again.")
    return brief.preferences[index]


def _words(brief: Brief, preference: Preference, catalogue: Catalogue) -> str:
    return preference_words(brief, preference, catalogue.region(brief.region).currency)


def _known_maker(preference: Preference, catalogue: Catalogue) -> None:
    for kind, maker in read_preference(preference):
        if not any(part.maker == maker for part in catalogue.by_kind[kind]):
            raise BriefError(
                f"The catalogue has no {KIND_WORDS[kind]} of “{maker}”: choose a maker from the"
                " list."
            )
