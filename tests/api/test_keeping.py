"""The shop kept and moved on the screen: an archive out and in, a copy looked at and put back while it is served."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.charges import Fuel
from fardo.store.changes import changed_since, mark_of
from fardo.store.labels import GivenQuote
from fardo.store.soundness import check_shop
from tests.made_up import job, part

COPIES = "/api/keeping/copies"


def copies(client: TestClient) -> list[dict[str, Any]]:
    return list(client.get(COPIES).json())


def take_in(client: TestClient, content: bytes) -> Any:
    return client.post("/api/keeping/archive", content=content, headers={"Content-Type": "application/zip"})


def answers(client: TestClient) -> list[Any]:
    """What the shop holds, by its own calls."""
    rows = client.get("/api/jobs").json()["jobs"]
    jobs = [client.get(f"/api/jobs/{row['id']}").json()["job"] for row in sorted(rows, key=lambda row: row["id"])]
    carriers = [row["carrier"] for row in client.get("/api/tariffs").json()]
    tariffs = [client.get(f"/api/tariffs/{carrier}").json()["tariff"] for carrier in carriers]
    return [jobs, tariffs, client.get("/api/shop").json()["shop"]]


def test_an_archive_is_looked_at_and_put_in_the_shops_place_and_that_undone(client: TestClient) -> None:
    before = answers(client)
    archive = client.get("/api/keeping/archive")
    assert archive.headers["content-type"] == "application/zip"
    assert "shop.json" in zipfile.ZipFile(io.BytesIO(archive.content)).namelist()
    # Since then a job is new, one is another, one tariff is another and so are the settings.
    new = client.post("/api/jobs", json=job(parts=[part()]) | {"title": "Begun since"}).json()["id"]
    row = client.get("/api/jobs").json()["jobs"][-1]
    whole = client.get(f"/api/jobs/{row['id']}").json()
    changed = whole["job"] | {"title": "Named since"}
    client.put(f"/api/jobs/{row['id']}", json={"revision": whole["revision"], "job": changed})
    client.put("/api/tariffs/Oddbarrow/fuel", json={"revision": 1, "was": "12.5", "percent": "14"})
    view = client.get("/api/shop").json()
    client.put("/api/shop", json={"revision": view["revision"], "shop": view["shop"] | {"labour_per_hour": "31.00"}})
    since = answers(client)
    taken = take_in(client, archive.content)
    assert taken.status_code == 201, taken.text
    name = taken.json()["name"]
    assert [one["why"] for one in copies(client)] == ["imported"]
    told = client.get(f"{COPIES}/{name}").json()
    assert told["jobs"] == {"back": [], "gone": ["Begun since"], "other": ["Named since"]}
    assert told["tariffs"] == {"back": [], "gone": [], "other": ["Oddbarrow"]}
    assert (told["kinds"], told["settings"], told["labels"]) == ({"back": [], "gone": [], "other": []}, True, 0)
    assert answers(client) == since  # looking changes nothing
    kept = client.post(f"{COPIES}/{name}/restore")
    assert kept.status_code == 200, kept.text
    assert answers(client) == before
    assert client.get(f"/api/jobs/{new}").status_code == 404
    assert client.get("/api/jobs?words=Named+since").json()["jobs"] == []
    # The shop as it was lies beside it too, and comes back the same way.
    back = client.post(f"{COPIES}/{kept.json()['name']}/restore")
    assert (kept.json()["why"], back.status_code) == ("before-restore", 200)
    assert answers(client) == since
    # What is kept on goes on.
    again = client.get(f"/api/jobs/{new}").json()
    saved = client.put(f"/api/jobs/{new}", json={"revision": again["revision"], "job": again["job"] | {"title": "On"}})
    assert saved.status_code == 200


def test_what_was_bought_and_who_was_forgotten_since_stays_so(client: TestClient) -> None:
    kept, gone = (
        client.post("/api/jobs", json=job(parts=[part()]) | {"title": title}).json()["id"] for title in ("one", "two")
    )
    person = {"address": {"name": "Tamsin Orrel", "town": "Ostwick"}, "order": "GR-7"}
    written = client.put(f"/api/jobs/{kept}/recipient", json={"revision": 0, "recipient": person})
    assert written.status_code == 200, written.text
    client.delete(f"/api/jobs/{gone}")
    archive = client.get("/api/keeping/archive").content
    new = client.post("/api/jobs", json=job(parts=[part()]) | {"title": "since"}).json()["id"]
    labels = client.app.state.context.labels  # type: ignore[attr-defined]
    for n, key in enumerate((kept, new)):
        quote = GivenQuote("Oddbarrow", f"quote {n}", "Ground", "account", "9.00", "USD")
        labels.keep_quotes(key, [quote])
        labels.intend(key, quote)
    assert client.delete(f"/api/jobs/{kept}/recipient").status_code == 200
    name = take_in(client, archive).json()["name"]
    assert client.get(f"{COPIES}/{name}").json()["labels"] == 1  # the one of the job that would be gone
    before = client.post(f"{COPIES}/{name}/restore").json()["name"]
    assert labels.of_job(kept).state == "asking"
    assert "Tamsin" not in client.get(f"/api/jobs/{kept}/recipient").text
    assert client.get("/api/jobs?words=Tamsin").json()["jobs"] == []
    assert client.post(f"{COPIES}/{before}/restore").status_code == 200
    assert (labels.of_job(kept).state, labels.of_job(new).state) == ("asking", "asking")


def test_a_number_that_was_given_out_never_stands_for_another_version(client: TestClient) -> None:
    """A tariff's version 2 is the one it was when a job was priced by it, though a copy before it was put back."""
    archive = client.get("/api/keeping/archive").content
    context = client.app.state.context  # type: ignore[attr-defined]

    def change_fuel(percent: str, was: int) -> int:
        change = {"revision": was, "was": "12.5", "percent": percent}
        return int(client.put("/api/tariffs/Oddbarrow/fuel", json=change).json()["revision"])

    def fuel(version: int) -> object:
        found = context.settings.carriers_with(Carriers(), ("Oddbarrow", version)).kept
        return next(one.percent for one in found[0].charges if isinstance(one, Fuel))

    assert (change_fuel("14", 1), fuel(2)) == (2, 14)
    client.post(f"{COPIES}/{take_in(client, archive).json()['name']}/restore")
    now = client.get("/api/tariffs/Oddbarrow").json()["revision"]
    assert (now > 2, fuel(now)) == (True, 12.5)
    assert fuel(change_fuel("15", now)) == 15
    assert fuel(1) == 12.5
    # What was priced by version 1 is not told as priced by other prices, where today's are the same.
    assert context.settings.carriers_with(context.settings.carriers(), ("Oddbarrow", 1)).kept
    client.post(f"{COPIES}/{take_in(client, archive).json()['name']}/restore")
    assert context.settings.carriers_with(context.settings.carriers(), ("Oddbarrow", 1)).kept == ()


