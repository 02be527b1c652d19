"""The picture of a blank folding up, against the fold that the tests make by themselves."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.cut.fold import fold_panels, places, spans, stands
from fardo.core.make import WAYS, make_box
from fardo.core.quantity import Length
from tests.folding import fold, span
from tests.made_up import allowances, shop, sizes

measure = st.integers(60_000_000, 150_000_000).map(Length)
CUT = [name for name, way in WAYS.items() if way.NEEDS == "sheet" and name != "triangle"]


@given(st.tuples(measure, measure, measure), st.sampled_from(CUT))
def test_it_folds_to_as_large_a_solid(inside, way: str) -> None:
    for blank in make_box(way, inside, shop().grade("C"), allowances()).blanks:
        panels = fold_panels(blank)
        low, high = spans(panels)
        seen = span(fold(blank))
        assert sorted(high - low) == pytest.approx(sorted(seen[1] - seen[0]), abs=1e-3)
        assert all(panel.on < n for n, panel in enumerate(panels))


def test_flat_it_lies_as_it_was_drawn_and_half_way_up_its_walls_lean() -> None:
    tray = make_box("tray", sizes("10 x 8 x 3"), shop().grade("C"), allowances()).blanks[0]
    panels = fold_panels(tray)
    assert all(np.allclose(place, np.eye(4)) for place in places(panels, 0))
    half = places(panels, 0.5)
    heights = [(place @ [*panel.outline[0], 0, 1])[2] for panel, place in zip(panels, half, strict=True)]
    assert max(heights) > 0
    assert min(heights) >= -1e-9


@pytest.mark.parametrize("way", ["tray", "slotted", "five-panel", "tube", "halves", "folder"])
def test_the_contents_stand_within_the_folded_walls(way: str) -> None:
    made = make_box(way, sizes("14 x 9 x 5"), shop().grade("C"), allowances())
    panels = fold_panels(made.blanks[0])
    inside = tuple(side.mm for side in made.inside)
    place = stands(panels, inside)
    assert np.linalg.det(place[:3, :3]) == pytest.approx(1)
    corners = np.array([place @ [x, y, z, 1] for x in (0, inside[0]) for y in (0, inside[1]) for z in (0, inside[2])])
    low, high = spans(panels)
    reach = corners[:, :3]
    if way != "halves":  # a half alone is lower than what the two hold
        assert (reach.min(axis=0) >= low - 1e-6).all()
        assert (reach.max(axis=0) <= high + made.grade.caliper.mm).all()
