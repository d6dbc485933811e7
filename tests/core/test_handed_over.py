"""Machines that were proposed once and that no builder would hand over, each with the right answer
now; and that no advice undoes another.
"""

from dataclasses import replace
from functools import cache

import pytest

from tests.bench.questions import question as bench_question
from tests.core.test_balance import adds_nothing
from tests.demo import bench, bench_build, loft, loft_build, plans, world
from tests.extent import exhaustive, extent
from tests.worlds import World
from wattmetron.cache.cache import Keeper
from wattmetron.core.balance.reductions import cuts
from wattmetron.core.compatibility.floor_violations import broken, missed
from wattmetron.core.compatibility.floors_of_brief import floors_of
from wattmetron.core.compatibility.rules import check
from wattmetron.core.compatibility.vetting import added
from wattmetron.core.power.noise import in_play_dba
from wattmetron.core.search.answer import AIMS
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.brief import Brief, Display, Target
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.wishes import letting_go
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.remaining import finding_remedies
from wattmetron.places.compatibility.cures import cure
from wattmetron.places.proposal.leftover_budget import rest_of
from wattmetron.places.proposal.proposals import answer


@cache
def town_book():
    return world().prices("vellmouth", NEW_PARTS)


def brief(money: int, *games: str, **changes) -> Brief:
    targets = tuple(
        Target(id=f"t{n}", game_id=game, width_px=1920, height_px=1080, fps=60.0)
        for n, game in enumerate(games or ("hollow-meridian",))
    )
    usual = Brief(
        name="Some room",
        region="vellmouth",
        budget_low_minor=0,
        budget_high_minor=money * 100,
        display=Display(refresh_hz=144.0),
        targets=targets,
    )
    return replace(usual, **changes)


def machine(asked: Brief, aim="most frames"):
    found = propose(world(), asked, aim)
    assert found.build is not None
    return world().machine(found.build), found


def test_a_hard_disk_is_never_the_only_drive_unless_that_is_let_go():
    asked = brief(900, storage_gb=2000.0)
    own, _ = machine(asked)
    assert any(drive.kind != "hard disk" for drive in own.storage)
    other, cheaper = machine(replace(asked, solid_state=False), "least money")
    _, dearer = machine(asked, "least money")
    assert {drive.kind for drive in other.storage} == {"hard disk"}
    assert cheaper.cost_minor < dearer.cost_minor
    assert [field for field, _ in missed(other, floors_of(world(), asked))] == ["solid_state"]


def test_a_closed_case_gets_the_fans_that_it_lacks():
    cases = [case.id for case in world().by_kind["case"] if case.airflow != "closed"]
    own, found = machine(brief(1800, banned=tuple(cases)))
    assert own.case.airflow == "closed" and own.of("fan")
    assert own.case.fans_included + sum(fan.pack for fan in own.of("fan")) <= own.case.fan_places
    assert not [item for item in check(own) if item.rule == "case airflow"]
    added = sum(fan.pack for fan in own.of("fan"))
    assert own.fans_joined >= added, "a splitter comes along: they need no header more"
    assert found.cost_minor == sum(town_book().cost(part_id) for _, part_id in found.build.ids())


@pytest.mark.parametrize("most", (10.0, 15.0, 20.0))
def test_a_limit_that_nothing_keeps_is_not_kept_by_a_boxed_cooler(most):
    asked = brief(1200, noise_limit_dba=most)
    assert propose(world(), asked).build is None
    told = answer(world(), asked, Build(), "most frames")
    assert f"at most {most:g}\u202fdB(A) in play" in " ".join((told.headline, *told.account))


def test_noise_is_that_of_the_whole_machine_and_limits_the_card():
    loud, _ = machine(brief(1800))
    quiet, _ = machine(brief(1800, noise_limit_dba=36.0))
    assert in_play_dba(loud, loud.graphics.board_power_w) > 36
    assert in_play_dba(quiet, quiet.graphics.board_power_w) <= 36
    assert quiet.graphics.board_power_w < loud.graphics.board_power_w


def test_liquid_cooling_means_a_radiator_and_air_means_none():
    for money in (700, 1800):
        cold, _ = machine(brief(money, cooling="liquid"))
        assert cold.cooler.radiator_mm and not broken(cold, floors_of(world(), brief(money)))
        dry, _ = machine(brief(money, cooling="air"))
        assert not (dry.cooler and dry.cooler.radiator_mm)
    coolers = tuple(cooler.id for cooler in world().by_kind["cooler"])
    boxed, found = machine(brief(700, banned=coolers))
    assert boxed.cooler is None and boxed.boxed_suffices
    assert broken(boxed, floors_of(world(), brief(700, cooling="liquid"))) == {"cooling"}
    told = assess(world(), brief(700, cooling="liquid"), found.build)
    assert "liquid is wanted" in " ".join(told.floors)


