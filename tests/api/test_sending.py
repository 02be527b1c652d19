"""What became of a parcel: weighed, priced again, numbered, handed over; what it used goes off the stock once."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from fastapi.testclient import TestClient

from tests.api.test_kept_prices import choose, quote_of, work_out
from tests.made_up import box, job, part

OVER = {"on": "2026-03-02", "where": "counter in Pellmouth", "expected": "2026-03-05"}


def chosen(client: TestClient, way: str = "slotted", **changes: Any) -> str:
    """A saved job with its box and its service chosen; its id."""
    content = job(ways=[way], extras=[], **changes)
    _, found = work_out(client, content, way)
    content = choose(content, found, quote_of(found))
    content["chosen"]["box"]["item"] = found["item"]
    answer = client.post("/api/jobs", json=content)
    assert answer.status_code == 201, answer.text
    return str(answer.json()["id"])


def put(client: TestClient, key: str, revision: int, **sending: Any) -> dict[str, Any]:
    answer = client.put(f"/api/jobs/{key}/sending", json={"revision": revision, "sending": sending})
    assert answer.status_code == 200, answer.text
    told: dict[str, Any] = answer.json()
    return told


def states(told: dict[str, Any]) -> str:
    return " ".join(knot["state"] for knot in told["knots"] if knot["name"] in ("price", "pack", "sent"))


def row_of(client: TestClient, key: str) -> dict[str, Any]:
    while (page := client.get("/api/jobs", params={"today": "2026-03-01"}).json())["renewing"]:
        pass
    found: dict[str, Any] = next(row for row in page["jobs"] if row["id"] == key)
    return found


def ticked(client: TestClient, key: str, *steps: str) -> None:
    ticks = [{"id": f"tick-{n:08}", "step": step, "done": True, "at": "2026-03-02T09:00:00Z"}
             for n, step in enumerate(steps)]  # fmt: skip
    assert client.post(f"/api/jobs/{key}/packing/ticks", json={"ticks": ticks}).status_code == 200


def counts(client: TestClient) -> dict[str, int]:
    shop = client.get("/api/shop").json()["shop"]
    return {one["name"]: one["count"] for one in (*shop["boxes"], *shop["mailers"])}


def test_a_job_goes_from_packing_to_handed_over_on_the_bench(client: TestClient) -> None:
    key = chosen(client)
    assert row_of(client, key)["next_move"] == "Pack it"
    steps = [step["key"] for step in client.get(f"/api/jobs/{key}/packing").json()["steps"]]
    ticked(client, key, *steps[:3])
    row = row_of(client, key)
    assert row["next_move"] == "Go on packing"
    assert row["knots"][5]["says"] == f"3 of {len(steps)} steps done"
    told = put(client, key, 0, closed={"weight": "7 lb", "sides": "14 x 14 x 13 in"})
    assert states(told) == "tied tied open"
    assert row_of(client, key)["next_move"] == "Buy its label, or enter its number"
    put(client, key, 1, closed=told["sending"]["closed"], number="OB-4471-20")
    assert row_of(client, key)["next_move"] == "Hand it over"
    told = put(client, key, 2, closed=told["sending"]["closed"], number="OB-4471-20", handed_over=OVER)
    assert states(told) == "tied tied tied"
    assert told["next_move"] == "On the way, expected 2026-03-05"
    assert row_of(client, key)["next_move"] == told["next_move"]


def test_what_is_handed_over_comes_last_on_the_bench_and_is_not_cut(client: TestClient) -> None:
    key, other = chosen(client), chosen(client)
    put(client, key, 0, handed_over={"on": "2026-03-02"})
    page = client.get("/api/jobs", params={"today": "2026-03-01"}).json()
    assert page["jobs"][-1]["id"] == key
    keys = [row["id"] for row in client.get("/api/cutting").json()["jobs"]]
    assert other in keys
    assert key not in keys
    put(client, key, 1)
    assert client.get("/api/jobs", params={"today": "2026-03-01"}).json()["jobs"][-1]["id"] != key


def test_another_box_after_packing_began_makes_its_knot_loose(client: TestClient) -> None:
    key = chosen(client)
    steps = [step["key"] for step in client.get(f"/api/jobs/{key}/packing").json()["steps"]]
    ticked(client, key, *(step for step in steps if step.startswith(("box", "make"))))
    stored = client.get(f"/api/jobs/{key}").json()
    tray = {**stored["job"], "ways": ["tray"], "chosen": {}}
    _, found = work_out(client, tray)
    tray = choose(tray, found, quote_of(found))
    client.put(f"/api/jobs/{key}", json={"revision": stored["revision"], "job": tray})
    told = client.get(f"/api/jobs/{key}/sending").json()
    assert states(told) == "tied loose open"
    assert told["knots"][5]["says"] == "the box or the wrap changed since packing began"


def test_a_weight_over_a_step_is_priced_again_and_says_what_to_do(client: TestClient) -> None:
    key = chosen(client)
    planned = client.get(f"/api/jobs/{key}/sending").json()["closed"]
    assert planned["more"] == "0.00"
    told = put(client, key, 0, closed={"weight": "40 lb 1 oz", "sides": ""})["closed"]
    assert told["weight"] == "40 lb 1 oz"
    assert Decimal(told["price"]) - Decimal(told["planned_price"]) == Decimal(told["more"]) > 0
    assert "scale at zero" in told["doubts"][0]
    deeds = {one["deed"]: one["says"] for one in told["advice"]}
    assert deeds["take out"].startswith("Take out 1 oz, down to 40 lb")
    assert deeds["pay"] == f"Pay {told['more']} more than planned"


def test_a_bulge_is_told_and_kept(client: TestClient) -> None:
    key = chosen(client)
    planned = client.get(f"/api/jobs/{key}/sending").json()["closed"]["planned_sides"]
    told = put(client, key, 0, closed={"sides": planned})
    assert told["closed"]["bulges"] == ""
    sides = [float(side) for side in ("16", "16", "16")]
    told = put(client, key, 1, closed={"sides": " x ".join(f"{side} in" for side in sides)})
    assert told["closed"]["bulges"].startswith("longest side ")
    assert client.get(f"/api/jobs/{key}/sending").json()["closed"] == told["closed"]


def boxes_taken(told: dict[str, Any]) -> dict[str, int]:
    """Of what was taken off the stock the boxes and mailers."""
    pieces = [one.split(" x ", 1) for one in told["taken"] if " x " in one]
    return {name: int(count) for count, name in pieces}


def supplies(client: TestClient) -> dict[str, float | None]:
    shop = client.get("/api/shop").json()["shop"]
    found = {one["code"]: one["left"] for one in shop["materials"]}
    return {**found, "tape": shop["tape"]["left"], shop["fill"]["name"]: shop["fill"]["left"]}


def test_a_packed_box_goes_off_the_stock_once_and_comes_back(client: TestClient) -> None:
    key = chosen(client, "shelf")
    before = counts(client)
    told = put(client, key, 0, closed={"weight": "7 lb"})
    (name,) = boxes_taken(told)
    assert counts(client) == {**before, name: before[name] - 1}
    assert put(client, key, 1, closed={"weight": "7 lb 1 oz"})["taken"] == told["taken"]
    assert put(client, key, 2, closed={"weight": "7 lb 1 oz"}, handed_over=OVER)["taken"] == told["taken"]
    assert counts(client) == {**before, name: before[name] - 1}
    assert put(client, key, 3, closed={"weight": "", "sides": ""})["taken"] == []
    assert counts(client) == before


def test_wrap_fill_and_tape_that_are_counted_go_off_as_the_plan_counts_them_and_come_back(client: TestClient) -> None:
    key = chosen(client, parts=[part(name="reel", weight="4 lb", gap="2 in", protect=[
        {"material": "bubble-large", "layers": 2}, {"material": "foam-thin", "layers": 1},
    ])])  # fmt: skip
    before = supplies(client)
    wanted = {place["place"]: place["items"] for place in client.get(f"/api/jobs/{key}/packing").json()["fetch"]}
    told = put(client, key, 0, closed={"weight": "7 lb"})
    after = supplies(client)
    used = {name: was - now for name, was in before.items() if was is not None and (now := after[name]) is not None}
    assert all(used[name] > 0 for name in ("tape", "bubble-large", "crumpled paper"))
    assert used["bubble-small"] == 0
    assert after["foam-thin"] is None  # nobody counts it
    # What is told is what was fetched, in the shop's own words.
    (bubble,) = [one for one in wanted["Wrap"] if one["name"].startswith("large bubble")]
    assert f"{bubble['amount']} of {bubble['name']}" in told["taken"]
    assert wanted["Fill"][0]["name"] in told["taken"]
    assert f"{wanted['Tape'][0]['amount']} of tape" in told["taken"]
    put(client, key, 1)
    assert supplies(client) == before


def test_no_more_goes_off_than_there_is_and_what_is_short_is_told(client: TestClient) -> None:
    shop = client.get("/api/shop").json()
    shop["shop"]["tape"]["left"] = 0.5
    client.put("/api/shop", json={"revision": shop["revision"], "shop": shop["shop"]}).raise_for_status()
    key = chosen(client)
    fetch = {place["place"]: place["items"] for place in client.get(f"/api/jobs/{key}/packing").json()["fetch"]}
    assert fetch["Tape"][0]["short"]
    assert all(one["short"] == "" for one in fetch["Board"])
    put(client, key, 0, closed={"weight": "7 lb"})
    assert supplies(client)["tape"] == 0
    put(client, key, 1)
    assert supplies(client)["tape"] == 0.5


def test_boxes_that_parts_are_packed_in_go_off_the_stock_too(client: TestClient) -> None:
    before = counts(client)
    shop = client.get("/api/shop").json()["shop"]
    inner = min((one for one in shop["boxes"] if one["count"] > 2), key=lambda one: len(one["inside"]))["name"]
    reed = part(name="reed", count=2, weight="3 oz", shape=box(length="1 in", width="1 in", height="1 in"), gap="1 in",
                protect=[{"material": "inner-box", "item": inner, "room": "1 in"}])  # fmt: skip
    key = chosen(client, parts=[reed])
    assert boxes_taken(put(client, key, 0, closed={"weight": "7 lb"})) == {inner: 2}
    assert counts(client) == {**before, inner: before[inner] - 2}


def test_the_last_box_of_its_size_stays_the_boxs_of_its_job(client: TestClient) -> None:
    key = chosen(client, "shelf")
    way = client.get(f"/api/jobs/{key}").json()["job"]["chosen"]["box"]["way"]
    shop = client.get("/api/shop").json()
    name = next(iter(boxes_taken(put(client, key, 0, closed={"weight": "7 lb"}))))
    put(client, key, 1)
    for one in shop["shop"]["boxes"]:
        one["count"] = 1 if one["name"] == name else 0
    revision = client.get("/api/shop").json()["revision"]
    assert client.put("/api/shop", json={"revision": revision, "shop": shop["shop"]}).status_code == 200
    told = put(client, key, 2, closed={"weight": "7 lb"})
    assert counts(client)[name] == 0
    assert states(told) == "tied tied open"
    row = row_of(client, key)
    assert [knot["state"] for knot in row["knots"]] == ["tied"] * 6 + ["open"]
    assert client.get(f"/api/jobs/{key}/packing").json()["box"]
    job_now = client.get(f"/api/jobs/{key}").json()["job"]
    work = client.post("/api/work-out", json={"job": job_now, "id": key}).json()
    assert next(knot for knot in work["knots"] if knot["name"] == "box")["state"] == "tied"
    assert way == "shelf"


def test_two_windows_do_not_write_over_each_other(client: TestClient) -> None:
    key = chosen(client, "shelf")
    before = counts(client)
    put(client, key, 0, closed={"weight": "7 lb"})
    late = client.put(f"/api/jobs/{key}/sending", json={"revision": 0, "sending": {"closed": {"weight": "8 lb"}}})
    assert late.status_code == 409
    assert client.get(f"/api/jobs/{key}/sending").json()["sending"]["closed"]["weight"] == "7 lb"
    assert sum(before.values()) - sum(counts(client).values()) == 1


def test_what_cannot_be_read_is_refused_by_its_field_and_nothing_is_kept(client: TestClient) -> None:
    key = chosen(client)
    for sending, field in (
        ({"closed": {"weight": "heavy"}}, "closed.weight"),
        ({"closed": {"sides": "12 x 12"}}, "closed.sides"),
        ({"handed_over": {"on": "2026-03-02", "expected": "2026-03-01"}}, "handed_over.expected"),
        ({"handed_over": {"on": "2026-03-02", "receipts": ["none.png"]}}, "handed_over.receipts[0]"),
        ({"number": "<script>"}, "sending.number"),
    ):
        answer = client.put(f"/api/jobs/{key}/sending", json={"revision": 0, "sending": sending})
        assert answer.status_code == 422, answer.text
        assert answer.json()["field"] == field
    assert client.get(f"/api/jobs/{key}/sending").json()["revision"] == 0
    assert client.get("/api/jobs/nobody/sending").status_code == 404


def test_a_bare_weight_keeps_its_unit_when_the_shop_goes_metric(client: TestClient) -> None:
    key = chosen(client)
    assert put(client, key, 0, closed={"weight": "7", "sides": "14 x 14 x 13"})["sending"]["closed"] == {
        "weight": "7 lb", "sides": "14 x 14 x 13 in",
    }  # fmt: skip


def test_a_box_in_hand_by_mistake_goes_back_once_another_is_chosen(client: TestClient) -> None:
    key = chosen(client, "shelf")
    before = counts(client)
    put(client, key, 0, closed={"weight": "7 lb"})
    [first] = [name for name, n in before.items() if counts(client)[name] != n]
    saved = client.get(f"/api/jobs/{key}").json()
    meant = client.get(f"/api/jobs/{chosen(client, 'stash')}").json()["job"]
    other = meant["chosen"]["box"]["item"]
    assert other != first
    job = {**saved["job"], "ways": meant["ways"], "chosen": meant["chosen"]}
    answer = client.put(f"/api/jobs/{key}", json={"revision": saved["revision"], "job": job})
    assert answer.status_code == 200, answer.text
    assert (counts(client)[first], counts(client)[other]) == (before[first], before[other] - 1)
