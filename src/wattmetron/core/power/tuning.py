"""Tuned clocks and undervolting: what they bring in frames and take in watts, and what they need.

Assumptions (rules of thumb, each with its spread): within its usual margin a processor gains 4 % in
speed at 25 % more power, a card 5 % at 15 % more; undervolted, a processor keeps its speed within 1
% at 12 % less power, a card within 2 % at 15 % less. How far one very chip goes is luck: the spread
of the gain is added to that of the speed. Memory that is set otherwise than sold runs as it was
noted; processor and board carry that rate where they were noted with it.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Literal, TypeVar

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Clocks
from wattmetron.core.values.build import Build, OwnTuning
from wattmetron.core.values.kits import joined
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.parts import Graphics, Mainboard, Processor

Way = Literal["processor tuned", "card tuned", "processor undervolted", "card undervolted"]


@dataclass(frozen=True, slots=True)
class TuningEffect:
    """Gain in speed with its standard deviation, both as shares, and the factor on power."""

    gain: float
    gain_sd: float
    power: float


CHANGES: dict[Way, TuningEffect] = {
    "processor tuned": TuningEffect(0.04, 0.02, 1.25),
    "card tuned": TuningEffect(0.05, 0.02, 1.15),
    "processor undervolted": TuningEffect(-0.005, 0.005, 0.88),
    "card undervolted": TuningEffect(-0.01, 0.01, 0.85),
}


def tuned(machine: Machine, way: Way) -> Machine | None:
    """The machine as it would run; None where it has no such part."""
    chip, card = machine.processor, machine.graphics
    if way.startswith("processor"):
        return None if chip is None else replace(machine, processor=chip_at(chip, CHANGES[way]))
    return None if card is None else replace(machine, graphics=card_at(card, CHANGES[way]))


def chip_at(chip: Processor, change: TuningEffect) -> Processor:
    """A processor with its speeds, their spread and its watts changed."""
    return replace(
        chip,
        single_speed=chip.single_speed * (1 + change.gain),
        all_core_speed=chip.all_core_speed * (1 + change.gain),
        speed_sd=(chip.speed_sd**2 + change.gain_sd**2) ** 0.5,
        sustained_w=round(chip.sustained_w * change.power),
        gaming_w=round(chip.gaming_w * change.power),
    )


def card_at(card: Graphics, change: TuningEffect) -> Graphics:
    """A card with its speeds, their spread and its watts changed."""
    up = 1 + change.gain
    return replace(
        card,
        speed_1080p=card.speed_1080p * up,
        speed_1440p=None if card.speed_1440p is None else card.speed_1440p * up,
        speed_2160p=None if card.speed_2160p is None else card.speed_2160p * up,
        ray_speed=None if card.ray_speed is None else card.ray_speed * up,
        speed_sd=(card.speed_sd**2 + change.gain_sd**2) ** 0.5,
        board_power_w=round(card.board_power_w * change.power),
    )


BY_CLOCKS: dict[Clocks, tuple[Way, Way] | None] = {
    "as shipped": None,
    "tuned": ("processor tuned", "card tuned"),
    "undervolted": ("processor undervolted", "card undervolted"),
}


T = TypeVar("T", Processor, Graphics)
P = TypeVar("P", Processor, Mainboard)


def changed_by(part: T, change: TuningEffect) -> T:
    """A processor or card with a change."""
    return card_at(part, change) if isinstance(part, Graphics) else chip_at(part, change)


def clocked(part: T, clocks: Clocks, tuned: bool = True) -> T:
    """A processor or card as it runs by the brief's wish; a chip is tuned only where it can be and
    ``tuned`` allows it.
    """
    ways = BY_CLOCKS[clocks]
    if ways is None:
        return part
    if isinstance(part, Graphics):
        return card_at(part, CHANGES[ways[1]])
    return (
        part
        if clocks == "tuned" and not (part.tunable and tuned)
        else chip_at(part, CHANGES[ways[0]])
    )


def run_at(machine: Machine, clocks: Clocks) -> Machine:
    """The machine as it runs by the brief's wish; a board whose clocks are fixed leaves the chip as
    shipped.
    """
    if clocks == "as shipped":
        return machine
    chip, card, board = machine.processor, machine.graphics, machine.mainboard
    return replace(
        machine,
        processor=chip and clocked(chip, clocks, board is None or bool(board.tuning)),
        graphics=card and clocked(card, clocks),
        second_card=machine.second_card and clocked(machine.second_card, clocks),
    )


def machine_of(catalogue: Catalogue, build: Build, clocks: Clocks) -> Machine:
    """A build with its parts looked up, as it runs at such clocks; raises for an unknown id or a
    part in the wrong place.
    """
    shipped = catalogue.machine(build)
    return as_measured(run_at(shipped, clocks), shipped, build)


def as_measured(machine: Machine, shipped: Machine, build: Build) -> Machine:
    """The machine with those parts that were measured as they are set running so, in place of the
    rule of thumb.
    """
    changes = {tuning.part: measured_change(tuning) for tuning in build.tuned if not tuning.mts}
    chip, card = shipped.processor, shipped.graphics
    if chip is not None and chip.id in changes:
        machine = replace(machine, processor=chip_at(chip, changes[chip.id]))
    if card is not None and card.id in changes:
        machine = replace(machine, graphics=card_at(card, changes[card.id]))
    there = [tuning for tuning in build.tuned if tuning.part in build.of("memory")]
    return _memory_as_set(machine, there) if there else machine


def _memory_as_set(machine: Machine, tunings: Sequence[OwnTuning]) -> Machine:
    kits = tuple(set_kit(kit, tunings) for kit in machine.kits)
    memory = joined(kits) if kits else machine.memory and set_kit(machine.memory, tunings)
    chip, board = machine.processor, machine.mainboard
    return replace(
        machine,
        memory=memory,
        kits=kits,
        processor=chip and carrying(chip, tunings),
        mainboard=board and carrying(board, tunings),
    )


def set_kit(kit: Memory, tunings: Iterable[OwnTuning]) -> Memory:
    """A kit at the rate and latency at which it was noted to run."""
    for tuning in tunings:
        if tuning.part == kit.id and tuning.mts and tuning.cl:
            return replace(kit, mts=tuning.mts, cl=tuning.cl)
    return kit


def carrying(part: P, tunings: Iterable[OwnTuning]) -> P:
    """A processor or board with the limits of memory as far up as it was noted to go; two sticks on
    a channel count where processor and board were both noted.
    """
    for tuning in tunings:
        if tuning.mts and part.id in tuning.beside:
            full = part.memory_full_mts or 0
            part = replace(
                part,
                memory_max_mts=max(part.memory_max_mts, tuning.mts),
                memory_full_mts=max(full, tuning.mts) if len(tuning.beside) > 1 else full or None,
            )
    return part


def measured_change(tuning: OwnTuning) -> TuningEffect:
    return TuningEffect(tuning.gain, tuning.gain_sd, tuning.power)


def in_the_way(machine: Machine, way: Way) -> tuple[str, ...]:
    """What chip or board do not allow; heat and supply are left to the fit rules."""
    chip, board = machine.processor, machine.mainboard
    if way != "processor tuned" or chip is None:
        return ()
    obstacles = []
    if not chip.tunable:
        cannot = "cannot" if chip.tunable is False else "are not known to"
        obstacles.append(f"the clocks of {chip.name} {cannot} be tuned")
    if board is not None and not board.tuning:
        does_not = "does not" if board.tuning is False else "is not known to"
        obstacles.append(f"{board.name} {does_not} allow it")
    return tuple(obstacles)
