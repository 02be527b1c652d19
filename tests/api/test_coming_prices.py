"""Fuel surcharges in one place, prices of a coming day beside today's, two versions compared and tried with parcels."""

from __future__ import annotations

import copy
from datetime import date, timedelta
from decimal import Decimal
from fractions import Fraction
from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.files.tariff_changes import _prices_differ
from tests.made_up import job, part

CARRIER = "Oddbarrow"
WHERE = f"/api/tariffs/{CARRIER}"
TOMORROW = date.today() + timedelta(days=1)
NEXT = (date.today() + timedelta(days=40)).isoformat()
PARCELS = "24 x 12 x 8 in, 9 lb, 73120\n30, 30, 10, 22 lb, 86410, residential"


def whole(client: TestClient) -> Any:
    return client.get(WHERE).json()


def compared(client: TestClient, was: Any, now: Any, parcels: str = "", **more: Any) -> Any:
    answer = client.post(f"{WHERE}/compare", json={"was": was, "now": now, "parcels": parcels, **more})
    assert answer.status_code == 200, answer.text
    return answer.json()


def of(told: Any, called: str) -> Any:
    (found,) = [one for one in told["differences"] if one["of"] == called]
    return found


def test_charges_are_told_in_the_words_of_a_bill(client: TestClient) -> None:
    rows = {row["carrier"]: row for row in client.get("/api/tariffs").json()}
    ground = {one["called"]: one["words"] for one in rows[CARRIER]["services"][0]["charges"]}
    assert ground["additional handling, longest side"] == (
        "16.00 to 23.50 by zone, longest side over 48 in; only the first of handling that applies"
    )
    assert ground["residential surcharge"] == "4.35 to a residential address"
    assert ground["remote area"] == "6.90, to postcodes 118-119, 728, 861-864"
    assert ground["fuel surcharge"] == "12.5 % of postage, residential, handling, remote"
    assert ground["cover for the declared value"] == "included up to 100.00, then 1.20 per 100.00, at most 50000.00"
    assert ground["by weight and zone"] == "7.41 to 110.26, 5 zones, up to 150 lb"
    post = {one["called"]: one["words"] for one in rows["Wendlefirth Post"]["services"][0]["charges"]}
    assert post["by weight and zone"].endswith("up to 70 lb, but not length and girth over 108 in")
    van = rows["The workshop's own van"]["services"][0]["charges"][0]
    assert van == {"called": "the van", "words": "0.68 per mi, both ways, once per shipment"}
    freight = rows["Tarnfell Freight"]["services"][0]["charges"][0]["words"]
    assert freight.endswith("a hundred pounds, by density class, at least 128.00, once per shipment")


def test_a_fuel_surcharge_is_changed_in_all_services_that_charge_it(client: TestClient) -> None:
    rows = [row for row in client.get("/api/tariffs/-/fuel").json() if row["carrier"] == CARRIER]
    assert [(row["percent"], row["services"]) for row in rows] == [
        ("12.5", ["Ground, account", "Ground, marketplace"]), ("15.25", ["Express, account"]),
    ]  # fmt: skip
    change = {"revision": rows[0]["revision"], "was": "12.5", "percent": "13.25 %"}
    assert client.put(f"{WHERE}/fuel", json=change).json()["revision"] == 2
    percents = [
        charge["percent"] for service in whole(client)["tariff"]["services"] for charge in service["charges"]
        if charge["kind"] == "fuel"
    ]  # fmt: skip
    assert percents == ["13.25", "13.25", "15.25"]
    assert client.put(f"{WHERE}/fuel", json=change).status_code == 422  # nothing is at 12.5 any more
    late = client.put(f"{WHERE}/fuel", json=change | {"was": "13.25"})
    assert (late.status_code, late.json()["newest_revision"]) == (409, 2)


@pytest.mark.parametrize("percent", ["", "much", "-1", "101", "1/0"])
def test_what_is_no_fuel_surcharge_is_refused(client: TestClient, percent: str) -> None:
    answer = client.put(f"{WHERE}/fuel", json={"revision": 1, "was": "12.5", "percent": percent})
    assert (answer.status_code, answer.json()["field"]) == (422, "percent")
    assert whole(client)["revision"] == 1


