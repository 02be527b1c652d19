"""A half slotted case, flaps at its bottom only, with a lid over it: goods go in from above at their full size.

Case as `slotted`, its body H + t as flaps lie double below only; the lid is a trough whose inside is the case's outside
+ slip, as deep as the shop has its lids. Hence outside = inside + 4t + slip, 4t + slip, 3t. The case is the form
FEFCO-ESBO 0200 (published, from memory); the allowances are common practice.
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.cut.case import CasePanels, case_fence, draw_case
from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting
from fardo.core.cut.trough import draw_trough
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import LID, SLIP, Allowances
from fardo.core.make.assembly import half_case_and_lid
from fardo.core.make.made import Made, School, check_inside, long_side_first, sides_told, turned_note
from fardo.core.make.stock import closing_tape
from fardo.core.quantity import ZERO, Length
from fardo.core.why import Why

NAME, TITLE = "half-slotted", "Half slotted case with a lid, cut from sheet"
FLAPS = "bottom"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(14)  # starting value

_FORM = "form FEFCO-ESBO 0200; allowances common practice"


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """Case and lid for an inside size. Raises BadInput for a size out of range."""
    check_inside(inside)
    t, needed = grade.caliper, long_side_first(inside)
    case, panels = half_case("case", needed, grade, allowances)
    cover = tuple(allowances.at_least(side + t * 2 + allowances[SLIP]) for side in (panels.long, panels.short))
    base = (cover[0], cover[1])
    deep = allowances.at_most(min(allowances[LID], panels.body + t))  # it never reaches the table
    lid = draw_trough("lid", base, deep, None)
    outside = (base[0] + t, base[1] + t, panels.body + t * 2)
    told = (*sides_told("inside", needed), ("caliper t", t), ("slip", allowances[SLIP]), ("lid", allowances[LID]))
    return Made(
        way=NAME, school="exact", grade=grade, needed=needed,
        inside=(panels.long - t, panels.short - t, panels.body - t), outside=outside, blanks=(case, lid),
        fence=(*case_fence(case, panels), *_lid_fence(lid, deep)),
        tape=closing_tape(outside).half() + panels.body + deep * 8 + (base[0] + base[1]) * 2, minutes=MINUTES,
        whys={
            "blank": Why("case: tab + 2(L + t) + (W + t) + (W + t/2); H + t, flap (W + t)/2. Lid inside = case outside "
                         "+ slip", told, _FORM),
            "inside": Why("score to score - caliper; body - caliper", told, "the flaps lie double below"),
            "outside": Why("inside + 4t + slip, + 4t + slip, + 3t", told, _FORM),
        },
        notes=turned_note(inside, needed), steps=half_case_and_lid(deep),
    )  # fmt: skip


def half_case(name: str, inside: Sizes, grade: Grade, allowances: Allowances) -> tuple[Blank, CasePanels]:
    """A case with flaps at one end, for an inside size whose longer side is its length."""
    t = grade.caliper
    long, short = allowances.at_least(inside[0] + t), allowances.at_least(inside[1] + t)
    last, body = allowances.at_least(inside[1] + t.half()), allowances.at_least(inside[2] + t)
    flap = allowances.at_most(Length(short.nm // 2))
    panels = CasePanels(allowances.tab, long, short, last, body, flap, ZERO)
    return draw_case(name, panels), panels


def _lid_fence(lid: Blank, deep: Length) -> tuple[FenceSetting, ...]:
    return (
        FenceSetting(lid.size[0], "through", "length of the lid", 1),
        FenceSetting(lid.size[1], "through", "width of the lid", 1),
        FenceSetting(deep, "score, inner face", "all four sides of the lid", 4),
        FenceSetting(deep, "knife", "corners of the lid out, up to the scores", 8),
    )
