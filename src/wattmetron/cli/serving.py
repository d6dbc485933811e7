"""The command that starts the application: on this machine alone, or for others by a link."""

import argparse
import ipaddress
import logging
import os
import secrets
import socket
import sys
from contextlib import closing, suppress

from wattmetron.cli.places import database_of
from wattmetron.core.errors import InvalidError, NotPossibleError
from wattmetron.services.workshop import Workshop
from wattmetron.study import memory

BACKLOG, KEEP_ALIVE_S, SWITCH_S = 128, 75, 0.001


def serve(options: argparse.Namespace) -> int:
    import uvicorn

    from wattmetron.demo import BRIEFS, CATALOGUE
    from wattmetron.web.app import HOSTS, make_app, make_worker_app
    from wattmetron.web.shell.line import Line
    from wattmetron.web.shell.workers import Workers

    logging.basicConfig(format="%(asctime)s %(levelname)s %(message)s")
    logging.getLogger("wattmetron").setLevel(logging.INFO if options.verbose else logging.WARNING)
    alone = _is_loopback(options.host)
    hosts = HOSTS if alone else _names(options.host)
    hosts = [*hosts, *(name.lower() for name in options.allow_host)]
    if not hosts:
        raise InvalidError(
            f"Listening at {options.host} needs a name under which others reach this machine: add"
            " --allow-host NAME, such as its address in your network."
        )
    path = database_of(options)
    if options.command == "demo" and not options.database:
        path = path.with_name("demo.sqlite")
    with _bound(options.host, options.port) as door, closing(Workshop(path)) as workshop:
        workshop.database.check()
        if options.command == "demo":
            workshop.load_demo(CATALOGUE, BRIEFS)
        token = None if alone else secrets.token_urlsafe(32)
        if workshop.has_catalogue():
            workshop.catalogue()
        memory.stays()
        workshop.close()  # No connection may be open in a process that is forked.
        workers = Workers(
            os.cpu_count() or 1,
            lambda: make_worker_app(_reopened(workshop, door), hosts, token),
        )
        workshop.reopen()
        app = make_app(workshop, hosts, token, Line(workers=workers))
        sys.setswitchinterval(SWITCH_S)
        door.listen(BACKLOG)
        print("\n".join(_said(options.host, door.getsockname()[1], hosts, token)), flush=True)
        server = uvicorn.Server(
            uvicorn.Config(app, log_level="warning", timeout_keep_alive=KEEP_ALIVE_S)
        )
        with suppress(KeyboardInterrupt):
            server.run(sockets=[door])
        workers.close()
    return 0


def _reopened(workshop: Workshop, door: socket.socket) -> Workshop:
    """The workshop of a process that was forked: with connections of its own."""
    door.close()
    workshop.reopen()
    return workshop


def _said(host: str, port: int, hosts: list[str], token: str | None) -> list[str]:
    """Where the application runs, and who may come in."""
    if token is None:
        name = f"[{host}]" if ":" in host else host
        return [f"Wattmetron runs at http://{name}:{port} (Ctrl+C ends it)"]
    return [
        "Wattmetron can be reached from other machines. Whoever has this link can see and change"
        " everything, and what goes over the network can be read on the way: give it to people"
        " you trust, in a network you trust.",
        f"It answers to {', '.join(hosts)}; the link holds until Wattmetron ends (Ctrl+C):",
        *(f"  http://{name}:{port}/enter?key={token}" for name in hosts),
    ]


def _is_loopback(host: str) -> bool:
    if host == "localhost":
        return True
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return False


def _names(host: str) -> list[str]:
    """What a listening address is called by others: itself, unless it stands for all of them."""
    try:
        address = ipaddress.ip_address(host)
    except ValueError:
        return [host.lower()]
    if address.is_unspecified:
        return []
    return [f"[{host}]" if address.version == 6 else host]


def _bound(host: str, port: int) -> socket.socket:
    """A socket at the address; raises a sentence where it is taken or cannot be."""
    try:
        family, kind, protocol, _, address = socket.getaddrinfo(
            host, port, type=socket.SOCK_STREAM, flags=socket.AI_PASSIVE
        )[0]
        door = socket.socket(family, kind, protocol)
    except OSError as error:
        raise InvalidError(f"There is no address “{host}” to listen at: name another.") from error
    door.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        door.bind(address)
    except OSError as error:
        door.close()
        raise NotPossibleError(
            f"Port {port} at {host} cannot be had ({error.strerror}): end what runs there, or name"
            " another with --port."
        ) from error
    return door
