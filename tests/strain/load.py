"""Fifty users with thought between their clicks, and a simple page beside fifty cold proposals.

Times are printed with their ratios and never asserted in the suite; run it on a quiet machine.
"""

import argparse
import html
import http.client
import json
import random
import re
import socket
import subprocess
import sys
import tempfile
import threading
import time
from pathlib import Path
from urllib.parse import urlencode

import psutil

THINK_S, USERS, LASTS_S = 3.0, 50, 120.0
PAGE_P50_S, PAGE_P95_S, BESIDE_RATIO = 0.05, 0.3, 2.0
LOOKS_S, MOST_LOOKS = 0.7, 200
"""How often a browser looks for the rest of a page, and after how many looks it gives up."""
REST = re.compile(r'id="rest-\d+".*?hx-get="([^"]+)"', re.DOTALL)
SIMPLE = "/briefs/1/frames"
CLICKS = [
    *["/briefs", "/briefs/{b}/brief", "/briefs/{b}/frames", "/briefs/{b}/fit"] * 3,
    "/briefs/{b}/balance",
    "/briefs/{b}/frames?propose=most",
    "/briefs/{b}/frames?swap=graphics",
    "/briefs/{b}/frames?swap=processor",
    "/parts?kind=graphics",
    "/parts?kind=processor",
    "/games",
    "change",
]


