"""The reader: scores on both halves, what it must never do, and bad input."""

import re
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests import demo
from tests.core.requirements.score import reader, score, table
from tests.core.requirements.tuned import TUNED
from tests.core.requirements.untouched import UNTOUCHED
from tests.extent import exhaustive, extent
from wattmetron.core.speeds.speed_scale import Scale
from wattmetron.core.texts.requirements.draft import PartMark, ReadingError
from wattmetron.core.texts.requirements.requirements_reader import Reader
from wattmetron.core.texts.requirements.vocabulary import GLUE
from wattmetron.core.values.published import NamedPart

DOCS = Path(__file__).parents[3] / "docs"


def test_enough_samples_in_enough_styles():
    assert len(TUNED) + len(UNTOUCHED) >= 60
    for half in (TUNED, UNTOUCHED):
        assert len(half) >= 30 and len({sample.style for sample in half}) >= 12
    assert {sample.text for sample in TUNED}.isdisjoint(sample.text for sample in UNTOUCHED)


def test_scores_of_both_halves_and_no_match_is_wrong_and_sure():
    tuned, untouched = score(TUNED), score(UNTOUCHED)
    assert tuned.share >= 0.99
    assert untouched.share >= 0.97
    assert tuned.wrong_and_sure == untouched.wrong_and_sure == []


def test_the_documentation_reports_these_scores():
    assert table() in (DOCS / "model.md").read_text()


def one(text: str):
    return reader().read(text).tiers[0]


def test_clocks_and_cores_are_kept_and_never_make_a_part():
    tier = one("Minimum\nProcessor: 3,4 GHz six core\nMemory: 8 GB")
    (listed,) = tier.processors
    assert (listed.part, listed.cores, listed.clock_ghz, listed.figures_only) == (
        None,
        6,
        3.4,
        True,
    )
    tier = one("CPU: Heron Dun 6 (6 cores, 3900 MHz)")
    assert (tier.processors[0].part, tier.processors[0].clock_ghz) == (
        "marrowgate-heron-dun-6",
        3.9,
    )


def test_amounts_in_brackets_pick_the_variant_and_units_may_be_glued():
    tier = one(
        "GPU: Marlpoint Ayre (3GB), Reef 16384MB or better\nVRAM: 4GiB\nStorage: 1,5 TB NVMe"
    )
    assert [(part.part, part.memory_gb, part.or_better) for part in tier.graphics] == [
        ("marlpoint-ayre", 3, True),
        ("nacre-reef", 16, True),
    ]
    assert (tier.video_memory_gb, tier.storage_gb, tier.storage_kind) == (4, 1500, "NVMe SSD")


def test_a_word_too_many_or_too_few_is_another_part():
    draft = reader().read("CPU: Quillon Cutter Flood 6 Plus or Heron Slate")
    plus, short = (mark for mark in draft.marks if isinstance(mark, PartMark))
    assert [processor.part for processor in draft.tiers[0].processors] == [None, None]
    assert plus.matches[0].part == "quillon-cutter-flood-6" and plus.confidence <= 0.5
    assert len({match.part for match in short.matches}) >= 3 and short.confidence < 0.55
    assert "stays as named" in plus.why


def test_a_name_that_matches_twenty_parts_equally_is_left_to_the_user():
    world = demo.world()
    first = world.parts["quillon-cutter-ebb-6"]
    many = [replace(first, id=f"quillon-hull-{n}", model=f"Hull {n}") for n in range(100, 120)]
    draft = Reader(Scale(many, {})).read("CPU: Quillon Hull")
    mark = next(mark for mark in draft.marks if isinstance(mark, PartMark))
    assert draft.tiers[0].processors[0].part is None
    assert len(mark.matches) == 5 and all(
        match.confidence <= 0.05 + 1 / 20 for match in mark.matches
    )


def test_named_parts_are_recognised_once_placed():
    world = demo.world()
    named = NamedPart(
        id="named-processor-quillon-pilot-5",
        side="processor",
        name="Quillon Pilot 5",
        than="quillon-cutter-ebb-6",
        percent=12,
    )
    draft = Reader(Scale(world.parts.values(), {named.id: named})).read("CPU: Quillon Pilot 5")
    assert draft.tiers[0].processors[0].part == named.id


def test_contradictory_amounts_keep_the_first_and_mark_the_other():
    draft = reader().read("Memory: 8 GB (16 GB recommended)\nCPU: Heron Dun 6")
    assert draft.tiers[0].memory_gb == 8
    assert [mark.what for mark in draft.marks if "contradicts" in mark.what] == [
        "memory, contradicts 8.0"
    ]


def test_nonsense_units_and_lines_are_listed_as_unread():
    draft = reader().read("Minimum\nCPU: Heron Dun 6\nMemory: 8 bananas\nBring a friend along")
    assert draft.tiers[0].memory_gb is None
    assert draft.unread_texts == ("8 bananas", "Bring a friend along")


