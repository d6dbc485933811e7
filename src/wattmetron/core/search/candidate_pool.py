"""The candidates of a proposal: what can be bought within the rules, and what is fixed already."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Generic, NamedTuple, TypeVar, cast

import numpy as np
from numpy.typing import NDArray

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.display_link import may_show
from wattmetron.core.compatibility.floors import Floors
from wattmetron.core.compatibility.leads import sockets_of
from wattmetron.core.compatibility.radiator_places import LOW_MEMORY_MM
from wattmetron.core.power.tuning import (
    set_kit,
)
from wattmetron.core.search.airflow import Airflow
from wattmetron.core.search.peripherals import NOTHING, Brought, Disc
from wattmetron.core.search.resale import FREE_KINDS
from wattmetron.core.search.thresholds import Ladder, ints
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import Build, OwnTuning
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import Fan, FanSplitter
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.kits import joined
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import ALL_KINDS, Kind
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import BOARD_FORMS, Graphics, Mainboard, Part, Processor
from wattmetron.core.values.seating import Slot, Stick, lanes_left, seated, slots_of
from wattmetron.core.values.sockets import socket_key

Ints = NDArray[np.int64]
P = TypeVar("P", bound=Part)
NO_LIMIT_MM = 10_000
NEW_DRIVES = 3
"""How many drives a proposal adds at most."""


@dataclass(frozen=True)
class KindPool(Generic[P]):
    """Candidates of one kind in the order of their ids, with their costs in minor units; ``brings``
    are further parts that come with each, where some do.
    """

    parts: tuple[P, ...]
    cost: Ints
    fixed: bool
    brings: tuple[Brought, ...] = ()

    def __len__(self) -> int:
        return len(self.parts)

    @property
    def whole(self) -> Ints:
        """What each costs with what comes with it."""
        return self.cost + ints(extras.cost for extras in self.brings) if self.brings else self.cost

    def brought(self, index: int) -> tuple[tuple[Kind, str], ...]:
        """The further parts that come with one of the candidates."""
        return self.brings[index].parts if self.brings else ()


@dataclass(frozen=True, kw_only=True)
class KitArrays:
    """Figures of all candidate kits."""

    memory_type: NDArray[np.str_]
    mts: Ints
    cl: Ints
    sticks: Ints
    ranks: Ints
    gb: NDArray[np.float64]
    registered: NDArray[np.bool_]
    height_level: Ints
    owned: NDArray[np.bool_]


class SlotLayout(NamedTuple):
    """M.2 slots and SATA ports of a board."""

    slots: tuple[Slot, ...]
    ports: int


class Seats(NamedTuple):
    """For each board whether drives find their places, and the lanes that the card has then."""

    fits: NDArray[np.bool_]
    lanes: Ints


@dataclass(frozen=True, kw_only=True)
class BoardArrays:
    """Figures of all candidate boards."""

    socket: NDArray[np.str_]
    memory_type: NDArray[np.str_]
    form: Ints
    slots: Ints
    gb: NDArray[np.float64]
    mts: Ints
    full_mts: Ints
    gen: Ints
    lanes: Ints
    leads: Ints
    outputs: NDArray[np.bool_]
    registered: NDArray[np.bool_]
    unbuffered: NDArray[np.bool_]
    power_level: Ints
    slots_beside: dict[bool, Ints]
    """Slots for adapters, beside a card or without one."""
    wide_beside: dict[bool, Ints]
    """Long ones among these."""
    layout: Ints
    layouts: tuple[SlotLayout, ...]
    sata_taken: int
    cards: Ints
    """Expansion cards that come with each."""
    wide_cards: Ints
    """Those among them that need a long slot."""
    added_w: Ints
    """What the further parts that come with each draw."""
    product: Ints
    """Numbers the boards by their ids, whatever comes with them."""
    screens: Ints
    """What a display costs that its own outputs drive, where one is wanted."""
    starts: dict[str, NDArray[np.bool_]]
    """By family of processors which boards start it as they are bought, where not all do."""

    def seats(self, sticks: tuple[Stick, ...], needed: int) -> Seats:
        """How so many SATA drives on cables and these M.2 drives find their places."""
        needed += self.sata_taken
        seatings = [seated(layout.slots, sticks, layout.ports, needed) for layout in self.layouts]
        fits = np.array(
            [seats is not None and seats.ports_left >= needed for seats in seatings], dtype=bool
        )
        lost = ints(seats.lanes_lost if seats else 0 for seats in seatings)[self.layout]
        lanes = self.lanes
        if lost.any():
            pairs = zip(lanes.tolist(), lost.tolist(), strict=True)
            lanes = ints(lanes_left(before, taken) for before, taken in pairs)
        return Seats(fits[self.layout], lanes)


class Pool:
    """Candidates of every kind, with what the tables read of them as arrays. Fixed drives stand
    apart: others may be added to them.
    """

    def __init__(
        self,
        *,
        processors: KindPool[Processor],
        cards: KindPool[Graphics],
        boards: KindPool[Mainboard],
        kits: KindPool[Memory],
        drives: KindPool[Storage],
        fixed_drives: tuple[Storage, ...],
        fixed_drives_cost: int,
        coolers: KindPool[Cooler],
        supplies: KindPool[PowerSupply],
        cases: KindPool[Case],
        fans: KindPool[Fan],
        splitters: KindPool[FanSplitter],
        fans_there: Mapping[int, int],
        sata_taken: int,
        adapters: int,
        wide_adapters: int,
        added_w: int,
        screens: tuple[Brought | None, ...],
        discs: tuple[Disc, ...],
        floors: Floors,
        new_drives: int = NEW_DRIVES,
    ) -> None:
        self.floors = floors
        self.airflow = Airflow(
            cases.parts,
            zip(fans.parts, fans.cost.tolist(), strict=True),
            fans_there,
            floors.heat_carried,
            floors.owned,
            zip(splitters.parts, splitters.cost.tolist(), strict=True),
        )
        self.processors, self.cards, self.boards, self.kits = processors, cards, boards, kits
        self.drives, self.fixed_drives = drives, fixed_drives
        self.fixed_drives_cost, self.new_drives = fixed_drives_cost, new_drives
        self.coolers, self.supplies, self.cases = coolers, supplies, cases
        rooms_mm = [room_for_memory_mm(cooler) for cooler in coolers.parts]
        self.clearances = Ladder([*rooms_mm, *[LOW_MEMORY_MM] * crowded(cases.parts)])
        """Steps of the room that coolers leave for memory, and radiators over it."""
        self.powers = Ladder(floors.delivers_w(board) for board in boards.parts)
        """Steps of the sustained power that boards deliver."""
        self.sockets = list(dict.fromkeys(sockets_of(board) for board in boards.parts))
        """The boards' power sockets for the processor, each kind once."""
        self.adapters, self.wide_adapters = adapters, wide_adapters
        self.added_w, self.bays_525 = added_w, sata_taken
        self.screens, self.discs = screens, discs
        self.kit_arrays = _kit_arrays(kits.parts, self.clearances, floors)
        families = sorted({chip.firmware_family for chip in processors.parts})
        self.board_arrays = _board_arrays(self, families)
        self.any_slot_mm = min(
            (min(board.m2_lengths_mm) for board in boards.parts if board.m2_lengths_mm),
            default=NO_LIMIT_MM,
        )
        """Length in mm of an M.2 drive that goes into every slot of every board."""


