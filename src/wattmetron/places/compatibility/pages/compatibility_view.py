"""The Fit view: findings with pins, the scale drawing, power, and which rules were looked at."""

from collections.abc import Callable
from dataclasses import dataclass

from markupsafe import Markup

from wattmetron.cache.glimpse import WHOLE, Glimpse
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.drawing_to_scale import Clearance, Drawing
from wattmetron.core.compatibility.finding import LEVELS, Finding, Told
from wattmetron.core.compatibility.rules import TOLD
from wattmetron.core.compatibility.scale_drawing import drawing
from wattmetron.core.power.tuning import CHANGES
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.words import counted, listed
from wattmetron.drawing.case_drawing import Pin, case_drawing
from wattmetron.places.assessment.assess import Assessment, concerned
from wattmetron.places.assessment.pages.view_spec import ViewContext, ViewSpec
from wattmetron.places.compatibility.cures import Cure, cure
from wattmetron.places.compatibility.growth import growth
from wattmetron.places.compatibility.pages.power import PowerView, power_view
from wattmetron.places.compatibility.tuning_advice import Tuned, ways_to_tune
from wattmetron.shell.address import trial_of
from wattmetron.words.figures import KIND_WORDS, THIN, money, money_change, percent

STILL_LOOKED_FOR = [
    ("Graphics later", "What goes in is being looked for.", ""),
    ("Processor later", "What goes in is being looked for.", ""),
]


@dataclass(frozen=True, slots=True)
class NumberedFinding:
    """A finding with its number in the drawing, actions (words, address), and the ids of the parts
    concerned.
    """

    number: int
    finding: Finding
    remedies: tuple[tuple[str, str], ...]
    concerned: str


