"""The store: revisions, undo over restarts, two tabs, migrations, and a server killed in
mid-change.
"""

import os
import re
import signal
import sqlite3
import subprocess
import sys
import textwrap
import time
from dataclasses import replace

import pytest
from sqlalchemy import create_engine, inspect

from tests.small import BRIEFS, CATALOGUE
from tests.worlds import World
from wattmetron.core.errors import BriefError, ConflictError
from wattmetron.core.values.build import Build
from wattmetron.core.values.own_record import OwnRecord, record_key
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.published import Published, Tier
from wattmetron.core.values.trust import judge
from wattmetron.places.parts.part_edits import note_own, own_version
from wattmetron.store import catalogue_edits, catalogues
from wattmetron.store.briefs import NoSuchBriefError, NothingToUndoError
from wattmetron.store.migrating import migrate
from wattmetron.store.tables import Base, BriefRow
from wattmetron.workshop.workshop import EmptyCatalogueError, Workshop


@pytest.fixture
def path(tmp_path):
    return tmp_path / "data" / "test.sqlite"


@pytest.fixture
def workshop(path):
    opened = Workshop(path)
    opened.load_demo(CATALOGUE, BRIEFS)
    yield opened
    opened.close()


def budget(amount):
    return lambda plan: (
        replace(plan, brief=replace(plan.brief, budget_high_minor=amount)),
        f"budget {amount}",
    )


def step(workshop, way: str, brief_id: int = 1) -> str:
    """Undo or redo from the present version, which a deleted brief no longer shows."""
    with workshop.database.reading() as session:
        version = session.get(BriefRow, brief_id).version
    return getattr(workshop, way)(brief_id, version)


def high(workshop) -> int:
    return workshop.open(1).plan.brief.budget_high_minor


def test_undo_and_redo_survive_a_restart(path, workshop):
    start = high(workshop)
    for amount in (200000, 210000, 220000):
        workshop.change(1, workshop.open(1).version, budget(amount))
    assert step(workshop, "undo") == "budget 220000"
    workshop.close()
    again = Workshop(path)
    assert high(again) == 210000
    assert again.open(1).redo == "budget 220000"
    assert again.open(1).before.brief.budget_high_minor == 200000
    step(again, "redo")
    for expected in (210000, 200000, start):
        step(again, "undo")
        assert high(again) == expected
    with pytest.raises(NothingToUndoError):
        step(again, "undo")
    step(again, "redo")
    again.change(1, again.open(1).version, budget(300000))
    with pytest.raises(NothingToUndoError):
        step(again, "redo")
    assert (step(again, "undo"), high(again)) == ("budget 300000", 200000)
    again.close()


def test_a_stale_version_changes_nothing(workshop):
    version = workshop.open(1).version
    workshop.change(1, version, budget(150000))
    with pytest.raises(ConflictError, match="another tab"):
        workshop.change(1, version, budget(160000))
    assert high(workshop) == 150000
    step(workshop, "undo")
    with pytest.raises(ConflictError):
        workshop.change(1, version + 1, budget(170000))
    for way in (workshop.undo, workshop.redo):
        with pytest.raises(ConflictError, match="another tab"):
            way(1, version)


def test_a_refused_change_leaves_no_trace(workshop):
    before = workshop.open(1)
    with pytest.raises(BriefError):
        workshop.change(1, before.version, budget(-5))
    assert workshop.open(1) == before


def test_delete_is_undone(workshop):
    workshop.delete(1, workshop.open(1).version)
    with pytest.raises(NoSuchBriefError):
        workshop.open(1)
    assert 1 not in [row.id for row in workshop.briefs()]
    step(workshop, "undo")
    assert workshop.open(1).plan.brief.name == "Net loft all-rounder"
    copy = workshop.copy(1)
    assert workshop.open(copy).plan.build == workshop.open(1).plan.build


def test_past_catalogues_stay_as_they_were(path):
    workshop = Workshop(path)
    with pytest.raises(EmptyCatalogueError):
        workshop.catalogue()
    first = World(1).catalogue(per_kind=4)
    workshop.import_catalogue(first, "first")
    raised = tuple(
        replace(offer, price_minor=offer.price_minor + 100) for offer in first.offers[:3]
    )
    fewer = {part_id: part for part_id, part in first.parts.items() if part_id != "case-0001"}
    kept = [offer for offer in first.offers[3:] if offer.part_id != "case-0001"]
    second = replace(first, offers=(*raised, *kept), parts=fewer)
    workshop.import_catalogue(second, "second")
    now = workshop.catalogue()
    assert (now.parts, set(now.offers)) == (second.parts, set(second.offers))
    with workshop.database.reading() as session:
        past = catalogues.load_catalogue(session, 1)
        assert (past.parts, set(past.offers), past.games) == (
            first.parts,
            set(first.offers),
            first.games,
        )
    rows = (
        sqlite3.connect(path).execute("select count(*) from entries where kind = 'case'").fetchone()
    )
    assert rows == (4,)
    workshop.close()


