"""Plans: what a parcel weighs and costs in all, and how far a job is."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.goods.gap import Gap
from fardo.core.goods.part import Extra, Part
from fardo.core.goods.shape import Box
from fardo.core.make import WAYS
from fardo.core.make.inserts.wanted import Wanted
from fardo.core.plan.box import box_for
from fardo.core.plan.boxed import box_up
from fardo.core.plan.cautions import lifting
from fardo.core.plan.cutting import work_of
from fardo.core.plan.job import Job
from fardo.core.plan.journey import Journey
from fardo.core.plan.load import Load
from fardo.core.plan.picture import draw_up
from fardo.core.plan.price import price
from fardo.core.plan.progress import BoxChoice, PriceChoice, tie_knots
from fardo.core.plan.wrapped import wrap_up
from fardo.core.protect.material import Layer
from fardo.core.quantity import INCH, POUND, Mass, Money, read_mass, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.made_up import inches, load, ranked, services, shop, sizes
from tests.made_up import job as made_up_job

TO_OSTWICK = Journey("10440", "73120", True)


def test_costs_add_up_to_the_total_and_charges_to_the_quote() -> None:
    for plan in ranked(load(), ["tray", "slotted"], TO_OSTWICK, services(), shop()):
        costs = plan.costs
        assert plan.quote.amount == costs.postage + costs.surcharges + costs.cover
        named = [
            costs.postage,
            costs.surcharges,
            costs.cover,
            costs.box,
            costs.wrap,
            costs.fill,
            costs.tape,
            costs.labour,
        ]
        assert costs.total.minor == sum(amount.minor for amount in named)


def test_plans_come_cheapest_in_all_first() -> None:
    totals = [p.costs.total.minor for p in ranked(load(), ["tray", "slotted"], TO_OSTWICK, services(), shop())]
    assert totals == sorted(totals)
    assert len(totals) > 2


def test_the_weight_is_goods_extras_board_fill_and_tape() -> None:
    boxed = box_up(load("20 x 10 x 5", "6 lb", "1", ("oil", "4 x 3 x 2")), "slotted", shop().grade("C"), shop())
    weights = boxed.weights
    assert weights.goods == read_mass("6 lb")
    assert weights.extras == read_mass("4 oz")
    # 590 g/m2 over the cut blank; 12 g a litre over the void, packed firm.
    area = sum(blank.area_nm2 for blank in boxed.made.blanks) / 10**18
    assert weights.board.grams == pytest.approx(590 * area, rel=1e-9)
    void = volume_nm3(*boxed.made.inside) - volume_nm3(*sizes("20 x 10 x 5")) - volume_nm3(*sizes("4 x 3 x 2"))
    assert weights.fill.grams == pytest.approx(12 * 1.1 * void / 10**24, rel=1e-9)
    assert weights.total == Mass(
        sum(m.ng for m in (weights.goods, weights.wrap, weights.extras, weights.board, weights.fill, weights.tape))
    )


side = st.integers(1, 30).map(lambda n: INCH * n)
things = st.lists(st.tuples(side, side, side), max_size=3)


@given(
    st.tuples(side, side, side), st.integers(0, 3).map(lambda n: INCH * n), things, st.sampled_from(["tray", "slotted"])
)
def test_every_thing_lies_in_the_box_with_the_gap_kept(part_sizes, gap, extras, way) -> None:
    """Also where the box is longer the other way and everything in it is turned."""
    packed = Load(
        (wrap_up(Part("thing", Box(*part_sizes), POUND, Gap.even(gap)), (), shop()),),
        tuple(Extra(str(n), size, POUND) for n, size in enumerate(extras)),
    )
    boxed = box_up(packed, way, shop().grade("C"), shop())
    inside = [length.nm for length in boxed.made.inside]
    (lies,) = boxed.placements
    at, turn = lies.at, lies.turn
    corners = [
        [
            sum(turn[axis][k] * (part_sizes[k].nm if corner[k] else 0) for k in range(3)) + at[axis].nm
            for axis in range(3)
        ]
        for corner in product((0, 1), repeat=3)
    ]
    low, high = [min(c) for c in zip(*corners, strict=True)], [max(c) for c in zip(*corners, strict=True)]
    for axis in range(3):
        assert low[axis] >= gap.nm
        assert high[axis] + gap.nm <= inside[axis]
    for _, at, size in boxed.extras_placed:
        spots = [(a.nm, a.nm + s.nm) for a, s in zip(at, size, strict=True)]
        assert all(start >= 0 and end <= inside[axis] for axis, (start, end) in enumerate(spots))
        # No extra is nearer to the thing than its gap.
        assert any(end <= low[axis] - gap.nm or start >= high[axis] + gap.nm for axis, (start, end) in enumerate(spots))


def test_air_is_the_share_of_the_inside_that_is_no_goods() -> None:
    exact = replace(shop(), allowances=replace(shop().allowances, step=None))
    boxed = box_up(load("10 x 10 x 10", "6 lb", "0"), "slotted", exact.grade("C"), exact)
    assert boxed.air == 0
    boxed = box_up(load("10 x 10 x 10", "6 lb", "5"), "slotted", exact.grade("C"), exact)
    assert boxed.air == 1 - 1 / 8


def test_wrap_and_inserts_are_no_air() -> None:
    """A 10 in cube with two layers of 5/16 in of bubble in a box of 18 in, a pad of board under it."""
    exact = replace(shop(), allowances=replace(shop().allowances, step=None))
    bubble = Layer(exact.materials["bubble-large"], 2)
    unit = wrap_up(Part("cube", Box(*sizes("10 x 10 x 10")), read_mass("6 lb"), Gap.even(INCH * 4)), (bubble,), exact)
    bare = box_up(Load((unit,), ()), "slotted", exact.grade("C"), exact)
    (wound,) = bare.coats
    room = volume_nm3(*bare.made.inside)
    assert wound.room_nm3 > 0
    assert bare.air == Fraction(room - 1000 * INCH.nm**3 - wound.room_nm3, room)
    padded = box_up(Load((unit,), (), inserts=(Wanted("pad"),)), "slotted", exact.grade("C"), exact)
    (pad,) = (blank for one in padded.inserts for blank in one.blanks)
    room = volume_nm3(*padded.made.inside)
    board = pad.area_nm2 * exact.grade("C").caliper.nm
    assert padded.air == Fraction(room - 1000 * INCH.nm**3 - wound.room_nm3 - board, room)
    # 12 g a litre, packed firm.
    assert padded.weights.fill.grams == pytest.approx(12 * 1.1 * float(padded.air) * room / 10**24, rel=1e-9)


def test_a_blank_that_no_sheet_takes_is_said_to_be_too_large() -> None:
    boxed = box_up(load("40 x 40 x 40", "20 lb"), "tray", shop().grade("B"), shop())
    assert boxed.too_large is not None
    assert "no sheet of B board" in boxed.too_large
    with pytest.raises(NoAnswer, match="no sheet of C board"):
        ranked(load("100 x 80 x 60", "20 lb"), ["tray", "slotted"], TO_OSTWICK, services(), shop())


def test_the_board_that_was_named_is_kept_where_another_has_a_sheet_that_would_do() -> None:
    large = load("40 x 30 x 24", "20 lb")
    small, whole = shop().grade("B"), shop().grade("C")
    sheets = (replace(whole.sheets[0], length=inches("300"), width=inches("300")),)
    at = replace(shop(), grades={"B": small, "C": replace(whole, sheets=sheets)})  # the first is the usual one
    assert box_for("slotted", Job(load=large), at).made.grade.code == "C"
    named = box_for("slotted", Job(load=large, board="B"), at)
    assert named.made.grade.code == "B"
    assert "no sheet of B board" in named.too_large


def test_what_is_cut_names_its_board() -> None:
    told = work_of("job", Job(load=load(), box=BOX, ways=("tray",)), shop()).told
    assert [one.split(" ")[:2] for one in told] == [["C", "tray"], ["C", "lid"]]


def test_a_plan_is_called_by_its_box_and_by_all_of_them_where_it_has_several_parcels() -> None:
    (one, *_) = ranked(load(), ["tray"], TO_OSTWICK, services(), shop())
    called = f"{one.quote.carrier} {one.quote.service}"
    assert one.label == f"Lid and tray, cut from sheet, {called}"
    twice = replace(one, beside=(one.boxed,))
    assert twice.label == f"2 parcels, Lid and tray, cut from sheet, {called}"


def test_services_that_reckon_in_another_currency_are_refused_and_say_so() -> None:
    foreign = [replace(service, currency="EUR") for service in services()]
    boxed = box_up(load(), "slotted", shop().grade("C"), shop())
    plans, refused = price(boxed, TO_OSTWICK, foreign)
    assert plans == []
    # But for labels that only a sale brings.
    assert {no.why.split(",")[0] for no in refused} == {"prices in EUR", "no label came with the sale"}


def test_over_50_lb_two_people_lift() -> None:
    assert lifting(POUND * 50) is None
    assert "two people" in (lifting(Mass(POUND.ng * 50 + 1)) or "")


BOX = BoxChoice("tray", "exact", "C", sizes("14 x 12 x 8"))
PRICE = PriceChoice("Mossgate", "Cart", "account", Money(2100, "USD"), POUND * 17)


@pytest.mark.parametrize(
    ("missing", "boxed", "box", "asked", "price_chosen", "states", "next_move"),
    [
        (["width"], None, None, None, None, "open open open", "Measure width"),
        (
            ["width", "height", "weight", "size of card"],
            None,
            None,
            None,
            None,
            "open open open",
            "Measure width, height, weight and 1 more",
        ),
        (["postcode it goes to"], None, None, None, None, "open open open", "Enter the destination postcode"),
        ([], BOX, None, None, None, "tied open open", "Choose the box"),
        ([], BOX, BOX, None, None, "tied tied open", "Choose the service"),
        ([], BOX, BOX, PRICE, PRICE, "tied tied tied", "Pack it"),
        ([], replace(BOX, needed=sizes("15 x 12 x 8")), BOX, PRICE, PRICE, "tied loose loose", "Look at the box again"),
        ([], replace(BOX, board="B"), BOX, PRICE, PRICE, "tied loose loose", "Look at the box again"),
        ([], BOX, BOX, replace(PRICE, amount=Money(2300, "USD")), PRICE, "tied tied loose", "Look at the price again"),
        ([], BOX, BOX, None, PRICE, "tied tied loose", "Look at the price again"),
    ],
)
def test_a_knot_is_loose_when_something_before_it_changed(
    missing, boxed, box, asked, price_chosen, states, next_move
) -> None:
    knots, move = tie_knots(missing, boxed, box, asked, price_chosen)
    assert " ".join(knot.state for knot in knots if knot.name not in ("protect", "arrange")) == states
    assert move == next_move


def test_a_loose_price_says_what_it_was_and_is() -> None:
    knots, _ = tie_knots([], BOX, BOX, replace(PRICE, amount=Money(2300, "USD")), PRICE)
    assert knots[4].says == "was 21.00, is 23.00"


def test_a_kind_is_measured_and_answered_before_its_knot_is_tied() -> None:
    knots, move = tie_knots([], BOX, None, None, None, guessed=["reed", "beater"], answers=["battery"])
    assert knots[0].state == "open"
    assert knots[0].says == "not measured yet: reed, beater; not answered: battery"
    assert move == "Measure reed, beater"
    assert tie_knots([], BOX, None, None, None, answers=["battery"])[1] == "Answer about battery"


def test_protection_is_asked_for_before_the_box() -> None:
    knots, move = tie_knots([], BOX, None, None, None, protection="")
    assert knots[1].state == "open"
    assert move == "Say how it is protected"


def test_the_cheapest_box_says_how_much_less_it_is_than_the_next() -> None:
    job = understand(JobFile.model_validate(made_up_job(ways=["tray", "slotted", "part-lid"])), shop(), "10440")
    picture = draw_up(job, shop(), Carriers(services()))
    first, second, *_ = (way for way in picture.ways if way.cheapest is not None)
    assert first.cheapest is not None
    assert second.cheapest is not None
    said = picture.beside(first)
    assert said.startswith(f"{second.cheapest - first.cheapest} less in total than the next, ")
    assert WAYS[second.way].TITLE.lower() in said
    assert "less in total" not in picture.beside(second)
