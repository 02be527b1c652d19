"""What a sale leaves after fees and sending, worked by hand."""

from __future__ import annotations

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.plan.sale import Fees, Sale
from fardo.core.quantity import Money
from fardo.files.channel import read_fees


def usd(amount: str) -> Money:
    return Money.read(amount, "USD")


def test_a_sale_less_fees_and_sending_by_hand() -> None:
    """640.00 and 85.00 postage; 8 % of both is 58.00, and 0.30: 640 + 85 - 58.30 - 98.67 = 568.03."""
    sale = Sale(usd("640.00"), usd("85.00"), Fees(Fraction(8, 100), usd("0.30")))
    assert sale.fee == usd("58.30")
    assert sale.left(usd("98.67")) == usd("568.03")
    # 98.67 / 0.92 = 107.25
    assert sale.postage_to_ask(usd("98.67")) == usd("107.25")
    assert Sale(usd("640.00"), usd("0")).left(usd("98.67")) == usd("541.33")
    assert Sale(usd("640.00"), usd("0")).postage_to_ask(usd("98.67")) == usd("98.67")
    assert Sale(usd("10.00"), usd("0")).left(usd("98.67")).minor == -8867


@given(st.integers(1, 10**6), st.integers(0, 60))
def test_the_postage_to_ask_pays_for_sending_and_a_coin_less_does_not(cost: int, percent: int) -> None:
    fees = Fees(Fraction(percent, 100), Money(0, "USD"))
    ask = Sale(Money(0, "USD"), Money(0, "USD"), fees).postage_to_ask(Money(cost, "USD")).minor
    assert ask * (1 - fees.share) >= cost > (ask - 1) * (1 - fees.share)


@pytest.mark.parametrize(
    ("words", "share", "fixed"),
    [
        ("8 % of the sale", "8", "0"),
        ("12.9% + 0.30", "12.9", "0.30"),
        ("8 % of the sale, 2,5 % for the payment and 0.25", "10.5", "0.25"),
        ("+ 1", "0", "1"),
        ("10% and 5%", "15", "0"),
    ],
)
def test_fees_are_read_as_they_are_written(words: str, share: str, fixed: str) -> None:
    assert read_fees(words, "USD") == Fees(Fraction(share) / 100, usd(fixed))


@pytest.mark.parametrize("words", ["", "as agreed", "half of it", "60 % and 45 %"])
def test_fees_without_a_figure_are_not_known(words: str) -> None:
    assert read_fees(words, "USD") is None
