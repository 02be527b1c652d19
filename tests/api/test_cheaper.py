"""What to trim for the nearest cheaper price, and the map of it, over the wire."""

from __future__ import annotations

import csv
import io
from decimal import Decimal
from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.core.quantity import read_length
from tests.made_up import job


def asked(client: TestClient, **changes: Any) -> Any:
    body = {"job": job(), "way": "slotted", "carrier": "Wendlefirth Post", "service": "Parcel", "programme": "counter"}
    return client.post("/api/steps", json={**body, **changes})


def bands_of(seen: Any, row: int) -> list[Any]:
    return [band for band in seen["bands"] if band["row"] <= row <= band["last"]]


def test_trims_and_map_are_of_the_box_in_hand(client: TestClient) -> None:
    told = asked(client).json()
    work = client.post("/api/work-out", json={"job": job(), "in_hand": "slotted"}).json()
    way = next(one for one in work["ways"] if one["way"] == "slotted")
    quote = next(one for one in way["quotes"] if one["carrier"] == "Wendlefirth Post" and one["service"] == "Parcel")
    seen = told["map"]
    i, j = seen["here"]
    longest, second, _ = sorted(way["outside"]["mm"], reverse=True)
    assert (seen["first_mm"][i], seen["second_mm"][j]) == (longest, second)
    here = [band for band in bands_of(seen, j) if band["start"] <= i <= band["end"]]
    assert [band["price"] for band in here] == [quote["total"]]
    assert seen["prices"] == sorted(seen["prices"], key=float)
    for point in told["points"]:
        assert float(point["amount"]) + float(point["saves"]) == pytest.approx(float(quote["amount"]))
    # Every row is covered once, from its first cell to its last.
    for row in range(len(seen["second_mm"])):
        bands = sorted(bands_of(seen, row), key=lambda band: band["start"])
        assert [band["start"] for band in bands] == [0, *(band["end"] + 1 for band in bands[:-1])]
        assert bands[-1]["end"] == len(seen["first_mm"]) - 1


def test_what_comes_off_a_side_and_what_is_left_add_up_to_it_as_it_is_shown(client: TestClient) -> None:
    work = client.post("/api/work-out", json={"job": job(), "in_hand": "slotted"}).json()
    outside = [read_length(side, "in") for side in work["docket"]["outside"]["figure"]["text"][:-3].split(" x ")]
    named = dict(zip(("longest side", "second side", "third side"), sorted(outside, reverse=True), strict=True))
    points = [point for point in asked(client).json()["points"] if point["what"] in named]
    assert points
    for point in points:
        assert read_length(point["by"]) + read_length(point["to"]) == named[point["what"]]


def test_the_docket_says_what_the_best_small_trim_would_save(client: TestClient) -> None:
    work = client.post("/api/work-out", json={"job": job(), "in_hand": "slotted"}).json()
    docket = work["docket"]
    quote = docket["quote"]
    same = {key: quote[key] for key in ("carrier", "service", "programme")}
    told = asked(client, **same, reach="1 1/2 in").json()  # what is more than that is another box, and no trim
    best = max(told["points"], key=lambda point: float(point["saves"]))
    assert docket["trim"] == f"{best['by']} off the {best['what']} saves {best['saves']}"


def test_a_carrier_of_another_currency_is_mapped_in_the_shops(client: TestClient) -> None:
    told = asked(client, carrier="Quillmere Courier", service="Standard", programme="account").json()
    work = client.post("/api/work-out", json={"job": job(), "in_hand": "slotted"}).json()
    way = next(one for one in work["ways"] if one["way"] == "slotted")
    quote = next(one for one in way["quotes"] if one["carrier"] == "Quillmere Courier")
    i, j = told["map"]["here"]
    (band,) = [b for b in bands_of(told["map"], j) if b["start"] <= i <= b["end"]]
    # Its lines are turned one by one, the sum here as a whole: a cent a line at most.
    assert float(band["price"]) == pytest.approx(float(quote["total"]), abs=0.03)


def test_a_service_there_is_not_or_no_place_to_go_is_refused(client: TestClient) -> None:
    assert asked(client, service="Balloon").status_code == 422
    assert asked(client, job=job(ship={})).json()["field"] == "ship.to"
    assert asked(client, way="sack").status_code == 422


