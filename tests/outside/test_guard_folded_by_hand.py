"""Corner guards folded along their lines, as hands do it: rotation of panels in space, and what comes of it."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.cut.corner_guard import draw_guard
from fardo.core.protect.forms.corner import corner_guard
from fardo.core.quantity import SIXTY_FOURTH, Length
from tests.made_up import inches

thick = st.integers(16, 64 * 4).map(lambda n: SIXTY_FOURTH * n)
reach = st.integers(64, 64 * 8).map(lambda n: SIXTY_FOURTH * n)


def scores(blank) -> tuple[list[float], list[float]]:
    """Where the lines stand, from the left edge and from the lower edge, in mm."""
    upright = sorted(
        {line.start[0].mm for line in blank.lines if line.kind == "score" and line.start[0] == line.end[0]}
    )
    level = sorted({line.start[1].mm for line in blank.lines if line.kind == "score" and line.start[1] == line.end[1]})
    return upright, level


def turned_about(points: np.ndarray, at: np.ndarray, axis: np.ndarray, degrees: float) -> np.ndarray:
    """Points turned about a line, by Rodrigues' formula."""
    angle, moved = math.radians(degrees), points - at
    across = np.cross(axis, moved)
    along = np.outer(moved @ axis, axis)
    return at + moved * math.cos(angle) + across * math.sin(angle) + along * (1 - math.cos(angle))


def panel(x0: float, x1: float, y0: float, y1: float) -> np.ndarray:
    return np.array([[x0, y0, 0], [x1, y0, 0], [x1, y1, 0], [x0, y1, 0]], dtype=float)


@given(thick, reach)
def test_folded_twice_it_makes_a_wall_as_high_as_the_slab_and_lies_on_its_back(t: Length, r: Length) -> None:
    blank = draw_guard(corner_guard(t, r))
    (one, two), _ = scores(blank)
    side = blank.size[0].mm
    axis = np.array([0.0, 1.0, 0.0])
    wall, back = panel(one, two, two, side), panel(0, one, two, side)
    # The face lies on the slab's front; the wall folds down at the inner line, the back folds in at the outer one.
    at_two, at_one = np.array([two, 0, 0]), np.array([one, 0, 0])
    back = turned_about(back, at_one, axis, -90)
    wall, back = (turned_about(piece, at_two, axis, -90) for piece in (wall, back))
    assert wall[:, 0] == pytest.approx(two)  # upright, at the slab's edge
    assert np.ptp(wall[:, 2]) == pytest.approx(t.mm)
    assert back[:, 2] == pytest.approx(-t.mm)  # flat on the back
    assert back[:, 0].min() == pytest.approx(two)
    assert np.ptp(back[:, 0]) == pytest.approx(t.mm)


@given(thick, reach)
def test_what_is_cut_out_is_just_what_would_be_in_the_way(t: Length, r: Length) -> None:
    """Without the square in the corner the two walls would need the same board."""
    blank = draw_guard(corner_guard(t, r))
    outline = shapely.Polygon([(x.mm, y.mm) for x, y in blank.outline])
    side, out = blank.size[0].mm, 2 * t.mm
    assert outline.area == pytest.approx(side**2 - out**2)
    for piece in (panel(0, out, out, side), panel(out, side, 0, out), panel(out, side, out, side)):
        assert outline.buffer(1e-6).contains(shapely.Polygon(piece[:, :2]))


@given(thick, reach)
def test_its_lines_lie_on_it_and_its_dimensions_add_up(t: Length, r: Length) -> None:
    blank = draw_guard(corner_guard(t, r))
    outline = shapely.Polygon([(x.mm, y.mm) for x, y in blank.outline]).buffer(1e-6)
    for line in blank.lines:
        ends = [(point[0].mm, point[1].mm) for point in (line.start, line.end)]
        assert outline.contains(shapely.LineString(ends))
    for edge in ("below", "left"):
        row = [dimension.length for dimension in blank.dimensions if dimension.side == edge]
        assert Length(sum(length.nm for length in row)) == blank.size[0]


def test_for_an_inch_and_a_half_it_is_cut_from_seven_with_a_three_inch_square_out() -> None:
    """Common practice, with a reach of 4 in."""
    blank = draw_guard(corner_guard(inches("1 1/2"), inches("4")))
    assert scores(blank) == ([38.1, 76.2], [38.1, 76.2])
    assert blank.size == (inches("7"), inches("7"))
    assert float(blank.area_nm2 / 25_400_000**2) == 40
