"""Where one thing may not stand because of another: every place at once, by Fourier correlation.

Two things on a grid meet at those places where the correlation of their cells is not nothing, and a product of Fourier
transforms gives all of it at once (as in the literature on dense packing of generic solids by spectral methods, ACM
Transactions on Graphics, 2023). Here it is worked out once for a pair of things as they are turned, not once for a box
as it fills: laying a thing then only marks, for each that is still to come, the places it has taken from it.

Cells are counted as taken wherever a thing touches them, so a place that is left is free. What is told by two bounding
boxes alone is told exactly.
"""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from fardo.core.arrange.apart import DIRECTIONS
from fardo.core.arrange.body import Body, Stance, pieces_of, stance
from fardo.core.arrange.turn import Rotation, Turn, after, carried
from fardo.core.goods.shape.cover import Convex

Cells = NDArray[np.bool_]
TAKEN, ABOVE, BELOW = 1, 2, 4
_KEPT = 5000  # pairs of stances whose places are remembered
_SLACK = 1e-6  # mm
_UP, _DOWN = DIRECTIONS[:, 2] > 1e-9, DIRECTIONS[:, 2] < -1e-9
_LEVEL = ~(_UP | _DOWN)


@dataclass(frozen=True, slots=True, eq=False)
class Posed:
    """A body as it may stand: one of its own poses, then one of the 24 turns.

    Args:
        number: of the body in that pose, the same for all its turns.
        pose: the turn to begin with, none or one in a plane.
        turn: about the axes, after it.
        stance: both.
        sizes: as turned, mm.
        cells: its bounding box in cells, (3,); its middle is the middle of those.
    """

    body: Body
    number: int
    pose: Rotation
    turn: Turn
    stance: Stance
    cells: tuple[int, int, int]

    sizes: tuple[float, float, float]


def posed(body: Body, number: int, pose: Rotation, turn: Turn, step: float) -> Posed:
    stood = stance(body, after(turn, pose))
    a, b, c = (cells_in(side.mm, step) for side in stood.sizes)
    return Posed(body, number, pose, turn, stood, (a, b, c), (stood.sizes[0].mm, stood.sizes[1].mm, stood.sizes[2].mm))


def cells_in(side: float, step: float) -> int:
    return max(1, int(np.ceil(side / step - 1e-6)))


@lru_cache(maxsize=1024)
def solid_cells(body: Body, pose: Rotation, step: float, room: float, margin: int) -> Cells:
    """The cells a body touches in that pose, or that are less than `room` mm from it, with `margin` cells around it."""
    stood = stance(body, pose)
    sizes = np.array([side.mm for side in stood.sizes])
    shape = [cells_in(side, step) + 2 * margin for side in sizes]
    low = (np.array(shape) * step - sizes) / 2  # where its bounding box begins in the grid
    inset = np.array([side.mm for side in stood.inset])
    cells = np.zeros(shape, dtype=bool)
    for piece in pieces_of(body.shape, body.grown, body.held):
        mark(cells, piece.moved(pose, inset + low), body.round + room, step)
    return cells


def mark(cells: Cells, piece: Convex, more: float, step: float) -> None:
    """Marks the cells of `step` mm that a piece touches once it is grown by `more` mm. One that is only just touched
    is not counted.
    """
    # A cell reaches half its side along each axis from its middle.
    half = step / 2 * np.abs(DIRECTIONS).sum(axis=1) + more - _SLACK
    axes = np.eye(3)
    first = np.floor((-piece.reach(-axes) - more) / step + 1e-6).astype(int).clip(0)
    last = np.ceil((piece.reach(axes) + more) / step - 1e-6).astype(int)
    last = np.minimum(last, cells.shape)
    if (last <= first).any():
        return
    x, y, z = ((np.arange(a, b) + 0.5) * step for a, b in zip(first, last, strict=True))
    # Along each column of cells every direction says how high or how low it may be, or whether it is in at all.
    left = (piece.reach(DIRECTIONS) + half)[:, None, None]
    left = left - DIRECTIONS[:, 0, None, None] * x[:, None] - DIRECTIONS[:, 1, None, None] * y
    highest = (left[_UP] / DIRECTIONS[_UP, 2, None, None]).min(axis=0)
    lowest = (left[_DOWN] / DIRECTIONS[_DOWN, 2, None, None]).max(axis=0)
    within: Cells = np.logical_and.reduce(left[_LEVEL] > 0, axis=0)
    inside: Cells = within[:, :, None] & (z < highest[:, :, None]) & (z > lowest[:, :, None])
    window = tuple(slice(a, b) for a, b in zip(first, last, strict=True))
    cells[window] |= inside


