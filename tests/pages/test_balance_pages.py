"""The Balance view and the budget steps as pages: what they say, what can be tried, bad input."""

import html
import re
from dataclasses import replace
from urllib.parse import unquote

import pytest

from tests.extent import exhaustive, extent
from tests.pages.conftest import HTMX, form, squeezed
from wattmetron.cache.cache import Keeper
from wattmetron.core.compatibility.rules import blocks
from wattmetron.core.errors import BriefError
from wattmetron.core.frames.estimate import estimate
from wattmetron.core.game_fit.informed import fitted_game
from wattmetron.core.search.proposal import propose
from wattmetron.core.values.build import Build
from wattmetron.core.values.offers import NEW_PARTS
from wattmetron.core.values.part_kinds import ALL_KINDS
from wattmetron.core.values.part_types import kind_of
from wattmetron.places.assessment.assess import assess
from wattmetron.places.balance.balance import (
    bought_for_years,
    cuts_of,
    idle_money,
    map_of,
    split_of,
    tables,
    trimmed,
)
from wattmetron.places.balance.budget_steps import budget_steps, check_budgets, usual_budgets
from wattmetron.places.balance.pages.balance_frontier import frontier_view
from wattmetron.places.balance.pages.balance_picture import picture_of
from wattmetron.places.balance.price_limits import price_limits
from wattmetron.places.balance.what_if import announced, elsewhere, repriced, what_if
from wattmetron.places.balance.wish_costs import wish_costs
from wattmetron.places.balance.years import SIDES, DemandGrowth, asking_more, years_kept
from wattmetron.places.proposal.gives_up import gives_up
from wattmetron.places.proposal.proposals import answer
from wattmetron.words.figures import KIND_WORDS

LOPSIDED = 8


def text_of(page: str) -> str:
    return " ".join(html.unescape(re.sub("<[^>]*>", " ", page)).split())


@pytest.fixture
def lopsided(workshop):
    catalogue, plan = workshop.catalogue(), workshop.open(LOPSIDED).plan
    return catalogue, plan, assess(catalogue, plan.brief, plan.build)


@pytest.mark.whole_demo
def test_the_lopsided_list_says_what_is_wasted_and_what_the_money_could_do(client, lopsided):
    catalogue, plan, now = lopsided
    best = assess(catalogue, plan.brief, propose(catalogue, plan.brief).build)
    assert (
        best.met > now.met and best.spent_minor <= now.spent_minor <= plan.brief.budget_high_minor
    )
    idle = idle_money(catalogue, now)["processor"]
    price = catalogue.prices(plan.brief.region, NEW_PARTS).cost
    assert idle.saves_minor == price(plan.build.processor) - price(idle.part.id) > 20_000
    after = assess(catalogue, plan.brief, idle.build)
    assert all(
        two.reliable_fps > 0.98 * item.reliable_fps
        for item, two in zip(now.counted, after.counted, strict=True)
    )
    said = text_of(client.get(f"/briefs/{LOPSIDED}/balance").text)
    assert (
        f"For this budget the best build meets {best.met} of 4" in said
        and "less than this one, which meets 0." in said
    )
    assert "in the place of the processor for the same frames" in said and idle.part.name in said
    assert "Graphics limit in Hollow Meridian" in said


def test_the_split_adds_up_to_the_total(lopsided):
    catalogue, _, now = lopsided
    found = split_of(catalogue, now)
    assert (
        found.processor.total_minor + found.graphics.total_minor + found.rest_minor
        == now.machine_minor
    )
    assert found.processor.total_minor > found.graphics.total_minor > 0


