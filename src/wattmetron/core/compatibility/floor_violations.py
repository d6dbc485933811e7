"""Which floors a whole machine does not reach, each with the field of the brief and a sentence."""

from collections.abc import Iterator

from wattmetron.core.compatibility.extras import besides_missed
from wattmetron.core.compatibility.floors import CORES_BESIDE_A_DEAR_CARD, Floors
from wattmetron.core.compatibility.later_upgrades import (
    against_later,
)
from wattmetron.core.compatibility.leads import CardPlugs, leads_level, sockets_of
from wattmetron.core.compatibility.roles import (
    NVME,
    SOLID,
    DriveNeed,
    Room,
    held_gb,
    of_room,
    served,
    takes_system,
)
from wattmetron.core.power.draw import draw
from wattmetron.core.power.heat import TOO_HOT, case_heat_w
from wattmetron.core.power.noise import cooler_dba, in_play_dba
from wattmetron.core.values.drives import Storage
from wattmetron.core.values.machine import Machine
from wattmetron.core.values.parts import STORAGE_KINDS
from wattmetron.core.values.sockets import same_socket
from wattmetron.core.values.words import counted, with_article


def missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    """The brief's fields whose floors the parts that are there do not reach, each with a
    sentence.
    """
    yield from _amounts_missed(machine, floors)
    yield from besides_missed(machine, floors.besides)
    yield from _later_missed(machine, floors)
    yield from _start_missed(machine, floors)
    yield from _cooling_missed(machine, floors)
    chip, kit, supply = machine.processor, machine.memory, machine.supply
    needed_w = floors.supply_w(draw(machine).full_w)
    if chip and supply and floors.output_w(supply) < needed_w:
        yield (
            "reserve_percent",
            f"{supply.name} gives {supply.watts} W; with headroom and reserve {needed_w} W are"
            " wanted.",
        )
    if chip and chip.threads < floors.threads and chip.id not in floors.owned:
        yield (
            "enough_threads",
            f"{chip.name} has {chip.threads} threads; the brief's games use {floors.threads}.",
        )
    card = machine.graphics
    if chip and card and card.id in floors.dear_cards and floors.has_few_cores(chip):
        yield (
            "enough_threads",
            f"{chip.name} has {counted(chip.cores, 'core')}; {card.name} wants"
            f" {CORES_BESIDE_A_DEAR_CARD} or more beside it.",
        )
    if card and card.id not in floors.owned and not floors.shown_by(card):
        yield "display_driven", f"No output of {card.name} carries the display at its refresh."
    if machine.uses_integrated and machine.mainboard:
        board = machine.mainboard
        if not floors.shown_by(board):
            yield "display_driven", f"No output of {board.name} carries the display at its refresh."
    asks = floors.all_channels and kit and kit.id not in floors.owned
    if asks and chip and kit and kit.sticks < chip.memory_channels:
        yield (
            "all_channels",
            f"{kit.name} leaves channels of {chip.name} empty: {kit.sticks} of"
            f" {chip.memory_channels} in use.",
        )


def _later_missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    board, kit, later = machine.mainboard, machine.memory, floors.later
    if board and kit and floors.later_sticks > board.memory_slots - kit.sticks:
        yield (
            "later_sticks",
            f"{board.name} has {counted(board.memory_slots - kit.sticks, 'memory slot')} left;"
            f" {floors.later_sticks} are to stay free for sticks to come.",
        )
    if machine.missing():
        return
    if later.second and not machine.graphics:
        yield "later_second", "There is no graphics card to have a second like it later."
    sentences = set[str]()
    for field, then in later.machines(machine):
        sentence = "" if field in sentences else _against(then, floors, field)
        if sentence:
            sentences.add(field)
            yield field, sentence


