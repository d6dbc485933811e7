"""A sent list: what becomes of its lines, how its parts are judged, what would be better."""

from dataclasses import replace
from itertools import combinations

import pytest

from tests import demo
from tests.extent import exhaustive, extent
from wattmetron.core.values.build import Build
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.preferences import Preference
from wattmetron.core.values.sent_list import Sent
from wattmetron.demo import BRIEFS
from wattmetron.formats.brief_file import read_brief, read_build
from wattmetron.formats.plan_file import from_document, to_document
from wattmetron.places.assessment.assess import assess
from wattmetron.places.brief.sent_lists import ImportedLine, placed, tastes_of, with_list
from wattmetron.places.proposal.proposals import answer
from wattmetron.places.review.improve import improved
from wattmetron.places.review.review import VERDICTS, judged
from wattmetron.words.improvements import WAYS


@pytest.fixture(scope="module")
def world():
    return demo.world()


def plan_of(name):
    brief, build = (BRIEFS / f"{name}.{what}.json" for what in ("brief", "build"))
    return Plan(
        read_brief(brief.name, brief.read_bytes()), read_build(build.name, build.read_bytes())
    )


def now_of(world, name):
    plan = plan_of(name)
    return assess(world, plan.brief, plan.build)


def test_the_sent_in_list_is_judged_as_a_builder_would(world):
    """Written before the code: strong card, old processor, one stick, a case too short, a supply
    that nobody should buy; the board goes because the processor does.
    """
    now = now_of(world, "signal-tower")
    found = judged(world, now, improved(world, now, "full"))
    verdicts = {own.kind: own.verdict for own in found}
    assert verdicts == {
        "case": "wrong",
        "supply": "wrong",
        "processor": "wrong",
        "memory": "wrong",
        "storage": "wrong",
        "mainboard": "forced",
        "graphics": verdicts["graphics"],
        "cooler": verdicts["cooler"],
    }
    assert verdicts["graphics"] != "wrong" != verdicts["cooler"]
    order = [own.verdict for own in found]
    assert order == sorted(order, key=list(VERDICTS).index)
    assert all(own.reasons for own in found)
    (board,) = (own for own in found if own.kind == "mainboard")
    assert "with the processor" in board.reasons[0] and "socket" in board.reasons[0]


def test_a_part_with_an_open_finding_is_not_praised_as_if_it_had_none(world):
    now = now_of(world, "signal-tower")
    good = [own for own in judged(world, now, None) if own.verdict == "good"]
    praised = next(own for own in good if own.kind not in ("processor", "graphics"))
    finding = now.findings[0]._replace(
        level="do first", kinds=(praised.kind,), sentence="Screws first."
    )
    again = judged(world, replace(now, findings=(*now.findings, finding)), None)
    (own,) = (own for own in again if own.kind == praised.kind)
    assert "Screws first." in own.reasons and own.reasons != praised.reasons


def test_a_part_that_is_dear_says_how_much_and_what_is_given_up(world):
    now = now_of(world, "weather-ship")
    theirs = Sent(text="cooler", part=now.build.cooler, price_minor=99_00)
    found = {own.kind: own for own in judged(world, now, improved(world, now, "full"), (theirs,))}
    assert found["graphics"].verdict == "wrong" and "holds back" in found["graphics"].reasons[0]
    assert found["mainboard"].verdict == "dear" and "less" in found["mainboard"].reasons[0]
    assert found["cooler"].theirs_minor == 99_00


@exhaustive
@pytest.mark.parametrize(
    "name",
    extent(["signal-tower"], ["signal-tower", "weather-ship", "net-loft", "old-bench-machine"]),
)
def test_every_better_list_runs_whatever_is_left_out_of_it(world, name):
    now = now_of(world, name)
    for way in WAYS:
        better = improved(world, now, way)
        if better is None:
            continue
        assert better.taken.build == better.whole.build
        assert not (better.whole.blocking or better.whole.missing), (name, way)
        assert better.whole.spent_minor - now.spent_minor == sum(
            step.cost_minor for step in better.steps
        )
        assert better.whole.left_minor >= min(0, now.left_minor), (name, way)
        places = range(len(better.steps))
        for left in (own for n in range(1, len(places)) for own in combinations(places, n)):
            some = improved(world, now, way, left)
            assert not (some.taken.blocking or some.taken.missing), (name, way, left)
            assert some.left | some.along == set(left) and not some.left & some.along


