"""Backup, restore and doctor."""

import os
import random
import sqlite3
import subprocess
import sys
import threading
from dataclasses import replace

import pytest
from sqlalchemy import create_engine

from wattmetron.cli import main
from wattmetron.core.errors import BriefError
from wattmetron.places.handout.handout_links import Of, links_of, make_link, revoke
from wattmetron.store.links import MOST_LINKS
from wattmetron.store.migrating import migrate, pending_migrations
from wattmetron.workshop.workshop import Workshop


def run(capsys, *arguments):
    code = main([str(argument) for argument in arguments])
    captured = capsys.readouterr()
    return code, captured.out + captured.err


@pytest.fixture
def workshop(small_copy, shared_study):
    opened = Workshop(small_copy, shared_study)
    yield opened
    opened.close()


def name_of(path, brief_id=1):
    opened = Workshop(path)
    name = opened.open(brief_id).plan.brief.name
    opened.close()
    return name


def rename(workshop, brief_id, name):
    workshop.change(
        brief_id,
        workshop.open(brief_id).version,
        lambda plan: (replace(plan, brief=replace(plan.brief, name=name)), f"named {name}"),
    )


def test_a_backup_of_a_running_workshop_restores_what_was_there(
    workshop, small_copy, tmp_path, capsys
):
    rename(workshop, 1, "Kept")
    backup = tmp_path / "safe.sqlite"
    code, said = run(capsys, "backup", backup, "--database", small_copy)
    assert code == 0 and "8 briefs" in said
    assert sorted(path.name for path in tmp_path.glob("safe*")) == ["safe.sqlite"]
    rename(workshop, 1, "Later")
    code, said = run(capsys, "restore", backup, "--database", small_copy)
    assert code == 2 and "in use" in said, "a running application would go on with the old file"
    workshop.close()
    code, said = run(capsys, "restore", backup, "--database", small_copy)
    assert code == 0, said
    assert name_of(small_copy) == "Kept"
    aside = next(tmp_path.glob("copy.before-restore*"))
    assert name_of(aside) == "Later", "what was replaced is kept"


def test_a_backup_overwrites_nothing_and_is_checked(workshop, small_copy, tmp_path, capsys):
    standing = tmp_path / "standing.sqlite"
    standing.write_text("mine")
    code, said = run(capsys, "backup", standing, "--database", small_copy)
    assert code == 2 and "already" in said and standing.read_text() == "mine"
    code, said = run(capsys, "backup", tmp_path / "none" / "b.sqlite", "--database", small_copy)
    assert code == 2 and said.count("\n") == 1
    code, said = run(capsys, "backup", tmp_path / "b", "--database", tmp_path / "missing.sqlite")
    assert code == 2 and "no database" in said and not (tmp_path / "missing.sqlite").exists()


