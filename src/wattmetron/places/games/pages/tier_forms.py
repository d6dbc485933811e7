"""Forms about published tiers: the tiers themselves, a comparison, the table of assumptions."""

from datetime import date
from typing import Annotated, Any, cast

from pydantic import BeforeValidator

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.parts import STORAGE_KINDS
from wattmetron.core.values.published import (
    ROLES,
    SIDES,
    Assumed,
    Assumptions,
    Listed,
    Published,
    Side,
    Tier,
)
from wattmetron.places.games.tier_edits import ListEntry, SpeedComparison, TierError, part_called
from wattmetron.shell.forms import Form, Number, Short200, Tick, Typed, finite

MOST_TIERS, MOST_LISTED = 12, 40
MOST_TEXT = 20_000
AMOUNTS = {
    "memory_gb": "memory",
    "video_memory_gb": "video memory",
    "storage_gb": "storage",
    "fps": "frame rate",
}


class ListForm(Form):
    """A change of a game's list: the version it is based on and the entry that it concerns."""

    game_version: Number = 0
    tier: Number = 0
    place: Number = 0
    side: Annotated[Side, BeforeValidator(lambda side: side if side in SIDES else "processor")] = (
        "processor"
    )
    excluded: Tick = False
    percent: str = ""
    direction: str = "above"
    than: Short200 = ""

    @property
    def entry(self) -> ListEntry:
        return ListEntry(self.tier, self.side, self.place)

    def comparison(self, name: str) -> SpeedComparison:
        percent = _percent(self.percent, name)
        return SpeedComparison(self.than, -percent if self.direction == "below" else percent)


def published_from(form: Typed, game_id: str, catalogue: Catalogue) -> Published:
    """The requirements of a game from a form with fields ``t0.label``, ``t0.processor.0.text`` and
    so on.
    """
    tiers = tuple(
        _tier(form, f"t{n}.", catalogue, n)
        for n in range(MOST_TIERS)
        if f"t{n}.label" in form and f"t{n}.drop" not in form
    )
    if not tiers:
        raise TierError("No tier is left: keep at least one.")
    day = form.get("published_on", "").strip()
    return Published(
        game=game_id,
        tiers=tiers,
        text=form.get("text", "").replace("\r\n", "\n")[:MOST_TEXT],
        source=form.get("source", "").strip()[:200],
        published_on=_day(day) if day else None,
    )


