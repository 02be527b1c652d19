"""The packing steps of a saved job, in words, and what is fetched for them."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.made_up import box, job, part


def packing(client: TestClient, content: dict[str, Any]) -> dict[str, Any]:
    key = client.post("/api/jobs", json=content).json()["id"]
    answer = client.get(f"/api/jobs/{key}/packing")
    assert answer.status_code == 200, answer.text
    told: dict[str, Any] = answer.json()
    return told


def step(told: dict[str, Any], key: str) -> dict[str, Any]:
    found: dict[str, Any] = next(one for one in told["steps"] if one["key"] == key)
    return found


def test_steps_say_how_much_of_what_and_where(client: TestClient) -> None:
    bench = part(name="bench", weight="8 lb", gap="2 in", shape=box(length="20 in", width="12 in", height="8 in"),
                 protect=[{"material": "bubble-small", "layers": 1}])  # fmt: skip
    told = packing(client, job(parts=[bench], ways=["slotted"], extras=[]))
    assert told["box"] == "Slotted case, cut from sheet"
    assert told["chosen"] is False
    assert sum(one["minutes"] for one in told["steps"]) == pytest.approx(told["minutes"], abs=0.6)
    assert step(told, "wrap bench bubble-small")["takes"][0].startswith("small bubble, 3/16 in: ")
    assert step(told, "place 0")["do"].startswith("Put in bench: 2 in from the left wall, 2 in from the front, 2 in")
    assert step(told, "fill under")["do"] == "Fill under the goods, 2 in deep."
    bottom = step(told, "tape bottom")["takes"]
    assert [one.partition(", ")[2] for one in bottom] == [
        "along the bottom seam, a hand down both ends", "across the bottom at both ends, a hand down the sides"
    ]  # fmt: skip
    assert step(told, "all in")["count"] == [{"name": "bench", "count": 1}]
    places = {place["place"]: place["items"] for place in told["fetch"]}
    assert list(places) == ["Board", "Wrap", "Fill", "Tape"]
    assert [item["name"] for item in places["Wrap"]] == ["small bubble, 3/16 in"]


def test_a_job_that_cannot_be_packed_says_why(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job(parts=[part(weight=None)])).json()["id"]
    answer = client.get(f"/api/jobs/{key}/packing")
    assert answer.status_code == 422
    assert "weight" in answer.text
    assert client.get("/api/jobs/nothing/packing").status_code == 404


def test_the_demos_jobs_can_all_be_packed_but_the_one_not_measured(client: TestClient) -> None:
    rows = client.get("/api/jobs").json()["jobs"]
    answers = {row["title"]: client.get(f"/api/jobs/{row['id']}/packing").status_code for row in rows}
    assert {title for title, status in answers.items() if status != 200} == {"Reed hooks and shuttles"}
