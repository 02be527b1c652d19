"""A box in a box: the inner one floats on spacers, as far from the outer one on every side as the shop asks.

Both are slotted cases cut from sheet; two bridges of board on each face keep the distance: an inch at least (common
practice). Outer inside = inner outside + 2 x distance.
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.cut.fence import fence_of
from fardo.core.goods.part import Sizes
from fardo.core.make import slotted
from fardo.core.make.allowances import FLOATED, Allowances
from fardo.core.make.assembly import case_with_tab
from fardo.core.make.inserts.spacer import bridge
from fardo.core.make.made import Made, School, check_inside, sides_told
from fardo.core.make.step import Step
from fardo.core.quantity import INCH
from fardo.core.why import Why

NAME, TITLE = "boxed-twice", "Box in a box, floated, cut from sheet"
FLAPS = "both"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = slotted.MINUTES * 2 + Fraction(8)  # starting value: two cases and twelve spacers

LEAST = INCH  # common practice
_BRIDGES_A_FACE = 2
_PRACTICE = "the inner box floats at least 1 in from the outer one on all sides (common practice)"


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """Both cases and the spacers for an inside size. Raises BadInput for a size out of range."""
    check_inside(inside)
    t = grade.caliper
    inner = slotted.make(inside, grade, allowances)
    floated = allowances.at_least(max(allowances[FLOATED], LEAST))
    # A leg goes up to the fence's step, and so does the room it stands in.
    room = allowances.at_least(floated - t.half()) + t.half()
    a, b, c = (side + room * 2 for side in inner.outside)
    outer = slotted.make((a, b, c), grade, allowances)
    lying = bridge(allowances.at_most(inner.outside[0]), floated, t, allowances, _BRIDGES_A_FACE * 2)
    standing = bridge(allowances.at_most(inner.outside[2]), floated, t, allowances, _BRIDGES_A_FACE * 4)
    spacers = (replace(lying, name="spacer, lying"), replace(standing, name="spacer, upright"))
    told = (*sides_told("inside", inner.needed), ("caliper t", t), ("distance", floated))
    return Made(
        way=NAME, school="exact", grade=grade, needed=inner.needed, inside=inner.inside, outside=outer.outside,
        blanks=(replace(inner.blanks[0], name="inner case"), replace(outer.blanks[0], name="outer case"), *spacers),
        fence=(
            *(replace(one, do=f"inner: {one.do}") for one in inner.fence),
            *(replace(one, do=f"outer: {one.do}") for one in outer.fence),
            *(setting for one in spacers for setting in fence_of(one)),
        ),
        tape=inner.tape + outer.tape, minutes=MINUTES,
        whys={
            "blank": Why("two slotted cases; outer inside = inner outside + 2 x distance", told, _PRACTICE),
            "inside": inner.whys["inside"],
            "outside": Why("inside + 2t + 2 x distance + 2t, and 4t in height", told, _PRACTICE),
        },
        notes=inner.notes, floated=floated,
        steps=(
            *case_with_tab(),
            Step("Close the bottoms of both cases and tape them.", tapes=True),
            Step("Fold the spacers into bridges, their legs {} long.", (allowances.at_least(floated - t.half()),)),
            Step("Lay two spacers on the bottom of the outer box, legs down, and stand two against each wall."),
            Step("Set the closed inner box on them; nothing of it may touch the outer box. Two spacers go on top.",
                 stage="close"),
        ),
    )  # fmt: skip
