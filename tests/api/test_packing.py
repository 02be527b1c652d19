"""The packing steps of a saved job, in words, and what is fetched for them."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
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
    found: dict[str, Any] = next(one for one in told["steps"] if one["key"].split(", ")[0] == key)
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
    assert [one.partition(", ")[2] for one in step(told, "make 5")["takes"]] == [
        "seams and corners", "along the bottom seam, a hand down both ends",
        "across the bottom at both ends, a hand down the sides",
    ]  # fmt: skip
    assert step(told, "all in")["count"] == [{"name": "bench", "count": 1}]
    places = {place["place"]: place["items"] for place in told["fetch"]}
    assert list(places) == ["Board", "Wrap", "Fill", "Tape", "Papers", "Tools"]
    assert [item["name"] for item in places["Wrap"]] == ["small bubble, 3/16 in"]
    papers = [item["name"] for item in places["Papers"]]
    assert {"label", "packing slip", "closing check", "cut sheet"} <= set(papers)


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


def ticked(client: TestClient, key: str, *ticks: dict[str, Any]) -> list[dict[str, Any]]:
    answer = client.post(f"/api/jobs/{key}/packing/ticks", json={"ticks": list(ticks)})
    assert answer.status_code == 200, answer.text
    told: list[dict[str, Any]] = answer.json()
    return told


def tick(name: str, step: str, at: str, done: bool = True) -> dict[str, Any]:
    return {"id": f"tick-{name}", "step": step, "done": done, "at": f"2026-03-02T{at}Z"}


def test_ticks_of_two_devices_merge_and_are_counted_once(client: TestClient) -> None:
    """Both were away; what one sent twice is kept once, and the later tick of a step counts, whichever came first."""
    key = client.post("/api/jobs", json=job()).json()["id"]
    bench = [tick("bench-1", "box", "10:00:00"), tick("bench-2", "tape bottom", "10:02:00")]
    phone = [tick("phone-1", "box", "10:01:00", done=False), tick("phone-2", "place 0", "10:03:00")]
    ticked(client, key, *phone)
    ticked(client, key, *bench)
    told = ticked(client, key, *bench, *phone)
    assert [one["id"] for one in told] == ["tick-bench-1", "tick-phone-1", "tick-bench-2", "tick-phone-2"]
    assert {one["step"]: one["done"] for one in told} == {"box": False, "tape bottom": True, "place 0": True}
    assert client.get(f"/api/jobs/{key}/packing/ticks").json() == told
    assert [one["id"] for one in client.get(f"/api/jobs/{key}/packing").json()["ticks"]] == [one["id"] for one in told]


def test_a_tick_tells_its_time_in_any_zone_and_bad_ones_are_refused_whole(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job()).json()["id"]
    early = tick("early-one", "box", "10:00:00") | {"at": "2026-03-02T12:30:00+03:00"}
    told = ticked(client, key, tick("late-one", "box", "10:00:00", done=False), early)
    assert [one["id"] for one in told] == ["tick-early-one", "tick-late-one"]
    bad = {"ticks": [tick("good-one", "box", "11:00:00"), {"id": "x", "step": "", "done": True, "at": "noon"}]}
    assert client.post(f"/api/jobs/{key}/packing/ticks", json=bad).status_code == 422
    assert len(ticked(client, key)) == 2
    assert client.post("/api/jobs/nothing/packing/ticks", json={"ticks": []}).status_code == 404


def test_the_picture_of_a_step_shows_what_lies_in_the_box_by_then(client: TestClient) -> None:
    parts = [part(name=name, weight="2 lb", gap="1 in", shape=box(length="9 in", width="6 in", height="4 in"))
             for name in ("hub", "rim")]  # fmt: skip
    told = packing(client, job(parts=parts, ways=["slotted"], extras=[{"name": "oil", "size": "3 x 2 x 2 in"}]))
    placed = [one for one in told["steps"] if one["key"].startswith("place ")]
    assert [one["goes_in"] for one in placed] == [1, 2, 3]
    assert sorted(one["name"] for one in told["things"]) == ["hub", "oil", "rim"]
    for one, step_of in zip(told["things"], placed, strict=True):
        assert step_of["do"].startswith(f"Put in {one['name']}")
        for at, size, inside in zip(one["at_mm"], one["size_mm"], told["inside_mm"], strict=True):
            assert 0 <= at <= at + size <= inside + 1e-6


def test_a_tick_is_called_by_eight_to_sixty_signs(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job()).json()["id"]
    tick = {"step": "box", "done": True, "at": "2026-03-02T10:00:00Z"}
    for length, status in ((7, 422), (8, 200), (60, 200), (61, 422)):
        answer = client.post(f"/api/jobs/{key}/packing/ticks", json={"ticks": [{**tick, "id": "x" * length}]})
        assert answer.status_code == status, length


def test_minutes_are_told_in_hundredths(client: TestClient) -> None:
    steps = packing(client, job(ways=["slotted"]))["steps"]
    assert all(step["minutes"] == round(step["minutes"], 2) for step in steps)
    assert any(step["minutes"] != round(step["minutes"], 1) for step in steps)


def test_of_each_step_of_each_job_the_last_tick_counts(client: TestClient) -> None:
    keys = [client.post("/api/jobs", json=job()).json()["id"] for _ in range(3)]
    for key, done in ((keys[0], (True, False, True)), (keys[1], (True, False))):
        ticks = [{"id": f"{key}-{n:04}", "step": "fetch", "done": one, "at": f"2026-03-02T09:0{n}:00Z"}
                 for n, one in enumerate(done)]  # fmt: skip
        assert client.post(f"/api/jobs/{key}/packing/ticks", json={"ticks": ticks}).status_code == 200
    found = client.app.state.context.ticks.done_of_each(keys)  # type: ignore[attr-defined]
    assert found == {keys[0]: frozenset({"fetch"}), keys[1]: frozenset()}


def test_a_tick_of_a_clock_ahead_can_be_taken_back(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job()).json()["id"]
    path = f"/api/jobs/{key}/packing/ticks"
    ahead = {"id": "tick-ahead-1", "step": "fetch", "done": True, "at": "2098-01-01T00:00:00Z"}
    both = [ahead, {**ahead, "id": "tick-ahead-0", "done": False, "at": "2098-01-01T00:00:01Z"}]
    told = client.post(path, json={"ticks": both}).json()
    assert [one["done"] for one in told] == [True, False]
    now = datetime.now(UTC) + timedelta(seconds=5)
    told = client.post(path, json={"ticks": [{**ahead, "id": "tick-right-1", "at": now.isoformat()}]}).json()
    assert [one["id"] for one in told] == ["tick-ahead-1", "tick-ahead-0", "tick-right-1"]


def test_a_tick_under_the_name_of_one_of_another_job_is_refused(client: TestClient) -> None:
    """It was passed over as known, and lost."""
    one, other = (client.post("/api/jobs", json=job(title=title)).json()["id"] for title in ("Loom", "Reel"))
    tick = {"id": "tick-00000001", "step": "fetch", "done": True, "at": "2026-03-02T09:00:00Z"}
    assert client.post(f"/api/jobs/{one}/packing/ticks", json={"ticks": [tick]}).status_code == 200
    refused = client.post(f"/api/jobs/{other}/packing/ticks", json={"ticks": [tick]})
    assert (refused.status_code, refused.json()["field"]) == (422, "ticks[0].id")
