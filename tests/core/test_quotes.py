"""Quotes: every line says why, and so does every refusal."""

from __future__ import annotations

from fractions import Fraction

import pytest

from fardo.core.quantity import POUND, Money, read_mass, read_sizes
from fardo.core.refusal import BadInput
from fardo.core.tariff.charges import Cover, Fuel, Residential, WeightGrid
from fardo.core.tariff.limits import Limits
from fardo.core.tariff.line import read_line
from fardo.core.tariff.measure import Dimensional, WeightRule
from fardo.core.tariff.parcel import Parcel, read_postcode
from fardo.core.tariff.service import Quote, Refused, Service, compare, quote
from fardo.core.tariff.zones import ZoneRow, find_zone
from tests.made_up import inches, sizes


def usd(text: str) -> Money:
    return Money.read(text, "USD")


def service(name: str = "Cart", limits: Limits | None = None, price: str = "1.00") -> Service:
    rows = tuple((POUND * n, (usd(f"{9 + n}.00"), usd(f"{19 + n}.40"))) for n in range(1, 31))
    return Service(
        carrier="Mossgate", name=name, rate_plan="account", currency="USD", units="in",
        zones=(ZoneRow("104", ("700-799",), "near", (1, 2)), ZoneRow("104", ("731", "8"), "far", (3, 5))),
        weights=WeightRule(POUND), dimensional=Dimensional(Fraction(139), "in3/lb", "up"),
        limits=limits or Limits(longest_side=inches("48"), length_and_girth=inches("105"), weight=POUND * 30),
        charges=(
            WeightGrid(("near", "far"), rows), Residential(usd("4.35")),
            Fuel(Fraction("12.5"), ("postage", "residential")),
            Cover(usd("100.00"), usd("100.00"), usd(price), usd("900.00")),
        ),
    )  # fmt: skip


def parcel(size: str = "24 x 12 x 8", pounds: int = 9, to: str = "73120", **more: object) -> Parcel:
    return Parcel(sizes(size), POUND * pounds, "10440", to, **more)


def test_a_quote_adds_up_line_by_line() -> None:
    """17 lb by size to the far zone: 36.40; residential 4.35; fuel 12.5 % of 40.75 = 5.09375; cover 6 steps."""
    answer = quote(service(), parcel(residential=True, value=usd("640.00")))
    assert isinstance(answer, Quote)
    assert [(line.kind, str(line.amount)) for line in answer.lines] == [
        ("postage", "36.40"), ("residential", "4.35"), ("fuel", "5.09"), ("cover", "6.00"),
    ]  # fmt: skip
    assert str(answer.amount) == "51.84"
    assert answer.days == (3, 5)
    whys = [line.why for line in answer.lines]
    assert whys[0] == "17 lb billed: dimensional weight, 24 x 12 x 8 / 139; price up to 17 lb in zone far"
    assert whys[2] == "12.5 % of 40.75 (postage, zone far and residential surcharge)"
    assert whys[3] == "640.00 declared, first 100.00 included, then 6 x 1.00 per 100.00 or part of it"


def test_to_a_business_no_residential_line_and_less_fuel() -> None:
    answer = quote(service(), parcel())
    assert isinstance(answer, Quote)
    assert [line.kind for line in answer.lines] == ["postage", "fuel"]
    assert str(answer.lines[1].amount) == "4.55"  # 12.5 % of 36.40


@pytest.mark.parametrize(
    ("value", "steps"), [("100.00", 0), ("100.01", 1), ("200.00", 1), ("200.01", 2), ("900.00", 8)]
)
def test_cover_counts_every_step_begun(value: str, steps: int) -> None:
    answer = quote(service(), parcel(value=usd(value)))
    assert isinstance(answer, Quote)
    cover = [line.amount.minor for line in answer.lines if line.kind == "cover"]
    assert cover == ([steps * 100] if steps else [])


@pytest.mark.parametrize(
    ("refused", "why"),
    [
        (parcel("49 x 10 x 10"), "longest side is 49 in; the most is 48 in"),
        (parcel("48 1/16 x 10 x 10"), "longest side is 48 1/16 in"),
        (parcel("40 x 20 x 16"), "length and girth is 112 in; the most is 105 in"),
        (parcel(pounds=31), "weighs 31 lb; the most is 30 lb"),
        (parcel(to="99999"), "does not go from 10440 to 99999"),
        (parcel("24 x 20 x 12"), "is billed 42 lb; the price list ends at 30 lb"),
        (parcel(value=usd("900.01")), "covers at most 900.00, and 900.01 is declared"),
    ],
)
def test_a_refusal_says_why(refused: Parcel, why: str) -> None:
    answer = quote(service(), refused)
    assert isinstance(answer, Refused)
    assert why in answer.why


