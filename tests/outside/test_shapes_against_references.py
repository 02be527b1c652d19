"""Shapes against formulas written down here anew, against trimesh (a general-purpose mesh library) and shapely.

Round things have 64 sides in a mesh, so a mesh's volume is a known share of the formula's: an inscribed regular polygon
of n sides has n/(2 pi) sin(2 pi/n) of the circle's area (elementary geometry).
"""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
import pytest
import shapely
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.goods.shape import (
    SHAPES,
    Bars,
    Box,
    Cup,
    Cylinder,
    Disc,
    Ellipsoid,
    Mesh,
    Piece,
    Ring,
    Shape,
    Taper,
    bars,
    compound,
    outline,
    scanned,
)
from fardo.core.goods.shape.mesh import FACETS
from fardo.core.quantity import MM, SIXTY_FOURTH, Length

FACETED = FACETS / (2 * math.pi) * math.sin(2 * math.pi / FACETS)

side = st.integers(8, 64 * 30).map(lambda n: SIXTY_FOURTH * n)
small = st.integers(8, 64 * 3).map(lambda n: SIXTY_FOURTH * n)
spot = st.tuples(*[st.integers(0, 64 * 20).map(lambda n: SIXTY_FOURTH * n)] * 3)


@st.composite
def rings(draw: st.DrawFn) -> Ring:
    inner = draw(side)
    return Ring(inner + draw(small), inner, draw(small))


@st.composite
def frames(draw: st.DrawFn) -> Shape:
    corners = draw(st.lists(spot, min_size=2, max_size=5, unique=True))
    return bars(draw(small), list(pairwise(corners)))


@st.composite
def plates(draw: st.DrawFn) -> Shape:
    """A star around a middle: its corners go round it once, so it never crosses itself; with a small hole in it."""
    count = draw(st.integers(3, 9))
    reaches = draw(st.lists(st.integers(120, 400), min_size=count, max_size=count))
    angles = [2 * math.pi * n / count for n in range(count)]
    points = [
        (Length.of_mm(round(r * math.cos(a), 3)), Length.of_mm(round(r * math.sin(a), 3)))
        for r, a in zip(reaches, angles, strict=True)
    ]
    hole = [(MM * x, MM * y) for x, y in ((-9, -9), (9, -9), (9, 9), (-9, 9))]
    return outline(points, draw(small), [hole] if draw(st.booleans()) else [])


_COS, _SIN = math.cos(0.6), math.sin(0.6)
TURN = ((_COS, -_SIN, 0.0), (_SIN, _COS, 0.0), (0.0, 0.0, 1.0))


@st.composite
def compounds(draw: st.DrawFn) -> Shape:
    some = st.one_of(st.builds(Box, side, side, side), st.builds(Cylinder, side, side), rings())
    pieces = draw(st.lists(st.tuples(some, spot, st.booleans()), min_size=1, max_size=4))
    return compound([Piece(shape, at, TURN) if turned else Piece(shape, at) for shape, at, turned in pieces])


shapes = st.one_of(
    st.builds(Box, side, side, side),
    st.builds(Cylinder, side, side),
    st.builds(Disc, side, small),
    rings(),
    st.builds(Cup, side, side, small),
    st.builds(Taper, side, side, side),
    st.builds(Ellipsoid, side, side, side),
    frames(),
    plates(),
    compounds(),
)


def reference(shape: Shape) -> trimesh.Trimesh:
    """Corners are not merged: two pieces that touch along an edge stay two closed surfaces."""
    mesh = shape.mesh()
    return trimesh.Trimesh(mesh.vertices, mesh.faces, process=False)


@given(shapes)
def test_every_mesh_is_closed_and_as_large_as_its_shape_says(shape: Shape) -> None:
    mesh = reference(shape)
    assert mesh.is_watertight
    assert mesh.is_winding_consistent
    low, high = mesh.bounds
    for axis in range(3):
        # Facets may fall short of a round side, never go beyond it.
        assert low[axis] >= -1e-6
        assert high[axis] <= shape.sizes[axis].mm + 1e-6
        assert high[axis] - low[axis] >= shape.sizes[axis].mm * math.cos(math.pi / FACETS) - 1e-6


@given(shapes)
def test_volume_and_surface_agree_with_the_mesh_within_its_facets(shape: Shape) -> None:
    mesh = reference(shape)
    volume, area = shape.volume_nm3 / 1e18, shape.area_nm2 / 1e12
    # The round ends of bars have half as many sides.
    assert mesh.volume == pytest.approx(volume, rel=0.025 if isinstance(shape, Bars) else 0.006)
    # Where pieces barely touch, facets move a narrow seam; its share of the surface is small.
    assert mesh.area == pytest.approx(area, rel=0.02)


