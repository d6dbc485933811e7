"""What is installed and shipped is pinned, hashed, and told."""

import re
import subprocess
import sys
import tomllib
from pathlib import Path

import pytest
from packaging.requirements import Requirement

ROOT = Path(__file__).parent.parent


@pytest.mark.parametrize(
    "name", ["requirements.lock", "requirements-dev.lock", "requirements-build.lock"]
)
def test_every_locked_package_has_its_hashes_and_no_host(name):
    text = (ROOT / name).read_text()
    pinned = re.split(r"\n(?=[a-z])", text.strip())
    assert len(pinned) > (0 if "build" in name else 20)
    assert all(re.match(r"[\w.-]+==\S+", entry) and "--hash=sha256:" in entry for entry in pinned)
    assert "://" not in text and "--index" not in text


def test_what_builds_is_locked_apart_from_what_runs():
    (tool,) = re.findall(r'^requires = \["(\w+)', (ROOT / "pyproject.toml").read_text(), re.M)
    assert f"{tool}==" in (ROOT / "requirements-build.lock").read_text()
    assert f"{tool}==" not in (ROOT / "requirements.lock").read_text()


def test_versions_are_ranges_and_what_is_locked_lies_within():
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    wanted = project["dependencies"] + project["optional-dependencies"]["dev"]
    locked = dict(
        re.findall(r"^([\w.-]+)==([^\s;\\]+)", (ROOT / "requirements-dev.lock").read_text(), re.M)
    )
    for requirement in map(Requirement, wanted):
        assert "==" not in str(requirement.specifier), requirement
        assert requirement.specifier.contains(locked[requirement.name.lower()]), requirement


def test_licences_and_bill_of_materials_are_those_of_the_lock_files():
    audit = [sys.executable, str(ROOT / "tools" / "audit.py"), "--check"]
    done = subprocess.run(audit, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stdout + done.stderr
