"""Games as use cases: lists, targets from tiers, alternatives with prices, publishing with
revisions, files.
"""

import json
import math
import re
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.demo import loft, loft_build, world
from tests.extent import exhaustive, extent
from wattmetron.core.errors import BriefError, ConflictError, UnknownPartError, WattmetronError
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.requirements.tiers import tiers_of
from wattmetron.core.speeds.speed_scale import scale_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import NEW_PARTS, USED_TOO
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.published import Listed, Published, Tier
from wattmetron.demo import CATALOGUE
from wattmetron.formats.catalogue_writing import requirements_of
from wattmetron.formats.problems import FormatError
from wattmetron.formats.requirements_file import read_flat, read_requirements, write_requirements
from wattmetron.places.assessment import brief_edits
from wattmetron.places.assessment.assess import assess, known_build
from wattmetron.places.assessment.part_alternatives import alternatives
from wattmetron.places.games import publishing
from wattmetron.places.games.contenders import machine_contender, typed_contender
from wattmetron.places.games.library import (
    Question,
    demand_of,
    judged,
    list_games,
    reach_words,
    storage_together,
    tier_of_target,
)
from wattmetron.places.games.pages.game import game_panel
from wattmetron.places.games.pages.machine_panel import NOBODY
from wattmetron.places.games.tier_edits import (
    ListEntry,
    SpeedComparison,
    TierError,
    excluded_from_bar,
    placed,
)
from wattmetron.workshop.workshop import Workshop


@pytest.fixture
def workshop(demo_copy, shared_study):
    opened = Workshop(demo_copy, shared_study)
    yield opened
    opened.close()


# --- lists and verdicts
# -------------------------------------------------------------------------------


def test_the_list_finds_filters_sorts_and_pages():
    def names(**asked):
        return [row.game.name for row in list_games(world(), Question(**asked), None).rows]

    assert names(words="cosy") == ["Lanternfolk", "Mudlark Stories", "Paper Lighthouse"]
    assert names(genre="racing") == ["Gullwing Circuit", "Saltmarsh Rally"]
    heavy = names(demand="heavy", sort="graphics")
    asked = [
        row.graphics_points
        for row in list_games(world(), Question(demand="heavy", sort="graphics"), None).rows
    ]
    assert (
        asked == sorted(asked, reverse=True)
        and all(points >= 85 for points in asked)
        and "Drowned Parish" in heavy
    )
    assert names(sort="released")[0] == "Drowned Parish" and names(words="nothing like it") == []
    assert {demand_of(world(), game) for game in world().games.values()} == {
        "light",
        "medium",
        "heavy",
    }


def test_what_a_machine_runs_splits_the_catalogue():
    contender = machine_contender(world().machine(loft_build()))
    found = judged(world(), contender, 0.8)
    any_tier = {row.game.id for row in list_games(world(), Question(met="any tier"), found).rows}
    recommended = {
        row.game.id for row in list_games(world(), Question(met="the recommended tier"), found).rows
    }
    none = {row.game.id for row in list_games(world(), Question(met="no tier"), found).rows}
    assert (
        recommended < any_tier and any_tier | none == set(world().published) and not any_tier & none
    )
    assert reach_words(world(), found, "hollow-meridian")[0] == "Recommended"
    assert reach_words(world(), found, "hollow-meridian")[1].startswith("Ultra: processor 0.8")


def _speeds(key):
    return scale_of(world()).standings[key].speeds


def test_loose_parts_are_read_like_a_list_and_named_parts_count():
    item = typed_contender(world(), "heron dun 6, reef 16gb, 16 gb ram, 1 TB NVMe, Tidewater 11")
    assert (item.processor, item.graphics[0], item.video_memory_gb) == (
        _speeds("marrowgate-heron-dun-6"),
        scale_of(world()).standings["nacre-reef@16"].speeds[0],
        16,
    )
    assert (item.memory_gb, item.storage_gb, item.storage_kind, item.system) == (
        16,
        1000,
        "NVMe SSD",
        "Tidewater 11",
    )
    assert "Fairlead 12" in item.apis
    with pytest.raises(WattmetronError):
        typed_contender(world(), "my good old machine")


def test_integrated_graphics_are_measured_with_the_memory_they_have():
    build = replace(loft_build(), graphics=None, processor="quillon-skiff-flood-8-low")
    item = machine_contender(world().machine(build))
    kit = world().part(loft_build().memory)
    assert item.video_memory_gb == kit.total_gb / 2
    assert item.graphics[0] == pytest.approx(
        world().part(build.processor).igpu_speed * (kit.mts / 5600) ** 0.6
    )


