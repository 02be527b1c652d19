"""Money: whole cents, one currency at a time."""

from __future__ import annotations

import operator
from collections.abc import Callable
from fractions import Fraction

import pytest

from fardo.core.quantity import Money
from fardo.core.quantity.money import total
from fardo.core.refusal import BadInput


def test_a_half_cent_goes_up() -> None:
    assert Money(3045, "USD").share(Fraction("12.5") / 100) == Money(381, "USD")  # 3.80625
    assert Money(100, "USD").share(Fraction(1, 8)) == Money(13, "USD")  # 12.5


def test_a_box_at_0_77_against_1_38_is_44_per_cent_less() -> None:
    """Common practice divides by the wrong one and says 57."""
    made, bought = Money.read("0.77", "USD"), Money.read("1.38", "USD")
    assert round(100 * (1 - Fraction(made.minor, bought.minor))) == 44


@pytest.mark.parametrize("typed", ["", "abc", "1.234", "-1", "1,50", "nan", "1e3", "9" * 14])
def test_what_is_no_amount_is_refused(typed: str) -> None:
    with pytest.raises(BadInput):
        Money.read(typed, "USD")


def test_currencies_never_mix() -> None:
    with pytest.raises(BadInput, match="another currency"):
        Money(1, "USD") + Money(1, "EUR")
    with pytest.raises(BadInput, match="not a currency"):
        Money(1, "dollars")


@pytest.mark.parametrize("held", [operator.lt, operator.le, operator.gt, operator.ge])
def test_money_of_two_currencies_is_never_held_against_each_other(held: Callable[[Money, Money], bool]) -> None:
    with pytest.raises(BadInput, match="another currency"):
        held(Money(1, "USD"), Money(2, "EUR"))
    assert Money(1, "USD") != Money(1, "EUR")
    assert held(Money(1, "USD"), Money(2, "USD")) == held(1, 2)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("currency", "shown"),
    [("USD", "12.34"), ("JPY", "1234"), ("ISK", "1234"), ("UGX", "1234"), ("BHD", "1.234"), ("OMR", "1.234"),
     ("CLF", "0.1234")],
)  # fmt: skip
def test_each_currency_has_the_places_of_iso_4217(currency: str, shown: str) -> None:
    """[ISO 4217, list one, from memory]"""
    assert str(Money(1234, currency)) == shown
    assert Money.read(shown, currency) == Money(1234, currency)


def test_nothing_adds_up_to_nothing() -> None:
    assert str(total([], "USD")) == "0.00"
