"""Who a parcel goes to: kept apart from the job, found by its words, and forgotten without a trace in the file."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from tests.made_up import job

ISOLDE = {
    "address": {"name": "Ottilie Quernstone", "lines": ["88 Capstan Yard"], "town": "Ostwick", "region": "PM",
                "postcode": "73120", "phone": "555 010 4477"},
    "order": "GR-2077", "note": "Happy spinning.",
}  # fmt: skip
PIXEL = bytes.fromhex(
    "89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c4890000000d49444154789c63606060f80f0001040100"
    "5fe5c34b0000000049454e44ae426082"
)


def saved(client: TestClient, recipient: Any = ISOLDE, **changes: Any) -> str:
    key = str(client.post("/api/jobs", json=job(**changes)).json()["id"])
    answer = client.put(f"/api/jobs/{key}/recipient", json={"revision": 0, "recipient": recipient})
    assert answer.status_code == 200, answer.text
    return key


def test_it_is_kept_and_changed_from_a_revision(client: TestClient) -> None:
    key = saved(client)
    told = client.get(f"/api/jobs/{key}/recipient").json()
    assert told["revision"] == 1
    assert told["recipient"]["address"]["name"] == "Ottilie Quernstone"
    late = client.put(f"/api/jobs/{key}/recipient", json={"revision": 0, "recipient": {}})
    assert late.status_code == 409
    assert client.get("/api/jobs/nobody/recipient").status_code == 404


def test_a_job_is_found_by_who_it_goes_to_and_by_its_order(client: TestClient) -> None:
    key, other = saved(client), saved(client, {"order": "GR-7"}, title="Another")
    for words in ("quern", "ottilie capstan", "2077", "gr 2077"):
        rows = client.get("/api/jobs", params={"words": words}).json()["jobs"]
        assert [row["id"] for row in rows] == [key], words
    assert {key, other} <= {row["id"] for row in client.get("/api/jobs", params={"words": "gr"}).json()["jobs"]}
    client.delete(f"/api/jobs/{key}")
    assert client.get("/api/jobs", params={"words": "quern"}).json()["jobs"] == []
    rows = client.get("/api/jobs", params={"words": "quern", "archived": True}).json()["jobs"]
    assert [row["id"] for row in rows] == [key]


def test_a_job_file_and_its_revisions_hold_no_person(client: TestClient) -> None:
    key = saved(client)
    assert "Quernstone" not in client.get(f"/api/jobs/{key}/file").text
    assert "Quernstone" not in client.get(f"/api/jobs/{key}/text").text
    assert "Quernstone" not in client.get("/api/jobs").text


def test_whoever_is_forgotten_is_nowhere_in_the_file_while_figures_stay(client: TestClient, shop_file: Path) -> None:
    key = saved(client)
    photo = client.post("/api/files", files={"files": ("receipt.png", PIXEL, "image/png")}).json()[0]["photo"]
    seen = client.post("/api/files", files={"files": ("seen.png", PIXEL + b"x", "image/png")}).json()[0]["photo"]
    sending = {"closed": {"weight": "7 lb"}, "handed_over": {"on": "2026-03-02", "receipts": [photo]}}
    assert client.put(f"/api/jobs/{key}/sending", json={"revision": 0, "sending": sending}).status_code == 200
    tick = {
        "id": "tick-0001",
        "step": "box",
        "done": True,
        "at": "2026-03-02T09:00:00Z",
        "note": "for Quernstone",
        "photo": seen,
    }
    client.post(f"/api/jobs/{key}/packing/ticks", json={"ticks": [tick]})
    told = client.delete(f"/api/jobs/{key}/recipient").json()
    assert told["forgotten_at"]
    assert told["recipient"]["address"]["name"] == ""
    held = b"".join(one.read_bytes() for one in shop_file.parent.iterdir() if one.name.startswith(shop_file.name))
    assert b"quernstone" not in held.lower()
    assert b"capstan" not in held.lower()
    assert client.get(f"/api/files/{photo}").status_code == 404
    assert client.get(f"/api/files/{seen}").status_code == 404
    kept = client.get(f"/api/jobs/{key}/sending").json()["sending"]
    assert kept["closed"]["weight"] == "7 lb"
    assert kept["handed_over"]["on"] == "2026-03-02"
    assert kept["handed_over"]["receipts"] == []
    assert client.get("/api/jobs", params={"words": "quern"}).json()["jobs"] == []


def test_a_photograph_that_another_job_has_too_stays(client: TestClient) -> None:
    key, other = saved(client), saved(client, {"order": "GR-7"})
    photo = client.post("/api/files", files={"files": ("receipt.png", PIXEL, "image/png")}).json()[0]["photo"]
    for one in (key, other):
        sending = {"handed_over": {"on": "2026-03-02", "receipts": [photo]}}
        assert client.put(f"/api/jobs/{one}/sending", json={"revision": 0, "sending": sending}).status_code == 200
    client.delete(f"/api/jobs/{key}/recipient")
    assert client.get(f"/api/files/{photo}").status_code == 200
    client.delete(f"/api/jobs/{other}/recipient")
    assert client.get(f"/api/files/{photo}").status_code == 404


def test_a_pasted_address_is_parted(client: TestClient) -> None:
    answer = client.post("/api/address/part", json={"text": "Isolde\n88 Capstan Yard\nOstwick, PM 73120"})
    assert answer.json()["postcode"] == "73120"
    assert client.post("/api/address/part", json={"text": "x" * 1001}).status_code == 422
