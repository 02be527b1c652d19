"""A slotted case whose outer flaps lie over each other all the way: the form FEFCO-ESBO code 0203.

As `slotted`, but the outer flaps are as deep as W + t, so that three boards lie above and below; body H + 3t. The inner
flaps are no deeper than half of L + t, so that they never ride on each other. Hence outside = inside + 2t, 2t, 6t. It
is for what is heavy, or bears on its bottom, or may be stood on its side. (The form is published, from memory; the
allowances are common practice.)
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.cut.case import CasePanels, case_fence, draw_case
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.assembly import full_overlap
from fardo.core.make.made import Made, School, check_inside, long_side_first, turned_note
from fardo.core.make.stock import closing_tape
from fardo.core.quantity import Length
from fardo.core.why import Why

NAME, TITLE = "overlap", "Slotted case with full overlap, cut from sheet"
FLAPS = "both"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(13)  # starting value: as a slotted case, with longer slots

_FORM = "form FEFCO-ESBO 0203; allowances common practice"


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """The blank for an inside size, and the case it makes. Raises BadInput for a size out of range."""
    check_inside(inside)
    t, needed = grade.caliper, long_side_first(inside)
    long, short = allowances.at_least(needed[0] + t), allowances.at_least(needed[1] + t)
    last, body = allowances.at_least(needed[1] + t.half()), allowances.at_least(needed[2] + t * 3)
    outer, inner = allowances.at_most(short), allowances.at_most(Length(long.nm // 2))
    panels = CasePanels(allowances.tab, long, short, last, body, outer, outer, inner=min(outer, inner))
    blank = draw_case("case", panels)
    outside = (long + t, short + t, body + t * 3)
    told = (("inside length L", needed[0]), ("inside width W", needed[1]), ("inside height H", needed[2]),
            ("caliper t", t))  # fmt: skip
    return Made(
        way=NAME, school="exact", grade=grade, needed=needed, inside=(long - t, short - t, body - t * 3),
        outside=outside, blanks=(blank,), fence=case_fence(blank, panels), tape=closing_tape(outside) + body,
        minutes=MINUTES,
        whys={
            "blank": Why("tab + 2(L + t) + (W + t) + (W + t/2); H + 3t, outer flaps W + t", told, _FORM),
            "inside": Why("score to score - caliper; body - 3 calipers", told, "three boards lie above and below"),
            "outside": Why("inside + 2t, + 2t, + 6t", told, _FORM),
        },
        notes=turned_note(inside, needed), steps=full_overlap(),
    )  # fmt: skip