def test_storage_of_a_briefs_games_together_keeps_a_fifth_free():
    item = storage_together(world(), loft(), 500.0)
    assert dict(item.games)["Hollow Meridian"] == 110
    assert item.needed_gb == pytest.approx(sum(size for _, size in item.games) / 0.8)


def test_targets_come_from_tiers_and_say_which_they_are():
    plan, said = brief_edits.add_target(Plan(loft()), "cold-harbour-nine", world(), 2)
    target = plan.brief.targets[-1]
    assert said == "added Cold Harbour Nine as Competitive"
    assert (target.width_px, target.preset, target.fps) == (1920, "medium", 144)
    assert tier_of_target(world(), target) == "as Competitive"
    assert (
        tier_of_target(world(), replace(target, fps=100.0)) == "between Recommended and Competitive"
    )
    assert tier_of_target(world(), replace(target, fps=240.0)) == "above Competitive"
    assert tier_of_target(world(), replace(target, preset="low", fps=30.0)) == "below Minimum"
    with pytest.raises(BriefError, match="no such tier"):
        brief_edits.add_target(Plan(loft()), "cold-harbour-nine", world(), 7)


# --- as good for less
# ---------------------------------------------------------------------------------


def test_what_is_not_known_never_counts_as_met():
    bare = machine_contender(world().machine(Build(case="boxwood-yard-plank")), "")
    found = judged(world(), bare, 0.8)
    for game_id in world().published:
        reached, lacks = reach_words(world(), found, game_id)
        assert reached.startswith(("no tier", "not known"))
        assert "not known" in lacks or "asks for" in lacks or "memory" in lacks


def test_a_kind_of_storage_that_lacks_is_named_and_no_figure_stands_for_it():
    disk = next(p for p in world().by_kind["storage"] if p.form == "3.5 inch")
    machine = world().machine(replace(loft_build(), storage=(disk.id,)))
    found = judged(world(), machine_contender(machine, ""), 0.8)
    lacks = [reach_words(world(), found, game_id)[1] for game_id in world().published]
    assert any("asks for an SSD" in words for words in lacks)
    assert not any(re.search(r"storage [1-9]", words) for words in lacks)


def test_alternatives_are_on_sale_fast_enough_and_cheapest_first():
    now = assess(world(), loft(), loft_build())
    found = alternatives(world(), "orlop-beacon@12", "vellmouth", NEW_PARTS, now)
    book = world().prices("vellmouth", NEW_PARTS)
    prices = [row.offer.cost_minor for row in found.rows]
    assert prices == sorted(prices) and found.named_minor == min(
        price
        for part in world().by_kind["graphics"]
        if part.chip == "Orlop Beacon" and (price := book.cost(part.id))
    )
    for row in found.rows:
        assert row.named or row.part.speed_1080p >= 81
        assert row.saving_minor == found.named_minor - row.offer.delivered_minor
        blocking = {
            f.sentence for f in assess(world(), loft(), row.build).findings if f.level == "blocks"
        }
        assert set(row.forces) == blocking - {f.sentence for f in now.findings}
        assert row.named or (row.saving_minor > 0 and not row.forces), "for less, and it fits"
    everything = [
        p for p in world().by_kind["graphics"] if p.speed_1080p >= 81 or p.chip == "Orlop Beacon"
    ]
    left_out = found.hidden + found.dearer + found.unfit
    assert len(found.rows) + left_out == sum(book.cost(part.id) is not None for part in everything)
    assert found.dearer > 0
    with pytest.raises(UnknownPartError):
        alternatives(world(), "no-such-part", "vellmouth", NEW_PARTS)


def test_used_parts_join_where_they_are_welcome():
    new, used = (
        alternatives(world(), "marlpoint-ayre", "vellmouth", allowed)
        for allowed in (NEW_PARTS, USED_TOO)
    )
    assert used.rows[0].offer.delivered_minor < new.rows[0].offer.delivered_minor
    assert used.rows[0].offer.condition == "used"


# --- publishing
# ---------------------------------------------------------------------------------------


