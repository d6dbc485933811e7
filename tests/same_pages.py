"""Whether a change leaves all that is shown as it was: pages, fragments, API and files of the demo,
from the state of a revision and from the working tree, compared apart from whitespace.

    python -m tests.same_pages REVISION
"""

import argparse
import re
import socket
import subprocess
import sys
import tempfile
import urllib.error
import urllib.request
from collections import deque
from concurrent.futures import ThreadPoolExecutor
from html import unescape
from pathlib import Path

ROOT = Path(__file__).parent.parent
WANTED = 300
STARTS = [
    *(
        f"/briefs/{brief}/{view}"
        for brief in (1, 3, 6)
        for view in ("brief", "frames", "balance", "fit", "review", "compare", "handout", "buy")
    ),
    "/briefs/1/measured",
    "/briefs/1/frames?propose=most",
    "/briefs/2/frames?propose=least",
    "/briefs/4/fit?swap=graphics",
    "/briefs/1/frames?working=power",
    "/briefs/1/frames?working=money",
    "/briefs/1/assembly",
    "/briefs/1/steps",
    "/briefs/1/find?q=reef",
    "/briefs",
    "/games",
    "/parts",
    "/shops",
    "/measured",
    "/house",
    "/sets",
    "/rules",
    "/briefs/letter",
    "/shops/changes",
    "/shops/prices",
    "/parts?kind=graphics&brief=1&sort=worth",
    "/parts/new?kind=case",
    "/games/hollow-meridian?brief=1",
    "/games/new",
    "/api/v1/briefs",
    "/api/v1/briefs/1",
    "/api/v1/openapi.json",
    "/openapi.json",
    *(f"/briefs/1/handout/as/{form}" for form in ("txt", "md", "json", "csv", "html", "chat")),
    "/briefs/1/file/brief",
    "/briefs/1/file/build",
]
LINK = re.compile(r'(?:href|hx-get|src)="(/[^"#]*)"')
MOVING = [
    (re.compile(r"127\.0\.0\.1:\d+"), "HOST"),
    (re.compile(r"app\.(?:css|js)\?v=\w+"), "ASSET"),
    (re.compile(r"\s+"), ""),
]
"""What differs from start to start."""


def started(source: Path, folder: Path) -> tuple[subprocess.Popen[str], int]:
    """The application of a source tree, on a database of its own."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    process = subprocess.Popen(
        [
            *(sys.executable, "-m", "wattmetron.cli", "demo", "--port", str(port)),
            *("--database", str(folder / "demo.sqlite")),
        ],
        env={"PYTHONPATH": str(source / "src"), "PATH": "/usr/bin:/bin", "HOME": str(folder)},
        cwd=folder,
        stdout=subprocess.PIPE,
        text=True,
    )
    assert process.stdout is not None
    if "runs at" not in process.stdout.readline():
        raise SystemExit(f"{source} does not start")
    return process, port


def answer(port: int, path: str) -> tuple[int, str]:
    """Status and text of an answer, without what differs from start to start."""
    request = urllib.request.Request(f"http://127.0.0.1:{port}{path}")
    try:
        with urllib.request.urlopen(request, timeout=180) as response:
            status, data = response.status, response.read()
    except urllib.error.HTTPError as error:
        status, data = error.code, error.read()
    text = data.decode("utf-8", "backslashreplace")
    for pattern, word in MOVING:
        text = pattern.sub(word, text)
    return status, text


def links_in(port: int, path: str) -> list[str]:
    """Addresses that a page links to, each kind of address a few times."""
    request = urllib.request.Request(f"http://127.0.0.1:{port}{path}")
    try:
        with urllib.request.urlopen(request, timeout=180) as response:
            if "html" not in response.headers.get("content-type", ""):
                return []
            return [unescape(link) for link in LINK.findall(response.read().decode())]
    except urllib.error.HTTPError:
        return []


def addresses(port: int) -> list[str]:
    """So many addresses of the application: where one begins, and what is linked from there."""
    found = dict.fromkeys(STARTS)
    shapes: dict[str, int] = {}
    queue = deque(STARTS)
    while queue and len(found) < WANTED:
        for link in links_in(port, queue.popleft()):
            shape = re.sub(r"[0-9]+|=[^&]*", "", link)
            shapes[shape] = shapes.get(shape, 0) + 1
            if link not in found and shapes[shape] <= 6 and not link.startswith("/static/icons"):
                found[link] = None
                queue.append(link)
    return [*found][:WANTED]


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("revision")
    options = parser.parse_args()
    with tempfile.TemporaryDirectory() as scratch:
        before = Path(scratch) / "before"
        subprocess.run(
            ["git", "worktree", "add", "--detach", "-f", before, options.revision],
            cwd=ROOT,
            check=True,
            capture_output=True,
        )
        running = []
        try:
            for name, source in (("old", before), ("new", ROOT)):
                folder = Path(scratch) / name
                folder.mkdir()
                running.append(started(source, folder))
            (_, old_port), (_, new_port) = running
            asked = addresses(old_port)
            with ThreadPoolExecutor(2) as pool:
                old, new = pool.map(
                    lambda port: [answer(port, path) for path in asked], (old_port, new_port)
                )
        finally:
            for process, _ in running:
                process.terminate()
            subprocess.run(
                ["git", "worktree", "remove", "--force", before], cwd=ROOT, capture_output=True
            )
    differing = [
        (path, *pair) for path, *pair in zip(asked, old, new, strict=True) if pair[0] != pair[1]
    ]
    for path, (old_status, old_text), (new_status, new_text) in differing:
        print(f"{path}: {old_status}, {new_status}")
        at = next(
            (n for n, (a, b) in enumerate(zip(old_text, new_text, strict=False)) if a != b),
            min(len(old_text), len(new_text)),
        )
        print(
            f"  - {old_text[max(0, at - 60) : at + 60]}\n  + {new_text[max(0, at - 60) : at + 60]}"
        )
    served = sum(status == 200 for status, _ in old)
    print(f"{len(asked)} addresses, {served} of them found; {len(differing)} differ.")
    return 1 if differing else 0


if __name__ == "__main__":
    sys.exit(main())
