"""What drives are for, in words."""

from wattmetron.core.fit.roles import Role
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.words import listed

WORDS: dict[Role, str] = {"system": "the system", "games": "games", "bulk": "bulk"}


def role_words(roles: tuple[Role, ...]) -> str:
    """What a drive is for; empty where its roles are not known."""
    return f"for {listed([WORDS[role] for role in roles])}" if roles else ""


def drives_words(brief: Brief) -> str:
    """The wishes about drives in one line."""
    games = f"{brief.games_gb:,.0f} GB" if brief.games_gb else "as much as they need"
    said = [
        f"system {brief.system_gb:,.0f} GB on {brief.system_on}",
        f"games {games} on {brief.games_on}",
    ]
    if brief.bulk_gb:
        said.append(f"bulk {brief.bulk_gb:,.0f} GB on {brief.bulk_on}")
    said += ["each on a drive of its own"] if brief.drives_apart else []
    said += ["no spinning disk"] if brief.no_disks else []
    return "; ".join(said)
