"""Every whole number that is taken has its bounds, so that none is kept that nothing else can hold."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from typing import Any

import pytest
from fastapi.testclient import TestClient

from fardo.schemas import documents
from tests.made_up import job

MOST = 2**53  # beyond it a browser's own numbers are not whole any more


def integers(schema: Any, path: str = "") -> Iterator[tuple[str, dict[str, Any]]]:
    """Every whole number in a schema, with where it stands."""
    if isinstance(schema, dict):
        if schema.get("type") == "integer":
            yield path, schema
        for name, value in schema.items():
            if name not in ("example", "examples", "default"):
                yield from integers(value, f"{path}/{name}")
    elif isinstance(schema, list):
        for n, value in enumerate(schema):
            yield from integers(value, f"{path}/{n}")


def taken(document: dict[str, Any]) -> dict[str, Any]:
    """What requests may hold: bodies and parameters, and all they refer to."""
    found: dict[str, Any] = {}
    waiting: list[Any] = []
    for path, operations in document["paths"].items():
        for method, operation in operations.items():
            found[f"{method} {path}"] = [operation.get("requestBody"), operation.get("parameters")]
    waiting.append(found)
    named: dict[str, Any] = {}
    while waiting:
        for name in re.findall(r'"#/components/schemas/([^"]+)"', json.dumps(waiting.pop())):
            if name not in named:
                named[name] = document["components"]["schemas"][name]
                waiting.append(named[name])
    return {**found, **named}


def test_every_whole_number_has_its_bounds(client: TestClient) -> None:
    schemas = [
        taken(client.get("/api/openapi.json").json()),
        *(file for name, file in documents().items() if "formats" in name),
    ]
    found = [one for schema in schemas for one in integers(schema)]
    assert len(found) > 40
    unbounded = [
        path for path, schema in found
        if not (
            schema.get("minimum", schema.get("exclusiveMinimum", -MOST - 1)) >= -MOST
            and schema.get("maximum", schema.get("exclusiveMaximum", MOST + 1)) <= MOST
        ) and "const" not in schema and "enum" not in schema
    ]  # fmt: skip
    assert unbounded == []


@pytest.mark.parametrize("number", [2**63, -(2**63) - 1, 10**400])
def test_a_number_beyond_64_bits_is_refused_wherever_it_stands(client: TestClient, number: int) -> None:
    chosen = {"way": "tray", "board": "C", "inside_mm": [number, 1, 1]}
    laid = {"name": "x", "number": number, "at_mm": [0, 0, 0], "turn": [[1, 0, 0], [0, 1, 0], [0, 0, 1]], "goes_in": 1}
    price = {"carrier": "x", "service": "y", "programme": "z", "amount": "1", "currency": "USD",
             "billed_weight_g": number, "tariff": number}  # fmt: skip
    for changes in (
        {"chosen": {"box": chosen}}, {"chosen": {"price": price}}, {"parcels_at_most": number},
        {"arrangement": {"inside_mm": [1, 1, number], "placements": [laid], "extras": []}},
        {"parts": [{"count": number}]}, {"parts": [{"weight": number}]},
    ):  # fmt: skip
        answer = client.post(
            "/api/jobs", content=json.dumps(job(**changes)), headers={"Content-Type": "application/json"}
        )
        assert answer.status_code == 422, changes
        assert answer.json()["field"]
    assert client.get("/api/jobs").status_code == 200


@pytest.mark.parametrize("text", ['"\\ud800"', '"a\\udfffb"', "NaN", "1e999", "-Infinity", '"\\u0000"'])
def test_what_no_text_and_no_number_is_comes_to_a_sentence(client: TestClient, text: str) -> None:
    for path in ('{"title": %s}', '{"parts": [{"name": %s}]}', '{"parts": [{"weight": %s}]}', '{"answers": {"x": %s}}',
                 '{"chosen": {"box": {"way": "tray", "board": "C", "inside_mm": [%s, 1, 1]}}}'):  # fmt: skip
        content = (path % text).replace("{", '{"format": "fardo-job/1", ', 1)
        for url in ("/api/jobs", "/api/jobs/file"):
            answer = client.post(url, content=content, headers={"Content-Type": "application/json"})
            assert answer.status_code in (201, 422), answer.text
            if answer.status_code == 422:
                assert answer.json()["detail"]
    assert client.get("/api/jobs").status_code == 200
