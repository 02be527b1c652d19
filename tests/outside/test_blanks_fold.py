"""Every blank folds: its drawing turned along its scores is a solid of the promised inside and outside.

See `tests/folding.py`. A score lies in the middle of the board, so between two folded panels the inside is the distance
of their middle planes less one caliper and the outside one caliper more; where flaps lie double it is two.
"""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.cut.drawing import Blank
from fardo.core.goods.part import Sizes
from fardo.core.make import make_box
from fardo.core.make.allowances import SLIP
from fardo.core.make.recut import recuts
from fardo.core.quantity import ZERO, Length
from fardo.core.refusal import NoAnswer
from tests.folding import crossing, fold, span
from tests.made_up import allowances, shop

measure = st.integers(60_000_000, 700_000_000).map(Length)
insides = st.tuples(measure, measure, measure)
boards = st.sampled_from(["E", "B", "C", "BC"])
steps = st.sampled_from([None, "1/16", "1 mm"])


def mm(sizes: Sizes) -> list[float]:
    return [side.mm for side in sizes]


def folded_case(blank: Blank, caliper: float) -> tuple[list[float], list[float]]:
    """Inside and outside of a case, in the order of its own length, width and height."""
    panels = fold(blank)
    assert crossing(panels) == []
    low, high = span(panels)
    sides = high - low
    # The walls stand about the axis that runs across the drawing; it lies on its largest panel.
    up = next(axis for axis in range(3) if abs(_flaps_look(panels, axis)) > 0.5)
    around = [sides[axis] for axis in range(3) if axis != up]
    length, width = max(around), min(around)
    inside = [length - caliper, width - caliper, sides[up] - 2 * caliper]
    outside = [length + caliper, width + caliper, sides[up] + 2 * caliper]
    return inside, outside


def _flaps_look(panels, axis: int) -> float:
    """Of flaps there are eight: the axis along which most panels look."""
    counts = [sum(abs(panel.inward[k]) > 0.5 for panel in panels) for k in range(3)]
    return float(int(np.argmax(counts)) == axis)


@given(insides, boards, steps)
def test_a_slotted_case_folds_to_its_promised_sizes(inside: Sizes, board: str, step: str | None) -> None:
    made = make_box("slotted", inside, shop().grade(board), allowances(step))
    folded_in, folded_out = folded_case(made.blanks[0], made.grade.caliper.mm)
    assert folded_in == pytest.approx(mm(made.inside), abs=1e-3)
    assert folded_out == pytest.approx(mm(made.outside), abs=1e-3)


@given(insides, boards, steps)
def test_lid_and_tray_fold_and_the_lid_slides_over_the_tray(inside: Sizes, board: str, step: str | None) -> None:
    made = make_box("tray", inside, shop().grade(board), allowances(step))
    t = made.grade.caliper.mm
    tray, lid = made.blanks
    spans = []
    for blank in (tray, lid):
        panels = fold(blank)
        assert len(panels) == 5
        assert crossing(panels) == []
        # Every wall's inner face looks inwards.
        middle = np.mean([panel.corners.mean(axis=0) for panel in panels], axis=0)
        assert all((middle - panel.corners.mean(axis=0)) @ panel.inward > 0 for panel in panels)
        low, high = span(panels)
        spans.append(high - low)
    (tray_span, lid_span) = spans
    assert list(tray_span - [t, t, t / 2]) == pytest.approx(mm(made.inside), abs=1e-3)
    slip = allowances(step)[SLIP].mm
    for axis in (0, 1):
        loose = (lid_span[axis] - t) - (tray_span[axis] + t)
        assert slip - 1e-6 <= loose <= slip + 1.6 + 1e-6  # a fence step more at most
    # The lid's walls end above the table the tray stands on.
    assert lid_span[2] <= tray_span[2] + t + 1e-6
    assert [*(lid_span[:2] + t), tray_span[2] + t * 1.5] == pytest.approx(mm(made.outside), abs=1e-3)


@given(insides, insides, boards)
def test_a_box_made_over_folds_to_its_promised_sizes(old: Sizes, needed: Sizes, board: str) -> None:
    t = shop().grade(board).caliper
    try:
        found = recuts(old, t, needed, ZERO, "tape")
    except NoAnswer:
        # Nothing of it fits: in no turn is it both low enough and small enough around.
        around = old[0] + old[1]
        for up in range(3):
            rest = [needed[n] for n in range(3) if n != up]
            assert needed[up] > old[2] or rest[0] + rest[1] > around
        return
    for made in found:
        assert all(have >= want for have, want in zip(made.inside, made.needed, strict=True))
        assert sorted(made.needed) == sorted(needed)
        folded_in, folded_out = folded_case(made.blank, t.mm)
        promised = [max(mm(made.inside[:2])), min(mm(made.inside[:2])), made.inside[2].mm]
        assert folded_in == pytest.approx(promised, abs=1e-3)
        assert sorted(folded_out) == pytest.approx(sorted(mm(made.outside)), abs=1e-3)


@given(insides, insides, boards)
def test_a_box_made_over_is_cut_from_the_board_the_old_one_has(old: Sizes, needed: Sizes, board: str) -> None:
    t = shop().grade(board).caliper
    try:
        found = recuts(old, t, needed, Length.of_inches("1/4"))
    except NoAnswer:
        return
    before = (old[0] + old[1]) * 2 + t * 4
    flap = min(old[:2]).half() + t.half()
    for made in found:
        tab = min(line.start[0] for line in made.blank.lines if line.kind == "score")
        # A seam of half a caliper is the one thing the drawing leaves off.
        assert made.blank.size[0] - tab == before - t.half()
        assert made.blank.size[1] <= old[2] + t * 2 + flap * 2


@given(insides, boards, steps)
def test_a_five_panel_folder_folds_to_its_promised_sizes(inside: Sizes, board: str, step: str | None) -> None:
    made = make_box("five-panel", inside, shop().grade(board), allowances(step))
    t = made.grade.caliper.mm
    assert all(have >= want for have, want in zip(made.inside, made.needed, strict=True))
    panels = fold(made.blanks[0])
    assert len(panels) == 5 + 6
    assert crossing(panels) == []
    low, high = span(panels)
    length, _, height = high - low
    # Bottom, two sides and two tops are as long as the body; the ends' flaps lie double.
    sides = sorted(float(panel.corners[0][1]) for panel in panels if _stands(panel, 1) and _wide(panel, 0) > length / 2)
    tops = sorted(float(panel.corners[0][2]) for panel in panels if _stands(panel, 2))
    assert len(sides) == 2
    assert len(tops) == 3
    between = sides[1] - sides[0]
    assert [length - 2 * t, between - t, tops[1] - tops[0] - t] == pytest.approx(mm(made.inside), abs=1e-3)
    assert [length + 2 * t, between + t, height + t] == pytest.approx(mm(made.outside), abs=1e-3)
    # The outer top lies on the inner one, a board higher or by a step of the fence more.
    assert t - 1e-6 <= tops[2] - tops[1] <= t + 1.6
    # Neither top goes into a wall: the inner ends inside the far one, the outer within the folder's width.
    ends = [panel.corners[:, 1] for panel in panels if _stands(panel, 2)]
    assert all(end.min() >= sides[0] - t / 2 - 1e-6 and end.max() <= sides[1] + t / 2 + 1e-6 for end in ends)


def _stands(panel, axis: int) -> bool:
    return abs(panel.inward[axis]) > 0.5


def _wide(panel, axis: int) -> float:
    return float(np.ptp(panel.corners[:, axis]))
