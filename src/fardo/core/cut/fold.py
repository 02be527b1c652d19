"""A blank folding up: its panels, which hangs on which, and how the contents stand in what they fold to.

Panels are what cuts, slots and scores part the outline into; one hangs on another where a score lies between, and turns
up about it by as much as the score says. Only middle planes are reckoned here, for a picture; the sizes that are
promised come from the ways themselves.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import permutations

import numpy as np
import numpy.typing as npt

from fardo.core.cut.drawing import Blank
from fardo.core.goods.part import Sizes
from fardo.core.quantity import Length
from fardo.core.refusal import NoAnswer

MOST_LINES = 400  # with more a drawing is no box
Matrix = npt.NDArray[np.float64]
Flat = tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class FoldPanel:
    """A panel of a blank that folds up.

    Args:
        outline: on the flat blank, mm.
        on: the number of the panel it hangs on, -1 for the one that lies still.
        hinge: two points of the score, so that a positive turn about it from first to second brings the panel up.
        degrees: how far it turns.
    """

    outline: Flat
    on: int
    hinge: tuple[tuple[float, float], tuple[float, float]]
    degrees: int


def fold_panels(blank: Blank) -> tuple[FoldPanel, ...]:
    """The panels, the still one first and every other after the one it hangs on.

    Raises: NoAnswer for a drawing that does not hang together or has too many lines.
    """
    from shapely import LineString, Polygon, unary_union  # it takes a moment to load
    from shapely.ops import polygonize

    if len(blank.lines) > MOST_LINES:
        raise NoAnswer(f"it has {len(blank.lines)} lines; a box has up to {MOST_LINES}")
    scores = [
        (LineString([_mm(line.start), _mm(line.end)]), line.folds) for line in blank.lines if line.kind == "score"
    ]
    cuts = [LineString([_mm(line.start), _mm(line.end)]) for line in blank.lines if line.kind in ("cut", "slot")]
    outline = Polygon([_mm(point) for point in blank.outline])
    pieces = polygonize(unary_union([*cuts, *(score for score, _ in scores)]))
    flats = [piece for piece in pieces if outline.contains(piece.representative_point())]
    if not flats:
        raise NoAnswer("its lines enclose no panel")
    middle = outline.representative_point()
    still = max(range(len(flats)), key=lambda n: (flats[n].area, -flats[n].distance(middle)))
    found: list[FoldPanel] = [FoldPanel(_outline(flats[still]), -1, ((0.0, 0.0), (0.0, 0.0)), 0)]
    number, ready = {still: 0}, [still]
    while ready:
        a = ready.pop(0)
        for score, degrees in scores:
            for b, other in enumerate(flats):
                if b in number or flats[a].intersection(other).intersection(score).length < 0.01:
                    continue
                number[b] = len(found)
                found.append(FoldPanel(_outline(other), number[a], _hinge(score, other), degrees))
                ready.append(b)
    if len(found) < len(flats):
        raise NoAnswer("a panel of it hangs on nothing")
    return tuple(found)


def _mm(point: tuple[object, object]) -> tuple[float, float]:
    x, y = point
    return x.mm, y.mm  # type: ignore[attr-defined]


def _outline(piece: object) -> Flat:
    points = list(piece.exterior.coords)[:-1]  # type: ignore[attr-defined]
    return tuple((float(x), float(y)) for x, y in points)


def _hinge(score: object, panel: object) -> tuple[tuple[float, float], tuple[float, float]]:
    """From first to second with the panel on the left, so that it comes up."""
    (x, y), (u, v) = score.coords  # type: ignore[attr-defined]
    middle = panel.representative_point()  # type: ignore[attr-defined]
    left = (u - x) * (middle.y - y) - (v - y) * (middle.x - x)
    return ((x, y), (u, v)) if left > 0 else ((u, v), (x, y))


def places(panels: Sequence[FoldPanel], part: float = 1.0) -> list[Matrix]:
    """Where each panel is once all are folded so far (0 flat, 1 folded): 4 x 4 matrices from the flat blank."""
    found: list[Matrix] = []
    for panel in panels:
        if panel.on < 0:
            found.append(np.eye(4))
            continue
        (x, y), (u, v) = panel.hinge
        along = np.array([u - x, v - y, 0.0])
        along /= np.linalg.norm(along)
        theta = np.radians(panel.degrees * part)
        k = np.array([[0, -along[2], along[1]], [along[2], 0, -along[0]], [-along[1], along[0], 0]])
        turn = np.eye(3) + np.sin(theta) * k + (1 - np.cos(theta)) * (k @ k)
        at = np.array([x, y, 0.0])
        whole = np.eye(4)
        whole[:3, :3], whole[:3, 3] = turn, at - turn @ at
        found.append(found[panel.on] @ whole)
    return found


def spans(panels: Sequence[FoldPanel]) -> tuple[Matrix, Matrix]:
    """Lowest and highest of the middle planes of all panels, folded: (3,) mm each."""
    points = [
        place @ np.array([x, y, 0.0, 1.0])
        for panel, place in zip(panels, places(panels), strict=True)
        for x, y in panel.outline
    ]
    whole = np.array(points)[:, :3]
    return whole.min(axis=0), whole.max(axis=0)


def stands_in(panels: Sequence[FoldPanel], inside: tuple[float, float, float]) -> Matrix | None:
    """As `stands`; None where the folded blank does not hold that inside."""
    low, high = spans(panels)
    holds = all(want <= have + 1 for want, have in zip(sorted(inside), sorted(high - low), strict=True))
    return stands(panels, inside) if holds else None


def folds_to(panels: Sequence[FoldPanel], caliper: Length) -> tuple[Sizes, Sizes]:
    """Inside and outside of what a blank of one's own folds to, with two boards at every wall, so that neither promises
    too much. Raises NoAnswer where it folds to no box.
    """
    low, high = spans(panels)
    sides = [Length.of_mm(round(float(side), 3)) for side in high - low]
    a, b, c = (Length(max(side.nm - caliper.nm * 2, 0)) for side in sides)
    if not min(a, b, c).nm:
        raise NoAnswer("It folds to no box: score what is to fold, on a layer or in a class named score.")
    d, e, f = (side + caliper * 2 for side in sides)
    return (a, b, c), (d, e, f)


def stands(panels: Sequence[FoldPanel], inside: tuple[float, float, float]) -> Matrix:
    """From the inside of the box, its lowest corner at 0, to the folded blank: 4 x 4, mm.

    The sides are matched to the folded blank's by size, and the inside stands in its middle; a turn, never a mirror.
    """
    low, high = spans(panels)
    room = high - low
    order = min(permutations(range(3)), key=lambda axes: sum(abs(room[axes[n]] - inside[n]) for n in range(3)))
    turn = np.zeros((3, 3))
    for n, axis in enumerate(order):
        turn[axis, n] = 1.0
    if np.linalg.det(turn) < 0:
        turn[:, 0] *= -1
    whole = np.eye(4)
    whole[:3, :3] = turn
    whole[:3, 3] = (low + high) / 2 - turn @ (np.array(inside) / 2)
    return whole
