"""Folds a blank's drawing along its scores and looks at the solid that results.

Nothing of the rules that made the drawing is used: the panels are what cuts, slots and scores divide the outline into
(polygonize of shapely), two of them hang together where a score lies between, and each turns about that score. A panel
is a board as thick as the caliper, the score in its middle.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from itertools import permutations

import numpy as np
from shapely import LineString, Point, Polygon, unary_union
from shapely.ops import polygonize

from fardo.core.cut.drawing import Blank

Matrix = np.ndarray


@dataclass(frozen=True)
class Panel:
    """A panel where it came to be: corners of its middle plane (n, 3) mm, and the way its inner face looks."""

    flat: Polygon
    place: Matrix

    @property
    def corners(self) -> np.ndarray:
        points = np.array(self.flat.exterior.coords)[:-1, :2]
        return (self.place @ np.column_stack([points, np.zeros(len(points)), np.ones(len(points))]).T).T[:, :3]

    @property
    def inward(self) -> np.ndarray:
        return self.place[:3, 2]


def panels_of(blank: Blank) -> tuple[list[Polygon], list[LineString]]:
    """The panels a drawing divides its blank into, and its scores."""
    lines = {kind: [] for kind in ("cut", "score", "slot")}
    for line in blank.lines:
        if line.kind in lines:
            lines[line.kind].append(LineString([[c.mm for c in line.start], [c.mm for c in line.end]]))
    outline = Polygon([(x.mm, y.mm) for x, y in blank.outline])
    every = unary_union([line for kind in lines.values() for line in kind])
    return [piece for piece in polygonize(every) if outline.contains(piece.representative_point())], lines["score"]


def fold(blank: Blank, angle: Callable[[Polygon, Polygon], float] = lambda _, __: 90.0) -> list[Panel]:
    """Every panel in its place, that in the middle of the blank lying as it was drawn with its inner face up.

    Args:
        angle: degrees by which the second turns up against the first about the score between them.
    """
    flats, scores = panels_of(blank)
    edges = [flat.exterior.buffer(1e-6) for flat in flats]
    joined = []
    for score in scores:
        along = [n for n, edge in enumerate(edges) if edge.intersection(score).length > 0.01]
        joined += [
            (a, b, score)
            for a, b in permutations(along, 2)
            if flats[a].intersection(flats[b]).intersection(score).length > 0.01
        ]
    middle = Point(blank.size[0].mm / 2, blank.size[1].mm / 2)
    first = min(range(len(flats)), key=lambda n: flats[n].distance(middle))
    placed = {first: np.eye(4)}
    ready = [first]
    while ready:
        a = ready.pop()
        for one, b, score in joined:
            if one == a and b not in placed:
                placed[b] = placed[a] @ _turn(score, flats[b], angle(flats[a], flats[b]))
                ready.append(b)
    assert len(placed) == len(flats), "a panel hangs on nothing"
    return [Panel(flats[n], placed[n]) for n in range(len(flats))]


def _turn(score: LineString, panel: Polygon, degrees: float) -> Matrix:
    """About a score, the panel's far side coming up."""
    (x, y), (u, v) = score.coords
    along = np.array([u - x, v - y, 0.0]) / score.length
    middle = panel.representative_point()
    left = along[0] * (middle.y - y) - along[1] * (middle.x - x)
    theta = math.radians(degrees) * (1 if left > 0 else -1)
    k = np.array([[0, -along[2], along[1]], [along[2], 0, -along[0]], [-along[1], along[0], 0]])
    turn = np.eye(3) + math.sin(theta) * k + (1 - math.cos(theta)) * (k @ k)
    at = np.array([x, y, 0.0])
    whole = np.eye(4)
    whole[:3, :3], whole[:3, 3] = turn, at - turn @ at
    return whole


def span(panels: list[Panel]) -> np.ndarray:
    """Lowest and highest of all middle planes: (2, 3) mm."""
    corners = np.concatenate([panel.corners for panel in panels])
    return np.array([corners.min(axis=0), corners.max(axis=0)])


def crossing(panels: list[Panel], near: float = 0.75) -> list[tuple[int, int]]:
    """Panels that go through each other: they stand at right angles, and each has board on both sides of the other by
    more than `near` mm.
    """
    found = []
    for i, one in enumerate(panels):
        for j, other in enumerate(panels[:i]):
            if abs(one.inward @ other.inward) > 1e-6:
                continue
            if _both_sides(one, other, near) and _both_sides(other, one, near) and _overlap(one, other, near):
                found.append((j, i))
    return found


def _both_sides(one: Panel, other: Panel, near: float) -> bool:
    heights = (one.corners - other.corners[0]) @ other.inward
    return heights.min() < -near and heights.max() > near


def _overlap(one: Panel, other: Panel, near: float) -> bool:
    """Along the line in which their planes meet."""
    along = np.cross(one.inward, other.inward)
    a, b = one.corners @ along, other.corners @ along
    return min(a.max(), b.max()) - max(a.min(), b.min()) > near