@given(side, side, side)
def test_plain_shapes_have_the_volume_and_surface_of_their_formulas(a: Length, b: Length, c: Length) -> None:
    x, y, z = a.mm, b.mm, c.mm
    formulas = {
        Box(a, b, c): (x * y * z, 2 * (x * y + y * z + z * x)),
        Cylinder(a, b): (math.pi * x**2 / 4 * y, math.pi * x * (x / 2 + y)),
        Disc(a, b): (math.pi * x**2 / 4 * y, math.pi * x * (x / 2 + y)),
        Ring(a + b, a, c): (
            math.pi / 4 * ((x + y) ** 2 - x**2) * z,
            math.pi / 2 * ((x + y) ** 2 - x**2) + math.pi * (2 * x + y) * z,
        ),
        Taper(a, b, c): (
            math.pi * z / 12 * (x * x + x * y + y * y),
            math.pi / 4 * (x * x + y * y) + math.pi * (x + y) / 2 * math.hypot(z, (x - y) / 2),
        ),
        Ellipsoid(a, a, a): (math.pi * x**3 / 6, math.pi * x * x),
    }
    for shape, (volume, area) in formulas.items():
        assert shape.volume_nm3 / 1e18 == pytest.approx(volume, rel=1e-12)
        assert shape.area_nm2 / 1e12 == pytest.approx(area, rel=1e-9)


@given(side, small)
def test_a_round_mesh_has_just_the_share_of_the_circle_that_its_sides_have(a: Length, b: Length) -> None:
    for shape in (Cylinder(a, b), Disc(a, b), Ring(a + b, a, b)):
        assert reference(shape).volume == pytest.approx(shape.volume_nm3 / 1e18 * FACETED, rel=1e-8)


@given(shapes)
def test_each_dimension_line_is_as_long_as_the_measure_it_stands_for(shape: Shape) -> None:
    own = {asked.name: getattr(shape, asked.name).mm for asked in shape.ASKED}
    own |= dict(zip(("length", "width", "height"), (side.mm for side in shape.sizes), strict=True)) if not own else {}
    own |= {"diameter": shape.diameter.mm} if isinstance(shape, Bars) else {}
    lines = shape.lines()
    assert {line.name for line in lines} == set(own)
    for line in lines:
        assert math.dist(line.start, line.end) == pytest.approx(own[line.name], rel=1e-9)


@given(shapes, st.tuples(*[st.floats(-1, 1)] * 3))
def test_no_corner_of_the_mesh_reaches_further_than_the_shape(shape: Shape, direction) -> None:
    along = float((shape.mesh().vertices @ np.array(direction)).max()) * 1e6
    assert along <= shape.support(direction) + 10


@given(shapes, st.sampled_from([0, 1, 2]))
def test_the_girth_is_that_of_the_shadow_drawn_taut(shape: Shape, axis: int) -> None:
    """Against the outline of the convex hull of the mesh seen along the axis (shapely)."""
    flat = np.delete(shape.mesh().vertices, axis, axis=1)
    taut = shapely.MultiPoint(flat).convex_hull.length
    assert shape.girth(axis).mm == pytest.approx(taut, rel=2e-3)
    assert shape.girth(axis).mm >= taut * (1 - 1e-4)


@given(plates())
def test_an_outline_has_the_area_that_shapely_finds(plate) -> None:
    points = [(x.mm, y.mm) for x, y in plate.points]
    holes = [[(x.mm, y.mm) for x, y in hole] for hole in plate.holes]
    flat = shapely.Polygon(points, holes)
    assert plate.volume_nm3 / 1e18 == pytest.approx(flat.area * plate.thickness.mm, rel=1e-9)
    assert plate.area_nm2 / 1e12 == pytest.approx(2 * flat.area + flat.length * plate.thickness.mm, rel=1e-6)


@given(compounds())
def test_a_mesh_read_in_again_is_the_shape_it_was_made_from(shape: Shape) -> None:
    again = scanned("piece.stl", Mesh(shape.mesh().vertices / 25.4, shape.mesh().faces), Length.of_inches(1))
    mesh = reference(shape)
    assert [size.mm for size in again.sizes] == pytest.approx(list(mesh.extents), abs=1e-5)
    assert again.volume_nm3 / 1e18 == pytest.approx(mesh.volume, rel=1e-6)


def test_every_kind_of_the_format_is_tested_here() -> None:
    assert set(SHAPES) == {
        "box", "cylinder", "disc", "ring", "cup", "taper", "ellipsoid", "bars", "outline", "compound", "mesh",
    }  # fmt: skip
