"""Boxes that are there, through the API: offered beside what is cut, chosen, printed; why others will not do."""

from __future__ import annotations

import io
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from tests.api.test_working_out import work
from tests.made_up import job, part

STOCK_WAYS = ["tray", "slotted", "shelf", "stash", "recut", "stack"]


def box(name: str, inside: str, **more: Any) -> dict[str, Any]:
    return {"name": name, "inside": inside, "board": "C", "price": "1.50", "count": 5, **more}


BOXES = [
    box("cube", "14 x 14 x 12 in"),
    box("tall", "14 x 14 x 30 in", used=True, price="0.00", count=1),
    box("flat", "20 x 10 x 13 in", used=True, price="0.00", count=1),
]


@pytest.fixture
def stocked(client: TestClient) -> TestClient:
    content = client.get("/api/shop").json()
    saved = client.put("/api/shop", json={"revision": content["revision"], "shop": {**content["shop"], "boxes": BOXES}})
    assert saved.status_code == 200, saved.text
    return client


def post(size: str = "10 x 10 x 8", **changes: Any) -> dict[str, Any]:
    a, b, c = size.split(" x ")
    shape = {"kind": "box", "length": a, "width": b, "height": c}
    return job(parts=[part(name="concertina", shape=shape, gap="1 in")], extras=[], ways=STOCK_WAYS, **changes)


def way(told: dict[str, Any], name: str) -> dict[str, Any]:
    return next(one for one in told["ways"] if one["way"] == name)


def test_they_stand_beside_what_is_cut_by_what_they_cost_in_all(stocked: TestClient) -> None:
    told = work(stocked, post())
    assert {one["way"] for one in told["ways"]} >= {"tray", "slotted", "shelf", "stash", "recut"}
    totals = [float(one["total"]) for one in told["ways"] if one["total"]]
    assert totals == sorted(totals)
    shelf = way(told, "shelf")
    assert shelf["from_stock"] == "cube, 14 x 14 x 12 in"
    assert shelf["inside"]["sides"] == ["14", "14", "12"]
    assert shelf["blanks"] == []
    assert shelf["strength"].startswith("C flute, single wall: certified for 65 lb and 75 united inches")
    (quote, *_) = shelf["quotes"]
    assert quote["costs"]["box"] == "1.50"


def test_a_used_box_made_over_shows_where_the_knife_goes(stocked: TestClient) -> None:
    told = work(stocked, post(), in_hand="recut")
    recut = way(told, "recut")
    # Both used boxes will do, and what is over in their girth laps.
    assert {one["item"] for one in recut["at_hand"]} == {"flat", "tall"}
    assert {one["item"]: one["picked"] for one in recut["at_hand"]} == {
        name: name == recut["item"] for name in ("flat", "tall")
    }
    assert sorted(recut["inside"]["sides"]) == ["10", "12", "12"]
    assert recut["blanks"][0]["name"] == "re-cut box"
    assert 'class="old-fold"' in recut["blanks"][0]["svg"]
    assert any(step["knife"] for step in recut["steps"])
    assert "0.00" in {quote["costs"]["box"] for quote in recut["quotes"]}


def test_boxes_there_are_told_beside_a_field_that_cannot_be_read(stocked: TestClient) -> None:
    told = work(stocked, post() | {"wishes": {"days_at_most": "soon"}}, in_hand="recut")
    assert [problem["field"] for problem in told["problems"]] == ["wishes.days_at_most"]
    assert {one["item"] for one in way(told, "recut")["at_hand"]} == {"flat", "tall"}


def test_ways_that_cannot_be_say_why_with_the_nearest(stocked: TestClient) -> None:
    told = work(stocked, post("26 x 26 x 8"))
    reasons = {one["way"]: one["why"] for one in told["no_ways"]}
    assert set(reasons) == {"shelf", "stash", "recut", "stack"}
    assert reasons["shelf"].endswith("not wide enough")
    assert "no other comes nearer" in reasons["stack"]
    assert {one["way"] for one in told["ways"]} == {"tray", "slotted"}


