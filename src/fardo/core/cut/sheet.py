"""The drawing of a whole sheet with all that is cut from it, for a page, a plotter or a cutter."""

from __future__ import annotations

from collections.abc import Mapping

from fardo.core.cut.drawing import Blank, Flutes, Line, Note, Point, chain
from fardo.core.cut.lay_out import PlacedPiece, SheetPlan
from fardo.core.quantity import ZERO, Length


def draw_sheet(
    name: str, plan: SheetPlan, blanks: Mapping[tuple[str, str], Blank], least: Length = ZERO
) -> Blank:  # fmt: skip
    """The sheet as one drawing: every blank with its lines where it lies, each marked with what it is.

    Args:
        blanks: the drawings, by a piece's name and what it is of.
        least: the shorter side of an off-cut worth keeping.
    """
    size = (plan.sheet.length, plan.sheet.width)
    outline = ((ZERO, ZERO), (size[0], ZERO), size, (ZERO, size[1]))
    lines = [Line("edge", a, b) for a, b in zip(outline, outline[1:] + outline[:1], strict=True)]
    notes: list[Note] = []
    for placed in plan.placed:
        blank, at = blanks[placed.piece.name, placed.piece.of], placed.at
        lines += [Line(one.kind, _there(one.start, placed), _there(one.end, placed), one.folds) for one in blank.lines]
        notes.append(Note((at.x + at.length.half(), at.y + at.width.half()), placed.piece.name))
    for rest in plan.worth_keeping(least):
        notes.append(Note((rest.x + rest.length.half(), rest.y + rest.width.half()), "off-cut, keep"))
    dimensions = (*chain((ZERO, size[0]), "below", ZERO), *chain((ZERO, size[1]), "left", ZERO))
    flutes: Flutes = "along the blank" if plan.sheet.flutes_along else "across the blank"
    return Blank(name, size, outline, tuple(lines), dimensions, tuple(notes), flutes)


def _there(point: Point, placed: PlacedPiece) -> Point:
    """A point of the blank on the sheet, turned a quarter with it where it is."""
    x, y = point
    at = placed.at
    if placed.turned:
        return at.x + (at.length - y), at.y + x
    return at.x + x, at.y + y
