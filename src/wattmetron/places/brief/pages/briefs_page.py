"""The list of briefs."""

from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import assess
from wattmetron.words.figures import money, money_range
from wattmetron.workshop.listed_briefs import ListedBrief


@dataclass(frozen=True, slots=True, kw_only=True)
class BriefCard:
    """What matters about a brief."""

    id: int
    version: int
    name: str
    games: str
    display: str
    budget: str
    spent: str
    over: bool
    met: str
    fit: str
    blocks: bool


def brief_cards(catalogue: Catalogue, rows: list[ListedBrief]) -> list[BriefCard]:
    return [_card(catalogue, row) for row in rows]


def _card(catalogue: Catalogue, row: ListedBrief) -> BriefCard:
    brief = row.plan.brief
    now = assess(catalogue, brief, row.plan.build)
    names = list(
        dict.fromkeys(
            catalogue.games[t.game_id].name for t in brief.targets if t.game_id in catalogue.games
        )
    )
    games = (
        listed(names) if len(names) <= 3 else f"{', '.join(names[:3])} and {len(names) - 3} more"
    )
    budget = money_range(brief.budget_low_minor, brief.budget_high_minor, now.currency)
    counted = len(brief.counted_targets)
    if now.blocking:
        fit = f"{now.blocking} blocks"
    elif now.missing:
        fit = "empty" if now.build.empty else f"{len(now.missing)} missing"
    else:
        fit = "fits"
    return BriefCard(
        id=row.id,
        version=row.version,
        name=brief.name,
        games=games or "no games yet",
        display=f"{brief.display.width_px}x{brief.display.height_px},"
        f" {brief.display.refresh_hz:g} Hz",
        budget=budget,
        spent=money(now.spent_minor, now.currency) if not now.build.empty else "–",
        over=now.left_minor < 0,
        met=f"{now.met} of {counted}" if counted and now.counted else "–",
        fit=fit,
        blocks=bool(now.blocking),
    )
