"""A plan: a brief with its build and, perhaps, a pinned build; the document that is stored and
undone.
"""

import json
from datetime import date
from typing import Annotated, Any

from pydantic import Field, ValidationError

from wattmetron.core.errors import InvalidError, WattmetronError
from wattmetron.core.values.handout import (
    LONGEST_NOTE,
    LONGEST_OPENING,
    MOST_NOTES,
    SECTIONS,
    HandoutChoice,
    Note,
)
from wattmetron.core.values.house import GRADES, LONGEST_GRADE
from wattmetron.core.values.plan import USUAL_HANDOUT, Plan
from wattmetron.core.values.purchases import MOST_MINOR, MOST_PURCHASES, PartPurchase, State
from wattmetron.formats.brief_file import (
    BriefFile,
    BuildFile,
    brief_file,
    brief_from,
    build_file,
    build_from,
    sent_file,
    sent_from,
)
from wattmetron.formats.brief_file_models import Id, SentFile
from wattmetron.formats.declared_fields import Strict
from wattmetron.formats.house_file import HouseFile, house_file, house_from

LONGEST_REASON = 600
PLAN_FORMAT = "wattmetron-plan/1"


class PlanError(InvalidError):
    """A stored document that is no plan."""


class NoteFile(Strict):
    """A builder's note on a part, with what held when it was written."""

    part: Id = Field(description="Part id")
    text: Annotated[str, Field(max_length=LONGEST_NOTE)] = Field(description="The note")
    price_minor: Annotated[int, Field(ge=0, le=MOST_MINOR)] | None = Field(
        None, description="Delivered price then, minor units"
    )
    reason: Annotated[str, Field(max_length=LONGEST_REASON)] = Field(
        "", description="The computed reason then"
    )


class PurchaseFile(Strict):
    """A part as it was bought; money in minor units."""

    part_id: Id
    shop: Annotated[str, Field(max_length=120)]
    state: State
    planned_minor: Annotated[int, Field(ge=0, le=MOST_MINOR)]
    paid_minor: Annotated[int, Field(ge=0, le=MOST_MINOR)]
    times: Annotated[int, Field(ge=1, le=1000)] = 1
    instead: Annotated[str, Field(max_length=80)] = ""
    postage_minor: Annotated[int, Field(ge=0, le=MOST_MINOR)] = 0
    on: date


class HandoutFile(Strict):
    """What is chosen for the handout."""

    opening: Annotated[str, Field(max_length=LONGEST_OPENING)] = ""
    shown: list[str] = Field(default_factory=lambda: list(SECTIONS), max_length=len(SECTIONS))
    notes: list[NoteFile] = Field(default_factory=list, max_length=MOST_NOTES)
    grades: list[Annotated[str, Field(max_length=LONGEST_GRADE)]] = Field(
        default_factory=list, max_length=len(GRADES)
    )


def to_document(plan: Plan) -> str:
    """The stored form of a plan, which is its file as well."""
    document: dict[str, Any] = {
        "format": PLAN_FORMAT,
        "brief": brief_file(plan.brief).model_dump(mode="json"),
        "build": build_file(plan.build).model_dump(mode="json"),
        "pinned": (
            None if plan.pinned is None else build_file(plan.pinned).model_dump(mode="json")
        ),
    }
    if plan.sent:
        document["sent"] = [sent_file(sent_list).model_dump(mode="json") for sent_list in plan.sent]
    if plan.handout != USUAL_HANDOUT:
        document["handout"] = _handout_file(plan.handout).model_dump(mode="json")
    if plan.purchases:
        document["purchases"] = [_purchase_file(purchase) for purchase in plan.purchases]
    if plan.house is not None:
        document["house"] = house_file(plan.house).model_dump(mode="json")
    return json.dumps(document, ensure_ascii=False)


def _handout_file(choice: HandoutChoice) -> HandoutFile:
    notes = [
        NoteFile(
            part=note.part_id, text=note.text, price_minor=note.price_minor, reason=note.reason
        )
        for note in choice.notes
    ]
    return HandoutFile(
        opening=choice.opening, shown=list(choice.shown), notes=notes, grades=list(choice.grades)
    )


def _handout_from(file: HandoutFile) -> HandoutChoice:
    shown = tuple(dict.fromkeys(entry for entry in file.shown if entry in SECTIONS))
    notes = tuple(
        Note(note_file.part, note_file.text, note_file.price_minor, note_file.reason)
        for note_file in file.notes
    )
    return HandoutChoice(file.opening, shown, notes, tuple(dict.fromkeys(file.grades)))


def _purchase_file(purchase: PartPurchase) -> dict[str, Any]:
    return PurchaseFile.model_validate(purchase, from_attributes=True).model_dump(mode="json")


def _purchase_from(entry: Any) -> PartPurchase:
    return PartPurchase(**PurchaseFile.model_validate(entry).model_dump())


def from_document(document: str) -> Plan:
    """The plan of a stored document; raises PlanError for what is none."""
    try:
        data = json.loads(document)
        pinned, house = data.get("pinned"), data.get("house")
        return Plan(
            brief_from(BriefFile.model_validate(data["brief"])),
            build_from(BuildFile.model_validate(data["build"])),
            None if pinned is None else build_from(BuildFile.model_validate(pinned)),
            tuple(sent_from(SentFile.model_validate(entry)) for entry in data.get("sent") or ()),
            _handout_from(HandoutFile.model_validate(data.get("handout") or {})),
            None if house is None else house_from(HouseFile.model_validate(house)),
            tuple(
                _purchase_from(entry) for entry in (data.get("purchases") or ())[:MOST_PURCHASES]
            ),
        )
    except (
        AttributeError,
        KeyError,
        RecursionError,
        TypeError,
        ValidationError,
        ValueError,
        WattmetronError,
    ) as error:
        raise PlanError("What is stored is no brief with its build.") from error


def is_plan(data: bytes) -> bool:
    """Whether a file says that it is a whole plan, of this version or another."""
    try:
        value = json.loads(data)
    except (ValueError, RecursionError):
        return False
    named = value.get("format") if isinstance(value, dict) else None
    return isinstance(named, str) and named.startswith("wattmetron-plan/")


def read_plan(name: str, data: bytes) -> Plan:
    """A plan from the bytes of a JSON file; raises PlanError with what is wrong."""
    if json.loads(data)["format"] != PLAN_FORMAT:
        raise PlanError(
            f"{name} was written by a newer Wattmetron: open it there, or ask for the brief and the"
            " build as files of their own."
        )
    try:
        return from_document(data.decode())
    except (PlanError, UnicodeDecodeError) as error:
        sentence = (
            f"{name} is no brief with its build{_where(error)}: save it again where it came from."
        )
        raise PlanError(sentence) from error


def _where(error: Exception) -> str:
    """The entry that could not be read, where that is known."""
    cause = error.__cause__
    if not isinstance(cause, ValidationError):
        return ""
    first = cause.errors(include_url=False, include_input=False)[0]
    location = " ".join(str(step) for step in first["loc"])
    return f" ({location[:80]}: {first['msg'][:1].lower()}{first['msg'][1:]})"
