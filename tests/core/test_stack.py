"""Equal boxes one in another for what is long."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.make.stack import stack_up, steps
from fardo.core.quantity import INCH, ZERO, Length
from fardo.core.refusal import NoAnswer
from tests.made_up import inches, shop, sizes

C = shop().grade("C").caliper
OVERLAP = inches("2")


@pytest.mark.parametrize(("long", "boxes"), [("35", 3), ("29", 2), ("29 1/16", 3), ("12", 1), ("12 1/4", 2)])
def test_how_many_boxes_of_14_x_14_x_12_a_length_takes(long: str, boxes: int) -> None:
    """35 in takes three and 29 in fits two (common practice): two give 24 to 29, as a flap is 7 in and 2 overlap."""
    assert stack_up(sizes("14 x 14 x 12"), C, sizes(f"13 x 13 x {long}"), OVERLAP).boxes == boxes


def test_it_is_pulled_up_no_further_than_the_goods_ask() -> None:
    made = stack_up(sizes("14 x 14 x 12"), C, sizes("13 x 13 x 29"), OVERLAP)
    assert (made.least, made.most) == (inches("24"), inches("29"))
    assert made.pull == inches("5")
    assert made.inside == (inches("14") - C * 2, inches("14") - C * 2, inches("29"))
    home = stack_up(sizes("14 x 14 x 12"), C, sizes("13 x 13 x 35"), OVERLAP)
    assert home.pull == ZERO
    assert home.inside[2] == inches("36")
    assert any("Fill the" in step.do and step.measures == (inches("1"),) for step in steps(home))


def test_outside_it_grows_by_two_boards_at_each_side_over_a_joint() -> None:
    made = stack_up(sizes("14 x 14 x 12"), C, sizes("13 x 13 x 35"), OVERLAP)
    assert made.outside == (inches("14") + C * 6, inches("14") + C * 6, inches("36") + C * 4)
    one = stack_up(sizes("14 x 14 x 12"), C, sizes("13 x 13 x 11"), OVERLAP)
    assert one.outside == (inches("14") + C * 2, inches("14") + C * 2, inches("12") + C * 4)


def test_goods_stand_on_whichever_end_goes_in() -> None:
    made = stack_up(sizes("14 x 10 x 12"), C, sizes("33 x 9 x 13"), inches("1"))
    assert made.needed == sizes("13 x 9 x 33")


def test_the_flaps_that_go_down_inside_take_a_board_at_each_side() -> None:
    """Two boards of C, 5/16 in together, off an opening of 14 in; one box alone has no flaps inside."""
    with pytest.raises(NoAnswer, match="to go past the flaps at a joint"):
        stack_up(sizes("14 x 14 x 12"), C, sizes("13 3/4 x 13 3/4 x 35"), OVERLAP)
    assert stack_up(sizes("14 x 14 x 12"), C, sizes("13 3/4 x 13 3/4 x 12"), OVERLAP).boxes == 1
    fits = inches("14") - C * 2
    assert stack_up(sizes("14 x 14 x 12"), C, (fits, fits, inches("35")), OVERLAP).boxes == 3


def test_what_does_not_go_in_says_why() -> None:
    with pytest.raises(NoAnswer, match="thicker than the opening at a joint by 1 "):
        stack_up(sizes("12 x 12 x 12"), C, sizes("13 x 11 x 40"), OVERLAP)
    with pytest.raises(NoAnswer, match="flaps"):
        stack_up(sizes("12 x 4 x 12"), C, sizes("3 x 3 x 40"), OVERLAP)
    with pytest.raises(NoAnswer, match="longer than 12"):
        stack_up(sizes("6 x 6 x 6"), C, sizes("5 x 5 x 200"), OVERLAP)


sides = st.integers(50_000_000, 900_000_000).map(Length)


@given(st.tuples(sides, sides, sides), st.tuples(sides, sides, sides))
def test_it_holds_the_goods_within_its_joints_and_no_fewer_boxes_would(box, goods) -> None:
    try:
        made = stack_up(box, C, goods, OVERLAP)
    except NoAnswer:
        return
    assert all(have >= need for have, need in zip(made.inside, made.needed, strict=True))
    assert sorted(made.needed) == sorted(goods)
    assert made.flap - made.pull >= OVERLAP or made.boxes == 1
    if made.boxes > 1:
        pull = made.flap - OVERLAP
        pull = pull if pull >= INCH.half() else ZERO  # less than half an inch is never pulled
        fewer = box[2] * (made.boxes - 1) + pull * (made.boxes - 2)
        assert fewer < made.needed[2]
