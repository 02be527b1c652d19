"""Jobs over the wire: kept whole, changed from a revision, found, put away and brought back."""

from __future__ import annotations

from pathlib import Path

from fastapi.testclient import TestClient

from fardo.store.database import Database
from fardo.store.jobs import Jobs
from tests.made_up import box, job, part


def test_a_job_is_kept_as_it_was_typed(client: TestClient) -> None:
    made = client.post("/api/jobs", json=job()).json()
    kept = client.get(f"/api/jobs/{made['id']}").json()["job"]
    assert kept["parts"][0]["shape"]["length"] == "9 1/2 in"
    assert kept["extras"] == job()["extras"]
    assert kept["ship"] == {**job()["ship"], "signature": False, "distance": None}


def test_a_bare_number_is_kept_with_the_shops_unit(client: TestClient) -> None:
    """So that it means the same when the shop goes over to centimetres."""
    bare = job(parts=[part(shape=box(length="9 1/2", width="5' 3", height="203.2 mm"), weight="4.5", gap="2")])
    kept = client.post("/api/jobs", json=bare).json()["job"]["parts"][0]
    assert kept["shape"] == {"kind": "box", "length": "9 1/2 in", "width": "5' 3", "height": "203.2 mm"}
    assert (kept["weight"], kept["gap"]) == ("4.5 lb", "2 in")


def test_a_job_may_be_half_measured(client: TestClient) -> None:
    answer = client.post("/api/jobs", json=job(parts=[part(weight=None, shape={"kind": "box", "length": "12 in"})]))
    assert answer.status_code == 201


def test_a_change_from_an_old_revision_is_refused_and_loses_nothing(client: TestClient) -> None:
    made = client.post("/api/jobs", json=job()).json()
    url = f"/api/jobs/{made['id']}"
    first = client.put(url, json={"revision": 1, "job": job(title="mine")})
    assert first.json()["revision"] == 2
    second = client.put(url, json={"revision": 1, "job": job(title="theirs")})
    assert second.status_code == 409
    assert second.headers["content-type"] == "application/problem+json"
    assert second.json()["newest_revision"] == 2
    assert client.get(url).json()["job"]["title"] == "mine"
    assert client.put(url, json={"revision": 2, "job": job(title="theirs")}).json()["revision"] == 3


def test_every_revision_is_kept(client: TestClient, shop_file: Path) -> None:
    made = client.post("/api/jobs", json=job()).json()
    for n in range(1, 4):
        client.put(f"/api/jobs/{made['id']}", json={"revision": n, "job": job(title=f"title {n}")})
    database = Database(shop_file)
    assert [number for number, _ in Jobs(database).revisions(made["id"])] == [1, 2, 3, 4]
    database.close()


def test_put_away_and_brought_back(client: TestClient) -> None:
    first = client.get("/api/jobs").json()["jobs"][0]
    client.delete(f"/api/jobs/{first['id']}")
    assert first["id"] not in [row["id"] for row in client.get("/api/jobs").json()["jobs"]]
    assert [row["id"] for row in client.get("/api/jobs?put_away=true").json()["jobs"]] == [first["id"]]
    client.post(f"/api/jobs/{first['id']}/bring-back")
    assert first["id"] in [row["id"] for row in client.get("/api/jobs").json()["jobs"]]


def test_jobs_are_found_by_title_part_extra_and_place(client: TestClient) -> None:
    def titles(words: str) -> set[str]:
        return {row["title"] for row in client.get("/api/jobs", params={"words": words}).json()["jobs"]}

    assert titles("concert") == {"Concertina for Ostwick"}
    assert titles("bobbins flyer") == {"Flyer and three bobbins"}
    assert titles("oil bottle") == {"Flyer and three bobbins"}
    assert titles("84410") == {"Two long paddles, sleeved"}
    assert titles('"; DROP TABLE job; --') == set()
    assert titles("NEAR(") == set()


def test_a_changed_job_is_found_by_its_new_words_only(client: TestClient) -> None:
    made = client.post("/api/jobs", json=job(title="Warp beam")).json()
    client.put(f"/api/jobs/{made['id']}", json={"revision": 1, "job": job(title="Raddle")})
    assert client.get("/api/jobs?words=warp+beam").json()["jobs"] == []
    assert [row["id"] for row in client.get("/api/jobs?words=raddle").json()["jobs"]] == [made["id"]]


def test_pages_follow_each_other_without_gap_or_repeat(client: TestClient) -> None:
    for n in range(60):
        client.post("/api/jobs", json=job(title=f"job {n}"))
    seen, cursor = [], None
    while True:
        page = client.get("/api/jobs", params={"cursor": cursor} if cursor else {}).json()
        seen += [row["id"] for row in page["jobs"]]
        cursor = page["cursor"]
        if cursor is None:
            break
    assert len(seen) == len(set(seen)) == 68


def test_a_job_file_goes_out_and_comes_in_the_same(client: TestClient) -> None:
    made = client.post("/api/jobs", json=job()).json()
    file = client.get(f"/api/jobs/{made['id']}/file")
    assert 'filename="concertina-for-ostwick.job.json"' in file.headers["content-disposition"]
    again = client.post("/api/jobs/file", content=file.content)
    assert again.status_code == 201
    assert again.json()["job"] == made["job"]


def test_there_is_no_such_job(client: TestClient) -> None:
    for answer in (
        client.get("/api/jobs/nothing"),
        client.put("/api/jobs/nothing", json={"revision": 1, "job": job()}),
    ):
        assert answer.status_code == 404
        assert "There is no job" in answer.json()["detail"]
