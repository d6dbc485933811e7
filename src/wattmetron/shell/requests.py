"""What every route needs of a request."""

from fastapi import Request

from wattmetron.shell.flash import Sayings
from wattmetron.workshop.workshop import Workshop

LOCATION = '{{"path": "{}", "target": "#desk", "swap": "morph:outerHTML"}}'


def workshop_of(request: Request) -> Workshop:
    workshop: Workshop = request.app.state.workshop
    return workshop


def sayings_of(request: Request) -> Sayings:
    sayings: Sayings = request.app.state.sayings
    return sayings


def in_place(request: Request) -> bool:
    """Whether the answer is put into the page that is there."""
    return request.headers.get("hx-request") == "true"
