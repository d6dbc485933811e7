"""Whose machine was measured: the build of a brief, or one that stands in no brief."""

from dataclasses import dataclass, replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError, NotPossibleError
from wattmetron.core.speeds.speed_scale import Standing, scale_of
from wattmetron.core.values.build import Build
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.runs import Run
from wattmetron.core.values.words import listed
from wattmetron.formats.run_file import run_from
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.named import part_named
from wattmetron.store import stored_runs as store
from wattmetron.workshop.plan_checks import usual_plan
from wattmetron.workshop.workshop import Workshop

MOST_REMEMBERED = 12


@dataclass(frozen=True, slots=True)
class OwnMachine:
    """A machine in no brief: its name, processor id and graphics as chip with memory."""

    name: str
    processor: str
    graphics: str


def machine_keys(catalogue: Catalogue, plan: Plan) -> tuple[str, str]:
    """Processor id, and graphics as chip with memory, of a plan's build; empty for none."""
    scale = scale_of(catalogue)
    processor = plan.build.processor or ""
    graphics = plan.build.graphics
    if graphics is None:
        return processor, scale.of_part.get(processor + " graphics", "")
    return processor, scale.of_part.get(graphics, graphics)


def named_machine(catalogue: Catalogue, name: str, chip: str, card: str) -> OwnMachine:
    """A machine as typed: its name and parts, without a card the graphics of the processor; raises
    BriefError for what is not known.
    """
    if not name.strip():
        raise BriefError("The machine has no name: enter one, such as the room that it stands in.")
    if not chip.strip():
        raise BriefError("The machine has no processor: enter its name as in Parts.")
    build = Build(processor=part_named(catalogue, chip, "processor"))
    if card.strip():
        build = build.with_part("graphics", _card_named(catalogue, card))
    elif not assess(catalogue, usual_plan(catalogue).brief, build).machine.can_draw:
        raise BriefError("That processor draws nothing by itself: enter the graphics card too.")
    whole = replace(usual_plan(catalogue), build=build)
    return OwnMachine(name.strip(), *machine_keys(catalogue, whole))


def chips_on_sale(catalogue: Catalogue) -> tuple[str, ...]:
    """Graphics chips with their memory that cards of the catalogue have, by name."""
    return tuple(sorted(" ".join(chip.name.split()) for chip in _chips(catalogue)))


def _chips(catalogue: Catalogue) -> list[Standing]:
    return [standing for standing in scale_of(catalogue).of("graphics") if standing.part_ids]


def _card_named(catalogue: Catalogue, text: str) -> str:
    """A card by its chip, with its memory where chips of that name differ, or by its own name."""
    typed = set(text.casefold().split())
    matches = [chip for chip in _chips(catalogue) if typed <= set(chip.name.casefold().split())]
    if len(matches) == 1:
        return matches[0].part_ids[0]
    if matches:
        names = listed([standing.name for standing in matches[:6]], "or")
        raise BriefError(f"“{text[:60]}” is more than one graphics chip: choose {names}.")
    return part_named(catalogue, text, "graphics")


def own_machines(workshop: Workshop) -> tuple[OwnMachine, ...]:
    """Machines in no brief that were measured, the latest first."""
    with workshop.database.reading() as session:
        rows = store.runs_of(session, 0)
    machines_by_name: dict[str, OwnMachine] = {}
    for row in rows:
        run = run_from(row.document).run
        machines_by_name.setdefault(
            run.machine, OwnMachine(run.machine, run.processor, run.graphics)
        )
        if len(machines_by_name) == MOST_REMEMBERED:
            break
    return tuple(machines_by_name.values())


def plan_of(workshop: Workshop, catalogue: Catalogue, run: Run) -> Plan:
    """The plan whose machine a run was on; raises where its brief or its parts are gone."""
    if run.brief_id:
        return workshop.open(run.brief_id).plan
    standing = scale_of(catalogue).standing(run.graphics)
    cards = [part for part in standing.part_ids if part in catalogue.parts] if standing else []
    own_graphics = scale_of(catalogue).of_part.get(run.processor + " graphics")
    if run.processor not in catalogue.parts or not (cards or run.graphics == own_graphics):
        raise NotPossibleError("The parts of that machine are no longer in the catalogue.")
    card = None if run.graphics == own_graphics else cards[0]
    usual = usual_plan(catalogue)
    return replace(
        usual,
        brief=replace(usual.brief, name=run.machine),
        build=Build(processor=run.processor, graphics=card),
    )