@pytest.mark.parametrize("kind", ["text", "foreign", "torn", "missing"])
def test_a_bad_backup_is_not_restored(workshop, small_copy, tmp_path, capsys, kind):
    name = workshop.open(1).plan.brief.name
    backup = tmp_path / "bad.sqlite"
    if kind == "text":
        backup.write_text("nothing")
    elif kind == "foreign":
        with sqlite3.connect(backup) as other:
            other.execute("CREATE TABLE songs (id INTEGER)")
    elif kind == "torn":
        assert run(capsys, "backup", backup, "--database", small_copy)[0] == 0
        data = bytearray(backup.read_bytes())
        data[len(data) // 2 : len(data) // 2 + 8192] = b"\xa5" * 8192
        backup.write_bytes(data)
    workshop.close()
    code, said = run(capsys, "restore", backup, "--database", small_copy)
    assert code == 2 and said.count("\n") == 1 and "nothing was" in said
    assert name_of(small_copy) == name


def test_a_backup_during_fifty_simultaneous_edits_is_a_state_of_the_log(
    workshop, small_copy, tmp_path, capsys
):
    rng = random.Random(14)
    plan = [(n, rng.randrange(1, 5)) for n in range(50)]
    begun, lock = threading.Event(), threading.Lock()
    queue = list(plan)

    def edit():
        while True:
            with lock:
                if not queue:
                    return
                n, brief_id = queue.pop()
                if len(queue) < 35:
                    begun.set()
            while True:
                try:
                    rename(workshop, brief_id, f"edit {n}")
                    break
                except Exception as error:
                    if "another tab" not in str(error):
                        raise

    threads = [threading.Thread(target=edit) for _ in range(6)]
    for thread in threads:
        thread.start()
    begun.wait(30)
    backup = tmp_path / "during.sqlite"
    assert run(capsys, "backup", backup, "--database", small_copy)[0] == 0
    for thread in threads:
        thread.join()
    restored = tmp_path / "restored.sqlite"
    assert run(capsys, "restore", backup, "--database", restored)[0] == 0
    states = sqlite3.connect(small_copy).execute(
        "SELECT brief_id, version, after FROM changes ORDER BY id"
    )
    log: dict[int, dict[int, str]] = {}
    for brief_id, version, after in states:
        log.setdefault(brief_id, {})[version] = after
    taken = sqlite3.connect(restored).execute("SELECT id, version, document FROM briefs").fetchall()
    assert len(taken) == 8
    assert all(log[brief_id][version] == document for brief_id, version, document in taken)
    last = sqlite3.connect(restored).execute("SELECT max(id) FROM changes").fetchone()[0]
    times = sqlite3.connect(small_copy).execute("SELECT count(*) FROM changes WHERE id<=?", (last,))
    held = sqlite3.connect(restored).execute("SELECT count(*) FROM changes")
    assert times.fetchone() == held.fetchone(), "all changes up to the last one, and no others"


def test_the_doctor_finds_a_good_database_good(workshop, small_copy, capsys):
    code, said = run(capsys, "doctor", "--database", small_copy)
    assert code == 0 and "Nothing is wrong" in said


def test_the_doctor_names_what_is_wrong_and_what_to_do(workshop, small_copy, capsys):
    workshop.close()
    with sqlite3.connect(small_copy) as database:
        database.execute("UPDATE briefs SET document='{' WHERE id=2")
        database.execute(
            "UPDATE briefs SET document=replace(document, 'hollow-meridian', 'gone-game')"
        )
        database.execute(
            "INSERT INTO changes (brief_id, version, summary, undone, at)"
            " VALUES (99, 1, 'x', 0, '2027-01-01')"
        )
        row = database.execute("SELECT id FROM entries WHERE kind='processor' LIMIT 1").fetchone()
        database.execute("UPDATE entries SET data='?' WHERE id=?", row)
    code, said = run(capsys, "doctor", "--database", small_copy)
    assert code == 1
    for words in ("Brief 2 cannot be read", "gone-game", "99", f"entry {row[0]}", "Import"):
        assert words in said, words


def test_the_doctor_says_what_a_new_version_would_change_and_changes_nothing(tmp_path, capsys):
    older = tmp_path / "older.sqlite"
    migrate(create_engine(f"sqlite:///{older}"), "0007")
    before = older.read_bytes()
    code, said = run(capsys, "doctor", "--database", older)
    assert code == 1 and "of an earlier version" in said and "Measured runs" in said
    assert older.read_bytes() == before
    assert len(pending_migrations(older)) == 4


def test_what_a_killed_restore_left_is_cleared_and_what_runs_is_left_alone(small_copy):
    gone = subprocess.Popen([sys.executable, "-c", ""])
    gone.wait()
    left = [
        small_copy.with_name(f".{small_copy.name}.{pid}.part{more}")
        for pid in (gone.pid, os.getpid())
        for more in ("", "-wal")
    ]
    for path in left:
        path.write_bytes(b"half")
    Workshop(small_copy).close()
    assert [path.exists() for path in left] == [False, False, True, True]


def test_links_that_ended_leave_room_for_new_ones(workshop):
    of = Of(brief_id=1)
    for _ in range(MOST_LINKS + 1):
        make_link(workshop, of, None)
        revoke(workshop, of, links_of(workshop, of)[0].id)
    for _ in range(MOST_LINKS):
        make_link(workshop, of, None)
    with pytest.raises(BriefError, match="or end one"):
        make_link(workshop, of, None)
