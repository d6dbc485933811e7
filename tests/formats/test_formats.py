"""Open formats: round trips without loss, and every problem named with its place, nothing
written.
"""

import csv
import io
import json
import shutil
from dataclasses import fields, replace
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.worlds import World
from wattmetron.core.errors import BriefError, BuildError
from wattmetron.core.values.brief import Extra
from wattmetron.core.values.build import Build
from wattmetron.core.values.housing import Case
from wattmetron.core.values.parts import Processor
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.formats.brief_file import (
    brief_file,
    brief_from,
    build_file,
    build_from,
    read_brief,
    read_build,
)
from wattmetron.formats.catalogue_file_names import PART_FILES
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.formats.catalogue_writing import write_catalogue
from wattmetron.formats.csv_table import guarded, read_table, unguarded, write_table
from wattmetron.formats.document import schema_files, tables_markdown
from wattmetron.formats.problems import FormatError
from wattmetron.formats.schemas import SCHEMAS, schema
from wattmetron.formats.shops_file import read_shops, write_shops


@pytest.fixture
def folder(tmp_path):
    shutil.copytree(CATALOGUE, tmp_path / "catalogue")
    return tmp_path / "catalogue"


def edit(folder, name, old, new):
    path = folder / name
    text = path.read_text()
    assert old in text
    path.write_text(text.replace(old, new, 1))


def problems(folder) -> list[str]:
    with pytest.raises(FormatError) as caught:
        read_catalogue(folder)
    return [str(problem) for problem in caught.value.problems]


def test_demo_catalogue_round_trips(tmp_path):
    first = read_catalogue(CATALOGUE)
    write_catalogue(first, tmp_path / "out")
    second = read_catalogue(tmp_path / "out")
    assert (first.parts, first.games, first.offers, first.regions) == (
        second.parts,
        second.games,
        second.offers,
        second.regions,
    )
    for path in CATALOGUE.iterdir():
        assert (tmp_path / "out" / path.name).read_bytes() == path.read_bytes(), path.name
    assert len(first.parts) >= 150 and len(first.games) >= 12 and len(first.regions) == 2
    assert {kind for kind, parts in first.by_kind.items() if parts} == set(PART_FILES)


@settings(max_examples=30)
@given(st.integers(0, 10_000))
def test_random_catalogues_and_briefs_round_trip(tmp_path_factory, seed):
    world = World(seed)
    catalogue = world.catalogue(per_kind=3)
    out = tmp_path_factory.mktemp("catalogue")
    write_catalogue(catalogue, out)
    again = read_catalogue(out)
    assert (catalogue.parts, catalogue.offers, catalogue.games) == (
        again.parts,
        again.offers,
        again.games,
    )
    brief = replace(
        world.brief(catalogue, targets=3),
        extras=(Extra(name="System", minor=12345),),
        owned=("case-0001",),
    )
    text = brief_file(brief).model_dump_json().encode()
    assert read_brief("brief.json", text) == brief
    build = Build(processor="processor-0001", storage=("a", "a", "b"), kept=frozenset({"a"}))
    assert read_build("build.json", build_file(build).model_dump_json().encode()) == build


@given(st.text(max_size=30))
def test_any_cell_survives_the_guard_and_none_runs_as_a_formula(cell):
    assert unguarded(guarded(cell)) == cell
    if cell.startswith(("=", "@", "\t", "\r")):
        assert guarded(cell)[0] == "'"


@given(
    st.text(st.characters(exclude_categories=["Cs", "Cc"]), max_size=40),
    st.sampled_from(["=1+1", "+cmd", "-2+3", "@x", "'=a", "'"]),
)
def test_names_that_look_like_formulas_round_trip(tail, head):
    case = Case(
        id="case-1",
        maker=head,
        model=head + tail,
        board_forms=("ATX",),
        supply_forms=("ATX",),
        card_length_mm=300,
        cooler_height_mm=150,
    )
    text = write_table(Case, [case])
    cells = next(row for row in csv.reader(io.StringIO(text)) if row[0] == "case-1")
    assert not cells[2].startswith(("=", "+", "-", "@"))
    found: list = []
    assert [value for _, value in read_table(Case, "cases.csv", text, found)] == [case]
    assert found == []