def test_something_long_stands_in_a_stack(stocked: TestClient) -> None:
    told = work(stocked, post("11 x 11 x 31"))
    stack = way(told, "stack")
    assert stack["from_stock"].startswith("3 of cube")
    assert stack["inside"]["sides"] == ["13 11/16", "13 11/16", "36"]
    assert any("three strips" in step["do"] for step in stack["steps"])
    assert {quote["costs"]["box"] for quote in stack["quotes"]} <= {"4.50"}


def test_one_is_chosen_and_its_steps_are_printed(stocked: TestClient) -> None:
    told = work(stocked, post("11 x 11 x 31"))
    stack = way(told, "stack")
    key = stocked.post("/api/jobs", json=post("11 x 11 x 31")).json()["id"]
    pdf = stocked.get(f"/api/jobs/{key}/cut-sheet.pdf?way=stack")
    assert pdf.status_code == 200
    words = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf.content)).pages)
    for n, step in enumerate(stack["steps"], 1):
        assert f"{n}." in words
        assert step["do"].split(",")[0][:30] in words
    for form in ("dxf?way=stack", "pdf?way=stack&scale=full"):
        refused = stocked.get(f"/api/jobs/{key}/cut-sheet.{form}")
        assert refused.status_code == 422
        assert "nothing is cut" in refused.json()["detail"]


def test_a_used_box_that_is_too_weak_is_said(stocked: TestClient) -> None:
    content = post()
    content["parts"][0]["weight"] = "44 lb"
    told = work(stocked, content, in_hand="stash")
    weak = way(told, "stash")["warnings"]
    # 65 lb, of which a used box is trusted with seven tenths.
    assert any("65 lb" in warning and "70%" in warning for warning in weak)
    assert way(told, "shelf")["warnings"] == []


def test_a_box_of_a_board_the_shop_does_not_have_is_refused_by_its_field(client: TestClient) -> None:
    content = client.get("/api/shop").json()
    wrong = [box("cube", "14 x 14 x 12 in", board="Z")]
    for boxes, field in ((wrong, "boxes[0].board"), ([box("cube", "14 x 12")], "boxes[0].inside")):
        answer = client.put(
            "/api/shop", json={"revision": content["revision"], "shop": {**content["shop"], "boxes": boxes}}
        )
        assert answer.status_code == 422
        assert answer.json()["field"].endswith(field)
    assert client.get("/api/shop").json() == content


def test_one_the_shop_was_set_up_before_has_the_starting_boxes(client: TestClient) -> None:
    shop = client.get("/api/shop").json()["shop"]
    assert {entry["used"] for entry in shop["boxes"]} == {True, False}


def test_a_used_box_for_dear_goods_is_warned_of_and_the_shop_says_what_is_dear(client: TestClient) -> None:
    def warnings(value: str | None) -> list[str]:
        said = client.post("/api/work-out", json={"job": job(value=value, ways=["stash", "shelf"])}).json()
        return {way["way"]: way["warnings"] for way in said["ways"]}["stash"]  # type: ignore[no-any-return]

    dearest = "a used box is not for the dearest goods"
    assert dearest in warnings("1000.00")
    assert dearest not in warnings("999.99")
    assert dearest not in warnings(None)
    view = client.get("/api/shop").json()
    cautious = {**view["shop"], "dear_from": "200.00"}
    client.put("/api/shop", json={"revision": view["revision"], "shop": cautious}).raise_for_status()
    assert dearest in warnings("200.00")


