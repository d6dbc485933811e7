"""Speed of the balance: all that the view shows, one cell, and HiGHS on questions with every rule
on.
"""

import statistics
from dataclasses import replace

from tools.world import generate

from tests.bench.highs import least_money
from tests.bench.questions import fresh, question, timed
from tests.worlds import World
from wattmetron.cache.cache import Keeper
from wattmetron.core.balance.game_coverage import coverage, game_arrays
from wattmetron.core.balance.picture import all_pairings
from wattmetron.core.balance.upgrade_order import steps_between
from wattmetron.core.search.frontier import frontier
from wattmetron.core.search.problem import scenes_for
from wattmetron.core.search.proposal import BAND, propose
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.demo import CATALOGUE
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.balance import (
    cell_of,
    cuts_of,
    map_of,
    more_money,
    split_of,
    tables,
)
from wattmetron.places.balance.upgrade_path import upgrade_path

KEPT = Build()
DISPLAY = "saltgrove-casement-27"


def whole_view(catalogue, brief):
    """Tables, map, next money, split and cuts of the answer."""
    found = tables(catalogue, brief, KEPT)
    answer = found.answer(found.budget)
    now = assess(catalogue, brief, found.build_at(answer))
    return (
        map_of(found, now.machine.parts()),
        more_money(found, now),
        split_of(catalogue, now),
        cuts_of(catalogue, now),
    )


