"""The command line."""

import argparse
import json
import logging
import os
import sys
from pathlib import Path
from typing import Any

from wattmetron import __version__
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import WattmetronError
from wattmetron.core.requirements.reading.reader import reader_of
from wattmetron.core.search.answer import AIMS
from wattmetron.core.values.brief import SURENESS, Brief, Display
from wattmetron.core.values.build import Build
from wattmetron.formats.brief_file import read_brief, read_build
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.services.advice.answers import check_json, estimate_json, proposal_json
from wattmetron.services.advice.proposals import answer
from wattmetron.services.desk.assess import assess, finding_remedies
from wattmetron.services.games.answers import draft_json, draft_lines, verdict_json, verdict_lines
from wattmetron.services.games.contenders import machine_contender
from wattmetron.services.games.library import known_games
from wattmetron.services.words.figures import money, settings
from wattmetron.services.workshop import Workshop
from wattmetron.study import memory
from wattmetron.study.study import studied

DEFAULT_PORT = 8321
MAX_TEXT_BYTES = 2_000_000


def default_database() -> Path:
    """Where data lies unless told otherwise: in the folder ``$WATTMETRON_DATA`` or the user's data
    folder.
    """
    told = os.environ.get("WATTMETRON_DATA")
    base = os.environ.get("XDG_DATA_HOME")
    home = Path(base) if base else Path.home() / ".local" / "share"
    folder = Path(told) if told else home / "wattmetron"
    return folder / "wattmetron.sqlite"


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
            "--port", type=int, default=DEFAULT_PORT, help=f"port to listen on ({DEFAULT_PORT})"
        )
        command.add_argument("--database", type=Path, help="database file")
        command.add_argument(
            "--verbose",
            action="store_true",
            help="log a line for every request, with what was computed and what was kept",
        )
    command = add(
        "import",
        "Import a catalogue folder; all of it or nothing.",
        "wattmetron import ./my-catalogue",
    )
    command.add_argument("folder", type=Path)
    command.add_argument("--database", type=Path, help="database file")
    command = add(
        "export",
        "Write the catalogue as a folder of open files.",
        "wattmetron export ./my-catalogue",
    )
    command.add_argument("folder", type=Path)
    command.add_argument("--database", type=Path, help="database file")
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
        "--keep", type=Path, metavar="BUILD.json", help="a build whose kept parts stay"
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


def _database(options: argparse.Namespace) -> Path:
    return options.database or default_database()


def _catalogue(options: argparse.Namespace) -> Catalogue:
    if options.catalogue:
        return studied(read_catalogue(options.catalogue))
    workshop = Workshop(_database(options))
    try:
        return workshop.catalogue()
    finally:
        workshop.close()


def _brief(path: Path) -> Brief:
    return read_brief(path.name, path.read_bytes())


def _build(path: Path) -> Build:
    return read_build(path.name, path.read_bytes())


def _serve(options: argparse.Namespace) -> int:
    import uvicorn

    from wattmetron.demo import BRIEFS, CATALOGUE
    from wattmetron.web.app import make_app

    logging.basicConfig(format="%(asctime)s %(levelname)s %(message)s")
    logging.getLogger("wattmetron").setLevel(logging.INFO if options.verbose else logging.WARNING)
    path = _database(options)
    if options.command == "demo" and not options.database:
        path = path.with_name("demo.sqlite")
    workshop = Workshop(path)
    if options.command == "demo":
        workshop.load_demo(CATALOGUE, BRIEFS)
    print(f"Wattmetron runs at http://{options.host}:{options.port} (Ctrl+C ends it)", flush=True)
    app = make_app(workshop)
    memory.stays()
    uvicorn.run(app, host=options.host, port=options.port, log_level="warning")
    return 0


def _import(options: argparse.Namespace) -> int:
    workshop = Workshop(_database(options))
    catalogue = workshop.import_folder(options.folder)
    print(
        f"Imported {len(catalogue.parts)} parts, {len(catalogue.offers)} offers,"
        f" {len(catalogue.games)} games."
    )
    return 0


def _export(options: argparse.Namespace) -> int:
    catalogue = Workshop(_database(options)).export_folder(options.folder)
    print(
        f"Wrote {len(catalogue.parts)} parts, {len(catalogue.offers)} offers,"
        f" {len(catalogue.games)} games."
    )
    return 0


