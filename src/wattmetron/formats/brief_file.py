"""Briefs and builds as JSON, checked by Pydantic at the edge and turned into core values."""

import json
from collections.abc import Sequence
from datetime import date
from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from wattmetron.core.errors import BuildError
from wattmetron.core.values.brief import (
    Brief,
    Clocks,
    Display,
    Extra,
    Measure,
    Sureness,
    Target,
    check_brief,
)
from wattmetron.core.values.build import Build, SetAside, StandIn
from wattmetron.core.values.games import PresetName
from wattmetron.core.values.money import to_decimal, to_minor
from wattmetron.core.values.other_work import WorkName
from wattmetron.core.values.parts import FURTHER_KINDS, Kind
from wattmetron.core.values.preferences import Preference, Preferred
from wattmetron.core.values.trust import TrustFloor
from wattmetron.formats.problems import FormatError, Problem

MAX_BYTES = 1_000_000
BUILD_FORMAT: Literal["wattmetron-build/1"] = "wattmetron-build/1"
Amount = Annotated[Decimal, Field(ge=0, le=10_000_000, decimal_places=2)]
Text = Annotated[str, Field(max_length=120)]
Id = Annotated[str, Field(max_length=80)]


class _Strict(BaseModel):
    model_config = ConfigDict(extra="forbid")


class BudgetFile(_Strict):
    """A budget as a range, in the region's currency."""

    low: Amount = Field(description="Lower end, in the region's currency")
    high: Amount = Field(
        description="Upper end, in the region's currency: what a proposal may spend"
    )


class DisplayFile(_Strict):
    """The display."""

    width_px: int = Field(1920, description="Pixels across")
    height_px: int = Field(1080, description="Pixels down")
    refresh_hz: float = Field(60.0, description="Highest refresh, Hz")
    variable_from_hz: float | None = Field(
        None, description="Where variable refresh begins, Hz; null: fixed"
    )


class TargetFile(_Strict):
    """One game at named settings with the frame rate wanted."""

    id: Id = Field("", description="Id within the brief; empty: given on import")
    game: Id = Field(description="Game id")
    width_px: int = Field(1920, description="Pixels across")
    height_px: int = Field(1080, description="Pixels down")
    preset: PresetName = Field("high", description="Preset")
    upscaling: bool = Field(False, description="Whether upscaling is acceptable and to be used")
    scale: float = Field(0.67, description="Rendered share of each axis when upscaling")
    ray_tracing: bool = Field(False, description="Whether ray tracing is on")
    lowered: list[Text] = Field(
        [], max_length=64, description="Single options set lower than the preset has them"
    )
    fps: float = Field(60.0, description="Frame rate wanted, fps")
    measure: Measure = Field(
        "average", description="Whether the average or the 1 % low must reach it"
    )
    cap_fps: float | None = Field(None, description="A cap chosen by the user, fps; null: none")
    weight: int = Field(1, description="How much it counts; 0: shown but not counted")


class ExtraFile(_Strict):
    """Something besides the parts that the budget may have to pay for."""

    name: Text = Field(description="What it is")
    amount: Amount = Field(description="What it costs, in the region's currency")
    in_budget: bool = Field(True, description="Whether the budget pays for it")


class MakerFile(_Strict):
    """A maker to buy a kind of part from."""

    kind: Kind = Field(description="Kind of part")
    maker: Text = Field(description="Maker")


class PreferenceFile(_Strict):
    """A wish that is granted where it costs little."""

    wish: Preferred = Field(description="What is preferred")
    value: Text = Field(
        "",
        description=(
            "The colour, the limit, the floor, or kind and maker as in “graphics: …”; empty where"
            " there is nothing to say"
        ),
    )


