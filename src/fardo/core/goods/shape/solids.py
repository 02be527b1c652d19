"""Solids of the plain shapes, for looking at them, for uniting them and for what has no formula.

A solid is the geometry library's own closed body, in mm. Imported where one is wanted: its arrays load slowly.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any, TypeAlias

import numpy as np
from manifold3d import CrossSection, Error, Manifold, OpType
from manifold3d import Mesh64 as Triangles
from numpy.typing import NDArray

from fardo.core.goods.shape.mesh import FACETS, Mesh

Solid: TypeAlias = Any
Ring = Sequence[tuple[float, float]]

_VIEW_FACES = 20_000


def block(length: float, width: float, height: float) -> Solid:
    return Manifold.cube((length, width, height))


def upright(diameter_a: float, diameter_b: float, height: float) -> Solid:
    """A cylinder, disc or cone that stands in the middle of its bounding box."""
    centre = max(diameter_a, diameter_b) / 2
    return Manifold.cylinder(height, diameter_a / 2, diameter_b / 2, FACETS).translate((centre, centre, 0))


def ring(outer: float, inner: float, thickness: float) -> Solid:
    flat = CrossSection.circle(outer / 2, FACETS) - CrossSection.circle(inner / 2, FACETS)
    return flat.extrude(thickness).translate((outer / 2, outer / 2, 0))


def egg(length: float, width: float, height: float) -> Solid:
    return Manifold.sphere(0.5, FACETS).translate((0.5, 0.5, 0.5)).scale((length, width, height))


def rod(
    start: Sequence[float], end: Sequence[float], diameter: float, rounded: tuple[bool, bool] = (True, True)
) -> Solid:
    """A bar between two points, each of its ends round or flat."""
    ends = np.array([start, end], dtype=float)
    ball = np.asarray(Manifold.sphere(diameter / 2, FACETS // 2).to_mesh64().vert_properties)[:, :3]
    disc = ball if all(rounded) else _circle(ends[1] - ends[0]) * diameter / 2
    return Manifold.hull_points(
        np.concatenate([at + (ball if one else disc) for at, one in zip(ends, rounded, strict=True)])
    )


def _circle(normal: NDArray[np.float64]) -> NDArray[np.float64]:
    """Points (FACETS, 3) of the circle of radius 1 about the origin, across a direction."""
    along = normal / np.linalg.norm(normal)
    first = np.cross(along, np.eye(3)[np.abs(along).argmin()])
    first /= np.linalg.norm(first)
    angles = np.linspace(0, 2 * np.pi, FACETS, endpoint=False)[:, None]
    circle: NDArray[np.float64] = np.cos(angles) * first + np.sin(angles) * np.cross(along, first)
    return circle


def plate(outline: Ring, holes: Iterable[Ring], thickness: float) -> Solid:
    """An outline with its holes, made thick."""
    flat = CrossSection([np.array(_against_the_clock(outline))])
    for hole in holes:
        flat -= CrossSection([np.array(_against_the_clock(hole))])
    return flat.extrude(thickness)


def joined(solids: Iterable[Solid]) -> Solid:
    return Manifold.batch_boolean(list(solids), OpType.Add)


def overlap(solids: Sequence[Solid]) -> tuple[float, float]:
    """By how much the volumes (mm3) and surfaces (mm2) of solids add up to more than their union has."""
    union = joined(solids)
    volume = sum(solid.volume() for solid in solids) - union.volume()
    return volume, sum(solid.surface_area() for solid in solids) - union.surface_area()


def moved(solid: Solid, turn: Sequence[Sequence[float]], at: Sequence[float]) -> Solid:
    """Turned by a matrix, then moved by `at`."""
    return solid.transform(np.hstack([np.array(turn, dtype=float), np.array(at, dtype=float)[:, None]]))


def of_triangles(vertices: NDArray[np.float64], faces: NDArray[np.int64]) -> Solid | None:
    """A closed surface as a solid, None where it is not closed."""
    made = Manifold(Triangles(np.ascontiguousarray(vertices), np.ascontiguousarray(faces, dtype=np.uint64)))
    return made if made.status() == Error.NoError and not made.is_empty() else None


def coarse(solid: Solid) -> Solid:
    """Light enough to be looked at: as it is, or thinned until it has few enough faces."""
    low, tolerance = np.array(solid.bounding_box()[:3]), 0.0
    size = float((np.array(solid.bounding_box()[3:]) - low).max())
    while solid.num_tri() > _VIEW_FACES and tolerance < size / 20:
        tolerance = tolerance * 2 or size / 2000
        thinner = solid.simplify(tolerance)
        if thinner.is_empty():
            break
        solid = thinner
    return solid


def mesh_of(solid: Solid) -> Mesh:
    triangles = solid.to_mesh64()
    return Mesh(np.asarray(triangles.vert_properties)[:, :3], np.asarray(triangles.tri_verts, dtype=np.int64))


def _against_the_clock(points: Ring) -> Ring:
    twice = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, [*points[1:], points[0]], strict=True))
    return points if twice > 0 else list(reversed(points))
