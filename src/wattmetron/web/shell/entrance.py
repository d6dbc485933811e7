"""Logging in and out of an application that other machines can reach."""

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from starlette.concurrency import run_in_threadpool

from wattmetron.web.shell.door import COOKIE, SESSION_S, Door
from wattmetron.web.shell.forms import typed
from wattmetron.web.shell.pages import page

router = APIRouter(include_in_schema=False)


def door_of(request: Request) -> Door:
    door: Door = request.app.state.door
    return door


@router.get("/enter")
def ask(request: Request) -> Response:
    return page(request, "shell/enter.html", {"error": ""})


@router.post("/enter")
async def enter(request: Request) -> Response:
    """A session for who knows the passphrase."""
    passphrase = (await typed(request)).get("passphrase", "")
    door = door_of(request)
    said, status = await run_in_threadpool(door.entered, request, passphrase)
    if said:
        return page(request, "shell/enter.html", {"error": said}, status)
    answer = RedirectResponse("/briefs", 303)
    answer.set_cookie(
        COOKIE, door.session(), max_age=SESSION_S, httponly=True, samesite="strict", path="/"
    )
    return answer


@router.post("/leave")
async def leave(request: Request) -> Response:
    """Log this browser out, or all of them."""
    if (await typed(request)).get("everywhere"):
        door_of(request).end_all()
    answer = RedirectResponse("/enter", 303)
    answer.delete_cookie(COOKIE, path="/")
    return answer
