"""Wherever answers are worked out they are the same, and what is lost there is not lost here."""

import asyncio
import logging
import os
import signal
import socket
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress

import psutil
import pytest

from tests import small
from tests.extent import extent, thorough
from wattmetron.cache import answering, engines
from wattmetron.cache.answering import NotSentError
from wattmetron.cache.catalogue_cache import studied
from wattmetron.cache.engines import Cluster, InPlace, Processes
from wattmetron.cache.must_wait import Task
from wattmetron.cache.packing import pack, packed, unpack
from wattmetron.core.errors import BriefError, NotPossibleError
from wattmetron.core.keep import Computation
from wattmetron.core.values.build import Build
from wattmetron.formats.brief_file import read_brief
from wattmetron.formats.catalogue_folder import read_catalogue
from wattmetron.places.proposal.proposals import _answer
from wattmetron.shell import computation_queue
from wattmetron.shell.computation_queue import ComputationQueue
from wattmetron.store.stored_answers import LARGEST_BYTES, StoredAnswers

KINDS = ("in place", "processes", "cluster")
START_S = 30


class DaskHere:
    """A scheduler and two workers on this machine, started by Dask's own commands."""

    def __init__(self) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.address = f"tcp://127.0.0.1:{self.port}"
        self.started = []
        self.start()

    def start(self) -> None:
        here = ("--host", "127.0.0.1", "--no-dashboard")
        self.scheduler = self.run("scheduler", *here, "--port", str(self.port))
        threads = ("--nworkers", "2", "--nthreads", "1")
        self.workers = self.run("worker", self.address, *here, *threads)

    def run(self, *command: str) -> subprocess.Popen:
        dask = (sys.executable, "-m", "dask", *command)
        started = subprocess.Popen(dask, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        self.started.append(started)
        return started

    def processes(self) -> list[psutil.Process]:
        """Those that work, below the one that watches over them."""
        return [
            process
            for process in psutil.Process(self.workers.pid).children(recursive=True)
            if "spawn_main" in " ".join(process.cmdline())
        ]

    def stop(self) -> None:
        for process in self.started:
            with suppress(psutil.NoSuchProcess):
                for child in psutil.Process(process.pid).children(recursive=True):
                    child.kill()
            process.kill()
            process.wait()


@pytest.fixture(scope="module")
def catalogue():
    return studied(read_catalogue(small.CATALOGUE))


@pytest.fixture
def engine(request):
    dask = DaskHere() if request.param == "cluster" else None
    made = {"in place": lambda: InPlace(2), "processes": lambda: Processes(2)}.get(request.param)
    opened = made() if made else connected(dask)
    opened.dask = dask
    yield opened
    opened.close()
    if dask:
        dask.stop()


every_engine = pytest.mark.parametrize("engine", KINDS, indirect=True)
with_others = pytest.mark.parametrize("engine", KINDS[1:], indirect=True)
with_dask = pytest.mark.parametrize("engine", ["cluster"], indirect=True)


def connected(dask: DaskHere) -> Cluster:
    """As soon as its scheduler answers and both workers are there."""
    for _ in range(START_S):
        with suppress(NotPossibleError):
            cluster = Cluster(dask.address)
            cluster._client.wait_for_workers(2, timeout=START_S)
            return cluster
    raise AssertionError("no scheduler came")


def workers_of(engine) -> list[psutil.Process]:
    if engine.dask:
        return engine.dask.processes()
    return [psutil.Process(pid) for pid in engine._executor._processes]


async def answers(queue: ComputationQueue, tasks: list[Task], meanwhile=lambda: None) -> list:
    """What a queue brings to those that stay until it is there; errors as values."""
    several = [queue.enter(task) for task in tasks]
    for queued in several:
        queued.waiting += 1
    await asyncio.sleep(0.5)
    await asyncio.to_thread(meanwhile)
    for queued in several:
        await queued.ended.wait()
    return [queued.error or queued.value for queued in several]


def ask(queue, tasks, meanwhile=lambda: None):
    """In a thread of its own, for a browser of other tests may have its loop in this one."""
    with ThreadPoolExecutor(1) as apart:
        return apart.submit(asyncio.run, answers(queue, tasks, meanwhile)).result()


def slow(catalogue, number, pause_s):
    """Something that takes a while, and leaves a trace of who did it."""
    time.sleep(pause_s)
    return number, os.getpid()


def refused(catalogue):
    raise BriefError("No such game: name another.")


def broken(catalogue):
    raise ZeroDivisionError("a fault")


def dies(catalogue):
    os._exit(1)


def large(catalogue):
    return b"x" * (LARGEST_BYTES + 1)


def numbered(catalogue, count, pause_s=0.01):
    return [Task(Computation(slow, (number, pause_s)), catalogue) for number in range(count)]


@every_engine
def test_the_same_answers_wherever_they_are_worked_out(engine, catalogue):
    briefs = [
        read_brief(path.name, path.read_bytes())
        for path in sorted(small.BRIEFS.glob("*.brief.json"))[: extent(2, 9)]
    ]
    fresh = studied(catalogue.described)
    questions = [
        Computation(_answer, (brief, Build(), aim))
        for brief in briefs
        for aim in ("most frames", "least money")
    ]
    found = ask(ComputationQueue(engine), [Task(each, fresh) for each in questions])
    for question, answer in zip(questions, found, strict=True):
        assert repr(answer) == repr(question.function(catalogue, *question.arguments))
        assert fresh.keep.answer(question, fresh) is answer


@every_engine
def test_an_error_says_the_same_there_as_here(engine, catalogue):
    tasks = [Task(Computation(function), catalogue) for function in (refused, broken)]
    sentence, fault = ask(ComputationQueue(engine), tasks)
    assert isinstance(sentence, BriefError) and str(sentence) == "No such game: name another."
    assert isinstance(fault, ZeroDivisionError)


@with_others
def test_what_a_lost_worker_did_is_done_by_another(engine, catalogue):
    queue = ComputationQueue(engine)
    ask(queue, numbered(catalogue, 4))
    before = {process.pid for process in workers_of(engine)}

    def kill():
        for process in workers_of(engine):
            process.send_signal(signal.SIGKILL)

    tasks = [Task(Computation(slow, (number, 1.0)), catalogue) for number in range(10, 14)]
    found = ask(queue, tasks, kill)
    assert [number for number, _ in found] == [10, 11, 12, 13]
    assert not before & {pid for _, pid in found} and queue.engine is engine


@pytest.mark.parametrize("engine", ["processes"], indirect=True)
def test_a_question_that_ends_every_worker_is_given_up(engine, catalogue):
    queue = ComputationQueue(engine)
    (error,) = ask(queue, [Task(Computation(dies), catalogue)])
    assert isinstance(error, NotPossibleError) and "lost again and again" in str(error)
    assert [number for number, _ in ask(queue, numbered(catalogue, 3))] == [0, 1, 2]


@every_engine
def test_a_worker_that_never_answers_is_given_up_and_counted(engine, catalogue, monkeypatch):
    ask(queue := ComputationQueue(engine), numbered(catalogue, 2))
    monkeypatch.setattr(computation_queue, "LONGEST_S", 1.0)
    pause_s = 4.0 if engine.kind == "in place" else 30.0
    (error,) = ask(queue, [Task(Computation(slow, (99, pause_s)), catalogue)])
    assert isinstance(error, NotPossibleError) and "did not answer" in str(error)
    assert queue.unanswered == 1
    monkeypatch.undo()
    assert [number for number, _ in ask(queue, numbered(catalogue, 3, 0.02))] == [0, 1, 2]


@with_others
def test_a_catalogue_is_sent_to_a_worker_once(engine, catalogue, monkeypatch):
    sent = []
    submit = type(engine).submit
    monkeypatch.setattr(
        type(engine),
        "submit",
        lambda self, task, send: sent.append(send) or submit(self, task, send),
    )
    found = ask(ComputationQueue(engine), numbered(catalogue, 12, 0.05))
    assert len({pid for _, pid in found}) == 2
    assert sum(sent) <= 4 and len(sent) - sum(sent) == 12


def test_a_worker_says_what_it_was_not_sent(catalogue):
    question = pack(Computation(slow, (1, 0.0)), catalogue)
    code = answering.code_digest()
    with pytest.raises(NotSentError):
        answering.answer(code, "another", None, question)
    whole = packed(catalogue)
    assert unpack(answering.answer(code, whole.name, whole, question), catalogue)[0] == 1
    there = answering._catalogues[whole.name]
    assert unpack(answering.answer(code, whole.name, None, question), catalogue)[0] == 1
    answering.answer(code, whole.name, whole, question)
    assert answering._catalogues[whole.name] is there, "sent again it loses nothing"


@with_others
def test_a_worker_of_another_version_is_refused(engine, catalogue, monkeypatch, caplog):
    monkeypatch.setattr(engines, "code_digest", lambda: "another")
    queue = ComputationQueue(engine)
    assert [number for number, _ in ask(queue, numbered(catalogue, 3))] == [0, 1, 2]
    assert queue.engine.kind == "in place"
    (said,) = [record.getMessage() for record in caplog.records if record.name == "wattmetron"]
    assert said.startswith("A worker runs another version and was refused (Python 3.")


@with_dask
@thorough
def test_without_its_scheduler_this_machine_takes_over(engine, catalogue, caplog):
    caplog.set_level(logging.WARNING, "wattmetron")
    queue = ComputationQueue(engine)
    ask(queue, numbered(catalogue, 2))
    tasks = [Task(Computation(slow, (number, 1.5)), catalogue) for number in range(4, 8)]
    found = ask(queue, tasks, engine.dask.scheduler.kill)
    assert [number for number, _ in found] == [4, 5, 6, 7]
    assert queue.engine.kind == "in place"
    (said,) = [record.getMessage() for record in caplog.records if record.name == "wattmetron"]
    assert said.startswith(f"No scheduler answers at {engine.dask.address}: start it")


@with_dask
@thorough
def test_a_scheduler_that_comes_back_is_asked_again(engine, catalogue):
    queue = ComputationQueue(engine)
    ask(queue, numbered(catalogue, 2))

    def restart():
        engine.dask.stop()
        engine.dask.start()

    tasks = [Task(Computation(slow, (number, 1.5)), catalogue) for number in range(4, 8)]
    found = ask(queue, tasks, restart)
    assert [number for number, _ in found] == [4, 5, 6, 7] and queue.engine is engine


def test_a_scheduler_that_is_not_there_is_one_sentence():
    with pytest.raises(NotPossibleError, match=r"No scheduler answers at tcp://127\.0\.0\.1:9: "):
        Cluster("tcp://127.0.0.1:9")
    with pytest.raises(NotPossibleError, match="No scheduler answers at nowhere"):
        Cluster("nowhere at all")


def test_an_answer_too_large_to_be_stored_is_given_all_the_same(catalogue, tmp_path):
    store = StoredAnswers(tmp_path / "answers")
    fresh = studied(catalogue.described, store)
    (found,) = ask(ComputationQueue(InPlace(1)), [Task(Computation(large), fresh)])
    assert len(found) > LARGEST_BYTES
    assert fresh.keep._found(Computation(large), fresh) is None


class CountingStore:
    """Keeps nothing, and counts what it is given."""

    def __init__(self) -> None:
        self.given = []

    def get(self, key):
        return None

    def put(self, key, value):
        self.given.append(key)


def test_an_answer_is_stored_once(catalogue):
    store = CountingStore()
    fresh = studied(catalogue.described, store)
    ask(ComputationQueue(InPlace(1)), numbered(fresh, 3))
    assert len(store.given) == len(set(store.given)) == 3


def test_a_question_whose_catalogue_is_gone_is_answered_about_it(catalogue):
    """Of a catalogue that was replaced meanwhile: whoever asked gets the answer for theirs."""
    there = studied(catalogue.described)
    tasks = [Task(Computation(slow, (1, 0.3)), there)]
    del there
    assert ask(ComputationQueue(InPlace(1)), tasks)[0][0] == 1


def test_answers_are_found_by_other_processes_that_share_a_store(catalogue, tmp_path):
    path = tmp_path / "answers"
    first, second = (studied(catalogue.described, StoredAnswers(path)) for _ in range(2))
    question = Computation(slow, (1, 0.0))
    assert first.keep.answer(question, first) == second.keep.answer(question, second)
    processes = Processes(1, path)
    (found,) = ask(ComputationQueue(processes), [Task(Computation(slow, (2, 0.0)), first)])
    processes.close()
    assert second.keep._found(Computation(slow, (2, 0.0)), second) == (found,)
