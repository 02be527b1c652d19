"""How far convex pieces stand apart, and along which direction: the certificate that two things keep their gap.

For a direction n, what lies between two pieces is at least the least n.x of the one less the greatest n.x of the
other. Any direction for which that is as much as must be kept proves that it is kept, wherever the two are moved as
long as the sum stays as high; the best direction is found by the method of Gilbert, Johnson and Keerthi (1988). Where
the direction does not point down, the first piece can also be lifted straight out past the second: all that is met on
the way up is further along n still.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fardo.core.goods.shape.cover import Convex, Floats

Ints = NDArray[np.int64]

_PUSHES = np.array([1.0, 5.0, 25.0])  # mm


def _directions() -> Floats:
    """Along the axes, the edges and the corners of a cube, and every 15 degrees in the three planes of the axes."""
    cube = [(x, y, z) for x in (-1, 0, 1) for y in (-1, 0, 1) for z in (-1, 0, 1) if x or y or z]
    around = [(math.cos(math.radians(15 * step)), math.sin(math.radians(15 * step))) for step in range(24)]
    planes = [d for c, s in around for d in ((c, s, 0.0), (c, 0.0, s), (0.0, c, s))]
    all_of_them = np.array([*cube, *planes], dtype=float)
    lengths: Floats = np.linalg.norm(all_of_them, axis=1)
    return np.unique(np.round(all_of_them / lengths[:, None], 15), axis=0)


DIRECTIONS = _directions()
OPPOSITE: Ints = np.array([int(np.argmin(np.linalg.norm(DIRECTIONS + d, axis=1))) for d in DIRECTIONS])
_AXES: Ints = np.array([int(np.argmax(DIRECTIONS @ axis)) for axis in np.eye(3)])


@dataclass(frozen=True, slots=True, eq=False)
class Pieces:
    """The convex pieces of several things, side by side in arrays; a piece with fewer corners repeats its first.

    Args:
        points: (p, m, 3) mm.
        owner: (p,) which thing a piece is of.
        reaches: (p, directions) mm.
        round: (p,) its row in the two that follow, -1 where it is all corners.
        middles: (r, k, 3) and swell: (r, k, 3, 3) mm, of the others.
        corners: (p,) how many of its points, or middles, count.
        centres: (p, 3) about the middle of each, mm.
    """

    points: Floats
    owner: Ints
    reaches: Floats
    round: Ints
    middles: Floats
    swell: Floats
    corners: Ints
    centres: Floats


def side_by_side(pieces: Sequence[Sequence[Convex]]) -> Pieces:
    """The convex pieces of several things in one array.

    Args:
        pieces: of each thing.
    """
    flat = [piece for of_one in pieces for piece in of_one]
    swollen = [n for n, piece in enumerate(flat) if piece.swell.any()]
    number = np.full(len(flat), -1)
    number[swollen] = np.arange(len(swollen))
    sharp = [piece.points if n not in set(swollen) else piece.points[:1] for n, piece in enumerate(flat)]
    reaches = np.stack([piece.reach(DIRECTIONS) for piece in flat])
    return Pieces(
        points=_padded(sharp),
        owner=np.repeat(np.arange(len(pieces)), [len(of_one) for of_one in pieces]),
        reaches=reaches,
        round=number,
        middles=_padded([flat[n].points for n in swollen]) if swollen else np.zeros((0, 1, 3)),
        swell=_padded([flat[n].swell for n in swollen]) if swollen else np.zeros((0, 1, 3, 3)),
        corners=np.array([len(piece.points) for piece in flat], dtype=np.int64),
        centres=np.ascontiguousarray((reaches[:, _AXES] - reaches[:, OPPOSITE[_AXES]]) / 2),
    )


def _padded(arrays: Sequence[Floats]) -> Floats:
    """Side by side, each filled up with its own first."""
    most = max(len(array) for array in arrays)
    return np.stack([np.concatenate([array, np.repeat(array[:1], most - len(array), axis=0)]) for array in arrays])


def support(pieces: Pieces, which: Ints, directions: Floats) -> Floats:
    """Of each piece `which` the point that is furthest along its own direction: (k, 3)."""
    points = pieces.points[which]
    rows = np.arange(len(which))
    found: Floats = points[rows, np.einsum("kmi,ki->km", points, directions).argmax(axis=1)]
    swollen = np.flatnonzero(pieces.round[which] >= 0)
    if len(swollen):
        number, along = pieces.round[which[swollen]], directions[swollen]
        middles, swell = pieces.middles[number], pieces.swell[number]
        seen = np.einsum("kmji,kj->kmi", swell, along)
        wide = np.sqrt(np.einsum("kmi,kmi->km", seen, seen))
        best = (np.einsum("kmi,ki->km", middles, along) + wide).argmax(axis=1)
        rows = np.arange(len(swollen))
        across = wide[rows, best]
        unit = seen[rows, best] / np.where(across > 0, across, 1.0)[:, None]
        found[swollen] = middles[rows, best] + np.einsum("kij,kj->ki", swell[rows, best], unit)
    return found


@dataclass(frozen=True, slots=True, eq=False)
class Pairs:
    """Pieces `a` and pieces `b` with `a` moved by `shift`; (k,), (k,) and (k, 3) mm."""

    pieces: Pieces
    a: Ints
    b: Ints
    shift: Floats

    def some(self, which: Ints) -> Pairs:
        return Pairs(self.pieces, self.a[which], self.b[which], self.shift[which])

    def nearest(self, directions: Floats) -> Floats:
        """From the furthest of b to the least of a along directions (k, 3): (k, 3)."""
        near, far = support(self.pieces, self.a, -directions), support(self.pieces, self.b, directions)
        return near + self.shift - far

    def between(self, directions: Floats) -> Floats:
        """What lies between the two along directions (k, 3), mm: (k,)."""
        found: Floats = np.einsum("ki,ki->k", directions, self.nearest(directions))
        return found


def best_direction(
    pairs: Pairs, enough: Floats, known: Floats | None = None, level: NDArray[np.bool_] | None = None
) -> tuple[Floats, Floats]:
    """The direction, never down, along which `a` stands furthest from `b`, and how far, mm.

    Args:
        level: (k,) where only level directions are wanted, so that `a` is beside `b` and not over it.
        enough: (k,) nothing better is looked for where one of the usual directions gives as much, mm.
        known: (k, 3) directions found before, nan where there is none.
    """
    from fardo.core.arrange.compiled import usual_best

    pieces = pairs.pieces
    if level is None:
        level = np.zeros(len(pairs.a), dtype=bool)
    first, apart = usual_best(
        pairs.shift, pieces.reaches, pieces.reaches, DIRECTIONS, OPPOSITE, pairs.a, pairs.b, level
    )
    directions = DIRECTIONS[first].copy()
    if known is not None:
        old = np.flatnonzero(~np.isnan(known[:, 0]) & (apart < enough))
        how_far = pairs.some(old).between(known[old])
        better = how_far > apart[old]
        directions[old[better]], apart[old[better]] = known[old[better]], how_far[better]
    beside = np.flatnonzero((apart < enough) & level)
    near = np.flatnonzero((apart < enough) & ~level)
    found, how_far = _furthest(pairs.some(near), directions[near], flat=False)
    down = found[:, 2] < 0
    better = ~down & (how_far > apart[near])
    directions[near[better]], apart[near[better]] = found[better], how_far[better]
    # Where the best of all points down, the best of those that do not is level.
    near = np.concatenate([near[down], beside])
    found, how_far = _furthest(pairs.some(near), directions[near], flat=True)
    better = how_far > apart[near]
    directions[near[better]], apart[near[better]] = found[better], how_far[better]
    return directions, apart


def _furthest(pairs: Pairs, start: Floats, flat: bool) -> tuple[Floats, Floats]:
    """As `compiled.furthest`, of pairs."""
    from fardo.core.arrange.compiled import furthest

    of = pairs.pieces
    found: tuple[Floats, Floats] = furthest(
        pairs.a, pairs.b, pairs.shift, start, flat, of.points, of.corners, of.round, of.middles, of.swell, of.centres,
        _PUSHES,
    )  # fmt: skip
    return found
