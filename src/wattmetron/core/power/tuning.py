"""Tuned clocks and undervolting: what they bring in frames and take in watts, and what they need.

Assumptions (rules of thumb, each with its spread): within its usual margin a processor gains 4 % in speed at 25 % more
power, a card 5 % at 15 % more; undervolted, a processor keeps its speed within 1 % at 12 % less power, a card within
2 % at 15 % less. How far one very chip goes is luck: the spread of the gain is added to that of the speed.
"""

from dataclasses import dataclass, replace
from typing import Literal

from wattmetron.core.machine import Machine

Way = Literal["processor tuned", "card tuned", "processor undervolted", "card undervolted"]


@dataclass(frozen=True, slots=True)
class Change:
    """Gain in speed with its standard deviation, both as shares, and the factor on power."""

    gain: float
    gain_sd: float
    power: float


CHANGES: dict[Way, Change] = {
    "processor tuned": Change(0.04, 0.02, 1.25),
    "card tuned": Change(0.05, 0.02, 1.15),
    "processor undervolted": Change(-0.005, 0.005, 0.88),
    "card undervolted": Change(-0.01, 0.01, 0.85),
}


def tuned(machine: Machine, way: Way) -> Machine | None:
    """The machine as it would run; None where it has no such part."""
    change, chip, card = CHANGES[way], machine.processor, machine.graphics
    if way.startswith("processor"):
        if chip is None:
            return None
        spread = (chip.speed_sd**2 + change.gain_sd**2) ** 0.5
        faster = replace(
            chip,
            single_speed=chip.single_speed * (1 + change.gain),
            all_core_speed=chip.all_core_speed * (1 + change.gain),
            speed_sd=spread,
            sustained_w=round(chip.sustained_w * change.power),
            gaming_w=round(chip.gaming_w * change.power),
        )
        return replace(machine, processor=faster)
    if card is None:
        return None
    up = 1 + change.gain
    quicker = replace(
        card,
        speed_1080p=card.speed_1080p * up,
        speed_1440p=None if card.speed_1440p is None else card.speed_1440p * up,
        speed_2160p=None if card.speed_2160p is None else card.speed_2160p * up,
        ray_speed=None if card.ray_speed is None else card.ray_speed * up,
        speed_sd=(card.speed_sd**2 + change.gain_sd**2) ** 0.5,
        board_power_w=round(card.board_power_w * change.power),
    )
    return replace(machine, graphics=quicker)


def in_the_way(machine: Machine, way: Way) -> tuple[str, ...]:
    """What chip or board do not allow; heat and supply are left to the fit rules."""
    chip, board = machine.processor, machine.mainboard
    if way != "processor tuned" or chip is None:
        return ()
    found = []
    if not chip.tunable:
        found.append(f"the clocks of {chip.name} cannot be tuned")
    if board is not None and not board.tuning:
        found.append(f"{board.name} does not allow it")
    return tuple(found)
