"""From a letter to a brief: what was read, put into the fields that it is about."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.texts.messages.statements import Field, Letter
from wattmetron.core.values.brief import Target
from wattmetron.core.values.games import PresetName
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.brief_edits import add_target, own
from wattmetron.places.assessment.suggested import VARIABLE_FROM_HZ

QUIET_DBA, SMALL_L = 38.0, 20.0
"""What "quiet" and "small" are taken to mean; assumed, and shown to be changed."""

USED_OR_NOT: tuple[Field, ...] = ("upscaling", "generated")
AS_SAID: tuple[Field, ...] = (
    "size",
    "refresh_hz",
    "no_lights",
    "wireless",
    "allow_used",
    "no_disks",
    "colour",
    "cooling",
    "memory_gb",
    "storage_gb",
)
"""What a letter says as the brief's field of that name has it."""


@dataclass(frozen=True, slots=True, kw_only=True)
class WantedGame:
    """A game with what the letter says of it; None where it says nothing."""

    game_id: str
    fps: float | None = None
    preset: PresetName | None = None
    ray_tracing: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Wanted:
    """What a letter asks for: fields of a brief by name, games, whether upscaling and generated
    frames are to be used, owned parts, and kinds that are owned but not named.
    """

    fields: dict[str, Any]
    games: tuple[WantedGame, ...]
    upscaling: bool | None
    generated: bool | None
    owned: tuple[str, ...]
    unnamed: tuple[Kind, ...]


def wanted(catalogue: Catalogue, letter: Letter) -> Wanted:
    """The fields that a letter fills; a currency that no region has leaves the region open."""
    fields: dict[str, Any] = {}
    for reading in letter.of("budget"):
        fields["budget_low_minor"], fields["budget_high_minor"] = reading.value
    if region := _region(catalogue, letter):
        fields["region"] = region
    for name in AS_SAID:
        for reading in letter.of(name):
            fields[name] = reading.value
    for reading in letter.of("years"):
        fields["years"] = int(reading.value)
    if letter.of("quiet"):
        fields["noise_limit_dba"] = QUIET_DBA
    if letter.of("small"):
        fields["volume_limit_l"] = SMALL_L
    for name, singular in (("work", "work"), ("buys", "buys"), ("no_makers", "no_maker")):
        if values := tuple(reading.value for reading in letter.of(singular)):  # type: ignore[arg-type]
            fields[name] = values
    upscaling, generated = (
        next((reading.value for reading in letter.of(name)), None) for name in USED_OR_NOT
    )
    return Wanted(
        fields=fields,
        games=tuple(_games(letter)),
        upscaling=upscaling,
        generated=generated,
        owned=tuple(reading.value for reading in letter.of("owned")),
        unnamed=tuple(reading.value for reading in letter.of("own_kind")),
    )


def _region(catalogue: Catalogue, letter: Letter) -> str:
    """The first region with the letter's currency; empty where there is none."""
    named = [reading.value for reading in letter.of("currency")]
    fitting = (region.id for region in catalogue.regions.values() if region.currency in named[:1])
    return next(fitting, "")


def _games(letter: Letter) -> Iterable[WantedGame]:
    for reading in letter.of("game"):
        game_id = reading.value
        fps = [stated.value for stated in letter.of("fps") if stated.game == game_id]
        preset = [stated.value for stated in letter.of("preset") if stated.game == game_id]
        rays = any(stated.game == game_id for stated in letter.of("ray_tracing"))
        yield WantedGame(
            game_id=game_id,
            fps=fps[0] if fps else None,
            preset=preset[0] if preset else None,
            ray_tracing=rays,
        )


def plan_from(catalogue: Catalogue, usual: Plan, wants: Wanted) -> Plan:
    """A plan with what is asked for; what is not asked for stays as it is usual."""
    fields = dict(wants.fields)
    width, height = fields.pop("size", (None, None))
    refresh = fields.pop("refresh_hz", None)
    display = usual.brief.display
    if width is not None:
        display = replace(display, width_px=width, height_px=height)
    if refresh is not None:
        variable = VARIABLE_FROM_HZ if refresh > 75 else None
        display = replace(display, refresh_hz=refresh, variable_from_hz=variable)
    brief = replace(usual.brief, name=_name(catalogue, wants), display=display, **fields)
    plan = replace(usual, brief=brief)
    for game in wants.games:
        plan, _ = add_target(plan, game.game_id, catalogue)
        targets = plan.brief.targets
        last = _as_asked(catalogue, targets[-1], game, wants)
        plan = replace(plan, brief=replace(plan.brief, targets=(*targets[:-1], last)))
    for part_id in wants.owned:
        plan, _ = own(plan, part_id, True, catalogue)
    return plan


def _as_asked(catalogue: Catalogue, target: Target, game: WantedGame, wants: Wanted) -> Target:
    known = catalogue.game(target.game_id)
    return replace(
        target,
        fps=game.fps or target.fps,
        preset=game.preset or target.preset,
        ray_tracing=game.ray_tracing and known.ray_tracing_ms_per_mpx is not None,
        upscaling=bool(wants.upscaling) and bool(known.upscalers),
        generated=bool(wants.generated) and bool(known.generators),
    )


def _name(catalogue: Catalogue, wants: Wanted) -> str:
    names = [catalogue.game(game.game_id).name for game in wants.games]
    return f"Letter: {listed(names[:3])}"[:120] if names else "From a letter"
