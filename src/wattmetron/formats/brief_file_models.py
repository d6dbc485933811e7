"""What a brief and a build say in a file, as models."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from wattmetron.core.values.brief import (
    Display,
    Extra,
    Resale,
    Target,
)
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.wishes import PREFERRED
from wattmetron.formats.declared_fields import (
    Amount,
    Strict,
    Text,
    file_model,
)

Id = Annotated[str, Field(max_length=80)]


class BudgetFile(Strict):
    """A budget as a range, in the region's currency."""

    low: Amount = Field(description="Lower end, in the region's currency")
    high: Amount = Field(
        description="Upper end, in the region's currency: what a proposal may spend"
    )


class MakerFile(Strict):
    """A maker to buy a kind of part from."""

    kind: Kind = Field(description="Kind of part")
    maker: Text = Field(description="Maker")


class PreferenceFile(Strict):
    """A wish that is granted where it costs little."""

    wish: Literal[tuple(PREFERRED)] = Field(description="What is preferred")  # type: ignore[valid-type]
    value: Text = Field(
        "",
        description=(
            "The colour, the limit, the floor, or kind and maker as in “graphics: …”; empty where"
            " there is nothing to say"
        ),
    )


DisplayFile = file_model(Display, "DisplayFile", {})
TargetFile = file_model(
    Target,
    "TargetFile",
    {},
    {"id": {"id": (Id, Field("", description="Id within the brief; empty: given on import"))}},
)
ExtraFile = file_model(Extra, "ExtraFile", {})
ResaleFile = file_model(Resale, "ResaleFile", {})


class PlaceFile(Strict):
    """A part in its place."""

    kind: Kind = Field(description="Kind of part")
    part: Id = Field(description="Part id")
    keep: bool = Field(False, description="Whether it stays when the rest is proposed")
    later: bool = Field(False, description="Whether it is bought later, outside the total")


class AsideFile(Strict):
    """A finding set aside for this build."""

    rule: Text = Field(description="Rule of the finding")
    parts: list[Id] = Field(max_length=12, description="Ids of the parts concerned")
    reason: Annotated[str, Field(min_length=1, max_length=300)] = Field(
        description="Why it does not count"
    )


class StandInFile(Strict):
    """A part that is there only for a time."""

    part: Id = Field(description="Part id")
    until: date = Field(description="Until when, ISO 8601")
    resale: Amount = Field(
        description="What it may then sell for: a guess, in the region's currency"
    )


class TunedFile(Strict):
    """A processor or card that runs as it was measured, or a memory kit as it is set."""

    part: Id = Field(description="Part id")
    gain: float = Field(ge=-0.5, le=1, description="Gain in speed over shipped, a share")
    gain_sd: float = Field(ge=0, le=0.5, description="Standard deviation of the gain")
    power: float = Field(ge=0.2, le=3, description="Factor on its power")
    noted_on: date = Field(description="Date, ISO 8601")
    setup: str = Field(default="", max_length=80, description="What was set")
    clock_mhz: float | None = Field(default=None, ge=1, le=20_000, description="Clock reached, MHz")
    volts: float | None = Field(default=None, ge=0.1, le=5, description="Volts")
    fan_rpm: float | None = Field(default=None, ge=0, le=20_000, description="Fan speed, 1/min")
    celsius: float | None = Field(default=None, ge=-50, le=150, description="Temperature, °C")
    mts: int | None = Field(default=None, ge=200, le=20_000, description="Memory's rate, MT/s")
    cl: int | None = Field(default=None, ge=1, le=200, description="Memory's CAS latency, cycles")
    beside: list[Id] = Field(
        default_factory=list, max_length=2, description="Processor and board that carry it"
    )


class SentFile(Strict):
    """A line of a list that was sent in."""

    text: Annotated[str, Field(max_length=300)] = Field(description="What the line said")
    kind: Kind | None = Field(None, description="Kind of part; null: not known")
    part: Id | None = Field(None, description="Part id that it was taken for; null: not known")
    quantity: int = Field(1, ge=0, le=1000, description="How many")
    price: Amount | None = Field(None, description="What one of them cost there")
    currency: Annotated[str, Field(max_length=3)] = Field(
        "", description="ISO 4217; empty: not said"
    )
