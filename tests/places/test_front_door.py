"""What stands in a new brief before anybody changes it, and what one types to name a thing."""

from dataclasses import replace

import pytest

from tests.demo import loft, loft_build, world
from wattmetron.core.compatibility.rules import check
from wattmetron.core.errors import BriefError
from wattmetron.core.power.tuning import machine_of
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Display
from wattmetron.core.values.build import Build
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment import brief_edits
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.named import games_named, part_named
from wattmetron.places.assessment.suggested import suggested
from wattmetron.places.balance.deciding import deciding, deciding_words
from wattmetron.places.proposal.chips import chips, compared
from wattmetron.places.proposal.moves import move
from wattmetron.places.proposal.swaps import SwapQuery, swap
from wattmetron.words.standing import differing, group_words, standing_words
from wattmetron.workshop.plan_checks import usual_plan

FAST = Display(width_px=2560, height_px=1440, refresh_hz=165.0)


@pytest.mark.parametrize(
    ("game_id", "fps", "why"),
    [
        ("cold-harbour-nine", 165.0, "the display’s refresh"),
        ("hollow-meridian", 60.0, "60 fps is usual"),
        ("gullwing-circuit", 90.0, "90 fps is usual"),
    ],
)
def test_a_target_is_suggested_from_display_genre_and_what_is_published(game_id, fps, why):
    found = suggested(world(), world().game(game_id), FAST, "t1")
    assert (found.target.width_px, found.target.fps) == (2560, fps) and why in found.why
    slow = suggested(world(), world().game(game_id), replace(FAST, refresh_hz=50.0), "t1").target
    assert slow.fps == 50.0
    cap = world().game("lanternfolk").engine_cap_fps
    assert suggested(world(), world().game("lanternfolk"), FAST, "t1").target.fps <= (cap or 165.0)


def test_targets_follow_the_display_unless_they_were_set():
    plan, _ = brief_edits.add_targets(usual_plan(world()), "Gullwing Circuit, cold harb", world())
    first, second = plan.brief.targets
    assert (first.fps, second.fps) == (60.0, 60.0)
    set_by_hand = replace(first, fps=75.0)
    plan, _ = brief_edits.edit_target(plan, set_by_hand, world())
    plan, said = brief_edits.edit_brief(plan, {"display": FAST}, world())
    first, second = plan.brief.targets
    assert (first.fps, first.width_px) == (75.0, 2560)
    assert (second.fps, second.width_px) == (165.0, 2560) and "2 targets follow" in said


def test_things_are_named_as_one_types_them():
    assert games_named(world(), "hollow; KITEBALL arena,\nlanternfolk") == (
        "hollow-meridian",
        "kiteball-arena",
        "lanternfolk",
    )
    assert part_named(world(), "Coldreach Gust") == "coldreach-gust"
    for text, said in (
        ("no such thing", "No game of the catalogue is called"),
        ("gulwing", "was Gullwing Circuit meant?"),
        ("cosy", "is more than one game"),
        (" , ", "No game is named"),
    ):
        with pytest.raises(BriefError, match=said):
            games_named(world(), text)
    with pytest.raises(BriefError, match="No graphics card"):
        part_named(world(), "Coldreach Gust", "graphics")


def test_an_owned_display_brings_its_size_and_counts_as_owned():
    plan, said = brief_edits.use_display(Plan(loft()), "Saltgrove Casement 34", world())
    screen = world().part("saltgrove-casement-34")
    assert plan.brief.display.width_px == screen.width_px and screen.id in plan.brief.owned
    assert said.endswith("is the display")


def test_what_is_not_as_usual_is_said_and_goes_back():
    plan = Plan(replace(loft(), no_lights=True, all_channels=False, years=3))
    names = [field.name for field in differing(plan.brief)]
    assert {"no_lights", "all_channels", "years"} <= set(names)
    said = [standing_words(plan.brief, field, "EUR") for field in differing(plan.brief)]
    assert "no lights" in said and "not asked: memory in all channels" in said
    assert group_words(plan.brief, "machine", "EUR", {}) == "no lights"
    back, _ = brief_edits.as_usual(plan, "no_lights", world())
    assert not back.brief.no_lights and group_words(back.brief, "machine", "EUR", {}) == (
        "any size, colour and lights"
    )
    with pytest.raises(BriefError):
        brief_edits.as_usual(plan, "budget_high_minor", world())


def test_chips_stand_at_their_cheapest_card_with_the_machine_around_them():
    """The machine around a chip is one that could be built: within the budget it meets no more than
    the best one with the card kept, and its card is the chip's cheapest.
    """
    now = assess(world(), loft(), Build())
    found = chips(world(), now)
    prices = [chip.offer.delivered_minor for chip in found]
    assert prices == sorted(prices) and len({chip.name for chip in found}) == len(found)
    checked = 0
    for chip in found:
        others = [offer.delivered_minor for _, offer in chip.others]
        assert all(price >= chip.offer.delivered_minor for price in others)
        if chip.around is None or not chip.around.inside:
            continue
        kept = Build().with_part("graphics", chip.card.id).keeping(chip.card.id, True)
        best = assess(world(), loft(), propose(world(), loft(), "most frames", kept).build)
        most = sum(run.state == "meets" for run in best.counted)
        assert chip.around.met <= most and chip.around.cost_minor <= loft().budget_high_minor
        checked += chip.around.met == most
    assert checked >= 3
    faster = next(chip for chip in found if chip.name.startswith("Orlop Pharos"))
    slower = next(chip for chip in found if chip.name.startswith("Nacre Bank"))
    assert compared(faster, slower, "EUR 69").endswith(
        "faster than Nacre Bank 12 GB for EUR 69 more"
    )
    assert " slower than " in compared(slower, faster, "EUR 9")


def test_chips_without_targets_or_games_have_prices_alone():
    now = assess(world(), replace(loft(), targets=()), Build())
    assert all(not chip.alone_fps and chip.mean_fps == 0 for chip in chips(world(), now))


def test_a_processor_of_another_socket_is_a_whole_move():
    """It fits, keeps what it may, and nothing cheaper with it does."""
    now = assess(world(), loft(), loft_build())
    told = swap(world(), now, SwapQuery(kind="processor", present=loft_build().processor))
    row = next(own for own in told.candidates if own.forced)
    other = row.part
    assert other.socket != now.machine.processor.socket
    found = move(world(), now, other)
    machine = machine_of(world(), found.build, loft().clocks)
    assert not [own for own in check(machine) if own.level == "blocks"]
    assert (
        found.build.graphics == loft_build().graphics
        and found.build.storage == loft_build().storage
    )
    assert {type(part).__name__ for part in found.forced} >= {"Mainboard"}
    assert machine.memory.total_gb >= now.machine.memory.total_gb
    then = assess(world(), loft(), found.build)
    assert row.forced == found.forced and row.build == found.build
    assert row.change_minor == then.spent_minor - now.spent_minor


def test_a_kept_board_is_not_moved():
    kept = replace(loft_build(), kept=frozenset({loft_build().mainboard}))
    now = assess(world(), loft(), kept)
    other = next(
        chip for chip in world().by_kind["processor"] if chip.socket != now.machine.processor.socket
    )
    assert move(world(), now, other) is None


def test_the_wishes_that_decide_are_those_without_which_the_answer_is_another():
    brief = replace(loft(), no_lights=True, noise_limit_dba=32.0)
    now = assess(world(), brief, loft_build())
    found = [own.wish.name for own in deciding(world(), now)]
    assert found[0] == "noise_limit_dba" and "memory_gb" not in found
    assert deciding_words(world(), now).startswith("What decides the best build: at most 32")
