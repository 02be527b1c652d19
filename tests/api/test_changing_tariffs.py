"""A tariff changed on the screen and a table read in from CSV: kept whole as a new version, or not at all."""

from __future__ import annotations

import csv
import io
from decimal import Decimal
from typing import Any

import pytest
from fastapi.testclient import TestClient

NAME = "Oddbarrow"
TABLE = f"/api/tariffs/{NAME}/services/0/charges/0"


def whole(client: TestClient, carrier: str = NAME) -> Any:
    return client.get(f"/api/tariffs/{carrier}").json()


def change(client: TestClient, revision: int, tariff: Any, carrier: str = NAME) -> Any:
    return client.put(f"/api/tariffs/{carrier}", json={"revision": revision, "tariff": tariff})


def ground(client: TestClient) -> str:
    body = {"size": "10x10x10", "weight": "2 lb", "to": "73120"}
    quotes = client.post(f"/api/tariffs/{NAME}/try", json=body).json()["quotes"]
    return next(q["charges"][0]["amount"] for q in quotes if (q["service"], q["programme"]) == ("Ground", "account"))


def test_a_changed_price_is_kept_as_the_newest_version(client: TestClient) -> None:
    before = whole(client)
    tariff = before["tariff"]
    tariff["services"][0]["charges"][0]["rows"][7][5] = "16.99"  # 10 x 10 x 10 / 139 is 8 lb, zone 6
    answer = change(client, before["revision"], tariff)
    assert answer.status_code == 200
    assert (answer.json()["revision"], len(answer.json()["versions"])) == (2, 2)
    assert ground(client) == "16.99"
    # A window that still has the version before is told so, and nothing of what it sends is kept.
    late = change(client, before["revision"], before["tariff"])
    assert (late.status_code, late.json()["newest_revision"]) == (409, 2)
    assert whole(client)["revision"] == 2


@pytest.mark.parametrize(
    ("edit", "field"),
    [
        (
            lambda t: t["services"][0]["charges"][0]["rows"][3].__setitem__(2, "nine"),
            "services[0].charges[0].rows[3][2]",
        ),
        (lambda t: t["services"][1]["zones"][0].update(days=[1]), "services[1].zones[0].days"),
        (lambda t: t["services"][0].update(weight_step="none"), "services[0].weight_step"),
        (lambda t: t.update(carrier="Somebody else"), "carrier"),
        (lambda t: t.pop("currency"), "currency"),
        (lambda t: t["services"][0]["charges"].append({"kind": "toll"}), "services[0].charges["),
    ],
)
def test_what_cannot_be_kept_names_its_field_and_the_tariff_stays(client: TestClient, edit: Any, field: str) -> None:
    before = whole(client)
    tariff = whole(client)["tariff"]
    edit(tariff)
    answer = change(client, before["revision"], tariff)
    assert answer.status_code == 422
    assert answer.json()["field"].startswith(field)
    if field != "carrier":
        looked = client.post("/api/tariffs/look-over", json=tariff).json()
        assert looked["field"] == answer.json()["field"]
        assert looked["problem"]
    assert whole(client) == before


def test_a_draft_is_looked_over_as_it_is_typed(client: TestClient) -> None:
    tariff = whole(client)["tariff"]
    assert client.post("/api/tariffs/look-over", json=tariff).json() == {"problem": "", "field": "", "findings": []}
    tariff["services"][0]["charges"][0]["rows"][3][2] = "1.00"
    (finding,) = client.post("/api/tariffs/look-over", json=tariff).json()["findings"]
    assert finding.startswith("Ground, charge 1: the row up to 4 lb costs 1.00, less than the row before it")
    assert client.post("/api/tariffs/look-over", content=" " * 4_000_001).status_code == 413


def test_a_table_goes_out_as_csv_and_comes_in_the_same(client: TestClient) -> None:
    before = whole(client)
    for s, service in enumerate(before["tariff"]["services"]):
        for c, charge in enumerate(service["charges"]):
            url = f"/api/tariffs/{NAME}/services/{s}/charges/{c}"
            out = client.get(f"{url}/table.csv")
            assert out.status_code == (200 if "rows" in charge else 422)
            if "rows" in charge:
                assert client.put(f"{url}/table", content=out.content).status_code == 200
    after = whole(client)
    assert after["tariff"] == before["tariff"]
    assert after["revision"] > before["revision"]


