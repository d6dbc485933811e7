"""Texts of which no two are alike in form, distorted ones among them: scores, and whether the
reader is right as often as it says.
"""

import random
import re
from dataclasses import replace

import pytest

from tests.core.requirements import assorted, assorted_later, elsewhere, tuned, untouched
from tests.core.requirements.calibration import by_step, outcomes
from tests.core.requirements.score import reader, score
from tests.extent import exhaustive, extent
from wattmetron.core.values.published import Assumptions, settle

EVERY_TEXT = (
    *tuned.TUNED,
    *untouched.UNTOUCHED,
    *elsewhere.TUNED,
    *elsewhere.UNTOUCHED,
    *assorted.TUNED,
    *assorted.UNTOUCHED,
    *assorted_later.LATER,
    *assorted_later.LAST,
)


@pytest.mark.parametrize(
    ("samples", "least"),
    [
        (assorted.TUNED, 0.99),
        (assorted.UNTOUCHED, 0.97),
        (assorted_later.LATER, 0.99),
        (assorted_later.LAST, 0.93),
    ],
    ids=("tuned", "untouched", "later", "last"),
)
def test_texts_of_every_form_are_read(samples, least):
    """At their first runs the three unseen sets scored 79.8, 87.7 and 86.6 % (58.5 % of the first
    before the reader went by what a text mentions). They were mended since: no measure any more.
    """
    result = score(samples)
    assert result.share >= least and result.wrong_and_sure == []


def _with_slips(text: str) -> str:
    source = random.Random(7)

    def slip(word: re.Match[str]) -> str:
        at = source.randrange(1, len(word[0]))
        return word[0][:at] + word[0][at + 1 :] if source.random() < 0.06 else word[0]

    return re.sub(r"[A-Za-z]{5,}", slip, text)


DISTORTIONS = {
    "small letters": (str.lower, 0.97),
    "capitals": (str.upper, 0.97),
    "one line": (lambda text: re.sub(r"\s*\n+\s*", ", ", text.strip()), 0.85),
    "no breaks": (lambda text: re.sub(r"\s*\n+\s*", " ", text.strip()), 0.84),
    "no colons": (lambda text: text.replace(":", " "), 0.94),
    "no signs": (lambda text: re.sub(r"[:;|*()\[\]]", " ", text), 0.9),
    "slips of the pen": (_with_slips, 0.82),
    "blank lines between": (lambda text: text.replace("\n", "\n\n"), 0.97),
}


@exhaustive
@pytest.mark.parametrize("name", DISTORTIONS)
def test_of_what_is_called_nine_in_ten_at_least_nine_in_ten_are_right(name):
    distort, least = DISTORTIONS[name]
    samples = tuple(
        replace(sample, text=distort(sample.text)) for sample in EVERY_TEXT[:: extent(8, 1)]
    )
    assert score(samples).share >= least
    steps = by_step(outcomes(samples))
    right, asked = (sum(steps[step][n] for step in steps if step >= 0.9) for n in (0, 1))
    assert asked > extent(120, 1000) and right >= 0.97 * asked
    doubtful, of = steps[0.7]
    assert doubtful >= 0.75 * of


def test_a_part_that_the_catalogue_lacks_is_kept_as_it_was_named():
    draft = reader().read(
        "To start: Quillon Wherry Ebb 4 or Tern Mk IV with an Orlop Taper 4 GB and 8 GB RAM;"
        " better:"
        " Quillon Cutter Flood 6 with a Nacre Reef 8 GB and 16 GB RAM."
    )
    assert [one.text for one in draft.tiers[0].processors] == ["Quillon Wherry Ebb 4", "Tern Mk IV"]
    assert draft.tiers[0].processors[1].part is None
    assert [tier.memory_gb for tier in draft.tiers] == [8, 16]


def test_a_tier_of_generated_frames_never_counts_as_true_ones():
    draft = reader().read(
        "Recommended: Quillon Cutter Flood 6, Nacre Reef 8 GB, 16 GB RAM, 1440p, 60 fps\n"
        "Ultra: Quillon Ketch Flood 8, Nacre Bank 12 GB, 32 GB RAM, 2160p, 120 fps,"
        " frame generation on\n"
    )
    plain, generated = draft.tiers
    assert (plain.generated, generated.generated) == (None, True)
    settled = settle(generated, 1, 2, Assumptions())
    assert settled.fps == 60 and "frame rate" in settled.assumed and settled.generated
    assert settle(plain, 0, 2, Assumptions()).assumed == {"preset"}
