"""The application: routes, error pages, static files, guards."""

from pathlib import Path

from fastapi import FastAPI
from fastapi.staticfiles import StaticFiles

from wattmetron import __version__
from wattmetron.services.measured.recorder import Recorder
from wattmetron.services.shops.refresher import Refresher
from wattmetron.services.workshop import Workshop
from wattmetron.web.api import routes as api
from wattmetron.web.api import runs as api_runs
from wattmetron.web.desk import change_routes as desk_changes
from wattmetron.web.desk import (
    link_routes,
    reference_routes,
    returned_routes,
    set_routes,
    snapshot_routes,
)
from wattmetron.web.desk import list_routes as briefs
from wattmetron.web.desk import routes as desk
from wattmetron.web.games import change_routes as game_changes
from wattmetron.web.games import routes as games
from wattmetron.web.handout import house, sets
from wattmetron.web.handout import round as monthly
from wattmetron.web.handout import routes as handouts
from wattmetron.web.measured import bench, taking_in
from wattmetron.web.measured import routes as measured
from wattmetron.web.measured.pending import Pending
from wattmetron.web.parts import chart_routes
from wattmetron.web.parts import edit_routes as part_edits
from wattmetron.web.parts import routes as parts
from wattmetron.web.shell import entrance, health
from wattmetron.web.shell.door import Door
from wattmetron.web.shell.errors import answer_errors
from wattmetron.web.shell.line import ComputationQueue
from wattmetron.web.shell.sayings import Sayings
from wattmetron.web.shell.security import Guard
from wattmetron.web.shops import prices
from wattmetron.web.shops import routes as shops

STATIC = Path(__file__).with_name("static")
HOSTS = ["localhost", "127.0.0.1", "[::1]"]
"""What an application for this machine alone answers to."""


def make_app(
    workshop: Workshop,
    hosts: list[str] | None = None,
    door: Door | None = None,
    line: ComputationQueue | None = None,
) -> FastAPI:
    """The application over one workshop; answers to the named hosts only, and to those whom the
    door lets in. What takes long waits in the line.
    """
    app = FastAPI(
        title="Wattmetron",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/v1/openapi.json",
    )
    door = door or Door(None)
    equip(app, workshop, door, line or ComputationQueue())
    app.include_router(briefs.router)
    app.include_router(returned_routes.router)
    app.include_router(desk.router)
    app.include_router(desk_changes.router)
    app.include_router(link_routes.router)
    app.include_router(snapshot_routes.router)
    app.include_router(set_routes.router)
    app.include_router(reference_routes.router)
    app.include_router(handouts.router)
    app.include_router(house.router)
    app.include_router(prices.router)
    app.include_router(shops.router)
    app.include_router(sets.router)
    app.include_router(monthly.router)
    app.include_router(taking_in.router)
    app.include_router(bench.router)
    app.include_router(measured.router)
    app.include_router(games.router)
    app.include_router(game_changes.router)
    app.include_router(parts.router)
    app.include_router(chart_routes.router)
    app.include_router(part_edits.router)
    app.include_router(api.router)
    app.include_router(api_runs.router)
    app.include_router(api.questions)
    app.include_router(health.router)
    app.include_router(entrance.router)
    app.mount("/static", StaticFiles(directory=STATIC), name="static")
    app.add_middleware(Guard, hosts=hosts or HOSTS, door=door)
    app.add_middleware(health.AnswersHead)
    app.add_middleware(health.RequestLog)
    answer_errors(app)
    return app


def equip(app: FastAPI, workshop: Workshop, door: Door, line: ComputationQueue) -> None:
    """Give an application what its pages work with."""
    app.state.workshop, app.state.line = workshop, line
    app.state.sayings, app.state.refresher = Sayings(), Refresher()
    app.state.recorder, app.state.pending, app.state.meters = Recorder(), Pending(), ("", ())
    app.state.door, app.state.shared = door, not door.open


def make_worker_app(workshop: Workshop, hosts: list[str], shared: bool) -> FastAPI:
    """The same for a worker, which has nobody to wait behind it, and whom only the application
    asks: who may come in was seen to before. ``shared``: there is a passphrase.
    """
    app = make_app(workshop, hosts)
    app.state.shared = shared
    app.state.line = None
    return app
