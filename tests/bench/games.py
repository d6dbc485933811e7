"""Speed of reading, of verdicts over many games, and of the Games page."""

import statistics
import tempfile
from dataclasses import replace
from pathlib import Path
from urllib.request import urlopen

import numpy as np

from tests.bench.questions import timed
from tests.core.requirements.tuned import TUNED
from tests.core.requirements.untouched import UNTOUCHED
from tests.site import Site
from tests.worlds import World
from wattmetron.cache.cache import Keeper
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.requirements.verdicts import asked_amounts, standings
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values.build import Build
from wattmetron.core.values.published import Listed, Published, Tier
from wattmetron.demo import CATALOGUE
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.places.games.contenders import machine_contender

GAMES, TIERS = 5000, 3


def many_games(per_kind=100, games=GAMES):
    """A catalogue of eight times ``per_kind`` parts with games of three tiers, each naming two of
    either side.
    """
    world = World(5)
    catalogue = world.catalogue(per_kind=per_kind, games=1)
    processors = [part.id for part in catalogue.by_kind["processor"]]
    chips = list(scale_of(catalogue).variants)
    rng = np.random.default_rng(5)
    found, published = {}, {}
    for n in range(games):
        game = replace(world.game(n), id=f"game-{n}", name=f"Game {n}")
        tiers = tuple(
            Tier(
                label=label,
                processors=tuple(
                    Listed(text="named", part=str(item)) for item in rng.choice(processors, 2)
                ),
                graphics=tuple(
                    Listed(text="named", part=str(item)) for item in rng.choice(chips, 2)
                ),
                memory_gb=8.0,
                video_memory_gb=4.0,
                storage_gb=50.0,
                system="Tidewater 10",
            )
            for label in ("Minimum", "Recommended", "Ultra")[:TIERS]
        )
        found[game.id], published[game.id] = game, Published(game=game.id, tiers=tiers)
    return replace(catalogue, games=found, published=published)


def reading():
    texts = [sample.text for sample in (*TUNED, *UNTOUCHED)]
    catalogue = read_catalogue(CATALOGUE).kept_by(Keeper())
    first = timed(reader_of(catalogue).read, texts[0])[0]
    each = [min(timed(reader_of(catalogue).read, text)[0] for _ in range(5)) for text in texts]
    large = World(3).catalogue(per_kind=625)
    large = replace(large, parts={**catalogue.parts, **large.parts})
    reader_of(large).read(texts[0])
    beside = [min(timed(reader_of(large).read, text)[0] for _ in range(3)) for text in texts]
    print("\nreading one text (60 samples)")
    print(
        f"demo catalogue: median {1000 * statistics.median(each):.1f} ms, longest"
        f" {1000 * max(each):.1f} ms; the very first {1000 * first:.0f} ms; 5,000 parts: median"
        f" {1000 * statistics.median(beside):.1f} ms,"
        f" {statistics.median(beside) / statistics.median(each):.1f} x"
    )


def verdicts():
    catalogue = many_games().kept_by(Keeper())
    build = Build(
        processor="processor-0000",
        graphics="graphics-0000",
        memory="memory-0000",
        storage=("storage-0000",),
    )
    item = machine_contender(catalogue.machine(build), "Tidewater 11")
    bars = timed(lambda: tiers_of(catalogue))[0]
    asked = timed(lambda: asked_amounts(catalogue))[0]
    question = tiers_of(catalogue), asked_amounts(catalogue), item, 0.8
    again = [timed(standings, *question)[0] for _ in range(10)]
    single = standings(*question)
    assert single.codes.shape == (GAMES * TIERS, 7)
    print(f"\nverdicts of one build against {GAMES:,} games with {TIERS} tiers")
    print(
        f"median {1000 * statistics.median(again):.1f} ms; the bars before them, once per"
        f" catalogue: {bars + asked:.2f} s"
    )


def games_page():
    with tempfile.TemporaryDirectory() as folder:
        site = Site(Path(folder) / "games.sqlite")
        site.workshop.import_catalogue(many_games(), "many")
        full = _page(f"{site.url}/games")
        site.workshop.import_catalogue(many_games(games=0), "none")
        empty = _page(f"{site.url}/games")
        site.stop()
    print(
        f"\nGames page with {GAMES:,} games: {1000 * full:.0f} ms, {full / empty:.1f} x the page"
        f" without any game ({1000 * empty:.0f} ms)"
    )


def _page(url: str) -> float:
    urlopen(url).read()
    return statistics.median(timed(lambda: urlopen(url).read())[0] for _ in range(15))


if __name__ == "__main__":
    reading()
    verdicts()
    games_page()