@pytest.mark.whole_demo
def test_a_cell_and_a_step_are_tried_and_adopted(client, workshop, lopsided):
    catalogue, plan, _ = lopsided
    page = client.get(f"/briefs/{LOPSIDED}/balance").text
    cells = re.findall(r'<a href="([^"]*pair=[^"]*)" data-cell', page)
    assert len(cells) > 40
    found = tables(catalogue, plan.brief, plan.build)
    best = found.build_at(found.answer(found.budget))
    tried = client.get(
        f"/briefs/{LOPSIDED}/balance", params={"pair": f"{best.processor}:{best.graphics}"}
    ).text
    assert "trybar" in tried and 'class="tried' in tried.replace('class=" tried', 'class="tried')
    code = re.search(r'name="try" value="([^"]*)"', tried)[1]
    client.post(
        f"/briefs/{LOPSIDED}/adopt",
        data=form(workshop, LOPSIDED, **{"try": html.unescape(code), "view": "balance"}),
        headers=HTMX,
    )
    assert workshop.open(LOPSIDED).plan.build.graphics == best.graphics
    again = squeezed(client.get(f"/briefs/{LOPSIDED}/balance").text)
    code = re.search(r'try=([^"&]*)[^"]*"> ?Try the best for this budget', again)[1]
    client.post(
        f"/briefs/{LOPSIDED}/adopt",
        data=form(workshop, LOPSIDED, **{"try": unquote(html.unescape(code)), "view": "balance"}),
        headers=HTMX,
    )
    answer = workshop.open(LOPSIDED).plan.build
    assert all(answer.of(kind) == best.of(kind) for kind in ALL_KINDS)
    again = text_of(client.get(f"/briefs/{LOPSIDED}/balance").text)
    assert "This build is what the aim of most frames answers" in again
    step = client.get(
        f"/briefs/{LOPSIDED}/balance", params={"step": str(found.frontier.steps[3].cost)}
    ).text
    assert "trybar" in step
    for bad in ({"pair": "no:such"}, {"pair": ""}, {"step": "x"}, {"step": "1"}):
        assert client.get(f"/briefs/{LOPSIDED}/balance", params=bad).status_code == 200


def test_cuts_bring_a_build_within_the_budget_with_the_least_loss(client, lopsided):
    catalogue, plan, now = lopsided
    tight = replace(plan.brief, budget_high_minor=now.spent_minor - 30_000, budget_low_minor=0)
    before = assess(catalogue, tight, plan.build)
    made = trimmed(catalogue, before, -before.left_minor)
    after = assess(catalogue, tight, made[-1].build)
    assert (
        after.left_minor >= 0
        and after.met == before.met
        and len({item.kind for item in made}) == len(made)
    )
    assert sum(item.saves_minor for item in made) == before.spent_minor - after.spent_minor
    assert trimmed(catalogue, before, 10**9) == ()


def test_budget_steps_answer_each_budget_and_say_what_each_adds(client, lopsided):
    catalogue, plan, _ = lopsided
    found = tables(catalogue, plan.brief, plan.build)
    budgets = usual_budgets(plan.brief)
    steps = budget_steps(found, budgets)
    assert [step.budget_minor for step in steps] == list(budgets)
    for step in steps:
        alone = propose(
            catalogue, plan.brief, "most frames", budget_minor=step.budget_minor - found.besides
        )
        assert step.assessment.build == alone.build
    risen = budget_steps(found, budgets, [0, 10, 20, 30, 40])
    assert [item.assessment.brief.targets[0].fps for item in risen] == [65, 72, 78, 84, 91]
    said = text_of(client.get(f"/briefs/{LOPSIDED}/steps").text)
    assert "The first step." in said and "more frames on average" in said
    for amounts, rise, expected in (
        ("500 900", "", "need 3 to 6 budgets; there are 2"),
        ("900 500 1200", "", "must rise"),
        ("900 x 1200", "", "not a number"),
        ("900 1000 1200", "much", "whole per cent from 0 to 100"),
    ):
        refused = client.get(f"/briefs/{LOPSIDED}/steps", params={"amounts": amounts, "rise": rise})
        assert (
            refused.status_code == 422
            and expected in text_of(refused.text)
            and amounts in html.unescape(refused.text)
        )
    nothing = client.get(f"/briefs/{LOPSIDED}/steps", params={"amounts": "1 2 1200"}).text
    assert "No fitting build for this money." in nothing
    with pytest.raises(BriefError):
        check_budgets([1, 2, 3, 4, 5, 6, 7])


