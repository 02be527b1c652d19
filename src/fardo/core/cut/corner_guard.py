"""The drawing of a corner guard: a square of board with its two pairs of lines and the square cut out of its corner."""

from __future__ import annotations

from itertools import pairwise

from fardo.core.cut.drawing import Blank, Dimension, Line, Note, Point, cut_along
from fardo.core.protect.forms.corner import CornerGuard
from fardo.core.quantity import ZERO


def draw_guard(guard: CornerGuard, name: str = "corner guard") -> Blank:
    """The square that a corner guard is folded from.

    >>> from fardo.core.protect.forms.corner import corner_guard
    >>> from fardo.core.quantity import Length
    >>> blank = draw_guard(corner_guard(Length.of_inches("1.5"), Length.of_inches(4)))
    >>> [float(side.inches) for side in blank.size], len([line for line in blank.lines if line.kind == "score"])
    ([7.0, 7.0], 4)
    """
    side, out = guard.side, guard.cut_out
    outline: tuple[Point, ...] = (
        (out, ZERO), (side, ZERO), (side, side), (ZERO, side), (ZERO, out), (out, out),
    )  # fmt: skip
    lines = list(cut_along(outline))
    for at in guard.lines:
        lines.append(Line("score", (at, out), (at, side)))
        lines.append(Line("score", (out, at), (side, at)))
    marks = (ZERO, *guard.lines, side)
    dimensions = [
        *(Dimension((a, ZERO), (b, ZERO), "below", 1) for a, b in pairwise(marks)),
        *(Dimension((ZERO, a), (ZERO, b), "left", 1) for a, b in pairwise(marks)),
        Dimension((ZERO, side), (side, side), "above", 1),
        Dimension((side, ZERO), (side, side), "right", 1),
    ]
    middle = (out + side).half()
    return Blank(
        name, (side, side), outline, tuple(lines), tuple(dimensions), (Note((middle, middle), "face"),),
        "along the blank",
    )  # fmt: skip
