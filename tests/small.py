"""A small part of the demo world, for tests about words, forms, errors, addresses and states.

``python -m tests.small`` writes it anew from the committed demo. The briefs keep their order and
their builds; games that are left out are missing from their targets.
"""

from dataclasses import replace
from functools import cache
from pathlib import Path
from shutil import rmtree

from tests import demo
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.values.brief import Brief
from wattmetron.formats.brief_file import brief_file, build_file
from wattmetron.formats.catalogue_writing import write_catalogue

FOLDER = Path(__file__).with_name("small_world")
CATALOGUE, BRIEFS = FOLDER / "catalogue", FOLDER / "briefs"
REGION = "vellmouth"
GAMES = (
    "ashfall-wardens",
    "breakwater-siege",
    "causeway-clash",
    "gullwing-circuit",
    "hollow-meridian",
    "lanternfolk",
    "thousand-towers",
    "vantage-null",
)
PARTS = tuple(Path(__file__).with_name("small_parts.txt").read_text().split())


@cache
def described() -> Catalogue:
    """The demo's catalogue with a few parts and games, and one region."""
    whole = demo.described()
    ids = set(PARTS)
    charts = {
        chart.id: replace(chart, rows=rows)
        for chart in whole.charts.values()
        if len(rows := tuple(row for row in chart.rows if row.part.partition("@")[0] in _keys()))
        > 1
    }
    return replace(
        whole,
        parts={part_id: part for part_id, part in whole.parts.items() if part_id in ids},
        games={game_id: whole.games[game_id] for game_id in GAMES},
        offers=tuple(o for o in whole.offers if o.part_id in ids and o.region == REGION),
        regions={REGION: whole.regions[REGION]},
        published={key: value for key, value in whole.published.items() if key in GAMES},
        results={key: value for key, value in whole.results.items() if key in GAMES},
        charts=charts,
        shops={key: shop for key, shop in whole.shops.items() if shop.region == REGION},
    )


def _keys() -> set[str]:
    """How charts name the parts: processors by their id, cards by their chip."""
    parts = (demo.described().parts[part_id] for part_id in PARTS)
    return {
        *PARTS,
        *(part.chip.lower().replace(" ", "-") for part in parts if hasattr(part, "chip")),
    }


def brief(name: str) -> Brief:
    """A brief of the demo with the targets whose games are there."""
    whole = demo.plan(name)[0]
    targets = tuple(target for target in whole.targets if target.game_id in GAMES)
    return replace(whole, region=REGION, targets=targets)


def main() -> None:
    rmtree(FOLDER, ignore_errors=True)
    write_catalogue(described(), CATALOGUE)
    BRIEFS.mkdir()
    for name in demo.names():
        for what, file in (
            ("brief", brief_file(brief(name))),
            ("build", build_file(demo.plan(name)[1])),
        ):
            (BRIEFS / f"{name}.{what}.json").write_text(file.model_dump_json(indent=2) + "\n")


if __name__ == "__main__":
    main()