def test_prices_wishes_and_suppositions_are_worked_out_when_asked(client, lopsided):
    catalogue, plan, _ = lopsided
    first = client.get(f"/briefs/{LOPSIDED}/balance").text
    assert all(f'id="ask-{item}"' in first for item in ("prices", "wishes", "supposed"))
    said = text_of(client.get(f"/briefs/{LOPSIDED}/balance?limits=1&wishes=1&suppose=1").text)
    assert "still the pick up to this price" in said and "trust in parts: nothing doubtful" in said
    assert "Graphics cards cost 10 % more" in said and "sells out" in said
    limits = price_limits(tables(catalogue, plan.brief, plan.build))
    assert limits.inside and all(item.limit_minor >= item.price_minor for item in limits.inside)
    assert all(
        item.limit_minor is None or item.limit_minor < item.price_minor for item in limits.near
    )
    today, supposed = what_if(catalogue, plan.brief, plan.build)
    gone = next(item for item in supposed if today.machine.graphics.name in item.words)
    assert (
        gone.assessment.machine.graphics.id != today.machine.graphics.id
        and "graphics" in gone.changed
    )


def test_a_price_raised_past_its_limit_changes_the_answer_and_one_within_it_does_not(lopsided):
    """Every offer of the part shifted in the catalogue itself, the answer asked anew."""
    catalogue, plan, _ = lopsided
    found = price_limits(tables(catalogue, plan.brief, plan.build))
    here = propose(catalogue, plan.brief).build
    for item in found.inside[:3]:
        for rise, same in (
            (item.limit_minor - item.price_minor, True),
            (item.limit_minor - item.price_minor + 1, False),
        ):
            dearer = repriced(
                catalogue,
                lambda offer, item=item, rise=rise: (
                    replace(offer, price_minor=offer.price_minor + rise)
                    if offer.part_id == item.part.id
                    else offer
                ),
            )
            assert (propose(dearer, plan.brief).build == here) == same, item.part.name


def test_wishes_have_their_price_and_a_wish_that_costs_nothing_says_so(lopsided):
    catalogue, plan, _ = lopsided
    quiet = replace(plan.brief, noise_limit_dba=38.0, volume_limit_l=30.0, colour="white")
    by_name = {cost.wish.wish.name: cost for cost in wish_costs(catalogue, quiet, plan.build)}
    free = propose(catalogue, replace(quiet, noise_limit_dba=None))
    held = propose(catalogue, quiet)
    assert by_name["limit of noise"].cost_minor == held.cost_minor - free.cost_minor
    assert by_name["limit of noise"].weight_lost == free.weight_met - held.weight_met


@pytest.mark.whole_demo
def test_contradictory_wishes_are_named_and_none_too_many(lopsided):
    catalogue, plan, _ = lopsided
    impossible = replace(plan.brief, volume_limit_l=9.0, clocks="tuned", noise_limit_dba=80.0)
    said = answer(catalogue, impossible, plan.build, "most frames").headline
    assert (
        "These wishes cannot be granted together" in said
        and "case at most 9" in said
        and "clocks tuned" in said
    )
    assert "cooler" not in said and "Let one of them go" in said
    alone = answer(
        catalogue, replace(plan.brief, volume_limit_l=1.0), plan.build, "most frames"
    ).headline
    assert "This wish cannot be granted: case at most 1" in alone


@exhaustive
@pytest.mark.parametrize(
    "change",
    [
        {"budget_high_minor": 0, "budget_low_minor": 0},
        {"volume_limit_l": 1.0},
        {"budget_high_minor": 10**8},
        {"targets": ()},
    ][: extent(2, 4)],
)
def test_odd_briefs_are_answered_in_words(client, workshop, change):
    workshop.change(
        LOPSIDED,
        workshop.open(LOPSIDED).version,
        lambda plan: (replace(plan, brief=replace(plan.brief, **change)), "x"),
    )
    for path in ("balance", "balance?limits=1&wishes=1&suppose=1", "steps"):
        found = client.get(f"/briefs/{LOPSIDED}/{path}")
        assert found.status_code == 200 and "Traceback" not in found.text