def _kit_arrays(kits: tuple[Memory, ...], clearances: Ladder, floors: Floors) -> KitArrays:
    return KitArrays(
        memory_type=np.array([kit.memory_type for kit in kits], dtype=np.str_),
        mts=ints(kit.mts for kit in kits),
        cl=ints(kit.cl for kit in kits),
        sticks=ints(kit.sticks for kit in kits),
        ranks=ints(kit.ranks for kit in kits),
        gb=np.array([kit.total_gb for kit in kits], dtype=float),
        registered=np.array([kit.registered for kit in kits], dtype=bool),
        height_level=clearances.levels(kit.height_mm for kit in kits),
        owned=np.array([kit.id in floors.owned for kit in kits], dtype=bool),
    )


def _board_arrays(pool: "Pool", families: list[str]) -> BoardArrays:
    boards, floors = pool.boards.parts, pool.floors
    layouts = [
        SlotLayout(tuple(slot._replace(gen=None) for slot in slots_of(board)), board.sata_ports)
        for board in boards
    ]
    index = {layout: i for i, layout in enumerate(dict.fromkeys(layouts))}
    graphics = {False: 0, True: 1 + floors.later.second}
    brings = pool.boards.brings or (NOTHING,) * len(boards)
    shown = [screen is not None for screen in pool.screens] or [True] * len(boards)
    return BoardArrays(
        socket=np.array([socket_key(board.socket) for board in boards], dtype=np.str_),
        memory_type=np.array([board.memory_type for board in boards], dtype=np.str_),
        form=ints(BOARD_FORMS.index(board.form_factor) for board in boards),
        slots=ints(board.memory_slots for board in boards),
        gb=np.array([board.memory_max_gb for board in boards], dtype=float),
        mts=ints(board.memory_max_mts for board in boards),
        full_mts=ints(board.memory_full_mts or 0 for board in boards),
        gen=ints(board.card_pcie_gen for board in boards),
        lanes=ints(board.card_pcie_lanes for board in boards),
        leads=ints(pool.sockets.index(sockets_of(board)) for board in boards),
        outputs=np.array(
            [
                may_show(board) and floors.shown_by(board) and able
                for board, able in zip(boards, shown, strict=True)
            ],
            dtype=bool,
        ),
        registered=np.array([floors.takes_registered(board) for board in boards], dtype=bool),
        unbuffered=np.array([board.unbuffered is not False for board in boards], dtype=bool),
        power_level=pool.powers.rooms(floors.delivers_w(board) for board in boards),
        slots_beside={
            with_card: ints(_slots_beside(board, count, pool.adapters) for board in boards)
            for with_card, count in graphics.items()
        },
        wide_beside={
            with_card: ints(_wide_beside(board, count, pool.wide_adapters) for board in boards)
            for with_card, count in graphics.items()
        },
        layout=ints(index[layout] for layout in layouts),
        layouts=tuple(index),
        sata_taken=pool.bays_525,
        cards=ints(extras.cards for extras in brings),
        wide_cards=ints(extras.wide_cards for extras in brings),
        added_w=ints(extras.watts for extras in brings),
        product=np.unique([board.id for board in boards], return_inverse=True)[1].astype(np.int64),
        screens=ints(
            extras.cost if extras else 0 for extras in pool.screens or (None,) * len(boards)
        ),
        starts={
            family: starts
            for family in families
            if not (
                starts := np.array(
                    [floors.starts_with(family, board) for board in boards], dtype=bool
                )
            ).all()
        },
    )


