"""When each step of the way falls due, with money set aside for upgrades."""

from dataclasses import replace

import pytest

from wattmetron.core.errors import BriefError
from wattmetron.core.values.brief import Brief, Display, check_fields
from wattmetron.places.proposal.pages.first_panel import due_words

BRIEF = Brief(name="Way", region="town", budget_high_minor=100_000, display=Display())


@pytest.mark.parametrize(
    ("minor", "every", "together", "due"),
    [
        (5_000, "month", 0, "now"),
        (5_000, "month", 1, "after 1 month"),
        (5_000, "month", 5_000, "after 1 month"),
        (5_000, "month", 5_001, "after 2 months"),
        (60_000, "year", 130_000, "after 3 years"),
        (None, "month", 130_000, ""),
    ],
)
def test_a_step_falls_due_when_all_so_far_is_saved(minor, every, together, due):
    asked = replace(BRIEF, upgrade_minor=minor, upgrade_every=every)
    check_fields(asked)
    assert due_words(asked, together) == due


def test_money_of_nothing_is_said():
    with pytest.raises(BriefError, match="The money for upgrades must lie within 1–"):
        check_fields(replace(BRIEF, upgrade_minor=0))
