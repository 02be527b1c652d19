"""Jobs over the wire: kept whole, changed from a revision, found, archived and restored."""

from __future__ import annotations

from datetime import date

from fastapi.testclient import TestClient

from tests.made_up import box, job, part


def test_a_job_is_kept_as_it_was_typed(client: TestClient) -> None:
    made = client.post("/api/jobs", json=job()).json()
    kept = client.get(f"/api/jobs/{made['id']}").json()["job"]
    assert kept["parts"][0]["shape"]["length"] == "9 1/2 in"
    assert kept["extras"] == [{**extra, "lies_flat": None, "place": None} for extra in job()["extras"]]
    unsaid = {"signature": False, "distance": None, "from_country": "", "to_country": ""}
    assert kept["ship"] == {**job()["ship"], **unsaid}


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


def test_every_revision_is_kept_can_be_looked_at_and_restored(client: TestClient) -> None:
    made = client.post("/api/jobs", json=job()).json()
    url = f"/api/jobs/{made['id']}"
    for n in range(1, 4):
        client.put(url, json={"revision": n, "job": job(title=f"title {n}")})
    assert [row["revision"] for row in client.get(f"{url}/revisions").json()] == [4, 3, 2, 1]
    assert client.get(f"{url}/revisions/2").json()["title"] == "title 1"
    back = client.post(f"{url}/revisions/2").json()
    assert (back["revision"], back["job"]["title"]) == (5, "title 1")
    assert client.get(f"{url}/revisions/4").json()["title"] == "title 3"
    assert client.get(f"{url}/revisions/9").status_code == 404
    assert client.get("/api/jobs/nothing/revisions").status_code == 404


def test_a_save_whose_answer_was_lost_is_known_by_its_name_and_not_made_twice(client: TestClient) -> None:
    """A page that is closed while it saves never sees the answer; it finds its change in the job."""
    made = client.post("/api/jobs", json=job()).json()
    url, mine = f"/api/jobs/{made['id']}", {"revision": 1, "job": job(title="mine"), "change": "a1b2"}
    assert client.put(url, json=mine).json()["change"] == "a1b2"
    assert client.get(url).json()["change"] == "a1b2"
    again = client.put(url, json=mine)
    assert (again.status_code, again.json()["revision"]) == (200, 2)
    assert client.put(url, json={**mine, "change": "c3d4"}).status_code == 409
    assert client.put(url, json={**mine, "change": "no name!"}).status_code == 422
    later = client.put(url, json={"revision": 2, "job": job(title="later")}).json()
    assert (later["revision"], later["change"]) == (3, "")
    assert client.put(url, json=mine).status_code == 409


def test_the_shop_as_it_was_set_is_restored(client: TestClient) -> None:
    before = client.get("/api/shop").json()
    for town in ("Ostwick", "Fellmarch"):
        now = client.get("/api/shop").json()
        client.put("/api/shop", json={"revision": now["revision"], "shop": {**now["shop"], "town": town}})
    rows = client.get("/api/shop/revisions").json()
    assert [row["revision"] for row in rows][:2] == [before["revision"] + 2, before["revision"] + 1]
    assert client.get(f"/api/shop/revisions/{before['revision'] + 1}").json()["town"] == "Ostwick"
    back = client.post(f"/api/shop/revisions/{before['revision']}").json()
    assert (back["revision"], back["shop"]) == (before["revision"] + 3, before["shop"])


def test_a_job_takes_no_kinds_place_unless_it_is_told_to_and_what_was_there_comes_back(client: TestClient) -> None:
    made = client.post("/api/jobs/begin", json={"kind": "concertina", "title": "Anglo, 30 keys"}).json()
    url = f"/api/jobs/{made['id']}/kind"
    kept = client.post(url, json={"title": "Anglo"}).json()
    assert (kept["kind"]["code"], kept["revision"]) == ("anglo", 1)
    # Its own name again, and a name that ships: both are said, and nothing is written over.
    for title, code in (("Anglo", "anglo"), ("Concertina", "concertina")):
        taken = client.post(url, json={"title": title})
        assert (taken.status_code, taken.json()["taken"]) == (409, code)
        assert "already" in taken.json()["detail"]
    assert client.get("/api/kinds/anglo").json()["revision"] == 1
    client.put(f"/api/jobs/{made['id']}", json={"revision": 1, "job": {**made["job"], "board": "BC"}})
    assert client.post(url, json={"title": "Anglo", "replaces": "anglo"}).json()["kind"]["board"] == "BC"
    assert [row["revision"] for row in client.get("/api/kinds/anglo/revisions").json()] == [2, 1]
    back = client.post("/api/kinds/anglo/revisions/1").json()
    assert (back["revision"], back["kind"].get("board")) == (3, kept["kind"].get("board"))


def test_a_kind_whose_title_has_no_latin_letter_gets_a_code_too(client: TestClient) -> None:
    made = client.post("/api/jobs", json=job()).json()
    codes = [client.post(f"/api/jobs/{made['id']}/kind", json={"title": title}).json()["kind"]["code"]
             for title in ("琴", "Флейта", "Flügelhorn, groß")]  # fmt: skip
    assert codes == ["k-7434", "k-424-43b-435-439-442-430", "flugelhorn-gro"]


