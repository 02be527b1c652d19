"""Many boxes into a box that is there: blocks of equal ones, into maximal spaces, from many random starts.

A space is a block of room with nothing in it that is part of no larger one. The lowest is filled first, at its corner,
with a block of equal boxes, one of those that fill it best; then every space that the block reaches into is cut.
Method: maximal spaces and blocks of Parreno, Alvarez-Valdes, Oliveira and Tamarit (2010, from memory).

Serves where the same is kept between any two and to every wall, and everything may lie over everything.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Body, Laid
from fardo.core.arrange.boxes import BoxGround, Side
from fardo.core.quantity import Length

Ints = NDArray[np.int64]
_STARTS = 400  # in a round
LEAST = 8  # of fewer the other searches are better


@dataclass(frozen=True, slots=True)
class Blocks:
    """An ask as blocks see it: how many of each kind, how each may stand, with what is kept between added.

    Args:
        which: of each kind the numbers of its things.
        sides: of each kind its ways to stand.
        before: kept to the lower walls, nm.
        room: for all, with what is kept between, nm.
        between: two things, nm.
    """

    which: tuple[tuple[int, ...], ...]
    sides: tuple[tuple[Side, ...], ...]
    before: tuple[int, int, int]
    room: tuple[int, int, int]
    between: int


def as_blocks(ground: BoxGround) -> Blocks | None:
    """None where they cannot serve."""
    ask = ground.ask
    count = len(ask.bodies)
    if ask.inside is None or ask.locked or count < LEAST or ground.over.any():
        return None
    apart = ground.room[~np.eye(count, dtype=bool)]
    walls = {(side.before, side.beyond) for of_one in ground.sides for side in of_one}
    if (apart != apart[0]).any() or len(walls) > 1:
        return None
    before, beyond = next(iter(walls))
    between = int(apart[0])
    kinds: dict[Body, list[int]] = {}
    for n, body in enumerate(ask.bodies):
        kinds.setdefault(body, []).append(n)
    a, b, c = (
        side.nm - low - high + between for side, low, high in zip(ask.inside, before, beyond, strict=True)
    )  # fmt: skip
    return Blocks(
        tuple(tuple(of_kind) for of_kind in kinds.values()),
        tuple(ground.sides[of_kind[0]] for of_kind in kinds.values()), before, (a, b, c), between,
    )  # fmt: skip


def packed_in_blocks(ask: Ask, blocks: Blocks, seed: int) -> Arrangement:
    """The fullest of many starts; what has no place is left out."""
    from fardo.core.arrange.compiled_blocks import fullest

    most = max(len(of_kind) for of_kind in blocks.sides)
    sizes = np.zeros((len(blocks.sides), most, 3), dtype=np.int64)
    for k, of_kind in enumerate(blocks.sides):
        for s in range(most):
            side = of_kind[min(s, len(of_kind) - 1)]
            sizes[k, s] = [one + blocks.between for one in side.sizes]
    ways = np.array([len(of_kind) for of_kind in blocks.sides], dtype=np.int64)
    counts = np.array([len(of_kind) for of_kind in blocks.which], dtype=np.int64)
    placed = fullest(np.array(blocks.room, dtype=np.int64), sizes, ways, counts, _STARTS, seed)
    laid: list[Laid | None] = [None] * len(ask.bodies)
    free = [list(of_kind) for of_kind in blocks.which]
    order: list[tuple[int, int]] = []
    for kind, way, x, y, z, nx, ny, nz in placed.tolist():
        side = blocks.sides[kind][way]
        length, width, height = (one + blocks.between for one in side.sizes)
        for k in range(nz):
            for j in range(ny):
                for i in range(nx):
                    n = free[kind].pop(0)
                    at = (x + i * length, y + j * width, z + k * height)
                    a, b, c = (Length(low + one) for low, one in zip(blocks.before, at, strict=True))
                    laid[n] = Laid(side.turn, (a, b, c))
                    order.append((at[2], n))
    assert ask.inside is not None
    return Arrangement(ask.inside, tuple(laid), tuple(n for _, n in sorted(order)))