def _against(then: Machine, floors: Floors, field: str) -> str:
    """Why a machine to come does not do; empty where it does."""
    chip, card, supply, case = then.processor, then.graphics, then.supply, then.case
    assert chip and supply and case
    if field == "later_processor":
        name = chip.name
    elif card:
        name = card.name
    else:
        name = ""
    if field == "later_second":
        name = f"a second {name}"
    against = against_later(then, floors.headroom_percent)
    if against:
        return f"{name[:1].upper()}{name[1:]} does not go in later: {against}"
    full_w = draw(then).full_w
    if floors.output_w(supply) < (needed_w := floors.supply_w(full_w)):
        return (
            f"{supply.name} gives {supply.watts} W; with {name} later {needed_w} W with headroom"
            " and reserve are wanted."
        )
    if not floors.card_leads_do(supply, CardPlugs.of(then.cards)):
        return f"Whether {supply.name} has the leads for {name} later is not stated."
    fans_known = case.fans_included is not None
    if floors.heat_carried and fans_known and _carried_w(then, floors) < full_w:
        return f"{case.name} does not carry off the {full_w} W that arise with {name} later."
    if field == "later_second" and then.mainboard and not floors.hosts(then.mainboard):
        return f"{then.mainboard.name} is not known to have a slot for {name}."
    if field != "later_processor":
        return ""
    board, cooler = then.mainboard, then.cooler
    if cooler and not floors.cools(floors.capacity_w(cooler), chip):
        return f"{cooler.name} does not carry {name} later with the reserve."
    if board and (floors.delivers_w(board) or chip.sustained_w) < floors.delivered_w(chip):
        return (
            f"{board.name} delivers {board.processor_w} W; {name} later takes {chip.sustained_w} W."
        )
    if board and not floors.leads_do(supply, sockets_of(board), chip.sustained_w):
        return f"Whether {supply.name} has the leads for {name} later is not stated."
    return ""


def _carried_w(machine: Machine, floors: Floors) -> float:
    """Heat that the case with its fans carries off; an owned one may be heard."""
    assert machine.case is not None
    carried = case_heat_w(machine.case.airflow, machine.fans_placed)
    return carried * (TOO_HOT if machine.case.id in floors.owned else 1)


def broken(machine: Machine, floors: Floors) -> frozenset[str]:
    """The fields of ``missed``."""
    return frozenset(field for field, _ in missed(machine, floors))


def _amounts_missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    kit = machine.memory
    if kit and kit.total_gb < floors.memory_gb and kit.id not in floors.owned:
        yield (
            "memory_gb",
            f"Memory is {kit.total_gb:g} GB; brief and games want {floors.memory_gb:g} GB.",
        )
    if machine.storage:
        yield from _roles_missed(machine.storage, floors.storage)


def _roles_missed(drives: tuple[Storage, ...], need: DriveNeed) -> Iterator[tuple[str, str]]:
    room = held_gb(drives)
    if room.all_gb < need.all_gb:
        yield (
            "storage_gb",
            f"Storage is {room.all_gb:,.0f} GB; {_wanted_by(need)} {need.all_gb:,.0f} GB.",
        )
        need = need._replace(all_gb=0.0)
    if served(drives, need):
        return
    on_anything = need._replace(
        system=Room(need.system.gb), games=of_room(Room(need.games.all_gb)), bulk=Room(need.bulk.gb)
    )
    if served(drives, on_anything):
        yield "solid_state", _kind_missed(drives, need)
    elif need.apart and served(drives, need._replace(apart=False)):
        yield "drives_apart", "System, games and bulk do not have drives of their own."
    elif room.all_gb >= need.system.gb + need.shared.all_gb:
        yield "system_gb", f"No drive has {need.system.gb:,.0f} GB for the system."


def _wanted_by(need: DriveNeed) -> str:
    """What wants so much room in all: the roles together, or the brief where it asks for more."""
    together_gb = need.system.gb + need.shared.all_gb
    return "the brief wants" if need.all_gb > together_gb else "system, games and bulk want"


def _kind_missed(drives: tuple[Storage, ...], need: DriveNeed) -> str:
    if not any(takes_system(drive, need.system) for drive in drives):
        kind = STORAGE_KINDS[need.system.slowest]
        return f"The system wants {need.system.gb:,.0f} GB on {with_article(kind)}; there is none."
    for level in (NVME, SOLID):
        if need.games[level]:
            kind = STORAGE_KINDS[level]
            return (
                f"Games that belong on {with_article(kind)} want {need.games[level]:,.0f} GB on one"
                f" beside the rest; drives of that kind hold {held_gb(drives)[level]:,.0f} GB."
            )
    return f"Bulk wants {need.bulk.gb:,.0f} GB on {with_article(STORAGE_KINDS[need.bulk.slowest])}."


