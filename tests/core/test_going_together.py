"""Several parcels of one job: what each asks by itself, what is asked once for all, and what refuses all of them."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.quantity import INCH, Length, Money, read_distance, read_mass, read_sizes
from fardo.core.refusal import BadInput
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.lint import look_over
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, Refused, Service, compare, quote
from fardo.core.tariff.step_map import price_map
from fardo.files.tariff import read_tariff
from tests.made_up import services, shop

SERVICES = services()


def parcel(size: str, weight: str, *beside: Parcel, **more: Any) -> Parcel:
    return Parcel(read_sizes(size), read_mass(weight), "10440", "73120", beside=beside, **more)


def service(*charges: dict[str, Any], **more: Any) -> Service:
    plain = {"name": "Cart", "zones": [{"from": "1", "to": ["1-9"], "zone": "all", "days": [2, 5]}],
             "weight_step": "1 lb", "charges": list(charges)}  # fmt: skip
    file = {"format": "fardo-tariff/1", "carrier": "Fennick Carts", "currency": "USD", "services": [{**plain, **more}]}
    (found,) = read_tariff(json.dumps(file)).to_core()
    return found


GRID = {"kind": "grid", "rows": [["5 lb", "6.00"], ["10 lb", "9.00"], ["40 lb", "20.00"]]}


def asked(of: Service, sent: Parcel) -> Quote:
    found = quote(of, sent)
    assert isinstance(found, Quote), found
    return found


def lines(found: Quote) -> list[tuple[int, str, str]]:
    return [(line.parcel, line.kind, str(line.amount)) for line in found.lines]


def test_each_parcel_is_charged_by_itself_unless_a_charge_is_for_all() -> None:
    """5 lb and 9 lb: 6.00 + 9.00, a call of 4.00 once, fuel of 10 % of each parcel's own postage."""
    call = {"kind": "surcharge", "code": "call", "what": "call", "why": "it calls once", "prices": ["4.00"]}
    fuel = {"kind": "fuel", "percent": "10", "on": ["postage"]}
    sent = parcel("10x10x10", "5 lb", parcel("12x8x4", "9 lb"))
    found = asked(service(GRID, {**call, "for_all": True}, fuel), sent)
    assert lines(found) == [
        (1, "postage", "6.00"), (2, "postage", "9.00"), (0, "call", "4.00"), (1, "fuel", "0.60"), (2, "fuel", "0.90"),
    ]  # fmt: skip
    assert found.amount == Money(2050, "USD")
    assert [one.billed for one in (found.billing, *found.beside)] == [read_mass("5 lb"), read_mass("9 lb")]


def test_a_grid_for_all_goes_by_what_they_weigh_together_and_cover_by_what_they_are_worth_together() -> None:
    """4 1/2 and 5 1/2 lb bill as 5 and 6, 11 together; 300 and 150 are worth 450: 350 over the free 100, 4 steps."""
    cover = {"kind": "cover", "free": "100.00", "step": "100.00", "price": "1.50", "most": "1000.00", "for_all": True}
    one, other = parcel("9x9x9", "4 1/2 lb", value=Money(30000, "USD")), parcel("9x9x9", "5 1/2 lb")
    sent = replace(one, beside=(replace(other, value=Money(15000, "USD")),))
    found = asked(service({**GRID, "for_all": True}, cover), sent)
    assert lines(found) == [(0, "postage", "20.00"), (0, "cover", "6.00")]
    assert "all together billed 11 lb" in found.lines[0].why


def test_freight_for_all_is_classed_by_the_density_of_all_of_them() -> None:
    """[NMFC density scale 2025, from memory] 1 ft3 of 3 lb is class 250, 1 ft3 of 21 lb class 70; 24 lb in 2 ft3 is 12
    lb/ft3, class 85.
    """
    rows = [[name, "100.00"] for name in ("50", "55", "60", "65", "70", "85", "92.5", "100", "125", "175", "250")]
    freight = {"kind": "freight", "minimum": "1.00", "rows": rows}
    light, heavy = parcel("12x12x12", "3 lb"), parcel("12x12x12", "21 lb")
    apart = asked(service(freight), replace(light, beside=(heavy,)))
    assert [line.what.split(", ")[1] for line in apart.lines] == ["class 250", "class 70"]
    (once,) = asked(service({**freight, "for_all": True}), replace(light, beside=(heavy,))).lines
    assert (once.what, str(once.amount)) == ("freight, class 85, zone all", "24.00")


