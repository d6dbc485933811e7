"""What drives are for, and what is to come later, in words."""

from collections.abc import Mapping

from wattmetron.core.compatibility.roles import Role
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.words import listed

WORDS: dict[Role, str] = {"system": "the system", "games": "games", "bulk": "bulk"}


def role_words(roles: tuple[Role, ...]) -> str:
    """What a drive is for; empty where its roles are not known."""
    return f"for {listed([WORDS[role] for role in roles])}" if roles else ""


def drives_words(brief: Brief) -> str:
    """The wishes about drives in one line."""
    games = f"{brief.games_gb:,.0f} GB" if brief.games_gb else "as much as they need"
    sentences = [
        f"system {brief.system_gb:,.0f} GB on {brief.system_on}",
        f"games {games} on {brief.games_on}",
    ]
    if brief.bulk_gb:
        sentences.append(f"bulk {brief.bulk_gb:,.0f} GB on {brief.bulk_on}")
    sentences += ["each on a drive of its own"] if brief.drives_apart else []
    sentences += ["no spinning disk"] if brief.no_disks else []
    return "; ".join(sentences)


def _named(part_id: str, names: Mapping[str, str]) -> str:
    return names.get(part_id) or f"{part_id} (no longer in the catalogue)"


def later_words(brief: Brief, parts: Mapping[str, str]) -> str:
    """What a build must take later, in one line; ``parts`` are names by id."""
    sentences = []
    if brief.later_card:
        sentences.append(_named(brief.later_card, parts))
    elif brief.later_card_w is not None:
        sentences.append(f"a card of {brief.later_card_w} W and {brief.later_card_mm} mm")
    if brief.later_second:
        sentences.append("a second card like the first")
    if brief.later_processor:
        sentences.append(_named(brief.later_processor, parts))
    if brief.later_sticks:
        sentences.append(
            f"{brief.later_sticks} memory stick{'s' if brief.later_sticks > 1 else ''}"
        )
    if brief.upgrade_minor is not None:
        sentences.append(f"money for upgrades each {brief.upgrade_every}")
    return listed(sentences) or "nothing asked"
