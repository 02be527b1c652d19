"""Bad input: a clear sentence with the field, status 422, and nothing half saved. The server survives all of it."""

from __future__ import annotations

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.made_up import box, job, part

BAD = [
    ("zero", job(parts=[part(shape=box(length="0"))]), "parts[0].shape.length", "nothing at all"),
    ("negative", job(parts=[part(shape=box(width="-3 in"))]), "parts[0].shape.width", "below zero"),
    ("negative number", job(parts=[part(shape=box(width=-76.2))]), "parts[0].shape.width", "below zero"),
    ("over 10 m", job(parts=[part(shape=box(height="10.001 m"))]), "parts[0].shape.height", "up to 393 11/16 in"),
    (
        "unparsable",
        job(parts=[part(shape=box(length="about ten"))]),
        "parts[0].shape.length",
        "read 'about ten', not understood",
    ),
    ("mixed units", job(parts=[part(shape=box(length="3 cm 2 in"))]), "parts[0].shape.length", "mixed in one measure"),
    ("a weight for a length", job(parts=[part(shape=box(length="3 lb"))]), "parts[0].shape.length", "a weight"),
    ("a length for a weight", job(parts=[part(weight="3 in")]), "parts[0].weight", "a length"),
    ("a gap below zero", job(parts=[part(gap="-1")]), "parts[0].gap", "below zero"),
    ("an extra of two sizes", job(extras=[{"name": "card", "size": "4 x 3"}]), "extras[0].size", "three are needed"),
    ("an extra too many", job(extras=[{"name": str(n)} for n in range(41)]), "extras", "too many"),
    ("a value below a cent", job(value="12.345"), "value", "finer than the smallest coin"),
    ("no postcode", job(ship={"to": "??"}), "ship.to", "not a postcode"),
    ("no board", job(board="Z"), "board", "E, B, C, BC"),
    ("a slip in a name", job(exras=[]), "exras", "not known here. Allowed: perhaps 'extras', which is known"),
    ("a slip within a part", job(parts=[part(protekt=[])]), "parts[0].protekt", "perhaps 'protect'"),
    (
        "a slip within a shape",
        job(parts=[part(shape={"kind": "box", "lenght": "9 in"})]),
        "parts[0].shape.lenght",
        "perhaps 'length'",
    ),
    ("a slip in where it goes", job(ship={"form": "10440"}), "ship.form", "perhaps 'from'"),
    ("a name like none", job(zzzz=1), "zzzz", "the names in the format's description"),
    ("a word for yes", job(ship={"to": "73120", "residential": "perhaps"}), "ship.residential", "true or false"),
    ("no material", job(parts=[part(protect=[{"material": "moss"}])]), "parts[0].protect[0].material", "bubble-small"),
    ("no liner", job(liner={"material": "bubble-small"}), "liner.material", "liner-board"),
    ("no fragility", job(parts=[part(fragility="quite")]), "parts[0].fragility", "very-delicate"),
    ("more piles than things", job(parts=[part(count=2, piles=3)]), "parts[0].piles", "1 to 2"),
    (
        "a ring's inner not below its outer",
        job(parts=[part(shape={"kind": "ring", "outer_diameter": "9 in", "inner_diameter": "9 in", "thickness": 5})]),
        "parts[0].shape.inner_diameter",
        "smaller than its outside",
    ),
    (
        "an outline that crosses itself",
        job(parts=[part(shape={"kind": "outline", "points": [[0, 0], [9, 9], [9, 0], [0, 9]], "thickness": 5})]),
        "parts[0].shape.points",
        "crosses",
    ),
    (
        "a mesh that is not here",
        job(parts=[part(shape={"kind": "mesh", "file": "horn.stl", "unit": "1 in"})]),
        "parts[0].shape.file",
        "horn.stl",
    ),
    (
        "pipe insulation on a box",
        job(parts=[part(protect=[{"material": "pipe-foam"}])]),
        "parts[0].protect[0].lengths",
        "no tubes are known",
    ),
    ("a shape that is none", job(parts=[part(shape={"kind": "blob"})]), "parts[0].shape.kind", "'blob'"),
]


@pytest.mark.parametrize(("content", "field", "says"), [row[1:] for row in BAD], ids=[row[0] for row in BAD])
def test_bad_input_is_refused_by_field_and_nothing_is_saved(
    client: TestClient, content: dict[str, Any], field: str, says: str
) -> None:
    before = client.get("/api/jobs").json()
    for send in (
        lambda: client.post("/api/jobs", json=content),
        lambda: client.post("/api/jobs/file", content=json.dumps(content)),
    ):
        answer = send()
        assert answer.status_code == 422
        assert answer.headers["content-type"] == "application/problem+json"
        problem = answer.json()
        assert problem["field"].removeprefix("job.") == field
        assert says in problem["detail"]
    kept = before["jobs"][0]
    url = f"/api/jobs/{kept['id']}"
    assert client.put(url, json={"revision": kept["revision"], "job": content}).status_code == 422
    assert client.get("/api/jobs").json() == before


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e999"])
def test_what_is_not_a_number_is_refused(client: TestClient, number: str) -> None:
    raw = json.dumps(job(parts=[part(shape=box(length="HERE"))])).replace('"HERE"', number)
    for url in ("/api/jobs", "/api/jobs/file"):
        answer = client.post(url, content=raw, headers={"Content-Type": "application/json"})
        assert answer.status_code == 422
        assert answer.json()["field"] == "parts[0].shape.length"
        assert "not a number" in answer.json()["detail"]


