"""Collecting the tests computes nothing: whoever runs one test does not wait for all the others."""

import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent
COLLECTS = """
    import sys, time
    import pytest
    import hypothesis, playwright.sync_api, scipy.stats, wattmetron.api.app
    imported_s = time.process_time()
    from wattmetron.formats import catalogue_folder
    from wattmetron.cache.cache import Keeper
    from tests.worlds import World

    def computes(*arguments, **more):
        raise AssertionError("computed while tests are collected")

    catalogue_folder.parse_catalogue = Keeper.once = World.catalogue = computes
    code = pytest.main(["--collect-only", "-q", "-p", "no:cacheprovider", "tests"])
    print("SPENT", imported_s, time.process_time())
    sys.exit(code)
"""
MOST_TIMES = 4
"""So many times what it takes to import the application and the libraries of the tests alone: less
than 10 s on the machines where that takes 2.5.
"""


def test_collecting_reads_no_catalogue_and_computes_nothing():
    script = "\n".join(line.removeprefix("    ") for line in COLLECTS.splitlines())
    done = subprocess.run(
        [sys.executable, "-c", script], cwd=ROOT, capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stdout[-2000:] + done.stderr[-2000:]
    spent = next(line for line in done.stdout.splitlines() if line.startswith("SPENT"))
    imported_s, collected_s = map(float, spent.split()[1:])
    assert collected_s < MOST_TIMES * imported_s


def test_what_is_run_by_hand_still_finds_what_it_imports():
    """Benchmarks, scores and strains are no tests: nothing else would tell that a name is gone."""
    names = [
        ".".join(path.relative_to(ROOT).with_suffix("").parts)
        for folder in ("bench", "accuracy", "defend", "strain")
        for path in sorted((ROOT / "tests" / folder).glob("[!_]*.py"))
    ]
    script = f"import importlib\nfor name in {names}: importlib.import_module(name)"
    done = subprocess.run(
        [sys.executable, "-c", script], cwd=ROOT, capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stderr[-2000:]
