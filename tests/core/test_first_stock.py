"""What a new shop begins with: boxes and mailers typed a line each, and the starting values in centimetres."""

from __future__ import annotations

import re

import pytest

from fardo.core.quantity import ZERO, Length, Units, read_length, read_sizes
from fardo.core.refusal import BadInput
from fardo.files.first_start import AtHand, new_shop, with_at_hand
from fardo.files.metric_start import metric_shop
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.stock_lines import read_stock_lines

LINES = """size,count
14 x 10 x 6, 25
used, 20x16x12
padded, 9 1/2 x 12 1/2, 40, 0.45

wine carton, 30 x 20 x 10 cm, 1.20, 5
bag 24 x 36
"""


def test_three_sides_are_a_box_and_two_a_mailer() -> None:
    boxes, mailers = read_stock_lines(LINES, "in", "C")
    assert [(one.name, one.inside, one.count, one.price, one.used) for one in boxes] == [
        ("14 x 10 x 6", "14 x 10 x 6 in", 25, "0.00", False),
        ("used 20 x 16 x 12", "20 x 16 x 12 in", 1, "0.00", True),
        ("wine carton", "30 x 20 x 10 cm", 5, "1.20", False),
    ]
    assert [(one.name, one.kind, one.width, one.length, one.count, one.price) for one in mailers] == [
        ("padded", "padded", "9 1/2 in", "12 1/2 in", 40, "0.45"),
        ("bag", "bag", "24 in", "36 in", 1, "0.00"),
    ]


def test_a_spreadsheets_columns_read_the_same() -> None:
    boxes, _ = read_stock_lines("name\tsize\tprice\tcount\nlong carton\t60 x 10 x 10\t2.10\t4", "cm", "B")
    assert [(one.name, one.inside, one.price, one.count, one.board) for one in boxes] == [
        ("long carton", "60 x 10 x 10 cm", "2.10", 4, "B")
    ]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("14 x 10 x 6\nlong carton", "line 2"), ("14 x ten x 6 x", "line 1"), ("1 x 2 x 3 x 4", "4 sides"),
        ("0 x 3 x 4", "line 1"), ("long carton", "no size"), ("14 x 10 x 6, 0,45", "line 1: read '45', not understood"),
        ("14 x 10 x 6, 999999", "line 1.count"), ("14 x 10 x 6\r7", "line 2"), ("x" * 150_000 + ",1", "not a table"),
    ],
)  # fmt: skip
def test_a_line_that_cannot_be_read_is_named(text: str, says: str) -> None:
    with pytest.raises(BadInput) as fault:
        read_stock_lines(text, "in", "C")
    assert says in str(fault.value)


def test_a_price_may_have_a_comma_where_cells_are_parted_otherwise() -> None:
    boxes, _ = read_stock_lines("35 x 25 x 15; 0,45; 20", "cm", "C")
    assert [(one.price, one.count) for one in boxes] == [("0.45", 20)]


@pytest.mark.parametrize("units", ["in", "cm"])
def test_a_new_shop_has_nothing_at_hand_but_what_it_says(units: Units) -> None:
    shop = new_shop(units)
    shop.to_core()
    assert (shop.units, shop.boxes, shop.mailers) == (units, [], [])
    said = with_at_hand(shop, AtHand(lines="14 x 10 x 6, 25\npadded, 9 x 12", usual_sizes=True))
    said.to_core()
    assert (said.boxes[0].name, said.boxes[0].count, said.mailers[0].name) == ("14 x 10 x 6", 25, "padded")
    usual = [box for box in (starting_shop() if units == "in" else metric_shop()).boxes if not box.used]
    assert said.boxes[1:] == usual
    # Said twice they are there once.
    assert with_at_hand(said, AtHand(usual_sizes=True)) == said
    assert shop.boxes == []


def test_boards_that_are_not_there_leave_a_shop_that_works() -> None:
    shop = with_at_hand(new_shop("in"), AtHand(boards=["E", "B"]))
    core = shop.to_core()
    assert (sorted(core.grades), core.default_grade) == (["B", "E"], "E")
    assert {one.board for one in shop.materials if one.board} == {"E"}
    with_at_hand(shop, AtHand(usual_sizes=True)).to_core()
    with pytest.raises(BadInput, match="one of the boards at least"):
        with_at_hand(shop, AtHand(boards=["C"]))
    with pytest.raises(BadInput, match="boxes in stock are made of board"):
        with_at_hand(starting_shop(), AtHand(boards=["E"]))


def test_the_kerf_follows_what_it_is_cut_with_and_a_set_one_stays() -> None:
    def kerf(shop: ShopFile) -> Length:
        return shop.to_core().kerf

    new = new_shop("in")
    knife = with_at_hand(new, AtHand(cut_with="knife"))
    assert (kerf(knife), kerf(with_at_hand(knife, AtHand(cut_with="saw")))) == (ZERO, kerf(new))
    thin = new.model_copy(update={"kerf": "1/16 in"})
    assert (
        kerf(with_at_hand(thin, AtHand(cut_with="saw")))
        == kerf(with_at_hand(thin, AtHand()))
        == read_length("1/16", "in")
    )


def test_the_metric_start_has_no_inch_left_and_every_size_near_what_it_was() -> None:
    metric, was = metric_shop(), starting_shop()
    metric.to_core()
    told = metric.model_dump_json()
    assert re.findall(r"\d in\b|\d lb\b|\d oz\b", told) == []
    for now, before in zip(metric.boxes, was.boxes, strict=True):
        a = [side.mm for side in read_sizes(str(now.inside), "cm", field="inside")]
        b = [side.mm for side in read_sizes(str(before.inside), "in", field="inside")]
        assert all(abs(x - y) <= 5 for x, y in zip(a, b, strict=True)), now.name
        if " x " in now.name:
            assert now.name.endswith(str(now.inside).removesuffix(" cm"))
    for board, before_board in zip(metric.boards, was.boards, strict=True):
        now, before_ = (read_length(str(one.caliper), "in").mm for one in (board, before_board))
        assert abs(now - before_) <= 0.26
