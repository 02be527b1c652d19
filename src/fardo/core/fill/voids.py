"""The room left in a packed box, place by place: under the goods, on top, at the sides and the ends, and between them.

What lies outside the box around all the wrapped goods is six plain blocks, less the extras that lie in them, so their
volumes are exact; the rest of the void is between things, with their openings and hollows.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.void_space import empty_cells
from fardo.core.goods.part import Sizes
from fardo.core.quantity import ZERO, Length

Where = Literal["under", "between", "left", "right", "front", "back", "top"]
PLACES: tuple[Where, ...] = get_args(Where)
_LEAST = Length.of_mm(3.0)  # what is less deep is no place that anybody fills; it counts as between: starting value
_CELLS = 40  # along the longest side, to find the widest gap between things


@dataclass(frozen=True, slots=True)
class Void:
    """One place in the box that is left to fill.

    Args:
        depth: from the goods to the wall, the floor or the lid; nothing between things, where it is looked for only
            when somebody asks.
    """

    where: Where
    depth: Length
    volume_nm3: int


Block = tuple[Sizes, Sizes]  # its lowest and its highest corner


@dataclass(frozen=True, slots=True)
class Room:
    """Where goods lie in a box.

    Args:
        inner: what liners and pads leave.
        goods: around all that is wrapped.
        extras: each that lies beside or on them.
    """

    inner: Block
    goods: Block
    extras: tuple[Block, ...] = ()


def voids_in(room: Room, void_nm3: int) -> tuple[Void, ...]:
    """Every place that is not full, in the order in which it is filled.

    Args:
        void_nm3: all of it, as goods, extras, wrap and inserts leave it.
    """
    (x0, y0, z0), (x1, y1, z1) = low, high = room.inner
    (a0, b0, c0), (a1, b1, c1) = (
        tuple(min(max(side, least), most) for side, least, most in zip(corner, low, high, strict=True))
        for corner in room.goods
    )
    around: list[tuple[Where, Length, Block]] = [
        ("under", c0 - z0, (low, (x1, y1, c0))),
        ("left", a0 - x0, ((x0, y0, c0), (a0, y1, c1))), ("right", x1 - a1, ((a1, y0, c0), (x1, y1, c1))),
        ("front", b0 - y0, ((a0, y0, c0), (a1, b0, c1))), ("back", y1 - b1, ((a0, b1, c0), (a1, y1, c1))),
        ("top", z1 - c1, ((x0, y0, c1), high)),
    ]  # fmt: skip
    found = {
        where: Void(where, depth, _volume(block) - sum(_volume(_shared(block, extra)) for extra in room.extras))
        for where, depth, block in around
        if depth >= _LEAST
    }
    between = void_nm3 - sum(void.volume_nm3 for void in found.values())
    if between > 0:
        found["between"] = Void("between", ZERO, between)
    return tuple(found[where] for where in PLACES if where in found and found[where].volume_nm3 > 0)


def _volume(block: Block) -> int:
    sides = [max(0, high.nm - low.nm) for low, high in zip(*block, strict=True)]
    return sides[0] * sides[1] * sides[2]


def _shared(one: Block, other: Block) -> Block:
    """What two blocks have in common; of no volume where that is nothing."""
    low = tuple(max(a, b) for a, b in zip(one[0], other[0], strict=True))
    high = tuple(min(a, b) for a, b in zip(one[1], other[1], strict=True))
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def widest_between(ask: Ask, answer: Arrangement) -> Length:
    """The widest gap between things within the box around them all, to a fortieth of the longest side."""
    step = max(side.mm for side in answer.inside) / _CELLS
    if step <= 0:
        return ZERO
    empty = empty_cells(ask, answer, step)
    taken = np.argwhere(~empty)
    if not len(taken):
        return ZERO
    low, high = taken.min(axis=0), taken.max(axis=0) + 1
    inner = empty[low[0] : high[0], low[1] : high[1], low[2] : high[2]]
    if not inner.any():
        return ZERO
    # Beyond the box around them it is another place.
    walled = np.pad(inner, 1, constant_values=False)
    from scipy.ndimage import distance_transform_edt  # it takes a moment to load

    return Length.of_mm(round(float(distance_transform_edt(walled).max()) * 2 * step - step, 3))
