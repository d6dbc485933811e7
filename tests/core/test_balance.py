"""Everything that the balance shows against brute force over every build of small catalogues."""

from dataclasses import replace
from itertools import product

import numpy as np
import pytest

from tests.core.brute import answer, every_build, may_be_bought, money_for
from tests.core.questions import build_of, dearest, drawn, ids_of, known
from tests.extent import exhaustive, extent
from wattmetron.core.balance.conflict import can_hinder, conflict
from wattmetron.core.balance.cost_shares import split
from wattmetron.core.balance.pairs import pairs_map
from wattmetron.core.balance.part_price_limits import price_limit
from wattmetron.core.balance.picture import all_pairings
from wattmetron.core.balance.preference_prices import grant
from wattmetron.core.balance.reductions import cuts, free_money
from wattmetron.core.compatibility.rule_wishes import wishes_of
from wattmetron.core.compatibility.rules import check
from wattmetron.core.compatibility.wasted_money import weighed
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.answer import AIMS
from wattmetron.core.search.frontier import frontier
from wattmetron.core.search.problem import scenes_for
from wattmetron.core.search.proposal import BAND, cheapest_fit, propose
from wattmetron.core.search.tie_break import settle
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.part_kinds import ALL_KINDS, KINDS
from wattmetron.core.values.preferences import Preference
from wattmetron.core.values.wishes import insisting, wishes_held, without

SEEDS = extent((0, 2, 6, 9, 10, 11, 14, 15, 17, 19), tuple(range(40)))
"""In ``make test`` those with builds of which there are not too many."""
CHUNK = 20
CHUNKS = pytest.mark.parametrize("first", range(0, len(SEEDS), CHUNK))
pytestmark = exhaustive


def questions(first: int):
    for seed in SEEDS[first : first + CHUNK]:
        yield seed, *known(seed)


@CHUNKS
def test_equals_brute_force(first):
    outcomes = set()
    for seed, catalogue, brief, kept, found in questions(first):
        weight = sum(target.weight for target in brief.targets)
        budget = money_for(catalogue, brief, kept)
        for aim in AIMS:
            if aim == "same frames" and not (found and brief.counted_targets):
                assert propose(catalogue, brief, aim, kept).build is None
                continue
            present = dearest(found) if aim == "same frames" else None
            expected = answer(found, aim, weight, budget, BAND, present)
            now = build_of(present.ids) if present else None
            got = propose(catalogue, brief, aim, kept, present=now)
            if expected is None:
                assert got.build is None, (seed, aim)
            else:
                assert got.build is not None, (seed, aim)
                assert (got.cost_minor, got.gain) == (expected.cost, expected.gain), (seed, aim)
                assert aim == "same frames" or got.weight_met == expected.met, (seed, aim)
                assert ids_of(got.build) == expected.ids, (seed, aim)
            outcomes.add((aim, expected is None))
        if brief.accept_spill:
            least = cheapest_fit(catalogue, brief, kept)
            assert least.cost_minor == min(
                (item.cost for item in found), default=least.cost_minor
            ), seed
    assert len(outcomes) >= 4


@CHUNKS
def test_the_frontier_and_every_budget_on_it(first):
    """Steps: no cheaper or equally dear build ranks as high. For any budget the frontier answers as
    the aim does.
    """
    steps = 0
    for seed, catalogue, brief, kept, found in questions(first):
        best, expected = None, []
        for item in sorted(found, key=lambda item: (item.cost, -item.met, -item.gain)):
            if best is None or (item.met, item.gain) > best:
                best = item.met, item.gain
                expected.append((item.cost, item.met, item.gain))
        got = frontier(scenes_for(catalogue, brief, kept))
        assert [
            (each_step.cost, each_step.met, each_step.gain) for each_step in got.steps
        ] == expected, seed
        weight = sum(target.weight for target in brief.targets)
        for cost, _, _ in expected:
            for budget in (cost - 1, cost, cost + 2500):
                wanted, picked = (
                    answer(found, "most frames", weight, budget, BAND),
                    got.answer(budget, BAND),
                )
                assert (picked and (picked.cost, picked.met, picked.gain)) == (
                    wanted and (wanted.cost, wanted.met, wanted.gain)
                ), seed
        for step in got.steps[:3]:
            first_ids = min(
                item.ids
                for item in found
                if (item.cost, item.met, item.gain) == (step.cost, step.met, step.gain)
            )
            assert (
                ids_of(settle(catalogue, brief, scenes_for(catalogue, brief, kept), step, kept))
                == first_ids
            ), seed
        if len(expected) > 2:
            most = expected[1][0]
            part = frontier(scenes_for(catalogue, brief, kept), most)
            assert part.steps == got.steps[:2] and part.gains == got.gains[:2]
        steps += len(expected)
    assert steps > 6