def test_an_entry_left_out_moves_the_bar_and_undo_brings_it_back(workshop):
    before = workshop.catalogue()
    own = before.published["gullwing-circuit"]
    state = publishing.game_state(workshop, "gullwing-circuit")
    assert state.undo is None
    publishing.publish(
        workshop,
        excluded_from_bar(own, ListEntry(1, "graphics", 2), True),
        state.version,
        "left out",
    )
    after = workshop.catalogue()
    row = tiers_of(after).of_game("gullwing-circuit")[1]
    assert tiers_of(after).sides["graphics"].bar[row] < tiers_of(before).sides["graphics"].bar[row]
    assert (
        fitted_game(after, "gullwing-circuit").graphics_ms
        != fitted_game(before, "gullwing-circuit").graphics_ms
    )
    with pytest.raises(ConflictError, match="another tab"):
        publishing.publish(workshop, own, state.version, "stale")
    now = publishing.game_state(workshop, "gullwing-circuit")
    assert publishing.undo_publishing(workshop, "gullwing-circuit", now.version) == "left out"
    assert workshop.catalogue().published["gullwing-circuit"] == own
    assert before.published["gullwing-circuit"] == own, "what was loaded before is untouched"


def test_a_part_is_placed_by_one_comparison_and_then_counts(workshop):
    catalogue = workshop.catalogue()
    own = catalogue.published["gable-row"]
    entry = ListEntry(0, "processor", 1)
    done, named = placed(own, entry, SpeedComparison("Heron Dun 6", -12.0), catalogue)
    publishing.publish(
        workshop, done, publishing.game_state(workshop, "gable-row").version, "placed", named=named
    )
    after = workshop.catalogue()
    standing = scale_of(after).standings[named.id]
    base = scale_of(after).standings["marrowgate-heron-dun-6"]
    assert standing.speeds == pytest.approx([speed * 0.88 for speed in base.speeds])
    row = tiers_of(after).of_game("gable-row")[0]
    assert tiers_of(after).sides["processor"].count[row] == 2
    for than, words in (("Heron Slate", "could be"), ("Zzz", "No processor")):
        with pytest.raises(TierError, match=words):
            placed(own, entry, SpeedComparison(than, -12.0), catalogue)


def test_a_new_game_lives_beside_the_catalogue_and_survives_its_next_import(workshop):
    catalogue = workshop.catalogue()
    game = publishing.new_game(catalogue, "  Fathom   Line ", "action")
    assert (game.id, game.name) == ("fathom-line", "Fathom Line")
    tiers = reader_of(catalogue).read("Minimum\nCPU: Heron Dun 6\nGPU: Reef 8 GB").tiers
    publishing.publish(workshop, Published(game=game.id, tiers=tiers), 0, "read", game)
    workshop.import_folder(CATALOGUE)
    after = workshop.catalogue()
    assert after.games["fathom-line"] == game and len(after.published) == 27
    assert fitted_game(after, "fathom-line").graphics_work_sd < game.graphics_work_sd
    for name, words in (
        ("", "no name"),
        ("x" * 121, "longer"),
        ("!!", "no letter"),
        ("fathom line", "already"),
        ("Lanternfolk", "already"),
    ):
        with pytest.raises(publishing.GameNameError, match=words):
            publishing.new_game(after, name, "action")
    assert publishing.new_game(after, "Read", "action").id == "read-game"
    state = publishing.game_state(workshop, "fathom-line")
    assert (
        state.by_hand
        and publishing.remove_game(workshop, "fathom-line", state.version) == "Fathom Line"
    )
    gone = workshop.catalogue()
    assert "fathom-line" not in gone.games and "fathom-line" not in gone.published
    assert publishing.restore_game(workshop, "fathom-line") == "Fathom Line"
    assert workshop.catalogue().published["fathom-line"].tiers == tiers
    state = publishing.game_state(workshop, "lanternfolk")
    with pytest.raises(WattmetronError, match="imported catalogue"):
        publishing.remove_game(workshop, "lanternfolk", state.version)


def test_requirements_round_trip_as_json_and_their_flat_part_as_csv(workshop):
    text = publishing.export_json(world())
    file = read_requirements("requirements.json", text.encode())
    assert {game.game: game.published for game in file.games} == dict(world().published)
    assert write_requirements(requirements_of(world())) == text
    rows = read_flat("requirements.csv", publishing.export_csv(world()).encode())
    assert len(rows) == sum(len(own.tiers) for own in world().published.values())
    catalogue = workshop.catalogue()
    assert publishing.import_file(
        workshop, "flat.csv", publishing.export_csv(catalogue, ["hollow-meridian"]).encode()
    ) == ["hollow-meridian"]
    again = workshop.catalogue().published["hollow-meridian"]
    for old, new in zip(world().published["hollow-meridian"].tiers, again.tiers, strict=True):
        assert replace(new, processors=old.processors, graphics=old.graphics) == old
        assert [(graphic.part, graphic.memory_gb) for graphic in new.graphics] == [
            (graphic.part, graphic.memory_gb) for graphic in old.graphics
        ]


