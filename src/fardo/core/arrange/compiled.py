"""The loops of `apart` and `boxes`, compiled: a search asks for the furthest direction of a million pairs of pieces,
and most of that time went into handing small arrays from one array operation to the next.

Compiled code is kept beside this file, or in the user's cache where that cannot be written to. It loads slowly, so who
needs it imports it there; `warm` has all of it ready before somebody waits.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any, TypeVar

import numpy as np
from numpy.typing import NDArray

if TYPE_CHECKING:
    Function = TypeVar("Function", bound=Callable[..., Any])

    def compiled(function: Function) -> Function:
        """As numba has it, which comes without types."""
        return function
else:
    from numba import njit

    def compiled(function):
        """Compiled when it is first called, and kept for the next process where that can be."""
        try:
            return njit(cache=True)(function)
        except RuntimeError:  # there is no place to keep it in
            return njit(function)


Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_ROUNDS = 24
_GAIN = 0.02  # mm, below the finest anyone measures
_MEETS = 1e-12  # mm2
_TOUCHING = 0.05  # mm
_LEVEL = 1e-12


@compiled
def usual_best(
    shift: Floats, reach_a: Floats, reach_b: Floats, directions: Floats, opposite: Ints, a: Ints, b: Ints, level: Any
) -> tuple[Ints, Floats]:
    """Of the usual directions that do not point down the one along which each pair is furthest apart, and how far, mm.

    Args:
        shift: (k, 3).
        reach_a, reach_b: (p, directions) of all pieces.
        a, b: (k,).
        level: (k,) bool.
    """
    count = len(a)
    best, apart = np.zeros(count, np.int64), np.full(count, -np.inf)
    for k in range(count):
        x, y, z = shift[k, 0], shift[k, 1], shift[k, 2]
        for n in range(len(directions)):
            up = directions[n, 2]
            if up < -_LEVEL or (level[k] and up > _LEVEL):
                continue
            along = x * directions[n, 0] + y * directions[n, 1] + z * up
            between = along - reach_a[a[k], opposite[n]] - reach_b[b[k], n]
            if between > apart[k]:
                apart[k], best[k] = between, n
    return best, apart


@compiled
def _furthest_point(
    piece: int, x: float, y: float, z: float, points: Floats, corners: Ints, round_: Ints, middles: Floats,
    swell: Floats, out: Floats,
) -> None:  # fmt: skip
    """Of a piece the point that is furthest along (x, y, z), into `out`."""
    row = round_[piece]
    if row < 0:
        best, most = 0, -np.inf
        for m in range(corners[piece]):
            along = points[piece, m, 0] * x + points[piece, m, 1] * y + points[piece, m, 2] * z
            if along > most:
                best, most = m, along
        for i in range(3):
            out[i] = points[piece, best, i]
        return
    best, most = 0, -np.inf
    for m in range(corners[piece]):
        wide = 0.0
        for i in range(3):
            seen = swell[row, m, 0, i] * x + swell[row, m, 1, i] * y + swell[row, m, 2, i] * z
            wide += seen * seen
        along = middles[row, m, 0] * x + middles[row, m, 1] * y + middles[row, m, 2] * z + np.sqrt(wide)
        if along > most:
            best, most = m, along
    wide = 0.0
    for i in range(3):
        seen = swell[row, best, 0, i] * x + swell[row, best, 1, i] * y + swell[row, best, 2, i] * z
        wide += seen * seen
    wide = np.sqrt(wide)
    for j in range(3):
        out[j] = middles[row, best, j]
    if wide > 0:
        for i in range(3):
            seen = swell[row, best, 0, i] * x + swell[row, best, 1, i] * y + swell[row, best, 2, i] * z
            for j in range(3):
                out[j] += swell[row, best, j, i] * seen / wide


@compiled
def _ahead(
    a: int, b: int, shift: Floats, d: Floats, points: Floats, corners: Ints, round_: Ints, middles: Floats,
    swell: Floats, out: Floats, other: Floats,
) -> None:  # fmt: skip
    """From the furthest of b to the least of a along d, into `out`."""
    _furthest_point(a, -d[0], -d[1], -d[2], points, corners, round_, middles, swell, out)
    _furthest_point(b, d[0], d[1], d[2], points, corners, round_, middles, swell, other)
    for i in range(3):
        out[i] += shift[i] - other[i]


@compiled
def _nearest_of(newest: Floats, kept: Floats, counts: Any, point: Floats) -> None:
    """The point nearest to nothing of the hull of `newest` and those of `kept` that count, into `point`; what it takes
    of them is left in `counts`. The normal equations of each choice, solved outright.
    """
    e = np.empty((3, 3))
    p = np.empty(3)
    g = np.empty((3, 3))
    for m in range(3):
        for i in range(3):
            e[m, i] = kept[m, i] - newest[i]
    for m in range(3):
        p[m] = -(e[m, 0] * newest[0] + e[m, 1] * newest[1] + e[m, 2] * newest[2])
        for n in range(3):
            g[m, n] = e[m, 0] * e[n, 0] + e[m, 1] * e[n, 1] + e[m, 2] * e[n, 2]
    least = newest[0] ** 2 + newest[1] ** 2 + newest[2] ** 2
    best = np.zeros(3)
    taken = 0
    for choice in range(1, 8):
        one, two, three = choice & 1, choice & 2, choice & 4
        if (one and not counts[0]) or (two and not counts[1]) or (three and not counts[2]):
            continue
        s = np.zeros(3)
        if choice == 7:
            of_bc = g[1, 1] * g[2, 2] - g[1, 2] * g[1, 2]
            of_ac = g[0, 0] * g[2, 2] - g[0, 2] * g[0, 2]
            of_ab = g[0, 0] * g[1, 1] - g[0, 1] * g[0, 1]
            ka = g[0, 1] * g[2, 2] - g[0, 2] * g[1, 2]
            kb = g[0, 1] * g[1, 2] - g[0, 2] * g[1, 1]
            kc = g[0, 0] * g[1, 2] - g[0, 1] * g[0, 2]
            whole = g[0, 0] * of_bc - g[0, 1] * ka + g[0, 2] * kb
            if whole == 0.0:
                continue
            s[0] = (p[0] * of_bc - p[1] * ka + p[2] * kb) / whole
            s[1] = (p[1] * of_ac - p[0] * ka - p[2] * kc) / whole
            s[2] = (p[2] * of_ab + p[0] * kb - p[1] * kc) / whole
        elif choice == 1 or choice == 2 or choice == 4:
            m = 0 if one else 1 if two else 2
            if g[m, m] == 0.0:
                continue
            s[m] = p[m] / g[m, m]
        else:
            m = 0 if one else 1
            n = 1 if two and one else 2
            of = g[m, m] * g[n, n] - g[m, n] * g[m, n]
            if of == 0.0:
                continue
            s[m] = (p[m] * g[n, n] - p[n] * g[m, n]) / of
            s[n] = (p[n] * g[m, m] - p[m] * g[m, n]) / of
        if s[0] < 0 or s[1] < 0 or s[2] < 0 or not s[0] + s[1] + s[2] <= 1:
            continue
        squares = 0.0
        for i in range(3):
            at = newest[i] + s[0] * e[0, i] + s[1] * e[1, i] + s[2] * e[2, i]
            squares += at * at
        if squares < least:
            least, taken = squares, choice
            best[0], best[1], best[2] = s[0], s[1], s[2]
    for i in range(3):
        point[i] = newest[i] + best[0] * e[0, i] + best[1] * e[1, i] + best[2] * e[2, i]
    counts[0], counts[1], counts[2] = bool(taken & 1), bool(taken & 2), bool(taken & 4)


@compiled
def _nearest(
    a: int, b: int, shift: Floats, start: Floats, flat: bool, points: Floats, corners: Ints, round_: Ints,
    middles: Floats, swell: Floats, best: Floats,
) -> float:  # fmt: skip
    """Towards the point of the difference of the two that is nearest to nothing; seen from above where `flat`.

    A few points of the difference are kept, the fewest whose hull holds the nearest point found so far; the next is the
    furthest against the way to it. The best direction goes into `best`; how far apart they are along it is given back.
    """
    ahead, other, point, direction = np.empty(3), np.empty(3), np.empty(3), np.empty(3)
    kept, counts = np.empty((3, 3)), np.array([True, False, False])
    for i in range(3):
        best[i] = start[i]
        direction[i] = start[i]
    if flat:
        direction[2] = 0.0
    apart = -np.inf
    _ahead(a, b, shift, direction, points, corners, round_, middles, swell, point, other)
    if flat:
        point[2] = 0.0
    for m in range(3):
        for i in range(3):
            kept[m, i] = point[i]
    for _ in range(_ROUNDS):
        length = np.sqrt(point[0] ** 2 + point[1] ** 2 + point[2] ** 2)
        for i in range(3):
            direction[i] = point[i] / length if length > 0 else point[i]
        _ahead(a, b, shift, direction, points, corners, round_, middles, swell, ahead, other)
        if flat:
            ahead[2] = 0.0
        # Where the two meet there is no way between them, and so no direction that proves anything.
        if length > _MEETS:
            along = direction[0] * ahead[0] + direction[1] * ahead[1] + direction[2] * ahead[2]
            if along > apart:
                apart = along
                for i in range(3):
                    best[i] = direction[i]
        _nearest_of(ahead, kept, counts, point)
        free = 0 if not counts[0] else 1 if not counts[1] else 2
        for i in range(3):
            kept[free, i] = ahead[i]
        counts[free] = True
        # Where nothing is gained, or the pieces meet, there is nothing further to find.
        if not (length - apart > _GAIN and point[0] ** 2 + point[1] ** 2 + point[2] ** 2 > _MEETS):
            break
    return apart


@compiled
def furthest(
    a: Ints, b: Ints, shift: Floats, start: Floats, flat: bool, points: Floats, corners: Ints, round_: Ints,
    middles: Floats, swell: Floats, centres: Floats, pushes: Floats,
) -> tuple[Floats, Floats]:  # fmt: skip
    """The direction along which each pair is furthest apart, and how far, mm.

    Where two touch, or all but touch, the way between them no longer says where they part. They are moved a little from
    each other then, and the direction found so is tried where they are.

    Args:
        a, b: (k,) pieces.
        shift: (k, 3) of a, mm.
        start: (k, 3) directions to begin with.
        corners: (p,) how many points of each count.
        round_: (p,) row in the two that follow, -1 where it is all corners.
        middles: (r, m, 3), swell: (r, m, 3, 3), centres: (p, 3) mm.
        pushes: mm.
    """
    count = len(a)
    best, apart = np.empty((count, 3)), np.empty(count)
    found, away, moved, ahead, other = np.empty(3), np.empty(3), np.empty(3), np.empty(3), np.empty(3)
    for k in range(count):
        apart[k] = _nearest(
            a[k], b[k], shift[k], start[k], flat, points, corners, round_, middles, swell, best[k]
        )  # fmt: skip
        for push in pushes:
            if not apart[k] < _TOUCHING:
                break
            length = 0.0
            for i in range(3):
                away[i] = shift[k, i] + centres[a[k], i] - centres[b[k], i]
                if flat and i == 2:
                    away[i] = 0.0
                length += away[i] * away[i]
            length = np.sqrt(length)
            for i in range(3):
                away[i] = away[i] / length if length > 0 else away[i]
                moved[i] = shift[k, i] + away[i] * push
            _nearest(a[k], b[k], moved, away, flat, points, corners, round_, middles, swell, found)
            if found[0] ** 2 + found[1] ** 2 + found[2] ** 2 > 0.25:
                _ahead(a[k], b[k], shift[k], found, points, corners, round_, middles, swell, ahead, other)
                how_far = found[0] * ahead[0] + found[1] * ahead[1] + found[2] * ahead[2]
                if how_far > apart[k]:
                    apart[k] = how_far
                    for i in range(3):
                        best[k, i] = found[i]
    return best, apart


@compiled
def best_spot(
    spots: Ints, sizes: Ints, before: Ints, beyond: Ints, low: Ints, high: Ints, room: Ints, over: Any, under: Any,
    grown: Ints, limit: Ints, target: Floats, stretch: Floats, slim: float, pull: float, noise: Floats,
) -> tuple[int, int]:  # fmt: skip
    """Where a box goes so that all of it grows least: which way to stand and which spot; -1 where there is no place.

    Args:
        spots: (k, 3) lowest corners.
        sizes, before, beyond: (s, 3) of each way to stand, nm.
        low, high: (n, 3) of those that lie there, nm.
        room: (n,) kept to each, nm.
        over, under: (n,) bool, whether it may not lie over, or under it.
        grown: (3,) of all that lies there, nm.
        limit: (3,) of a given box, or nothing.
        target, stretch: (3,), slim, pull: of the aim, each for a millimetre.
        noise: (s,).
    """
    mm = 1e-6
    best_way, best_at, least = -1, -1, np.inf
    lies = len(low)
    for s in range(len(sizes)):
        for k in range(len(spots)):
            closed = False
            score = noise[s]
            for axis in range(3):
                corner = spots[k, axis]
                end = corner + sizes[s, axis]
                if corner < before[s, axis] or (len(limit) and end + beyond[s, axis] > limit[axis]):
                    closed = True
                    break
                reach = max(end + beyond[s, axis], grown[axis]) * mm
                counted = max(reach, target[axis])
                score += stretch[axis] * np.log(counted) + slim * counted + (corner + end) / 2 * mm * pull
            if closed or not score < least:
                continue
            for n in range(lies):
                level = False
                for axis in range(2):
                    corner = spots[k, axis]
                    level = (
                        level or corner >= high[n, axis] + room[n] or corner + sizes[s, axis] + room[n] <= low[n, axis]
                    )
                if level:
                    continue
                corner, end = spots[k, 2], spots[k, 2] + sizes[s, 2]
                if not (corner >= high[n, 2] + room[n] or end + room[n] <= low[n, 2]):
                    closed = True
                    break
                if (over[n] and corner >= high[n, 2]) or (under[n] and end <= low[n, 2]):
                    closed = True
                    break
            if not closed:
                best_way, best_at, least = s, k, score
    return best_way, best_at


def warm() -> None:
    """Calls each once, so that it is compiled, or loaded where it was kept."""
    none, one = np.zeros((1, 1, 3)), np.zeros(1, dtype=np.int64)
    point, flags = np.ones((1, 3)), np.zeros(1, dtype=bool)
    far = np.zeros((1, 1))
    usual_best(point, far, far, point, one, one, one, flags)
    swell = np.zeros((1, 1, 3, 3))
    furthest(one, one, point, point, False, none, one + 1, one - 1, none, swell, point, np.ones(1))
    whole = np.ones((1, 3), dtype=np.int64)
    nothing = np.zeros(0, dtype=np.int64)
    best_spot(whole, whole, whole, whole, whole, whole, one, flags, flags, whole[0], nothing, point[0], point[0],
              0.05, 0.005, np.zeros(1))  # fmt: skip
    from fardo.core.arrange.compiled_blocks import fullest

    fullest(whole[0], np.ones((1, 1, 3), dtype=np.int64), one + 1, one + 1, 1, 1)