@dataclass(frozen=True, slots=True)
class FindingGroup:
    """Findings under one heading."""

    title: str
    findings: tuple[NumberedFinding, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class ClearanceRow:
    """One clearance in words."""

    what: str
    size: str
    room: str
    free: str
    clash: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class TunedRow:
    """A way of setting clocks: change in frames, watts, targets met, what stands in the way."""

    way: str
    frames: str
    watts: str
    met: str
    obstacles: str


@dataclass(frozen=True, slots=True)
class CureView:
    """The set of changes that clears all that blocks: a sentence, what replaces what, what it
    brings along, the address that tries it.
    """

    sentence: str
    changes: tuple[tuple[str, str, str], ...]
    brings: tuple[str, ...]
    url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class FitView:
    """What the Fit view shows; ``drawing`` is empty for an empty build."""

    groups: tuple[FindingGroup, ...]
    by: str
    cure: CureView | None
    cure_is_looked_for: bool
    drawing: Markup | None
    clearances: tuple[ClearanceRow, ...]
    assumed: bool
    power: PowerView | None
    rules: tuple[tuple[Told, bool], ...]
    headline: str
    aside: tuple[tuple[Finding, str, str], ...]
    growth: tuple[tuple[str, str, str], ...]
    tuned: tuple[TunedRow, ...]


def fit_view(
    catalogue: Catalogue,
    now: Assessment,
    by: str,
    remedies: dict[Finding, tuple[tuple[str, str], ...]],
    trial: Callable[[Cure], str],
    part_trial: Callable[[Kind, str], str],
    glimpse: Glimpse = WHOLE,
) -> FitView:
    """``remedies`` are the actions of each finding; ``trial`` and ``part_trial`` give the address
    that tries a cure or a part. What clears all that blocks may still be looked for.
    """
    numbered = tuple(
        NumberedFinding(
            n, finding, remedies.get(finding, ()), " ".join(concerned(now.machine, finding))
        )
        for n, finding in enumerate(now.findings, start=1)
    )
    drawn = drawing(now.machine)
    left_out = glimpse.left_out
    clearing = glimpse.part(lambda: cure(catalogue, now), None)
    spoken = {finding.finding.rule for finding in numbered}
    return FitView(
        groups=_by_part(now, numbered) if by == "part" else _by_level(numbered),
        by="part" if by == "part" else "level",
        cure=None if clearing is None else _cure(catalogue, now, clearing, trial(clearing)),
        cure_is_looked_for=glimpse.left_out > left_out,
        drawing=None
        if drawn is None
        else case_drawing(drawn, _pins(drawn, numbered), _label(drawn, now)),
        clearances=_clearances(drawn),
        assumed=drawn is not None
        and (drawn.outline_assumed or any(box.assumed for box in drawn.boxes)),
        power=power_view(catalogue, now),
        rules=tuple((rule_text, rule_text.name in spoken) for rule_text in TOLD),
        headline=_headline(now),
        aside=tuple(
            (finding, reason, " ".join(concerned(now.machine, finding)))
            for finding, reason in now.aside
        ),
        growth=tuple(glimpse.part(lambda: _growth(catalogue, now, part_trial), STILL_LOOKED_FOR)),
        tuned=tuple(_tuned(way, now) for way in ways_to_tune(catalogue, now)),
    )


def _headline(now: Assessment) -> str:
    if now.build.empty:
        return "The build is empty: choose parts or propose a build."
    counts = [(level, sum(finding.level == level for finding in now.findings)) for level in LEVELS]
    sentences = [
        f"{count} {'block' if level == 'blocks' and count > 1 else level}"
        for level, count in counts
        if count
    ]
    if not sentences:
        return "Everything that is chosen fits, and there is nothing else to note."
    verdict = "It does not fit" if now.blocking else "Everything that is chosen fits"
    return f"{verdict}: {listed(sentences)}."


def _by_level(numbered: tuple[NumberedFinding, ...]) -> tuple[FindingGroup, ...]:
    groups = [
        FindingGroup(
            level, tuple(finding for finding in numbered if finding.finding.level == level)
        )
        for level in LEVELS
    ]
    return tuple(group for group in groups if group.findings)


def _by_part(now: Assessment, numbered: tuple[NumberedFinding, ...]) -> tuple[FindingGroup, ...]:
    """Each finding under every part that it concerns."""
    groups = []
    for kind in ALL_KINDS:
        numbered_findings = tuple(finding for finding in numbered if kind in finding.finding.kinds)
        name = listed([part.name for part in now.machine.of(kind)])
        groups.append(
            FindingGroup(
                f"{KIND_WORDS[kind]}: {name}" if name else KIND_WORDS[kind], numbered_findings
            )
        )
    return tuple(group for group in groups if group.findings)


def _pins(drawn: Drawing, numbered: tuple[NumberedFinding, ...]) -> list[Pin]:
    """Each finding at its clearance, or at the first part concerned that is drawn."""
    clearances = {each_clearance.rule: each_clearance for each_clearance in drawn.clearances}
    pins = []
    for finding in numbered:
        clearance = clearances.get(finding.finding.rule)
        if clearance is not None:
            end = clearance.size_mm
            x, y = (
                (clearance.x + end, clearance.y)
                if clearance.along == "x"
                else (clearance.x - 16, clearance.y + end)
            )
            pins.append(Pin(finding.number, clearance.view, x, y))
            continue
        index = next(
            (spot for kind in finding.finding.kinds if (spot := drawn.place_of(kind))), None
        )
        if index is not None:
            pins.append(Pin(finding.number, *index))
    return pins


def _free(clearance: Clearance) -> str:
    if clearance.free_mm is None:
        return "not judged"
    if clearance.clash:
        return f"{-clearance.free_mm}{THIN}mm too much"
    return f"{clearance.free_mm}{THIN}mm free"


def _clearances(drawn: Drawing | None) -> tuple[ClearanceRow, ...]:
    if drawn is None:
        return ()
    return tuple(
        ClearanceRow(
            what=clearance.what,
            size=f"{clearance.size_mm}{THIN}mm",
            room="not known" if clearance.room_mm is None else f"{clearance.room_mm}{THIN}mm",
            free=_free(clearance),
            clash=clearance.clash,
        )
        for clearance in drawn.clearances
    )


def _growth(
    catalogue: Catalogue, now: Assessment, trial: Callable[[Kind, str], str]
) -> list[tuple[str, str, str]]:
    """A heading, a sentence, and the address that tries the part where there is one."""
    if now.build.empty:
        return []
    growing = growth(catalogue, now)
    rows = []
    for title, kind, stronger in (
        ("Graphics later", "graphics", growing.graphics),
        ("Processor later", "processor", growing.processor),
    ):
        if stronger is None:
            word = KIND_WORDS[kind]  # type: ignore[index]
            rows.append(
                (
                    title,
                    (
                        f"Nothing stronger goes in as it stands: a better {word} needs other parts"
                        " too."
                    ),
                    "",
                )
            )
            continue
        more = "" if stronger.faster is None else f", {percent(stronger.faster)} faster"
        price = (
            "sold nowhere today"
            if stronger.delivered_minor is None
            else f"today {money(stronger.delivered_minor, now.currency)}"
        )
        first = f" {stronger.first}" if stronger.first else ""
        rows.append(
            (
                title,
                f"Up to {stronger.part.name}{more}, {price}, with nothing else replaced.{first}",
                trial(stronger.kind, stronger.part.id),
            )
        )
    if growing.memory_slots is not None and growing.memory_gb is not None:
        free = growing.memory_slots
        slots = counted(free, "memory slot") if free > 0 else "no memory slot"
        rows.append(
            (
                "Memory",
                f"{slots[:1].upper()}{slots[1:]} free; at most {growing.memory_gb:g}{THIN}GB.",
                "",
            )
        )
    if growing.m2_slots is not None and growing.sata_ports is not None:
        rows.append(
            (
                "Drives",
                f"{max(0, growing.m2_slots)} M.2 and {max(0, growing.sata_ports)} SATA free.",
                "",
            )
        )
    return rows


def _tuned(tuned: Tuned, now: Assessment) -> TunedRow:
    ends = [f"{round(100 * end):+d}".replace("-", "−") for end in (tuned.least, tuned.most)]
    frames = f"{ends[0]}{THIN}%" if ends[0] == ends[1] else f"{ends[0]} to {ends[1]}{THIN}%"
    spread = 100 * 1.28 * CHANGES[tuned.way].gain_sd
    watts = f"{tuned.watts:+d}{THIN}W".replace("-", "−")
    return TunedRow(
        way=tuned.way,
        frames=f"{frames}, the gain itself within {spread:.1f}",
        watts=watts,
        met=f"{tuned.met} of {len(now.counted)}",
        obstacles="; ".join(tuned.obstacles),
    )


def _label(drawn: Drawing, now: Assessment) -> str:
    clashes = [
        f"{clearance.what} {-(clearance.free_mm or 0)} mm too much"
        for clearance in drawn.clearances
        if clearance.clash
    ]
    case = now.machine.case.name if now.machine.case else "no case chosen"
    return f"Scale drawing, {case}: {'; '.join(clashes) if clashes else 'no clash'}"


def _cure(catalogue: Catalogue, now: Assessment, cure: Cure, url: str) -> CureView:
    changes = []
    for kind in cure.changed:
        old = listed(
            [catalogue.parts[text].name for text in now.build.of(kind) if text in catalogue.parts]
        )
        new = listed([catalogue.parts[text].name for text in cure.build.of(kind)]) or "none"
        changes.append((KIND_WORDS[kind], old or "nothing yet", new))
    cost = f"for {money_change(cure.cost_minor, now.currency)}"
    count = "One change clears" if len(changes) == 1 else f"{len(changes)} changes clear"
    what = "what blocks" if cure.cleared == 1 else f"all {cure.cleared} that block"
    staying = "" if {"processor", "graphics"} & set(cure.changed) else "; processor and card stay"
    return CureView(f"{count} {what} {cost}{staying}.", tuple(changes), cure.brings, url)


def _content(context: ViewContext) -> FitView:
    """Of what is in the build or being tried."""
    build = context.opened.plan.build
    return fit_view(
        context.catalogue,
        context.shown,
        context.query.by or "level",
        {row.finding: row.remedies for row in context.findings},
        lambda cure: context.trial(cure.build),
        lambda kind, part_id: context.link(tried=trial_of(build, kind, part_id)),
        context.glimpse,
    )


FIT = ViewSpec(
    name="fit",
    title="Fit",
    key="3",
    template="places/compatibility/pages/fit.html",
    make=_content,
)
