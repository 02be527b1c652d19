"""The drawing of a whole sheet with all that is cut from it, for a page, a plotter or a cutter."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from fardo.core.cut.drawing import Blank, Flutes, Line, Note, Point, chain
from fardo.core.cut.lay_out import PlacedPiece, SheetPlan
from fardo.core.cut.order import Cut, Rect
from fardo.core.quantity import ZERO, Length, Units, show_cross

_OFF_THE_LINE = 45  # a cut's number stands this part of the sheet's length off it


def draw_sheet(
    name: str, plan: SheetPlan, blanks: Mapping[tuple[str, str], Blank], units: Units, least: Length = ZERO,
    titles: Mapping[str, str] = MappingProxyType({}),
) -> Blank:  # fmt: skip
    """The sheet as one drawing: every blank with its lines where it lies, marked with its name, size and job; the cuts
    numbered in their order, off-cuts worth keeping hatched.

    Args:
        blanks: the drawings, by a piece's name and what it is of.
        least: the shorter side of an off-cut worth keeping.
        titles: of the jobs, by what pieces are of.
    """
    size = (plan.sheet.length, plan.sheet.width)
    outline = ((ZERO, ZERO), (size[0], ZERO), size, (ZERO, size[1]))
    lines = [Line("edge", a, b) for a, b in zip(outline, outline[1:] + outline[:1], strict=True)]
    notes: list[Note] = []
    for placed in plan.placed:
        piece, at = placed.piece, placed.at
        lines += [
            Line(one.kind, _there(one.start, placed), _there(one.end, placed), one.folds)
            for one in blanks[piece.name, piece.of].lines
        ]
        told = (piece.name, show_cross(*piece.size, units, "down"), titles.get(piece.of))
        notes.append(_middle(at, "\n".join(filter(None, told))))
    rests = plan.worth_keeping(least)
    for rest in rests:
        notes.append(_middle(rest, f"off-cut, keep\n{show_cross(rest.length, rest.width, units, 'down')}"))
    notes += [Note(_beside(cut, plan.sheet.length), str(n)) for n, cut in enumerate(plan.cuts, 1)]
    dimensions = (*chain((ZERO, size[0]), "below", ZERO), *chain((ZERO, size[1]), "left", ZERO))
    flutes: Flutes = "along the blank" if plan.sheet.flutes_along else "across the blank"
    hatched = tuple(((rest.x, rest.y), (rest.x + rest.length, rest.y + rest.width)) for rest in rests)
    return Blank(name, size, outline, tuple(lines), dimensions, tuple(notes), flutes, hatched=hatched)


def _middle(at: Rect, text: str) -> Note:
    return Note((at.x + at.length.half(), at.y + at.width.half()), text, (at.length, at.width))


def _beside(cut: Cut, sheet: Length) -> Point:
    """Where a cut's number stands: within what it frees, by the end where the cut begins."""
    off, rest = Length(sheet.nm // _OFF_THE_LINE), cut.rest
    if cut.across:
        return rest.x + Length(cut.fence.nm - off.nm), rest.y + off
    return rest.x + off, rest.y + Length(cut.fence.nm - off.nm)


def _there(point: Point, placed: PlacedPiece) -> Point:
    """A point of the blank on the sheet, turned a quarter with it where it is."""
    x, y = point
    at = placed.at
    if placed.turned:
        return at.x + (at.length - y), at.y + x
    return at.x + x, at.y + y
