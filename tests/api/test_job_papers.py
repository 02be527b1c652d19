"""The papers of a job and of a day: each for somebody, on the shop's paper, and nothing outside of what stays plain."""

from __future__ import annotations

import io
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from tests.api.test_recipients import ISOLDE
from tests.api.test_sending import chosen
from tests.made_up import box, job, part

UP = {"this_side_up": True}
PARTS = [
    part(name="reed {block}", weight="2 lb", gap="1 in", rules=UP, fragility="delicate",
         shape=box(length="9 in", width="6 in", height="4 in")),
    part(name="bellows & frame", count=2, weight="1 lb", gap="1 in",
         shape=box(length="8 in", width="5 in", height="3 in")),
]  # fmt: skip


def saved(client: TestClient, **changes: Any) -> str:
    content = job(title="Concertina, apart", parts=PARTS, ways=["slotted"], **changes)
    key = str(client.post("/api/jobs", json=content).raise_for_status().json()["id"])
    client.put(f"/api/jobs/{key}/recipient", json={"revision": 0, "recipient": ISOLDE}).raise_for_status()
    return key


def read(client: TestClient, path: str, **params: Any) -> list[str]:
    """The words of each page."""
    answer = client.get(path, params=params)
    assert answer.status_code == 200, answer.text
    return [" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(answer.content)).pages]


def test_all_papers_of_a_job_come_in_one_press(client: TestClient) -> None:
    customs = {"contents": "musical instrument, wood and brass", "made_in": "US"}
    card = {"name": "thank-you card", "size": "6 x 4 x 1/16 in", "weight": "1 oz"}
    bottle = {"name": "oil bottle", "size": "3 x 1 x 1 in", "weight": "2 oz"}
    own = ["photograph of the reeds taken"]
    key = saved(client, customs=customs, extras=[card, bottle], checklist=own, value="640.00")
    slip, inserts, addresses, marks, fragile, *rest = read(client, f"/api/jobs/{key}/papers.pdf")
    told, checklist, repack = rest
    # What the slip counts is what the packing step counts, every part, extra and insert of it.
    steps = client.get(f"/api/jobs/{key}/packing").json()["steps"]
    counted = next(step["count"] for step in steps if step["key"].startswith("all in"))
    for one in counted:
        assert (f"{one['count']} {one['name']}" in slip) == (one["name"] != "thank-you card")
        assert "card" in one["name"] or f"{one['count']} x {one['name']}" in checklist
    assert {"reed {block}", "bellows & frame", "oil bottle", "thank-you card"} <= {one["name"] for one in counted}
    assert "Order GR-2077" in slip
    assert "Thank you, Ottilie Quernstone." in slip
    assert "Happy spinning." in slip
    assert "thank-you card" in inserts
    assert "oil bottle" not in inserts
    assert "88 Capstan Yard" in addresses
    assert "Return address" in addresses
    assert marks.count("THIS SIDE UP") == 4
    assert fragile.count("FRAGILE") == 4
    assert "musical instrument, wood and brass" in told
    assert "640.00 USD" in told
    assert own[0] in checklist
    assert "thank-you card" in checklist
    assert repack.index("Put in") < repack.index("Close it so")
    assert "Put in reed {block}: " in repack


def test_one_paper_is_printed_alone_and_customs_only_where_it_says_what_it_is(client: TestClient) -> None:
    key = saved(client)
    (exhibit,) = read(client, f"/api/jobs/{key}/papers.pdf", only="exhibit")
    assert "Lent by" in exhibit
    assert len(read(client, f"/api/jobs/{key}/papers.pdf", only=["slip", "checklist"])) == 2
    assert client.get(f"/api/jobs/{key}/papers.pdf", params={"only": "customs"}).status_code == 422
    assert client.get(f"/api/jobs/{key}/papers.pdf", params={"only": "poster"}).status_code == 422


@pytest.mark.parametrize("why", [{"plain_outside": True}, {"value": "1200.00"}])
def test_what_stays_plain_outside_has_no_marks(client: TestClient, why: dict[str, Any]) -> None:
    key = saved(client, **why)
    pages = read(client, f"/api/jobs/{key}/papers.pdf")
    assert not any("THIS SIDE UP" in page for page in pages)
    assert any("Plain outside" in page for page in pages)
    (label,) = read(client, f"/api/jobs/{key}/label.pdf")
    assert "This side up" not in label
    steps = {step["key"].split(", ")[0]: step["do"] for step in client.get(f"/api/jobs/{key}/packing").json()["steps"]}
    assert steps["marks"] == "Nothing outside tells what is in it."


def test_a_label_has_what_the_closed_parcel_weighs_and_its_number(client: TestClient) -> None:
    key = chosen(client)
    assert client.get(f"/api/jobs/{key}/label.pdf").status_code == 422
    client.put(f"/api/jobs/{key}/recipient", json={"revision": 0, "recipient": ISOLDE}).raise_for_status()
    (before,) = read(client, f"/api/jobs/{key}/label.pdf")
    assert "No tracking number yet" in before
    sending = {"closed": {"weight": "7 lb 3 oz", "sides": "14 x 14 x 13 in"}, "number": "OB-4471-20"}
    client.put(f"/api/jobs/{key}/sending", json={"revision": 0, "sending": sending}).raise_for_status()
    for size in ("4x6", "half"):
        (page,) = read(client, f"/api/jobs/{key}/label.pdf", size=size)
        for words in ("OB-4471-20", "7 lb 3 oz", "14 x 14 x 13 in", "Oddbarrow Ground", "Ostwick, PM 73120"):
            assert words in page
    assert client.get(f"/api/jobs/{key}/label.png").content.startswith(b"\x89PNG")


def test_the_return_address_is_the_channels_or_the_shops(client: TestClient) -> None:
    shop = client.get("/api/shop").json()
    content = {**shop["shop"], "return_address": "Box 44\nPellmouth 10440", "channels": [
        {"name": "Fair", "return_address": "Stall 9\nFairground"}, {"name": "Door"}]}  # fmt: skip
    client.put("/api/shop", json={"revision": shop["revision"], "shop": content}).raise_for_status()
    (label,) = read(client, f"/api/jobs/{saved(client, channel='Fair')}/label.pdf")
    assert "Stall 9 Fairground" in label
    (label,) = read(client, f"/api/jobs/{saved(client, channel='Door')}/label.pdf")
    assert "Box 44 Pellmouth 10440" in label


def test_the_list_of_a_day_has_a_page_a_carrier_and_room_for_a_signature(client: TestClient) -> None:
    key, other = chosen(client), chosen(client)
    sending = {"closed": {"weight": "7 lb"}, "number": "OB-1", "handed_over": {"on": "2026-03-02"}}
    client.put(f"/api/jobs/{key}/sending", json={"revision": 0, "sending": sending}).raise_for_status()
    late = {"handed_over": {"on": "2026-03-03"}}
    client.put(f"/api/jobs/{other}/sending", json={"revision": 0, "sending": late}).raise_for_status()
    (page,) = read(client, "/api/hand-over.pdf", day="2026-03-02")
    for words in ("Handed over to Oddbarrow", "2 Mar 2026: 1 parcel", "OB-1", "7 lb", "Signature", "73120"):
        assert words in page
    (none,) = read(client, "/api/hand-over.pdf", day="2026-03-09")
    assert "Nothing was handed over" in none
    assert client.get("/api/hand-over.pdf", params={"day": "soon"}).status_code == 422


def test_papers_in_other_scripts_and_of_many_things_are_printed(client: TestClient) -> None:
    many = [part(name=f"σανίδα αριθμός {n} " + "long name " * 6, weight="3 oz", gap="1/4 in",
                 shape=box(length="3 in", width="2 in", height="1 in")) for n in range(30)]  # fmt: skip
    content = job(title="Ονόματα", parts=many, ways=["slotted"])
    key = client.post("/api/jobs", json=content).raise_for_status().json()["id"]
    pages = read(client, f"/api/jobs/{key}/papers.pdf")
    assert len(pages) > 4
