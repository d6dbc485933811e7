"""A refresh under way beside what else is done: one at a time, with how far it is."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from threading import Event, Lock, Thread

from wattmetron.core.errors import NotPossibleError, WattmetronError
from wattmetron.places.shops.feeds import FeedOutcome, feeds, refresh
from wattmetron.workshop.workshop import Workshop

STOPPED = "Stopped: shops that had not answered keep their prices."


@dataclass(frozen=True, slots=True)
class State:
    """How far a refresh is: how many feeds of how many, what became of each, what went wrong as a
    whole; ``running``: it has not ended.
    """

    running: bool = False
    of: int = 0
    outcomes: tuple[FeedOutcome, ...] = ()
    wrong: str = ""


class Refresher:
    """Runs one refresh at a time in a thread; thread-safe."""

    def __init__(self, work: Callable[..., object] = refresh) -> None:
        self._work, self._lock, self._stop = work, Lock(), Event()
        self._state = State()

    @property
    def state(self) -> State:
        with self._lock:
            return self._state

    def start(self, workshop: Workshop, today: date) -> Thread:
        """Begin; raises NotPossibleError while one is under way."""
        count = len(feeds(workshop))
        with self._lock:
            if self._state.running:
                raise NotPossibleError("A refresh is under way already: wait for its end.")
            self._state = State(running=True, of=count)
            self._stop = stop = Event()
        thread = Thread(target=self._run, args=(workshop, today, stop), daemon=True)
        thread.start()
        return thread

    def stop(self) -> None:
        """End it: what came so far is brought in, what was not asked stays as it is."""
        self._stop.set()

    def _run(self, workshop: Workshop, today: date, stop: Event) -> None:
        wrong = ""
        try:
            self._work(workshop, today, self._told, stop)
            if stop.is_set():
                wrong = STOPPED
        except WattmetronError as error:
            wrong = str(error)
        except Exception:
            wrong = "Something went wrong, and no price was changed: try it again."
            raise
        finally:
            with self._lock:
                now = self._state
                self._state = State(False, now.of, now.outcomes, wrong)

    def _told(self, outcome: FeedOutcome) -> None:
        with self._lock:
            now = self._state
            self._state = State(True, now.of, (*now.outcomes, outcome))
