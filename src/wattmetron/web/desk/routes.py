"""A brief's page and every change that it can make."""

from collections.abc import Callable
from dataclasses import replace
from urllib.parse import urlencode

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import FormData

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import ConflictError, NotPossibleError, WattmetronError
from wattmetron.core.values.build import SetAside
from wattmetron.core.values.parts import Kind
from wattmetron.core.values.plan import Plan
from wattmetron.services.desk import edits
from wattmetron.services.desk.preference_edits import buy_from_anyone, prefer
from wattmetron.services.games.library import tier_targets
from wattmetron.services.games.publishing import game_state
from wattmetron.web.desk.assembly import assembly_page
from wattmetron.web.desk.budget_steps import steps_page
from wattmetron.web.desk.desk import make_desk
from wattmetron.web.desk.found import found_view
from wattmetron.web.shell.address import VIEWS, decode_build, read_query
from wattmetron.web.shell.line import PageRoute
from wattmetron.web.shell.pages import page
from wattmetron.web.shell.requests import workshop_of

router = APIRouter(include_in_schema=False, route_class=PageRoute)
Edit = Callable[[Plan, dict[str, str], Catalogue], tuple[Plan, str]]


@router.get("/briefs/{brief_id}")
def open_brief(brief_id: int) -> Response:
    return RedirectResponse(f"/briefs/{brief_id}/brief", 303)


@router.get("/briefs/{brief_id}/find")
def find(request: Request, brief_id: int, q: str = "") -> Response:
    """Parts and games by name, for the finder."""
    workshop = workshop_of(request)
    catalogue, opened = workshop.catalogue(), workshop.open(brief_id)
    return page(
        request, "desk/found.html", {"found": found_view(catalogue, opened, q), "opened": opened}
    )


@router.get("/briefs/{brief_id}/tiers")
def tier_choices(request: Request, brief_id: int, game: str = "") -> Response:
    """The ready-made targets of a game, for the form that adds one."""
    catalogue = workshop_of(request).catalogue()
    return page(request, "desk/tiers.html", {"choices": tier_targets(catalogue, game)})


@router.get("/briefs/{brief_id}/assembly")
def show_assembly(request: Request, brief_id: int) -> Response:
    """The assembly list of the build, to be ticked off."""
    workshop = workshop_of(request)
    catalogue, opened = workshop.catalogue(), workshop.open(brief_id)
    return page(request, "desk/assembly.html", {"list": assembly_page(catalogue, opened)})


@router.get("/briefs/{brief_id}/steps")
def show_steps(request: Request, brief_id: int, amounts: str = "", rise: str = "") -> Response:
    """A few budgets side by side."""
    workshop = workshop_of(request)
    found = steps_page(workshop.catalogue(), workshop.open(brief_id), amounts[:120], rise[:20])
    return page(request, "desk/budget_steps.html", {"s": found}, 422 if found.error else 200)


@router.get("/briefs/{brief_id}/{view}")
def show_view(request: Request, brief_id: int, view: str) -> Response:
    if view not in VIEWS:
        return RedirectResponse(f"/briefs/{brief_id}/brief", 303)
    return show(request, brief_id, view, dict(request.query_params))


def show(
    request: Request,
    brief_id: int,
    view: str,
    params: dict[str, str],
    status: int = 200,
    url: str | None = None,
    **more: object,
) -> Response:
    """The page in its present state; ``more`` are notice, error or drafts."""
    workshop = workshop_of(request)
    desk = make_desk(
        workshop.catalogue(),
        workshop.open(brief_id),
        read_query(view, params),
        lambda game_id: game_state(workshop, game_id),
    )
    return page(request, "desk/desk.html", {"desk": replace(desk, **more)}, status, url)  # type: ignore[arg-type]


async def _form(request: Request) -> dict[str, str]:
    data: FormData = await request.form(max_fields=100, max_files=0)
    return {name: str(value) for name, value in data.items()}


def _version(form: dict[str, str]) -> int:
    return int(form["version"]) if form.get("version", "").isdecimal() else 0


def _change(request: Request, brief_id: int, form: dict[str, str], edit: Edit) -> Response:
    """Make a change and show the page again; an error keeps what was typed and says what to do."""
    workshop = workshop_of(request)
    view = form.get("view", "brief")
    view = view if view in VIEWS else "brief"
    url = f"/briefs/{brief_id}/{view}"
    beside = {"game": form["beside"]} if form.get("beside") else {}
    url += f"?{urlencode(beside)}" if beside else ""
    try:
        catalogue = workshop.catalogue()
        said = workshop.change(brief_id, _version(form), lambda plan: edit(plan, form, catalogue))
    except ConflictError as error:
        return show(request, brief_id, view, beside, 409, url, error=str(error))
    except WattmetronError as error:
        scope = form.get("scope", "")
        drafts = {f"{scope}{name}": value for name, value in form.items()} | {f"{scope}*": "1"}
        return show(request, brief_id, view, beside, 422, url, error=str(error), drafts=drafts)
    notice = "" if said == "nothing" else f"{said[:1].upper()}{said[1:]}."
    if request.headers.get("hx-request") == "true":
        return show(request, brief_id, view, beside, 200, url, notice=notice)
    return RedirectResponse(url, 303)


def _route(path: str, edit: Edit) -> None:
    """Register one change; the path's own values are added to the form as ``path_<name>``."""

    async def handle(request: Request, brief_id: int) -> Response:
        form = await _form(request)
        form |= {f"path_{name}": value for name, value in request.path_params.items()}
        return await run_in_threadpool(_change, request, brief_id, form, edit)

    router.add_api_route(
        f"/briefs/{{brief_id}}/{path}", handle, methods=["POST"], response_model=None
    )