def test_all_problems_are_listed_at_once_with_their_places(folder):
    lines = (folder / "processors.csv").read_text().splitlines()
    columns = lines[0].split(",")
    cells = lines[3].split(",")
    cells[columns.index("cores")] = "six"
    cells[columns.index("memory_type")] = "DDR9"
    cells[columns.index("single_speed")] = "-4"
    lines[3] = ",".join(cells)
    lines.append(lines[5])
    (folder / "processors.csv").write_text("\n".join(lines) + "\n")
    edit(folder, "offers.csv", "vellmouth,", "atlantis,")
    edit(folder, "offers.csv", "lowhum-even-750,", "lowhum-odd-750,")
    found = problems(folder)
    assert [item for item in found if "part_id" in item and cells[0] in item] == []
    assert any(
        "column part_id: found “lowhum-odd-750”; expected the id of a part" in item
        for item in found
    )
    assert (
        "processors.csv, line 4, column cores: found “six”; expected a whole number from 1 and up"
        " to 512." in found
    )
    assert any(
        "line 4, column memory_type: found “DDR9”; expected DDR3 or DDR4 or DDR5" in item
        for item in found
    )
    assert any(
        "line 4, column single_speed: found “-4”; expected a number from 0.01" in item
        for item in found
    )
    assert any(
        f"line {len(lines)}, column id: found “{cells[0][:0]}" in item and "second time" in item
        for item in found
    )
    assert any("offers.csv, line 2, column region: found “atlantis”" in item for item in found)


@pytest.mark.parametrize(
    ("name", "data", "said"),
    [
        ("cases.csv", b"", "a header line"),
        ("cases.csv", b"\x89PNG\r\n\x1a\n\x00\x00", "binary data"),
        ("cases.csv", "id,maker\ncafé,x".encode("latin-1"), "UTF-8"),
        ("cases.csv", b"id,flavour\nx,y\n", "an unknown column"),
        ("regions.csv", b'id,name,currency,tax_percent,mains_v\n"unclosed', "broken CSV"),
        ("cases.csv", b"x" * 51_000_000, "at most 50 MB"),
        ("games.json", b"{", "games.json"),
        ("games.json", b'[{"id": "x"}]', "no such value"),
        (
            "offers.csv",
            b"part_id,shop,region,price,shipping,currency,in_stock,condition,seen_on\nnobody,S,vellmouth,1,0,EUR,true,new,2026-01-01\n",
            "the id of a part",
        ),
        (
            "offers.csv",
            b"part_id,shop,region,price,shipping,currency,in_stock,condition,seen_on\nlidd-frame-bunk,S,vellmouth,1.234,0,EUR,perhaps,new,soon\n",
            "seen_on",
        ),
    ],
)
def test_bad_files_are_refused_in_words(folder, name, data, said):
    (folder / name).write_bytes(data)
    assert any(said in problem for problem in problems(folder)), problems(folder)[:3]


def test_a_missing_file_and_a_missing_folder_are_named(folder, tmp_path):
    (folder / "coolers.csv").unlink()
    assert any("coolers.csv: found no such file" in problem for problem in problems(folder))
    assert "no such folder" in problems(tmp_path / "nowhere")[0]


def test_a_catalogue_without_coolers_reads(folder):
    text = (folder / "coolers.csv").read_text().splitlines()
    (folder / "coolers.csv").write_text(text[0] + "\n")
    offers = [
        line
        for line in (folder / "offers.csv").read_text().splitlines()
        if not line.startswith(("coldreach", "fennwick"))
    ]
    (folder / "offers.csv").write_text("\n".join(offers) + "\n")
    assert read_catalogue(folder).by_kind["cooler"] == ()


def test_the_data_package_describes_every_column(folder):
    described = json.loads((folder / "datapackage.json").read_text())
    for resource in described["resources"]:
        path = folder / resource["path"]
        assert path.exists()
        if path.suffix == ".csv":
            header = path.read_text().splitlines()[0].split(",")
            assert [item["name"] for item in resource["schema"]["fields"]] == header
            assert all(item["description"] for item in resource["schema"]["fields"])
    assert {field.name for field in fields(Processor)} - {"own", "picture"} == set(
        (folder / "processors.csv").read_text().splitlines()[0].split(",")
    )


def test_schemas_name_every_field_with_its_text():
    for name in SCHEMAS:
        text = json.dumps(schema(name))
        assert '"description"' in text
    games = schema("games")["$defs"]["Game"]["properties"]
    assert all(field.get("description") for field in games.values())


