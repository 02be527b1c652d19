"""The drawing of a trough, inner face up: a base with four walls, its corners cut out."""

from __future__ import annotations

from fardo.core.cut.drawing import Blank, Dimension, Line, Note, Point, cut_along
from fardo.core.quantity import ZERO, Length


def draw_trough(name: str, base: Point, wall: Length, second: Length | None) -> Blank:
    """A base with four walls, its corners cut out; `second` is the distance of a second score from each edge."""
    x0, x1, x2, x3 = ZERO, wall, wall + base[0], wall * 2 + base[0]
    y0, y1, y2, y3 = ZERO, wall, wall + base[1], wall * 2 + base[1]
    outline = (
        (x1, y0), (x2, y0), (x2, y1), (x3, y1), (x3, y2), (x2, y2),
        (x2, y3), (x1, y3), (x1, y2), (x0, y2), (x0, y1), (x1, y1),
    )  # fmt: skip
    lines = [
        *cut_along(outline),
        Line("score", (x1, y1), (x2, y1)), Line("score", (x1, y2), (x2, y2)),
        Line("score", (x1, y1), (x1, y2)), Line("score", (x2, y1), (x2, y2)),
    ]  # fmt: skip
    dimensions = [
        Dimension((x0, y3), (x3, y3), "above", 1), Dimension((x3, y0), (x3, y3), "right", 1),
        *(Dimension((a, y0), (b, y0), "below", 1) for a, b in ((x0, x1), (x1, x2), (x2, x3))),
        *(Dimension((x0, a), (x0, b), "left", 1) for a, b in ((y0, y1), (y1, y2), (y2, y3))),
    ]  # fmt: skip
    if second is not None:
        far_x, far_y = x3 - second, y3 - second
        lines += [
            Line("second-score", (x1, second), (x2, second)), Line("second-score", (x1, far_y), (x2, far_y)),
            Line("second-score", (second, y1), (second, y2)), Line("second-score", (far_x, y1), (far_x, y2)),
        ]  # fmt: skip
        dimensions += [
            Dimension((x0, y3), (second, y3), "above", 2), Dimension((x3, y0), (x3, second), "right", 2),
        ]  # fmt: skip
    middle = (x3.half(), y3.half())
    notes = (Note(middle, "inside face up"),)
    return Blank(name, (x3, y3), outline, tuple(lines), tuple(dimensions), notes, "either way")
