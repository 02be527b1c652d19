"""The room that is left between things: where fill goes."""

from __future__ import annotations

import numpy as np

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import pieces_of, stance
from fardo.core.arrange.nofit import Cells, mark
from fardo.core.goods.shape.cover import Floats


def empty_cells(ask: Ask, answer: Arrangement, step: float) -> Cells:
    """The inside in cells of `step` mm from its lowest corner: those that no wrapped thing touches. What is left of a
    cell at the far walls is not counted.
    """
    touched = np.zeros([max(1, int(side.mm // step)) for side in answer.inside], dtype=bool)
    for body, laid in zip(ask.bodies, answer.laid, strict=True):
        if laid is None:
            continue
        inset = stance(body, laid.turn).inset
        at = [corner.mm + by.mm for corner, by in zip(laid.at, inset, strict=True)]
        for piece in pieces_of(body.shape, body.grown, body.held):
            mark(touched, piece.moved(laid.turn, at), body.round, step)
    return ~touched


def fill_points(ask: Ask, answer: Arrangement, most: int) -> tuple[Floats, float]:
    """Middles of empty cells, at most so many, from the floor upwards, (n, 3) mm; and the side of a cell, mm."""
    room = float(np.prod([side.mm for side in answer.inside]))
    step = (room / most) ** (1 / 3)
    cells = np.argwhere(empty_cells(ask, answer, step))
    upwards = cells[np.argsort(cells[:, 2], kind="stable")]
    return (upwards + 0.5) * step, step
