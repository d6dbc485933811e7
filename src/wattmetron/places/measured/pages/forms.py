"""Forms about runs: what was measured, under which settings, and what becomes of it."""

from dataclasses import replace
from datetime import UTC, datetime

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.runs import SCENES, ByHand, Run
from wattmetron.places.measured.machines import OwnMachine, machine_keys, named_machine
from wattmetron.shell.forms import (
    Form,
    Number,
    Short20,
    Short40,
    Short80,
    Short200,
    Tick,
    finite,
    read_number,
    read_size,
)
from wattmetron.workshop.workshop import Workshop

LONGEST_RECORDING_S = 7200.0


class RunForm(Form):
    """A run as it is typed: on the build of a brief, or on a machine of its own with its name and
    parts; ``target`` is a target of the brief whose settings it has.
    """

    brief: Number = 0
    other: Tick = False
    machine: Short80 = ""
    chip: Short80 = ""
    card: Short80 = ""
    target: Short80 = ""
    game: Short80 = ""
    size: Short20 = ""
    preset: Short20 = ""
    ray_tracing: Tick = False
    upscaling: Tick = False
    generated: Tick = False
    scene: Short40 = "play"
    label: Short80 = ""
    setup: Short80 = ""
    source: Short80 = ""
    refresh: Short20 = ""
    meter: Short200 = ""
    seconds: Short20 = "60"
    scenario: Short40 = ""
    seed: Number = 1
    clock: Short20 = ""
    power: Short20 = ""


class HandForm(Form):
    """What was read off a screen or heard."""

    low: Short20 = ""
    high: Short20 = ""
    locked: Short20 = ""
    limits: Short20 = ""
    loading: Short20 = ""
    render: Short20 = ""
    noise: Short20 = ""
    heard: Short200 = ""


class RunChangeForm(Form):
    """A change of a run that is there."""

    version: Number = 0
    scene: Short40 = ""
    label: Short80 = ""
    setup: Short80 = ""
    from_s: Short20 = ""
    to_s: Short20 = ""
    muted: Tick = False
    what: Short20 = ""


def run_from(workshop: Workshop, catalogue: Catalogue, form: RunForm) -> Run:
    """The run that a form describes, on the machine of its brief; raises BriefError."""
    plan = workshop.open(form.brief).plan if form.brief else None
    measured = _machine(catalogue, plan, form)
    run = Run(
        game="",
        processor=measured.processor,
        graphics=measured.graphics,
        machine=measured.name,
        brief_id=form.brief,
        setup=form.setup,
        width_px=1920,
        height_px=1080,
        preset="high",
        generated=form.generated,
        refresh_hz=_refresh(form.refresh, plan),
        scene=form.scene if form.scene in SCENES else "play",
        label=form.label,
        measured_on=datetime.now(UTC).date(),
        source=form.source,
    )
    return _at_settings(catalogue, plan, run, form)


def _machine(catalogue: Catalogue, plan: Plan | None, form: RunForm) -> OwnMachine:
    if plan is None:
        return named_machine(catalogue, form.machine, form.chip, form.card)
    processor, graphics = machine_keys(catalogue, plan)
    if not processor or not graphics:
        raise BriefError(
            f"The build of “{plan.brief.name}” has no processor or no graphics: fill it first."
        )
    return OwnMachine(plan.brief.name, processor, graphics)


def _refresh(text: str, plan: Plan | None) -> float | None:
    if text.strip():
        hz = read_number(text, "The refresh of the display")
        if not 20 <= hz <= 1000:
            raise BriefError(f"A refresh of {hz:g} Hz is out of range: enter 20 to 1,000, or none.")
        return hz
    return plan.brief.display.refresh_hz if plan else None


def _at_settings(catalogue: Catalogue, plan: Plan | None, run: Run, form: RunForm) -> Run:
    targets = plan.brief.targets if plan else ()
    target = next((each_target for each_target in targets if each_target.id == form.target), None)
    if target is not None:
        return replace(
            run,
            game=target.game_id,
            width_px=target.width_px,
            height_px=target.height_px,
            preset=target.preset,
            ray_tracing=target.ray_tracing,
            upscaling=target.upscaling,
            scale=target.scale,
            lowered=target.lowered,
            generated=target.generated or run.generated,
        )
    game = form.game if form.game in catalogue.games else _game_called(catalogue, form.game)
    if form.preset not in PRESETS:
        raise BriefError(f"The preset is “{form.preset}”: choose one of {', '.join(PRESETS)}.")
    width, height = read_size(form.size, "The resolution")
    return replace(
        run,
        game=game,
        width_px=width,
        height_px=height,
        preset=form.preset,
        ray_tracing=form.ray_tracing,
        upscaling=form.upscaling,
    )


def _game_called(catalogue: Catalogue, name: str) -> str:
    wanted = name.casefold()
    part = next(
        (game.id for game in catalogue.games.values() if game.name.casefold() == wanted), None
    )
    if part is None:
        raise BriefError(f"There is no game “{name}”: choose one of the list under Games.")
    return part


def by_hand(form: HandForm) -> ByHand:
    """What was read by hand; raises BriefError for what cannot be."""
    low, high = _rate(form.low, "The least rate"), _rate(form.high, "The most")
    if low is not None and high is not None and low > high:
        raise BriefError(f"The least rate, {low:g} fps, is above the most, {high:g}: swap them.")
    by_hand = ByHand(
        low_fps=low,
        high_fps=high,
        locked_fps=_rate(form.locked, "The rate that it is locked at"),
        limits=form.limits if form.limits in ("processor", "graphics", "alternating") else "",  # type: ignore[arg-type]
        loading_s=_figure(form.loading, "The loading time", 3600),
        render_min=_figure(form.render, "The render time", 100_000),
        noise_dba=_figure(form.noise, "The noise", 120),
        heard=form.heard,
    )
    if by_hand == ByHand():
        raise BriefError("Nothing was noted: enter the least and the most rate that you saw.")
    return by_hand


def _rate(text: str, what: str) -> float | None:
    value = _figure(text, what, 5000)
    if value is not None and value < 1:
        raise BriefError(f"{what} is {value:g} fps: enter 1 or more.")
    return value


def _figure(text: str, what: str, most: float) -> float | None:
    if not text.strip():
        return None
    value = finite(text)
    if value is None or not 0 <= value <= most:
        raise BriefError(f"{what} is “{text}”: enter a number from 0 to {most:,g}.")
    return value


def seconds_from(text: str) -> float:
    value = read_number(text, "The length")
    if not 3 <= value <= LONGEST_RECORDING_S:
        raise BriefError(
            f"A length of {value:g} s is out of range: enter 3 to {LONGEST_RECORDING_S:,.0f}."
        )
    return value


def changed(run: Run, form: RunChangeForm) -> Run:
    """The run with what the form says anew; raises BriefError."""
    start = _figure(form.from_s, "The start of what is kept", 100_000) or 0.0
    end = _figure(form.to_s, "The end of what is kept", 100_000)
    if end is not None and end - start < 3:
        raise BriefError(f"From {start:g} to {end:g} s is too short: keep at least 3 s.")
    return replace(
        run,
        scene=form.scene if form.scene in SCENES else run.scene,
        label=form.label,
        setup=form.setup,
        from_s=start,
        to_s=end,
    )
