"""A brief with everything that belongs to it as one file: out, and in again without loss."""

import json

from pydantic import ValidationError

from wattmetron.core.values.dated import Dated
from wattmetron.formats.plan_file import PlanError, is_plan, read_plan, to_document
from wattmetron.formats.set_file import DatedFile, dated_file, dated_from
from wattmetron.places.handout.house_rules import with_house
from wattmetron.places.handout.sets import dated_snapshot, import_here
from wattmetron.store import snapshots
from wattmetron.workshop.plan_checks import checked_plan
from wattmetron.workshop.workshop import Workshop

MOST_SNAPSHOTS = 100


def whole_document(workshop: Workshop, brief_id: int) -> str:
    """The plan as it is handed over, and the snapshots of its brief, the oldest first."""
    plan = with_house(workshop, workshop.stored_plan(brief_id))
    document = json.loads(to_document(plan))
    dated = [
        dated_snapshot(workshop, snapshot) for snapshot in reversed(workshop.snapshots(brief_id))
    ]
    if dated:
        document["snapshots"] = [
            dated_file(dated_build).model_dump(mode="json") for dated_build in dated
        ]
    return json.dumps(document, ensure_ascii=False) + "\n"


def open_whole(workshop: Workshop, files: list[tuple[str, bytes]]) -> int:
    """Store the brief among these files (name, bytes) with what belongs to it; returns its id."""
    if len(files) != 1 or not is_plan(files[0][1]):
        return workshop.open_files(files)
    name, data = files[0]
    plan = read_plan(name, data)
    checked_plan(workshop.catalogue(), plan.brief, plan.build)
    dated = _snapshots(name, data)
    with workshop.database.writing() as session:
        brief_id = workshop.store(session, plan)
        for dated_build in dated:
            snapshots.freeze(
                session,
                brief_id,
                dated_build.name,
                to_document(dated_build.plan),
                import_here(session, dated_build),
                dated_build.figures,
                dated_build.made_at,
            )
    return brief_id


def _snapshots(name: str, data: bytes) -> list[Dated]:
    documents = json.loads(data).get("snapshots") or []
    try:
        if not isinstance(documents, list) or len(documents) > MOST_SNAPSHOTS:
            raise ValueError
        return [dated_from(DatedFile.model_validate(document)) for document in documents]
    except (ValidationError, PlanError, ValueError) as error:
        sentence = f"The snapshots in {name} cannot be read: save it again where it came from."
        raise PlanError(sentence) from error