def test_a_table_from_a_spreadsheet_takes_the_place_of_the_old(client: TestClient) -> None:
    """Semicolons, a byte order mark, blank lines at the end, a tail: as spreadsheets write it."""
    zones = whole(client)["tariff"]["services"][0]["charges"][0]["zones"]
    rows = [["up to", *zones], ["5 lb", *["9.00"] * 5], ["9 lb", *["12.34"] * 5], ["each further 1 lb", *["0.80"] * 5]]
    text = "\ufeff" + "\r\n".join(";".join(row) for row in rows) + "\r\n;;\r\n\r\n"
    assert client.put(f"{TABLE}/table", content=text.encode()).status_code == 200
    assert ground(client) == "12.34"
    charge = whole(client)["tariff"]["services"][0]["charges"][0]
    assert charge["tail"] == {"step": "1 lb", "prices": ["0.80"] * 5}
    read = list(csv.reader(io.StringIO(client.get(f"{TABLE}/table.csv").text)))
    assert read == rows
    body = {"size": "10x10x10", "weight": "20 lb", "to": "73120"}
    quotes = client.post(f"/api/tariffs/{NAME}/try", json=body).json()["quotes"]
    assert Decimal(quotes[0]["charges"][0]["amount"]) > 0


@pytest.mark.parametrize(
    ("text", "field"),
    [
        ("", "table"),
        ("up to,2,3,4,5,6\n", "table"),
        ("up to,2,3,4,5,2\n1 lb,1,1,1,1,1\n", "row 1"),
        ("up to,2,3,,5,6\n1 lb,1,1,1,1,1\n", "row 1"),
        ("up to\n1 lb\n", "row 1"),
        ("up to,2,3,4,5\n1 lb,1,1,1,1\n", "row 1"),  # zone 6 has no column
        ("up to,2,3,4,5,6\n1 lb,1,1,1,1,1\n2 lb,1,1,1,1\n", "row 3"),
        ("up to,2,3,4,5,6\n1 lb,1,1,1,1,1\n2 lb,1,1,x,1,1\n", "row 3, column 4"),
        ("up to,2,3,4,5,6\n1 lb,1,1,1,1,1\n2 lb,1,1,-1,1,1\n", "row 3, column 4"),
        ("up to,2,3,4,5,6\n2 lb,1,1,1,1,1\n2 lb,1,1,1,1,1\n", "row 3, column 1"),
        ("up to,2,3,4,5,6\n1 lb,1,1,1,1,1\n\n2 lb,1,1,1,1,1\n", "row 3"),
        ("up to,2,3,4,5,6\nheavy,1,1,1,1,1\n", "row 2, column 1"),
        ("up to,2,3,4,5,6\neach further 1 lb,1,1,1,1,1\n", "table"),
        ("up to,2,3,4,5,6\n1 lb,1,1,1,1,1\neach further 1 lb,1,1,x,1,1\n", "the last row, column 4"),
        ("up to,2\n" + "1 lb,1\n" * 1001, "table"),
        ("up to,2\n" + "1 lb,1.00\n" * 1_000_000, "table"),
        (b"\xff\xfe\x00", "table"),
        ('up to,2\n"1 lb,1', "row 2"),
    ],
)
def test_a_broken_table_is_refused_by_row_and_column_and_nothing_of_it_is_kept(
    client: TestClient, text: str | bytes, field: str
) -> None:
    before = whole(client)
    answer = client.put(f"{TABLE}/table", content=text if isinstance(text, bytes) else text.encode())
    if len(text) > 2_000_000:
        assert answer.status_code == 413
    else:
        assert (answer.status_code, answer.json()["field"]) == (422, field), answer.text
    assert whole(client) == before


def test_a_table_that_is_not_there_is_refused(client: TestClient) -> None:
    for url in (f"/api/tariffs/{NAME}/services/0/charges/3", f"/api/tariffs/{NAME}/services/9/charges/0"):
        assert client.put(f"{url}/table", content="up to,2\n1 lb,1\n").json()["field"] == "charge"
    assert client.put("/api/tariffs/Nobody/services/0/charges/0/table", content="up to,2\n1,1\n").status_code == 404
