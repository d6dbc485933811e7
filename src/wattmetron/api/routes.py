"""The API: the same use cases for programs, described by OpenAPI at /api/v1/openapi.json."""

from typing import Annotated, Any

from fastapi import APIRouter, Body, Request
from pydantic import BaseModel, Field

from wattmetron.core.game_fit.informed import informed_game
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.search.answer import Aim
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values.brief import SURENESS, Sureness
from wattmetron.core.values.offers import Buys
from wattmetron.core.values.plan import Plan
from wattmetron.formats.brief_file import (
    BriefFile,
    BuildFile,
    brief_file,
    brief_from,
    build_file,
    build_from,
)
from wattmetron.formats.catalogue_writing import requirements_of
from wattmetron.formats.columns import columns_of
from wattmetron.formats.problems import FormatError, Problem
from wattmetron.formats.requirements_file import RequirementsFile
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.part_alternatives import alternatives
from wattmetron.places.balance.balance_answers import balance_json
from wattmetron.places.games.contenders import machine_contender, typed_contender
from wattmetron.places.games.game_answers import alternatives_json, draft_json, verdict_json
from wattmetron.places.games.library import known_games
from wattmetron.places.games.publishing import game_state, publish
from wattmetron.places.proposal.proposal_answers import (
    assessment_json,
    check_json,
    estimate_json,
    proposal_json,
)
from wattmetron.places.proposal.proposals import answer
from wattmetron.shell.json_request import JsonRoute, PatientJsonRoute
from wattmetron.shell.requests import workshop_of
from wattmetron.workshop.plan_checks import checked_plan

router = APIRouter(prefix="/api/v1", route_class=JsonRoute)
questions = APIRouter(prefix="/api/v1", route_class=PatientJsonRoute)
"""What changes nothing, and may have to wait in line for its answer."""


class ApiQuestion(BaseModel):
    """A brief with a build."""

    brief: BriefFile
    build: BuildFile = Field(default_factory=BuildFile)


class ProposalQuestion(ApiQuestion):
    """A brief, a build whose kept parts stay, and the aim."""

    aim: Aim = "most frames"


class StoredBrief(ApiQuestion):
    """A stored brief with the version that a change must name."""

    id: int
    version: int


class Replacement(ApiQuestion):
    """A brief and build to store in place of a version."""

    version: int


class StoredRequirements(BaseModel):
    """What a game publishes, with the version that a change must name."""

    version: int
    requirements: RequirementsFile


class Pasted(BaseModel):
    """A text to read."""

    text: str = Field(max_length=100_000)


class VerdictQuestion(BaseModel):
    """A build or loose parts, and the games to measure against; no games: all that publish."""

    build: BuildFile = Field(default_factory=BuildFile)
    parts: str = Field("", max_length=400, description="Loose parts as text, instead of a build")
    system: str = Field("", max_length=120, description="Operating system that will run")
    games: list[str] = Field(default_factory=list, max_length=5000)
    sureness: Sureness = "likely"


def _stored(request: Request, brief_id: int) -> StoredBrief:
    opened = workshop_of(request).open(brief_id)
    return StoredBrief(
        id=opened.id,
        version=opened.version,
        brief=brief_file(opened.plan.brief),
        build=build_file(opened.plan.build),
    )


@router.get("/briefs")
def list_briefs(request: Request) -> list[StoredBrief]:
    """All briefs."""
    return [
        StoredBrief(
            id=row.id,
            version=row.version,
            brief=brief_file(row.plan.brief),
            build=build_file(row.plan.build),
        )
        for row in workshop_of(request).briefs()
    ]


@router.post("/briefs", status_code=201)
def create_brief(request: Request, question: ApiQuestion) -> StoredBrief:
    """Store a new brief."""
    plan = _plan(request, question)
    return _stored(request, workshop_of(request).create(plan))


@router.get("/briefs/{brief_id}")
def get_brief(request: Request, brief_id: int) -> StoredBrief:
    """One brief with its build and version."""
    return _stored(request, brief_id)


@router.put("/briefs/{brief_id}")
def replace_brief(request: Request, brief_id: int, replacement: Replacement) -> StoredBrief:
    """Replace a brief; 409 where the version is not the present one."""
    plan = _plan(request, replacement)
    workshop_of(request).change(
        brief_id,
        replacement.version,
        lambda old: (Plan(plan.brief, plan.build, old.pinned), "replaced by the API"),
    )
    return _stored(request, brief_id)


@router.delete("/briefs/{brief_id}", status_code=204)
def delete_brief(request: Request, brief_id: int, version: int) -> None:
    """Delete a brief; undo with the next version brings it back."""
    workshop_of(request).delete(brief_id, version)


@router.post("/briefs/{brief_id}/undo")
def undo(request: Request, brief_id: int, version: int) -> dict[str, str]:
    """Take the last change back; 409 where the version is not the present one."""
    return {"undone": workshop_of(request).undo(brief_id, version)}


@router.post("/briefs/{brief_id}/redo")
def redo(request: Request, brief_id: int, version: int) -> dict[str, str]:
    """Make the change again that was undone last; 409 where the version is not the present one."""
    return {"redone": workshop_of(request).redo(brief_id, version)}


