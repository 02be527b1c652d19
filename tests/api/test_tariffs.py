"""The tariffs over the wire: listed with what to look at, read in whole or not at all, tried, archived, versions."""

from __future__ import annotations

import json
from typing import Any

from fastapi.testclient import TestClient

from tests.made_up import job


def carrier(client: TestClient, name: str) -> Any:
    return next(row for row in client.get("/api/tariffs").json() if row["carrier"] == name)


def changed(client: TestClient, name: str, **service: Any) -> Any:
    """A carrier's own file, its first service changed."""
    content = client.get(f"/api/tariffs/{name}/file").json()
    content["services"][0].update(service)
    return content


def send(client: TestClient, content: Any) -> Any:
    text = content if isinstance(content, str | bytes) else json.dumps(content)
    return client.post("/api/tariffs/file", content=text, headers={"Content-Type": "application/json"})


def quotes(client: TestClient) -> set[str]:
    told = client.post("/api/line", json={"text": "24x12x8 9lb to 73120"}).json()
    return {quote["carrier"] for quote in told["quotes"]}


def test_every_carrier_is_listed_with_what_it_is_made_of(client: TestClient) -> None:
    rows = client.get("/api/tariffs").json()
    assert [row["carrier"] for row in rows] == sorted(row["carrier"] for row in rows)
    courier = carrier(client, "Quillmere Courier")
    assert (courier["currency"], courier["rate"], courier["known"]) == ("EUR", "1.08", True)
    post = carrier(client, "Wendlefirth Post")
    assert [service["name"] for service in post["services"]][:3] == ["Parcel", "Light Parcel", "Small Cubes"]
    assert all(not service["findings"] for row in rows for service in row["services"])


def test_a_tariff_read_in_takes_the_place_of_the_old_one_and_the_old_one_is_a_version(client: TestClient) -> None:
    name = "Harrow Lane Instrument Carriage"
    before = client.post(f"/api/tariffs/{name}/try", json={"size": "24x12x8", "weight": "9", "to": "73120"}).json()
    dearer = changed(client, name)
    dearer["services"][0]["charges"][0]["rows"][0][1] = "99.00"
    told = send(client, dearer)
    assert told.status_code == 201
    assert told.json()["revision"] == 2
    # Now up to 15 lb costs more than up to 30: that is worth a look.
    assert "less than the row before" in told.json()["services"][0]["findings"][0]
    after = client.post(f"/api/tariffs/{name}/try", json={"size": "24x12x8", "weight": "9", "to": "73120"}).json()
    assert [quote["amount"] for quote in before["quotes"]] == ["58.00"]
    assert [quote["amount"] for quote in after["quotes"]] == ["99.00"]
    back = client.post(f"/api/tariffs/{name}/versions/1").json()
    assert back["revision"] == 3
    assert [revision for revision, _ in back["versions"]] == [3, 2, 1]
    again = client.post(f"/api/tariffs/{name}/try", json={"size": "24x12x8", "weight": "9", "to": "73120"}).json()
    assert again["quotes"] == before["quotes"]
    assert client.post(f"/api/tariffs/{name}/versions/9").status_code == 404


def test_of_a_broken_tariff_nothing_is_kept_and_row_and_column_are_named(client: TestClient) -> None:
    name = "Oddbarrow"
    before = carrier(client, name)
    broken = changed(client, name)
    broken["services"][1]["charges"][0]["rows"][4][2] = "twelve"
    answer = send(client, broken)
    assert answer.status_code == 422
    assert answer.json()["field"] == "services[1].charges[0].rows[4][2]"
    long = changed(client, name)
    long["services"][0]["charges"][0]["rows"] = [[f"{n} lb", *["1.00"] * 5] for n in range(1, 1200)]
    assert send(client, long).status_code == 422
    for text in ("{", "[]", '{"format": "fardo-tariff/9"}', b"\xff\xfe", " " * 4_000_001):
        refused = send(client, text)
        assert refused.status_code in (413, 422), refused.text
        assert refused.headers["content-type"] == "application/problem+json"
    assert carrier(client, name) == before


def test_an_archived_carrier_is_not_asked_and_comes_back(client: TestClient) -> None:
    assert "Oddbarrow" in quotes(client)
    assert client.delete("/api/tariffs/Oddbarrow").json()["archived"]
    assert "Oddbarrow" not in quotes(client)
    work = client.post("/api/work-out", json={"job": job(), "in_hand": "tray"}).json()
    assert all(quote["carrier"] != "Oddbarrow" for way in work["ways"] for quote in way["quotes"])
    assert not client.post("/api/tariffs/Oddbarrow/restore").json()["archived"]
    assert "Oddbarrow" in quotes(client)
    assert client.delete("/api/tariffs/Nobody").status_code == 404


def test_a_price_list_holds_only_on_its_days(client: TestClient) -> None:
    name = "Harrow Lane Instrument Carriage"
    send(client, changed(client, name, valid_from="2026-03-01", valid_to="2026-03-31"))

    def why(day: str | None) -> list[str]:
        work = client.post("/api/work-out", json={"job": job(day=day), "in_hand": "tray"}).json()
        way = next(one for one in work["ways"] if one["way"] == "tray")
        return [no["why"] for no in way["refused"] if no["carrier"] == name]

    assert why("2026-03-31") == []
    assert why("2026-04-01") == ["these prices hold from 2026-03-01 to 2026-03-31"]
    assert why(None) == []


def test_a_size_is_tried_and_what_cannot_be_read_is_said(client: TestClient) -> None:
    told = client.post("/api/tariffs/Oddbarrow/try", json={"size": "60x31x8", "weight": "20", "to": "73120"}).json()
    charges = {charge["what"] for quote in told["quotes"] for charge in quote["charges"]}
    assert any("large parcel" in what for what in charges)
    for wrong, field in (({"size": "24x12"}, "size"), ({"weight": "nine"}, "weight"), ({"to": "?"}, "to")):
        body = {"size": "24x12x8", "weight": "9", "to": "73120", **wrong}
        answer = client.post("/api/tariffs/Oddbarrow/try", json=body)
        assert (answer.status_code, answer.json()["field"]) == (422, field)