def as_before(value):
    """A case with one radiator in a place, and what a part lacks, as older versions wrote it."""
    if not isinstance(value, str):
        return value
    lacking = r'("(?:igpu_speed|boxed_cooler_w|ray_speed)":) ?0(?:\.0)?(?=[,}])'
    value = re.sub(lacking, r"\1 null", value)
    value = re.sub(r'("wireless":) ?"none"', r'\1 ""', value)
    return re.sub(r'("radiator_[a-z]+_mm":) ?\[(\d+)\]', r"\1\2", value)


BEFORE = {"in_stock": "stock in ('in', 'few')"}
"""What a column was that is no longer there."""


def test_the_schema_is_what_migrations_make_and_an_older_database_is_brought_up(tmp_path, workshop):
    engine = create_engine(f"sqlite:///{tmp_path / 'new.sqlite'}")
    migrate(engine)
    made = inspect(engine)
    for table in Base.metadata.sorted_tables:
        assert {column["name"] for column in made.get_columns(table.name)} == {
            column.name for column in table.columns
        }
    older = tmp_path / "older.sqlite"
    migrate(create_engine(f"sqlite:///{older}"), "0001")
    source = sqlite3.connect(tmp_path / "data" / "test.sqlite")
    target = sqlite3.connect(older)
    for table in ("imports", "entries", "offers", "briefs", "changes"):
        columns = ", ".join(
            BEFORE.get(column["name"], column["name"])
            for column in inspect(create_engine(f"sqlite:///{older}")).get_columns(table)
        )
        rows = source.execute(f"select {columns} from {table}").fetchall()
        if table == "entries":
            rows = [tuple(map(as_before, row)) for row in rows]
        target.executemany(f"insert into {table} values ({','.join('?' * len(rows[0]))})", rows)
    target.commit()
    target.close()
    opened = Workshop(older)
    assert [row.plan for row in opened.briefs()] == [row.plan for row in workshop.briefs()]
    assert opened.catalogue().parts == workshop.catalogue().parts
    assert [(own.part_id, own.in_stock) for own in opened.catalogue().offers] == [
        (own.part_id, own.in_stock) for own in workshop.catalogue().offers
    ]
    opened.close()


def test_pragmas(workshop):
    with workshop.database.reading() as session:
        connection = session.connection()
        assert connection.exec_driver_sql("pragma foreign_keys").scalar() == 1
        assert connection.exec_driver_sql("pragma journal_mode").scalar() == "wal"


KILLED_IMPORT = """
    import sys
    from pathlib import Path
    from wattmetron.workshop.workshop import Workshop
    from wattmetron.store import imports
    slow = imports._revise_offers
    def stopped(*arguments):
        slow(*arguments)
        print("in the middle", flush=True)
        sys.stdin.read()
    imports._revise_offers = stopped
    Workshop(Path(sys.argv[1])).import_folder(Path(sys.argv[2]))
"""
KILLED_CHANGES = """
    import sys
    from dataclasses import replace
    from pathlib import Path
    from wattmetron.workshop.workshop import Workshop
    workshop = Workshop(Path(sys.argv[1]))
    for amount in range(200000, 300000):
        def edit(plan):
            brief = replace(plan.brief, budget_high_minor=amount)
            return replace(plan, brief=brief), str(amount)
        workshop.change(1, workshop.open(1).version, edit)
        print(amount, flush=True)
"""


def run(code, *arguments):
    command = [sys.executable, "-c", textwrap.dedent(code), *map(str, arguments)]
    return subprocess.Popen(command, stdout=subprocess.PIPE, stdin=subprocess.PIPE, text=True)


def test_an_import_killed_in_the_middle_leaves_the_old_catalogue(path, tmp_path, workshop):
    from wattmetron.formats.catalogue_writing import write_catalogue

    before = workshop.catalogue()
    write_catalogue(World(4).catalogue(per_kind=5), tmp_path / "other")
    running = run(KILLED_IMPORT, path, tmp_path / "other")
    assert running.stdout.readline().strip() == "in the middle"
    os.kill(running.pid, signal.SIGKILL)
    running.wait()
    workshop.close()
    again = Workshop(path)
    assert again.catalogue().parts == before.parts
    assert again.catalogue().offers == before.offers
    again.import_folder(tmp_path / "other")
    assert len(again.catalogue().parts) == 45
    again.close()