def test_the_shop_says_how_far_it_trusts_board_and_how_long_a_box_takes(client: TestClient) -> None:
    def way(name: str) -> dict[str, Any]:
        said = client.post("/api/work-out", json={"job": job(ways=["tray", "slotted"])}).json()
        return {one["way"]: one for one in said["ways"]}[name]  # type: ignore[no-any-return]

    before = way("tray"), way("slotted")
    view = client.get("/api/shop").json()
    starts = {one["way"]: one["minutes"] for one in view["ways"]}
    own = {**view["shop"], "stack_safety": 10, "minutes": {"tray": starts["tray"] + 6}}
    client.put("/api/shop", json={"revision": view["revision"], "shop": own}).raise_for_status()
    after = way("tray"), way("slotted")
    assert after[0]["minutes"] == before[0]["minutes"] + 6
    assert after[1]["minutes"] == before[1]["minutes"]
    assert after[0]["strength"] != before[0]["strength"]
    now = client.get("/api/shop").json()
    for name, value, field in (
        ("minutes", {"trai": 3}, "shop.minutes.trai"), ("minutes", {"tray": 601}, "shop.minutes.tray"),
        ("used_percent", 0, "shop.used_percent"),
    ):  # fmt: skip
        refused = client.put("/api/shop", json={"revision": now["revision"], "shop": {**now["shop"], name: value}})
        assert (refused.status_code, refused.json()["field"]) == (422, field)


def test_boxes_to_arrange_into_are_named_with_the_side_they_are_short_on(stocked: TestClient) -> None:
    """The concertina needs 12 x 12 x 10; a low box is an inch and a half short of its height."""
    found_box = {"name": "low carton", "inside": "14 x 14 x 8 1/2 in"}
    answer = stocked.post("/api/arrange/boxes", json={"job": post(found_boxes=[found_box])})
    assert answer.status_code == 200, answer.text
    short = {one["name"]: one["short"] for one in answer.json()}
    assert short["cube"] == ""
    assert short["low carton"] == "1 1/2 in not high enough"


def test_a_found_box_is_worked_out_and_printed_by_its_name(stocked: TestClient) -> None:
    body = post(found_boxes=[{"name": "organ carton", "inside": "13 x 13 x 12 in"}])
    ways = {way["way"]: way for way in work(stocked, body, "stash/organ carton")["ways"]}
    assert ways["stash"]["item"] == "organ carton"
    saved = stocked.post("/api/jobs", json=body).json()
    answer = stocked.get(f"/api/jobs/{saved['id']}/cut-sheet.pdf?way=stash/organ carton")
    assert answer.status_code == 200, answer.text
    assert "organ carton" in PdfReader(io.BytesIO(answer.content)).pages[0].extract_text()


def test_what_is_sold_ready_is_weighed_up_where_a_box_is_looked_at(stocked: TestClient) -> None:
    body = post(ready_boxes=[{"name": "squeezebox carton", "inside": "12 x 12 x 10 in", "where": "a music shop"},
                             {"name": "flat carton", "inside": "12 x 12 x 6 in"}])  # fmt: skip
    assert work(stocked, body)["not_here"] == []
    snug, flat = work(stocked, body, "tray")["not_here"]
    assert (snug["name"], snug["inside"]) == ("squeezebox carton", "12 x 12 x 10 in")
    assert snug["says"].startswith(("worth buying below ", "no saving"))
    assert flat["says"] == "does not hold it: the nearest, flat carton, is 4 in (102 mm) not high enough"


def test_the_packing_sheet_says_which_box_and_what_is_free_on_six_sides(stocked: TestClient) -> None:
    chosen = {"box": {"way": "shelf", "board": "C", "inside_mm": [304.8, 304.8, 254], "item": "cube"}}
    saved = stocked.post("/api/jobs", json=post(chosen=chosen)).json()
    pages = PdfReader(io.BytesIO(stocked.get(f"/api/jobs/{saved['id']}/packing.pdf").content)).pages
    words = pages[0].extract_text()
    assert "Stock box: cube" in words
    assert "inside 14 x 14 x 12 in" in words
    assert "free around the wrapped goods: left 2, right 2, front 2, back 2, below 1, above 3 in" in words
    tables = pages[1].extract_text()
    assert "Goes in, straight down" in tables
    assert "sheets of crumpled paper" in tables
    assert "Under" in tables
