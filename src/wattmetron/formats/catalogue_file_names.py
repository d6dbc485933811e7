"""The files of a catalogue folder."""

from wattmetron.core.values.part_kinds import SPECS, Kind

PART_FILES: dict[Kind, str] = {kind: spec.file for kind, spec in SPECS.items()}
OFFERS_FILE, REGIONS_FILE, GAMES_FILE, PACKAGE_FILE = (
    "offers.csv",
    "regions.csv",
    "games.json",
    "datapackage.json",
)
REQUIREMENTS_FILE, CHARTS_FILE, OWN_FILE = "requirements.json", "charts.csv", "own_records.csv"
REFERENCES_FILE, SHOPS_FILE = "references.json", "shops.json"
