"""Tiers from what people type: read, checked, and summed up in one sentence."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import date
from typing import Any, cast

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError
from wattmetron.core.requirements.reading.reader import reader_of
from wattmetron.core.speeds.scale import key_of, scale_of
from wattmetron.core.values import amounts
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.published import (
    ROLES,
    SIDES,
    STORAGE_KINDS,
    Assumed,
    Assumptions,
    Listed,
    NamedPart,
    Published,
    Side,
    Tier,
)

Form = Mapping[str, str]
MOST_TIERS, MOST_LISTED = 12, 40
AMOUNTS = {
    "memory_gb": "memory",
    "video_memory_gb": "video memory",
    "storage_gb": "storage",
    "fps": "frame rate",
}
SURE_MATCH = 0.9


class TierError(InvalidError):
    """Tiers that cannot be stored as typed; the message says which entry and what to do."""


def published_from(form: Form, game_id: str, catalogue: Catalogue) -> Published:
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
        text=form.get("text", "").replace("\r\n", "\n")[:20_000],
        source=form.get("source", "").strip()[:200],
        published_on=_day(day) if day else None,
    )


def _day(text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError as error:
        raise TierError(
            f"The date of publication is “{text}”: enter one such as 2026-03-14."
        ) from error


def _tier(form: Form, at: str, catalogue: Catalogue, number: int) -> Tier:
    label = form.get(f"{at}label", "").strip()[:80]
    name = label or f"tier {number + 1}"
    width, height = _size(form.get(f"{at}size", ""), name)
    listed = {side: _listed(form, f"{at}{side}.", side, catalogue, name) for side in SIDES}
    return Tier(
        label=label,
        processors=listed["processor"],
        graphics=listed["graphics"],
        storage_kind=_choice(
            form.get(f"{at}storage_kind", ""), STORAGE_KINDS, f"The kind of storage of {name}"
        ),
        system=form.get(f"{at}system", "").strip()[:120],
        api=form.get(f"{at}api", "").strip()[:120],
        width_px=width,
        height_px=height,
        preset=_choice(form.get(f"{at}preset", ""), PRESETS, f"The preset of {name}"),
        upscaling=_flag(form.get(f"{at}upscaling", "")),
        ray_tracing=_flag(form.get(f"{at}ray_tracing", "")),
        notes=form.get(f"{at}notes", "").strip()[:600],
        **{
            field: _number(form.get(f"{at}{field}", ""), f"The {word} of {name}")
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
    cleaned = text.strip().replace(",", ".")
    if not cleaned:
        return None
    try:
        value = float(cleaned)
    except ValueError:
        value = float("nan")
    if not low < value <= high:
        raise TierError(
            f"{what} is “{text}”: enter a number above {low:g} and up to {high:,g}, or nothing."
        )
    return value


def _size(text: str, name: str) -> tuple[int | None, int | None]:
    if not text.strip():
        return None, None
    pieces = text.lower().replace("×", "x").split("x")
    sizes = [int(one) for one in pieces if one.strip().isdecimal()]
    if len(pieces) != 2 or len(sizes) != 2 or not all(320 <= one <= 16_384 for one in sizes):
        raise TierError(
            f"The resolution of {name} is “{text}”: enter pixels as in 2560x1440, or nothing."
        )
    return sizes[0], sizes[1]


def _listed(form: Form, at: str, side: Side, catalogue: Catalogue, name: str) -> tuple[Listed, ...]:
    found = []
    for n in range(MOST_LISTED):
        text = form.get(f"{at}{n}.text", "").strip()[:200]
        if not text:
            continue
        other = form.get(f"{at}{n}.other", "").strip()
        part = (
            part_called(catalogue, other, side)
            if other
            else form.get(f"{at}{n}.part", "").strip() or None
        )
        if part is not None and scale_of(catalogue).one(part) is None:
            raise TierError(
                f"“{part}”, matched to “{text}” of {name}, is no part of the catalogue: choose"
                " another match."
            )
        cores = _number(form.get(f"{at}{n}.cores", ""), f"The cores of “{text}”", 0, 512)
        found.append(
            Listed(
                text=text,
                part=part,
                memory_gb=_number(
                    form.get(f"{at}{n}.memory_gb", ""), f"The video memory of “{text}”"
                ),
                cores=None if cores is None else round(cores),
                clock_ghz=_number(
                    form.get(f"{at}{n}.clock_ghz", ""), f"The clock of “{text}”", 0, 20
                ),
                or_better=f"{at}{n}.or_better" in form,
                excluded=f"{at}{n}.excluded" in form,
            )
        )
    return tuple(found)


def part_called(catalogue: Catalogue, text: str, side: Side) -> str:
    """The one part on the scale that a typed name means, with its amount of video memory where that
    is said; raises TierError with what it could be.
    """
    if scale_of(catalogue).one(text) is not None:
        return text
    amount = amounts.AMOUNT.search(text) if side == "graphics" else None
    matches = reader_of(catalogue).names.parts.match(
        amounts.AMOUNT.sub(" ", text) if amount else text, side
    )
    if matches and matches[0].confidence >= SURE_MATCH:
        meant = (
            scale_of(catalogue).meant(matches[0].part, amounts.gigabytes(amount), None)
            if amount
            else ()
        )
        return meant[0].key if len(meant) == 1 else matches[0].part
    likely = ", ".join(one.name for one in matches[:3])
    raise TierError(
        f"“{text}” could be {likely}: type the name in full."
        if likely
        else f"No {side} part is called “{text}”: check the name."
    )


def excluded_from_bar(
    published: Published, tier: int, side: Side, place: int, excluded: bool
) -> Published:
    """The requirements with one listed part left out of its tier's bar, or taken in again."""
    return _with_listed(published, tier, side, place, lambda one: replace(one, excluded=excluded))