def test_a_small_case_takes_a_cooler_that_is_known_to_fit():
    own, _ = machine(brief(1200, volume_limit_l=12.0))
    assert own.case.volume_l <= 12
    height = own.cooler.height_mm if own.cooler else own.processor.boxed_height_mm
    assert height is not None and height <= own.case.cooler_height_mm


@pytest.mark.parametrize("money", (3500, 6000))
def test_much_money_is_not_spent_on_four_cores_and_the_rest_is_offered(money):
    asked = brief(
        money,
        "hollow-meridian",
        "vantage-null",
        display=Display(width_px=3840, height_px=2160, refresh_hz=120.0),
    )
    targets = tuple(
        replace(target, width_px=3840, height_px=2160, ray_tracing=True, fps=100.0)
        for target in asked.targets
    )
    asked = replace(asked, targets=targets)
    own, found = machine(asked)
    assert own.processor.cores > 4
    capacity = own.cooler.capacity_w if own.cooler else own.processor.boxed_cooler_w
    assert capacity >= 1.1 * own.processor.sustained_w
    assert own.supply.watts >= floors_of(world(), asked).supply_w(
        assess(world(), asked, found.build).draw.full_w
    )
    rest = rest_of(world(), assess(world(), asked, found.build))
    offered = {addition.kind for addition in rest.additions}
    assert {"memory", "storage"} <= offered and rest.together_minor <= rest.left_minor


def test_a_single_stick_is_no_saving_and_remedies_keep_to_the_brief():
    now = assess(world(), loft(), loft_build())
    for cut in cuts(world(), loft(), loft_build(), ("memory",)):
        assert cut.part.sticks >= 2
    short = loft_build().with_part("supply", "ampherst-ballast-450")
    unwanted = replace(loft(), no_makers=("Lowhum",), part_cap_minor=10_000)
    now = assess(world(), unwanted, short)
    (finding,) = [item for item in now.findings if item.rule == "card leads"]
    remedies = finding_remedies(world(), now, finding)
    assert remedies
    for remedy in remedies:
        after = assess(world(), unwanted, remedy.build)
        assert remedy.part.maker != "Lowhum" and remedy.delivered_minor <= 10_000
        assert not [
            item for item in after.findings if item.rule.startswith(("supply", "card leads"))
        ]


def test_a_build_of_a_case_alone_reaches_nothing():
    now = assess(world(), loft(), Build(case=loft_build().case))
    assert now.met == 0 and now.missing


def lists():
    """Builds as people bring them: each demo build with one part swapped for any other."""
    for name, (asked, build) in plans().items():
        start = build if build.processor and build.supply else propose(world(), asked).build
        if start is None:
            continue
        for n, kind in enumerate(("graphics", "supply", "case", "memory", "cooler", "mainboard")):
            parts = world().by_kind[kind]
            part = parts[(7 * n + len(name)) % len(parts)]
            yield asked, replace(start.with_part(kind, part.id), kept=frozenset())


@exhaustive
@pytest.mark.parametrize("place", range(extent(2, 6)))
def test_no_advice_adds_what_its_sentence_does_not_name(place):
    """Cuts, remedies, additions and cures over whole and broken machines."""
    looked = 0
    for asked, build in list(lists())[place::6]:
        now = assess(world(), asked, build)
        floors = floors_of(world(), asked).with_owned(asked.owned)
        advised = [
            remedy.build for item in now.findings for remedy in finding_remedies(world(), now, item)
        ]
        if now.whole:
            advised += [cut.build for cut in list(cuts(world(), asked, build))[::5]]
            rest = rest_of(world(), now)
            advised += [item.build for item in rest.additions] if rest else []
        clearing = cure(world(), now)
        if clearing is not None:
            after = assess(world(), asked, clearing.build)
            news = [item.sentence for item in added(now.findings, after.findings)]
            told = dict(missed(after.machine, floors))
            news += [told[field] for field in {*told} - broken(now.machine, floors)]
            assert {*news} <= {*clearing.brings}
            looked += 1
        before = broken(world().machine(build), floors)
        for other in advised:
            assert broken(world().machine(other), floors) <= before
            assert adds_nothing(world(), asked, build, other)
            looked += 1
    assert looked > 10


@pytest.mark.parametrize("aim", AIMS)
def test_what_a_floor_costs_is_the_difference_to_the_answer_without_it(aim):
    asked = brief(1100, "hollow-meridian", "gullwing-circuit")
    held = propose(world(), asked, aim)
    for field in ("solid_state", "heat_carried", "reserve_percent", "enough_threads"):
        free = propose(world(), letting_go(asked, [field]), aim)
        assert (free.weight_met, -free.cost_minor) >= (held.weight_met, -held.cost_minor) or (
            aim == "most frames" and free.gain >= held.gain
        )


