"""Boxes that are there: which one is taken, how the goods stand in it, and why none will do."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.arrange.ask import all_turned, quarter_turned
from fardo.core.arrange.turn import TURNS
from fardo.core.goods.part import Rules
from fardo.core.make import Contents, Stock, boxes_for, make_box
from fardo.core.make.stock import Pattern, StockBox, Taken
from fardo.core.plan.boxed import box_up
from fardo.core.plan.job import Job
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.plan.load import arrange, ask_of, bodies_of
from fardo.core.plan.needed import may_be_turned
from fardo.core.plan.picture import price_ways
from fardo.core.plan.price import price
from fardo.core.quantity import INCH, Length, Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.carriers import Carriers
from tests.arrangement_checked import faults as seen_faults
from tests.made_up import allowances, inches, load, services, shop, sizes

C = shop().grade("C")


def box(name: str, inside: str, price: int = 100, count: int = 5, used: bool = False) -> StockBox:
    return StockBox(name, sizes(inside), C, Money(price, "USD"), count, used)


def take(way: str, inside: str, *boxes: StockBox, upright: bool = True):
    return make_box(way, sizes(inside), C, allowances(), "exact", Stock(boxes), upright)


SMALL, MIDDLE, LARGE = box("small", "10 x 8 x 6"), box("middle", "14 x 10 x 8"), box("large", "20 x 16 x 12")


def test_the_smallest_box_that_holds_it_is_taken() -> None:
    made = take("shelf", "11 x 8 x 6", LARGE, MIDDLE, SMALL)
    assert made.taken == (Taken(MIDDLE),)
    assert made.inside == sizes("14 x 10 x 8")
    assert made.outside == (inches("14 5/16"), inches("10 5/16"), inches("8 5/8"))
    assert made.blanks == ()


def test_of_equal_boxes_the_cheaper_is_taken_and_one_that_is_out_never() -> None:
    dear, cheap, out = box("dear", "14 x 10 x 8", 180), box("cheap", "14 x 10 x 8", 90), box("out", "12 x 9 x 7", 1, 0)
    assert take("shelf", "11 x 8 x 6", dear, cheap, out).taken == (Taken(cheap),)


def test_shelf_takes_new_boxes_and_stash_used_ones() -> None:
    old = replace(SMALL, name="old", used=True)
    assert take("shelf", "9 x 8 x 6", SMALL, old).taken == (Taken(SMALL),)
    made = take("stash", "9 x 8 x 6", SMALL, old)
    assert made.taken == (Taken(old),)
    assert made.condition == "used"
    assert any("old label" in step.do for step in made.steps)


def test_goods_are_laid_on_another_side_only_where_they_may() -> None:
    tall = box("tall", "8 x 6 x 14")
    assert take("shelf", "14 x 8 x 6", tall, upright=False).needed == sizes("8 x 6 x 14")


def test_a_flat_carton_stood_on_its_edge_holds_what_must_stay_upright() -> None:
    """The arrow is on the outside: the box may be turned, the goods may not (common practice)."""
    carton = box("carton", "24 x 20 x 4")
    made = take("shelf", "24 x 3 1/2 x 20", carton)
    assert (made.needed, made.inside) == (sizes("24 x 3 1/2 x 20"), sizes("24 x 4 x 20"))
    assert made.outside == sizes("24 5/16 x 4 5/8 x 20 5/16")
    assert any("stands on its side" in note for note in made.notes)
    with pytest.raises(NoAnswer, match=r"carton, is 1 in \(26 mm\) not high enough"):
        take("shelf", "24 x 5 x 20", carton)


def test_why_none_will_do() -> None:
    with pytest.raises(NoAnswer, match="there is none"):
        take("shelf", "9 x 8 x 6")
    with pytest.raises(NoAnswer, match="there is none left"):
        take("shelf", "9 x 8 x 6", replace(SMALL, count=0))
    with pytest.raises(NoAnswer, match="there is no used box"):
        take("recut", "9 x 8 x 6", SMALL)
    with pytest.raises(NoAnswer, match="one fits as it is"):
        take("recut", "10 x 8 x 6", replace(SMALL, used=True))
    with pytest.raises(NoAnswer, match="it takes 3 of them, of which there is 2"):
        take("stack", "9 x 7 x 22", box("few", "10 x 8 x 8", count=2))
    with pytest.raises(NoAnswer, match="one box holds it"):
        take("stack", "9 x 7 x 5", SMALL)


def test_over_a_whole_stash_the_one_that_comes_out_smallest_is_made_over() -> None:
    stash = [box(f"box {n}", f"{n} x {n - 4} x {n - 6}", used=True) for n in range(14, 20)]
    made = take("recut", "20 x 6 x 9", *stash)
    every = [take("recut", "20 x 6 x 9", one) for one in stash if one.inside[2] >= inches("9")
             and one.inside[0] + one.inside[1] >= inches("26 1/4")]  # fmt: skip
    volumes = [one.outside[0].nm * one.outside[1].nm * one.outside[2].nm for one in every]
    assert made.outside[0].nm * made.outside[1].nm * made.outside[2].nm == min(volumes)
    assert made.condition == "re-cut"
    assert made.blanks[0].name == "re-cut box"


def test_a_box_that_would_be_far_too_long_made_over_laps_what_is_over() -> None:
    """44 in of half the girth for 26: left in the length it would be 37 3/4 in long."""
    made = take("recut", "20 x 6 x 9", box("long", "24 x 20 x 18", used=True))
    assert all(have - want < inches("1/8") for have, want in zip(made.inside, made.needed, strict=True))
    assert "laps" in " ".join(step.do for step in made.steps)


def test_a_stack_takes_as_many_boxes_as_it_has() -> None:
    made = take("stack", "13 x 13 x 35", box("tall", "14 x 14 x 12", 190))
    assert made.taken[0].count == 3
    shop_now = replace(shop(), stock=Stock((box("tall", "14 x 14 x 12", 190),)))
    boxed = box_up(load("13 x 13 x 35", gap="0"), "stack", C, shop_now)
    assert boxed.box == Money(570, "USD")
    assert boxed.too_large is None
    assert boxed.sheets == ()
    one = box_up(load("13 x 13 x 11", gap="0"), "shelf", C, shop_now)
    assert boxed.weights.board.ng == pytest.approx(3 * one.weights.board.ng, abs=3)


def test_what_is_cut_from_sheet_and_the_same_box_bought_weigh_the_same() -> None:
    bought = box_up(load("12 x 9 x 8"), "shelf", C, replace(shop(), stock=Stock((box("same", "16 x 13 x 12"),))))
    cut = box_up(load("12 x 9 x 8"), "slotted", C, shop())
    assert all(a.mm == pytest.approx(b.mm, abs=1.6) for a, b in zip(bought.made.inside, cut.made.inside, strict=True))
    assert bought.weights.board.ng == pytest.approx(cut.weights.board.ng, rel=0.02)


side = st.integers(60, 500).map(lambda mm: Length.of_mm(mm))


@given(st.tuples(side, side, side), st.booleans(), st.sampled_from(["shelf", "stash", "recut", "stack"]))
def test_in_every_box_that_is_there_the_goods_keep_their_gap(size, upright: bool, way: str) -> None:
    text = " x ".join(f"{one.mm:g} mm" for one in size)
    one = load(text, "3 lb", "1/2", ("card", "5 x 4 x 1/2"))
    if upright:
        unit = one.units[0]
        part = replace(unit.part, rules=Rules(this_side_up=True))
        one = replace(one, units=(replace(unit, part=part),))
    assert may_be_turned(one) is not upright
    try:
        boxed = box_up(one, way, C, shop())
    except NoAnswer:
        return
    answer = boxed.arrangement
    assert answer.inside == boxed.made.inside
    # The half gap of a thing's own that side by side is shared with the walls is checked as it was asked.
    assert seen_faults(ask_of(one), answer) == []
    if upright:
        assert answer.laid[0] is not None
        assert answer.laid[0].turn[2][2] == 1


def test_all_24_turns_of_an_arrangement_hold_and_lead_back() -> None:
    one = load("9 x 7 x 5", "3 lb", "1/2", ("card", "5 x 4 x 1/2"))
    answer, bodies = arrange(one), bodies_of(one)
    assert seen_faults(ask_of(one), answer) == []
    seen = set()
    for turn in TURNS:
        turned = all_turned(bodies, answer, turn)
        seen.add(tuple(turned.laid))
        assert sorted(turned.inside) == sorted(answer.inside)
        assert seen_faults(ask_of(one), turned) == []
    assert len(seen) == 24
    four = answer
    for _ in range(4):
        four = quarter_turned(bodies, four)
    assert four == answer


def carton(inside: str, name: str = "free flat carton") -> StockBox:
    return replace(box(name, inside, price=0), carrier="Oddbarrow")


def test_a_carriers_free_carton_is_made_over_and_stays_that_carriers() -> None:
    """A flat carton 15 3/8 x 12 1/4 x 3 for shoes of 12 x 9 x 4: no turn holds them as it comes."""
    flat = carton("12 1/4 x 3 x 15 3/8")
    made = take("recut", "10 x 4 3/4 x 13 1/2", flat)
    assert (made.carrier, made.condition, made.item) == ("Oddbarrow", "re-cut", "free flat carton")
    assert "As it comes it is 1 3/4 in (45 mm) not wide enough." in made.notes
    shop_now = replace(shop(), stock=Stock((flat,)))
    boxed = box_up(load("10 x 4 3/4 x 13 1/2", "3 lb", gap="0"), "recut", C, shop_now)
    plans, refused = price(boxed, Journey("10440", "73120", False), services())
    assert plans
    assert {plan.quote.carrier for plan in plans} == {"Oddbarrow"}
    assert {one.why for one in refused if one.carrier != "Oddbarrow"} == {"the container is Oddbarrow's"}


def test_made_over_a_carton_goes_at_no_containers_price() -> None:
    flat = carton("12 1/4 x 3 x 15 3/8")
    boxed = box_up(load("10 x 4 3/4 x 13 1/2", "3 lb", gap="0"), "recut", C, replace(shop(), stock=Stock((flat,))))
    assert parcel_of(boxed, Journey("10440", "73120", False)).container == ""


BOOTS = Pattern("boots carton", "amp carton", sizes("14 x 10 x 6"))


def test_a_pattern_is_offered_for_what_goes_into_it() -> None:
    amp = box("amp carton", "18 1/2 x 12 x 21", used=True)
    every = boxes_for(
        "recut", Contents(sizes("13 x 9 x 6"), True), C, allowances(),
        stock=Stock((amp,), patterns=(replace(BOOTS, name="skates carton", box="a box that is gone"), BOOTS)),
    )  # fmt: skip
    assert [made.item for made in every] == ["amp carton", "boots carton"]
    boots = every[1]
    assert all(have >= want for have, want in zip(boots.inside, BOOTS.inside, strict=True))
    assert boots.taken == (Taken(amp),)
    wide = replace(BOOTS, inside=sizes("14 x 14 x 6"))
    for length, width in ((13, 9), (9, 13)):  # as it stands, where it may stand so
        found = boxes_for("recut", Contents((INCH * length, INCH * width, INCH * 6), True), C, allowances(),
                          stock=Stock((box("cube", "20 x 14 x 14", used=True),),
                                      patterns=(replace(wide, box="cube"),)))  # fmt: skip
        assert found[-1].needed == (INCH * length, INCH * width, INCH * 6)
    assert boots.steps[0].do.startswith("Take the amp carton")
    # Too small for these, and none of it without its box.
    larger = boxes_for(
        "recut", Contents(sizes("15 x 9 x 6"), True), C, allowances(), stock=Stock((amp,), patterns=(BOOTS,))
    )
    assert [made.item for made in larger] == ["amp carton"]
    with pytest.raises(NoAnswer):
        boxes_for("recut", Contents(sizes("13 x 9 x 6"), True), C, allowances(), stock=Stock((), patterns=(BOOTS,)))


def test_what_can_be_made_over_is_named_where_nothing_fits_as_it_is() -> None:
    amp = box("amp carton", "18 1/2 x 12 x 21", used=True)
    at = replace(shop(), stock=Stock((amp, box("small", "10 x 8 x 6"))))
    job = Job(load=load("22 x 6 x 15", "4 lb", gap="1/4"))
    reasons = dict(price_ways(job, at, Carriers(())).cannot)
    lacks = "amp carton can be re-cut: as it comes it is 1 1/2 in (39 mm) not high enough"
    assert reasons["shelf"].endswith(lacks)
    assert reasons["stash"].endswith(lacks)


def test_no_box_is_opened_at_its_seam_for_what_breaks() -> None:
    """It stays glued, or another box is taken."""
    harp = box("harp carton", "72 x 40 x 14", used=True)
    floated = Contents(sizes("39 x 22 x 14"), True, floats=True)
    with pytest.raises(NoAnswer, match="which is not for what breaks"):
        boxes_for("recut", floated, C, allowances(), stock=Stock((harp,)))
    (opened,) = boxes_for("recut", replace(floated, floats=False), C, allowances(), stock=Stock((harp,)))
    assert "laps" in " ".join(step.do for step in opened.steps)


def test_a_box_there_is_as_strong_as_its_own_board_whatever_board_is_cut_here() -> None:
    """65 lb on C board, 120 lb on BC: the box of stock is of BC, and C is what the shop cuts."""
    there = replace(MIDDLE, grade=shop().grade("BC"))
    strong = box_up(load("9 x 8 x 6", "70 lb", gap="0"), "shelf", C, replace(shop(), stock=Stock((there,))))
    weak = box_up(load("9 x 8 x 6", "70 lb", gap="0"), "shelf", C, replace(shop(), stock=Stock((MIDDLE,))))
    assert (strong.strength.overloaded, weak.strength.overloaded) == (False, True)
    cut = box_up(load("9 x 8 x 6", "70 lb", gap="0"), "slotted", C, shop())
    assert cut.strength.overloaded
