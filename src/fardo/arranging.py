"""The arranging engine at work on both cores, in processes of their own, so that nothing else waits for it.

How much is searched is said in rounds, not in seconds: the same ask with the same seed and effort gives the same answer
on a slow machine as on a fast one. Two searches run side by side, whether there are two cores or not.
"""

from __future__ import annotations

import os
import threading
from collections.abc import Callable
from concurrent.futures import FIRST_COMPLETED, Future, wait
from dataclasses import dataclass
from typing import Literal

from fardo.core.arrange.ask import Answer, Ask
from fardo.core.arrange.boxes import boxes_only
from fardo.core.arrange.cannot import Cannot, cannot
from fardo.core.arrange.search import State, improve, merge
from fardo.core.quantity import show_length
from fardo.core.quantity.show import Units
from fardo.core.refusal import NoAnswer
from fardo.processes import Crew

Effort = Literal["quick", "normal", "long"]
CHAINS = 2
_ROUNDS: dict[Effort, int] = {"quick": 3, "normal": 36, "long": 150}
_BOX_ROUNDS: dict[Effort, int] = {"quick": 2, "normal": 12, "long": 60}
_SEVERAL = 15
SEARCH_NICE = 10
_AT_ONCE = 3  # rounds before a worker tells how far it is


@dataclass(frozen=True, slots=True)
class Progress:
    """
    Args:
        done, of: rounds of all searches. answers: the best so far, one for each proportion, the best first.
    """

    done: int
    of: int
    answers: tuple[Answer, ...]


class Workers:
    """Processes that search, at low priority: whoever types goes first. Begun when first asked for."""

    def __init__(self, count: int = CHAINS) -> None:
        self._guard = threading.Lock()
        self._count = count
        self._crew: Crew | None = None

    def crew(self) -> Crew:
        with self._guard:
            if self._crew is None:
                # One thread each: the searches share the cores among them.
                for name in ("OMP_NUM_THREADS", "OPENBLAS_NUM_THREADS"):
                    os.environ.setdefault(name, "1")
                self._crew = Crew(self._count, _ready, nice=SEARCH_NICE)
            return self._crew

    def warm(self) -> None:
        """Begins the processes, so that the first search does not wait for them."""
        self.crew().begin()

    def close(self) -> None:
        """Ends a search that is going on, and the processes."""
        with self._guard:
            crew, self._crew = self._crew, None
        if crew is not None:
            crew.close()

    def arrange(
        self,
        ask: Ask,
        effort: Effort = "normal",
        told: Callable[[Progress], None] | None = None,
        stop: threading.Event | None = None,
    ) -> tuple[Answer, ...]:
        """The best for each proportion, the best first; none where nothing was found, or it was stopped before.

        Args:
            told: called with every step forward. stop: set to end it with the best so far.
        """
        return _search(self.crew(), ask, effort, told, stop)


def _ready() -> None:
    """Loads what a search needs."""
    import scipy.fft
    import scipy.optimize  # noqa: F401
    from ortools.sat.python import cp_model  # noqa: F401


def rounds_of(ask: Ask, effort: Effort) -> int:
    """Fewer where there are many things, as each round takes longer."""
    if boxes_only(ask.bodies):
        return _BOX_ROUNDS[effort]
    return max(3, round(_ROUNDS[effort] * min(1.0, _SEVERAL / len(ask.bodies))))


def _search(
    crew: Crew,
    ask: Ask,
    effort: Effort,
    told: Callable[[Progress], None] | None,
    stop: threading.Event | None,
) -> tuple[Answer, ...]:
    rounds = rounds_of(ask, effort)
    states = [State(chain) for chain in range(CHAINS)]
    running: dict[Future[State], int] = {}
    for chain, state in enumerate(states):
        running[crew.submit(improve, ask, state, 1)] = chain
    while running:
        ended, _ = wait(running, timeout=0.2, return_when=FIRST_COMPLETED)
        for future in ended:
            chain = running.pop(future)
            states[chain] = state = future.result()
            if told:
                told(Progress(sum(s.done for s in states), rounds * CHAINS, merge(states)))
            if state.done < rounds and not _enough(ask, state):
                running[crew.submit(improve, ask, state, min(_AT_ONCE, rounds - state.done))] = chain
        if stop is not None and stop.is_set():
            for future in running:
                future.cancel()
            break
    return merge(states)


def _enough(ask: Ask, state: State) -> bool:
    """In a box that is there, to go in is all that is asked."""
    return ask.inside is not None and state.best is not None and state.best.worth <= 1e-6


def in_this_process(ask: Ask, effort: Effort) -> tuple[Answer, ...]:
    """The same answer as `Workers` give, without processes: for little effort, and where there are none."""
    return merge([improve(ask, State(chain), rounds_of(ask, effort)) for chain in range(CHAINS)])


def refuse(ask: Ask, units: Units) -> None:
    """Raises NoAnswer with every reason, where it cannot be."""
    reasons = [told(reason, units) for reason in cannot(ask)]
    if reasons:
        raise NoAnswer("It cannot be arranged: " + "; ".join(reasons) + ".")


def told(reason: Cannot, units: Units) -> str:
    """A reason, and by how much."""
    return reason.says + (f": {show_length(reason.short, units, 'up').text} short" if reason.short else "")


__all__ = ["CHAINS", "Effort", "Progress", "Workers", "in_this_process", "refuse", "told"]
