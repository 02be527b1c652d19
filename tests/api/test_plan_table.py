"""The table of plans: what stands in it, in which order, one unfolded, one chosen."""

from __future__ import annotations

import io
from decimal import Decimal
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from tests.made_up import box, job

MINE = {**job(), "value": "640.00"}
MINE.pop("ways")


def table(client: TestClient, **asked: Any) -> dict[str, Any]:
    answer = client.post("/api/plans", json={"job": MINE, **asked})
    assert answer.status_code == 200
    return dict(answer.json())


def sums(rows: list[dict[str, Any]]) -> list[Decimal]:
    return [Decimal(row["total"]) for row in rows]


def test_a_row_is_a_plan_and_its_columns_add_up(client: TestClient) -> None:
    rows = table(client, show="all")["rows"]
    assert len(rows) > 20
    for row in rows:
        costs = {name: Decimal(amount) for name, amount in row["costs"].items()}
        assert sum(costs.values()) == Decimal(row["total"])
        packing = sum(costs[name] for name in ("box", "wrap", "fill", "tape", "labour"))
        assert packing == Decimal(row["packing"])
        assert (row["more"] == "") == (Decimal(row["total"]) <= sums(rows)[0])


def test_the_best_of_each_service_and_of_each_box_is_the_cheapest_of_it(client: TestClient) -> None:
    every = table(client, show="all")["rows"]
    for show, of, mark in (
        ("best of each service", lambda row: (row["carrier"], row["service"], row["programme"]), "best_of_service"),
        ("best of each box", lambda row: row["box"], "best_of_box"),
    ):
        rows = table(client, show=show)["rows"]
        assert len({of(row) for row in rows}) == len(rows) == len({of(row) for row in every})
        for row in rows:
            assert row["total"] == next(one["total"] for one in every if of(one) == of(row))
        assert [one for one in every if one[mark]] == rows


@pytest.mark.parametrize(
    ("column", "figure"),
    [
        ("postage", lambda row: Decimal(row["costs"]["postage"])),
        ("surcharges", lambda row: Decimal(row["costs"]["surcharges"])),
        ("cover", lambda row: Decimal(row["costs"]["cover"])),
        ("packing", lambda row: Decimal(row["packing"])),
        ("days", lambda row: row["days"][1]),
        ("box", lambda row: row["box"].casefold()),
        ("service", lambda row: (row["carrier"].casefold(), row["service"].casefold())),
        ("rate plan", lambda row: row["programme"]),
    ],
)
def test_it_is_sorted_by_any_column(client: TestClient, column: str, figure: Any) -> None:
    rows = table(client, show="all", sort=column)["rows"]
    found = [figure(row) for row in rows]
    assert found == sorted(found)
    assert len(set(found)) > 1


def test_it_is_filtered_by_words_days_cover_and_box(client: TestClient) -> None:
    assert {row["service"] for row in table(client, show="all", words="GROUND slotted")["rows"]} == {"Ground"}
    assert table(client, words="no such box")["rows"] == []
    assert all(row["days"][1] <= 3 for row in table(client, show="all", days_at_most=3)["rows"])
    assert all(row["uncovered"] == "" for row in table(client, show="all", covered=True)["rows"])
    assert {row["key"]["way"] for row in table(client, show="in one box", way="tray")["rows"]} == {"tray"}


def test_the_alternatives_stand_among_the_rows_with_what_they_save_on_so_many_orders(client: TestClient) -> None:
    one, fifty = table(client, show="all"), table(client, show="all", orders=50)
    marked = {mark for row in one["rows"] for mark in row["best"]}
    assert marked == {aim for other in one["alternatives"] for aim in other["aims"]}
    assert one["alternatives"][0]["total"] == one["rows"][0]["total"]
    assert "the next ready box" in one["habit"]
    saved = [(a["saved"], b["saved"]) for a, b in zip(one["alternatives"], fifty["alternatives"], strict=True)]
    for once, often in saved:
        if once:
            assert Decimal(often.split(" ")[0]) == 50 * Decimal(once.split(" ")[0])
    assert any(once for once, _ in saved)


def test_a_plan_unfolded_has_the_lines_of_its_row_and_its_box(client: TestClient) -> None:
    row = table(client)["rows"][0]
    plan = client.post("/api/plans/unfolded", json={"job": MINE, "plan": row["key"]}).json()
    assert plan["quote"]["total"] == row["total"]
    lines = sum(Decimal(line["amount"]) for line in plan["quote"]["charges"])
    assert lines + Decimal(row["packing"]) == Decimal(row["total"])
    assert plan["outside"] == row["outside"]
    assert [part["name"] for part in plan["parts"]] == ["concertina in its case"]
    assert plan["margin"].startswith("board certified for ")


def test_a_plan_is_chosen_and_its_knots_are_tied(client: TestClient) -> None:
    row = next(one for one in table(client, show="all")["rows"] if one["key"]["way"] == "slotted")
    chosen = client.post("/api/plans/chosen", json={"job": MINE, "plan": row["key"]}).json()
    assert (chosen["box"]["way"], chosen["price"]["service"]) == ("slotted", row["service"])
    mine = {**MINE, "chosen": chosen}
    knots = {one["name"]: one["state"] for one in client.post("/api/work-out", json={"job": mine}).json()["knots"]}
    assert (knots["box"], knots["price"]) == ("tied", "tied")
    again = client.post("/api/plans", json={"job": mine, "show": "all"}).json()["rows"]
    assert [one["key"] for one in again if one["chosen"]] == [row["key"]]
    # Another service for the same box: the box stays as it was chosen, its allowances with it.
    chosen["box"]["cut_by"]["allowances_mm"]["tab"] = 44.0
    other = next(one for one in again if one["key"]["way"] == "slotted" and one["service"] != row["service"])
    then = client.post("/api/plans/chosen", json={"job": {**MINE, "chosen": chosen}, "plan": other["key"]}).json()
    assert then["box"] == chosen["box"]
    assert then["price"]["service"] == other["service"]


