"""Units against the international yard and pound agreement of 1959 (values from memory): 1 yd = 0.9144 m and
1 lb = 0.45359237 kg, both exactly; a foot is a third of a yard, an ounce a sixteenth of a pound.
"""

from __future__ import annotations

from fractions import Fraction

from fardo.core.quantity import INCH, OUNCE, POUND, SIXTY_FOURTH, read_length, read_mass


def test_a_yard_is_0_9144_m() -> None:
    assert read_length("1 yd") == read_length("0.9144 m") == INCH * 36


def test_an_inch_is_25_4_mm_and_its_64th_a_whole_number_of_nanometres() -> None:
    assert Fraction(INCH.nm, 10**6) == Fraction("0.9144") / 36 * 1000 == Fraction("25.4")
    assert SIXTY_FOURTH.nm * 64 == INCH.nm


def test_a_pound_is_0_45359237_kg() -> None:
    assert read_mass("1 lb") == read_mass("0.45359237 kg") == POUND
    assert OUNCE.ng * 16 == POUND.ng


def test_a_pound_and_kilo_price_break_do_not_meet() -> None:
    assert read_mass("2.20462262 lb") < read_mass("1 kg") < read_mass("2.20462263 lb")