def test_a_comparison_as_csv_adds_up_row_by_row(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job(title="=Concertina", value="640.00")).json()["id"]
    text = client.get(f"/api/jobs/{key}/prices.csv?way=slotted").text
    rows = list(csv.DictReader(io.StringIO(text)))
    services = {(row["carrier"], row["service"], row["programme"]) for row in rows if row["what"] != "not taken"}
    assert len(services) >= 5
    for one in services:
        own = [row for row in rows if (row["carrier"], row["service"], row["programme"]) == one]
        parts = sum(Decimal(row["amount"]) for row in own if row["what"] not in ("total", "not taken"))
        (whole,) = [Decimal(row["amount"]) for row in own if row["what"] == "total"]
        assert parts == whole
    refused = [row for row in rows if row["what"] == "not taken"]
    assert refused
    assert all(row["why"] for row in refused)
    bare = client.post("/api/jobs", json=job(ship={})).json()["id"]
    assert client.get(f"/api/jobs/{bare}/prices.csv?way=slotted").json()["field"] == "ship.to"


def test_the_map_is_of_the_sides_and_the_reach_that_are_asked_for(client: TestClient) -> None:
    near = asked(client).json()["map"]
    assert near["sides"] == ["longest side", "second side"]
    far = asked(client, sides="longest and third", reach="8 in").json()
    seen = far["map"]
    assert seen["sides"] == ["longest side", "third side"]
    i, j = seen["here"]
    assert seen["first_mm"][i] == near["first_mm"][near["here"][0]]
    assert seen["first_mm"][-1] - seen["first_mm"][i] == pytest.approx(8 * 25.4, abs=3.2)
    (here,) = [band["price"] for band in bands_of(seen, j) if band["start"] <= i <= band["end"]]
    i, j = near["here"]
    assert [here] == [band["price"] for band in bands_of(near, j) if band["start"] <= i <= band["end"]]
    # Farther is looked, more or as much is found.
    assert {point["what"] for point in asked(client).json()["points"]} <= {point["what"] for point in far["points"]}
    for reach in ("far", "13 in", "0 in"):
        assert asked(client, reach=reach).json()["field"] == "reach"


def test_of_two_price_lists_the_one_of_the_day_is_mapped(client: TestClient) -> None:
    whole = client.get("/api/tariffs/Wendlefirth Post").json()
    first = whole["tariff"]["services"][0]
    later = {**first, "valid_from": "2027-01-01", "charges": [dict(charge) for charge in first["charges"]]}
    for charge in later["charges"]:
        if charge["kind"] == "grid":
            charge["rows"] = [[row[0], *(f"{float(price) + 5:.2f}" for price in row[1:])] for row in charge["rows"]]
    whole["tariff"]["services"] = [{**first, "valid_to": "2026-12-31"}, later, *whole["tariff"]["services"][1:]]
    assert client.put("/api/tariffs/Wendlefirth Post", json=whole).status_code == 200
    for day, more in (("2026-12-31", 0), ("2027-01-01", 5)):
        seen = asked(client, job=job(day=day)).json()["map"]
        i, j = seen["here"]
        (here,) = [band["price"] for band in bands_of(seen, j) if band["start"] <= i <= band["end"]]
        if not more:
            before = float(here)
        assert float(here) == pytest.approx(before + more)


def test_a_container_of_the_carriers_own_that_costs_less_is_told(client: TestClient) -> None:
    part = {"name": "concertina reeds, boxed", "weight": "6 lb", "gap": "0",
            "shape": {"kind": "box", "length": "7 in", "width": "4 in", "height": "4 in"}}  # fmt: skip
    small = job(parts=[part], extras=[], ways=["slotted", "carrier"])
    told = asked(client, job=small).json()["container"]
    work = client.post("/api/work-out", json={"job": small, "in_hand": "carrier"}).json()
    boxed = {way["way"]: way for way in work["ways"]}
    best = boxed["carrier"]["quotes"][0]
    assert best["carrier"] == "Wendlefirth Post"
    assert told.endswith(
        f" less in total closed in shelf 7 x 4 x 4, in its own counter envelope, by {best['service']}: {best['total']}"
    )
    assert asked(client, job={**small, "ways": ["slotted"]}).json()["container"] == ""
    assert asked(client, job=job(ways=["slotted", "carrier"])).json()["container"] == ""
