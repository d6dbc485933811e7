"""Builds of a brief put into a set: budget steps as a whole, or one snapshot."""

from dataclasses import replace

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.errors import BriefError, WattmetronError
from wattmetron.core.values.dated import BuildSet
from wattmetron.core.values.plan import Plan
from wattmetron.places.balance.pages.budget_steps_page import asked_steps
from wattmetron.places.desk.pages.routes import show
from wattmetron.places.handout.sets import (
    change_set,
    dated_now,
    dated_snapshot,
    make_set,
    open_set,
)
from wattmetron.shell.computation_queue import answered
from wattmetron.shell.forms import Form, Number, Short20, Short120, Typed, read, typed
from wattmetron.shell.requests import workshop_of
from wattmetron.words.figures import money

router = APIRouter(include_in_schema=False)


class StepsForm(Form):
    """Budgets and rise as on the page of the steps."""

    amounts: Short120 = ""
    rise: Short20 = ""


class IntoForm(Form):
    """The set that a snapshot is put into; 0: a new one."""

    into: Number = 0


@router.post("/briefs/{brief_id}/steps/keep")
async def keep_steps(request: Request, brief_id: int) -> Response:
    """A set with the builds of the budget steps."""
    entries = await typed(request)
    return await answered(
        request, lambda: run_in_threadpool(_keep_steps, request, brief_id, entries)
    )


def _keep_steps(request: Request, brief_id: int, entries: Typed) -> Response:
    workshop, form = workshop_of(request), read(StepsForm, entries)
    catalogue, plan = workshop.catalogue(), workshop.open(brief_id).plan
    currency = catalogue.region(plan.brief.region).currency
    _, steps = asked_steps(catalogue, plan, form.amounts, form.rise)
    dated = []
    for step in steps:
        if step.assessment is None:
            continue
        budget = money(step.budget_minor, currency)
        name = f"{plan.brief.name[:100]}, {budget}"
        brief = replace(step.assessment.brief, name=name, budget_low_minor=0)
        step_plan = Plan(brief, step.assessment.build, handout=plan.handout)
        dated.append(dated_now(workshop, budget, step_plan))
    if not dated:
        raise BriefError("No budget has a build that fits: there is nothing to keep.")
    set_id = make_set(workshop, BuildSet(plan.brief.name[:80]).adding(*dated))
    return RedirectResponse(f"/sets/{set_id}", 303)


@router.post("/briefs/{brief_id}/snapshots/{snapshot_id}/into-set")
async def into_set(request: Request, brief_id: int, snapshot_id: int) -> Response:
    """A snapshot as a build of a set."""
    entries = await typed(request)
    return await run_in_threadpool(_into_set, request, brief_id, snapshot_id, entries)


def _into_set(request: Request, brief_id: int, snapshot_id: int, entries: Typed) -> Response:
    workshop, into = workshop_of(request), read(IntoForm, entries).into
    url = f"/briefs/{brief_id}/compare"
    try:
        dated = dated_snapshot(workshop, workshop.snapshot(brief_id, snapshot_id))
        if into:
            opened = open_set(workshop, into)
            change_set(workshop, into, opened.version, lambda build_set: build_set.adding(dated))
        else:
            name = workshop.open(brief_id).plan.brief.name[:80]
            into = make_set(workshop, BuildSet(name).adding(dated))
    except WattmetronError as error:
        return show(request, brief_id, "compare", {}, 422, url, error=str(error))
    return RedirectResponse(f"/sets/{into}", 303)
