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
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from fardo.core.goods.shape.cover import Convex, Floats

Ints = NDArray[np.int64]

_ROUNDS = 24
_GAIN = 0.02  # mm, below the finest anyone measures
_LEVEL = 1e-12
_TOUCHING = 0.05  # mm
_PUSHES = (1.0, 5.0, 25.0)  # mm
_MEETS = 1e-12  # mm2


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
        points: (p, m, 3) mm. owner: (p,) which thing a piece is of. reaches: (p, directions) mm. round: (p,) its row in
        the two that follow, -1 where it is all corners. middles: (r, k, 3) and swell: (r, k, 3, 3) mm, of the others.
    """

    points: Floats
    owner: Ints
    reaches: Floats
    round: Ints
    middles: Floats
    swell: Floats


def side_by_side(pieces: Sequence[Sequence[Convex]]) -> Pieces:
    """Args: pieces: of each thing."""
    flat = [piece for of_one in pieces for piece in of_one]
    swollen = [n for n, piece in enumerate(flat) if piece.swell.any()]
    number = np.full(len(flat), -1)
    number[swollen] = np.arange(len(swollen))
    sharp = [piece.points if n not in set(swollen) else piece.points[:1] for n, piece in enumerate(flat)]
    return Pieces(
        points=_padded(sharp),
        owner=np.repeat(np.arange(len(pieces)), [len(of_one) for of_one in pieces]),
        reaches=np.stack([piece.reach(DIRECTIONS) for piece in flat]),
        round=number,
        middles=_padded([flat[n].points for n in swollen]),
        swell=_padded([flat[n].swell for n in swollen]),
    )


def _padded(arrays: Sequence[Floats]) -> Floats:
    """Side by side, each filled up with its own first."""
    if not arrays:
        return np.zeros((0, 1, 3, 3))
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

    def middles(self, which: Ints) -> Floats:
        """About the middle of each piece: (k, 3) mm."""
        reaches = self.pieces.reaches[which]
        found: Floats = (reaches[:, _AXES] - reaches[:, OPPOSITE[_AXES]]) / 2
        return found

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
        enough: (k,) nothing better is looked for where one of the usual directions gives as much, mm. known: (k, 3)
        directions found before, nan where there is none.
    """
    pieces, count = pairs.pieces, np.arange(len(pairs.a))
    usual = pairs.shift @ DIRECTIONS.T - pieces.reaches[pairs.a][:, OPPOSITE] - pieces.reaches[pairs.b]
    usual[:, DIRECTIONS[:, 2] < -_LEVEL] = -np.inf
    if level is None:
        level = np.zeros(len(pairs.a), dtype=bool)
    usual[np.ix_(level, DIRECTIONS[:, 2] > _LEVEL)] = -np.inf
    first = usual.argmax(axis=1)
    directions, apart = DIRECTIONS[first].copy(), usual[count, first]
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
    """As `_nearest`; where two touch, or all but touch, the way between them no longer says where they part. They are
    moved a little from each other then, and the direction found so is tried where they are."""
    best, apart = _nearest(pairs, start, flat)
    for push in _PUSHES:
        touching = np.flatnonzero(apart < _TOUCHING)
        if not len(touching):
            break
        some = pairs.some(touching)
        away = some.shift + some.middles(some.a) - some.middles(some.b)
        away[:, 2] *= not flat
        length = np.linalg.norm(away, axis=1)
        away = away / np.where(length > 0, length, 1.0)[:, None]
        moved = Pairs(some.pieces, some.a, some.b, some.shift + away * push)
        found, _ = _nearest(moved, away, flat)
        how_far = np.where(np.linalg.norm(found, axis=1) > 0.5, some.between(found), -np.inf)
        better = how_far > apart[touching]
        best[touching[better]], apart[touching[better]] = found[better], how_far[better]
    return best, apart


