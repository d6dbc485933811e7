"""How the application does: what the study holds, who waits in line; one line per request on
demand.
"""

import logging
import time
from dataclasses import asdict
from typing import Any

from fastapi import APIRouter, Request
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from wattmetron import __version__
from wattmetron.shell.computation_queue import ComputationQueue
from wattmetron.shell.logged import logged_path
from wattmetron.shell.requests import workshop_of

router = APIRouter(include_in_schema=False)
logger = logging.getLogger("wattmetron.requests")


@router.get("/healthz")
def health(request: Request) -> dict[str, Any]:
    """Counts since the start; the study's are of the present catalogue."""
    count, line = workshop_of(request).study_count, _line(request)
    return {
        "status": "ok",
        "version": __version__,
        "study": None if count is None else asdict(count),
        "line": {
            "at_once": line.engine.at_once,
            "running": line.running,
            "waiting": line.waiting,
            "ended": line.ended,
            "given_up": line.given_up,
            "unanswered": line.unanswered,
            "engine": line.engine.kind,
        },
    }


def _line(request: Request) -> ComputationQueue:
    line: ComputationQueue = request.app.state.line
    return line


class AnswersHead:
    """Middleware that answers HEAD as GET, without the body."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or scope["method"] != "HEAD":
            await self.app(scope, receive, send)
            return

        async def headed(message: Message) -> None:
            if message["type"] == "http.response.body":
                message = {**message, "body": b""}
            await send(message)

        await self.app({**scope, "method": "GET"}, receive, headed)


class RequestLog:
    """Middleware that logs one line for each request where that is asked for."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or not logger.isEnabledFor(logging.INFO):
            await self.app(scope, receive, send)
            return
        start, status = time.perf_counter(), 0

        async def noted(message: Message) -> None:
            nonlocal status
            if message["type"] == "http.response.start":
                status = message["status"]
            await send(message)

        try:
            await self.app(scope, receive, noted)
        finally:
            spent_ms = 1000 * (time.perf_counter() - start)
            count = scope["app"].state.workshop.study_count
            cache_words = "" if count is None else _kept(count.hits, count.misses, count.held_bytes)
            path = logged_path(scope["path"])
            logger.info(
                "%s %s %d %.0f ms%s", scope["method"], path, status or 500, spent_ms, cache_words
            )


def _kept(hits: int, misses: int, held_bytes: int) -> str:
    return f", study: {hits} hits, {misses} misses, {held_bytes / 1e6:.1f} MB"
