"""Deliberate faults, one at a time: which of them do the tests of ``make test`` catch?

Each is put into a copy of the tree; the tests that lie nearest run first, then all others, until
one fails. Prints who caught what and, last, how many were missed and which.
"""

import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).parent.parent
TREES = ("src", "tests", "docs", "tools", "assets")
FILES = ("pyproject.toml", "requirements.lock", "requirements-dev.lock", "THIRD_PARTY.md")
PYTEST = (
    "-n",
    "2",
    "--dist",
    "loadfile",
    "-x",
    "-m",
    "(not journey or essential) and not thorough",
)
DONE, NO_TESTS = 0, 5


class Fault(NamedTuple):
    """Words of a file and what stands there instead; ``near`` are the tests that run first."""

    name: str
    file: str
    old: str
    new: str
    near: str


FAULTS = (
    Fault(
        "a flipped sign in the mean frame time",
        "core/frames/frame_rates.py",
        "ndtr((mz - mx + form.sz**2) / form.s)\n    )\n\n\ndef ln_mean_ms",
        "ndtr((mz - mx - form.sz**2) / form.s)\n    )\n\n\ndef ln_mean_ms",
        "tests/core/test_frames.py",
    ),
    Fault(
        "the low frame rate is another percentile",
        "core/frames/frame_rates.py",
        "LOW_QUANTILE = 0.99",
        "LOW_QUANTILE = 0.98",
        "tests/core/test_frames.py",
    ),
    Fault(
        "half the memory bandwidth",
        "core/frames/work.py",
        "np.asarray(channels) * 8.0 *",
        "np.asarray(channels) * 4.0 *",
        "tests/core/test_frames.py",
    ),
    Fault(
        "more pixels may help",
        "core/frames/work.py",
        "return np.asarray(np.maximum.reduce(times))",
        "return np.asarray(times[-1])",
        "tests/core/test_frames.py",
    ),
    Fault(
        "an off-by-one bound in the room for a card",
        "core/compatibility/clearance.py",
        "if card.length_mm <= room:",
        "if card.length_mm <= room + 1:",
        "tests/core/test_compatibility_rules.py",
    ),
    Fault(
        "a silent rule: the case takes every board",
        "core/compatibility/clearance.py",
        "if board and case and board.form_factor not in case.board_forms:",
        "if board and case and board.form_factor in ():",
        "tests/core/test_compatibility_rules.py",
    ),
    Fault(
        "the reserve of a supply is forgotten",
        "core/power/draw.py",
        "headroom_percent * (100 + reserve_percent)",
        "headroom_percent * 100",
        "tests/core/test_power.py",
    ),
    Fault(
        "efficiency from the points of the other mains",
        "core/power/efficiency.py",
        "230 if mains_v > 170 else 115",
        "115 if mains_v > 170 else 230",
        "tests/core/test_power.py",
    ),
    Fault(
        "a price from the wrong shop: the dearest",
        "core/values/offers.py",
        "if (least is None or cost <= least) and self.lets(own):",
        "if (least is None or cost >= least) and self.lets(own):",
        "tests/core/test_prices_and_money.py",
    ),
    Fault(
        "prices of another region count",
        "core/values/offers.py",
        "if offer.region != region.id:",
        "if not offer.region:",
        "tests/core/test_prices_and_money.py",
    ),
    Fault(
        "shipping is free above the threshold, not from it on",
        "core/values/shops.py",
        "goods_minor >= self.free_above_minor",
        "goods_minor > self.free_above_minor",
        "tests/core/buying",
    ),
    Fault(
        "fewer parcels are not looked for",
        "core/buying/purchase.py",
        "if fewer is None or fewer.cost_minor > found.cost_minor:",
        "if fewer is None or fewer.cost_minor >= found.cost_minor:",
        "tests/core/buying",
    ),
    Fault(
        "a wider band in which the cheapest wins",
        "core/search/proposal.py",
        "np.log(1.02)",
        "np.log(1.04)",
        "tests/core/test_balance.py",
    ),
    Fault(
        "a floor that lets spinning disks in",
        "core/compatibility/floors.py",
        "    return STORAGE_KINDS.index(kind) if brief.solid_state else ANY",
        "    return ANY",
        "tests/core/test_roles.py",
    ),
    Fault(
        "money is cut to whole units",
        "core/values/money.py",
        "    return int(minor)",
        "    return int(value) * MINOR_PER_MAJOR",
        "tests/core/test_prices_and_money.py",
    ),
    Fault(
        "a watch fires again at the same price",
        "core/values/watches.py",
        "minor < self.seen_minor",
        "minor <= self.seen_minor",
        "tests/pages/test_shops.py",
    ),
    Fault(
        "an aspect that falls short does not count",
        "core/requirements/verdicts.py",
        "judged.min(axis=1)",
        "judged.max(axis=1)",
        "tests/core/test_tiers.py",
    ),
    Fault(
        "the limiting side of a run is the other one",
        "core/runs/limiting_side.py",
        'return "processor" if self.processor > self.graphics else "graphics"',
        'return "graphics" if self.processor > self.graphics else "processor"',
        "tests/core/runs",
    ),
    Fault(
        "a list's paragraph is not put together again",
        "core/texts/part_lists/rows.py",
        "            held = whole\n        else:",
        "            yield whole\n        else:",
        "tests/core/part_lists",
    ),
    Fault(
        "an amount of another unit is taken for money",
        "core/texts/messages/money_amounts.py",
        "if NOT_MONEY.match(rest) or _of_size(clause.text, match):",
        "if _of_size(clause.text, match):",
        "tests/core/messages",
    ),
    Fault(
        "cells that a spreadsheet would run are written as they are",
        "formats/csv_table.py",
        "cells = [guarded(clean(cell_of(getattr(value, name)))) for name in names]",
        "cells = [clean(cell_of(getattr(value, name))) for name in names]",
        "tests/formats",
    ),
    Fault(
        "a stale tab overwrites what another one did",
        "store/briefs.py",
        "    if row.version != version:",
        "    if row.version < version:",
        "tests/store",
    ),
    Fault(
        "a link goes on after its last day",
        "store/links.py",
        "row.ends_on < today",
        "row.ends_on > today",
        "tests/pages/test_handouts.py",
    ),
    Fault(
        "a removed lock: two threads compute the same thing",
        "cache/cache.py",
        "if running is None or running.owner == get_ident():",
        "if True:",
        "tests/cache",
    ),
    Fault(
        "writing does not take the lock at once",
        "store/database.py",
        'connection.exec_driver_sql("BEGIN IMMEDIATE")',
        'connection.exec_driver_sql("BEGIN")',
        "tests/store",
    ),
    Fault(
        "a removed escape: pages write markup as it was typed",
        "shell/pages.py",
        "autoescape=True",
        "autoescape=False",
        "tests/pages/test_pages.py",
    ),
    Fault(
        "a missing header: no policy for scripts",
        "shell/error_pages.py",
        '"content-security-policy"',
        '"x-content-policy"',
        "tests/pages/test_hardened.py",
    ),
    Fault(
        "changes are taken from pages elsewhere",
        "shell/security.py",
        'return origin is None or urlsplit(origin).netloc == headers.get("host")',
        "return True or origin is None",
        "tests/pages/test_hardened.py",
    ),
    Fault(
        "a session counts without its signature",
        "shell/access.py",
        "if not hmac.compare_digest(self._signed(begun).encode(), signature.encode()):",
        "if not signature:",
        "tests/pages/test_hardened.py",
    ),
    Fault(
        "an owned part is paid for",
        "places/assessment/assess.py",
        "return 0 if self.owned or self.outside or self.offer is None",
        "return 0 if self.outside or self.offer is None",
        "tests/places/test_resale.py",
    ),
)