def test_a_file_of_one_game_makes_the_game_where_it_is_new(workshop):
    document = json.loads(publishing.export_json(world(), ["lanternfolk"]))
    assert [item["game"] for item in document["games"]] == ["lanternfolk"]
    document["games"][0] |= {"game": "new-one", "name": "New One"}
    assert publishing.import_file(workshop, "new.json", json.dumps(document).encode()) == [
        "new-one"
    ]
    assert workshop.catalogue().games["new-one"].genre == "cosy farming"


@pytest.mark.parametrize(
    ("name", "data", "words"),
    [
        ("a.json", b"{", "json"),
        (
            "a.json",
            b'{"format": "wattmetron-requirements/1", "games": [{"game": "x", "tiers": []}]}',
            "0 tiers",
        ),
        ("a.json", b'{"format": "other", "games": []}', "wattmetron-requirements/1"),
        ("a.json", b'{"format": "wattmetron-requirements/1"}', "no game"),
        (
            "a.json",
            (
                b'{"format": "wattmetron-requirements/1", "games": [{"game": "x", "tiers":'
                b' [{"label": "M"}]}]}'
            ),
            "without a name",
        ),
        (
            "a.json",
            (
                b'{"format": "wattmetron-requirements/1", "games": [{"game": "lanternfolk",'
                b' "tiers": [{"label": "M", "memory_gb": -1}]}]}'
            ),
            "memory_gb",
        ),
        ("a.csv", b"game,tier\natlantis,Minimum\n", "atlantis"),
        ("a.csv", b"game,tier,memory_gb\nlanternfolk,Minimum,lots\n", "lots"),
        ("a.csv", b"\x00\x01", "binary"),
        ("a.csv", b"", "header"),
    ],
)
def test_bad_files_are_refused_whole_with_their_place(workshop, name, data, words):
    before = workshop.catalogue().published
    with pytest.raises(FormatError, match=f"(?i){words}"):
        publishing.import_file(workshop, name, data)
    assert workshop.catalogue().published == before


TEXT = st.text("abcdefg 0123456789;,'\"=+-@\n", max_size=30)


@exhaustive
@settings(max_examples=extent(20, 240))
@given(TEXT, TEXT, st.one_of(st.none(), st.floats(0.1, 1e5)), st.booleans())
def test_any_tier_survives_a_file(label, notes, amount, flag):
    tier = Tier(
        label=label,
        notes=notes,
        memory_gb=amount,
        ray_tracing=flag,
        processors=(Listed(text=notes[:20] or "x", or_better=flag),),
    )
    published = {"lanternfolk": Published(game="lanternfolk", tiers=(tier,))}
    text = write_requirements(requirements_of(replace(world(), published=published, results={})))
    assert read_requirements("x", text.encode()).games[0].tiers == (tier,)


def test_a_build_without_parts_is_a_contender_of_whom_nothing_is_known():
    item = machine_contender(
        world().machine(
            known_build(
                world(),
                replace(
                    loft_build(), **dict.fromkeys(("processor", "graphics", "memory")), storage=()
                ),
            )
        )
    )
    assert (
        item.processor is None
        and item.graphics is None
        and item.memory_gb is None
        and item.storage_gb is None
    )


@pytest.mark.parametrize("game_id", ["hollow-meridian", "vantage-null", "tin-harbour"])
def test_what_runs_a_game_for_least_is_the_cheapest_that_reaches_the_bar(game_id):
    """Against a plain search over all parts on sale."""
    panel = game_panel(
        world(), game_id, NOBODY, publishing.GameState(0, None, None), lambda equal=None: ""
    )
    book, share = world().prices("vellmouth", NEW_PARTS), world().games[game_id].parallel_share
    for run, row in zip(panel.runs, tiers_of(world()).of_game(game_id), strict=True):
        bar = tiers_of(world()).sides["processor"].bar[row]
        fit = [
            (book.cost(chip.id), chip.id, chip.name)
            for chip in world().by_kind["processor"]
            if book.cost(chip.id) is not None
            and -math.log((1 - share) / chip.single_speed + share / chip.all_core_speed)
            >= bar - 1e-9
        ]
        assert run.processor.startswith(min(fit)[2])
        wanted = tiers_of(world()).rows[row].tier.video_memory_gb or 0
        name = run.graphics.rsplit(",", 1)[0]
        part = next((item for item in world().by_kind["graphics"] if item.name == name), None)
        assert part is None or part.memory_gb >= wanted
