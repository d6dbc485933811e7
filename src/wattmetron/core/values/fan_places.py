"""Where fans go in a case: how many places there are, and which sizes each of them takes."""

from collections.abc import Mapping

from wattmetron.core.values.housing import Case

MOST_ADDED = 64
"""No case has room for more; who adds more is told that they find no place."""


def places_for_fans(case: Case) -> int | None:
    """How many fans a case takes; None where it is not known."""
    if case.fan_places is None and case.fan_sizes:
        return len(case.fan_sizes)
    return case.fan_places


def placed(case: Case, added: Mapping[int, int]) -> int:
    """How many fans find a place: those in the box, whose sizes fit, and added ones, counted by
    size in mm. All of them where places are not known.
    """
    included = case.fans_included or 0
    housed = sum(added.values()) - sum(homeless(case, added).values())
    places = places_for_fans(case)
    return included + housed if places is None else min(included + housed, places)


def homeless(case: Case, added: Mapping[int, int]) -> dict[int, int]:
    """Added fans, counted by size in mm, that find no place of their size; nothing where sizes are
    not known. Fans of the box move over to where they fit.
    """
    if not case.fan_sizes:
        return {}
    taken: dict[int, int] = {}
    without: dict[int, int] = {}
    places = [_sizes(index) for index in case.fan_sizes]
    for size_mm, count in sorted(added.items()):
        for number in range(count):
            if number >= MOST_ADDED or not _seat(size_mm, places, taken, set()):
                without[size_mm] = count - number
                break
    return without


def _sizes(sizes_text: str) -> frozenset[int]:
    """The sizes in mm that a place takes: ``120/140``."""
    return frozenset(int(size) for size in sizes_text.split("/") if size.strip().isdecimal())


def _seat(
    size_mm: int, places: list[frozenset[int]], taken: dict[int, int], tried: set[int]
) -> bool:
    """Finds a place for a fan, moving others where they fit elsewhere too."""
    for index, sizes in enumerate(places):
        if size_mm not in sizes or index in tried:
            continue
        tried.add(index)
        if index not in taken or _seat(taken[index], places, taken, tried):
            taken[index] = size_mm
            return True
    return False


def free_for(case: Case, added: Mapping[int, int], size_mm: int) -> int | None:
    """How many more fans of a size find a place; None where places are not known."""
    places = places_for_fans(case)
    if places is None:
        return None
    before, more = placed(case, added), 0
    while more < places:
        then = {**added, size_mm: added.get(size_mm, 0) + more + 1}
        if placed(case, then) != before + more + 1:
            break
        more += 1
    return more