def _with_listed(published: Published, tier: int, side: Side, place: int, change: Any) -> Published:
    try:
        old = published.tiers[tier]
        listed = list(old.listed(side))
        listed[place] = change(listed[place])
    except IndexError as error:
        raise TierError("That entry is no longer in the list: look at what it says now.") from error
    name = "processors" if side == "processor" else "graphics"
    tiers = [*published.tiers]
    tiers[tier] = replace(old, **{name: tuple(listed)})  # type: ignore[arg-type]
    return replace(published, tiers=tuple(tiers))


def placed(
    published: Published, tier: int, side: Side, place: int, form: Form, catalogue: Catalogue
) -> tuple[Published, NamedPart]:
    """A named part placed by one comparison, wherever the game's list names it."""
    try:
        entry = published.tiers[tier].listed(side)[place]
    except IndexError as error:
        raise TierError("That entry is no longer in the list: look at what it says now.") from error
    percent = _percent(form.get("percent", ""), entry.text)
    sign = -1 if form.get("direction") == "below" else 1
    base = part_called(catalogue, form.get("than", "").strip(), side)
    standing = scale_of(catalogue).one(base)
    assert standing is not None
    part_id = key_of("named", side, entry.text)
    if standing.key == part_id:
        raise TierError(f"“{entry.text}” cannot be compared with itself: name another part.")
    named = NamedPart(
        id=part_id,
        side=side,
        name=entry.text,
        than=standing.key,
        percent=sign * percent,
        memory_gb=entry.memory_gb,
    )
    done = published
    for n, one in enumerate(published.tiers):
        for m, other in enumerate(one.listed(side)):
            if other.part is None and other.text.casefold() == entry.text.casefold():
                done = _with_listed(done, n, side, m, lambda old: replace(old, part=part_id))
    return done, named


def _percent(text: str, name: str) -> float:
    cleaned = text.strip().replace(",", ".").rstrip("% ")
    try:
        value = float(cleaned)
    except ValueError:
        value = float("nan")
    if not 0 <= value <= 900:
        raise TierError(
            f"How many per cent “{name}” differs is “{text}”: enter a number from 0 to 900, such"
            " as 12."
        )
    return min(value, 900.0)


def assumptions_from(form: Form) -> Assumptions:
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


def _assumed(form: Form, role: str) -> Assumed:
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
