"""Commands about what is stored: import, export, backup, restore, doctor."""

import argparse
from contextlib import closing

from wattmetron.cli.places import database_of
from wattmetron.services.doctor import examine
from wattmetron.services.workshop import Workshop
from wattmetron.store import upkeep


def import_folder(options: argparse.Namespace) -> int:
    with closing(Workshop(database_of(options))) as workshop:
        catalogue = workshop.import_folder(options.folder)
    print(
        f"Imported {len(catalogue.parts)} parts, {len(catalogue.offers)} offers,"
        f" {len(catalogue.games)} games."
    )
    return 0


def export_folder(options: argparse.Namespace) -> int:
    with closing(Workshop(database_of(options))) as workshop:
        catalogue = workshop.export_folder(options.folder)
    print(
        f"Wrote {len(catalogue.parts)} parts, {len(catalogue.offers)} offers,"
        f" {len(catalogue.games)} games."
    )
    return 0


def backup(options: argparse.Namespace) -> int:
    held = upkeep.back_up(database_of(options), options.file)
    print(f"Backed up {held} into {options.file}, and checked it.")
    return 0


def restore(options: argparse.Namespace) -> int:
    held, aside = upkeep.restore(options.file, database_of(options))
    print(f"Restored {held}.")
    if aside is not None:
        print(f"What stood there before is kept as {aside}.")
    return 0


def doctor(options: argparse.Namespace) -> int:
    """0 where nothing is wrong, else 1."""
    path = database_of(options)
    found = examine(path)
    for sentence in found:
        print(sentence)
    if not found:
        print(f"Nothing is wrong with {path}.")
    return 1 if found else 0
