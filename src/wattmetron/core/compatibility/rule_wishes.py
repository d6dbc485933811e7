"""What of a brief the fit rules look at."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import NamedTuple

from wattmetron.core.frames.caps import most_shown
from wattmetron.core.requirements.versions import Version, version_of
from wattmetron.core.values.brief import Brief, Clocks, Display
from wattmetron.core.values.games import Game
from wattmetron.core.values.parts import STORAGE_KINDS, StorageKind
from wattmetron.core.values.published import Published


class Ask(NamedTuple):
    """What one target's game asks for: rays, upscaling and frame generation as the target has them,
    API and system by the lowest tier, the frames drawn a second, the slowest kind of drive by its
    list and the room that it takes there.
    """

    game: str
    upscaling: bool = False
    upscalers: tuple[str, ...] = ()
    generated: bool = False
    generators: tuple[str, ...] = ()
    ray_tracing: bool = False
    api: Version = Version()
    system: Version = Version()
    second_card_gain: float = 0.0
    link_mb: float = 0.0
    fps: float = 0.0
    drive: StorageKind = "hard disk"
    drive_gb: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Wishes:
    """Supply headroom in %, the most that the machine may draw in W, the display to drive, wireless
    wanted, clocks, the operating system that will run and the room in GB that it takes, what the
    games ask for.
    """

    headroom_percent: int = 140
    watt_limit_w: int | None = None
    display: Display | None = None
    wireless: bool = False
    clocks: Clocks = "as shipped"
    system: str = ""
    system_gb: float = 80.0
    asks: tuple[Ask, ...] = ()


USUAL = Wishes()


def wishes_of(
    brief: Brief,
    games: Mapping[str, Game] | None = None,
    published: Mapping[str, Published] | None = None,
) -> Wishes:
    """A brief's wishes; without games nothing is asked for them."""
    asks = tuple(_asks(brief, games or {}, published or {}))
    return Wishes(
        headroom_percent=brief.headroom_percent,
        watt_limit_w=brief.watt_limit_w,
        display=brief.display,
        wireless=brief.wireless,
        clocks=brief.clocks,
        system=brief.system,
        system_gb=brief.system_gb,
        asks=asks,
    )


def kind_asked(published: Published | None) -> StorageKind:
    """The kind of storage that the lowest tier of a list which names one asks for."""
    tiers = published.tiers if published is not None else ()
    return next((tier.storage_kind for tier in tiers if tier.storage_kind), STORAGE_KINDS[0])


def _asks(brief: Brief, games: Mapping[str, Game], published: Mapping[str, Published]) -> list[Ask]:
    asks = []
    for target in brief.targets:
        game = games.get(target.game_id)
        if game is None:
            continue
        requirements = published.get(game.id)
        lowest = requirements.tiers[0] if requirements is not None and requirements.tiers else None
        asks.append(
            Ask(
                game=game.name,
                upscaling=target.upscaling and bool(game.upscalers),
                upscalers=game.upscalers,
                generated=target.generated,
                generators=game.generators,
                ray_tracing=target.ray_tracing and game.ray_tracing_ms_per_mpx is not None,
                api=version_of(lowest.api if lowest else ""),
                system=version_of(lowest.system if lowest else ""),
                second_card_gain=game.second_card_gain,
                link_mb=game.link_mb_used,
                fps=target.fps / most_shown(game, target),
                drive=kind_asked(requirements),
                drive_gb=game.storage_gb,
            )
        )
    return asks
