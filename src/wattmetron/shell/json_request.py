"""Requests of programs: JSON bodies within bounds."""

from typing import Any

from fastapi import HTTPException, Request
from fastapi.routing import APIRoute

from wattmetron.formats.json_text import JsonError, read_json
from wattmetron.shell.computation_queue import Handler, PatientRoute


class JsonRequest(Request):
    """A request whose JSON is read within bounds."""

    async def json(self) -> Any:
        try:
            return read_json(await self.body())
        except JsonError as error:
            raise HTTPException(422, f"The body of the request: {error}.") from error


def _bounded(handle: Handler) -> Handler:
    async def handler(request: Request) -> Any:
        return await handle(JsonRequest(request.scope, request.receive))

    return handler


class JsonRoute(APIRoute):
    """A route that takes JSON."""

    def get_route_handler(self) -> Handler:
        return _bounded(super().get_route_handler())


class PatientJsonRoute(PatientRoute):
    """The same where the answer may have to wait in line."""

    def get_route_handler(self) -> Handler:
        return _bounded(super().get_route_handler())
