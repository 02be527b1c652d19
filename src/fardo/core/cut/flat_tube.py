"""The drawing of a glued box that lies flat as a tube: what is cut on its outer face, and what is slit through.

The inner face cannot be reached, so a new corner is cut through the outer liner only and folded away from the cut. The
two faces are alike: whichever is up, the long walls lie to the left of the old corner once the box is turned straight
over (common practice).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from fardo.core.cut.drawing import Blank, Kind, Line, Note, chain
from fardo.core.quantity import ZERO, Length


@dataclass(frozen=True, slots=True)
class FlatTube:
    """A glued box as it lies flat, from its left fold and from the ends of its bottom flaps.

    Args:
        across: from fold to fold.
        body: from flap score to flap score.
        flap: depth of every flap, as it is.
        old_corner: the corner between the folds, from the left one.
        corners: new ones, none where they stay.
        cut_down: how far below the old top score the new one runs.
        outer, inner: depth to which bottom and top flaps of the long and of the short walls are cut back, None where
            they are left.
    """

    across: Length
    body: Length
    flap: Length
    old_corner: Length
    corners: tuple[Length, ...] = ()
    cut_down: Length = ZERO
    outer: tuple[Length | None, Length | None] = (None, None)
    inner: tuple[Length | None, Length | None] = (None, None)

    @property
    def scores(self) -> tuple[Length, Length]:
        """The bottom score and the new top score."""
        return self.flap, self.flap + self.body - self.cut_down

    @property
    def height(self) -> Length:
        return self.flap * 2 + self.body


def draw_flat_tube(name: str, face: str, tube: FlatTube) -> Blank:
    """One face of it.

    Args:
        face: said on the drawing, "front".
    """
    low, high = tube.scores
    top, far = tube.height, tube.across
    outline = ((ZERO, ZERO), (far, ZERO), (far, top), (ZERO, top))
    lines = [Line("edge", a, b) for a, b in zip(outline, outline[1:] + outline[:1], strict=True)]
    lines += [
        Line("old-fold", (ZERO, low), (far, low)),
        Line("old-fold", (ZERO, low + tube.body), (far, low + tube.body)),
    ]
    x = tube.old_corner
    lines += _corner(x, ("edge", "old-fold"), (low, high), (low + tube.body, top))
    if tube.cut_down.nm:
        lines.append(Line("liner-cut", (ZERO, high), (far, high)))
    for corner in tube.corners:
        lines += _corner(corner, ("slot", "liner-cut"), (low, high), (high, top))
    if not tube.corners and tube.cut_down.nm:
        lines += [Line("slot", (at, high), (at, low + tube.body)) for at in (ZERO, x, far)]
    # Between two new corners lies a long wall, and half a short one at each fold; else the long one is to the left.
    short_walls = (0, 2) if tube.corners else (1,)
    lines += _cut_back(tube, (ZERO, *(tube.corners or (x,)), far), short_walls, low, high)
    marks = (ZERO, *(tube.corners or (x,)), far)
    ups = (ZERO, low, high, *((low + tube.body,) if tube.cut_down.nm else ()), top)
    dimensions = [*chain(marks, "below", ZERO), *chain(ups, "left", ZERO)]
    dimensions += chain(_trims(tube, low, high), "right", far) if _trimmed(tube) else ()
    middle = (low + high).half()
    notes = [Note((far.half(), middle), face)]
    return Blank(name, (far, top), outline, tuple(lines), tuple(dimensions), tuple(notes), "either way")


def _trimmed(box: FlatTube | OpenedCase) -> bool:
    return any(back is not None for back in (*box.outer, *box.inner))


def _trims(box: FlatTube | OpenedCase, low: Length, high: Length) -> list[Length]:
    """Where its flaps are cut back, and its scores."""
    below, above = ({back for back in (box.outer[end], box.inner[end]) if back is not None} for end in range(2))
    return sorted({low, high, *(low - deep for deep in below), *(high + deep for deep in above)})


def _corner(
    x: Length, kinds: tuple[Kind, Kind], wall: tuple[Length, Length], above: tuple[Length, Length]
) -> tuple[Line, ...]:  # fmt: skip
    """A corner from end to end.

    Args:
        kinds: of line in the flaps and in the wall.
        above: from where to where the top flaps go.
    """
    in_flaps, in_wall = kinds
    return (
        Line(in_flaps, (x, ZERO), (x, wall[0])), Line(in_wall, (x, wall[0]), (x, wall[1])),
        Line(in_flaps, (x, above[0]), (x, above[1])),
    )  # fmt: skip


def _cut_back(
    box: FlatTube | OpenedCase, edges: Sequence[Length], short_walls: tuple[int, ...], low: Length, high: Length
) -> Iterator[Line]:
    """Across the flaps that are cut back, wall by wall.

    Args:
        edges: of the walls.
        short_walls: by their place.
    """
    for wall, (a, b) in enumerate(pairwise(edges)):
        below, above = box.inner if wall in short_walls else box.outer
        if below is not None:
            yield Line("cut", (a, low - below), (b, low - below))
        if above is not None:
            yield Line("cut", (a, high + above), (b, high + above))


@dataclass(frozen=True, slots=True)
class OpenedCase:
    """A box opened at its seam, inner face up, the end without the tab to the left; what is over laps at the right.

    Args:
        long, short: new walls, score to score.
        around: the old walls in all, its tab at their end not counted.
        tab: of the old seam.
        body: between the old flap scores. The others as for a flat tube.
    """

    long: Length
    short: Length
    around: Length
    tab: Length
    body: Length
    flap: Length
    old_corners: tuple[Length, ...]
    cut_down: Length = ZERO
    outer: tuple[Length | None, Length | None] = (None, None)
    inner: tuple[Length | None, Length | None] = (None, None)
    cut_off: Length = ZERO


def draw_opened(name: str, case: OpenedCase) -> Blank:
    """It with its new corners scored on the inner face."""
    low, old_high = case.flap, case.flap + case.body
    high, top, far = old_high - case.cut_down, case.flap * 2 + case.body, case.around + case.tab
    corners = [case.long, case.long + case.short, case.long * 2 + case.short, (case.long + case.short) * 2]
    end = far - case.cut_off
    outline = ((ZERO, ZERO), (case.around, ZERO), (case.around, low), (far, low), (far, old_high),
               (case.around, old_high), (case.around, top), (ZERO, top))  # fmt: skip
    lines = [Line("edge", a, b) for a, b in zip(outline, outline[1:] + outline[:1], strict=True)]
    lines += [Line("old-fold", (ZERO, y), (case.around, y)) for y in (low, old_high)]
    for x in case.old_corners:
        lines += _corner(x, ("edge", "old-fold"), (low, high), (old_high, top))
    for corner in corners:
        lines += _corner(corner, ("slot", "score"), (low, high), (high, top))
    if case.cut_down.nm:
        lines.append(Line("score", (ZERO, high), (corners[-1], high)))
    # No flaps are left on the wall that laps.
    lines += [Line("cut", (corners[-1], y), (end, y)) for y in (low, high)]
    if case.cut_off.nm:
        lines.append(Line("cut", (end, low), (end, high)))
    lines += _cut_back(case, [ZERO, *corners], (1, 3), low, high)
    ups = (ZERO, low, high, *((old_high,) if case.cut_down.nm else ()), top)
    dimensions = [*chain((ZERO, *corners, end), "below", ZERO), *chain(ups, "left", ZERO)]
    dimensions += chain(_trims(case, low, high), "right", far) if _trimmed(case) else ()
    middle = (low + high).half()
    notes = [Note((case.long.half(), (high + top).half()), "inside\nface up"),
             Note(((corners[-1] + end).half(), middle), "laps")]  # fmt: skip
    return Blank(name, (far, top), outline, tuple(lines), tuple(dimensions), tuple(notes), "either way")
