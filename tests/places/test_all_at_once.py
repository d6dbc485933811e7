"""A sureness asked of all targets together."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.demo import tower, tower_build, world
from wattmetron.core.search.proposal import propose
from wattmetron.places.assessment.all_targets import at_once_words, together
from wattmetron.places.assessment.assess import assess
from wattmetron.places.proposal.all_at_once import least_that_does
from wattmetron.places.proposal.proposals import answer


def chance_at(brief, each_percent, aim):
    asked = replace(brief, each_percent=each_percent)
    return together(world(), assess(world(), asked, propose(world(), asked, aim).build)).chance


@pytest.mark.parametrize("wanted", [80, 95])
def test_each_is_asked_for_as_surely_as_all_want_it_and_no_surer(wanted):
    asked = replace(tower(), together_percent=wanted)
    found = answer(world(), asked, tower_build(), "least money")
    plain = answer(world(), tower(), tower_build(), "least money")
    each = found.assessment.brief.each_percent
    assert each > 80 and together(world(), found.assessment).chance * 100 >= wanted
    assert together(world(), plain.assessment).chance * 100 < wanted
    assert chance_at(tower(), each - 1, "least money") * 100 < wanted
    assert found.assessment.spent_minor > plain.assessment.spent_minor
    (said,) = [line for line in found.account if "So that all are met" in line]
    assert f"with {each}\u202f%" in said


def test_what_cannot_be_had_is_told():
    low = replace(tower(), together_percent=99, budget_low_minor=0, budget_high_minor=110_000)
    found = answer(world(), low, tower_build(), "most frames")
    assert found.assessment.brief.each_percent is None
    assert any("is not reached within the brief" in line for line in found.account)
    assert "of 99\u202f%" in at_once_words(world(), found.assessment)


def test_nothing_changes_where_it_is_not_asked_or_holds_already():
    for wanted in (None, 1):
        asked = replace(tower(), together_percent=wanted)
        found = answer(world(), asked, tower_build(), "most frames")
        assert found.assessment.brief.each_percent is None
        assert (
            found.proposal.build
            == answer(world(), tower(), tower_build(), "most frames").proposal.build
        )


@given(
    st.lists(st.floats(0.01, 1), min_size=50, max_size=50).map(sorted),
    st.integers(50, 99),
    st.floats(0.01, 1),
)
def test_halving_finds_the_first_that_does(rising, feasible_to, wanted):
    """Against trying every per cent, for chances that rise up to where not all can be met."""

    def chance(each):
        return rising[each - 50] if each <= feasible_to else 0.0

    found = least_that_does(chance, wanted, 50)
    able = [each for each in range(50, 100) if chance(each) >= wanted]
    assert found == (None if not able or able[0] == 50 else able[0])
