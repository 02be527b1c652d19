"""Boxes only: placed at exact coordinates, in whole nanometres, with no grid between.

Each goes against a wall or against another along every axis, so the places worth looking at are few: where the others
end. Of a few boxes every such place is looked at; of many, the corners that each laid box makes with what it lies
against.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Body, Laid, more_than_it_bears, stance
from fardo.core.arrange.build import Aim
from fardo.core.arrange.turn import Turn
from fardo.core.goods.part import Sizes
from fardo.core.quantity import Length

Ints = NDArray[np.int64]
_FEW = 14  # up to so many, every place is looked at
_NO_LIMIT: Ints = np.zeros(0, dtype=np.int64)


def boxes_only(bodies: Sequence[Body]) -> bool:
    return all(body.is_block for body in bodies)


@dataclass(frozen=True, slots=True)
class Side:
    """A box as it may stand.

    Args:
        turn: the first of those that leave it so. sizes, nm.
        before, beyond: its gap to the lower and upper walls, nm.
    """

    turn: Turn
    sizes: tuple[int, int, int]
    before: tuple[int, int, int]
    beyond: tuple[int, int, int]


def sides_of(body: Body) -> tuple[Side, ...]:
    """Its different ways to stand."""
    found: dict[object, Side] = {}
    for turn in body.turns:
        stood = stance(body, turn)
        sizes, before, beyond = (_whole(three) for three in (stood.sizes, stood.before, stood.beyond))
        found.setdefault((sizes, before, beyond), Side(turn, sizes, before, beyond))
    return tuple(found.values())


def _whole(three: Sizes) -> tuple[int, int, int]:
    a, b, c = (side.nm for side in three)
    return a, b, c


class BoxGround:
    """The boxes of one ask, their ways to stand, and what is kept between them."""

    def __init__(self, ask: Ask) -> None:
        self.ask = ask
        self.sides = [sides_of(body) for body in ask.bodies]
        self.sizes = [np.array([side.sizes for side in of_one], dtype=np.int64) for of_one in self.sides]
        count = range(len(ask.bodies))
        self.room = np.array([[ask.room(i, j).nm for j in count] for i in count], dtype=np.int64)
        bodies = ask.bodies
        # Whether the first may not lie over the second.
        self.over = np.array([[more_than_it_bears(lower, upper) for lower in bodies] for upper in bodies])
        self.before = [np.array([side.before for side in of_one], dtype=np.int64) for of_one in self.sides]
        self.beyond = [np.array([side.beyond for side in of_one], dtype=np.int64) for of_one in self.sides]
        self.limit = None if ask.inside is None else np.array([side.nm for side in ask.inside], dtype=np.int64)

    def build(self, order: Sequence[int], aim: Aim, random: np.random.Generator) -> Arrangement:
        """Each in that order where the box grows least; where there is no place in a given box it is left out."""
        laid: list[Laid | None] = [None] * len(self.sides)
        which: list[int] = []
        low, high = np.zeros((0, 3), dtype=np.int64), np.zeros((0, 3), dtype=np.int64)
        held = dict(self.ask.locked)
        grown = np.zeros(3, dtype=np.int64)
        for n in [*held, *(n for n in order if n not in held)]:
            if n in held:
                corner = np.array([c.nm for c in held[n].at], dtype=np.int64)
                stood = stance(self.ask.bodies[n], held[n].turn)
                sizes, beyond = (np.array(_whole(three), dtype=np.int64) for three in (stood.sizes, stood.beyond))
                laid[n] = held[n]
            else:
                best = self._best_place(n, which, low, high, grown, aim, random)
                if best is None:
                    continue
                s, corner = best
                sizes, beyond = self.sizes[n][s], self.beyond[n][s]
                a, b, c = (Length(int(value)) for value in corner)
                laid[n] = Laid(self.sides[n][s].turn, (a, b, c))
            which.append(n)
            low, high = np.concatenate([low, corner[None]]), np.concatenate([high, (corner + sizes)[None]])
            grown = np.maximum(grown, corner + sizes + beyond)
        inside = grown if self.limit is None or (grown > self.limit).any() else self.limit
        a, b, c = (Length(int(side)) for side in inside)
        # A box that lies over another begins where that one ends, so the lowest go in first.
        going_in = sorted(range(len(which)), key=lambda k: (low[k, 2], k))
        return Arrangement((a, b, c), tuple(laid), tuple(which[k] for k in going_in))

    def _best_place(
        self, n: int, which: list[int], low: Ints, high: Ints, grown: Ints, aim: Aim, random: np.random.Generator
    ) -> tuple[int, Ints] | None:
        from fardo.core.arrange.compiled import best_spot

        before, sizes = self.before[n], self.sizes[n]
        spots = np.unique(np.concatenate([self._spots(n, which, low, high, one) for one in np.unique(before, axis=0)]),
                          axis=0)  # fmt: skip
        noise = aim.noise * random.random(len(sizes)) if aim.noise else np.zeros(len(sizes))
        way, spot = best_spot(
            spots, sizes, before, self.beyond[n], low, high, self.room[n, which], self.over[n, which],
            self.over[which, n], grown, _NO_LIMIT if self.limit is None else self.limit, np.array(aim.target),
            np.array(aim.stretch), aim.slim / aim.size, aim.pull / aim.size, noise,
        )  # fmt: skip
        return None if way < 0 else (way, spots[spot])

    def _spots(self, n: int, which: list[int], low: Ints, high: Ints, gap: Ints) -> Ints:
        """Lowest corners worth looking at.

        Args:
            gap: to the lower walls, (3,).
        """
        if not which:
            return gap[None]
        ends = np.maximum(high + self.room[n, which][:, None], gap)
        if len(which) <= _FEW:
            x, y, z = (np.unique(np.append(ends[:, axis], gap[axis])) for axis in range(3))
            return np.stack(np.meshgrid(x, y, z, indexing="ij"), axis=-1).reshape(-1, 3)
        starts = np.maximum(low, gap)
        found = [gap[None]]
        for axis in range(3):
            corner = starts.copy()
            corner[:, axis] = ends[:, axis]
            found.append(corner)
            for other in range(3):  # and let back as far as the wall, where nothing is in the way
                if other != axis:
                    back = corner.copy()
                    back[:, other] = gap[other]
                    found.append(back)
        return np.unique(np.concatenate(found), axis=0)
