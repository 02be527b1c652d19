"""What people type at a bench is read exactly, or refused in a sentence that helps."""

from __future__ import annotations

import pytest

from fardo.core.quantity import INCH, Length, Mass, read_length, read_mass, read_sizes
from fardo.core.refusal import BadInput


@pytest.mark.parametrize(
    ("typed", "sixteenths"),
    [
        ("10 1/2", 168), ('10-1/2"', 168), ("10½", 168), ("10 ½ in", 168), ("10.5", 168), ("10.500", 168),
        ("10,5", 168),
        ("21/2", 168), ("10 in 1/2", 168), ("5' 3\"", 1008), ("5'3", 1008), ("5'-3\"", 1008), ("5 ft 3 in", 1008),
        ("5’ 3”", 1008), ("5′ 3″", 1008), ("63 inches", 1008), ("1 ft", 192), ("1 foot", 192), ("1 yd", 576),
        ("12", 192), ("12.00", 192), ("30.48 cm", 192), ("30,48 cm", 192), ("304.8 mm", 192), ("0.3048 m", 192),
        ("11 3/4 + 4 x 1/16", 192), ("192/16", 192), ("6 + 6 in", 192), (" 12  IN ", 192), ("3/16", 3), (".5", 8),
        ("1 m 5 cm + 0 mm", None), ("1 1/2' ", 288),
    ],
)  # fmt: skip
def test_a_typed_length_is_read_to_the_nanometre(typed: str, sixteenths: int | None) -> None:
    expected = Length.of_mm(1050) if sixteenths is None else Length(INCH.nm * sixteenths // 16)
    assert read_length(typed) == expected


def test_a_bare_number_has_the_shops_unit() -> None:
    assert read_length("26.7", "cm") == read_length("26.7 cm") == read_length("267", "mm")


@pytest.mark.parametrize(
    ("typed", "ounces"),
    [("4 lb 6 oz", 70), ("4 lb 6", 70), ("4.375 lb", 70), ("70 oz", 70), ("4-3/8 lb", 70), ("9#", 144)],
)
def test_pounds_and_ounces_are_read_together(typed: str, ounces: int) -> None:
    assert read_mass(typed) == Mass(28_349_523_125 * ounces)


@pytest.mark.parametrize(
    ("typed", "sixteenths"), [("4 lb 6 1/2 oz", 1128), ("1/16 oz", 1), ("6 1/2 oz", 104), ("2 lb 3/16 oz", 515)]
)
def test_a_fraction_of_an_ounce_as_a_scale_shows_it_is_taken(typed: str, sixteenths: int) -> None:
    """Down to the nanogram, so that so many of them are never more than whole ounces."""
    assert read_mass(typed) == Mass(28_349_523_125 * sixteenths // 16)
    assert read_mass("1/2 oz") == read_mass("0.5 oz") == read_mass(".5 oz")
    assert read_mass("3/16 oz") == read_mass("0.1875 oz")
    assert read_mass("3/16 oz").ng * 16 <= read_mass("3 oz").ng


def test_kilos_and_grams_are_read_in_any_shop() -> None:
    assert read_mass("2 kg") == read_mass("2000 g") == read_mass("2", "kg") == Mass(2 * 10**12)


@pytest.mark.parametrize(
    "typed", ["24x12x8in", "24 x 12 x 8 in", "24 × 12 × 8", "2' x 1' x 8\"", "2 ft x 12 x 8 in", "24*12*8"]
)
def test_three_sizes_are_read_from_one_line(typed: str) -> None:
    assert read_sizes(typed) == (INCH * 24, INCH * 12, INCH * 8)


def test_sizes_take_the_last_unit_for_those_without_one() -> None:
    assert read_sizes("60 x 30 x 20 cm")[0] == Length.of_mm(600)
    assert read_sizes("10.5x8.5x1.5in") == read_sizes("10 1/2 x 8 1/2 x 1 1/2")


@pytest.mark.parametrize(
    ("typed", "says"),
    [
        ("", "nothing where a measure is wanted"), ("abc", "not understood"), ("nan", "not a number"),
        ("inf", "not a number"), ("-5", "below zero"), ("0", "nothing at all"), ("0.0 cm", "nothing at all"),
        ("11 m", "more than fits any parcel"), ("400 in", "more than fits any parcel"), ("4 lb", "a weight"),
        ("3 cm 2 in", "mixed in one measure"), ("5\" 3'", "the larger unit comes first"), 
        ("10 5", "two numbers in a row"),
        ("10 2 1/2", "two numbers in a row"), ("5' 3 2 1/2", "two numbers in a row"),
        ("12 - 1/4", "below zero"), ("5' 13\"", "13 in after ft is a whole ft or more"), ("12 16/16", "a whole one"),
        ("10 in 17/16", "a whole one"), ("1 m 100 cm", "a whole m"),
        ("10 1/2 3/4", "two numbers in a row"), ("1/0", "a fraction over nothing"), ("1/3", "cannot be kept exactly"),
        ("1,200 mm", "which can mean"), ("5 furlongs", "not a unit known here"), ("24x12", "several sizes"),
        ("1e3", "not a unit"), ("12 + ", "nothing where"), ("1" * 90, "far too long"), ("12 in in", "not understood"),
    ],
)  # fmt: skip
def test_what_is_no_length_is_refused_with_what_was_read(typed: str, says: str) -> None:
    with pytest.raises(BadInput) as refused:
        read_length(typed, field="length")
    assert says in refused.value.why
    assert refused.value.sentence.startswith("length: read ")
    assert "Allowed: " in refused.value.sentence


def test_thirds_of_a_foot_are_exact_and_taken() -> None:
    assert read_length("1/3 ft") == INCH * 4


@pytest.mark.parametrize("typed", ["24 x 12", "24 x 12 x 8 x 2", "24"])
def test_other_than_three_sizes_is_refused(typed: str) -> None:
    with pytest.raises(BadInput, match="where three are needed"):
        read_sizes(typed)


def test_more_ounces_than_a_pound_has_after_pounds_are_a_slip() -> None:
    with pytest.raises(BadInput, match="17 oz after lb is a whole lb or more"):
        read_mass("4 lb 17 oz")
    assert read_mass("17 oz") == read_mass("1 lb 1 oz")


def test_a_length_is_no_weight() -> None:
    with pytest.raises(BadInput, match="a length, where a weight is wanted"):
        read_mass("4 in")
