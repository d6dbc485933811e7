"""A catalogue folder to be filled in: every file with its heads, described, and what is needed at
least.
"""

import io
import zipfile

from wattmetron.core.catalogue import Catalogue
from wattmetron.formats.catalogue_writing import catalogue_files

README = """A catalogue folder for Wattmetron

Every file is a table with its columns in the first line; what each column holds, in which unit and
what may stay empty is said in datapackage.json. Spreadsheets open and save these tables as CSV.

Needed at least, so that a build can be proposed:
  regions.csv    one region with its currency
  one part in each of processors.csv, mainboards.csv, memory.csv, storage.csv, supplies.csv and
                 cases.csv; graphics.csv, and coolers.csv where no processor has a cooler in its box
  offers.csv     one offer for each of these parts in that region
  games.json     one game
The other files may stay as they are.

Then:  wattmetron import FOLDER   and   wattmetron serve
"""
FOLDER = "wattmetron-catalogue/"


def template() -> bytes:
    """The folder as a zip file."""
    empty = Catalogue(parts={}, games={}, offers=(), regions={})
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as file:
        for name, text in {**catalogue_files(empty), "README.txt": README}.items():
            entry = zipfile.ZipInfo(FOLDER + name, (1980, 1, 1, 0, 0, 0))
            file.writestr(entry, text)
    return packed.getvalue()