def test_the_few_changes_are_the_first_of_all(world):
    now = now_of(world, "net-loft")
    few, full = improved(world, now, "few"), improved(world, now, "full")
    assert few.steps == full.steps[: len(few.steps)]
    same = improved(world, now, "same money")
    assert same is None or same.whole.spent_minor <= now.spent_minor


def lines(*ids, **more):
    return [ImportedLine(Sent(text=part_id, part=part_id, **more)) for part_id in ids]


def test_parts_go_to_their_places_and_what_has_none_is_said(world):
    build, said = placed(
        world,
        [
            *lines("quillon-ketch-flood-8", "marrowgate-heron-slate-6"),
            *lines("bramblebyte-burdock-16-single-ddr5", quantity=2),
            *lines("ledgerock-cairn-1000", quantity=9),
            *lines("fennwick-vane-120", quantity=1000),
            *lines("ampherst-ballast-750", quantity=0),
        ],
    )
    assert build.processor == "quillon-ketch-flood-8" and build.supply is None
    assert len(build.of("memory")) == 2 and len(build.storage) == 8 and len(build.of("fan")) == 20
    assert said == (
        "Marrowgate Heron Slate 6 was left out: the list has more than one processor. Swap it in,"
        " or keep it in a brief of its own.",
        "1 of 9 Ledgerock Cairn 1000 left out: a build holds at most 8 drives.",
        "980 of 1000 Fennwick Vane 120 left out: a build holds at most 20 parts besides the eight"
        " kinds.",
    )


def test_taste_is_read_off_the_list_unless_the_brief_says_it(world):
    brief = replace(plan_of("net-loft").brief, colour="", preferences=())
    white = ("boxwood-yard-galley-pale", "pellworth-bank-12-pale", "fennwick-rip-pale")
    (taste,) = tastes_of(world, brief, white)
    assert taste.preference == Preference("colour", "white") and "Galley Pale" in taste.shown_by
    assert tastes_of(world, brief, white[:1]) == ()
    assert tastes_of(world, replace(brief, colour="black"), white) == ()
    lit = tastes_of(world, brief, ("lidd-frame-gangway-lit", "dunmarrow-halyard-card"))
    assert {own.preference.wish for own in lit} == {"lights_wanted", "wireless"}
    dark = ("marrowgate-heron-slate-6", "boxwood-yard-galley-pale", "coldreach-millrace-240")
    (cold,) = tastes_of(world, brief, dark)
    assert cold.preference == Preference("cooling", "liquid") and "Millrace 240" in cold.shown_by
    assert tastes_of(world, replace(brief, cooling="air"), dark) == ()
    unlit = tastes_of(world, brief, ("boxwood-yard-galley", "bramblebyte-burdock-16-single-ddr5"))
    assert [own.preference.wish for own in unlit] == ["no_lights"]
    assert not tastes_of(world, replace(brief, no_lights=True), ("lidd-frame-gangway-lit",))
    plan = with_list(
        world, Plan(brief), [*lines(*white), ImportedLine(Sent(text="Odd one"))], [taste]
    )
    assert plan.brief.preferences == (taste.preference,) and len(plan.sent) == 4
    assert from_document(to_document(plan)).sent == plan.sent


def test_what_is_bought_later_takes_no_money_from_the_proposal(world):
    plan = plan_of("net-loft")
    screen = "saltgrove-casement-34"
    with_screen = plan.build.with_part("display", screen)
    later = with_screen.buying_later(screen, True)
    alone, waits, bought = (
        answer(world, plan.brief, build, "most frames").proposal
        for build in (plan.build, later, with_screen)
    )
    assert waits.cost_minor == alone.cost_minor and waits.build.later == {screen}
    assert replace(waits.build, later=frozenset(), added=()) == alone.build
    assert bought.build is None or bought.cost_minor < alone.cost_minor
    assert Build().later == frozenset()
