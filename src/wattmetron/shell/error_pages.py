"""Errors as answers: one table from error to status, one page and one note for all of them."""

import json
import logging
from dataclasses import dataclass
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import Response
from starlette.exceptions import HTTPException

from wattmetron.core.errors import (
    BusyError,
    ConflictError,
    InvalidError,
    NotFoundError,
    NotPossibleError,
    StorageError,
    TooLargeError,
    WattmetronError,
)
from wattmetron.shell.logged import logged_path
from wattmetron.shell.pages import asks_for_part, page

STATUSES: dict[type[WattmetronError], int] = {
    NotFoundError: 404,
    ConflictError: 409,
    NotPossibleError: 409,
    TooLargeError: 413,
    InvalidError: 422,
    BusyError: 503,
    StorageError: 503,
    WattmetronError: 422,
}
HEADS = {
    400: "That request was not understood",
    401: "This door is locked",
    403: "Not from there",
    404: "Not found",
    405: "Not that way",
    409: "Not possible as things stand",
    411: "How long?",
    413: "Too large",
    422: "That cannot be read",
    500: "Something went wrong",
    503: "The database is in the way",
}
HTTP_SENTENCES = {
    400: "What was sent cannot be read, and nothing was changed: load the page again and repeat.",
    404: "There is no such page: go back to the briefs.",
    405: "This address does not take that kind of request: go back to the briefs.",
}
PROTECTIVE = {
    "content-security-policy": (
        "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src"
        " 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
    ),
    "x-content-type-options": "nosniff",
    "x-frame-options": "DENY",
    "referrer-policy": "same-origin",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}
"""Headers of every answer."""
UNEXPECTED = (
    "Something went wrong inside Wattmetron, {}: try it again. If it fails again, the log of the"
    " application says what it was."
)
NOTE = {"hx-retarget": "#trouble", "hx-reswap": "innerHTML", "hx-push-url": "false"}
"""An error is put beside the page that is there, which stays as it is."""
WAITING = "waiting"
"""Who asks again by itself is shown the error in place of its wait."""
logger = logging.getLogger("wattmetron")


@dataclass(frozen=True, slots=True)
class Refusal:
    """Why something is not answered: a sentence, a status, and what can be opened after all."""

    sentence: str
    status: int
    wanted: Request | None = None


def status_of(error: Exception) -> int:
    """The status of an error by its nearest kind in the table."""
    return next(STATUSES[kind] for kind in type(error).__mro__ if kind in STATUSES)


def answer_errors(app: FastAPI) -> None:
    """Every error of the application is answered with a sentence and a way back."""
    app.add_exception_handler(WattmetronError, _ours)
    app.add_exception_handler(HTTPException, _of_http)
    app.add_exception_handler(RequestValidationError, _of_form)
    app.add_exception_handler(Exception, _unexpected)


def json_answer(content: Any, status: int) -> Response:
    """JSON in ASCII, so that it can be written whatever was sent."""
    return Response(json.dumps(content), status, media_type="application/json")


def refusal(request: Request, refused: Refusal) -> Response:
    """An error page, a note for the page that is there, or the sentence as JSON for programs."""
    if request.url.path.startswith("/api/"):
        return json_answer({"error": refused.sentence}, refused.status)
    content = {
        "head": HEADS.get(refused.status, "Not done"),
        "words": refused.sentence,
        "wanted": refused.wanted.url.path if refused.wanted else "",
        "wanted_query": refused.wanted.url.query if refused.wanted else "",
    }
    if asks_for_part(request) and request.headers.get("hx-trigger") != WAITING:
        answer = page(request, "shell/note.html", content, refused.status)
        answer.headers.update(NOTE)
        return answer
    return page(request, "shell/message.html", content, refused.status)


async def _ours(request: Request, error: Exception) -> Response:
    return refusal(request, Refusal(str(error), status_of(error)))


async def _of_http(request: Request, error: Exception) -> Response:
    assert isinstance(error, HTTPException)
    sentence = HTTP_SENTENCES.get(error.status_code, str(error.detail))
    return refusal(request, Refusal(sentence, error.status_code))


async def _of_form(request: Request, error: Exception) -> Response:
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    location = " › ".join(str(step)[:60] for step in first["loc"][1:]) or "the request"
    if request.url.path.startswith("/api/"):
        return json_answer({"error": f"{location}: {first['msg']}", "detail": _plain(error)}, 422)
    sentence = f"The page sent {location} in a way that cannot be read: load it again and repeat."
    return refusal(request, Refusal(sentence, 422))


def _plain(error: RequestValidationError) -> list[dict[str, object]]:
    return [
        {"loc": list(problem["loc"]), "msg": problem["msg"], "type": problem["type"]}
        for problem in error.errors()[:100]
    ]


async def _unexpected(request: Request, error: Exception) -> Response:
    logger.error("%s %s failed", request.method, logged_path(request.url.path), exc_info=error)
    made = getattr(request.state, "changes", ())
    outcome = "after the change was made: it is kept" if made else "and nothing was changed"
    answer = refusal(request, Refusal(UNEXPECTED.format(outcome), 500))
    # The server drops the connection when an error was raised: who keeps it open is told.
    answer.headers.update({**PROTECTIVE, "connection": "close"})
    return answer
