"""The place Games: the list, one game, texts to read, assumptions, files."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.game_fit.informed import informed_game
from wattmetron.core.values.published import ROLES
from wattmetron.core.values.results import COLUMN_ROLES
from wattmetron.places.games import publishing
from wattmetron.places.games.learned_games import lessons
from wattmetron.places.games.library import DEMANDS, MET_CHOICES, SORTS, judged, list_games
from wattmetron.places.games.measuring import results_state
from wattmetron.places.games.pages.game import game_panel
from wattmetron.places.games.pages.game_money import money_view
from wattmetron.places.games.pages.machine_panel import MeasuredMachine, read_machine
from wattmetron.places.games.pages.queries import GameQuery, ListQuery, MoneyQuery
from wattmetron.places.games.pages.reading import ReadingPage, stored_tiers
from wattmetron.places.games.result_table import ColumnsNeeded
from wattmetron.shell.address import DeskQuery
from wattmetron.shell.computation_queue import PageRoute
from wattmetron.shell.forms import Typed, read
from wattmetron.shell.pages import page
from wattmetron.shell.requests import workshop_of

router = APIRouter(include_in_schema=False, route_class=PageRoute)


@router.get("/games")
def list_page(request: Request) -> Response:
    return show_list(request, request.query_params)


def show_list(
    request: Request, params: Mapping[str, str], status: int = 200, **more: Any
) -> Response:
    """The list; ``more`` are a notice, an error, or a game to bring back."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    query = read(ListQuery, params)
    machine = read_machine(workshop, catalogue, query)
    question = query.question
    game_list = list_games(
        catalogue, question, judged(catalogue, machine.contender, machine.sureness)
    )
    content = {
        "machine": machine,
        "question": question,
        "found": game_list,
        "briefs": [
            (row.id, row.plan.brief.name) for row in workshop.briefs() if not row.plan.build.empty
        ],
        "demands": tuple(DEMANDS),
        "met_choices": MET_CHOICES,
        "sorts": SORTS,
        "notice": "",
        "restore": "",
        "error": machine.error,
    }
    url = "/games" if request.method == "POST" else None
    return page(request, "places/games/pages/games.html", content | more, status, url)


@router.get("/games/requirements.json")
def all_json(request: Request) -> Response:
    return _download(publishing.export_json(workshop_of(request).catalogue()), "requirements.json")


@router.get("/games/requirements.csv")
def all_csv(request: Request) -> Response:
    return _download(publishing.export_csv(workshop_of(request).catalogue()), "requirements.csv")


def _download(text: str, name: str) -> Response:
    kind = "application/json" if name.endswith(".json") else "text/csv; charset=utf-8"
    headers = {"content-disposition": f'attachment; filename="{name}"'}
    return Response(text, media_type=kind, headers=headers)


@router.get("/games/assumptions")
def assumptions_page(request: Request) -> Response:
    return show_assumptions(request)


def show_assumptions(request: Request, status: int = 200, **more: Any) -> Response:
    """The table of assumptions; ``more`` are a notice, or an error with what was typed."""
    catalogue = workshop_of(request).catalogue()
    table = catalogue.assumptions
    content = {
        "table": table,
        "taught": lessons(catalogue),
        "roles": ROLES,
        "typed": {},
        "error": "",
        "notice": "",
    }
    url = "/games/assumptions" if request.method == "POST" else None
    return page(request, "places/games/pages/assumptions.html", content | more, status, url)


@router.get("/games/money")
def money_page(request: Request) -> Response:
    """What so much money runs, before any brief."""
    catalogue = workshop_of(request).catalogue()
    query = read(MoneyQuery, request.query_params)
    return page(request, "places/games/pages/money.html", {"v": money_view(catalogue, query)})


@router.get("/games/read")
def read_new(request: Request, brief: str = "") -> Response:
    return show_reading(request, blank(workshop_of(request).catalogue(), "", 0, brief))


def show_reading(request: Request, shown: ReadingPage, status: int = 200) -> Response:
    return page(request, "places/games/pages/reading.html", {"r": shown}, status)


@router.get("/games/{game_id}/read")
def read_for(request: Request, game_id: str, brief: str = "") -> Response:
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    informed_game(catalogue, game_id)
    version = publishing.game_state(workshop, game_id).version
    return show_reading(request, blank(catalogue, game_id, version, brief))


@router.get("/games/{game_id}/edit")
def edit_stored(request: Request, game_id: str, brief: str = "") -> Response:
    """The stored tiers, open to correction."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    requirements = publishing.edited(catalogue, game_id)
    version = publishing.game_state(workshop, game_id).version
    filled = replace(
        blank(catalogue, game_id, version, brief),
        text=requirements.text,
        source=requirements.source,
        published_on=requirements.published_on.isoformat() if requirements.published_on else "",
        tiers=stored_tiers(requirements, catalogue),
    )
    return show_reading(request, filled)


def blank(catalogue: Catalogue, game_id: str, version: int, brief: str) -> ReadingPage:
    """The page before anything was read."""
    game = catalogue.games.get(game_id)
    return ReadingPage(
        game_id=game_id,
        game_name=game.name if game else "",
        genre=game.genre if game else "",
        genres=catalogue.genres,
        text="",
        source="",
        published_on="",
        version=version,
        brief=brief if brief.isdecimal() else "",
    )


@router.get("/games/{game_id}")
def game_page(request: Request, game_id: str) -> Response:
    return show_game(request, game_id, request.query_params)


def show_game(
    request: Request,
    game_id: str,
    params: Mapping[str, str],
    status: int = 200,
    *,
    notice: str = "",
    error: str = "",
    typed: Typed | None = None,
    columns: ColumnsNeeded | None = None,
) -> Response:
    """One game in full."""
    workshop = workshop_of(request)
    catalogue = workshop.catalogue()
    query = read(GameQuery, params)
    machine = read_machine(workshop, catalogue, query)

    def link(equal: str | None = query.equal) -> str:
        return machine.url(f"/games/{game_id}", equal=equal)

    panel = game_panel(
        catalogue,
        game_id,
        machine,
        publishing.game_state(workshop, game_id),
        link,
        query.equal or "",
        lambda code: trial_url(machine, game_id, code),
        workshop.briefs(),
        results_state(workshop, game_id),
    )
    content = {
        "g": panel,
        "briefs": [(row.id, row.plan.brief.name) for row in workshop.briefs()],
        "notice": notice,
        "error": error or machine.error,
        "typed": typed or {},
        "columns": columns,
        "roles": COLUMN_ROLES,
    }
    url = machine.url(f"/games/{game_id}") if request.method == "POST" else None
    return page(request, "places/games/pages/game.html", content, status, url)


def trial_url(machine: MeasuredMachine, game_id: str, code: str) -> str:
    """Trying a part happens in the brief, with the game beside it."""
    if machine.brief is None:
        return ""
    return DeskQuery(view="frames").url(machine.brief.id, game=game_id, tried=code)


@router.get("/games/{game_id}/requirements.json")
def one_json(request: Request, game_id: str) -> Response:
    catalogue = workshop_of(request).catalogue()
    game = publishing.edited(catalogue, game_id).game
    return _download(publishing.export_json(catalogue, [game]), f"{game}.requirements.json")


@router.get("/games/{game_id}/requirements.csv")
def one_csv(request: Request, game_id: str) -> Response:
    catalogue = workshop_of(request).catalogue()
    game = publishing.edited(catalogue, game_id).game
    return _download(publishing.export_csv(catalogue, [game]), f"{game}.requirements.csv")