def valid_brief() -> dict:
    return json.loads((BRIEFS / "net-loft.brief.json").read_text())


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"budget": {"low": "900", "high": "100"}}, "swap the two amounts"),
        ({"budget": {"low": "0", "high": "-1"}}, "greater than or equal"),
        ({"budget": {"low": "0", "high": "1e12"}}, "less than or equal"),
        ({"budget": {"low": "0", "high": "many"}}, "valid decimal"),
        ({"name": " "}, "no name"),
        ({"sureness": "surely"}, "even odds"),
        ({"material": "oak"}, "extra inputs"),
        ({"memory_gb": 1e9}, "0–4,096"),
        ({"display": {"refresh_hz": 5}}, "20–1,000"),
    ],
)
def test_bad_briefs_are_refused_in_words(change, said):
    data = valid_brief() | change
    with pytest.raises((FormatError, BriefError), match=said):
        read_brief("brief.json", json.dumps(data).encode())


@pytest.mark.parametrize(
    ("target", "said"),
    [
        ({"fps": 0}, "1–2,000"),
        ({"fps": 1e9}, "1–2,000"),
        ({"fps": "fast"}, "valid number"),
        ({"width_px": 3}, "width must lie"),
        ({"scale": 9}, "scale must lie"),
        ({"weight": -1}, "weight"),
        ({"preset": "insane"}, "low"),
    ],
)
def test_bad_targets_are_refused_in_words(target, said):
    data = valid_brief()
    data["targets"][0] |= target
    with pytest.raises((FormatError, BriefError), match=said):
        read_brief("brief.json", json.dumps(data).encode())


def test_a_build_with_two_cases_is_refused():
    parts = [{"kind": "case", "part": "a"}, {"kind": "case", "part": "b"}]
    with pytest.raises(BuildError, match="two parts of the kind case"):
        read_build("build.json", json.dumps({"parts": parts}).encode())
    with pytest.raises(FormatError, match="at most 1 MB"):
        read_build("build.json", b" " * 2_000_000)


def test_targets_without_ids_get_some():
    data = valid_brief()
    for target in data["targets"]:
        target["id"] = ""
    brief = read_brief("brief.json", json.dumps(data).encode())
    assert len({target.id for target in brief.targets}) == len(brief.targets)
    assert brief_from(brief_file(brief)) == brief
    assert build_from(build_file(Build())) == Build()


def test_the_documentation_is_what_the_models_say():
    docs = Path(__file__).parents[2] / "docs"
    assert tables_markdown() in (docs / "formats.md").read_text(), "run “make docs”"
    for name, text in schema_files().items():
        assert (docs / "schemas" / name).read_text() == text, "run “make docs”"


@pytest.mark.parametrize(
    ("told", "wrong", "expected"),
    [
        (
            "card_length_mm=282 by",
            "card_lenght_mm=282 by",
            "column of the part that holds a number",
        ),
        ("sheet,card_length_mm,", "sheet,colours,", "names of the part's own columns"),
    ],
)
def test_sources_that_name_no_figure_of_the_part_are_refused_with_their_line(
    tmp_path, told, wrong, expected
):
    folder = tmp_path / "catalogue"
    shutil.copytree(CATALOGUE, folder)
    path = folder / "cases.csv"
    text = path.read_text()
    path.write_text(text.replace(told, wrong))
    line = text[: text.index(told)].count("\n") + 1
    with pytest.raises(FormatError, match=expected) as refused:
        read_catalogue(folder)
    assert f"line {line}" in str(refused.value)


@pytest.mark.parametrize(
    ("changed", "said"),
    [
        ({"region": "nowhere"}, "a region of regions.csv"),
        ({"parcel_minor": -1}, "amounts of 0 or more"),
        ({"shop": " "}, "a name"),
        ({"codes": [{"code": "X", "percent": 140}]}, "0 to 100"),
        ({"together": [{"parts": ["one"], "price_minor": 5}]}, "two parts or more"),
        ({"parcel_minor": "much"}, "docs/formats.md"),
    ],
)
def test_shops_that_cannot_be_are_problems_in_words(changed, said):
    usual = {"shop": "Quay", "region": "vellmouth", "parcel_minor": 490}
    problems = []
    read_shops("shops.json", json.dumps([usual | changed]).encode(), ["vellmouth"], problems)
    assert len(problems) == 1 and said in str(problems[0])
    twice = []
    read_shops("shops.json", json.dumps([usual, usual]).encode(), ["vellmouth"], twice)
    assert "each shop once" in str(twice[0])
    fine = []
    (own,) = read_shops("shops.json", json.dumps([usual]).encode(), ["vellmouth"], fine).values()
    assert not fine and read_shops("x", write_shops([own]).encode(), [], fine) == {own.key: own}
