"""Noise of a machine in play: an indication within some 5 dB, from cooler, card and the rest.

A fan's sound power grows with the fifth power of its speed (50 dB per decade), and the heat that a
cooler carries is taken to grow with the speed; a card is assumed at 36 dB(A) for 200 W; fans of the
case and the power supply together at 20 dB(A). Sounds add up as powers.
"""

from math import floor, log10

from wattmetron.core.values.housing import Cooler
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import Graphics, Processor

FAN_LAW_DB = 50.0
"""Fan law: the sound power of a fan grows with 50 log10 of its speed."""
LEAST_DBA = 18.0
"""Quieter than this no fan that turns is heard in a room."""
CARD_DBA_AT_200_W = 36.0
"""Assumed where a card's loudness is not stated."""
REST_DBA = 20.0
"""Fans of case and supply together, at their usual speed."""


def cooler_dba(cooler: Cooler | None, chip: Processor) -> float | None:
    """A cooler in play, the boxed one where there is no other; None where its noise is not
    known.
    """
    stated = cooler.noise_dba if cooler else chip.boxed_noise_dba
    capacity_w = cooler.capacity_w if cooler else chip.boxed_cooler_w
    if stated is None or not capacity_w:
        return None
    return max(LEAST_DBA, stated + FAN_LAW_DB * log10(min(1.0, chip.gaming_w / capacity_w)))


def card_dba(card: Graphics, drawn_w: float) -> float:
    """A card at full power by the assumption, at less by the fan law."""
    full = CARD_DBA_AT_200_W + 10 * log10(card.board_power_w / 200)
    return max(LEAST_DBA, full + FAN_LAW_DB * log10(min(1.0, drawn_w / card.board_power_w)))


def together_dba(*sounds: float) -> float:
    """Several sounds at once."""
    return 10 * log10(sum(10 ** (sound / 10) for sound in sounds))


def in_play_dba(machine: Machine, card_w: float) -> float | None:
    """A machine whose card draws so much; None without a cooler's or a card's sound."""
    chip, card = machine.processor, machine.graphics
    sounds = [card_dba(card, card_w)] if card and card_w > 0 else []
    if chip and (cooler_noise := cooler_dba(machine.cooler, chip)) is not None:
        sounds.append(cooler_noise)
    return together_dba(*sounds, REST_DBA) if sounds else None


def room_for_cooler_dba(most_dba: float, card: Graphics | None) -> int | None:
    """The loudest cooler, in whole dB(A), beside a card at full power within a limit for the whole
    machine; None where card and rest alone pass it.
    """
    left = 10 ** (most_dba / 10) - 10 ** (REST_DBA / 10)
    if card is not None:
        left -= 10 ** (card_dba(card, card.board_power_w) / 10)
    return floor(10 * log10(left)) if left >= 1 else None