def test_weights_of_nothing_and_a_region_without_prices(client, workshop):
    def weightless(plan):
        return (
            replace(
                plan,
                brief=replace(
                    plan.brief,
                    targets=tuple(replace(target, weight=0) for target in plan.brief.targets),
                ),
            ),
            "x",
        )

    workshop.change(LOPSIDED, workshop.open(LOPSIDED).version, weightless)
    assert client.get(f"/briefs/{LOPSIDED}/balance").status_code == 200
    bare = replace(workshop.catalogue(), offers=())
    plan = workshop.open(LOPSIDED).plan
    assert (
        "no processor that can be bought"
        in answer(bare, plan.brief, plan.build, "most frames").headline
    )
    found = tables(bare, plan.brief, plan.build)
    assert found.answer(found.budget) is None and found.knee is None


def test_one_processor_in_the_catalogue(lopsided):
    """Everything is said of it: one row, every step of the frontier with it, nothing in its place,
    nothing without it.
    """
    catalogue, plan, _ = lopsided
    only = propose(catalogue, plan.brief).build.processor
    bare = replace(
        catalogue,
        parts={
            each_part: part
            for each_part, part in catalogue.parts.items()
            if kind_of(part) != "processor" or each_part == only
        },
    ).kept_by(Keeper())
    found = tables(bare, plan.brief, Build())
    best = found.build_at(found.answer(found.budget))
    now = assess(bare, plan.brief, best)
    pairs = map_of(found, now.machine.parts())
    assert len(pairs.processors) == 1 and all(
        c == 0 for step in found.frontier.steps for _, c, _ in step.pairings
    )
    assert "processor" not in idle_money(bare, now) and best.processor == only
    limit = next(item for item in price_limits(found).inside if item.kind == "processor")
    assert limit.limit_minor > limit.price_minor
    _, supposed = what_if(bare, plan.brief, Build())
    gone = next(
        item for item in supposed if item.words == f"{now.machine.processor.name} sells out"
    )
    assert gone.assessment is None
    assert picture_of(found).rows == ((0,),)


@pytest.mark.whole_demo
def test_bought_in_a_region_with_another_currency(client, workshop, lopsided):
    """The answer is the region's own; amounts of two currencies are never set side by side."""
    catalogue, plan, _ = lopsided
    then = elsewhere(catalogue, plan.brief, plan.build, "overwater", 1_500_000)
    asked = replace(
        plan.brief, region="overwater", budget_high_minor=1_500_000, part_cap_minor=None, extras=()
    )
    assert (
        then.assessment.build == propose(catalogue, asked).build
        and then.assessment.currency == "NOK"
        and then.changed
    )
    page = text_of(
        client.get(f"/briefs/{LOPSIDED}/balance?suppose=1&where=overwater&purse=15000").text
    )
    assert "Bought in Overwater for up to NOK 15,000" in page
    for query, said in (
        ("where=overwater", "enter an amount in NOK, for amounts in EUR do not compare"),
        ("where=overwater&purse=lots", "The budget there"),
        ("where=nowhere&purse=9", "no region “nowhere”"),
        (f"where={plan.brief.region}&purse=9", "choose another region"),
        ("where=overwater&purse=1", "nothing fits within the budget"),
    ):
        assert said in text_of(client.get(f"/briefs/{LOPSIDED}/balance?suppose=1&{query}").text), (
            query
        )
    workshop.change(
        LOPSIDED,
        workshop.open(LOPSIDED).version,
        lambda plan: (replace(plan, brief=asked), "moved"),
    )
    moved = text_of(client.get(f"/briefs/{LOPSIDED}/balance").text)
    assert "NOK" in moved and "EUR" not in moved


