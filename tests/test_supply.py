"""What is installed and shipped is pinned, hashed, and told."""

import re
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent


@pytest.mark.parametrize("name", ["requirements.lock", "requirements-dev.lock"])
def test_every_locked_package_has_its_hashes_and_no_host(name):
    text = (ROOT / name).read_text()
    pinned = re.split(r"\n(?=[a-z])", text.strip())
    assert len(pinned) > 20
    assert all(re.match(r"[\w.-]+==\S+", entry) and "--hash=sha256:" in entry for entry in pinned)
    assert "://" not in text and "--index" not in text


def test_the_build_tool_is_pinned_and_locked():
    (tool,) = re.findall(r'^requires = \["(.+)"\]', (ROOT / "pyproject.toml").read_text(), re.M)
    assert tool + " " in (ROOT / "requirements.lock").read_text()


def test_licences_and_bill_of_materials_are_those_of_the_lock_files():
    audit = [sys.executable, str(ROOT / "tools" / "audit.py"), "--check"]
    done = subprocess.run(audit, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stdout + done.stderr
