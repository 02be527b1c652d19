"""Mailers, bags, boxes in bags, carriers' containers and two boxes end to end: what closes on what, and what lacks."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.make import Stock, make_box
from fardo.core.make.allowances import SEAMS
from fardo.core.make.mailer import must_close
from fardo.core.make.stock import Pouch, PouchKind, StockBox
from fardo.core.plan.boxed import box_up
from fardo.core.plan.journey import Journey
from fardo.core.plan.price import price
from fardo.core.quantity import Length, Money, read_mass
from fardo.core.refusal import NoAnswer
from tests.made_up import allowances, inches, load, ranked, services, shop, sizes

C = shop().grade("C")
SMALL_BUBBLE = inches("3/16")


def pouch(width: str, length: str, kind: PouchKind = "padded", **changes: object) -> Pouch:
    plain = Pouch(
        f"{kind} {width} x {length}", kind, inches(width), inches(length), inches("3/16"), None, read_mass("35 g"),
        Money(42, "USD"), 10,
    )  # fmt: skip
    return replace(plain, **changes)


def box(inside: str, count: int = 2, **changes: object) -> StockBox:
    return replace(StockBox(f"box {inside}", sizes(inside), C, Money(100, "USD"), count, False), **changes)


def take(way: str, inside: str, stock: Stock):
    return make_box(way, sizes(inside), C, allowances(), "exact", stock)


def wrapped(layers: tuple[int, int, int]) -> tuple[Length, Length, Length]:
    """A box 7 x 4 x 4 with so many layers of small bubble around each of its ways."""
    a, b, c = (inches(side) + SMALL_BUBBLE * 2 * n for side, n in zip(("7", "4", "4"), layers, strict=True))
    return a, b, c


def test_7_x_4_x_4_closes_in_9_and_a_half_x_12_and_a_half_with_one_layer_and_not_with_two_lengthways() -> None:
    """Common practice: one layer of small bubble goes in, with nothing spare for a second one lengthways."""
    envelope, seams = pouch("9 1/2", "12 1/2"), allowances()[SEAMS]
    must_close(envelope, wrapped((1, 1, 1)), seams)
    with pytest.raises(NoAnswer, match="too short"):
        must_close(envelope, wrapped((2, 1, 1)), seams)


side = st.integers(10, 400).map(lambda mm: Length.of_mm(mm))


@given(st.tuples(side, side, side), side, side)
def test_a_mailer_closes_by_the_rule_of_width_and_length_in_whatever_order_it_is_measured(goods, width, length) -> None:
    flat = replace(pouch("1", "1"), width=width, length=length)
    high, wide, long = sorted(goods)
    goes = wide + high + inches("1/2") <= width and long + high + inches("1/2") <= length
    for order in (goods, goods[::-1], (goods[1], goods[0], goods[2])):
        if goes:
            made = make_box("mailer", order, C, allowances(), "exact", Stock((), (flat,)))
            assert made.inside == order
            assert all(out >= inner for out, inner in zip(made.outside, order, strict=True))
        else:
            with pytest.raises(NoAnswer):
                make_box("mailer", order, C, allowances(), "exact", Stock((), (flat,)))


def test_filled_it_is_as_long_and_wide_as_it_lies_flat_less_the_height() -> None:
    made = take("mailer", "7 x 4 x 2", Stock((), (pouch("9 1/2", "12 1/2"),)))
    assert made.outside == (inches("10 1/2"), inches("7 1/2"), inches("2 3/8"))


def test_the_cheapest_mailer_that_closes_is_taken_and_what_is_too_thick_is_said() -> None:
    cheap, dear = pouch("14", "19", price=Money(30, "USD")), pouch("9 1/2", "12 1/2")
    assert take("mailer", "7 x 4 x 2", Stock((), (dear, cheap))).taken[0].item == cheap
    rigid = pouch("13", "18", "rigid", thickest=inches("1"))
    with pytest.raises(NoAnswer, match=r"rigid 13 x 18: 1 in \(26 mm\) too thin"):
        take("mailer", "7 x 4 x 2", Stock((), (rigid,)))
    assert take("mailer", "11 x 7 x 1", Stock((), (rigid,))).soft


def test_a_mailer_weighs_and_costs_what_it_says_and_has_no_certificate() -> None:
    boxed = box_up(
        load("7 x 4 x 2", gap="0"), "mailer", C, replace(shop(), stock=Stock((), (pouch("9 1/2", "12 1/2"),)))
    )
    assert (boxed.weights.board, boxed.box) == (read_mass("35 g"), Money(42, "USD"))
    assert (boxed.strength.limits, boxed.strength.warnings, boxed.sheets) == (None, (), ())


def test_nothing_soft_is_offered_where_a_gap_is_asked_for() -> None:
    stocked = replace(shop(), stock=Stock((), (pouch("24", "36", "bag"),)))
    with pytest.raises(NoAnswer, match="nothing soft keeps a gap"):
        box_up(load("7 x 4 x 2", gap="1"), "mailer", C, stocked)
    assert box_up(load("7 x 4 x 2", gap="0"), "mailer", C, stocked).made.outside == sizes("7 3/8 x 4 3/8 x 2 3/8")


def test_a_box_in_a_bag_trims_the_bag_to_length_and_height_of_the_box() -> None:
    stock = Stock((box("14 x 10 x 8"),), (pouch("24", "36", "bag", wall=inches("1/64")),))
    made = take("bagged", "13 x 9 x 8", stock)
    # Closed it is 14 5/16 x 10 5/16 x 8 5/8; the bag needs 14 5/16 + 8 5/8 + 1/2 of its length.
    trimmed = next(step for step in made.steps if "Trim" in step.do)
    assert trimmed.measures == (inches("23 7/16"),)
    assert trimmed.knife
    assert made.outside == tuple(length + inches("1/32") for length in sizes("14 5/16 x 10 5/16 x 8 5/8"))
    assert [one.item.name for one in made.taken] == ["box 14 x 10 x 8", "bag 24 x 36"]
    with pytest.raises(NoAnswer, match="of the bags"):
        take("bagged", "13 x 9 x 8", Stock(stock.boxes, (pouch("12", "20", "bag"),)))


def test_a_carriers_container_goes_only_by_its_own_services() -> None:
    own = Stock((box("14 x 10 x 8", carrier="Oddbarrow"),))
    stocked = replace(shop(), stock=own)
    goods = load("12 x 8 x 6", gap="1")
    plans, refused = price(box_up(goods, "carrier", C, stocked), Journey("10440", "73120", True), services())
    assert {plan.quote.carrier for plan in plans} == {"Oddbarrow"}
    assert any("the container is Oddbarrow's" in one.why for one in refused)
    with pytest.raises(NoAnswer, match="there is none"):
        box_up(goods, "shelf", C, stocked)


def test_two_boxes_end_to_end_pull_out_as_far_as_their_flaps_give() -> None:
    """14 x 14 x 12 twice: 24 in pressed home, and up to 7 - 2 more; the flaps inside take a board at each side."""
    pair = Stock((box("14 x 14 x 12"),))
    made = take("end-to-end", "28 x 13 x 13", pair)
    across = inches("14") - made.grade.caliper * 2
    assert made.inside == (inches("28"), across, across)
    assert made.outside == sizes("28 5/8 x 14 15/16 x 14 15/16")
    assert made.taken[0].count == 2
    with pytest.raises(NoAnswer, match=r"together 1 in \(26 mm\) too short"):
        take("end-to-end", "30 x 13 x 13", pair)
    with pytest.raises(NoAnswer, match="go into each other"):
        take("end-to-end", "28 x 13 x 13", Stock((box("14 x 14 x 12", 1),)))


def test_unlike_boxes_go_end_to_end_the_smaller_into_the_larger() -> None:
    stock = Stock((box("16 x 14 x 20", 1), box("14 x 12 x 10", 1)))
    made = take("end-to-end", "13 x 31 x 11", stock)
    assert [one.item.name for one in made.taken] == ["box 16 x 14 x 20", "box 14 x 12 x 10"]
    assert made.inside == sizes("14 x 31 x 12")
    assert "Push the open flaps of box 14 x 12 x 10" in made.steps[2].do


def test_every_way_is_offered_where_it_can_be() -> None:
    stocked = replace(
        shop(), stock=Stock((*shop().stock.boxes, box("10 x 8 x 4", carrier="Wendlefirth Post")), shop().stock.pouches)
    )
    goods = load("7 x 4 x 1", "1 lb", gap="0")
    ways = ("tray", "shelf", "mailer", "bagged", "carrier", "folder")
    found = {plan.boxed.made.way for plan in ranked(goods, ways, Journey("10440", "73120", True), services(), stocked)}
    assert found == set(ways)
