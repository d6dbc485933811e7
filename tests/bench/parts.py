"""Parts and fit: all rules over one build, what fits and why not, the list and the finder over
5,000 parts.
"""

import statistics
import tempfile
from dataclasses import replace
from pathlib import Path
from urllib.parse import quote
from urllib.request import urlopen

from tests.bench.questions import timed
from tests.site import Site
from tests.worlds import World
from wattmetron.core.compatibility.candidates import reasons_against
from wattmetron.core.compatibility.rules import check
from wattmetron.core.values.build import Build
from wattmetron.core.values.part_kinds import KINDS

TYPED = ("qui", "card 12", "kitefal board 7", "supply", "bord 44", "proces")


def fetched(url) -> float:
    """Seconds until a page is there."""
    return timed(lambda: urlopen(url).read())[0]


def some_build(world, catalogue) -> Build:
    build = Build()
    for kind in KINDS:
        build = build.with_part(kind, world.pick(*catalogue.by_kind[kind]).id)
    return build


def rules():
    world = World(3)
    catalogue = world.catalogue(per_kind=625, games=6)
    machine = catalogue.machine(some_build(world, catalogue))
    item = min(timed(lambda: [check(machine) for _ in range(100)])[0] for _ in range(5)) / 100
    print(f"\nall rules over one build: {1000 * item:.2f} ms")
    whole = []
    for _ in range(7):
        spent, found = timed(
            lambda: {
                kind: list(reasons_against(machine, kind, catalogue.by_kind[kind]))
                for kind in KINDS
            }
        )
        whole.append(spent)
    parts = sum(map(len, found.values()))
    print(
        f"what fits and why not over {parts:,} parts: median {1000 * statistics.median(whole):.0f}"
        f" ms, {statistics.median(whole) / parts / item:.2f} of all rules over one build for each"
        " part"
    )


def pages():
    """The list, a part, the Fit view and a keystroke in the finder, at the server, against an empty
    brief's page.
    """
    world = World(9)
    catalogue = world.catalogue(per_kind=625, games=6)
    with tempfile.TemporaryDirectory() as folder:
        site = Site(Path(folder) / "parts.sqlite")
        small = site.workshop.catalogue()
        site.workshop.import_catalogue(
            replace(catalogue, games={**small.games, **catalogue.games}), "5,000 parts"
        )
        made = site.workshop.new_brief()
        brief = site.workshop.open(made)
        build = some_build(world, catalogue)
        site.workshop.change(
            made, brief.version, lambda plan: (replace(plan, build=build), "filled")
        )
        blank = site.workshop.new_brief()
        card = build.graphics
        addresses = {
            "list of a kind, held against a build": f"/parts?kind=graphics&brief={made}",
            "the same by price alone": "/parts?kind=graphics",
            "one part in full": f"/parts/{card}?brief={made}",
            "Fit view": f"/briefs/{made}/fit",
            "empty brief": f"/briefs/{blank}/frames",
        }
        fetched(site.url + "/briefs")
        print("\npages at 5,000 parts, the server's part (first, then the median of 15)")
        for name, address in addresses.items():
            first, *again = [fetched(site.url + address) for _ in range(16)]
            print(f"{name}: {1000 * first:.0f}, {1000 * statistics.median(again):.0f} ms")
        keys = [fetched(f"{site.url}/briefs/{made}/find?q={quote(word)}") for word in TYPED * 5]
        print(
            f"finder keystroke: median {1000 * statistics.median(keys):.0f} ms, longest"
            f" {1000 * max(keys[len(TYPED) :]):.0f} ms"
        )
        site.stop()


if __name__ == "__main__":
    rules()
    pages()
