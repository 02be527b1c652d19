"""A divided job as a job of each parcel: nothing lost, nothing twice, each in the box that the plan names."""

from __future__ import annotations

from collections import Counter
from decimal import Decimal
from typing import Any

from starlette.testclient import TestClient

from tests.made_up import box, job, part


def divided(client: TestClient, content: dict[str, Any]) -> list[dict[str, Any]]:
    plans = client.post("/api/parcels", json={"job": content, "effort": "normal"}).json()["plans"]
    assert plans
    return [plan["parcels"] for plan in plans]


def worked_out(client: TestClient, content: dict[str, Any]) -> dict[str, Any]:
    return client.post("/api/work-out", json={"job": content}).json()


LOOM = [
    part(name="beam", shape=box(length="30 in", width="3 in", height="3 in"), weight="4 lb", gap="1/2 in"),
    part(name="heddle", count=3, shape=box(length="14 in", width="6 in", height="2 in"), weight="2 lb", gap="1/2 in"),
    part(name="reed", count=9, piles=3, shape=box(length="12 in", width="4 in", height="1/2 in"), weight="8 oz"),
]


def test_every_thing_is_in_one_job_and_the_extras_in_the_first(client: TestClient) -> None:
    content = job(parts=LOOM, parcels_at_most=3, value="300.00", ways=["slotted"])
    for parcels in divided(client, content):
        jobs = [parcel["job"] for parcel in parcels]
        held = Counter[str]()
        for one in jobs:
            for entry in one["parts"]:
                held[entry["name"]] += int(entry["count"])
        assert held == {"beam": 1, "heddle": 3, "reed": 9}
        assert [len(one["extras"]) for one in jobs] == [1, *(0 for _ in jobs[1:])]
        assert sum(Decimal(one["value"]) for one in jobs) == Decimal("300.00")
        assert {one["parcels_at_most"] for one in jobs} == {1}
        assert [one["title"][-6:] for one in jobs] == [f"{n + 1} of {len(jobs)}" for n in range(len(jobs))]


def test_each_job_comes_to_the_box_of_its_parcel(client: TestClient) -> None:
    parcels, *_ = divided(client, job(parts=LOOM, parcels_at_most=2, ways=["slotted"]))
    for parcel in parcels:
        docket = worked_out(client, parcel["job"])["docket"]
        assert docket["outside"]["figure"]["text"] == parcel["outside"]
        assert docket["weight"]["text"] == parcel["weight"]


def test_each_plan_says_by_how_much_it_is_more_or_less_than_one_parcel(client: TestClient) -> None:
    """A long flat thing beside a cube: 108 in of length and girth in one parcel, 46 and 64 in two."""
    apart = [
        part(name="reed", shape=box(length="44 in", width="1 in", height="1 in"), weight="1 lb", gap="0"),
        part(name="drum", shape=box(length="16 in", width="16 in", height="16 in"), weight="9 lb", gap="0"),
    ]
    said = set()
    for parts in (LOOM, apart):
        told = client.post("/api/parcels", json={"job": job(parts=parts, parcels_at_most=3, extras=[])}).json()
        for plan in told["plans"]:
            more = Decimal(plan["total"]) - Decimal(told["one"])
            word = "more" if more > 0 else "less"
            assert plan["against"] == (f"{abs(more)} {word} than in one parcel" if more else "as much as in one parcel")
            said.add(word)
    assert said == {"more", "less"}


def test_a_division_that_is_arranged_costs_no_more(client: TestClient) -> None:
    content = job(parts=LOOM, parcels_at_most=2, extras=[])
    totals = [
        Decimal(client.post("/api/parcels", json={"job": content, "effort": effort}).json()["plans"][0]["total"])
        for effort in ("quick", "normal")
    ]
    assert totals[1] <= totals[0]


def test_what_there_is_once_goes_with_one_job(client: TestClient) -> None:
    """A parcel that is closed already with its value, and two boxes found for the job."""
    closed = {"name": "spindles", "size": "10 x 8 x 4 in", "weight": "2 lb", "value": "40.00"}
    found = [{"name": "", "inside": "33 x 6 x 6 in"}, {"name": "reed carton", "inside": "18 x 16 x 10 in"}]
    content = job(parts=LOOM, parcels_at_most=2, value="300.00", beside=[closed], found_boxes=found, ways=["stash"],
                  extras=[])  # fmt: skip
    both = False
    for parcels in divided(client, content):
        jobs = [parcel["job"] for parcel in parcels]
        assert [len(one["beside"]) for one in jobs] == [1, *(0 for _ in jobs[1:])]
        assert sum(Decimal(one["value"]) for one in jobs) == Decimal("300.00")
        # What the closed parcel is worth is declared with the first, which it goes with; the rest by count.
        held_things = [sum(one["count"] for one in part["parts"]) for part in jobs]
        for n, (one, things) in enumerate(zip(jobs, held_things, strict=True)):
            share = 260 * Decimal(things) / sum(held_things)
            assert abs(Decimal(one["value"]) - share - (40 if n == 0 else 0)) < 1
        held = [[box["name"] for box in one["found_boxes"]] for one in jobs]
        for names, parcel in zip(held, parcels, strict=True):
            assert names == [name for name in ("found box 1", "reed carton") if name in parcel["box"]]
        both = both or sorted(held) == [["found box 1"], ["reed carton"]]
    assert both
