"""Mailers, bags, boxes in bags, carriers' containers and two boxes end to end: what closes on what, and what lacks."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.goods.gap import Gap
from fardo.core.goods.part import Part, Rules
from fardo.core.goods.shape import Box
from fardo.core.make import Stock, make_box
from fardo.core.make.allowances import SEAMS
from fardo.core.make.mailer import must_close
from fardo.core.make.stock import Pouch, PouchKind, StockBox
from fardo.core.plan.boxed import box_up
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.plan.load import Load
from fardo.core.plan.price import price
from fardo.core.plan.trim import flat_trim
from fardo.core.plan.wrapped import wrap_up
from fardo.core.protect.cushion import NO_LIMIT
from fardo.core.protect.material import Layer
from fardo.core.quantity import Length, Money, read_mass
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.service import compare
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


def unbreakable(
    size: str, gap: str = "0", *, fragility: int | None = NO_LIMIT, weight: str = "1 lb",
    layers: tuple[str, ...] = ("film",), **rules: bool,
) -> Load:  # fmt: skip
    """One thing that does not break, unless it is said what it bears."""
    part = Part("thing", Box(*sizes(size)), read_mass(weight), Gap.even(inches(gap)), 1, fragility, Rules(**rules))
    return Load((wrap_up(part, tuple(Layer(shop().material(code)) for code in layers), shop()),), ())


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
    boxed = box_up(unbreakable("7 x 4 x 2"), "mailer", C, replace(shop(), stock=Stock((), (pouch("9 1/2", "12 1/2"),))))
    assert (boxed.weights.board, boxed.box) == (read_mass("35 g"), Money(42, "USD"))
    assert (boxed.strength.limits, boxed.strength.warnings, boxed.sheets) == (None, (), ())


def test_a_bag_keeps_no_gap_around_what_may_travel_in_it() -> None:
    stocked = replace(shop(), stock=Stock((), (pouch("24", "36", "bag"),)))
    for gap in ("0", "1"):
        made = box_up(unbreakable("7 x 4 x 2", gap), "mailer", C, stocked).made
        assert made.outside == sizes("7 3/8 x 4 3/8 x 2 3/8")
        assert made.flat == (inches("9"), inches("6"))  # trimmed both ways: 7 + 2 and 4 + 2


# The gate that goods fail before a kind of mailer; common practice.
GATES: list[tuple[str, dict[str, Any], PouchKind, str]] = [
    ("a vase", {"fragility": 30}, "bag", "may break"),
    ("a vase", {"fragility": 30}, "padded", "may break"),
    ("nobody said", {"fragility": None}, "padded", "say how fragile it is first"),
    ("a sturdy tin", {"fragility": 115}, "bag", "may break in a bare bag"),
    ("a wooden board", {"hard_edges": True}, "bag", "hard edges"),
    ("a bare board, no edges said", {"layers": ()}, "bag", "is bare: wrap it first"),
    ("sixty pounds", {"weight": "60 lb"}, "bag", "too heavy"),
    ("paper goods", {"keep_flat": True}, "bag", "must stay flat"),
    ("paper goods", {"keep_flat": True}, "padded", "must stay flat"),
    ("a stack between boards", {"keep_flat": True, "layers": ("faces",)}, "padded", "must stay flat"),
]


@pytest.mark.parametrize(("what", "said", "kind", "why"), GATES)
def test_what_fails_a_gate_is_not_proposed_and_its_gate_is_said(
    what: str, said: dict[str, Any], kind: PouchKind, why: str
) -> None:
    stocked = replace(shop(), stock=Stock((), (pouch("24", "36", kind),)))
    with pytest.raises(NoAnswer, match=why):
        box_up(unbreakable("7 x 4 x 2", **said), "mailer", C, stocked)


@pytest.mark.parametrize(
    ("said", "kind"),
    [
        ({}, "bag"),
        ({"fragility": 115}, "padded"),
        ({"hard_edges": True}, "padded"),
        ({"keep_flat": True}, "rigid"),
        ({"keep_flat": True, "layers": ("stiffener",), "size": "7 x 4 x 1"}, "flat"),
        ({"fragility": 30, "layers": ("inner-box",)}, "bag"),
    ],
)
def test_what_passes_its_gate_is_proposed(said: dict[str, Any], kind: PouchKind) -> None:
    stocked = replace(shop(), stock=Stock((), (pouch("24", "36", kind),)))
    size = said.pop("size", "7 x 4 x 2")
    assert box_up(unbreakable(size, **said), "mailer", C, stocked).made.soft


def test_the_gates_are_the_shops_own() -> None:
    goods = unbreakable("7 x 4 x 2", weight="12 lb")
    stocked = replace(shop(), stock=Stock((), (pouch("24", "36", "bag"),)))
    with pytest.raises(NoAnswer, match="too heavy"):
        box_up(goods, "mailer", C, stocked)
    assert box_up(
        goods, "mailer", C, replace(stocked, soft=replace(shop().soft, heaviest=read_mass("20 lb")))
    ).made.soft


def test_a_box_in_a_bag_trims_the_bag_on_both_sides() -> None:
    stock = Stock((box("14 x 10 x 8"),), (pouch("24", "36", "bag", wall=inches("1/64")),))
    made = take("bagged", "13 x 9 x 8", stock)
    # Closed it is 14 5/16 x 10 5/16 x 8 5/8; cut sides are taped like wrapping and need no seam.
    trimmed = next(step for step in made.steps if "Trim" in step.do)
    assert trimmed.measures == made.flat == (inches("22 15/16"), inches("18 15/16"))
    assert trimmed.knife
    assert made.outside == tuple(length + inches("1/32") for length in sizes("14 5/16 x 10 5/16 x 8 5/8"))
    assert [one.item.name for one in made.taken] == ["box 14 x 10 x 8", "bag 24 x 36"]
    with pytest.raises(NoAnswer, match="of what goes around a box"):
        take("bagged", "13 x 9 x 8", Stock(stock.boxes, (pouch("12", "20", "bag"),)))


def test_a_box_in_a_bag_is_a_soft_pack_by_the_flat_size_of_the_trimmed_bag() -> None:
    """A box 11 x 5 x 5 of B flute is 11 1/4 x 5 1/4 x 5 1/2 closed: 16 1/2 and 10 3/4 flat, 27 1/4 together: past the
    step at 27, within that at 31, and no side over 18 (Domestic Mail Manual, from memory).
    """
    snug = replace(box("11 x 5 x 5"), grade=shop().grade("B"))
    stocked = replace(shop(), stock=Stock((snug,), (pouch("24", "36", "bag"),)))
    boxed = box_up(load("10 x 4 x 4", "4 lb", gap="1/2"), "bagged", C, stocked)
    assert boxed.made.flat == (inches("16 1/2"), inches("10 3/4"))
    parcel = parcel_of(boxed, Journey("10440", "73120", True))
    assert (parcel.form, parcel.flat) == ("soft", boxed.made.flat)
    assert not boxed.made.soft  # what is in the bag is a box, and stands up to what one does


def test_what_brings_a_bag_into_a_cheaper_tier_is_told() -> None:
    """A box 13 1/4 x 4 7/8 x 4 1/4 of B flute is 18 1/4 by 9 7/8 flat closed: no side of a soft pack may be over 18.
    Cut by what is told it is within a tier, and a 64th less would not be.
    """
    snug = replace(box("13 1/4 x 4 7/8 x 4 1/4"), grade=shop().grade("B"))
    stocked = replace(shop(), stock=Stock((snug,), (pouch("24", "36", "bag"),)))
    boxed = box_up(load("10 x 4 x 3 1/2", "4 lb", gap="1/8"), "bagged", C, stocked)
    assert boxed.made.flat == (inches("18 1/4"), inches("9 7/8"))
    journey = Journey("10440", "73120", True)
    plans, _ = price(boxed, journey, services())
    told = flat_trim(plans[0], journey, services(), shop().exchange)
    assert told is not None
    assert isinstance(told.by, Length)
    assert told.saves == plans[0].quote.amount - told.amount

    def asked(off: Length) -> Money:
        parcel = replace(parcel_of(boxed, journey), flat=(inches("18 1/4") - off, inches("9 7/8")))
        quotes, _ = compare(services(), parcel)
        return next(one.amount for one in quotes if f"{one.carrier} {one.service}" == told.why)

    assert asked(told.by) == told.amount
    assert asked(told.by - inches("1/64")) > told.amount


def test_a_closed_box_goes_into_a_carriers_envelope_by_its_own_services_only() -> None:
    envelope = pouch("9 1/2", "12 1/2", carrier="Wendlefirth Post")
    stocked = replace(shop(), stock=Stock((box("7 x 4 x 3"),), (envelope,)))
    boxed = box_up(load("6 x 3 x 2", "1 lb", gap="1/2"), "carrier", C, stocked)
    assert [one.item.name for one in boxed.made.taken] == ["box 7 x 4 x 3", envelope.name]
    plans, refused = price(boxed, Journey("10440", "73120", True), services())
    assert {plan.quote.carrier for plan in plans} <= {"Wendlefirth Post"}
    assert any("the container is Wendlefirth Post's" in one.why for one in refused)


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
    goods = unbreakable("7 x 4 x 1", "0")
    ways = ("tray", "shelf", "mailer", "bagged", "carrier", "folder")
    found = {plan.boxed.made.way for plan in ranked(goods, ways, Journey("10440", "73120", True), services(), stocked)}
    assert found == set(ways)


def test_what_is_out_of_stock_is_not_offered() -> None:
    there, gone = pouch("9 1/2", "12 1/2", price=Money(90, "USD")), pouch("10", "13", price=Money(10, "USD"), count=0)
    assert take("mailer", "7 x 4 x 2", Stock((), (gone, there))).taken[0].item == there
    with pytest.raises(NoAnswer, match="there is none left"):
        take("mailer", "7 x 4 x 2", Stock((), (gone,)))
    boxes = (box("14 x 10 x 8"),)
    bag, no_bag = (
        pouch("40", "60", "bag", price=Money(90, "USD")),
        pouch("42", "62", "bag", price=Money(10, "USD"), count=0),
    )
    assert take("bagged", "13 x 9 x 8", Stock(boxes, (no_bag, bag))).taken[-1].item == bag
    with pytest.raises(NoAnswer):
        take("bagged", "13 x 9 x 8", Stock(boxes, (no_bag,)))


def test_a_bag_around_a_box_is_counted_flat_and_taped_where_it_is_cut() -> None:
    bagged = take("bagged", "13 x 9 x 8", Stock((box("14 x 10 x 8"),), (pouch("40", "60", "bag"),)))
    assert "cut sides are taped" in bagged.notes[-1]
    # The box is closed by three strips over and under, a hand (3 in) down its sides (common practice).
    long, wide, _ = bagged.closed_box
    strips = 2 * (long + inches("6")).nm + 4 * (wide + inches("6")).nm
    assert bagged.tape.nm == strips + bagged.flat[0].nm + bagged.flat[1].nm


def test_a_bag_is_trimmed_and_taped_and_a_mailer_closed_in_its_seams() -> None:
    bag = take("mailer", "12 x 9 x 2", Stock((), (pouch("40", "60", "bag"),)))
    assert [step.do.split(" ")[0] for step in bag.steps] == ["Trim", "Slip", "Fold"]
    assert bag.standing is not None
    mailer = take("mailer", "7 x 4 x 2", Stock((), (pouch("9 1/2", "12 1/2"),)))
    assert [step.do.split(" ")[0] for step in mailer.steps] == ["Slip", "Close"]
    assert mailer.standing is None
