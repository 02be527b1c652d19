"""A used box made over: corners moved, height cut down, turned; and the count at the bench."""

from __future__ import annotations

import pytest

from fardo.core.make.allowances import REFOLD
from fardo.core.make.recut import recuts, steps
from fardo.core.quantity import ZERO
from fardo.core.refusal import NoAnswer
from tests.made_up import allowances, inches, shop, sizes

C = shop().grade("C").caliper
REFOLD = allowances()[REFOLD]


def test_corners_moved_by_the_tape_measure_lose_nothing() -> None:
    """18 1/2 x 12 is 30 1/2 around half, and so is 24 x 6 1/2 (common practice)."""
    best = recuts(sizes("18 1/2 x 12 x 21"), C, sizes("24 x 6 1/2 x 21"), REFOLD, "tape")[0]
    assert best.inside == sizes("24 x 6 1/2 x 21")
    assert best.moved
    assert best.flaps_meet
    assert best.cut_down == ZERO


def test_at_the_bench_a_quarter_of_an_inch_goes_into_the_folds() -> None:
    with pytest.raises(NoAnswer, match="together are 1/4 in"):
        recuts(sizes("18 1/2 x 12 x 21"), C, sizes("24 x 6 1/2 x 21"), REFOLD, "bench", upright=True)
    best = recuts(sizes("18 1/2 x 12 x 21"), C, sizes("24 x 6 1/4 x 21"), REFOLD, "bench", upright=True)[0]
    assert best.inside == sizes("24 x 6 1/4 x 21")


def test_what_is_over_goes_to_the_longer_side() -> None:
    best = recuts(sizes("16 x 12 x 10"), C, sizes("18 x 8 x 10"), ZERO, "tape", upright=True)[0]
    assert best.inside == sizes("20 x 8 x 10")


def test_a_box_that_holds_it_as_it_is_keeps_its_corners() -> None:
    found = recuts(sizes("16 x 12 x 10"), C, sizes("15 x 11 x 10"), REFOLD, upright=True)
    kept = next(made for made in found if not made.moved)
    assert kept.inside == sizes("16 x 12 x 10")
    assert [made.inside for made in found if made.moved] == [(inches("16 3/4"), inches("11"), inches("10"))]


def test_a_cut_down_top_has_flaps_longer_by_what_came_off() -> None:
    best = next(m for m in recuts(sizes("16 x 12 x 10"), C, sizes("16 x 12 x 6"), REFOLD, upright=True) if not m.moved)
    assert best.inside == sizes("16 x 12 x 6")
    assert best.cut_down == inches("4")
    assert best.above == best.below + inches("4")
    assert best.trimmed
    words = " ".join(step.do for step in steps(best))
    assert "Slit the four corners down" in words
    assert "Cut the outer flaps back" in words


def test_flaps_that_do_not_meet_ask_for_a_pad() -> None:
    """A box 20 x 6 has flaps of 3 in; 13 x 13 wants 6 1/2. Cut down by 2 in the top has 5 in, still too little."""
    found = recuts(sizes("20 x 6 x 12"), ZERO, sizes("13 x 13 x 10"), ZERO, "tape", upright=True)
    (made,) = found
    assert not made.flaps_meet
    assert made.gap == inches("7")
    assert any("cut a pad" in step.do for step in steps(made))


def test_any_side_may_become_the_bottom_unless_it_must_stand() -> None:
    old, needed = sizes("12 x 12 x 20"), sizes("20 x 12 x 12")
    assert recuts(old, C, needed, REFOLD)[0].inside == old
    with pytest.raises(NoAnswer):
        recuts(old, C, needed, REFOLD, upright=True)


def test_what_is_short_is_said_with_the_turn_that_lacks_least() -> None:
    with pytest.raises(NoAnswer, match=r"1 in \(26 mm\) too low"):
        recuts(sizes("12 x 12 x 9"), C, sizes("10 x 10 x 10"), ZERO, "tape")


def test_the_steps_name_the_lines_where_they_are_scored() -> None:
    made = recuts(sizes("18 1/2 x 12 x 21"), C, sizes("24 x 6 1/2 x 21"), REFOLD, "tape")[0]
    marks = [step for step in steps(made) if "new corners" in step.do]
    assert [step.measures for step in marks] == [(inches("24") + C,)]
    assert any(step.knife for step in steps(made))
    old = [line for line in made.blank.lines if line.kind == "old-fold"]
    tab = min(line.start[0] for line in made.blank.lines if line.kind == "score")
    assert [line.start[0] - tab for line in old] == [inches("18 1/2") + C, inches("49") + C * 3]
