"""Where data lies, and the catalogue that a command asks."""

import argparse
import os
from pathlib import Path

from wattmetron.cache.catalogue_cache import studied
from wattmetron.core.catalogue import Catalogue
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.workshop.workshop import Workshop


def default_database() -> Path:
    """Where data lies unless told otherwise: in the folder ``$WATTMETRON_DATA`` or the user's data
    folder.
    """
    sentence = os.environ.get("WATTMETRON_DATA")
    base = os.environ.get("XDG_DATA_HOME")
    home = Path(base) if base else Path.home() / ".local" / "share"
    folder = Path(sentence) if sentence else home / "wattmetron"
    return folder / "wattmetron.sqlite"


def database_of(options: argparse.Namespace) -> Path:
    return options.database or default_database()


def catalogue_of(options: argparse.Namespace) -> Catalogue:
    if options.catalogue:
        return studied(read_catalogue(options.catalogue))
    workshop = Workshop(database_of(options))
    try:
        return workshop.catalogue()
    finally:
        workshop.close()
