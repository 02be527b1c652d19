"""Work in processes of its own: at low priority, within limits of time and memory, and never outliving the shop.

A crew is a few processes that wait for work. One that takes longer than it may, or dies, is replaced by another; who
asked is told. When the process that made a crew ends, however it ends, its processes end too: they watch for that.

See docs/architecture.md for why no pool from the registries serves here.
"""

from __future__ import annotations

import os
import pickle
import queue
import resource
import threading
import time
import traceback
from collections.abc import Callable, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from importlib import import_module
from multiprocessing import connection, get_context, parent_process
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from typing import Any, ParamSpec, TypeVar

from fardo.core.refusal import BadInput, NoAnswer

P = ParamSpec("P")
T = TypeVar("T")
_BEGINS_WITHIN_S = 120.0
_AT_MOST_WAITED = 30  # times what work may take: how long is waited for it on a busy machine


class TookTooLong(Exception):
    """The work was not done in the time it may take, and was ended."""


class TookTooMuch(Exception):
    """The work wanted more memory than it may have."""


class WorkFailed(Exception):
    """The work ended with a fault of its own; where it did stands in the text."""


class CrewEnded(Exception):
    """The process that did the work is gone, or the crew was closed."""


def _nothing() -> None:
    return None


def load_modules(names: Sequence[str]) -> None:
    """Loads what a process will need, so that who asks first does not wait for it."""
    for name in names:
        import_module(name)


