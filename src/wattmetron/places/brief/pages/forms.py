"""The forms of a brief's page: what each change takes, read from what was typed."""

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, create_model

from wattmetron.core.errors import BriefError
from wattmetron.core.values.brief import (
    BRIEF,
    DISPLAY,
    TARGET,
    Brief,
    Display,
    Extra,
    Target,
)
from wattmetron.core.values.build import SetAside, StandIn
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.games import Game
from wattmetron.core.values.money import to_minor
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.preferences import Preference
from wattmetron.places.assessment.suggested import USUAL_DISPLAYS
from wattmetron.shell.address import VIEWS, ViewName
from wattmetron.shell.forms import (
    Form,
    Number,
    Place,
    Short20,
    Short40,
    Short80,
    Short120,
    Short200,
    Short400,
    Size,
    Tick,
    Typed,
    entry_name,
    entry_type,
    read,
    read_day,
    read_number,
)

LOWER = "lower:"
MOST_PARTS_ASIDE = 12


def _view(value: Any) -> str:
    return value if value in VIEWS else "brief"


class ChangeForm(Form):
    """What every change names: the version it is based on, the view it was made in, the game
    beside it, and the scope of its entries, under which they are shown again.
    """

    version: Number = 0
    view: Annotated[ViewName, BeforeValidator(_view)] = "brief"
    beside: Short80 = ""
    scope: Short20 = ""


# --- the brief ---

GENERAL: tuple[Declared, ...] = tuple(field for field in (*BRIEF, *DISPLAY) if field.spec.label)
"""The fields of the general form."""
_entries: dict[str, Any] = {entry_name(field): (entry_type(field), None) for field in GENERAL}
GeneralForm = create_model("GeneralForm", __base__=Form, size=(Size, None), **_entries)


def general_values(entries: Typed, brief: Brief) -> dict[str, Any]:
    """Fields of a brief as typed; what has no entry stays as it is, and so do the boxes of other
    groups than the one that is sent. The budget is typed for all identical machines together.
    """
    group = entries.get("group", "")
    sent = [field for field in GENERAL if group in ("", field.spec.group)]
    ticks: dict[str, Any] = {
        entry_name(field): entry_name(field) in entries for field in sent if field.bare is bool
    }
    ticks |= {
        field.name: tuple(option for option in field.options if f"{field.name}.{option}" in entries)
        for field in sent
        if field.several
    }
    form = read(GeneralForm, entries | ticks)
    given = {name: getattr(form, name) for name in form.model_fields_set}
    values = {
        field.name: given[entry_name(field)] for field in GENERAL if entry_name(field) in given
    }
    shown = {field.name: values.pop(field.name) for field in DISPLAY if field.name in values}
    if "size" in given:
        shown["width_px"], shown["height_px"] = given["size"]
    shown |= _usual_display(entries.get("usual", ""), brief.display)
    seats = values.get("seats", brief.seats)
    if seats < 1:
        raise BriefError(f"The number of identical machines is {seats}: enter one from 1.")
    for name in ("budget_low_minor", "budget_high_minor"):
        if name in values:
            values[name] //= seats
    return values | {"display": _replaced(brief.display, shown)}


def _usual_display(chosen: str, now: Display) -> dict[str, Any]:
    """Size and refresh of a usual display, where another than the present one was chosen."""
    usual = next(
        (usual_display for usual_display in USUAL_DISPLAYS if usual_display.key == chosen), None
    )
    if usual is None or usual.is_like(now):
        return {}
    return {
        "width_px": usual.width_px,
        "height_px": usual.height_px,
        "refresh_hz": usual.refresh_hz,
        "variable_from_hz": usual.variable_from_hz,
    }


def _replaced(value: Any, changes: dict[str, Any]) -> Any:
    return type(value)(
        **{name: getattr(value, name) for name in value.__dataclass_fields__} | changes
    )


# --- targets ---

_typed = {field.name: field for field in TARGET}
_target_entries: dict[str, Any] = {
    "size": (Size, ...),
    "upscaling": (Tick, False),
    "ray_tracing": (Tick, False),
    "generated": (Tick, False),
} | {
    name: (entry_type(_typed[name]), ...)
    for name in ("preset", "fps", "measure", "cap_fps", "weight")
}
TargetForm = create_model("TargetForm", __base__=Form, **_target_entries)