def views():
    print(
        "\nbalance, six targets (medians over five catalogues; its aims: 0.3 s, 2 s, 3 x a"
        " proposal)"
    )
    print(
        "parts   proposal   whole view   ratio   again with another budget   frontier alone   a"
        " cell's preview"
    )
    for per_kind in (250, 625):
        rows = []
        for seed in range(5):
            catalogue, brief = question(seed, per_kind)
            first, _ = timed(propose, fresh(catalogue, brief), brief)
            catalogue = fresh(catalogue, brief)
            view, _ = timed(whole_view, catalogue, brief)
            other, _ = timed(
                whole_view,
                catalogue,
                replace(brief, budget_high_minor=brief.budget_high_minor - 5000),
            )
            alone, _ = timed(
                frontier, scenes_for(catalogue, brief, KEPT), 2 * brief.budget_high_minor
            )
            found = tables(catalogue, brief, KEPT)
            pool = found.scenes[0].pool
            chip, card = (
                pool.processors.parts[len(pool.processors) // 2].id,
                pool.cards.parts[len(pool.cards) // 2].id,
            )

            def preview(catalogue=catalogue, brief=brief, found=found, chip=chip, card=card):
                cell = cell_of(found, chip, card)
                return cell and assess(catalogue, brief, found.build_at(cell.winner))

            rows.append((first, view, view / first, other, alone, timed(preview)[0]))
        first, view, ratio, other, alone, cell = (
            statistics.median(column) for column in zip(*rows, strict=True)
        )
        print(
            f"{8 * per_kind:5}   {first:.3f}      {view:.3f}        {ratio:.1f}     {other:.3f}    "
            f"                   {alone:.3f}            {1000 * cell:.0f} ms"
        )


def pictures():
    """All pairings in one picture, the tables of the question kept."""
    print("\npicture of all pairings (medians over three catalogues)")
    for per_kind in (250, 625):
        took, pairs = [], []
        for seed in range(3):
            catalogue, brief = question(seed, per_kind)
            found = tables(catalogue, brief, KEPT)
            took.append(timed(all_pairings, found.scenes, found.budget, BAND)[0])
            pairs.append(sum(scene.grid()[0].size for scene in found.scenes))
        print(
            f"{8 * per_kind:5} parts, {statistics.median(pairs):7.0f} pairings:"
            f" {statistics.median(took):.2f} s"
        )


def growth():
    """Cost of the frontier against processor variants times cards."""
    print("\nfrontier against processors x cards (medians over three catalogues)")
    print("parts   pairings   frontier   microseconds per pairing")
    for per_kind in (64, 125, 250, 500):
        took, pairs = [], []
        for seed in range(3):
            catalogue, brief = question(seed, per_kind)
            scenes = scenes_for(catalogue, brief, KEPT)
            took.append(timed(frontier, scenes, 2 * brief.budget_high_minor)[0])
            pairs.append(sum(scene.grid()[0].size for scene in scenes))
        middle, count = statistics.median(took), statistics.median(pairs)
        print(f"{8 * per_kind:5}   {count:8.0f}   {middle:.3f}      {1e6 * middle / count:.1f}")


def against_highs_with_wishes():
    print(
        "\nleast money with wishes against HiGHS, 20 questions of 704 parts (same optimum asserted)"
    )
    ratios = []
    for seed in range(40, 60):
        catalogue, brief = question(seed, 88, with_integrated=False)
        banned = tuple(
            part.id for n, part in enumerate(catalogue.parts.values()) if n % 23 == seed % 23
        )
        wished = replace(
            brief,
            banned=banned,
            volume_limit_l=45.0 if seed % 2 else None,
            part_cap_minor=70_000 if seed % 3 else None,
        )
        left = replace(
            catalogue,
            offers=tuple(
                offer
                for offer in catalogue.offers
                if offer.part_id not in banned and _within(wished, offer)
            ),
        )
        ratios.append(_ratio(seed, left, catalogue, wished))
    _print_ratios(ratios)


def _ratio(seed, theirs_of, ours_of, brief):
    """How many times as long HiGHS takes; its catalogue may have less in it."""
    theirs, cost = timed(least_money, theirs_of, brief)
    ours, found = timed(propose, fresh(ours_of, brief), brief, "least money")
    assert (found.cost_minor if found.build else None) == cost, (seed, found.cost_minor, cost)
    return theirs / ours


def _print_ratios(ratios):
    print(
        f"ratio: median {statistics.median(ratios):.0f}, least {min(ratios):.0f}, most"
        f" {max(ratios):.0f}"
    )


def against_highs_with_the_whole_machine():
    print(
        "\nleast money with an owned card, drives by role and wireless by the cheapest way against"
        " HiGHS,\n20 questions of 448 parts (same optimum asserted)"
    )
    ratios = []
    for seed in range(60, 80):
        catalogue, brief = question(seed, 56, with_integrated=False)
        book = catalogue.prices(brief.region, NEW_PARTS)
        catalogue, _ = World(seed).besides(catalogue, brief)
        cheap = [
            card.id
            for card in catalogue.by_kind["graphics"]
            if card.outputs and 15_000 < (book.cost(card.id) or 0) < 40_000
        ]
        asked = replace(
            brief,
            owned=tuple(cheap[:1]),
            wireless=True,
            buys=("system",) if seed % 4 == 0 else (),
            system_gb=200.0,
            games_gb=500.0,
            bulk_gb=1000.0 if seed % 3 else 0.0,
            drives_apart=seed % 2 == 0,
            no_disks=seed % 5 == 0,
        )
        ratios.append(_ratio(seed, catalogue, catalogue, asked))
    _print_ratios(ratios)


def upgrades():
    """The order of ten changes, and the path over five years, on the demo data."""
    catalogue = read_catalogue(CATALOGUE).kept_by(Keeper())
    brief, build = generate.briefs(catalogue)["net-loft"]
    other = replace(
        propose(catalogue, brief).build,
        added=(("fan", catalogue.by_kind["fan"][0].id), ("display", DISPLAY)),
    )
    kinds = ("processor", "graphics", "mainboard", "memory", "storage", "cooler", "supply", "case")
    changes = sum(build.of(kind) != other.of(kind) for kind in (*kinds, "fan", "display"))
    took = min(timed(steps_between, catalogue, brief, build, other)[0] for _ in range(3))
    print(f"\nwhat first: order of {changes} changes {took:.3f} s")
    easy = tuple(replace(t, fps=40.0, preset="medium", ray_tracing=False) for t in brief.targets)
    asked = replace(brief, years=5, targets=easy)
    took = min(timed(upgrade_path, fresh(catalogue, asked), asked, KEPT)[0] for _ in range(3))
    print(f"upgrade path over five years {took:.3f} s")


def library():
    """5,000 games at four resolutions and four presets on one machine."""
    catalogue = read_catalogue(CATALOGUE).kept_by(Keeper())
    _, build = generate.briefs(catalogue)["net-loft"]
    games = list(catalogue.games.values())
    many = (games * (5000 // len(games) + 1))[:5000]
    arrays = game_arrays(many)
    took = min(timed(coverage, catalogue.machine(build), many, arrays)[0] for _ in range(3))
    print(f"\nlibrary coverage, 5,000 games x 4 resolutions x 4 presets {took:.3f} s")


def _within(brief, offer):
    return (
        brief.part_cap_minor is None
        or offer.price_minor + offer.shipping_minor <= brief.part_cap_minor
    )