def test_a_page_opened_before_a_restore_does_not_write_over_what_came_back(client: TestClient) -> None:
    """It has revision 2 of everything; the copy had revision 1, and was changed once since it was put back."""
    made = client.post("/api/jobs", json=job(parts=[part()]) | {"title": "First"}).json()
    key, kind = made["id"], client.get("/api/kinds/mirror").json()["kind"]
    other = {"code": "slate", "title": "Slates"}
    context = client.app.state.context  # type: ignore[attr-defined]
    calls: dict[str, Any] = {
        f"/api/jobs/{key}": lambda say: {"job": made["job"] | {"title": say}},
        f"/api/jobs/{key}/recipient": lambda say: {"recipient": {"address": {"name": say}}},
        f"/api/jobs/{key}/sending": lambda say: {"sending": {"number": say}},
        "/api/kinds": lambda say: {"kind": kind | other | {"title": say}},
        "/api/shop": lambda say: {"shop": client.get("/api/shop").json()["shop"] | {"name": say}},
    }

    def put(path: str, revision: int, say: str) -> int:
        return client.put(path, json=calls[path](say) | {"revision": revision}).status_code

    def newest(path: str) -> int:
        return int(look(path).get("revision", 0))

    def look(path: str) -> Any:
        return client.get("/api/kinds/slate" if path == "/api/kinds" else path).json()

    for path in calls:
        assert put(path, newest(path), "As copied") == 200, path
    archive = client.get("/api/keeping/archive").content
    mark = mark_of(context.database)
    for path in calls:
        assert put(path, newest(path), "On a page") == 200, path
    slept = {path: newest(path) for path in calls}
    client.post(f"{COPIES}/{take_in(client, archive).json()['name']}/restore")
    for path in calls:
        assert put(path, slept[path], "Woken") == 409, path
        assert put(path, newest(path), "Since") == 200, path
    for path in calls:
        assert put(path, slept[path], "Woken") == 409, path
        assert "Since" in str(look(path))
    assert changed_since(context.database, mark)[1].whole
    assert check_shop(context.database.path).flaws == ()
    # What is written down for the first time afterwards goes on above too.
    assert client.post("/api/jobs", json=job(parts=[part()])).json()["revision"] > max(slept.values())


def test_a_revision_lost_after_a_restore_is_noticed(client: TestClient, shop_file: Path) -> None:
    key = client.post("/api/jobs", json=job(parts=[part()])).json()["id"]
    archive = client.get("/api/keeping/archive").content
    client.post(f"{COPIES}/{take_in(client, archive).json()['name']}/restore")
    whole = client.get(f"/api/jobs/{key}").json()
    last = client.put(f"/api/jobs/{key}", json={"revision": whole["revision"], "job": whole["job"]}).json()["revision"]
    assert check_shop(shop_file).flaws == ()
    with client.app.state.context.database.writing() as connection:  # type: ignore[attr-defined]
        connection.execute("DELETE FROM job_revision WHERE job_id = ? AND revision = ?", (key, last - 1))
    assert check_shop(shop_file).flaws == (f"job {key}: its revision {last - 1} is lost",)


@pytest.mark.parametrize("content", [b"", b"no zip", b"PK\x03\x04" + b"\0" * 40])
def test_what_is_no_archive_is_refused_and_nothing_is_left(client: TestClient, shop_file: Path, content: bytes) -> None:
    before = answers(client)
    refused = take_in(client, content)
    assert (refused.status_code, copies(client)) == (422, [])
    assert refused.json()["detail"].startswith("The file is not a whole archive of a shop")
    assert str(shop_file.parent) not in refused.text
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w") as archive:
        archive.writestr("shop.json", '{"format": "fardo-shop/1", "database": 999}')
    assert "newer Fardo" in take_in(client, buffer.getvalue()).json()["detail"]
    assert answers(client) == before


def test_a_copy_is_asked_for_by_a_name_it_has(client: TestClient, shop_file: Path) -> None:
    for name in ("none.db", "..%2Fshop.db", shop_file.name, "%00"):
        assert client.get(f"{COPIES}/{name}").status_code == 404
        assert client.post(f"{COPIES}/{name}/restore").status_code in (404, 405)
    broken = shop_file.with_name(f"{shop_file.name}.before-restore-20260101-000000")
    broken.write_bytes(b"not a database" * 400)
    before = answers(client)
    refused = client.post(f"{COPIES}/{broken.name}/restore")
    assert (refused.status_code, str(shop_file.parent) in refused.text) == (422, False)
    assert answers(client) == before
