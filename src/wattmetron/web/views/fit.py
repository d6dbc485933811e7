"""The Fit view: findings with pins, the scale drawing, power, and which rules were looked at."""

from collections.abc import Callable
from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.fit.drawing import Drawing, drawing
from wattmetron.core.fit.finding import LEVELS, Finding
from wattmetron.core.fit.told import TOLD, Told
from wattmetron.core.parts import KINDS, Kind
from wattmetron.services.assess import Assessment
from wattmetron.services.cures import Cure, cure
from wattmetron.services.words import KIND_WORDS, THIN, listed, money
from wattmetron.web.charts.case_drawing import Pin, case_drawing
from wattmetron.web.views.power import PowerView, power_view


@dataclass(frozen=True, slots=True)
class NumberedFinding:
    """A finding with its number in the drawing, the parts concerned, and actions (words, address)."""

    number: int
    finding: Finding
    parts: tuple[str, ...]
    remedies: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True)
class Group:
    """Findings under one heading."""

    title: str
    findings: tuple[NumberedFinding, ...]


@dataclass(frozen=True, slots=True)
class ClearanceRow:
    """One clearance in words."""

    what: str
    size: str
    room: str
    free: str
    clash: bool


@dataclass(frozen=True, slots=True)
class CureView:
    """The set of changes that clears all that blocks: a sentence, what replaces what, the address that tries it."""

    sentence: str
    changes: tuple[tuple[str, str, str], ...]
    url: str


@dataclass(frozen=True, slots=True)
class FitView:
    """What the Fit view shows; ``drawing`` is empty for an empty build."""

    groups: tuple[Group, ...]
    by: str
    cure: CureView | None
    drawing: Markup | None
    clearances: tuple[ClearanceRow, ...]
    assumed: bool
    power: PowerView | None
    rules: tuple[tuple[Told, bool], ...]
    headline: str


def fit_view(
    catalogue: Catalogue,
    now: Assessment,
    by: str,
    remedies: dict[Finding, tuple[tuple[str, str], ...]],
    trial: Callable[[Cure], str],
) -> FitView:
    """``remedies`` are the actions of each finding; ``trial`` gives the address that tries a cure."""
    numbered = tuple(
        NumberedFinding(n, one, tuple(_names(now, one.kinds)), remedies.get(one, ())) for n, one in enumerate(now.findings, start=1)
    )
    drawn = drawing(now.machine)
    found = cure(catalogue, now)
    spoken = {one.finding.rule for one in numbered}
    return FitView(
        _by_part(now, numbered) if by == "part" else _by_level(numbered),
        "part" if by == "part" else "level",
        None if found is None else _cure(catalogue, now, found, trial(found)),
        None if drawn is None else case_drawing(drawn, _pins(drawn, numbered), _label(drawn, now)),
        _clearances(drawn),
        drawn is not None and (drawn.outline_assumed or any(box.assumed for box in drawn.boxes)),
        power_view(catalogue, now),
        tuple((one, one.rule in spoken) for one in TOLD),
        _headline(now),
    )


def _names(now: Assessment, kinds: tuple[Kind, ...]) -> list[str]:
    return [part.name for kind in kinds for part in now.machine.of(kind)]


def _headline(now: Assessment) -> str:
    if now.build.empty:
        return "The build is empty: choose parts or propose a build."
    counts = [(level, sum(one.level == level for one in now.findings)) for level in LEVELS]
    said = [f"{count} {'blocks' if count == 1 and level == 'blocks' else 'block' if level == 'blocks' else level}" for level, count in counts if count]
    if not said:
        return "Everything that is chosen fits, and nothing else is to be said."
    verdict = "It does not fit" if now.blocking else "Everything that is chosen fits"
    return f"{verdict}: {listed(said)}."


def _by_level(numbered: tuple[NumberedFinding, ...]) -> tuple[Group, ...]:
    groups = [Group(level, tuple(one for one in numbered if one.finding.level == level)) for level in LEVELS]
    return tuple(group for group in groups if group.findings)


def _by_part(now: Assessment, numbered: tuple[NumberedFinding, ...]) -> tuple[Group, ...]:
    """Each finding under every part that it concerns."""
    groups = []
    for kind in KINDS:
        own = tuple(one for one in numbered if kind in one.finding.kinds)
        name = listed([part.name for part in now.machine.of(kind)])
        groups.append(Group(f"{KIND_WORDS[kind]}: {name}" if name else KIND_WORDS[kind], own))
    return tuple(group for group in groups if group.findings)


def _pins(drawn: Drawing, numbered: tuple[NumberedFinding, ...]) -> list[Pin]:
    """Each finding at its clearance, or at the first part concerned that is drawn."""
    clearances = {one.rule: one for one in drawn.clearances}
    pins = []
    for one in numbered:
        clearance = clearances.get(one.finding.rule)
        if clearance is not None:
            end = clearance.size_mm
            x, y = (clearance.x + end, clearance.y) if clearance.along == "x" else (clearance.x - 16, clearance.y + end)
            pins.append(Pin(one.number, clearance.view, x, y))
            continue
        place = next((found for kind in one.finding.kinds if (found := drawn.place_of(kind))), None)
        if place is not None:
            pins.append(Pin(one.number, *place))
    return pins


def _clearances(drawn: Drawing | None) -> tuple[ClearanceRow, ...]:
    if drawn is None:
        return ()
    return tuple(
        ClearanceRow(
            one.what,
            f"{one.size_mm}{THIN}mm",
            "not known" if one.room_mm is None else f"{one.room_mm}{THIN}mm",
            "not judged" if one.free_mm is None else f"{-one.free_mm}{THIN}mm too much" if one.clash else f"{one.free_mm}{THIN}mm free",
            one.clash,
        )
        for one in drawn.clearances
    )


def _label(drawn: Drawing, now: Assessment) -> str:
    clashes = [f"{one.what} {-(one.free_mm or 0)} mm too much" for one in drawn.clearances if one.clash]
    case = now.machine.case.name if now.machine.case else "no case chosen"
    return f"Scale drawing, {case}: {'; '.join(clashes) if clashes else 'no clash'}"


def _cure(catalogue: Catalogue, now: Assessment, found: Cure, url: str) -> CureView:
    changes = []
    for kind in found.changed:
        old = listed([catalogue.parts[one].name for one in now.build.of(kind) if one in catalogue.parts])
        new = listed([catalogue.parts[one].name for one in found.build.of(kind)]) or "none"
        changes.append((KIND_WORDS[kind], old or "nothing yet", new))
    cost = "at the same price" if not found.cost_minor else (
        f"for {money(abs(found.cost_minor), now.currency)} {'more' if found.cost_minor > 0 else 'less'}"
    )  # fmt: skip
    count = "One change clears" if len(changes) == 1 else f"{len(changes)} changes clear"
    what = "what blocks" if found.cleared == 1 else f"all {found.cleared} that block"
    kept = "" if {"processor", "graphics"} & set(found.changed) else "; processor and card stay"
    return CureView(f"{count} {what} {cost}{kept}.", tuple(changes), url)
