"""The practice job says what to do next, sees when it is done, and tells by how much a measure is off."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient


def begun(client: TestClient) -> dict[str, Any]:
    answer = client.post("/api/practice")
    assert answer.status_code == 201
    job: dict[str, Any] = answer.json()["job"]
    return job


def looked_over(client: TestClient, job: dict[str, Any], first_cut: str = "") -> dict[str, dict[str, Any]]:
    answer = client.post("/api/practice/steps", json={"job": job, "first_cut": first_cut})
    assert answer.status_code == 200, answer.text
    return {step["key"]: step for step in answer.json()["steps"]}


def measured(job: dict[str, Any], *sides: str, weight: str | None = None) -> dict[str, Any]:
    shape = {"kind": "box", **dict(zip(("length", "width", "height"), sides, strict=True))}
    return {**job, "parts": [{**job["parts"][0], "shape": shape, "weight": weight}]}


def open_steps(client: TestClient, job: dict[str, Any], first_cut: str = "") -> list[str]:
    return [key for key, step in looked_over(client, job, first_cut).items() if not step["done"]]


def metric(client: TestClient) -> None:
    view = client.get("/api/shop").json()
    client.put("/api/shop", json={"revision": view["revision"], "shop": {**view["shop"], "units": "cm"}})


def test_a_new_one_has_everything_to_do_and_no_answer_in_it(client: TestClient) -> None:
    job = begun(client)
    steps = looked_over(client, job)
    assert list(steps) == ["sides", "weight", "wrap", "destination", "box", "cut", "price"]
    assert not any(step["done"] or step["off"] for step in steps.values())
    for figure in ("17 5/8", "11 7/8", "15 1/2"):  # they are read off the tape
        assert figure not in str(steps)


def test_the_tapes_end_where_the_sides_do(client: TestClient) -> None:
    tapes = client.post("/api/practice/steps", json={"job": begun(client)}).json()["tapes"]
    assert {one["side"]: one["ends_mm"] / 25.4 for one in tapes} == {"length": 17.625, "width": 11.875, "height": 15.5}
    metric(client)
    tapes = client.post("/api/practice/steps", json={"job": begun(client)}).json()["tapes"]
    assert {one["side"]: one["ends_mm"] for one in tapes} == {"length": 448, "width": 302, "height": 394}


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("17 1/2", "Length: 1/8 in less than the tape shows. The box would come out too small."),
        ("18", "Length: 3/8 in more than the tape shows. The box would be larger than it must be."),
        ("17 9/16", "Length: 1/16 in less than the tape shows. The box would come out too small."),
    ],
)
def test_a_measure_that_is_off_is_told_by_how_much(client: TestClient, typed: str, said: str) -> None:
    sides = looked_over(client, measured(begun(client), typed, "11 7/8", "15 1/2"))["sides"]
    assert (sides["done"], sides["off"]) == (False, [said])


def test_what_is_typed_in_another_unit_counts_as_well(client: TestClient) -> None:
    job = measured(begun(client), "44.7675 cm", "11.875 in", "1' 3.5\"", weight="2.875 lb")
    steps = looked_over(client, job)
    assert steps["sides"]["done"]
    assert steps["weight"]["done"]
    heavy = looked_over(client, measured(begun(client), "17 5/8", "11 7/8", "15 1/2", weight="3 lb"))["weight"]
    assert (heavy["done"], heavy["off"]) == (False, ["Weight: the scale shows 2 lb 14 oz."])


def test_each_step_is_done_once_the_job_has_it(client: TestClient) -> None:
    job = begun(client)
    assert open_steps(client, job)[0] == "sides"
    job = measured(job, "17 5/8", "11 7/8", "15 1/2", weight="2 lb 14 oz")
    assert open_steps(client, job)[0] == "wrap"
    job["parts"][0]["protect"] = [{"material": "bubble-small", "layers": 2}]
    assert open_steps(client, job)[0] == "destination"
    job["ship"] = {"from": "10440", "to": "73120"}
    assert open_steps(client, job) == ["box", "cut", "price"]

    ways = {way["way"]: way for way in client.post("/api/work-out", json={"job": job}).json()["ways"]}

    def choose(way: str) -> None:
        found = ways[way]
        job["chosen"] = {"box": {**{name: found[name] for name in ("way", "school", "board")},
                                 "inside_mm": found["needed_mm"]}}  # fmt: skip

    choose("tray")
    assert open_steps(client, job) == ["cut", "price"]
    (tray,) = [one for one in client.post("/api/work-out", json={"job": job}).json()["ways"] if one["way"] == "tray"]
    first = tray["fence"][0]["fence"]
    assert open_steps(client, job, first) == ["price"]
    wrong = looked_over(client, job, "5")["cut"]
    assert wrong["off"] == ["5 in is not the first setting: look at the top row of the list."]
    assert looked_over(client, job, "fi")["cut"]["off"] == []  # half typed
    choose("shelf")
    assert open_steps(client, job) == ["price"]  # nothing is cut for it


def test_a_metric_shop_reads_centimetres_off_the_tape(client: TestClient) -> None:
    metric(client)
    steps = looked_over(client, measured(begun(client), "44.8", "30.2", "39.4", weight="1.3 kg"))
    assert steps["sides"]["done"]
    assert steps["weight"]["done"]
    assert "1.3 kg" in steps["weight"]["says"]
    off = looked_over(client, measured(begun(client), "44.8", "30.0", "39.4"))["sides"]["off"]
    assert off == ["Width: 0.2 cm less than the tape shows. The box would come out too small."]