def _start_missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    chip, board = machine.processor, machine.mainboard
    source = machine.graphics or (chip if machine.uses_integrated else None)
    if source and source.id not in floors.staying and not floors.starts_on(source):
        wanted = ", ".join(dict.fromkeys(api.text for api in floors.apis))
        yield "games_start", f"{source.name} is not known to have {wanted}, which games need."
    if chip and board and not floors.starts_with(chip.firmware_family, board):
        yield (
            "starts_as_bought",
            f"{chip.name} starts on {board.name} only after a firmware update that needs another"
            " processor.",
        )
    supply = machine.supply
    if chip and board and supply and same_socket(chip.socket, board.socket):
        sockets = sockets_of(board)
        if leads_level(supply, sockets, chip.sustained_w) != "blocks" and not floors.leads_do(
            supply, sockets, chip.sustained_w
        ):
            yield (
                "starts_as_bought",
                f"Whether {board.name} starts with the processor leads of {supply.name} is not"
                " stated.",
            )
    plugs = CardPlugs.of(machine.cards)
    if supply and plugs.find(supply) and not floors.card_leads_do(supply, plugs):
        yield (
            "starts_as_bought",
            f"Whether an adapter for the leads of {supply.name} comes with"
            f" {machine.cards[0].name} is not stated.",
        )
    kit = machine.memory
    stated = not board or not kit or not kit.registered or board.registered is not None
    if board and not stated and not floors.takes_registered(board):
        yield "starts_as_bought", f"Whether {board.name} takes registered memory is not stated."


def _cooling_missed(machine: Machine, floors: Floors) -> Iterator[tuple[str, str]]:
    chip, cooler, case = machine.processor, machine.cooler, machine.case
    if chip and cooler and not floors.cools(floors.capacity_w(cooler), chip):
        yield (
            "reserve_percent",
            f"{cooler.name} carries {cooler.capacity_w} W; {chip.name} gives off {chip.sustained_w}"
            f" W, and with {floors.cooler_reserve_percent} % reserve"
            f" {floors.cooler_w(chip)} W are wanted.",
        )
    board = machine.mainboard
    if chip and board and (floors.delivers_w(board) or chip.sustained_w) < floors.delivered_w(chip):
        yield (
            "reserve_percent",
            f"{board.name} delivers {board.processor_w} W; {chip.name} takes {chip.sustained_w} W.",
        )
    if chip and not cooler and chip.boxed_cooler_w and floors.liquid:
        yield "cooling", f"The boxed cooler of {chip.name} is an air cooler; liquid is wanted."
    elif chip and not cooler and chip.boxed_cooler_w and not floors.boxed_does(chip):
        yield (
            "boxed_judged",
            f"The boxed cooler of {chip.name} lacks the reserve, or is not known to fit.",
        )
    room_dba = floors.cooler_room_dba(machine.graphics)
    if chip and (cooler or machine.boxed_suffices) and not floors.quiet(cooler, chip, room_dba):
        loud = in_play_dba(machine, machine.graphics.board_power_w if machine.graphics else 0)
        if cooler_dba(cooler, chip) is None or loud is None:
            name = cooler.name if cooler else "the boxed cooler"
            yield (
                "noise_limit_dba",
                f"How loud {name} is is not known; the brief allows {floors.most_dba:g} dB(A).",
            )
        else:
            yield (
                "noise_limit_dba",
                f"About {loud:.0f} dB(A) in play; the brief allows {floors.most_dba:g}.",
            )
    heat = draw(machine).full_w
    if floors.heat_carried and case and chip and case.fans_included is not None:
        carried = case_heat_w(case.airflow, machine.fans_placed)
        if _carried_w(machine, floors) < heat:
            yield (
                "heat_carried",
                f"{case.name} with its fans carries off {carried} W quietly; up to {heat} W arise.",
            )