def test_a_plan_that_is_no_more_is_refused_with_a_sentence(client: TestClient) -> None:
    key = {"way": "tray", "carrier": "Nobody", "service": "Nothing", "programme": "counter"}
    for path in ("unfolded", "chosen"):
        answer = client.post(f"/api/plans/{path}", json={"job": MINE, "plan": key})
        assert answer.status_code == 422
        assert "Nobody Nothing does not take it in that box any more." in answer.json()["detail"]


def test_a_job_that_is_not_whole_has_no_rows_and_no_fault(client: TestClient) -> None:
    for half in ({"parts": []}, {"ship": {}}):
        answer = client.post("/api/plans", json={"job": {**MINE, **half}})
        assert answer.status_code == 200
        assert answer.json()["rows"] == []


def test_the_ladder_of_a_thing_rises_and_is_printed(client: TestClient) -> None:
    mine = {**MINE, "extras": []}
    rungs = client.post("/api/plans/ladder", json={"job": mine, "most": 5}).json()
    assert rungs[0]["least"] == 1
    assert rungs[-1]["most"] == 5
    assert [one["least"] for one in rungs[1:]] == [one["most"] + 1 for one in rungs[:-1]]
    # Each is what that many cost by themselves.
    for rung in rungs:
        many = {**mine, "parts": [{**mine["parts"][0], "count": rung["most"]}]}
        alone = client.post("/api/plans", json={"job": many, "show": "all"}).json()["rows"][0]
        assert alone["box"] == rung["box"]
        assert rung["total"].endswith(alone["total"])
    key = client.post("/api/jobs", json=mine).json()["id"]
    sheet = client.get(f"/api/jobs/{key}/ladder.pdf?most=5")
    words = PdfReader(io.BytesIO(sheet.content)).pages[0].extract_text()
    assert "What goes into what: concertina in its case" in words
    assert rungs[0]["total"].split(" to ")[0] in words
    # Without a name of its own the thing is called as the job is, and without that as an untitled one.
    bare = {**mine, "parts": [{**mine["parts"][0], "name": ""}]}
    for title, called in (("Concertina for Ostwick", "Concertina for Ostwick"), ("", "Untitled job")):
        key = client.post("/api/jobs", json={**bare, "title": title}).json()["id"]
        sheet = client.get(f"/api/jobs/{key}/ladder.pdf?most=1")
        assert f"What goes into what: {called}" in PdfReader(io.BytesIO(sheet.content)).pages[0].extract_text()
    two = {**mine, "parts": [*mine["parts"], *mine["parts"]]}
    assert "of one thing; this job has 2 parts" in client.post(
        "/api/plans/ladder", json={"job": two}
    ).json()["detail"]  # fmt: skip


def test_house_rules_are_kept_with_the_shop_named_in_a_job_and_left_out_by_it(client: TestClient) -> None:
    kept = client.get("/api/shop").json()
    rules = [
        {"name": "Dear goods", "value_from": "600.00", "ways": ["boxed-twice"]},
        {"name": "Carrier first", "prefer": ["Oddbarrow"], "prefer_up_to": "20.00"},
    ]
    put = {"revision": kept["revision"], "shop": {**kept["shop"], "rules": rules}}
    assert client.put("/api/shop", json=put).status_code == 200
    work = client.post("/api/work-out", json={"job": MINE}).json()
    assert [(one["name"], one["left_out"]) for one in work["rules"]] == [
        ("Dear goods", False), ("Carrier first", False),
    ]  # fmt: skip
    assert [way["way"] for way in work["ways"]] == ["boxed-twice"]
    assert any("house rule Dear goods" in one["why"] for one in work["no_ways"])
    rows = table(client, show="all")["rows"]
    assert rows[0]["house_rule"] == "Carrier first"
    others = table(client)["alternatives"]
    assert any("house rule" in one["aims"] and "Carrier first" in one["why"] for one in others) or (
        others[0]["key"]["carrier"] == "Oddbarrow"
    )
    left = client.post("/api/work-out", json={"job": {**MINE, "rules_left_out": ["Dear goods"]}}).json()
    assert len(left["ways"]) > 3
    assert [one["left_out"] for one in left["rules"]] == [False, True]
    put = {"revision": kept["revision"] + 1, "shop": {**kept["shop"], "rules": [{"name": "half", "last_day": "03-01"}]}}
    refused = client.put("/api/shop", json=put)
    assert (refused.status_code, refused.json()["field"]) == (422, "rules[0].first_day")


def test_more_than_one_parcel_holds_is_divided_and_not_arranged(client: TestClient) -> None:
    cone = {**MINE["parts"][0], "name": "cone", "count": 90, "weight": "4 oz", "gap": "0"}
    cone["shape"] = box(length="3 in", width="3 in", height="2 in")
    many = {**MINE, "parts": [cone], "extras": [], "parcels_at_most": 2}
    work = client.post("/api/work-out", json={"job": many}).json()
    assert (work["ways"], work["beyond"]) == ([], None)
    assert "90 things; up to 80 go in one parcel" in work["docket"]["note"]
    assert client.post("/api/plans", json={"job": many}).json()["rows"] == []
    refused = client.post("/api/arrange", json={"job": many})
    assert refused.status_code == 422
    assert "Price divides it" in refused.json()["detail"]
    found = client.post("/api/parcels", json={"job": many, "effort": "quick"}).json()
    assert found["one"] is None
    assert found["plans"][0]["against"] == "no service takes it in one parcel"