def _nearest(pairs: Pairs, start: Floats, flat: bool) -> tuple[Floats, Floats]:
    """Towards the point of the difference of the two that is nearest to nothing; seen from above where `flat`.

    A few points of the difference are kept of each pair, the fewest whose hull holds the nearest point found so far;
    the next is the furthest against the way to it.
    """
    mask = np.array([1.0, 1.0, 0.0 if flat else 1.0])
    best, best_apart = start.copy(), np.full(len(start), -np.inf)
    going, moving = np.arange(len(start)), pairs
    point = pairs.nearest(start * mask) * mask
    kept = np.repeat(point[:, None, :], 3, axis=1)
    counts = np.tile([True, False, False], (len(start), 1))
    for _ in range(_ROUNDS):
        if not len(going):
            break
        length = np.sqrt(np.einsum("ki,ki->k", point, point))
        direction = point / np.where(length > 0, length, 1.0)[:, None]
        ahead = moving.nearest(direction) * mask
        # Where the two meet there is no way between them, and so no direction that proves anything.
        apart = np.where(length > _MEETS, np.einsum("ki,ki->k", direction, ahead), -np.inf)
        better = apart > best_apart[going]
        best[going[better]], best_apart[going[better]] = direction[better], apart[better]
        point, used = _nearest_of(ahead, kept, counts)
        free = np.argmin(used, axis=1)
        rows = np.arange(len(going))
        kept[rows, free], used[rows, free] = ahead, True
        counts = used
        # Where nothing is gained, or the pieces meet, there is nothing further to find.
        on = (length - best_apart[going] > _GAIN) & (np.einsum("ki,ki->k", point, point) > _MEETS)
        if not on.all():
            going, point, kept, counts = going[on], point[on], kept[on], counts[on]
            moving = moving.some(np.flatnonzero(on))
    return best, best_apart


# Of the three that are kept: each alone, each two, all.
_CHOICES = np.array([[c in choice for c in range(3)] for n in (1, 2, 3) for choice in combinations(range(3), n)])


def _nearest_of(newest: Floats, kept: Floats, counts: NDArray[np.bool_]) -> tuple[Floats, NDArray[np.bool_]]:
    """The point nearest to nothing of the hull of `newest` (k, 3) and those of `kept` (k, 3, 3) that count, and which
    of these it takes."""
    edges = kept - newest[:, None, :]
    shares = _shares(np.einsum("kai,kbi->kab", edges, edges), -np.einsum("kai,ki->ka", edges, newest))
    within = (shares >= 0).all(axis=2) & (shares.sum(axis=2) <= 1) & ~(_CHOICES & ~counts[:, None, :]).any(axis=2)
    found = newest[:, None, :] + np.einsum("kca,kai->kci", np.where(within[:, :, None], shares, 0.0), edges)
    best = np.einsum("kci,kci->kc", found, found).argmin(axis=1)
    rows = np.arange(len(newest))
    used = _CHOICES[best] & within[rows, best][:, None]
    return found[rows, best], used


def _shares(gram: Floats, pull: Floats) -> Floats:
    """Of each choice (k, 7, 3) how far to go along each of its edges, to the point of their span that is nearest to
    nothing: the normal equations, solved outright. Negative where its edges are one, which the others tell too."""
    p, q, r = pull.T
    aa, bb, cc = gram[:, 0, 0], gram[:, 1, 1], gram[:, 2, 2]
    ab, ac, bc = gram[:, 0, 1], gram[:, 0, 2], gram[:, 1, 2]
    of_ab, of_ac, of_bc = aa * bb - ab * ab, aa * cc - ac * ac, bb * cc - bc * bc
    # The rest of the adjugate, and the determinant.
    ka, kb, kc = ab * cc - ac * bc, ab * bc - ac * bb, aa * bc - ab * ac
    whole = aa * of_bc - ab * ka + ac * kb
    none = np.zeros_like(p)
    with np.errstate(divide="ignore", invalid="ignore"):
        found = [
            (p / aa, none, none),
            (none, q / bb, none),
            (none, none, r / cc),
            ((p * bb - q * ab) / of_ab, (q * aa - p * ab) / of_ab, none),
            ((p * cc - r * ac) / of_ac, none, (r * aa - p * ac) / of_ac),
            (none, (q * cc - r * bc) / of_bc, (r * bb - q * bc) / of_bc),
            (
                (p * of_bc - q * ka + r * kb) / whole,
                (q * of_ac - p * ka - r * kc) / whole,
                (r * of_ab + p * kb - q * kc) / whole,
            ),
        ]
    shares = np.stack([np.stack(choice, axis=1) for choice in found], axis=1)
    told: Floats = np.nan_to_num(shares, nan=-1.0, posinf=-1.0, neginf=-1.0)
    return told
