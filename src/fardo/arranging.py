"""The search at work on both cores, in processes of its own, so that nothing else waits for it.

What goes into a box that is there, or around what is locked, is arranged. Else the cheapest arrangement in all is
looked for: everything side by side in several ways, then what takes least room, then sizes that services ask less for.

How much is searched is said in rounds, not in seconds: the same ask with the same seed and effort gives the same answer
on a slow machine as on a fast one. Two searches run side by side, whether there are two cores or not.
"""

from __future__ import annotations

import os
import pickle
import threading
from collections.abc import Callable, Sequence
from concurrent.futures import FIRST_COMPLETED, Future, wait
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, Literal

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.boxes import boxes_only
from fardo.core.arrange.cannot import Cannot, cannot
from fardo.core.arrange.initial_layout import initial_layouts
from fardo.core.arrange.search import SearchState, improve, merge, pack_into
from fardo.core.goods.part import Sizes
from fardo.core.plan.aims import Aim, aims_below
from fardo.core.plan.job import Job
from fardo.core.plan.load import ask_of
from fardo.core.plan.parcels import ArrangeOne
from fardo.core.plan.shop import Shop
from fardo.core.plan.weighed import Weighed, best_first, weigh_each
from fardo.core.quantity import show_length
from fardo.core.quantity.show import Units
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.processes import Crew

