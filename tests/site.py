"""Running applications: any, or the whole one over its own database."""

import socket
import threading
import time

import uvicorn

from wattmetron.api.app import equip, make_app
from wattmetron.cache.catalogue_cache import studied
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.shell.access import Door
from wattmetron.shell.computation_queue import ComputationQueue
from wattmetron.workshop.workshop import Workshop


class Server:
    """A server on a free port, for one application after another."""

    def __init__(self) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.thread: threading.Thread | None = None
        self.app = None

    async def __call__(self, scope, receive, send) -> None:
        await self.app(scope, receive, send)

    def run(self, app) -> None:
        """Serve this application from now on."""
        self.app = app
        if self.thread is not None:
            return
        self.server = uvicorn.Server(
            uvicorn.Config(self, port=self.port, log_level="warning", lifespan="off")
        )
        self.thread = threading.Thread(target=self.server.run, daemon=True)
        self.thread.start()
        while not self.server.started:
            time.sleep(0.02)

    def stop(self) -> None:
        if self.thread is not None:
            self.server.should_exit = True
            self.thread.join(timeout=10)
            self.thread = None


class Site:
    """The whole application over its own database, on its own server or on a shared one."""

    def __init__(self, path, study=studied, earlier=None, server=None) -> None:
        self.path, self.study, self.earlier = path, study, earlier
        self.server = server or Server()
        self.url = self.server.url
        self.start()

    def start(self) -> None:
        self.workshop = Workshop(self.path, self.study)
        self.workshop.load_demo(CATALOGUE, BRIEFS, self.earlier)
        if self.server.app is None:
            self.server.run(make_app(self.workshop))
        else:
            equip(self.server.app, self.workshop, Door(None), ComputationQueue())
            self.server.run(self.server.app)

    def leave(self) -> None:
        """Leave the server to the next one."""
        self.workshop.close()

    def stop(self) -> None:
        self.server.stop()
        self.workshop.close()

    def restart(self) -> None:
        self.stop()
        self.start()
