"""The command that starts the application: on this machine alone, or for others by a link."""

import argparse
import ipaddress
import logging
import secrets
import signal
import socket
import sys
from collections.abc import Callable
from contextlib import closing, suppress
from functools import cache
from getpass import getpass
from pathlib import Path
from typing import Any

from wattmetron.cache import process_memory
from wattmetron.cache.catalogue_cache import studied
from wattmetron.cache.engines import Engine
from wattmetron.cli.places import database_of
from wattmetron.core.errors import InvalidError, NotPossibleError
from wattmetron.demo import RATES
from wattmetron.places.shops.entered_rates import enter_rates, kept_rates
from wattmetron.store.stored_answers import StoredAnswers
from wattmetron.words.figures import write_as
from wattmetron.workshop.workshop import Workshop

PRELOAD = ("wattmetron.api.app",)
"""What has the functions that are asked."""
BACKLOG, KEEP_ALIVE_S, SWITCH_S = 128, 75, 0.001


def serve(options: argparse.Namespace) -> int:
    process_memory.one_arena()
    import uvicorn

    from wattmetron.api.app import HOSTS, make_app
    from wattmetron.demo import BRIEFS, CATALOGUE
    from wattmetron.demo.past_prices import earlier
    from wattmetron.shell.access import Door
    from wattmetron.shell.computation_queue import ComputationQueue
    from wattmetron.workshop.exchange import reach_only
    from wattmetron.workshop.sessions import Sessions
    from wattmetron.workshop.warming import warm_beside

    logging.basicConfig(format="%(asctime)s %(levelname)s %(message)s")
    logging.getLogger("wattmetron").setLevel(logging.INFO if options.verbose else logging.WARNING)
    write_as(options.locale)
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
    answers = path.with_name(f"{path.name}-answers")
    line = ComputationQueue(*_engines(options.compute, answers))
    with _bound(options.host, options.port) as door, closing(_workshop(path)) as workshop:
        workshop.database.check()
        if options.command == "demo":
            workshop.load_demo(CATALOGUE, BRIEFS, earlier)
            if not kept_rates(workshop):
                enter_rates(workshop, RATES)
        hash_line = None if alone else _passphrase(options, path)
        key = "" if alone else secrets.token_urlsafe(32)
        if workshop.has_catalogue():
            workshop.catalogue()
        process_memory.stays()
        simulated = _open_shops(workshop) if options.command == "demo" else ()
        sessions = Sessions(workshop, hash_line) if hash_line else None
        app = make_app(workshop, hosts, Door(hash_line, key, sessions), line)
        if options.command == "demo":
            app.state.meters = _open_meters()
            simulated = (*simulated, *filter(None, app.state.meters[:1]))
        if not alone:
            reach_only([*options.allow_address, *simulated])
        server = uvicorn.Server(uvicorn.Config(app, **settings_of(options)))

        def end(*_: object) -> None:
            """Also when it has closed everything: it then raises what ended it once more."""
            server.should_exit = True

        signal.signal(signal.SIGTERM, end)
        sys.setswitchinterval(SWITCH_S)
        door.listen(BACKLOG)
        warm_beside(workshop)
        print("\n".join(_said(options.host, door.getsockname()[1], hosts, key)), flush=True)
        try:
            with suppress(KeyboardInterrupt):
                server.run(sockets=[door])
        finally:
            line.close()
    return 0


def settings_of(options: argparse.Namespace) -> dict[str, Any]:
    """How the server runs: addresses of callers come from a proxy only where one is named, else
    anybody could write any address into a head.
    """
    return {
        "log_level": "warning",
        "timeout_keep_alive": KEEP_ALIVE_S,
        "proxy_headers": options.behind_proxy,
    }


def _engines(scheduler: str, answers: Path) -> tuple[Engine, Callable[[], Engine]]:
    """Where answers are worked out, and where they are when that is gone."""
    from wattmetron.cache.engines import Cluster, Processes

    def beside() -> Engine:
        return Processes(answers=answers, preload=PRELOAD)

    return (Cluster(scheduler) if scheduler else beside()), beside


def _passphrase(options: argparse.Namespace, database: Path) -> str:
    """The hash of the passphrase: from a file, as it was kept, or asked for; raises
    NotPossibleError where there is none to be had.
    """
    from wattmetron.shell import passphrase

    path = database.with_suffix(".passphrase")
    if options.passphrase_file:
        try:
            typed = options.passphrase_file.read_text(errors="replace").split("\n")[0].strip()
        except OSError as error:
            raise InvalidError(
                f"{options.passphrase_file} cannot be read ({error.strerror}): name a file whose"
                " first line is the passphrase."
            ) from error
    elif path.is_file():
        return path.read_text()
    elif sys.stdin.isatty():
        typed = getpass("A passphrase for those who may come in: ")
        if getpass("The same again: ") != typed:
            raise InvalidError("The two were not the same: start again.")
    else:
        raise NotPossibleError(
            "Beyond this machine a passphrase is needed: name a file that holds one with"
            " --passphrase-file, or start in a terminal to be asked for it."
        )
    hashed = passphrase.hashed(typed)
    passphrase.keep(hashed, path)
    return hashed


def _said(host: str, port: int, hosts: list[str], key: str) -> list[str]:
    """Where the application runs, and who may come in."""
    if not key:
        name = f"[{host}]" if ":" in host else host
        return [f"Wattmetron runs at http://{name}:{port} (Ctrl+C ends it)"]
    return [
        "Wattmetron can be reached from other machines. Whoever has the passphrase can see and"
        " change everything, and what goes over the network can be read on the way: use it in a"
        " network you trust.",
        "It answers to (Ctrl+C ends it):",
        *(f"  http://{name}:{port}/enter" for name in hosts),
        f"Programs send, until it ends: Authorization: Bearer {key}",
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


def _workshop(path: Path) -> Workshop:
    """The workshop, whose fitted games are found again after a start. Their file is opened when the
    database has made its folder.
    """
    answers = cache(lambda: StoredAnswers(path.with_name(f"{path.name}-answers")))
    return Workshop(path, lambda described: studied(described, answers()))


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


def _open_meters() -> tuple[str, tuple[str, ...]]:
    """Where the simulated meters answer, and what they can play; empty where they cannot be
    opened.
    """
    from wattmetron.demo.simulated_meters import MeterServer
    from wattmetron.demo.simulated_run import SCENARIOS

    try:
        return MeterServer().start().url, SCENARIOS
    except OSError:
        return "", ()


def _open_shops(workshop: Workshop) -> tuple[str, ...]:
    """Start the simulated shops, and ask their feeds where they or none are asked; returns where
    they answer.
    """
    from wattmetron.demo.shop_server import ShopServer
    from wattmetron.places.shops.feeds import change_feeds

    shops = ShopServer(workshop.catalogue().described).start()
    change_feeds(
        workshop,
        lambda feeds: (
            *(feed for feed in feeds if not ShopServer.is_simulated(feed)),
            *shops.addresses,
        ),
    )
    return tuple(shops.addresses)
