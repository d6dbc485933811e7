"""The application: routes, error pages, static files, guards."""

from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.responses import HTMLResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.middleware.trustedhost import TrustedHostMiddleware

from wattmetron import __version__
from wattmetron.core.errors import WattmetronError
from wattmetron.services.workshop import Workshop
from wattmetron.store.briefs import ConflictError, NoSuchBriefError
from wattmetron.web.api import routes as api
from wattmetron.web.desk import list_routes as briefs
from wattmetron.web.desk import routes as desk
from wattmetron.web.games import routes as games
from wattmetron.web.parts import edit_routes as part_edits
from wattmetron.web.parts import routes as parts
from wattmetron.web.shell.pages import page
from wattmetron.web.shell.security import Guard

STATIC = Path(__file__).with_name("static")
HOSTS = ["localhost", "127.0.0.1", "[::1]", "testserver"]


def make_app(workshop: Workshop, hosts: list[str] | None = None) -> FastAPI:
    """The application over one workshop; answers to the named hosts only."""
    app = FastAPI(
        title="Wattmetron",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/v1/openapi.json",
    )
    app.state.workshop = workshop
    app.include_router(briefs.router)
    app.include_router(desk.router)
    app.include_router(games.router)
    app.include_router(parts.router)
    app.include_router(part_edits.router)
    app.include_router(api.router)
    app.mount("/static", StaticFiles(directory=STATIC), name="static")
    app.add_middleware(Guard)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=hosts or HOSTS)
    app.add_exception_handler(WattmetronError, _user_error)
    app.add_exception_handler(HTTPException, _http_error)
    return app


def _status_of(error: Exception) -> int:
    if isinstance(error, ConflictError):
        return 409
    return 404 if isinstance(error, NoSuchBriefError) else 422


async def _user_error(request: Request, error: Exception) -> Response:
    if request.url.path.startswith("/api/"):
        return JSONResponse({"error": str(error)}, _status_of(error))
    return _message(request, str(error), _status_of(error))


async def _http_error(request: Request, error: Exception) -> Response:
    assert isinstance(error, HTTPException)
    if request.url.path.startswith("/api/"):
        return JSONResponse({"error": str(error.detail)}, error.status_code)
    words = (
        "There is no such page: go back to the briefs."
        if error.status_code == 404
        else str(error.detail)
    )
    return _message(request, words, error.status_code)


def _message(request: Request, words: str, status: int) -> HTMLResponse:
    return page(request, "shell/message.html", {"words": words}, status)
