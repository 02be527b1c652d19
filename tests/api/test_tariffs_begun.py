"""A tariff begun from a form: placeholders, marked wherever a total stands, until a carrier's own prices are pasted."""

from __future__ import annotations

import json
from dataclasses import replace
from decimal import Decimal
from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.core.quantity import Units, read_distance, read_mass, read_sizes
from fardo.core.refusal import BadInput
from fardo.core.tariff.lint import look_over
from fardo.core.tariff.parcel import Parcel, read_postcode, soft_pack
from fardo.core.tariff.service import compare
from fardo.files.own_prices import read_zones, with_own_prices
from fardo.files.tariff import EXAMPLE, TariffFile, read_tariff
from fardo.files.tariff_forms import FORM_CODES, FormCode, begin_tariff, zones_from
from tests.api.test_kept_prices import choose, work_out
from tests.made_up import job

TABLE = "up to\t2\t3\n10 lb\t8.10\t9.20\n70 lb\t30.00\t41.00"
ZONES = "postcodes,zone,days\n0-4,2,1-2\n5-9,3,2-4\nA-Z,3"


def parcel(units: Units, to: str) -> Parcel:
    sizes = read_sizes("12 x 10 x 6 in" if units == "in" else "30 x 25 x 15 cm", units, field="size")
    weight = read_mass("4 lb" if units == "in" else "2 kg", "lb", field="weight")
    return Parcel(sizes, weight, read_postcode("10440"), read_postcode(to))


@pytest.mark.parametrize("form", FORM_CODES)
@pytest.mark.parametrize("units", ["in", "cm"])
def test_each_form_prices_a_parcel_everywhere_and_is_marked(form: FormCode, units: Units) -> None:
    tariff = begin_tariff(form, "Fennick Carts", "USD", units, "10440")
    (service,) = tariff.to_core()
    assert service.placeholder
    assert look_over(service) == []
    for to in ("10440", "21877", "99501", "SW1A", "K1A"):
        one = parcel(units, to)
        if form == "soft-pack":
            one = soft_pack(one)
        if form in ("container", "van"):
            continue  # one asks for its container, one for the distance
        (quote,), refused = compare([service], one)
        assert refused == []
        assert quote.placeholder
        assert quote.amount.minor > 0


@pytest.mark.parametrize(("units", "weight", "van"), [("in", "70 lb", "11.00"), ("cm", "30 kg", "6.80")])
def test_a_van_is_paid_by_the_distance_and_a_container_up_to_its_weight(units: Units, weight: str, van: str) -> None:
    """Ten miles at 0.65 and 0.45, ten kilometres at 0.40 and 0.28, there and back."""
    (service,) = begin_tariff("van", "Fennick Carts", "USD", units, "10440").to_core()
    away = read_distance("10 mi" if units == "in" else "10 km", units)
    (quote,), _ = compare([service], replace(parcel(units, "10440"), distance=away))
    assert str(quote.amount) == str(Decimal(van) * 2)
    (entry,) = begin_tariff("container", "Fennick Carts", "USD", units, "10440").services
    assert [charge.weight for charge in entry.charges if charge.kind == "container"] == [weight]


def test_the_farther_the_dearer_and_the_heavier_the_dearer() -> None:
    for form in ("zone-weight", "private", "volume", "soft-pack", "freight"):
        (entry,) = begin_tariff(form, "Fennick Carts", "USD", "in", "10440").services
        rows = next(charge.rows for charge in entry.charges if hasattr(charge, "rows"))
        for row in rows:
            prices = [float(one) for one in row[1:]]
            assert prices == sorted(prices)
        first = [float(row[1]) for row in rows]
        assert first == sorted(first)


@pytest.mark.parametrize(
    ("postcode", "near", "middle"),
    [
        ("10440", ["1"], ["0", "2", "3"]), ("99501", ["9"], ["7", "8"]), ("SW1A", ["S"], ["Q", "R", "T", "U"]),
        ("", ["0"], ["1", "2"]),
    ],
)  # fmt: skip
def test_zones_are_laid_by_the_first_sign(postcode: str, near: list[str], middle: list[str]) -> None:
    rows = {row["zone"]: row["to"] for row in zones_from(postcode)}
    assert (rows["near"], rows["middle"]) == (near, middle)
    every = [sign for row in rows.values() for sign in row]
    assert len(every) == len(set(every)) == 36


