"""Billed weight: steps that must not be missed, and sides that must not be rounded over one."""

from __future__ import annotations

from fractions import Fraction

import pytest

from fardo.core.quantity import INCH, POUND, Length, Mass, read_length, read_mass
from fardo.core.tariff.measure import Dimensional, WeightRule, bill_weight, dimensional_weight, round_side
from fardo.core.tariff.parcel import Parcel
from tests.made_up import inches

WHOLE_POUND = WeightRule(POUND)
HALF_KILO = WeightRule(Mass.of_grams(500))


def parcel(*sides: str, weight: str = "1 lb") -> Parcel:
    a, b, c = (read_length(side) for side in sides)
    return Parcel((a, b, c), read_mass(weight), "10440", "73120")


def rule(divisor: int, unit: str, sides: str, threshold: int | None = None) -> Dimensional:
    return Dimensional(Fraction(divisor), unit, sides, None if threshold is None else Fraction(threshold))


POSTAL = rule(166, "in3/lb", "nearest-half-up", 1728)


def test_12_by_12_by_12_exactly_is_not_over_the_cubic_foot() -> None:
    billing = bill_weight(parcel("12", "12", "12"), POSTAL, WHOLE_POUND)
    assert billing.dimensional is None
    assert billing.billed == POUND
    assert "is not over 1728 in3" in billing.why


def test_a_sixteenth_more_is_over_it() -> None:
    billing = bill_weight(parcel("12", "12", "12 1/16"), POSTAL, WHOLE_POUND)
    assert billing.dimensional is not None
    assert billing.billed == POUND * 11  # 1728 / 166 = 10.41


@pytest.mark.parametrize(
    "typed", ["12", "12.0", "12.00", "1 ft", "30.48 cm", "304.8 mm", "192 x 1/16 + 0", "11 15/16 + 1/16"]
)
@pytest.mark.parametrize("sides", ["up", "nearest-half-up", "nearest-half-down", "exact", "down"])
def test_12_in_never_bills_as_13_however_it_was_typed(typed: str, sides: str) -> None:
    side = read_length(typed)
    assert round_side(side, INCH, sides) == INCH * 12
    assert bill_weight(
        Parcel((side, side, side), POUND, "1", "2"), rule(166, "in3/lb", sides, 1728), WHOLE_POUND
    ).dimensional is None  # fmt: skip


def test_12_in_over_the_wire_is_still_12_in() -> None:
    for millimetres in (304.8, 304.80, 12 * 25.4, 30.479999999999997 * 10):
        assert round_side(Length.of_mm(millimetres), INCH, "up") == INCH * 12


@pytest.mark.parametrize(
    ("sides", "half", "just_under", "just_over"),
    [("up", 13, 13, 13), ("nearest-half-up", 13, 12, 13), ("nearest-half-down", 12, 12, 13), ("down", 12, 12, 12)],
)
def test_half_inches_go_as_the_tariff_says(sides: str, half: int, just_under: int, just_over: int) -> None:
    for typed, whole in (("12 1/2", half), ("12 31/64", just_under), ("12 33/64", just_over)):
        assert round_side(inches(typed), INCH, sides) == INCH * whole


@pytest.mark.parametrize(
    ("divisor", "unit", "weights", "sides", "expected"),
    [
        # Worked by hand. 24 x 12 x 8 = 2304 in3.
        (166, "in3/lb", WHOLE_POUND, ("24", "12", "8"), "14 lb"),  # 13.88
        (139, "in3/lb", WHOLE_POUND, ("24", "12", "8"), "17 lb"),  # 16.58
        (194, "in3/lb", WHOLE_POUND, ("24", "12", "8"), "12 lb"),  # 11.88
        # 60 x 40 x 30 = 72000 cm3.
        (5000, "cm3/kg", HALF_KILO, ("60 cm", "40 cm", "30 cm"), "14.5 kg"),  # 14.4
        (4000, "cm3/kg", HALF_KILO, ("60 cm", "40 cm", "30 cm"), "18 kg"),  # 18.0 exactly
        (6000, "cm3/kg", HALF_KILO, ("60 cm", "40 cm", "30 cm"), "12 kg"),  # 12.0 exactly
    ],
)
def test_dimensional_weight_by_hand(
    divisor: int, unit: str, weights: WeightRule, sides: tuple[str, ...], expected: str
) -> None:
    billing = bill_weight(parcel(*sides), rule(divisor, unit, "up"), weights)
    assert billing.billed == read_mass(expected)


def test_a_weight_that_is_a_whole_step_is_not_billed_as_the_next() -> None:
    assert bill_weight(parcel("6", "6", "6", weight="9 lb"), None, WHOLE_POUND).billed == POUND * 9
    assert bill_weight(parcel("6", "6", "6", weight="9 lb 1 oz"), None, WHOLE_POUND).billed == POUND * 10
    # 1660 in3 / 166 is ten pounds exactly.
    assert bill_weight(parcel("10", "10", "16.6"), rule(166, "in3/lb", "exact"), WHOLE_POUND).billed == POUND * 10


def test_the_greater_of_the_two_is_billed() -> None:
    heavy = bill_weight(parcel("24", "12", "8", weight="20 lb"), rule(139, "in3/lb", "up"), WHOLE_POUND)
    assert heavy.billed == POUND * 20
    assert "actual weight" in heavy.why
    light = bill_weight(parcel("24", "12", "8", weight="9 lb"), rule(139, "in3/lb", "up"), WHOLE_POUND)
    assert "24 x 12 x 8 / 139" in light.why


def test_sides_may_be_named_in_any_order() -> None:
    turned = [dimensional_weight(parcel(*sides), POSTAL) for sides in (("24", "12", "8"), ("8", "24", "12"))]
    assert turned[0] == turned[1]


def test_length_is_the_longest_side_and_girth_twice_the_others() -> None:
    box = parcel("12", "30", "8")
    assert (box.length, box.girth) == (inches("30"), inches("40"))
