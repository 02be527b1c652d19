"""When a charge is made: every condition at its threshold, just under and just over it, and all of them together."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.quantity import INCH, Length, Mass, Money, read_mass, read_sizes
from fardo.core.tariff.limits import Limits, over_limit
from fardo.core.tariff.measure import Billing, WeightRule, bill_weight
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.when import ALWAYS, When
from tests.made_up import inches

PARCEL = Parcel(read_sizes("30 x 20 x 10"), read_mass("12 lb"), "10440", "73120", value=Money(50000, "USD"))
SLIVER = Length(1)
CRUMB = Mass(1)


def billing(parcel: Parcel) -> Billing:
    return bill_weight(parcel, None, WeightRule(read_mass("1 lb")))


def holds(when: When, parcel: Parcel = PARCEL) -> bool:
    return when.holds(parcel, billing(parcel))


# Length and girth of 30 x 20 x 10: 30 + 2 (20 + 10) = 90. All three together: 60.
@pytest.mark.parametrize(
    ("name", "measure", "least"),
    [
        ("longest_over", inches("30"), SLIVER),
        ("second_over", inches("20"), SLIVER),
        ("girth_over", inches("90"), SLIVER),
        ("united_inches_over", inches("60"), SLIVER),
        ("weight_over", read_mass("12 lb"), CRUMB),
        ("billed_over", read_mass("12 lb"), CRUMB),
        ("value_over", Money(50000, "USD"), Money(1, "USD")),
    ],
)
def test_over_is_more_than_and_not_at(name: str, measure: Any, least: Any) -> None:
    below = Mass(measure.ng - least.ng) if isinstance(measure, Mass) else measure - least
    assert not holds(When(**{name: measure}))
    assert holds(When(**{name: below}))


@pytest.mark.parametrize(
    ("name", "measure", "least"),
    [("girth_to", inches("90"), SLIVER), ("weight_to", read_mass("12 lb"), CRUMB)],
)
def test_to_is_up_to_and_including(name: str, measure: Any, least: Any) -> None:
    below = Mass(measure.ng - least.ng) if isinstance(measure, Mass) else measure - least
    assert holds(When(**{name: measure}))
    assert not holds(When(**{name: below}))


@pytest.mark.parametrize(
    ("when", "change", "does"),
    [
        (When(home=True), {"residential": True}, True),
        (When(home=True), {}, False),
        (When(signature=True), {"signature": True}, True),
        (When(signature=True), {}, False),
        (When(forms=("soft", "box")), {}, True),
        (When(forms=("not rectangular",)), {}, False),
        (When(forms=("not rectangular",)), {"form": "not rectangular"}, True),
        (When(to=("730-739",)), {}, True),
        (When(to=("1", "73120")), {}, True),
        (When(to=("74", "10440")), {}, False),
        (When(value_over=Money(1, "USD")), {"value": None}, False),
    ],
)
def test_what_is_asked_of_the_parcel_and_its_door(when: When, change: dict[str, Any], does: bool) -> None:
    assert holds(when, replace(PARCEL, **change)) == does


def test_nothing_asked_holds_always_and_one_that_does_not_hold_is_enough() -> None:
    assert holds(ALWAYS)
    whole = When(longest_over=inches("29"), second_over=inches("19"), girth_over=inches("80"), girth_to=inches("95"),
                 weight_to=read_mass("20 lb"), to=("7",))  # fmt: skip
    assert holds(whole)
    for broken in ({"longest_over": inches("31")}, {"second_over": inches("21")}, {"girth_over": inches("91")},
                   {"girth_to": inches("89")}, {"weight_to": read_mass("11 lb")}, {"to": ("8",)}, {"home": True},
                   {"united_inches_over": inches("61")}):  # fmt: skip
        assert not holds(replace(whole, **broken)), broken


side = st.integers(8, 8 * 60)
maybe = st.none() | st.integers(8, 8 * 200)


@given(side, side, side, st.integers(1, 800), maybe, maybe, maybe, maybe, maybe, st.none() | st.integers(1, 800))
def test_it_is_what_the_sentence_says(a, b, c, ounces, longest, second, around, around_to, linear, heavy) -> None:
    """In eighths and ounces, by plain sums."""

    def of(eighths: int | None) -> Length | None:
        return None if eighths is None else Length(INCH.nm * eighths // 8)

    parcel = Parcel((of(a), of(b), of(c)), read_mass(f"{ounces} oz"), "1", "2")  # type: ignore[arg-type]
    when = When(of(longest), of(second), of(around), of(around_to), None if heavy is None else read_mass(f"{heavy} oz"),
                united_inches_over=of(linear))  # fmt: skip
    x, y, z = sorted((a, b, c), reverse=True)
    girth = x + 2 * (y + z)
    says = (
        (longest is None or x > longest)
        and (second is None or y > second)
        and (around is None or girth > around)
        and (around_to is None or girth <= around_to)
        and (linear is None or a + b + c > linear)
        and (heavy is None or ounces > heavy)
    )
    assert holds(when, parcel) == says
    limits = Limits(
        of(longest), of(second), of(around), None if heavy is None else read_mass(f"{heavy} oz"), of(linear)
    )
    broken = (
        (longest is not None and x > longest)
        or (second is not None and y > second)
        or (around is not None and girth > around)
        or (linear is not None and a + b + c > linear)
        or (heavy is not None and ounces > heavy)
    )
    assert (over_limit(parcel, limits, "in") is not None) == broken


@pytest.mark.parametrize(
    ("limit", "says"),
    [
        (Limits(longest_side=inches("29")), "longest side is 30 in; the most is 29 in"),
        (Limits(second_side=inches("19 15/16")), "second side is 20 in; the most is 19 15/16 in"),
        (Limits(length_and_girth=inches("84")), "length and girth is 90 in; the most is 84 in"),
        (Limits(united_inches=inches("59")), "length, width and height together is 60 in; the most is 59 in"),
        (Limits(weight=read_mass("10 lb")), "weighs 12 lb; the most is 10 lb"),
    ],
)
def test_a_limit_says_what_is_and_what_may_be(limit: Limits, says: str) -> None:
    assert over_limit(PARCEL, limit, "in") == says


def test_a_sliver_over_a_limit_is_never_shown_as_at_it() -> None:
    wider = replace(PARCEL, sizes=(inches("30") + SLIVER, inches("20"), inches("10")))
    said = over_limit(wider, Limits(longest_side=inches("30")), "in")
    assert said == "longest side is 30 1/16 in; the most is 30 in"
    assert over_limit(PARCEL, Limits(longest_side=inches("30")), "in") is None
    assert Fraction(PARCEL.united_inches.nm, INCH.nm) == 60
