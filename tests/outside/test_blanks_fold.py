"""Every blank folds: its drawing turned along its scores is a solid of the promised inside and outside.

See `tests/folding.py`. A score lies in the middle of the board, so between two folded panels the inside is the distance
of their middle planes less one caliper and the outside one caliper more; where flaps lie double it is two.
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.cut.drawing import Blank
from fardo.core.goods.part import Sizes
from fardo.core.make import make_box
from fardo.core.make.allowances import SLIP
from fardo.core.make.made_over import Recut, recuts
from fardo.core.quantity import SIXTEENTH, ZERO, Length
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


def made_over(old: Sizes, needed: Sizes, t: Length, lost: Length) -> list[Recut]:
    """None where nothing of it fits: in no turn is it both low enough and small enough around."""
    try:
        return recuts(old, t, needed, lost, SIXTEENTH, "tape")
    except NoAnswer:
        for up in range(3):
            rest = [needed[n] for n in range(3) if n != up]
            assert needed[up] > old[2] or rest[0] + rest[1] > old[0] + old[1]
        return []


def walls_of(made: Recut) -> list[Length]:
    """The four walls as the drawings have them, one after the other, from the first that is long."""
    face = made.blanks[0]
    upright = sorted({line.start[0] for line in face.lines if line.start[0] == line.end[0] and line.kind in
                      ("liner-cut", "score")})  # fmt: skip
    if made.lap.nm:
        return [b - a for a, b in pairwise([ZERO, *upright])]
    if made.corners is None:
        crease = next(line.start[0] for line in face.lines if line.kind == "old-fold" and line.start[0] == line.end[0])
        return [crease, face.size[0] - crease] * 2
    # Around either fold the wall goes on over to the other face.
    first, second = upright
    assert made.blanks[1].lines == face.lines
    return [second - first, (face.size[0] - second) * 2, second - first, first * 2]


@given(insides, insides, boards)
def test_a_box_made_over_folds_to_its_promised_sizes(old: Sizes, needed: Sizes, board: str) -> None:
    t = shop().grade(board).caliper
    for made in made_over(old, needed, t, ZERO):
        assert all(have >= want for have, want in zip(made.inside, made.needed, strict=True))
        assert sorted(made.needed) == sorted(needed)
        long, short, *others = walls_of(made)
        assert others == [long, short]
        # An odd nanometre of a wall lies on one side of a fold.
        assert sorted([(long - t).mm, (short - t).mm]) == pytest.approx(sorted(mm(made.inside)[:2]), abs=3e-6)
        # A tube goes around as far as it did; what is more of an opened one laps.
        around = (long + short) * 2
        before = (old[0] + old[1] + t * 2) * 2
        assert around == before if not made.lap.nm else around + made.lap <= before
        levels = sorted({line.start[1] for face in made.blanks for line in face.lines if line.start[1] == line.end[1]
                         and line.kind in ("old-fold", "liner-cut", "score")})  # fmt: skip
        assert made.inside[2] + t * 2 in {level - levels[0] for level in levels}
        # Closed, it holds its flaps: two boards at either end, three where they lap.
        lapping = sum(1 for lap in made.laps if lap.nm)
        assert made.outside[2] == made.inside[2] + t * (4 + lapping)


@given(insides, insides, boards)
def test_no_flap_of_a_box_made_over_rides_or_sticks_out(old: Sizes, needed: Sizes, board: str) -> None:
    t = shop().grade(board).caliper
    for made in made_over(old, needed, t, Length.of_inches("1/4")):
        for end in range(2):
            outer = made.outer[end] or made.flaps[end]
            inner = made.inner[end] or made.flaps[end]
            assert outer <= made.width
            assert inner * 2 <= made.length
            assert made.laps[end].nm == 0 or made.open_between[end].nm == 0


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
