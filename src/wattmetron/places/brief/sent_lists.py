"""From a sent list to a build: parts put in their places, and the taste that they show."""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError, BuildError
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.core.values.brief import Brief
from wattmetron.core.values.build import MAX_ADDED, MAX_DRIVES, MAX_KITS, Build
from wattmetron.core.values.further_parts import Fan
from wattmetron.core.values.housing import Case, Cooler
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.part_kinds import FURTHER_KINDS, KIND_NAMES
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.parts import Part
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.preferences import Preference
from wattmetron.core.values.sent_list import Sent
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.brief_edits import Edited, own

LEAST_OF_A_COLOUR = 2


@dataclass(frozen=True, slots=True)
class ImportedLine:
    """A line of a list as it is to be taken; ``owned``: the part is there already."""

    sent: Sent
    owned: bool = False


@dataclass(frozen=True, slots=True)
class Taste:
    """A preference that a list shows, with what shows it."""

    preference: Preference
    shown_by: str


def placed(catalogue: Catalogue, lines: Iterable[ImportedLine]) -> tuple[Build, tuple[str, ...]]:
    """A build of the known parts of a list, and in sentences what had no place in it."""
    build, sentences = Build(), list[str]()
    for line in lines:
        if line.sent.part is None:
            continue
        part = catalogue.part(line.sent.part)
        left = line.sent.quantity
        for _ in range(line.sent.quantity):
            try:
                build = _with(build, part)
            except BuildError:
                break
            left -= 1
        if left and line.sent.quantity:
            sentences.append(_no_place(part, left, line.sent.quantity))
    return build, tuple(sentences)


def _with(build: Build, part: Part) -> Build:
    """The build with one more part; raises BuildError where it has no place."""
    kind = kind_of(part)
    if kind == "memory":
        return build.with_kit(part.id)
    if kind == "graphics":
        return build.beside(part.id)
    if kind != "storage" and kind not in FURTHER_KINDS and build.of(kind):
        raise BuildError("There is one already.")
    return build.with_part(kind, part.id)


def _no_place(part: Part, left: int, wanted: int) -> str:
    kind = kind_of(part)
    if kind in ("memory", "storage", "graphics"):
        most = {"memory": f"{MAX_KITS} kits", "storage": f"{MAX_DRIVES} drives"}
        limit = most.get(kind, "2 cards")
        return f"{left} of {wanted} {part.name} left out: a build holds at most {limit}."
    if kind in FURTHER_KINDS:
        return (
            f"{left} of {wanted} {part.name} left out: a build holds at most {MAX_ADDED} parts"
            " besides the eight kinds."
        )
    return (
        f"{part.name} was left out: the list has more than one {KIND_NAMES[kind]}. Swap it in, or"
        " keep it in a brief of its own."
        if left == wanted
        else f"One {part.name} of {wanted} was taken: a build has one {KIND_NAMES[kind]}."
    )


def with_list(
    catalogue: Catalogue, plan: Plan, lines: Sequence[ImportedLine], tastes: Sequence[Taste]
) -> Plan:
    """A plan with the parts of a list as its build, what is owned and the taste in its brief."""
    build, _ = placed(catalogue, lines)
    owned = [line.sent.part for line in lines if line.owned and line.sent.part]
    brief = replace(
        plan.brief,
        owned=tuple(dict.fromkeys((*plan.brief.owned, *owned))),
        preferences=tuple(
            dict.fromkeys((*plan.brief.preferences, *(taste.preference for taste in tastes)))
        ),
    )
    return replace(plan, brief=brief, build=build, sent=tuple(line.sent for line in lines))


def own_all(plan: Plan, text: str, catalogue: Catalogue) -> Edited:
    """Say that all parts of a list are there already; raises BriefError where a line is not sure,
    so that nothing is taken for another part.
    """
    sent_parts = read_list(catalogue, text).parts
    if not sent_parts:
        raise BriefError("The list names no part of the catalogue: write one part in a line.")
    unsure = [sent_part.text for sent_part in sent_parts if not sent_part.sure]
    if unsure:
        raise BriefError(
            "It is not sure which part is meant by"
            f" {listed([f'“{name[:60]}”' for name in unsure])}:"
            " write the whole name, or leave it out."
        )
    names = []
    for line in sent_parts:
        assert line.best is not None
        plan, sentence = own(plan, line.best.part_id, True, catalogue)
        if sentence != "nothing":
            names.append(catalogue.part(line.best.part_id).name)
    if not names:
        return plan, "nothing"
    return plan, f"{listed(names)} {'is' if len(names) == 1 else 'are'} owned"


def tastes_of(catalogue: Catalogue, brief: Brief, part_ids: Iterable[str]) -> tuple[Taste, ...]:
    """What a list shows of taste: a colour that several parts share, liquid cooling, lights or
    none, wireless; never what the brief says itself.
    """
    parts = [
        catalogue.parts[part_id]
        for part_id in dict.fromkeys(part_ids)
        if part_id in catalogue.parts
    ]
    tastes = []
    colours = Counter(part.colour for part in parts if part.colour)
    for colour, count in colours.most_common(1):
        if count >= LEAST_OF_A_COLOUR and not brief.colour:
            shown = listed([part.name for part in parts if part.colour == colour])
            tastes.append(Taste(Preference("colour", colour), f"{shown} are {colour}"))
    liquid = [part.name for part in parts if isinstance(part, Cooler) and part.radiator]
    if liquid and brief.cooling == "any":
        tastes.append(Taste(Preference("cooling", "liquid"), f"{liquid[0]} is a liquid cooler"))
    if not brief.no_lights:
        tastes += _lights(parts)
    wireless = [part.name for part in parts if kind_of(part) == "wireless"]
    if wireless and not brief.wireless:
        tastes.append(Taste(Preference("wireless"), f"{wireless[0]} is on the list"))
    return tuple(tastes)


def _lights(parts: Sequence[Part]) -> Iterator[Taste]:
    """Lights where the case has some; none where case and memory are there and nothing lights
    up.
    """
    may = [part for part in parts if isinstance(part, Memory | Case | Fan)]
    lit = [part for part in may if part.lights]
    kinds = {kind_of(part) for part in may}
    if any(isinstance(part, Case) for part in lit):
        shown = listed([part.name for part in lit])
        yield Taste(Preference("lights_wanted"), f"{shown} light{'s' if len(lit) == 1 else ''} up")
    elif not lit and {"case", "memory"} <= kinds:
        yield Taste(
            Preference("no_lights"), f"{listed([part.name for part in may])} have no lights"
        )
