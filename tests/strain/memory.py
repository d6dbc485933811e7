"""What stays in memory: after three hundred mixed requests, after a hundred questions of *Balance*
that nobody asked before, and after forty tabs that wait and go away.

Memory is that of all processes, what they share counted once.
"""

import http.client
import json
import random
import sys
import tempfile
import threading
import time
from pathlib import Path

import psutil

from tests.strain.load import Server, User, together

REQUESTS, QUESTIONS, TABS = 300, 100, 40
SETTLES_S = 3.0
GONE_S = 20.0
"""So long after its tabs are gone the application may still work at what it had begun."""
MOST_GROWN_MB = 96 * 3 + 64
"""Three keepers of 96 MB each, for the process that serves and for the workers, and slack."""


def change_budget(user: User, budget: int) -> None:
    """Another budget for the first brief: everything has to be asked anew."""
    version = json.loads(user.ask("GET", "/api/v1/briefs/1"))["version"]
    form = f"version={version}&view=brief&budget_high={budget}"
    user.ask("POST", "/briefs/1/edit", form, "application/x-www-form-urlencoded")


def balance(user: User, turn: int) -> None:
    """A question of *Balance* until it is answered."""
    change_budget(user, 1300 + turn)
    for _ in range(600):
        if b'id="waiting"' not in user.ask("GET", "/briefs/1/balance"):
            return
        time.sleep(0.1)


def tab(port: int, turn: int) -> None:
    """A page that has to be worked out, looked for twice, and left."""
    path = f"/briefs/{turn % 8 + 1}/balance?trust={turn % 3}"
    for _ in range(2):
        connection = http.client.HTTPConnection("127.0.0.1", port, timeout=1)
        try:
            connection.request("GET", path, headers={"accept": "text/html"})
            connection.getresponse().read()
        except OSError:
            pass
        finally:
            connection.close()


def busy_share(server: Server, seconds: float) -> float:
    """Processor time of all processes in so many seconds, as a share of one core."""
    own = psutil.Process(server.process.pid)
    family = [own, *own.children(recursive=True)]
    before = sum(sum(one.cpu_times()[:2]) for one in family)
    time.sleep(seconds)
    return (sum(sum(one.cpu_times()[:2]) for one in family) - before) / seconds


def main() -> int:
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder))
        try:
            user = User(server.port, 5)
            user.ask("GET", "/briefs")
            marks = [("at the start", server.memory_mb())]
            user.rng = random.Random(5)
            for _ in range(REQUESTS):
                user.click()
            time.sleep(SETTLES_S)
            marks.append((f"after {REQUESTS} mixed requests", server.memory_mb()))
            for turn in range(QUESTIONS):
                balance(user, turn)
            time.sleep(SETTLES_S)
            marks.append((f"after {QUESTIONS} questions of Balance", server.memory_mb()))
            change_budget(user, 2345)
            together([lambda turn=turn: tab(server.port, turn) for turn in range(TABS)])
            threads = threading.active_count()
            time.sleep(GONE_S)
            share = busy_share(server, 2.0)
            marks.append((f"after {TABS} tabs that went away", server.memory_mb()))
        finally:
            server.stop()
    for words, amount in marks:
        print(f"{words}: {amount:.0f} MB")
    print(f"{share:.0%} of a core {GONE_S:g} s after the tabs were gone; {threads} threads here")
    print("\n".join(sorted(set(user.errors))[:10]))
    grown = marks[-1][1] - marks[0][1]
    print(f"grown by {grown:.0f} MB, {MOST_GROWN_MB} at most")
    return 1 if user.errors or grown > MOST_GROWN_MB else 0


if __name__ == "__main__":
    sys.exit(main())