class Crew:
    """Some processes that do what they are asked, each one thing at a time. They are begun when first asked for.

    What is asked changes nothing outside its process, so that it can be asked again where a process is gone.

    Args:
        count: how many.
        ready: called in each when it begins, to load what it will need; a module's own function.
        nice: how much lower their priority is than the shop's, 0 to 19.
        memory: bytes that work may take beyond what a process has when it begins; None for no limit.
    """

    def __init__(
        self, count: int, ready: Callable[[], None] = _nothing, *, nice: int = 0, memory: int | None = None
    ) -> None:
        self._how = (ready, nice, memory)
        self._count = count
        self._guard = threading.Lock()
        self._idle: queue.SimpleQueue[_Member] = queue.SimpleQueue()
        self._members: list[_Member] = []
        self._threads: ThreadPoolExecutor | None = None
        self._closed = False

    def run(self, function: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
        """The function's value, worked out by whichever process is free first; waits for one."""
        return self.run_within(None, function, *args, **kwargs)

    def run_within(self, seconds: float | None, function: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
        """The same within so many seconds of a processor, counted from when a process begins with it.

        Raises:
            BadInput, NoAnswer: as the function raises them.
            TookTooLong, TookTooMuch: where it goes beyond its limits.
            WorkFailed: where it ends with another exception.
            CrewEnded: where its process is gone.
        """
        self.begin()
        member = self._idle.get()
        try:
            try:
                return member.ask(seconds, function, args, kwargs)  # type: ignore[no-any-return]
            except CrewEnded:
                # Somebody ended its process, before or while it worked: all that is asked can be asked again.
                return member.ask(seconds, function, args, kwargs)  # type: ignore[no-any-return]
        finally:
            self._idle.put(member)

    def submit(self, function: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> Future[T]:
        """The same, not waited for."""
        self.begin()
        with self._guard:
            if self._closed or self._threads is None:
                raise CrewEnded("the crew is closed")
            try:
                return self._threads.submit(lambda: self.run(function, *args, **kwargs))
            except RuntimeError as ended:  # the interpreter ends
                raise CrewEnded("the shop is being closed") from ended

    def begin(self) -> None:
        """Begins the processes, so that the first who asks need not wait for them."""
        with self._guard:
            if self._closed:
                raise CrewEnded("the crew is closed")
            if self._threads is not None:
                return
            self._threads = ThreadPoolExecutor(self._count)
            self._members = [_Member(*self._how) for _ in range(self._count)]
            for member in self._members:
                self._idle.put(member)

    def close(self) -> None:
        """Ends every process at once; whoever waits for one is told. Nothing can be asked after it."""
        with self._guard:
            self._closed = True
            threads, members = self._threads, self._members
        for member in members:
            member.end()
        if threads is not None:
            threads.shutdown(wait=True, cancel_futures=True)


class _Member:
    """One process and the line to it. Used by one thread at a time."""

    def __init__(self, ready: Callable[[], None], nice: int, memory: int | None) -> None:
        self._how = (ready, nice, memory)
        self._ended = False
        self._start()

    def _start(self) -> None:
        context = get_context("spawn")
        self._line, theirs = context.Pipe()
        self._process: BaseProcess = context.Process(target=_work, args=(theirs, *self._how), daemon=True)
        self._process.start()
        theirs.close()
        self._waits_for_it = True

    def ask(self, seconds: float | None, function: Callable[..., Any], args: Any, kwargs: Any) -> Any:
        if self._ended:
            raise CrewEnded("the crew is closed")
        if not self._process.is_alive():
            self._again()
        try:
            if self._waits_for_it:
                if not self._line.poll(_BEGINS_WITHIN_S):
                    raise EOFError
                self._line.recv()
                self._waits_for_it = False
            before = _worked(self._process)
            self._line.send((function, args, kwargs))
            if not self._answers(seconds, before):
                self._again()
                raise TookTooLong
            kind, value = self._line.recv()
        except (EOFError, OSError) as gone:
            self._again()
            raise CrewEnded("the process that worked on it is gone") from gone
        if kind == "done":
            return value
        if kind == "bad input":
            why, read, allowed, field = value
            raise BadInput(why, read=read, allowed=allowed, field=field)
        if kind == "no answer":
            raise NoAnswer(value)
        if kind == "memory":
            self._again()  # what a process that ran out of memory still holds is nobody's to say
            raise TookTooMuch
        raise WorkFailed(value)

    def _answers(self, seconds: float | None, before: float) -> bool:
        """Whether it answers in the time it may take: that of its own work, as a busy machine is no fault of a file."""
        if seconds is None:
            return self._line.poll(None)
        given_up = time.monotonic() + seconds * _AT_MOST_WAITED
        rest = seconds
        while not self._line.poll(rest):
            rest = seconds - (_worked(self._process) - before)
            if rest <= 0 or time.monotonic() >= given_up:
                return False
            rest = max(rest, 0.02)
        return True

    def end(self) -> None:
        self._ended = True
        self._process.kill()
        self._process.join()

    def _again(self) -> None:
        self._process.kill()
        self._process.join()
        self._line.close()
        if not self._ended:
            self._start()


def _work(line: Connection, ready: Callable[[], None], nice: int, memory: int | None) -> None:
    """What a process does all its life."""
    threading.Thread(target=_end_with_parent, daemon=True).start()
    os.nice(nice)
    ready()
    if memory is not None:
        most = _address_space() + memory
        resource.setrlimit(resource.RLIMIT_AS, (most, most))
    try:
        line.send(None)
        while True:
            line.send(_answer(line.recv_bytes()))
    except (EOFError, OSError, KeyboardInterrupt):
        os._exit(0)


def _answer(asked: bytes) -> tuple[str, Any]:
    try:
        function, args, kwargs = pickle.loads(asked)
        return "done", function(*args, **kwargs)
    except BadInput as error:
        return "bad input", (error.why, error.read, error.allowed, error.field)
    except NoAnswer as error:
        return "no answer", str(error)
    except MemoryError:
        return "memory", None
    except Exception:  # whatever it is, who asked is told
        return "fault", traceback.format_exc()


def _end_with_parent() -> None:
    """Ends this process when the one that made it is gone: a killed parent closes no line by itself."""
    parent = parent_process()
    if parent is not None:
        connection.wait([parent.sentinel])
        os._exit(0)


def _worked(process: BaseProcess) -> float:
    """Seconds of a processor that a process has had; by the clock on the wall where the system does not tell."""
    try:
        # The clock of a process by its number, as clock_getcpuclockid(3) makes it on Linux.
        return time.clock_gettime((~(process.pid or 0) << 3) | 2)
    except (AttributeError, OSError, OverflowError):
        return time.monotonic()


def _address_space() -> int:
    """Bytes of address space that this process has."""
    try:
        with open("/proc/self/statm") as told:
            return int(told.read().split()[0]) * resource.getpagesize()
    except OSError:  # a system without it
        return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024