def test_no_acknowledged_change_is_lost_when_killed(path, workshop):
    workshop.close()
    running = run(KILLED_CHANGES, path)
    acknowledged = 0
    until = time.monotonic() + 20
    while acknowledged < 200012 and time.monotonic() < until:
        acknowledged = int(running.stdout.readline())
    os.kill(running.pid, signal.SIGKILL)
    acknowledged = max(
        [acknowledged, *(int(line) for line in running.stdout.read().split() if line.isdigit())]
    )
    running.wait()
    again = Workshop(path)
    assert high(again) in (acknowledged, acknowledged + 1)
    assert step(again, "undo") == str(again.open(1).plan.brief.budget_high_minor + 1)
    again.close()


def test_plans_keep_a_pinned_build(workshop):
    build = Build(case="lidd-frame-bunk")
    workshop.change(
        1, workshop.open(1).version, lambda plan: (replace(plan, pinned=build), "pinned")
    )
    assert workshop.open(1).plan.pinned == build
    made = workshop.create(Plan(workshop.open(1).plan.brief, build))
    assert workshop.open(made).plan == Plan(workshop.open(1).plan.brief, build)


def test_edits_by_hand_are_dated_revisions_and_outlive_an_import_that_lacks_them(tmp_path):
    path = tmp_path / "hand.sqlite"
    workshop = Workshop(path)
    world = World(11).catalogue(per_kind=2, games=2)
    workshop.import_catalogue(world, "first")
    game = replace(next(iter(world.games.values())), id="by-hand", name="By hand")
    own = Published(game="by-hand", tiers=(Tier(label="Minimum", memory_gb=8.0),))
    with workshop.database.writing() as session:
        catalogue_edits.revise(
            session, {("game", "by-hand"): game, ("published", "by-hand"): own}, "made"
        )
    with workshop.database.writing() as session:
        later = replace(own, source="somewhere")
        catalogue_edits.revise(session, {("published", "by-hand"): later}, "said where")
    with workshop.database.reading() as session:
        states = catalogue_edits.revisions(session, "published", "by-hand")
        assert [(state.value.source, state.source) for state in states] == [
            ("somewhere", "said where"),
            ("", "made"),
        ]
        assert catalogue_edits.standing_id(session, "published", "by-hand") == states[0].id
        assert catalogues.load_catalogue(session, 2).published["by-hand"] == own, (
            "the past stays as it was"
        )
    fewer = replace(world, games=dict(list(world.games.items())[:1]))
    workshop.import_catalogue(fewer, "second")
    after = workshop.catalogue()
    assert set(after.games) == {*fewer.games, "by-hand"} and after.published["by-hand"] == later
    replaced = replace(fewer, games={**fewer.games, "by-hand": replace(game, genre="new")})
    workshop.import_catalogue(replaced, "third")
    assert workshop.catalogue().games["by-hand"].genre == "new"
    with workshop.database.writing() as session:
        catalogue_edits.revise(session, {("published", "by-hand"): None}, "taken out")
    assert "by-hand" not in workshop.catalogue().published
    workshop.close()


def test_what_one_saw_oneself_belongs_to_the_user_and_outlives_every_import(tmp_path):
    workshop = Workshop(tmp_path / "own.sqlite")
    world = World(12).catalogue(per_kind=2, games=2)
    maker = next(iter(world.parts.values())).maker
    workshop.import_catalogue(world, "first")
    note_own(workshop, OwnRecord(of="maker", name=maker, used=9, failed=3), 0)
    part = next(part for part in workshop.catalogue().parts.values() if part.maker == maker)
    assert judge(part).trust == "doubtful"
    workshop.export_folder(tmp_path / "out")
    elsewhere = Workshop(tmp_path / "elsewhere.sqlite")
    elsewhere.import_folder(tmp_path / "out")
    assert elsewhere.catalogue().own == workshop.catalogue().own != {}
    for own in (workshop, elsewhere):
        own.import_catalogue(world, "a catalogue without it")
        after = own.catalogue()
        assert after.own[record_key("maker", maker.upper())].failed == 3
        assert judge(after.parts[part.id]).trust == "doubtful"
    with pytest.raises(ConflictError):
        note_own(workshop, OwnRecord(of="maker", name=maker, used=1), 0)
    version = own_version(workshop, record_key("maker", maker))
    note_own(workshop, OwnRecord(of="maker", name=maker), version)
    assert not workshop.catalogue().own and not workshop.catalogue().parts[part.id].own
    workshop.close()
    elsewhere.close()
