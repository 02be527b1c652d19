"""A slotted case cut from one sheet: the form FEFCO-ESBO code 0201, its panels glue tab, L, W, L, W.

Score to score L + t, W + t, the last panel W + t/2 as it ends in a cut edge; body H + 2t, as two flaps lie on each
other above and below; flaps half of W + t, so that the outer ones meet. A fence with steps may leave them a step apart:
too long they would ride on each other. Hence outside = inside + 2t, 2t, 4t.
The form is published (FEFCO-ESBO code, from memory); the allowances are common practice.
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.cut.case import CasePanels, case_fence, draw_case
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.assembly import glued_case
from fardo.core.make.made import Made, School, check_inside, long_side_first, turned_note
from fardo.core.make.stock import closing_tape
from fardo.core.quantity import Length
from fardo.core.why import Why

NAME, TITLE = "slotted", "Slotted case, cut from sheet"
FLAPS = "both"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(12)  # starting value: one blank, but eight slots and a glued seam

_FORM = "form FEFCO-ESBO 0201; allowances common practice"


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """The blank for an inside size, and the case it makes. The longer side of the opening is taken as the length.

    Raises: BadInput for a size out of range.
    """
    check_inside(inside)
    t = grade.caliper
    needed = long_side_first(inside)
    long, short = allowances.at_least(needed[0] + t), allowances.at_least(needed[1] + t)
    last = allowances.at_least(needed[1] + t.half())
    body = allowances.at_least(needed[2] + t * 2)
    flap = allowances.at_most(Length(short.nm // 2))
    panels = CasePanels(allowances.tab, long, short, last, body, flap, flap)
    blank = draw_case("case", panels)
    outside = (long + t, short + t, body + t * 2)
    told = (
        ("inside length L", needed[0]),
        ("inside width W", needed[1]),
        ("inside height H", needed[2]),
        ("caliper t", t),
    )
    return Made(
        way=NAME, school="exact", grade=grade, needed=needed, inside=(long - t, short - t, body - t * 2),
        outside=outside, blanks=(blank,), fence=case_fence(blank, panels),
        tape=closing_tape(outside) + body,  # and the seam
        minutes=MINUTES,
        whys={
            "blank": Why("tab + 2(L + t) + (W + t) + (W + t/2); H + 2t, flaps (W + t)/2 above and below", told, _FORM),
            "inside": Why("score to score - caliper; body - 2 calipers", told, "the flaps lie double above and below"),
            "outside": Why("inside + 2t, + 2t, + 4t", told, _FORM),
        },
        notes=turned_note(inside, needed), steps=glued_case(),
    )  # fmt: skip
