"""Decimals of tariffs and settings: digits and a point, within bounds, and nothing that takes a machine for minutes."""

from __future__ import annotations

from datetime import date
from fractions import Fraction
from typing import Any

import pytest

from fardo.core.quantity import read_decimal
from fardo.core.refusal import BadInput
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.tariff import EXAMPLE, TariffFile, check_tariff, services_in
from fardo.files.tariff_fuel import with_fuel
from fardo.files.tariff_years import raised

# Each was taken, or held the server, before there was one reader.
NO_DECIMALS = ("1e2000000", "-1e2000000", "1_2", "1/3", "1e3", "nan", "inf", "٣", "0x10", "1.2.3", "--1", "", "9" * 400)


@pytest.mark.parametrize("text", NO_DECIMALS)
def test_what_is_no_plain_decimal_is_refused_at_once(text: str) -> None:
    with pytest.raises(BadInput, match="a decimal such as"):
        read_decimal(text, most=10**12)


def test_a_decimal_is_read_exactly_and_within_its_bounds() -> None:
    assert read_decimal(" 0.785 ", most=1) == Fraction(785, 1000)
    assert read_decimal("-2.5", least=-100, most=100) == Fraction(-5, 2)
    assert read_decimal("100", most=100) == 100
    for text, least, above in (("100.01", 0, False), ("-0.01", 0, False), ("0", 0, True)):
        with pytest.raises(BadInput, match="out of range"):
            read_decimal(text, least=least, most=100, more_than_least=above)


def tariff_with(charge: dict[str, Any] | None = None, dimensional: dict[str, Any] | None = None) -> TariffFile:
    content: dict[str, Any] = {**EXAMPLE, "services": [{**EXAMPLE["services"][0]}]}
    service = content["services"][0]
    if charge:
        service["charges"] = [*service["charges"], charge]
    if dimensional:
        service["dimensional"] = {"divisor": "166", "unit": "in3/lb", "sides": "up", **dimensional}
    return TariffFile.model_validate(content)


@pytest.mark.parametrize("text", ["1e2000000", "1_2", "1/3", "-500"])
def test_no_field_of_a_tariff_takes_such_a_number(text: str) -> None:
    surcharge = {"kind": "surcharge", "code": "a", "what": "a", "why": "a", "percent": text}
    volume = {
        "kind": "volume", "step": "1/4 in", "longest_side": "18 in", "weight": "20 lb", "rows": [[text, "5.00"]]
    }  # fmt: skip
    tariffs = [
        tariff_with({"kind": "fuel", "percent": text}), tariff_with(surcharge), tariff_with(volume),
        *(tariff_with(dimensional={name: text}) for name in ("divisor", "threshold", "odd")),
    ]  # fmt: skip
    for tariff in tariffs:
        with pytest.raises(BadInput, match=r"services\[0\]\.(charges\[1\]|dimensional)"):
            check_tariff(tariff)


def test_what_a_shop_keeps_already_is_read_though_it_would_be_refused_now() -> None:
    """A shop with one tariff that cannot be read is not served: what could be kept before still opens."""
    kept = [
        tariff_with({"kind": "fuel", "percent": "-5"}), tariff_with(dimensional={"odd": "1.5"}),
        tariff_with({"kind": "surcharge", "code": "a", "what": "discount", "why": "a", "percent": "-10"}),
    ]  # fmt: skip
    for tariff in kept:
        assert services_in(tariff.model_dump_json(by_alias=True))
    check_tariff(kept[-1])  # a discount is a surcharge below nothing
    for refused in kept[:2]:
        with pytest.raises(BadInput):
            check_tariff(refused)


def test_fuel_coming_prices_and_rates_take_plain_decimals_alone() -> None:
    tariff = tariff_with({"kind": "fuel", "percent": "12.5"})
    today = date(2026, 12, 2)
    for text in ("1e2000000", "1_2", "1/3", "-50", "101"):
        with pytest.raises(BadInput):
            with_fuel(tariff, "12.5", text, today)
    for text in ("1e2000000", "1_2", "1/3", "-100", "101"):
        with pytest.raises(BadInput):
            raised(tariff, text, today)
    for text in ("1e2000000", "1_2", "1/3", "0"):
        with pytest.raises(BadInput, match=r"rates\.EUR"):
            ShopFile.model_validate({**starting_shop().model_dump(), "rates": {"EUR": text}}).to_core()