def test_coming_prices_stand_beside_todays_and_a_job_is_priced_by_its_ship_date(client: TestClient) -> None:
    """7.41 raised by 5.9 per cent is 7.84719, 7.85 to the nearest cent; a half cent goes up."""
    row = client.post(f"{WHERE}/coming", json={"revision": 1, "from": NEXT, "percent": "5.9"}).json()
    assert (row["revision"], row["coming"]) == (2, [NEXT])
    services = whole(client)["tariff"]["services"]
    days = [(one["name"], one["valid_from"], one["valid_to"]) for one in services]
    last = (date.fromisoformat(NEXT) - timedelta(days=1)).isoformat()
    assert days == [
        *(("Ground", None, last),) * 2, ("Express", None, last), *(("Ground", NEXT, None),) * 2, ("Express", NEXT, None)
    ]  # fmt: skip
    now, then = services[0]["charges"], services[3]["charges"]
    assert (now[0]["rows"][0][1], then[0]["rows"][0][1]) == ("7.41", "7.85")
    assert (then[1]["prices"][0], then[6]["amount"], then[10]["price"]) == ("93.19", "4.61", "1.27")
    assert (then[9]["percent"], then[10]["free"]) == ("12.5", "100.00")
    assert [residential(client, day) for day in (date.today().isoformat(), last, NEXT)] == ["4.35", "4.35", "4.61"]


def residential(client: TestClient, day: str) -> str:
    """What the residential surcharge of Ground is for a job that leaves on a day."""
    content = job(parts=[part(name="reel", weight="4 lb", gap="1 in")], ways=["slotted"], extras=[]) | {"day": day}
    rows = client.post("/api/plans", json={"job": content, "words": "ground"}).json()["rows"]
    key = next(one["key"] for one in rows if one["carrier"] == CARRIER)
    quote = client.post("/api/plans/unfolded", json={"job": content, "plan": key}).json()["quote"]
    return str(next(one["amount"] for one in quote["charges"] if one["kind"] == "residential"))


def test_coming_prices_come_from_a_file_too_and_what_does_not_fit_is_refused(client: TestClient) -> None:
    file = copy.deepcopy(whole(client)["tariff"])
    file["services"] = [one for one in file["services"] if one["name"] == "Ground"]
    file["services"][0]["charges"][0]["rows"][0][1] = "8.00"
    answer = client.post(f"{WHERE}/coming", json={"revision": 1, "from": NEXT, "tariff": file})
    assert answer.status_code == 201
    days = [(one["name"], one["valid_to"] is None) for one in whole(client)["tariff"]["services"]]
    assert days == [("Ground", False), ("Ground", False), ("Express", True), ("Ground", True), ("Ground", True)]
    again = client.post(f"{WHERE}/coming", json={"revision": 2, "from": NEXT, "tariff": file})
    assert (again.status_code, again.json()["field"]) == (422, "from")
    for other in ({"carrier": "Fennick Carts"}, {"currency": "EUR"}, {"units": "cm"}):
        day = (date.fromisoformat(NEXT) + timedelta(days=9)).isoformat()
        refused = client.post(f"{WHERE}/coming", json={"revision": 2, "from": day, "tariff": file | other})
        assert refused.json()["field"] == next(iter(other))
    for body in ({}, {"percent": "5", "tariff": file}):
        assert client.post(f"{WHERE}/coming", json={"revision": 2, "from": NEXT, **body}).status_code == 422
    for percent in ("-100", "101", "some"):
        refused = client.post(f"{WHERE}/coming", json={"revision": 2, "from": NEXT, "percent": percent})
        assert refused.json()["field"] == "percent"
    early = client.post(f"{WHERE}/coming", json={"revision": 2, "from": "1990-01-01", "percent": "5"})
    assert early.status_code == 422
    assert whole(client)["revision"] == 2


def test_two_versions_are_told_apart_in_words(client: TestClient) -> None:
    before = whole(client)
    tariff = before["tariff"]
    ground = tariff["services"][0]
    ground["charges"][0]["rows"][3][2] = "11.00"
    ground["limits"]["weight"] = "60 lb"
    ground["zones"].pop()
    ground["charges"].pop(2)
    tariff["services"][2]["name"] = "Air"
    assert client.put(WHERE, json={"revision": 1, "tariff": tariff}).status_code == 200
    told = compared(client, {"revision": 1}, {"revision": 2})
    limit = of(told, "Ground, account: size and weight limits: weight")
    assert (limit["was"], limit["now"]) == ("150 lb", "60 lb")
    assert of(told, "Ground, account: zone chart")["now"] == "4 lines: 1 left out"
    assert "(1 of 750 prices differ, +" in of(told, "Ground, account: by weight and zone")["now"]
    assert of(told, "Ground, account: additional handling, weight")["now"] == "nothing"
    assert (of(told, "Express, account")["now"], of(told, "Air, account")["was"]) == ("nothing", "nothing")
    assert len(told["differences"]) == 6
    assert compared(client, {"revision": 2}, {}) == compared(client, {}, {"revision": 2})
    assert compared(client, {}, {})["differences"] == []
    assert client.post(f"{WHERE}/compare", json={"was": {"revision": 9}, "now": {}}).status_code == 404


