"""The application: routes, error pages, static files, guards."""

from fastapi import FastAPI
from starlette.middleware.gzip import GZipMiddleware

from wattmetron import __version__
from wattmetron.api import routes as api
from wattmetron.api import run_api as api_runs
from wattmetron.places.desk.pages import desk_change_routes as desk_changes
from wattmetron.places.desk.pages import (
    link_routes,
    reference_routes,
    returned_routes,
    set_routes,
    snapshot_routes,
)
from wattmetron.places.desk.pages import list_routes as briefs
from wattmetron.places.desk.pages import routes as desk
from wattmetron.places.games.pages import game_change_routes as game_changes
from wattmetron.places.games.pages import routes as games
from wattmetron.places.handout.pages import edition_page as monthly
from wattmetron.places.handout.pages import house_page, set_pages
from wattmetron.places.handout.pages import routes as handouts
from wattmetron.places.measured.pages import bench_page, taking_in
from wattmetron.places.measured.pages import routes as measured
from wattmetron.places.measured.pages.pending import Pending
from wattmetron.places.measured.recorder import Recorder
from wattmetron.places.parts.pages import chart_routes
from wattmetron.places.parts.pages import edit_routes as part_edits
from wattmetron.places.parts.pages import routes as parts
from wattmetron.places.shops.pages import prices
from wattmetron.places.shops.pages import routes as shops
from wattmetron.places.shops.refresher import Refresher
from wattmetron.shell import health, login
from wattmetron.shell.access import Door
from wattmetron.shell.computation_queue import ComputationQueue
from wattmetron.shell.error_pages import answer_errors
from wattmetron.shell.flash import Sayings
from wattmetron.shell.security import Guard
from wattmetron.shell.static_files import STATIC, VersionedFiles
from wattmetron.workshop.workshop import Workshop

LEAST_COMPRESSED, COMPRESSION = 1000, 5
"""Bytes from which an answer is compressed, and how hard: more takes twice as long for 2 %."""
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
    app.include_router(house_page.router)
    app.include_router(prices.router)
    app.include_router(shops.router)
    app.include_router(set_pages.router)
    app.include_router(monthly.router)
    app.include_router(taking_in.router)
    app.include_router(bench_page.router)
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
    app.include_router(login.router)
    app.mount("/static", VersionedFiles(directory=STATIC), name="static")
    app.add_middleware(GZipMiddleware, minimum_size=LEAST_COMPRESSED, compresslevel=COMPRESSION)
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