def own(form: FormCode = "private") -> TariffFile:
    return begin_tariff(form, "Fennick Carts", "USD", "in", "10440")


def test_pasted_prices_and_zones_take_the_place_of_the_placeholders() -> None:
    tariff = with_own_prices(own(), 0, TABLE, ZONES)
    (service,) = tariff.to_core()
    assert not service.placeholder
    for to, amount in (("30311", "8.10"), ("73120", "9.20"), ("K1A", "9.20")):
        (quote,), _ = compare([service], parcel("in", to))
        postage = next(line for line in quote.lines if line.kind == "postage")
        assert str(postage.amount) == amount
    assert [row.days for row in service.zones] == [(1, 2), (2, 4), (1, 2)]
    # Surcharges of zones that are no more ask one price everywhere.
    (handling,) = {tuple(one.prices) for one in tariff.services[0].charges
                   if getattr(one, "what", "") == "additional handling, weight"}  # fmt: skip
    assert handling == ("30.00",)


def test_a_table_for_the_zones_there_are_needs_no_chart() -> None:
    tariff = with_own_prices(own("zone-weight"), 0, "up to,near,middle,far\n1 lb,5,6,7\n70 lb,20,30,40")
    assert tariff.services[0].zones == own("zone-weight").services[0].zones


@pytest.mark.parametrize(
    ("table", "zones", "field", "says"),
    [
        (TABLE, "", "table, row 1", "a zone chart"),
        (TABLE, "0-4,2\n5-9,4\nA-Z,3", "table, row 1", "no column for zone 4"),
        ("up to,2,3\n5 lb,8.10", ZONES, "row 2", "1 prices"),
        ("up to,2,3\n5 lb,8.10,dear", ZONES, "row 2, column 3", "dear"),
        (TABLE, "0-4,2\n,3", "zones, row 2", "not a line of a chart"),
        (TABLE, "0-4,2\n9-5,3", "zones, row 2", "not postcodes"),
        (TABLE, "0-4,2\n10-5,3", "zones, row 2", "not postcodes"),
        (TABLE, "0-4,2,soon", "zones, row 1", "not days"),
        (TABLE, "y" * 150_000 + ",2", "zones", "not a table"),
        (TABLE, "0-4,2\n" * 5000, "zones", "too many rows"),
        (TABLE, "0-4,2,4-1", "zones[0].days", "not days in order"),
        ("", ZONES, "table", "no rows"),
    ],
)
def test_a_fault_in_what_was_pasted_names_its_row(table: str, zones: str, field: str, says: str) -> None:
    with pytest.raises(BadInput) as fault:
        with_own_prices(own(), 0, table, zones)
    assert fault.value.field.endswith(field)
    assert says in str(fault.value)


def test_a_chart_is_read_with_tabs_semicolons_and_dashes_of_any_kind() -> None:
    for text in ("100 – 119\t2\t1-2", "100-119;2;1-2", "zip,zone,days\n100-119, 2, 1 - 2"):
        (row,) = read_zones(text, (3, 5))
        assert (row.to, row.zone, row.days) == (["100-119"], "2", (1, 2))


def test_a_long_chart_is_kept_whole_in_rows_that_a_tariff_takes() -> None:
    chart = "".join(f"{n:05},{2 + n % 2},1-2\n" for n in range(3999))
    tariff = with_own_prices(own("zone-weight"), 0, TABLE, chart)
    assert sum(len(row.to) for row in tariff.services[0].zones) == 3999
    assert TariffFile.model_validate(tariff.model_dump(mode="json", by_alias=True)) == tariff


def test_there_is_no_table_in_a_van() -> None:
    with pytest.raises(BadInput, match="no table"):
        with_own_prices(own("van"), 0, TABLE)


def begun(client: TestClient, form: str, carrier: str = "Fennick Carts") -> dict[str, Any]:
    answer = client.post("/api/tariffs/-/begin", json={"form": form, "carrier": carrier})
    assert answer.status_code == 201, answer.text
    told: dict[str, Any] = answer.json()
    return told