@CHUNKS
def test_every_cell_of_the_map(first):
    """For each processor and card the aim's pick within the budget, else the cheapest; no cell
    where nothing fits.
    """
    cells = 0
    for seed, catalogue, brief, kept, found in questions(first):
        scenes = scenes_for(catalogue, brief, kept)
        pool, weight = scenes[0].pool, sum(target.weight for target in brief.targets)
        got = pairs_map(
            scenes, brief.budget_high_minor, BAND, (*pool.processors.parts, *pool.cards.parts)
        )
        by_pair = {}
        for item in found:
            by_pair.setdefault(item.ids[:2], []).append(item)
        seen = {}
        for (c, g), cell in got.cells.items():
            pair = pool.processors.parts[c].id, "" if g is None else pool.cards.parts[g].id
            own = by_pair[pair]
            wanted = answer(own, "most frames", weight, brief.budget_high_minor, BAND)
            if wanted is None:
                wanted = min(own, key=lambda item: (item.cost, -item.met, -item.gain))
            assert (cell.winner.cost, cell.winner.met, cell.winner.gain) == (
                wanted.cost,
                wanted.met,
                wanted.gain,
            ), (seed, pair)
            assert cell.inside == (wanted.cost <= brief.budget_high_minor)
            equal = [
                machine_of(catalogue, build_of(item.ids), brief.clocks)
                for item in own
                if (item.cost, item.met, item.gain) == (wanted.cost, wanted.met, wanted.gain)
            ]
            for target, share in zip(brief.counted_targets, cell.processor_shares, strict=True):
                game = fitted_game(catalogue, target.game_id)
                items = [estimate(machine, game, target, brief) for machine in equal]
                if np.isfinite(items[0].graphics_ms):
                    assert any(
                        share == pytest.approx(item.processor_share, abs=1e-6) for item in items
                    ), (seed, pair)
            seen[pair] = True
        assert set(seen) == set(by_pair), seed
        cells += len(seen)
    assert cells > 15


@CHUNKS
def test_the_best_pairing_of_each_bin_of_the_picture(first):
    """Groups hold every part around which something fits, by price; a bin's pairing reaches most
    within the budget, or costs least.
    """
    inside = outside = 0
    for seed, catalogue, brief, kept, found in questions(first):
        scenes = scenes_for(catalogue, brief, kept)
        pool, weight, budget = (
            scenes[0].pool,
            sum(target.weight for target in brief.targets),
            brief.budget_high_minor,
        )
        got = all_pairings(scenes, budget, BAND, 2, 3)
        chips = [[pool.processors.parts[c].id for c in own] for own in got.rows]
        cards = [["" if g is None else pool.cards.parts[g].id for g in own] for own in got.columns]
        assert {item.ids[0] for item in found} <= set().union(*chips) and {
            item.ids[1] for item in found
        } <= set().union(*cards)
        costs = [pool.processors.cost[c] for own in got.rows for c in own]
        assert costs == sorted(costs)
        for row, column in product(range(len(chips)), range(len(cards))):
            own = [
                item for item in found if item.ids[0] in chips[row] and item.ids[1] in cards[column]
            ]
            if not own:
                assert (row, column) not in got.cells, seed
                continue
            c, g, cell = got.cells[row, column]
            pair = pool.processors.parts[c].id, "" if g is None else pool.cards.parts[g].id
            mine = [item for item in own if item.ids[:2] == pair]
            able = [item for item in own if item.cost <= budget]
            if able:
                best = min((-item.met, -item.gain, item.cost) for item in able)
                assert (
                    min((-item.met, -item.gain, item.cost) for item in mine if item.cost <= budget)
                    == best
                ), (seed, row, column)
                wanted = answer(mine, "most frames", weight, budget, BAND)
                assert (cell.winner.cost, cell.winner.gain) == (wanted.cost, wanted.gain)
                inside += 1
            else:
                assert cell.winner.cost == min(item.cost for item in own), (seed, row, column)
                outside += 1
            assert cell.inside == bool(able)
    assert inside > 5 and inside + outside > 10