@questions.post("/propose")
def propose(request: Request, question: ProposalQuestion) -> dict[str, Any]:
    """The best build for a brief, with the account of why."""
    catalogue = workshop_of(request).catalogue()
    plan = _plan(request, question)
    return proposal_json(catalogue, answer(catalogue, plan.brief, plan.build, question.aim))


@questions.post("/estimate")
def estimate(request: Request, question: ApiQuestion) -> dict[str, Any]:
    """How a build runs each target."""
    plan = _plan(request, question)
    return estimate_json(assess(workshop_of(request).catalogue(), plan.brief, plan.build))


@questions.post("/check")
def check(request: Request, question: ApiQuestion) -> dict[str, Any]:
    """Findings about a build, with remedies."""
    catalogue = workshop_of(request).catalogue()
    plan = _plan(request, question)
    return check_json(catalogue, assess(catalogue, plan.brief, plan.build))


@questions.post("/assess")
def assess_build(request: Request, question: Annotated[ApiQuestion, Body()]) -> dict[str, Any]:
    """Money, frames, fit and power of a build."""
    catalogue = workshop_of(request).catalogue()
    plan = _plan(request, question)
    return assessment_json(catalogue, assess(catalogue, plan.brief, plan.build))


@questions.post("/balance")
def balance(request: Request, question: ApiQuestion) -> dict[str, Any]:
    """Where a build's money goes, what it could buy instead, and the most for every amount of
    money.
    """
    catalogue = workshop_of(request).catalogue()
    plan = _plan(request, question)
    return balance_json(catalogue, assess(catalogue, plan.brief, plan.build))


@questions.get("/games")
def list_games(request: Request) -> list[dict[str, Any]]:
    """Games of the current catalogue, with how many tiers they publish."""
    catalogue = workshop_of(request).catalogue()
    return [
        {
            "id": game.id,
            "name": game.name,
            "genre": game.genre,
            "released": None if game.released is None else game.released.isoformat(),
            "tiers": len(tiers_of(catalogue).of_game(game.id)),
        }
        for game in catalogue.games.values()
    ]


@questions.get("/games/{game_id}/requirements")
def get_requirements(request: Request, game_id: str) -> StoredRequirements:
    """What a game publishes, with the version that a change must name (0: nothing yet)."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    informed_game(catalogue, game_id)
    file = requirements_of(catalogue, [game_id])
    return StoredRequirements(version=game_state(workshop, game_id).version, requirements=file)


@router.put("/games/{game_id}/requirements")
def put_requirements(
    request: Request, game_id: str, stored: StoredRequirements
) -> StoredRequirements:
    """Replace what a game publishes; 409 where the version is not the present one."""
    workshop = workshop_of(request)
    informed_game(workshop.catalogue(), game_id)
    published_games = [game for game in stored.requirements.games if game.game == game_id]
    if len(published_games) != 1 or not published_games[0].tiers:
        raise FormatError(
            [
                Problem(
                    file="requirements",
                    line=None,
                    column="games",
                    actual=f"{len(published_games)} entries of “{game_id}”",
                    expected="one, with its tiers",
                )
            ]
        )
    publish(workshop, published_games[0].published, stored.version, "replaced by the API")
    return get_requirements(request, game_id)


@questions.post("/requirements/read")
def read_requirements_text(request: Request, pasted: Pasted) -> dict[str, Any]:
    """Read a text as requirements; nothing is stored."""
    return draft_json(reader_of(workshop_of(request).catalogue()).read(pasted.text))


@questions.post("/requirements/verdict")
def verdict(request: Request, question: VerdictQuestion) -> dict[str, Any]:
    """Verdicts of a build, or of loose parts typed in, against games."""
    catalogue = workshop_of(request).catalogue()
    if question.parts:
        contender = typed_contender(catalogue, question.parts)
    else:
        contender = machine_contender(
            catalogue.machine(build_from(question.build)), question.system
        )
    games = known_games(catalogue, question.games or list(catalogue.published))
    return verdict_json(catalogue, contender, SURENESS[question.sureness], games)


@questions.get("/parts/{part_id}/equals")
def part_equals(request: Request, part_id: str, region: str, used: bool = False) -> dict[str, Any]:
    """Parts at or above the speed of a part, a chip (``nacre-reef@8``) or a named part, cheapest
    first.
    """
    return alternatives_json(
        alternatives(workshop_of(request).catalogue(), part_id, region, Buys(used))
    )


@questions.get("/parts")
def list_parts(request: Request, kind: str | None = None) -> list[dict[str, Any]]:
    """Parts of the current catalogue, all or of one kind."""
    catalogue = workshop_of(request).catalogue()
    return [
        {"kind": name, **{spec.name: getattr(part, spec.name) for spec in columns_of(type(part))}}
        for name, parts in catalogue.by_kind.items()
        if kind in (None, name)
        for part in parts
    ]


def _plan(request: Request, question: ApiQuestion) -> Plan:
    """The core values of a question; every part and game must be known."""
    catalogue = workshop_of(request).catalogue()
    return checked_plan(catalogue, brief_from(question.brief), build_from(question.build))
