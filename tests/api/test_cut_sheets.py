"""Cut sheets of saved jobs, in every form, for shops of both units."""

from __future__ import annotations

import io
from itertools import pairwise
from typing import Any

import ezdxf
import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from fardo.api.downloads import today_in_words
from tests.made_up import box, job, part


def saved(client: TestClient, **changes: Any) -> str:
    return client.post("/api/jobs", json=job(**changes)).json()["id"]


def words(content: bytes) -> str:
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages)


@pytest.mark.parametrize("way", ["tray", "slotted"])
def test_a_cut_sheet_names_job_box_and_day_and_each_setting_once(client: TestClient, way: str) -> None:
    answer = client.get(f"/api/jobs/{saved(client)}/cut-sheet.pdf?way={way}")
    assert answer.status_code == 200
    assert answer.headers["content-disposition"] == f'inline; filename="concertina-for-ostwick-{way}.pdf"'
    reader = PdfReader(io.BytesIO(answer.content))
    told = client.post("/api/work-out", json={"job": job()}).json()
    fence, steps, title = next((one["fence"], one["steps"], one["title"]) for one in told["ways"] if one["way"] == way)
    text = " ".join(words(answer.content).split())
    for setting in fence:
        assert setting["fence"] in text
        assert setting["do"] in text
    assert text.count(fence[0]["do"]) == 1
    for step in steps:
        assert step["do"] in text
    for page in reader.pages:
        head = page.extract_text()
        assert "Concertina for Ostwick" in head
        assert title in head
        assert today_in_words() in head
        assert f"of {len(reader.pages)}" in head


def test_the_same_job_gives_the_same_bytes(client: TestClient) -> None:
    """So that a sheet printed twice can be compared."""
    url = f"/api/jobs/{saved(client)}/cut-sheet.pdf?way=tray"
    assert client.get(url).content == client.get(url).content


def test_full_size_pages_are_of_the_shops_paper(client: TestClient) -> None:
    url = f"/api/jobs/{saved(client)}/cut-sheet.pdf?way=slotted&scale=full"
    letter = PdfReader(io.BytesIO(client.get(url).content))
    assert {(round(page.mediabox.width), round(page.mediabox.height)) for page in letter.pages} == {(612, 792)}
    view = client.get("/api/shop").json()
    client.put("/api/shop", json={"revision": view["revision"], "shop": {**view["shop"], "paper": "a4", "units": "cm"}})
    metric = PdfReader(io.BytesIO(client.get(url).content))
    assert {(round(page.mediabox.width), round(page.mediabox.height)) for page in metric.pages} == {(595, 842)}
    assert "must measure 10 cm" in metric.pages[0].extract_text()
    # How many there are is said before they are opened.
    told = client.post("/api/work-out", json={"job": job(), "in_hand": "slotted"}).json()
    (slotted,) = [one for one in told["ways"] if one["way"] == "slotted"]
    assert slotted["full_size_pages"] == {"letter": len(letter.pages), "a4": len(metric.pages)}


def test_a_metric_shop_reads_its_sheet_in_centimetres(client: TestClient) -> None:
    view = client.get("/api/shop").json()
    metric = {**view["shop"], "units": "cm", "fence_step": "1 mm"}
    client.put("/api/shop", json={"revision": view["revision"], "shop": metric})
    measured = part(shape=box(length="40", width="30", height="10"), weight="2", gap="0")
    key = saved(client, parts=[measured], extras=[])
    kept = client.get(f"/api/jobs/{key}").json()["job"]["parts"][0]
    assert kept["shape"]["length"] == "40 cm"
    assert kept["weight"] == "2 kg"
    text = words(client.get(f"/api/jobs/{key}/cut-sheet.pdf?way=tray").content)
    # 400 mm and one caliper of 3.97 mm go up to 404; walls 100 + 1.98 to 102: cut from 608.
    for figure in ("60.8", "40.4", "10.2", "Fence or mark, cm"):
        assert figure in text


@pytest.mark.parametrize("title", ["", 'Ü/ber "lang"\r\nX: y', "文字", "a" * 200])
def test_any_title_makes_a_sound_file_name(client: TestClient, title: str) -> None:
    key = saved(client, title=title)
    for form in ("pdf?way=tray", "dxf?way=tray", "svg?way=tray&blank=lid"):
        answer = client.get(f"/api/jobs/{key}/cut-sheet.{form}")
        assert answer.status_code == 200
        name = answer.headers["content-disposition"].partition("filename=")[2].strip('"')
        assert name
        assert all(c.isascii() and (c.isalnum() or c in "-.") for c in name)
    assert client.get(f"/api/jobs/{key}/file").status_code == 200


def test_both_blanks_lie_side_by_side_in_the_dxf_without_touching(client: TestClient) -> None:
    drawing = ezdxf.read(io.StringIO(client.get(f"/api/jobs/{saved(client)}/cut-sheet.dxf?way=tray").text))
    cuts = drawing.modelspace().query('LINE[layer=="CUT"]')
    assert len(cuts) == 24  # two blanks of twelve edges
    xs = sorted(line.dxf.start.x for line in cuts)
    assert max(b - a for a, b in pairwise(xs)) > 50


def test_a_blank_there_is_not_is_refused_with_those_there_are(client: TestClient) -> None:
    answer = client.get(f"/api/jobs/{saved(client)}/cut-sheet.svg?way=tray&blank=case")
    assert answer.status_code == 422
    assert "tray, lid" in answer.json()["detail"]


def test_the_thumb_school_prints_its_second_score_and_its_warning(client: TestClient) -> None:
    key = saved(client, school="thumb", board="B")
    text = words(client.get(f"/api/jobs/{key}/cut-sheet.pdf?way=tray").content)
    assert "second score, inner face" in text
    assert "half a board below the top" in text