def test_years_to_keep_lose_targets_and_name_the_next_step(client, workshop, lopsided):
    catalogue, plan, _ = lopsided
    best = propose(catalogue, plan.brief).build
    kept = replace(plan.brief, years=4, growth_percent=15.0)
    now = assess(catalogue, kept, best)
    found = years_kept(catalogue, now)
    assert [round(item.more.work, 4) for item in found] == [1.0, 1.15, 1.3225, 1.5209, 1.749]
    assert [round(item.more.memory, 4) for item in found[:3]] == [1.0, 1.06, 1.1236]
    assert (
        found[0].met == now.met
        and not found[0].lost
        and [item.met for item in found] == sorted((item.met for item in found), reverse=True)
    )
    first = next(item for item in found if item.lost)
    assert [step.sides for step in first.steps] == [("graphics",), ("processor",)]
    does = next(step for step in first.steps if step.parts)
    assert does.cost_minor == sum(
        catalogue.prices(kept.region, NEW_PARTS).cost(part.id) for part in does.parts
    )
    changed = best
    for part in does.parts:
        changed = changed.with_part(kind_of(part), part.id)
    later = catalogue.machine(changed)
    assert not blocks(later)
    for target, item in zip(kept.counted_targets, now.counted, strict=True):
        after = estimate(
            later, asking_more(fitted_game(catalogue, target.game_id), first.more), target, kept
        )
        assert after.state == "meets" or item.state != "meets"
    assert years_kept(catalogue, assess(catalogue, plan.brief, best)) == ()
    workshop.change(LOPSIDED, 1, lambda plan: (replace(plan, brief=kept, build=best), "kept"))
    said = text_of(client.get(f"/briefs/{LOPSIDED}/balance").text)
    assert "in 4 years" in said and "15 % more" in said
    for step in first.steps:
        (side,) = step.sides
        words = KIND_WORDS[side]
        assert (f"{words} side: " if step.parts else f"{words} side alone: nothing does") in said
    assert [item.processor_alone for item in found] == sorted(
        (item.processor_alone for item in found), reverse=True
    )


def test_what_carries_targets_in_later_years_is_not_called_waste(lopsided):
    catalogue, plan, now = lopsided
    idle = idle_money(catalogue, now)["processor"]
    assert bought_for_years(catalogue, now) == {}
    later = assess(catalogue, replace(plan.brief, years=4), plan.build)
    cut, mine, other = bought_for_years(catalogue, later)["processor"]
    assert (cut.part.id, cut.saves_minor) == (idle.part.id, idle.saves_minor) and mine > other
    for target in plan.brief.counted_targets:
        game = asking_more(
            fitted_game(catalogue, target.game_id), DemandGrowth(1.12**4, 1.06**4, 1.05**4)
        )
        assert game.processor_ms == fitted_game(catalogue, target.game_id).processor_ms * 1.12**4
    left = idle_money(catalogue, later)
    assert "processor" not in left or left["processor"].saves_minor < idle.saves_minor
    assert {item for item in left if item not in SIDES} == {
        item for item in idle_money(catalogue, now) if item not in SIDES
    }
    assert cuts_of(catalogue, later)


@pytest.mark.whole_demo
def test_the_balance_as_data_says_what_the_page_says(client, workshop, lopsided):
    catalogue, plan, now = lopsided
    whole = client.get(f"/api/v1/briefs/{LOPSIDED}").json()
    told = client.post(
        "/api/v1/balance", json={"brief": whole["brief"], "build": whole["build"]}
    ).json()
    assert told["of_the_build"] and told["answer"]["targets_met"] == 4
    found = tables(catalogue, plan.brief, plan.build)
    assert [row["total_cost"] for row in told["frontier"]] == [
        f"{(step.cost + found.besides) / 100:.2f}" for step in found.frontier.steps
    ]
    assert all(len(row["reached_shares"]) == 4 for row in told["frontier"])
    sides = [
        told["split"]["processor_side"]["total"],
        told["split"]["graphics_side"]["total"],
        told["split"]["rest"],
    ]
    assert (
        sum(map(float, sides))
        == pytest.approx(float(told["split"]["total"]))
        == pytest.approx(now.machine_minor / 100)
    )
    assert [row["budget_change"] for row in told["next_money"]] == [
        "-100.00",
        "-50.00",
        "-25.00",
        "25.00",
        "50.00",
        "100.00",
    ]
    assert {row["kind"] for row in told["idle_money"]} == set(idle_money(catalogue, now))
    empty = client.post("/api/v1/balance", json={"brief": whole["brief"]}).json()
    assert not empty["of_the_build"] and empty["answer"]["build"]["parts"]


