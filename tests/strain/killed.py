"""What a process does until it is killed: one change after the other, each acknowledged by a line
once it is made.
"""

import io
import os
import sys
from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import date
from functools import partial
from itertools import count
from pathlib import Path

from PIL import Image

from wattmetron.core.values.dated import BuildSet
from wattmetron.core.values.plan import Plan
from wattmetron.core.values.purchases import PartPurchase
from wattmetron.demo import BRIEFS, CATALOGUE
from wattmetron.places.buy.purchase_edits import forget
from wattmetron.places.handout.handout_links import Of, make_link
from wattmetron.places.handout.sets import change_set, make_set, open_set
from wattmetron.places.parts.part_edits import keep_picture, picture_version
from wattmetron.store.backup import back_up
from wattmetron.workshop.workshop import Workshop

PICTURED = "pellworth-reef-16-plain"
DAY = date(2026, 12, 1)
Edited = tuple[Plan, str]


def first_start(path: Path) -> Iterator[str]:
    Workshop(path).load_demo(CATALOGUE, BRIEFS)
    yield "done"


def _changes(path: Path, edit: Callable[[Plan, int], Edited]) -> Iterator[str]:
    """Changes of four briefs in turn, with the version that each has then."""
    workshop = Workshop(path)
    for turn in count():
        brief_id = turn % 4 + 1
        version = workshop.open(brief_id).version
        workshop.change(brief_id, version, lambda plan, turn=turn: edit(plan, turn))
        yield f"{brief_id} {version + 1}"


def edits(path: Path) -> Iterator[str]:
    def named(plan: Plan, turn: int) -> Edited:
        # A name that no earlier process gave: a change to what is there already is none.
        name = f"Named {os.getpid()} {turn}"
        return replace(plan, brief=replace(plan.brief, name=name)), "named"

    return _changes(path, named)


def adoptions(path: Path) -> Iterator[str]:
    """A whole build in the place of another, and back."""

    def adopted(plan: Plan, turn: int) -> Edited:
        other = replace(plan.build, memory=None) if plan.build.memory else None
        build = other or replace(plan.build, memory="bramblebyte-burdock-16-single-ddr5")
        return replace(plan, build=build), f"adopted {turn}"

    return _changes(path, adopted)


def orders(path: Path) -> Iterator[str]:
    """Parts ordered, and taken out again."""

    def ordered(plan: Plan, turn: int) -> Edited:
        if plan.purchases:
            return forget(plan, plan.purchases[0].part_id)
        bought = PartPurchase(
            part_id=PICTURED,
            shop="Quayside Parts",
            state="ordered",
            planned_minor=50_000 + turn,
            paid_minor=50_000 + turn,
            on=DAY,
        )
        return replace(plan, purchases=(bought,)), "ordered"

    return _changes(path, ordered)


def imports(path: Path, *folders: str) -> Iterator[str]:
    workshop = Workshop(path)
    for turn in count():
        folder = Path(folders[turn % 2])
        workshop.import_folder(folder)
        yield folder.name


def snapshots(path: Path) -> Iterator[str]:
    workshop = Workshop(path)
    for turn in count():
        yield str(workshop.freeze(turn % 4 + 1, f"Kept {turn}", "{}"))


def links(path: Path) -> Iterator[str]:
    workshop = Workshop(path)
    for turn in count():
        yield make_link(workshop, Of(brief_id=turn % 8 + 1), date(2026, 1, 1 + turn % 28))


def sets(path: Path) -> Iterator[str]:
    """A new one at every tenth turn, else the last one by another name: there are 200 at most."""
    workshop = Workshop(path)
    set_id = version = 0
    for turn in count():
        if turn % 10 == 0:
            set_id = make_set(workshop, BuildSet(name=f"Set {turn}"))
            version = open_set(workshop, set_id).version
        else:
            change_set(workshop, set_id, version, partial(_named, name=f"Set {turn}"))
            version += 1
        yield str(set_id)


def _named(build_set: BuildSet, name: str) -> BuildSet:
    return replace(build_set, name=name)


def pictures(path: Path) -> Iterator[str]:
    workshop = Workshop(path)
    catalogue = workshop.catalogue()
    for turn in count():
        file = io.BytesIO()
        Image.new("RGB", (300, 200), (turn % 256, turn // 256 % 256, 90)).save(file, "PNG")
        version = picture_version(workshop, PICTURED)
        keep_picture(workshop, catalogue, PICTURED, ("one.png", file.getvalue()), version)
        yield str(picture_version(workshop, PICTURED))


def backups(path: Path) -> Iterator[str]:
    for turn in count():
        name = f"backup-{os.getpid()}-{turn}.sqlite"
        back_up(path, path.with_name(name))
        yield name


MODES: dict[str, Callable[..., Iterator[str]]] = {
    "edits": edits,
    "imports": imports,
    "first start": first_start,
    "adoptions": adoptions,
    "orders": orders,
    "snapshots": snapshots,
    "links": links,
    "sets": sets,
    "pictures": pictures,
    "backups": backups,
}


def main() -> None:
    mode, path, *folders = sys.argv[1:]
    print("ready", flush=True)
    work = MODES[mode](Path(path), *folders if mode == "imports" else ())
    for line in work:
        print(line, flush=True)


if __name__ == "__main__":
    main()
