"""The rest well spent: what a builder would add to a machine with the money that is left, at the
same frames.

Each addition is the cheapest part that brings what its reason says, looked at in the whole machine:
it fits, adds no finding and misses no floor, no target falls by 2 % or more, no state worsens.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from wattmetron.core.balance.reductions import keeps_frames
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.allowed import may_be_bought
from wattmetron.core.compatibility.vetting import Vetting
from wattmetron.core.power.heat import FAN_MM, FAN_W
from wattmetron.core.power.noise import cooler_dba
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import Fan
from wattmetron.core.values.housing import Cooler, PowerSupply
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import OF_FANS, Kind
from wattmetron.core.values.parts import STORAGE_KINDS, Graphics, Mainboard, Part, Processor
from wattmetron.core.values.sockets import same_socket
from wattmetron.core.values.trust import TRUSTS, judge

ENOUGH_MEMORY_GB, ENOUGH_THREADS, ENOUGH_STORAGE_GB = 32, 16, 4000
MORE_THREADS = 1.5
SPLITTERS_TRIED = 3
"""So many of the cheapest are looked at."""
QUIETER_DB = 3.0
"""A difference in loudness that one notices."""
LONGER_YEARS = 2
COOLERS_TRIED = 12


@dataclass(frozen=True, slots=True, kw_only=True)
class Addition:
    """A part in the place of another (or besides, where there is none), with what it costs more in
    minor units, why one would want it, and the build that it makes.
    """

    kind: Kind
    part: Part
    instead_of: str | None
    cost_minor: int
    reason: str
    build: Build


Reason = Callable[[Machine, Part], str]
"""What a part would bring to a machine, as a sentence; empty where it brings nothing."""


def additions(catalogue: Catalogue, brief: Brief, build: Build, left_minor: int) -> list[Addition]:
    """What a whole build could have besides, each for at most so much, in the order in which a
    builder would think of it.
    """
    machine = machine_of(catalogue, build, brief.clocks)
    shop = _Shop(catalogue, brief, build, machine)
    cheapests = (shop.cheapest(kind, reason, left_minor) for kind, reason in REASONS)
    return [addition for addition in cheapests if addition is not None]


def together(
    catalogue: Catalogue, brief: Brief, build: Build, wanted: list[Addition], left_minor: int
) -> tuple[Build, int]:
    """One addition after the other while the money lasts and the whole machine stays sound: the
    build and what it costs more.
    """
    machine = machine_of(catalogue, build, brief.clocks)
    shop = _Shop(catalogue, brief, build, machine)
    whole, spent = build, 0
    for addition in wanted:
        other = _with(whole, addition)
        cost = shop.price(other) - shop.price(build)
        if cost <= left_minor and shop.sound(other):
            whole, spent = other, cost
    return whole, spent


def _with(build: Build, addition: Addition) -> Build:
    changed = build
    for kind, part_id in addition.build.ids():
        if kind in ("cooler", "splitter", addition.kind) and part_id not in changed.of(kind):
            changed = changed.with_part(kind, part_id, addition.instead_of)
    return changed


class _Shop:
    """What can be bought for one build."""

    def __init__(self, catalogue: Catalogue, brief: Brief, build: Build, machine: Machine) -> None:
        self.catalogue, self.brief, self.build, self.machine = catalogue, brief, build, machine
        self.book = catalogue.prices(brief.region, brief.may_buy)
        self.vetting = Vetting(catalogue, brief, machine)
        self.stays = tuple(catalogue.part(part_id) for part_id in (*brief.owned, *build.kept))

    def price(self, build: Build) -> int:
        """Delivered cost of the parts that are not owned."""
        owned = {*self.brief.owned}
        return sum(
            self.book.cost(part_id) or 0
            for kind, part_id in build.ids()
            if part_id not in owned and kind not in self.brief.outside
        )

    def sound(self, build: Build) -> bool:
        machine = machine_of(self.catalogue, build, self.brief.clocks)
        return (
            not machine.missing()
            and self.vetting.passes(machine)
            and keeps_frames(self.catalogue, self.brief, self.machine, machine)
        )

    def cheapest(self, kind: Kind, reason: Reason, left_minor: int) -> Addition | None:
        present = self.build.of(kind)
        stays = {*self.brief.owned, *self.build.kept}
        if kind != "fan" and (len(present) > 1 or stays & {*present}):
            return None
        instead = present[0] if present and kind != "fan" else None
        now_minor = self.price(self.build)
        for price, part in self._offered(kind):
            if price - (self.book.cost(instead) or 0 if instead else 0) > left_minor:
                break
            words = reason(self.machine, part)
            for build in self._builds(kind, part, instead) if words else ():
                cost = self.price(build) - now_minor
                if 0 <= cost <= left_minor and self.sound(build):
                    return Addition(
                        kind=kind,
                        part=part,
                        instead_of=instead,
                        cost_minor=cost,
                        reason=words,
                        build=build,
                    )
        return None

    def _builds(self, kind: Kind, part: Part, instead: str | None) -> Iterator[Build]:
        """The build with a part; a processor perhaps with another cooler, a fan with a splitter."""
        build = self.build.with_part(kind, part.id, instead)
        yield build
        if kind == "processor" and not {*self.brief.owned, *self.build.kept} & {
            *self.build.of("cooler")
        }:
            for _, cooler in self._offered("cooler")[:COOLERS_TRIED]:
                yield build.with_part("cooler", cooler.id)
        if kind == "fan":
            for _, splitter in self._offered("splitter")[:SPLITTERS_TRIED]:
                yield build.with_part("splitter", splitter.id)

    def _offered(self, kind: Kind) -> list[tuple[int, Part]]:
        present = self.build.of(kind)
        return sorted(
            (
                (price, part)
                for part in self.catalogue.by_kind[kind]
                if (kind in OF_FANS or part.id not in present)
                and (price := self.book.cost(part.id)) is not None
                and may_be_bought(self.brief, part, price, self.stays, self.book.supply)
            ),
            key=lambda row: (row[0], row[1].id),
        )


def _memory(machine: Machine, part: Part) -> str:
    kit = machine.memory
    if not isinstance(part, Memory) or kit is None or kit.total_gb >= ENOUGH_MEMORY_GB:
        return ""
    if part.total_gb < 2 * kit.total_gb or part.sticks < kit.sticks:
        return ""
    return (
        f"{part.total_gb:g} GB instead of {kit.total_gb:g}: room for what runs beside a game and"
        " for games to come"
    )


def _storage(machine: Machine, part: Part) -> str:
    if not isinstance(part, Storage) or len(machine.storage) != 1:
        return ""
    (drive,) = machine.storage
    slower = STORAGE_KINDS.index(part.kind) < STORAGE_KINDS.index(drive.kind)
    if slower or drive.capacity_gb >= ENOUGH_STORAGE_GB or part.capacity_gb < 2 * drive.capacity_gb:
        return ""
    return f"{part.capacity_gb:,} GB instead of {drive.capacity_gb:,}: more games stay installed"


def _threads(machine: Machine, part: Part) -> str:
    chip = machine.processor
    if not isinstance(part, Processor) or chip is None or chip.threads >= ENOUGH_THREADS:
        return ""
    if not same_socket(part.socket, chip.socket) or part.threads < MORE_THREADS * chip.threads:
        return ""
    return (
        f"{part.cores} cores with {part.threads} threads instead of {chip.cores} with"
        f" {chip.threads}: steadier where a game uses more, and room for work beside it"
    )


def _quieter(machine: Machine, part: Part) -> str:
    chip = machine.processor
    if not isinstance(part, Cooler) or chip is None:
        return ""
    now, then = cooler_dba(machine.cooler, chip), cooler_dba(part, chip)
    if then is None or (now is not None and then > now - QUIETER_DB):
        return ""
    if machine.cooler is None:
        return f"about {then:.0f} dB(A) in games instead of the boxed cooler's noise"
    was = "" if now is None else f" instead of {now:.0f}"
    return f"about {then:.0f} dB(A) in games{was}, and more in reserve"


def _better_supply(machine: Machine, part: Part) -> str:
    supply = machine.supply
    if not isinstance(part, PowerSupply) or supply is None or part.watts < supply.watts:
        return ""
    better = TRUSTS.index(judge(part).trust) - TRUSTS.index(judge(supply).trust)
    longer = _longer(supply, part)
    if better > 0 and _years(part) >= _years(supply):
        return f"{judge(part).trust} instead of {judge(supply).trust}" + (
            f", {longer}" if longer else ""
        )
    return longer if better == 0 else ""


def _longer(present: Part, part: Part) -> str:
    years, now = _years(part), _years(present)
    return f"{years:g} years of warranty instead of {now:g}" if years >= now + LONGER_YEARS else ""


def _years(part: Part) -> float:
    return part.warranty_years or 0.0


def _more_air(machine: Machine, part: Part) -> str:
    case = machine.case
    if not isinstance(part, Fan) or part.size_mm != FAN_MM or case is None:
        return ""
    if case.fan_places is None or machine.fans + part.pack > case.fan_places:
        return ""
    if part.noise_dba is None:
        return ""
    more = "another fan" if part.pack == 1 else f"{part.pack} more fans"
    return f"{more} for {FAN_W * part.pack} W more of heat: all of them turn slower"


def _room_to_grow(machine: Machine, part: Part) -> str:
    board = machine.mainboard
    if not isinstance(part, Mainboard) or board is None:
        return ""
    if part.memory_slots < board.memory_slots or part.m2_slots < board.m2_slots:
        return ""
    if board.stated_wireless and not part.stated_wireless:
        return ""
    gains = [
        f"{part.memory_slots} memory slots instead of {board.memory_slots}"
        if part.memory_slots > board.memory_slots
        else "",
        f"{part.m2_slots} M.2 places instead of {board.m2_slots}"
        if part.m2_slots > board.m2_slots
        else "",
        "wireless" if part.stated_wireless and not board.stated_wireless else "",
    ]
    return ", ".join(gain for gain in gains if gain)


def _warranted_card(machine: Machine, part: Part) -> str:
    card = machine.graphics
    if not isinstance(part, Graphics) or card is None or part.chip != card.chip:
        return ""
    return _longer(card, part)


REASONS: tuple[tuple[Kind, Reason], ...] = (
    ("memory", _memory),
    ("storage", _storage),
    ("processor", _threads),
    ("supply", _better_supply),
    ("cooler", _quieter),
    ("fan", _more_air),
    ("mainboard", _room_to_grow),
    ("graphics", _warranted_card),
)
"""In the order in which a builder would think of them."""
