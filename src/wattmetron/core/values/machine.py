"""A machine: the parts of a build, looked up, with what they amount to together."""

from collections.abc import Mapping
from dataclasses import dataclass

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.fan_places import placed
from wattmetron.core.values.further_parts import Fan, FanSplitter, OpticalDrive
from wattmetron.core.values.games import Game
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import ALL_KINDS, FURTHER_KINDS, KINDS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor


@dataclass(frozen=True, slots=True, kw_only=True)
class Machine:
    """Looked-up parts; any place can be empty."""

    processor: Processor | None = None
    graphics: Graphics | None = None
    mainboard: Mainboard | None = None
    memory: Memory | None = None
    storage: tuple[Storage, ...] = ()
    cooler: Cooler | None = None
    supply: PowerSupply | None = None
    case: Case | None = None
    added: tuple[Part, ...] = ()
    kits: tuple[Memory, ...] = ()
    """The single kits where ``memory`` stands for several."""
    second_card: Graphics | None = None

    def of(self, kind: Kind) -> tuple[Part, ...]:
        if kind in FURTHER_KINDS:
            return tuple(part for part in self.added if kind_of(part) == kind)
        if kind == "memory" and self.kits:
            return self.kits
        if kind == "graphics":
            return self.cards
        standing = getattr(self, kind)
        if kind == "storage":
            return tuple(standing)
        return (standing,) if standing is not None else ()

    def with_part(self, kind: Kind, part: Part) -> "Machine":
        """This machine with a part in its place; a drive comes beside the others."""
        if kind in FURTHER_KINDS:
            return self._changed({"added": (*self.added, part)})
        if kind == "memory":
            return self._changed({"memory": part, "kits": ()})
        return self._changed({kind: (*self.storage, part) if kind == "storage" else part})

    def _changed(self, places: Mapping[str, object]) -> "Machine":
        """Like ``dataclasses.replace``, which takes several times as long: a proposal's last step
        puts hundreds of parts in.
        """
        other = object.__new__(Machine)
        for name in Machine.__slots__:
            object.__setattr__(other, name, places[name] if name in places else getattr(self, name))
        return other

    @property
    def cards(self) -> tuple[Graphics, ...]:
        """The graphics cards, one or two."""
        both = (self.graphics, self.second_card)
        return tuple(card for card in both if card is not None)

    def hastened(self, game: Game) -> float:
        """How many times as fast as the card alone both cards are in a game: 1 without evidence of
        a gain.
        """
        pair = (
            self.second_card is not None
            and self.graphics is not None
            and self.second_card.chip == self.graphics.chip
        )
        return 1 + game.second_card_gain if pair else 1.0

    def parts(self) -> tuple[Part, ...]:
        kinds = ALL_KINDS if self.added else KINDS
        return tuple(part for kind in kinds for part in self.of(kind))

    @property
    def sata_optical(self) -> int:
        """Drives for discs that take a SATA port."""
        return sum(isinstance(part, OpticalDrive) and part.via == "SATA" for part in self.added)

    @property
    def expansion_cards(self) -> tuple[Part, ...]:
        """Further parts that take a slot for expansion cards."""
        return tuple(part for part in self.added if part.slot_lanes)

    @property
    def added_w(self) -> int:
        """What further parts draw of the power supply, in W."""
        return sum(part.added_w for part in self.added)

    @property
    def added_fans(self) -> dict[int, int]:
        """Fans that are added, counted by size in mm."""
        counts: dict[int, int] = {}
        for part in self.added:
            if isinstance(part, Fan):
                counts[part.size_mm] = counts.get(part.size_mm, 0) + part.pack
        return counts

    @property
    def fans(self) -> int:
        """Fans for the case: included ones, as far as they are known, and added ones."""
        included = (self.case.fans_included or 0) if self.case else 0
        return included + sum(self.added_fans.values())

    @property
    def fans_joined(self) -> int:
        """Fans that need no header of their own, for splitters join them with others."""
        joined = (part.joins - 1 for part in self.added if isinstance(part, FanSplitter))
        return min(sum(joined), max(0, self.fans - 1))

    @property
    def fans_placed(self) -> int:
        """Fans that find a place in the case; all of them where its places are not known."""
        return placed(self.case, self.added_fans) if self.case else self.fans

    @property
    def uses_integrated(self) -> bool:
        return self.graphics is None and self.processor is not None and self.processor.draws

    @property
    def can_draw(self) -> bool:
        """Whether there is a processor and something that draws, so that frames can be
        estimated.
        """
        return self.processor is not None and (self.graphics is not None or self.uses_integrated)

    @property
    def boxed_suffices(self) -> bool:
        """Whether the processor comes with a cooler that carries its sustained power."""
        chip = self.processor
        return chip is not None and chip.brings_cooler

    def missing(self) -> tuple[Kind, ...]:
        """Kinds that still have to be filled before the machine is whole."""
        needed: list[Kind] = ["processor", "mainboard", "memory", "storage", "supply", "case"]
        if not self.uses_integrated:
            needed.insert(1, "graphics")
        if not self.boxed_suffices:
            needed.insert(-2, "cooler")
        return tuple(kind for kind in needed if not self.of(kind))