def test_a_list_of_parcels_is_priced_by_the_prices_of_two_days(client: TestClient) -> None:
    client.post(f"{WHERE}/coming", json={"revision": 1, "from": NEXT, "percent": "10"})
    told = compared(client, {"day": date.today().isoformat()}, {"day": NEXT}, PARCELS)
    assert not any("valid" in one["of"] for one in told["differences"])
    for row, (size, weight, to, home) in zip(
        told["parcels"], (("24x12x8 in", "9 lb", "73120", False), ("30x30x10 in", "22 lb", "86410", True)), strict=True
    ):
        body = {"size": size, "weight": weight, "to": to, "home": home}
        asked = client.post(f"{WHERE}/try", json=body).json()["quotes"]
        cheapest = min(Decimal(one["amount"]) for one in asked)
        assert Decimal(row["was"]) == cheapest
        assert Decimal(row["more"]) == Decimal(row["now"]) - Decimal(row["was"])
    sums = [sum(Decimal(row[side]) for row in told["parcels"]) for side in ("was", "now")]
    assert [Decimal(told["was"]), Decimal(told["now"])] == sums
    assert Decimal(told["more"]) == sums[1] - sums[0]
    assert told["percent"] == f"{100 * (sums[1] / sums[0] - 1):+.1f} %"
    assert told["counted"] == 2
    # What only one day prices is told and counts in no sum.
    long = compared(client, {"day": "1990-01-01"}, {"day": "1990-01-01"}, "120 x 12 x 8, 9 lb, 73120")
    assert (long["counted"], long["more"], long["percent"]) == (0, "0.00", "")
    assert long["parcels"][0]["why_not"][0].startswith("Ground: ")


def test_parcels_that_were_weighed_and_measured_are_in_the_list(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job(parts=[part(weight="4 lb")], extras=[])).json()["id"]
    assert compared(client, {}, {}, sent=True)["parcels"] == []
    closed = {"weight": "5 lb", "sides": "14 x 10 x 6 in"}
    sent = client.put(f"/api/jobs/{key}/sending", json={"revision": 0, "sending": {"closed": closed}})
    assert sent.status_code == 200, sent.text
    (row,) = compared(client, {}, {}, sent=True)["parcels"]
    assert row["called"].endswith(", 14 x 10 x 6 in, 5 lb")
    assert row["was"] == row["now"] != ""


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("24 x 12, 9 lb, 73120", "parcels, line 2"),
        ("24 x 12 x 8, heavy, 73120", "parcels, line 2"),
        ("24 x 12 x 8, 9 lb", "size, weight, postcode"),
        ("24 x 12 x 8, 9 lb, 7", "not a postcode"),
        ("24 x 12 x 8, 9 lb, 73120, perhaps", "residential or commercial"),
        ("24", "size, weight, postcode"),
    ],
)
def test_a_parcel_that_cannot_be_read_is_named_by_its_line(client: TestClient, line: str, says: str) -> None:
    body = {"was": {}, "now": {}, "parcels": f"size, weight, postcode\n{line}"}
    answer = client.post(f"{WHERE}/compare", json=body)
    assert answer.status_code == 422
    assert says in str(answer.json())
    many = client.post(f"{WHERE}/compare", json=body | {"parcels": "2x2x2,1,73120\n" * 501})
    assert "at most 500" in many.text


def test_prices_added_and_left_out_are_counted() -> None:
    was = {("1 lb", "near"): Fraction(8), ("2 lb", "near"): Fraction(9), ("3 lb", "near"): Fraction(10)}
    one, two = dict(list(was.items())[1:]), dict(list(was.items())[2:])
    assert (_prices_differ(was, one), _prices_differ(was, two)) == ("1 price left out", "2 prices left out")
    assert (_prices_differ(one, was), _prices_differ(two, was)) == ("1 price added", "2 prices added")
    dearer = {key: price * Fraction(11, 10) for key, price in was.items()}
    assert _prices_differ(was, dearer) == "3 of 3 prices differ, +10.0 %"
    assert _prices_differ(was, was) == ""
