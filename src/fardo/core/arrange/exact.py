"""From millimetres in floats to whole nanometres: what touches a wall or another thing along an axis touches
exactly.
"""

from __future__ import annotations

import numpy as np

from fardo.core.arrange.body import NM
from fardo.core.arrange.compact import SNAP, Compactor
from fardo.core.goods.part import Sizes
from fardo.core.goods.shape.cover import Floats
from fardo.core.goods.shape.shape import outward
from fardo.core.quantity import Length

_ALONG = 1 - 1e-9


def snapped(settler: Compactor, at: Floats) -> list[Sizes]:
    """Lowest corners to the nanometre, moved by less than a micrometre: no rounding is left in a chain of contacts."""
    rows = settler.rows(at)
    exact = np.empty(at.shape, dtype=np.int64)
    for axis in range(3):
        touching: list[list[tuple[int, int]]] = [[] for _ in at]
        for a, b, direction, least in zip(rows.a, rows.b, rows.directions, rows.least, strict=True):
            if abs(direction[axis]) > _ALONG:
                later, earlier = (a, b) if direction[axis] > 0 else (b, a)
                touching[later].append((int(earlier), outward(float(least) * NM)))
        for n in np.argsort(at[:, axis], kind="stable"):
            here = round(float(at[n, axis]) * NM)
            places = [settler.stances[n].before[axis].nm, *(int(exact[m, axis]) + least for m, least in touching[n])]
            close = [place for place in places if abs(place - here) <= SNAP * NM]
            exact[n, axis] = max(close, default=here)
    return [_sizes(row) for row in exact]


def _sizes(row: Floats) -> Sizes:
    return Length(int(row[0])), Length(int(row[1])), Length(int(row[2]))
