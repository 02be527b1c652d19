"""Rounds of a search among boxes: several starts at exact coordinates, and of few the smallest that is proved."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.blocks import Blocks, as_blocks, packed_in_blocks
from fardo.core.arrange.boxes import BoxGround
from fardo.core.arrange.cost import arrangement_cost
from fardo.core.arrange.load_on_top import overloaded
from fardo.core.arrange.proved_boxes import FEW, smallest
from fardo.core.arrange.search_start import plan
from fardo.core.arrange.search_state import Found, SearchState

_STARTS = 8
_MANY = 14  # of more than so many boxes a round is one start


@dataclass(frozen=True, slots=True, eq=False)
class BoxStart:
    """What the rounds of an ask share.

    Args:
        size: of a cube as large as all things, mm.
        blocks: where they serve.
    """

    ground: BoxGround
    size: float
    blocks: Blocks | None = None


@lru_cache(maxsize=4)
def box_start(ask: Ask) -> BoxStart:
    ground = BoxGround(ask)
    return BoxStart(ground, room_of(ask) ** (1 / 3), as_blocks(ground))


def room_of(ask: Ask) -> float:
    """What all things take with the gaps between them, mm3."""
    return sum(math.prod(side.mm + body.gap.between.mm for side in body.sizes) for body in ask.bodies)


def box_round(ask: Ask, start: BoxStart, state: SearchState) -> SearchState:
    random = np.random.default_rng([ask.seed, state.chain, state.done])
    if start.blocks is not None:
        answer = packed_in_blocks(ask, start.blocks, int(random.integers(1 << 31)))
        state = state.kept(Found(arrangement_cost(ask, answer), answer, tuple(range(len(ask.bodies)))))
        if len(ask.bodies) > _MANY:
            return replace(state, done=state.done + 1)
    for found in packed_as_boxes(ask, start, state, random):
        if not overloaded(ask, found.answer):
            state = state.kept(found)
    return replace(state, done=state.done + 1)


def packed_as_boxes(ask: Ask, start: BoxStart, state: SearchState, random: np.random.Generator) -> list[Found]:
    """Several starts; of few boxes the first search also asks, once, for the smallest there is."""
    answers: list[tuple[Arrangement, list[int]]] = []
    best = [(found.answer, found.built_in) for found in state.found]
    for n in range(_STARTS if len(ask.bodies) <= _MANY else 1):
        start_of = plan(ask, start.size, state.done * 2 + state.chain, best, random, first=n == 0)
        answers.append((start.ground.build(start_of.order, start_of.aim, random), start_of.order))
    if len(ask.bodies) <= FEW and not ask.locked and (state.chain, state.done) == (0, 1):
        proved = smallest(ask, min(answer.room_nm3 for answer, _ in answers))
        answers += [(proved, answers[0][1])] if proved else []
    return [
        Found(arrangement_cost(ask, answer), answer, tuple(order))
        for answer, order in answers
        if answer.whole or ask.inside is not None
    ]