class BriefFile(_Strict):
    """A brief: everything that was asked for."""

    format: Literal["wattmetron-brief/1"] = "wattmetron-brief/1"
    name: Text = Field(description="Name of the brief, such as the room it is for")
    region: Id = Field(description="Region id: decides currency and offers")
    budget: BudgetFile
    display: DisplayFile = DisplayFile()  # type: ignore[call-arg]
    sureness: Sureness = Field(
        "likely", description="even odds 50 %, likely 80 %, near certain 95 %"
    )
    targets: list[TargetFile] = Field(default_factory=list)
    owned: list[Id] = Field(
        default_factory=list, description="Part ids that are there already and cost nothing"
    )
    part_price_cap: Amount | None = Field(
        None, description="Most that a single part may cost; null: no cap"
    )
    allow_used: bool = Field(False, description="Whether used parts may be proposed")
    accept_spill: bool = Field(False, description="Whether too little video memory is acceptable")
    memory_gb: float = Field(16.0, description="Least main memory, GB")
    storage_gb: float = Field(500.0, description="Least storage, GB")
    headroom_percent: int = Field(140, description="Least supply output in % of the full draw")
    trust_floor: TrustFloor = Field(
        "nothing doubtful", description="How far a part must be trusted to be proposed"
    )
    watt_limit_w: int | None = Field(
        None, description="Most that the machine may draw, W; null: no limit"
    )
    wireless: bool = Field(False, description="Whether wireless is wanted")
    room_to_grow: bool = Field(
        False, description="Whether the mainboard must have four memory slots and two M.2 places"
    )
    outside: list[Kind] = Field(
        default_factory=list, description="Kinds of part that another purse pays for"
    )
    play_hours: float = Field(2.0, description="Hours of play a day, for the bill")
    desk_hours: float = Field(2.0, description="Hours at the desk a day, for the bill")
    tariff_per_kwh: Amount | None = Field(
        None, description="Price of a kWh in the region's currency; null: the region's"
    )
    no_makers: list[Text] = Field(
        default_factory=list, max_length=100, description="Makers whose parts are not wanted"
    )
    banned: list[Id] = Field(
        default_factory=list, max_length=200, description="Part ids that are not wanted"
    )
    colour: Text = Field("", description="Colour of the parts whose colour is known; empty: any")
    noise_limit_dba: float | None = Field(
        None, description="Loudest cooler or fan, dB(A); null: no limit"
    )
    volume_limit_l: float | None = Field(None, description="Largest case, litres; null: no limit")
    clocks: Clocks = Field(
        "as shipped", description="Whether clocks are to be tuned or voltages lowered"
    )
    work: list[WorkName] = Field(
        default_factory=list, max_length=4, description="Other work on the machine"
    )
    years: int = Field(0, description="Years for which the machine is to be kept; 0: not asked")
    growth_percent: float = Field(12.0, description="Assumed growth of the games' work, % a year")
    seats: int = Field(1, description="Identical machines; the budget is of one of them")
    only_of: list[MakerFile] = Field(
        default_factory=list,
        max_length=40,
        description="By kind of part the makers to buy from; a kind that is not named is open",
    )
    preferences: list[PreferenceFile] = Field(
        default_factory=list,
        max_length=10,
        description="Wishes granted in this order where they cost little",
    )
    preference_up_to: Amount | None = Field(
        None, description="Most that each preference may cost; null: a twentieth of the budget"
    )
    extras: list[ExtraFile] = Field(default_factory=list)
    notes: Annotated[str, Field(max_length=4000)] = ""
    system: Text = Field(
        "", description="Operating system that will run, as published lists name it"
    )


class PlaceFile(_Strict):
    """A part in its place."""

    kind: Kind = Field(description="Kind of part")
    part: Id = Field(description="Part id")
    keep: bool = Field(False, description="Whether it stays when the rest is proposed")


class AsideFile(_Strict):
    """A finding set aside for this build."""

    rule: Text = Field(description="Rule of the finding")
    parts: list[Id] = Field(max_length=12, description="Ids of the parts concerned")
    reason: Annotated[str, Field(min_length=1, max_length=300)] = Field(
        description="Why it does not count"
    )


class StandInFile(_Strict):
    """A part that is there only for a time."""

    part: Id = Field(description="Part id")
    until: date = Field(description="Until when, ISO 8601")
    resale: Amount = Field(
        description="What it may then sell for: a guess, in the region's currency"
    )


class BuildFile(_Strict):
    """A build: which part stands in which place."""

    format: Literal["wattmetron-build/1"] = BUILD_FORMAT
    parts: list[PlaceFile] = Field(default_factory=list, max_length=60)
    stand_ins: list[StandInFile] = Field(
        default_factory=list, max_length=20, description="Parts that are there only for a time"
    )
    aside: list[AsideFile] = Field(
        default_factory=list, max_length=40, description="Findings that do not count here"
    )


