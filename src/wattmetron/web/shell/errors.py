"""Errors as answers: one table from error to status, one page for all of them."""

import logging

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse, Response
from starlette.exceptions import HTTPException

from wattmetron.core.errors import (
    ConflictError,
    InvalidError,
    NotFoundError,
    NotPossibleError,
    TooLargeError,
    WattmetronError,
)
from wattmetron.web.shell.pages import page

STATUSES: dict[type[WattmetronError], int] = {
    NotFoundError: 404,
    ConflictError: 409,
    NotPossibleError: 409,
    TooLargeError: 413,
    InvalidError: 422,
    WattmetronError: 422,
}
HTTP_SENTENCES = {
    404: "There is no such page: go back to the briefs.",
    405: "This address does not take that kind of request: go back to the briefs.",
}
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src"
    " 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)
PROTECTIVE = (
    (b"content-security-policy", POLICY.encode()),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"same-origin"),
    (b"cross-origin-opener-policy", b"same-origin"),
)
"""Headers of every answer."""
UNEXPECTED = (
    "Something went wrong inside Wattmetron, and nothing was changed: go back and try again. The"
    " log of the application says what it was."
)
logger = logging.getLogger("wattmetron")


def status_of(error: Exception) -> int:
    """The status of an error by its nearest kind in the table."""
    return next(STATUSES[kind] for kind in type(error).__mro__ if kind in STATUSES)


def answer_errors(app: FastAPI) -> None:
    """Every error of the application is answered with a sentence and a way back."""
    app.add_exception_handler(WattmetronError, _ours)
    app.add_exception_handler(HTTPException, _of_http)
    app.add_exception_handler(RequestValidationError, _of_form)
    app.add_exception_handler(Exception, _unexpected)


def refusal(request: Request, sentence: str, status: int) -> Response:
    """An error page, or the sentence as JSON for programs."""
    if request.url.path.startswith("/api/"):
        return JSONResponse({"error": sentence}, status)
    return page(request, "shell/message.html", {"words": sentence}, status)


async def _ours(request: Request, error: Exception) -> Response:
    return refusal(request, str(error), status_of(error))


async def _of_http(request: Request, error: Exception) -> Response:
    assert isinstance(error, HTTPException)
    sentence = HTTP_SENTENCES.get(error.status_code, str(error.detail))
    return refusal(request, sentence, error.status_code)


async def _of_form(request: Request, error: Exception) -> Response:
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    place = " › ".join(str(step) for step in first["loc"][1:]) or "the request"
    if request.url.path.startswith("/api/"):
        return JSONResponse({"error": f"{place}: {first['msg']}", "detail": _plain(error)}, 422)
    sentence = f"The page sent {place} in a way that cannot be read: load it again and repeat."
    return refusal(request, sentence, 422)


def _plain(error: RequestValidationError) -> list[dict[str, object]]:
    return [
        {"loc": list(problem["loc"]), "msg": problem["msg"], "type": problem["type"]}
        for problem in error.errors()
    ]


async def _unexpected(request: Request, error: Exception) -> Response:
    logger.error("%s %s failed", request.method, request.url.path, exc_info=error)
    answer = refusal(request, UNEXPECTED, 500)
    answer.raw_headers.extend(PROTECTIVE)
    return answer
