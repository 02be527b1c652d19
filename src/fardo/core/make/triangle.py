"""A triangular tube for long slender things: three equal walls, a fourth over the first, a triangle in each end.

It does not roll, and takes less board than a square tube around what is round or slender. Goods as wide as w and as
high as h stand in a triangle whose inside is w + 2h / sqrt 3 along its base. A score lies in the middle of the board,
so that score to score it is sqrt 3 calipers more. The first wall ends in a cut edge within the third and is half of
sqrt 3 calipers shorter; the third goes around it to the fourth, which lies a board further out, and is 2 / sqrt 3
calipers longer. The end triangles hang on the first wall and stand between the other two. (Geometry; the form is common
practice.)
"""

from __future__ import annotations

from fractions import Fraction
from math import isqrt

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank, Line, Note, Point, chain, cut_along
from fardo.core.cut.fence import FenceSetting
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.made import Made, School, check_inside, sides_told
from fardo.core.make.step import Step
from fardo.core.quantity import INCH, ZERO, Length
from fardo.core.why import Why

NAME, TITLE = "triangle", "Triangular tube, cut from sheet"
NEEDS = "sheet"
OPENS = "end"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(12)  # starting value

_GEOMETRY = "geometry of an equal-sided triangle; the form is common practice"


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """The blank for an inside size, and the tube along its longest side. Raises BadInput for a size out of range.

    Goods measured standing are laid down.

    Inside is the largest box with the goods' own height that stands on the base; outside the box around the tube.
    """
    check_inside(inside)
    if inside[2] > max(inside[:2]):
        inside = (inside[2], inside[1], inside[0])
    t = grade.caliper
    along = 0 if inside[0] >= inside[1] else 1
    wide, high = inside[1 - along], inside[2]
    wall = allowances.at_least(wide + _roots(high * 2, 3) + _thirds_root(t))
    first = allowances.at_most(wall - _thirds_root(t).half())
    third = allowances.at_least(wall + _roots(t * 2, 3))
    # The wall that lies over the first begins further out and ends where the tube does.
    cover = allowances.at_most(wall + (third - wall).half())
    body = allowances.at_least(inside[along] + t)
    walls = (first, wall, third, cover)
    blank = _draw(walls, body, t, allowances)
    room = Length(wall.nm - _thirds_root(t).nm - _roots(high * 2, 3).nm)
    # From the outer corner of the third and fourth wall to that of the first two.
    across = wall + (third - wall).half() + _thirds_root(t)
    tall = _height(wall) + _height(third - wall) + t + t.half()
    length = body + t
    sizes_in = (body - t, room, high) if along == 0 else (room, body - t, high)
    outside = (length, across, tall) if along == 0 else (across, length, tall)
    told = (*sides_told("inside", inside), ("caliper t", t))
    marks = [sum(walls[:n], start=ZERO) for n in (1, 2, 3)]
    return Made(
        way=NAME, school="exact", grade=grade, needed=inside, inside=sizes_in, outside=outside, blanks=(blank,),
        fence=(
            FenceSetting(blank.size[0], "through", "length of the blank", 1),
            FenceSetting(blank.size[1], "through", "width of the blank", 1),
            *(FenceSetting(at, "score, inner face", f"corner {n}, from the first long edge; fold to 60 degrees", 1)
              for n, at in enumerate(marks, 1)),
            FenceSetting((blank.size[0] - body).half(), "score, inner face", "end triangles, from both short edges", 2),
            FenceSetting((blank.size[0] - body).half(), "knife", "board beside the end triangles off", 8),
        ),
        tape=body * 2 + (wall + INCH * 2) * 6, minutes=MINUTES,
        whys={
            "blank": Why("second wall w + 2h / sqrt 3 + t sqrt 3; first t sqrt 3 / 2 less, third 2t / sqrt 3 more, "
                         "the one over the first t / sqrt 3 more; length + t", told, _GEOMETRY),
            "inside": Why("wall - t sqrt 3 - 2h / sqrt 3 at the height h", told, _GEOMETRY),
            "outside": Why("wall + 4t / sqrt 3; wall x sqrt 3 / 2 + 2 1/2 t; length + 2t", told, _GEOMETRY),
        },
        notes=(),
        steps=(
            Step("Lay the blank inner face up, the goods along its first wall, with fill beside them.", stage="pack"),
            Step("Fold up the end triangles, then the second and third wall until they meet over the goods."),
            Step("Fold the fourth wall around under the first; tape its edge all along, and both ends.", tapes=True),
        ),
    )  # fmt: skip


def _draw(walls: tuple[Length, Length, Length, Length], body: Length, t: Length, allowances: Allowances) -> Blank:
    """The blank with its lines.

    Args:
        walls: from the first, which begins at a cut edge, to the one over it.
        body: score to score of the ends.
    """
    first = walls[0]
    # An end triangle stands within the walls: it begins where the third wall's inner face is, at the cut edge, and ends
    # as far from the first corner.
    side = first - _thirds_root(t).half()
    reach = allowances.at_most(_height(side))
    left, right, whole = reach, reach + body, reach * 2 + body
    y0, y1, y2, y3, y4 = (sum(walls[:n], start=ZERO) for n in range(5))
    middle = side.half()
    outline: tuple[Point, ...] = (
        (left, y0), (right, y0), (whole, middle), (right, side), (right, y4), (left, y4), (left, side), (ZERO, middle),
    )  # fmt: skip
    lines = [
        *cut_along(outline),
        *(Line("score", (left, y), (right, y), 120) for y in (y1, y2, y3)),
        *(Line("score", (x, y0), (x, side)) for x in (left, right)),
    ]
    dimensions = [
        *chain((ZERO, whole), "below", ZERO), *chain((ZERO, left, right, whole), "above", y4),
        *chain((y0, y4), "left", ZERO), *chain((y0, y1, y2, y3, y4), "right", whole),
    ]  # fmt: skip
    centre = (left + right).half()
    words = ("first wall, inside face up", "second", "third", "over the first")
    notes = tuple(
        Note((centre, (a + b).half()), word)
        for word, a, b in zip(words, (y0, y1, y2, y3), (y1, y2, y3, y4), strict=True)
    )
    return Blank("tube", (whole, y4), outline, tuple(lines), tuple(dimensions), notes, "along the blank")


def _roots(length: Length, of: int) -> Length:
    """The length over the square root of a whole number, up to the next nanometre."""
    square = Fraction(length.nm**2, of)
    root = isqrt(square.numerator // square.denominator)
    return Length(root if root * root == square else root + 1)


def _thirds_root(length: Length) -> Length:
    """The length times the square root of three, up to the next nanometre."""
    return _roots(length * 3, 3)


def _height(side: Length) -> Length:
    """Of an equal-sided triangle, up to the next nanometre."""
    return _thirds_root(side).half()