def test_one_that_is_not_taken_refuses_all_and_is_named() -> None:
    cart = service(GRID, limits={"longest_side": "30 in", "weight": "45 lb"}, refuses=["fuel-drained"])
    for broken, why in (
        (parcel("31x4x4", "5 lb"), "parcel 2: longest side is 31 in; the most is 30 in"),
        (parcel("9x4x4", "41 lb"), "parcel 2: is billed 41 lb; the price list ends at 40 lb"),
        (parcel("9x4x4", "5 lb", hazards=frozenset({"fuel-drained"})), "parcel 2: does not take"),
    ):
        found = quote(cart, parcel("10x10x10", "5 lb", broken))
        assert isinstance(found, Refused)
        assert found.why.startswith(why)


def test_a_percentage_of_each_that_is_taken_of_a_line_for_all_is_found() -> None:
    call = {"kind": "surcharge", "code": "call", "what": "call", "why": "once", "prices": ["4.00"], "for_all": True}
    fuel = {"kind": "fuel", "percent": "10", "on": ["postage", "call"]}
    assert look_over(service(GRID, call, fuel)) == [
        "charge 3: taken of call, which is charged once for all parcels, and not once for all itself"
    ]
    assert look_over(service(GRID, call, {**fuel, "for_all": True})) == []


