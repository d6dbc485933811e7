"""Other work on the machine: what it asks for, and what it takes from the games while it runs.

Assumptions (rules of thumb): streaming takes an eighth of all cores and 3 % of one, voice and a
browser a twentieth and 1 %; editing wants many cores, memory and room, but not while a game runs.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

WorkName = Literal["streaming", "voice and browser", "video editing", "many things open"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Work:
    """A kind of work: shares (0-1) of all cores and of one that it takes beside a game, floors of
    all-core speed in points and of memory in GB, memory and storage in GB that it wants on top.
    """

    all_core_share: float = 0.0
    single_share: float = 0.0
    all_core_floor: float = 0.0
    memory_least_gb: float = 0.0
    memory_more_gb: float = 0.0
    storage_more_gb: float = 0.0


WORKS: dict[WorkName, Work] = {
    "streaming": Work(
        all_core_share=0.125,
        single_share=0.03,
        all_core_floor=60.0,
        memory_more_gb=4.0,
        storage_more_gb=100.0,
    ),
    "voice and browser": Work(all_core_share=0.05, single_share=0.01, memory_more_gb=4.0),
    "video editing": Work(all_core_floor=90.0, memory_least_gb=32.0, storage_more_gb=500.0),
    "many things open": Work(memory_least_gb=32.0),
}


def all_core_floor(works: Iterable[WorkName]) -> float:
    """The least all-core speed T that the work wants, in points."""
    return max((WORKS[work].all_core_floor for work in works), default=0.0)


def with_work_gb(works: Iterable[WorkName], games_gb: float) -> float:
    """Main memory in GB for games that want so much while the work runs, or for the work alone."""
    WORKSs = [WORKS[work] for work in works]
    return max(
        [
            games_gb + sum(work.memory_more_gb for work in WORKSs),
            *(work.memory_least_gb for work in WORKSs),
        ]
    )


def storage_more_gb(works: Iterable[WorkName]) -> float:
    return sum(WORKS[work].storage_more_gb for work in works)


def left_of(works: Iterable[WorkName]) -> tuple[float, float]:
    """Shares of one core's and of all cores' speed that are left to a game while the work runs."""
    single, every = 1.0, 1.0
    for work in works:
        single *= 1 - WORKS[work].single_share
        every *= 1 - WORKS[work].all_core_share
    return single, every