Effort = Literal["quick", "normal", "long"]
CHAINS = 2
_ROUNDS: dict[Effort, int] = {"quick": 3, "normal": 24, "long": 150}
_BOX_ROUNDS: dict[Effort, int] = {"quick": 2, "normal": 12, "long": 60}
_SEVERAL = 15
_TRIES: dict[Effort, int] = {"quick": 4, "normal": 8, "long": 40}  # sizes that are aimed at
_ROUNDS_INTO: dict[Effort, int] = {"quick": 2, "normal": 3, "long": 10}  # before a size is given up
_AT_FIRST = 2 * CHAINS  # of the first arrangements so many are weighed before anything is told
SHOWN = 6  # of the best, while it goes on and at its end
SEARCH_NICE = 10
_MANY, _OF_A_PARCEL = 30, 3  # things that are arranged for one of several parcels; how many ways
_AT_ONCE = 3  # rounds before a worker tells how far it is


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a search is.

    Args:
        done, of: rounds of all searches, and sizes tried.
        answers: the best so far, the best first.
    """

    done: int
    of: int
    answers: tuple[Arrangement, ...]


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

    def cheapest(
        self,
        whole: Whole,
        effort: Effort = "normal",
        told: Callable[[Progress], None] | None = None,
        stop: threading.Event | None = None,
    ) -> tuple[Weighed, ...]:
        """Arrangements of a job, the one that costs least in all first. Called as `arrange` is."""
        return _look_for_cheapest(self.crew().submit, whole, effort, told, stop)

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
    ) -> tuple[Arrangement, ...]:
        """The best for each proportion, the best first; none where nothing was found, or it was stopped before.

        Args:
            told: called with every step forward.
            stop: set to end it with the best so far.
        """
        return _search(self.crew(), ask, effort, told, stop)


def _ready() -> None:
    """Loads what a search needs."""
    import scipy.fft
    import scipy.optimize  # noqa: F401
    from ortools.sat.python import cp_model  # noqa: F401

    from fardo.core.arrange.compiled import warm

    warm()


def rounds_of(ask: Ask, effort: Effort) -> int:
    """Fewer where there are many things, as each round takes longer."""
    if boxes_only(ask.bodies):
        return _BOX_ROUNDS[effort]
    return max(3, round(_ROUNDS[effort] * min(1.0, _SEVERAL / len(ask.bodies))))


@dataclass(frozen=True, slots=True)
class Whole:
    """What is to be sent, and what it is priced by.

    Args:
        seed: same job, seed and effort, same answer.
    """

    job: Job
    shop: Shop
    carriers: Carriers
    seed: int = 0

    @property
    def ask(self) -> Ask:
        return ask_of(self.job.must_load(), seed=self.seed)


# What a search works on goes to a process with every batch, and is read there once: what was worked out for it stays.
Sent = bytes


@lru_cache(maxsize=4)
def _received(sent: Sent) -> tuple[Whole, Ask]:
    whole: Whole = pickle.loads(sent)
    return whole, whole.ask


def _improve_sent(sent: Sent, state: SearchState, rounds: int) -> SearchState:
    return improve(_received(sent)[1], state, rounds)


def _weigh_sent(sent: Sent, answers: Sequence[Arrangement]) -> list[Weighed]:
    whole, _ = _received(sent)
    return weigh_each(whole.job, answers, whole.shop, whole.carriers)


def _aims_sent(sent: Sent, answer: Arrangement, least: int) -> list[Aim]:
    whole, _ = _received(sent)
    return aims_below(whole.job, answer, least, whole.shop, whole.carriers)


def _pack_sent(sent: Sent, inside: Sizes, rounds: int) -> Arrangement | None:
    return pack_into(replace(_received(sent)[1], inside=inside), rounds)


def _look_for_cheapest(
    submit: Callable[..., Future[Any]],
    whole: Whole,
    effort: Effort,
    told: Callable[[Progress], None] | None,
    stop: threading.Event | None,
) -> tuple[Weighed, ...]:
    """Each batch is asked for at once and taken in the order it was asked for, so that it comes out the same however
    long each takes.
    """
    ask, sent = whole.ask, pickle.dumps(whole)
    rounds, tries = rounds_of(ask, effort), _TRIES[effort]
    of = rounds * CHAINS + tries
    best: tuple[Weighed, ...] = ()
    done = 0

    def weigh_all(found: Sequence[Arrangement]) -> None:
        nonlocal best
        answers = [answer for answer in found if not any(one.goes_into(answer) for one in best)]
        parts = [submit(_weigh_sent, sent, answers[n::CHAINS]) for n in range(CHAINS)]
        best = best_first([*best, *(one for part in parts for one in part.result())])
        if told:
            told(Progress(done, of, tuple(one.answer for one in best[:SHOWN])))

    layouts = initial_layouts(ask)
    for n in range(0, len(layouts), _AT_FIRST):
        weigh_all(layouts[n : n + _AT_FIRST])
    states = [SearchState(chain) for chain in range(CHAINS)]
    while states[0].done < rounds and not _stopped(stop):
        at_once = min(_AT_ONCE, rounds - states[0].done)
        states = [one.result() for one in [submit(_improve_sent, sent, state, at_once) for state in states]]
        done = sum(state.done for state in states)
        weigh_all(merge(states))
    failed: list[Sizes] = []
    tried = 0
    aimed_from: Arrangement | None = None
    listed: list[Aim] = []
    while tried < tries and best and not _stopped(stop):
        if best[0].answer != aimed_from:
            aimed_from = best[0].answer
            least = min(one.answer.room_nm3 for one in best)
            listed = submit(_aims_sent, sent, aimed_from, least).result()
        batch = [aim.inside for aim in listed if not any(aim.goes_into(size) for size in failed)][:CHAINS]
        if not batch:
            break
        packed = [submit(_pack_sent, sent, inside, _ROUNDS_INTO[effort]) for inside in batch]
        answers = [one.result() for one in packed]
        failed += [inside for inside, answer in zip(batch, answers, strict=True) if answer is None]
        tried += len(batch)
        done = rounds * CHAINS + min(tried, tries)
        weigh_all([answer for answer in answers if answer is not None])
    return best


def _stopped(stop: threading.Event | None) -> bool:
    return stop is not None and stop.is_set()


def cheapest_here(whole: Whole, effort: Effort) -> tuple[Weighed, ...]:
    """The same answer as `Workers` give, without processes."""

    def at_once(function: Callable[..., Any], *args: Any) -> Future[Any]:
        future: Future[Any] = Future()
        future.set_result(function(*args))
        return future

    return _look_for_cheapest(at_once, whole, effort, None, None)


def arranger(shop: Shop, carriers: Carriers, seed: int = 0) -> ArrangeOne:
    """How what a parcel of several holds may lie, the cheapest first; of very many things nothing: that takes long."""

    def of_one(job: Job) -> tuple[Arrangement, ...]:
        if len(job.must_load().units) > _MANY:
            return ()
        return tuple(one.answer for one in cheapest_here(Whole(job, shop, carriers, seed), "quick")[:_OF_A_PARCEL])

    return of_one


def _search(
    crew: Crew,
    ask: Ask,
    effort: Effort,
    told: Callable[[Progress], None] | None,
    stop: threading.Event | None,
) -> tuple[Arrangement, ...]:
    rounds = rounds_of(ask, effort)
    states = [SearchState(chain) for chain in range(CHAINS)]
    running: dict[Future[SearchState], int] = {}
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


def _enough(ask: Ask, state: SearchState) -> bool:
    """In a box that is there, to go in is all that is asked."""
    return ask.inside is not None and state.goes_in


def refuse(ask: Ask, units: Units) -> None:
    """Raises NoAnswer with every reason, where it cannot be."""
    reasons = [told(reason, units) for reason in cannot(ask)]
    if reasons:
        raise NoAnswer("It cannot be arranged: " + "; ".join(reasons) + ".")


def told(reason: Cannot, units: Units) -> str:
    """A reason, and by how much."""
    return reason.says + (f": {show_length(reason.short, units, 'up').text} short" if reason.short else "")


__all__ = [
    "CHAINS", "SHOWN", "Effort", "Progress", "Whole", "Workers", "arranger", "cheapest_here", "refuse", "told",
]  # fmt: skip
