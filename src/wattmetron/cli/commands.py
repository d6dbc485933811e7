"""The command line: what each command is called and takes; what it does is loaded when it runs."""

import argparse
import sys
from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from pathlib import Path

from wattmetron import __version__
from wattmetron.core.errors import WattmetronError

DEFAULT_PORT = 8321
Parser = argparse.ArgumentParser


@dataclass(frozen=True, slots=True, kw_only=True)
class Command:
    """A command: its text and examples, the function of a module here that runs it, and what adds
    its arguments.
    """

    text: str
    example: str
    runs: str
    takes: Callable[[Parser], None]


def _port(text: str) -> int:
    if not text.isdecimal() or len(text) > 5 or int(text) > 65535:
        raise argparse.ArgumentTypeError(f"“{text}” is no port: name one from 0 to 65535")
    return int(text)


def _database(command: Parser) -> None:
    command.add_argument("--database", type=Path, help="database file")


def _serving(command: Parser) -> None:
    command.add_argument(
        "--host",
        default="127.0.0.1",
        help="address to listen on (127.0.0.1: this machine only)",
    )
    _listening(DEFAULT_PORT)(command)
    command.add_argument(
        "--allow-host",
        action="append",
        default=[],
        metavar="NAME",
        help="a name under which others reach this machine, where it listens beyond itself",
    )
    command.add_argument(
        "--allow-address",
        action="append",
        default=[],
        metavar="URL",
        help="an address whose feeds or meters may be asked, such as https://shop.example,"
        " where it listens beyond this machine; there no others are",
    )
    command.add_argument(
        "--compute",
        default="",
        metavar="ADDRESS",
        help="a Dask scheduler whose workers work answers out, such as tcp://192.168.1.20:8786",
    )
    command.add_argument(
        "--behind-proxy",
        action="store_true",
        help="take addresses of callers from a proxy on this machine (X-Forwarded-For)",
    )
    command.add_argument(
        "--passphrase-file",
        type=Path,
        help="a file whose first line is the passphrase of those who may come in, where it"
        " listens beyond this machine; only its hash is kept",
    )
    _database(command)
    command.add_argument(
        "--locale",
        default="en",
        help="how amounts are written, such as de_DE for 1.284,50 (en: 1,284.50)",
    )
    command.add_argument(
        "--verbose",
        action="store_true",
        help="log a line for every request, with what was computed and what was kept",
    )


def _listening(port: int) -> Callable[[Parser], None]:
    def add(command: Parser) -> None:
        command.add_argument("--port", type=_port, default=port, help=f"port to listen on ({port})")

    return add


def _refreshing(command: Parser) -> None:
    _database(command)
    command.add_argument("--json", action="store_true", help="what became of each, as JSON")


def _importing(command: Parser) -> None:
    command.add_argument("folder", type=Path, nargs="?")
    command.add_argument("--yes", action="store_true", help="do not ask before anything is lost")
    command.add_argument("--undo", action="store_true", help="take the last import back")
    _database(command)


def _tidying(command: Parser) -> None:
    command.add_argument("--dry-run", action="store_true", help="only say what would be removed")
    _database(command)


def _with_path(name: str) -> Callable[[Parser], None]:
    def add(command: Parser) -> None:
        command.add_argument(name, type=Path)
        _database(command)

    return add


def _proposing(command: Parser) -> None:
    from wattmetron.core.search.answer import AIMS

    command.add_argument("brief", type=Path)
    command.add_argument(
        "--aim", choices=AIMS, default=AIMS[0], help="what best means (most frames)"
    )
    command.add_argument(
        "--keep",
        type=Path,
        metavar="BUILD.json",
        help="a build whose kept parts stay, and whose frames the same frames are",
    )
    _asking(command)


def _estimating(command: Parser) -> None:
    command.add_argument("brief", type=Path)
    command.add_argument("build", type=Path)
    _asking(command)


def _checking(command: Parser) -> None:
    command.add_argument("build", type=Path)
    command.add_argument("--brief", type=Path, help="a brief for region, headroom and remedies")
    _asking(command)


def _requirements(command: Parser) -> None:
    from wattmetron.core.values.brief import SURENESS

    actions = command.add_subparsers(dest="action", required=True, metavar="ACTION")
    read = actions.add_parser("read", help="read a text as requirements; nothing is stored")
    read.add_argument("file", metavar="FILE|-", help="a text file, or - for what is piped in")
    _asking(read)
    verdict = actions.add_parser("verdict", help="measure a build against games' tiers")
    verdict.add_argument("build", type=Path, metavar="BUILD.json")
    verdict.add_argument(
        "games", nargs="*", metavar="GAME", help="game ids (all that publish tiers)"
    )
    verdict.add_argument("--system", default="", help="operating system that will run")
    verdict.add_argument(
        "--sureness",
        choices=list(SURENESS),
        default="likely",
        help="when a tier counts as met (likely)",
    )
    _asking(verdict)


