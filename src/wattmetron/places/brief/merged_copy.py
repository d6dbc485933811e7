"""A copy of a plan that came back changed: its differences as proposals, each taken or left."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Any

from wattmetron.core.balance.upgrade_order import (
    PartChange,
    changes_between,
    steps_between,
    with_changes,
)
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import BRIEF, Brief, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.declared import Declared
from wattmetron.core.values.handout import HandoutChoice, Note
from wattmetron.core.values.part_kinds import KIND_NAMES
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.brief_edits import Edited
from wattmetron.places.assessment.differences import field_words
from wattmetron.words.figures import THIN, money_range, settings

MONEY = ("budget_low_minor", "budget_high_minor")
OF_PARTS = frozenset({"owned", "stays", "banned"})
APART = frozenset({*MONEY, "targets"})


@dataclass(frozen=True, slots=True)
class Proposed:
    """One difference: what it is about, how it is here and how it came back, and the plan with
    it.
    """

    about: str
    here: str
    theirs: str
    take: Callable[[Plan], Plan]


def proposed(catalogue: Catalogue, plan: Plan, theirs: Plan) -> tuple[Proposed, ...]:
    """Every difference between a plan and a copy of it: brief, targets, parts, handout."""
    return (
        *_brief(catalogue, plan.brief, theirs.brief),
        *_targets(catalogue, plan.brief, theirs.brief),
        *_parts(catalogue, plan, theirs),
        *_marks(catalogue, plan.build, theirs.build),
        *_handout(catalogue, plan.handout, theirs.handout),
    )


def taking(plan: Plan, proposals: Iterable[Proposed]) -> Plan:
    """The plan with these differences taken over."""
    for proposal in proposals:
        plan = proposal.take(plan)
    return plan


def take_over(catalogue: Catalogue, plan: Plan, theirs: Plan, left: frozenset[int]) -> Edited:
    """Take all differences over but those whose places are left."""
    proposals = proposed(catalogue, plan, theirs)
    taken = [proposal for n, proposal in enumerate(proposals) if n not in left]
    if not taken:
        return plan, "nothing"
    abouts = listed([proposal.about for proposal in taken[:5]])
    more = f" and {len(taken) - 5} more" if len(taken) > 5 else ""
    return taking(plan, taken), f"took over {abouts}{more} from the copy"


def _brief(catalogue: Catalogue, here: Brief, theirs: Brief) -> Iterator[Proposed]:
    currency = catalogue.region(here.region).currency
    ranges = [(brief.budget_low_minor, brief.budget_high_minor) for brief in (here, theirs)]
    if ranges[0] != ranges[1]:
        words = [money_range(*range_minor, currency) for range_minor in ranges]
        yield Proposed("budget", words[0], words[1], _with_fields(theirs, MONEY))
    for field in BRIEF:
        values = getattr(here, field.name), getattr(theirs, field.name)
        if field.name in APART or values[0] == values[1]:
            continue
        before, after = (_value(catalogue, field, value, currency) for value in values)
        yield Proposed(field.spec.words, before, after, _with_fields(theirs, (field.name,)))


def _with_fields(theirs: Brief, names: tuple[str, ...]) -> Callable[[Plan], Plan]:
    changes: dict[str, Any] = {name: getattr(theirs, name) for name in names}
    return lambda plan: replace(plan, brief=replace(plan.brief, **changes))


def _value(catalogue: Catalogue, field: Declared, value: Any, currency: str) -> str:
    if field.name == "region":
        return catalogue.region(value).name
    if field.name in OF_PARTS:
        return listed([_name(catalogue, part_id) for part_id in value]) or "none"
    if field.name == "display":
        return f"{value.width_px}x{value.height_px}, {value.refresh_hz:g}{THIN}Hz"
    if field.several and value and not isinstance(value[0], str):
        return f"{len(value)} {'entry' if len(value) == 1 else 'entries'}"
    if field.name in ("name", "notes"):
        return str(value) or "nothing"
    return field_words(field, value, currency)


def _name(catalogue: Catalogue, part_id: str) -> str:
    return catalogue.parts[part_id].name if part_id in catalogue.parts else part_id


def _targets(catalogue: Catalogue, here: Brief, theirs: Brief) -> Iterator[Proposed]:
    mine = {target.id: target for target in here.targets}
    other = {target.id: target for target in theirs.targets}
    for key in dict.fromkeys((*mine, *other)):
        before, after = mine.get(key), other.get(key)
        if before == after:
            continue
        game = catalogue.games.get((after or before or here.targets[0]).game_id)
        about = f"target {game.name}" if game else "target"
        yield Proposed(
            about, _target(before), _target(after), _with_target(key, after, tuple(other))
        )


def _target(target: Target | None) -> str:
    if target is None:
        return "not there"
    low = " low" if target.measure == "low" else ""
    return f"{settings(target)}, {target.fps:g}{THIN}fps{low}, weight {target.weight}"


def _with_target(key: str, target: Target | None, order: tuple[str, ...]) -> Callable[[Plan], Plan]:
    """Put a target in, in the place that it has in the copy, or take it out."""

    def take(plan: Plan) -> Plan:
        merged_targets = [target if old.id == key else old for old in plan.brief.targets]
        if target is not None and target not in merged_targets:
            before = order[: order.index(key)]
            merged_targets.insert(
                max(
                    (n for n, old in enumerate(merged_targets, 1) if old and old.id in before),
                    default=0,
                ),
                target,
            )
        targets = tuple(target for target in merged_targets if target is not None)
        return replace(plan, brief=replace(plan.brief, targets=targets))

    return take


def _parts(catalogue: Catalogue, plan: Plan, theirs: Plan) -> Iterator[Proposed]:
    """Changes of the build; those that only make a machine together are one proposal."""
    steps = None
    if plan.build.processor and plan.build.mainboard:
        steps = steps_between(catalogue, plan.brief, plan.build, theirs.build)
    groups = (
        [(change,) for change in changes_between(plan.build, theirs.build)]
        if steps is None
        else [step.changes for step in steps]
    )
    for changes in groups:
        kinds = dict.fromkeys(kind for change in changes for kind in change.kinds)
        seen = [kind for kind in kinds if plan.build.of(kind) != theirs.build.of(kind)]
        yield Proposed(
            listed([KIND_NAMES[kind] for kind in seen]) or "number of parts",
            _names(catalogue, (change.left for change in changes)),
            _names(catalogue, (change.bought for change in changes)),
            _with_parts(theirs, changes),
        )


def _names(catalogue: Catalogue, ids: Iterable[tuple[str, ...]]) -> str:
    return listed([_name(catalogue, part_id) for several in ids for part_id in several]) or "none"


def _with_parts(theirs: Plan, changes: tuple[PartChange, ...]) -> Callable[[Plan], Plan]:
    return lambda plan: replace(plan, build=with_changes(plan.build, theirs.build, changes))


def _marks(catalogue: Catalogue, here: Build, theirs: Build) -> Iterator[Proposed]:
    """What is said of parts: which stay, which are bought later, findings set aside, stand-ins."""
    if _marked(here) != _marked(theirs):
        yield Proposed(
            "what is kept, bought later or set aside",
            _mark_words(catalogue, here),
            _mark_words(catalogue, theirs),
            lambda plan: replace(plan, build=_with_marks(plan.build, theirs)),
        )


def _marked(build: Build) -> tuple[object, ...]:
    return build.kept, build.later, build.aside, build.stand_ins, build.tuned


def _mark_words(catalogue: Catalogue, build: Build) -> str:
    sentences = [
        f"{words} {_names(catalogue, [tuple(sorted(ids))])}"
        for words, ids in (("kept:", build.kept), ("later:", build.later))
        if ids
    ]
    if build.aside:
        sentences.append(f"{len(build.aside)} set aside")
    if build.stand_ins:
        sentences.append(f"{len(build.stand_ins)} with assumed figures")
    if build.tuned:
        sentences.append(f"{len(build.tuned)} as measured")
    return "; ".join(sentences) or "nothing"


def _with_marks(build: Build, theirs: Build) -> Build:
    there = {part_id for _, part_id in build.ids()}
    return replace(
        build,
        kept=theirs.kept & there,
        later=theirs.later & there,
        aside=theirs.aside,
        stand_ins=theirs.stand_ins,
        tuned=theirs.tuned,
    )


def _handout(
    catalogue: Catalogue, here: HandoutChoice, theirs: HandoutChoice
) -> Iterator[Proposed]:
    if here.opening != theirs.opening:
        yield Proposed(
            "the handout's opening",
            here.opening or "nothing",
            theirs.opening or "nothing",
            lambda plan: replace(plan, handout=replace(plan.handout, opening=theirs.opening)),
        )
    if (here.shown, here.grades) != (theirs.shown, theirs.grades):
        yield Proposed(
            "what the handout shows",
            _shown(here),
            _shown(theirs),
            lambda plan: replace(
                plan, handout=replace(plan.handout, shown=theirs.shown, grades=theirs.grades)
            ),
        )
    for part_id in dict.fromkeys(note.part_id for note in (*here.notes, *theirs.notes)):
        before, after = here.note_on(part_id), theirs.note_on(part_id)
        texts = [note.text if note else "" for note in (before, after)]
        if texts[0] != texts[1]:
            yield Proposed(
                f"the note on {_name(catalogue, part_id)}",
                texts[0] or "none",
                texts[1] or "none",
                _with_note(after or Note(part_id, "")),
            )


def _shown(handout_choice: HandoutChoice) -> str:
    grades = f", {listed(list(handout_choice.grades))}" if handout_choice.grades else ""
    return f"{len(handout_choice.shown)} sections{grades}"


def _with_note(note: Note) -> Callable[[Plan], Plan]:
    return lambda plan: replace(plan, handout=plan.handout.with_note(note))
