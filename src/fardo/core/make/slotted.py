"""A slotted case cut from one sheet: the form FEFCO-ESBO code 0201, its panels glue tab, L, W, L, W.

Score to score L + t, W + t, the last panel W + t/2 as it ends in a cut edge; body H + 2t, as two flaps lie on each
other above and below; flaps half of W + t, so that the outer ones meet. Hence outside = inside + 2t, 2t, 4t.
The form is published (FEFCO-ESBO code, from memory); the allowances are common practice.
"""

from __future__ import annotations

from fractions import Fraction
from itertools import pairwise

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank, Dimension, Line, Note, Point, cut_along
from fardo.core.cut.fence import FenceSetting
from fardo.core.goods.part import Sizes
from fardo.core.make.made import Allowances, Made, School, check_inside
from fardo.core.quantity import INCH, Length
from fardo.core.why import Why

NAME, TITLE = "slotted", "Slotted case, cut from sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(12)  # starting value: one blank, but eight slots and a glued seam

_FORM = "form FEFCO-ESBO 0201; allowances common practice"
_NOTHING = Length(0)
_TAPE_DOWN_THE_SIDE = INCH * 3


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """The blank for an inside size, and the case it makes. The longer side of the opening is taken as the length.

    Raises: BadInput for a size out of range.
    """
    check_inside(inside)
    t = grade.caliper
    needed = (max(inside[:2]), min(inside[:2]), inside[2])
    long, short = allowances.at_least(needed[0] + t), allowances.at_least(needed[1] + t)
    last = allowances.at_least(needed[1] + t.half())
    body = allowances.at_least(needed[2] + t * 2)
    flap = allowances.at_least(short.half())
    blank = _case(allowances.tab, long, short, last, flap, body)
    outside = (long + t, short + t, body + t * 2)
    told = (
        ("inside length L", needed[0]),
        ("inside width W", needed[1]),
        ("inside height H", needed[2]),
        ("caliper t", t),
    )
    notes = () if needed[:2] == inside[:2] else ("Turned so that the longer side of the opening is the length.",)
    return Made(
        way=NAME, school="exact", grade=grade, needed=needed, inside=(long - t, short - t, body - t * 2),
        outside=outside, blanks=(blank,), fence=_fence(blank, allowances.tab, long, short, flap),
        # Three strips over the top and three under the bottom, each a hand down the sides, and the seam.
        tape=(outside[0] + _TAPE_DOWN_THE_SIDE * 2) * 2 + (outside[1] + _TAPE_DOWN_THE_SIDE * 2) * 4 + body,
        minutes=MINUTES,
        whys={
            "blank": Why("tab + 2(L + t) + (W + t) + (W + t/2); H + 2t, flaps (W + t)/2 above and below", told, _FORM),
            "inside": Why("score to score - caliper; body - 2 calipers", told, "the flaps lie double above and below"),
            "outside": Why("inside + 2t, + 2t, + 4t", told, _FORM),
        },
        notes=notes,
    )  # fmt: skip


def _case(tab: Length, long: Length, short: Length, last: Length, flap: Length, body: Length) -> Blank:
    x1 = tab
    x2, x3, x4 = x1 + long, x1 + long + short, x1 + long * 2 + short
    x5 = x4 + last
    y1, y2, y3 = flap, flap + body, flap * 2 + body
    taper = Length(min(tab.nm, body.nm // 4) // 2)  # keeps the tab clear of the flaps
    outline: tuple[Point, ...] = (
        (x1, _NOTHING), (x5, _NOTHING), (x5, y3), (x1, y3),
        (x1, y2), (_NOTHING, y2 - taper), (_NOTHING, y1 + taper), (x1, y1),
    )  # fmt: skip
    lines = [*cut_along(outline)]
    for y in (y1, y2):
        lines += [Line("score", (a, y), (b, y)) for a, b in ((x1, x2), (x2, x3), (x3, x4), (x4, x5))]
    lines += [Line("score", (x, y1), (x, y2)) for x in (x1, x2, x3, x4)]
    for x in (x2, x3, x4):
        lines += [Line("slot", (x, _NOTHING), (x, y1)), Line("slot", (x, y2), (x, y3))]
    across = (_NOTHING, x1, x2, x3, x4, x5)
    # Chains stand outermost on sides of their own, where narrow panels' figures have room.
    dimensions = [
        Dimension((_NOTHING, _NOTHING), (x5, _NOTHING), "below", 1),
        *(Dimension((a, y3), (b, y3), "above", 1) for a, b in pairwise(across)),
        Dimension((_NOTHING, _NOTHING), (_NOTHING, y3), "left", 1),
        *(Dimension((x5, a), (x5, b), "right", 1) for a, b in ((_NOTHING, y1), (y1, y2), (y2, y3))),
    ]
    middle = (y1 + y2).half()
    notes = [Note(((a + b).half(), middle), word) for word, a, b in zip("LWLW", across[1:], across[2:], strict=False)]
    notes.append(Note(((x1 + x2).half(), Length((y1.nm + 3 * y2.nm) // 4)), "inside face up"))
    return Blank("case", (x5, y3), outline, tuple(lines), tuple(dimensions), tuple(notes), "across the blank")


def _fence(blank: Blank, tab: Length, long: Length, short: Length, flap: Length) -> tuple[FenceSetting, ...]:
    corners = (tab, tab + long, tab + long + short, tab + long * 2 + short)
    return (
        FenceSetting(blank.size[0], "through", "length of the blank", 1),
        FenceSetting(blank.size[1], "through", "width of the blank", 1),
        FenceSetting(flap, "score, inner face", "flaps, from both long edges", 2),
        *(FenceSetting(x, "score, inner face", f"corner {n}, from the tab's end", 1) for n, x in enumerate(corners, 1)),
        *(FenceSetting(x, "slot", f"corner {n}, both ends, up to the flap score", 2)
          for n, x in enumerate(corners[1:], 2)),
        FenceSetting(tab, "knife", "flap waste beside the tab off, tab ends tapered", 4),
    )  # fmt: skip