def _day(text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError as error:
        raise TierError(
            f"The date of publication is “{text}”: enter one such as 2027-03-01."
        ) from error


def _tier(form: Typed, prefix: str, catalogue: Catalogue, number: int) -> Tier:
    label = form.get(f"{prefix}label", "").strip()[:80]
    name = label or f"tier {number + 1}"
    width, height = _size(form.get(f"{prefix}size", ""), name)
    listed = {side: _listed(form, f"{prefix}{side}.", side, catalogue, name) for side in SIDES}
    return Tier(
        label=label,
        processors=listed["processor"],
        graphics=listed["graphics"],
        storage_kind=_choice(
            form.get(f"{prefix}storage_kind", ""), STORAGE_KINDS, f"The kind of storage of {name}"
        ),
        system=form.get(f"{prefix}system", "").strip()[:120],
        api=form.get(f"{prefix}api", "").strip()[:120],
        width_px=width,
        height_px=height,
        preset=_choice(form.get(f"{prefix}preset", ""), PRESETS, f"The preset of {name}"),
        upscaling=_flag(form.get(f"{prefix}upscaling", "")),
        ray_tracing=_flag(form.get(f"{prefix}ray_tracing", "")),
        generated=_flag(form.get(f"{prefix}generated", "")),
        notes=form.get(f"{prefix}notes", "").strip()[:600],
        **{
            field: _number(form.get(f"{prefix}{field}", ""), f"The {word} of {name}")
            for field, word in AMOUNTS.items()
        },
    )


def _flag(text: str) -> bool | None:
    return {"yes": True, "no": False}.get(text)


def _choice(text: str, allowed: tuple[str, ...], what: str) -> Any:
    if text and text not in allowed:
        raise TierError(f"{what} is “{text}”: choose one of {', '.join(allowed)}, or nothing.")
    return text or None


def _number(text: str, what: str, low: float = 0, high: float = 100_000) -> float | None:
    if not text.strip():
        return None
    value = finite(text)
    if value is None or not low < value <= high:
        raise TierError(
            f"{what} is “{text}”: enter a number above {low:g} and up to {high:,g}, or nothing."
        )
    return value


def _size(text: str, name: str) -> tuple[int | None, int | None]:
    if not text.strip():
        return None, None
    pieces = text.lower().replace("×", "x").split("x")
    sizes = [int(piece) for piece in pieces if piece.strip().isdecimal()]
    if len(pieces) != 2 or len(sizes) != 2 or not all(320 <= size <= 16_384 for size in sizes):
        raise TierError(
            f"The resolution of {name} is “{text}”: enter pixels as in 2560x1440, or nothing."
        )
    return sizes[0], sizes[1]


def _listed(
    form: Typed, prefix: str, side: Side, catalogue: Catalogue, name: str
) -> tuple[Listed, ...]:
    listeds = []
    for n in range(MOST_LISTED):
        text = form.get(f"{prefix}{n}.text", "").strip()[:200]
        if not text:
            continue
        other = form.get(f"{prefix}{n}.other", "").strip()
        part = (
            part_called(catalogue, other, side)
            if other
            else form.get(f"{prefix}{n}.part", "").strip() or None
        )
        standing = None if part is None else scale_of(catalogue).standing(part)
        if part is not None and (standing is None or standing.side != side):
            raise TierError(
                f"“{part}”, matched to “{text}” of {name}, is no {side} part of the catalogue:"
                " choose another match."
            )
        cores = _number(form.get(f"{prefix}{n}.cores", ""), f"The cores of “{text}”", 0, 512)
        listeds.append(
            Listed(
                text=text,
                part=part,
                memory_gb=_number(
                    form.get(f"{prefix}{n}.memory_gb", ""), f"The video memory of “{text}”"
                ),
                cores=None if cores is None else round(cores),
                clock_ghz=_number(
                    form.get(f"{prefix}{n}.clock_ghz", ""), f"The clock of “{text}”", 0, 20
                ),
                or_better=f"{prefix}{n}.or_better" in form,
                excluded=f"{prefix}{n}.excluded" in form,
            )
        )
    return tuple(listeds)


def _percent(text: str, name: str) -> float:
    value = finite(text)
    if value is None or not 0 <= value <= 900:
        raise TierError(
            f"How many per cent “{name}” differs is “{text}”: enter a number from 0 to 900, such"
            " as 12."
        )
    return value


def assumptions_from(form: Typed) -> Assumptions:
    """The table of assumptions from a form with fields such as ``minimum.size`` and
    ``minimum.least_fps``.
    """
    rows = {role: _assumed(form, role) for role in ROLES}
    uneven = _number(form.get("unevenness", ""), "How uneven lists are", 0, 50)
    return Assumptions(
        minimum=rows["minimum"],
        recommended=rows["recommended"],
        higher=rows["higher"],
        unevenness_sd=0.07 if uneven is None else uneven / 100,
    )


def _assumed(form: Typed, role: str) -> Assumed:
    values: dict[str, Any] = {}
    for prefix in ("", "least_", "most_"):
        width, height = _size(form.get(f"{role}.{prefix}size", ""), f"the {role} row")
        if width is None or height is None:
            raise TierError(
                f"A resolution of the {role} row is empty: enter pixels as in 1920x1080."
            )
        values |= {f"{prefix}width_px": width, f"{prefix}height_px": height}
        values[f"{prefix}preset"] = _choice(
            form.get(f"{role}.{prefix}preset", ""), PRESETS, f"A preset of the {role} row"
        )
        values[f"{prefix}fps"] = _number(
            form.get(f"{role}.{prefix}fps", ""), f"A frame rate of the {role} row", 0, 2000
        )
    if None in values.values():
        raise TierError(f"The {role} row lacks a preset or a frame rate: fill in all of it.")
    row = Assumed(**values)
    if row.least_fps > row.most_fps or _pixels(row, "least_") > _pixels(row, "most_"):
        raise TierError(f"A range of the {role} row ends before it begins: swap its ends.")
    if PRESETS.index(row.least_preset) > PRESETS.index(row.most_preset):
        raise TierError(f"The presets of the {role} row end before they begin: swap the ends.")
    return row


def _pixels(row: Assumed, prefix: str) -> int:
    return cast(int, getattr(row, f"{prefix}width_px") * getattr(row, f"{prefix}height_px"))
