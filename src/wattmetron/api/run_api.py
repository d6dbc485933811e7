"""Measured runs for programs: what was measured against what was promised, and sending frames."""

from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from pydantic import BaseModel, Field

from wattmetron.core.values.runs import Scene
from wattmetron.places.assessment.brief_edits import find_target
from wattmetron.places.measured.evidence import leave_as_evidence, take_as_evidence
from wattmetron.places.measured.pages.forms import RunForm, run_from
from wattmetron.places.measured.run_answers import run_json, trace_of_times
from wattmetron.places.measured.run_library import all_runs, open_run, take_in
from wattmetron.shell.json_request import JsonRoute
from wattmetron.shell.requests import workshop_of

router = APIRouter(prefix="/api/v1", route_class=JsonRoute)


class SentRun(BaseModel):
    """Frames of one target of a brief, measured on its build."""

    brief: int = Field(ge=1, description="Id of the brief whose machine it is")
    target: str = Field(max_length=80, description="Id of the target whose settings were measured")
    frame_ms: list[float] = Field(description="Time of each frame in its order, ms")
    scene: Scene = "play"
    label: str = Field("", max_length=80, description="Where in the game")
    setup: str = Field("", max_length=80, description="What was set on the machine")


@router.get("/runs")
def list_runs(
    request: Request, brief: Annotated[int | None, Query(ge=0)] = None
) -> list[dict[str, Any]]:
    """All runs, or those of a brief (0: of machines in no brief), the newest first."""
    return [run_json(run) for run in all_runs(workshop_of(request), brief)]


@router.get("/runs/{run_id}")
def get_run(request: Request, run_id: int) -> dict[str, Any]:
    """One run with all that it says."""
    return run_json(open_run(workshop_of(request), run_id), whole=True)


@router.post("/runs", status_code=201)
def send_run(request: Request, sent: SentRun) -> dict[str, Any]:
    """Take frames in as a run."""
    workshop = workshop_of(request)
    find_target(workshop.open(sent.brief).plan.brief, sent.target)
    form = RunForm(
        brief=sent.brief,
        target=sent.target,
        scene=sent.scene,
        label=sent.label,
        setup=sent.setup,
        source="the API",
    )
    run = run_from(workshop, workshop.catalogue(), form)
    run_id = take_in(workshop, run, trace_of_times(sent.frame_ms))
    return run_json(open_run(workshop, run_id), whole=True)


@router.post("/runs/{run_id}/evidence")
def take(request: Request, run_id: int, version: int, counts: bool = True) -> dict[str, str]:
    """Let a run count as evidence of its game, or no longer; 409 where the version is not the
    present one.
    """
    change = take_as_evidence if counts else leave_as_evidence
    return {"work": change(workshop_of(request), run_id, version)}
