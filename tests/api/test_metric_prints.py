"""What a shop that measures in centimetres prints: no inch, pound or foot but where a sentence says both units."""

from __future__ import annotations

import io
import re

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from fardo.files.metric_start import metric_shop

PRINTS = (
    "packing.pdf", "papers.pdf", "label.pdf", "bag-labels.pdf", "put-together.pdf", "corner-guards.pdf",
    "inner-boxes.pdf",
)  # fmt: skip
# A figure in inches, pounds or feet, unless millimetres stand behind it; "36 x 36 x 46 in bag 107" is a box in a bag.
_OTHER_UNIT = re.compile(r"(?<![\d/])\d[\d/ ]* (?:in|lb|oz|ft|sq ft|cu in)\b(?! \(\d+ mm\))(?! bag)|\d\"")


@pytest.fixture
def metric(client: TestClient) -> TestClient:
    view = client.get("/api/shop").json()
    kept = {name: view["shop"][name] for name in ("name", "town", "postcode", "return_address", "channels")}
    shop = {**metric_shop().model_dump(mode="json", by_alias=True), **kept}
    client.put("/api/shop", json={"revision": view["revision"], "shop": shop}).raise_for_status()
    return client


def words_of(client: TestClient, address: str) -> str:
    answer = client.get(address)
    if answer.status_code != 200:
        return ""
    return " ".join(page.extract_text().replace("\n", " ") for page in PdfReader(io.BytesIO(answer.content)).pages)


def test_every_print_of_every_job_is_in_centimetres_and_kilos(metric: TestClient) -> None:
    found: dict[str, list[str]] = {}
    printed = 0
    for row in metric.get("/api/jobs").json()["jobs"]:
        job = metric.get(f"/api/jobs/{row['id']}").json()["job"]
        ways = [way["way"] for way in metric.post("/api/work-out", json={"job": job}).json()["ways"]]
        for name in (*PRINTS, *(f"cut-sheet.pdf?way={way}" for way in ways)):
            words = words_of(metric, f"/api/jobs/{row['id']}/{name}")
            printed += words != ""
            if odd := [words[max(0, one.start() - 30) : one.end() + 15] for one in _OTHER_UNIT.finditer(words)]:
                found[f"{row['title']}: {name}"] = odd
    assert printed > 80
    assert found == {}


def test_the_check_itself_tells_an_inch_from_a_box_in_a_bag() -> None:
    assert _OTHER_UNIT.search("cut it 10 1/2 in long")
    assert _OTHER_UNIT.search("weighs 4 lb")
    assert not _OTHER_UNIT.search("As it comes it is 18 1/8 in (460 mm) not long enough")
    assert not _OTHER_UNIT.search("tall 36 x 36 x 46 in bag 107 x 152")
