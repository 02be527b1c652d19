"""The drawing of a blank: one model, from which screen, paper and machine files are all made.

The inner face is up, the origin is the lower left corner, x runs along the blank and y across. Line kinds are told
apart by dash: full is cut, long dash is score, dash-dot is second score (drawing-office practice). A liner cut
goes through the outer liner only, one layer deep. An old fold is a crease, an edge an edge or a slit that a used box
has already.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from fardo.core.quantity import Length

Kind = Literal["cut", "score", "second-score", "slot", "liner-cut", "old-fold", "edge"]
Flutes = Literal["along the blank", "across the blank", "either way"]
Side = Literal["below", "above", "left", "right"]
Point = tuple[Length, Length]


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a drawing.

    Args:
        folds: for a score, by how many degrees the board beyond it turns up from where it lay flat.
    """

    kind: Kind
    start: Point
    end: Point
    folds: int = 90


@dataclass(frozen=True, slots=True)
class Dimension:
    """A measure between two points, drawn `row` rows outside the blank on that side, or on the blank where row is 0."""

    start: Point
    end: Point
    side: Side
    row: int

    @property
    def length(self) -> Length:
        """What it measures: along x for `below` and `above`, along y for the others."""
        axis = 0 if self.side in ("below", "above") else 1
        return Length(abs(self.end[axis].nm - self.start[axis].nm))


@dataclass(frozen=True, slots=True)
class Note:
    """Words on the board, centred at a point.

    Args:
        text: a line, or several.
        room: length and width of what it stands on; words that do not go in are cut short or left out.
    """

    at: Point
    text: str
    room: Point | None = None


@dataclass(frozen=True, slots=True)
class Blank:
    """One piece of board to cut.

    Args:
        name: "tray".
        size: of the rectangle it is cut from, x then y.
        outline: its corners in order, after cutting.
        lines, dimensions, notes: the drawing.
        flutes: the way the flutes run, "either way" where it does not matter.
        count: how many of it.
        hatched: rectangles that are left over, each by two opposite corners.
    """

    name: str
    size: Point
    outline: tuple[Point, ...]
    lines: tuple[Line, ...]
    dimensions: tuple[Dimension, ...]
    notes: tuple[Note, ...]
    flutes: Flutes
    count: int = 1
    hatched: tuple[tuple[Point, Point], ...] = ()

    @property
    def area_nm2(self) -> int:
        """Board of one left after cutting, in square nanometres, by the shoelace formula; whole to half a one."""
        corners = [(x.nm, y.nm) for x, y in self.outline]
        doubled = sum(x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(corners, corners[1:] + corners[:1], strict=True))
        return abs(doubled) // 2

    @property
    def sheet_area_nm2(self) -> int:
        """Board that one takes, waste of the cut-outs with it."""
        return self.size[0].nm * self.size[1].nm


def cut_along(outline: tuple[Point, ...]) -> tuple[Line, ...]:
    """The cut lines around an outline."""
    return tuple(Line("cut", a, b) for a, b in zip(outline, outline[1:] + outline[:1], strict=True))


def chain(marks: Sequence[Length], side: Side, edge: Length, row: int = 1) -> tuple[Dimension, ...]:
    """Dimensions from mark to mark along a side of the blank, whose edge is there; equal marks are passed over."""
    spans = [(a, b) for a, b in pairwise(marks) if a != b]
    if side in ("below", "above"):
        return tuple(Dimension((a, edge), (b, edge), side, row) for a, b in spans)
    return tuple(Dimension((edge, a), (edge, b), side, row) for a, b in spans)
