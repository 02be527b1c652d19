"""A shape as convex pieces that together cover it: what the arranging engine sets apart from one another.

A piece is the hull of a few ellipsoids: a box of eight points, a rod of balls or discs, a cylinder of two discs. So
round things stay round, and how far a piece reaches is exact in every direction. Where a shape is hollow and round,
its pieces fill a little of the hollow, never the other way: what keeps clear of the cover keeps clear of the shape.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

if TYPE_CHECKING:
    from fardo.core.goods.shape.solids import Solid

Floats = NDArray[np.float64]
Corner = tuple[float, float]
Flat = Sequence[Corner]

_SECTORS = 40
_SPLITS = 24  # pieces a mesh is cut into at most
_TIGHT = 1.06  # the hulls of the pieces may hold so much more than the mesh
_THIN = 1 / 800  # of its longest side: the hull of a piece of a mesh is thinned by that, and its corners grown by it
_HELPS = 0.98  # a cut helps where the hulls of its pieces hold no more than that of the hull before
_CUTS = (0.25, 0.4, 0.5, 0.6, 0.75)  # where along a side a cut is tried


@dataclass(frozen=True, slots=True, eq=False)
class Convex:
    """The hull of ellipsoids.

    Args:
        points: (n, 3) float, mm, their middles.
        swell: (n, 3, 3) float, mm: the ellipsoid about each is the unit ball seen through that matrix; all zero is the
            point itself.
    """

    points: Floats
    swell: Floats

    def reach(self, directions: Floats) -> Floats:
        """How far it reaches: the highest product of one of its points with each of (k, 3) directions, mm, (k,)."""
        along = directions @ self.points.T
        if self.swell.any():
            along = along + np.linalg.norm(np.einsum("kj,njm->knm", directions, self.swell), axis=2)
        furthest: Floats = along.max(axis=1)
        return furthest

    def moved(self, turn: Sequence[Sequence[float]] | Floats, at: Sequence[float] | Floats) -> Convex:
        """Turned by a matrix, then moved by `at`."""
        matrix = np.asarray(turn, dtype=float)
        return Convex(self.points @ matrix.T + np.asarray(at, dtype=float), matrix @ self.swell)

    def grown(self, by: Sequence[float]) -> Convex:
        """With so much more along each axis on both sides, as by a box, mm."""
        points, swell = self.points, self.swell
        for axis, more in enumerate(by):
            if more:
                step = np.zeros(3)
                step[axis] = more
                points, swell = np.concatenate([points - step, points + step]), np.concatenate([swell, swell])
        return Convex(points, swell)


def corners(points: Iterable[Sequence[float]] | Floats) -> Convex:
    """The hull of points."""
    array = np.asarray(points if isinstance(points, np.ndarray) else list(points), dtype=float).reshape(-1, 3)
    return Convex(array, np.zeros((len(array), 3, 3)))


def block(low: Sequence[float], high: Sequence[float]) -> Convex:
    return corners([(x, y, z) for x in (low[0], high[0]) for y in (low[1], high[1]) for z in (low[2], high[2])])


def egg(length: float, width: float, height: float) -> Convex:
    halves = np.array([length, width, height]) / 2
    return Convex(halves[None, :], np.diag(halves)[None, :, :])


def upright(diameter_a: float, diameter_b: float, height: float) -> Convex:
    """A cylinder, disc or cone: the hull of its two end faces."""
    middle = max(diameter_a, diameter_b) / 2
    flat = np.diag([1.0, 1.0, 0.0])
    points = np.array([[middle, middle, 0.0], [middle, middle, height]])
    return Convex(points, np.stack([flat * diameter_a / 2, flat * diameter_b / 2]))


def rod(
    start: Sequence[float], end: Sequence[float], diameter: float, rounded: tuple[bool, bool] = (True, True)
) -> Convex:
    """A bar between two points, each of its ends a ball or a disc across it."""
    points = np.array([start, end], dtype=float)
    ball = np.eye(3)
    along = points[1] - points[0]
    disc = ball - np.outer(along, along) / (along @ along) if along.any() else ball
    return Convex(points, np.stack([ball if round_end else disc for round_end in rounded]) * diameter / 2)


def ring(outer: float, inner: float, thickness: float) -> tuple[Convex, ...]:
    """Sectors. Their outer corners stand where the tangents meet, so that the round of the rim is inside them."""
    half = math.pi / _SECTORS
    middle = outer / 2
    found = []
    for n in range(_SECTORS):
        flat = []
        # The outside face is square to the middle of its sector, and the corners of its neighbours are its own.
        for angle in (2 * n * half - half, 2 * n * half + half):
            for radius in (inner / 2, outer / 2 / math.cos(half)):
                flat.append((middle + radius * math.cos(angle), middle + radius * math.sin(angle)))
        found.append(corners([(x, y, z) for x, y in flat for z in (0.0, thickness)]))
    return tuple(found)


def plate(outline: Flat, holes: Sequence[Flat], thickness: float) -> tuple[Convex, ...]:
    """A flat outline cut into convex pieces: its triangles, those on both sides of a cut joined where that is
    convex.
    """
    from shapely import Polygon, constrained_delaunay_triangles

    loops = [_against_clock(list(piece.exterior.coords)[:-1])
             for piece in constrained_delaunay_triangles(Polygon(outline, holes)).geoms]  # fmt: skip
    owner = {edge: n for n, loop in enumerate(loops) for edge in _edges(loop)}
    for start, end in [edge for edge in owner if edge[0] < edge[1]]:
        here, there = owner[start, end], owner.get((end, start))
        if there is None or there == here:
            continue
        one, other = _from(loops[here], end), _from(loops[there], start)
        # `one` runs from the end of the cut to its start, `other` from its start to its end.
        both = one + other[1:-1]
        if _turns_left(other[-2], end, one[1]) and _turns_left(one[-2], start, other[1]):
            loops[here], loops[there] = both, []
            owner |= dict.fromkeys(_edges(both), here)
    return tuple(corners([(x, y, z) for x, y in loop for z in (0.0, thickness)]) for loop in loops if loop)


def _edges(loop: Flat) -> list[tuple[Corner, Corner]]:
    return [(a, b) for a, b in zip(loop, [*loop[1:], loop[0]], strict=True)]


def _from(loop: Flat, corner: Corner) -> list[Corner]:
    at = list(loop).index(corner)
    return [*loop[at:], *loop[:at]]


def _turns_left(a: Corner, b: Corner, c: Corner) -> bool:
    return (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]) >= 0


def _against_clock(loop: list[Corner]) -> list[Corner]:
    a, b, c = loop
    return loop if _turns_left(a, b, c) else [a, c, b]


def split(solid: Solid) -> tuple[Convex, ...]:
    """A solid cut by planes across its axes, each piece taken as its hull, until the hulls hold little more than it."""
    pieces = [(solid, solid.hull().volume())]
    whole = solid.volume()
    while len(pieces) < _SPLITS and _held(pieces) > _TIGHT * whole:
        worst = max(range(len(pieces)), key=lambda n: pieces[n][1] - pieces[n][0].volume())
        pieces[worst : worst + 1] = _best_cut(*pieces[worst])
    return tuple(_hull_of(piece) for piece, _ in pieces)


def _best_cut(solid: Solid, hull: float) -> list[tuple[Solid, float]]:
    """The pieces whose hulls hold least, each with what its hull holds. Where no cut helps at once, as with a ring, the
    longest side is halved, and the cuts after it help.
    """
    bounds = np.array(solid.bounding_box())
    sides = bounds[3:] - bounds[:3]
    cuts = [(axis, share) for axis in range(3) for share in _CUTS]
    tried = [_cut(solid, axis, bounds[axis] + share * sides[axis]) for axis, share in cuts]
    best = min(tried, key=_held)
    return best if _held(best) < hull * _HELPS else tried[cuts.index((int(sides.argmax()), 0.5))]


def _cut(solid: Solid, axis: int, at: float) -> list[tuple[Solid, float]]:
    normal = [float(axis == n) for n in range(3)]
    return [(half, half.hull().volume()) for half in solid.split_by_plane(normal, at) if not half.is_empty()]


def _held(pieces: list[tuple[Solid, float]]) -> float:
    return sum(hull for _, hull in pieces)


def _hull_of(solid: Solid) -> Convex:
    hull = solid.hull()
    bounds = np.array(hull.bounding_box())
    slack = float((bounds[3:] - bounds[:3]).max()) * _THIN
    thinned = hull.simplify(slack)
    thinned, slack = (hull, 0.0) if thinned.is_empty() else (thinned, slack)
    points = np.asarray(thinned.to_mesh64().vert_properties)[:, :3].astype(float)
    return Convex(points, np.broadcast_to(np.eye(3) * slack, (len(points), 3, 3)).copy())
