"""What lies over what: a thing that bears nothing has nothing over it, and another no more than it may."""

from __future__ import annotations

from collections.abc import Collection

import numpy as np

from fardo.core.arrange.apart import Pairs, best_direction, side_by_side
from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import pieces_of, stance

_SLACK = 0.05  # mm: beside each other is not over each other


def over(ask: Ask, answer: Arrangement, lowers: Collection[int] | None = None) -> list[tuple[int, int]]:
    """Which things lie over which (of `lowers`, or any), wholly or in part, seen straight from above: (upper, lower)
    by number.
    """
    numbers = [n for n in answer.order if answer.laid[n] is not None]
    low, high = {}, {}
    for n in numbers:
        laid = answer.laid[n]
        assert laid is not None
        low[n] = np.array([c.mm for c in laid.at])
        high[n] = low[n] + [side.mm for side in stance(ask.bodies[n], laid.turn).sizes]
    found = []
    for k, upper in enumerate(numbers):
        for lower in numbers[:k]:
            if lowers is not None and lower not in lowers:
                continue
            if (np.minimum(high[upper], high[lower]) - np.maximum(low[upper], low[lower]) > _SLACK)[:2].all() and (
                _share_a_column(ask, answer, upper, lower)
            ):
                found.append((upper, lower))
    return found


def _share_a_column(ask: Ask, answer: Arrangement, one: int, other: int) -> bool:
    pieces = []
    for n in (one, other):
        body, laid = ask.bodies[n], answer.laid[n]
        assert laid is not None
        stood = stance(body, laid.turn)
        at = [a.mm + inset.mm for a, inset in zip(laid.at, stood.inset, strict=True)]
        flat = np.diag([1.0, 1.0, 0.0])
        pieces.append([piece.moved(laid.turn, at).moved(flat, (0, 0, 0)) for piece in
                       pieces_of(body.shape, body.grown, body.held)])  # fmt: skip
    both = side_by_side(pieces)
    a = np.repeat(np.flatnonzero(both.owner == 0), len(pieces[1]))
    b = np.tile(np.flatnonzero(both.owner == 1), len(pieces[0]))
    grown = ask.bodies[one].round + ask.bodies[other].round
    enough, level = np.full(len(a), grown + 1.0), np.ones(len(a), dtype=bool)
    _, apart = best_direction(Pairs(both, a, b, np.zeros((len(a), 3))), enough, level=level)
    return bool((apart < grown - _SLACK).any())


def overloaded(ask: Ask, answer: Arrangement) -> list[int]:
    """The things over which more lies than they bear."""
    limited = [n for n, body in enumerate(ask.bodies) if body.bears is not None]
    if not limited:
        return []
    above = [0] * len(ask.bodies)
    for upper, lower in over(ask, answer, limited):
        above[lower] += max(ask.bodies[upper].weight.ng, 1)
    bears = [ask.bodies[n].bears for n in limited]
    return [n for n, most in zip(limited, bears, strict=True) if most is not None and above[n] > most.ng]
