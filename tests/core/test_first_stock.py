"""What a new shop begins with: boxes and mailers typed a line each, and the starting values in centimetres."""

from __future__ import annotations

import re

import pytest

from fardo.core.quantity import read_length, read_sizes
from fardo.core.refusal import BadInput
from fardo.files.metric_start import metric_shop
from fardo.files.shop import starting_shop
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
        ("0 x 3 x 4", "line 1"),
    ],
)  # fmt: skip
def test_a_line_that_cannot_be_read_is_named(text: str, says: str) -> None:
    with pytest.raises(BadInput) as fault:
        read_stock_lines(text, "in", "C")
    assert says in str(fault.value)


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
