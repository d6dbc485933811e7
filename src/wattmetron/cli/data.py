"""Commands about what is stored: import, export, backup, restore, tidy, doctor."""

import argparse
import sys
from contextlib import closing
from datetime import UTC, datetime

from wattmetron.cli.places import database_of
from wattmetron.core.errors import InvalidError, NotPossibleError
from wattmetron.core.values.words import listed
from wattmetron.store import backup as upkeep
from wattmetron.store import tidying
from wattmetron.workshop.health_check import examine
from wattmetron.workshop.workshop import ImportEffect, Workshop


def import_folder(options: argparse.Namespace) -> int:
    with closing(Workshop(database_of(options))) as workshop:
        if options.undo:
            print(f"Took the import of “{workshop.undo_import()}” back.")
            return 0
        if options.folder is None:
            raise InvalidError("Name the folder to import, or take the last import back: --undo.")
        catalogue = workshop.import_folder(
            options.folder, lambda effect: options.yes or _agrees(effect)
        )
    print(
        f"Imported {len(catalogue.parts)} parts, {len(catalogue.offers)} offers,"
        f" {len(catalogue.games)} games."
    )
    return 0


def _agrees(effect: ImportEffect) -> bool:
    """Say what an import would take away, and ask."""
    print(effect_in_words(effect))
    if not sys.stdin.isatty():
        raise NotPossibleError(
            "Nothing was imported: say that this is meant with --yes. It can be taken back with"
            " “wattmetron import --undo”."
        )
    return input("Import it? (yes or no) ").strip().lower() in ("y", "yes")


def effect_in_words(effect: ImportEffect) -> str:
    """What an import would take away, in one or two sentences."""
    words = []
    if effect.removed:
        lost = listed([_counted(count, name) for name, count in effect.removed.items()])
        origin = listed([f"“{source}”" for source in effect.elsewhere])
        words.append(f"This removes {lost}{f', imported from {origin}' if origin else ''}.")
    if effect.typed_replaced:
        words.append(f"It replaces what was typed in {_counted(effect.typed_replaced, 'parts')}.")
    return " ".join(words)


def _counted(count: int, plural: str) -> str:
    return f"{count:,} {plural[:-1] if count == 1 else plural}"


def export_folder(options: argparse.Namespace) -> int:
    with closing(Workshop(database_of(options))) as workshop:
        catalogue = workshop.export_folder(options.folder)
    print(
        f"Wrote {len(catalogue.parts)} parts, {len(catalogue.offers)} offers,"
        f" {len(catalogue.games)} games."
    )
    return 0


def backup(options: argparse.Namespace) -> int:
    backup_names = upkeep.back_up(database_of(options), options.file)
    print(f"Backed up {backup_names} into {options.file}, and checked it.")
    return 0


def restore(options: argparse.Namespace) -> int:
    backup_name, aside = upkeep.restore(options.file, database_of(options))
    print(f"Restored {backup_name}.")
    if aside is not None:
        print(f"What stood there before is kept as {aside}.")
    return 0


def tidy(options: argparse.Namespace) -> int:
    """Remove what is past its time and give the space back; with --dry-run only say what."""
    path = database_of(options)
    with closing(Workshop(path)) as workshop:
        database = workshop.database
        with database.reading() if options.dry_run else database.writing() as session:
            tidied = tidying.tidy(session, datetime.now(UTC))
    print(_tidied(tidied, options.dry_run))
    if not options.dry_run:
        before, after = tidying.shrink(path)
        print(f"{path} has {after / 1e6:,.1f} MB; it had {before / 1e6:,.1f} MB.")
    return 0


def _tidied(tidied: tidying.Tidied, dry: bool) -> str:
    if tidied.nothing:
        return "Nothing is past its time: prices of the last two years stay as they came."
    counts = (
        (tidied.imports, "daily import older than two years", "daily imports older than two years"),
        (tidied.revisions, "price or entry of theirs alone", "prices and entries of theirs alone"),
        (tidied.links, "link that opens nothing", "links that open nothing"),
        (tidied.runs, "deleted measured run", "deleted measured runs"),
        (tidied.sessions, "ended session", "ended sessions"),
    )
    removed = listed([f"{n:,} {singular if n == 1 else many}" for n, singular, many in counts if n])
    return f"{'Would remove' if dry else 'Removed'} {removed}; of each week the last import stays."


def doctor(options: argparse.Namespace) -> int:
    """0 where nothing is wrong, else 1."""
    path = database_of(options)
    report = examine(path)
    for sentence in report:
        print(sentence)
    if not report:
        print(f"Nothing is wrong with {path}.")
    return 1 if report else 0
