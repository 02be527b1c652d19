"""A folder for flat things with every edge guarded: a book, a print, a tablet weave on its board.

One blank: a base, two sides that fold over it and meet in the middle, and two ends rolled into hollow edges; along the
sides lie two rolls of board as deep, so that a blow on any edge meets air before it meets the goods. Score to score:
base L + 2g + 3t by W + 2g + t, sides H + t, covers half the base; ends H up, g + t over, and down to the base, narrower
by a caliper so that they stand between the sides. Hence outside = inside + 2g + 4t, 2g + 2t, 2t. (From the way board
folds, see `made`; guarding edges with hollow board is common practice.)
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank, Line, Note, Point, chain, cut_along
from fardo.core.cut.fence import FenceSetting, fence_of
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import GUARD, Allowances
from fardo.core.make.inserts.strip import edge_roll
from fardo.core.make.made import Made, School, check_inside, long_side_first, sides_told, turned_note
from fardo.core.make.step import Step
from fardo.core.quantity import INCH, ZERO, Length
from fardo.core.refusal import NoAnswer
from fardo.core.why import Why

NAME, TITLE = "folder", "Folder with guarded edges, cut from sheet"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(12)  # starting value: many folds, no seam to glue

HIGHEST = INCH * 6  # over this its ends no longer stand by themselves: common practice is a tray
_PRACTICE = "the way board folds; hollow edges are common practice"


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """Folder and edge rolls for an inside size. Raises: BadInput out of range; NoAnswer for what is not flat."""
    check_inside(inside)
    t, needed = grade.caliper, long_side_first(inside)
    if needed[2] > HIGHEST:
        raise NoAnswer("it is for flat things, up to 6 in (152 mm) high")
    if needed[2] <= t * 2:
        raise NoAnswer("its ends cannot be rolled as low as two boards; a mailer is for what is so thin")
    guard = allowances.at_least(max(allowances[GUARD], t * 3))
    rolled = allowances.at_least(guard + t)  # the strip over the hollow, score to score
    length = allowances.at_least(needed[0] + rolled * 2 + t)
    width = allowances.at_least(needed[1] + guard * 2 + t)
    end = allowances.at_least(needed[2])
    side = allowances.at_least(end + t)
    down = allowances.at_most(end - t.half())
    cover = allowances.at_most(width.half())
    folder = _draw(length, width, side, cover, (end, rolled, down), t)
    tall = side - t
    roll = edge_roll("edge roll", (length - rolled * 2 - t, guard, tall), t, allowances, 2)
    outside = (length + t, width + t, side + t)
    told = (*sides_told("inside", needed), ("caliper t", t), ("guard g", guard))
    reach = end + rolled + down
    return Made(
        way=NAME, school="exact", grade=grade, needed=needed,
        inside=(length - rolled * 2 - t, width - guard * 2 - t, tall), outside=outside, blanks=(folder, roll),
        fence=(
            FenceSetting(folder.size[0], "through", "length of the folder", 1),
            FenceSetting(folder.size[1], "through", "width of the folder", 1),
            *(FenceSetting(at, "score, inner face", f"{what}, from both short edges", 2)
              for at, what in ((reach, "ends"), (reach - end, "first roll"), (reach - end - rolled, "second roll"))),
            *(FenceSetting(at, "score, inner face", f"{what}, from both long edges", 2)
              for at, what in ((cover, "covers"), (cover + side, "sides"))),
            FenceSetting(reach, "knife", "corners out, up to the scores", 8),
            *fence_of(roll),
        ),
        tape=length + (side + INCH * 3) * 4 + width * 2, minutes=MINUTES,
        whys={
            "blank": Why("base L + 2g + 3t, W + 2g + t; sides H + t, covers half the base; ends H, g + t, H - t/2",
                         told, _PRACTICE),
            "inside": Why("base - the hollows - caliper; side - caliper", told, _PRACTICE),
            "outside": Why("inside + 2g + 4t, + 2g + 2t, + 2t", told, _PRACTICE),
        },
        notes=turned_note(inside, needed),
        steps=(
            Step("Roll both ends up, over and down, so that each is a hollow edge {} deep; tape them.", (guard,),
                 tapes=True),
            Step("Fold and tape the two edge rolls and lay one along each side.", tapes=True),
            Step("Lay the goods between them and fill so that nothing shifts.", stage="pack"),
            Step("Fold both covers over, tape where they meet and along both ends.", tapes=True),
        ),
    )  # fmt: skip


def _draw(
    length: Length, width: Length, side: Length, cover: Length, ends: tuple[Length, Length, Length], t: Length
) -> Blank:
    """The blank with its lines.

    Args:
        ends: up, over and down, from the base outwards.
    """
    up, over, down = ends
    reach = up + over + down
    left, right, whole = reach, reach + length, reach * 2 + length
    y0, y1, y2 = ZERO, cover, cover + side
    y3, y4, y5 = y2 + width, y2 + width + side, y2 + width + side + cover
    low, high = y2 + t.half(), y3 - t.half()
    far = right + up
    near = left - up
    outline: tuple[Point, ...] = (
        (left, y0), (right, y0), (right, y2), (far, y2), (far, low), (whole, low), (whole, high), (far, high),
        (far, y3), (right, y3), (right, y5), (left, y5), (left, y3), (near, y3), (near, high), (ZERO, high),
        (ZERO, low), (near, low), (near, y2), (left, y2),
    )  # fmt: skip
    columns = (down, down + over, left, right, far, far + over)
    lines = [
        *cut_along(outline),
        *(Line("score", (left, y), (right, y)) for y in (y1, y2, y3, y4)),
        *(Line("score", (x, y2), (x, y3)) for x in (left, right)),
        *(Line("score", (x, low), (x, high)) for x in (down, down + over, far, far + over)),
    ]
    dimensions = [
        *chain((ZERO, whole), "below", ZERO), *chain((ZERO, *columns, whole), "above", y5),
        *chain((y0, y5), "left", ZERO), *chain((y0, y1, y2, y3, y4, y5), "right", whole),
    ]  # fmt: skip
    centre = (left + right).half()
    rows = (("cover", y0, y1), ("side", y1, y2), ("base, inside face up", y2, y3), ("side", y3, y4), ("cover", y4, y5))
    notes = tuple(Note((centre, (a + b).half()), word) for word, a, b in rows)
    return Blank("folder", (whole, y5), outline, tuple(lines), tuple(dimensions), notes, "along the blank")
