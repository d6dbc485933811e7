"""Briefs and builds as JSON, checked by Pydantic at the edge and turned into core values."""

from collections.abc import Sequence
from dataclasses import asdict
from typing import TYPE_CHECKING, Any, Literal

from pydantic import BaseModel, Field, ValidationError

from wattmetron.core.errors import BuildError
from wattmetron.core.values.brief import (
    BRIEF,
    DISPLAY,
    EXTRA,
    RESALE,
    TARGET,
    Brief,
    Display,
    Extra,
    Resale,
    Target,
)
from wattmetron.core.values.build import Build, OwnTuning, SetAside, StandIn
from wattmetron.core.values.money import to_decimal, to_minor
from wattmetron.core.values.part_kinds import FURTHER_KINDS, Kind
from wattmetron.core.values.preferences import Preference
from wattmetron.core.values.sent_list import Sent
from wattmetron.core.values.wishes import check_brief
from wattmetron.formats.brief_file_models import (
    AsideFile,
    BudgetFile,
    DisplayFile,
    ExtraFile,
    MakerFile,
    PlaceFile,
    PreferenceFile,
    ResaleFile,
    SentFile,
    StandInFile,
    TargetFile,
    TunedFile,
)
from wattmetron.formats.declared_fields import (
    Instead,
    Strict,
    file_model,
    file_values,
    values_of,
)
from wattmetron.formats.json_text import JsonError, bounded, read_json
from wattmetron.formats.problems import FormatError, Problem

MAX_BYTES = 1_000_000
BUILD_FORMAT: Literal["wattmetron-build/1"] = "wattmetron-build/1"


if TYPE_CHECKING:

    class BriefFile(Strict):
        """Stands for the model below where types are checked."""

        def __init__(self, **values: Any) -> None: ...


OWN: Instead = {
    "budget_low_minor": {"budget": (BudgetFile, ...)},
    "budget_high_minor": {},
    "display": {"display": (DisplayFile, DisplayFile())},
}
"""What the file of a brief has in the place of its fields."""
_BRIEF_FILE = file_model(
    Brief,
    "BriefFile",
    {
        Target: TargetFile,
        Extra: ExtraFile,
        Resale: ResaleFile,
        Preference: PreferenceFile,
        tuple[Kind, str]: MakerFile,
    },
    OWN,
    format=(Literal["wattmetron-brief/1"], "wattmetron-brief/1"),
)
"""The models of a brief's file, made from what the fields of a brief declare."""
if not TYPE_CHECKING:
    BriefFile = _BRIEF_FILE


def sent_file(sent: Sent) -> SentFile:
    return SentFile(
        text=sent.text[:300],
        kind=sent.kind,
        part=sent.part,
        quantity=sent.quantity,
        price=None if sent.price_minor is None else to_decimal(sent.price_minor),
        currency=sent.currency,
    )


def sent_from(file: SentFile) -> Sent:
    return Sent(
        text=file.text,
        kind=file.kind,
        part=file.part,
        quantity=file.quantity,
        price_minor=None if file.price is None else to_minor(file.price),
        currency=file.currency,
    )


class BuildFile(Strict):
    """A build: which part stands in which place."""

    format: Literal["wattmetron-build/1"] = BUILD_FORMAT
    parts: list[PlaceFile] = Field(default_factory=list, max_length=60)
    stand_ins: list[StandInFile] = Field(
        default_factory=list, max_length=20, description="Parts that are there only for a time"
    )
    tuned: list[TunedFile] = Field(
        default_factory=list, max_length=4, description="Parts that run as they were measured"
    )
    aside: list[AsideFile] = Field(
        default_factory=list, max_length=40, description="Findings that do not count here"
    )


def brief_from(file: BriefFile) -> Brief:
    """The core value; raises BriefError for what cannot be worked with."""
    document: Any = file
    taken = {target.id for target in document.targets if target.id}
    fresh = (f"t{n}" for n in range(1, 10_000) if f"t{n}" not in taken)
    values = values_of(BRIEF, file, OWN)
    values |= {
        "name": document.name.strip(),
        "work": tuple(dict.fromkeys(document.work)),
        "targets": tuple(
            Target(**values_of(TARGET, target) | {"id": target.id or next(fresh)})
            for target in document.targets
        ),
        "extras": tuple(Extra(**values_of(EXTRA, extra)) for extra in document.extras),
        "resale": tuple(Resale(**values_of(RESALE, entry)) for entry in document.resale),
        "only_of": tuple((entry.kind, entry.maker.strip()) for entry in document.only_of),
        "preferences": tuple(
            dict.fromkeys(
                Preference(entry.wish, entry.value.strip()) for entry in document.preferences
            )
        ),
    }
    brief = Brief(
        budget_low_minor=to_minor(document.budget.low),
        budget_high_minor=to_minor(document.budget.high),
        display=Display(**values_of(DISPLAY, document.display)),
        **values,
    )
    check_brief(brief)
    return brief