def main() -> int:
    wanted = sys.argv[1:]
    missed = []
    for fault in FAULTS:
        if wanted and not any(word in fault.name for word in wanted):
            continue
        by = caught_by(fault)
        print(f"{'caught' if by else 'MISSED'}: {fault.name}{f' ({by})' if by else ''}", flush=True)
        if not by:
            missed.append(fault.name)
    print(f"{len(missed)} missed of {len(FAULTS)}: {', '.join(missed) or 'none'}")
    return bool(missed)


def caught_by(fault: Fault) -> str:
    """The first test that fails, or an empty word."""
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder)
        for name in TREES:
            shutil.copytree(ROOT / name, copy / name, ignore=shutil.ignore_patterns("node_modules"))
        for name in FILES:
            shutil.copy(ROOT / name, copy / name)
        put_in(copy / "src" / "wattmetron" / fault.file, fault)
        return failing(copy, fault.near) or failing(copy, "tests")


def put_in(path: Path, fault: Fault) -> None:
    text = path.read_text()
    if text.count(fault.old) != 1:
        raise SystemExit(
            f"{fault.name}: its words stand {text.count(fault.old)} times in {path.name}"
        )
    path.write_text(text.replace(fault.old, fault.new))


def failing(copy: Path, tests: str) -> str:
    """The first test below ``tests`` that fails in this tree."""
    done = subprocess.run(
        [sys.executable, "-m", "pytest", *PYTEST, tests],
        cwd=copy,
        env={**os.environ, "PYTHONPATH": str(copy / "src")},
        capture_output=True,
        text=True,
    )
    if done.returncode in (DONE, NO_TESTS):
        return ""
    failed = [line for line in done.stdout.splitlines() if line.startswith(("FAILED", "ERROR"))]
    return failed[0].split(" - ")[0] if failed else done.stdout.strip().splitlines()[-1]


if __name__ == "__main__":
    sys.exit(main())
