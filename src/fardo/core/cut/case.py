"""The drawing of a case in one piece, inner face up: glue tab, L, W, L, W along it, flaps below and above."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from fardo.core.cut.drawing import Blank, Dimension, Line, Note, Point, cut_along
from fardo.core.quantity import ZERO, Length


@dataclass(frozen=True, slots=True)
class CasePanels:
    """Score to score along the blank and across it; `above` is nothing where there are no flaps at the top.

    Args:
        last: the second W, which ends in a cut edge. old: corners that were scored before, from the tab's score; they
        stay in the walls as creases.
    """

    tab: Length
    long: Length
    short: Length
    last: Length
    body: Length
    below: Length
    above: Length
    old: tuple[Length, ...] = ()


def draw_case(name: str, panels: CasePanels) -> Blank:
    p = panels
    x1 = p.tab
    x2, x3, x4 = x1 + p.long, x1 + p.long + p.short, x1 + p.long * 2 + p.short
    x5 = x4 + p.last
    y1, y2, y3 = p.below, p.below + p.body, p.below + p.body + p.above
    taper = Length(min(p.tab.nm, p.body.nm // 4) // 2)  # keeps the tab clear of the flaps
    over = ((x1, y2),) if p.above.nm else ()
    outline: tuple[Point, ...] = (
        (x1, ZERO), (x5, ZERO), (x5, y3), (x1, y3), *over, (ZERO, y2 - taper), (ZERO, y1 + taper), (x1, y1),
    )  # fmt: skip
    lines = [*cut_along(outline)]
    for y in (y1, y2) if p.above.nm else (y1,):
        lines += [Line("score", (a, y), (b, y)) for a, b in ((x1, x2), (x2, x3), (x3, x4), (x4, x5))]
    lines += [Line("score", (x, y1), (x, y2)) for x in (x1, x2, x3, x4)]
    for x in (x2, x3, x4):
        lines.append(Line("slot", (x, ZERO), (x, y1)))
        if p.above.nm:
            lines.append(Line("slot", (x, y2), (x, y3)))
    lines += [Line("old-fold", (x1 + at, y1), (x1 + at, y2)) for at in p.old]
    across = (ZERO, x1, x2, x3, x4, x5)
    # Chains stand outermost on sides of their own, where narrow panels' figures have room.
    dimensions = [
        Dimension((ZERO, ZERO), (x5, ZERO), "below", 1),
        *(Dimension((a, y3), (b, y3), "above", 1) for a, b in pairwise(across)),
        Dimension((ZERO, ZERO), (ZERO, y3), "left", 1),
        *(Dimension((x5, a), (x5, b), "right", 1) for a, b in _steps((ZERO, y1, y2, y3))),
    ]
    middle = (y1 + y2).half()
    notes = [Note(((a + b).half(), middle), word) for word, a, b in zip("LWLW", across[1:], across[2:], strict=False)]
    notes.append(Note(((x1 + x2).half(), Length((y1.nm + 3 * y2.nm) // 4)), "inside face up"))
    return Blank(name, (x5, y3), outline, tuple(lines), tuple(dimensions), tuple(notes), "across the blank")


def _steps(marks: Sequence[Length]) -> list[tuple[Length, Length]]:
    return [(a, b) for a, b in pairwise(marks) if a != b]
