"""A plan: a brief with its build and, perhaps, a pinned build; the document that is stored and
undone.
"""

import json

from pydantic import ValidationError

from wattmetron.core.errors import InvalidError, WattmetronError
from wattmetron.core.values.plan import Plan
from wattmetron.formats.brief_file import (
    BriefFile,
    BuildFile,
    SentFile,
    brief_file,
    brief_from,
    build_file,
    build_from,
    sent_file,
    sent_from,
)


class PlanError(InvalidError):
    """A stored document that is no plan."""


def to_document(plan: Plan) -> str:
    """The stored form of a plan."""
    return json.dumps(
        {
            "brief": brief_file(plan.brief).model_dump(mode="json"),
            "build": build_file(plan.build).model_dump(mode="json"),
            "pinned": (
                None if plan.pinned is None else build_file(plan.pinned).model_dump(mode="json")
            ),
            **(
                {"sent": [sent_file(own).model_dump(mode="json") for own in plan.sent]}
                if plan.sent
                else {}
            ),
        },
        ensure_ascii=False,
    )


def from_document(document: str) -> Plan:
    """The plan of a stored document; raises PlanError for what is none."""
    try:
        data = json.loads(document)
        pinned = data.get("pinned")
        return Plan(
            brief_from(BriefFile.model_validate(data["brief"])),
            build_from(BuildFile.model_validate(data["build"])),
            None if pinned is None else build_from(BuildFile.model_validate(pinned)),
            tuple(sent_from(SentFile.model_validate(own)) for own in data.get("sent") or ()),
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
