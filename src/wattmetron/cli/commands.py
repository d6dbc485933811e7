"""The command line."""

import argparse
import sys
from pathlib import Path
from typing import Any

from wattmetron import __version__
from wattmetron.cli import data, meter_commands, questions, serving, shop_commands
from wattmetron.core.errors import WattmetronError
from wattmetron.core.search.answer import AIMS
from wattmetron.core.values.brief import SURENESS

DEFAULT_PORT = 8321


def _parser() -> argparse.ArgumentParser:
    form = argparse.RawDescriptionHelpFormatter
    parser = argparse.ArgumentParser(
        prog="wattmetron",
        description="From a brief to a gaming PC build that can be defended.",
        formatter_class=form,
    )
    parser.add_argument("--version", action="version", version=f"wattmetron {__version__}")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")

    def add(name: str, text: str, example: str) -> argparse.ArgumentParser:
        return commands.add_parser(
            name,
            help=text,
            description=text,
            epilog=f"examples:\n  {example}",
            formatter_class=form,
        )

    for name, text, example in (
        (
            "demo",
            "Start the application with the made-up demo data.",
            "wattmetron demo\n  wattmetron demo --port 9000",
        ),
        (
            "serve",
            "Start the application on its own data.",
            "wattmetron serve --database ~/builds.sqlite",
        ),
    ):
        command = add(name, text, example)
        command.add_argument(
            "--host",
            default="127.0.0.1",
            help="address to listen on (127.0.0.1: this machine only)",
        )
        command.add_argument(
            "--port", type=_port, default=DEFAULT_PORT, help=f"port to listen on ({DEFAULT_PORT})"
        )
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
        command.add_argument("--database", type=Path, help="database file")
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
    command = add(
        "shops",
        "Run the simulated shops of the demo, whose feeds drift from day to day.",
        "wattmetron shops --port 8400",
    )
    command.add_argument("--port", type=_port, default=8400, help="port to listen on (8400)")
    command = add(
        "meters",
        "Run the simulated meters of the demo: a frame logger and a wall meter.",
        "wattmetron meters --port 8500",
    )
    command.add_argument("--port", type=_port, default=8500, help="port to listen on (8500)")
    command = add(
        "refresh",
        "Ask the feeds of all shops once and bring in their prices.",
        "wattmetron refresh --json",
    )
    command.add_argument("--database", type=Path, help="database file")
    command.add_argument("--json", action="store_true", help="what became of each, as JSON")
    _data_parsers(add)
    command = add(
        "propose",
        "Find the best build for a brief.",
        "wattmetron propose net-loft.brief.json --catalogue ./my-catalogue\n"
        "  wattmetron propose net-loft.brief.json --aim 'least money' --json",
    )
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
    _common(command)
    command = add(
        "estimate",
        "Estimate how a build runs the brief's games.",
        "wattmetron estimate net-loft.brief.json net-loft.build.json --json",
    )
    command.add_argument("brief", type=Path)
    command.add_argument("build", type=Path)
    _common(command)
    command = add(
        "check",
        "Check whether the parts of a build go together.",
        "wattmetron check signal-tower.build.json --catalogue ./my-catalogue",
    )
    command.add_argument("build", type=Path)
    command.add_argument("--brief", type=Path, help="a brief for region, headroom and remedies")
    _common(command)
    _requirements_parser(add)
    return parser


def _port(text: str) -> int:
    if not text.isdecimal() or len(text) > 5 or int(text) > 65535:
        raise argparse.ArgumentTypeError(f"“{text}” is no port: name one from 0 to 65535")
    return int(text)


def _data_parsers(add: Any) -> None:
    command = add(
        "import",
        "Import a catalogue folder; all of it or nothing. Says first what would be lost.",
        "wattmetron import ./my-catalogue",
    )
    command.add_argument("folder", type=Path, nargs="?")
    command.add_argument("--yes", action="store_true", help="do not ask before anything is lost")
    command.add_argument("--undo", action="store_true", help="take the last import back")
    command.add_argument("--database", type=Path, help="database file")
    command = add(
        "tidy",
        "Make the database smaller: prices older than two years become weekly, dead links, deleted"
        " runs and ended sessions go. Nothing that a link, snapshot or set shows is lost.",
        "wattmetron tidy --dry-run",
    )
    command.add_argument("--dry-run", action="store_true", help="only say what would be removed")
    command.add_argument("--database", type=Path, help="database file")
    for name, destination, text, example in (
        (
            "export",
            "folder",
            "Write the catalogue as a folder of open files.",
            "wattmetron export ./my-catalogue",
        ),
        (
            "backup",
            "file",
            "Copy the database into a new file, while Wattmetron runs or not, and check the copy.",
            "wattmetron backup ./monday.sqlite",
        ),
        (
            "restore",
            "file",
            "Put a backup in the place of the database, which is kept under another name.",
            "wattmetron restore ./monday.sqlite",
        ),
        (
            "doctor",
            "",
            "Say what is wrong with the database, and what to do; nothing is changed.",
            "wattmetron doctor --database ./builds.sqlite",
        ),
    ):
        command = add(name, text, example)
        if destination:
            command.add_argument(destination, type=Path)
        command.add_argument("--database", type=Path, help="database file")


def _requirements_parser(add: Any) -> None:
    command = add(
        "requirements",
        "Read published requirements, or measure a build against them.",
        "wattmetron requirements read list.txt --json\n"
        "  wattmetron requirements verdict signal-tower.build.json hollow-meridian"
        " gullwing-circuit",
    )
    actions = command.add_subparsers(dest="action", required=True, metavar="ACTION")
    read = actions.add_parser("read", help="read a text as requirements; nothing is stored")
    read.add_argument("file", metavar="FILE|-", help="a text file, or - for what is piped in")
    _common(read)
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
    _common(verdict)


def _common(command: argparse.ArgumentParser) -> None:
    command.add_argument(
        "--catalogue", type=Path, metavar="DIR", help="a catalogue folder instead of the database"
    )
    command.add_argument("--database", type=Path, help="database file")
    command.add_argument("--json", action="store_true", help="answer as JSON")


def main(arguments: list[str] | None = None) -> int:
    """Run a command; returns the exit status: 0 done, 1 no answer or findings that block, 2 bad
    input.
    """
    options = _parser().parse_args(arguments)
    try:
        return int(_COMMANDS[options.command](options))
    except (WattmetronError, OSError) as error:
        print(f"wattmetron: {error}", file=sys.stderr)
        return 2


_COMMANDS = {
    "demo": serving.serve,
    "serve": serving.serve,
    "shops": shop_commands.open_shops,
    "meters": meter_commands.open_meters,
    "refresh": shop_commands.refresh_prices,
    "import": data.import_folder,
    "export": data.export_folder,
    "backup": data.backup,
    "restore": data.restore,
    "tidy": data.tidy,
    "doctor": data.doctor,
    "propose": questions.propose,
    "estimate": questions.estimate,
    "check": questions.check,
    "requirements": questions.requirements,
}
