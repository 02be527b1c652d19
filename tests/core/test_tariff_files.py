"""Tariff and shop files: read to the last price, and refused where something in them cannot be used."""

from __future__ import annotations

import copy
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from pydantic import ValidationError

from fardo.core.make.allowances import TAB, Allowances
from fardo.core.quantity import Length, Money, read_length, read_mass
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, Refused, quote
from fardo.files.cut_by import CutBy
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.tariff import read_tariff, read_tariffs
from fardo.files.typed import complaints
from tests.made_up import sizes

METRIC: dict[str, Any] = {
    "format": "fardo-tariff/1", "carrier": "Mossgate", "currency": "EUR", "units": "cm",
    "services": [{
        "name": "Cart", "programme": "counter", "weight_step": "0.5 kg",
        "zones": [{"from": "", "to": ["0-9"], "zone": "all", "days": [2, 3]}],
        "dimensional": {"divisor": "5000", "unit": "cm3/kg", "sides": "up"},
        "limits": {"longest_side": "120 cm", "weight": "31.5 kg"},
        "charges": [
            {"kind": "grid", "zones": ["all"], "rows": [["2 kg", "5.49"], ["5 kg", "7.69"], ["31.5 kg", "16.49"]]},
            {"kind": "fuel", "percent": "7.25", "on": ["postage"]},
        ],
    }],
}  # fmt: skip


def changed(change: Callable[[dict[str, Any]], object]) -> str:
    content = copy.deepcopy(METRIC)
    change(content)
    return json.dumps(content)


def ask(size: str, weight: str, file: dict[str, Any] = METRIC) -> Quote | Refused:
    (service,) = read_tariff(json.dumps(file)).to_core()
    return quote(service, Parcel(sizes(size), read_mass(weight), "10440", "73120"))


def test_a_metric_tariff_prices_in_its_own_units_and_words() -> None:
    """60 x 40 x 30 cm: 72000 / 5000 = 14.4 kg, billed 14.5; 16.49 and 7.25 % of it, 1.195525."""
    answer = ask("60 x 40 x 30 cm", "3 kg")
    assert isinstance(answer, Quote)
    assert answer.amount == Money(1769, "EUR")
    assert answer.billing.billed == read_mass("14.5 kg")
    assert (
        answer.lines[0].why
        == "14.50 kg billed: dimensional weight, 60 x 40 x 30 / 5000; price up to 31.50 kg in zone all"
    )


@pytest.mark.parametrize(
    ("size", "weight", "price"),
    [
        ("20 x 20 x 20 cm", "2 kg", "5.49"),  # exactly at a row's weight is that row's price
        ("20 x 20 x 20 cm", "2001 g", "7.69"),
        ("20 x 20 x 20 cm", "5 kg", "7.69"),
        ("20 x 20 x 20 cm", "5.1 kg", "16.49"),
        ("20.1 x 20 x 20 cm", "1 kg", "5.49"),  # 21 x 20 x 20 / 5000 = 1.68, billed 2.0
        ("24 x 21 x 20 cm", "1 kg", "7.69"),  # 10080 / 5000 = 2.016, billed 2.5
    ],
)
def test_a_row_counts_up_to_and_including_its_weight(size: str, weight: str, price: str) -> None:
    answer = ask(size, weight)
    assert isinstance(answer, Quote)
    assert str(answer.lines[0].amount) == price


def test_limits_are_said_in_the_tariffs_units() -> None:
    answer = ask("120.1 x 20 x 20 cm", "2 kg")
    assert isinstance(answer, Refused)
    assert answer.why == "longest side is 120.1 cm; the most is 120 cm"
    heavy = ask("20 x 20 x 20 cm", "31.51 kg")
    assert isinstance(heavy, Refused)
    assert heavy.why == "weighs 31.51 kg; the most is 31.5 kg"


def service(content: dict[str, Any]) -> dict[str, Any]:
    return content["services"][0]


@pytest.mark.parametrize(
    ("change", "field", "says"),
    [
        (lambda c: c.update(format="fardo-tariff/7"), "format", "fardo-tariff/1"),
        (lambda c: c.update(currency="euro"), "charges[0]", "not a currency"),
        (lambda c: c.update(carier="x"), "carier", "not known here"),
        (lambda c: c.update(services=[]), "services", "at least 1 item"),
        (lambda c: service(c).update(weight_step="0 kg"), "weight_step", "nothing at all"),
        (lambda c: service(c).update(weight_step="1 in"), "weight_step", "a length"),
        (lambda c: service(c)["dimensional"].update(divisor="0"), "divisor", "out of range"),
        (lambda c: service(c)["dimensional"].update(divisor="many"), "divisor", "not a number"),
        (lambda c: service(c)["dimensional"].update(sides="upwards"), "sides", "'up'"),
        (lambda c: service(c)["dimensional"].update(threshold="1/0"), "threshold", "not a number"),
        (lambda c: service(c)["limits"].update(longest_side="far"), "limits.longest_side", "read 'far'"),
        (lambda c: service(c)["charges"][0]["rows"].append(["4 kg", "9.00"]), "rows[3]", "rising weights"),
        (lambda c: service(c)["charges"][0]["rows"].append(["40 kg"]), "rows[3]", "one for each of 1 zones"),
        (lambda c: service(c)["charges"][0]["rows"].append(["40 kg", "dear"]), "charges[0]", "not an amount"),
        (lambda c: service(c)["charges"][0]["rows"].append(["40 kg", "9.999"]), "charges[0]", "finer than"),
        (lambda c: service(c)["charges"][1].update(percent="some"), "percent", "not a number"),
        (lambda c: service(c)["charges"].append({"kind": "toll"}), "charges[2]", "toll"),
        (
            lambda c: service(c)["charges"].append(
                {"kind": "cover", "free": "1", "step": "0", "price": "1", "most": "9"}
            ),
            "step",
            "no step at all",
        ),
    ],
)
def test_a_broken_tariff_names_what_is_wrong(change: Callable[..., object], field: str, says: str) -> None:
    with pytest.raises(BadInput) as refused:
        read_tariff(changed(change))
    assert field in refused.value.field
    assert says in refused.value.sentence


