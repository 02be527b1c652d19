"""A lid and a tray cut from sheet, by the rule of thumb or exactly.

Thumb (common practice): both blanks are (L + 2H + a) x (W + 2H + a), scored at H from every edge, corners cut out;
the lid gets a second score at H + t so that its fold is soft enough to slide over the tray.
Exact: from the inside size, the caliper and the slip, by the way board folds (see `made`): a tray blank is the inside
+ 2 depths + two calipers, and the lid's inside is the tray's outside + slip.
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank, Point
from fardo.core.cut.fence import FenceSetting
from fardo.core.cut.trough import draw_trough
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import SLIP, THUMB, Allowances
from fardo.core.make.assembly import tray_and_lid
from fardo.core.make.made import Made, School, check_inside, sides_told
from fardo.core.quantity import Length
from fardo.core.why import Why

NAME, TITLE = "tray", "Lid and tray, cut from sheet"
NEEDS = "sheet"
SCHOOLS: tuple[School, ...] = ("exact", "thumb")
MINUTES = Fraction(10)  # for one box by hand, common practice


def make(inside: Sizes, grade: Grade, allowances: Allowances, school: School = "exact") -> Made:
    """The two blanks for an inside size, and the box they make. Raises BadInput for a size out of range."""
    check_inside(inside)
    return _by_thumb(inside, grade, allowances) if school == "thumb" else exactly(inside, grade, allowances)


def _by_thumb(item: Sizes, grade: Grade, allowances: Allowances) -> Made:
    t, a = grade.caliper, allowances[THUMB]
    depth = allowances.at_least(item[2])
    base = (allowances.at_least(item[0] + a), allowances.at_least(item[1] + a))
    second = allowances.at_least(item[2] + t)
    inside = (base[0] - t, base[1] - t, depth - t.half())
    # The lid is as wide as the tray, so it stands one board further out on every side once it is forced over; and
    # what is H high lies on the base and carries the lid, whatever the walls measure.
    outside = (base[0] + t * 3, base[1] + t * 3, item[2] + t * 2)
    tray = draw_trough("tray", base, depth, None)
    lid = draw_trough("lid", base, depth, second)
    told = (*sides_told("item", item), ("allowance", a), ("caliper", t))
    notes = []
    if inside[2] < item[2]:
        notes.append("By thumb the walls end half a board below the top of the goods; the lid then rests on the goods.")
    notes.append("By thumb lid and tray are one size: the lid goes on because the tray's walls lean in. Try it before "
                 "the goods are in.")  # fmt: skip
    return Made(
        way=NAME, school="thumb", grade=grade, needed=item, inside=inside, outside=outside, blanks=(tray, lid),
        fence=_fence(tray, lid, depth, depth, second), tape=_tape(base, depth), minutes=MINUTES,
        whys={
            "blank": Why("item + 2 x height + allowance, both ways", told, "rule of thumb, common practice"),
            "inside": Why("score to score - caliper; height - half a caliper", told, _FOLDING),
            "outside": Why("score to score + 3 calipers; height + 2 calipers", told, _FOLDING),
        },
        notes=tuple(notes), steps=tray_and_lid(tray, lid),
    )  # fmt: skip


def exactly(needed: Sizes, grade: Grade, allowances: Allowances, way: str = NAME, lid: Length | None = None) -> Made:
    """By the way board folds.

    Args:
        way: whose it is.
        lid: how deep a lid is that does not reach the table.
    """
    t = grade.caliper
    base = (allowances.at_least(needed[0] + t), allowances.at_least(needed[1] + t))
    wall = allowances.at_least(needed[2] + t.half())
    # A caliper for each of the lid's two half walls and the tray's: tray outside + slip is the lid's inside.
    lid_base = (
        allowances.at_least(base[0] + t * 2 + allowances[SLIP]),
        allowances.at_least(base[1] + t * 2 + allowances[SLIP]),
    )
    # The lid's walls reach the table and no lower: longer ones would hold the lid off the tray.
    lid_wall = allowances.at_most(wall + t if lid is None else min(lid, wall + t))
    told = (*sides_told("inside", needed), ("caliper", t), ("slip", allowances[SLIP]))
    tray = draw_trough("tray", base, wall, None)
    cover = draw_trough("lid", lid_base, lid_wall, None)
    return Made(
        way=way, school="exact", grade=grade, needed=needed,
        inside=(base[0] - t, base[1] - t, wall - t.half()),
        outside=(lid_base[0] + t, lid_base[1] + t, wall + t.half() + t),
        blanks=(tray, cover), fence=_fence(tray, cover, wall, lid_wall, None), tape=_tape(base, wall), minutes=MINUTES,
        whys={
            "blank": Why("inside + 2 x depth + 2 calipers; lid inside = tray outside + slip", told, _FOLDING),
            "inside": Why("score to score - caliper; wall - half a caliper", told, _FOLDING),
            "outside": Why("inside + 4 calipers + slip; depth + 2 calipers", told, _FOLDING),
        },
        notes=(), steps=tray_and_lid(tray, cover),
    )  # fmt: skip


_FOLDING = "a score lies at the middle of the board: inside is score to score less one caliper"


def _fence(tray: Blank, lid: Blank, wall: Length, lid_wall: Length, second: Length | None) -> tuple[FenceSetting, ...]:
    if tray.size == lid.size:
        settings = [
            FenceSetting(tray.size[0], "through", "length of both", 2),
            FenceSetting(tray.size[1], "through", "width of both", 2),
            FenceSetting(wall, "score, inner face", "all four sides of both", 8),
        ]
        if second is not None:
            settings.append(FenceSetting(second, "second score, inner face", "all four sides of the lid", 4))
        return (*settings, FenceSetting(wall, "knife", "corners out, up to the scores", 16))
    settings = [
        FenceSetting(piece.size[axis], "through", f"{what} of the {piece.name}", 1)
        for axis, what in ((0, "length"), (1, "width"))
        for piece in (lid, tray)
    ]
    if wall == lid_wall:
        settings.append(FenceSetting(wall, "score, inner face", "all four sides of both", 8))
        return (*settings, FenceSetting(wall, "knife", "corners out, up to the scores", 16))
    for piece, at in ((lid, lid_wall), (tray, wall)):
        settings.append(FenceSetting(at, "score, inner face", f"all four sides of the {piece.name}", 4))
    for piece, at in ((lid, lid_wall), (tray, wall)):
        settings.append(FenceSetting(at, "knife", f"corners of the {piece.name} out, up to the scores", 8))
    return tuple(settings)


def _tape(base: Point, wall: Length) -> Length:
    """Eight corners inside and out, and once around the closed lid (common practice)."""
    return wall * 16 + (base[0] + base[1]) * 2
