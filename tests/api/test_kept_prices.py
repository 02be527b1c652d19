"""A chosen price keeps the tariff it was made by; parcels beside, distance and other ways are part of a job."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from fastapi.testclient import TestClient

from tests.made_up import job

OF = ("Oddbarrow", "Ground", "account")


def work_out(client: TestClient, content: Any, way: str = "tray") -> Any:
    work = client.post("/api/work-out", json={"job": content, "in_hand": way}).json()
    assert work["problems"] == [], work["problems"]
    return work, next(one for one in work["ways"] if one["way"] == way)


def quote_of(way: Any, of: tuple[str, str, str] = OF) -> Any:
    return next(q for q in (*way["quotes"], *way["others"]) if (q["carrier"], q["service"], q["programme"]) == of)


def choose(content: Any, way: Any, quote: Any) -> Any:
    """As the screen does it."""
    price = {name: quote[name] for name in
             ("carrier", "service", "programme", "amount", "currency", "billed_weight_g", "tariff")}  # fmt: skip
    box = {"way": way["way"], "school": way["school"], "board": way["board"], "inside_mm": way["needed_mm"],
           "cut_by": way["cut_by"]}  # fmt: skip
    return {**content, "chosen": {"box": box, "price": price}}


def dearer(client: TestClient, carrier: str = "Oddbarrow") -> None:
    """Every price to a home goes up by two."""
    content = client.get(f"/api/tariffs/{carrier}/file").json()
    for service in content["services"]:
        for charge in service["charges"]:
            if charge["kind"] == "residential":
                charge["amount"] = str(Decimal(charge["amount"]) + 2)
    assert client.post("/api/tariffs/file", json=content).status_code == 201


def knot(work: Any, name: str) -> Any:
    return next(one for one in work["knots"] if one["name"] == name)


def test_a_chosen_price_keeps_the_tariff_it_was_made_by(client: TestClient) -> None:
    _, way = work_out(client, job())
    before = quote_of(way)
    assert before["tariff"] == 1
    chosen = choose(job(), way, before)
    dearer(client)
    work, way = work_out(client, chosen)
    kept = quote_of(way)
    assert (kept["amount"], kept["tariff"], kept["chosen"]) == (before["amount"], 1, True)
    assert knot(work, "price")["state"] == "tied"
    # Two more to a home, and fuel of 12.5 % on it.
    assert Decimal(kept["kept"]["amount_today"]) - Decimal(before["amount"]) == Decimal("2.25")
    # The same service at another programme, and whatever was not chosen, is by today's.
    assert quote_of(way, ("Oddbarrow", "Express", "account"))["tariff"] == 2
    assert [len([q for q in way["quotes"] if (q["carrier"], q["service"], q["programme"]) == OF])] == [1]
    # Chosen anew, it is by today's tariff.
    again = choose(chosen, way, {**kept, "amount": kept["kept"]["amount_today"], "tariff": 2})
    work, way = work_out(client, again)
    assert quote_of(way)["kept"] is None
    assert knot(work, "price")["state"] == "tied"


def test_a_price_chosen_before_versions_were_kept_is_by_todays_and_says_that_it_changed(client: TestClient) -> None:
    _, way = work_out(client, job())
    chosen = choose(job(), way, {**quote_of(way), "tariff": None})
    dearer(client)
    work, way = work_out(client, chosen)
    assert quote_of(way)["kept"] is None
    assert knot(work, "price")["state"] == "loose"


def test_an_archived_carrier_still_holds_for_the_job_that_chose_it(client: TestClient) -> None:
    _, way = work_out(client, job())
    chosen = choose(job(), way, quote_of(way))
    client.delete("/api/tariffs/Oddbarrow")
    work, way = work_out(client, chosen)
    assert quote_of(way)["kept"] == {"version": 1, "amount_today": None}
    assert knot(work, "price")["state"] == "tied"
    assert [q["service"] for q in way["quotes"] if q["carrier"] == "Oddbarrow"] == ["Ground"]
    key = client.post("/api/jobs", json=chosen).json()["id"]
    assert "Oddbarrow" in client.get(f"/api/jobs/{key}/prices.csv?way=tray").text


def test_a_version_there_never_was_is_no_trouble(client: TestClient) -> None:
    _, way = work_out(client, job())
    work, way = work_out(client, choose(job(), way, {**quote_of(way), "tariff": 9}))
    assert quote_of(way)["kept"] is None
    assert knot(work, "price")["state"] == "tied"


BESIDE = {"name": "stand", "size": "20 x 14 x 9 in", "weight": "21 lb", "value": "150.00"}


def test_parcels_beside_are_in_every_quote_and_add_up(client: TestClient) -> None:
    alone = quote_of(work_out(client, job(value="640.00"))[1])
    work, way = work_out(client, job(value="640.00", beside=[BESIDE, {}]))
    both = quote_of(way)
    assert len(both["beside"]) == 1
    parcels = {n: sum(Decimal(c["amount"]) for c in both["charges"] if c["parcel"] == n) for n in (0, 1, 2)}
    assert sum(parcels.values()) == Decimal(both["amount"])
    # What is declared is declared of each: 490 in the box, 150 beside it; less of the first than alone.
    assert parcels[0] == 0
    assert 0 < parcels[1] < Decimal(alone["amount"])
    assert work["docket"]["quote"]["beside"]
    tray = {"job": job(beside=[BESIDE], value="640.00"), "way": "tray", "carrier": OF[0], "service": OF[1],
            "programme": OF[2]}  # fmt: skip
    i, j = (seen := client.post("/api/steps", json=tray).json()["map"])["here"]
    (band,) = [b for b in seen["bands"] if b["row"] <= j <= b["last"] and b["start"] <= i <= b["end"]]
    assert band["price"] == both["total"]


def test_what_is_missing_or_wrong_of_a_parcel_beside_is_said_and_the_box_goes_on(client: TestClient) -> None:
    for change, field in (
        ({"size": "20 x 14"}, "beside[0].size"),
        ({"weight": "heavy"}, "beside[0].weight"),
        ({"value": "much"}, "beside[0].value"),
        ({"value": "700.00"}, "value"),
    ):
        body = {"job": job(value="640.00", beside=[{**BESIDE, **change}]), "in_hand": "tray"}
        work = client.post("/api/work-out", json=body).json()
        assert [problem["field"] for problem in work["problems"]] == [field]
        assert work["docket"]["outside"]
    missing = client.post("/api/work-out", json={"job": job(beside=[{"name": "stand"}])}).json()
    assert missing["missing"] == ["size of stand", "weight of stand"]


def test_other_ways_stand_beside_the_carriers_and_are_never_the_cheapest_by_themselves(client: TestClient) -> None:
    ship = {**job()["ship"], "distance": "3 mi"}
    work, way = work_out(client, job(ship=ship))
    others = {quote["carrier"]: quote for quote in way["others"]}
    assert set(others) == {"Passenger's luggage", "Tern Quay Packing Shop", "The workshop's own van"}
    van, packers = others["The workshop's own van"], others["Tern Quay Packing Shop"]
    assert Decimal(van["amount"]) == Decimal("6.78")  # 2 x 3 miles at 0.68, and at 0.45
    assert Decimal(van["total"]) < Decimal(way["total"])
    assert work["docket"]["total"] == way["quotes"][0]["total"]
    assert (packers["own"], packers["packs"]) == ("0.00", True)
    assert packers["total"] == packers["amount"]
    assert all("Passenger" not in quote["carrier"] for quote in way["quotes"])
    # Chosen all the same, it is what the docket and the knot are of.
    work, way = work_out(client, choose(job(ship=ship), way, van))
    assert knot(work, "price")["says"].startswith("The workshop's own van There and back")
    assert work["docket"]["total"] == van["total"]
    nowhere, way = work_out(client, job())
    assert [no["why"] for no in way["others_refused"]] == ["priced by distance: enter the driving distance"]
    assert nowhere["docket"]["total"] == way["quotes"][0]["total"]
