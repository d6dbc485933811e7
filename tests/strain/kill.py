"""Kills in the middle of everything that is stored: nothing that was acknowledged is lost, nothing
is half there.
"""

import argparse
import io
import json
import random
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
from contextlib import closing
from dataclasses import replace
from datetime import date
from pathlib import Path

from PIL import Image

from tests.strain.killed import MODES, PICTURED
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.formats.catalogue_writing import write_catalogue
from wattmetron.places.handout.sets import all_sets
from wattmetron.places.parts.part_edits import picture_of, picture_version
from wattmetron.store.links import NoSuchLinkError, open_link
from wattmetron.workshop.workshop import Workshop

LONGEST_S = {"imports": 4.0, "first start": 3.0, "pictures": 3.0, "backups": 2.0}
"""How long after its beginning a process is killed at most; 2.5 for the others."""


class Kills:
    """Kills by mode, and what went wrong."""

    def __init__(self, folder: Path, seed: int) -> None:
        self.rng, self.folder = random.Random(seed), folder
        self.acknowledged = 0
        self.failures: list[str] = []
        whole = read_catalogue(CATALOGUE)
        half = dict(list(whole.parts.items())[::2])
        offers = tuple(offer for offer in whole.offers if offer.part_id in half)
        write_catalogue(replace(whole, parts=half, offers=offers), folder / "half")
        self.folders = [CATALOGUE, folder / "half"]
        self.sizes = {"catalogue": len(whole.parts), "half": len(half)}
        self.path = folder / "kept.sqlite"
        workshop = Workshop(self.path)
        workshop.load_demo(CATALOGUE, BRIEFS)
        workshop.close()

    def once(self, turn: int) -> None:
        mode = [*MODES][turn % len(MODES)]
        path = self.folder / f"first{turn}.sqlite" if mode == "first start" else self.path
        said = self._killed(mode, path)
        self.acknowledged += len(said)
        wrong = {
            "imports": self._imports,
            "first start": self._first,
            "snapshots": self._snapshots,
            "links": self._links,
            "sets": self._sets,
            "pictures": self._pictures,
            "backups": self._backups,
        }.get(mode, self._edits)
        with closing(sqlite3.connect(path)) as database:
            if database.execute("PRAGMA integrity_check").fetchone() != ("ok",):
                self.failures.append(f"kill {turn}, {mode}: the file is damaged")
        self.failures += [f"kill {turn}, {mode}: {words}" for words in wrong(path, said)]

    def _killed(self, mode: str, path: Path) -> list[str]:
        """What a process acknowledged before it was killed."""
        process = subprocess.Popen(
            [sys.executable, "-m", "tests.strain.killed", mode, path, *self.folders],
            stdout=subprocess.PIPE,
            text=True,
        )
        assert process.stdout is not None
        process.stdout.readline()
        time.sleep(self.rng.random() * LONGEST_S.get(mode, 2.5))
        process.send_signal(signal.SIGKILL)
        said = process.stdout.read().splitlines()
        process.wait()
        return said

    def _snapshots(self, path: Path, said: list[str]):
        with closing(sqlite3.connect(path)) as database:
            rows = dict(database.execute("SELECT id, document FROM snapshots"))
        for number in said:
            if int(number) not in rows:
                yield f"snapshot {number} was acknowledged and is not there"
        for document in rows.values():
            json.loads(document)
        _made_room(path, "DELETE FROM snapshots")

    def _links(self, path: Path, said: list[str]):
        with closing(Workshop(path)) as workshop, workshop.database.reading() as session:
            for key in said:
                try:
                    json.loads(open_link(session, key, date(2026, 1, 1)).document)
                except NoSuchLinkError:
                    yield f"link {key[:4]} was acknowledged and opens nothing"
        _made_room(path, "UPDATE links SET revoked = 1")

    def _sets(self, path: Path, said: list[str]):
        with closing(Workshop(path)) as workshop:
            there = {own.id for own in all_sets(workshop)}
            for number in said:
                if int(number) not in there:
                    yield f"set {number} was acknowledged and cannot be opened"
        _made_room(path, "DELETE FROM papers WHERE kind = 'set'")

    def _pictures(self, path: Path, said: list[str]):
        with closing(Workshop(path)) as workshop:
            stands, data = picture_version(workshop, PICTURED), picture_of(workshop, PICTURED)
        if said and stands < int(said[-1]):
            yield f"picture {said[-1]} was acknowledged, {stands} stands"
        if data is not None:
            Image.open(io.BytesIO(data)).load()

    def _backups(self, path: Path, said: list[str]):
        for name in said:
            if not path.with_name(name).exists():
                yield f"{name} was acknowledged and is not there"
        for backup in path.parent.glob("backup-*.sqlite"):
            with closing(sqlite3.connect(backup)) as database:
                if database.execute("PRAGMA integrity_check").fetchone() != ("ok",):
                    yield f"{backup.name} is not whole"
            backup.unlink()

    def _edits(self, path: Path, said: list[str]):
        last = {}
        for line in said:
            brief_id, version = line.split()
            last[int(brief_id)] = int(version)
        with closing(sqlite3.connect(path)) as database:
            for brief_id, version in last.items():
                (stands,) = database.execute(
                    "SELECT version FROM briefs WHERE id=?", (brief_id,)
                ).fetchone()
                (logged,) = database.execute(
                    "SELECT max(version) FROM changes WHERE brief_id=?", (brief_id,)
                ).fetchone()
                if not version <= stands <= version + 1 or logged != stands:
                    yield f"brief {brief_id}: {version} was acknowledged, {stands} stands"

    def _imports(self, path: Path, said: list[str]):
        workshop = Workshop(path)
        parts = len(workshop.catalogue().described.parts)
        workshop.close()
        if parts not in self.sizes.values():
            yield f"{parts} parts stand: neither catalogue is whole"
        with closing(sqlite3.connect(path)) as database:
            (source,) = database.execute(
                "SELECT source FROM imports WHERE by_hand = 0 ORDER BY id DESC LIMIT 1"
            ).fetchone()
        if self.sizes[source] != parts:
            yield f"{source} is the last import, but {parts} parts stand"

    def _first(self, path: Path, said: list[str]):
        workshop = Workshop(path)
        before = len(workshop.briefs())
        workshop.load_demo(CATALOGUE, BRIEFS)
        after, expected = len(workshop.briefs()), len(list(BRIEFS.glob("*.brief.json")))
        workshop.close()
        if before not in (0, expected) or after != expected or (said and not before):
            yield f"{before} briefs after the kill, {after} after the next start"


def _made_room(path: Path, change: str) -> None:
    """There are so many links, sets and snapshots at most: the next process begins anew."""
    with closing(sqlite3.connect(path)) as database:
        database.execute(change)
        database.commit()


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--kills", type=int, default=400)
    parser.add_argument("--seed", type=int, default=14)
    options = parser.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        kills = Kills(Path(folder), options.seed)
        for turn in range(options.kills):
            kills.once(turn)
    print("\n".join(kills.failures))
    print(
        f"seed {options.seed}: {options.kills} kills, {kills.acknowledged:,} changes acknowledged,"
        f" {len(kills.failures)} lost or half."
    )
    return 1 if kills.failures else 0


if __name__ == "__main__":
    sys.exit(main())
