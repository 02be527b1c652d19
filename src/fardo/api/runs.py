"""Long work that goes on while a page looks on: one search for an arrangement is a run."""

from __future__ import annotations

import asyncio
import secrets
import threading
from collections import OrderedDict
from collections.abc import AsyncIterator, Callable

from pydantic import BaseModel

_KEPT = 24  # runs that can be asked for
_LOOKS_UP_S = 15  # so that a thread does not wait for ever for a page that is gone


class Run:
    """What a run came to so far. It is written by the thread that works and read by whoever listens."""

    def __init__(self) -> None:
        self.key = secrets.token_urlsafe(9)
        self.stop = threading.Event()
        self.view: BaseModel | None = None
        self.ended = False
        self._changed = 0
        self._lock = threading.Condition()

    def tell(self, view: BaseModel, ended: bool = False) -> None:
        with self._lock:
            self.view, self.ended = view, ended
            self._changed += 1
            self._lock.notify_all()

    def _wait(self, seen: int) -> tuple[int, BaseModel | None, bool]:
        with self._lock:
            self._lock.wait_for(lambda: self._changed > seen, timeout=_LOOKS_UP_S)
            return self._changed, self.view, self.ended

    async def listen(self) -> AsyncIterator[None]:
        """Comes at every change, once where there were several, until it ends: then `view` is the newest."""
        seen = 0
        while True:
            changed, view, ended = await asyncio.to_thread(self._wait, seen)
            if view is not None and changed > seen:
                yield
                if ended:
                    return
            seen = changed


class Runs:
    """The runs of one shop. Only the newest few are remembered; one that drops out is stopped."""

    def __init__(self) -> None:
        self._runs: OrderedDict[str, Run] = OrderedDict()
        self._lock = threading.Lock()

    def begin(self, work: Callable[[Run], None]) -> Run:
        run = Run()
        with self._lock:
            self._runs[run.key] = run
            dropped = [self._runs.popitem(last=False)[1] for _ in range(len(self._runs) - _KEPT)]
        for old in dropped:
            old.stop.set()
        threading.Thread(target=work, args=(run,), daemon=True).start()
        return run

    def find(self, key: str) -> Run | None:
        with self._lock:
            return self._runs.get(key)

    def stop_all(self) -> None:
        with self._lock:
            for run in self._runs.values():
                run.stop.set()
