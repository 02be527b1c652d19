"""The search: many orders and starts, each built on the grid, the promising ones pressed together exactly.

A round is one start: an order (by size, by length, or that of the best so far with a few things moved), an aim (which
proportions the box may have for nothing), and a few ways for each thing to stand. Every round draws on its own numbers,
so that the same ask gives the same answer however the rounds are shared out.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

from fardo.core.arrange.ask import Arrangement, Ask, Proportion
from fardo.core.arrange.boxes import boxes_only
from fardo.core.arrange.bundle import Bundled, bundle_up
from fardo.core.arrange.search_boxes import box_round, box_start
from fardo.core.arrange.search_shapes import grid_of, shape_round
from fardo.core.arrange.search_state import Found, SearchState

_BUNDLE_ROUNDS = 6


def improve(ask: Ask, state: SearchState, rounds: int) -> SearchState:
    """So many more rounds."""
    bundled = _bundled(replace(ask, seed=0))
    if bundled is None:
        return _improve(ask, state, rounds)
    # What goes on from earlier rounds goes on from bundles too, as they are numbered there.
    tied = tuple(replace(found, answer=found.tied or found.answer, tied=None) for found in state.found)
    state = _improve(replace(bundled.ask, seed=ask.seed), replace(state, found=tied), rounds)
    untied = (replace(found, answer=bundled.untied(found.answer), tied=found.answer) for found in state.found)
    return replace(state, found=tuple(untied))


def pack_into(ask: Ask, rounds: int) -> Arrangement | None:
    """An arrangement that goes into the box of the ask, within so many rounds; None where none is found."""
    state = SearchState()
    for _ in range(rounds):
        state = improve(ask, state, 1)
        if state.best is not None and state.goes_in:
            return state.best.answer
    return None


@lru_cache(maxsize=4)
def _bundled(ask: Ask) -> Bundled | None:
    return bundle_up(ask, _pack_a_bundle)


def _pack_a_bundle(ask: Ask) -> Arrangement | None:
    best = _improve(ask, SearchState(), _BUNDLE_ROUNDS).best
    return best.answer if best else None


def _improve(ask: Ask, state: SearchState, rounds: int) -> SearchState:
    shared = replace(ask, seed=0)  # what the rounds share does not hang on the seed
    for _ in range(rounds):
        if boxes_only(ask.bodies):
            state = box_round(ask, box_start(shared), state)
        else:
            state = shape_round(ask, grid_of(shared), state)
    return state


def merge(states: Sequence[SearchState]) -> tuple[Arrangement, ...]:
    """The answers of several chains, the best first, one for each proportion."""
    kept: dict[Proportion, Found] = {}
    for found in sorted((f for state in states for f in state.found), key=lambda f: f.cost):
        kept.setdefault(found.answer.proportion, found)
    return tuple(found.answer for found in kept.values())


__all__ = ["SearchState", "improve", "merge", "pack_into"]
