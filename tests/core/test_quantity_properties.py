"""What must hold for every quantity, over random ones."""

from __future__ import annotations

from fractions import Fraction

from hypothesis import given
from hypothesis import strategies as st

from fardo.core.quantity import (
    MM,
    OUNCE,
    SIXTEENTH,
    Length,
    Mass,
    Money,
    read_length,
    read_mass,
    show_length,
    show_mass,
)
from fardo.core.quantity.show import show_sizes
from fardo.files.typed import with_unit

lengths = st.integers(1, 10**10).map(Length)
masses = st.integers(1, 10**15).map(Mass)
units = st.sampled_from(["in", "cm"])


@given(lengths, units, st.sampled_from(["up", "down", "nearest"]))
def test_what_is_printed_reads_back(length: Length, unit: str, rounding: str) -> None:
    shown = show_length(length, unit, rounding)
    step = SIXTEENTH if unit == "in" else MM
    assert read_length(shown.text, zero=True, most=Length(2 * 10**10)) == length.to_step(step, rounding)
    assert shown.exact == (length.nm % step.nm == 0)


@given(lengths, units)
def test_what_must_hold_is_never_shown_smaller_and_what_must_fit_never_larger(length: Length, unit: str) -> None:
    read = lambda shown: read_length(shown.text, zero=True, most=Length(2 * 10**10))  # noqa: E731
    up, down = read(show_length(length, unit, "up")), read(show_length(length, unit, "down"))
    assert down <= length <= up
    assert up.nm - down.nm in (0, (SIXTEENTH if unit == "in" else MM).nm)


@given(masses, units)
def test_a_printed_mass_reads_back_and_is_never_lighter(mass: Mass, unit: str) -> None:
    read = read_mass(show_mass(mass, unit, "up").text, most=Mass(10**16))
    assert mass <= read
    assert read == mass.to_step(OUNCE if unit == "in" else Mass(10**10), "up")


@given(lengths)
def test_a_length_goes_over_the_wire_and_back_unchanged(length: Length) -> None:
    assert Length.of_mm(length.mm) == length


@given(st.integers(1, 10**12).map(Mass))
def test_a_mass_goes_over_the_wire_and_back_unchanged(mass: Mass) -> None:
    assert Mass.of_grams(mass.grams) == mass


@given(st.integers(0, 4000), st.sampled_from([2, 4, 8, 16, 32, 64]))
def test_every_fraction_of_a_tape_is_exact(parts: int, of: int) -> None:
    assert read_length(f"{parts}/{of}", zero=True, most=Length(10**12)).inches == Fraction(parts, of)


@given(st.lists(st.integers(1, 64), min_size=1, max_size=12))
def test_a_sum_of_sixteenths_is_what_they_add_up_to(sixteenths: list[int]) -> None:
    typed = " + ".join(f"{n}/16" for n in sixteenths)
    if len(typed) <= 80:
        assert read_length(typed) == Length(sum(sixteenths) * SIXTEENTH.nm)


@given(lengths)
def test_two_halves_hold_the_whole(length: Length) -> None:
    assert length <= length.half() + length.half() <= length + Length(1)


@given(st.tuples(lengths, lengths, lengths), units)
def test_three_sizes_are_shown_as_their_sides_are(sides: tuple[Length, Length, Length], unit: str) -> None:
    shown = show_sizes(sides, unit, "up").text
    assert shown == " x ".join(show_length(s, unit, "up").text.removesuffix(f" {unit}") for s in sides) + f" {unit}"


@given(st.integers(0, 10**9), st.integers(0, 10**6), st.integers(1, 10**4))
def test_a_share_of_money_is_the_nearest_cent_with_halves_up(minor: int, top: int, bottom: int) -> None:
    share = Money(minor, "USD").share(Fraction(top, bottom)).minor
    exact = minor * Fraction(top, bottom)
    assert -Fraction(1, 2) < share - exact <= Fraction(1, 2)


@given(st.integers(0, 10**12))
def test_printed_money_reads_back(minor: int) -> None:
    for currency in ("USD", "JPY", "KWD"):
        amount = Money(minor, currency)
        if len(str(amount).partition(".")[0]) <= 12:
            assert Money.read(str(amount), currency) == amount


@given(lengths, units)
def test_kept_text_means_the_same_after_the_shop_changes_its_units(length: Length, unit: str) -> None:
    typed = show_length(length, unit, "up").text.removesuffix(f" {unit}")
    kept = with_unit(typed, unit, "length")
    assert read_length(kept, "in", zero=True, most=Length(2 * 10**10)) == read_length(
        kept, "cm", zero=True, most=Length(2 * 10**10)
    )