def _print_json(data: Any) -> None:
    print(json.dumps(data, indent=2, ensure_ascii=False))


def _propose(options: argparse.Namespace) -> int:
    catalogue, brief = _catalogue(options), _brief(options.brief)
    kept = _build(options.keep) if options.keep else Build()
    told = answer(catalogue, brief, kept, options.aim)
    if options.json:
        _print_json(proposal_json(catalogue, told))
    else:
        print(told.headline)
        if told.assessment:
            for line in told.assessment.lines:
                price = "owned" if line.owned else money(line.cost_minor, told.assessment.currency)
                print(
                    f"  {line.kind:10} {line.part.name if line.part else line.part_id:44}"
                    f" {price:>14}"
                )
            _print_frames(told.assessment)
        for sentence in told.account:
            print(sentence)
        for relaxation in told.relaxations:
            cost = money(relaxation.cost_minor, catalogue.region(brief.region).currency)
            print(f"  Would do: {relaxation.sentence}: {cost}")
    return 0 if told.assessment else 1


def _print_frames(assessment: Any) -> None:
    for estimate in assessment.estimates:
        if estimate is None:
            continue
        print(
            f"  {estimate.game.name:20} {settings(estimate.target):36} {estimate.judged_fps:6.0f}"
            " fps"
            f" ({estimate.judged_low_fps:.0f}–{estimate.judged_high_fps:.0f}) of"
            f" {estimate.target.fps:g}:"
            f" {estimate.state}, limited by {estimate.limit_words}"
        )


def _estimate(options: argparse.Namespace) -> int:
    catalogue = _catalogue(options)
    assessment = assess(catalogue, _brief(options.brief), _build(options.build))
    if options.json:
        _print_json(estimate_json(assessment))
    else:
        _print_frames(assessment)
    return 0


def _check(options: argparse.Namespace) -> int:
    catalogue, build = _catalogue(options), _build(options.build)
    if options.brief:
        brief = _brief(options.brief)
    else:
        region = next(iter(catalogue.regions), "")
        brief = Brief(
            name="check", region=region, budget_low_minor=0, budget_high_minor=0, display=Display()
        )
    assessment = assess(catalogue, brief, build)
    if options.json:
        _print_json(check_json(catalogue, assessment))
    else:
        for finding in assessment.findings:
            print(f"{finding.level}: {finding.sentence} {finding.advice}")
            for remedy in finding_remedies(catalogue, assessment, finding):
                print(
                    f"    {remedy.part.name}: {money(remedy.delivered_minor, assessment.currency)}"
                )
        if not assessment.findings:
            print("No findings.")
        if assessment.missing:
            print(f"Still missing: {', '.join(assessment.missing)}.")
    return 1 if assessment.blocking else 0


def _requirements(options: argparse.Namespace) -> int:
    return _read_text(options) if options.action == "read" else _verdict(options)


def _read_text(options: argparse.Namespace) -> int:
    data = (
        sys.stdin.buffer.read(MAX_TEXT_BYTES)
        if options.file == "-"
        else Path(options.file).read_bytes()[:MAX_TEXT_BYTES]
    )
    draft = reader_of(_catalogue(options)).read(
        data.decode("utf-8-sig", errors="replace").replace("\r\n", "\n")
    )
    if options.json:
        _print_json(draft_json(draft))
    else:
        print("\n".join(draft_lines(draft)))
    return 0


def _verdict(options: argparse.Namespace) -> int:
    """0 where every game's lowest tier is met, else 1."""
    catalogue = _catalogue(options)
    contender = machine_contender(catalogue.machine(_build(options.build)), options.system)
    games = known_games(catalogue, options.games or list(catalogue.published))
    verdicts = verdict_json(catalogue, contender, SURENESS[options.sureness], games)
    if options.json:
        _print_json(verdicts)
    else:
        print("\n".join(verdict_lines(verdicts)))
    lowest = [game["tiers"][0]["verdict"] for game in verdicts["games"] if game["tiers"]]
    return 0 if all(word not in ("short", "unsure") for word in lowest) else 1


_COMMANDS = {
    "demo": _serve,
    "serve": _serve,
    "import": _import,
    "export": _export,
    "propose": _propose,
    "estimate": _estimate,
    "check": _check,
    "requirements": _requirements,
}

if __name__ == "__main__":
    sys.exit(main())
