"""The finder: whole words first, beginnings, slips forgiven only where nothing else answers."""

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.demo import world
from tests.extent import exhaustive, extent
from wattmetron.core.finder import Finder, finder_of
from wattmetron.core.texts.requirements.name_matching import tokens

FINDER = Finder(
    [
        ("part", "pharos", "Pellworth Orlop Pharos 16 GB Plain graphics card"),
        ("part", "pharos-twin", "Dunmarrow Orlop Pharos 16 GB Twin graphics card"),
        ("part", "flood-8", "Quillon Ketch Flood 8 processor"),
        ("game", "flood", "Flood Tide racing"),
        ("part", "groyne", "Pellworth Groyne Micro mainboard"),
    ]
)


def ids(text: str) -> list[str]:
    return [item.id for item in FINDER.find(text)]


def test_all_words_must_answer_and_the_shorter_name_comes_first():
    assert ids("pharos") == ["pharos-twin", "pharos"] or ids("pharos") == ["pharos", "pharos-twin"]
    assert ids("pharos twin") == ["pharos-twin"] and ids("flood") == ["flood", "flood-8"]
    assert ids("pell micro") == ["groyne"] and ids("flood 8 processor") == ["flood-8"]
    assert ids("") == [] and ids("zzzz") == [] and ids("  -- ") == []


def test_slips_are_forgiven_and_said():
    for typed, meant in (
        ("pharso", "pharos"),
        ("phaross", "pharos"),
        ("quilon", "flood-8"),
        ("groyn micor", "groyne"),
        ("dunmarow", "pharos-twin"),
    ):
        found = FINDER.find(typed)
        assert meant in [item.id for item in found] and all(item.misspelt for item in found), typed
    assert not FINDER.find("pharos")[0].misspelt
    assert ids("17") == [], "a wrong number is another part, not a slip"


@exhaustive
@settings(max_examples=extent(20, 240))
@given(
    st.integers(0, 10_000),
    st.integers(0, 40),
    st.sampled_from(["drop", "swap", "double", "none"]),
)
def test_every_part_of_the_demo_is_found_by_its_name_with_one_slip(which, at, way):
    parts = sorted(world().parts)
    part_id = parts[which % len(parts)]
    name = world().parts[part_id].name
    words = name.split(" ")
    longest = max(range(len(words)), key=lambda n: len(words[n]) if words[n].isalpha() else 0)
    word = words[longest]
    if not word.isalpha() or len(word) < 5:
        return
    k = at % (len(word) - 1)
    words[longest] = {
        "drop": word[:k] + word[k + 1 :],
        "swap": word[:k] + word[k + 1] + word[k] + word[k + 2 :],
        "double": word[:k] + word[k] + word[k:],
        "none": word,
    }[way]
    found = finder_of(world()).find(" ".join(words), most=40)
    assert part_id in [item.id for item in found], (words, tokens(name))