def _asking(command: Parser) -> None:
    command.add_argument(
        "--catalogue", type=Path, metavar="DIR", help="a catalogue folder instead of the database"
    )
    _database(command)
    command.add_argument("--json", action="store_true", help="answer as JSON")


COMMANDS: dict[str, Command] = {
    "demo": Command(
        text="Start the application with the made-up demo data.",
        example="wattmetron demo\n  wattmetron demo --port 9000",
        runs="serving:serve",
        takes=_serving,
    ),
    "serve": Command(
        text="Start the application on its own data.",
        example="wattmetron serve --database ~/builds.sqlite",
        runs="serving:serve",
        takes=_serving,
    ),
    "shops": Command(
        text="Run the simulated shops of the demo, whose feeds drift from day to day.",
        example="wattmetron shops --port 8400",
        runs="shop_commands:open_shops",
        takes=_listening(8400),
    ),
    "meters": Command(
        text="Run the simulated meters of the demo: a frame logger and a wall meter.",
        example="wattmetron meters --port 8500",
        runs="meter_commands:open_meters",
        takes=_listening(8500),
    ),
    "refresh": Command(
        text="Ask the feeds of all shops once and bring in their prices.",
        example="wattmetron refresh --json",
        runs="shop_commands:refresh_prices",
        takes=_refreshing,
    ),
    "import": Command(
        text="Import a catalogue folder; all of it or nothing. Says first what would be lost.",
        example="wattmetron import ./my-catalogue",
        runs="data:import_folder",
        takes=_importing,
    ),
    "tidy": Command(
        text="Make the database smaller: prices older than two years become weekly, dead links,"
        " deleted runs and ended sessions go. Nothing that a link, snapshot or set shows is lost.",
        example="wattmetron tidy --dry-run",
        runs="data:tidy",
        takes=_tidying,
    ),
    "export": Command(
        text="Write the catalogue as a folder of open files.",
        example="wattmetron export ./my-catalogue",
        runs="data:export_folder",
        takes=_with_path("folder"),
    ),
    "backup": Command(
        text="Copy the database into a new file, while Wattmetron runs or not, and check the copy.",
        example="wattmetron backup ./monday.sqlite",
        runs="data:backup",
        takes=_with_path("file"),
    ),
    "restore": Command(
        text="Put a backup in the place of the database, which is kept under another name.",
        example="wattmetron restore ./monday.sqlite",
        runs="data:restore",
        takes=_with_path("file"),
    ),
    "doctor": Command(
        text="Say what is wrong with the database, and what to do; nothing is changed.",
        example="wattmetron doctor --database ./builds.sqlite",
        runs="data:doctor",
        takes=_database,
    ),
    "propose": Command(
        text="Find the best build for a brief.",
        example="wattmetron propose net-loft.brief.json --catalogue ./my-catalogue\n"
        "  wattmetron propose net-loft.brief.json --aim 'least money' --json",
        runs="questions:propose",
        takes=_proposing,
    ),
    "estimate": Command(
        text="Estimate how a build runs the brief's games.",
        example="wattmetron estimate net-loft.brief.json net-loft.build.json --json",
        runs="questions:estimate",
        takes=_estimating,
    ),
    "check": Command(
        text="Check whether the parts of a build go together.",
        example="wattmetron check signal-tower.build.json --catalogue ./my-catalogue",
        runs="questions:check",
        takes=_checking,
    ),
    "requirements": Command(
        text="Read published requirements, or measure a build against them.",
        example="wattmetron requirements read list.txt --json\n"
        "  wattmetron requirements verdict signal-tower.build.json hollow-meridian"
        " gullwing-circuit",
        runs="questions:requirements",
        takes=_requirements,
    ),
}


def _parser(given: list[str]) -> Parser:
    """The parser with the arguments of the command that is given; of others the names alone."""
    form = argparse.RawDescriptionHelpFormatter
    parser = Parser(
        prog="wattmetron",
        description="From a brief to a gaming PC build that can be defended.",
        formatter_class=form,
    )
    parser.add_argument("--version", action="version", version=f"wattmetron {__version__}")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    for name, spec in COMMANDS.items():
        command = commands.add_parser(
            name,
            help=spec.text,
            description=spec.text,
            epilog=f"examples:\n  {spec.example}",
            formatter_class=form,
        )
        if name in given:
            spec.takes(command)
    return parser


def main(arguments: list[str] | None = None) -> int:
    """Run a command; returns the exit status: 0 done, 1 no answer or findings that block, 2 bad
    input.
    """
    given = sys.argv[1:] if arguments is None else arguments
    options = _parser(given).parse_args(given)
    module, function = COMMANDS[options.command].runs.split(":")
    try:
        return int(getattr(import_module(f"wattmetron.cli.{module}"), function)(options))
    except (WattmetronError, OSError) as error:
        print(f"wattmetron: {error}", file=sys.stderr)
        return 2
