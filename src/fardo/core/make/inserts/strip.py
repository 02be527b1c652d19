"""Plain and scored strips of board, which most inserts are."""

from __future__ import annotations

from itertools import pairwise
from typing import Literal

from fardo.core.cut.drawing import Blank, Line, Note, Point, chain, cut_along
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import SLIP, Allowances
from fardo.core.quantity import ZERO, Length


def loose(inside: Sizes, allowances: Allowances) -> Point:
    """What goes in easily: the inside less the slip."""
    return allowances.at_most(inside[0] - allowances[SLIP]), allowances.at_most(inside[1] - allowances[SLIP])


def plain(name: str, size: Point, count: int) -> Blank:
    outline = ((ZERO, ZERO), (size[0], ZERO), size, (ZERO, size[1]))
    dimensions = (*chain((ZERO, size[0]), "below", ZERO), *chain((ZERO, size[1]), "left", ZERO))
    return Blank(name, size, outline, cut_along(outline), dimensions, (), "either way", count)


def scored(
    name: str, marks: tuple[Length, ...], height: Length, flutes: Literal["across the blank"], count: int = 1
) -> Blank:
    """A strip with scores across it; `marks` from its first edge to its last."""
    outline = ((ZERO, ZERO), (marks[-1], ZERO), (marks[-1], height), (ZERO, height))
    lines = (*cut_along(outline), *(Line("score", (x, ZERO), (x, height)) for x in marks[1:-1]))
    dimensions = (*chain((ZERO, marks[-1]), "below", ZERO), *chain(marks, "above", height),
                  *chain((ZERO, height), "left", ZERO))  # fmt: skip
    widest = max(pairwise(marks), key=lambda pair: pair[1] - pair[0])
    note = Note(((widest[0] + widest[1]).half(), height.half()), "inside face up")
    return Blank(name, (marks[-1], height), outline, lines, dimensions, (note,), flutes, count)


def edge_roll(name: str, outside: Sizes, t: Length, allowances: Allowances, count: int) -> Blank:
    """A hollow bar of that length, width and height outside: four panels, the last overlapping none, its edge taped."""
    wide, high = allowances.at_most(outside[1] - t), allowances.at_most(outside[2] - t)
    marks = (ZERO, wide, wide + high, wide * 2 + high, wide * 2 + high * 2)
    return scored(name, marks, allowances.at_most(outside[0]), "across the blank", count)
