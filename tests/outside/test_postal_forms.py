"""Forms of price beside the published rule each follows, at its thresholds and on both sides of them.

The rules are those of the Domestic Mail Manual, the NMFC density scale of 2025 and practice among carriers, all from
memory; the prices are the made-up shop's.
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.quantity import INCH, Length, Mass, Money, read_mass, read_sizes
from fardo.core.tariff.charges.freight import DENSITY_CLASSES, density_class
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, Refused, Service, compare, quote
from tests.made_up import inches, services, shop

SERVICES = services()


def service(name: str, rate_plan: str | None = None, carrier: str | None = None) -> Service:
    return next(
        one for one in SERVICES
        if one.name == name and rate_plan in (None, one.rate_plan) and carrier in (None, one.carrier)
    )  # fmt: skip


def parcel(size: str, weight: str, to: str = "73120", **more: object) -> Parcel:
    return Parcel(read_sizes(size, "in"), read_mass(weight), "10440", to, **more)  # type: ignore[arg-type]


def asked(name: str, sent: Parcel, rate_plan: str | None = None) -> Quote:
    found = quote(service(name, rate_plan), sent)
    assert isinstance(found, Quote), found
    assert found.amount.minor == sum(line.amount.minor for line in found.lines)
    return found


def why_not(name: str, sent: Parcel) -> str:
    found = quote(service(name), sent)
    assert isinstance(found, Refused), found
    return found.why


@pytest.mark.parametrize(
    ("size", "tier"),
    [
        ("6 x 5.75 x 5", "0.1"),  # 172.5 of 172.8 in3
        ("6 x 5.76 x 5", "0.1"),  # the quarter inch is rounded down first
        ("6 x 6 x 5", "0.2"),
        ("12 x 8 x 3 1/2", "0.2"),
        ("12 x 8 x 3 3/4", "0.3"),  # 360 in3
        ("12 x 12 x 6", "0.5"),  # 864 in3, the whole of it
    ],
)
def test_volume_tiers_round_each_side_down_to_a_quarter_inch(size: str, tier: str) -> None:
    assert f"tier up to {tier};" in asked("Small Cubes", parcel(size, "3 lb")).lines[0].why


def test_volume_tiers_end_at_half_a_cubic_foot_18_inches_and_20_pounds() -> None:
    assert "tiers end" in why_not("Small Cubes", parcel("12 x 12 x 6 1/4", "3 lb"))
    asked("Small Cubes", parcel("18 x 4 x 4", "20 lb"))
    assert "longest side" in why_not("Small Cubes", parcel("18 1/16 x 4 x 4", "3 lb"))
    assert "weighs" in why_not("Small Cubes", parcel("10 x 4 x 4", "20 lb 1 oz"))


def test_what_a_volume_tier_costs_does_not_hang_on_weight() -> None:
    light, heavy = (asked("Small Cubes", parcel("7 x 4 x 4", weight)).amount for weight in ("1 lb", "19 lb"))
    assert light == heavy


@pytest.mark.parametrize(("flat", "tier"), [("12 x 9", "21 in"), ("12 x 9 1/16", "27 in"), ("18 x 13", "31 in"),
                                            ("18 x 16", "34 in"), ("18 x 18", "36 in")])  # fmt: skip
def test_soft_packs_go_by_flat_length_and_width(flat: str, tier: str) -> None:
    a, b = (inches(side) for side in flat.split(" x "))
    sent = parcel("11 x 8 x 2", "3 lb", form="soft", flat=(a, b))
    assert f"tier up to {tier};" in asked("Soft Pack", sent).lines[0].why


def test_a_soft_pack_has_no_side_over_18_and_is_soft() -> None:
    long = parcel("11 x 8 x 2", "3 lb", form="soft", flat=(inches("18 1/16"), inches("9")))
    assert "flat side" in why_not("Soft Pack", long)
    assert "soft packs only" in why_not("Soft Pack", parcel("11 x 8 x 2", "3 lb"))


def test_a_container_costs_the_same_whatever_it_weighs_up_to_70_pounds() -> None:
    def held(weight: str) -> Parcel:
        return parcel("9 x 6 x 4", weight, container="counter envelope", form="soft", flat=(INCH * 12, INCH * 9))

    assert asked("Counter Envelope", held("1 lb")).amount == asked("Counter Envelope", held("70 lb")).amount
    assert "weighs" in why_not("Counter Envelope", held("70 lb 1 oz"))
    assert "its own counter envelope" in why_not("Counter Envelope", parcel("9 x 6 x 4", "1 lb"))


@pytest.mark.parametrize(
    ("size", "weight", "billed"),
    [
        ("30 x 15 x 12", "2 lb", 33),  # length and girth 84: not over it, billed by its size
        ("30 x 20 x 7 1/16", "2 lb", 26),  # 84 1/8 by size is more than 20 already
        ("60 x 7 x 5 1/16", "2 lb", 20),  # 84 1/8, 13 by its size: billed as 20
        ("60 x 7 x 5", "2 lb", 13),  # exactly 84
        ("70 x 10 x 9", "19 lb", 38),
        ("96 x 3 x 3", "19 lb 15 oz", 20),
        ("96 x 3 x 3", "20 lb", 20),
        ("96 x 3 x 3", "21 lb", 21),
    ],
)
def test_what_is_large_and_light_is_billed_as_20_pounds(size: str, weight: str, billed: int) -> None:
    assert asked("Parcel", parcel(size, weight)).billing.billed == read_mass(f"{billed} lb")


def test_what_is_not_rectangular_counts_785_thousandths_of_its_volume() -> None:
    box, tube = (asked("Parcel", parcel("40 x 12 x 10", "2 lb", form=form)) for form in ("box", "not rectangular"))
    assert box.billing.dimensional == Mass.of_pounds(Fraction(4800, 166))
    assert tube.billing.dimensional == Mass.of_pounds(Fraction(4800, 166) * Fraction(785, 1000))
    assert "not rectangular" in tube.billing.why


def test_oversize_takes_the_place_of_the_grid_over_108_up_to_130() -> None:
    at = asked("Parcel", parcel("60 x 12 x 12", "30 lb"))  # 108
    over = asked("Parcel", parcel("60 x 12 1/16 x 12", "30 lb"))
    assert [line.what for line in at.lines] == ["postage, zone far"]
    assert [line.what for line in over.lines] == ["postage, oversize"]
    assert asked("Parcel", parcel("82 x 12 x 12", "30 lb")).amount == over.amount  # 130
    assert "the most is 130" in why_not("Parcel", parcel("82 1/16 x 12 x 12", "30 lb"))


def test_a_prepaid_label_has_a_cap_of_its_own() -> None:
    assert asked("Prepaid Label", parcel("8 x 6 x 4", "4 lb")).amount == Money(995, "USD")
    assert "ends at 4 lb" in why_not("Prepaid Label", parcel("14 x 12 x 11", "3 lb"))  # its size counts
    assert "weighs" in why_not("Prepaid Label", parcel("8 x 6 x 4", "4 lb 1 oz"))


@pytest.mark.parametrize(
    ("size", "weight", "form", "what"),
    [
        ("48 x 10 x 8", "50 lb", "box", None),
        ("48 1/16 x 10 x 8", "50 lb", "box", "longest side"),
        ("40 x 30 x 8", "40 lb", "box", None),
        ("40 x 30 1/16 x 8", "40 lb", "box", "second side"),
        ("20 x 10 x 8", "50 lb 1 oz", "box", "weight"),
        ("20 x 10 x 8", "20 lb", "not rectangular", "packing"),
        ("50 x 31 x 8", "60 lb", "not rectangular", "weight"),  # of the group only the first that holds
        ("80 x 20 x 6", "60 lb", "box", "large parcel"),  # 132 before all
    ],
)
def test_of_handling_surcharges_only_the_first_that_holds_is_charged(size, weight, form, what) -> None:
    lines = [line.what for line in asked("Ground", parcel(size, weight, form=form)).lines if line.kind == "handling"]
    assert len(lines) == (what is not None)
    assert what is None or what in lines[0]


def test_remote_and_signature_are_charged_where_they_hold_and_fuel_sees_the_one_and_not_the_other() -> None:
    plain, remote = (asked("Ground", parcel("10 x 8 x 6", "5 lb", to=to), "account") for to in ("72700", "72800"))
    signed = asked("Ground", parcel("10 x 8 x 6", "5 lb", to="72700", signature=True), "account")

    def of(found: Quote) -> dict[str, int]:
        return {line.kind: line.amount.minor for line in found.lines}

    assert of(remote)["remote"] == 690
    assert of(remote)["fuel"] > of(plain)["fuel"]
    assert of(signed)["signature"] == 560
    assert of(signed)["fuel"] == of(plain)["fuel"]


def test_beyond_the_last_row_every_pound_begun_costs_the_tail() -> None:
    last, more = (asked("Express", parcel("12 x 10 x 8", weight)) for weight in ("70 lb", "72 lb 1 oz"))
    postage = [next(line.amount.minor for line in one.lines if line.kind == "postage") for one in (last, more)]
    assert postage[1] - postage[0] == 3 * 292


@pytest.mark.parametrize(("density", "expected"), [(least, name) for least, name in DENSITY_CLASSES])
def test_density_classes_begin_where_the_scale_says(density: Fraction, expected: str) -> None:
    cubic_foot = (INCH * 12).nm ** 3
    assert density_class(density, cubic_foot)[0] == expected
    if density:
        assert density_class(density - Fraction(1, 1000), cubic_foot)[0] != expected


def test_freight_is_by_the_hundredweight_and_has_a_minimum() -> None:
    small = asked("Pallet line", parcel("30 x 20 x 20", "60 lb"))
    assert small.lines[0].amount == Money(12800, "USD")
    assert "at least" in small.lines[0].why
    large = asked("Pallet line", parcel("48 x 40 x 40", "900 lb"))  # 20.25 lb/ft3: class 70
    assert "class 70" in large.lines[0].why
    assert large.lines[0].amount == Money(round((38 + 70 * 0.61) * 9 * 100), "USD")


def test_the_same_parcel_has_three_winners_as_it_grows_heavier() -> None:
    """7 x 4 x 4: by weight while it is light, by its volume tier, and in the envelope where no tier takes it."""
    ways = [service(name) for name in ("Light Parcel", "Parcel", "Small Cubes", "Counter Envelope")]
    winners = []
    for weight in ("8 oz", "3 lb", "19 lb", "25 lb"):
        bare = parcel("7 x 4 x 4", weight)
        held = replace(bare, container="counter envelope", form="soft", flat=(inches("12 1/2"), inches("9 1/2")))
        quotes = [*compare(ways, bare)[0], *compare(ways[3:], held)[0]]
        winners.append(min(quotes, key=lambda one: one.amount).service)
    assert winners == ["Light Parcel", "Small Cubes", "Small Cubes", "Counter Envelope"]


def test_a_metric_carrier_in_another_currency_stands_in_the_same_list_by_the_shops_rate() -> None:
    sent = parcel("12 x 10 x 8", "9 lb", value=Money(25000, "USD"))
    quotes, refused = compare(SERVICES, sent, exchange=shop().exchange)
    (courier,) = [one for one in quotes if one.carrier == "Quillmere Courier"]
    assert courier.amount.currency == "USD"
    assert courier.amount.minor == sum(line.amount.minor for line in courier.lines)
    # 31 x 26 x 21 cm, each up, by 5000 is 3.4 kg; 9 lb is 4.08, billed 4.5 kg: row 9 of zone C, and a rate of 1.08.
    assert courier.lines[0].amount == Money(round((11.4 + 1.12 * 9) * 1.08 * 100), "USD")
    # 250 USD is 231.49 EUR: two steps of a hundred begun above the free hundred.
    assert next(line for line in courier.lines if line.kind == "cover").amount == Money(round(0.95 * 2 * 108), "USD")
    assert not any(one.carrier == "Quillmere Courier" for one in refused)
    without = compare(SERVICES, sent, exchange=Exchange("USD"))[1]
    assert any("no rate into USD" in one.why for one in without if one.carrier == "Quillmere Courier")


def test_prices_hold_from_a_day_to_a_day() -> None:
    dated = replace(service("Parcel"), valid=("2026-01-05", "2026-07-11"))
    sent = parcel("10 x 8 x 6", "5 lb")
    for day, holds in (("2026-01-04", False), ("2026-01-05", True), ("2026-07-11", True),
                       ("2026-07-12", False), (None, True)):  # fmt: skip
        assert isinstance(quote(dated, sent, day), Quote) == holds


side = st.integers(8, 900).map(lambda n: Length(INCH.nm * n // 8))


@given(side, side, side, st.integers(1, 2400), st.permutations([0, 1, 2]))
def test_no_price_hangs_on_the_order_in_which_sides_are_typed(a, b, c, ounces, order) -> None:
    sizes = (a, b, c)
    turned = tuple(sizes[n] for n in order)
    one, other = (Parcel(s, read_mass(f"{ounces} oz"), "10440", "73120", True) for s in (sizes, turned))
    for asks in SERVICES:
        assert quote(asks, one) == quote(asks, other)


@given(side, side, side, st.integers(1, 1100), st.sampled_from([0, 1, 2]), st.integers(1, 40))
def test_billed_weight_never_falls_when_a_side_grows(a, b, c, ounces, which, eighths) -> None:
    """Save past the end of a bulky-light rule, which the tariff says itself."""
    sizes = [a, b, c]
    before = Parcel(tuple(sizes), read_mass(f"{ounces} oz"), "10440", "73120")
    sizes[which] = sizes[which] + Length(INCH.nm * eighths // 8)
    after = replace(before, sizes=tuple(sizes))
    for asks in SERVICES:
        plain = replace(asks, weights=replace(asks.weights, bulky=None))
        found = [quote(plain, one) for one in (before, after)]
        if all(isinstance(one, Quote) for one in found):
            assert found[1].billing.billed >= found[0].billing.billed