def brief_file(brief: Brief) -> BriefFile:
    """The file model of a brief."""
    budget = BudgetFile(
        low=to_decimal(brief.budget_low_minor), high=to_decimal(brief.budget_high_minor)
    )
    values = file_values(BRIEF, brief, OWN)
    values |= {
        "targets": [TargetFile(**file_values(TARGET, target)) for target in brief.targets],
        "extras": [ExtraFile(**file_values(EXTRA, extra)) for extra in brief.extras],
        "resale": [ResaleFile(**file_values(RESALE, entry)) for entry in brief.resale],
        "only_of": [MakerFile(kind=kind, maker=maker) for kind, maker in brief.only_of],
        "preferences": [
            PreferenceFile(wish=entry.wish, value=entry.value) for entry in brief.preferences
        ],
    }
    return BriefFile(
        budget=budget, display=DisplayFile(**file_values(DISPLAY, brief.display)), **values
    )


def build_from(file: BuildFile) -> Build:
    """The core value; raises BuildError where a place is taken twice."""
    build = Build()
    for entry in file.parts:
        if entry.kind not in ("storage", "memory", "graphics", *FURTHER_KINDS) and build.of(
            entry.kind
        ):
            raise BuildError(f"The build has two parts of the kind {entry.kind}: keep one of them.")
        if entry.kind == "memory":
            build = build.with_kit(entry.part)
        elif entry.kind == "graphics":
            build = build.beside(entry.part)
        else:
            build = build.with_part(entry.kind, entry.part)
        if entry.keep:
            build = build.keeping(entry.part, True)
        if entry.later:
            build = build.buying_later(entry.part, True)
    for stand_in_file in file.stand_ins:
        build = build.standing_in(
            StandIn(stand_in_file.part, stand_in_file.until, to_minor(stand_in_file.resale))
        )
    for tuned in file.tuned:
        build = build.running(_tuning(tuned))
    for aside_file in file.aside:
        build = build.setting_aside(
            SetAside(aside_file.rule, tuple(aside_file.parts), aside_file.reason)
        )
    return build


def _tuning(file: TunedFile) -> OwnTuning:
    document = file.model_dump()
    return OwnTuning(**document | {"beside": tuple(document["beside"])})


def build_file(build: Build) -> BuildFile:
    """The file model of a build; of stand-ins those whose part is still there."""
    there = {part_id for _, part_id in build.ids()}
    return BuildFile(
        parts=[
            PlaceFile(
                kind=kind, part=part_id, keep=part_id in build.kept, later=part_id in build.later
            )
            for kind, part_id in build.ids()
        ],
        stand_ins=[
            StandInFile(
                part=stand_in.part, until=stand_in.until, resale=to_decimal(stand_in.resale_minor)
            )
            for stand_in in build.stand_ins
            if stand_in.part in there
        ],
        tuned=[TunedFile(**asdict(tuning)) for tuning in build.tuned if tuning.part in there],
        aside=[
            AsideFile(rule=aside.rule, parts=list(aside.parts), reason=aside.reason)
            for aside in build.aside
        ],
    )


def read_brief(name: str, data: bytes) -> Brief:
    """A brief from the bytes of a JSON file; raises FormatError or BriefError."""
    return brief_from(_read(BriefFile, name, data))


def read_build(name: str, data: bytes) -> Build:
    """A build from the bytes of a JSON file; raises FormatError or BuildError."""
    return build_from(_read(BuildFile, name, data))


def read_documents(files: Sequence[tuple[str, bytes]]) -> tuple[Brief, Build]:
    """One brief and at most one build from files (name, bytes), told apart by their ``format``."""
    briefs, builds = [], []
    for name, data in files:
        if _names_build(data):
            builds.append(read_build(name, data))
        else:
            briefs.append(read_brief(name, data))
    if len(briefs) != 1 or len(builds) > 1:
        names = ", ".join(name for name, _ in files) or "no file"
        counted = f"{len(briefs)} briefs and {len(builds)} builds"
        raise FormatError(
            [
                Problem(
                    file=names,
                    line=None,
                    column="",
                    actual=counted,
                    expected="one brief and at most one build",
                )
            ]
        )
    return briefs[0], builds[0] if builds else Build()


def _names_build(data: bytes) -> bool:
    """Whether a file says that it is a build; what cannot be read is left to the reader of
    briefs.
    """
    try:
        document = read_json(data[:MAX_BYTES])
    except JsonError:
        return False
    return isinstance(document, dict) and document.get("format") == BUILD_FORMAT


def document_text(file: BaseModel) -> str:
    """A brief or build as the text of a file."""
    return file.model_dump_json(indent=2) + "\n"


def _read(kind: Any, name: str, data: bytes) -> Any:
    if len(data) > MAX_BYTES:
        raise FormatError(
            [
                Problem(
                    file=name,
                    line=None,
                    column="",
                    actual=f"{len(data) / 1e6:,.0f} MB",
                    expected="at most 1 MB",
                )
            ]
        )
    try:
        return kind.model_validate_json(bounded(name, data))
    except ValidationError as error:
        raise FormatError(
            [problem_of(name, problem) for problem in error.errors(include_url=False)]
        ) from error


def problem_of(name: str, error: Any) -> Problem:
    """One validation error in our words."""
    location = " › ".join(
        str(step + 1) if isinstance(step, int) else str(step) for step in error["loc"]
    )
    shown = "no such value" if error["type"] == "missing" else f"“{str(error['input'])[:60]}”"
    return Problem(
        file=name, line=None, column=location, actual=shown, expected=error["msg"].lower()
    )