sides = st.integers(16, 8 * 40).map(lambda eighths: Length(INCH.nm // 8 * eighths))
some = st.lists(st.tuples(sides, sides, sides, st.integers(4, 500)), min_size=2, max_size=4)


@given(some, st.integers(0, 2000))
def test_what_goes_together_costs_the_sum_of_its_lines_and_never_hangs_on_the_order(some, worth: int) -> None:
    parcels = [Parcel((a, b, c), read_mass(f"{n} oz"), "10440", "73120", True) for a, b, c, n in some]
    value = Money(worth * 100, "USD")
    one = replace(parcels[0], value=value, beside=tuple(parcels[1:]))
    turned = replace(parcels[-1], beside=(*parcels[1:-1], replace(parcels[0], value=value)))
    for of in SERVICES:
        declared = shop().exchange.declared(one, of.currency)
        found, other = quote(of, declared), quote(of, shop().exchange.declared(turned, of.currency))
        assert isinstance(found, Quote) == isinstance(other, Quote)
        if isinstance(found, Quote) and isinstance(other, Quote):
            assert found.amount == other.amount
            assert found.amount.minor == sum(line.amount.minor for line in found.lines)


@given(some)
def test_where_nothing_is_for_all_together_costs_what_each_costs(some) -> None:
    parcels = [Parcel((a, b, c), read_mass(f"{n} oz"), "10440", "73120", True) for a, b, c, n in some]
    (ground,) = [of for of in SERVICES if (of.name, of.rate_plan) == ("Ground", "account")]
    each = [quote(ground, one) for one in parcels]
    together = quote(ground, replace(parcels[0], beside=tuple(parcels[1:])))
    assert isinstance(together, Quote) == all(isinstance(one, Quote) for one in each)
    if isinstance(together, Quote):
        assert together.amount.minor == sum(one.amount.minor for one in each if isinstance(one, Quote))


def test_a_map_with_parcels_beside_is_what_single_quotes_say() -> None:
    beside = (parcel("20x14x9", "30 lb"), parcel("9x9x9", "4 lb"))
    sent = parcel("18x12x10", "11 lb", *beside)
    first, second = ([Length(INCH.nm // 2 * n) for n in range(low, low + 24)] for low in (24, 16))
    for of in SERVICES:
        declared = shop().exchange.declared(sent, of.currency)
        seen = price_map(of, declared, first, second)
        for i in (0, 5, 11, 23):
            for j in (0, 7, 13, 23):
                found = quote(of, replace(declared, sizes=(first[i], second[j], declared.sizes[2])))
                assert seen.at(i, j) == (found.amount if isinstance(found, Quote) else None)


def test_other_currencies_declare_and_answer_for_every_parcel() -> None:
    exchange = Exchange("USD", {"EUR": shop().exchange.rates["EUR"]})
    sent = parcel("10x10x10", "5 lb", parcel("9x9x9", "4 lb", value=Money(10800, "USD")), value=Money(21600, "USD"))
    declared = exchange.declared(sent, "EUR")
    assert declared.value == Money(20000, "EUR")
    assert declared.beside[0].value == Money(10000, "EUR")
    quotes, _ = compare(SERVICES, sent, exchange=exchange)
    assert {found.amount.currency for found in quotes} == {"USD"}


# Other ways people weigh up. The 62 in and 50 lb of luggage are common practice, from memory; the prices are made up.
LUGGAGE, VAN, PACKERS = (
    next(of for of in SERVICES if of.carrier == name)
    for name in ("Passenger's luggage", "The workshop's own van", "Tern Quay Packing Shop")
)


@pytest.mark.parametrize(
    ("size", "weight", "amount"),
    [
        ("30x20x12", "50 lb", "40.00"),  # 62 in exactly
        ("30x20x12 1/16", "50 lb", "190.00"),
        ("30x20x12", "50 lb 1 oz", "140.00"),
        ("40x25x15", "70 lb", "290.00"),
    ],
)
def test_luggage_goes_by_all_three_sides_together_and_by_weight(size: str, weight: str, amount: str) -> None:
    assert str(asked(LUGGAGE, parcel(size, weight)).amount) == amount


def test_luggage_ends_at_its_limits() -> None:
    for size, weight, why in (
        ("40x25x15 1/16", "9 lb", "length, width and height together"),
        ("9x9x9", "71 lb", "weighs"),
    ):
        found = quote(LUGGAGE, parcel(size, weight))
        assert isinstance(found, Refused)
        assert why in found.why


def test_ones_own_delivery_goes_by_the_road_there_and_back_once_for_all() -> None:
    """2 x 40 miles at 0.68 and at 0.45 for the time: 54.40 + 36.00, whatever is in the van."""
    near = parcel("20x20x20", "30 lb", parcel("9x9x9", "4 lb"), distance=read_distance("40 mi"))
    assert lines(asked(VAN, near)) == [(0, "postage", "54.40"), (0, "postage", "36.00")]
    nowhere = quote(VAN, parcel("20x20x20", "30 lb"))
    assert isinstance(nowhere, Refused)
    assert "enter the driving distance" in nowhere.why


@pytest.mark.parametrize(("text", "mm"), [("40 mi", 64_373_760), ("65 km", 65_000_000), ("12,5 km", 12_500_000)])
def test_a_distance_is_read_in_miles_and_kilometres(text: str, mm: int) -> None:
    """A mile is 1609.344 m [published: international yard and pound agreement, 1959]."""
    assert read_distance(text).mm == mm
    assert read_distance(text.split()[0], "in" if "mi" in text else "cm").mm == mm


@pytest.mark.parametrize("text", ["far", "40 in", "0 mi", "-3 km", "90000 km"])
def test_what_is_no_distance_is_refused(text: str) -> None:
    with pytest.raises(BadInput) as refused:
        read_distance(text, field="ship.distance")
    assert refused.value.field == "ship.distance"


@pytest.mark.parametrize(("size", "box"), [("10x8x6", "14.50"), ("10x8x6 1/16", "24.00"), ("60x30x30", "128.00")])
def test_a_shop_that_packs_asks_for_box_and_packing_by_the_sides_together(size: str, box: str) -> None:
    found = asked(PACKERS, parcel(size, "5 lb"))
    assert found.packs
    assert [str(line.amount) for line in found.lines if line.kind == "packing"] == [box]


def test_packing_has_one_price_for_all_zones_and_rising_rows() -> None:
    for change, field in (
        ({"zones": ["all"], "rows": [["24 in", "9.00"]]}, "charges[0].zones"),
        ({"rows": [["24 in", "9.00"], ["20 in", "12.00"]]}, "charges[0].rows[1][0]"),
        ({"rows": [["24 lb", "9.00"]]}, "charges[0].rows[0][0]"),
    ):
        with pytest.raises(BadInput) as refused:
            service({"kind": "packing", **change}, GRID)
        assert refused.value.field.endswith(field)
