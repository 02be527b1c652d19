"""Hand holes, cut into the two end walls of a case."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

from fardo.core.cut.drawing import Blank, Dimension, Line
from fardo.core.quantity import INCH, Length

_HOLE = (INCH * 4, Length(INCH.nm * 5 // 4))  # across and deep: starting values
_HOLE_DOWN = INCH * 2


def hand_holes(blank: Blank) -> Blank | None:
    """The blank of a case with a hand hole in each W panel; None where it has none that is large enough.

    A hole is 4 in across and its upper edge 2 in below the top; its flap is cut on three sides, scored above and pushed
    in, so that nothing sharp is left (common practice; a hole weakens the wall it is in).
    """
    upright = sorted({line.start[0] for line in blank.lines if line.kind == "score" and line.start[0] == line.end[0]})
    level = sorted({line.start[1] for line in blank.lines if line.kind == "score" and line.start[1] == line.end[1]})
    walls = [(a, b) for a, b in pairwise((*upright, blank.size[0])) for note in blank.notes
             if note.text == "W" and a < note.at[0] < b]  # fmt: skip
    if not walls or not level:
        return None
    low, high = level[0], level[-1] if len(level) > 1 else blank.size[1]
    if high - low < _HOLE[1] + _HOLE_DOWN * 2 or min(b - a for a, b in walls) < _HOLE[0] + _HOLE_DOWN * 2:
        return None
    lines, dimensions = list(blank.lines), list(blank.dimensions)
    top = high - _HOLE_DOWN
    bottom = top - _HOLE[1]
    for left, right in walls:
        a = (left + right).half() - _HOLE[0].half()
        b = a + _HOLE[0]
        lines += [Line("score", (a, top), (b, top)), Line("cut", (a, top), (a, bottom)),
                  Line("cut", (a, bottom), (b, bottom)), Line("cut", (b, bottom), (b, top))]  # fmt: skip
        dimensions.append(Dimension((a, bottom), (b, bottom), "below", 0))
    return replace(blank, lines=tuple(lines), dimensions=tuple(dimensions))
