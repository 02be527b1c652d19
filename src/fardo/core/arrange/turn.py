"""How a thing may be turned: the 24 turns about its axes, and turns by any angle in a plane."""

from __future__ import annotations

import math
from itertools import permutations, product
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

Rotation = tuple[tuple[float, float, float], tuple[float, float, float], tuple[float, float, float]]
Row = tuple[int, int, int]
Turn = tuple[Row, Row, Row]
Side = TypeVar("Side")
_CLOSE = 1e-9
UNTURNED: Turn = ((1, 0, 0), (0, 1, 0), (0, 0, 1))
QUARTER: Turn = ((0, 1, 0), (-1, 0, 0), (0, 0, 1))
# A quarter against the clock about each axis.
QUARTERS: tuple[Turn, Turn, Turn] = (
    ((1, 0, 0), (0, 0, -1), (0, 1, 0)), ((0, 0, 1), (0, 1, 0), (-1, 0, 0)), ((0, -1, 0), (1, 0, 0), (0, 0, 1)),
)  # fmt: skip


def _all_turns() -> tuple[Turn, ...]:
    found: list[Turn] = []
    for way in permutations(range(3)):
        for signs in product((1, -1), repeat=3):
            a, b, c = (_row(axis, sign) for axis, sign in zip(way, signs, strict=True))
            if determinant((a, b, c)) > 0:
                found.append((a, b, c))
    return tuple(sorted(found, key=lambda turn: (turn != UNTURNED, turn[2] != (0, 0, 1), turn)))


def _row(axis: int, sign: int) -> Row:
    a, b, c = (sign if n == axis else 0 for n in range(3))
    return a, b, c


def determinant(m: Rotation | Turn) -> float:
    (a, b, c), (d, e, f), (g, h, i) = m
    return a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)


# The first is no turn at all; those that keep what is up come before the rest.
TURNS = _all_turns()
STANDING = tuple(turn for turn in TURNS if turn[2] == (0, 0, 1))
LEVEL = tuple(turn for turn in TURNS if turn[2] in ((0, 0, 1), (0, 0, -1)))


def turned_sizes(sizes: tuple[Side, Side, Side], by: Turn) -> tuple[Side, Side, Side]:
    """The sides of a box after one of the 24 turns."""
    a, b, c = (sizes[k] for k in axes_of(by))
    return a, b, c


def axes_of(turn: Turn) -> Row:
    """For each axis which one lies along it after the turn."""
    a, b, c = (next(k for k in range(3) if row[k]) for row in turn)
    return a, b, c


def about(axis: int, degrees: float) -> Rotation:
    """A turn against the clock about an axis, seen from its end."""
    cos, sin = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    u, v = (axis + 1) % 3, (axis + 2) % 3
    rows = [[float(r == c) for c in range(3)] for r in range(3)]
    rows[u][u], rows[u][v], rows[v][u], rows[v][v] = cos, -sin, sin, cos
    a, b, c = ((row[0], row[1], row[2]) for row in rows)
    return a, b, c


def after(second: Rotation | Turn, first: Rotation | Turn) -> Rotation:
    """Both, the first and then the second."""
    rows = [[sum(second[r][k] * first[k][c] for k in range(3)) for c in range(3)] for r in range(3)]
    a, b, c = ((row[0], row[1], row[2]) for row in rows)
    return a, b, c


def as_rotation(matrix: Rotation) -> Rotation | None:
    """The rotation a matrix says; what is one of the 24 but for the noise of decimals is that one. None for what is
    none.
    """
    for square in TURNS:
        off = max(abs(matrix[r][c] - square[r][c]) for r in range(3) for c in range(3))
        if off < _CLOSE:
            return square
    for i in range(3):
        for j in range(3):
            if abs(sum(a * b for a, b in zip(matrix[i], matrix[j], strict=True)) - (i == j)) > _CLOSE:
                return None
    return matrix if determinant(matrix) > 0 else None


def is_square(turn: Rotation | Turn) -> bool:
    """Whether it is one of the 24, so that what was along an axis still is."""
    return all(entry in (-1, 0, 1) for row in turn for entry in row)


def carried(array: NDArray[np.bool_], turn: Turn) -> NDArray[np.bool_]:
    """A grid of cells about its middle as the turn leaves it."""
    from_axis = axes_of(turn)
    signs = [row[k] for row, k in zip(turn, from_axis, strict=True)]
    moved = array.transpose(from_axis)
    back = tuple(slice(None, None, sign) for sign in signs)
    return np.ascontiguousarray(moved[back])
