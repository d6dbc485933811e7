"""The floors that a brief implies: its wishes, what its games ask for, what other work takes."""

from collections.abc import Iterator

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.extras import Besides
from wattmetron.core.compatibility.floors import Floors
from wattmetron.core.compatibility.game_demands import apis_of
from wattmetron.core.compatibility.later_upgrades import (
    ToCome,
    later_card,
    later_chip,
)
from wattmetron.core.compatibility.roles import (
    ANY,
    NVME,
    SOLID,
    DriveNeed,
    DriveRoom,
    Room,
)
from wattmetron.core.compatibility.rule_wishes import kind_asked
from wattmetron.core.requirements.verdicts import storage_needed_gb
from wattmetron.core.requirements.versions import Version, version_of
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.other_work import storage_more_gb, with_work_gb
from wattmetron.core.values.parts import (
    STORAGE_KINDS,
    Graphics,
    Processor,
    StorageKind,
)
from wattmetron.core.values.published import Published

DEAR_CARD_MINOR = 400_00
"""From this price on a card wants at least six cores beside it, in minor units of the region's
currency.
"""


def floors_of(catalogue: Catalogue, brief: Brief) -> Floors:
    """The floors of a brief. Where no part of the catalogue states its APIs, none can be asked
    for.
    """
    stated = any(
        apis_of(part)
        for kind in ("graphics", "processor")
        for part in catalogue.by_kind[kind]
        if isinstance(part, (Graphics, Processor))
    )
    return Floors(
        memory_gb=memory_floor_gb(catalogue, brief),
        storage=storage_floor(catalogue, brief),
        apis=tuple(_apis(catalogue, brief)) if brief.games_start and stated else (),
        starts_as_bought=brief.starts_as_bought,
        heat_carried=brief.heat_carried,
        boxed_judged=brief.boxed_judged,
        liquid=brief.cooling == "liquid",
        most_dba=brief.noise_limit_dba,
        all_channels=brief.all_channels,
        threads=_threads(catalogue, brief) if brief.enough_threads else 0,
        cooler_reserve_percent=brief.reserve_percent,
        supply_reserve_percent=brief.reserve_percent,
        headroom_percent=brief.headroom_percent,
        delivered=brief.reserve_percent > 0,
        display=brief.display if brief.display_driven else None,
        dear_cards=_dear_cards(catalogue, brief) if brief.enough_threads else frozenset(),
        besides=besides_of(catalogue, brief),
        later=ToCome(
            later_card(catalogue, brief), brief.later_second, later_chip(catalogue, brief)
        ),
        later_sticks=brief.later_sticks,
    )


def besides_of(catalogue: Catalogue, brief: Brief) -> Besides:
    """What the brief wants besides the eight kinds; the system is the named one, and what its games
    name as the least.
    """
    named = [
        brief.system,
        *(requirements.tiers[0].system for requirements in _lists(catalogue, brief)),
    ]
    return Besides(
        wireless=brief.wireless,
        kinds=frozenset(brief.buys),
        systems=tuple(version_of(system) for system in dict.fromkeys(named) if system),
        display=brief.display,
    )


def _lists(catalogue: Catalogue, brief: Brief) -> Iterator[Published]:
    """The lists with tiers of the brief's games."""
    for game_id in dict.fromkeys(target.game_id for target in brief.targets):
        published = catalogue.published.get(game_id)
        if published is not None and published.tiers:
            yield published


def _dear_cards(catalogue: Catalogue, brief: Brief) -> frozenset[str]:
    """The cards that cost so much that a builder puts six cores beside them."""
    book = catalogue.prices(brief.region, brief.may_buy)
    return frozenset(
        card.id
        for card in catalogue.by_kind["graphics"]
        if (book.cost(card.id) or 0) >= DEAR_CARD_MINOR
    )


def _threads(catalogue: Catalogue, brief: Brief) -> int:
    """How many threads the most demanding of the games that count uses."""
    games = (catalogue.game(target.game_id) for target in brief.counted_targets)
    return max((game.threads_used for game in games), default=0)


def _apis(catalogue: Catalogue, brief: Brief) -> Iterator[Version]:
    """The API that the lowest tier of each game names."""
    for published in _lists(catalogue, brief):
        if published.tiers[0].api:
            yield version_of(published.tiers[0].api)


def memory_floor_gb(catalogue: Catalogue, brief: Brief) -> float:
    """Main memory that the brief, one of its games with the work beside it, or other work wants."""
    games_gb = max(
        (catalogue.game(t.game_id).memory_gb for t in brief.counted_targets), default=0.0
    )
    return max(brief.memory_gb, with_work_gb(brief.work, games_gb))


def storage_floor(catalogue: Catalogue, brief: Brief) -> DriveNeed:
    """What system, games and bulk ask of the drives: the games' published kinds and sizes with a
    fifth kept free, what other work wants as bulk on top; kinds count only where solid state does.
    """
    more_gb = storage_more_gb(brief.work)
    games = DriveRoom(*(_games_gb(catalogue, brief, slowest) for slowest in (ANY, SOLID, NVME)))
    bulk_gb = brief.bulk_gb + more_gb
    return DriveNeed(
        system=Room(brief.system_gb, _slowest(brief, brief.system_on)),
        games=games,
        bulk=Room(bulk_gb, STORAGE_KINDS.index(brief.bulk_on)),
        all_gb=max(brief.storage_gb + more_gb, brief.system_gb + games.all_gb + bulk_gb),
        apart=brief.drives_apart,
    )


def _slowest(brief: Brief, kind: StorageKind) -> int:
    return STORAGE_KINDS.index(kind) if brief.solid_state else ANY


def _games_gb(catalogue: Catalogue, brief: Brief, slowest: int) -> float:
    """Room for the games that belong on this kind of storage or a faster one: by the brief all of
    them, or as their lists name it; a fifth is kept free.
    """
    games = sorted({target.game_id for target in brief.targets})
    if _slowest(brief, brief.games_on) >= slowest:
        sizes = [catalogue.game(game).storage_gb for game in games]
        return max(brief.games_gb, storage_needed_gb(sizes))
    if not brief.solid_state:
        return 0.0
    return storage_needed_gb(
        [
            catalogue.game(game).storage_gb
            for game in games
            if STORAGE_KINDS.index(kind_asked(catalogue.published.get(game))) >= slowest
        ]
    )