def test_an_announced_part_is_worth_waiting_for_when_it_is_cheap_and_fast(client, lopsided):
    catalogue, plan, _ = lopsided
    card = propose(catalogue, plan.brief).build.graphics
    price = catalogue.prices(plan.brief.region, NEW_PARTS).cost(card)
    cheap = announced(catalogue, plan.brief, plan.build, card, 0.0, price // 2)
    assert "it would be the pick" in cheap.words and "graphics" in cheap.changed
    assert (
        cheap.assessment.spent_minor
        < assess(catalogue, plan.brief, propose(catalogue, plan.brief).build).spent_minor
    )
    dear = announced(catalogue, plan.brief, plan.build, card, 0.0, price + 10_000)
    assert "not the pick" in dear.words and not dear.changed
    page = f"/briefs/{LOPSIDED}/balance"
    said = text_of(
        client.get(
            page,
            params={
                "suppose": "1",
                "like": catalogue.part(card).name.upper(),
                "faster": "20",
                "price": f"{price // 200}",
            },
        ).text
    )
    assert "+20 % at EUR" in said and "it would be the pick" in said
    for wrong, expected in (
        ({"like": card, "faster": "much", "price": "300"}, "no number of per cent"),
        ({"like": card, "faster": "900", "price": "300"}, "within −90 and 400 %"),
        ({"like": card, "price": ""}, "expected price is empty"),
        ({"like": "lowhum-level-750", "price": "30"}, "neither a processor nor a graphics card"),
        ({"like": "no-such", "price": "30"}, "no-such"),
    ):
        assert expected in text_of(client.get(page, params={"suppose": "1", **wrong}).text), wrong


@pytest.mark.parametrize("brief_id", [1, LOPSIDED])
def test_the_frontier_lists_every_step_at_which_a_target_changes_and_the_own_answers(
    workshop, brief_id
):
    catalogue, plan = workshop.catalogue(), workshop.open(brief_id).plan
    now, found = assess(catalogue, plan.brief, plan.build), tables(catalogue, plan.brief, Build())
    view = frontier_view(found, now, None, lambda **changes: changes["step"])
    listed = {int(row.url) for row in view.rows}
    can_be_met = found.sides.can_be_met
    flags = [
        tuple(g >= 0 and can for g, can in zip(gains, can_be_met, strict=True))
        for gains in found.frontier.gains
    ]
    for at in range(1, len(flags)):
        if flags[at] != flags[at - 1]:
            assert found.frontier.steps[at].cost in listed
    own = answer(catalogue, plan.brief, Build(), "most frames")
    assert own.proposal.cost_minor in listed
    assert len(view.rows) <= 40


def test_what_to_change_first_is_said_for_one_step_for_none_and_for_a_lost_part(client, workshop):
    opened = workshop.open(LOPSIDED)
    catalogue, brief = workshop.catalogue(), opened.plan.brief
    best = answer(catalogue, brief, opened.plan.build, "most frames").proposal.build

    def glance(build):
        version = workshop.open(LOPSIDED).version
        workshop.change(LOPSIDED, version, lambda plan: (replace(plan, build=build), "put"))
        text = text_of(client.get(f"/briefs/{LOPSIDED}/balance").text)
        return text.split("What to change first?")[1].split("What does the next money buy?")[0]

    assert "Nothing: this is the best build for its budget." in glance(best)
    card = catalogue.part(best.graphics).name
    one = glance(replace(best, graphics=opened.plan.build.graphics))
    assert card in one and "Nothing" not in one and "steps" not in one
    lost = glance(replace(best, memory="gone-kit"))
    assert "try" in lost and "Nothing" not in lost


def test_what_is_not_known_is_given_up_as_not_known(workshop):
    catalogue = workshop.catalogue()
    kit = next(own for own in catalogue.by_kind["memory"] if own.warranty_years)
    assert gives_up(kit, replace(kit, warranty_years=None)).startswith("warranty not known instead")
    assert gives_up(kit, kit) == "nothing that is known"
