"""Two half slotted boxes, one over the other, for what is too tall for one blank; how far they go together is free.

The lower one as the case of `half_slotted`; the upper one's inside is the lower one's outside + slip. Both are as high
as half the inside height and half the overlap, and are taped where the goods ask for it. Hence outside = inside +
4t + slip, 4t + slip, 4t (from the way board folds, see `made`; the form is common practice).
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.cut.case import case_fence
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import OVERLAP, SLIP, Allowances
from fardo.core.make.assembly import case_with_tab
from fardo.core.make.half_slotted import half_case
from fardo.core.make.made import Made, School, check_inside, long_side_first, sides_told, turned_note
from fardo.core.make.step import Step
from fardo.core.make.stock import closing_tape
from fardo.core.why import Why

NAME, TITLE = "halves", "Two half boxes, one over the other"
FLAPS = "both"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(20)  # starting value: two blanks, each with a seam

_PRACTICE = "the way board folds; the form is common practice"


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """Both blanks for an inside size. Raises BadInput for a size out of range."""
    check_inside(inside)
    t, needed = grade.caliper, long_side_first(inside)
    deep = min(needed[2], (needed[2] + allowances[OVERLAP]).half())
    lower, low = half_case("lower half", (needed[0], needed[1], deep), grade, allowances)
    over = allowances[SLIP] + t
    upper, high = half_case("upper half", (low.long + over, low.short + over, deep), grade, allowances)
    # Low goods leave nothing to set: the upper half then stands on the lower one's rim.
    tall = max(needed[2], low.body - t, high.body - t)
    outside = (high.long + t, high.short + t, tall + t * 4)
    told = (*sides_told("inside", needed), ("caliper t", t), ("slip", allowances[SLIP]),
            ("overlap", allowances[OVERLAP]))  # fmt: skip
    overlap = low.body + high.body - t * 2 - tall
    around = (high.long + high.short) * 2
    return Made(
        way=NAME, school="exact", grade=grade, needed=needed, inside=(low.long - t, low.short - t, tall),
        outside=outside, blanks=(lower, upper), fence=(*case_fence(lower, low), *case_fence(upper, high)),
        tape=closing_tape(outside) + low.body + high.body + around, minutes=MINUTES,
        whys={
            "blank": Why("as half slotted cases, H/2 + overlap/2 deep; upper inside = lower outside + slip", told,
                         _PRACTICE),
            "inside": Why("score to score - caliper; as high as it is taped", told, _PRACTICE),
            "outside": Why("inside + 4t + slip, + 4t + slip, + 4t", told, _PRACTICE),
        },
        notes=turned_note(inside, needed),
        steps=(
            *case_with_tab(),
            Step("Close and tape the bottom of the lower half, and the top of the upper one.", tapes=True),
            Step("Put the goods in the lower half and fill around them.", stage="pack"),
            Step("Push the upper half over it until {} lie over each other, and tape the rim all around.",
                 (allowances.at_least(overlap),), tapes=True),
        ),
    )  # fmt: skip
