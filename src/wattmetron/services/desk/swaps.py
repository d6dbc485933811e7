"""Candidates for a place in a build: the neighbours in price, with what each would change."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import UnknownGameError
from wattmetron.core.fit.finding import Finding
from wattmetron.core.fit.rules import check
from wattmetron.core.fit.waste import weighed
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import State
from wattmetron.core.frames.glance import glance
from wattmetron.core.frames.lineup import Lineup
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.values.build import Build
from wattmetron.core.values.further_parts import (
    Fan,
    InputDevice,
    OperatingSystem,
    OpticalDrive,
    Screen,
    WirelessAdapter,
)
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.offers import Offer
from wattmetron.core.values.parts import (
    KINDS,
    Case,
    Cooler,
    Graphics,
    Kind,
    Mainboard,
    Memory,
    Part,
    PowerSupply,
    Processor,
    Storage,
)
from wattmetron.core.workloads.fit import fitted_game
from wattmetron.services.desk.assess import (
    Assessment,
    floors_missed,
    known_build,
    not_allowed,
    whole_wishes,
)

NEIGHBOURS = 5


@dataclass(frozen=True, slots=True)
class Effect:
    """What a candidate does to one target; ``state`` is None while there is nothing that draws."""

    fps: float | None
    interval_fps: tuple[float, float] | None
    change_fps: float | None
    state: State | None


@dataclass(frozen=True, slots=True)
class Candidate:
    """A part that could stand in a place, with the build that it makes."""

    part: Part
    offer: Offer | None
    stale: bool
    owned: bool
    present: bool
    build: Build
    change_minor: int | None
    effects: tuple[Effect, ...]
    findings: tuple[Finding, ...]
    floors: tuple[str, ...]
    missing: bool

    @property
    def cost_minor(self) -> int | None:
        return 0 if self.owned else (None if self.offer is None else self.offer.delivered_minor)


@dataclass(frozen=True, slots=True)
class Swap:
    """Candidates around the present part, cheapest first, and how many more there are."""

    kind: Kind
    present: str | None
    candidates: tuple[Candidate, ...]
    cheaper_hidden: int
    dearer_hidden: int
    unfit_hidden: int


def swap(
    catalogue: Catalogue,
    now: Assessment,
    kind: Kind,
    present: str | None,
    everything: bool = False,
    search: str = "",
    with_unfit: bool = False,
    also: str | None = None,
) -> Swap:
    """Five cheaper and five dearer parts that fit first; ``everything`` lists all, ``search`` by
    name.

    ``also`` is listed in any case: the part that is being tried.
    """
    brief = now.brief
    book, wishes = catalogue.prices(brief.region, brief.allow_used), whole_wishes(catalogue, brief)
    words = search.lower().split()
    priced = []
    unfit = 0
    for part in catalogue.by_kind[kind]:
        owned = part.id in brief.owned
        offer = book.best(part.id)
        cost = 0 if owned else (None if offer is None else offer.delivered_minor)
        if part.id != present and (
            cost is None or not all(word in part.name.lower() for word in words)
        ):
            continue
        build = now.build if part.id == present else now.build.with_part(kind, part.id, present)
        machine = machine_of(catalogue, known_build(catalogue, build), brief.clocks)
        findings = weighed(check(machine, wishes), machine, catalogue, book)
        floors = _floors(catalogue, now, kind, machine)
        if not owned and kind in KINDS:
            floors = (*floors, *not_allowed(brief, part, cost or 0, book.currency, now.stays))
        unfitting = bool(floors) or any(
            one.level == "blocks" and kind in one.kinds for one in findings
        )
        if unfitting and part.id not in (present, also) and not with_unfit and not words:
            unfit += 1
            continue
        priced.append(
            (-1 if cost is None else cost, part.id, part, build, machine, findings, floors)
        )
    priced.sort(key=lambda one: (one[0], one[1]))
    shown, cheaper, dearer = _around(priced, present, everything or bool(words), also)
    effects = _effects(catalogue, now, [one[4] for one in shown])
    base = next((one[0] for one in priced if one[1] == present), 0)
    candidates = tuple(
        Candidate(
            part,
            book.best(part.id),
            (offer := book.best(part.id)) is not None and book.is_stale(offer),
            part.id in brief.owned,
            part.id == present,
            build,
            None if cost < 0 else cost - max(base, 0),
            tuple(per_target[i] for per_target in effects),
            findings,
            floors,
            bool(machine.missing()),
        )
        for i, (cost, _, part, build, machine, findings, floors) in enumerate(shown)
    )
    return Swap(kind, present, candidates, cheaper, dearer, unfit)


Row = tuple[int, str, Part, Build, Machine, tuple[Finding, ...], tuple[str, ...]]


def _floors(catalogue: Catalogue, now: Assessment, kind: Kind, machine: Machine) -> tuple[str, ...]:
    """Floors of the brief that a memory kit or drive would miss."""
    if kind not in ("memory", "storage"):
        return ()
    bare = replace(machine, memory=machine.memory if kind == "memory" else None)
    return tuple(
        floors_missed(
            catalogue,
            now.brief,
            replace(bare, storage=machine.storage if kind == "storage" else ()),
        )
    )


def _around(
    priced: list[Row], present: str | None, everything: bool, also: str | None
) -> tuple[list[Row], int, int]:
    if everything:
        return priced, 0, 0
    at = next((i for i, one in enumerate(priced) if one[1] == present), None)
    first, last = 0, min(len(priced), 2 * NEIGHBOURS)
    if at is not None:
        first, last = max(0, at - NEIGHBOURS), min(len(priced), at + NEIGHBOURS + 1)
    extra = [i for i, one in enumerate(priced) if one[1] == also and not first <= i < last]
    picks = sorted([*range(first, last), *extra])
    cheaper = first - sum(i < first for i in extra)
    return [priced[i] for i in picks], cheaper, len(priced) - len(picks) - cheaper


def _effects(catalogue: Catalogue, now: Assessment, machines: list[Machine]) -> list[list[Effect]]:
    """Per target, the effect of each machine."""
    found, lineup = [], Lineup(machines)
    for target, before in zip(now.brief.targets, now.estimates, strict=True):
        try:
            game = fitted_game(catalogue, target.game_id)
        except UnknownGameError:
            found.append([Effect(None, None, None, "short") for _ in machines])
            continue
        seen = glance(lineup, game, target, now.brief, curves_of(catalogue.keep))
        base = before.judged_fps if before is not None and before.judged_fps else None
        found.append(
            [
                Effect(
                    float(fps) if fps == fps else None,
                    (float(least), float(most)) if fps == fps else None,
                    float(fps) - base if base is not None and fps == fps else None,
                    state if machine.can_draw else None,
                )
                for fps, least, most, state, machine in zip(
                    seen.fps.tolist(),
                    seen.low_fps.tolist(),
                    seen.high_fps.tolist(),
                    seen.states,
                    machines,
                    strict=True,
                )
            ]
        )
    return found


def traits(part: Part) -> tuple[str, str]:
    """In two short pieces: the speed that matters for its kind, and the sizes and connectors that
    matter.
    """
    match part:
        case Processor():
            igpu = "" if part.igpu_speed is None else f", integrated {_points(part.igpu_speed)}"
            boxed = "" if part.boxed_cooler_w is None else f", boxed {part.boxed_cooler_w} W"
            return (
                f"S {_points(part.single_speed)}, T {_points(part.all_core_speed)}",
                f"{part.socket}, {part.cores} cores, {part.sustained_w} W{igpu}{boxed}",
            )
        case Graphics():
            ray = "" if part.ray_speed is None else f", Q {_points(part.ray_speed)}"
            plugs = [
                f"{n} x {word}"
                for n, word in ((part.pcie_8pin, "8\u2011pin"), (part.pcie_16pin, "16\u2011pin"))
                if n
            ]
            return (
                f"R {_points(part.speed_1080p)}{ray}, {part.memory_gb:g} GB",
                f"{part.board_power_w} W, {part.length_mm} mm, {' + '.join(plugs) or 'no plug'}",
            )
        case Mainboard():
            return (
                f"{part.memory_type}-{part.memory_max_mts}, PCIe {part.card_pcie_gen}",
                (
                    f"{part.socket}, {part.form_factor}, {part.memory_slots} slots,"
                    f" {part.m2_slots} M.2"
                ),
            )
        case Memory():
            return (
                f"{part.memory_type}-{part.mts} CL{part.cl}",
                f"{part.sticks} x {part.stick_gb:g} GB",
            )
        case Storage():
            return f"{part.capacity_gb:,} GB", f"{part.interface}, {part.read_mbs:,} MB/s"
        case Cooler():
            noise = "" if part.noise_dba is None else f", {part.noise_dba:g} dB(A)"
            return f"{part.capacity_w} W", f"{part.height_mm} mm{noise}"
        case PowerSupply():
            return (
                f"{part.watts} W, spikes {part.spike_w} W",
                (
                    f"{part.form}, {part.pcie_8pin} x 8\u2011pin, {part.pcie_16pin} x 16\u2011pin,"
                    f" {part.efficiency or 'no level'}"
                ),
            )
        case Case():
            return (
                f"card {part.card_length_mm} mm, cooler {part.cooler_height_mm} mm",
                (
                    f"{', '.join(part.board_forms)}; {part.volume_l:g} l, {part.airflow},"
                    f" {part.fans_included} fans"
                ),
            )
        case Fan():
            return (
                f"{part.pack} x {part.size_mm} mm",
                "" if part.noise_dba is None else f"{part.noise_dba:g} dB(A)",
            )
        case WirelessAdapter():
            return part.standard, part.via
        case OpticalDrive():
            return part.via, "writes" if part.writes else "reads"
        case OperatingSystem():
            return part.family, ", ".join(part.apis)
        case Screen():
            return (
                f"{part.width_px}x{part.height_px}, {part.refresh_hz:g} Hz",
                f"{part.diagonal_inch:g} inch",
            )
        case InputDevice():
            return part.what, "cordless" if part.cordless else "with a cable"
    return "", ""


def _points(speed: float) -> str:
    """A speed to a tenth of a point."""
    return f"{round(speed, 1):g}"
