"""A small server on a port of this machine, for what stands in for the world outside."""

import socket
from threading import Thread
from typing import Self

import uvicorn
from starlette.applications import Starlette

CLOSING_S = 5.0


class SmallServer:
    """Serves an application on a port of this machine; 0 for any that is free."""

    def __init__(self, app: Starlette, port: int = 0) -> None:
        self._socket = socket.create_server(("127.0.0.1", port), backlog=128)
        self._server = uvicorn.Server(
            # What breaks off does so on purpose: nothing of it belongs into a log.
            uvicorn.Config(app, log_config=None, log_level="critical", lifespan="off")
        )
        self._thread = Thread(target=self.run, daemon=True)
        self.url = f"http://127.0.0.1:{self._socket.getsockname()[1]}"

    def start(self) -> Self:
        self._thread.start()
        return self

    def run(self) -> None:
        self._server.run(sockets=[self._socket])

    def close(self) -> None:
        # Some answers hang on purpose: they are not waited for.
        self._server.should_exit = self._server.force_exit = True
        self._thread.join(CLOSING_S)
        self._socket.close()
