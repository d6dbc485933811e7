"""Kills in the middle of edits, imports and first starts: nothing that was acknowledged is lost,
nothing is half there.
"""

import argparse
import random
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
from contextlib import closing
from dataclasses import replace
from pathlib import Path

from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.formats.catalogue_folder import read_catalogue, write_catalogue
from wattmetron.services.workshop import Workshop

WORK = """
import sys
from dataclasses import replace
from pathlib import Path
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.services.workshop import Workshop

mode, path, folders = sys.argv[1], Path(sys.argv[2]), [Path(f) for f in sys.argv[3:]]
print("ready", flush=True)
workshop = Workshop(path)
if mode == "first start":
    workshop.load_demo(CATALOGUE, BRIEFS)
    print("done", flush=True)
turn = 0
while mode == "edits":
    brief_id = turn % 4 + 1
    version = workshop.open(brief_id).version
    edit = lambda plan: (replace(plan, brief=replace(plan.brief, name=f"{version}")), "named")
    workshop.change(brief_id, version, edit)
    print(brief_id, version + 1, flush=True)
    turn += 1
while mode == "imports":
    workshop.import_folder(folders[turn % 2])
    print(folders[turn % 2].name, flush=True)
    turn += 1
"""
LONGEST_S = {"edits": 1.0, "imports": 4.0, "first start": 3.0}
MODES = ("edits", "edits", "imports", "first start")


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
        mode = MODES[turn % len(MODES)]
        path = self.folder / f"first{turn}.sqlite" if mode == "first start" else self.path
        said = self._killed(mode, path)
        self.acknowledged += len(said)
        wrong = {"edits": self._edits, "imports": self._imports, "first start": self._first}
        with closing(sqlite3.connect(path)) as database:
            if database.execute("PRAGMA integrity_check").fetchone() != ("ok",):
                self.failures.append(f"kill {turn}, {mode}: the file is damaged")
        self.failures += [f"kill {turn}, {mode}: {words}" for words in wrong[mode](path, said)]

    def _killed(self, mode: str, path: Path) -> list[str]:
        """What a process acknowledged before it was killed."""
        process = subprocess.Popen(
            [sys.executable, "-c", WORK, mode, path, *self.folders],
            stdout=subprocess.PIPE,
            text=True,
        )
        assert process.stdout is not None
        process.stdout.readline()
        time.sleep(self.rng.random() * LONGEST_S[mode])
        process.send_signal(signal.SIGKILL)
        said = process.stdout.read().splitlines()
        process.wait()
        return said

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
                "SELECT source FROM imports ORDER BY id DESC LIMIT 1"
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


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--kills", type=int, default=200)
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
