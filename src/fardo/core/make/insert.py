"""What goes into a box beside the goods, each cut from board too: pads, dividers, sleeves, spacers, caps, rolls.

All of it is common practice; the sizes follow from the way board folds (see `made`).
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from fardo.core.cut.drawing import Blank, Dimension, Line, Note, Point, chain, cut_along
from fardo.core.goods.part import Sizes
from fardo.core.make.made import Allowances
from fardo.core.quantity import INCH, ZERO, Length
from fardo.core.refusal import BadInput

Kind = Literal["pad", "liner", "divider", "sleeve", "spacer", "edge-cap", "corner-cap"]
KINDS: dict[Kind, str] = {
    "pad": "pad, flat, over or under the goods", "liner": "liner, around the four walls",
    "divider": "divider, cells with slotted strips", "sleeve": "sleeve, around one thing",
    "spacer": "spacer, a bridge that keeps a distance", "edge-cap": "edge cap, an angle along an edge",
    "corner-cap": "corner cap, three faces of a corner",
}  # fmt: skip
_BRIDGE = INCH * 3  # how wide a spacer's back is: starting value
_CAP = INCH * 3  # how far a corner cap goes along each edge: starting value
MOST_CELLS = 20


@dataclass(frozen=True, slots=True)
class Insert:
    """
    Args:
        blanks: to cut. below, above: what it takes of the inside's height under and over the goods; around: at each
        wall. says: what a packer should know, with {} where a measure belongs. measures: in that order.
    """

    kind: Kind
    blanks: tuple[Blank, ...]
    below: Length = ZERO
    above: Length = ZERO
    around: Length = ZERO
    says: str = ""
    measures: tuple[Length, ...] = ()


def pads(inside: Sizes, t: Length, allowances: Allowances, below: int, above: int) -> Insert:
    """Flat boards as large as the inside, less the slip. Raises BadInput for none at all."""
    if below + above < 1:
        raise BadInput("no pad", read="0", allowed="1 or more", field="count")
    size = _loose(inside, allowances)
    blank = _plain("pad", size, below + above)
    return Insert("pad", (blank,), t * below, t * above)


def liner(inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    """One strip around the four walls, scored at the corners; it stands within `inside`, a board thick at each wall."""
    length, width = _loose(inside, allowances)
    height = allowances.at_most(inside[2])
    long, short = allowances.at_most(length - t), allowances.at_most(width - t)
    # The last wall ends in a cut edge that meets the first one's inner face.
    marks = (ZERO, long, long + short, long * 2 + short, long * 2 + short * 2 - t.half())
    blank = _scored("liner", marks, height, "across the blank")
    return Insert("liner", (blank,), around=t)


def divider(inside: Sizes, t: Length, allowances: Allowances, along: int, across: int) -> Insert:
    """Strips that slot into each other and make `along` x `across` cells; they stand as high as the inside.

    Slots are as wide as the board and half the height deep, from above in the long strips and from below in the short.
    Raises: BadInput for a number of cells out of range, or where a cell would be nothing.
    """
    for name, cells in (("along", along), ("across", across)):
        if not 1 <= cells <= MOST_CELLS:
            raise BadInput("no number of cells", read=str(cells), allowed=f"1 to {MOST_CELLS}", field=name)
    if along * across < 2:
        raise BadInput("one cell needs no divider", read="1 x 1", allowed="two cells or more", field="along")
    length, width = _loose(inside, allowances)
    height = allowances.at_most(inside[2])
    cell = [Length((side.nm - t.nm * (cells - 1)) // cells) for side, cells in ((length, along), (width, across))]
    if min(cell).nm <= 0:
        raise BadInput("more cells than there is room", read=f"{along} x {across}", allowed="fewer", field="along")
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
        raise BadInput("less than half a board", read=f"{distance.mm:g} mm", allowed="more", field="depth")
    marks = (ZERO, leg, leg + _BRIDGE, leg * 2 + _BRIDGE)
    return Insert("spacer", (_scored("spacer", marks, length, "across the blank", count),))


def edge_cap(length: Length, leg: Length, allowances: Allowances, count: int) -> Insert:
    """An angle along an edge, `leg` wide on both faces."""
    wide = allowances.at_least(leg)
    return Insert("edge-cap", (_scored("edge cap", (ZERO, wide, wide * 2), length, "across the blank", count),))


def corner_cap(t: Length, allowances: Allowances, count: int = 8) -> Insert:
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


def hand_holes(blank: Blank, panels: tuple[tuple[Length, Length, Length], ...], across: Length = INCH * 4) -> Blank:
    """The blank with a hand hole in each panel: its flap is cut on three sides and pushed in, scored above.

    Args:
        panels: for each, its left and right along the blank and the height of the hole's upper edge. across: its width.
    """
    deep = INCH + Length(INCH.nm // 4)
    lines, dimensions = list(blank.lines), list(blank.dimensions)
    for left, right, top in panels:
        a = (left + right).half() - across.half()
        b, low = a + across, top - deep
        lines += [Line("score", (a, top), (b, top)), Line("cut", (a, top), (a, low)), Line("cut", (a, low), (b, low)),
                  Line("cut", (b, low), (b, top))]  # fmt: skip
        dimensions.append(Dimension((a, low), (b, low), "below", 0))
    return Blank(
        blank.name, blank.size, blank.outline, tuple(lines), tuple(dimensions), blank.notes, blank.flutes, blank.count
    )


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
