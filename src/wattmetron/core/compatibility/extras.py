"""What a brief wants besides the eight kinds: which parts do, and what is missing.

Wireless comes from the mainboard, from an expansion card or from a stick, and from a module where
the board is known to have a slot for one.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from math import inf

from wattmetron.core.compatibility.display_link import cable_rates, outputs_of, pixels_gbits
from wattmetron.core.requirements.versions import Version, offered, version_of
from wattmetron.core.values.brief import BOUGHT_KINDS, Display
from wattmetron.core.values.further_parts import (
    CaptureCard,
    InputDevice,
    OperatingSystem,
    Screen,
    WirelessAdapter,
)
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.part_kinds import SPECS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor

KEYS, POINTER, BOTH = "keyboard", "mouse", "keyboard and mouse"


@dataclass(frozen=True, slots=True, kw_only=True)
class Besides:
    """What is wanted besides the eight kinds; ``systems`` are those that must run, ``display`` the
    one that is to be bought.
    """

    wireless: bool = False
    kinds: frozenset[Kind] = frozenset()
    systems: tuple[Version, ...] = ()
    display: Display

    def beside(self, stays: Sequence[Part]) -> "Besides":
        """What is still wanted where parts stay."""
        there = {kind_of(part) for part in stays if not isinstance(part, InputDevice)}
        there |= {"input"} if types_and_points(stays) else set()
        return replace(
            self, wireless=self.wireless and "wireless" not in there, kinds=self.kinds - there
        )


def adapts(part: Part) -> bool:
    """Whether a part brings wireless wherever it finds its slot or port."""
    return isinstance(part, WirelessAdapter) and part.via in ("PCIe x1", "USB")


def has_wireless(machine: Machine) -> bool:
    board = machine.mainboard
    if board and board.stated_wireless:
        return True
    modules = [part for part in machine.added if is_module(part)]
    housed = bool(modules and board and (board.module_slots or 0) >= len(modules))
    return housed or any(map(adapts, machine.added))


def is_module(part: Part) -> bool:
    """Whether a part is a wireless module for a slot on the mainboard."""
    return isinstance(part, WirelessAdapter) and part.via == "M.2"


def runs(system: Part, chip: Processor, wants: Besides) -> bool:
    """Whether an operating system supports a processor and is what games and brief name."""
    if not isinstance(system, OperatingSystem):
        return False
    if system.designs and chip.design not in system.designs:
        return False
    had = (version_of(system.family),)
    return all(offered(wanted, had) for wanted in wants.systems)


def shows(screen: Part, source: Graphics | Mainboard, wants: Besides) -> bool:
    """Whether a display is the wanted one and is driven in full by a card, or by a board's
    outputs.
    """
    if not isinstance(screen, Screen):
        return False
    display = wants.display
    if (screen.width_px, screen.height_px) != (display.width_px, display.height_px):
        return False
    return screen.refresh_hz >= display.refresh_hz and driven(screen, source)


RECORDED_HZ = 60.0
"""Pictures a second that recordings usually have; a faster display is recorded at these."""


def records(part: Part, display: Display) -> bool:
    """Whether a capture card records all pixels of a display, at its refresh or at 60 Hz."""
    return (
        isinstance(part, CaptureCard)
        and part.width_px >= display.width_px
        and part.height_px >= display.height_px
        and part.refresh_hz >= min(RECORDED_HZ, display.refresh_hz)
    )


def driven(screen: Screen, source: Graphics | Mainboard) -> bool:
    """Whether a cable is known to carry all of a display from these outputs."""
    packs = isinstance(source, Graphics) and source.compression and screen.compression
    rates = cable_rates(outputs_of(source), screen, bool(packs))
    return max((rate for rate, _, _ in rates if rate < inf), default=0.0) >= pixels_gbits(screen)


def types_and_points(parts: Sequence[Part]) -> bool:
    """Whether there is a keyboard and a mouse."""
    what = {part.what for part in parts if isinstance(part, InputDevice)}
    return BOTH in what or {KEYS, POINTER} <= what


def types(part: Part) -> bool:
    """Whether a part is a keyboard, a mouse or both."""
    return isinstance(part, InputDevice) and part.what in (KEYS, POINTER, BOTH)


def besides_missed(machine: Machine, wants: Besides) -> Iterator[tuple[str, str]]:
    """The brief's fields whose wishes a whole machine does not have, each with a sentence."""
    board, chip = machine.mainboard, machine.processor
    if board is None or chip is None or machine.missing():
        return
    if wants.wireless and not has_wireless(machine):
        lacks = "has no" if board.wireless else "is not known to have"
        yield "wireless", f"{board.name} {lacks} wireless, and no adapter brings it."
    there: dict[Kind, bool] = {
        "system": any(runs(part, chip, wants) for part in machine.of("system")),
        "display": _shown(machine, wants),
        "input": types_and_points(machine.of("input")),
        "optical": bool(machine.of("optical")),
        "capture": any(records(part, wants.display) for part in machine.of("capture")),
    }
    for kind in BOUGHT_KINDS:
        if kind in wants.kinds and not there[kind]:
            yield "buys", SPECS[kind].lacking.format(chip=chip.name, display=wants.display)


def _shown(machine: Machine, wants: Besides) -> bool:
    source = machine.graphics or machine.mainboard
    return source is not None and any(shows(part, source, wants) for part in machine.of("display"))
