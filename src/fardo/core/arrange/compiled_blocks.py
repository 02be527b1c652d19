"""The loops of `blocks`, compiled as those in `compiled` are."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from fardo.core.arrange.compiled import compiled

Ints = NDArray[np.int64]

_MOST_SPACES = 4000


@compiled
def _split(spaces: Ints, many: int, low: Ints, high: Ints, least: Ints) -> int:
    """Cuts what a block takes out of every space, and keeps the largest of what is left; how many there are then.

    Args:
        spaces: (n, 6), from and to.
        many: of them count.
        least: no side of anything left is shorter.
    """
    count = many
    for s in range(many):
        apart = False
        for axis in range(3):
            if low[axis] >= spaces[s, 3 + axis] or high[axis] <= spaces[s, axis]:
                apart = True
        if apart:
            continue
        for axis in range(3):
            for end in range(2):
                begins = spaces[s, axis] if end == 0 else high[axis]
                ends = low[axis] if end == 0 else spaces[s, 3 + axis]
                if ends - begins < least[axis] or count >= len(spaces):
                    continue
                for one in range(6):
                    spaces[count, one] = spaces[s, one]
                spaces[count, axis], spaces[count, 3 + axis] = begins, ends
                count += 1
        spaces[s, 3] = -1  # is cut up
    # Without those cut up, and those that lie within another.
    left = 0
    for s in range(count):
        if spaces[s, 3] < 0:
            continue
        within = False
        if s >= many:  # an old one lies within no other
            for other in range(count):
                if other == s or spaces[other, 3] < 0:
                    continue
                inside = True
                for axis in range(3):
                    if spaces[s, axis] < spaces[other, axis] or spaces[s, 3 + axis] > spaces[other, 3 + axis]:
                        inside = False
                        break
                if inside:
                    equal = True
                    for one in range(6):
                        equal = equal and spaces[s, one] == spaces[other, one]
                    if not equal or other < s:
                        within = True
                        break
        if within:
            spaces[s, 3] = -1
    for s in range(count):
        if spaces[s, 3] >= 0:
            if left != s:
                for one in range(6):
                    spaces[left, one] = spaces[s, one]
            left += 1
    return left


@compiled
def _start(
    room: Ints, sizes: Ints, ways: Ints, counts: Ints, greed: float, fit: bool, placed: Ints, spaces: Ints
) -> tuple[int, float]:
    """One start; how many blocks were laid into `placed`, and how much they fill.

    Args:
        greed: 0 to 1, by how much of its worth a block may be taken as worse than it is.
        fit: whether the block that fills its space best along its sides is better than the one that fills most of it.
    """
    kinds = len(counts)
    left = counts.copy()
    low, high, least = np.zeros(3, np.int64), np.zeros(3, np.int64), np.zeros(3, np.int64)
    for axis in range(3):
        spaces[0, axis], spaces[0, 3 + axis] = 0, room[axis]
    many, laid, filled = 1, 0, 0.0
    while many > 0:
        for axis in range(3):
            least[axis] = 1 << 62
        for k in range(kinds):
            if left[k]:
                for s in range(ways[k]):
                    for axis in range(3):
                        least[axis] = min(least[axis], sizes[k, s, axis])
        if least[0] == 1 << 62:
            break
        # The lowest; of those the furthest back, then the leftmost; of equals the largest.
        best = -1
        for s in range(many):
            if best < 0:
                best = s
                continue
            a, b = spaces[s], spaces[best]
            if a[2] != b[2]:
                first = a[2] < b[2]
            elif a[0] != b[0]:
                first = a[0] < b[0]
            elif a[1] != b[1]:
                first = a[1] < b[1]
            else:
                first = (
                    float(a[3] - a[0]) * (a[4] - a[1]) * (a[5] - a[2])
                    > float(b[3] - b[0]) * (b[4] - b[1]) * (b[5] - b[2])
                )  # fmt: skip
            if first:
                best = s
        x, y, z = spaces[best, 0], spaces[best, 1], spaces[best, 2]
        dx, dy, dz = spaces[best, 3] - x, spaces[best, 4] - y, spaces[best, 5] - z
        found, most, most_volume = 0, -np.inf, 0.0
        k_of = s_of = nx_of = ny_of = nz_of = 0
        for k in range(kinds):
            if not left[k]:
                continue
            for s in range(ways[k]):
                a, b, c = sizes[k, s, 0], sizes[k, s, 1], sizes[k, s, 2]
                if a > dx or b > dy or c > dz:
                    continue
                # Rows first along each pair of axes, then layers of them.
                for order in range(6):
                    n = left[k]
                    fx, fy, fz = dx // a, dy // b, dz // c
                    nx = ny = nz = 1
                    for step in range(3):
                        axis = (order // 2 + step * (1 + order % 2)) % 3
                        if axis == 0:
                            nx = min(fx, n)
                            n //= nx
                        elif axis == 1:
                            ny = min(fy, n)
                            n //= ny
                        else:
                            nz = min(fz, n)
                            n //= nz
                    volume = float(nx * a) * (ny * b) * (nz * c)
                    if fit:
                        p, q, r = dx - nx * a, dy - ny * b, dz - nz * c
                        short, long = min(p, q, r), max(p, q, r)
                        over = float(short) + float(p + q + r - short - long) * 1e-3 + float(long) * 1e-6
                        score = -over * (1.0 + 10.0 * greed * np.random.random()) - greed * np.random.random() * dx
                    else:
                        score = volume * (1.0 - greed * np.random.random())
                    if not found or score > most or (score == most and volume > most_volume):
                        most, most_volume = score, volume
                        k_of, s_of, nx_of, ny_of, nz_of = k, s, nx, ny, nz
                    found += 1
        if found == 0:
            many -= 1
            for one in range(6):
                spaces[best, one] = spaces[many, one]
            continue
        k, s, nx, ny, nz = k_of, s_of, nx_of, ny_of, nz_of
        low[0], low[1], low[2] = x, y, z
        high[0], high[1], high[2] = x + nx * sizes[k, s, 0], y + ny * sizes[k, s, 1], z + nz * sizes[k, s, 2]
        left[k] -= nx * ny * nz
        filled += float(high[0] - x) * (high[1] - y) * (high[2] - z)
        placed[laid, 0], placed[laid, 1] = k, s
        placed[laid, 2], placed[laid, 3], placed[laid, 4] = x, y, z
        placed[laid, 5], placed[laid, 6], placed[laid, 7] = nx, ny, nz
        laid += 1
        many = _split(spaces, many, low, high, least)
    return laid, filled


@compiled
def fullest(room: Ints, sizes: Ints, ways: Ints, counts: Ints, starts: int, seed: int) -> Ints:
    """The blocks of the start that fills most: kind, way to stand, lowest corner, how many along each axis.

    Args:
        room: (3,).
        sizes: (kinds, ways, 3).
        ways, counts: (kinds,).
        starts: how many are tried; the first two are the plain ones.
    """
    np.random.seed(seed)
    most = counts.sum()
    placed, best = np.zeros((most, 8), np.int64), np.zeros((most, 8), np.int64)
    spaces = np.zeros((_MOST_SPACES, 6), np.int64)
    laid, filled = 0, -1.0
    for start in range(starts):
        greed = 0.0 if start < 2 else 0.1 + 0.4 * np.random.random()
        many, volume = _start(room, sizes, ways, counts, greed, start % 2 == 1, placed, spaces)
        if volume > filled:
            laid, filled = many, volume
            best[:many] = placed[:many]
    return best[:laid].copy()
