"""What goes into a box beside the goods, each cut from board too: pads, dividers, sleeves, spacers, caps, rolls.

All of it is common practice; the sizes follow from the way board folds (see `made`).
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise
from typing import Literal

from fardo.core.cut.drawing import Blank, Dimension, Line, Note, Point, chain, cut_along
from fardo.core.goods.part import Sizes
from fardo.core.make.made import Allowances
from fardo.core.quantity import INCH, ZERO, Length
from fardo.core.refusal import BadInput, NoAnswer

Kind = Literal["pad", "liner", "divider", "sleeve", "spacer", "edge-cap", "corner-cap"]
KINDS: dict[Kind, str] = {
    "pad": "pad, flat, over or under the goods", "liner": "liner, around the four walls",
    "divider": "divider, cells with slotted strips", "sleeve": "sleeve, around one thing",
    "spacer": "spacer, a bridge that keeps a distance", "edge-cap": "edge cap, an angle along an edge",
    "corner-cap": "corner cap, three faces of a corner",
}  # fmt: skip
_BRIDGE = INCH * 3  # how wide a spacer's back is: starting value
_CAP = INCH * 3  # how far a corner cap goes along each edge: starting value
_HOLE = (INCH * 4, Length(INCH.nm * 5 // 4))  # across and deep: starting values
_HOLE_DOWN = INCH * 2
MOST_CELLS = 20
MINUTES_A_PIECE = Fraction(1)  # to cut and fold one: starting value

Where = Literal["below", "above", "both"]


@dataclass(frozen=True, slots=True)
class Wanted:
    """An insert that a job asks for. What its kind does not need is left out.

    Args:
        where: for a pad. along, across: cells of a divider. size: of the thing in a sleeve. length, depth: of a spacer
        and what it keeps; of an edge cap and its legs.

    Raises: BadInput for a divider of one cell.
    """

    kind: Kind
    count: int = 1
    where: Where = "below"
    along: int = 2
    across: int = 2
    size: Sizes | None = None
    length: Length | None = None
    depth: Length | None = None

    def __post_init__(self) -> None:
        if self.kind == "divider" and self.along * self.across < 2:
            raise BadInput("no divider", read="1 x 1 cells", allowed="two cells or more", field="along")

    def room(self, t: Length) -> tuple[Length, Length, Length]:
        """What it takes of the inside: under the goods, over them, and at each wall."""
        thick = t * self.count
        if self.kind == "pad":
            return thick if self.where != "above" else ZERO, thick if self.where != "below" else ZERO, ZERO
        return ZERO, ZERO, t if self.kind == "liner" else ZERO


@dataclass(frozen=True, slots=True)
class Insert:
    """
    Args:
        blanks: to cut. says: what a packer should know, with {} where a measure belongs. measures: in that order.
    """

    kind: Kind
    blanks: tuple[Blank, ...]
    says: str = ""
    measures: tuple[Length, ...] = ()


def cut_insert(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    """What is cut for an insert of a box of that inside. Raises BadInput naming what it lacks or cannot be."""
    count = wanted.count
    if wanted.kind == "pad":
        return pads(inside, t, allowances, count * (2 if wanted.where == "both" else 1))
    if wanted.kind == "liner":
        return liner(inside, t, allowances)
    if wanted.kind == "divider":
        return divider(inside, t, allowances, wanted.along, wanted.across)
    if wanted.kind == "sleeve":
        if wanted.size is None:
            raise BadInput("nothing given", read="", allowed="length x width x height of the thing", field="size")
        return sleeve(wanted.size, t, allowances, count)
    if wanted.kind == "corner-cap":
        return corner_cap(allowances, count)
    for name, given in (("length", wanted.length), ("depth", wanted.depth)):
        if given is None:
            raise BadInput("nothing given", read="", allowed="a measure", field=name)
    assert wanted.length is not None
    assert wanted.depth is not None
    if wanted.kind == "spacer":
        return spacer(wanted.length, wanted.depth, t, allowances, count)
    return edge_cap(wanted.length, wanted.depth, allowances, count)


def pads(inside: Sizes, t: Length, allowances: Allowances, count: int) -> Insert:
    """Flat boards as large as the inside, less the slip."""
    return Insert("pad", (_plain("pad", _loose(inside, allowances), count),))


def liner(inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    """One strip around the four walls, scored at the corners; it stands within `inside`, a board thick at each wall."""
    length, width = _loose(inside, allowances)
    height = allowances.at_most(inside[2])
    long, short = allowances.at_most(length - t), allowances.at_most(width - t)
    # The last wall ends in a cut edge that meets the first one's inner face.
    marks = (ZERO, long, long + short, long * 2 + short, long * 2 + short * 2 - t.half())
    blank = _scored("liner", marks, height, "across the blank")
    return Insert("liner", (blank,))


def divider(inside: Sizes, t: Length, allowances: Allowances, along: int, across: int) -> Insert:
    """Strips that slot into each other and make `along` x `across` cells; they stand as high as the inside.

    Slots are as wide as the board and half the height deep, from above in the long strips and from below in the short.
    Raises: BadInput for a number of cells out of range; NoAnswer where a cell would be nothing.
    """
    for name, cells in (("along", along), ("across", across)):
        if not 1 <= cells <= MOST_CELLS:
            raise BadInput("no number of cells", read=str(cells), allowed=f"1 to {MOST_CELLS}", field=name)
    length, width = _loose(inside, allowances)
    height = allowances.at_most(inside[2])
    cell = [Length((side.nm - t.nm * (cells - 1)) // cells) for side, cells in ((length, along), (width, across))]
    if min(cell).nm <= 0:
        raise NoAnswer(f"{along} x {across} cells of a divider are more than there is room for")
    blanks = []
    if across > 1:
        blanks.append(_slotted_strip("long strip", length, height, cell[0], along - 1, t, across - 1, True))
    if along > 1:
        blanks.append(_slotted_strip("short strip", width, height, cell[1], across - 1, t, along - 1, False))
    return Insert("divider", tuple(blanks), says="Each cell is {} x {} and as high as the box.", measures=tuple(cell))


def sleeve(around: Sizes, t: Length, allowances: Allowances, count: int = 1) -> Insert:
    """A band of four panels and a tab around a thing of that length, width and height; open at both ends of its length.

    Inside it is W by H: score to score W + t, H + t, the last panel half a caliper less.
    """
    length = allowances.at_most(around[0])
    wide, high = allowances.at_least(around[1] + t), allowances.at_least(around[2] + t)
    last = allowances.at_least(around[2] + t.half())
    tab = allowances.tab
    marks = (ZERO, tab, tab + wide, tab + wide + high, tab + wide * 2 + high, tab + wide * 2 + high + last)
    return Insert("sleeve", (_scored("sleeve", marks, length, "across the blank", count),))


def spacer(length: Length, distance: Length, t: Length, allowances: Allowances, count: int) -> Insert:
    """A bridge of three panels that keeps a distance: its legs stand, its back lies against the wall."""
    leg = allowances.at_least(distance - t.half())
    if leg.nm <= 0:
        raise NoAnswer("a spacer keeps no distance that is less than half a board")
    marks = (ZERO, leg, leg + _BRIDGE, leg * 2 + _BRIDGE)
    return Insert("spacer", (_scored("spacer", marks, length, "across the blank", count),))


def edge_cap(length: Length, leg: Length, allowances: Allowances, count: int) -> Insert:
    """An angle along an edge, `leg` wide on both faces."""
    wide = allowances.at_least(leg)
    return Insert("edge-cap", (_scored("edge cap", (ZERO, wide, wide * 2), length, "across the blank", count),))


def corner_cap(allowances: Allowances, count: int = 8) -> Insert:
    """A square of three equal faces, the fourth slit and lapped under: it goes over a corner of what is square."""
    side = allowances.at_least(_CAP)
    whole = side * 2
    outline: tuple[Point, ...] = (
        (ZERO, ZERO),
        (whole, ZERO),
        (whole, side),
        (side, side),
        (side, whole),
        (ZERO, whole),
    )
    lines = (*cut_along(outline), Line("score", (side, ZERO), (side, side)), Line("score", (ZERO, side), (side, side)))
    dimensions = (*chain((ZERO, side, whole), "below", ZERO), *chain((ZERO, side, whole), "left", ZERO))
    note = Note((side.half(), side.half()), "inside face up")
    blank = Blank("corner cap", (whole, whole), outline, lines, dimensions, (note,), "either way", count)
    return Insert("corner-cap", (blank,), says="Fold both wings up; tape where they meet.")


def edge_roll(name: str, outside: Sizes, t: Length, allowances: Allowances, count: int) -> Blank:
    """A hollow bar of that length, width and height outside: four panels, the last overlapping none, its edge taped."""
    wide, high = allowances.at_most(outside[1] - t), allowances.at_most(outside[2] - t)
    marks = (ZERO, wide, wide + high, wide * 2 + high, wide * 2 + high * 2)
    return _scored(name, marks, allowances.at_most(outside[0]), "across the blank", count)


def hand_holes(blank: Blank) -> Blank | None:
    """The blank of a case with a hand hole in each W panel; None where it has none that is large enough.

    A hole is 4 in across and its upper edge 2 in below the top; its flap is cut on three sides, scored above and pushed
    in, so that nothing sharp is left (common practice; a hole weakens the wall it is in).
    """
    upright = sorted({line.start[0] for line in blank.lines if line.kind == "score" and line.start[0] == line.end[0]})
    level = sorted({line.start[1] for line in blank.lines if line.kind == "score" and line.start[1] == line.end[1]})
    walls = [(a, b) for a, b in pairwise((*upright, blank.size[0])) for note in blank.notes
             if note.text == "W" and a < note.at[0] < b]  # fmt: skip
    if not walls or not level:
        return None
    low, high = level[0], level[-1] if len(level) > 1 else blank.size[1]
    if high - low < _HOLE[1] + _HOLE_DOWN * 2 or min(b - a for a, b in walls) < _HOLE[0] + _HOLE_DOWN * 2:
        return None
    lines, dimensions = list(blank.lines), list(blank.dimensions)
    top = high - _HOLE_DOWN
    bottom = top - _HOLE[1]
    for left, right in walls:
        a = (left + right).half() - _HOLE[0].half()
        b = a + _HOLE[0]
        lines += [Line("score", (a, top), (b, top)), Line("cut", (a, top), (a, bottom)),
                  Line("cut", (a, bottom), (b, bottom)), Line("cut", (b, bottom), (b, top))]  # fmt: skip
        dimensions.append(Dimension((a, bottom), (b, bottom), "below", 0))
    return replace(blank, lines=tuple(lines), dimensions=tuple(dimensions))


def _loose(inside: Sizes, allowances: Allowances) -> Point:
    """What goes in easily: the inside less the slip."""
    return allowances.at_most(inside[0] - allowances.slip), allowances.at_most(inside[1] - allowances.slip)


def _plain(name: str, size: Point, count: int) -> Blank:
    outline = ((ZERO, ZERO), (size[0], ZERO), size, (ZERO, size[1]))
    dimensions = (*chain((ZERO, size[0]), "below", ZERO), *chain((ZERO, size[1]), "left", ZERO))
    return Blank(name, size, outline, cut_along(outline), dimensions, (), "either way", count)


def _scored(
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


def _slotted_strip(
    name: str, length: Length, height: Length, cell: Length, slots: int, t: Length, count: int, from_above: bool
) -> Blank:
    """Slots a board wide, half the height deep, a cell apart; the cells at the ends take what is over."""
    middle = height.half()
    over = length - cell * (slots + 1) - t * slots
    first = cell + over.half()
    at = [first + (cell + t) * n for n in range(slots)]
    edge = height if from_above else ZERO
    points: list[Point] = []
    for x in at:
        points += [(x, edge), (x, middle), (x + t, middle), (x + t, edge)]
    if from_above:
        outline = ((ZERO, ZERO), (length, ZERO), (length, height), *reversed(points), (ZERO, height))
    else:
        outline = ((ZERO, ZERO), *points, (length, ZERO), (length, height), (ZERO, height))
    marks = (ZERO, *(x for start in at for x in (start, start + t)), length)
    dimensions = [*chain((ZERO, length), "below" if from_above else "above", ZERO if from_above else height),
                  *chain(marks, "above" if from_above else "below", edge),
                  *chain((ZERO, height), "left", ZERO)]  # fmt: skip
    if slots:
        dimensions += chain((middle, height) if from_above else (ZERO, middle), "right", length)
    return Blank(name, (length, height), outline, cut_along(outline), tuple(dimensions), (), "across the blank", count)