def _adopt(plan: Plan, form: dict[str, str], catalogue: Catalogue) -> tuple[Plan, str]:
    build = decode_build(form.get("try", ""), plan.build)
    catalogue.machine(build)
    gone = {part_id for _, part_id in plan.build.ids()} - {part_id for _, part_id in build.ids()}
    new = [
        catalogue.part(part_id)
        for kind, part_id in build.ids()
        if part_id not in plan.build.of(kind)
    ]
    if len(new) == 1:
        said = f"adopted {new[0].name}"
    elif new:
        said = f"adopted {len(new)} parts"
    else:
        said = f"took out {len(gone)} parts" if gone else "nothing"
    return replace(plan, build=build), said


def _remove(plan: Plan, form: dict[str, str], catalogue: Catalogue) -> tuple[Plan, str]:
    part_id = form.get("part", "")
    kind: Kind = next((kind for kind, own in plan.build.ids() if own == part_id), "processor")
    part = catalogue.parts.get(part_id)
    return (
        replace(plan, build=plan.build.without(kind, part_id)),
        f"took out {part.name if part else part_id}",
    )


def _keep(plan: Plan, form: dict[str, str], catalogue: Catalogue) -> tuple[Plan, str]:
    part_id, keep = form.get("part", ""), form.get("keep") == "1"
    build = plan.build.keeping(part_id, keep)
    part = catalogue.parts.get(part_id)
    return (
        replace(plan, build=build),
        f"{part.name if part else part_id} {'kept' if keep else 'free again'}",
    )


def _clear(plan: Plan, form: dict[str, str], catalogue: Catalogue) -> tuple[Plan, str]:
    build = plan.build
    for kind, part_id in plan.build.ids():
        if part_id not in plan.build.kept and part_id not in plan.brief.owned:
            build = build.without(kind, part_id)
    return replace(plan, build=build), "emptied the build but for kept and owned parts"


def _pin(plan: Plan, form: dict[str, str], catalogue: Catalogue) -> tuple[Plan, str]:
    if plan.pinned is not None:
        return replace(plan, pinned=None), "let go of the pinned build"
    return replace(plan, pinned=plan.build), "pinned this build to compare with"


_route("edit", lambda plan, form, catalogue: edits.edit_brief(plan, form, catalogue))
_route(
    "targets",
    lambda plan, form, catalogue: edits.add_target(
        plan, form.get("game", ""), catalogue, form.get("tier", "")
    ),
)
_route(
    "targets/{target_id}",
    lambda plan, form, catalogue: edits.edit_target(plan, form["path_target_id"], form, catalogue),
)
_route(
    "targets/{target_id}/remove",
    lambda plan, form, catalogue: edits.remove_target(plan, form["path_target_id"], catalogue),
)
_route("extras", lambda plan, form, catalogue: edits.add_extra(plan, form))
_route(
    "extras/{place}/{action}",
    lambda plan, form, catalogue: edits.change_extra(
        plan, int(form["path_place"]) if form["path_place"].isdecimal() else -1, form["path_action"]
    ),
)
_route(
    "own",
    lambda plan, form, catalogue: edits.own(
        plan, form.get("part", ""), form.get("owned") == "1", catalogue
    ),
)


def _aside(plan: Plan, form: dict[str, str], catalogue: Catalogue) -> tuple[Plan, str]:
    """Set a finding aside with a reason, or count it again."""
    rule, parts = form.get("rule", "")[:80], tuple(form.get("parts", "").split()[:12])
    if form.get("again") == "1":
        return replace(plan, build=plan.build.counting_again(rule, parts)), f"“{rule}” counts again"
    one = SetAside(rule, parts, form.get("reason", "").strip())
    return replace(plan, build=plan.build.setting_aside(one)), f"set “{rule}” aside: {one.reason}"


_route("exclude", edits.exclude)
_route("prefer", prefer)
_route("any-maker", buy_from_anyone)
_route("stand-in", edits.stand_in)
_route("adopt", _adopt)
_route("aside", _aside)
_route("remove", _remove)
_route("keep", _keep)
_route("clear", _clear)
_route("pin", _pin)


@router.post("/briefs/{brief_id}/undo")
@router.post("/briefs/{brief_id}/redo")
async def undo_or_redo(request: Request, brief_id: int) -> Response:
    """Take the last change back, or make it again."""
    form = await _form(request)
    back = request.url.path.endswith("/undo")
    return await run_in_threadpool(_undo_or_redo, request, brief_id, form, back)


def _undo_or_redo(request: Request, brief_id: int, form: dict[str, str], back: bool) -> Response:
    workshop = workshop_of(request)
    view = form.get("view", "brief")
    view = view if view in VIEWS else "brief"
    url = f"/briefs/{brief_id}/{view}"
    version = _version(form)
    try:
        said = workshop.undo(brief_id, version) if back else workshop.redo(brief_id, version)
    except ConflictError as error:
        return show(request, brief_id, view, {}, 409, url, error=str(error))
    except NotPossibleError as error:
        return show(request, brief_id, view, {}, 200, url, notice=str(error))
    if request.headers.get("hx-request") != "true":
        return RedirectResponse(url, 303)
    return show(
        request,
        brief_id,
        view,
        {},
        200,
        url,
        notice=f"{'Undone' if back else 'Done again'}: {said}.",
    )