def without_places(part):
    return replace(part, fan_places=None, airflow="closed", fans_included=0)


def test_a_floor_that_nothing_reaches_is_named_with_what_letting_it_go_costs():
    """Cases without fan places, all closed; and cards that know no API that a game needs."""
    stuffy = {
        key: without_places(part) if part in world().by_kind["case"] else part
        for key, part in world().parts.items()
    }
    old = {
        key: replace(part, **{name: ("Fairlead 9",)})
        if (name := {"graphics": "apis", "processor": "igpu_apis"}.get(kind_of(part)))
        else part
        for key, part in world().parts.items()
    }
    for parts, words in (
        (stuffy, "enough airflow"),
        (old, "graphics that every game starts on"),
    ):
        asked = brief(2000, "gullwing-circuit", "hollow-meridian", "vantage-null")
        parts = {
            key: replace(part, igpu_speed=None) if kind_of(part) == "processor" else part
            for key, part in parts.items()
            if kind_of(part) != "graphics" or part.board_power_w >= 150
        }
        catalogue = replace(world(), parts=parts).kept_by(Keeper())
        assert propose(catalogue, asked).build is None
        told = " ".join(answer(catalogue, asked, Build(), "most frames").account)
        told += answer(catalogue, asked, Build(), "most frames").headline
        assert words in told and "The cheapest build without it costs EUR" in told


def test_slots_that_disable_ports_that_do_not_exist_leave_none():
    board = replace(world().machine(loft_build()).mainboard, sata_ports=1, m2_disables_sata=(4, 4))
    parts = {
        key: board if key == board.id else part
        for key, part in world().parts.items()
        if kind_of(part) != "mainboard" or key == board.id
    }
    catalogue = replace(world(), parts=parts).kept_by(Keeper())
    found = propose(catalogue, brief(1200)).build
    assert found is not None and found.mainboard == board.id
    drives = catalogue.machine(found).storage
    assert not any(drive.interface == "SATA" for drive in drives) or len(drives) == 1


def test_an_old_machine_gets_what_it_lacks_and_keeps_what_serves():
    """Every target is met with a card, a pair of sticks and a cooler; the rest is there. The card
    is used: its risk is in the total, beside what is paid.
    """
    found = propose(world(), bench(), "least money")
    assert found.build is not None and found.weight_met == found.weight_all
    bought = {part_id for _, part_id in found.build.ids()} - {*bench().owned}
    assert {kind_of(world().part(part_id)) for part_id in bought} == {
        "graphics",
        "memory",
        "cooler",
    }
    book = world().prices(bench().region, bench().may_buy)
    assert found.cost_minor == sum(book.cost(part_id) for part_id in bought) <= 26_226
    safe = tuple(replace(own, condition="new") for own in world().offers)
    paid = propose(replace(world(), offers=safe).kept_by(Keeper()), bench(), "least money")
    card = book.best(found.build.graphics)
    assert card.condition == "used" and card.risk_minor > 0
    assert paid.cost_minor == found.cost_minor - card.risk_minor
    nailed = propose(world(), replace(bench(), stays=bench().owned), "most frames")
    assert {*bench().owned} < {part_id for _, part_id in nailed.build.ids()}
    assert nailed.weight_met < found.weight_met


def test_what_is_left_over_is_said_with_a_guess_at_its_resale():
    told = answer(world(), bench(), bench_build(), "least money")
    used = min(
        offer.price_minor
        for offer in world().offers
        if offer.part_id == "pellworth-holm-8-plain" and offer.condition != "new"
    )
    (line,) = [line for line in told.account if line.startswith("Left over")]
    assert f"Holm 8 GB Plain (may sell for EUR\u00a0{used * 70 // 100 / 100:.2f})" in line
    assert "Bramblebyte Plain 16 Single DDR4 (nobody offers it used)" in line
    kept = answer(world(), replace(bench(), stays=bench().owned), bench_build(), "most frames")
    assert not [line for line in kept.account if line.startswith("Left over")]


def test_of_supplies_at_one_price_the_one_whose_leads_leave_no_question_is_taken():
    catalogue, brief = bench_question(73, 88, with_integrated=False)
    catalogue, _ = World(73).besides(catalogue, brief)
    asked = replace(brief, wireless=True, system_gb=200.0, games_gb=500.0, bulk_gb=1000.0)
    book = catalogue.prices(brief.region, NEW_PARTS)
    cheap = next(
        card.id
        for card in catalogue.by_kind["graphics"]
        if card.outputs and 15_000 < (book.cost(card.id) or 0) < 40_000
    )
    for owned in ((), (cheap,)):
        build = propose(catalogue, replace(asked, owned=owned), "least money").build
        machine = catalogue.machine(build)
        assert not [*missed(machine, floors_of(catalogue, asked).with_owned(owned))]