def test_markup_is_no_text_and_script_is_not_read():
    draft = reader().read(
        "<script>var x = 'Heron Dun 6'</script><b>Minimum:</b> CPU: Quillon Cutter Ebb 6<br>RAM:"
        " 8&nbsp;GB"
    )
    assert [part.part for part in draft.tiers[0].processors] == ["quillon-cutter-ebb-6"]
    assert draft.tiers[0].memory_gb == 8


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "There is no text"),
        ("  \n\t ", "There is no text"),
        ("\x00\x01\x02\x03PK", "binary data"),
        (
            "It was a dark night in the harbour, and nobody spoke. " * 300,
            "Nothing here reads as requirements",
        ),
        ("It was a dark night in the harbour. " * 900, "at most 20,000"),
        ("CPU: Heron Dun 6\n" * 10_000, "10,001 lines"),
        ("Minimum\nRecommended\n", "Nothing here reads as requirements"),
    ],
)
def test_what_cannot_be_read_is_refused_in_one_sentence(text, words):
    with pytest.raises(ReadingError, match=words):
        reader().read(text)


PIECES = st.sampled_from(
    [
        "Minimum",
        "Recommended:",
        "CPU:",
        "Graphics",
        " or ",
        "/",
        "Quillon Cutter Ebb 6",
        "Reef",
        "8GB",
        "(16 GB)",
        "3,4 GHz",
        "\n",
        "\t",
        "|",
        ", ",
        "* ",
        "1080p",
        "60 fps",
        "low",
        "SSD",
        "ray tracing",
        "<br>",
        "or better",
        "Tidewater 10",
        "6",
    ]
)


@exhaustive
@settings(max_examples=extent(100, 1200))
@example("Quillon Cutter Ebb 6 ¹")
@example("Tidewater 10 FRAMES")
@example("Minimum Minimum \n low Minimum Graphics")
@given(st.lists(st.one_of(PIECES, st.text(max_size=6)), max_size=40).map(" ".join))
def test_whatever_is_pasted_every_word_is_accounted_for(text):
    """No crash; marks lie within the text and never overlap; a word is marked, listed as unread, or
    glue.
    """
    try:
        draft = reader().read(text)
    except ReadingError:
        return
    at = 0
    for start, end in sorted(
        [(mark.start, mark.end) for mark in draft.marks if mark.start < mark.end]
        + list(draft.unread)
    ):
        assert at <= start < end <= len(text)
        at = end
    covered = set()
    for start, end in [(mark.start, mark.end) for mark in draft.marks] + list(draft.unread):
        covered.update(range(start, end))
    for tier in draft.tiers:
        for amount in (tier.memory_gb, tier.video_memory_gb, tier.storage_gb):
            assert amount is None or amount > 0
    for match in re.finditer(r"[A-Za-z]{4,}", text):
        if match[0].casefold() not in GLUE and match[0].casefold() not in (
            "nbsp",
            "script",
            "style",
            "quot",
        ):
            inside_tag = text.rfind("<", 0, match.start()) > text.rfind(">", 0, match.start())
            assert inside_tag or covered.intersection(range(match.start(), match.end())), match[0]


TWO = ("quillon-cutter-ebb-6", "quillon-cutter-flood-6"), ("nacre-shoal", "nacre-reef"), (8, 16)


@pytest.mark.parametrize(
    "text",
    [
        (
            "CPU: Cutter Ebb 6 (min) / Cutter Flood 6 (rec)\nGPU: Shoal (min) / Reef"
            " (recommended)\nRAM: 8 GB (min) / 16 GB (rec)"
        ),
        (
            "Minimum / Recommended\nCPU: Cutter Ebb 6 / Cutter Flood 6\nGPU: Shoal / Reef\nRAM: 8"
            " GB / 16 GB"
        ),
        (
            "            Minimum        Recommended\nCPU         Cutter Ebb 6   Cutter Flood 6\nGPU"
            "         Shoal          Reef\nRAM         8 GB           16 GB"
        ),
        (
            "1080p Low 30fps\nCutter Ebb 6\nShoal\n8GB RAM\n\n1440p High 60fps\nCutter Flood"
            " 6\nReef\n16GB RAM"
        ),
        (
            "CPU\nMinimum: Cutter Ebb 6\nRecommended: Cutter Flood 6\nGPU\nMinimum:"
            " Shoal\nRecommended: Reef\nRAM\nMinimum: 8 GB\nRecommended: 16 GB"
        ),
    ],
)
def test_the_same_two_tiers_in_other_ways_of_writing(text):
    first, second = reader().read(text).tiers
    assert (first.processors[0].part, second.processors[0].part) == TWO[0]
    assert (first.graphics[0].part, second.graphics[0].part) == TWO[1]
    assert (first.memory_gb, second.memory_gb) == TWO[2]


def test_an_api_is_known_by_its_version_and_thousands_of_megabytes_are_round():
    tier = one(
        "Anchorlight: Version 12\nProcessor: Heron Dun 6\nMemory: 4000 MB\nGraphics: Fairlead 11"
        " capable card with 2048 MB"
    )
    assert (tier.api, tier.memory_gb, tier.video_memory_gb, tier.graphics) == (
        "Anchorlight 12",
        4,
        2,
        (),
    )
