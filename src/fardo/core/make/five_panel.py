"""A five-panel folder for long things: one blank folded around them lengthwise, its fifth panel over its first.

Along the blank's width lie top, side, bottom, side and the top that covers the first; sides and bottom carry flaps that
close the ends, the sides' inside the bottom's. Bottom W + t; the side to the inner top H + t, the other, over which the
outer top lies, H + 2t; inner top W + t/2, as its free edge meets the inside of the far wall; outer top W + 3t/2, as it
ends over the outside of the near one; length L + 2t. Hence outside = inside + 4t, 2t, 3t (from the way board folds, see
`made`; the form is common practice).
"""

from __future__ import annotations

from fractions import Fraction
from itertools import pairwise

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank, Line, Note, Point, chain, cut_along
from fardo.core.cut.fence import FenceSetting
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.made import Made, School, check_inside, long_side_first
from fardo.core.make.step import Step
from fardo.core.quantity import INCH, ZERO, Length
from fardo.core.why import Why

NAME, TITLE = "five-panel", "Five-panel folder, cut from sheet"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(11)  # starting value

_PRACTICE = "the way board folds; the form is common practice"
_TAPE_ROUND_AN_END = INCH * 2


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """The blank for an inside size, and the folder it makes. Its length is the longer of the two that lie flat.

    Raises: BadInput for a size out of range.
    """
    check_inside(inside)
    t = grade.caliper
    needed = long_side_first(inside)
    body = allowances.at_least(needed[0] + t * 2)
    bottom, near = allowances.at_least(needed[1] + t), allowances.at_least(needed[2] + t)
    far = allowances.at_least(near + t)
    # The tops end where the walls are, so they go down to the fence's step.
    rows = (allowances.at_most(bottom - t.half()), near, bottom, far, allowances.at_most(bottom + t.half()))
    inner, outer = allowances.at_most(bottom.half()), allowances.at_most(near)
    blank = _draw(rows, body, inner, outer)
    outside = (body + t * 2, bottom + t, far + t)
    told = (
        ("inside length L", needed[0]), ("inside width W", needed[1]), ("inside height H", needed[2]),
        ("caliper t", t),
    )  # fmt: skip
    marks = [sum(rows[:n], start=ZERO) for n in range(1, len(rows))]
    return Made(
        way=NAME, school="exact", grade=grade, needed=needed,
        inside=(body - t * 2, bottom - t, near - t), outside=outside, blanks=(blank,),
        fence=(
            FenceSetting(blank.size[0], "through", "length of the blank", 1),
            FenceSetting(blank.size[1], "through", "width of the blank", 1),
            *(FenceSetting(at, "score, inner face", f"panel {n}, from the first long edge", 1)
              for n, at in enumerate(marks, 1)),
            FenceSetting(max(inner, outer), "score, inner face", "end flaps, from both short edges", 2),
            FenceSetting(max(inner, outer), "knife", "corners beside the flaps out, slots between the flaps", 8),
        ),
        # Along the top, and over each end twice a hand around.
        tape=body + (bottom + near + _TAPE_ROUND_AN_END * 2) * 4, minutes=MINUTES,
        whys={
            "blank": Why("top W + t/2, side H + t, bottom W + t, side H + 2t, top W + 3t/2; L + 2t", told, _PRACTICE),
            "inside": Why("score to score - caliper; length - 2 calipers", told, _PRACTICE),
            "outside": Why("inside + 4t, + 2t, + 3t", told, _PRACTICE),
        },
        notes=() if needed[:2] == inside[:2] else ("Turned so that the longer side lies along the folder.",),
        steps=(
            Step("Lay the blank inner face up and the goods on its middle panel.", stage="pack"),
            Step("Fold up both sides, their end flaps in, then the bottom's end flaps up over them; tape the ends.",
                 tapes=True),
            Step("Fold the inner top over, the outer top over it, and tape it along its edge and around both ends.",
                 tapes=True),
        ),
    )  # fmt: skip


def _draw(rows: tuple[Length, ...], body: Length, inner: Length, outer: Length) -> Blank:
    """The blank with its lines.

    Args:
        rows: score to score across the blank.
        inner, outer: end flaps of the sides and of the bottom.
    """
    reach = max(inner, outer)
    left, right = reach, reach + body
    y0, y1, y2, y3, y4, y5 = (sum(rows[:n], start=ZERO) for n in range(6))
    points: list[Point] = [
        (left, y0), (right, y0), (right, y1), (right + inner, y1), (right + inner, y2), (right + outer, y2),
        (right + outer, y3), (right + inner, y3), (right + inner, y4), (right, y4), (right, y5), (left, y5), (left, y4),
        (left - inner, y4), (left - inner, y3), (left - outer, y3), (left - outer, y2), (left - inner, y2),
        (left - inner, y1), (left, y1),
    ]  # fmt: skip
    outline = tuple(point for n, point in enumerate(points) if point != points[n - 1])
    lines = [*cut_along(outline), *(Line("score", (left, y), (right, y)) for y in (y1, y2, y3, y4))]
    lines += [Line("score", (x, a), (x, b)) for x in (left, right) for a, b in ((y1, y2), (y2, y3), (y3, y4))]
    short = min(inner, outer)
    lines += [Line("slot", (left - short, y), (left, y)) for y in (y2, y3)]
    lines += [Line("slot", (right, y), (right + short, y)) for y in (y2, y3)]
    whole = reach * 2 + body
    dimensions = [
        *chain((ZERO, whole), "below", y0), *chain((ZERO, left, right, whole), "above", y5),
        *chain((y0, y5), "left", ZERO), *chain((y0, y1, y2, y3, y4, y5), "right", whole),
    ]  # fmt: skip
    middle = (left + right).half()
    words = ("inner top", "side", "bottom, inside face up", "side", "outer top")
    notes = tuple(
        Note((middle, (a + b).half()), word)
        for word, (a, b) in zip(words, pairwise((y0, y1, y2, y3, y4, y5)), strict=True)
    )
    return Blank("folder", (whole, y5), outline, tuple(lines), tuple(dimensions), notes, "across the blank")