def test_an_earlier_version_of_a_tariff_can_be_looked_at(client: TestClient) -> None:
    whole = client.get("/api/tariffs/Oddbarrow").json()
    client.put("/api/tariffs/Oddbarrow", json={"revision": whole["revision"], "tariff": whole["tariff"]})
    then = client.get(f"/api/tariffs/Oddbarrow/versions/{whole['revision']}").json()
    assert then["carrier"] == "Oddbarrow"


def test_archived_and_restored(client: TestClient) -> None:
    first = client.get("/api/jobs").json()["jobs"][0]
    client.delete(f"/api/jobs/{first['id']}")
    assert first["id"] not in [row["id"] for row in client.get("/api/jobs").json()["jobs"]]
    assert [row["id"] for row in client.get("/api/jobs?archived=true").json()["jobs"]] == [first["id"]]
    client.post(f"/api/jobs/{first['id']}/restore")
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


def test_going_metric_changes_no_setting_and_no_kind_that_was_typed_bare(client: TestClient) -> None:
    kind = client.get("/api/kinds/concertina").json()["kind"]
    kind["parts"][0]["gap"] = "2"
    client.put("/api/kinds", json={"revision": 0, "kind": kind})
    before = client.get("/api/shop").json()
    metric = {**before["shop"], "units": "cm", "gap": "3", "kerf": "1/8"}
    after = client.put("/api/shop", json={"revision": before["revision"], "shop": metric}).json()["shop"]
    assert (after["units"], after["gap"], after["kerf"]) == ("cm", "3 in", "1/8 in")
    assert client.get("/api/kinds/concertina").json()["kind"]["parts"][0]["gap"] == "2 in"
    # From then on bare is centimetres.
    now = client.get("/api/shop").json()
    later = {**now["shop"], "gap": "5"}
    assert client.put("/api/shop", json={"revision": now["revision"], "shop": later}).json()["shop"]["gap"] == "5 cm"


def test_a_kind_kept_bare_by_an_earlier_version_keeps_its_inches_when_the_shop_goes_metric(client: TestClient) -> None:
    kinds = client.app.state.context.kinds  # type: ignore[attr-defined]
    shipped = next(one.kind for one in kinds.all() if one.kind.code == "concertina")
    bare = shipped.model_copy(update={"parts": [shipped.parts[0].model_copy(update={"gap": "2"})]})
    kinds.keep(bare, 0)
    ours = {one.kind.code: one.revision for one in kinds.all()}
    before = client.get("/api/shop").json()
    metric = {**before["shop"], "units": "cm"}
    assert client.put("/api/shop", json={"revision": before["revision"], "shop": metric}).status_code == 200
    kept = next(one for one in kinds.all() if one.kind.code == "concertina")
    assert (kept.kind.parts[0].gap, kept.revision) == ("2 in", 2)
    # What ships stays what ships.
    assert {one.kind.code: one.revision for one in kinds.all()} == {**ours, "concertina": 2}


def test_what_goes_around_a_box_is_wrap(client: TestClient) -> None:
    forms = {one["form"]: one for one in client.get("/api/shop").json()["forms"]}
    assert [name for name, one in forms.items() if one["around_a_box"]] == ["wrap"]
    assert {name for name, one in forms.items() if one["on_walls"]} < set(forms)


def test_the_bench_lists_what_leaves_first_and_every_job_once(client: TestClient) -> None:
    """Without a ship date: after what leaves by tomorrow."""
    days = ["2026-03-09", None, "2026-03-02", "2026-03-09", None, "2026-03-05", "2026-02-28", "2026-03-03"]
    keys = [client.post("/api/jobs", json=job(day=day)).json()["id"] for day in days]
    client.delete(f"/api/jobs/{keys[5]}")
    listed = [row["id"] for row in client.get("/api/jobs", params={"today": "2026-03-02"}).json()["jobs"]]
    assert [one for one in listed if one in keys] == [keys[n] for n in (6, 2, 7, 4, 1, 3, 0)]
    paged: list[str] = []
    cursor: str | None = None
    while cursor is not None or not paged:
        page = client.app.state.context.jobs.page_by_day(date(2026, 3, 2), cursor, 2)  # type: ignore[attr-defined]
        paged += [line.id for line in page.jobs]
        cursor = page.cursor
    assert paged == listed


def test_a_revision_that_cannot_be_read_says_why_in_one_line(client: TestClient) -> None:
    kind = client.get("/api/kinds/concertina").json()["kind"]
    client.put("/api/kinds", json={"revision": 0, "kind": kind})
    with client.app.state.context.database.writing() as connection:  # type: ignore[attr-defined]
        connection.execute("UPDATE kind_revision SET content = '{\"title\": 7}'")
    told = client.get("/api/kinds/concertina/revisions/1").json()
    assert "validation error" in told["detail"]
    assert "\n" not in told["detail"]
