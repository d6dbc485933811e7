"""A build: which part stands in which place."""

from collections.abc import Collection, Iterator
from dataclasses import dataclass, replace
from datetime import date

from wattmetron.core.errors import BuildError
from wattmetron.core.values.part_kinds import FURTHER_KINDS, KINDS, Kind

MAX_DRIVES = 8
MAX_ADDED = 20
MAX_KITS = 4


@dataclass(frozen=True, slots=True)
class SetAside:
    """A finding that does not count for this build, with the reason: its rule and the ids of the
    parts concerned.
    """

    rule: str
    parts: tuple[str, ...]
    reason: str


@dataclass(frozen=True, slots=True)
class StandIn:
    """A part that is there only until a date, and what it may then sell for: a guess, in minor
    units.
    """

    part: str
    until: date
    resale_minor: int


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnTuning:
    """How a part of this machine was measured to run as it is set now: a processor's or card's gain
    in speed over shipped with its standard deviation, both as shares, its power as a factor; what
    was set in a few words, and, where they were noted, the clock reached in MHz, volts, fan speed
    in 1/min and temperature in °C. Of a memory kit the rate in MT/s and latency in cycles at which
    it runs, ``beside`` the processor and board that carry it.
    """

    part: str
    gain: float
    gain_sd: float
    power: float
    noted_on: date
    setup: str = ""
    clock_mhz: float | None = None
    volts: float | None = None
    fan_rpm: float | None = None
    celsius: float | None = None
    mts: int | None = None
    cl: int | None = None
    beside: tuple[str, ...] = ()

    def of_staying(self, staying: Collection[str]) -> "OwnTuning | None":
        """What is left of it where only these parts stay; None where its own does not."""
        if self.part not in staying:
            return None
        return replace(self, beside=tuple(part_id for part_id in self.beside if part_id in staying))