def test_services_are_added_and_none_is_called_as_another(client: TestClient) -> None:
    assert [one["code"] for one in client.get("/api/tariffs/-/forms").json()] == list(FORM_CODES)
    begun(client, "zone-weight")
    begun(client, "soft-pack")
    kept = client.get("/api/tariffs/Fennick Carts").json()
    kept["tariff"]["services"][0]["placeholder"] = False  # its own prices are entered: another is wanted beside it
    changed = {"revision": kept["revision"], "tariff": kept["tariff"]}
    client.put("/api/tariffs/Fennick Carts", json=changed).raise_for_status()
    told = begun(client, "zone-weight")
    assert [one["name"] for one in told["services"]] == ["Parcel", "Soft pack", "Parcel 2"]
    assert [one["placeholder"] for one in told["services"]] == [False, True, True]
    assert [one["takes"] for one in told["services"]] == ["weight", "length + width", "weight"]
    client.delete("/api/tariffs/Fennick Carts")
    assert [one["name"] for one in begun(client, "van")["services"]] == ["There and back"]
    refused = client.post("/api/tariffs/-/begin", json={"form": "zone-weight", "carrier": "  "})
    assert (refused.status_code, refused.json()["field"]) == (422, "carrier")


def only_placeholders(client: TestClient) -> None:
    for row in client.get("/api/tariffs").json():
        client.delete(f"/api/tariffs/{row['carrier']}")
    begun(client, "zone-weight")


def test_placeholders_are_marked_wherever_a_total_stands_and_no_label_is_bought_by_them(client: TestClient) -> None:
    only_placeholders(client)
    content = job(extras=[])
    picture, found = work_out(client, content)
    assert any("placeholder prices" in one for one in picture["docket"]["cautions"])
    (quote,) = found["quotes"]
    assert quote["placeholder"]
    assert all(row["placeholder"] for row in client.post("/api/plans", json={"job": content}).json()["rows"])
    key = client.post("/api/jobs", json=choose(content, found, quote)).json()["id"]
    assert "placeholder prices" in client.get(f"/api/jobs/{key}/prices.csv", params={"way": found["way"]}).text
    wanted = {"carrier": "Fennick Carts", "service": "Parcel", "programme": "counter", "quote": "6a1f",
              "amount": "9.10", "currency": "USD"}  # fmt: skip
    refused = client.post(f"/api/jobs/{key}/label", json=wanted)
    assert refused.status_code == 422
    assert "placeholders; no label is bought by them" in refused.json()["detail"]


def test_once_its_own_are_pasted_nothing_is_marked(client: TestClient) -> None:
    only_placeholders(client)
    own_prices = {"table": TABLE, "zones": ZONES}
    told = client.put("/api/tariffs/Fennick Carts/services/0/own", json=own_prices)
    assert told.status_code == 200, told.text
    assert [one["placeholder"] for one in told.json()["services"]] == [False]
    picture, found = work_out(client, job(extras=[]))
    assert not any("placeholder" in one for one in picture["docket"]["cautions"])
    assert [quote["placeholder"] for quote in found["quotes"]] == [False]
    refused = client.put("/api/tariffs/Fennick Carts/services/9/own", json=own_prices)
    assert (refused.status_code, refused.json()["field"]) == (422, "service")


def test_a_tariff_begun_twice_is_begun_once(client: TestClient) -> None:
    """The answer may be lost, or the key pressed twice; another form is another service."""
    for form, services in (("zone-weight", 1), ("zone-weight", 1), ("soft-pack", 2)):
        wanted = {"form": form, "carrier": "Fennick Carts"}
        assert client.post("/api/tariffs/-/begin", json=wanted).status_code == 201
        assert len(client.get("/api/tariffs/Fennick Carts").json()["tariff"]["services"]) == services


@pytest.mark.parametrize("name", ["Ox/Cart", "-", "..", "_"])
def test_a_carrier_whose_name_no_address_holds_is_refused(client: TestClient, name: str) -> None:
    """It could be imported and never be opened."""
    refused = client.post("/api/tariffs/-/begin", json={"form": "zone-weight", "carrier": name})
    assert (refused.status_code, refused.json()["field"]) == (422, "carrier")
    with pytest.raises(BadInput, match="carrier"):
        read_tariff(json.dumps({**EXAMPLE, "carrier": name}))
    assert read_tariff(json.dumps({**EXAMPLE, "carrier": "Ox & Cart #2?"})).carrier == "Ox & Cart #2?"
