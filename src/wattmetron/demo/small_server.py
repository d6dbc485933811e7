"""A small server on a port of this machine, for what stands in for the world outside."""

from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Thread
from typing import Self


class SmallServer:
    """Answers with a handler on a port of this machine; 0 for any that is free."""

    def __init__(self, handler: type[BaseHTTPRequestHandler], port: int = 0) -> None:
        self._server = ThreadingHTTPServer(("127.0.0.1", port), handler)
        self._server.daemon_threads = True
        self.url = f"http://127.0.0.1:{self._server.server_address[1]}"

    def start(self) -> Self:
        Thread(target=self.run, daemon=True).start()
        return self

    def run(self) -> None:
        self._server.serve_forever()

    def close(self) -> None:
        self._server.shutdown()
        self._server.server_close()