def _slots_beside(board: Mainboard, cards: int, otherwise: int) -> int:
    """Slots for adapters; what is not stated is taken to suffice for those that are there, and the
    rules say so.
    """
    if board.short_slots is None:
        return otherwise
    return board.short_slots + max(0, (board.card_slots or 0) - cards)


def _wide_beside(board: Mainboard, cards: int, otherwise: int) -> int:
    """Long slots that graphics cards leave, with the same care."""
    return otherwise if board.card_slots is None else max(0, board.card_slots - cards)


def crowded(cases: Iterable[Case]) -> bool:
    """Whether some case states its room above the mainboard, so that a radiator may meet memory."""
    return any(case.above_board_mm is not None for case in cases)


def room_for_memory_mm(cooler: Cooler) -> int | None:
    """Tallest memory beside a cooler, in mm; None where nothing limits it or the limit is not
    known.
    """
    return None if cooler.radiator_mm is not None else cooler.memory_clearance_mm


def fixed_parts(
    catalogue: Catalogue, brief: Brief, build: Build
) -> dict[Kind, list[tuple[Part, int]]]:
    """Parts that stay, with their costs: kept ones at their price (none where they are bought
    later), owned ones that stay free.

    A kept part takes the place of an owned one of its kind, but for drives, which add up: owned
    ones always stay.
    """
    book = catalogue.prices(brief.region, brief.may_buy)
    fixed: dict[Kind, list[tuple[Part, int]]] = {kind: [] for kind in ALL_KINDS}
    owned = list(brief.owned)
    for kind, part_id in build.ids():
        part = _as_set(catalogue.part(part_id), build.tuned)
        if part_id in owned:
            owned.remove(part_id)
            fixed[kind].append((part, 0))
        else:
            cost = 0 if part_id in build.later else book.cost(part_id) or 0
            fixed[kind].append((part, cost))
    if len(fixed["memory"]) > 1:
        together = joined([cast(Memory, part) for part, _ in fixed["memory"]])
        fixed["memory"] = [(cast(Part, together), sum(cost for _, cost in fixed["memory"]))]
    for part_id in owned:
        kind = kind_of(catalogue.part(part_id))
        nailed = part_id in brief.stays or kind not in FREE_KINDS
        if kind == "storage" or (nailed and not fixed[kind]):
            fixed[kind].append((_as_set(catalogue.part(part_id), build.tuned), 0))
    return fixed


def _as_set(part: Part, tunings: Sequence[OwnTuning]) -> Part:
    """A part that is there; a kit as it was noted to run."""
    return set_kit(part, tunings) if isinstance(part, Memory) else part


T = TypeVar("T", Processor, Graphics)


def tunings_there(brief: Brief, build: Build) -> tuple[OwnTuning, ...]:
    """What was noted of parts that are there: owned or kept."""
    there = {*brief.owned, *(part_id for _, part_id in build.ids())}
    tunings = (tuning.of_staying(there) for tuning in build.tuned)
    return tuple(tuning for tuning in tunings if tuning is not None)


H = TypeVar("H", Processor, Mainboard)