@pytest.mark.parametrize("text", ["", "{", "[]", "[" * 50_000, "\x00"])
def test_what_is_no_tariff_is_refused(text: str) -> None:
    with pytest.raises(BadInput):
        read_tariff(text)


def test_a_folder_says_which_file_is_wrong(tmp_path: Path) -> None:
    with pytest.raises(BadInput, match="no tariff in it"):
        read_tariffs(tmp_path)
    (tmp_path / "a.tariff.json").write_text(json.dumps(METRIC))
    assert [tariff.carrier for tariff in read_tariffs(tmp_path)] == ["Mossgate"]
    (tmp_path / "b.tariff.json").write_text("{}")
    with pytest.raises(BadInput, match=r"b\.tariff\.json\.carrier"):
        read_tariffs(tmp_path)


def read_shop(content: dict[str, Any]) -> ShopFile:
    """A shop as it comes over the wire, its first fault worded as the API words it."""
    try:
        return ShopFile.model_validate(content)
    except ValidationError as error:
        raise next(complaints(error)) from error


def settings(**changes: Any) -> dict[str, Any]:
    return {**starting_shop().model_dump(mode="json"), **changes}


@pytest.mark.parametrize(
    ("changes", "field", "says"),
    [
        ({"gap": "wide"}, "gap", "read 'wide'"),
        ({"gap": "-1 in"}, "gap", "below zero"),
        ({"gap": "300 mm"}, "gap", "200 mm"),
        ({"tab": "0"}, "tab", "nothing at all"),
        ({"allowances": {"tabb": "1 in"}}, "allowances.tabb", "not an allowance"),
        ({"tab": "2 in", "allowances": "2 in"}, "allowances", "valid dictionary"),
        ({"labour_per_hour": "much"}, "labour_per_hour", "not an amount"),
        ({"pack_minutes": -1}, "pack_minutes", "greater than or equal to 0"),
        ({"units": "cubits"}, "units", "'in' or 'cm'"),
        ({"default_board": "Z"}, "default_board", "E, B, C, BC"),
        ({"boards": []}, "boards", "at least 1 item"),
        ({"postcode": "!"}, "postcode", "not a postcode"),
        ({"currency": "$"}, "", "not a currency"),
        ({"fence_step": "1/7 in"}, "fence_step", "1/16 in"),
    ],
)
def test_settings_that_cannot_be_used_are_refused_by_field(changes: dict[str, Any], field: str, says: str) -> None:
    with pytest.raises(BadInput) as refused:
        read_shop(settings(**changes)).to_core()
    assert refused.value.field.endswith(field)
    assert says in refused.value.sentence


@pytest.mark.parametrize(("caliper", "says"), [("0", "nothing at all"), ("60 mm", "50 mm"), ("4 oz", "a weight")])
def test_a_caliper_that_no_board_has_is_refused(caliper: str, says: str) -> None:
    boards = settings()["boards"]
    boards[1]["caliper"] = caliper
    with pytest.raises(BadInput, match=r"boards\[1\]\.caliper") as refused:
        read_shop(settings(boards=boards)).to_core()
    assert says in refused.value.sentence


def test_starting_calipers_are_those_of_common_practice() -> None:
    """Common practice: E about 1/16 in, B 1/8, C 5/32, BC 1/4; every shop measures its own."""
    calipers = {code: grade.caliper for code, grade in starting_shop().to_core().grades.items()}
    assert calipers == {
        code: read_length(text) for code, text in (("E", "1/16"), ("B", "1/8"), ("C", "5/32"), ("BC", "1/4"))
    }


def test_a_shop_goes_out_and_comes_in_the_same() -> None:
    shop = starting_shop()
    assert ShopFile.model_validate_json(shop.model_dump_json(by_alias=True)) == shop
    assert read_shop(settings()).to_core() == shop.to_core()


def test_allowances_of_before_there_was_a_list_of_them_are_read() -> None:
    """Each was a field of its own: in the shop's file by its name, with a chosen box in millimetres."""
    without = {name: value for name, value in settings().items() if name != "allowances"}
    shop = read_shop({**without, "tab": "2 in", "slip": "1/8 in"})
    assert shop.to_core().allowances[TAB] == read_length("2 in")
    assert shop == read_shop({**without, "allowances": {"tab": "2 in", "slip": "1/8 in"}})
    kept = CutBy.model_validate({"caliper_mm": 4, "trim_mm": [0, 0, 0], "slip_mm": 3, "lid_mm": 70, "step_mm": 1.5})
    assert kept.to_core().allowances == Allowances.of(
        {"slip": Length.of_mm(3), "lid": Length.of_mm(70)}, Length.of_mm(1.5)
    )