def target_from(entries: Typed, old: Target, game: Game) -> Target:
    """A target as typed, of this game."""
    form: Any = read(TargetForm, entries, f" of {game.name}")
    scale = read_number(entries.get("scale", ""), f"The scale of {game.name}") / 100
    width, height = form.size
    return Target(
        id=old.id,
        game_id=game.id,
        width_px=width,
        height_px=height,
        preset=form.preset,
        upscaling=form.upscaling,
        scale=scale,
        ray_tracing=form.ray_tracing and game.ray_tracing_ms_per_mpx is not None,
        generated=form.generated and bool(game.generators),
        lowered=tuple(option.name for option in game.options if LOWER + option.name in entries),
        fps=form.fps,
        measure=form.measure,
        cap_fps=form.cap_fps,
        weight=form.weight,
    )


class AddTargetForm(Form):
    """Games to add by what was typed, one of them perhaps at the settings of a tier."""

    game: Annotated[str, BeforeValidator(lambda value: str(value)[:4000])] = ""
    tier: str = ""

    @property
    def tier_place(self) -> int | None:
        if not self.tier:
            return None
        return int(self.tier) if self.tier.isdecimal() and len(self.tier) < 6 else 10**6


class FieldForm(Form):
    """A field of the brief that goes back to what is usual."""

    field: Short80 = ""


class ScreenForm(Form):
    """A display of the catalogue by its name."""

    screen: Short200 = ""


# --- what else is paid, owned, not wanted, preferred ---


class ExtraForm(Form):
    """Something else that the budget pays for."""

    extra_name: Short120 = ""
    extra_amount: str = ""

    @property
    def extra(self) -> Extra:
        amount = to_minor(self.extra_amount, f"The amount of {self.extra_name or 'the extra'}")
        return Extra(name=self.extra_name, minor=amount)


class PlacedPartForm(Form):
    """A part of the brief or its build, with what is to hold of it."""

    part: Short200 = ""
    owned: Tick = False
    keep: Tick = False


class ExcludeForm(PlacedPartForm):
    """A part or a maker that is not wanted, or is again."""

    maker: Short120 = ""
    again: Tick = False


class StandInForm(PlacedPartForm):
    """A part that is there only for a time, or stays after all."""

    stays: Tick = False
    until: str = ""
    resale: str = ""

    def stand_in(self, name: str) -> StandIn:
        until = read_day(self.until, f"The day until which {name} stands in")
        return StandIn(
            self.part, until, to_minor(self.resale.strip() or "0", f"What {name} may sell for")
        )


class LaterForm(PlacedPartForm):
    """A part to be bought later, or with the rest after all."""

    now: Tick = False


class OwnListForm(Form):
    """Parts that are there already, as a list."""

    list: str = ""


class HandoutForm(PlacedPartForm):
    """What a handout shows: an opening, a section moved, a note on a part."""

    opening: str = ""
    section: Short40 = ""
    where: Short20 = ""
    note: str = ""
    grade: Short40 = ""


class PurchaseForm(PlacedPartForm):
    """What became of a part that is bought; empty amounts are left as they are."""

    parcels: Short20 = ""
    state: Short20 = ""
    paid: Short20 = ""
    postage: Short20 = ""
    instead: Short200 = ""


class ResaleForm(PlacedPartForm):
    """What an owned part may sell for, empty for the usual; or whether all of that counts."""

    amount: Short20 = ""
    counts: Tick = False

    def minor(self, name: str) -> int | None:
        typed = self.amount.strip()
        return to_minor(typed, f"What {name} may sell for") if typed else None


class PreferForm(Form):
    """A preference to add, let go or insist on, or what each may cost."""

    act: Literal["add", "drop", "insist", "limit"] = "add"
    wish: Short40 = ""
    value: Short120 = ""
    place: Place = -1
    up_to: Short20 = ""

    @property
    def preference(self) -> Preference:
        return Preference(self.wish, self.value)

    @property
    def most_minor(self) -> int | None:
        return to_minor(self.up_to, "What a preference may cost") if self.up_to else None


def _kind(value: Any) -> Any:
    if value not in ALL_KINDS:
        raise BriefError(f"There is no kind of part called “{value}”: load the page again.")
    return value


KindEntry = Annotated[Kind, BeforeValidator(_kind)]


class KindForm(Form):
    """A kind of part."""

    kind: KindEntry


# --- the build ---


class AdoptForm(Form):
    """What is tried, as its address says it."""

    tried: str = ""


class AsideForm(Form):
    """A finding to set aside for a reason, or to count again."""

    rule: Short80 = ""
    parts: str = ""
    reason: Short400 = ""
    again: Tick = False

    @property
    def aside(self) -> SetAside:
        return SetAside(self.rule, tuple(self.parts.split()[:MOST_PARTS_ASIDE]), self.reason)
