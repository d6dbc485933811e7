"""Memory as it is set on a machine: its rate and latency written back as the machine's own."""

import re
from dataclasses import replace
from datetime import date

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import InvalidError
from wattmetron.core.frames.memory_class import MemoryClass, memory_class
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.values.build import OwnTuning
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.runs import Run
from wattmetron.places.measured.run_library import as_run, estimate_of

SAID = re.compile(
    r"(?<!\d)(\d{3,5})\s*(?:mt/?s|mhz)?[\s,/-]*(?:at\s+)?c(?:l|as)?\s*-?\s*(\d{1,3})(?!\d)", re.I
)
MTS = (200, 20_000)
LATENCY_NS = (4.0, 40.0)


def memory_said(text: str) -> tuple[int, int] | None:
    """Rate in MT/s and latency in cycles that a setup names, such as ``memory 6400 CL32``."""
    match = SAID.search(text)
    return (int(match[1]), int(match[2])) if match else None


def memory_as_set(
    catalogue: Catalogue, plan: Plan, mts: int, cl: int, setup: str, today: date
) -> tuple[OwnTuning, ...]:
    """The kits of a build as they are set, all of them alike; without a word on how the setup names
    rate and latency, so that runs can name it. Raises InvalidError for what no kit runs at.
    """
    build = plan.build
    if not build.memory:
        raise InvalidError("The build has no memory: put a kit in first.")
    if not MTS[0] <= mts <= MTS[1]:
        raise InvalidError(
            f"A rate of {mts:,} MT/s is out of range: enter {MTS[0]} to {MTS[1]:,}, as in 6400."
        )
    if cl < 1 or not LATENCY_NS[0] <= 2000 * cl / mts <= LATENCY_NS[1]:
        raise InvalidError(
            f"CL{cl} at {mts:,} MT/s would be {2000 * cl / mts:.1f} ns to the first word, which no"
            " memory does: enter rate and latency as the firmware shows them."
        )
    beside = tuple(part for part in (build.processor, build.mainboard) if part)
    return tuple(
        OwnTuning(
            part=kit,
            gain=0.0,
            gain_sd=0.0,
            power=1.0,
            noted_on=today,
            setup=setup.strip()[:80] or f"memory {mts} CL{cl}",
            mts=mts,
            cl=cl,
            beside=beside,
        )
        for kit in build.of("memory")
        if isinstance(catalogue.part(kit), Memory)
    )


def with_memory(plan: Plan, tunings: tuple[OwnTuning, ...]) -> Plan:
    build = plan.build
    for tuning in tunings:
        build = build.running(tuning)
    return replace(plan, build=build)


def expected_change(catalogue: Catalogue, before: Plan, after: Plan, run: Run) -> float | None:
    """By how much of the average the model says that a plan runs faster than another, a share; None
    where one does not run.
    """
    old, new = (estimate_of(catalogue, plan, run) for plan in (before, after))
    if old is None or new is None or not old.average_fps:
        return None
    return new.average_fps / old.average_fps - 1


def memory_in_run(catalogue: Catalogue, plan: Plan, run: Run, today: date) -> MemoryClass | None:
    """The memory as it runs in a run: as its setup says, as it was noted, or as sold; None where
    there is none.
    """
    as_machine, memory_text = as_run(plan, run), memory_said(run.setup)
    if memory_text is not None and plan.build.memory:
        as_machine = with_memory(
            as_machine, memory_as_set(catalogue, as_machine, *memory_text, run.setup, today)
        )
    machine = machine_of(catalogue, as_machine.build, "as shipped")
    if machine.processor is None or machine.memory is None:
        return None
    return memory_class(machine.processor, machine.mainboard, machine.memory)
