"""What is bought besides the eight kinds where a brief wants it: the cheapest that does, for each
part that it hangs on.

An operating system hangs on the processor, a display on what draws, wireless on the mainboard; a
drive for discs takes a port and a bay, or hangs on USB.
"""

from collections.abc import Callable, Iterator
from typing import NamedTuple

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.allowed import may_be_bought
from wattmetron.core.compatibility.extras import (
    BOTH,
    KEYS,
    POINTER,
    Besides,
    records,
    runs,
    shows,
)
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.further_parts import InputDevice, OpticalDrive, WirelessAdapter
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor


class Brought(NamedTuple):
    """Further parts that come along, what they cost in minor units, how many of them are expansion
    cards, how many of these need a long slot, and what they draw in W.
    """

    parts: tuple[tuple[Kind, str], ...] = ()
    cost: int = 0
    cards: int = 0
    wide_cards: int = 0
    watts: int = 0

    def plus(self, other: "Brought") -> "Brought":
        return Brought(
            self.parts + other.parts,
            self.cost + other.cost,
            self.cards + other.cards,
            self.wide_cards + other.wide_cards,
            self.watts + other.watts,
        )

    def hangs_easier(self, other: "Brought") -> bool:
        """Whether it goes wherever the other does, and draws no more."""
        return (
            self.cards <= other.cards
            and self.wide_cards <= other.wide_cards
            and self.watts <= other.watts
        )


NOTHING = Brought()


class Disc(NamedTuple):
    """A way to have a drive for discs: SATA ports and bays that it takes, and the drive."""

    bays: int
    brought: Brought


class Further:
    """Further parts that can be had for a brief, each kind the cheapest first; where the budget
    does not count a kind it is free, and still the cheapest comes first.
    """

    def __init__(
        self, catalogue: Catalogue, brief: Brief, wants: Besides, stays: tuple[Part, ...]
    ) -> None:
        self.wants, self._free = wants, frozenset(brief.outside)
        kinds = (*wants.kinds, *(("wireless",) if wants.wireless else ()))
        self._shelves = {kind: _offered(catalogue, brief, kind, stays) for kind in kinds}

    def system(self, chip: Processor) -> Brought | None:
        """The operating system for a processor; None where one is wanted and none does."""
        if "system" not in self.wants.kinds:
            return NOTHING
        return self._first("system", lambda part: runs(part, chip, self.wants))

    def screen(self, source: Graphics | Mainboard) -> Brought | None:
        """The display for a card's or a board's outputs."""
        if "display" not in self.wants.kinds:
            return NOTHING
        return self._first("display", lambda part: shows(part, source, self.wants))

    def inputs(self) -> Brought | None:
        """Keyboard and mouse, as a set or one by one."""
        if "input" not in self.wants.kinds:
            return NOTHING
        both, keys, mouse = (self._input(what) for what in (BOTH, KEYS, POINTER))
        ways = [both] if both else []
        ways += [keys.plus(mouse)] if keys and mouse else []
        return min(ways, key=lambda extras: (extras.cost, extras.parts), default=None)

    def _input(self, what: str) -> Brought | None:
        return self._first(
            "input", lambda part: isinstance(part, InputDevice) and part.what == what
        )

    def discs(self) -> tuple[Disc, ...]:
        """The ways to a drive for discs: on a SATA port in a bay, or on USB."""
        if "optical" not in self.wants.kinds:
            return (Disc(0, NOTHING),)
        ways = (
            (bays, self._first("optical", _hangs_on(via)))
            for bays, via in ((1, "SATA"), (0, "USB"))
        )
        return tuple(Disc(bays, extras) for bays, extras in ways if extras is not None)

    def with_board(self, board: Mainboard) -> list[Brought]:
        """The ways to have what hangs on a board's slots and ports."""
        captures = self.captures()
        return [way.plus(capture) for way in self.wireless(board) for capture in captures]

    def captures(self) -> list[Brought]:
        """The capture cards of which no cheaper one takes less of a slot and draws as little."""
        if "capture" not in self.wants.kinds:
            return [NOTHING]
        ways: list[Brought] = []
        for way in self._able("capture", lambda part: records(part, self.wants.display)):
            if not any(other.hangs_easier(way) for other in ways):
                ways.append(way)
        return ways

    def wireless(self, board: Mainboard) -> list[Brought]:
        """The ways to wireless on a board: its own, an expansion card, a stick; a card only where
        it is cheaper.
        """
        if not self.wants.wireless or board.stated_wireless:
            return [NOTHING]
        stick = self._first("wireless", _adapts("USB"))
        card = self._first("wireless", _adapts("PCIe x1"))
        ways = [stick] if stick else []
        if card and (stick is None or (card.cost, card.parts) < (stick.cost, stick.parts)):
            ways.append(card)
        return ways

    def _first(self, kind: Kind, does: Callable[[Part], bool]) -> Brought | None:
        return next(self._able(kind, does), None)

    def _able(self, kind: Kind, does: Callable[[Part], bool]) -> Iterator[Brought]:
        """What can be had of a kind, the cheapest first."""
        for part, cost in self._shelves[kind]:
            if does(part):
                yield Brought(
                    ((kind, part.id),),
                    0 if kind in self._free else cost,
                    int(part.slot_lanes > 0),
                    int(part.slot_lanes > 1),
                    part.added_w,
                )


def _offered(
    catalogue: Catalogue, brief: Brief, kind: Kind, stays: tuple[Part, ...]
) -> list[tuple[Part, int]]:
    """Owned parts of a kind, and those on sale that the brief lets in, the cheapest first."""
    book = catalogue.prices(brief.region, brief.may_buy)
    priced = (
        (part, 0 if part.id in brief.owned else book.cost(part.id))
        for part in catalogue.by_kind[kind]
    )
    return sorted(
        (
            (part, cost)
            for part, cost in priced
            if cost is not None
            and (part.id in brief.owned or may_be_bought(brief, part, cost, stays, book.supply))
        ),
        key=lambda parts: (parts[1], parts[0].id),
    )


def _adapts(via: str) -> Callable[[Part], bool]:
    return lambda part: isinstance(part, WirelessAdapter) and part.via == via


def _hangs_on(via: str) -> Callable[[Part], bool]:
    return lambda part: isinstance(part, OpticalDrive) and part.via == via
