"""Spell out the tables into the demo's catalogue folder, its briefs and its hidden truth:
``python -m tools.world.generate``.
"""

from collections.abc import Callable, Iterable
from itertools import chain

from tools.world.chart_tables import charts
from tools.world.demo_briefs import briefs
from tools.world.demo_records import OWN, REFERENCES
from tools.world.demo_shops import SHOPS
from tools.world.details import detailed
from tools.world.game_tables import games, true_works
from tools.world.hidden import hidden_truth, published_parts, results, true_games, world_of
from tools.world.market import REGIONS, MadeUpMarket
from tools.world.offer_terms import KEYS
from tools.world.part_tables import (
    boards,
    cards,
    cases,
    coolers,
    drives,
    further_parts,
    kits,
    processors,
    series_boards,
    series_drives,
    series_kits,
    series_supplies,
    supplies,
)
from tools.world.tables import requirement_text, rows
from tools.world.truth import TrueGame, World
from wattmetron.core.catalogue import Catalogue
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.texts.requirements.requirements_reader import Reader
from wattmetron.core.values.own_record import with_records
from wattmetron.core.values.parts import Part
from wattmetron.core.values.published import Published
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.demo.true_work import TRUTH_FILE, written_truth
from wattmetron.formats.brief_file import brief_file, build_file
from wattmetron.formats.catalogue_writing import write_catalogue

SYSTEMS = ("Tidewater", "Stillwater")


def catalogue() -> Catalogue:
    """The demo's catalogue, as the world publishes it."""
    return made_up_world()[0]


def made_up_world() -> tuple[Catalogue, tuple[World, dict[str, TrueGame]]]:
    """What the world publishes, and what is true in it."""
    market, bench = MadeUpMarket(), MadeUpMarket(20261121)
    parts = priced_parts(market, bench)
    shown = {key: detailed(part) for key, part in published_parts(parts).items()}
    world = world_of(parts, shown)
    hidden = true_games(world, {game.id: game for game in true_works()})
    records = {record.key: record for record in OWN}
    catalogue = Catalogue(
        parts=with_records(shown, records),
        own=records,
        references={reference.id: reference for reference in REFERENCES},
        shops={shop.key: shop for shop in SHOPS},
        games={game.id: game for game in games()},
        offers=(*market.offers, *bench.offers),
        regions=REGIONS,
        published=published(shown),
        charts=charts(parts),
        results=results(world, hidden),
    )
    return catalogue, (world, hidden)


def priced_parts(market: MadeUpMarket, bench: MadeUpMarket) -> dict[str, Part]:
    """All parts, after shops offered them; the order is part of the world, since prices are drawn
    one after the other.
    """
    parts: dict[str, Part] = {}

    def sell(priced: Iterable[tuple[Part, float]], offer: Callable[[Part, float], None]) -> None:
        for part, eur in priced:
            assert part.id not in parts, part.id
            parts[part.id] = part
            offer(part, eur)

    families = (boards(), kits("kits"), drives("drives"), coolers("coolers"))
    sell(
        chain(
            processors("processors"),
            cards("chips"),
            *families,
            supplies("supplies"),
            cases("cases"),
        ),
        market.stock,
    )
    sell(chain(processors("earlier_processors"), cards("earlier_chips")), bench.remnants)
    series = chain(
        series_boards(),
        series_kits(),
        kits("further_kits"),
        series_drives(),
        drives("further_drives"),
        coolers("further_coolers"),
        series_supplies(),
        supplies("further_supplies"),
        cases("further_cases"),
    )
    sell(
        chain(cards("chips", "further_partners"), series, coolers("liquid_coolers")),
        MadeUpMarket(20261123, market.offers).stock,
    )
    sell(kits("odd_kits"), MadeUpMarket(20261124, market.offers).stock)
    sell(further_parts(), MadeUpMarket(20261125, market.offers).stock)
    market.offers += KEYS
    return parts


def published(parts: dict[str, Part]) -> dict[str, Published]:
    """What the games publish, read from the texts as a user would read them."""
    reader = Reader(Scale(parts.values(), {}), SYSTEMS, ("Fairlead",), ("Spyglass", "Driftlens"))
    return {
        row.game: Published(
            game=row.game,
            tiers=reader.read(requirement_text(row.game)).tiers,
            text=requirement_text(row.game),
            source=row.source,
            published_on=row.published_on,
        )
        for row in rows("requirement_texts")
    }


def truth_text() -> str:
    """The text of the file that the simulated meters read."""
    _, (world, hidden) = made_up_world()
    return written_truth(hidden_truth(world, hidden))


def main() -> None:
    world = catalogue()
    write_catalogue(world, CATALOGUE)
    TRUTH_FILE.write_text(truth_text())
    BRIEFS.mkdir(exist_ok=True)
    for name, (brief, build) in briefs(world).items():
        (BRIEFS / f"{name}.brief.json").write_text(
            brief_file(brief).model_dump_json(indent=2) + "\n"
        )
        (BRIEFS / f"{name}.build.json").write_text(
            build_file(build).model_dump_json(indent=2) + "\n"
        )
    print(f"{len(world.parts)} parts, {len(world.offers)} offers, {len(world.games)} games")


if __name__ == "__main__":
    main()