def brief_from(file: BriefFile) -> Brief:
    """The core value; raises BriefError for what cannot be worked with."""
    taken = {target.id for target in file.targets if target.id}
    fresh = (f"t{n}" for n in range(1, 10_000) if f"t{n}" not in taken)
    brief = Brief(
        name=file.name.strip(),
        region=file.region,
        budget_low_minor=to_minor(file.budget.low),
        budget_high_minor=to_minor(file.budget.high),
        display=Display(**file.display.model_dump()),
        sureness=file.sureness,
        targets=tuple(
            Target(
                game_id=one.game,
                **{
                    **one.model_dump(exclude={"game"}),
                    "id": one.id or next(fresh),
                    "lowered": tuple(one.lowered),
                },
            )
            for one in file.targets
        ),
        owned=tuple(file.owned),
        part_cap_minor=None if file.part_price_cap is None else to_minor(file.part_price_cap),
        allow_used=file.allow_used,
        accept_spill=file.accept_spill,
        memory_gb=file.memory_gb,
        storage_gb=file.storage_gb,
        headroom_percent=file.headroom_percent,
        trust_floor=file.trust_floor,
        watt_limit_w=file.watt_limit_w,
        wireless=file.wireless,
        room_to_grow=file.room_to_grow,
        outside=tuple(file.outside),
        play_hours=file.play_hours,
        desk_hours=file.desk_hours,
        tariff_per_kwh=file.tariff_per_kwh,
        no_makers=tuple(file.no_makers),
        banned=tuple(file.banned),
        colour=file.colour,
        noise_limit_dba=file.noise_limit_dba,
        volume_limit_l=file.volume_limit_l,
        clocks=file.clocks,
        work=tuple(dict.fromkeys(file.work)),
        years=file.years,
        seats=file.seats,
        growth_percent=file.growth_percent,
        only_of=tuple((one.kind, one.maker.strip()) for one in file.only_of),
        preferences=tuple(
            dict.fromkeys(Preference(one.wish, one.value.strip()) for one in file.preferences)
        ),
        preference_minor=None if file.preference_up_to is None else to_minor(file.preference_up_to),
        extras=tuple(
            Extra(name=one.name, minor=to_minor(one.amount), in_budget=one.in_budget)
            for one in file.extras
        ),
        notes=file.notes,
        system=file.system,
    )
    check_brief(brief)
    return brief


def brief_file(brief: Brief) -> BriefFile:
    """The file model of a brief."""
    return BriefFile(
        name=brief.name,
        region=brief.region,
        budget=BudgetFile(
            low=to_decimal(brief.budget_low_minor), high=to_decimal(brief.budget_high_minor)
        ),
        display=DisplayFile(
            width_px=brief.display.width_px,
            height_px=brief.display.height_px,
            refresh_hz=brief.display.refresh_hz,
            variable_from_hz=brief.display.variable_from_hz,
        ),
        sureness=brief.sureness,
        targets=[
            TargetFile(
                id=one.id,
                game=one.game_id,
                width_px=one.width_px,
                height_px=one.height_px,
                preset=one.preset,
                upscaling=one.upscaling,
                scale=one.scale,
                ray_tracing=one.ray_tracing,
                lowered=list(one.lowered),
                fps=one.fps,
                measure=one.measure,
                cap_fps=one.cap_fps,
                weight=one.weight,
            )
            for one in brief.targets
        ],
        owned=list(brief.owned),
        part_price_cap=None if brief.part_cap_minor is None else to_decimal(brief.part_cap_minor),
        allow_used=brief.allow_used,
        accept_spill=brief.accept_spill,
        memory_gb=brief.memory_gb,
        storage_gb=brief.storage_gb,
        headroom_percent=brief.headroom_percent,
        trust_floor=brief.trust_floor,
        watt_limit_w=brief.watt_limit_w,
        wireless=brief.wireless,
        room_to_grow=brief.room_to_grow,
        outside=list(brief.outside),
        play_hours=brief.play_hours,
        desk_hours=brief.desk_hours,
        tariff_per_kwh=brief.tariff_per_kwh,
        no_makers=list(brief.no_makers),
        banned=list(brief.banned),
        colour=brief.colour,
        noise_limit_dba=brief.noise_limit_dba,
        volume_limit_l=brief.volume_limit_l,
        clocks=brief.clocks,
        work=list(brief.work),
        years=brief.years,
        seats=brief.seats,
        growth_percent=brief.growth_percent,
        only_of=[MakerFile(kind=kind, maker=maker) for kind, maker in brief.only_of],
        preferences=[PreferenceFile(wish=one.wish, value=one.value) for one in brief.preferences],
        preference_up_to=(
            None if brief.preference_minor is None else to_decimal(brief.preference_minor)
        ),
        extras=[
            ExtraFile(name=one.name, amount=to_decimal(one.minor), in_budget=one.in_budget)
            for one in brief.extras
        ],
        notes=brief.notes,
        system=brief.system,
    )


