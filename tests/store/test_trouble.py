"""The database in trouble: deleted, replaced, locked, full, read-only, corrupt, foreign, newer."""

import shutil
import sqlite3
import subprocess
import sys
import threading
from contextlib import closing
from dataclasses import replace

import pytest

from tests.extent import thorough
from tests.small import BRIEFS, CATALOGUE
from wattmetron.cli import main
from wattmetron.core.errors import BusyError, StorageError
from wattmetron.workshop.workshop import Workshop

FIRST_START = """
import sys
from pathlib import Path
from wattmetron.workshop.workshop import Workshop
from tests.small import BRIEFS, CATALOGUE
Workshop(Path(sys.argv[1])).load_demo(CATALOGUE, BRIEFS)
"""


@pytest.fixture
def workshop(small_copy, shared_study):
    opened = Workshop(small_copy, shared_study)
    yield opened
    opened.close()


def renamed(name):
    return lambda plan: (replace(plan, brief=replace(plan.brief, name=name)), f"named {name}")


def rename(workshop, name="Otherwise"):
    workshop.change(1, workshop.open(1).version, renamed(name))


def run(path, statement, values=()):
    with closing(sqlite3.connect(path)) as database, database:
        database.execute(statement, values)


def delete(path):
    path.unlink()


def put_another_in_its_place(path):
    shutil.copyfile(path, path.with_name("other"))
    path.with_name("other").replace(path)


def delete_the_log(path):
    path.with_name(path.name + "-wal").unlink()


@pytest.mark.parametrize("meddle", [delete, put_another_in_its_place, delete_the_log])
def test_no_change_is_acknowledged_that_goes_to_a_file_no_longer_there(
    workshop, small_copy, meddle
):
    rename(workshop, "Before")
    meddle(small_copy)
    with pytest.raises(StorageError, match=r"deleted or replaced.*nothing was changed.*start"):
        rename(workshop)
    assert workshop.open(1).plan.brief.name == "Before"


def test_a_file_replaced_in_the_middle_of_a_change_takes_none(workshop, small_copy):
    def meddling(plan):
        put_another_in_its_place(small_copy)
        return renamed("Lost")(plan)

    with pytest.raises(StorageError, match="deleted or replaced"):
        workshop.change(1, workshop.open(1).version, meddling)
    assert workshop.open(1).plan.brief.name != "Lost"


def test_a_lock_held_elsewhere_is_a_sentence_after_a_while(workshop, small_copy):
    workshop.database.patience_ms = 200
    other = sqlite3.connect(small_copy, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    with pytest.raises(BusyError, match=r"busy.*nothing was changed.*again"):
        rename(workshop)
    other.execute("ROLLBACK")
    rename(workshop)


def test_a_full_disk_is_a_sentence_and_changes_nothing(workshop):
    name = workshop.open(1).plan.brief.name
    with workshop.database.engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
        connection.exec_driver_sql(f"PRAGMA max_page_count={pages}")
    with pytest.raises(StorageError, match=r"full.*nothing was changed.*[Ff]ree"):
        for length in range(1, 400):
            rename(workshop, "x" * (length % 100 + 1))
    assert workshop.open(1).plan.brief.name.strip("x") in ("", name)


def test_a_read_only_database_is_a_sentence(workshop):
    with workshop.database.engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA query_only=1")
    with pytest.raises(StorageError, match=r"read-only.*nothing was changed"):
        rename(workshop)


def empty_folder(path):
    path.mkdir()


def text_file(path):
    path.write_text("A shopping list.\n" * 100)


def of_another_program(path):
    run(path, "CREATE TABLE songs (id INTEGER)")


def of_a_newer_version(path):
    Workshop(path).close()
    run(path, "UPDATE alembic_version SET version_num='9999'")


def torn(path):
    opened = Workshop(path)
    opened.load_demo(CATALOGUE, BRIEFS)
    opened.close()
    data = bytearray(path.read_bytes())
    data[4096:12288] = b"\xa5" * 8192
    path.write_bytes(data)


def under_a_file(path):
    path.parent.rmdir()
    path.parent.write_text("not a folder")


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (empty_folder, "is a folder"),
        (text_file, "is no database"),
        (of_another_program, "another program"),
        (of_a_newer_version, "newer version"),
        (torn, "damaged"),
        (under_a_file, "cannot be opened"),
    ],
)
def test_a_start_on_what_is_no_good_database_says_so_in_one_sentence(tmp_path, capsys, make, words):
    path = tmp_path / "place" / "data.sqlite"
    path.parent.mkdir()
    make(path)
    before = path.read_bytes() if path.is_file() else None
    assert main(["serve", "--database", str(path), "--port", "0"]) == 2
    said = capsys.readouterr().err
    assert words in said and str(path) in said
    assert said.count("\n") == 1 and "Traceback" not in said
    assert before is None or path.read_bytes() == before


@thorough
def test_two_first_starts_at_once_make_the_demo_once(tmp_path):
    path = tmp_path / "demo.sqlite"
    starts = [
        subprocess.Popen([sys.executable, "-c", FIRST_START, str(path)], stderr=subprocess.PIPE)
        for _ in range(3)
    ]
    for start in starts:
        assert start.wait(timeout=120) == 0, start.stderr.read().decode()[-2000:]
    opened = Workshop(path)
    assert len(opened.briefs()) == len(list(BRIEFS.glob("*.brief.json")))
    opened.close()


def test_a_first_start_is_whole_or_nothing(tmp_path, monkeypatch):
    path = tmp_path / "demo.sqlite"
    opened = Workshop(path)
    monkeypatch.setattr("wattmetron.workshop.workshop.to_document", _fails_at(3))
    with pytest.raises(RuntimeError):
        opened.load_demo(CATALOGUE, BRIEFS)
    assert not opened.has_catalogue() and opened.briefs() == []
    monkeypatch.undo()
    opened.load_demo(CATALOGUE, BRIEFS)
    assert len(opened.briefs()) == len(list(BRIEFS.glob("*.brief.json")))
    opened.close()


def _fails_at(turn):
    from wattmetron.formats.plan_file import to_document

    turns = iter(range(100))

    def write(plan):
        if next(turns) == turn:
            raise RuntimeError
        return to_document(plan)

    return write


def break_brief(path, brief_id, document="{broken"):
    run(path, "UPDATE briefs SET document=? WHERE id=?", (document, brief_id))


@pytest.mark.parametrize("document", ["{broken", "[]", '{"brief": {}}', "[" * 100_000, "null"])
def test_a_brief_that_cannot_be_read_is_named_and_the_others_stay(workshop, small_copy, document):
    count = len(workshop.briefs())
    break_brief(small_copy, 2, document)
    assert len(workshop.briefs()) == count - 1
    broken = workshop.unreadable_briefs()
    assert [row.id for row in broken] == [2]
    with pytest.raises(StorageError, match=r"Brief 2 cannot be read.*as it is.*delete"):
        workshop.open(2)
    assert workshop.raw_brief(2) == document
    workshop.delete(2, broken[0].version)
    assert workshop.unreadable_briefs() == []


def test_many_threads_of_one_workshop_write_without_a_busy_one(workshop):
    errors = []

    def write(brief_id):
        try:
            for turn in range(10):
                workshop.change(
                    brief_id, workshop.open(brief_id).version, renamed(f"{brief_id} {turn}")
                )
        except Exception as error:
            errors.append(error)

    threads = [threading.Thread(target=write, args=(n,)) for n in (1, 2, 3, 4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert not errors
    assert {row.plan.brief.name for row in workshop.briefs()} >= {f"{n} 9" for n in (1, 2, 3, 4)}
