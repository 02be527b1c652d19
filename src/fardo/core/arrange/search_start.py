"""How one start of a search begins: in which order things are put in, and what is aimed at."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.build import Aim

_WAYS = 4
_FIRST_WAYS = 6
_PLAIN = 3  # starts that are the same for every seed
_FROM_BEST = 0.7  # how often the order is that of one of the best, a little changed
_ABOUT_BEST = 0.6  # how often its sides are aimed at
_SLANTWISE = 0.3  # how often slantwise ways to stand are looked at too


@dataclass(frozen=True, slots=True)
class StartPlan:
    """How one start of a search begins.

    Args:
        order: in which things are put in.
        aim: what is wanted of the box.
        like: an answer whose turns are tried again.
    """

    order: list[int]
    aim: Aim
    like: Arrangement | None = None


def plan(
    ask: Ask,
    size: float,
    start: int,
    best: Sequence[tuple[Arrangement, tuple[int, ...]]],
    random: np.random.Generator,
    first: bool = True,
) -> StartPlan:
    """The plain ones first, then what differs a little from the best, or by much.

    Args:
        size: of a cube as large as all things, mm.
        start: its number, over all searches of the ask.
        best: answers found so far, and the order in which each was built.
        first: of several plans of one start the first.
    """
    bodies, count = ask.bodies, len(ask.bodies)
    # What bears nothing closes all above it, so it goes on top.
    last = [body.bears is not None for body in bodies]
    by_room = sorted(range(count), key=lambda n: (last[n], -float(np.prod([side.mm for side in bodies[n].sizes]))))
    by_length = sorted(range(count), key=lambda n: (last[n], -max(side.nm for side in bodies[n].sizes)))
    if start < _PLAIN and first:
        return StartPlan(by_room if start != 1 else by_length, _aimed(ask, Aim(size, ways=_FIRST_WAYS)))
    chosen = best[int(random.integers(min(2, len(best))))] if best else None
    if chosen and random.random() < _FROM_BEST:
        order = list(chosen[1])
    else:
        order = list([by_room, by_length][int(random.integers(2))])
    for _ in range(int(random.integers(1, 4))):
        taken, put = random.integers(0, count, 2)
        order.insert(int(put), order.pop(int(taken)))
    slants = 2 if random.random() < _SLANTWISE else 0
    if chosen and random.random() < _ABOUT_BEST:
        sides = np.array([side.mm for side in chosen[0].inside])
        change = np.exp(random.normal(0, 0.12, 3))
        target = random.permutation(sides * change / np.prod(change) ** (1 / 3) * 0.97)
        aim = Aim(size, (float(target[0]), float(target[1]), float(target[2])), noise=0.02, ways=_WAYS, slants=slants)
    else:
        dear = np.exp(random.normal(0, 0.2, 3))
        aim = Aim(size, stretch=(float(dear[0]), float(dear[1]), float(dear[2])), noise=0.03, ways=_WAYS,
                  slants=slants)  # fmt: skip
    return StartPlan(order, _aimed(ask, aim), chosen[0] if chosen else None)


def _aimed(ask: Ask, aim: Aim) -> Aim:
    """In a box that is there, all of it is free."""
    if ask.inside is None:
        return aim
    a, b, c = (side.mm for side in ask.inside)
    return replace(aim, target=(a, b, c), pull=aim.pull * 4)