def test_a_million_parts_are_refused_in_a_sentence(client: TestClient) -> None:
    small = {"weight": 1}
    answer = client.post("/api/jobs", json=job(parts=[small] * 100_000))
    assert answer.status_code == 422
    assert "read '100000 of them'" in answer.json()["detail"]
    raw = json.dumps(job(parts=[small] * 1_000_000)).encode()
    assert client.post("/api/jobs", content=raw).status_code == 413


@pytest.mark.parametrize(
    ("file", "says"),
    [
        (b"", "not JSON"), (b"{", "not JSON"), (b"\xff\xfe\x00", "not JSON"), (b"[]", "another format"),
        (b'{"format": "fardo-job/9"}', "another format"), (b"null", "another format"), (b"[" * 100_000, "not JSON"),
        (b'{"format": "fardo-job/1", "parts": {}}', "parts"), (b"%PDF-1.4", "not JSON"),
    ],
    ids=["empty", "cut off", "not text", "a list", "a later format", "null", "very deep", "parts no list", "a PDF"],
)  # fmt: skip
def test_a_broken_job_file_is_refused_and_nothing_is_kept_of_it(client: TestClient, file: bytes, says: str) -> None:
    before = client.get("/api/jobs").json()
    answer = client.post("/api/jobs/file", content=file)
    assert answer.status_code == 422
    assert says in answer.json()["detail"]
    assert client.get("/api/jobs").json() == before


def test_more_things_than_go_in_one_parcel_are_kept_and_divided_from_the_first(client: TestClient) -> None:
    small = part(count=81, shape=box(length="4 in", width="3 in", height="1 in"), weight="2 oz", gap="1/4 in")
    many = job(parts=[small], extras=[])
    assert client.post("/api/jobs", json=many).status_code == 201
    view = client.post("/api/work-out", json={"job": many}).json()
    assert (view["several"], view["parcels_least"]) == ("81 things; up to 80 go in one parcel", 2)
    assert (view["beyond"], view["next_move"]) == (None, "Divide it into parcels")
    plans = client.post("/api/parcels", json={"job": many, "effort": "quick"}).json()["plans"]
    assert plans
    assert all(len(plan["parcels"]) >= 2 for plan in plans)


def test_a_job_that_wants_no_way_at_all_is_refused_in_words(client: TestClient) -> None:
    answer = client.post("/api/jobs", json=job(ways=[]))
    assert answer.status_code == 422
    assert "allows no box style" in answer.json()["detail"]
    assert client.post("/api/jobs", json=job(ways=["shelf", "tray"])).status_code == 201


def test_the_cut_sheet_of_a_half_measured_job_says_what_is_missing(client: TestClient) -> None:
    half = client.post("/api/jobs", json=job(parts=[part(weight=None)])).json()
    answer = client.get(f"/api/jobs/{half['id']}/cut-sheet.pdf?way=tray")
    assert answer.status_code == 422
    assert answer.json()["field"] == "weight"
    answer = client.get(f"/api/jobs/{half['id']}/cut-sheet.dxf?way=bag")
    assert answer.status_code == 422


@pytest.mark.parametrize("number", ["Infinity", "-Infinity", "NaN", "1e999", "1e308"])
def test_no_number_that_is_none_ends_in_a_fault_of_ours(client: TestClient, number: str) -> None:
    """`Infinity` as a count was a 500."""
    for field in ('"parts": [{"count": %s}]', '"parcels_at_most": %s', '"pack_minutes": %s', '"value": %s'):
        body = '{"job": {"format": "fardo-job/1", %s}}' % (field % number)
        answer = client.post("/api/work-out", content=body, headers={"Content-Type": "application/json"})
        assert answer.status_code < 500, (field, answer.text)


@pytest.mark.parametrize("at", ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00"])
def test_a_tick_at_the_ends_of_the_calendar_is_refused(client: TestClient, at: str) -> None:
    key = client.post("/api/jobs", json=job()).json()["id"]
    tick = {"id": "tick-00000001", "step": "fetch", "done": True, "at": at}
    refused = client.post(f"/api/jobs/{key}/packing/ticks", json={"ticks": [tick]})
    assert (refused.status_code, refused.json()["field"]) == (422, "ticks[0].at")


@pytest.mark.parametrize("day", ["0001-01-01", "9999-12-31"])
def test_days_at_the_ends_of_the_calendar_are_answered(client: TestClient, day: str) -> None:
    for params in ({"today": day}, {"today": day, "order": "day"}):
        assert client.get("/api/jobs", params=params).status_code < 500
    change = {"revision": 1, "from": day, "percent": "5"}
    assert client.post("/api/tariffs/Oddbarrow/coming", json=change).status_code < 500
    assert client.put("/api/tariffs/Oddbarrow/coming", json=change).status_code < 500


def test_a_kind_takes_no_place_of_one_that_is_not_there(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job()).json()["id"]
    refused = client.post(f"/api/jobs/{key}/kind", json={"title": "Loom", "replaces": "../loom"})
    assert (refused.status_code, refused.json()["field"]) == (422, "replaces")
