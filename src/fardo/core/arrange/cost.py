"""What an arrangement costs, the less the better: its room first, then how safely everything lies in it.

Heavy things below, fragile ones within and not against a wall: practitioners ask for both, and nobody pays much room
for them. So they are preferences, worth no more than a few hundredths of the room; what must be is a rule and is kept.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from fardo.core.arrange.ask import Arrangement, Ask, balance
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.goods.shape.cover import Floats

TOLERANCE = 1e-6
_SLIM = 1 / 540_000
_CARE = 0.03  # of the room, for all that is preferred together
_DELICATE = 60  # g: up to the class of delicate things (MIL-HDBK-304)
_AGAINST = 10.0  # mm beyond its gap: nearer to a wall than that is against it
_WALLS = 5  # four sides and the floor; on top is where a fragile thing may be
_MISSED = 1e4


def is_fragile(body: Body) -> bool:
    return body.fragility is not None and body.fragility <= _DELICATE


def arrangement_cost(ask: Ask, answer: Arrangement) -> float:
    """Of a box: its room, mm3, and what is added for what is long and for what lies ill. In a box that is there: what
    is left out, and by how much the rest sticks out, mm.
    """
    sides = np.array([side.mm for side in answer.inside])
    if ask.inside is None:
        return bulk(ask, sides) * (1 + _CARE * placement_penalty(ask.bodies, answer))
    return bulk(ask, sides, answer.laid)


def bulk(ask: Ask, sides: Floats, laid: Sequence[Laid | None] = ()) -> float:
    """The same of sides (3,), mm, without asking how it lies. Of two boxes of equal room the more compact is better,
    by a very little of the cube of its sides' sum.
    """
    if ask.inside is None:
        return float(np.prod(sides) + _SLIM * sides.sum() ** 3)
    over = np.maximum(sides - np.array([side.mm for side in ask.inside]), 0)
    return _missed(ask, laid) + float(over.sum())


def _missed(ask: Ask, laid: Sequence[Laid | None]) -> float:
    """What is left out: how many things, and how much room they take."""
    out = [body for body, one in zip(ask.bodies, laid, strict=False) if one is None]
    return sum(_MISSED + math.prod(side.mm for side in body.sizes) / 1000 for body in out)


def slopes(ask: Ask, sides: Floats) -> Floats:
    """What a millimetre of each side costs."""
    if ask.inside is not None:
        return np.ones(3)
    found: Floats = np.prod(sides) / sides + 3 * _SLIM * sides.sum() ** 2
    return found


def placement_penalty(bodies: tuple[Body, ...], answer: Arrangement) -> float:
    """How ill things lie, from 0 to 1: half by how high their weight is, half by how many of the walls but the lid the
    fragile ones lie against.
    """
    weighed = any(body.weight.ng for body in bodies)
    high = min(max(balance(bodies, answer)[2], 0.0), 1.0) if weighed else 0.0
    against = [
        _walls(answer, body, one) / _WALLS
        for body, one in zip(bodies, answer.laid, strict=True)
        if one is not None and is_fragile(body)
    ]
    return high / 2 + (sum(against) / len(against) / 2 if against else 0.0)


def _walls(answer: Arrangement, body: Body, laid: Laid) -> int:
    stood = stance(body, laid.turn)
    found = 0
    for axis, (at, size, side) in enumerate(zip(laid.at, stood.sizes, answer.inside, strict=True)):
        found += at.mm <= stood.before[axis].mm + _AGAINST
        found += axis < 2 and (side - at - size).mm <= stood.beyond[axis].mm + _AGAINST
    return found