def percentile(values: list[float], share: int) -> float:
    return sorted(values)[max(0, -(-len(values) * share // 100) - 1)]


class Server:
    """The application in a process of its own over demo data."""

    def __init__(
        self,
        folder: Path,
        stderr: int | None = None,
        database: Path | None = None,
        compute: str = "",
    ) -> None:
        path = database or folder / "load.sqlite"
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.process = subprocess.Popen(
            [
                sys.executable,
                "-m",
                "wattmetron.cli",
                "demo",
                "--port",
                str(self.port),
                "--database",
                str(path),
                "--compute",
                compute,
            ],
            stdout=subprocess.PIPE,
            stderr=stderr,
            text=True,
        )
        assert self.process.stdout is not None
        assert "runs at" in self.process.stdout.readline()

    def memory_mb(self) -> float:
        """Of all its processes, what they share counted once."""
        return sum(self.memory_by_process_mb())

    def memory_by_process_mb(self) -> list[float]:
        """Of the one that serves, then of those it started."""
        server = psutil.Process(self.process.pid)
        processes = (server, *server.children(recursive=True))
        return [process.memory_full_info().pss / 1e6 for process in processes]

    def stop(self) -> None:
        self.process.terminate()
        self.process.wait(timeout=20)


class User:
    """One browser: a connection, and what its requests took."""

    def __init__(self, port: int, seed: int) -> None:
        self.port, self.rng = port, random.Random(seed)
        self.connection = http.client.HTTPConnection("127.0.0.1", port, timeout=120)
        self.took: list[tuple[float, str]] = []
        self.later: list[float] = []
        self.whole: list[float] = []
        self.errors: list[str] = []

    def ask(
        self, method: str, path: str, body: str | None = None, kind: str = "", **headers: str
    ) -> bytes:
        headers |= {"content-type": kind} if kind else {}
        start = time.perf_counter()
        try:
            self.connection.request(method, path, body, headers)
            answer = self.connection.getresponse()
            data = answer.read()
            if answer.status >= 400 and answer.status != 409:
                self.errors.append(f"{method} {path}: {answer.status}")
        except (OSError, http.client.HTTPException) as error:
            self.errors.append(f"{method} {path}: {error!r}")
            self.connection.close()
            return b""
        self.took.append((time.perf_counter() - start, path))
        if time.monotonic() > self.warm_at:
            self.later.append(self.took[-1][0])
        return data

    def click(self) -> None:
        brief_id = self.rng.randrange(1, 9)
        path = self.rng.choice(CLICKS)
        if path != "change":
            self.look_at(path.format(b=brief_id))
            return
        version = json.loads(self.ask("GET", f"/api/v1/briefs/{brief_id}"))["version"]
        name, value = self.rng.choice([("notes", "n"), ("refresh_hz", "1")])
        form = {"version": version, "view": "brief", name: f"{value}{self.rng.randrange(100):02}"}
        url = f"/briefs/{brief_id}/edit"
        self.ask("POST", url, urlencode(form), "application/x-www-form-urlencoded")

    def look_at(self, path: str) -> None:
        """As a browser does: what is known comes at once, the rest is looked for until it is there
        or the user goes on.
        """
        start, until = time.perf_counter(), time.perf_counter() + self.rng.expovariate(1 / THINK_S)
        shown = self.ask("GET", path, **{"sec-fetch-mode": "navigate"}).decode()
        for _ in range(MOST_LOOKS):
            rest = REST.search(shown)
            if rest is None:
                self.whole.append(time.perf_counter() - start)
                return
            if time.perf_counter() > until:
                return
            time.sleep(LOOKS_S)
            came = self.ask("GET", html.unescape(rest[1]), **{"hx-request": "true"}).decode()
            shown = shown if 'id="desk"' not in came else came

    warm_at = float("inf")

    def use(self, until: float, warm_at: float) -> None:
        self.warm_at = warm_at
        time.sleep(self.rng.random() * THINK_S)
        while time.monotonic() < until:
            thinks_until = time.monotonic() + self.rng.expovariate(1 / THINK_S)
            self.click()
            time.sleep(max(0.0, thinks_until - time.monotonic()))


def together(jobs) -> None:
    threads = [threading.Thread(target=job) for job in jobs]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()


def idle_and_beside(server: Server) -> tuple[list[float], list[float]]:
    """What a simple page takes alone, and while fifty proposals that nobody asked before run."""
    user = User(server.port, 0)
    user.ask("GET", SIMPLE)
    user.took.clear()
    for _ in range(60):
        user.ask("GET", SIMPLE)
    idle = [took for took, _ in user.took]
    user.took.clear()
    stored = json.loads(user.ask("GET", "/api/v1/briefs/1"))
    done = threading.Event()

    def propose(turn: int) -> None:
        brief = json.loads(json.dumps(stored["brief"]))
        brief["budget"]["high"] = f"{1500 + turn}.00"
        User(server.port, turn).ask(
            "POST", "/api/v1/propose", json.dumps({"brief": brief}), "application/json"
        )

    def look() -> None:
        time.sleep(0.2)
        user.took.clear()
        while not done.is_set():
            user.ask("GET", SIMPLE)
            time.sleep(0.05)

    looking = threading.Thread(target=look)
    looking.start()
    together([lambda turn=turn: propose(turn) for turn in range(50)])
    done.set()
    looking.join()
    return idle, [took for took, _ in user.took]


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seconds", type=float, default=LASTS_S)
    parser.add_argument("--users", type=int, default=USERS)
    options = parser.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder))
        try:
            idle, beside = idle_and_beside(server)
            ratio = percentile(beside, 95) / percentile(idle, 95)
            print(
                f"a simple page: p95 {1000 * percentile(idle, 95):.0f} ms alone,"
                f" {1000 * percentile(beside, 95):.0f} ms beside 50 cold proposals"
                f" ({len(beside)} asked): {ratio:.1f} times, aim under {BESIDE_RATIO:g}"
            )
            users = [User(server.port, seed) for seed in range(options.users)]
            before, until = server.memory_mb(), time.monotonic() + options.seconds
            halves: list[float] = []
            watch = threading.Timer(options.seconds / 2, lambda: halves.append(server.memory_mb()))
            watch.start()
            warm_at = until - options.seconds / 2
            together([lambda user=user: user.use(until, warm_at) for user in users])
            by_process = server.memory_by_process_mb()
            after = sum(by_process)
        finally:
            server.stop()
    errors = [error for user in users for error in user.errors]
    took = [took for user in users for took, _ in user.took]
    later = [took for user in users for took in user.later]
    slowest: dict[str, list[float]] = {}
    for user in users:
        for seconds, path in user.took:
            slowest.setdefault("".join(c for c in path if not c.isdigit()), []).append(seconds)
    for path, times in sorted(slowest.items(), key=lambda item: -sum(item[1]))[:12]:
        middle, late = (1000 * percentile(times, share) for share in (50, 95))
        print(f"  {path}: p50 {middle:.0f} ms, p95 {late:.0f} ms of {len(times)}")
    print("\n".join(sorted(set(errors))[:10]))
    for words, times in (("from the start", took), ("in the second half", later)):
        print(
            f"{options.users} users, {len(times)} requests {words} of {options.seconds:g} s: p50"
            f" {1000 * percentile(times, 50):.0f} ms (aim under {1000 * PAGE_P50_S:g}), p95"
            f" {1000 * percentile(times, 95):.0f} ms (aim under {1000 * PAGE_P95_S:g})"
        )
    whole = [took for user in users for took in user.whole]
    print(
        f"{len(whole)} pages became whole while they were looked at: p50"
        f" {1000 * percentile(whole, 50):.0f} ms, p95 {1000 * percentile(whole, 95):.0f} ms"
    )
    print(
        f"{len(errors)} errors; memory of all processes {before:.0f} MB before,"
        f" {halves[0]:.0f} in the middle, {after:.0f} after"
        f" ({', '.join(f'{share:.0f}' for share in by_process)} by process)"
    )
    return 1 if errors else 0


if __name__ == "__main__":
    sys.exit(main())