@dataclass(frozen=True, slots=True, kw_only=True)
class Build:
    """Part ids by kind: one of each at most, several drives; ``added`` holds further kinds.
    ``kept`` parts stay when the rest is proposed; ``more_kits`` are memory kits and ``second_card``
    a graphics card beside the first; findings ``aside`` do not count while the parts that they
    concern stay. Parts bought ``later`` belong to the machine, their prices not to the total. Parts
    that are ``tuned`` run as they were measured.
    """

    processor: str | None = None
    graphics: str | None = None
    mainboard: str | None = None
    memory: str | None = None
    storage: tuple[str, ...] = ()
    cooler: str | None = None
    supply: str | None = None
    case: str | None = None
    kept: frozenset[str] = frozenset()
    aside: tuple[SetAside, ...] = ()
    added: tuple[tuple[Kind, str], ...] = ()
    more_kits: tuple[str, ...] = ()
    second_card: str | None = None
    stand_ins: tuple[StandIn, ...] = ()
    later: frozenset[str] = frozenset()
    tuned: tuple[OwnTuning, ...] = ()

    def of(self, kind: Kind) -> tuple[str, ...]:
        """Ids of the parts of a kind."""
        if kind == "storage":
            return self.storage
        if kind in FURTHER_KINDS:
            return tuple(part_id for part_kind, part_id in self.added if part_kind == kind)
        part_id: str | None = getattr(self, kind)
        first = (part_id,) if part_id else ()
        if kind == "graphics" and self.second_card is not None:
            return (*first, self.second_card)
        return (*first, *self.more_kits) if kind == "memory" else first

    def ids(self) -> Iterator[tuple[Kind, str]]:
        """All parts in the order of the kinds."""
        for kind in (*KINDS, *FURTHER_KINDS):
            for part_id in self.of(kind):
                yield kind, part_id

    @property
    def empty(self) -> bool:
        return not any(True for _ in self.ids())

    def with_part(self, kind: Kind, part_id: str, instead_of: str | None = None) -> "Build":
        """This build with a part put in; a drive is added unless it stands in for another."""
        if kind in FURTHER_KINDS:
            return self._with_added(kind, part_id, instead_of)
        if kind == "memory" and instead_of is not None and instead_of in self.more_kits:
            kits = list(self.more_kits)
            kits[kits.index(instead_of)] = part_id
            return replace(self, more_kits=tuple(kits))
        if (
            kind == "graphics"
            and instead_of is not None
            and instead_of == self.second_card != self.graphics
        ):
            return replace(self, second_card=part_id)
        if kind != "storage":
            gone = self.of(kind)[:1]
            fixed_ids = self.kept - (set(gone) - {part_id})
            return replace(self, kept=fixed_ids, **{kind: part_id})  # type: ignore[arg-type]
        if instead_of is None:
            if len(self.storage) >= MAX_DRIVES:
                raise BuildError(f"A build holds at most {MAX_DRIVES} drives: take one out first.")
            return replace(self, storage=(*self.storage, part_id))
        drives = list(self.storage)
        if instead_of not in drives:
            raise BuildError(
                "The drive to replace is no longer in the build: reload and try again."
            )
        drives[drives.index(instead_of)] = part_id
        return replace(self, storage=tuple(drives), kept=_still_kept(self.kept, instead_of, drives))

    def with_kit(self, part_id: str) -> "Build":
        """This build with a memory kit beside the others."""
        if self.memory is None:
            return replace(self, memory=part_id)
        if len(self.more_kits) >= MAX_KITS - 1:
            raise BuildError(f"A build holds at most {MAX_KITS} memory kits: take one out first.")
        return replace(self, more_kits=(*self.more_kits, part_id))

    def beside(self, part_id: str) -> "Build":
        """This build with a second graphics card."""
        if self.graphics is None:
            return replace(self, graphics=part_id)
        if self.second_card is not None:
            raise BuildError("A build holds at most two graphics cards: take one out first.")
        return replace(self, second_card=part_id)

    def _with_added(self, kind: Kind, part_id: str, instead_of: str | None) -> "Build":
        added = list(self.added)
        if instead_of is not None and (kind, instead_of) in added:
            added[added.index((kind, instead_of))] = (kind, part_id)
        elif len(added) >= MAX_ADDED:
            raise BuildError(
                f"A build holds at most {MAX_ADDED} further parts: take one out first."
            )
        else:
            added.append((kind, part_id))
        added.sort(key=lambda row: FURTHER_KINDS.index(row[0]))
        return replace(self, added=tuple(added))

    def without(self, kind: Kind, part_id: str) -> "Build":
        """This build with a part taken out."""
        if part_id not in self.of(kind):
            raise BuildError("That part is no longer in the build: reload and try again.")
        if kind in FURTHER_KINDS:
            added = list(self.added)
            added.remove((kind, part_id))
            return replace(self, added=tuple(added))
        if kind == "memory" and self.more_kits:
            kits = list(self.of(kind))
            kits.remove(part_id)
            return replace(
                self,
                memory=kits[0],
                more_kits=tuple(kits[1:]),
                kept=_still_kept(self.kept, part_id, kits),
            )
        if kind == "graphics" and self.second_card is not None:
            cards = list(self.of(kind))
            cards.remove(part_id)
            return replace(
                self,
                graphics=cards[0],
                second_card=None,
                kept=_still_kept(self.kept, part_id, cards),
            )
        if kind != "storage":
            return replace(self, kept=self.kept - {part_id}, **{kind: None})  # type: ignore[arg-type]
        drives = list(self.storage)
        drives.remove(part_id)
        return replace(self, storage=tuple(drives), kept=_still_kept(self.kept, part_id, drives))

    def setting_aside(self, set_aside: SetAside) -> "Build":
        """This build with a finding set aside; raises BuildError without a reason."""
        if not set_aside.reason.strip():
            raise BuildError(
                "The finding is not set aside: say in a few words why it does not count here."
            )
        if len(set_aside.reason) > 300:
            raise BuildError("The reason is longer than 300 characters: shorten it.")
        return replace(
            self,
            aside=(
                *(
                    each_set_aside
                    for each_set_aside in self.aside
                    if (each_set_aside.rule, each_set_aside.parts)
                    != (set_aside.rule, set_aside.parts)
                ),
                set_aside,
            ),
        )

    def counting_again(self, rule: str, parts: tuple[str, ...]) -> "Build":
        """This build with a finding counted again."""
        return replace(
            self,
            aside=tuple(
                set_aside
                for set_aside in self.aside
                if (set_aside.rule, set_aside.parts) != (rule, parts)
            ),
        )

    def running(self, tuning: OwnTuning) -> "Build":
        """This build with a part running as it was measured."""
        if tuning.part not in {present_id for _, present_id in self.ids()}:
            raise BuildError("That part is no longer in the build: reload and try again.")
        others = tuple(each_tuning for each_tuning in self.tuned if each_tuning.part != tuning.part)
        return replace(self, tuned=(*others, tuning))

    def as_shipped(self, part_id: str) -> "Build":
        """This build with a part that runs as it was shipped again."""
        return replace(self, tuned=tuple(tuning for tuning in self.tuned if tuning.part != part_id))

    def standing_in(self, stand_in: StandIn) -> "Build":
        """This build with a part marked as a stand-in."""
        if stand_in.part not in {present_id for _, present_id in self.ids()}:
            raise BuildError("That part is no longer in the build: reload and try again.")
        return replace(
            self,
            stand_ins=(
                *(
                    each_stand_in
                    for each_stand_in in self.stand_ins
                    if each_stand_in.part != stand_in.part
                ),
                stand_in,
            ),
        )

    def staying(self, part_id: str) -> "Build":
        """This build with a part that is no stand-in any more."""
        return replace(
            self,
            stand_ins=tuple(stand_in for stand_in in self.stand_ins if stand_in.part != part_id),
        )

    def buying_later(self, part_id: str, later: bool) -> "Build":
        """This build with a part to be bought later, or now after all."""
        if part_id not in {present_id for _, present_id in self.ids()}:
            raise BuildError("That part is no longer in the build: reload and try again.")
        return replace(self, later=self.later | {part_id} if later else self.later - {part_id})

    def keeping(self, part_id: str, keep: bool) -> "Build":
        """This build with a part kept, or free again."""
        if part_id not in {present_id for _, present_id in self.ids()}:
            raise BuildError("That part is no longer in the build: reload and try again.")
        return replace(self, kept=self.kept | {part_id} if keep else self.kept - {part_id})


def _still_kept(fixed_ids: frozenset[str], gone: str, drives: list[str]) -> frozenset[str]:
    return fixed_ids if gone in drives else fixed_ids - {gone}