@CHUNKS
def test_still_the_pick_up_to(first):
    """At the limit the answer is the same, one above it is not; a near miss enters at its limit and
    not between it and today.
    """
    inside = entering = beside = 0
    for seed, catalogue, brief, kept, found in questions(first):
        weight, budget = (
            sum(target.weight for target in brief.targets),
            money_for(catalogue, brief, kept),
        )
        chosen = propose(catalogue, brief, "most frames", kept)
        if chosen.build is None:
            continue
        mine = {part_id for kind, part_id in chosen.build.ids() if kind in KINDS}
        misses = [
            part.id
            for kind in ("processor", "graphics")
            for part in catalogue.by_kind[kind]
            if part.id not in mine
        ]

        def at(
            part_id,
            rise,
            catalogue=catalogue,
            brief=brief,
            found=found,
            weight=weight,
            budget=budget,
        ):
            cap = brief.part_cap_minor
            gone = (
                cap is not None
                and catalogue.prices(brief.region, NEW_PARTS).cost(part_id) + rise > cap
            )
            shifted = [item for item in found if not gone or part_id not in item.ids + item.ids[4]]
            shifted = [
                replace(
                    item,
                    cost=item.cost
                    + rise * (item.ids[:4] + item.ids[4] + item.ids[5:]).count(part_id),
                )
                for item in shifted
            ]
            return answer(shifted, "most frames", weight, budget, BAND)

        for part_id in [*sorted(mine), *misses]:
            price = catalogue.prices(brief.region, NEW_PARTS).cost(part_id)
            if price is None or price > (brief.part_cap_minor or price):
                continue
            got = price_limit(catalogue, brief, kept, catalogue.part(part_id), chosen, BAND)
            if got is None:
                continue
            here = ids_of(chosen.build)
            if got.inside:
                inside += 1
                beside += got.kind == "storage" and len(here[4]) > 1
                rise = got.limit_minor - got.price_minor
                assert at(part_id, rise).ids == here, (seed, part_id)
                assert (later := at(part_id, rise + 1)) is None or later.ids != here, (
                    seed,
                    part_id,
                )
                assert at(part_id, rise // 2).ids == here and (
                    (far := at(part_id, 2 * rise + 500)) is None or far.ids != here
                )
                continue

            def enters(rise, part_id=part_id, at=at):
                item = at(part_id, rise)
                return item is not None and part_id in item.ids

            if got.limit_minor is None:
                assert not enters(-got.price_minor) and not enters(-got.price_minor // 2), (
                    seed,
                    part_id,
                )
                continue
            entering += 1
            fall = got.limit_minor - got.price_minor
            assert fall < 0 and enters(fall), (seed, part_id)
            assert not any(enters(item) for item in {fall + 1, fall // 2, -1, 0} if item > fall), (
                seed,
                part_id,
            )
    assert inside > 10 and entering > 0, beside


@CHUNKS
def test_the_split_of_the_money(first):
    split_up = 0
    for seed, catalogue, brief, kept, _ in questions(first):
        chosen = propose(catalogue, brief, "most frames", kept)
        if chosen.build is None or brief.owned or not kept.empty or brief.clocks != "as shipped":
            continue
        build, book = chosen.build, catalogue.prices(brief.region, NEW_PARTS)
        costs = {kind: sum(book.cost(item) for item in build.of(kind)) for kind in ALL_KINDS}
        got = split(catalogue, brief, build, costs)
        memory = catalogue.machine(build).memory
        held = Build(storage=build.storage)
        asked = replace(
            brief, targets=(), accept_spill=True, memory_gb=memory.total_gb, storage_gb=0.0
        )
        everything = every_build(catalogue, replace(asked, accept_spill=True), held)
        for kind, side, place, other in (
            ("processor", got.processor, 0, 1),
            ("graphics", got.graphics, 1, 0),
        ):
            if not build.of(kind):
                assert side is None
                continue
            same = [
                item
                for item in everything
                if item.ids[other] == ids_of(build)[other] and item.ids[place]
            ]
            cheapest = min(
                item.ids[place]
                for item in same
                if book.cost(item.ids[place]) == min(book.cost(o.ids[place]) for o in same)
            )
            least = min(item.cost for item in same if item.ids[place] == cheapest)
            own = ("processor", "cooler") if kind == "processor" else ("graphics",)
            theirs = sum(book.cost(item) for name in own for item in side.against.of(name))
            assert side.own_minor == sum(costs[name] for name in own), seed
            assert side.forced_minor == (sum(costs.values()) - side.own_minor) - (least - theirs), (
                seed
            )
            split_up += 1
        assert got.rest_minor + sum(
            item.total_minor for item in (got.processor, got.graphics) if item
        ) == sum(costs.values())
    assert split_up >= extent(1, 2)


def adds_nothing(catalogue, brief, build, other):
    """Whether no rule says of the other build what is above good to know and is not said of this
    one as gravely.
    """
    book = catalogue.prices(brief.region, NEW_PARTS)
    wishes = wishes_of(brief, catalogue.games, catalogue.published)
    levels = ("blocks", "do first", "wastes", "good to know")

    def said(own):
        machine = machine_of(catalogue, own, brief.clocks)
        return weighed(check(machine, wishes), machine, catalogue, book)

    before = [(own.rule, own.kinds, levels.index(own.level)) for own in said(build)]
    unknown = [
        sum(len(own.figures) for own in said(b) if own.rule == "not judged") for b in (build, other)
    ]
    return unknown[1] <= unknown[0] and all(
        any(
            own.rule == rule and own.kinds == kinds and levels.index(own.level) >= level
            for rule, kinds, level in before
        )
        for own in said(other)
        if own.level != "good to know"
    )


@CHUNKS
def test_money_that_buys_no_frames(first):
    """Against one swap at a time over every build: each cut is a build, none is missing, and what
    is free keeps r and states.
    """
    seen = 0
    for seed, catalogue, brief, kept, found in questions(first):
        if not found or brief.owned or not kept.empty:
            continue
        whole = max(found, key=lambda item: item.cost)
        build = build_of(whole.ids)
        got = [*cuts(catalogue, brief, build)]
        place = {kind: i for i, kind in enumerate(KINDS)}
        spilling = {item.ids for item in found}
        wanted = set()
        for item in found:
            changed = [kind for kind in KINDS if item.ids[place[kind]] != whole.ids[place[kind]]]
            if (
                len(changed) == 1
                and item.cost < whole.cost
                and item.ids[place[changed[0]]]
                and item.ids[8:] == whole.ids[8:]
                and adds_nothing(catalogue, brief, build, build_of(item.ids))
                and len(item.ids[4]) == len(whole.ids[4]) == 1
            ):
                wanted.add((item.ids, whole.cost - item.cost))
        ours = {
            (ids_of(item.build), item.saves_minor)
            for item in got
            if whole.ids[place[item.kind]] and ids_of(item.build) in spilling
        }
        assert {our for our in ours if len(our[0][4]) == 1 == len(whole.ids[4])} == wanted, seed
        before = machine_of(catalogue, build, brief.clocks)
        for item in got:
            after = machine_of(catalogue, item.build, brief.clocks)
            pairs = [
                tuple(
                    estimate(machine, fitted_game(catalogue, target.game_id), target, brief)
                    for machine in (before, after)
                )
                for target in brief.counted_targets
            ]
            most = [
                max(1.0, min(1.5, brief.display.refresh_hz / target.fps))
                for target in brief.counted_targets
            ]
            kept_r = all(
                min(two.share_of_target, m) > 0.98 * min(was.share_of_target, m)
                or (two.cannot and was.cannot)
                for (was, two), m in zip(pairs, most, strict=True)
            )
            worse = any(
                ["short", "unsure", "meets"].index(two.state)
                < ["short", "unsure", "meets"].index(was.state)
                for was, two in pairs
            )
            assert item.free == (kept_r and not worse), (seed, item.part.id)
            seen += 1
        for kind, item in free_money(got).items():
            assert item.saves_minor == max(
                other.saves_minor for other in got if other.kind == kind and other.free
            )
    assert seen > extent(3, 5)


@CHUNKS
def test_preferences_are_granted_one_by_one_where_they_cost_little(first):
    """Each against the best of the builds that also grant those before it; floors of single parts,
    so filters of the same builds.
    """
    granted = refused = 0
    for seed, catalogue, brief, kept, found in questions(first):
        if brief.owned or not kept.empty:
            continue
        budget, case = (
            money_for(catalogue, brief, kept),
            catalogue.by_kind["case"][seed % 3],
        )
        preferences = (
            Preference("maker", f"graphics: {catalogue.by_kind['graphics'][seed % 3].maker}"),
            Preference("volume_limit_l", f"{case.volume_l:g}"),
            Preference("trust_floor", "proven only"),
        )
        asked = replace(brief, preferences=preferences, preference_minor=(0, 1500, 9000)[seed % 3])

        def best(floor, found=found, budget=budget, catalogue=catalogue):
            def parts(one):
                ids = (*one.ids[:4], *one.ids[4], *one.ids[5:8], *one.ids[8])
                return [catalogue.part(part_id) for part_id in ids if part_id]

            able = [
                item
                for item in found
                if all(may_be_bought(floor, part, 0, ()) for part in parts(item))
            ]
            return answer(able, "most frames", 0, budget, BAND)

        held, now, wanted = brief, best(brief), []
        for preference in preferences:
            then = best(insisting(held, preference))
            ok = (
                now is not None
                and then is not None
                and then.cost - now.cost <= asked.preference_minor
                and then.met >= now.met
                and then.gain >= now.gain - BAND
            )
            wanted.append((ok, None if now is None or then is None else then.cost - now.cost))
            if ok:
                held, now = insisting(held, preference), then
        settled, got = grant(catalogue, asked, kept)
        assert [(item.granted, item.cost_minor) for item in got] == wanted, seed
        assert replace(settled, preference_minor=None) == held, seed
        granted += sum(ok for ok, _ in wanted)
        refused += sum(not ok and cost is not None for ok, cost in wanted)
    assert granted > 1 and granted + refused > 1


def test_a_conflict_has_no_wish_to_spare():
    """Together they conflict; without any one of them they do not. A brief that can be met has
    none.
    """
    conflicts = several = 0
    for seed in range(extent(50, 130)):
        catalogue, brief, kept = drawn(seed, 0)
        if seed % 3 != 1 or not kept.empty:
            continue
        found = conflict(catalogue, brief, kept)
        least = cheapest_fit(catalogue, brief, kept, video_memory=not brief.accept_spill)
        assert (found is None) == (least.build is not None), seed
        if not found:
            continue
        hindering = [wish for wish in wishes_held(brief) if can_hinder(brief, wish)]
        others = tuple(wish for wish in hindering if wish not in found)

        def grants(asked, catalogue=catalogue, kept=kept):
            return (
                cheapest_fit(catalogue, asked, kept, video_memory=not asked.accept_spill).build
                is not None
            )

        assert not grants(without(brief, others)), seed
        assert all(grants(without(brief, (*others, wish))) for wish in found), (seed, found)
        conflicts += 1
        several += len(found) > 1
    assert conflicts > 5 and several > 0


def test_the_band_in_which_the_cheapest_wins_is_two_per_cent_by_hand():
    """A million times ln 1.02 is 19,802.6."""
    assert BAND == 19_803
