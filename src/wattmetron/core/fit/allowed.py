"""Which parts a brief lets be bought: its personal rules, one by one."""

from collections.abc import Iterator
from typing import Literal

from wattmetron.core.values.brief import GROWING_M2, GROWING_SLOTS, Brief
from wattmetron.core.values.further_parts import Fan, WirelessAdapter
from wattmetron.core.values.kinds import kind_of
from wattmetron.core.values.other_work import all_core_floor
from wattmetron.core.values.parts import Case, Cooler, Mainboard, Part, Processor
from wattmetron.core.values.trust import TRUST_FLOORS, trust_of

PersonalRule = Literal[
    "part price cap",
    "trust floor",
    "banned part",
    "maker",
    "other maker",
    "colour",
    "noise",
    "size",
    "wireless",
    "room to grow",
    "tuned clocks",
    "other work",
]


def bars(
    brief: Brief, part: Part, cost_minor: int, stays: tuple[Part, ...] = ()
) -> Iterator[PersonalRule]:
    """The brief's rules that keep a part from being bought at this price; none where it is allowed.

    Colour and noise count only where they are known. Among the parts that stay in any case, a
    wireless adapter does what the mainboard would, and one whose clocks cannot be set ends the wish
    for tuned clocks.
    """
    if brief.part_cap_minor is not None and cost_minor > brief.part_cap_minor:
        yield "part price cap"
    if part.id in brief.banned:
        yield "banned part"
    if part.maker in brief.no_makers:
        yield "maker"
    if (
        any(kind == kind_of(part) for kind, _ in brief.only_of)
        and (kind_of(part), part.maker) not in brief.only_of
    ):
        yield "other maker"
    if brief.colour and part.colour and part.colour != brief.colour:
        yield "colour"
    yield from _of_kind(brief, part, stays)
    if trust_of(part) not in TRUST_FLOORS[brief.trust_floor]:
        yield "trust floor"


def _of_kind(brief: Brief, part: Part, stays: tuple[Part, ...]) -> Iterator[PersonalRule]:
    loudest, largest = brief.noise_limit_dba, brief.volume_limit_l
    if (
        loudest is not None
        and isinstance(part, (Cooler, Fan))
        and part.noise_dba is not None
        and part.noise_dba > loudest
    ):
        yield "noise"
    if largest is not None and isinstance(part, Case) and part.volume_l > largest:
        yield "size"
    if (
        isinstance(part, Mainboard)
        and brief.wireless
        and not part.wireless
        and not any(isinstance(one, WirelessAdapter) for one in stays)
    ):
        yield "wireless"
    if (
        isinstance(part, Mainboard)
        and brief.room_to_grow
        and (part.memory_slots < GROWING_SLOTS or part.m2_slots < GROWING_M2)
    ):
        yield "room to grow"
    if isinstance(part, Processor) and part.all_core_speed < all_core_floor(brief.work):
        yield "other work"
    if brief.clocks == "tuned" and not clocks_set(part) and all(clocks_set(one) for one in stays):
        yield "tuned clocks"


def clocks_set(part: Part) -> bool:
    """Whether a part does not stand in the way of a tuned processor, as a chip or board whose
    clocks are fixed does.
    """
    if isinstance(part, Processor):
        return part.tunable
    return not isinstance(part, Mainboard) or part.tuning
