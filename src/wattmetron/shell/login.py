"""Logging in and out of an application that other machines can reach, and who is logged in."""

from dataclasses import dataclass

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool

from wattmetron.core.errors import NotFoundError
from wattmetron.shell.access import COOKIE, SESSION_S, Door
from wattmetron.shell.forms import typed
from wattmetron.shell.pages import page
from wattmetron.workshop.sessions import NoSuchSessionError, Sessions, StoredSession

router = APIRouter(include_in_schema=False)


@dataclass(frozen=True, slots=True)
class SessionLine:
    """A session as the list shows it; whether it is the one that asks."""

    id: int
    browser: str
    address: str
    begun: str
    used: str
    is_current: bool


def door_of(request: Request) -> Door:
    door: Door = request.app.state.door
    return door


def _sessions(request: Request) -> Sessions:
    """The sessions of the application; raises NotFoundError where nobody has to log in."""
    sessions = door_of(request).sessions
    if sessions is None:
        raise NotFoundError("Nobody has to log in here: only this machine reaches it.")
    return sessions


@router.get("/enter")
def ask(request: Request) -> Response:
    return page(request, "shell/enter.html", {"error": ""})


@router.post("/enter")
async def enter(request: Request) -> Response:
    """A session for who knows the passphrase."""
    passphrase = (await typed(request)).get("passphrase", "")
    door = door_of(request)
    sentence, status = await run_in_threadpool(door.entered, request, passphrase)
    if sentence:
        return page(request, "shell/enter.html", {"error": sentence}, status)
    return await run_in_threadpool(_let_in, request)


def _let_in(request: Request) -> Response:
    browser = request.headers.get("user-agent", "")
    address = request.client.host if request.client else ""
    token = _sessions(request).begin(browser, address)
    answer = RedirectResponse("/briefs", 303)
    answer.set_cookie(COOKIE, token, max_age=SESSION_S, httponly=True, samesite="strict", path="/")
    return answer


@router.post("/leave")
async def leave(request: Request) -> Response:
    """Log this browser out, or all of them."""
    everywhere = bool((await typed(request)).get("everywhere"))
    return await run_in_threadpool(_leave, request, everywhere)


def _leave(request: Request, everywhere: bool) -> Response:
    sessions, session = _sessions(request), door_of(request).session_of(request)
    if everywhere:
        sessions.end_all()
    elif session is not None:
        sessions.end(session.id)
    answer = RedirectResponse("/enter", 303)
    answer.delete_cookie(COOKIE, path="/")
    return answer


@router.get("/sessions")
def who(request: Request) -> Response:
    """Which browsers are logged in."""
    return _page(request)


@router.post("/sessions/{session_id}/end")
def end(request: Request, session_id: int) -> Response:
    """Log one browser out."""
    session = door_of(request).session_of(request)
    if session is not None and session.id == session_id:
        return _leave(request, False)
    try:
        _sessions(request).end(session_id)
    except NoSuchSessionError as error:
        return _page(request, str(error), 404)
    return RedirectResponse("/sessions", 303)


def _page(request: Request, error: str = "", status: int = 200) -> Response:
    stored_session = door_of(request).session_of(request)
    lines = [_line(session, stored_session) for session in _sessions(request).all()]
    return page(request, "shell/sessions.html", {"lines": lines, "error": error}, status)


def _line(session: StoredSession, stored_session: StoredSession | None) -> SessionLine:
    return SessionLine(
        id=session.id,
        browser=_browser(session.browser),
        address=session.address or "not known",
        begun=f"{session.begun_at:%d %b %Y, %H:%M}",
        used=f"{session.used_at:%d %b %Y, %H:%M}",
        is_current=stored_session is not None and stored_session.id == session.id,
    )


SYSTEMS = ("Android", "iPhone", "iPad", "Windows", "Mac OS X", "Linux")
PROGRAMS = ("Firefox", "Edg", "Chrome", "Safari", "curl")


def _browser(agent: str) -> str:
    """A browser in a few words, as it names itself."""
    program = next((name for name in PROGRAMS if name in agent), "")
    system = next((name for name in SYSTEMS if name in agent), "")
    program = {"Edg": "Edge"}.get(program, program)
    return " on ".join(filter(None, (program, system))) or agent[:40] or "not named"