def test_what_is_exactly_at_a_limit_is_taken() -> None:
    assert isinstance(quote(service(), parcel("48 x 8 x 8", 30)), Quote)
    at_girth = quote(service(limits=Limits(length_and_girth=inches("64"))), parcel("24 x 12 x 8"))
    assert isinstance(at_girth, Quote)


def test_the_longest_prefix_decides_the_zone() -> None:
    rows = service().zones
    assert find_zone(rows, "10440", "73120").zone == "far"
    assert find_zone(rows, "10440", "73299").zone == "near"
    assert find_zone(rows, "10440", "80000").zone == "far"
    assert find_zone(rows, "20440", "73120") is None
    assert find_zone(rows, "10440", "7") is None


def test_quotes_come_cheapest_first_and_refusals_apart() -> None:
    dear, cheap = service("Slow", price="9.00"), service("Quick", price="0.10")
    small = service("Small", limits=Limits(weight=POUND))
    quotes, refused = compare([dear, small, cheap], parcel(value=usd("640.00")))
    assert [q.service for q in quotes] == ["Quick", "Slow"]
    assert [r.service for r in refused] == ["Small"]


@pytest.mark.parametrize("code", ["", "7", "!!", "73120; DROP", "x" * 40])
def test_what_is_no_postcode_is_refused(code: str) -> None:
    with pytest.raises(BadInput, match="not a postcode"):
        read_postcode(code)


def test_a_parcel_is_read_from_one_line() -> None:
    for line in ("24x12x8 9lb to 73120", "24 x 12 x 8 in, 9 lb to 73120", "24×12×8in 9# from 10440 to 73120"):
        assert read_line(line, "in", "10440") == parcel(), line
    metric = read_line("60 x 30 x 20 cm 4.5 kg from 10440 to 31200 home", "in", "99999")
    assert metric is not None
    assert metric.residential
    assert metric.sizes[0].mm == 600
    ounces = read_line("6x4x2 1 lb 3 oz to 73120", "in", "10440")
    assert ounces is not None
    assert ounces.weight.ng == 19 * 28_349_523_125


def test_sizes_and_weight_are_parted_by_a_comma_and_by_their_fractions() -> None:
    for line, size, weight in (
        ("20 x 14 x 9, 6 lb to 73120", "20 x 14 x 9", "6 lb"),
        ("20x14x9; 6 lb to 73120", "20 x 14 x 9", "6 lb"),
        ("20 x 14 x 8 1/2 6 lb to 73120", "20 x 14 x 8 1/2", "6 lb"),
        ("20 x 14 x 8 6 1/2 lb to 73120", "20 x 14 x 8", "6 1/2 lb"),
        ("20 x 14 x 8-1/2, 6-1/2 lb to 73120", "20 x 14 x 8 1/2", "6 1/2 lb"),
        ("20 x 14 x 9, 12 lb 6 oz to 73120", "20 x 14 x 9", "12 lb 6 oz"),
        ("50 x 30 x 20 cm, 4,5 kg to 73120", "50 x 30 x 20 cm", "4.5 kg"),
        ("50 x 30 x 20 cm .75 kg to 73120", "50 x 30 x 20 cm", "0.75 kg"),
    ):
        read = read_line(line, "in", "10440")
        assert read is not None
        assert (read.sizes, read.weight) == (read_sizes(size, "in"), read_mass(weight, "lb")), line


@pytest.mark.parametrize("text", ["saddle", "two paddles", "", "x", "3 concertinas"])
def test_other_words_are_no_parcel(text: str) -> None:
    assert read_line(text, "in", "10440") is None


def test_a_parcel_without_its_weight_says_what_a_whole_one_is() -> None:
    with pytest.raises(BadInput, match="24x12x8 9lb to 73120"):
        read_line("24x12x8 to 73120", "in", "10440")


def test_each_step_of_declared_value_that_is_begun_is_paid() -> None:
    """100.00 are free, then 1.00 for each 100.00 begun."""
    asked = {}
    for value in ("100.00", "100.01", "200.00", "200.01", "900.00"):
        answer = quote(service(), parcel(value=usd(value)))
        assert isinstance(answer, Quote)
        asked[value] = [str(line.amount) for line in answer.lines if line.kind == "cover"]
    assert asked == {"100.00": [], "100.01": ["1.00"], "200.00": ["1.00"], "200.01": ["2.00"], "900.00": ["8.00"]}
    refused = quote(service(), parcel(value=usd("900.01")))
    assert isinstance(refused, Refused)
    assert "covers at most 900.00" in refused.why
