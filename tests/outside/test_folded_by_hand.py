"""Blanks cut apart along their own lines by shapely: the panels that come out are those of a box.

What the drawing says is taken as the only truth here: cuts, scores and slots are split into panels by a general-purpose
library, and the box is put together from the panels' sizes, without the rules that made the drawing.
"""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString, Point, Polygon, unary_union
from shapely.ops import polygonize

from fardo.core.cut.drawing import Blank
from fardo.core.make import Made, make_box
from fardo.core.make.allowances import SLIP, TAB
from fardo.core.quantity import Length
from tests.made_up import allowances, shop

measure = st.integers(60_000_000, 700_000_000).map(Length)
insides = st.tuples(measure, measure, measure)


def panels(blank: Blank) -> list[Polygon]:
    lines = [
        LineString([(line.start[0].mm, line.start[1].mm), (line.end[0].mm, line.end[1].mm)])
        for line in blank.lines
        if line.kind != "second-score"
    ]
    return list(polygonize(unary_union(lines)))


def side(panel: Polygon) -> tuple[float, float]:
    left, bottom, right, top = panel.bounds
    return round(right - left, 4), round(top - bottom, 4)


def case(inside: tuple[Length, Length, Length]) -> tuple[Made, list[Polygon]]:
    made = make_box("slotted", inside, shop().grade("C"), allowances())
    return made, panels(made.blanks[0])


@given(insides)
def test_a_case_falls_into_four_walls_eight_flaps_and_a_tab(inside: tuple[Length, Length, Length]) -> None:
    made, found = case(inside)
    assert len(found) == 13
    t = made.grade.caliper.mm
    long, short = sorted((made.inside[0].mm, made.inside[1].mm), reverse=True)
    body = made.inside[2].mm + 2 * t
    flap = (short + t) / 2
    # Two walls as wide as the length, one as the width, the last half a caliper less; flaps above and below each.
    widths = [long + t, short + t, long + t, short + t / 2]
    found_sides = [side(panel) for panel in found if side(panel)[0] > allowances()[TAB].mm + 1]
    assert sorted(w for w, _ in found_sides) == pytest.approx(sorted(widths * 3), abs=1e-3)
    assert sorted(h for _, h in found_sides) == pytest.approx(sorted([body] * 4 + [flap] * 8), abs=1e-3)
    assert sum(w * h for w, h in found_sides) == pytest.approx(sum(widths) * (body + 2 * flap), rel=1e-5)


@given(insides)
def test_wall_by_wall_the_case_closes_around_its_inside(inside: tuple[Length, Length, Length]) -> None:
    """Once around, the middle of the board is twice inside length and width and four calipers, less the half that the
    last wall leaves for the seam.
    """
    made, found = case(inside)
    t, tab = made.grade.caliper.mm, allowances()[TAB].mm
    body = made.inside[2].mm + 2 * t
    walls = [side(p)[0] for p in found if abs(side(p)[1] - body) < 0.01 and side(p)[0] > tab + 1]
    assert sum(walls) == pytest.approx(2 * (made.inside[0].mm + made.inside[1].mm) + 4 * t - t / 2, abs=0.01)


@given(insides, st.sampled_from(["exact", "thumb"]))
def test_lid_and_tray_fall_into_a_base_and_four_walls_each(inside: tuple[Length, Length, Length], school: str) -> None:
    made = make_box("tray", inside, shop().grade("C"), allowances(), school)
    for blank in made.blanks:
        found = panels(blank)
        assert len(found) == 5
        middle = Point(blank.size[0].mm / 2, blank.size[1].mm / 2)
        (base,) = (panel for panel in found if panel.contains(middle))
        walls = [panel for panel in found if panel is not base]
        assert all(base.intersection(wall).length > 0 for wall in walls)
        # A wall's other side is the base's; what is left is its depth, the same all round.
        depths = [wall.area / base.intersection(wall).length for wall in walls]
        assert depths == pytest.approx([depths[0]] * 4, rel=1e-9)


@given(insides)
def test_the_exact_lid_goes_over_the_tray_with_its_slip_and_no_more(inside: tuple[Length, Length, Length]) -> None:
    """Board outside the score's middle line is half a caliper, inside too: lid inside - tray outside is the slip."""
    made = make_box("tray", inside, shop().grade("C"), allowances(), "exact")
    t = made.grade.caliper.mm
    bases = []
    for blank in made.blanks:
        scores = [line for line in blank.lines if line.kind == "score"]
        xs = sorted({line.start[0].mm for line in scores if line.start[0] == line.end[0]})
        ys = sorted({line.start[1].mm for line in scores if line.start[1] == line.end[1]})
        bases.append((xs[1] - xs[0], ys[1] - ys[0]))
    tray, lid = bases
    for tray_base, lid_base in zip(tray, lid, strict=True):
        assert (lid_base - t) - (tray_base + t) == pytest.approx(allowances()[SLIP].mm, abs=1e-6)
    # Closed, the carrier measures the lid across and the tray's wall with its base and the lid's top upright.
    assert made.outside[0].mm == pytest.approx(lid[0] + t)
    assert made.outside[2].mm == pytest.approx(made.inside[2].mm + 2 * t)