def build_from(file: BuildFile) -> Build:
    """The core value; raises BuildError where a place is taken twice."""
    build = Build()
    for place in file.parts:
        if place.kind not in ("storage", "memory", "graphics", *FURTHER_KINDS) and build.of(
            place.kind
        ):
            raise BuildError(f"The build has two parts of the kind {place.kind}: keep one of them.")
        if place.kind == "memory":
            build = build.with_kit(place.part)
        elif place.kind == "graphics":
            build = build.beside(place.part)
        else:
            build = build.with_part(place.kind, place.part)
        if place.keep:
            build = build.keeping(place.part, True)
    for own in file.stand_ins:
        build = build.standing_in(StandIn(own.part, own.until, to_minor(own.resale)))
    for one in file.aside:
        build = build.setting_aside(SetAside(one.rule, tuple(one.parts), one.reason))
    return build


def build_file(build: Build) -> BuildFile:
    """The file model of a build; of stand-ins those whose part is still there."""
    there = {part_id for _, part_id in build.ids()}
    return BuildFile(
        parts=[
            PlaceFile(kind=kind, part=part_id, keep=part_id in build.kept)
            for kind, part_id in build.ids()
        ],
        stand_ins=[
            StandInFile(part=one.part, until=one.until, resale=to_decimal(one.resale_minor))
            for one in build.stand_ins
            if one.part in there
        ],
        aside=[
            AsideFile(rule=one.rule, parts=list(one.parts), reason=one.reason)
            for one in build.aside
        ],
    )


def read_brief(name: str, data: bytes) -> Brief:
    """A brief from the bytes of a JSON file; raises FormatError or BriefError."""
    return brief_from(_read(BriefFile, name, data))


def read_build(name: str, data: bytes) -> Build:
    """A build from the bytes of a JSON file; raises FormatError or BuildError."""
    return build_from(_read(BuildFile, name, data))


def read_documents(files: Sequence[tuple[str, bytes]]) -> tuple[Brief, Build]:
    """One brief and at most one build from files (name, bytes), told apart by their ``format``."""
    briefs, builds = [], []
    for name, data in files:
        if _names_build(data):
            builds.append(read_build(name, data))
        else:
            briefs.append(read_brief(name, data))
    if len(briefs) != 1 or len(builds) > 1:
        names = ", ".join(name for name, _ in files) or "no file"
        found = f"{len(briefs)} briefs and {len(builds)} builds"
        raise FormatError([Problem(names, None, "", found, "one brief and at most one build")])
    return briefs[0], builds[0] if builds else Build()


def _names_build(data: bytes) -> bool:
    """Whether a file says that it is a build; what cannot be read is left to the reader of
    briefs.
    """
    try:
        document = json.loads(data[:MAX_BYTES])
    except ValueError:
        return False
    return isinstance(document, dict) and document.get("format") == BUILD_FORMAT


def document_text(file: BaseModel) -> str:
    """A brief or build as the text of a file."""
    return file.model_dump_json(indent=2) + "\n"


def _read(kind: Any, name: str, data: bytes) -> Any:
    if len(data) > MAX_BYTES:
        raise FormatError([Problem(name, None, "", f"{len(data) / 1e6:,.0f} MB", "at most 1 MB")])
    try:
        return kind.model_validate_json(data)
    except ValidationError as error:
        raise FormatError(
            [problem_of(name, one) for one in error.errors(include_url=False)]
        ) from error


def problem_of(name: str, error: Any) -> Problem:
    """One validation error in our words."""
    place = " › ".join(
        str(step + 1) if isinstance(step, int) else str(step) for step in error["loc"]
    )
    found = "no such value" if error["type"] == "missing" else f"“{str(error['input'])[:60]}”"
    return Problem(name, None, place, found, error["msg"].lower())
