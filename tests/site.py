"""Running applications: any, or the whole one over its own database."""

import socket
import threading
import time

import uvicorn

from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.services.workshop import Workshop
from wattmetron.study.study import studied
from wattmetron.web.app import make_app


class Server:
    """An application on a free port."""

    def __init__(self) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"

    def run(self, app) -> None:
        self.server = uvicorn.Server(uvicorn.Config(app, port=self.port, log_level="warning"))
        self.thread = threading.Thread(target=self.server.run, daemon=True)
        self.thread.start()
        while not self.server.started:
            time.sleep(0.02)

    def stop(self) -> None:
        self.server.should_exit = True
        self.thread.join(timeout=10)


class Site(Server):
    """The whole application over its own database."""

    def __init__(self, path, study=studied, earlier=None) -> None:
        super().__init__()
        self.path, self.study, self.earlier = path, study, earlier
        self.start()

    def start(self) -> None:
        self.workshop = Workshop(self.path, self.study)
        self.workshop.load_demo(CATALOGUE, BRIEFS, self.earlier)
        self.app = make_app(self.workshop)
        self.run(self.app)

    def stop(self) -> None:
        super().stop()
        self.workshop.close()

    def restart(self) -> None:
        self.stop()
        self.start()
