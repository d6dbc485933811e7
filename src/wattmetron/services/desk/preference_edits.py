"""Edits of a brief's preferences, and of the makers to buy from."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.brief import check_brief, insisting
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.preferences import PREFERRED, Preference, read
from wattmetron.services.desk.edits import Form
from wattmetron.services.words.figures import KIND_WORDS, money
from wattmetron.services.words.wishes import preference_words


def prefer(plan: Plan, form: Form, catalogue: Catalogue) -> tuple[Plan, str]:
    """Add a preference; let one go, insist on it, or say what each may cost."""
    brief, act = plan.brief, form.get("act", "add")
    currency = catalogue.region(brief.region).currency
    if act == "limit":
        typed = form.get("up_to", "").strip()
        most = to_minor(typed, "What a preference may cost") if typed else None
        said = (
            "a preference may cost a twentieth of the budget"
            if most is None
            else f"a preference may cost {money(most, currency)}"
        )
        return replace(plan, brief=replace(brief, preference_minor=most)), said
    if act == "add":
        wish = form.get("wish", "")
        if wish not in PREFERRED:
            raise BriefError(f"The preference “{wish}” is not known: choose one from the list.")
        one = Preference(wish, form.get("value", "").strip()[:120])
        if one in brief.preferences:
            return plan, "nothing"
        if one.wish == "maker":
            _known_maker(one, catalogue)
        brief = replace(brief, preferences=(*brief.preferences, one))
        check_brief(brief)
        return replace(plan, brief=brief), f"prefer {preference_words(brief, one, currency)}"
    place = form.get("place", "")
    if not place.isdecimal() or int(place) >= len(brief.preferences):
        raise BriefError("That preference is no longer there: load the page again.")
    one = brief.preferences[int(place)]
    words = preference_words(brief, one, currency)
    if act == "insist":
        return replace(plan, brief=insisting(brief, one)), f"insist on {words}"
    return (
        replace(
            plan,
            brief=replace(brief, preferences=tuple(own for own in brief.preferences if own != one)),
        ),
        f"no longer prefer {words}",
    )


def _known_maker(one: Preference, catalogue: Catalogue) -> None:
    for kind, maker in read(one):
        if not any(part.maker == maker for part in catalogue.by_kind[kind]):
            raise BriefError(
                f"The catalogue has no {KIND_WORDS[kind]} of “{maker}”: choose a maker from the"
                " list."
            )


def buy_from_anyone(plan: Plan, form: Form, _: Catalogue) -> tuple[Plan, str]:
    """Let a kind be bought from any maker again."""
    kind = form.get("kind", "")
    brief = replace(plan.brief, only_of=tuple(one for one in plan.brief.only_of if one[0] != kind))
    return replace(plan, brief=brief), f"{KIND_WORDS.get(kind, kind)} of any maker"  # type: ignore[call-overload]
