"""No figure on a screen or a print is finer than the tape shows: a sixteenth of an inch, or a millimetre."""

from __future__ import annotations

import io
import re
from collections.abc import Iterator
from typing import Any

import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from tests.made_up import job

THICKNESS = re.compile(r"(?:\d+/\d+|0\.\d+|[12]\.\d+)(?: x (?:\d+/\d+|0|0\.\d+))* (?:in|cm)")
FINER = re.compile(r"\d+/(?:32|64)\b|\d+\.\d\d+ cm\b")
ODD = {"length": "13 37/64", "width": "9 11/64", "height": "4 41/64"}


@pytest.fixture
def shop(client: TestClient) -> TestClient:
    return client


def texts(told: Any, under: str = "") -> Iterator[tuple[str, str]]:
    """Every text of an answer, with where it stands, but how thick something is: that is as it was measured."""
    if isinstance(told, dict):
        for name, value in told.items():
            yield from texts(value, f"{under}.{name}")
    elif isinstance(told, list):
        if under.endswith(".values") and len(told) == 2 and THICKNESS.fullmatch(str(told[1])):
            return
        for value in told:
            yield from texts(value, under)
    elif isinstance(told, str):
        yield under, re.sub(r"<[^>]*>", " ", told)


def too_fine(told: Any) -> list[tuple[str, str]]:
    return [(where, text[:120]) for where, text in texts(told) if FINER.search(text)]


def odd_jobs() -> dict[str, Any]:
    """Things whose measures are in sixty-fourths, wrapped, guarded and divided."""
    slab = {"name": "slab", "weight": "3 lb", "gap": "1/2 in", "shape": {"kind": "box", **ODD},
            "protect": [{"material": "corners"}, {"material": "bubble-large", "layers": 2}]}  # fmt: skip
    six = {"name": "spool", "count": 6, "weight": "6 oz", "gap": "1/4 in",
           "shape": {"kind": "cylinder", "diameter": "3 27/64", "length": "4 13/64"}}  # fmt: skip
    return {
        "guarded": job(parts=[slab], extras=[]),
        "divided": job(parts=[six], extras=[], inserts=[{"kind": "divider"}, {"kind": "pad", "where": "both"}]),
        "lined": job(parts=[slab], extras=[], inserts=[{"kind": "liner"}]),
    }


def every_answer(shop: TestClient) -> Iterator[tuple[str, Any]]:
    rows = shop.get("/api/jobs").json()["jobs"]
    jobs = {row["title"]: shop.get(f"/api/jobs/{row['id']}").json()["job"] for row in rows} | odd_jobs()
    for title, content in jobs.items():
        first = shop.post("/api/work-out", json={"job": content, "in_hand": ""}).json()
        for way in first["ways"]:
            yield (
                f"{title}, {way['way']}",
                shop.post("/api/work-out", json={"job": content, "in_hand": way["way"]}).json(),
            )


def test_no_figure_on_a_screen_is_finer_than_the_tape(shop: TestClient) -> None:
    found, seen = {}, 0
    for name, told in every_answer(shop):
        seen += 1
        if fine := too_fine(told):
            found[name] = fine[:4]
    assert seen > 60
    assert found == {}


def test_no_figure_of_a_metric_shop_is_finer_than_a_millimetre(shop: TestClient) -> None:
    view = shop.get("/api/shop").json()
    put = {"revision": view["revision"], "shop": {**view["shop"], "units": "cm", "fence_step": "1 mm"}}
    view = shop.put("/api/shop", json=put).json()
    assert view["shop"]["units"] == "cm"
    found = {name: fine[:4] for name, told in every_answer(shop) if (fine := too_fine(told))}
    assert found == {}


def test_no_figure_of_a_print_is_finer_than_the_tape(shop: TestClient) -> None:
    found, pages = {}, 0
    for title, content in odd_jobs().items():
        made = shop.post("/api/jobs", json=content)
        assert made.status_code == 201, made.text
        key = made.json()["id"]
        told = shop.post("/api/work-out", json={"job": content, "in_hand": ""}).json()
        prints = [f"cut-sheet.pdf?way={way['way']}" for way in told["ways"]] + ["packing.pdf"]
        prints += ["corner-guards.pdf"] if title == "guarded" else []
        for name in prints:
            answer = shop.get(f"/api/jobs/{key}/{name}")
            assert answer.status_code == 200, (name, answer.text)
            for page in PdfReader(io.BytesIO(answer.content)).pages:
                pages += 1
                if fine := FINER.findall(page.extract_text()):
                    found[f"{title}, {name}"] = fine
    assert pages > 20
    assert found == {}
