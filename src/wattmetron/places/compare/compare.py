"""Machines side by side: what each is in every respect, differences first."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.frames.chance import curves_of
from wattmetron.core.frames.estimate import Estimate
from wattmetron.core.frames.faster import Floats, chance_faster, scores
from wattmetron.core.frames.joint_chance import chance_of_all
from wattmetron.core.power.account import PowerAccount, account
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KIND_NAMES, KINDS
from wattmetron.core.values.trust import trust_of
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment, assess, known_build
from wattmetron.places.compatibility.growth import growth
from wattmetron.places.compatibility.power_use import use_of
from wattmetron.words.figures import THIN, money, money_change, percent

MOST_SIDES = 6


@dataclass(frozen=True, slots=True)
class ComparedMachine:
    """A machine to be compared, under the same brief as the others."""

    key: str
    name: str
    assessment: Assessment


@dataclass(frozen=True, slots=True)
class ComparisonLine:
    """What the machines are in one respect; ``same``: all alike."""

    title: str
    cells: tuple[str, ...]

    @property
    def same(self) -> bool:
        return len(set(self.cells)) == 1


@dataclass(frozen=True, slots=True, kw_only=True)
class Pace:
    """One target on all machines: rates with their 80 % intervals in fps (None: cannot run), the
    states, and the chance that each really is faster than the first.
    """

    game: str
    game_id: str
    wanted_fps: float
    rates: tuple[tuple[float, float, float] | None, ...]
    states: tuple[str, ...]
    limits: tuple[str, ...]
    faster: tuple[float | None, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Comparison:
    """All sides with their lines and paces."""

    sides: tuple[ComparedMachine, ...]
    paces: tuple[Pace, ...]
    lines: tuple[ComparisonLine, ...]


def compared(
    catalogue: Catalogue, brief: Brief, builds: Sequence[tuple[str, str, Build]]
) -> Comparison:
    """Builds (key, name, build) under one brief, the first one the base."""
    few = tuple(builds[:MOST_SIDES])
    return catalogue.ask(_compared, brief, few)


def _compared(
    catalogue: Catalogue, brief: Brief, builds: tuple[tuple[str, str, Build], ...]
) -> Comparison:
    sides = tuple(
        ComparedMachine(key, name, assess(catalogue, brief, known_build(catalogue, build)))
        for key, name, build in builds
    )
    return Comparison(
        sides=sides,
        paces=tuple(_paces(brief, sides, catalogue.keep.once(("scores",), scores))),
        lines=tuple(_lines(catalogue, sides)),
    )


def _paces(brief: Brief, sides: Sequence[ComparedMachine], draws: Floats) -> list[Pace]:
    paces = []
    for n, target in enumerate(brief.targets):
        runs = [side.assessment.estimates[n] for side in sides]
        known = next((run for run in runs if run is not None), None)
        if known is None:
            continue
        paces.append(
            Pace(
                game=known.game.name,
                game_id=target.game_id,
                wanted_fps=target.fps,
                rates=tuple(_rate(run) for run in runs),
                states=tuple("" if run is None or _idle(run) else run.state for run in runs),
                limits=tuple("" if _idle(run) or run is None else run.limit_words for run in runs),
                faster=tuple(_faster(sides, runs, index, draws) for index in range(len(runs))),
            )
        )
    return paces


def _idle(run: Estimate | None) -> bool:
    return run is None or bool(run.cannot) or not run.average_fps


def _rate(run: Estimate | None) -> tuple[float, float, float] | None:
    if run is None or _idle(run):
        return None
    return run.judged_fps, run.judged_low_fps, run.judged_high_fps


def _faster(
    sides: Sequence[ComparedMachine], runs: Sequence[Estimate | None], index: int, draws: Floats
) -> float | None:
    """The chance that a machine is faster than the first; None for the first itself."""
    base, estimate = runs[0], runs[index]
    if not index or base is None or estimate is None or _idle(base) or _idle(estimate):
        return None
    machines = (sides[index].assessment.machine, sides[0].assessment.machine)
    return chance_faster(estimate, base, machines, draws)


def _lines(catalogue: Catalogue, sides: Sequence[ComparedMachine]) -> list[ComparisonLine]:
    all_now = [side.assessment for side in sides]

    def line(title: str, of: Callable[[Assessment], str]) -> ComparisonLine:
        return ComparisonLine(title, tuple(of(now) for now in all_now))

    base = all_now[0]
    lines = [
        line("delivered", lambda now: money(now.spent_minor, now.currency)),
        line(
            "against the first",
            lambda now: money_change(now.spent_minor - base.spent_minor, now.currency),
        ),
        line("targets met", lambda now: f"{now.met} of {len(now.counted)}"),
        line("all at once", lambda now: _at_once(catalogue, now)),
        line("money per frame", _per_frame),
        *(line(KIND_NAMES[kind], partial(_names, kind=kind)) for kind in KINDS),
        line("what does not fit", lambda now: str(now.blocking) if now.blocking else "all fits"),
        line("below the brief", lambda now: str(len(now.floors)) if now.floors else "nothing"),
        line("video memory", _video_memory),
        line(
            "memory", lambda now: _gb(now.machine.memory.total_gb if now.machine.memory else None)
        ),
        line(
            "storage",
            lambda now: _gb(sum(drive.capacity_gb for drive in now.machine.storage) or None),
        ),
        line("with everything busy", lambda now: f"{now.draw.full_w:.0f}{THIN}W"),
        line("a year at the wall", partial(_year, catalogue)),
        line("noise in play", partial(_noise, catalogue)),
        line("size", _size),
        line("graphics later", lambda now: _later(catalogue, now)),
        line("shortest warranty", _warranty),
        line("doubtful parts", _doubtful),
        line("ray tracing", lambda now: _has(now, "ray_speed")),
        line("display plugs", _plugs),
    ]
    return [line for line in lines if any(cell not in ("", "–") for cell in line.cells)]


def _at_once(catalogue: Catalogue, now: Assessment) -> str:
    chip = now.machine.processor
    if chip is None or not now.counted:
        return "–"
    return percent(chance_of_all(now.counted, chip, curves_of(catalogue.keep)))


def _per_frame(now: Assessment) -> str:
    """Money for one frame a second, over the mean of the targets."""
    rates = [estimate.judged_fps for estimate in now.counted if estimate.judged_fps]
    if not rates or not now.spent_minor:
        return "–"
    mean = float(len(rates)) / sum(1 / rate for rate in rates)
    return money(round(now.spent_minor / mean), now.currency)


def _names(now: Assessment, kind: str) -> str:
    names = [line.part.name for line in now.lines if line.kind == kind and line.part]
    return listed(names) or "–"


def _gb(amount: float | None) -> str:
    return "–" if amount is None else f"{amount:,.0f}{THIN}GB"


def _video_memory(now: Assessment) -> str:
    card = now.machine.graphics
    if card is None:
        return "shared" if now.machine.processor else _gb(None)
    return _gb(card.memory_gb)


def _account(catalogue: Catalogue, now: Assessment) -> PowerAccount | None:
    machine = now.machine
    if machine.supply is None or not (machine.processor or machine.graphics):
        return None
    return account(machine, now.counted, use_of(catalogue, now))


def _year(catalogue: Catalogue, now: Assessment) -> str:
    power_account = _account(catalogue, now)
    return (
        "–"
        if power_account is None or power_account.year is None
        else f"{power_account.year.kwh:.0f}{THIN}kWh"
    )


def _noise(catalogue: Catalogue, now: Assessment) -> str:
    power_account = _account(catalogue, now)
    noise = None if power_account is None else power_account.noise_dba
    return "not known" if noise is None else f"about {noise:.0f}{THIN}dB(A)"


def _size(now: Assessment) -> str:
    return "–" if now.machine.case is None else f"{now.machine.case.volume_l:g}{THIN}l"


def _later(catalogue: Catalogue, now: Assessment) -> str:
    if now.missing:
        return "–"
    best = growth(catalogue, now).graphics
    if best is None:
        return "nothing stronger"
    faster = "" if best.faster is None else f", {best.faster * 100:.0f}{THIN}% faster"
    return f"up to {best.part.name}{faster}"


def _warranty(now: Assessment) -> str:
    years = [line.part.warranty_years for line in now.lines if line.part and not line.owned]
    known = [year for year in years if year is not None]
    if not known:
        return "not known"
    return f"{min(known):g} years{', some not known' if len(known) < len(years) else ''}"


def _doubtful(now: Assessment) -> str:
    names = [
        line.part.name
        for line in now.lines
        if line.part and not line.owned and trust_of(line.part) in ("doubtful", "unknown")
    ]
    return listed(names) or "none"


def _has(now: Assessment, field: str) -> str:
    card = now.machine.graphics
    if card is None:
        return "–"
    value = getattr(card, field)
    if value is None:
        return "not known"
    return "yes" if value else "no"


def _plugs(now: Assessment) -> str:
    card, board = now.machine.graphics, now.machine.mainboard
    if card:
        outputs = card.outputs
    elif board:
        outputs = board.outputs
    else:
        outputs = ()
    return ", ".join(outputs) or "–"