@dataclass(frozen=True, slots=True, eq=False)
class NoFit:
    """Places of the first thing relative to the second, by the lowest corners of their cells.

    Args:
        first: the relative place of codes[0, 0, 0].
        codes: what is so of a place; see below.
    """

    first: tuple[int, int, int]
    codes: NDArray[np.uint8]

    @property
    def taken(self) -> Cells:
        """Where it may not stand: they meet, or neither could be lifted out past the other."""
        return (self.codes & TAKEN).view(np.bool_)

    @property
    def above(self) -> Cells:
        """Where it stands clear, and over some of the other."""
        return np.equal(self.codes, ABOVE)

    @property
    def below(self) -> Cells:
        """Where it stands clear, and under some of the other."""
        return np.equal(self.codes, BELOW)


class NoFits:
    """Those of one problem on one grid, remembered: the same two always keep the same room.

    Args:
        step: of the grid, mm.
    """

    def __init__(self, step: float) -> None:
        self.step = step
        self._kept: OrderedDict[object, NoFit] = OrderedDict()
        self._meets: OrderedDict[object, Cells] = OrderedDict()

    def of(self, a: Posed, b: Posed, room: float) -> NoFit:
        """Where `a` may not stand because of `b`, `room` mm kept between them."""
        key = (a.number, a.turn, b.number, b.turn)
        found = self._kept.get(key)
        if found is None:
            found = self._work_out(a, b, room)
            self._kept[key] = found
            if len(self._kept) > _KEPT:
                self._kept.popitem(last=False)
        return found

    def _work_out(self, a: Posed, b: Posed, room: float) -> NoFit:
        margin = int(np.ceil(room / self.step - 1e-6))
        back: Turn = _inverse(b.turn)
        relative = _whole(after(back, a.turn))
        key = (a.number, relative, b.number)
        meets = self._meets.get(key)
        if meets is None:
            first = carried(solid_cells(a.body, a.pose, self.step, 0.0, 0), relative)
            second = solid_cells(b.body, b.pose, self.step, room, margin)
            meets = correlate(first, second)
            self._meets[key] = meets
            if len(self._meets) > _KEPT:
                self._meets.popitem(last=False)
        meets = carried(meets, b.turn)
        start = tuple(-(n - 1) - margin for n in a.cells)
        near = tuple(self._boxes_meet(a, b, room, axis, start[axis], meets.shape[axis]) for axis in range(3))
        taken = np.zeros(meets.shape, dtype=bool)
        taken[near] = meets[near]
        over = np.logical_or.accumulate(taken, axis=2)
        under = np.logical_or.accumulate(taken[:, :, ::-1], axis=2)[:, :, ::-1]
        both = over & under
        codes: NDArray[np.uint8] = both.view(np.uint8) * np.uint8(TAKEN)
        codes += (over ^ both).view(np.uint8) * np.uint8(ABOVE)
        codes += (under ^ both).view(np.uint8) * np.uint8(BELOW)
        return NoFit((start[0], start[1], start[2]), codes)

    def _boxes_meet(self, a: Posed, b: Posed, room: float, axis: int, start: int, count: int) -> slice:
        """Along an axis, the places where the two bounding boxes are nearer than `room`: exact."""
        place = (np.arange(count) + start) * self.step
        mine, other = a.sizes[axis], b.sizes[axis]
        low = place + (a.cells[axis] * self.step - mine) / 2 - (b.cells[axis] * self.step - other) / 2
        near = np.flatnonzero((low < other + room - _SLACK) & (low > -mine - room + _SLACK))
        return slice(int(near[0]), int(near[-1]) + 1) if len(near) else slice(0, 0)


def correlate(first: Cells, second: Cells) -> Cells:
    """Where `first`, moved over `second`, meets it; beginning where its last cell lies on the other's first."""
    from scipy import fft  # what never searches need not load it

    whole = [a + b - 1 for a, b in zip(first.shape, second.shape, strict=True)]
    fast = [fft.next_fast_len(n, real=True) for n in whole]
    one = fft.rfftn(first[::-1, ::-1, ::-1].astype(np.float32), fast)
    other = fft.rfftn(second.astype(np.float32), fast)
    met = fft.irfftn(one * other, fast)[: whole[0], : whole[1], : whole[2]]
    found: Cells = met > 0.5
    return found


def _inverse(turn: Turn) -> Turn:
    a, b, c = ((turn[0][n], turn[1][n], turn[2][n]) for n in range(3))
    return a, b, c


def _whole(matrix: Rotation) -> Turn:
    a, b, c = ((round(row[0]), round(row[1]), round(row[2])) for row in matrix)
    return a, b, c
