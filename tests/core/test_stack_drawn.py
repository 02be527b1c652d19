"""A telescoped stack from the side: its boxes, and at each joint what is hidden and what is seen."""

from __future__ import annotations

from fardo.core.make import Stock, make_box
from fardo.core.make.stock import StockBox
from fardo.core.quantity import Money
from tests.made_up import allowances, inches, shop, sizes


def drawn(long: str):
    box = StockBox("tall", sizes("14 x 14 x 12"), shop().grade("C"), Money(190, "USD"), 5, False)
    made = make_box("stack", sizes(f"13 x 13 x {long}"), box.grade, allowances(), "exact", Stock((box,)))
    assert made.standing is not None
    return made, made.standing


def test_boxes_stand_a_height_and_a_pull_apart() -> None:
    made, standing = drawn("40")  # three boxes, 36 in pressed home, two joints pulled up 2 in each
    assert standing.size[1] == inches("40") == made.inside[2]
    right = [d.length for d in standing.dimensions if d.side == "right" and d.row == 1]
    assert right == [inches("12"), inches("2"), inches("12"), inches("2"), inches("12")]
    assert [note.text for note in standing.notes] == ["box 1", "box 2", "box 3"]


def test_at_a_joint_the_lower_flaps_are_dashed_inside_and_the_upper_ones_full_outside() -> None:
    _, standing = drawn("40")
    feet = sorted({line.start[1] for line in standing.lines if line.kind == "score" and line.start[1] == line.end[1]})
    assert feet == [inches("7"), inches("21")]  # a flap below the upper box
    outer = [line for line in standing.lines if line.kind == "cut" and line.start[0].nm == 0 == line.end[0].nm]
    assert sorted((line.start[1], line.end[1]) for line in outer) == [
        (inches("12"), inches("19")), (inches("26"), inches("33")),
    ]  # fmt: skip
    (lies,) = [d.length for d in standing.dimensions if d.row == 3]
    assert lies == inches("5")  # of the flaps outside, as the steps say


def test_pressed_home_no_pull_is_drawn() -> None:
    _, standing = drawn("36")
    assert [d.length for d in standing.dimensions if d.side == "right" and d.row == 1] == [inches("12")] * 3
